package power_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/power"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

func volts(v unit.Volts) *unit.Volts { return &v }

// finding is what the gate says with a code; it must say it.
func finding(t *testing.T, c fleet.Case, code verdict.Code) verdict.Finding {
	t.Helper()
	for _, f := range power.Check(c) {
		if f.Code == code {
			return f
		}
	}
	require.Failf(t, "not said", "%s among %v", code, codes(power.Check(c)))
	return verdict.Finding{}
}

// A pad has a window of its own: six cells on a board that takes them do not suit a
// 10 V pad that ends at 18 V.
func TestAPadsOwnWindowIsJudged(t *testing.T) {
	set := sample.Set()
	set.Boards[0].Pads[1].Input.MaxV = volts(18)
	assert.Equal(t, verdict.Fits, verdict.Worst(power.Check(sample.Case(set, nil, fit("first", "lipo-4", "board.10v")))))
	f := finding(t, sample.Case(set, nil, fit("first", "lipo-6", "board.10v")), power.CodeOver)
	assert.Equal(t, "the 10v", f.Subject)
	assert.Equal(t, verdict.Destroys, f.Danger)
	set.Boards[0].Pads[1].Input.MaxV = nil
	f = finding(t, sample.Case(set, nil, fit("first", "lipo-6", "board.10v")), power.CodeUnknown)
	assert.Equal(t, "pads.10v.input.maxV", f.Missing[0].Field)
}

// A regulator that feeds a board carries what its pads deliver, and so all the way up.
func TestCurrentAddsUpAlongTheChain(t *testing.T) {
	set := sample.Set()
	set.Regulators = append(set.Regulators, gear.Regulator{
		Entry:     gear.Entry{ID: "first-stage", Name: "first stage"},
		Converter: set.Regulators[0].Converter,
	})
	set.Boards[0].Input.PeakW = new(unit.Watts(1))
	set.Regulators[0].MaxA = new(unit.Amps(2))
	next := fit("first", "lipo-6", "board.10v")
	next.Regulators = []fleet.PlacedRegulator{{ID: "reg", Model: "step-down-12"}}
	next.Feeds = append(next.Feeds, fleet.Feed{To: fleet.NodeBoard, From: "reg"}, fleet.Feed{To: "reg", From: "pack"})
	judge := func(watts unit.Watts) *power.Rail {
		set.AirUnits[0].Input.PeakW = &watts
		for _, r := range power.Trace(sample.Case(set, nil, next)).Rails {
			if r.ID == "reg" {
				return r
			}
		}
		return nil
	}
	// 10 W through a pad of 0.9 are 11.1 W, and 1 W of the board: 12.1 W at 11.9 V.
	assert.InDelta(t, (10/0.9+1)/11.9, float64(*judge(10).LoadA), 1e-9)
	assert.Equal(t, verdict.Fits, judge(10).Level)
	assert.Equal(t, verdict.Unfit, judge(25).Level, "2.4 A of 2 A")
	set.Boards[0].Pads[1].Efficiency = nil
	assert.Equal(t, verdict.Unfit, judge(20).Level, "not stated counts as the worst, half")

	next.Regulators = append(next.Regulators, fleet.PlacedRegulator{ID: "before", Model: "first-stage"})
	next.Feeds = append(next.Feeds[:2], fleet.Feed{To: "reg", From: "before"}, fleet.Feed{To: "before", From: "pack"})
	set.Boards[0].Pads[1].Efficiency = new(0.9)
	set.AirUnits[0].Input.PeakW = new(unit.Watts(10))
	for _, r := range power.Trace(sample.Case(set, nil, next)).Rails {
		if r.ID == "before" {
			assert.InDelta(t, (10/0.9+1)/0.9/11.9, float64(*r.LoadA), 1e-9, "losses on the way count")
		}
	}
}

