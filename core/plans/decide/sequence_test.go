package decide

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
)

// Money is saved month by month from the first day on: it is there on the day of the month that
// brings it, and not the day before, whatever the length of the months.
func TestMonths(t *testing.T) {
	for _, from := range []string{"2026-11-28", "2027-01-31", "2028-02-29", "2026-12-01"} {
		first, err := time.Parse(time.DateOnly, from)
		assert.NoError(t, err)
		s := &sequencer{from: first, purse: Purse{Month: 50}}
		for day := range 1500 {
			n := s.months(day)
			assert.LessOrEqual(t, s.month(n), day)
			assert.Greater(t, s.month(n+1), day)
		}
		for _, need := range []float64{0, 1, 50, 50.01, 199, 600} {
			day, ok := s.saved(need)
			assert.True(t, ok)
			assert.GreaterOrEqual(t, 50*float64(s.months(day)), need-0.006)
			if day > 0 {
				assert.Less(t, 50*float64(s.months(day-1)), need)
			}
		}
		_, ok := s.saved(50*120 + 1)
		assert.False(t, ok, "not in ten years")
	}
	_, ok := (&sequencer{}).saved(1)
	assert.False(t, ok, "nothing comes in")
}

// Where goggles of one model fly all, a way with others is not to be had; what is left on the ground is.
func TestOnlyOneModelIsAllowed(t *testing.T) {
	fit := func(goggles string) *Way {
		w := &Way{Key: "unit"}
		w.fit.Goggles = &fleet.Slot{Model: goggles}
		return w
	}
	table := &table{Ways: &Ways{index: fleet.NewIndex(&fleet.Fleet{})}}
	q := &quadTable{QuadWays: &QuadWays{flies: true}}
	bought := []purchase{{model: "a"}, {model: "b"}}
	leave := fit("b")
	leave.Key = leaveKey
	for only, allows := range map[string][2]bool{"": {true, true}, "a": {true, false}, "b": {false, true}} {
		s := &scenario{bought: bought, only: only}
		assert.Equal(t, allows, [2]bool{table.allows(s, q, fit("a")), table.allows(s, q, fit("b"))}, only)
		assert.True(t, table.allows(s, q, leave), only)
		assert.Equal(t, only == "a", table.grounded(s, q, leave), only)
	}
	assert.False(t, table.allows(&scenario{}, q, fit("a")), "not bought")
}
