package bench_test

import (
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/setup"
)

func kit() []fleet.Kit {
	first := sample.Own("first", "1.0.6", "")
	first.Activated = new(false)
	return []fleet.Kit{
		first,
		sample.Own("old-eyes", "4.1", "a"),
		sample.Own("new-eyes", "5.0", "b"),
		sample.Own("old-hand", "", ""),
		sample.Own("second", "2.3", ""),
	}
}

// ready is a swap to the first generation on new goggles, planned to the end.
func ready() fleet.Fit {
	return fleet.Fit{
		AirUnit:     &fleet.Slot{Kit: "first", Firmware: "1.1"},
		Goggles:     &fleet.Slot{Kit: "new-eyes", Firmware: "5.2"},
		Controller:  &fleet.Slot{Kit: "old-hand"},
		Board:       "board",
		Pack:        "lipo-4",
		CapacitorUF: new(unit.Microfarads(470)),
		CapacitorV:  new(unit.Volts(35)),
		PackLead:    sample.Lead(),
		Feeds:       []fleet.Feed{{To: fleet.NodeAirUnit, From: "board.10v"}},
		Wiring:      fleet.Wiring{Wires: sample.Wired()},
		Flight:      sample.Flight(),
	}
}

func sheet(set *gear.Set, next fleet.Fit) bench.Sheet {
	set.AirUnits[0].Activation.Needed = true
	return sheetOf(sample.Case(set, kit(), next), "analog", "first")
}

func ids(s bench.Sheet) (list []string) {
	for _, step := range s.Steps {
		list = append(list, step.ID)
	}
	return list
}

// The order is common practice: goggles, then unit with activation, feed,
// meter, power, goggles bound before the controller.
func TestStepsComeInBenchOrder(t *testing.T) {
	s := sheet(sample.Set(), ready())
	assert.Empty(t, s.Holds)
	assert.Equal(t, []string{
		"props-off",
		"update:new-eyes:5.2",
		"update:first:1.1",
		"activate:first",
		"fit:first",
		"feed:airUnit:board.10v",
		"capacitor",
		"solder:first:supply>board 10v:ground>board ground:UART RX>board TX 1:UART TX>board RX 1:RC ground>board " +
			"ground:RC output>board RX 3",
		"meter-short:board.10v",
		"meter-supply:board.10v:lipo-4",
		"power-up:board.10v:lipo-4",
		"bind:goggles:new-eyes:first",
		"bind:controller:old-hand:first",
		"check:picture",
		"set-up",
		"check:sticks",
		"check:failsafe",
		"check:voltage",
		"check:close", "flight:range", "flight:hover", "flight:heat",
	}, slices.DeleteFunc(ids(s), func(id string) bool { return strings.HasPrefix(id, "pair:") }))
	for _, step := range s.Steps {
		assert.NotEmpty(t, step.Do, step.ID)
	}
	assert.Contains(t, s.Tools, "multimeter")
	assert.Contains(t, s.Materials, "lipo-4")
}

func TestCautionsStandWhereTheWorkCanHurt(t *testing.T) {
	s := sheet(sample.Set(), ready())
	for id, word := range map[string]string{
		"props-off":                   "Props off",
		"feed:airUnit:board.10v":      "Hot iron",
		"power-up:board.10v:lipo-4":   "overheats",
		"meter-short:board.10v":       "short",
		"update:first:1.1":            "One-way door",
		"check:close":                 "airspace",
		"bind:goggles:new-eyes:first": "Props off",
	} {
		step, ok := s.Step(id)
		require.True(t, ok, id)
		assert.True(t, slices.ContainsFunc(step.Cautions, func(c string) bool {
			return strings.Contains(c, word)
		}), "%s: %v", id, step.Cautions)
	}
	power, _ := s.Step("power-up:board.10v:lipo-4")
	assert.True(t, slices.ContainsFunc(power.Cautions, func(c string) bool {
		return strings.Contains(c, "limits")
	}), "radio limits are named before power")
}

