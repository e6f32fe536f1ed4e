package mount_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

func caseOf(set *gear.Set, model string, seat fleet.Mounting) fleet.Case {
	return sample.Case(set, nil, fleet.Fit{AirUnit: &fleet.Slot{Model: model}, Board: "board", Mounting: seat})
}

func post(id, size string, length unit.Millimetres) gear.Standoff {
	return gear.Standoff{Entry: gear.Entry{ID: id}, Size: size, LengthMM: &length}
}

// told is all that findings say.
func told(findings []verdict.Finding) (all string) {
	for _, f := range findings {
		all += f.Says + " "
	}
	return all
}

func codes(findings []verdict.Finding) (list []verdict.Code) {
	for _, f := range findings {
		list = append(list, f.Code)
	}
	return list
}

// The trade's cases (common practice): 20×20 to 25.5×25.5 needs an adapter; a
// screw too long drives into the board; a stretched frame outruns the camera
// cable.
func TestTheTradesCases(t *testing.T) {
	for _, c := range []struct {
		name, unit string
		change     func(*gear.Set, *fleet.Mounting)
		code       verdict.Code
		level      verdict.Level
	}{
		{"as it should be", "first", func(*gear.Set, *fleet.Mounting) {}, mount.CodeFits, verdict.Fits},
		{"another pattern, a plate joins it", "second", func(*gear.Set, *fleet.Mounting) {}, mount.CodePlate, verdict.Change},
		{
			"another pattern, nothing joins it",
			"second",
			func(s *gear.Set, _ *fleet.Mounting) { s.Plates = nil },
			mount.CodeHoles,
			verdict.Unfit,
		},
		{
			"a plate that joins something else",
			"first",
			func(_ *gear.Set, m *fleet.Mounting) { m.Plate = "plate-20-25" },
			mount.CodeHoles,
			verdict.Unfit,
		},
		{
			"a screw too long",
			"first",
			func(_ *gear.Set, m *fleet.Mounting) { m.Screw = "m2-8" },
			mount.CodeTooLong,
			verdict.Unfit,
		},
		{
			"a countersunk head on plain holes",
			"first",
			func(s *gear.Set, m *fleet.Mounting) {
				s.Screws[0].HeadKind, s.Frames[0].Bays[0].Countersunk = gear.HeadCountersunk, new(false)
			},
			mount.CodeHead,
			verdict.Unfit,
		},
		{
			"a countersunk head, and nobody says what the holes are",
			"first",
			func(s *gear.Set, m *fleet.Mounting) { s.Screws[0].HeadKind = gear.HeadCountersunk },
			mount.CodeUnknown,
			verdict.Unknown,
		},
		{
			"a countersunk head in holes sunk for it",
			"first",
			func(s *gear.Set, m *fleet.Mounting) {
				s.Screws[0].HeadKind, s.Frames[0].Bays[0].Countersunk = gear.HeadCountersunk, new(true)
			},
			mount.CodeFits,
			verdict.Fits,
		},
		{
			"a screw of another size",
			"first",
			func(_ *gear.Set, m *fleet.Mounting) { m.Screw = "m16-6" },
			mount.CodeScrew,
			verdict.Unfit,
		},
		{
			"no screw in the box",
			"first",
			func(_ *gear.Set, m *fleet.Mounting) { m.Screw = "" },
			mount.CodeOrder,
			verdict.Change,
		},
		{
			"too high",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].Bays[0].HeightMM = new(unit.Millimetres(10)) },
			mount.CodeHeight,
			verdict.Unfit,
		},
		{
			"a stretched frame",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].Bays[0].CameraMM = new(unit.Millimetres(112)) },
			mount.CodeCable,
			verdict.Unfit,
		},
		{
			"a cage too narrow",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].CageMM = new(unit.Millimetres(14)) },
			mount.CodeCage,
			verdict.Unfit,
		},
		{
			"a cage too wide",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].CageMM = new(unit.Millimetres(22)) },
			mount.CodeCage,
			verdict.Caution,
		},
		{
			"a camera of two screws a side",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.AirUnits[0].Camera.PerSide = new(2) },
			mount.CodePerSide,
			verdict.Caution,
		},
		{
			"screws of the cage not stated",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].CagePerSide = nil },
			mount.CodeUnknown,
			verdict.Unknown,
		},
		{
			"a lens in front of the cage",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.AirUnits[0].Camera.LensMM = new(unit.Millimetres(12)) },
			mount.CodeLens,
			verdict.Caution,
		},
		{
			"USB out of reach",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].Bays[0].Open = []gear.Side{"top"} },
			mount.CodeAccess,
			verdict.Caution,
		},
		{
			"a board turned for access",
			"first",
			func(_ *gear.Set, m *fleet.Mounting) { m.BoardTurnDeg = new(unit.Degrees(180)) },
			mount.CodeTurned,
			verdict.Caution,
		},
		{
			"the board's USB out of reach",
			"first",
			func(s *gear.Set, m *fleet.Mounting) { s.Frames[0].BoardOpen = []gear.Side{"right"} },
			mount.CodeAccess,
			verdict.Caution,
		},
		{
			"where the board's USB is is not stated",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.Boards[0].USBSide = "" },
			mount.CodeUnknown,
			verdict.Unknown,
		},
		{"a washer of another size", "first", func(s *gear.Set, m *fleet.Mounting) {
			s.Washers, m.Washer = []gear.Washer{{
				Entry:   gear.Entry{ID: "m3"},
				Size:    "M3",
				ThickMM: new(unit.Millimetres(0.5)),
			}}, "m3"
		}, mount.CodeScrew, verdict.Unfit},
		{
			"a tilt wanted, the camera's room not stated",
			"first",
			func(_ *gear.Set, m *fleet.Mounting) { m.TiltDeg = new(unit.Degrees(20)) },
			mount.CodeUnknown,
			verdict.Unknown,
		},
		{"new holes with room for them", "second", func(s *gear.Set, m *fleet.Mounting) {
			s.Plates, m.Drill = nil, true
			s.Frames[0].Bays[0].SolidXMM, s.Frames[0].Bays[0].SolidYMM = new(unit.Millimetres(34)), new(unit.Millimetres(40))
		}, mount.CodeDrilled, verdict.Caution},
		{"new holes at the edge", "second", func(s *gear.Set, m *fleet.Mounting) {
			m.Drill = true
			s.Frames[0].Bays[0].SolidXMM, s.Frames[0].Bays[0].SolidYMM = new(unit.Millimetres(33)), new(unit.Millimetres(40))
		}, mount.CodeEdge, verdict.Unfit},
		{"new holes into those there are", "second", func(s *gear.Set, m *fleet.Mounting) {
			m.Drill = true
			s.Frames[0].Bays[0].Patterns = []gear.Holes{{XMM: 23, YMM: 25.5}}
			s.Frames[0].Bays[0].SolidXMM, s.Frames[0].Bays[0].SolidYMM = new(unit.Millimetres(40)), new(unit.Millimetres(40))
		}, mount.CodeEdge, verdict.Unfit},
		{
			"new holes in who knows what",
			"second",
			func(_ *gear.Set, m *fleet.Mounting) { m.Drill = true },
			mount.CodeUnknown,
			verdict.Unknown,
		},
		{"standoffs of another thread", "first", func(s *gear.Set, m *fleet.Mounting) {
			s.Standoffs, m.Standoff = []gear.Standoff{post("m2", "M2", 35)}, "m2"
		}, mount.CodeHeight, verdict.Unfit},
		{"no frame said", "first", func(_ *gear.Set, m *fleet.Mounting) { m.Frame = "" }, mount.CodeUnknown, verdict.Unknown},
		{"no bay said", "first", func(_ *gear.Set, m *fleet.Mounting) { m.Bay = "" }, mount.CodeUnknown, verdict.Unknown},
		{
			"thread depth not stated",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.AirUnits[0].Mount.Patterns[0].DepthMM = nil },
			mount.CodeUnknown,
			verdict.Unknown,
		},
		{
			"height not stated",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.AirUnits[0].Mount.HeightMM = nil },
			mount.CodeUnknown,
			verdict.Unknown,
		},
		{
			"reach not stated",
			"first",
			func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].Bays[0].Open = nil },
			mount.CodeUnknown,
			verdict.Unknown,
		},
	} {
		t.Run(c.name, func(t *testing.T) {
			set, seat := sample.Set(), sample.Seat()
			c.change(set, &seat)
			findings := mount.Check(caseOf(set, c.unit, seat))
			assert.Contains(t, codes(findings), c.code)
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
		})
	}
}

