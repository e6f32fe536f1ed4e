package web_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/prove"
	"yokeswap/web"
)

// A recording is kept with a flight as it came, its columns are told once, spots are marked
// and what was lowest there is read off; what is none is refused and nothing is kept.
func TestARecordingIsKeptAndReadOff(t *testing.T) {
	c := newClient(t, "")
	const at = "/api/flights/whip-2026-05-12/recordings"
	file := "t (s);down;up;away (m)\n" // names that tell nothing
	for i := range 100 {
		file += fmt.Sprintf("%d;%d;%d,5;%d\n", i, 20+i%7, 30-i%20, 3*i)
	}
	file = strings.Replace(file, "50;21;", "50;2;", 1)
	file = strings.Replace(file, "t (s)", "time (s)", 1)
	keep := func(name, body string) (web.RecordingView, int, string) {
		status, text := c.do("POST", at+"?name="+name, body, "Content-Type", "application/octet-stream")
		var view web.RecordingView
		if status == http.StatusOK {
			require.NoError(t, json.Unmarshal([]byte(text), &view))
		}
		return view, status, text
	}
	view, status, text := keep("log.csv", file)
	require.Equal(t, http.StatusOK, status, text)
	assert.Equal(t, []string{"down", "up", "away"}, []string{view.Columns[0].Name, view.Columns[1].Name, view.Columns[2].Name})
	assert.Equal(t, prove.Means{prove.Distance: "away"}, view.Means, "nobody has said which is the bit rate")
	assert.Empty(t, view.Worst)

	one := fmt.Sprintf("%s/%d", at, view.ID)
	status, text = c.do("PUT", one, `{"part":0,"means":{"bit-rate":"down","distance":"away"},
		"marks":[{"spot":"ridge","pass":1,"part":0,"fromS":45,"toS":55}]}`)
	require.Equal(t, http.StatusOK, status, text)
	view = get[web.RecordingView](c, one)
	require.Len(t, view.Marks, 1)
	assert.Equal(t, 2.0, *view.Marks[0].Lowest)
	require.NotEmpty(t, view.Worst)
	assert.Equal(t, 2.0, view.Worst[0].Value)
	assert.Equal(t, 50.0, view.Worst[0].AtS)
	assert.NotEmpty(t, view.Over, "bit rate over distance")

	again, _, _ := keep("second.csv", file)
	assert.Equal(t, "down", again.Means[prove.BitRate], "told once, remembered")
	assert.Empty(t, again.Marks)

	for body, want := range map[string]string{
		`{"part":0,"means":{"bit-rate":"moon"},"marks":[]}`:                                    "no column",
		`{"part":0,"means":{},"marks":[{"spot":"moon","pass":1,"part":0,"fromS":1,"toS":2}]}`:  "no spot",
		`{"part":0,"means":{},"marks":[{"spot":"ridge","pass":1,"part":4,"fromS":1,"toS":2}]}`: "no stretch",
		`{"part":0,"means":{},"marks":[{"spot":"ridge","pass":1,"part":0,"fromS":9,"toS":2}]}`: "no stretch",
	} {
		status, text = c.do("PUT", one, body)
		assert.Equal(t, http.StatusUnprocessableEntity, status, body)
		assert.Contains(t, text, want)
	}
	before := len(get[[]web.RecordingLine](c, at))
	for _, bad := range []string{"hello", "\x89PNG\x00", "time,rate\nsoon,1\n"} {
		_, status, text = keep("bad.srt", bad)
		assert.Equal(t, http.StatusUnprocessableEntity, status, text)
		assert.Contains(t, text, "Nothing was kept")
	}
	assert.Len(t, get[[]web.RecordingLine](c, at), before)

	status, _ = c.do("POST", "/api/flights/whip-2026-05-12/invent", "{}")
	require.Equal(t, http.StatusOK, status)
	status, _ = c.do("DELETE", one, "")
	assert.Equal(t, http.StatusNoContent, status)
	status, _ = c.do("GET", one, "")
	assert.Equal(t, http.StatusNotFound, status)
	_, status, _ = keep("x", strings.Repeat("x", 33<<20))
	assert.Equal(t, http.StatusRequestEntityTooLarge, status)
}

// What the invented recorder writes says at each spot what was read there.
func TestTheInventedRecordingSaysWhatWasRead(t *testing.T) {
	c := newClient(t, "")
	status, text := c.do("POST", "/api/flights/whip-2026-05-12/invent", "{}")
	require.Equal(t, http.StatusOK, status, text)
	var view web.RecordingView
	require.NoError(t, json.Unmarshal([]byte(text), &view))
	assert.Len(t, view.Means, 4)
	assert.Empty(t, view.Notes)
	lowest := 100.0
	for _, p := range view.Curves[0].Points {
		lowest = min(lowest, p.Low)
	}
	assert.InDelta(t, 10.1, lowest, 1e-9, "as it was read behind the ridge")
}