func TestAUnitThatUpdatesOnlyOnAPackWaitsForTheMeter(t *testing.T) {
	set := sample.Set()
	set.AirUnits[0].Releases[2].Install = &gear.Install{Power: "pack", Tools: []string{"old tool"}}
	order := ids(sheet(set, ready()))
	assert.Greater(t, slices.Index(order, "update:first:1.1"), slices.Index(order, "power-up:board.10v:lipo-4"))
}

func TestAShutGateHoldsTheStepsItWouldSpoil(t *testing.T) {
	next := ready()
	next.Pack, next.Feeds[0].From = "lipo-6", "pack" // it burns
	s := sheet(sample.Set(), next)
	require.NotEmpty(t, s.Holds)
	power, _ := s.Step("power-up:pack:lipo-6")
	assert.Contains(t, power.Held, "burns")
	run := bench.NewRun(s, nil)
	_, err := run.Confirm("power-up:pack:lipo-6", true, nil, time.Now())
	assert.ErrorContains(t, err, "burns")

	next = ready()
	next.AirUnit.Firmware = "" // the update is not planned: it would not bind
	s = sheet(sample.Set(), next)
	held, _ := s.Step("bind:goggles:new-eyes:first")
	assert.Contains(t, held.Held, "does not link")

	next = ready()
	next.Mounting = sample.Seat()
	next.Screw = "m2-8"                                             // it drives into the circuit board
	next.Antennas = &fleet.Antennas{Models: []string{"eye", "eye"}} // of another plug
	s = sheet(sample.Set(), next)
	fit, _ := s.Step("fit:first")
	assert.Contains(t, fit.Held, "drives into the circuit board")
	on, _ := s.Step("power-up:board.10v:lipo-4")
	assert.Contains(t, on.Held, "antenna gate")
}

func TestAReadingOutOfLimitsStopsTheRun(t *testing.T) {
	s := sheet(sample.Set(), ready())
	now := time.Date(2026, 10, 1, 9, 0, 0, 0, time.UTC)
	const short, supply = "meter-short:board.10v", "meter-supply:board.10v:lipo-4"
	run := bench.NewRun(s, nil)
	assert.Equal(t, "props-off", run.Next)

	bad, err := run.Confirm(short, true, new(3.2), now)
	require.NoError(t, err, "the reading itself is kept")
	assert.False(t, bad.Done, "but never as done")

	stopped := bench.NewRun(s, []bench.Record{bad})
	for _, st := range stopped.States {
		switch st.ID {
		case short:
			assert.Equal(t, bench.Stopped, st.State)
			assert.Contains(t, st.Says, "below 100")
		case supply:
			assert.Equal(t, bench.Held, st.State)
		}
	}
	_, err = stopped.Confirm(supply, true, new(10.0), now)
	assert.ErrorContains(t, err, "Stopped at")

	good, err := stopped.Confirm(short, true, new(4700.0), now)
	require.NoError(t, err)
	run = bench.NewRun(s, []bench.Record{good})
	assert.Equal(t, 1, run.Done)
	record, err := run.Confirm(supply, true, new(18.0), now)
	require.NoError(t, err)
	assert.False(t, record.Done, "18 V is above the window of 7.4 to 17.6 V (common practice)")

	for _, value := range []*float64{nil, new(math.NaN()), new(math.Inf(1))} {
		_, err = run.Confirm(supply, true, value, now)
		assert.Error(t, err)
	}
	_, err = run.Confirm("props-off", true, new(1.0), now)
	assert.ErrorContains(t, err, "takes no reading")
	_, err = run.Confirm("nonsense", true, nil, now)
	assert.Error(t, err)
	back, err := run.Confirm(short, false, nil, now)
	require.NoError(t, err)
	assert.False(t, back.Done)
}