// Through a printed plate of 8 mm an M1.6 wants 10 where 6 was to hand (common
// practice): everything clamped and a diameter of thread.
func TestTheScrewCalculator(t *testing.T) {
	set, seat := sample.Set(), sample.Seat()
	set.AirUnits[1].Mount.Patterns[0].Screw = "M1.6"
	set.Plates[0].ThickMM = new(unit.Millimetres(8))
	set.Frames[0].Bays[0].HeightMM = new(unit.Millimetres(25))
	seat.Plate, seat.Screw = "plate-20-25", "m16-6"
	findings := mount.Check(caseOf(set, "second", seat))
	assert.Contains(t, codes(findings), mount.CodeShort)
	pic := mount.Draw(caseOf(set, "second", seat))
	require.NotNil(t, pic.Screw)
	assert.InDelta(t, 9.6, float64(pic.Screw.LeastMM), 1e-9)
	assert.InDelta(t, 11, float64(pic.Screw.MostMM), 1e-9)
	assert.Equal(t, "m16-10", pic.Screw.Use)
	seat.Screw = "m16-10"
	assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(caseOf(set, "second", seat))))
	var says []string
	c := caseOf(sample.Set(), "second", sample.Seat())
	for _, cand := range mount.Candidates(c) {
		says = append(says, change.Words(c, cand.Patch)+", "+change.Bill(c, cand.Patch).Words())
	}
	assert.Contains(t, says, "put the plate-20-25 between, to print")
}

