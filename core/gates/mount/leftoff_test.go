package mount_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
)

// A plate left off frees what it covered and weakens the frame; the one the unit sits on cannot
// be, and nobody knows which that is unless it is said.
func TestPlatesLeftOff(t *testing.T) {
	for name, c := range map[string]struct {
		off    []string
		change func(*gear.Frame, *gear.AirUnit)
		level  verdict.Level
		says   string
	}{
		"none":      {nil, nil, verdict.Fits, ""},
		"the cover": {[]string{"top"}, nil, verdict.Caution, "The top of frame is left off: the frame bends more"},
		"the cover, over a unit too high": {
			[]string{"top"}, func(_ *gear.Frame, u *gear.AirUnit) { u.Mount.HeightMM = mm(60) }, verdict.Caution, "bends more",
		},
		"too high, with the cover on": {
			nil, func(_ *gear.Frame, u *gear.AirUnit) { u.Mount.HeightMM = mm(60) }, verdict.Unfit, "too high",
		},
		"too high, and which plate covers it is not stated": {
			[]string{"top"}, func(f *gear.Frame, u *gear.AirUnit) { u.Mount.HeightMM, f.Bays[0].Cover = mm(60), "" },
			verdict.Unfit, "too high",
		},
		"what it sits on": {[]string{"bottom"}, nil, verdict.Unfit, "the unit has nothing to sit on"},
		"what it sits on is not stated": {
			[]string{"bottom"}, func(f *gear.Frame, _ *gear.AirUnit) { f.Bays[0].On = "" }, verdict.Unknown, "is on",
		},
		"a plate there is not": {[]string{"lid"}, nil, verdict.Unfit, "does not have: lid"},
	} {
		set, seat := roomy(), airy()
		f := &set.Frames[0]
		for i := range f.Bays {
			if f.Bays[i].ID == seat.Bay {
				f.Bays[0], f.Bays[i] = f.Bays[i], f.Bays[0]
			}
		}
		f.Bays[0].On, f.Bays[0].Cover = "bottom", "top"
		if c.change != nil {
			c.change(f, &set.AirUnits[0])
		}
		seat.LeftOff = c.off
		findings := mount.Check(caseOf(set, "first", seat))
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %v", name, findings)
		all := told(findings)
		assert.Contains(t, all, c.says, name)
	}
	for _, off := range []string{"bottom", "lid"} { // what it sits on, and what another frame had
		set, seat := roomy(), airy()
		for i := range set.Frames[0].Bays {
			set.Frames[0].Bays[i].On = "bottom"
		}
		seat.LeftOff = []string{off}
		k := caseOf(set, "first", seat)
		put := slices.ContainsFunc(mount.Candidates(k), func(cand verdict.Candidate) bool {
			return cand.Patch.LeaveOff != nil && verdict.Worst(mount.Check(k.With(cand.Patch))) == verdict.Fits
		})
		assert.True(t, put, off)
	}
	set, seat := roomy(), airy()
	seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, 0, 0, 25, 0)} // through the top plate
	k := caseOf(set, "first", seat)
	assert.Equal(t, verdict.Unfit, verdict.Worst(mount.Check(k)))
	k = k.With(fleet.Patch{LeaveOff: &fleet.LeaveOff{Plate: "top"}})
	for _, f := range mount.Check(k) {
		assert.NotEqual(t, mount.CodeRoom, f.Code, f.Says)
	}
	assert.Equal(t, []mount.PlateOn{{ID: "bottom", Label: "bottom"}, {ID: "top", Label: "top", Off: true}}, mount.RoomOf(k).Plates)
	k = k.With(fleet.Patch{LeaveOff: &fleet.LeaveOff{Plate: "top", On: true}})
	assert.Nil(t, k.Fit.LeftOff)
}
