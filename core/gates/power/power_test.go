package power_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/power"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

func fit(airUnit, pack, from string) fleet.Fit {
	return fleet.Fit{
		AirUnit:     &fleet.Slot{Model: airUnit},
		Board:       "board",
		Pack:        pack,
		CapacitorUF: new(power.SpikeCapacitor),
		CapacitorV:  new(unit.Volts(35)),
		PackLead:    sample.Lead(),
		Feeds:       []fleet.Feed{{To: fleet.NodeAirUnit, From: from}},
	}
}

func codes(findings []verdict.Finding) (list []verdict.Code) {
	for _, f := range findings {
		list = append(list, f.Code)
	}
	return list
}

// The trade's shapes (common practice): 7.4–17.6 V is fine on 4 cells and
// destroyed by 6; 7.4–26.4 V takes either; 3.7–13.2 V on one cell needs a boost.
func TestWindowsOfTheTrade(t *testing.T) {
	for _, c := range []struct {
		name, unit, pack, from string
		code                   verdict.Code
		level                  verdict.Level
	}{
		{"four cells direct", "first", "lipo-4", "pack", power.CodeInWindow, verdict.Fits},
		{"six cells burn the first generation", "first", "lipo-6", "pack", power.CodeOver, verdict.Unfit},
		{"through the 10 V pad six cells are fine", "first", "lipo-6", "board.10v", power.CodeInWindow, verdict.Fits},
		{"the battery pad is the pack", "first", "lipo-6", "board.batt", power.CodeOver, verdict.Unfit},
		{"the second generation takes six cells", "second", "lipo-6", "pack", power.CodeInWindow, verdict.Fits},
		{"six lithium-ion cells down to 18 V", "second", "liion-6", "pack", power.CodeInWindow, verdict.Fits},
		{"a single cell sags below the small unit's window", "small", "lihv-1", "pack", power.CodeUnder, verdict.Unfit},
		{"5 V is too little for the first generation", "first", "lipo-4", "board.5v", power.CodeUnder, verdict.Unfit},
		{"an unsoldered jumper says nothing", "first", "lipo-4", "board.cam", power.CodeUnknown, verdict.Unknown},
		{"four cells burn the small unit", "small", "lipo-4", "pack", power.CodeOver, verdict.Unfit},
	} {
		t.Run(c.name, func(t *testing.T) {
			findings := power.Check(sample.Case(sample.Set(), nil, fit(c.unit, c.pack, c.from)))
			assert.Contains(t, codes(findings), c.code)
			if c.pack != "lihv-1" { // on one cell the board itself does not start either
				assert.Equal(t, c.level, verdict.Worst(findings))
			}
		})
	}
}

// Full charge 4.20 V, 4.35 V, landing at 3.5 V at rest, lithium-ion at 3.0 V:
// common practice. The sag is Ohm's law: 50 A through 4 mΩ is 0.2 V a cell.
func TestPackEnvelope(t *testing.T) {
	set := sample.Set()
	set.Packs = append(set.Packs, gear.Pack{Entry: gear.Entry{ID: "iron-4"}, Chemistry: gear.LiFePO, Cells: new(4),
		MilliohmPerCell: new(unit.Milliohms(4))})
	for pack, want := range map[string][2]unit.Volts{
		"lipo-4": {16.8, 13.2}, "lipo-6": {25.2, 19.8}, "lihv-1": {4.35, 3.3}, "liion-6": {25.2, 18}, "iron-4": {14.6, 11.2},
	} {
		path := power.Trace(sample.Case(set, nil, fit("second", pack, "pack")))
		require.Equal(t, fleet.NodePack, path.Nodes[0].ID)
		assert.InDelta(t, float64(want[0]), float64(*path.Nodes[0].Sees.Full), 1e-9, pack)
		assert.InDelta(t, float64(want[1]), float64(*path.Nodes[0].Sees.Lowest), 1e-9, pack)
	}
}

