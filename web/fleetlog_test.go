package web_test

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/web"
)

// The log of the whole fleet is searched, filtered and taken along; a day is asked for, with
// what has changed since; a change of it is taken back.
func TestTheLogOfTheFleetAndADay(t *testing.T) {
	c := newClient(t, "")
	today := time.Now().Format(time.DateOnly)
	view := get[web.QuadView](c, "/api/quads/wallower")
	status, text := c.do("POST", "/api/quads/wallower/next", `{"revision":`+fmt.Sprint(view.Revision)+`,"patch":{"pack":"tallow-4s"}}`)
	require.Equal(t, http.StatusOK, status, text)
	status, text = c.do("POST", "/api/quads/wallower/log", `{"says":"=smelled of solder"}`)
	require.Equal(t, http.StatusOK, status, text)

	log := get[web.FleetLog](c, "/api/log?find=SOLDER")
	require.Len(t, log.Lines, 1)
	assert.Equal(t, "wallower", log.Lines[0].Quad)
	log = get[web.FleetLog](c, "/api/log?find=Wallower&kind=quad&count=1")
	require.Len(t, log.Lines, 1)
	assert.Equal(t, "planned: quad Wallower", strings.ToLower(log.Lines[0].Says[:7])+log.Lines[0].Says[7:])
	assert.NotZero(t, log.Before, "there is an older one")
	assert.Empty(t, get[web.FleetLog](c, "/api/log?to=2020-01-01").Lines)
	status, text = c.do("GET", "/api/log?from=soon", "")
	assert.Equal(t, http.StatusUnprocessableEntity, status, text)

	status, text = c.do("GET", "/api/log.csv?quad=wallower", "")
	require.Equal(t, http.StatusOK, status)
	rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, "'=smelled of solder", rows[len(rows)-1][5], "no spreadsheet takes it for a formula")
	status, text = c.do("GET", "/api/log.jsonl?quad=wallower", "")
	require.Equal(t, http.StatusOK, status)
	lines := strings.Split(strings.TrimSpace(text), "\n")
	require.Len(t, lines, len(rows)-1)
	var last web.LogLine
	require.NoError(t, json.Unmarshal([]byte(lines[len(lines)-1]), &last))
	assert.Equal(t, "=smelled of solder", last.Says)

	then := get[web.AsOf](c, "/api/asof?day=2020-01-01")
	assert.Empty(t, then.Quads, "there was nothing yet")
	then = get[web.AsOf](c, "/api/asof?day="+today)
	require.Len(t, then.Quads, 9)
	assert.Empty(t, then.Changed)
	for _, q := range then.Quads {
		assert.Equal(t, q.Level, q.Now, q.Name)
	}
	between := get[web.AsOf](c, "/api/asof?day=2020-01-01&than="+today)
	assert.Greater(t, len(between.Changed), 100, "all of the demo is new since")

	change := get[web.FleetLog](c, "/api/log?quad=wallower&kind=changes&count=1").Lines[0].Change
	status, text = c.do("POST", "/api/undo", `{"change":`+fmt.Sprint(change)+`}`)
	require.Equal(t, http.StatusOK, status, text)
	log = get[web.FleetLog](c, "/api/log?quad=wallower&kind=changes")
	assert.Contains(t, log.Lines[0].Says, "took back", "a counter-event, and the past stays")
	assert.Equal(t, change, log.Lines[1].Change)
}

// From a swap that was finished the way back is a plan like any other: finished, the quad
// flies what it flew, on the wires it had.
func TestTheWayBackFromAFinishedSwap(t *testing.T) {
	c := newClient(t, "")
	before := get[web.QuadView](c, "/api/quads/hopper")
	finish := func() {
		view := get[web.QuadView](c, "/api/quads/hopper")
		status, text := c.do("POST", "/api/quads/hopper/finish", fmt.Sprintf(`{"revision":%d,"anyway":true}`, view.Revision))
		require.Equal(t, http.StatusOK, status, text)
	}
	quadOf := func() (q fleet.Quad) {
		for _, e := range get[web.Shelf](c, "/api/shelf?kind=quad").Entries {
			if e.ID == "hopper" {
				body, err := json.Marshal(e.Entry)
				require.NoError(t, err)
				require.NoError(t, json.Unmarshal(body, &q))
			}
		}
		return q
	}
	was := quadOf()
	finish()
	assert.NotEqual(t, was.Now.AirUnit, quadOf().Now.AirUnit)
	var event int64
	for _, l := range get[web.FleetLog](c, "/api/log?quad=hopper&kind=quad").Lines {
		if l.Back {
			event = l.ID
		}
	}
	require.NotZero(t, event)
	revision := get[web.QuadView](c, "/api/quads/hopper").Revision
	status, text := c.do("POST", "/api/quads/quern/back", fmt.Sprintf(`{"revision":1,"event":%d}`, event))
	assert.Equal(t, http.StatusNotFound, status, text)
	status, text = c.do("POST", "/api/quads/hopper/back", fmt.Sprintf(`{"revision":%d,"event":%d}`, revision, event))
	require.Equal(t, http.StatusOK, status, text)
	back := get[web.QuadView](c, "/api/quads/hopper")
	assert.NotEmpty(t, back.Pins.Off.Wires, "what was put on comes off")
	assert.NotEqual(t, before.Judgement, back.Judgement)
	finish()
	assert.Equal(t, was.Now, quadOf().Now)
}
