package pins_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/internal/sample"
)

// A ground that goes two ways is a loop and is named with what keeps it harmless: beside a
// supply from elsewhere, or by two cables. It is no fault (common practice).
func TestALoopOfGrounds(t *testing.T) {
	loops := func(set *gear.Set, f fleet.Fit) (says []string) {
		findings := pins.Check(caseOf(set, f))
		assert.Equal(t, verdict.Fits, verdict.Worst(findings), "%+v", findings)
		for _, found := range findings {
			if found.Code == pins.CodeLoop {
				says = append(says, found.Says)
			}
		}
		return says
	}
	gps := placed("gps", "5v", "ground", "tx4", "rx4", "sda", "scl")
	assert.Empty(t, loops(sample.Set(), withParts(gps)), "each ground goes one way")

	fromPack := placed("gps", "", "ground", "tx4", "rx4", "sda", "scl")
	f := withParts(fromPack)
	f.Feeds = append(f.Feeds, fleet.Feed{To: "the-gps", From: fleet.NodePack})
	if says := loops(sample.Set(), f); assert.Len(t, says, 1) {
		assert.Contains(t, says[0], "with its supply (the pack, direct), and by a wire of its own to")
	}
	f.Feeds[len(f.Feeds)-1].From = fleet.PadNode("5v")
	assert.Empty(t, loops(sample.Set(), f), "the pad's ground is the board's")

	assert.Empty(t, loops(sample.Set(), plugged("straight")), "two grounds in one cable lie side by side")
	set := sample.Set()
	set.Harnesses[0].Wires = sample.Wires(1, 2, 3, 4)
	f = plugged("straight")
	f.Wires = []fleet.Wire{{Pin: 5, To: "ground"}, {Pin: 6, To: "rx3"}}
	if says := loops(set, f); assert.Len(t, says, 1) {
		assert.Contains(t, says[0], "two ways, a loop: by straight and by a wire of its own. Lay them side by side")
	}
}

// Where the supply is wired to the board as well, or the ground ends on what is none, that is
// named, and no loop.
func TestNoLoopWhereTheWiresAreWrong(t *testing.T) {
	for name, gps := range map[string]fleet.PlacedPart{
		"fed twice":              placed("gps", "5v", "ground", "tx4", "rx4", "sda", "scl"),
		"its ground on a signal": placed("gps", "", "sda", "tx4", "rx4", "sda", "scl"),
	} {
		f := withParts(gps)
		f.Feeds = append(f.Feeds, fleet.Feed{To: "the-gps", From: fleet.NodePack})
		findings := pins.Check(caseOf(sample.Set(), f))
		assert.Equal(t, verdict.Unfit, verdict.Worst(findings), name)
		assert.NotContains(t, codes(findings), pins.CodeLoop, name)
	}
}
