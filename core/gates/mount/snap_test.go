package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
)

// What is held by screws lies over their holes, or is told how far off it is; held otherwise it
// lies where it is put; where the holes are has to be stated.
func TestOntoItsHoles(t *testing.T) {
	for name, c := range map[string]struct {
		x      float64
		change func(*gear.Frame, *fleet.Mounting)
		level  verdict.Level
		says   string
	}{
		"on them":        {-10, nil, verdict.Fits, ""},
		"with some play": {-10.4, nil, verdict.Fits, ""},
		"off them":       {-7, nil, verdict.Unfit, "first lies 3.0 mm off the holes of the "},
		"held otherwise": {-7, func(_ *gear.Frame, m *fleet.Mounting) { m.Holdings = airy().Holdings }, verdict.Fits, ""},
		"nobody says where they are": {
			-10, func(f *gear.Frame, _ *fleet.Mounting) { f.Bays[0].AtXMM = nil }, verdict.Unknown, "where the middle of its",
		},
	} {
		k := onHoles(c.x, c.change)
		findings := mount.Check(k)
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %v", name, findings)
		all := told(findings)
		assert.Contains(t, all, c.says, name)
	}
	k := onHoles(-7, nil)
	snap := mount.RoomOf(k).Blocks[0].Snap
	require.NotNil(t, snap)
	assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(k.With(fleet.Patch{Place: &fleet.Placing{Spot: *snap}}))))
	found := mount.FindSeat(k, fleet.NodeAirUnit)
	require.NotNil(t, found.Place, found.Says)
	assert.Equal(t, [2]float64{-10, 0}, [2]float64{float64(found.Place.XMM), float64(found.Place.YMM)})
	assert.LessOrEqual(t, found.Tried, 16, "on its holes alone: four turns on and under two plates")
	assert.Contains(t, mount.FindSeat(onHoles(-7, func(f *gear.Frame, _ *fleet.Mounting) { f.Bays[0].AtXMM = nil }),
		fleet.NodeAirUnit).Says, "where the middle of its")
}

// A pattern that is longer one way than the other meets its holes turned by a quarter, or not: straight
// on the bay, over a plate, and on the stack.
func TestCrosswiseOnItsHoles(t *testing.T) {
	long := []gear.Holes{{XMM: 20, YMM: 25, Screw: "M2", DepthMM: mm(3)}}
	wide := []gear.Holes{{XMM: 25, YMM: 20, Screw: "M2", DepthMM: mm(3)}}
	const says = "lies crosswise on the holes of the"
	for name, c := range map[string]struct {
		own, bay  []gear.Holes
		plate     *gear.Plate
		quarters  int
		crosswise bool
	}{
		"along":                    {long, long, nil, 0, false},
		"across":                   {long, wide, nil, 0, true},
		"turned onto them":         {long, wide, nil, 1, false},
		"turned off them":          {long, long, nil, 3, true},
		"turned around":            {long, long, nil, 2, false},
		"another pattern goes":     {append(long, wide...), wide, nil, 0, false},
		"over a plate along":       {long, long, &gear.Plate{From: long[0], To: long[0]}, 0, false},
		"over a plate turned":      {long, wide, &gear.Plate{From: long[0], To: long[0]}, 0, true},
		"over a plate across":      {long, long, &gear.Plate{From: long[0], To: wide[0]}, 0, true},
		"over a plate from square": {long, []gear.Holes{{XMM: 30, YMM: 30}}, &gear.Plate{From: gear.Holes{XMM: 30, YMM: 30}, To: wide[0]}, 0, false},
	} {
		k := onHoles(-10, nil)
		unit, _, _ := k.AirUnit()
		frame, _ := k.Frame()
		unit.Mount.Patterns, frame.Bays[0].Patterns = c.own, c.bay
		if c.plate != nil {
			k.Fit.Plate = "plate-20-25"
			plate, there := gear.Find[*gear.Plate](k.Library, k.Fit.Plate)
			require.True(t, there)
			plate.From, plate.To = c.plate.From, c.plate.To
		}
		k.Fit.Places = []fleet.Spot{at(fleet.NodeAirUnit, -10, 0, 2, c.quarters)}
		told := ""
		for _, f := range mount.Check(k) {
			told += f.Says + " "
		}
		if !c.crosswise {
			assert.NotContains(t, told, says, name)
			continue
		}
		assert.Contains(t, told, says, name)
		snap := mount.RoomOf(k).Blocks[0].Snap
		require.NotNil(t, snap, name)
		assert.Equal(t, (c.quarters+1)%4, snap.Quarters, name)
	}
}

// onHoles is a roomy quad with the unit on the holes of its bay, whose middle is 10 mm back.
func onHoles(x float64, change func(*gear.Frame, *fleet.Mounting)) fleet.Case {
	set, seat := roomy(), airy()
	seat.Holdings = nil
	f := &set.Frames[0]
	for i := range f.Bays {
		if f.Bays[i].ID == seat.Bay {
			f.Bays[0], f.Bays[i] = f.Bays[i], f.Bays[0]
		}
	}
	f.Bays[0].AtXMM, f.Bays[0].AtYMM = mm(-10), mm(0)
	seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, *mm(x), 0, 2, 0)}
	if change != nil {
		change(f, &seat)
	}
	return caseOf(set, "first", seat)
}
