package pins_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/internal/sample"
)

// soldered is the second generation on the 10 V pad, its pins soldered to the
// terminals given in order.
func soldered(to ...string) fleet.Fit {
	f := fleet.Fit{
		AirUnit:    &fleet.Slot{Model: "second"},
		Controller: &fleet.Slot{Kit: "new-hand"},
		Board:      "board",
		Pack:       "lipo-4",
		Feeds:      []fleet.Feed{{To: fleet.NodeAirUnit, From: "board.10v"}},
	}
	for i, t := range to {
		if t != "" {
			f.Wires = append(f.Wires, fleet.Wire{Pin: i + 1, To: t})
		}
	}
	return f
}

func plugged(harness string) fleet.Fit {
	f := soldered()
	f.Harness, f.HarnessTo = harness, "hd"
	return f
}

func caseOf(set *gear.Set, f fleet.Fit) fleet.Case {
	return sample.Case(set, []fleet.Kit{sample.Own("new-hand", "1.1", "")}, f)
}

func codes(findings []verdict.Finding) (list []verdict.Code) {
	for _, f := range findings {
		list = append(list, f.Code)
	}
	return list
}

// The usual mistakes (common practice): supply on a signal destroys, RX and TX
// not crossed leaves the OSD blank and harms nothing, soft-serial is too slow.
func TestTheUsualMistakes(t *testing.T) {
	for _, c := range []struct {
		name  string
		fit   fleet.Fit
		code  verdict.Code
		level verdict.Level
	}{
		{"as it should be", soldered("10v", "ground", "tx1", "rx1", "ground", "rx3"), pins.CodeFits, verdict.Fits},
		{"a straight cable into the board's plug", plugged("straight"), pins.CodeFits, verdict.Fits},
		{"power on a signal", soldered("10v", "ground", "10v", "rx1", "ground", "rx3"), pins.CodeDanger, verdict.Unfit},
		{"the supply on ground", soldered("ground", "ground", "tx1", "rx1", "ground", "rx3"), pins.CodeShort, verdict.Unfit},
		{"ground on power", soldered("10v", "10v", "tx1", "rx1", "ground", "rx3"), pins.CodeShort, verdict.Unfit},
		{
			"the supply on a signal pad",
			soldered("tx2", "ground", "tx1", "rx1", "ground", "rx3"),
			pins.CodeDead,
			verdict.Unfit,
		},
		{"not crossed", soldered("10v", "ground", "rx1", "tx1", "ground", "rx3"), pins.CodeSwapped, verdict.Change},
		{"on two ports", soldered("10v", "ground", "tx1", "rx3", "ground", "rx1"), pins.CodeTwoPorts, verdict.Unfit},
		{"one wire of the pair", soldered("10v", "ground", "tx1", "", "ground", "rx3"), pins.CodeHalf, verdict.Unfit},
		{"picture only", soldered("10v", "ground", "", "", "ground", "rx3"), pins.CodeNoOSD, verdict.Caution},
		{"soft-serial", soldered("10v", "ground", "tx4", "rx4", "ground", "rx3"), pins.CodeSoftSerial, verdict.Unfit},
		{"no inverter", soldered("10v", "ground", "tx3", "rx3", "ground", "rx1"), pins.CodeInverted, verdict.Unfit},
		{
			"the sticks on a sender",
			soldered("10v", "ground", "tx1", "rx1", "ground", "tx3"),
			pins.CodeNoSticks,
			verdict.Unfit,
		},
		{"the sticks nowhere", soldered("10v", "ground", "tx1", "rx1"), pins.CodeNoSticks, verdict.Unfit},
		{
			"another pad than planned",
			soldered("batt", "ground", "tx1", "rx1", "ground", "rx3"),
			pins.CodeOtherFeed,
			verdict.Change,
		},
		{
			"the supply where the feed says",
			soldered("", "ground", "tx1", "rx1", "ground", "rx3"),
			pins.CodeFits,
			verdict.Fits,
		},
		{"nothing said", soldered(), pins.CodeUnknown, verdict.Unknown},
	} {
		t.Run(c.name, func(t *testing.T) {
			findings := pins.Check(caseOf(sample.Set(), c.fit))
			assert.Contains(t, codes(findings), c.code)
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
		})
	}
}

