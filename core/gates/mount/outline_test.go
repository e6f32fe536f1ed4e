package mount_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/measure/unit"
)

func ring(mm ...unit.Millimetres) (list []gear.Corner) {
	for i := 0; i < len(mm); i += 2 {
		list = append(list, gear.Corner{XMM: mm[i], YMM: mm[i+1]})
	}
	return list
}

// rectangle is one as a ring.
func rectangle(fromX, fromY, toX, toY unit.Millimetres) []gear.Corner {
	return ring(fromX, fromY, toX, fromY, toX, toY, fromX, toY)
}

// outlined draws a plate of a roomy frame, with an opening unless it is nil.
func outlined(p *gear.FramePlate, opening []gear.Corner) {
	p.Outline = rectangle(-60, -20, 60, 20)
	if p.Openings = nil; opening != nil {
		p.Openings = []gear.PlateOpening{{Corners: opening}}
	}
}

// A part goes through an opening that is drawn, is told how to get into one, and without an outline what it
// would tell.
func TestWhatAnOutlineLeavesOpen(t *testing.T) {
	const in = fleet.NodeAirUnit
	for name, c := range map[string]struct {
		place   fleet.Spot
		opening []gear.Corner
		change  func(*gear.Frame)
		level   verdict.Level
		says    string
	}{
		"through the opening":      {at(in, 0, 0, 26, 0), rectangle(-31, -14, 15, 14), nil, verdict.Fits, ""},
		"no opening":               {at(in, 0, 0, 26, 0), nil, nil, verdict.Unfit, "first is free when it moves 6 mm down. "},
		"one too narrow":           {at(in, 0, 0, 26, 0), rectangle(-15, -12, 15, 14), nil, verdict.Unfit, "first is free when it moves 6 mm down. "},
		"beside it":                {at(in, 2, 0, 26, 0), rectangle(-15, -14, 15, 14), nil, verdict.Unfit, "first is free when it moves 2 mm back. "},
		"turned it does not go":    {at(in, 0, 0, 26, 1), rectangle(-15, -14, 15, 14), nil, verdict.Unfit, "want the same room"},
		"over the end of a narrow": {at(in, 44, 0, 26, 0), nil, func(f *gear.Frame) { f.Plates[1].Outline = ring(-60, -20, 14, -20, 14, 20, -60, 20) }, verdict.Fits, ""},
		"nothing drawn": {
			at(in, 0, 0, 26, 0), rectangle(-15, -14, 15, 14), func(f *gear.Frame) { f.Plates[1].Outline = nil }, verdict.Unfit,
			"Of the top no outline is drawn, so it counts as a full block: with it, what is open there does.",
		},
		"the plug has room in the opening": {
			at(in, 0, 0, 20, 0), rectangle(-34, -14, 15, 14), func(f *gear.Frame) { f.Plates[1].ZMM = mm(24) }, verdict.Fits, "",
		},
		"the plug meets the edge": {
			at(in, 0, 0, 20, 0), rectangle(-20, -14, 15, 14), func(f *gear.Frame) { f.Plates[1].ZMM = mm(24) }, verdict.Caution,
			"The USB plug of first has no room: the top is in the way by 10 mm.",
		},
	} {
		set, seat := roomy(), airy()
		f := &set.Frames[0]
		f.Posts, f.Standoffs = nil, new(0)
		outlined(&f.Plates[1], c.opening)
		if c.change != nil {
			c.change(f)
		}
		seat.Places = []fleet.Spot{c.place}
		findings := mount.Check(caseOf(set, "first", seat))
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %v", name, findings)
		assert.Contains(t, told(findings)+" ", c.says, name)
	}
}

// What is open of a plate is not in the shot; a plate in pieces is seen as one.
func TestTheCameraPastAnOutline(t *testing.T) {
	shot := func(front []gear.Corner) *mount.Shot {
		s := mount.RoomOf(looking(20, func(s *gear.Set, _ *fleet.Mounting) {
			s.Frames[0].Posts, s.Frames[0].Standoffs = nil, new(0)
			for i := range s.Frames[0].Plates {
				s.Frames[0].Plates[i].Outline = front
			}
		})).Shot
		require.NotNil(t, s)
		return s
	}
	block, drawn := shot(nil), shot(rectangle(-60, -20, 60, 20))
	assert.Equal(t, block.Says, drawn.Says, "the same plate, drawn")
	assert.Empty(t, shot(rectangle(-60, -20, 40, 20)).Seen, "back behind what it sees")
	// With a notch of 20 × 20 mm at its front, 15 mm over and under the lens at 30: of 30 mm ahead the two
	// sides are seen, each as one thing with the rest.
	notched := shot(ring(-60, -20, 60, -20, 60, -10, 40, -10, 40, 10, 60, 10, 60, 20, -60, 20))
	require.Len(t, notched.Seen, 2)
	assert.Len(t, notched.Seen[0].Outlines, 2)
	assert.Contains(t, notched.Says, "15.0 mm forward it sees none of it")
	assert.NotEqual(t, block.Seen[0].Where, notched.Seen[0].Where, "less of it")
	for _, s := range notched.Seen {
		for _, o := range s.Outlines {
			for _, c := range o {
				assert.LessOrEqual(t, max(c[0], -c[0], c[1], -c[1]), 1+1e-9)
			}
		}
	}
}

