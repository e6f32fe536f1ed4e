package link_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

func fit(air, goggles, hand string) fleet.Fit {
	f := fleet.Fit{AirUnit: &fleet.Slot{Kit: air}, Goggles: &fleet.Slot{Kit: goggles}, Board: "board"}
	if hand != "" {
		f.Controller = &fleet.Slot{Kit: hand}
	}
	return f
}

func kit() []fleet.Kit {
	return []fleet.Kit{
		sample.Own("first", "1.0.6", ""),
		sample.Own("second", "2.0", ""),
		sample.Own("small", "3.0", ""),
		sample.Own("old-eyes", "4.1", "a"),
		sample.Own("new-eyes", "5.0", "b"),
		sample.Own("old-hand", "", ""),
		sample.Own("new-hand", "1.0", ""),
	}
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
		{
			"old unit, new goggles: both sides update, one way",
			"first",
			"new-eyes",
			"old-hand",
			link.CodeUpdate,
			verdict.Change,
		},
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
	assert.NotNil(t, byCode(link.Check(sample.Case(sample.Set(), back, next)), link.CodeNoWay),
		"the door does not open again")
}

// A unit to be bought comes on a release nobody knows: it is judged by all that its gear lists.
func TestAnUpdateOfWhatIsToBeBought(t *testing.T) {
	for name, c := range map[string]struct {
		air    fleet.Slot
		set    func(first, second *gear.AirUnit)
		level  verdict.Level
		says   string
		doors  string
		asksOf string
	}{
		"it goes on all that are listed": {
			air: fleet.Slot{Model: "second", Firmware: "2.3"}, level: verdict.Caution,
			says: "second comes on a release nobody knows. 2.3 goes on each that is listed; one that is newer may not let it",
			set:  func(_, second *gear.AirUnit) { second.Releases[1].RollbackTo = []firmware.Version{"2.0"} },
		},
		"behind a one-way door": {
			air: fleet.Slot{Model: "first", Firmware: "1.0.6"}, level: verdict.Unknown, asksOf: "next.airUnit.kit",
			says: "nothing known puts 1.0.6 on one that carries 1.1",
		},
		"through a one-way door, from some": {
			air: fleet.Slot{Model: "first", Firmware: "1.1"}, level: verdict.Caution,
			says: "first comes on a release nobody knows", doors: "Updating first from 1.0 to 1.1 is a one-way door",
		},
		"whatever is on it": {
			air: fleet.Slot{Model: "second", Firmware: "2.3"}, doors: "is a one-way door: nothing known puts the old",
			set: func(_, second *gear.AirUnit) { second.Releases[1].From = "*" },
		},
		"not listed at all": {air: fleet.Slot{Model: "second", Firmware: "9.9"}, level: verdict.Unknown, asksOf: "releases",
			says: "how release 9.9 gets onto second"},
	} {
		set, next := sample.Set(), fit("second", "new-eyes", "new-hand")
		if next.AirUnit = &c.air; c.set != nil {
			c.set(&set.AirUnits[0], &set.AirUnits[1])
		}
		findings := link.Check(sample.Case(set, kit(), next))
		assert.Equal(t, c.doors != "", byCode(findings, link.CodeOneWay) != nil, name)
		assert.Contains(t, fmt.Sprint(findings), c.doors, name)
		if f := byCode(findings, link.CodeNoWay); c.says == "" {
			assert.Nil(t, f, name)
		} else if assert.NotNil(t, f, name) {
			assert.Equal(t, c.level, f.Level, name)
			assert.Contains(t, f.Says+fmt.Sprint(f.Missing), c.says, name)
			if c.asksOf != "" {
				assert.Equal(t, c.asksOf, f.Missing[0].Field, name)
				assert.NotEmpty(t, f.Missing[0].ID, name)
			}
		}
	}
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
		"activation": func(s *gear.Set, k []fleet.Kit, _ *fleet.Fit) {
			s.AirUnits[0].Activation, k[0].Activated = nil, nil
		},
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

	gone := kit()
	gone[0].Firmware = "1.1"
	never := link.ReachOf(sample.Case(sample.Set(), gone, fit("first", "old-eyes", "old-hand")), "old-eyes")
	assert.Equal(t, link.ReachNever, never.Reach)
	assert.Equal(t, "no release within reach links them", never.Says, "the sticks are not what fails")

	c = sample.Case(sample.Set(), kit(), fit("second", "old-eyes", "new-hand"))
	assert.Equal(t, 3, link.ReachOf(c, "old-eyes").Updates, "4.1 to 4.4 to 4.6, and 1.1 on the controller")
	c = sample.Case(sample.Set(), kit(), fit("small", "old-eyes", ""))
	assert.Equal(t, link.ReachNever, link.ReachOf(c, "old-eyes").Reach)
	assert.Equal(t, link.ReachUnknown, link.ReachOf(c, "new-eyes").Reach)
}

