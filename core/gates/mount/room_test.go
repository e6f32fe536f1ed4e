package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// roomy is a frame of two plates and four posts with a unit of 30 × 28 × 12 mm that wants 15 mm
// behind it for its USB plug, and a finder of 20 × 20 × 6 mm.
func roomy() *gear.Set {
	set := sample.Set()
	f, u := &set.Frames[0], &set.AirUnits[0]
	plate := func(id string, z float64) gear.FramePlate {
		return gear.FramePlate{ID: id, FromXMM: -60, ToXMM: 60, YMM: mm(40), ZMM: mm(z), ThickMM: mm(2)}
	}
	f.Plates = []gear.FramePlate{plate("bottom", 0), plate("top", 32)}
	f.StackAtXMM, f.StackAtYMM = mm(0), mm(0)
	f.Bays[0].Open = []gear.Side{"left", "right", "front", "rear", "top"}
	f.Standoffs, f.None = new(4), []string{gear.NoRotors, gear.NoDuct}
	for _, at := range [][2]unit.Millimetres{{50, 15}, {50, -15}, {-50, 15}, {-50, -15}} {
		f.Posts = append(f.Posts, gear.Post{XMM: at[0], YMM: at[1], FromMM: mm(2), ToMM: mm(32), DiameterMM: mm(5)})
	}
	u.Outline, u.Mount.HeightMM = &gear.Outline{XMM: mm(28), YMM: mm(30)}, mm(12)
	u.KeepFree = []gear.KeepFree{{What: "USB plug", Side: "rear", MM: mm(15)}}
	set.Parts = append(set.Parts, gear.Part{Entry: gear.Entry{ID: "finder"}, Outline: &gear.Outline{XMM: mm(20), YMM: mm(20)},
		HeightMM: mm(6)})
	return set
}

// airy is the sample seat with the unit in the wind, held by a bracket with screws of its own: it
// may lie anywhere.
func airy() fleet.Mounting {
	seat := sample.Seat()
	seat.Air = fleet.AirOpen
	seat.Holdings = []fleet.Hold{{Part: fleet.NodeAirUnit, Way: fleet.HeldByBracket, Screws: new(4), ThickMM: mm(0),
		SoftensC: new(110.0)}}
	return seat
}

func at(part string, x, y, z unit.Millimetres, quarters int) fleet.Spot {
	return fleet.Spot{Part: part, XMM: x, YMM: y, ZMM: z, Quarters: quarters}
}

