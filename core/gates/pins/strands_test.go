package pins_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// looms is the sample's gear whose second generation has bare pads, with a four-pin and a
// two-pin bundle for them, and a cable for the plug that branches; the board has a plug for
// each end.
func looms(edit func(set *gear.Set)) *gear.Set {
	set := padded(nil)
	bundle := func(id, to string, pins ...int) gear.Harness {
		h := gear.Harness{Entry: gear.Entry{ID: id, Name: id}, Nones: gear.Nones{None: []string{"from"}}, To: to}
		for i, pin := range pins {
			h.Wires = append(h.Wires, gear.HarnessWire{From: pin, To: i + 1, AWG: new(wire.Gauge(24))})
		}
		return h
	}
	branching := gear.Harness{Entry: gear.Entry{ID: "fork", Name: "fork"}, From: "sh-6", To: "four-pin",
		Branch: &gear.Branch{To: "two-pin"}}
	for i, pin := range []int{1, 2, 3, 4} {
		branching.Wires = append(branching.Wires, gear.HarnessWire{From: pin, To: i + 1, AWG: new(wire.Gauge(24))})
	}
	branching.Branch.Wires = []gear.HarnessWire{{From: 5, To: 1}, {From: 6, To: 2}}
	set.Harnesses = append(set.Harnesses, bundle("four", "four-pin", 1, 2, 3, 4), bundle("two", "two-pin", 5, 6), branching)
	for id, n := range map[string]int{"four-pin": 4, "two-pin": 2} {
		set.Connectors = append(set.Connectors, gear.Connector{Entry: gear.Entry{ID: id, Name: id}, Pins: &n, MaxA: new(unit.Amps(3)),
			Keyed: new(true)})
	}
	set.Boards[0].Plugs = append(set.Boards[0].Plugs,
		gear.Plug{ID: "front", Connector: "four-pin", Pins: []string{"10v", "ground", "tx1", "rx1"}},
		gear.Plug{ID: "side", Connector: "two-pin", Pins: []string{"ground", "rx3"}})
	if edit != nil {
		edit(set)
	}
	return set
}

func twoCables() fleet.Fit {
	f := plugged("four")
	f.HarnessTo = "front"
	f.Beside = []fleet.Beside{{Harness: "two", HarnessTo: "side"}}
	return f
}

// Two bundles on one row of pads, and the mistakes with them (common practice).
func TestTwoCablesOnOneUnit(t *testing.T) {
	for _, c := range []struct {
		name  string
		edit  func(set *gear.Set)
		fit   func(f *fleet.Fit)
		code  verdict.Code
		level verdict.Level
		says  string
	}{
		{"as it should be", nil, nil, pins.CodeFits, verdict.Fits, "6 wires end where they belong"},
		{"the second soldered, its wires listed", nil, func(f *fleet.Fit) {
			f.Beside[0].HarnessTo = ""
			f.Wires = []fleet.Wire{{Pin: 5, To: "ground"}, {Pin: 6, To: "rx3"}}
		}, pins.CodeFits, verdict.Fits, "6 wires"},
		{"both into one plug of the board", nil, func(f *fleet.Fit) { f.Beside[0].HarnessTo = "front" },
			pins.CodeConnector, verdict.Unfit, "Two ends of the cables of second are both to go into the front"},
		{"the second into the six-pin plug", nil, func(f *fleet.Fit) { f.Beside[0].HarnessTo = "hd" },
			pins.CodeConnector, verdict.Unfit, "The plug of two at the board's end is two-pin"},
		{"the second brings the supply onto the sticks", func(set *gear.Set) { set.Boards[0].Plugs[3].Pins = []string{"ground", "5v"} },
			nil, pins.CodeDanger, verdict.Unfit, "destroys"},
		{"a second supply through the second", func(set *gear.Set) {
			set.Boards[0].Plugs[3].Pins = []string{"ground", "5v"}
			set.Harnesses[2].Wires[1].From = 1
		}, nil, pins.CodeShort, verdict.Unfit, "two supplies"},
		{"its wires not stated", func(set *gear.Set) { set.Harnesses[2].Wires = nil }, nil, pins.CodeUnknown, verdict.Unknown,
			"unknown: its wires of two"},
		{"a unit with a plug takes no bare ends", func(set *gear.Set) { set.AirUnits[1].Plug.Connector = "sh-6" }, nil,
			pins.CodeConnector, verdict.Unfit, "has bare ends"},
		{"two cables for one plug of the unit", func(set *gear.Set) {
			set.AirUnits[1].Plug.Connector = "sh-6"
			for i := range set.Harnesses {
				set.Harnesses[i].From, set.Harnesses[i].None = "sh-6", nil
			}
		}, nil, pins.CodeConnector, verdict.Unfit, "The four and the two are both to go into the plug of second: a plug takes one."},
	} {
		t.Run(c.name, func(t *testing.T) {
			f := twoCables()
			if c.fit != nil {
				c.fit(&f)
			}
			findings := pins.Check(caseOf(looms(c.edit), f))
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
			said := ""
			for _, f := range findings {
				if f.Code == c.code {
					said += f.Says + "\n"
				}
			}
			assert.Contains(t, said, c.says, "%+v", findings)
		})
	}
}

