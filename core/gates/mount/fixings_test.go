package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/mount"
	"yokeswap/core/internal/sample"
)

// An adapter plate takes a second set of screws, with nuts; a camera narrower than its cage takes
// spacers to both sides and longer screws; what goes in as it came takes nothing.
func TestWhatAPlanTakesBesideTheUnitsScrews(t *testing.T) {
	set, seat := sample.Set(), sample.Seat()
	assert.Empty(t, mount.Fixings(caseOf(set, "first", seat)))

	seat.Plate = "plate-20-25"
	set.Plates[0].From.Screw = "M3"
	set.Screws = append(set.Screws, gear.Screw{Entry: gear.Entry{ID: "m3-10", Name: "m3-10"}, Size: "M3", LengthMM: mm(10)})
	set.Frames[0].Bays[0].PlateMM = mm(2)
	k := caseOf(set, "first", seat)
	assert.Equal(t, []mount.Fixing{
		{For: "the adapter plate", Label: "M3 nut", Count: 4},
		// 2 mm of frame, 4 mm of plate and 2.4 mm of nut: 8.4 to 11.4 mm.
		{For: "the adapter plate", Model: "m3-10", Label: "m3-10", Count: 4},
	}, mount.Fixings(k))
	set.Plates[0].ThickMM = nil
	assert.Contains(t, mount.Fixings(caseOf(set, "first", seat))[1].Note, "its length is not stated")
	k.Quad.Now.Mounting = k.Fit.Mounting
	assert.Empty(t, mount.Fixings(k), "it is on already")

	set, seat = sample.Set(), sample.Seat()
	set.Frames[0].CageMM = mm(21) // for a camera of 19 mm
	k = caseOf(set, "first", seat)
	list := mount.Fixings(k)
	require.Len(t, list, 2)
	assert.Equal(t, "spacer of 1 mm for the camera", list[0].Label)
	assert.Equal(t, 2, list[0].Count, "one to each side")
	assert.Equal(t, "M2 screw for the camera", list[1].Label)
	set.Washers = []gear.Washer{{Entry: gear.Entry{ID: "thin", Name: "thin"}, Size: "M2", ThickMM: mm(1)}}
	assert.Equal(t, "thin", mount.Fixings(caseOf(set, "first", seat))[0].Model)

	seat.Holdings = []fleet.Hold{{Part: fleet.NodeCamera, Way: fleet.HeldByCage, InsideMM: mm(19), Screws: new(2)}}
	list = mount.Fixings(caseOf(set, "first", seat))
	require.Len(t, list, 1, "a cage as wide as the camera wants no spacers, but other screws")
	assert.Contains(t, list[0].Note, "no deeper than the thread")
	seat.Holdings[0].Way = fleet.HeldByTape
	assert.Empty(t, mount.Fixings(caseOf(set, "first", seat)))
}