func TestWithASeparateReceiverTheRCPairStaysOff(t *testing.T) {
	f := soldered("10v", "ground", "tx1", "rx1", "ground", "rx3")
	f.Controller, f.Receiver = nil, "receiver"
	assert.Equal(t, verdict.Unknown, verdict.Worst(pins.Check(caseOf(sample.Set(), f))), "which port the receiver is on")
	f.Ports = []fleet.Port{{UART: 3, Use: fleet.UseReceiver}}
	findings := pins.Check(caseOf(sample.Set(), f))
	assert.Contains(t, codes(findings), pins.CodeSpareRC)
	f.Ports[0].UART = 1
	assert.Contains(t, codes(pins.Check(caseOf(sample.Set(), f))), pins.CodePort, "MSP and the receiver on one port")
	f.Ports[0].UART, f.Wires = 2, f.Wires[:4]
	says := pins.Check(caseOf(sample.Set(), f))
	assert.Equal(t, verdict.Unfit, verdict.Worst(says), "it needs both pads, and only TX 2 is broken out")
}

// Whatever value the gate rests on is taken away: it is named, and never fine.
func TestMissingValuesAreNamed(t *testing.T) {
	for field, remove := range map[string]func(*gear.Set, *fleet.Fit){
		"plug":             func(s *gear.Set, _ *fleet.Fit) { s.AirUnits[1].Plug = nil },
		"rcOut.inverted":   func(s *gear.Set, _ *fleet.Fit) { s.AirUnits[1].RCOut = nil },
		"uarts":            func(s *gear.Set, _ *fleet.Fit) { s.Boards[0].UARTs = nil },
		"uarts.1.hardware": func(s *gear.Set, _ *fleet.Fit) { s.Boards[0].UARTs[0].Hardware = nil },
		"uarts.3.invert":   func(s *gear.Set, _ *fleet.Fit) { s.Boards[0].UARTs[2].Invert = "" },
		"next.wires":       func(_ *gear.Set, f *fleet.Fit) { f.Wires = nil },
		"next.airUnit":     func(_ *gear.Set, f *fleet.Fit) { f.AirUnit = nil },
	} {
		t.Run(field, func(t *testing.T) {
			set, f := sample.Set(), soldered("10v", "ground", "tx1", "rx1", "ground", "rx3")
			remove(set, &f)
			findings := pins.Check(caseOf(set, f))
			assert.Equal(t, verdict.Unknown, verdict.Worst(findings))
			var named []string
			for _, f := range findings {
				for _, m := range f.Missing {
					named = append(named, m.Field)
				}
			}
			assert.Contains(t, named, field)
		})
	}
}

// Six pads with two grounds: of fifteen pairs fourteen are open (common practice).
func TestContinuityOfSixPads(t *testing.T) {
	pairs := pins.Continuity(caseOf(sample.Set(), soldered()))
	require.Len(t, pairs, 15)
	for _, p := range pairs {
		assert.Equal(t, p.A == 2 && p.B == 5, p.Connected, p.Label)
		assert.NotEmpty(t, p.Wrong)
	}
	set := sample.Set()
	set.AirUnits[1].Plug.Pins[4] = ""
	assert.Len(t, pins.Continuity(caseOf(set, soldered())), 10, "six slots, five wires")
}

func TestCablesAndHeaders(t *testing.T) {
	set := sample.Set()
	set.Harnesses = append(set.Harnesses, gear.Harness{
		Entry: gear.Entry{ID: "odd"},
		From:  "gh-6",
		To:    "sh-6",
		Wires: sample.Wires(1, 2, 3, 4, 5, 6),
	})
	findings := pins.Check(caseOf(set, plugged("odd")))
	assert.Contains(t, codes(findings), pins.CodeConnector)
	var says []string
	c := caseOf(set, plugged("odd"))
	for _, cand := range pins.Candidates(c) {
		says = append(says, change.Words(c, cand.Patch))
	}
	assert.Contains(t, says, "put the straight into the hd")
	headers := pins.Headers(caseOf(set, soldered()))
	require.Len(t, headers, 1)
	assert.True(t, headers[0].Fits)
	set.Boards[0].Plugs[1].Pins[0], set.Boards[0].Plugs[1].Pins[1] = "ground", "10v"
	assert.False(t, pins.Headers(caseOf(set, soldered()))[0].Fits, "supply would meet ground")
}

// Colours lie: yellow was the sticks and is the UART now.
func TestOldAndNewHarnessByFunction(t *testing.T) {
	c := caseOf(sample.Set(), soldered("10v", "ground", "tx1", "rx1", "ground", "rx3"))
	c.Quad.Now = c.Quad.Next.Clone()
	c.Quad.Now.Wires[5].Colour = "yellow"
	c.Quad.Next.Wires[3].Colour, c.Quad.Next.Wires[3].To, c.Quad.Next.Wires[2].To = "yellow", "rx3", "tx3"
	c.Quad.Next.Wires = c.Quad.Next.Wires[:5]
	changes := map[string]pins.Change{}
	for _, ch := range pins.Compare(c.Library, c.Fleet, c.Quad) {
		changes[ch.Function] = ch
	}
	assert.Equal(t, "same", changes["supply"].Kind)
	assert.Equal(t, "moved", changes["UART TX"].Kind)
	assert.Equal(t, "yellow is UART TX now; it was RC output", changes["UART TX"].Colour)
	assert.Equal(t, "missing", changes["RC output"].Kind)
}