// A lead goes up through an opening that is drawn where it stands; through carbon it is said, also where
// its antenna stands on it.
func TestALeadThroughADrawnOpening(t *testing.T) {
	lead := func(change func(*gear.FramePlate, *fleet.Stand)) string {
		return told(mount.Check(standing(func(s *gear.Set, f *fleet.Fit) {
			f.Antennas.Stands[0] = fleet.Stand{XMM: -40, ZMM: 36, RiseDeg: 90}
			change(&s.Frames[0].Plates[1], &f.Antennas.Stands[0])
		})))
	}
	const through = "The top is between the plug of round and its foot"
	assert.Contains(t, lead(func(p *gear.FramePlate, _ *fleet.Stand) { outlined(p, nil) }), through)
	assert.NotContains(t, lead(func(p *gear.FramePlate, _ *fleet.Stand) { outlined(p, nil) }), "no outline is drawn")
	assert.Contains(t, lead(func(*gear.FramePlate, *fleet.Stand) {}), "Of the top no outline is drawn")
	assert.NotContains(t, lead(func(p *gear.FramePlate, _ *fleet.Stand) { outlined(p, rectangle(-50, -8, -26, 8)) }), through)
	assert.Contains(t, lead(func(p *gear.FramePlate, on *fleet.Stand) {
		outlined(p, rectangle(-30, -8, 26, 8))
		on.ZMM = 34
	}), through, "it stands on the plate")
	leaning := lead(func(p *gear.FramePlate, on *fleet.Stand) {
		outlined(p, rectangle(-46, -8, -26, 8))
		on.ZMM, on.TurnDeg, on.RiseDeg = 33, 180, 20
	})
	assert.NotContains(t, leaning, "round and the top want the same room", "it stands in the opening, and leans over its edge")
	assert.NotContains(t, lead(func(p *gear.FramePlate, on *fleet.Stand) { on.ZMM = 32 }), through, "under the plate, where its plug is")
}

// A seat is found on what is there of a plate.
func TestSeatsOnAnOutline(t *testing.T) {
	set, seat := roomy(), airy()
	f := &set.Frames[0]
	f.Plates, f.Posts, f.Standoffs = f.Plates[:1], nil, new(0)
	k := caseOf(set, "first", seat)
	block := mount.FindSeat(k, fleet.NodeAirUnit)
	require.NotNil(t, block.Place)
	assert.Zero(t, block.Place.XMM)
	outlined(&f.Plates[0], rectangle(-24, -18, 24, 18))
	found := mount.FindSeat(k, fleet.NodeAirUnit)
	require.NotNil(t, found.Place)
	assert.GreaterOrEqual(t, max(found.Place.XMM, -found.Place.XMM), unit.Millimetres(28), "of each quarter half lies on carbon")
	f.Plates[0].Outline = ring(-60, -20, -58, -20, -58, 18, 60, 18, 60, 20, -60, 20)
	f.Plates[0].Openings = nil
	assert.Contains(t, mount.FindSeat(k, fleet.NodeAirUnit).Says, "lies on no plate")
}