// Common practice: every pair of the unit's pins is metered before the first
// plug-in; a wrong one stops the run and says what it means.
func TestEachPairIsMeteredBeforePower(t *testing.T) {
	s := sheet(sample.Set(), ready())
	order := ids(s)
	solder := slices.IndexFunc(order, func(id string) bool { return strings.HasPrefix(id, "solder:") })
	first, last := slices.Index(order, "pair:first:1-2"), slices.Index(order, "pair:first:5-6")
	require.True(t, solder >= 0 && solder < first)
	assert.Equal(t, 14, last-first, "fifteen pairs")
	assert.Less(t, last, slices.Index(order, "power-up:board.10v:lipo-4"))
	run := bench.NewRun(s, nil)
	short, err := run.Confirm("pair:first:1-2", true, new(1.0), time.Now())
	require.NoError(t, err)
	assert.False(t, short.Done)
	stopped := bench.NewRun(s, []bench.Record{short})
	at := slices.IndexFunc(stopped.States, func(st bench.StepState) bool { return st.ID == "pair:first:1-2" })
	assert.Equal(t, bench.Stopped, stopped.States[at].State)
	assert.Contains(t, stopped.States[at].Says, "connected, expected open. Stop. The supply is shorted to ground")
	_, err = stopped.Confirm("power-up:board.10v:lipo-4", true, nil, time.Now())
	assert.ErrorContains(t, err, "Stopped at")
	grounds, err := run.Confirm("pair:first:2-5", true, new(1.0), time.Now())
	require.NoError(t, err)
	assert.True(t, grounds.Done, "the two grounds are one")
	none, err := run.Confirm("pair:first:2-5", true, new(7.0), time.Now())
	require.NoError(t, err)
	assert.False(t, none.Done)
}

func TestAReadWiringThatIsWrongHoldsThePower(t *testing.T) {
	next := ready()
	next.Wires[1].To = "10v"
	s := sheet(sample.Set(), next)
	power, _ := s.Step("power-up:board.10v:lipo-4")
	assert.Contains(t, power.Held, "destroys the unit")
}

// Every time the antenna plugs go on counts once, however often it is ticked.
func TestATickCountsAMating(t *testing.T) {
	now := time.Date(2026, 10, 1, 9, 0, 0, 0, time.UTC)
	s := sheet(sample.Set(), ready())
	tick := func(step string, done bool, records ...bench.Record) bench.Record {
		run := bench.NewRun(s, records)
		record, err := run.Confirm(step, done, nil, now)
		require.NoError(t, err)
		return record
	}
	fitted := tick("fit:first", true)
	assert.Equal(t, "first", fitted.Mates)
	assert.Equal(t, 1, fitted.Mated)
	assert.Zero(t, tick("fit:first", true, fitted).Mated, "ticked twice")
	assert.Equal(t, -1, tick("fit:first", false, fitted).Mated, "taken back")
	assert.Zero(t, tick("fit:first", false).Mated)
	assert.Zero(t, tick("props-off", true).Mated)

	c := sample.Case(sample.Set(), kit(), ready())
	c.Quad.Now = c.Quad.Next.Clone()
	c.Quad.Now.Antennas, c.Quad.Next.Antennas = &fleet.Antennas{Models: []string{
		"round", "round",
	}}, &fleet.Antennas{Models: []string{"stick", "stick"}}
	swap := sheetOf(c, "first", "first")
	at := slices.Index(ids(swap), "antennas:stick+stick")
	require.GreaterOrEqual(t, at, 0, ids(swap))
	assert.Equal(t, "first", swap.Steps[at].Mates)
	c.Quad.Next.Antennas = c.Quad.Now.Antennas
	assert.NotContains(t, strings.Join(ids(sheetOf(c, "first", "first")), " "), "antennas:", "they stay on")
}

