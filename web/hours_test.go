package web_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/hours"
	"yokeswap/web"
)

// Outings are noted over HTTP and go to the unit that was on the quad that day; a crash asks for a look until
// it was taken; all of it can be taken back, and what is no day or no time is refused.
func TestHoursAndCrashesAreNoted(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	unitOf := func(view web.HoursView, kit string) *hours.UnitHours {
		at := slices.IndexFunc(view.Units, func(u hours.UnitHours) bool { return u.Kit == kit })
		if at < 0 {
			return nil
		}
		return &view.Units[at]
	}
	require.Nil(t, unitOf(get[web.HoursView](c, "/api/hours"), "one-quern"))
	note := func(quad, body string) (int, string, web.HoursView) {
		status, text := c.do("POST", "/api/quads/"+quad+"/outings", body)
		var view web.HoursView
		if status == 200 {
			require.NoError(t, json.Unmarshal([]byte(text), &view))
		}
		return status, text, view
	}
	today := time.Now().Format(time.DateOnly)
	status, text, _ := note("quern", `{"on":"","minutes":8.5,"crash":false,"says":" calm "}`)
	require.Equal(t, 200, status, text)
	status, text, view := note("quern", `{"on":"`+today+`","crash":true,"says":""}`)
	require.Equal(t, 200, status, text)
	unit := unitOf(view, "one-quern")
	require.NotNil(t, unit)
	assert.Equal(t, []int{2, 1, 1}, []int{unit.Flights, unit.Crashes, unit.Untimed})
	assert.Equal(t, "calm", unit.Lines[0].Says+unit.Lines[1].Says)

	// A day before the fleet was written down: nobody knows what flew.
	status, text, view = note("quern", `{"on":"2020-01-02","minutes":3,"crash":false,"says":""}`)
	require.Equal(t, 200, status, text)
	require.NotNil(t, unitOf(view, ""))
	assert.InDelta(t, 3, unitOf(view, "").Minutes, 0)

	crash := func() (n int) {
		for _, open := range get[web.TasksView](c, "/api/tasks").Open {
			if open.Quad == "quern" && open.Due == today {
				assert.Contains(t, open.Says, "after the crash of "+today)
				n++
			}
		}
		return n
	}
	assert.Equal(t, 1, crash())
	status, text = c.do("POST", "/api/quads/quern/outings/1/looked", "")
	require.Equal(t, 200, status, text)
	assert.Zero(t, crash())
	changes := get[web.Changes](c, "/api/changes").Changes
	require.NotEmpty(t, changes)
	assert.Contains(t, fmt.Sprint(changes[0]), "ooked over after a crash")
	status, text = c.do("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, changes[0].ID))
	require.Less(t, status, 300, text)
	assert.Equal(t, 1, crash(), "taken back")

	for body, says := range map[string]string{
		`{"on":"2026-13-01","crash":false,"says":""}`:            "expected a day",
		`{"on":"2999-01-01","crash":false,"says":""}`:            "up to today",
		`{"on":"","minutes":0,"crash":false,"says":""}`:          "minutes above 0",
		`{"on":"","minutes":90000,"crash":false,"says":""}`:      "1440 at most",
		`{"on":"","minutes":"long","crash":false,"says":"fine"}`: "minutes",
	} {
		status, text, _ := note("quern", body)
		assert.Equal(t, 422, status, text)
		assert.Contains(t, text, says)
	}
	status, _, _ = note("nix", `{"on":"","crash":false,"says":""}`)
	assert.Equal(t, 404, status)
	for _, at := range []string{"0", "9", "-1"} {
		status, text = c.do("POST", "/api/quads/quern/outings/"+at+"/looked", "")
		assert.Equal(t, 404, status, text)
	}
	require.Equal(t, 2, unitOf(get[web.HoursView](c, "/api/hours"), "one-quern").Flights)

	// A piece of kit that has flown is not kept from going by that: what it has flown stays.
	body := `{"id":"old-one","name":"Old One","model":"aldine-one"}`
	status, text = c.do("PUT", "/api/entries/kit/old-one?revision=0", body)
	require.Equal(t, 200, status, text)
	list := get[web.Shelf](c, "/api/shelf?kind=quad").Entries
	at := slices.IndexFunc(list, func(e web.ShelfEntry) bool { return e.ID == "damsel" })
	whole, err := json.Marshal(list[at].Entry)
	require.NoError(t, err)
	var entry map[string]any
	require.NoError(t, json.Unmarshal(whole, &entry))
	entry["outings"] = []any{map[string]any{"on": "2026-05-12", "airUnit": "old-one", "minutes": 20}}
	whole, err = json.Marshal(entry)
	require.NoError(t, err)
	status, text = c.do("PUT", fmt.Sprintf("/api/entries/quad/damsel?revision=%d", list[at].Revision), string(whole))
	require.Less(t, status, 300, text)
	list = get[web.Shelf](c, "/api/shelf?kind=kit").Entries
	at = slices.IndexFunc(list, func(e web.ShelfEntry) bool { return e.ID == "old-one" })
	status, text = c.do("DELETE", fmt.Sprintf("/api/entries/kit/old-one?revision=%d", list[at].Revision), "")
	require.Less(t, status, 300, text)
	gone := unitOf(get[web.HoursView](c, "/api/hours"), "old-one")
	require.NotNil(t, gone)
	assert.Equal(t, "old-one", gone.Name)
	assert.InDelta(t, 20, gone.Minutes, 1e-9)
}
