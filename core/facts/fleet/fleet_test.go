package fleet_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

func fit() fleet.Fit {
	return fleet.Fit{
		AirUnit:  &fleet.Slot{Kit: "first"},
		Goggles:  &fleet.Slot{Kit: "old-eyes"},
		Receiver: "receiver",
		Board:    "board",
		Pack:     "lipo-4",
		Feeds: []fleet.Feed{
			{To: "airUnit", From: "pack"},
			{To: "receiver", From: "board.5v"},
		},
		Jumpers: map[string]string{"cam": "5v"},
	}
}

func text(t require.TestingT, v any) string {
	out, err := json.Marshal(v)
	require.NoError(t, err)
	return string(out)
}

func TestAPatchChangesOnlyWhatItNames(t *testing.T) {
	for _, c := range []struct {
		name  string
		patch fleet.Patch
		check func(before, after fleet.Fit)
	}{
		{"nothing", fleet.Patch{}, func(b, a fleet.Fit) { assert.Equal(t, b, a) }},
		{"a slot", fleet.Patch{AirUnit: &fleet.Slot{Kit: "second"}}, func(b, a fleet.Fit) {
			assert.Equal(t, "second", a.AirUnit.Kit)
			assert.Equal(t, b.Feeds, a.Feeds)
		}},
		{"an emptied slot takes its feed along", fleet.Patch{AirUnit: &fleet.Slot{}}, func(_, a fleet.Fit) {
			assert.Nil(t, a.AirUnit)
			assert.Equal(t, []fleet.Feed{{To: "receiver", From: "board.5v"}}, a.Feeds)
		}},
		{"an emptied receiver", fleet.Patch{Receiver: new("")}, func(_, a fleet.Fit) { assert.Len(t, a.Feeds, 1) }},
		{"another feed replaces the first", fleet.Patch{Feed: &fleet.Feed{To: "airUnit", From: "board.10v"}}, func(_, a fleet.Fit) {
			from, ok := a.FeedOf("airUnit")
			assert.True(t, ok)
			assert.Equal(t, "board.10v", from)
			assert.Len(t, a.Feeds, 2)
		}},
		{"a feed taken out", fleet.Patch{Feed: &fleet.Feed{To: "airUnit"}}, func(_, a fleet.Fit) {
			_, ok := a.FeedOf("airUnit")
			assert.False(t, ok)
		}},
		{"a jumper", fleet.Patch{Jumper: &fleet.Jumper{Pad: "cam", Choice: "pack"}}, func(b, a fleet.Fit) {
			assert.Equal(t, "pack", a.Jumpers["cam"])
			assert.Equal(t, "5v", b.Jumpers["cam"])
		}},
		{"a capacitor and back", fleet.Patch{CapacitorUF: new(unit.Microfarads(470))}, func(b, a fleet.Fit) {
			assert.Equal(t, unit.Microfarads(470), *a.CapacitorUF)
			assert.Equal(t, b, a.With(fleet.Patch{CapacitorUF: new(unit.Microfarads(0))}))
		}},
	} {
		t.Run(c.name, func(t *testing.T) {
			before := fit()
			after := before.With(c.patch)
			assert.Equal(t, fit(), before, "the fit itself is unchanged")
			c.check(before, after)
		})
	}
}

func TestARegulatorGoesWhenItFeedsNothing(t *testing.T) {
	through := fit().With(fleet.Patch{Regulator: &fleet.PlacedRegulator{ID: "reg", Model: "step-down-12"}, Feed: &fleet.Feed{To: "airUnit", From: "reg"}})
	require.Len(t, through.Regulators, 1)
	from, _ := through.FeedOf("reg")
	assert.Equal(t, "pack", from, "a new regulator hangs on the pack")

	other := through.With(
		fleet.Patch{
			Regulator: &fleet.PlacedRegulator{ID: "reg", Model: "another"},
			Feed:      &fleet.Feed{To: "airUnit", From: "reg"},
		},
	)
	assert.Equal(t, []fleet.PlacedRegulator{{ID: "reg", Model: "another"}}, other.Regulators)

	direct := through.With(fleet.Patch{Feed: &fleet.Feed{To: "airUnit", From: "pack"}})
	assert.Empty(t, direct.Regulators)
	_, fed := direct.FeedOf("reg")
	assert.False(t, fed, "its own feed is gone too")
}