// A unit nobody has read: where each of its releases can be brought to one that links,
// it links after it is read; where not, it is unknown, not never.
func TestAUnitNobodyHasRead(t *testing.T) {
	owned := kit()
	owned[0].Firmware = ""
	c := sample.Case(sample.Set(), owned, fit("first", "new-eyes", "old-hand"))
	reach := link.ReachOf(c, "new-eyes")
	assert.Equal(t, link.ReachAfter, reach.Reach)
	assert.Contains(t, reach.Says, "reading the release of first")
	update := byCode(link.Check(c), link.CodeUpdate)
	require.NotNil(t, update)
	assert.Equal(t, verdict.Change, update.Level)
	assert.Contains(t, update.Says, "Nobody has read what first carries")
	c = sample.Case(sample.Set(), owned, fit("first", "old-eyes", "old-hand"))
	assert.Equal(t, link.ReachUnknown, link.ReachOf(c, "old-eyes").Reach, "on 1.1 there is no way back to 1.0.6")
	next := fit("first", "new-eyes", "old-hand")
	next.AirUnit = &fleet.Slot{Model: "first"} // still to be bought
	assert.NotNil(t, byCode(link.Check(sample.Case(sample.Set(), kit(), next)), link.CodeUpdate))
}

// Sticks belong to the link: a cell says with which controller, another one owned is
// tried, and where none goes along the quad does not fly.
func TestReachTakesTheSticksAlong(t *testing.T) {
	c := sample.Case(sample.Set(), kit(), fit("first", "old-eyes", "old-hand"))
	assert.Equal(t, "old-hand", link.ReachOf(c, "old-eyes").Controller)
	c = sample.Case(sample.Set(), kit(), fit("first", "old-eyes", "new-hand"))
	reach := link.ReachOf(c, "old-eyes")
	assert.Equal(t, link.ReachNow, reach.Reach)
	assert.Equal(t, "old-hand", reach.Controller, "the one of the plan does not go through it")
	set := sample.Set()
	set.Pairings[0].Controllers = []gear.ControllerRange{}
	reach = link.ReachOf(sample.Case(set, kit(), fit("first", "old-eyes", "old-hand")), "old-eyes")
	assert.Equal(t, link.ReachNever, reach.Reach)
	assert.Contains(t, reach.Says, "no controller owned goes through it")
	assert.True(t, reach.NoSticks)
	separate := fit("first", "old-eyes", "")
	separate.Receiver = "receiver"
	assert.Equal(t, "receiver", link.ReachOf(sample.Case(set, kit(), separate), "old-eyes").Controller)
}