// Drilling comes before the unit goes in, with its own caution; a unit that stays
// but moves gets a step too.
func TestTheFrameIsMadeReadyFirst(t *testing.T) {
	set, next := sample.Set(), ready()
	bay := &set.Frames[0].Bays[0]
	bay.Patterns, bay.Raised = []gear.Holes{{XMM: 16, YMM: 16}}, true
	bay.SolidXMM, bay.SolidYMM = new(unit.Millimetres(40)), new(unit.Millimetres(40))
	set.Standoffs = []gear.Standoff{{Entry: gear.Entry{ID: "post"}, Size: "M3", LengthMM: new(unit.Millimetres(30))}}
	next.Mounting = fleet.Mounting{
		Frame:    "frame",
		Bay:      "rear",
		Drill:    true,
		Standoff: "post",
		TiltDeg:  new(unit.Degrees(20)),
	}
	list := ids(sheet(set, next))
	at := func(id string) int { return slices.Index(list, id) }
	require.GreaterOrEqual(t, at("drill:rear:20×20"), 0, list)
	assert.Less(t, at("drill:rear:20×20"), at("standoffs:post"))
	assert.Less(t, at("standoffs:post"), at("fit:first"))
	for _, step := range sheet(set, next).Steps {
		switch step.ID {
		case "drill:rear:20×20":
			assert.Contains(t, strings.Join(step.Cautions, " "), "Carbon dust")
		case "standoffs:post":
			assert.Equal(t, []string{"4 × post"}, step.Materials)
		case "fit:first":
			assert.Contains(t, step.Do, "Camera up by 20°.")
		}
	}
	next.StandoffCutMM = new(unit.Millimetres(29))
	list = ids(sheet(set, next))
	require.GreaterOrEqual(t, at("cut:post:29 mm"), 0, list)
	assert.Less(t, at("cut:post:29 mm"), at("standoffs:post"))
	flies := sample.Case(set, kit(), next)
	flies.Quad.Now = flies.Quad.Next.Clone()
	assert.NotContains(t, ids(sheetOf(flies, "first", "first")), "cut:post:29 mm", "they are cut already")
	flies.Quad.Now.StandoffCutMM = nil
	assert.Contains(t, ids(sheetOf(flies, "first", "first")), "cut:post:29 mm")
	next.StandoffCutMM = nil
	c := sample.Case(set, kit(), next)
	c.Quad.Now = c.Quad.Next.Clone()
	c.Quad.Now.Bay, c.Quad.Now.Drill = "front", true
	assert.Contains(t, ids(sheetOf(c, "first", "first")), "seat:frame:rear:")
	assert.NotContains(t, ids(sheetOf(c, "first", "first")), "drill:rear:20×20")
}

// A plug-to-plug swap has no iron in it; an exchanged board has its own steps and is
// set up from factory state; what stays can be bound whatever its gates say.
func TestStepsFollowWhatIsReallyDone(t *testing.T) {
	set, next := sample.Set(), ready()
	next.Wiring = fleet.Wiring{Harness: "straight", HarnessTo: "hd"}
	now := next.Clone()
	now.AirUnit = &fleet.Slot{Kit: "second"}
	next.CapacitorUF, now.CapacitorUF = new(unit.Microfarads(470)), new(unit.Microfarads(470))
	c := sample.Case(set, kit(), next)
	c.Quad.Now = now
	for _, step := range sheetOf(c, "second", "first").Steps {
		assert.NotContains(t, step.Tools, "soldering iron", step.Title)
	}

	set.Boards = append(set.Boards, set.Boards[0])
	set.Boards[1].ID, set.Boards[1].Name = "other-board", "other board"
	next.Board = "other-board"
	c = sample.Case(set, kit(), next)
	c.Quad.Now = now
	list := ids(sheetOf(c, "second", "first"))
	assert.Contains(t, list, "board:other-board")
	assert.Contains(t, list, "board-up:other-board")
	for _, r := range setup.PlanOf(c).Rows {
		if r.Code == setup.CodeSticksPort {
			assert.Equal(t, "nothing", r.Found, "compared with nothing, not with the old board")
		}
	}

	stays := ready()
	stays.Wires = nil // nobody has said how it is wired, but it flies
	stays.AirUnit = &fleet.Slot{Kit: "first"}
	c = sample.Case(sample.Set(), kit(), stays)
	c.Quad.Now = stays.Clone()
	for _, step := range sheetOf(c, "first", "first").Steps {
		if step.Phase == bench.Check {
			assert.Empty(t, step.Held, step.Title)
		}
	}
}

