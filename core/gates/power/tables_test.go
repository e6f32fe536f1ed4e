package power_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/power"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// lowest is what the pack of a quad gives at full throttle.
func lowest(t *testing.T, set *gear.Set, pack string, fullA unit.Amps) unit.Volts {
	next := fit("first", pack, fleet.NodePack)
	next.PackLead = nil
	c := sample.Case(set, nil, next)
	c.Quad.FullA = &fullA
	for _, node := range power.Trace(c).Nodes {
		if node.ID == fleet.NodePack {
			require.NotNil(t, node.Sees.Lowest)
			return *node.Sees.Lowest
		}
	}
	t.Fatal("no pack")
	return 0
}

// Two cells side by side have half the resistance, so the pack sags half as far (Ohm's
// law).
func TestCellsInParallelSagLess(t *testing.T) {
	set := sample.Set()
	pack := &set.Packs[0]
	pack.MilliohmPerCell = new(unit.Milliohms(5))
	cells := unit.Volts(*pack.Cells)
	for parallel, sag := range map[int]unit.Volts{1: 40 * 0.005, 2: 40 * 0.0025, 4: 40 * 0.00125} {
		pack.Parallel = new(parallel)
		want := cells*3.5 - cells*sag
		assert.InDelta(t, float64(want), float64(lowest(t, set, pack.ID, 40)), 1e-9, "%d in parallel", parallel)
	}
}

// What a converter does not pass on becomes heat: 10 W at 90 % are 11.1 W in and 1.1 W of
// heat, as in any handbook.
func TestAConvertersHeat(t *testing.T) {
	set := sample.Set()
	var pad *gear.Pad
	for i := range set.Boards[0].Pads {
		if set.Boards[0].Pads[i].ID == "10v" {
			pad = &set.Boards[0].Pads[i]
		}
	}
	pad.Efficiency, pad.ToleranceV = new(0.9), new(unit.Volts(0))
	set.AirUnits[0].Input.PeakW = new(unit.Watts(10))
	for _, rail := range power.Trace(sample.Case(set, nil, fit("first", "lipo-4", "board.10v"))).Rails {
		if rail.ID == "board.10v" {
			require.NotNil(t, rail.HeatW)
			assert.InDelta(t, 10/0.9-10, float64(*rail.HeatW), 0.02)
			return
		}
	}
	t.Fatal("no rail")
}

// A step-down gives its output while the pack lies a dropout above it; below, it follows
// the pack down, a dropout less (common practice).
func TestAStepDownThatDropsOutFollowsThePack(t *testing.T) {
	sees := func(cells int) unit.Volts {
		set := sample.Set()
		pack := &set.Packs[0]
		pack.Cells, pack.MilliohmPerCell = &cells, new(unit.Milliohms(0))
		next := fit("first", pack.ID, "reg")
		next.PackLead = nil
		next.Regulators = []fleet.PlacedRegulator{{ID: "reg", Model: "step-down-12"}}
		next.Feeds = append(next.Feeds, fleet.Feed{To: "reg", From: "pack"})
		set.Regulators[0].DropoutV, set.Regulators[0].ToleranceV = new(unit.Volts(1)), new(unit.Volts(0))
		set.Regulators[0].Input.MinV = new(unit.Volts(3))
		for _, node := range power.Trace(sample.Case(set, nil, next)).Nodes {
			if node.ID == fleet.NodeAirUnit {
				require.NotNil(t, node.Sees.Lowest)
				return *node.Sees.Lowest
			}
		}
		return 0
	}
	assert.InDelta(t, 12, float64(sees(4)), 0.05, "14 V at the lowest: 12 V and a dropout of 1 V")
	assert.InDelta(t, 3*3.5-1, float64(sees(3)), 0.05, "10.5 V at the lowest: 9.5 V come out")
}

// Of two feeds that do as well, the one that is owned comes first, and then the one with
// fewer wires.
func TestWhatIsOwnedComesFirst(t *testing.T) {
	c := sample.Case(sample.Set(), nil, fit("first", "lipo-6", "pack"))
	list := power.Feeds(c)
	for i := 1; i < len(list); i++ {
		a, b := list[i-1], list[i]
		if a.Level != b.Level {
			continue
		}
		assert.False(t, b.Owned && !a.Owned, "%s before %s", a.Says, b.Says)
		if a.Owned == b.Owned {
			assert.LessOrEqual(t, a.Wires, b.Wires, "%s before %s", a.Says, b.Says)
		}
	}
}

// The ring of a pack lead into ceramics with an electrolytic beside them; the peaks are
// ngspice's for these circuits (recorded, so that they hold where it is not installed).
func TestPeaksOfKnownCircuits(t *testing.T) {
	for _, known := range []struct {
		circuit power.Circuit
		peak    float64
	}{
		{power.Circuit{Volts: 25.2, Milliohms: 50, Nanohenries: 200, CeramicUF: 10}, 39.53},
		{power.Circuit{Volts: 25.2, Milliohms: 20, Nanohenries: 300, CeramicUF: 22, BulkUF: 47, BulkMilli: 100}, 32.55},
		{power.Circuit{Volts: 25.2, Milliohms: 15, Nanohenries: 300, CeramicUF: 22, BulkUF: 100, BulkMilli: 200}, 32.81},
		{power.Circuit{Volts: 16.8, Milliohms: 15, Nanohenries: 200, CeramicUF: 10, BulkUF: 47, BulkMilli: 60}, 21.38},
	} {
		assert.InEpsilon(t, known.peak, float64(known.circuit.Peak()), 0.01, "%+v", known.circuit)
	}
}

// What goggles are fed from is held against their window as a part of the quad is: too
// much burns them, too little leaves the pilot in the dark.
func TestGogglesOnAPack(t *testing.T) {
	for _, trial := range []struct {
		pack      string
		low, high *unit.Volts
		level     verdict.Level
		danger    verdict.Danger
	}{
		{"lipo-4", new(unit.Volts(7)), new(unit.Volts(17)), verdict.Fits, verdict.Harmless},
		{"lipo-4", new(unit.Volts(7)), new(unit.Volts(16.8)), verdict.Fits, verdict.Harmless},
		{"lipo-6", new(unit.Volts(7)), new(unit.Volts(17)), verdict.Unfit, verdict.Destroys},
		{"lipo-4", new(unit.Volts(14.1)), new(unit.Volts(26)), verdict.Unfit, verdict.Falls},
		{"lipo-4", nil, new(unit.Volts(17)), verdict.Unknown, verdict.Destroys},
		{"lipo-4", nil, new(unit.Volts(13)), verdict.Unfit, verdict.Destroys},
		{"lipo-4", new(unit.Volts(7)), nil, verdict.Unknown, verdict.Destroys},
	} {
		set := sample.Set()
		for i := range set.Goggles {
			set.Goggles[i].Input = gear.Input{MinV: trial.low, MaxV: trial.high}
		}
		kit := sample.Own("new-eyes", "5.2", "b")
		next := fit("first", "lipo-4", "board.10v")
		next.Goggles = &fleet.Slot{Kit: kit.ID}
		about := func() (found []verdict.Finding) {
			for _, f := range power.Check(sample.Case(set, []fleet.Kit{kit}, next)) {
				if f.Code == power.CodeGoggles {
					found = append(found, f)
				}
			}
			return found
		}
		assert.Empty(t, about(), "they run from what they came with")
		kit.Pack = trial.pack
		found := about()
		require.Len(t, found, 1)
		assert.Equal(t, trial.level, found[0].Level, found[0].Says)
		assert.Equal(t, trial.danger, found[0].Danger, found[0].Says)
	}
}