// Weighed: every part that leaves and comes; hover power goes with the weight to
// the power of 1.5 (momentum theory).
func TestTheWeightBeforeAndAfter(t *testing.T) {
	set := sample.Set()
	set.AirUnits[0].MassG, set.AirUnits[1].MassG = new(unit.Grams(28)), new(unit.Grams(40))
	c := caseOf(set, "second", sample.Seat())
	c.Quad.Now = fleet.Fit{
		AirUnit:  &fleet.Slot{Model: "first"},
		Board:    "board",
		Mounting: fleet.Mounting{Frame: "frame", Bay: "rear", ActionG: new(unit.Grams(60))},
	}
	c.Quad.AUWG = new(unit.Grams(448))
	w := mount.Weigh(c.Library, c.Fleet, c.Quad, nil)
	require.NotNil(t, w.ChangeG)
	assert.InDelta(t, -48, float64(*w.ChangeG), 1e-9)
	assert.InDelta(t, 400, float64(*w.AfterG), 1e-9)
	assert.InDelta(t, 0.8437, *w.HoverPower, 1e-4)
	assert.InDelta(t, 1, *w.HoverPower**w.FlightTime, 1e-12)
	measured := mount.Weigh(c.Library, c.Fleet, c.Quad, new(unit.Grams(406)))
	assert.InDelta(t, 6, float64(*measured.ErrorG), 1e-9, "what the scale says goes before what was added up")
	assert.Greater(t, *measured.HoverPower, *w.HoverPower)

	// 1300 mAh, four fifths of it at 15.6 A: four minutes. Another pack brings its own
	// energy; one that states none leaves the time open.
	c.Quad.HoverA = new(unit.Amps(15.6))
	c.Quad.Now.Pack, c.Quad.Next.Pack = "lipo-4", "lipo-4"
	for i := range set.Packs {
		set.Packs[i].CapacityMAH, set.Packs[i].MassG = 1300, new(unit.Grams(160))
	}
	w = mount.Weigh(gear.NewLibrary(set), c.Fleet, c.Quad, nil)
	assert.InDelta(t, 4, *w.HoverMinNow, 1e-9)
	assert.InDelta(t, 4/0.8437, *w.HoverMinNext, 1e-3)
	c.Quad.Next.Pack = "lipo-6"
	w = mount.Weigh(gear.NewLibrary(set), c.Fleet, c.Quad, nil)
	assert.InDelta(t, 1.5/0.8437, *w.FlightTime, 1e-3)
	for i := range set.Packs {
		if set.Packs[i].ID == "lipo-6" {
			set.Packs[i].CapacityMAH = 0
		}
	}
	w = mount.Weigh(gear.NewLibrary(set), c.Fleet, c.Quad, nil)
	assert.NotNil(t, w.HoverPower)
	assert.Nil(t, w.FlightTime)
	assert.Nil(t, w.HoverMinNext)
	c.Quad.Now.Pack, c.Quad.Next.Pack = "", ""

	set.AirUnits[1].MassG = nil
	w = mount.Weigh(gear.NewLibrary(set), c.Fleet, c.Quad, nil)
	assert.Nil(t, w.ChangeG)
	assert.Equal(t, []string{"second"}, w.Unknown)
}

