package pins_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

func right() fleet.Fit { return soldered("10v", "ground", "tx1", "rx1", "ground", "rx3") }

func find(t *testing.T, c fleet.Case, code verdict.Code) verdict.Finding {
	t.Helper()
	for _, f := range pins.Check(c) {
		if f.Code == code {
			return f
		}
	}
	require.Failf(t, "not said", "%s among %v", code, codes(pins.Check(c)))
	return verdict.Finding{}
}

// No ground between unit and board is dangerous, soldered or in a cable; a missing RC
// ground is said (common practice).
func TestAMissingGround(t *testing.T) {
	f := find(t, caseOf(sample.Set(), soldered("10v", "", "tx1", "rx1", "ground", "rx3")), pins.CodeNoGround)
	assert.Equal(t, verdict.Unfit, f.Level)
	assert.Equal(t, verdict.Destroys, f.Danger)
	set := sample.Set()
	set.Harnesses[0].Wires = sample.Wires(1, 0, 3, 4, 5, 6)
	assert.Equal(t, verdict.Unfit, find(t, caseOf(set, plugged("straight")), pins.CodeNoGround).Level)
	f = find(t, caseOf(sample.Set(), soldered("10v", "ground", "tx1", "rx1", "", "rx3")), pins.CodeRCGround)
	assert.Equal(t, verdict.Caution, f.Level)
}

// The worst comes first: what destroys, then no ground, then no power.
func TestWhatDestroysComesFirst(t *testing.T) {
	list := codes(pins.Check(caseOf(sample.Set(), soldered("tx2", "", "batt", "rx1", "ground", "rx3"))))
	assert.Equal(t, []verdict.Code{pins.CodeDanger, pins.CodeNoGround}, list[:2])
	assert.Contains(t, list, pins.CodeDead)
}

// A four-wire cable with the RC pair soldered beside it is one wiring.
func TestWiresBesideACable(t *testing.T) {
	set, f := sample.Set(), plugged("straight")
	set.Harnesses[0].Wires = sample.Wires(1, 2, 3, 4)
	assert.Contains(t, codes(pins.Check(caseOf(set, f))), pins.CodeNoSticks)
	f.Wires = []fleet.Wire{{Pin: 5, To: "ground"}, {Pin: 6, To: "rx3"}}
	assert.Equal(t, []verdict.Code{pins.CodeFits, pins.CodeLoop}, codes(pins.Check(caseOf(set, f))))
	assert.Len(t, pins.Soldering(caseOf(set, f)).Wires, 2)
	f.Wires[1].To = "10v"
	assert.Equal(t, verdict.Destroys, find(t, caseOf(set, f), pins.CodeDanger).Danger)
}

// A cable never goes into bare pads, and not into what nobody knows.
func TestACableWantsAPlug(t *testing.T) {
	judge := func(change func(*gear.Set)) []verdict.Finding {
		set := sample.Set()
		change(set)
		return pins.Check(caseOf(set, plugged("straight")))
	}
	for name, k := range map[string]struct {
		change func(*gear.Set)
		level  verdict.Level
	}{
		"a unit with pads only": {func(s *gear.Set) {
			s.AirUnits[1].Plug.Connector, s.AirUnits[1].Plug.None = "", []string{"connector"}
		}, verdict.Unfit},
		"a row of pads, by its pitch": {func(s *gear.Set) {
			s.AirUnits[1].Plug.Connector, s.AirUnits[1].Plug.PitchMM = "", new(unit.Millimetres(1))
		}, verdict.Unfit},
		"a unit's plug of unknown kind": {func(s *gear.Set) { s.AirUnits[1].Plug.Connector = "" }, verdict.Unknown},
		"pads of the board": {func(s *gear.Set) {
			s.Boards[0].Plugs[0].Connector, s.Boards[0].Plugs[0].None = "", []string{"connector"}
		}, verdict.Unfit},
		"a board's plug of unknown kind": {func(s *gear.Set) { s.Boards[0].Plugs[0].Connector = "" }, verdict.Unknown},
		"a cable's end of unknown kind":  {func(s *gear.Set) { s.Harnesses[0].From = "" }, verdict.Unknown},
		"a cable with bare ends": {
			func(s *gear.Set) { s.Harnesses[0].To, s.Harnesses[0].None = "", []string{"to"} },
			verdict.Unfit,
		},
	} {
		assert.Equal(t, k.level, verdict.Worst(judge(k.change)), name)
	}
}

