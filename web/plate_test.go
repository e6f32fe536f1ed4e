package web_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/format/drawing"
	"yokeswap/web"
)

// A plate read from a drawing and saved with its frame lets a part through its opening that the full block
// did not; a drawing that is none, and an outline that cannot be, say where and change nothing.
func TestAPlateReadFromADrawing(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	line := func(words ...string) string { return strings.Join(words, "\n") + "\n" }
	square := func(x0, y0, x1, y1 string) string {
		return line("0", "LWPOLYLINE", "70", "1", "10", x0, "20", y0, "10", x1, "20", y0, "10", x1, "20", y1, "10", x0, "20", y1)
	}
	file := line("0", "SECTION", "2", "HEADER", "9", "$INSUNITS", "70", "4", "0", "ENDSEC", "0", "SECTION", "2", "ENTITIES") +
		square("0", "0", "106", "44") + square("12", "2", "62", "42") + line("0", "ENDSEC", "0", "EOF")
	status, text := c.do("POST", "/api/drawings/plate?forward=right&rearMM=-62", file, "Content-Type", "text/plain")
	require.Equal(t, 200, status, text)
	var drawn drawing.Drawn
	require.NoError(t, json.Unmarshal([]byte(text), &drawn))
	assert.InDelta(t, 44, float64(drawn.ToXMM), 1e-9)

	// The unit of Hopper lies under the top plate; put 26 mm up it is in it.
	revision := get[web.QuadView](c, "/api/quads/hopper").Revision
	status, text = post(c, "hopper", revision, `{"place":{"part":"airUnit","xMM":-30,"yMM":0,"zMM":26}}`)
	require.Equal(t, 200, status, text)
	struck := func() bool {
		for _, b := range get[web.QuadView](c, "/api/quads/hopper").Mount.Room.Blocks {
			if b.Part == "airUnit" {
				return b.Clashes
			}
		}
		t.Fatal("the unit has no place")
		return false
	}
	require.True(t, struck())

	save := func(change func(top map[string]any)) (int, string) {
		list := get[web.Shelf](c, "/api/shelf").Entries
		at := slices.IndexFunc(list, func(e web.ShelfEntry) bool { return e.ID == "hackle-duct" })
		text, err := json.Marshal(list[at].Entry)
		require.NoError(t, err)
		var entry map[string]any
		require.NoError(t, json.Unmarshal(text, &entry))
		change(entry["plates"].([]any)[1].(map[string]any))
		body, err := json.Marshal(entry)
		require.NoError(t, err)
		return c.do("PUT", fmt.Sprintf("/api/entries/frame/hackle-duct?revision=%d", list[at].Revision), string(body))
	}
	status, text = save(func(top map[string]any) { top["outline"], top["openings"] = drawn.Outline, drawn.Openings })
	require.Less(t, status, 300, text)
	assert.False(t, struck(), "through the opening")

	for _, wrong := range []struct{ path, body, says string }{
		{"forward=right", "0\nSECTION\n2", "ends before the value"},
		{"forward=sideways", file, "forward"},
		{"forward=up&rearMM=NaN", file, "rearMM"},
		{"forward=up", strings.Repeat("0\nLINE\n", 10), "nothing closed is drawn"},
	} {
		status, text := c.do("POST", "/api/drawings/plate?"+wrong.path, wrong.body, "Content-Type", "text/plain")
		assert.Equal(t, 422, status, text)
		assert.Contains(t, text, wrong.says)
	}
	status, text = save(func(top map[string]any) { top["toXMM"] = 50 })
	assert.Equal(t, 422, status, text)
	assert.Contains(t, text, "front edge at 50 mm, it reaches from −62 mm to 44 mm")
	assert.Contains(t, text, "plates[1].outline")
}