// A law: applying a patch twice is applying it once, and what a patch leaves
// never points at a part that is gone.
func TestPatchesAreIdempotent(t *testing.T) {
	text := func(v any) string { return text(t, v) }
	rapid.Check(t, func(t *rapid.T) {
		slot := rapid.Ptr(rapid.SampledFrom([]fleet.Slot{{}, {Kit: "first"}, {Model: "second", Firmware: "2.3"}}), true)
		name := rapid.Ptr(rapid.SampledFrom([]string{"", "receiver", "board", "lipo-6"}), true)
		p := fleet.Patch{
			AirUnit:  slot.Draw(t, "air"),
			Goggles:  slot.Draw(t, "eyes"),
			Receiver: name.Draw(t, "receiver"),
			Board:    name.Draw(t, "board"),
			Pack:     name.Draw(t, "pack"),
			Feed: rapid.Ptr(rapid.SampledFrom([]fleet.Feed{{To: "airUnit", From: "reg"}, {To: "airUnit", From: "pack"}, {To: "receiver"}}), true).
				Draw(t, "feed"),
			Regulator: rapid.Ptr(rapid.Just(fleet.PlacedRegulator{ID: "reg", Model: "m"}), true).Draw(t, "regulator"),
		}
		once := fit().With(p)
		if text(once) != text(once.With(p)) {
			t.Fatalf("once\n%s\ntwice\n%s", text(once), text(once.With(p)))
		}
		for _, feed := range once.Feeds {
			switch feed.To {
			case "airUnit":
				require.NotNil(t, once.AirUnit)
			case "receiver":
				require.NotEmpty(t, once.Receiver)
			default:
				_, ok := once.Regulator(feed.To)
				require.True(t, ok, "%s is fed but not there", feed.To)
			}
		}
	})
}

func TestACloneSharesNothing(t *testing.T) {
	a := fit()
	b := a.Clone()
	b.AirUnit.Kit, b.Feeds[0].From, b.Jumpers["cam"] = "x", "x", "x"
	assert.Equal(t, fit(), a)
}

func TestLoopsAreFound(t *testing.T) {
	assert.Nil(t, new(fit()).Cycle())
	for name, feeds := range map[string][]fleet.Feed{
		"itself":            {{To: "a", From: "a"}},
		"two":               {{To: "a", From: "b"}, {To: "b", From: "a"}},
		"through the board": {{To: "board", From: "a"}, {To: "a", From: "board.10v"}},
		"behind a part":     {{To: "airUnit", From: "a"}, {To: "a", From: "b"}, {To: "b", From: "c"}, {To: "c", From: "a"}},
	} {
		loop := (&fleet.Fit{Feeds: feeds}).Cycle()
		require.NotNil(t, loop, name)
		assert.Equal(t, loop[0], loop[len(loop)-1], name)
	}
}

func TestNextStartsAsNow(t *testing.T) {
	q := fleet.Quad{ID: "q", Now: fit()}
	next := q.NextFit()
	assert.Equal(t, q.Now, next)
	next.AirUnit.Kit = "other"
	assert.Equal(t, "first", q.Now.AirUnit.Kit)
	assert.Equal(t, "q", q.Label())
}

func TestStateOfADevice(t *testing.T) {
	kit := []fleet.Kit{sample.Own("first", "1.0", ""), sample.Own("old-eyes", "4.1", "a")}
	c := sample.Case(
		sample.Set(),
		kit,
		fleet.Fit{
			AirUnit:    &fleet.Slot{Kit: "first", Firmware: "1.1"},
			Goggles:    &fleet.Slot{Kit: "old-eyes", Mode: "b"},
			Controller: &fleet.Slot{Model: "new-hand"},
		},
	)
	_, air, ok := c.AirUnit()
	require.True(t, ok)
	assert.True(t, air.Updating())
	assert.Equal(t, &fleet.Slot{Kit: "first"}, air.Slot("1.0", ""), "planning what is there is planning nothing")
	assert.Equal(t, &fleet.Slot{Kit: "first", Firmware: "1.1"}, air.Slot("1.1", ""))
	_, eyes, ok := c.Goggles()
	require.True(t, ok)
	assert.False(t, eyes.Updating())
	assert.Equal(t, [2]string{"a", "b"}, [2]string{eyes.Mode, eyes.ToMode})
	_, hand, ok := c.Controller()
	require.True(t, ok)
	assert.False(t, hand.Owned())
	assert.False(t, *hand.Activated, "what has still to be bought comes unactivated")
	assert.False(t, hand.Current.Known(), "and on a release nobody has read")

	none := sample.Case(
		sample.Set(),
		kit,
		fleet.Fit{AirUnit: &fleet.Slot{Kit: "old-eyes"}, Goggles: &fleet.Slot{Kit: "nix"}},
	)
	_, _, ok = none.AirUnit()
	assert.False(t, ok, "goggles are no air unit")
	_, _, ok = none.Goggles()
	assert.False(t, ok)
}