// The current of the unit against what a contact and a wire carry.
func TestContactsAndWiresCarryTheCurrent(t *testing.T) {
	set, next := sample.Set(), fit("first", "lipo-4", "board.10v")
	next.Wiring = fleet.Wiring{Harness: "straight", HarnessTo: "hd"}
	c := func() fleet.Case { return sample.Case(set, nil, next) }
	assert.Equal(t, verdict.Fits, verdict.Worst(power.Check(c())))
	set.Connectors[2].MaxA = new(unit.Amps(1)) // 10 W at 9.9 V are 1.01 A
	f := finding(t, c(), power.CodeContact)
	assert.Equal(t, verdict.Unfit, f.Level)
	assert.Contains(t, f.Says, "draws 1.01 A")
	set.Connectors[2].MaxA = nil
	assert.Equal(t, verdict.Unknown, finding(t, c(), power.CodeContact).Level)
	set.AirUnits[0].Input.PeakW = new(unit.Watts(4))
	assert.NotContains(t, codes(power.Check(c())), power.CodeContact, "any contact carries 0.4 A")
	set.AirUnits[0].Input.PeakW, set.Connectors[2].MaxA = new(unit.Watts(10)), new(unit.Amps(3))

	set.Harnesses[0].Wires[0].AWG = new(wire.Gauge(30)) // 0.86 A
	assert.Equal(t, verdict.Unfit, finding(t, c(), power.CodeWire).Level)
	set.Harnesses[0].Wires[0].AWG = nil
	assert.Equal(t, "wires.1.awg", finding(t, c(), power.CodeWire).Missing[0].Field)
	set.Harnesses[0].Wires[0].AWG = new(wire.Gauge(28))
	next.Feeds[0].Lead = &fleet.Lead{MM: new(unit.Millimetres(50)), AWG: new(wire.Gauge(32))}
	assert.Equal(t, verdict.Unfit, finding(t, c(), power.CodeWire).Level)

	set.AirUnits[0].Plug = &gear.Plug{Pins: set.AirUnits[0].Plug.Pins}
	next.Feeds[0].Lead, next.Wiring = nil, fleet.Wiring{Wires: sample.Wired()}
	assert.Equal(t, verdict.Unknown, verdict.Worst(power.Check(c())), "a plug of unknown kind")
	set.AirUnits[0].Plug.None = []string{"connector"}
	assert.Equal(t, verdict.Fits, verdict.Worst(power.Check(c())), "pads carry it")
}

// Without its ceramics, a part is judged at twice the pack; a board is no exception,
// and what a step-down isolates does not see the peak.
func TestThePeakIsNeverSkipped(t *testing.T) {
	set, next := sample.Set(), fit("second", "lipo-6", "pack")
	next.CapacitorUF, next.CapacitorV = nil, nil
	set.AirUnits[1].Input.CeramicUF, set.AirUnits[1].Input.AbsoluteMaxV = nil, volts(50.4)
	set.Boards[0].Input.CeramicUF, set.Boards[0].Input.AbsoluteMaxV = nil, volts(50.4)
	assert.Equal(t, verdict.Fits, verdict.Worst(power.Check(sample.Case(set, nil, next))), "twice 25.2 V is 50.4 V")
	set.Boards[0].Input.AbsoluteMaxV = volts(50.3)
	f := finding(t, sample.Case(set, nil, next), power.CodeSpike)
	for _, g := range power.Check(sample.Case(set, nil, next)) {
		if g.Code == power.CodeSpike && g.Level == verdict.Unknown {
			f = g
		}
	}
	assert.Equal(t, "board", f.Subject)
	assert.Equal(t, verdict.Destroys, f.Danger)

	behind := fit("second", "lipo-6", "reg")
	behind.CapacitorUF, behind.CapacitorV = nil, nil
	behind.Regulators = []fleet.PlacedRegulator{{ID: "reg", Model: "step-down-12"}}
	behind.Feeds = append(behind.Feeds, fleet.Feed{To: "reg", From: "pack"})
	judged := func() (nodes []string) {
		for _, p := range power.Trace(sample.Case(set, nil, behind)).Plugins {
			nodes = append(nodes, p.Node)
		}
		return nodes
	}
	assert.Equal(t, []string{"board", "reg"}, judged())
	set.Regulators[0].Topology, set.Regulators[0].OutV = gear.StepUp, volts(26)
	assert.Equal(t, []string{"board", "reg", "airUnit"}, judged(), "a step-up passes it through")
}

func TestACapacitorIsRatedForItsPack(t *testing.T) {
	for rating, level := range map[unit.Volts]verdict.Level{
		25:   verdict.Unfit,
		25.2: verdict.Caution,
		31.4: verdict.Caution,
		35:   verdict.Fits,
	} {
		next := fit("second", "lipo-6", "pack")
		next.CapacitorV = &rating
		c := sample.Case(sample.Set(), nil, next)
		assert.Equal(t, level, verdict.Worst(power.Check(c)), "%v", rating)
	}
	next := fit("second", "lipo-6", "pack")
	next.CapacitorV = nil
	assert.Equal(t, "next.capacitorV",
		finding(t, sample.Case(sample.Set(), nil, next), power.CodeCapacitor).Missing[0].Field)
	// What is offered suits the pack: 25 V for four cells, 35 V for six.
	for pack, rating := range map[string]unit.Volts{"lipo-4": 25, "lipo-6": 35} {
		set, next := sample.Set(), fit("second", pack, "pack")
		next.CapacitorUF, next.CapacitorV = nil, nil
		set.AirUnits[1].Input.AbsoluteMaxV, set.AirUnits[1].Input.MaxV = volts(30), volts(26)
		if pack == "lipo-4" {
			set.AirUnits[1].Input.AbsoluteMaxV, set.AirUnits[1].Input.MaxV = volts(20), volts(20)
		}
		offered := false
		for _, cand := range power.Candidates(sample.Case(set, nil, next)) {
			if cand.Patch.CapacitorUF != nil {
				offered = true
				assert.Equal(t, rating, *cand.Patch.CapacitorV, pack)
			}
		}
		assert.True(t, offered, pack)
	}
}