// About 25 cm of lead on one generation is too short for a stretched frame (common
// practice).
func TestAnAntennaLeadThatDoesNotReach(t *testing.T) {
	set := sample.Set()
	set.Antennas[0].LeadMM, set.Frames[0].Bays[0].AntennaMM = new(unit.Millimetres(250)), new(unit.Millimetres(240))
	c := caseOf(set, "first", sample.Seat())
	c.Fit.Antennas = sample.Pair()
	assert.Equal(t, []verdict.Code{mount.CodeLead}, codes(mount.Check(c)), "240 mm and its bends want 264")
	set.Antennas[0].LeadMM = new(unit.Millimetres(270))
	assert.Equal(t, []verdict.Code{mount.CodeFits}, codes(mount.Check(c)))
}

// Common practice: what is too high goes on longer standoffs, those owned first.
func TestLongerStandoffsMakeRoom(t *testing.T) {
	set, seat := sample.Set(), sample.Seat()
	bay := &set.Frames[0].Bays[0]
	bay.HeightMM, bay.Raised = new(unit.Millimetres(10)), true
	set.Standoffs = []gear.Standoff{
		post("28", "M3", 28),
		post("30", "M3", 30),
		post("35", "M3", 35),
		post("m2-35", "M2", 35),
	}
	find := func(c fleet.Case) (patches []string) {
		for _, cand := range mount.Candidates(c) {
			if cand.Patch.Mounting.Standoff != "" {
				patches = append(patches, cand.Patch.Mounting.Standoff)
				seat.Standoff = cand.Patch.Mounting.Standoff
			}
		}
		return patches
	}
	c := caseOf(set, "first", seat)
	findings := mount.Check(c)
	assert.Contains(t, findings[0].Says, "1 mm too high. Standoffs of 29 mm would do.")
	bay.HeightMM = new(unit.Millimetres(11))
	assert.Equal(t, []verdict.Code{mount.CodeFits}, codes(mount.Check(c)), "what is as high as the room goes in")
	bay.HeightMM = new(unit.Millimetres(10))
	assert.Equal(t, []string{"30"}, find(c), "the shortest that does")
	assert.Equal(t, []verdict.Code{mount.CodeFits}, codes(mount.Check(caseOf(set, "first", seat))))
	c = caseOf(set, "first", sample.Seat())
	c.Fleet = fleet.NewIndex(&fleet.Fleet{Spares: []fleet.Spare{{Model: "30", Count: 3}, {Model: "35", Count: 4}}})
	assert.Equal(t, []string{"35"}, find(c), "three of 30 mm are not enough for four posts")
	c.Fleet = fleet.NewIndex(&fleet.Fleet{Spares: []fleet.Spare{{Model: "30", Count: 4}, {Model: "35", Count: 4}}})
	assert.Equal(t, []string{"30"}, find(c), "the shorter of two that are owned")
	set.Standoffs[0], set.Standoffs[1], set.Standoffs[2] = set.Standoffs[2], set.Standoffs[0], set.Standoffs[1]
	assert.Equal(t, []string{"30"}, find(caseOf(set, "first", sample.Seat())), "whichever comes first in the library")
	bay.Raised = false
	assert.Empty(t, find(caseOf(set, "first", sample.Seat())), "a bay that standoffs do not lift")
}