func TestAWindowThatEndsAtFullChargeStillFits(t *testing.T) {
	set := sample.Set()
	set.AirUnits[1].Input.MaxV = new(unit.Volts(25.2))
	assert.Equal(t, verdict.Fits, verdict.Worst(power.Check(sample.Case(set, nil, fit("second", "lipo-6", "pack")))))
}

// Every value a verdict rests on, when taken away, makes it unknown and is
// named; none is taken for fine.
func TestMissingValuesAreNamed(t *testing.T) {
	for field, remove := range map[string]func(*gear.Set, *fleet.Fit){
		"input.maxV":    func(s *gear.Set, _ *fleet.Fit) { s.AirUnits[0].Input.MaxV = nil },
		"input.minV":    func(s *gear.Set, _ *fleet.Fit) { s.AirUnits[0].Input.MinV = nil },
		"input.peakW":   func(s *gear.Set, _ *fleet.Fit) { s.AirUnits[0].Input.PeakW = nil },
		"chemistry":     func(s *gear.Set, _ *fleet.Fit) { s.Packs[0].Chemistry = "" },
		"cells":         func(s *gear.Set, _ *fleet.Fit) { s.Packs[0].Cells = nil },
		"pads.10v.outV": func(s *gear.Set, _ *fleet.Fit) { s.Boards[0].Pads[1].OutV = nil },
		"pads.10v.maxA": func(s *gear.Set, _ *fleet.Fit) { s.Boards[0].Pads[1].MaxA = nil },
		"pads.10v.dropoutV": func(s *gear.Set, _ *fleet.Fit) {
			s.Boards[0].Pads[1].DropoutV = nil
		},
		"pads.10v.topology":  func(s *gear.Set, _ *fleet.Fit) { s.Boards[0].Pads[1].Topology = "" },
		"next.pack":          func(_ *gear.Set, f *fleet.Fit) { f.Pack = "" },
		"next.board":         func(_ *gear.Set, f *fleet.Fit) { f.Board = "" },
		"next.feeds.airUnit": func(_ *gear.Set, f *fleet.Fit) { f.Feeds = nil },
	} {
		t.Run(field, func(t *testing.T) {
			set, next := sample.Set(), fit("first", "lipo-4", "board.10v")
			remove(set, &next)
			findings := power.Check(sample.Case(set, nil, next))
			assert.Equal(t, verdict.Unknown, verdict.Worst(findings))
			var named []string
			for _, f := range findings {
				for _, m := range f.Missing {
					named = append(named, m.Field)
					assert.Contains(t, f.Says, m.Label)
				}
			}
			assert.Contains(t, named, field)
		})
	}
}

func TestThroughARegulator(t *testing.T) {
	next := fit("first", "lipo-6", "reg")
	next.Regulators = []fleet.PlacedRegulator{{ID: "reg", Model: "step-down-12"}}
	next.Feeds = append(next.Feeds, fleet.Feed{To: "reg", From: "pack"})
	assert.Equal(t, verdict.Fits, verdict.Worst(power.Check(sample.Case(sample.Set(), nil, next))))

	next.Pack = "lipo-4" // 13.2 V under load leaves 0.2 V over 12 V and a dropout of 1 V
	set := sample.Set()
	set.Packs[0].MilliohmPerCell = new(unit.Milliohms(10))
	findings := power.Check(sample.Case(set, nil, next))
	assert.Contains(t, codes(findings), power.CodeDropout)
	assert.Equal(t, verdict.Caution, verdict.Worst(findings), "it sags but stays in the window")

	set.Regulators[0].Input.MaxV = new(unit.Volts(16))
	findings = power.Check(sample.Case(set, nil, next))
	assert.Contains(t, codes(findings), power.CodeOver, "the regulator has a window of its own")
}