// One in the drawer that does is offered as it is rated; one too small, or rated too low, is not.
func TestTheCapacitorAtHandIsOffered(t *testing.T) {
	set, next := sample.Set(), fit("second", "lipo-6", "pack")
	set.AirUnits[1].Input.AbsoluteMaxV, next.CapacitorUF, next.CapacitorV = volts(34), nil, nil
	spares := []fleet.Spare{}
	for _, k := range []struct {
		id    string
		uf    unit.Microfarads
		rated unit.Volts
	}{{"does", 1000, 50}, {"small", 100, 50}, {"low", 1000, 25}, {"vast", 10000, 50}} {
		set.Capacitors = append(set.Capacitors, gear.Capacitor{Entry: gear.Entry{ID: k.id}, UF: &k.uf, RatedV: &k.rated})
		spares = append(spares, fleet.Spare{Model: k.id, Count: 1})
	}
	offered := func(spares []fleet.Spare) (list []string) {
		c := sample.Case(set, nil, next)
		c.Fleet = fleet.NewIndex(&fleet.Fleet{Quads: []fleet.Quad{*c.Quad}, Spares: spares})
		for _, cand := range power.Candidates(c) {
			if cand.Patch.CapacitorUF != nil {
				list = append(list, fmt.Sprint(cand.Patch.CapacitorUF, cand.Patch.CapacitorV))
			}
		}
		return list
	}
	without := offered(nil)
	assert.Equal(t, append(without, "1000 µF 50.0 V"), offered(spares))
}

// Two parts on one jumper that want different choices: no choice mends it.
func TestTwoPartsShareAPad(t *testing.T) {
	set, next := sample.Set(), fit("first", "lipo-4", "board.cam")
	next.Jumpers = map[string]string{"cam": "10v"}
	next.Loads = []fleet.Load{{
		ID:    "gps",
		Name:  "GPS",
		Input: gear.Input{MinV: volts(4.5), MaxV: volts(5.5), PeakW: new(unit.Watts(0.5))},
	}}
	next.Feeds = append(next.Feeds, fleet.Feed{To: "gps", From: "board.cam"})
	f := finding(t, sample.Case(set, nil, next), power.CodeOver)
	assert.Equal(t, verdict.Unfit, f.Level)
	assert.Contains(t, f.Says, "No choice of the solder jumper of the cam suits it and first")
	next.Feeds[0].From = "board.10v"
	assert.Equal(t, verdict.Change, finding(t, sample.Case(set, nil, next), power.CodeJumper).Level,
		"alone on it, it is set")
}

// Nobody measures full-throttle current: what fits at 3.0 V a cell fits, and what
// does not is asked for; a sag beyond that is a slip of the pen (common practice).
func TestVerdictsWithoutWhatNobodyMeasures(t *testing.T) {
	set, next := sample.Set(), fit("first", "lipo-4", "pack")
	bare := func() fleet.Case {
		c := sample.Case(set, nil, next)
		c.Quad.FullA = nil
		return c
	}
	judged := func(c fleet.Case) verdict.Finding {
		for _, f := range power.Check(c) {
			if f.Subject == "first" && f.Code != power.CodeSpike {
				return f
			}
		}
		return verdict.Finding{}
	}
	f := judged(bare())
	assert.Equal(t, verdict.Fits, f.Level)
	assert.Contains(t, f.Says, "sees 12.0 to 16.8 V")
	assert.Contains(t, f.Says, "fail only 4.6 V lower")
	set.AirUnits[0].Input.MinV = volts(13)
	f = judged(bare())
	assert.Equal(t, verdict.Unknown, f.Level)
	assert.Equal(t, verdict.Falls, f.Danger)
	assert.Equal(t, "fullA", f.Missing[0].Field)
	set.AirUnits[0].Input.MinV = volts(14.1)
	assert.Equal(t, verdict.Unfit, judged(bare()).Level, "it fails even without any sag")
	set.AirUnits[0].Input.MinV = volts(13)
	c := bare()
	c.Quad.FullA = new(unit.Amps(500))
	f = judged(c)
	assert.Equal(t, verdict.Unknown, f.Level)
	assert.Contains(t, f.Says, "below the 12.0 V to which such a pack is ever flown")
}