// A screw too long in the box does over a washer, where the thread still holds.
func TestAWasherTakesUpASlightlyLongScrew(t *testing.T) {
	set, seat := sample.Set(), sample.Seat()
	seat.Screw = "m2-6"
	set.Screws = []gear.Screw{{Entry: gear.Entry{ID: "m2-6"}, Size: "M2", LengthMM: new(unit.Millimetres(6))}}
	set.Washers = []gear.Washer{
		{Entry: gear.Entry{ID: "w1"}, Size: "M2", ThickMM: new(unit.Millimetres(1))},
		{Entry: gear.Entry{ID: "w3"}, Size: "M2", ThickMM: new(unit.Millimetres(3))},
	}
	c := caseOf(set, "first", seat)
	assert.Contains(t, codes(mount.Check(c)), mount.CodeTooLong)
	c.Fleet = fleet.NewIndex(&fleet.Fleet{Spares: []fleet.Spare{{Model: "m2-6", Count: 4}, {Model: "w1", Count: 4}}})
	var washers []string
	for _, cand := range mount.Candidates(c) {
		if m := cand.Patch.Mounting; m.Washer != "" {
			washers = append(washers, m.Washer)
			assert.Equal(t, change.Have, change.Bill(c, cand.Patch).Get)
			assert.Equal(t, []verdict.Code{mount.CodeFits}, codes(mount.Check(caseOf(set, "first", *m))))
		}
	}
	assert.Equal(t, []string{"w1"}, washers)
}

// The board's USB turns with the board (seen from above, to the right).
func TestATurnedBoardBringsItsUSBOut(t *testing.T) {
	assert.Equal(t, gear.Side("front"), gear.Side("left").Turned(90))
	assert.Equal(t, gear.Side("rear"), gear.Side("left").Turned(-90))
	assert.Equal(t, gear.Side("right"), gear.Side("left").Turned(180))
	assert.Equal(t, gear.Side("top"), gear.Side("top").Turned(90))
	set, seat := sample.Set(), sample.Seat()
	set.Frames[0].BoardOpen = []gear.Side{"rear"}
	assert.Equal(t, []string{"the flight board's USB"}, mount.Hidden(caseOf(set, "first", seat)))
	seat.BoardTurnDeg = new(unit.Degrees(-90))
	assert.Empty(t, mount.Hidden(caseOf(set, "first", seat)))
}