// What a port's pads are: a soft-serial port is no place for the sticks, a fixed
// inverter none for MSP, and a second pad or the pad printed as TX can be right.
func TestPadsOfAPort(t *testing.T) {
	at := func(change func(*gear.Set), wires ...string) []verdict.Finding {
		set := sample.Set()
		change(set)
		return pins.Check(caseOf(set, soldered(wires...)))
	}
	soft := at(func(*gear.Set) {}, "10v", "ground", "tx1", "rx1", "ground", "rx4")
	assert.Contains(t, codes(soft), pins.CodeSoftSerial)
	assert.Equal(t, verdict.Unfit, verdict.Worst(soft))
	unstated := at(func(s *gear.Set) {
		s.Boards[0].UARTs[2].Hardware = nil
	}, "10v", "ground", "tx1", "rx1", "ground", "rx3")
	assert.Equal(t, verdict.Unknown, verdict.Worst(unstated))
	fixed := at(func(*gear.Set) {}, "10v", "ground", "tx3", "rx3", "ground", "rx1")
	assert.Contains(t, codes(fixed), pins.CodeInverted, "MSP into an inverter")
	second := func(s *gear.Set) { s.Boards[0].UARTs[2].Invert = gear.InvertSecond }
	assert.Equal(t, verdict.Unfit, verdict.Worst(at(second, "10v", "ground", "tx1", "rx1", "ground", "rx3")),
		"its plain pad")
	assert.Equal(t, verdict.Fits, verdict.Worst(at(second, "10v", "ground", "tx1", "rx1", "ground", "inv3")))
	listens := func(s *gear.Set) {
		s.Boards[0].UARTs[2].Invert, s.Boards[0].UARTs[2].TXListens, s.Boards[0].UARTs[2].TXPrinted = gear.InvertSoftware, new(
			true,
		), "T3"
	}
	assert.Equal(t, verdict.Fits, verdict.Worst(at(listens, "10v", "ground", "tx1", "rx1", "ground", "tx3")),
		"where the board says so")
	assert.Contains(t, at(func(*gear.Set) {}, "10v", "ground", "tx1", "rx1", "ground", "tx3")[0].Says, "a sender")
}

// The jumper of an inverter: as the plan needs it where the fit does not speak of it,
// on the list of what to set, and judged where the fit does.
func TestTheJumperOfAnInverter(t *testing.T) {
	set, f := sample.Set(), right()
	set.Boards[0].UARTs[2].Invert = gear.InvertJumper
	assert.Equal(t, verdict.Caution, find(t, caseOf(set, f), pins.CodeJumper).Level)
	assert.Equal(t, []fleet.Jumper{{Pad: "rx3", Choice: "inverted"}}, pins.InverterJumpers(caseOf(set, f)))
	assert.Equal(t, []string{"inverter of RX 3: on inverted"}, pins.Soldering(caseOf(set, f)).Jumpers)
	f.Jumpers = map[string]string{"rx3": "plain"}
	assert.Equal(t, verdict.Change, find(t, caseOf(set, f), pins.CodeJumper).Level)
	f.Jumpers["rx3"] = "inverted"
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(set, f))))
	msp := soldered("10v", "ground", "tx3", "rx3")
	msp.Jumpers = map[string]string{"rx3": "inverted"}
	assert.Equal(t, verdict.Change, find(t, caseOf(set, msp), pins.CodeJumper).Level, "MSP is not inverted")
}

func TestTwoDriversOnOnePad(t *testing.T) {
	f := find(t, caseOf(sample.Set(), soldered("10v", "ground", "tx1", "rx1", "ground", "rx1")), pins.CodeDrivers)
	assert.Equal(t, verdict.Unfit, f.Level)
	assert.Contains(t, f.Says, "Leave one off")
	gps := right()
	gps.Ports = []fleet.Port{{UART: 3, Use: fleet.UseGPS}}
	assert.Contains(t, codes(pins.Check(caseOf(sample.Set(), gps))), pins.CodeDrivers)
}

// A use that loses its port is said, in the fix and afterwards, and is never fine.
func TestAUseGivenUpIsSaid(t *testing.T) {
	f := right()
	c := caseOf(sample.Set(), f)
	c.Quad.Now = f.Clone()
	c.Quad.Now.Ports = []fleet.Port{{UART: 4, Use: fleet.UseGPS}}
	assert.Equal(t, verdict.Caution, find(t, c, pins.CodeDropped).Level)
	with := f
	with.Ports = c.Quad.Now.Ports
	drop := fleet.Patch{Wiring: &fleet.Wiring{Wires: f.Wires}}
	assert.Equal(t, "give up GPS on UART 4", change.Words(caseOf(sample.Set(), with), drop))
}

// Crossing the pair is no way out on a port that cannot carry MSP, or is taken.
func TestCrossingIsNotOfferedForNothing(t *testing.T) {
	crosses := func(f fleet.Fit) bool {
		c := caseOf(sample.Set(), f)
		for _, cand := range pins.Candidates(c) {
			if strings.Contains(change.Words(c, cand.Patch), "solder pin 3 to TX 1 and pin 4 to RX 1") &&
				cand.Patch.Wiring.Ports == nil ||
				change.Words(c, cand.Patch) == "solder pin 3 to TX 4 and pin 4 to RX 4" {
				return true
			}
		}
		return false
	}
	assert.True(t, crosses(soldered("10v", "ground", "rx1", "tx1", "ground", "rx3")))
	assert.False(t, crosses(soldered("10v", "ground", "rx4", "tx4", "ground", "rx3")), "soft-serial")
	taken := soldered("10v", "ground", "rx1", "tx1", "ground", "rx3")
	taken.Ports = []fleet.Port{{UART: 1, Use: fleet.UseGPS}}
	assert.False(t, crosses(taken))
}

