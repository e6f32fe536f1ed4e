package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/link"
	"yokeswap/core/verdict"
)

func fit(air, goggles, hand string) fleet.Fit {
	f := fleet.Fit{AirUnit: &fleet.Slot{Kit: air}, Goggles: &fleet.Slot{Kit: goggles}, Board: "board"}
	if hand != "" {
		f.Controller = &fleet.Slot{Kit: hand}
	}
	return f
}

func kit() []fleet.Kit {
	return []fleet.Kit{sample.Own("first", "1.0.6", ""), sample.Own("second", "2.0", ""), sample.Own("small", "3.0", ""),
		sample.Own("old-eyes", "4.1", "a"), sample.Own("new-eyes", "5.0", "b"), sample.Own("old-hand", "", ""), sample.Own("new-hand", "1.0", "")}
}

func byCode(findings []verdict.Finding, code verdict.Code) *verdict.Finding {
	for i := range findings {
		if findings[i].Code == code {
			return &findings[i]
		}
	}
	return nil
}

// The trade's shapes of pairing (common practice).
func TestPairingsOfTheTrade(t *testing.T) {
	for _, c := range []struct {
		name               string
		air, goggles, hand string
		code               verdict.Code
		level              verdict.Level
	}{
		{"old unit, old goggles, up to and including 1.0.6", "first", "old-eyes", "old-hand", link.CodeLinks, verdict.Fits},
		{"old unit, new goggles: both sides update, one way", "first", "new-eyes", "old-hand", link.CodeUpdate, verdict.Change},
		{"a mode that comes by a chain of updates", "second", "old-eyes", "new-hand", link.CodeUpdate, verdict.Change},
		{"never, whatever the firmware", "small", "old-eyes", "", link.CodeNever, verdict.Unfit},
		{"no statement at all is unknown", "small", "new-eyes", "new-hand", link.CodeNoStatement, verdict.Unknown},
		{"the wrong controller generation", "first", "old-eyes", "new-hand", link.CodeController, verdict.Unfit},
		{"no controller and no receiver", "first", "old-eyes", "", link.CodeController, verdict.Unknown},
	} {
		t.Run(c.name, func(t *testing.T) {
			findings := link.Check(sample.Case(sample.Set(), kit(), fit(c.air, c.goggles, c.hand)))
			assert.NotNil(t, byCode(findings, c.code))
			assert.Equal(t, c.level, verdict.Worst(findings))
		})
	}
}

func TestASeparateReceiverMakesTheControllerMoot(t *testing.T) {
	next := fit("first", "old-eyes", "new-hand")
	next.Receiver = "receiver"
	findings := link.Check(sample.Case(sample.Set(), kit(), next))
	assert.Equal(t, verdict.Fits, verdict.Worst(findings))
	assert.NotNil(t, byCode(findings, link.CodeSeparate))
}

func TestAPlannedUpdateIsJudgedByItsWay(t *testing.T) {
	next := fit("first", "new-eyes", "old-hand")
	next.AirUnit.Firmware, next.Goggles.Firmware = "1.1", "5.2"
	findings := link.Check(sample.Case(sample.Set(), kit(), next))
	assert.Equal(t, verdict.Caution, verdict.Worst(findings))
	assert.Contains(t, byCode(findings, link.CodeOneWay).Says, "nothing known puts the old release back")

	next.AirUnit.Firmware = "9.9"
	assert.Equal(t, verdict.Unknown, verdict.Worst(link.Check(sample.Case(sample.Set(), kit(), next))),
		"how a release nobody lists gets on is not known")

	back := kit()
	back[0].Firmware = "1.1"
	next = fit("first", "old-eyes", "old-hand")
	next.AirUnit.Firmware = "1.0.6"
	assert.NotNil(t, byCode(link.Check(sample.Case(sample.Set(), back, next)), link.CodeNoWay), "the door does not open again")
}

func TestSwitchingTheModeLosesBindingsOneWayOnly(t *testing.T) {
	next := fit("second", "old-eyes", "new-hand")
	next.Goggles.Firmware, next.Goggles.Mode, next.Controller.Firmware = "4.6", "b", "1.1"
	findings := link.Check(sample.Case(sample.Set(), kit(), next))
	assert.Equal(t, verdict.Caution, byCode(findings, link.CodeModeSwitch).Level)

	owned := kit()
	owned[3].Firmware, owned[3].Mode = "4.6", "b"
	next = fit("first", "old-eyes", "old-hand")
	next.Goggles.Mode = "a"
	assert.Equal(t, verdict.Fits, byCode(link.Check(sample.Case(sample.Set(), owned, next)), link.CodeModeSwitch).Level)

	next.Goggles.Mode = "b"
	owned[3].Firmware, owned[3].Mode = "4.1", "a"
	assert.Equal(t, verdict.Unfit, byCode(link.Check(sample.Case(sample.Set(), owned, next)), link.CodeNoMode).Level,
		"the mode comes with 4.6")
}