func TestIndex(t *testing.T) {
	f := &fleet.Fleet{
		Kit:    []fleet.Kit{sample.Own("first", "1.0", "")},
		Spares: []fleet.Spare{{Model: "reg", Count: 2}, {Model: "none", Count: 0}},
		Quads:  []fleet.Quad{{ID: "a", Now: fit()}, {ID: "b", Now: fit(), Next: &fleet.Fit{}}},
	}
	x := fleet.NewIndex(f)
	holder, ok := x.Holder("first", "")
	require.True(t, ok)
	assert.Equal(t, "a", holder.ID, "b plans to give it up")
	_, ok = x.Holder("first", "a")
	assert.False(t, ok)
	assert.Equal(t, 2, x.SpareCount("reg", "a"))
	assert.True(t, x.OwnsModel("first"))
	assert.False(t, x.OwnsModel("none"))
}

// A spare that another quad's plan takes is not there to be taken again; the
// quad that takes it still counts it as its own.
func TestASpareGoesIntoOneQuadOnly(t *testing.T) {
	with := fit().With(fleet.Patch{Regulator: &fleet.PlacedRegulator{ID: "reg", Model: "step-down-12"}, Feed: &fleet.Feed{To: "airUnit", From: "reg"}})
	f := &fleet.Fleet{Spares: []fleet.Spare{{Model: "step-down-12", Count: 1}, {Model: "receiver", Count: 1}},
		Quads: []fleet.Quad{
			{ID: "a", Now: fit(), Next: &with},
			{ID: "b", Now: fit()},
			{ID: "c", Next: new(fit())},
			{ID: "d", Now: with, Next: &with},
		}}
	x := fleet.NewIndex(f)
	assert.Equal(t, 1, x.SpareCount("step-down-12", "a"))
	assert.Equal(t, 0, x.SpareCount("step-down-12", "b"), "a takes it; d has had its own all along")
	assert.Equal(t, 1, x.SpareCount("receiver", "c"))
	assert.Equal(t, 0, x.SpareCount("receiver", "b"))
}

// A law: a patch leaves the fit it is applied to as it was, the wiring, antennas
// and seat too, and nothing is shared afterwards.
func TestAPatchLeavesTheFitAlone(t *testing.T) {
	base := fleet.Fit{
		AirUnit:  &fleet.Slot{Model: "first"},
		Board:    "board",
		Antennas: sample.Pair(),
		Mounting: sample.Seat(),
		Wiring: fleet.Wiring{
			Wires: sample.Wired(),
			Ports: []fleet.Port{{UART: 1, Use: fleet.UseMSP}},
		},
		PackLead: sample.Lead(),
	}
	before, err := json.Marshal(base)
	require.NoError(t, err)
	for name, p := range map[string]fleet.Patch{
		"wiring":   {Wiring: &fleet.Wiring{Harness: "straight", HarnessTo: "hd"}},
		"antennas": {Antennas: &fleet.Antennas{Models: []string{"eye"}}},
		"seat":     {Mounting: &fleet.Mounting{Frame: "other"}},
		"nothing":  {},
	} {
		after := base.With(p)
		if after.Antennas != nil && len(after.Antennas.Models) > 0 {
			after.Antennas.Models[0] = "changed"
		}
		if len(after.Wires) > 0 {
			after.Wires[0].To = "changed"
			after.Ports[0].UART = 9
		}
		after.AirUnit.Model = "changed"
		now, err := json.Marshal(base)
		require.NoError(t, err)
		assert.Equal(t, string(before), string(now), name)
	}
	port, ok := base.PortOf(fleet.UseMSP)
	assert.True(t, ok && port == 1)
	_, ok = base.PortOf(fleet.UseGPS)
	assert.False(t, ok)
	r, ok := base.PackLead.Resistance()
	assert.True(t, ok)
	assert.InDelta(t, 1.49, float64(r), 0.02, "90 mm of 14 AWG there and back at 8.28 mΩ a metre")
	_, ok = (&fleet.Lead{}).Resistance()
	assert.False(t, ok)
}

// What comes out of the drawer when a fit is built: four screws and washers for the unit,
// one of the rest, an adapter for each antenna.
func TestThePartsOfAFit(t *testing.T) {
	f := fleet.Fit{
		Receiver:   "r",
		Board:      "b",
		Wiring:     fleet.Wiring{Harness: "h"},
		Regulators: []fleet.PlacedRegulator{{ID: "one", Model: "reg"}, {ID: "two", Model: "reg"}},
		Mounting:   fleet.Mounting{Plate: "p", Screw: "s", Washer: "w"},
		Antennas:   &fleet.Antennas{Models: []string{"a", "a"}, Adapter: "x"},
	}
	assert.Equal(t, map[string]int{"r": 1, "b": 1, "h": 1, "reg": 2, "p": 1, "s": 4, "w": 4, "a": 2, "x": 2}, f.Loose())
	assert.True(t, f.Has(fleet.NodeBoard) && f.Has(fleet.NodeReceiver) && f.Has("one"))
	f.Board = ""
	assert.False(t, f.Has(fleet.NodeBoard) || f.Has(fleet.NodeAirUnit) || f.Has("three"))
}