// A cable goes into the board before the meter is put to its free end, and into the
// unit at the first power-up; a plug without a key says so at both.
func TestTheCableIsMeteredBeforeItGoesIntoTheUnit(t *testing.T) {
	set, next := sample.Set(), ready()
	for i := range set.Connectors {
		set.Connectors[i].Pins, set.Connectors[i].Keyed = new(6), new(false)
	}
	next.Wiring = fleet.Wiring{Harness: "straight", HarnessTo: "hd"}
	c := sample.Case(set, kit(), next)
	c.Quad.Now = fleet.Fit{Analog: "old camera"}
	sheet := sheetOf(c, "analog", "first")
	at := func(title string) int {
		return slices.IndexFunc(sheet.Steps, func(s bench.Step) bool { return strings.Contains(s.Title, title) })
	}
	board, meter, power := at("into the flight board"), at("Meter pin"), at("First power-up")
	require.NotEqual(t, -1, board)
	assert.Less(t, board, meter)
	assert.Less(t, meter, power)
	for _, step := range []int{board, power} {
		assert.Contains(t, strings.Join(sheet.Steps[step].Do, " "), "(count 6): it has no key")
	}
}

// sheetOf is the sheet of a case as it is judged.
func sheetOf(c fleet.Case, from, to string) bench.Sheet {
	return bench.NewSheet(c, swap.Judge(c), from, to)
}

// What is pressed, what lights up and where the menu is are each device's own: they are
// read off its guide, in the language of the fleet, and nothing is made up where it has none.
func TestTheGuidesOfTheDevicesAreTold(t *testing.T) {
	set := sample.Set()
	unit := &set.AirUnits[0]
	unit.UpdateMinutes = new(7)
	unit.Guides = []gear.Guide{
		{Language: "de", Bind: "zweimal drücken"},
		{
			Language: "en",
			Bind:     "press it twice",
			Button:   "under the lid",
			Card:     "at the back",
			USB:      "at the side",
			Update:   "fan on",
			Lights: []gear.Light{
				{Shows: "pink", Means: gear.Searching},
				{Shows: "teal", Means: gear.LinkedUp},
				{Shows: "white", Means: gear.Updating},
				{Shows: "red", Means: gear.Faulty},
			},
		},
	}
	for i := range set.Goggles {
		set.Goggles[i].Guides = []gear.Guide{{Language: "en", Menus: []gear.MenuPath{
			{Sets: "b", Path: "Link, Second"},
			{Sets: gear.MenuBind, Path: "Link, Join"},
			{Sets: gear.MenuPower, Path: "Link, Power"},
		}}}
	}
	kit := []fleet.Kit{sample.Own("first", "1.0", ""), sample.Own("new-eyes", "5.2", "a")}
	c := sample.Case(set, kit, fleet.Fit{
		AirUnit: &fleet.Slot{Kit: "first", Firmware: "1.1"},
		Goggles: &fleet.Slot{Kit: "new-eyes", Mode: "b"},
		Board:   "board",
	})
	all := func() string {
		sheet := sheetOf(c, "a", "b")
		text := ""
		for _, step := range sheet.Steps {
			text += strings.Join(step.Do, " ") + "\n"
		}
		return text
	}
	says := all()
	for _, told := range []string{
		"Then the unit: press it twice (its button: under the lid).",
		"first shows pink while it searches, teal once it is linked.",
		"before the frame is closed: at the back.",
		"Its own USB is at the side.",
		"Meanwhile: fan on.",
		"In the menu: Link, Second.",
		"Goggles in the right mode, then into bind, in the menu: Link, Join.",
		"In the goggles' menu: Link, Power.",
		"It shows white while it takes the update: leave it alone until that ends.",
	} {
		assert.Contains(t, says, told)
	}
	assert.Equal(t, []int{7, 0}, []int{sheetOf(c, "a", "b").Minutes, sheetOf(c, "a", "b").Untimed})
	set.AirUnits[0].UpdateMinutes = nil
	assert.Equal(
		t,
		[]int{0, 1},
		[]int{sheetOf(c, "a", "b").Minutes, sheetOf(c, "a", "b").Untimed},
		"what is not stated is counted",
	)
	steps := sheetOf(c, "a", "b").Steps
	at := slices.IndexFunc(steps, func(s bench.Step) bool { return s.ID == "update:first:1.1" })
	require.GreaterOrEqual(t, at, 0)
	assert.Contains(t, steps[at].Cautions, "Red means that something is wrong: go no further.")
	f := *c.Fleet.Fleet
	f.Language = "de"
	c.Fleet = fleet.NewIndex(&f)
	assert.Contains(t, all(), "Then the unit: zweimal drücken.")
}