// Nothing unknown passes for good: each fact removed is named.
func TestMissingFactsAreNamed(t *testing.T) {
	for field, remove := range map[string]func(*gear.Set, []fleet.Kit, *fleet.Fit){
		"next.airUnit": func(_ *gear.Set, _ []fleet.Kit, f *fleet.Fit) { f.AirUnit = nil },
		"next.goggles": func(_ *gear.Set, _ []fleet.Kit, f *fleet.Fit) { f.Goggles = nil },
		"firmware":     func(_ *gear.Set, k []fleet.Kit, _ *fleet.Fit) { k[0].Firmware = "" },
		"mode":         func(_ *gear.Set, k []fleet.Kit, _ *fleet.Fit) { k[3].Mode = "" },
		"activated": func(s *gear.Set, k []fleet.Kit, _ *fleet.Fit) {
			s.AirUnits[0].Activation.Needed, k[0].Activated = true, nil
		},
		"activation":  func(s *gear.Set, _ []fleet.Kit, _ *fleet.Fit) { s.AirUnits[0].Activation = nil },
		"controllers": func(s *gear.Set, _ []fleet.Kit, _ *fleet.Fit) { s.Pairings[0].Controllers = nil },
	} {
		t.Run(field, func(t *testing.T) {
			set, owned, next := sample.Set(), kit(), fit("first", "old-eyes", "old-hand")
			remove(set, owned, &next)
			findings := link.Check(sample.Case(set, owned, next))
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

func TestReachOfEachGoggles(t *testing.T) {
	c := sample.Case(sample.Set(), kit(), fit("first", "old-eyes", "old-hand"))
	assert.Equal(t, link.ReachNow, link.ReachOf(c, "old-eyes").Reach)
	after := link.ReachOf(c, "new-eyes")
	assert.Equal(t, link.ReachAfter, after.Reach)
	assert.Equal(t, 2, after.Updates, "1.1 on the unit, 5.2 on the goggles")

	c = sample.Case(sample.Set(), kit(), fit("second", "old-eyes", "new-hand"))
	assert.Equal(t, 2, link.ReachOf(c, "old-eyes").Updates, "4.1 to 4.4 to 4.6")
	c = sample.Case(sample.Set(), kit(), fit("small", "old-eyes", ""))
	assert.Equal(t, link.ReachNever, link.ReachOf(c, "old-eyes").Reach)
	assert.Equal(t, link.ReachUnknown, link.ReachOf(c, "new-eyes").Reach)
}

func TestAUnitNobodyHasReadIsUnknownNotNever(t *testing.T) {
	owned := kit()
	owned[0].Firmware = ""
	c := sample.Case(sample.Set(), owned, fit("first", "new-eyes", "old-hand"))
	assert.Equal(t, link.ReachUnknown, link.ReachOf(c, "new-eyes").Reach)
}

func TestFullPowerNeedsAFlightBoard(t *testing.T) {
	next := fit("second", "new-eyes", "")
	next.Board, next.AirUnit.Firmware = "", "2.3"
	findings := link.Check(sample.Case(sample.Set(), kit(), next))
	require.NotNil(t, byCode(findings, link.CodeLowPower))
	assert.Equal(t, verdict.Caution, verdict.Worst(findings))
}

func TestOneUnitCannotBeInTwoQuads(t *testing.T) {
	set := sample.Set()
	f := &fleet.Fleet{Kit: kit(), Quads: []fleet.Quad{{ID: "a", Now: fit("first", "old-eyes", "old-hand")}, {ID: "b", Now: fit("first", "old-eyes", "old-hand")}}}
	findings := link.Check(fleet.NewCase(gear.NewLibrary(set), fleet.NewIndex(f), &f.Quads[0]))
	assert.NotNil(t, byCode(findings, link.CodeTaken))
}

// A planned chain counts each of its updates, and a plan that no permitted step
// leads to links nothing.
func TestAPlannedChainCountsItsUpdates(t *testing.T) {
	next := fit("second", "old-eyes", "new-hand")
	next.Goggles.Firmware, next.Goggles.Mode = "4.6", "b"
	planned := link.ReachOf(sample.Case(sample.Set(), kit(), next), "old-eyes")
	assert.Equal(t, link.ReachAfter, planned.Reach)
	assert.Equal(t, 2, planned.Updates, "4.1 to 4.4 to 4.6")

	next = fit("first", "new-eyes", "old-hand")
	next.Goggles.Firmware = "5.2" // planned; the unit still lacks its update
	assert.Equal(t, 2, link.ReachOf(sample.Case(sample.Set(), kit(), next), "new-eyes").Updates)

	owned := kit()
	owned[0].Firmware = "1.1"
	next = fit("first", "old-eyes", "old-hand")
	next.AirUnit.Firmware = "1.0.6" // back through a one-way door
	assert.Equal(t, link.ReachNever, link.ReachOf(sample.Case(sample.Set(), owned, next), "old-eyes").Reach)
}