// The tilt a camera is free to, against turning its corners by hundredths of a
// degree until one is through a wall.
func TestTiltAgainstTurningTheCorners(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mm := func(name string, low, high float64) *unit.Millimetres {
			return new(unit.Millimetres(rapid.Float64Range(low, high).Draw(t, name)))
		}
		set, seat := sample.Set(), sample.Seat()
		cam, f := set.AirUnits[0].Camera, &set.Frames[0]
		cam.HeightMM, cam.FrontMM, cam.BackMM = mm("height", 8, 24), mm("front", 2, 14), mm("back", 4, 20)
		f.CameraDownMM, f.CameraUpMM, f.CameraBackMM = mm("down", 6, 24), mm("up", 6, 24), mm("behind", 6, 24)
		h, front, back := float64(*cam.HeightMM)/2, float64(*cam.FrontMM), float64(*cam.BackMM)
		free := func(deg float64) bool {
			sin, cos := math.Sincos(deg * math.Pi / 180)
			return back*sin+h*cos <= float64(*f.CameraDownMM) && front*sin+h*cos <= float64(*f.CameraUpMM) &&
				back*cos+h*sin <= float64(*f.CameraBackMM)
		}
		want := -1.0
		for deg := 0.0; deg <= 90 && free(deg); deg += 0.01 {
			want = deg
		}
		tilt := mount.Draw(caseOf(set, "first", seat)).Tilt
		require.NotNil(t, tilt)
		assert.InDelta(t, want, float64(tilt.UpDeg), 0.011)
		most := math.Floor(float64(tilt.UpDeg))
		for wanted, touches := range map[float64]bool{most: most < 0, most + 1: true} {
			if wanted > 90 || wanted < 0 || math.Abs(wanted-float64(tilt.UpDeg)) < 0.01 {
				continue // beyond what is asked, or nearer than the corners were turned
			}
			seat.TiltDeg = new(unit.Degrees(wanted))
			assert.Equal(t, touches, slices.Contains(codes(mount.Check(caseOf(set, "first", seat))), mount.CodeTilt), "%v of %v",
				wanted, tilt.UpDeg)
		}
	})
}

// Longer standoffs weigh what is longer of them, all of one stock.
func TestLongerStandoffsWeigh(t *testing.T) {
	set := sample.Set()
	set.AirUnits[0].MassG = new(unit.Grams(28))
	on := post("post", "M3", 35)
	on.MassG = new(unit.Grams(1.4))
	set.Standoffs = []gear.Standoff{on}
	c := caseOf(set, "first", sample.Seat())
	c.Quad.Now = c.Quad.Next.Clone()
	c.Quad.Next.Standoff = "post"
	w := mount.Weigh(c.Library, c.Fleet, c.Quad, nil)
	require.NotNil(t, w.ChangeG)
	assert.InDelta(t, 4*1.4*(35-28)/35, float64(*w.ChangeG), 1e-9)
	set.Standoffs[0].MassG = nil
	w = mount.Weigh(gear.NewLibrary(set), c.Fleet, c.Quad, nil)
	assert.Equal(t, []string{"other standoffs"}, w.Unknown)
}

// A printed plate has to hold what a hole wants around it: the larger pattern and
// two diameters on each side.
func TestThePlateToPrintHasASize(t *testing.T) {
	set := sample.Set()
	set.Plates[0].From.Screw, set.Plates[0].To.Screw = "M2", "M2"
	var costs []string
	for _, cand := range mount.Candidates(caseOf(set, "second", sample.Seat())) {
		costs = append(costs, cand.Costs)
	}
	assert.Contains(t, costs, "about 34×34×4 mm")
}