// That nobody has tried a pair is a statement too: unknown, with where it is from; where
// another says that it links, that counts.
func TestAPairNobodyHasTried(t *testing.T) {
	set := sample.Set()
	set.Pairings = append(set.Pairings, gear.Pairing{Entry: gear.Entry{ID: "small-new-eyes", Source: gear.Source{Kind: "maker",
		Text: "the maker's table"}}, AirUnit: "small", Goggles: "new-eyes", Untested: true})
	next := fit("small", "new-eyes", "new-hand")
	found := byCode(link.Check(sample.Case(set, kit(), next)), link.CodeNoStatement)
	require.NotNil(t, found)
	assert.Equal(t, verdict.Unknown, found.Level)
	assert.Equal(t, "unknown: whether small links with new-eyes: it is stated that nobody has tried it", found.Says)
	assert.Contains(t, found.Source, "the maker's table")
	assert.Equal(t, link.ReachUnknown, link.ReachOf(sample.Case(set, kit(), next), "new-eyes").Reach)
	tried := set.Pairings[len(set.Pairings)-1]
	tried.ID, tried.Untested = "tried", false
	set.Pairings = append(set.Pairings, tried)
	assert.Nil(t, byCode(link.Check(sample.Case(set, kit(), next)), link.CodeNoStatement))
}

// Of two statements that hold for the picture, the one that holds for the sticks as well
// counts, wherever it stands.
func TestTheStatementWithTheSticksCounts(t *testing.T) {
	set := sample.Set()
	bare := set.Pairings[0]
	bare.ID, bare.Controllers = "bare", nil
	set.Pairings = append([]gear.Pairing{bare}, set.Pairings...)
	c := sample.Case(set, kit(), fit("first", "old-eyes", "old-hand"))
	assert.Equal(t, verdict.Fits, verdict.Worst(link.Check(c)))
	assert.Equal(t, link.ReachNow, link.ReachOf(c, "old-eyes").Reach)
}

// What is lost is told against today, whatever the goggles: features, limits,
// recording, and a picture that can no longer be flipped.
func TestWhatIsLostAgainstToday(t *testing.T) {
	set := sample.Set()
	set.Pairings[0].Features, set.Pairings[1].Features = []string{"picture flip", "recording"}, []string{"canvas"}
	set.Pairings[0].Limits, set.Pairings[1].Limits = &gear.Limits{
		BitrateMbps: new(unit.MegabitsPerSecond(60)),
	}, &gear.Limits{
		BitrateMbps: new(unit.MegabitsPerSecond(50)),
	}
	owned := kit()
	next := fit("first", "new-eyes", "old-hand")
	next.AirUnit.Firmware, next.Goggles.Firmware = "1.1", "5.2"
	next.UpsideDown = new(true)
	c := sample.Case(set, owned, next)
	c.Quad.Now = fit("first", "old-eyes", "old-hand")
	lost := byCode(link.Check(c), link.CodeFeaturesLost)
	require.NotNil(t, lost)
	assert.Contains(t, lost.Says, "picture flip, recording, bit rate (50 Mb/s at most, today 60 Mb/s)")
	assert.Equal(t, verdict.Change, byCode(link.Check(c), link.CodeUpsideDown).Level)
	set.Pairings[1].Features = nil
	assert.Equal(t, verdict.Unknown, byCode(link.Check(c), link.CodeUpsideDown).Level)
}

// A recording that replaced an action camera is lost with the camera that made it, also
// where the unit stays; one in its place may make another.
func TestARecordingGoesWithItsCamera(t *testing.T) {
	for _, c := range []struct {
		own, other *bool
		level      verdict.Level
	}{
		{new(true), new(false), verdict.Caution},
		{new(true), new(true), verdict.Fits},
		{new(false), new(true), verdict.Fits},
		{new(true), nil, verdict.Unknown},
		{nil, new(false), verdict.Unknown},
	} {
		set := sample.Set()
		set.AirUnits[0].Camera.RecordsOwn = c.own
		set.Cameras = []gear.CameraModel{{Entry: gear.Entry{ID: "other-camera"}, Camera: gear.Camera{RecordsOwn: c.other}}}
		next := fit("first", "old-eyes", "old-hand")
		next.Camera = "other-camera"
		on := sample.Case(set, kit(), next)
		on.Quad.Now = fit("first", "old-eyes", "old-hand")
		level := verdict.Fits
		if f := byCode(link.Check(on), link.CodeFeaturesLost); f != nil {
			level = f.Level
		}
		assert.Equal(t, c.level, level, "%v, then %v", c.own, c.other)
	}
}