// An element that says no profile is shown in the first alone, as a bit and as a list.
func TestTheProfilesOfAnElement(t *testing.T) {
	for _, c := range []struct {
		profiles []int
		in       []bool // profiles 1, 2, 3
		bits     uint8
	}{
		{nil, []bool{true, false, false}, 1},
		{[]int{2}, []bool{false, true, false}, 2},
		{[]int{1, 3}, []bool{true, false, true}, 5},
	} {
		p := fleet.Placed{Profiles: c.profiles}
		for i, want := range c.in {
			assert.Equal(t, want, p.In(i+1), "%v in %d", c.profiles, i+1)
		}
		assert.Equal(t, c.bits, p.ProfileBits(), "%v", c.profiles)
	}
}

// A patch of wired parts: each stands in the place of its id, none goes by naming no model;
// another receiver does not keep the wires of the one before, nor a board its jumpers.
func TestPatchesOfWiredParts(t *testing.T) {
	f := fleet.Fit{
		Board:         "b",
		Receiver:      "r",
		ReceiverCable: &fleet.Cable{Wires: []fleet.Wire{{Pin: 1, To: "5v"}}},
		Jumpers:       map[string]string{"cam": "5v"},
		Parts:         []fleet.PlacedPart{{ID: "gps", Model: "one"}},
		Feeds:         []fleet.Feed{{To: "gps", From: "pack"}},
	}
	after := f.With(fleet.Patch{Parts: []fleet.PlacedPart{{ID: "gps", Model: "two"}, {ID: "buzzer", Model: "b"}}})
	assert.Equal(t, []fleet.PlacedPart{{ID: "gps", Model: "two"}, {ID: "buzzer", Model: "b"}}, after.Parts)
	assert.Equal(t, "one", f.Parts[0].Model, "the fit itself is as it was")
	gone := f.With(fleet.Patch{Parts: []fleet.PlacedPart{{ID: "gps"}}})
	assert.Empty(t, gone.Parts)
	assert.Empty(t, gone.Feeds, "what fed it goes with it")
	assert.Nil(t, f.With(fleet.Patch{Receiver: new("other")}).ReceiverCable)
	assert.NotNil(t, f.With(fleet.Patch{Receiver: new("r")}).ReceiverCable)
	assert.Nil(t, f.With(fleet.Patch{ReceiverCable: &fleet.Cable{}}).ReceiverCable, "an empty one takes it out")
	assert.Empty(t, f.With(fleet.Patch{Board: new("other")}).Jumpers)
	assert.NotEmpty(t, f.With(fleet.Patch{Board: new("b")}).Jumpers)
	feeds := f.With(fleet.Patch{Feeds: []fleet.Feed{{To: "gps", From: "board.5v"}, {To: "receiver", From: "pack"}}}).Feeds
	assert.Equal(t, []fleet.Feed{{To: "gps", From: "board.5v"}, {To: "receiver", From: "pack"}}, feeds)
}

// The drawer gives what lies in it, the first thing in it too, and no more.
func TestADrawerGivesWhatItHas(t *testing.T) {
	f := fleet.Fleet{Spares: []fleet.Spare{{Model: "a", Count: 1}, {Model: "b", Count: 1}}}
	assert.True(t, f.TakeSpare("a"))
	assert.Equal(t, 0, f.Spares[0].Count)
	assert.False(t, f.TakeSpare("a"))
	assert.True(t, f.TakeSpare("b"))
	assert.False(t, f.TakeSpare("c"))
}

// What was asked of a fleet is still so while the drawer holds as many, and not after.
func TestWhatWasAskedIsStillSo(t *testing.T) {
	of := func(count int) *fleet.Index {
		return fleet.NewIndex(&fleet.Fleet{Spares: []fleet.Spare{{Model: "a", Count: count}}})
	}
	x, asked := of(2).Recording()
	assert.Equal(t, 2, x.SpareCount("a", ""))
	assert.True(t, asked.Still(of(2)))
	assert.False(t, asked.Still(of(1)))
}

// Antennas that go on instead stand where those before stood, no more of them than there are.
func TestOtherAntennasStandWhereThoseBeforeStood(t *testing.T) {
	two := fleet.Antennas{Models: []string{"a", "a"}, AngleDeg: new(unit.Degrees(60)),
		Stands: []fleet.Stand{{XMM: 1}, {XMM: 2}}}
	one := two.Carrying([]string{"b"}, "")
	assert.Equal(t, []fleet.Stand{{XMM: 1}}, one.Stands)
	assert.Nil(t, one.AngleDeg)
	assert.Len(t, two.Carrying([]string{"b", "b"}, "").Stands, 2)
	assert.Len(t, two.Stands, 2)
}