// A tolerance nobody states may be a tenth; where that decides, it is asked for.
func TestAToleranceThatIsNotStated(t *testing.T) {
	set := sample.Set()
	set.Boards[0].Pads[1].ToleranceV = nil
	c := func() fleet.Case { return sample.Case(set, nil, fit("first", "lipo-4", "board.10v")) }
	assert.Equal(t, verdict.Fits, verdict.Worst(power.Check(c())), "9 to 11 V is fine")
	set.AirUnits[0].Input.MaxV, set.AirUnits[0].Input.AbsoluteMaxV = volts(10.5), nil
	f := finding(t, c(), power.CodeUnknown)
	assert.Equal(t, "pads.10v.toleranceV", f.Missing[0].Field)
	set.AirUnits[0].Input.MaxV = volts(9.9)
	assert.Equal(t, verdict.Unfit, finding(t, c(), power.CodeOver).Level)
}

// A jumper or a pad that is not known is no way out.
func TestNothingUnknownIsOffered(t *testing.T) {
	set := sample.Set()
	set.Boards[0].Pads[2].OutV = nil
	for _, cand := range power.Candidates(sample.Case(set, nil, fit("first", "lipo-6", "pack"))) {
		if feed := cand.Patch.Feed; feed != nil {
			assert.NotContains(t, []string{"board.cam", "board.5v"}, feed.From)
		}
	}
}

// A step-down whose input falls to its dropout gives nothing: that is said, and no
// endless current is reckoned from no voltage.
func TestAStarvedRailGivesNothing(t *testing.T) {
	set := sample.Set()
	set.Regulators[0].DropoutV = volts(13.2)
	next := fit("first", "lipo-4", "reg")
	next.Regulators = []fleet.PlacedRegulator{{ID: "reg", Model: "step-down-12"}}
	next.Feeds = append(next.Feeds, fleet.Feed{To: "reg", From: "pack"})
	c := sample.Case(set, nil, next)
	f := finding(t, c, power.CodeDropout)
	assert.Equal(t, verdict.Unfit, f.Level)
	assert.Equal(t, verdict.Falls, f.Danger)
	_, err := json.Marshal(power.Trace(c))
	assert.NoError(t, err)
	set.Regulators[0].DropoutV = volts(12)
	assert.Equal(t, verdict.Caution, finding(t, c, power.CodeDropout).Level, "it sags")
}

// What a contact carries hangs on the wire in it; where one of the wires on a pin states no
// gauge, it counts as the thinnest there is.
func TestAContactCarriesWhatItsWireLetsIt(t *testing.T) {
	for name, c := range map[string]struct {
		gauges []*wire.Gauge // of the wires on the supply pin
		level  verdict.Level
	}{
		"a thick wire":           {[]*wire.Gauge{new(wire.Gauge(26))}, verdict.Fits},
		"a thin wire":            {[]*wire.Gauge{new(wire.Gauge(28))}, verdict.Unfit},
		"not stated":             {[]*wire.Gauge{nil}, verdict.Unfit},
		"a thick and a thin one": {[]*wire.Gauge{new(wire.Gauge(26)), new(wire.Gauge(28))}, verdict.Unfit},
		"one of two not stated":  {[]*wire.Gauge{new(wire.Gauge(26)), nil}, verdict.Unfit},
	} {
		set, next := sample.Set(), fit("first", "lipo-4", "board.10v")
		next.Wiring = fleet.Wiring{Harness: "straight", HarnessTo: "hd"}
		set.Connectors[2].MaxA = nil
		set.Connectors[2].ByGauge = []gear.GaugeAmps{{AWG: 26, MaxA: 3}, {AWG: 28, MaxA: 0.9}} // 1.01 A is drawn
		set.Harnesses[0].Wires[0].AWG = c.gauges[0]
		for _, g := range c.gauges[1:] {
			set.Harnesses[0].Branch = &gear.Branch{Wires: []gear.HarnessWire{{From: 1, AWG: g}}}
		}
		findings := power.Check(sample.Case(set, nil, next))
		if c.level == verdict.Fits {
			assert.NotContains(t, codes(findings), power.CodeContact, name)
			continue
		}
		assert.Equal(t, c.level, worstOf(findings, power.CodeContact), "%s: %+v", name, findings)
	}
}