func TestARailCarriesEverythingOnIt(t *testing.T) {
	next := fit("first", "lipo-4", "board.10v")
	load := func(watts unit.Watts) fleet.Load {
		return fleet.Load{ID: "light", Input: gear.Input{MinV: new(unit.Volts(9)), MaxV: new(unit.Volts(12)), PeakW: &watts}}
	}
	for _, c := range []struct {
		watts unit.Watts
		code  verdict.Code
	}{{4, power.CodeRailFits}, {8, power.CodeRailTight}, {12, power.CodeRailOver}} { // 10 W + these at 9.9 V, of 2 A
		next.Loads = []fleet.Load{load(c.watts)}
		next.Feeds = []fleet.Feed{{To: fleet.NodeAirUnit, From: "board.10v"}, {To: "light", From: "board.10v"}}
		assert.Contains(t, codes(power.Check(sample.Case(sample.Set(), nil, next))), c.code, "%v", c.watts)
	}
}

// A rail rated for a short peak carries one that is over what it gives for long, with a
// caution; what is drawn for long has to be known and within its rating (common practice).
func TestAShortPeak(t *testing.T) {
	for name, c := range map[string]struct {
		peakA   *unit.Amps
		peakS   *float64
		typical *unit.Watts
		code    verdict.Code
	}{
		"rated for it":           {new(unit.Amps(3)), new(10.0), new(unit.Watts(6)), power.CodeRailPeak},
		"not rated for a peak":   {nil, nil, new(unit.Watts(6)), power.CodeRailOver},
		"rated for less":         {new(unit.Amps(2.1)), new(10.0), new(unit.Watts(6)), power.CodeRailOver},
		"for how long, unstated": {new(unit.Amps(3)), nil, new(unit.Watts(6)), power.CodeRailOver},
		"for a moment only":      {new(unit.Amps(3)), new(0.2), new(unit.Watts(6)), power.CodeRailOver},
		"drawn for long unknown": {new(unit.Amps(3)), new(10.0), nil, power.CodeRailOver},
		"too much for long":      {new(unit.Amps(3)), new(10.0), new(unit.Watts(24)), power.CodeRailOver},
	} {
		set := sample.Set()
		set.Boards[0].Pads[1].PeakA, set.Boards[0].Pads[1].PeakS = c.peakA, c.peakS
		set.AirUnits[0].Input.PeakW, set.AirUnits[0].Input.TypicalW = new(unit.Watts(25)), c.typical
		findings := power.Check(sample.Case(set, nil, fit("first", "lipo-4", "board.10v")))
		assert.Contains(t, codes(findings), c.code, name)
	}
}

// Two pads of one rail carry one load between them (common practice): what each alone could
// give is too much for both.
func TestTwoPadsOfOneRail(t *testing.T) {
	for _, c := range []struct {
		name string
		pad  gear.Pad
		code verdict.Code
	}{
		{"a rail of its own", gear.Pad{ID: "10v-b", Kind: gear.PadRegulated, Converter: sample.Set().Boards[0].Pads[1].Converter},
			power.CodeRailFits},
		{"the rail of the 10v", gear.Pad{ID: "10v-b", Kind: gear.PadSame, SameAs: "10v"}, power.CodeRailOver},
		{"nobody says whose", gear.Pad{ID: "10v-b", Kind: gear.PadSame}, power.CodeUnknown},
	} {
		t.Run(c.name, func(t *testing.T) {
			set := sample.Set()
			set.Boards[0].Pads = append(set.Boards[0].Pads, c.pad)
			next := fit("first", "lipo-4", "board.10v")
			next.Loads = []fleet.Load{{ID: "light",
				Input: gear.Input{MinV: new(unit.Volts(9)), MaxV: new(unit.Volts(12)), PeakW: new(unit.Watts(12))}}}
			next.Feeds = []fleet.Feed{{To: fleet.NodeAirUnit, From: "board.10v"}, {To: "light", From: "board.10v-b"}}
			findings := power.Check(sample.Case(set, nil, next))
			assert.Contains(t, codes(findings), c.code, "%+v", findings)
			if c.code == power.CodeRailFits {
				assert.NotContains(t, codes(findings), power.CodeRailOver)
			}
			if c.code == power.CodeUnknown {
				assert.Contains(t, finding(t, sample.Case(set, nil, next), c.code).Says, "which pad's rail the 10v-b is")
			}
			picture := power.Trace(sample.Case(set, nil, next))
			if c.code == power.CodeRailOver {
				require.Len(t, picture.Rails, 1)
				assert.Len(t, picture.Rails[0].Carries, 2)
			}
		})
	}
}

