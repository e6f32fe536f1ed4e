package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/measure/unit"
)

// Standoffs are cut to one length, with a diameter of thread for a screw from each end; what is cut
// does not grow again (common practice).
func TestStandoffsAreCut(t *testing.T) {
	for name, c := range map[string]struct {
		cut, was *unit.Millimetres
		change   func(*gear.Frame)
		level    verdict.Level
		says     string
	}{
		"as they are":            {nil, nil, nil, verdict.Fits, ""},
		"shorter":                {mm(26), nil, nil, verdict.Caution, "The 4 standoffs of frame are cut from 30 mm to 26 mm"},
		"as long as they are":    {mm(30), nil, nil, verdict.Fits, ""},
		"they do not grow":       {mm(31), nil, nil, verdict.Unfit, "are 30 mm long: cut to 31 mm they would have to grow"},
		"no thread left":         {mm(5.9), nil, nil, verdict.Unfit, "no thread of a diameter for a screw from each end: 6 mm at least"},
		"as they fly":            {mm(26), mm(26), nil, verdict.Fits, ""},
		"shorter still":          {mm(25), mm(26), nil, verdict.Fits, ""},
		"whole again":            {nil, mm(26), nil, verdict.Unfit, "are cut to 26 mm: longer ones are to be had first"},
		"longer than cut before": {mm(27), mm(26), nil, verdict.Unfit, "are cut to 26 mm: longer ones are to be had first"},
		"nobody says how long": {mm(26), nil, func(f *gear.Frame) { f.StandoffMM = nil }, verdict.Unknown,
			"length of its standoffs"},
		"nor how thick": {mm(26), nil, func(f *gear.Frame) { f.StandoffSize = "" }, verdict.Unknown,
			"size of the threads of its standoffs"},
	} {
		set, seat := roomy(), airy()
		f := &set.Frames[0]
		f.StandoffMM, f.StackMM = mm(30), mm(20)
		set.Boards[0].HeightMM, f.Bays[0].HeightMM = mm(12), mm(20)
		if c.change != nil {
			c.change(f)
		}
		seat.StandoffCutMM = c.cut
		k := caseOf(set, "first", seat)
		k.Quad.Now.Mounting, k.Quad.Now.Board = seat, "board"
		k.Quad.Now.StandoffCutMM = c.was
		findings := mount.Check(k)
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %v", name, findings)
		all := told(findings)
		assert.Contains(t, all, c.says, name)
	}
}

// Of other standoffs their own thread counts: that it is not stated is no better than a thick one.
func TestOthersAreCutByTheirOwnThread(t *testing.T) {
	set, seat := roomy(), airy()
	set.Frames[0].StandoffMM, set.Frames[0].StackMM, set.Frames[0].StandoffSize = mm(30), mm(20), "M2"
	set.Boards[0].HeightMM = mm(12)
	seat.Standoff, seat.StandoffCutMM = "post", mm(5)
	for size, says := range map[string]string{"M3": "6 mm at least", "": "size of its threads of post", "M2": "cut from 30 mm to 5 mm"} {
		set.Standoffs = []gear.Standoff{post("post", size, 30)}
		all := told(mount.Check(caseOf(set, "first", seat)))
		assert.Contains(t, all, says, "of %q", size)
	}
}