// A cable that branches at the board's end fills two plugs; a branch that is left out has
// free ends.
func TestACableThatBranches(t *testing.T) {
	set := looms(func(set *gear.Set) { set.AirUnits[1].Plug.Connector = "sh-6" })
	f := plugged("fork")
	f.HarnessTo, f.BranchTo = "front", "side"
	c := caseOf(set, f)
	require.Equal(t, verdict.Fits, verdict.Worst(pins.Check(c)), "%+v", pins.Check(c))
	f.BranchTo = ""
	f.Wires = []fleet.Wire{{Pin: 6, To: "rx3"}, {Pin: 5, To: "ground"}}
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(set, f))), "its branch soldered")
	f.Wires = nil
	free := pins.Check(caseOf(set, f))
	assert.Equal(t, verdict.Unknown, verdict.Worst(free))
	assert.Contains(t, free[0].Says, "where the branch of fork of second goes")
	f.HarnessTo, f.BranchTo = "front", "front"
	assert.Contains(t, codes(pins.Check(caseOf(set, f))), pins.CodeConnector)
	set.Harnesses[len(set.Harnesses)-1].Branch.To = ""
	f.BranchTo = "side"
	assert.Equal(t, verdict.Unknown, verdict.Worst(pins.Check(caseOf(set, f))), "which plug it has is not stated")
}

// What of it is soldered, taken off, bought and said.
func TestTheListsOfTwoCables(t *testing.T) {
	set := looms(nil)
	c := caseOf(set, twoCables())
	var from, to []string
	for _, line := range pins.Soldering(c).Wires {
		from, to = append(from, line.From), append(to, line.To)
	}
	assert.Len(t, from, 6, "each wire onto its pad")
	assert.Contains(t, strings.Join(to, "; "), "the wire in slot 2 of the two")
	table := pins.NewTable(c)
	assert.True(t, table.Parts[0].Pins[5].Cabled)
	assert.Equal(t, "rx3", table.Parts[0].Pins[5].Place)
	_, err := netlist.Solder(c, fleet.NodeAirUnit, 6, "rx1")
	require.ErrorIs(t, err, netlist.ErrCabled)
	picture := pins.Draw(c)
	assert.Equal(t, "RX 3 in the side", picture.Board.Pins[picture.Wires[5].Spot].Words)

	c.Quad.Now = twoCables()
	next := right()
	c.Quad.Next = &next
	off := pins.TakeOff(c.Library, c.Fleet, c.Quad)
	assert.Equal(t, []string{"the four of second out of the front", "the two of second out of the side"}, off.Unplug)
	assert.Equal(t, 1, c.Fit.Loose()["two"])

	plain := caseOf(set, plugged("four"))
	with := twoCables().Wiring
	assert.Equal(t, "put the four into the front and put the two into the side", change.Words(plain, fleet.Patch{Wiring: &with}))
	without := plugged("four").Wiring
	assert.Equal(t, "put the four into the hd and leave the two out", change.Words(c, fleet.Patch{Wiring: &without}))
	branched := with
	branched.Beside = []fleet.Beside{{Harness: "two"}}
	assert.Equal(t, "take the two out of the side", change.Words(c, fleet.Patch{Wiring: &branched}))
}

