package web_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/sheet"
	"yokeswap/demo"
	"yokeswap/format/inwords"
	"yokeswap/web"
)

// retyped is an entry of which nothing is known but its name, with everything taken that the
// program reads in its sheet; false where the sheet names what is not there yet, or what the
// trade shelf has in its place.
func (c client) retyped(kind, id, text string) (entry map[string]any, ok bool) {
	c.t.Helper()
	status, got := c.do("POST", "/api/read/"+kind, text, "Content-Type", "text/plain")
	require.Equal(c.t, 200, status, got)
	var reading sheet.Reading
	require.NoError(c.t, json.Unmarshal([]byte(got), &reading))
	entry = map[string]any{"id": id}
	if reading.Name != "" {
		entry["name"] = reading.Name
	}
	for _, f := range reading.Found {
		if strings.Contains(f.Note, "is on your shelf") {
			return nil, false
		}
		if strings.Contains(fmt.Sprint(f.Value), "trade-") {
			return nil, false
		}
		inwords.Put(entry, f.Field, f.Value)
	}
	return entry, true
}

// All gear of the demo, written as sheets and typed in again off them, gives its quads the
// verdicts they have.
func TestTheDemoRetypedFromItsOwnSheets(t *testing.T) {
	from, to := newClient(t, ""), emptyClient(t)
	left := slices.DeleteFunc(get[web.Shelf](from, "/api/shelf").Entries, func(e web.ShelfEntry) bool { return e.Set == "" })
	require.Len(t, left, 129)
	for len(left) > 0 {
		before := len(left)
		left = slices.DeleteFunc(left, func(e web.ShelfEntry) bool {
			status, text := from.do("GET", "/api/entries/"+e.Kind+"/"+e.ID+"/sheet", "")
			require.Equal(t, 200, status, text)
			entry, ok := to.retyped(e.Kind, e.ID, text)
			if !ok {
				return false
			}
			body, err := json.Marshal(entry)
			require.NoError(t, err)
			status, text = to.do("PUT", fmt.Sprintf("/api/entries/%s/%s?revision=0", e.Kind, e.ID), string(body))
			require.Equal(t, 200, status, "%s: %s", e.ID, text)
			return true
		})
		require.Less(t, len(left), before, "what is left names itself in a circle")
	}
	fleet, err := demo.Files.ReadFile(demo.Names[1])
	require.NoError(t, err)
	base := get[web.Shelf](to, "/api/shelf").Revision
	status, text := to.do("POST", fmt.Sprintf("/api/import?apply=true&base=%d", base), string(fleet))
	require.Equal(t, 200, status, text)
	for _, e := range get[web.Shelf](from, "/api/shelf?kind=quad").Entries {
		assert.Equal(t, get[web.QuadView](from, "/api/quads/"+e.ID).Judgement,
			get[web.QuadView](to, "/api/quads/"+e.ID).Judgement, e.ID)
	}
	status, _ = from.do("GET", "/api/entries/airUnit/quern/sheet", "")
	assert.Equal(t, 404, status)
}