// What wants the same room is told with the way out and how far; what blocks a plug is a
// caution; what is not stated of something that has a place is asked for.
func TestWhatGoesWhere(t *testing.T) {
	const in, on = fleet.NodeAirUnit, 2
	for name, c := range map[string]struct {
		places []fleet.Spot
		change func(*gear.Set)
		level  verdict.Level
		says   string
	}{
		"it goes":             {[]fleet.Spot{at(in, 0, 0, on, 0), at("gps", 35, 0, on, 0)}, nil, verdict.Fits, ""},
		"nothing has a place": {nil, func(s *gear.Set) { s.Frames[0].Plates = nil }, verdict.Fits, ""},
		"they overlap": {
			[]fleet.Spot{at(in, 0, 0, on, 0), at("gps", 23, 0, on, 0)},
			nil,
			verdict.Unfit,
			"first and finder want the same room: first is free when it moves 2 mm back.",
		},
		"they touch": {[]fleet.Spot{at(in, 0, 0, on, 0), at("gps", 25, 0, on, 0)}, nil, verdict.Fits, ""},
		"turned by a quarter they fit": {
			[]fleet.Spot{at(in, 0, 0, on, 1), at("gps", 24.5, 0, on, 0)},
			nil,
			verdict.Fits,
			"",
		},
		"into the plate": {
			[]fleet.Spot{at(in, 0, 0, 1, 0)},
			nil,
			verdict.Unfit,
			"first and the bottom want the same room: first is free when it moves 1 mm up.",
		},
		"under the top plate": {
			[]fleet.Spot{at(in, 0, 0, 21, 0)},
			nil,
			verdict.Unfit,
			"first is free when it moves 1 mm down.",
		},
		"into a standoff": {
			[]fleet.Spot{at(in, 35, 8, on, 0)},
			nil,
			verdict.Unfit,
			"first and a standoff want the same room",
		},
		"a plug that cannot go in": {
			[]fleet.Spot{at(in, 0, 0, on, 0), at("gps", -30, 0, on, 0)},
			nil,
			verdict.Caution,
			"The USB plug of first has no room: finder is in the way by 10 mm.",
		},
		"turned, the plug is at the right": {
			[]fleet.Spot{at(in, 0, 0, on, 1), at("gps", -30, 0, on, 0)},
			nil,
			verdict.Fits,
			"",
		},
		"the camera meets the finder": {
			[]fleet.Spot{at("camera", 50, 0, 10, 0), at("gps", 40, 0, 8, 0)},
			func(s *gear.Set) {
				c := s.AirUnits[0].Camera
				c.WidthMM, c.HeightMM, c.FrontMM, c.BackMM = mm(20), mm(20), mm(6), mm(14)
			},
			verdict.Unfit,
			"finder and the camera want the same room: finder is free when it moves 4 mm down.",
		},
		"its width is not stated": {
			[]fleet.Spot{at(in, 0, 0, on, 0)},
			func(s *gear.Set) { s.AirUnits[0].Outline.XMM = nil },
			verdict.Unknown,
			"width of first",
		},
		"the plates are not stated": {
			[]fleet.Spot{at(in, 0, 0, on, 0)},
			func(s *gear.Set) { s.Frames[0].Plates = nil },
			verdict.Unknown,
			"plates of frame",
		},
		"a standoff is not stated": {
			[]fleet.Spot{at(in, 0, 0, on, 0)},
			func(s *gear.Set) { s.Frames[0].Posts = s.Frames[0].Posts[1:] },
			verdict.Unknown,
			"where its standoffs stand",
		},
		"how far the plug reaches is not stated": {
			[]fleet.Spot{at(in, 0, 0, on, 0)},
			func(s *gear.Set) { s.AirUnits[0].KeepFree[0].MM = nil },
			verdict.Unknown,
			"room for its USB plug",
		},
	} {
		set, seat := roomy(), airy()
		if c.change != nil {
			c.change(set)
		}
		seat.Places = c.places
		k := caseOf(set, "first", seat)
		k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
		findings := mount.Check(k)
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %v", name, findings)
		if c.says != "" {
			all := told(findings)
			assert.Contains(t, all, c.says, name)
		}
	}
}

