package web_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/web"
)

// Two units take turns: planned, finished and turned back, each over the API; what stands
// in the way is named, and nothing is changed then.
func TestUnitsTakeTurns(t *testing.T) {
	c := newClient(t, "")
	look := func() web.TurnsView { return get[web.TurnsView](c, "/api/quads/brayer/turns") }
	do := func(how, turn string) (int, string) {
		return c.do("POST", "/api/quads/brayer/turns",
			fmt.Sprintf(`{"revision":%d,"do":%q,"turn":%q}`, look().Revision, how, turn))
	}
	finish := func() {
		t.Helper()
		status, text := c.do("POST", "/api/quads/brayer/finish", fmt.Sprintf(`{"revision":%d,"anyway":true}`, look().Revision))
		require.Equal(t, 200, status, text)
	}
	require.Len(t, look().Turns, 1)
	assert.Equal(t, "Aldine One Compact", look().Turns[0].Label)
	assert.Empty(t, look().Planned)

	for _, bad := range []struct {
		how, turn string
		status    int
		says      string
	}{
		{"keep", "", 409, "nothing is planned for Brayer"},
		{"plan", "turn-9", 409, "no fit"},
		{"leave", "turn-9", 409, "no fit"},
		{"spin", "turn-1", 422, "expected value to be one of"},
	} {
		status, text := do(bad.how, bad.turn)
		assert.Equal(t, bad.status, status, bad.how)
		assert.Contains(t, text, bad.says)
	}
	status, _ := c.do("GET", "/api/quads/nobody/turns", "")
	assert.Equal(t, 404, status)

	status, text := do("plan", "turn-1")
	require.Equal(t, 200, status, text)
	assert.True(t, look().Turns[0].Planned)
	_, sheet := c.do("GET", "/api/quads/brayer/bench", "")
	assert.Contains(t, sheet, "Re-pin the Two pigtail")
	finish()
	assert.Equal(t, "Aldine One Compact", look().Now)
	assert.Equal(t, "Aldine Two", look().Turns[0].Label)
	assert.True(t, look().Turns[0].Flown)

	// Another plan stands in the way of a turn, and is not lost for it.
	view := get[web.QuadView](c, "/api/quads/brayer")
	status, text = c.do("POST", "/api/quads/brayer/next", fmt.Sprintf(`{"revision":%d,"patch":{"pack":"tallow-4s"}}`, view.Revision))
	require.Equal(t, 200, status, text)
	assert.NotEmpty(t, look().Planned)
	status, text = do("plan", "turn-1")
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "a swap is planned for Brayer")
	status, text = do("drop", "")
	require.Equal(t, 200, status, text)

	status, text = do("plan", "turn-1")
	require.Equal(t, 200, status, text)
	finish()
	assert.Equal(t, "Aldine Two", look().Now)
	_, fleet := c.do("GET", "/api/export/fleet", "")
	assert.Contains(t, fleet, `"inTurn"`)
	status, text = do("leave", "turn-1")
	require.Equal(t, 200, status, text)
	assert.Empty(t, look().Turns)
	stale, _ := c.do("POST", "/api/quads/brayer/turns", `{"revision":1,"do":"drop"}`)
	assert.Equal(t, 409, stale)
}
