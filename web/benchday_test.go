package web_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/bench"
	"yokeswap/web"
)

// A day with two quads over HTTP: what is ticked is not in it, what is not a quad with a plan or twice
// the same is refused in words, and with two at work it is no longer than with one.
func TestADayWithTwoQuads(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	at := func(query string) web.DayView { return get[web.DayView](c, "/api/bench-day"+query) }
	empty := at("")
	assert.Nil(t, empty.Plan)
	assert.Len(t, empty.Quads, 7)
	both := at("?one=quern&other=hopper").Plan
	require.NotNil(t, both)
	count := func() (n int) {
		for _, s := range at("?one=quern&other=hopper").Plan.Spells {
			n += len(s.Steps)
		}
		return n
	}
	steps := len(get[bench.Run](c, "/api/quads/quern/bench").Steps) + len(get[bench.Run](c, "/api/quads/hopper/bench").Steps)
	assert.Equal(t, steps, count())
	status, text := c.do("POST", "/api/quads/quern/bench", `{"step":"props-off","done":true}`)
	require.Equal(t, 200, status, text)
	assert.Equal(t, steps-1, count())
	assert.Less(t, at("?one=quern&other=hopper&hands=2").Plan.Minutes, both.Minutes)
	for query, want := range map[string]int{"?one=quern&other=quern": 422, "?one=quern&other=nix": 404, "?one=quern&other=brayer": 409, "?one=quern&other=hopper&hands=3": 422} {
		status, text := c.do("GET", "/api/bench-day"+query, "")
		assert.Equal(t, want, status, text)
	}
}