// A quarter turn, every common pattern, a thread too shallow, holes too small, looking
// down, a cable just as long as its way, and a quad that stays (common practice).
func TestMountingThatHolds(t *testing.T) {
	judge := func(change func(*gear.Set, *fleet.Mounting)) []verdict.Finding {
		set, seat := sample.Set(), sample.Seat()
		change(set, &seat)
		return mount.Check(caseOf(set, "first", seat))
	}
	patterns := func(s *gear.Set) *[]gear.Holes { return &s.AirUnits[0].Mount.Patterns }
	turned := judge(func(s *gear.Set, _ *fleet.Mounting) {
		(*patterns(s))[0].XMM, (*patterns(s))[0].YMM = 20, 25
		s.Frames[0].Bays[0].Patterns = []gear.Holes{{XMM: 25, YMM: 20}}
	})
	assert.Equal(t, []verdict.Code{mount.CodeFits}, codes(turned))
	both := judge(func(s *gear.Set, m *fleet.Mounting) {
		*patterns(s) = append([]gear.Holes{{
			XMM:     16,
			YMM:     16,
			Screw:   "M1.6",
			DepthMM: new(unit.Millimetres(3)),
		}}, *patterns(s)...)
		s.Frames[0].Bays[0].Patterns = append(s.Frames[0].Bays[0].Patterns, gear.Holes{XMM: 16, YMM: 16})
		m.Screw = "m2-4"
	})
	assert.Equal(t, []verdict.Code{mount.CodeFits}, codes(both), "the pattern whose screw is there")
	shallow := judge(func(s *gear.Set, m *fleet.Mounting) {
		(*patterns(s))[0].DepthMM, m.Screw = new(unit.Millimetres(1.5)), ""
	})
	assert.Contains(t, codes(shallow), mount.CodeShallow)
	assert.NotContains(t, codes(shallow), mount.CodeOrder)
	tight := judge(func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].Bays[0].Patterns[0].Screw = "M1.6" })
	assert.Equal(t, verdict.Unfit, verdict.Worst(tight))
	nameless := judge(func(s *gear.Set, _ *fleet.Mounting) { s.Screws[0].LengthMM = nil })
	assert.Equal(t, verdict.Unknown, verdict.Worst(nameless))
	cable := judge(func(s *gear.Set, _ *fleet.Mounting) {
		s.Frames[0].Bays[0].CameraMM, s.AirUnits[0].Camera.CableMM = new(unit.Millimetres(100)), new(unit.Millimetres(110))
	})
	assert.Equal(t, []verdict.Code{mount.CodeFits}, codes(cable), "exactly as long as the way with its bends")
	down := judge(func(s *gear.Set, m *fleet.Mounting) {
		cam, f := s.AirUnits[0].Camera, &s.Frames[0]
		cam.HeightMM, cam.FrontMM, cam.BackMM = new(unit.Millimetres(19)), new(unit.Millimetres(14)), new(unit.Millimetres(5))
		f.CameraDownMM, f.CameraUpMM, f.CameraBackMM = new(
			unit.Millimetres(12),
		), new(
			unit.Millimetres(40),
		), new(
			unit.Millimetres(40),
		)
		m.TiltDeg = new(unit.Degrees(-30))
	})
	assert.Contains(t, codes(down), mount.CodeTilt)
	assert.Contains(t, down[0].Says, "the bottom plate with its front")

	c := caseOf(sample.Set(), "first", fleet.Mounting{Frame: "frame", Bay: "rear"})
	assert.Contains(t, codes(mount.Check(c)), mount.CodeOrder)
	c.Quad.Now = c.Quad.Next.Clone()
	assert.NotContains(t, codes(mount.Check(c)), mount.CodeOrder, "it flies on the screws it has")
}