// Taking an outline or an opening away never makes a verdict better.
func TestAnOutlineLessIsNeverBetter(t *testing.T) {
	better, same := 0, 0
	for seed := range uint64(400) {
		r := rand.New(rand.NewPCG(seed, 5))
		mm := func(low, high int) unit.Millimetres { return unit.Millimetres(low + r.IntN(high-low+1)) }
		k := standing(func(s *gear.Set, f *fleet.Fit) {
			f.Places[0].XMM, f.Places[0].ZMM = mm(-20, 20), mm(2, 22)
			f.Antennas.Stands[0] = fleet.Stand{XMM: mm(-60, -30), YMM: mm(-10, 10), ZMM: mm(10, 40),
				TurnDeg: unit.Degrees(r.IntN(360) - 180), RiseDeg: unit.Degrees(90 - r.IntN(20))}
			for i := range s.Frames[0].Plates {
				x, y := mm(-55, -10), mm(-19, 0)
				outlined(&s.Frames[0].Plates[i], rectangle(x, y, x+mm(10, 50), y+mm(5, 19)))
				s.Frames[0].Plates[i].Outline[2].YMM -= mm(0, 4)
			}
		})
		frame, _ := k.Frame()
		before := verdict.Worst(mount.Check(k))
		for i := range frame.Plates {
			p := frame.Plates[i]
			frame.Plates[i].Openings = nil
			require.GreaterOrEqual(t, verdict.Worst(mount.Check(k)).Rank(), before.Rank(), "without its opening")
			frame.Plates[i].Outline = nil
			after := verdict.Worst(mount.Check(k))
			require.GreaterOrEqual(t, after.Rank(), before.Rank(), "without its outline")
			frame.Plates[i] = p
			if after == before {
				same++
			} else {
				better++
			}
		}
	}
	assert.Positive(t, better)
	assert.Positive(t, same)
}

// A pack wants room for its strap and its lead, as a part does for its plug.
func TestAPackWantsRoomForItsStrap(t *testing.T) {
	set, seat := roomy(), airy()
	for i := range set.Packs {
		p := &set.Packs[i]
		p.LengthMM, p.WidthMM, p.HeightMM = mm(60), mm(30), mm(20)
		p.KeepFree = []gear.KeepFree{{What: "strap", Side: "left", MM: mm(3), WideMM: mm(20)}}
	}
	says := func(y unit.Millimetres) string {
		seat.Places = []fleet.Spot{at(fleet.NodePack, 0, 0, 34, 0), at("gps", 0, y, 34, 0)}
		k := caseOf(set, "first", seat)
		k.Fit.Pack = "lipo-6"
		k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
		return told(mount.Check(k))
	}
	assert.Contains(t, says(27), "The strap of lipo-6 has no room: finder is in the way by 1 mm.")
	assert.NotContains(t, says(28), "has no room")
}

// What is stuck over an opening, or past an edge, holds on less than it looks; a plate nobody has drawn is no
// better, for what is stuck is a caution at best.
func TestWhatIsStuckOverAnOpening(t *testing.T) {
	stuck := func(way fleet.Way, at fleet.Spot, opening []gear.Corner) (verdict.Level, string) {
		set, seat := roomy(), airy()
		set.Frames[0].Posts, set.Frames[0].Standoffs = nil, new(0)
		if outlined(&set.Frames[0].Plates[0], opening); opening == nil {
			set.Frames[0].Plates[0].Outline = nil
		}
		seat.Holdings[0].Way, seat.Holdings[0].Screws, seat.Holdings[0].NearProps = way, nil, new(false)
		seat.Places = []fleet.Spot{at}
		findings := mount.Check(caseOf(set, "first", seat))
		return verdict.Worst(findings), told(findings)
	}
	const says = "Less than half of a corner of first lies on the bottom, which is open or ends there"
	wide := rectangle(-20, -16, 20, 16)
	level, text := stuck(fleet.HeldByTape, at(fleet.NodeAirUnit, 0, 0, 3, 0), wide)
	assert.Equal(t, verdict.Caution, level, text)
	assert.Contains(t, text, says)
	assert.Contains(t, text, "held by tape")
	_, text = stuck(fleet.HeldByTape, at(fleet.NodeAirUnit, 40, 0, 3, 0), wide)
	assert.NotContains(t, text, says, "beside it")
	_, text = stuck(fleet.HeldByTape, at(fleet.NodeAirUnit, 55, 0, 3, 0), wide)
	assert.Contains(t, text, says, "half over the front edge")
	_, text = stuck(fleet.HeldByTape, at(fleet.NodeAirUnit, 0, 0, 12, 0), wide)
	assert.NotContains(t, text, says, "high over it")
	level, text = stuck(fleet.HeldByTape, at(fleet.NodeAirUnit, 0, 0, 3, 0), nil)
	assert.Equal(t, verdict.Caution, level, text)
	assert.NotContains(t, text, says, "nobody has drawn it")
	_, text = stuck(fleet.HeldByTape, at(fleet.NodeAirUnit, 55, 0, 3, 0), nil)
	assert.NotContains(t, text, says, "nor over its edge")
	_, text = stuck(fleet.HeldByBracket, at(fleet.NodeAirUnit, 0, 0, 3, 0), wide)
	assert.NotContains(t, text, says, "a bracket is a floor of its own")
}