// On other standoffs the plates over them, what stands on those, and the room under them go with them;
// what stands beside them stays.
func TestTheRoomOnOtherStandoffs(t *testing.T) {
	set, seat := roomy(), airy()
	f := &set.Frames[0]
	f.StandoffMM, f.StackMM = mm(30), mm(20)
	f.Plates = append(f.Plates, gear.FramePlate{ID: "deck", FromXMM: -20, ToXMM: 20, YMM: mm(30), ZMM: mm(44), ThickMM: mm(2)},
		gear.FramePlate{ID: "mid", FromXMM: -20, ToXMM: 20, YMM: mm(30), ZMM: mm(26), ThickMM: mm(1)})
	f.Posts = append(f.Posts, gear.Post{XMM: 0, YMM: 10, FromMM: mm(34), ToMM: mm(44), DiameterMM: mm(4)},
		gear.Post{XMM: 0, YMM: -10, FromMM: mm(2), ToMM: mm(26), DiameterMM: mm(4)})
	f.Standoffs = new(6)
	set.Standoffs = []gear.Standoff{post("35", "M3", 35)}
	seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, -30, 0, 2, 0)}
	lies := func(label string, post int) (from, to unit.Millimetres) {
		for _, b := range mount.RoomOf(caseOf(set, "first", seat)).Blocks {
			if b.Label == label {
				if post == 0 {
					return b.Min[2], b.Max[2]
				}
				post--
			}
		}
		t.Fatalf("no %s", label)
		return 0, 0
	}
	is := func(label string, post int, from, to unit.Millimetres) {
		low, high := lies(label, post)
		assert.Equal(t, [2]unit.Millimetres{from, to}, [2]unit.Millimetres{low, high}, "%s %d", label, post)
	}
	is("the top", 0, 32, 34)
	seat.Standoff = "35"
	is("the top", 0, 37, 39)
	is("the deck", 0, 49, 51)
	is("the mid", 0, 26, 27)
	is("a standoff", 0, 2, 37)
	is("a standoff", 4, 39, 49)
	is("a standoff", 5, 2, 26)
	seat.Standoff, seat.StandoffCutMM = "", mm(26)
	is("the top", 0, 28, 30)
	is("the bottom", 0, 0, 2)

	seat.StandoffCutMM, set.AirUnits[0].Mount.HeightMM = nil, mm(29)
	f.Plates = f.Plates[:2]
	f.Posts, f.Standoffs = f.Posts[:4], new(4)
	set.Frames[0].Bays[0].HeightMM = mm(30)
	says := func() string {
		return told(mount.Check(caseOf(set, "first", seat)))
	}
	assert.NotContains(t, says(), "want the same room")
	seat.StandoffCutMM = mm(28)
	assert.Contains(t, says(), "first and the top want the same room: first is free when it moves 1 mm down")
	assert.Contains(t, says(), "1 mm too high")
	set.Boards[0].HeightMM = mm(18.5)
	assert.Contains(t, says(), "stands 18.5 mm high, and on standoffs 2 mm shorter frame leaves 18 mm for it")
	set.Boards[0].HeightMM = nil
	assert.Contains(t, says(), "height with what is on it")
}

// Where no standoff of the frame is as long as it says of its own, what goes with other ones cannot be
// told.
func TestWhichStandoffsAreMeant(t *testing.T) {
	set, seat := roomy(), airy()
	set.Frames[0].StandoffMM = mm(27)
	seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, 0, 0, 2, 0)}
	assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(caseOf(set, "first", seat))), "nothing is exchanged")
	set.Frames[0].Bays[0].HeightMM, seat.StandoffCutMM = mm(20), mm(25)
	all := told(mount.Check(caseOf(set, "first", seat)))
	assert.Contains(t, all, "which of its standoffs are 27 mm long")
}

// The room over the camera goes with the plate that ends it.
func TestTheCameraUnderOtherStandoffs(t *testing.T) {
	set, seat := roomy(), airy()
	f := &set.Frames[0]
	f.StandoffMM, f.CameraUpMM, f.CameraCover = mm(30), mm(20), "top"
	for _, c := range []struct {
		cover string
		cut   unit.Millimetres
		up    unit.Millimetres
	}{{"top", 26, 16}, {"bottom", 26, 20}, {"", 26, 16}} {
		f.CameraCover, seat.StandoffCutMM = c.cover, &c.cut
		assert.Equal(t, c.up, *caseOf(set, "first", seat).CameraUpMM(), "under %q", c.cover)
	}
	set.Standoffs = []gear.Standoff{post("35", "M3", 35)}
	seat.Standoff, seat.StandoffCutMM = "35", nil
	for cover, up := range map[string]unit.Millimetres{"top": 25, "bottom": 20, "": 20} {
		f.CameraCover = cover
		assert.Equal(t, up, *caseOf(set, "first", seat).CameraUpMM(), "under %q", cover)
	}
}
