package gear_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Patterns that lie within a drill's play of each other are one, turned or not: 25 and
// 25.5 mm are two (common practice).
func TestWhichPatternsAreTheSame(t *testing.T) {
	for _, trial := range []struct {
		a, b gear.Holes
		same bool
	}{
		{gear.Holes{XMM: 20, YMM: 20}, gear.Holes{XMM: 20.2, YMM: 19.8}, true},
		{gear.Holes{XMM: 20, YMM: 20}, gear.Holes{XMM: 20.4, YMM: 20}, false},
		{gear.Holes{XMM: 25, YMM: 25}, gear.Holes{XMM: 25.5, YMM: 25.5}, false},
		{gear.Holes{XMM: 20, YMM: 30.5}, gear.Holes{XMM: 30.5, YMM: 20}, true},
		{gear.Holes{XMM: 20, YMM: 30.5}, gear.Holes{XMM: 30.5, YMM: 30.5}, false},
	} {
		assert.Equal(t, trial.same, trial.a.Same(trial.b), "%s and %s", trial.a, trial.b)
		assert.Equal(t, trial.same, trial.b.Same(trial.a))
	}
}

// A quarter turn to the right brings the front to the right; top and bottom stay.
func TestWhereASideComesToLie(t *testing.T) {
	for _, trial := range []struct {
		from gear.Side
		by   unit.Degrees
		to   gear.Side
	}{
		{"front", 90, "right"}, {"front", 180, "rear"}, {"front", 270, "left"}, {"front", 360, "front"},
		{"front", -90, "left"}, {"left", 90, "front"}, {"rear", -180, "front"}, {"right", 40, "right"},
		{"right", 50, "rear"}, {"top", 90, "top"},
	} {
		assert.Equal(t, trial.to, trial.from.Turned(trial.by), "%s by %s", trial.from, trial.by)
	}
}