// Activation tied to releases is judged; and where not to go on is said.
func TestActivationAndWhereToStop(t *testing.T) {
	set, owned := sample.Set(), kit()
	set.AirUnits[0].Activation = &gear.Activation{Needed: true, Firmware: "<=1.0"}
	owned[0].Activated = new(false)
	findings := link.Check(sample.Case(set, owned, fit("first", "old-eyes", "old-hand")))
	assert.Equal(t, verdict.Unfit, byCode(findings, link.CodeActivation).Level, "from 1.0.6 nothing leads back over 1.0")
	owned[0].Firmware = "1.0"
	findings = link.Check(sample.Case(set, owned, fit("first", "old-eyes", "old-hand")))
	assert.Equal(t, verdict.Caution, byCode(findings, link.CodeActivation).Level)
	assert.Contains(t, byCode(findings, link.CodeLinks).Says, "Stop at 1.0.6 on first: 1.1 no longer links here.")
}

// A device that is bound to the account it was activated with may be its former owner's: it is asked
// for where nobody has said, and shut where it is.
func TestADeviceBoundToItsFormerOwner(t *testing.T) {
	for _, c := range []struct {
		locks, activated, locked *bool
		level                    verdict.Level // empty: nothing is said
	}{
		{nil, new(true), nil, ""},
		{new(false), new(true), nil, ""},
		{new(true), new(false), nil, ""},
		{new(true), new(true), new(false), ""},
		{new(true), new(true), nil, verdict.Unknown},
		{new(true), new(true), new(true), verdict.Unfit},
		{nil, new(true), new(true), verdict.Unfit},
	} {
		set, owned := sample.Set(), kit()
		set.AirUnits[0].Activation = &gear.Activation{Needed: true, Locks: c.locks}
		owned[0].Activated, owned[0].Locked = c.activated, c.locked
		level := verdict.Level("")
		if f := byCode(link.Check(sample.Case(set, owned, fit("first", "old-eyes", "old-hand"))), link.CodeLocked); f != nil {
			level = f.Level
		}
		assert.Equal(t, c.level, level, "%+v", c)
	}
}

func TestFullPowerNeedsAFlightBoard(t *testing.T) {
	next := fit("second", "new-eyes", "")
	next.Board, next.None, next.AirUnit.Firmware = "", []string{fleet.NoBoard}, "2.3"
	findings := link.Check(sample.Case(sample.Set(), kit(), next))
	require.NotNil(t, byCode(findings, link.CodeLowPower))
	for _, radio := range []*gear.Radio{nil, {}} {
		set := sample.Set()
		set.AirUnits[1].Radio = radio
		unknown := byCode(link.Check(sample.Case(set, kit(), next)), link.CodeLowPower)
		require.NotNil(t, unknown, "nobody has stated whether it does")
		assert.Equal(t, verdict.Unknown, unknown.Level)
	}
	assert.Equal(t, verdict.Caution, verdict.Worst(findings))
}

func TestOneUnitCannotBeInTwoQuads(t *testing.T) {
	set := sample.Set()
	f := &fleet.Fleet{
		Kit: kit(),
		Quads: []fleet.Quad{
			{ID: "a", Now: fit("first", "old-eyes", "old-hand")},
			{ID: "b", Now: fit("first", "old-eyes", "old-hand")},
		},
	}
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
	assert.Equal(t, 3, planned.Updates, "4.1 to 4.4 to 4.6, and 1.1 on the controller")

	next = fit("first", "new-eyes", "old-hand")
	next.Goggles.Firmware = "5.2" // planned; the unit still lacks its update
	assert.Equal(t, 2, link.ReachOf(sample.Case(sample.Set(), kit(), next), "new-eyes").Updates)

	owned := kit()
	owned[0].Firmware = "1.1"
	next = fit("first", "old-eyes", "old-hand")
	next.AirUnit.Firmware = "1.0.6" // back through a one-way door
	assert.Equal(t, link.ReachNever, link.ReachOf(sample.Case(sample.Set(), owned, next), "old-eyes").Reach)
}