// What is pressed or put in at a side is reached only where not all of that side is covered, and the
// side turns with the unit; a seat is looked for where it is reached.
func TestWhatIsReachedWhereItLies(t *testing.T) {
	set, seat := roomy(), airy()
	set.AirUnits[0].Mount.Access = map[string]gear.Side{"usb": "rear", "bind": "left", "card": "front"}
	set.AirUnits[0].KeepFree = nil
	says := func(places ...fleet.Spot) string {
		seat.Places = places
		k := caseOf(set, "first", seat)
		k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
		return told(mount.Check(k))
	}
	const card = "finder lies before the whole front side of first, where the card slot is"
	in := func(quarters int) fleet.Spot { return at(fleet.NodeAirUnit, 0, 0, 2, quarters) }
	assert.NotContains(t, says(in(0), at("gps", 26, 0, 2, 0)), card, "beside it a finger goes in")
	set.Parts[len(set.Parts)-1].Outline.XMM, set.Parts[len(set.Parts)-1].HeightMM = mm(30), mm(14)
	assert.Contains(t, says(in(0), at("gps", 26, 0, 2, 0)), card)
	assert.NotContains(t, says(in(0), at("gps", 41, 0, 2, 0)), card, "16 mm off a card of 15 mm goes in")
	assert.NotContains(t, says(in(1), at("gps", 26, 0, 2, 0)), card, "turned, it is at the left")
	assert.Contains(t, says(in(3), at("gps", 26, 0, 2, 0)), "where the bind button is")
	assert.NotContains(t, says(in(3), at("gps", 35, 0, 2, 0)), "where the bind button is", "a tool goes in between")
	set.AirUnits[0].Mount.Access["bind"] = "top"
	assert.NotContains(t, says(at(fleet.NodeAirUnit, 0, 0, 19, 0)), "lies before", "plates have openings: the bay says so")
	set.AirUnits[0].Mount.Access["bind"] = "left"

	set.Frames[0].Bays[0].Open = []gear.Side{"rear", "left"}
	assert.Contains(t, says(in(0)), "With the frame closed, the card slot cannot be reached")
	assert.Contains(t, says(in(2)), "With the frame closed, the unit's USB, the bind button cannot be reached")
	set.AirUnits[0].Mount.Access = map[string]gear.Side{"card": "front"}
	seat.Places = nil
	found := mount.FindSeat(caseOf(set, "first", seat), fleet.NodeAirUnit)
	if assert.NotNil(t, found.Place, found.Says) {
		assert.Equal(t, 1, found.Place.Quarters, found.Says)
	}
	k := caseOf(set, "first", seat)
	k.Fit.Places = []fleet.Spot{in(1)}
	opening := mount.RoomOf(k).Blocks[0].Openings
	assert.Len(t, opening, 1)
	assert.Equal(t, gear.Side("left"), opening[0].Side)
}

// A board that lies turned flips the quad over as one that is said to be: which of both is true is
// asked where they differ.
func TestABoardThatLiesTurned(t *testing.T) {
	set, seat := roomy(), airy()
	set.Boards[0].Outline, set.Boards[0].HeightMM = &gear.Outline{XMM: mm(30), YMM: mm(30)}, mm(8)
	for _, c := range []struct {
		said     *unit.Degrees
		quarters int
		says     string
	}{
		{nil, 0, ""},
		{nil, 1, "turned by 270°: set its yaw alignment to 270°"},
		{new(unit.Degrees(270)), 1, "turned by 270°: set its yaw alignment to 270°"},
		{new(unit.Degrees(-90)), 1, "turned by −90°: set its yaw alignment to −90°"},
		{new(unit.Degrees(90)), 1, "said to be turned by 90°, and lies turned by 270°"},
		{new(unit.Degrees(0)), 2, "said to be turned by 0°, and lies turned by 180°"},
	} {
		seat.BoardTurnDeg, seat.Places = c.said, []fleet.Spot{at(fleet.NodeBoard, 0, 0, 2, c.quarters)}
		told := ""
		for _, f := range mount.Check(caseOf(set, "first", seat)) {
			if f.Code == mount.CodeTurned {
				assert.Equal(t, verdict.Caution, f.Level)
				assert.Equal(t, verdict.Falls, f.Danger)
				told = f.Says
			}
		}
		if c.says == "" {
			assert.Empty(t, told)
		}
		assert.Contains(t, told, c.says)
	}
}

// The picture has every block, those that meet marked, and what can still be placed.
func TestTheRoomDrawn(t *testing.T) {
	set, seat := roomy(), airy()
	seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, 0, 0, 1, 0)}
	k := caseOf(set, "first", seat)
	k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
	r := mount.RoomOf(k)
	assert.Len(t, r.Blocks, 1+2+4)
	assert.Equal(t, [3]unit.Millimetres{-15, -14, 1}, r.Blocks[0].Min)
	assert.Equal(t, [3]unit.Millimetres{-30, -14, 1}, r.Blocks[0].Free[0].Min)
	clash := map[string]bool{}
	for _, b := range r.Blocks {
		clash[b.Label] = b.Clashes
	}
	assert.True(t, clash["first"] && clash["the bottom"])
	assert.False(t, clash["the top"])
	assert.Len(t, r.Loose, 1)
	assert.Contains(t, r.Lacks, "width of "+k.Library.Label("board"))
}