// The frame, adapters and camera parts are weighed, and what nobody weighs is said.
func TestWhatIsWeighed(t *testing.T) {
	set := sample.Set()
	set.Frames[0].MassG = new(unit.Grams(100))
	set.Frames = append(set.Frames, gear.Frame{Entry: gear.Entry{ID: "light"}, MassG: new(unit.Grams(60))})
	set.Adapters = []gear.Adapter{{Entry: gear.Entry{ID: "tail"}, From: "sma", To: "ufl", MassG: new(unit.Grams(2))}}
	set.Antennas[0].MassG = new(unit.Grams(1))
	now := fleet.Fit{Mounting: fleet.Mounting{Frame: "frame"}}
	c := sample.Case(set, nil, fleet.Fit{Mounting: fleet.Mounting{Frame: "light"}, CapacitorUF: new(unit.Microfarads(470)),
		Antennas: &fleet.Antennas{Models: []string{"round", "round"}, Adapter: "tail"}})
	c.Quad.Now = now
	w := mount.Weigh(c.Library, c.Fleet, c.Quad, nil)
	require.NotNil(t, w.ChangeG)
	assert.InDelta(t, 60-100+2*2+2*1, float64(*w.ChangeG), 1e-9)
	assert.Equal(t, []string{"the capacitor"}, w.LeftOut)

	of := gear.Capacitor{UF: c.Quad.Next.CapacitorUF, RatedV: new(unit.Volts(35)), MassG: new(unit.Grams(2.5))}
	of.ID = "electrolytic"
	set.Capacitors = []gear.Capacitor{of}
	c.Quad.Next.CapacitorV = new(unit.Volts(35))
	w = mount.Weigh(gear.NewLibrary(set), c.Fleet, c.Quad, nil)
	assert.InDelta(t, 60-100+2*2+2*1+2.5, float64(*w.ChangeG), 1e-9)
	assert.Empty(t, w.LeftOut)
	set.Capacitors[0].MassG = nil
	w = mount.Weigh(gear.NewLibrary(set), c.Fleet, c.Quad, nil)
	assert.InDelta(t, 60-100+2*2+2*1, float64(*w.ChangeG), 1e-9)
	assert.Equal(t, []string{"the capacitor"}, w.LeftOut)
}

// It is said of each mass whether it was weighed, is its sheet's or a guess, and how much of the whole is
// a guess; a source of the mass alone goes before that of the entry.
func TestWhatAMassRestsOn(t *testing.T) {
	set := sample.Set()
	set.Frames[0].MassG, set.Frames[0].Source.Kind = new(unit.Grams(100)), gear.Practice
	light := gear.Frame{Entry: gear.Entry{ID: "light", Source: gear.Source{Kind: gear.Practice}}, MassG: new(unit.Grams(60))}
	light.ValueSources = map[string]gear.Source{"massG": {Kind: gear.Measured}}
	set.Frames = append(set.Frames, light)
	set.Antennas[0].MassG, set.Antennas[0].Source.Kind = new(unit.Grams(2)), gear.Maker
	c := sample.Case(set, nil, fleet.Fit{Mounting: fleet.Mounting{Frame: "light"}, Antennas: &fleet.Antennas{Models: []string{"round"}}})
	c.Quad.Now = fleet.Fit{Mounting: fleet.Mounting{Frame: "frame"}}
	w := mount.Weigh(c.Library, c.Fleet, c.Quad, nil)
	rests := map[string]string{}
	for _, p := range w.Parts {
		rests[p.Label] = p.Rests
	}
	assert.Equal(t, map[string]string{"frame": "guessed", "light": "weighed", "round": "its sheet"}, rests)
	assert.InDelta(t, 100, float64(w.GuessedG), 1e-9)
}

// A lens or a guard that is not stated is no lens behind a guard: missing is never better.
func TestALensThatIsNotStatedIsUnknown(t *testing.T) {
	for name, forget := range map[string]func(*gear.Set){
		"the lens":  func(s *gear.Set) { s.AirUnits[0].Camera.LensMM = nil },
		"the guard": func(s *gear.Set) { s.Frames[0].GuardMM = nil },
	} {
		set := sample.Set()
		set.AirUnits[0].Camera.LensMM, set.Frames[0].GuardMM = new(unit.Millimetres(9)), new(unit.Millimetres(4))
		assert.Contains(t, codes(mount.Check(caseOf(set, "first", sample.Seat()))), mount.CodeLens, name)
		forget(set)
		assert.Contains(t, codes(mount.Check(caseOf(set, "first", sample.Seat()))), mount.CodeUnknown, name)
	}
}
