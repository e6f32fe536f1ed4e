package control_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/control"
	"yokeswap/core/internal/sample"
)

func caseOf(set *gear.Set, change func(*fleet.Fit)) fleet.Case {
	fit := fleet.Fit{
		AirUnit:    &fleet.Slot{Kit: "first"},
		Goggles:    &fleet.Slot{Kit: "new-eyes"},
		Controller: &fleet.Slot{Kit: "old-hand"},
		Board:      "board",
		Wiring:     fleet.Wiring{Wires: sample.Wired()},
		Flight:     sample.Flight(),
	}
	change(&fit)
	return sample.Case(set, []fleet.Kit{
		sample.Own("first", "1.1", ""),
		sample.Own("new-eyes", "5.2", "b"),
		sample.Own("old-hand", "", ""),
	}, fit)
}

func codes(findings []verdict.Finding) (list []verdict.Code) {
	for _, f := range findings {
		list = append(list, f.Code)
	}
	return list
}

// The trade's cases (common practice): both ends of the link on the same protocol,
// sticks from 1000 to 2000, a switch to arm that no other switch throws.
func TestTheTradesCases(t *testing.T) {
	separate := func(f *fleet.Fit) {
		f.Controller, f.Receiver = nil, "receiver"
		f.Ports = []fleet.Port{{UART: 3, Use: fleet.UseReceiver}}
	}
	on := func(mode string, aux, from, to int) func(*fleet.Fit) {
		return func(f *fleet.Fit) {
			f.Sticks.Switches = append(f.Sticks.Switches, fleet.Switch{Mode: mode, Aux: aux, FromUS: from, ToUS: to})
		}
	}
	for _, c := range []struct {
		name   string
		change func(*fleet.Fit)
		code   verdict.Code
		level  verdict.Level
	}{
		{"as it should be", func(*fleet.Fit) {}, control.CodeFits, verdict.Fits},
		{"a separate receiver", separate, control.CodeFits, verdict.Fits},
		{
			"a separate receiver on no port",
			func(f *fleet.Fit) { separate(f); f.Ports = nil },
			control.CodeUnknown,
			verdict.Unknown,
		},
		{"normal against fast", func(f *fleet.Fit) { f.Sticks.Board = fleet.Fast }, control.CodeVariant, verdict.Change},
		{
			"a protocol the unit has not",
			func(f *fleet.Fit) { f.Sticks.Unit, f.Sticks.Board = fleet.LowLatency, fleet.LowLatency },
			control.CodeVariant,
			verdict.Unfit,
		},
		{"ends too short", func(f *fleet.Fit) { f.Sticks.MinUS = new(1080) }, control.CodeEnds, verdict.Caution},
		{"nothing arms", func(f *fleet.Fit) { f.Sticks.Switches = f.Sticks.Switches[1:] }, control.CodeNoArm, verdict.Change},
		{"arming within another mode", on("level", 1, 1500, 2000), control.CodeArmIn, verdict.Unfit},
		{"arming beside another mode", on("level", 1, 1000, 1700), control.CodeFits, verdict.Fits},
		{"one switch for two modes", on("flip-over", 3, 1900, 2100), control.CodeTwice, verdict.Caution},
		{"a mode the firmware has not", on("hover-tea", 5, 1700, 2100), control.CodeMode, verdict.Unfit},
		{"no channel order", func(f *fleet.Fit) { f.Sticks.Order = "" }, control.CodeUnknown, verdict.Unknown},
		{"nothing said", func(f *fleet.Fit) { f.Sticks = nil }, control.CodeUnknown, verdict.Unknown},
		{"nothing to bring the sticks", func(f *fleet.Fit) { f.Controller = nil }, control.CodeNothing, verdict.Unknown},
		{
			"no flight board",
			func(f *fleet.Fit) { f.Board, f.None = "", []string{fleet.NoBoard} },
			control.CodeNoBoard,
			verdict.Caution,
		},
		{"a flight board nobody has stated", func(f *fleet.Fit) { f.Board = "" }, control.CodeUnknown, verdict.Unknown},
		{"arming that is never reached", on("arm", 4, 2050, 2100), control.CodeArmRange, verdict.Unfit},
		{"arming below the travel", on("arm", 4, 900, 975), control.CodeArmRange, verdict.Unfit},
		{"arming that is never left", on("arm", 4, 900, 2100), control.CodeArmRange, verdict.Unfit},
		{"arming lost in the board's steps", on("arm", 4, 1702, 1710), control.CodeArmRange, verdict.Unfit},
		{"arming from the end of the travel", on("arm", 4, 2000, 2100), control.CodeFits, verdict.Fits},
		{"a mode that is always on where it arms", on("level", 1, 900, 2100), control.CodeFits, verdict.Fits},
		{"a mode that is never reached", on("flip-over", 5, 2050, 2100), control.CodeNever, verdict.Caution},
	} {
		t.Run(c.name, func(t *testing.T) {
			findings := control.Check(caseOf(sample.Set(), c.change))
			assert.Contains(t, codes(findings), c.code)
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
		})
	}
	set := sample.Set()
	set.FlightFirmware[0].Providers = map[string]int{"leat": 9}
	assert.Equal(t, verdict.Unfit, verdict.Worst(control.Check(caseOf(set, func(*fleet.Fit) {}))), "it reads no SBUS")
}