// A place is found where everything has its room: the unit goes behind the finder, with its
// plug free; where there is none it is said, with what is in the way.
func TestASeatIsFound(t *testing.T) {
	set, seat := roomy(), airy()
	seat.Places = []fleet.Spot{at("gps", 0, 0, 2, 0)}
	k := caseOf(set, "first", seat)
	k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
	found := mount.FindSeat(k, fleet.NodeAirUnit)
	if assert.NotNil(t, found.Place, found.Says) {
		with := k.With(fleet.Patch{Place: &fleet.Placing{Spot: *found.Place}})
		assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(with)), found.Says)
		assert.Equal(t, unit.Millimetres(2), found.Place.ZMM, "on the bottom plate")
		assert.Zero(t, found.Place.YMM)
	}
	set.AirUnits[0].Mount.HeightMM = mm(31)
	set.Frames[0].Plates = set.Frames[0].Plates[:1]
	set.Frames[0].Plates[0].FromXMM, set.Frames[0].Plates[0].ToXMM = -16, 16
	none := mount.FindSeat(caseOf(set, "first", seat), fleet.NodeAirUnit)
	assert.NotNil(t, none.Place, "under it")
	k = caseOf(set, "first", seat)
	k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
	set.Frames[0].Plates[0].ToXMM = -5
	assert.Contains(t, mount.FindSeat(k, fleet.NodeAirUnit).Says, "lies on no plate: it is larger, or hangs over")
	set.AirUnits[0].Outline = nil
	assert.Contains(t, mount.FindSeat(k, fleet.NodeAirUnit).Says, "unknown: length from front to rear of first; width of first")
}

// The balance is that of a lever: 30 g at 10 mm and 10 g at −30 mm balance at the origin; a
// pack of a third of the quad moves it by a third. What has no mass is named.
func TestTheBalance(t *testing.T) {
	set, seat := roomy(), airy()
	set.AirUnits[0].MassG, set.Parts[len(set.Parts)-1].MassG = new(unit.Grams(30)), new(unit.Grams(10))
	seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, 10, 0, 2, 1), at("gps", -30, 5, 2, 0)}
	k := caseOf(set, "first", seat)
	k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
	k.Fit.Pack = "lipo-6"
	pack, ok := gear.Find[*gear.Pack](k.Library, "lipo-6")
	assert.True(t, ok)
	pack.MassG = new(unit.Grams(200))
	b := mount.BalanceOf(k, new(unit.Grams(600)))
	assert.InDelta(t, 0, float64(*b.XMM), 1e-9)
	assert.InDelta(t, 40, float64(b.CountedG), 0)
	assert.InDelta(t, 10.0/3, float64(*b.PackMM), 1e-9)
	assert.Empty(t, b.Left)
	set.Parts[len(set.Parts)-1].MassG = nil
	b = mount.BalanceOf(k, nil)
	assert.InDelta(t, 10, float64(*b.XMM), 1e-9)
	assert.Equal(t, []string{"finder"}, b.Left)
	assert.Nil(t, b.PackMM)
}

func BenchmarkFindSeat(b *testing.B) {
	set, seat := roomy(), airy()
	seat.Places = []fleet.Spot{at("gps", 23, 0, 2, 0)}
	k := caseOf(set, "first", seat)
	k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
	for b.Loop() {
		mount.FindSeat(k, fleet.NodeAirUnit)
	}
}

func BenchmarkRoom(b *testing.B) {
	set, seat := roomy(), airy()
	seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, 0, 0, 2, 0), at("gps", 23, 0, 2, 0)}
	k := caseOf(set, "first", seat)
	k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
	for b.Loop() {
		mount.RoomOf(k)
	}
}