func TestAJumperThatPutsItRightIsAChange(t *testing.T) {
	next := fit("first", "lipo-6", "board.cam")
	next.Jumpers = map[string]string{"cam": "pack"}
	c := sample.Case(sample.Set(), nil, next)
	findings := power.Check(c)
	assert.Equal(t, verdict.Change, verdict.Worst(findings))
	assert.Contains(t, codes(findings), power.CodeJumper)
	after := c.With(fleet.Patch{Jumper: &fleet.Jumper{Pad: "cam", Choice: "10v"}})
	assert.Equal(t, verdict.Fits, verdict.Worst(power.Check(after)))
}

// Six cells on a unit whose limit lies at 34 V: plugging in rings beyond it, and
// an electrolytic across the leads takes that.
func TestThePeakAtPluginWantsACapacitor(t *testing.T) {
	set, next := sample.Set(), fit("second", "lipo-6", "pack")
	set.AirUnits[1].Input.AbsoluteMaxV = new(unit.Volts(34))
	next.CapacitorUF = nil
	c := sample.Case(set, nil, next)
	findings := power.Check(c)
	assert.Contains(t, codes(findings), power.CodeSpike)
	assert.Equal(t, verdict.Change, verdict.Worst(findings))
	plugin := power.Trace(c).Plugins[0]
	if plugin.Node != fleet.NodeAirUnit {
		plugin = power.Trace(c).Plugins[1]
	}
	require.NotNil(t, plugin.Cure)
	cured := power.Trace(c.With(fleet.Patch{CapacitorUF: plugin.Cure}))
	assert.NotContains(t, []verdict.Level{verdict.Change, verdict.Unfit}, cured.Plugins[len(cured.Plugins)-1].Level)

	next.PackLead = nil
	unknown := power.Check(sample.Case(set, nil, next))
	assert.Equal(t, verdict.Unknown, verdict.Worst(unknown))
	set.AirUnits[1].Input.AbsoluteMaxV = new(unit.Volts(51))
	for _, f := range power.Check(sample.Case(set, nil, next)) {
		if f.Subject == "second" {
			assert.Equal(t, verdict.Fits, f.Level, "a ring can at most double the voltage: %s", f.Says)
		}
	}
}

// The drop in a lead, there and back, of what the part draws: Ohm's law.
func TestLeadsTakeTheirDrop(t *testing.T) {
	next := fit("second", "lipo-6", "pack")
	next.PackLead = nil
	before := *nodeOf(power.Trace(sample.Case(sample.Set(), nil, next)), fleet.NodeAirUnit).Sees.Lowest
	next.PackLead = sample.Lead()
	behind := *nodeOf(power.Trace(sample.Case(sample.Set(), nil, next)), fleet.NodeAirUnit).Sees.Lowest
	r, _ := sample.Lead().Resistance()
	assert.InDelta(t, float64(before-r.Drop(50)), float64(behind), 1e-9)
	next.Feeds[0].Lead = &fleet.Lead{MM: new(unit.Millimetres(200)), AWG: new(wire.Gauge(28))}
	end := *nodeOf(power.Trace(sample.Case(sample.Set(), nil, next)), fleet.NodeAirUnit).Sees.Lowest
	r, _ = next.Feeds[0].Lead.Resistance()
	assert.InDelta(t, float64(behind-r.Drop(unit.Watts(10).Current(end))), float64(end), 1e-9)
	next.Feeds[0].Lead.AWG = nil
	findings := power.Check(sample.Case(sample.Set(), nil, next))
	assert.Equal(t, verdict.Unknown, verdict.Worst(findings), "a lead of unknown gauge")
}

