package power_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/power"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

var anyFeed = rapid.SampledFrom([]string{"pack", "board.batt", "board.10v", "board.5v", "board.cam", ""})

func nodeOf(p power.Path, id string) power.Node {
	for _, n := range p.Nodes {
		if n.ID == id {
			return n
		}
	}
	return power.Node{}
}

// Laws of the envelope, whatever the feed: the lowest is never above the top,
// more current never lifts the lowest, and a part never sees more than a full
// pack through anything that only steps down.
func TestLawsOfTheEnvelope(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pack := rapid.SampledFrom([]string{"lipo-4", "lipo-6", "lihv-1", "liion-6"}).Draw(t, "pack")
		next := fit("second", pack, anyFeed.Draw(t, "from"))
		next.Jumpers = map[string]string{"cam": rapid.SampledFrom([]string{"pack", "10v", "5v"}).Draw(t, "jumper")}
		amps := unit.Amps(rapid.Float64Range(0, 200).Draw(t, "amps"))
		trace := func(amps unit.Amps) power.Path {
			c := sample.Case(sample.Set(), nil, next)
			c.Quad.FullA = &amps
			return power.Trace(c)
		}
		some, more := trace(amps), trace(amps+unit.Amps(rapid.Float64Range(0, 100).Draw(t, "more")))
		for _, n := range some.Nodes {
			if n.Sees.Full == nil || n.Sees.Lowest == nil {
				continue
			}
			assert.LessOrEqual(t, *n.Sees.Lowest, *n.Sees.Full+1e-9, n.ID)
			assert.GreaterOrEqual(t, *n.Sees.Lowest, *nodeOf(more, n.ID).Sees.Lowest-1e-9, n.ID)
		}
		unit := nodeOf(some, fleet.NodeAirUnit)
		if from := next.Feeds[0].From; unit.Sees.Full != nil && (from == "pack" || from == "board.batt") {
			assert.Equal(t, nodeOf(some, fleet.NodePack).Sees.Full, unit.Sees.Full, "unregulated is the pack")
		}
	})
}

// A law: nothing that is not known is ever judged to fit. Whatever single value
// the verdict could rest on is taken away, the gate is never better for it.
func TestTakingAValueAwayNeverHelps(t *testing.T) {
	removals := []func(*gear.Set){
		func(s *gear.Set) { s.AirUnits[1].Input.MaxV = nil },
		func(s *gear.Set) { s.AirUnits[1].Input.MinV = nil },
		func(s *gear.Set) { s.AirUnits[1].Input.PeakW = nil },
		func(s *gear.Set) { s.Boards[0].Input.MaxV = nil },
		func(s *gear.Set) { s.Boards[0].Pads[1].OutV = nil },
		func(s *gear.Set) { s.Boards[0].Pads[1].MaxA = nil },
		func(s *gear.Set) { s.Boards[0].Pads[1].DropoutV = nil },
		func(s *gear.Set) { s.Packs[0].Cells = nil },
		func(s *gear.Set) { s.Packs[1].MilliohmPerCell = nil },
	}
	rapid.Check(t, func(t *rapid.T) {
		next := fit("second", rapid.SampledFrom([]string{"lipo-4", "lipo-6"}).Draw(t, "pack"), anyFeed.Draw(t, "from"))
		next.Jumpers = map[string]string{"cam": "10v"}
		judge := func(set *gear.Set) verdict.Level { return verdict.Worst(power.Check(sample.Case(set, nil, next))) }
		full, less := sample.Set(), sample.Set()
		rapid.SampledFrom(removals).Draw(t, "remove")(less)
		before, after := judge(full), judge(less)
		if before.WorseThan(after) && before != verdict.Unfit {
			t.Fatalf("%s with every value, %s with one taken away", before, after)
		}
		if after == verdict.Fits {
			assert.Equal(t, verdict.Fits, before)
		}
	})
}
