package bench_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/internal/builds"
)

// A camera that is exchanged alone has its step, there and back; one that stays has none,
// and nothing else is taken apart for it.
func TestACameraIsExchanged(t *testing.T) {
	st := builds.Demo()
	sheet := func(now, next string) (titles string) {
		q, ok := st.Fleet.Quad("brayer")
		require.True(t, ok)
		plan := q.Now.Clone()
		q.Now.Camera, plan.Camera = now, next
		q.Next = &plan
		c := fleet.NewCase(st.Library(), fleet.NewIndex(st.Fleet), q)
		for _, step := range bench.NewSheet(c, swap.Judge(c), "", "").Steps {
			titles += step.Title + "\n"
		}
		return titles
	}
	on := sheet("", "squint-14")
	assert.Contains(t, on, "Put the Squint 14 on the Aldine Two\n")
	assert.NotContains(t, on, "Take out the")
	assert.Contains(t, sheet("squint-14", ""), "Put its own camera back on the Aldine Two\n")
	assert.False(t, strings.Contains(sheet("squint-14", "squint-14"), "camera back") ||
		strings.Contains(sheet("squint-14", "squint-14"), "Put the Squint"))
}