func TestTheSolderingList(t *testing.T) {
	f := soldered("10v", "ground", "tx1", "rx1", "ground", "rx3")
	f.Jumpers = map[string]string{"cam": "10v"}
	list := pins.Soldering(caseOf(sample.Set(), f))
	require.Len(t, list.Wires, 6)
	assert.Equal(t, "board TX 1", list.Wires[2].To)
	assert.Equal(t, "crossed: RX goes to TX", list.Wires[2].Note)
	assert.Equal(t, []string{"cam: on 10v"}, list.Jumpers)
	assert.Empty(t, pins.Soldering(caseOf(sample.Set(), plugged("straight"))).Wires)
}

// A board with too few ports says which use loses, why each port will not do,
// and what would solve it.
func TestABoardWithNoFreePort(t *testing.T) {
	f := soldered("10v", "ground", "tx1", "rx1")
	f.Controller, f.Receiver = nil, "receiver"
	f.Ports = []fleet.Port{{UART: 3, Use: fleet.UseReceiver}, {UART: 2, Use: fleet.UseGPS}}
	set := sample.Set()
	set.Boards[0].UARTs[2].Invert = gear.InvertNone
	plan, ok := pins.Ports(caseOf(set, f))
	require.True(t, ok)
	assert.Empty(t, plan.Lost, "GPS goes onto the soft-serial port")
	set.Boards[0].UARTs = set.Boards[0].UARTs[:3]
	plan, ok = pins.Ports(caseOf(set, f))
	require.True(t, ok)
	require.Len(t, plan.Lost, 1)
	lost := plan.Lost[0]
	assert.Equal(t, fleet.UseGPS, lost.Use, "the sticks and MSP come first")
	assert.Equal(t, []string{
		"UART 1 is taken by a more important use",
		"UART 2 has no RX pad",
		"UART 3 is taken by a more important use",
	}, lost.Why)
	assert.Contains(t, lost.Cures, "do without the separate receiver")
	assert.Contains(t, lost.Cures, "a board with one more hardware port, both pads broken out")
	assert.Contains(t, plan.Says, "GPS finds no port")
}

// Out of analog: the control wire's port is free, and what it cannot do is said.
func TestWhatTheAnalogTransmitterFrees(t *testing.T) {
	f := soldered("10v", "ground", "tx1", "rx1", "ground", "rx3")
	c := caseOf(sample.Set(), f)
	c.Quad.Now = fleet.Fit{
		Analog: "analog",
		Board:  "board",
		Wiring: fleet.Wiring{Ports: []fleet.Port{{UART: 2, Use: fleet.UseVTXControl}}},
	}
	plan, ok := pins.Ports(c)
	require.True(t, ok)
	require.Len(t, plan.Freed, 1)
	assert.Contains(t, plan.Freed[0], "UART 2, once the control wire")
	assert.Contains(t, plan.Freed[0], "cannot carry MSP")
}

// The picture: every wire from its pin to where it ends, the dangerous ones said.
func TestThePictureOfThePins(t *testing.T) {
	pic := pins.Draw(caseOf(sample.Set(), plugged("straight")))
	assert.Empty(t, pic.Missing)
	require.Len(t, pic.Wires, 6)
	for i, w := range pic.Wires {
		assert.Equal(t, [2]int{i, i}, [2]int{w.Pin, w.Spot})
		assert.Equal(t, verdict.Fits, w.Level)
	}
	pic = pins.Draw(caseOf(sample.Set(), soldered("", "ground", "10v", "tx1", "ground", "rx3")))
	levels := map[string]verdict.Level{}
	for _, w := range pic.Wires {
		levels[w.Function] = w.Level
	}
	assert.Equal(t, verdict.Unfit, levels["UART RX"])
	assert.Equal(t, verdict.Change, levels["UART TX"])
	assert.NotEmpty(t, pins.Draw(caseOf(sample.Set(), soldered())).Missing)
}

// A unit whose plug nobody has described has ways out all the same, or none; it stops nothing.
func TestWaysOutOfAUnitWithoutAPlug(t *testing.T) {
	set := sample.Set()
	set.AirUnits[0].Plug = nil
	for _, f := range []fleet.Fit{soldered("10v", "ground", "tx1", "rx1", "ground", "rx3"), withParts()} {
		f.AirUnit = &fleet.Slot{Model: set.AirUnits[0].ID}
		c := caseOf(set, f)
		assert.NotPanics(t, func() { pins.Candidates(c) })
		assert.NotEqual(t, verdict.Fits, verdict.Worst(pins.Check(c)))
	}
}