func TestWhatLivesOnUSB(t *testing.T) {
	set, next := sample.Set(), fit("first", "lipo-4", "board.10v")
	next.Receiver, next.Feeds = "receiver", append(next.Feeds, fleet.Feed{To: fleet.NodeReceiver, From: "board.5v"})
	assert.Equal(t, []string{"first", "receiver"}, power.Trace(sample.Case(set, nil, next)).USB.Unknown)
	set.Boards[0].Pads[1].AliveOnUSB, set.Boards[0].Pads[2].AliveOnUSB = new(false), new(true)
	usb := power.Trace(sample.Case(set, nil, next)).USB
	assert.Equal(t, power.OnUSB{Alive: []string{"receiver"}, Dead: []string{"first"}, Unknown: []string{}}, usb)
}

// A law: widening a part's window never makes a verdict worse.
func TestAWiderWindowIsNeverWorse(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		low := unit.Volts(rapid.Float64Range(1, 20).Draw(t, "low"))
		high := low + unit.Volts(rapid.Float64Range(0, 20).Draw(t, "span"))
		wider := unit.Volts(rapid.Float64Range(0, 10).Draw(t, "wider"))
		pack := rapid.SampledFrom([]string{"lipo-4", "lipo-6", "lihv-1", "liion-6"}).Draw(t, "pack")
		next := fit("first", pack, rapid.SampledFrom([]string{"pack", "board.10v", "board.5v", "board.batt"}).Draw(t, "from"))
		if rapid.Bool().Draw(t, "no capacitor") {
			next.CapacitorUF = nil
		}
		judge := func(low, high unit.Volts) verdict.Level {
			set := sample.Set()
			set.AirUnits[0].Input.MinV, set.AirUnits[0].Input.MaxV = &low, &high
			return verdict.Worst(power.Check(sample.Case(set, nil, next)))
		}
		narrow, wide := judge(low, high), judge(max(0, low-wider), high+wider)
		if wide.WorseThan(narrow) {
			t.Fatalf("%v–%v is %s, but %v wider is %s", low, high, narrow, wider, wide)
		}
	})
}

func TestALoopDoesNotHangTheGate(t *testing.T) {
	next := fit("first", "lipo-4", "a")
	next.Regulators = []fleet.PlacedRegulator{{ID: "a", Model: "step-down-12"}, {ID: "b", Model: "step-down-12"}}
	next.Feeds = append(next.Feeds, fleet.Feed{To: "a", From: "b"}, fleet.Feed{To: "b", From: "a"})
	assert.Equal(t, verdict.Unknown, verdict.Worst(power.Check(sample.Case(sample.Set(), nil, next))))
	assert.NotNil(t, next.Cycle())
}

// Six cells and a unit that takes 17.6 V: the pad that suits it comes first, the
// regulator to buy after it, and each way that fails says why.
func TestEveryFeedIsRanked(t *testing.T) {
	c := sample.Case(sample.Set(), nil, fit("first", "lipo-6", "pack"))
	list := power.Feeds(c)
	require.NotEmpty(t, list)
	assert.Contains(t, list[0].Says, "10v")
	assert.Equal(t, verdict.Fits, list[0].Level)
	assert.Contains(t, list[1].Says, "step-down-12")
	assert.Equal(t, verdict.Fits, list[1].Level, "six cells through a step-down to 12 V")
	assert.Equal(t, 4, list[1].Wires)
	assert.NotNil(t, list[0].HeatW)
	chosen := 0
	for i, o := range list {
		assert.NotEmpty(t, o.Why, o.Says)
		if o.Chosen {
			chosen++
			assert.Contains(t, o.Why, "It burns")
			continue
		}
		after := power.Check(c.With(o.Patch))
		var level verdict.Level = verdict.Fits
		for _, f := range after {
			if f.Subject == "first" && f.Level.WorseThan(level) {
				level = f.Level
			}
		}
		assert.False(t, level.WorseThan(o.Level), "%d %s: %s, judged %s", i, o.Says, o.Level, level)
	}
	assert.Equal(t, 1, chosen)
	assert.Empty(t, power.Feeds(sample.Case(sample.Set(), nil, fleet.Fit{})))
}

