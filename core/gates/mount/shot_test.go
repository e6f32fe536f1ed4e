package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/measure/unit"
)

// looking is a roomy quad whose camera looks out from between the plates, 10 mm before its
// screws, level with the middle between them, 90° wide and high.
func looking(x unit.Millimetres, change func(*gear.Set, *fleet.Mounting)) fleet.Case {
	set, seat := roomy(), airy()
	cam := set.AirUnits[0].Camera
	cam.WidthMM, cam.HeightMM, cam.FrontMM, cam.BackMM, cam.LensMM = mm(19), mm(20), mm(10), mm(10), mm(10)
	cam.ViewXDeg, cam.ViewYDeg = new(unit.Degrees(90)), new(unit.Degrees(90))
	f := &set.Frames[0]
	f.GuardMM, f.CameraDownMM, f.CameraUpMM, f.CameraBackMM = mm(13), mm(40), mm(40), mm(40)
	seat.TiltDeg = new(unit.Degrees(0))
	seat.Places = []fleet.Spot{at(fleet.NodeCamera, x, 0, 7, 0)}
	if change != nil {
		change(set, &seat)
	}
	return caseOf(set, "first", seat)
}

// The lens is at x+10 and 17 mm up, 15 mm from either plate, whose edges lie at 60: they are
// seen where they reach more than 15 mm before it.
func TestWhatTheCameraSees(t *testing.T) {
	rotors := func(z float64) func(*gear.Set, *fleet.Mounting) {
		return func(s *gear.Set, m *fleet.Mounting) {
			s.Frames[0].None = []string{gear.NoDuct}
			s.Frames[0].Rotors = []gear.Rotor{{XMM: 90, YMM: 90, ZMM: mm(z)}, {XMM: -90, YMM: -90, ZMM: mm(z)}}
			m.PropMM = mm(127)
		}
	}
	for name, c := range map[string]struct {
		x      unit.Millimetres
		change func(*gear.Set, *fleet.Mounting)
		level  verdict.Level
		says   []string
	}{
		"nothing, from far enough forward": {35, nil, verdict.Fits, nil},
		"both plates": {20, nil, verdict.Caution, []string{
			"the bottom at the lower edge", "the top at the upper edge",
			"15.0 mm forward it sees none of it, and the lens stands 12.0 mm out before the cage",
		}},
		"level, 2 mm back": {33, nil, verdict.Caution, []string{"Moved 2.0 mm forward", "the cage still guards the lens."}},
		"looking up, the top plate alone": {
			20, func(_ *gear.Set, m *fleet.Mounting) { m.TiltDeg = new(unit.Degrees(30)) }, verdict.Caution,
			[]string{"Tilted by 30° the camera sees a standoff", "the top at the upper edge (59 % of the picture)"},
		},
		"a propeller": {
			35, rotors(17), verdict.Caution, []string{"the propeller front left at the left edge", "mm forward it sees none of it"},
		},
		"a propeller outside its view": {
			35, rotors(200), verdict.Fits, nil,
		},
		"its own view is not stated": {
			35, func(s *gear.Set, _ *fleet.Mounting) { s.AirUnits[0].Camera.ViewXDeg = nil }, verdict.Unknown,
			[]string{"how wide its camera sees"},
		},
		"nor its tilt": {
			35, func(_ *gear.Set, m *fleet.Mounting) { m.TiltDeg = nil }, verdict.Unknown, []string{"tilt the camera"},
		},
		"propellers of no stated size": {
			35, func(s *gear.Set, m *fleet.Mounting) { rotors(17)(s, m); m.PropMM = nil }, verdict.Unknown,
			[]string{"diameter of the propellers"},
		},
		"nobody says whether it has propellers": {
			35, func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].None = []string{gear.NoDuct} }, verdict.Unknown,
			[]string{"where its propellers turn"},
		},
		"nor whether it has ducts": {
			35, func(s *gear.Set, m *fleet.Mounting) { rotors(17)(s, m); s.Frames[0].None = nil }, verdict.Unknown,
			[]string{"ducts around its propellers, or that it has none"},
		},
	} {
		findings := mount.Check(looking(c.x, c.change))
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %v", name, findings)
		all := told(findings)
		for _, says := range c.says {
			assert.Contains(t, all, says, name)
		}
	}
}

// What a propeller sweeps strikes, and what stands in a duct has no room there.
func TestWhatAPropellerStrikes(t *testing.T) {
	set, seat := roomy(), airy()
	f := &set.Frames[0]
	f.None = nil
	f.Rotors = []gear.Rotor{{XMM: 60, YMM: -60, ZMM: mm(10)}}
	f.Duct = &gear.Duct{DiameterMM: mm(110), FromMM: mm(-5), ToMM: mm(25)}
	seat.PropMM = mm(100)
	seat.Places = []fleet.Spot{at("gps", 20, -20, 2, 0)} // its corner is at 30, −30: 42.4 mm away
	k := caseOf(set, "first", seat)
	k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
	findings := mount.Check(k)
	var struck, duct verdict.Finding
	for _, f := range findings {
		switch f.Code {
		case mount.CodeStruck:
			struck = f
		case mount.CodeRoom:
			duct = f
		}
	}
	require.Equal(t, verdict.Unfit, struck.Level)
	assert.Equal(t, verdict.Falls, struck.Danger)
	assert.Contains(t, struck.Says, "finder lies in what the propeller front right sweeps, by 7.")
	assert.Equal(t, verdict.Unfit, duct.Level)
	r := mount.RoomOf(k)
	require.Len(t, r.Rounds, 2)
	assert.True(t, r.Rounds[0].Clashes && r.Rounds[1].Clashes)
	found := mount.FindSeat(k, "gps")
	require.NotNil(t, found.Place, found.Says)
	assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(k.With(fleet.Patch{Place: &fleet.Placing{Spot: *found.Place}}))))
	seat.Places[0].ZMM = 34
	k = caseOf(set, "first", seat)
	k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
	assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(k)), "over the blades")
}