func TestTheCableInTheBoardsOtherSocket(t *testing.T) {
	set := sample.Set()
	set.Boards[0].Plugs = append(set.Boards[0].Plugs, gear.Plug{
		ID:        "other",
		Connector: "sh-6",
		Pins:      set.Boards[0].Plugs[0].Pins,
	})
	set.Boards[0].Plugs[0].Pins = []string{"ground", "10v", "tx1", "rx1", "ground", "rx3"}
	c := caseOf(set, plugged("straight"))
	tried := false
	for _, cand := range pins.Candidates(c) {
		if w := cand.Patch.Wiring; w != nil && w.Harness == "straight" && w.HarnessTo == "other" {
			tried = true
			assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(c.With(cand.Patch))))
		}
	}
	assert.True(t, tried)
}

// Only the wires that move are named.
func TestOnlyWhatMovesIsNamed(t *testing.T) {
	c := caseOf(sample.Set(), soldered("10v", "ground", "tx1", "rx1", "ground", "rx2"))
	moved := right()
	assert.Equal(t, "solder pin 6 to RX 3", change.Words(c, fleet.Patch{Wiring: &moved.Wiring}))
}

// The plan says 10 V, the wire brings the pack: six cells burn it, four do not.
func TestTheWireBringsAnotherVoltageThanThePlan(t *testing.T) {
	f := soldered("batt", "ground", "tx1", "rx1", "ground", "rx3")
	f.AirUnit, f.Pack = &fleet.Slot{Model: "first"}, "lipo-6"
	burns := find(t, caseOf(sample.Set(), f), pins.CodeBurns)
	assert.Equal(t, verdict.Unfit, burns.Level)
	assert.Contains(t, burns.Says, "would see 25.2 V from the batt; its window ends at 17.6 V")
	assert.Contains(t, burns.Says, "It burns")
	f.Pack = "lipo-4"
	f.PackLead = sample.Lead()
	other := find(t, caseOf(sample.Set(), f), pins.CodeOtherFeed)
	assert.NotEqual(t, verdict.Fits, other.Level)
	lead := &fleet.Lead{MM: new(unit.Millimetres(42))}
	for i := range f.Feeds {
		f.Feeds[i].Lead = lead
	}
	feeds := 0
	for _, cand := range pins.Candidates(caseOf(sample.Set(), f)) {
		if cand.Patch.Feed != nil {
			feeds++
			assert.Equal(t, lead, cand.Patch.Feed.Lead, "the lead stays")
		}
	}
	assert.Positive(t, feeds)
}

// What reads the same on both sides has not moved.
func TestNothingMovedThatReadsTheSame(t *testing.T) {
	c := caseOf(sample.Set(), plugged("straight"))
	c.Quad.Now = right()
	c.Quad.Now.AirUnit = &fleet.Slot{Model: "second"}
	for _, ch := range pins.Compare(c.Library, c.Fleet, c.Quad) {
		assert.Equal(t, "same", ch.Kind, "%s: %s", ch.Function, ch.Says)
	}
}

// How far the unit is wired is a choice: what was left out on purpose is no finding,
// and what it costs is said.
func TestTheDepthOfTheWiring(t *testing.T) {
	picture := soldered("10v", "ground")
	picture.Controller, picture.Receiver = nil, "receiver"
	picture.Ports = []fleet.Port{{UART: 1, Use: fleet.UseReceiver}}
	assert.Contains(t, codes(pins.Check(caseOf(sample.Set(), picture))), pins.CodeNoOSD)
	picture.Depth = fleet.PictureOnly
	findings := pins.Check(caseOf(sample.Set(), picture))
	require.Equal(t, []verdict.Code{pins.CodeFits}, codes(findings))
	assert.Contains(t, findings[0].Says, "no OSD")
	data := soldered("10v", "ground", "tx1", "rx1")
	data.Depth = fleet.PictureAndData
	assert.Equal(t, verdict.Unfit, verdict.Worst(pins.Check(caseOf(sample.Set(), data))), "the sticks still need a way")
	data.Controller, data.Receiver = nil, "receiver"
	data.Ports = []fleet.Port{{UART: 3, Use: fleet.UseReceiver}}
	assert.Equal(t, verdict.Unfit, verdict.Worst(pins.Check(caseOf(sample.Set(), data))),
		"a receiver that is not inverted on an inverter")
	set := sample.Set()
	set.Boards[0].UARTs[2].Invert = gear.InvertSoftware
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(set, data))))
}

// No flight board is a fact that is stated; not stated is unknown.
func TestNoBoardIsStated(t *testing.T) {
	f := fleet.Fit{AirUnit: &fleet.Slot{Model: "second"}, Feeds: []fleet.Feed{{To: fleet.NodeAirUnit, From: "pack"}}}
	assert.Equal(t, "next.board", find(t, caseOf(sample.Set(), f), pins.CodeUnknown).Missing[0].Field)
	f.None = []string{fleet.NoBoard}
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(sample.Set(), f))))
}
