package decide

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
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