func BenchmarkFeedsOfOneQuad(b *testing.B) {
	c := sample.Case(sample.Set(), nil, fit("first", "lipo-6", "pack"))
	for b.Loop() {
		power.Feeds(c)
	}
	b.ReportMetric(5, "goal-ms")
}

// One cell into a unit that begins at 3.7 V needs a boost; a step-down does not
// help; a 3.3 V module on 5 V burns (common practice).
func TestOneCellNeedsABoostAndAModuleBurns(t *testing.T) {
	set := sample.Set()
	set.Regulators = append(set.Regulators, gear.Regulator{
		Entry: gear.Entry{ID: "boost-5", Name: "boost"},
		Converter: gear.Converter{Topology: gear.StepUp,
			Input: gear.Input{
				MinV:         new(unit.Volts(2.8)),
				MaxV:         new(unit.Volts(5)),
				CeramicUF:    new(unit.Microfarads(10)),
				AbsoluteMaxV: new(unit.Volts(9)),
			},
			OutV: new(unit.Volts(5)), ToleranceV: new(unit.Volts(0.1)), MaxA: new(unit.Amps(3)), Efficiency: new(0.9)},
	})
	next := fit("small", "lihv-1", "pack")
	next.Board = ""
	for _, o := range power.Feeds(sample.Case(set, nil, next)) {
		boosts := o.Patch.Regulator != nil && o.Patch.Regulator.Model == "boost-5"
		assert.Equal(t, boosts, o.Level == verdict.Fits, "%s: %s", o.Says, o.Why)
	}
	next = fit("first", "lipo-4", "board.10v")
	next.Loads = []fleet.Load{{
		ID:    "gps",
		Name:  "a 3.3 V module",
		Input: gear.Input{MinV: new(unit.Volts(3)), MaxV: new(unit.Volts(3.6)), PeakW: new(unit.Watts(0.3))},
	}}
	next.Feeds = append(next.Feeds, fleet.Feed{To: "gps", From: "board.5v"})
	findings := power.Check(sample.Case(set, nil, next))
	at := slices.IndexFunc(findings, func(f verdict.Finding) bool {
		return f.Subject == "a 3.3 V module" && f.Code == power.CodeOver
	})
	require.GreaterOrEqual(t, at, 0)
	assert.Contains(t, findings[at].Says, "It burns")
}

// The picture marks what lies outside the window as the gate compares it: in whole
// thousandths, so that six cells at 4.2 V just fit 25.2 V.
func TestThePictureMarksWhatLiesOutside(t *testing.T) {
	of := func(low, high float64) power.Node {
		set := sample.Set()
		set.AirUnits[0].Input.MinV, set.AirUnits[0].Input.MaxV = new(unit.Volts(low)), new(unit.Volts(high))
		for _, node := range power.Trace(sample.Case(set, nil, fit("first", "lipo-4", fleet.NodePack))).Nodes {
			if node.ID == fleet.NodeAirUnit {
				return node
			}
		}
		return power.Node{}
	}
	full, lowest := *of(1, 40).Sees.Full, *of(1, 40).Sees.Lowest
	assert.False(t, of(1, float64(full)).Over, "its very limit is no fault")
	assert.True(t, of(1, float64(full)-0.01).Over)
	assert.False(t, of(float64(lowest), 40).Under)
	assert.True(t, of(float64(lowest)+0.01, 40).Under)
}
