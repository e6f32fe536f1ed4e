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

// The camera's lead reaches from the side it comes out of to the back of the camera, with its bends;
// which side that is is asked where it matters, and a seat is looked for where it reaches.
func TestTheCamerasLead(t *testing.T) {
	set, seat := roomy(), airy()
	u := &set.AirUnits[0]
	u.KeepFree = nil
	cam := u.Camera
	cam.WidthMM, cam.HeightMM, cam.FrontMM, cam.BackMM = mm(20), mm(20), mm(6), mm(14)
	seat.TiltDeg = nil
	// The back of the camera is at 45, the front of the unit at -20, its rear at -50.
	seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, -35, 0, 6, 0), at(fleet.NodeCamera, 55, 0, 2, 0)}
	says := func() (verdict.Level, string) {
		level, all := verdict.Fits, ""
		for _, f := range mount.Check(caseOf(set, "first", seat)) {
			if f.Code == mount.CodeCable {
				level = verdict.Worst([]verdict.Finding{f, {Level: level}})
				all += f.Says
			}
		}
		return level, all
	}
	for name, c := range map[string]struct {
		cable float64
		side  gear.Side
		level verdict.Level
		says  string
	}{
		"from the front it reaches":   {80, "front", verdict.Fits, ""},
		"from the rear it does not":   {100, "rear", verdict.Unfit, "from where first lies to where the camera does it wants 105 mm"},
		"from nowhere it does":        {71, "", verdict.Unfit, "it wants 72 mm with its bends"},
		"that depends on the side":    {80, "", verdict.Unknown, "side its camera lead comes out of"},
		"from wherever it comes":      {110, "", verdict.Fits, ""},
		"from the front not by a bit": {71, "front", verdict.Unfit, "it wants 72 mm"},
	} {
		set.Frames[0].Bays[0].CameraMM = mm(10)
		cam.CableMM, u.Mount.Access = mm(c.cable), map[string]gear.Side{"usb": "rear"}
		if c.side != "" {
			u.Mount.Access["camera"] = c.side
		}
		level, words := says()
		assert.Equal(t, c.level, level, "%s: %s", name, words)
		assert.Contains(t, words, c.says, name)
	}
	set.Frames[0].Bays[0].Open = []gear.Side{"rear"}
	cam.CableMM, u.Mount.Access = mm(60), map[string]gear.Side{"camera": "front"}
	k := caseOf(set, "first", seat)
	found := mount.FindSeat(k, fleet.NodeAirUnit)
	require.NotNil(t, found.Place, found.Says)
	assert.Zero(t, found.Place.Quarters, "nobody has to reach for the camera's lead")
	seat.Places[0] = *found.Place
	level, words := says()
	assert.Equal(t, verdict.Fits, level, "%s: %s", found.Says, words)
	assert.Equal(t, "the camera lead", mount.RoomOf(k).Blocks[0].Openings[0].What)
}