// The supply is followed through whichever cable it comes: its wire and its contacts have
// to carry it.
func TestTheSupplyThroughTheSecondCable(t *testing.T) {
	thin := func(set *gear.Set) {
		set.Harnesses[1].Wires, set.Harnesses[2].Wires = set.Harnesses[2].Wires, set.Harnesses[1].Wires
		set.Harnesses[1].To, set.Harnesses[2].To = "two-pin", "four-pin"
		for i := range set.AirUnits {
			set.AirUnits[i].Input.PeakW = new(unit.Watts(60))
		}
		for i := range set.Connectors {
			set.Connectors[i].MaxA = new(unit.Amps(50))
		}
		for i := range set.Harnesses[2].Wires {
			set.Harnesses[2].Wires[i].AWG = new(wire.Gauge(32))
		}
	}
	f := twoCables()
	f.HarnessTo, f.Beside[0].HarnessTo = "side", "front"
	c := caseOf(looms(thin), f)
	require.NotContains(t, codes(pins.Check(c)), pins.CodeConnector, "%+v", pins.Check(c))
	assert.Contains(t, codes(power.Check(c)), power.CodeWire, "%+v", power.Check(c))
	contact := func(set *gear.Set) {
		thin(set)
		for i := range set.Connectors {
			if set.Connectors[i].ID == "four-pin" {
				set.Connectors[i].MaxA = new(unit.Amps(1))
			}
		}
	}
	assert.Contains(t, codes(power.Check(caseOf(looms(contact), f))), power.CodeContact)
}

// A depth leaves out the cable that it does not need, soldered or in a plug.
func TestADepthLeavesACableOut(t *testing.T) {
	soldered := twoCables()
	soldered.HarnessTo, soldered.Beside[0].HarnessTo = "", ""
	soldered.Wires = right().Wires
	bare := func(set *gear.Set) {
		for i := 1; i <= 2; i++ {
			set.Harnesses[i].To, set.Harnesses[i].None = "", []string{"from", "to"}
			for k := range set.Harnesses[i].Wires {
				set.Harnesses[i].Wires[k].To = 0
			}
		}
	}
	for _, c := range []fleet.Case{caseOf(looms(nil), twoCables()), caseOf(looms(bare), soldered)} {
		for depth, n := range map[fleet.Depth]int{fleet.PictureAndData: 0, fleet.WithSticks: 1} {
			w, ok := pins.AtDepth(c, depth)
			require.True(t, ok)
			assert.Len(t, w.Beside, n, "%s, %+v", depth, c.Fit.Wiring)
		}
	}
}

// Another board that has no such plugs leaves the cables with free ends.
func TestCablesOnABoardWithoutTheirPlugs(t *testing.T) {
	set := looms(nil)
	other := set.Boards[0]
	other.ID, other.Plugs = "bare", nil
	set.Boards = append(set.Boards, other)
	c := caseOf(set, twoCables())
	settled := change.Settle(c, fleet.Patch{Board: new("bare")})
	require.NotNil(t, settled.Wiring)
	assert.Equal(t, []fleet.Beside{{Harness: "two"}}, settled.Wiring.Beside)
	assert.Empty(t, settled.Wiring.HarnessTo)
}