func TestWhatChangesForTheHands(t *testing.T) {
	c := caseOf(sample.Set(), func(*fleet.Fit) {})
	c.Quad.Now = c.Quad.Next.Clone()
	c.Quad.Now.Controller, c.Quad.Now.Receiver = nil, "receiver"
	findings := control.Check(c)
	assert.Equal(t, []verdict.Code{control.CodeLatency}, codes(findings))
	assert.Contains(t, findings[0].Says, "14 ms later than today")
	c.Fit.Sticks.Unit, c.Fit.Sticks.Board = fleet.Fast, fleet.Fast
	assert.Equal(t, []verdict.Code{control.CodeFits}, codes(control.Check(c)), "6 ms are not felt")
}

// Every proposal does what it says when it is tried.
func TestCandidatesHelp(t *testing.T) {
	c := caseOf(sample.Set(), func(f *fleet.Fit) {
		f.Sticks.Board, f.Sticks.MinUS = fleet.Fast, new(1080)
		f.Sticks.Switches = append(f.Sticks.Switches, fleet.Switch{Mode: "level", Aux: 1, FromUS: 1500, ToUS: 2000})
	})
	for _, says := range []string{
		"set goggles and flight board to normal",
		"set the end points to 1000 and 2000",
		"put arm on AUX 4 from 1700 to 2100",
	} {
		found := false
		for _, cand := range control.Candidates(c) {
			if change.Words(c, cand.Patch) == says {
				c, found = c.With(cand.Patch), true
				break
			}
		}
		assert.True(t, found, says)
	}
	assert.Equal(t, []verdict.Code{control.CodeFits}, codes(control.Check(c)))
}

func TestSwitchesLightTheirModes(t *testing.T) {
	switches := []fleet.Switch{
		{Mode: "arm", Aux: 1, FromUS: 1700, ToUS: 2100},
		{Mode: "level", Aux: 2, FromUS: 900, ToUS: 1300},
		{Mode: "beeper", Aux: 9, FromUS: 900, ToUS: 2100},
	}
	assert.Equal(t, []control.Lit{{Mode: "arm", Aux: 1}, {Mode: "level", Aux: 2, On: true}, {Mode: "beeper", Aux: 9}},
		control.Lights(switches, []int{1500, 1500, 1000, 1500, 1000, 1000, 1000}))
}

func TestTheWayOfTheSticks(t *testing.T) {
	way := func(c fleet.Case) (labels []string) {
		for _, hop := range control.Draw(c).Way {
			labels = append(labels, hop.Label+": "+hop.Set)
		}
		return labels
	}
	assert.Equal(t, []string{
		"old-hand: 1000 to 2000 µs",
		"first: RC protocol normal",
		"UART 3: serial receiver, sbus",
		"board: order AETR, normal",
	}, way(caseOf(sample.Set(), func(*fleet.Fit) {})))
	separate := caseOf(sample.Set(), func(f *fleet.Fit) {
		f.Receiver, f.Ports = "receiver", []fleet.Port{{UART: 3, Use: fleet.UseReceiver}}
	})
	assert.Equal(t, []string{
		"the pilot's own controller: 1000 to 2000 µs",
		"receiver: separate; the air unit's RC wires stay off",
		"UART 3: serial receiver, leat",
		"board: order AETR",
	}, way(separate))
	nothing := caseOf(sample.Set(), func(f *fleet.Fit) { f.Sticks = nil })
	assert.Contains(t, way(nothing), "first: RC protocol not said")
	assert.Equal(t, "There is no flight board.", control.Draw(caseOf(sample.Set(), func(f *fleet.Fit) {
		f.Board = ""
	})).Missing)
	assert.NotEmpty(t, control.Draw(caseOf(sample.Set(), func(f *fleet.Fit) { f.Controller = nil })).Missing)
	pic := control.Draw(caseOf(sample.Set(), func(*fleet.Fit) {}))
	assert.InDelta(t, 20, *pic.NextMS, 1e-9)
	assert.Len(t, pic.Switches, 3)
}

// A range's ends go in steps of 25 µs from 900 to 2100, to the nearest.
func TestTheStepsOfARange(t *testing.T) {
	for us, step := range map[int]int{0: 900, 900: 900, 912: 900, 913: 925, 1000: 1000, 1700: 1700, 2087: 2075, 2088: 2100, 2100: 2100, 3000: 2100} {
		assert.Equal(t, step, control.BoardSteps(us), "%d µs", us)
	}
}

// A mode is on from the lower end of its range up to, and not at, its upper end; a channel
// that a receiver does not send lights nothing.
func TestLights(t *testing.T) {
	arm := []fleet.Switch{{Mode: "arm", Aux: 1, FromUS: 1700, ToUS: 2100}}
	for _, c := range []struct {
		channels []int
		on       bool
	}{
		{[]int{1500, 1500, 1000, 1500, 1700}, true},
		{[]int{1500, 1500, 1000, 1500, 1699}, false},
		{[]int{1500, 1500, 1000, 1500, 2099}, true},
		{[]int{1500, 1500, 1000, 1500, 2100}, false},
		{[]int{1500, 1500, 1000, 1500}, false},
		{nil, false},
	} {
		assert.Equal(t, c.on, control.Lights(arm, c.channels)[0].On, "%v", c.channels)
	}
}
