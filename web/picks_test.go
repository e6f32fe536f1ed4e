package web_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/plans/ask"
	"yokeswap/core/plans/begin"
	"yokeswap/web"
)

// A value that is cut out of a plan is answered in one press where it can be picked: the
// first answers offered are taken over HTTP, and the value is asked no more.
func TestWhatIsMissingIsPickedInOnePress(t *testing.T) {
	t.Parallel()
	for _, c := range []struct {
		quad, field string
		cut         []string
	}{
		{"quern", "next.feeds.airUnit", []string{"feeds"}},
		{"hopper", "next.feeds.receiver", []string{"feeds"}},
		{"wallower", "next.bay", []string{"bay"}},
		{"sluice", "next.ports", []string{"ports"}},
		{"hopper", "next.wires", []string{"wires", "harness"}},
		{"quern", "next.sticks", []string{"sticks"}},
		{"quern", "next.osd", []string{"osd"}},
	} {
		api := newClient(t, "")
		cutFromPlan(t, api, c.quad, c.cut)
		require.True(t, asksFor(t, api, c.quad, c.field), "%v is not asked", c)
		offered := picksFor(t, api, c.quad, c.field)
		assert.NotEmpty(t, offered.Picks, c)
		for i := range min(len(offered.Picks), 4) {
			cutFromPlan(t, api, c.quad, c.cut)
			view := picksFor(t, api, c.quad, c.field)
			patch, err := json.Marshal(view.Picks[i].Patch)
			require.NoError(t, err)
			body := fmt.Sprintf(`{"revision":%d,"patch":%s}`, view.Revision, patch)
			status, text := api.do("POST", "/api/quads/"+c.quad+"/next", body)
			require.Equal(t, 200, status, "%v %s: %s", c, view.Picks[i].Label, text)
			assert.False(t, asksFor(t, api, c.quad, c.field), "%v is still asked after %s", c, view.Picks[i].Label)
		}
	}
}

// Antennas on a piece of kit are put on by the set, each set that is offered, over HTTP.
func TestAntennasArePutOnInOnePress(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	picks := get[[]begin.AntennaPick](c, "/api/kit/visor-b-1/antennas")
	require.Greater(t, len(picks), 4)
	for _, p := range picks {
		status, text := c.do("POST", "/api/kit/visor-b-1/antennas", fmt.Sprintf(`{"key":%q}`, p.Key))
		require.Equal(t, 200, status, "%s: %s", p.Label, text)
		var kit struct {
			Antennas []string `json:"antennas"`
		}
		for _, e := range get[web.Shelf](c, "/api/shelf?kind=kit").Entries {
			if e.ID == "visor-b-1" {
				again, err := json.Marshal(e.Entry)
				require.NoError(t, err)
				require.NoError(t, json.Unmarshal(again, &kit))
			}
		}
		assert.Len(t, kit.Antennas, 4, p.Label)
	}
	status, text := c.do("POST", "/api/kit/visor-b-1/antennas", `{"key":"model:none"}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "nothing was changed")
	status, _ = c.do("POST", "/api/kit/nobody/antennas", `{"key":"box"}`)
	assert.Equal(t, 422, status)
	status, _ = c.do("GET", "/api/kit/nobody/antennas", "")
	assert.Equal(t, 404, status)
}

// cutFromPlan takes fields out of the plan of a quad, as its form would.
func cutFromPlan(t *testing.T, c client, quad string, fields []string) {
	t.Helper()
	var shelf web.Shelf
	_, text := c.do("GET", "/api/shelf?kind=quad", "")
	require.NoError(t, json.Unmarshal([]byte(text), &shelf))
	at := slices.IndexFunc(shelf.Entries, func(e web.ShelfEntry) bool { return e.ID == quad })
	entry, err := json.Marshal(shelf.Entries[at].Entry)
	require.NoError(t, err)
	var q struct {
		rest map[string]any
		Next map[string]any `json:"next"`
	}
	require.NoError(t, json.Unmarshal(entry, &q.rest))
	require.NoError(t, json.Unmarshal(entry, &q))
	for _, field := range fields {
		delete(q.Next, field)
	}
	q.rest["next"] = q.Next
	body, err := json.Marshal(q.rest)
	require.NoError(t, err)
	status, text := c.do("PUT", fmt.Sprintf("/api/entries/quad/%s?revision=%d", quad, shelf.Entries[at].Revision),
		string(body))
	require.Equal(t, 200, status, text)
}

func picksFor(t *testing.T, c client, quad, field string) (view web.PicksView) {
	t.Helper()
	_, text := c.do("GET", "/api/quads/"+quad+"/picks?field="+field, "")
	require.NoError(t, json.Unmarshal([]byte(text), &view), text)
	return view
}

func asksFor(t *testing.T, c client, quad, field string) bool {
	t.Helper()
	var view web.AskView
	_, text := c.do("GET", "/api/quads/"+quad+"/ask", "")
	require.NoError(t, json.Unmarshal([]byte(text), &view), text)
	all := slices.Concat(view.Next, view.Later, view.Moot)
	return slices.ContainsFunc(all, func(q ask.Question) bool { return q.Field == field })
}
