package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// withCamera has another camera in the library, 14 mm wide, for the first unit.
func withCamera(change func(*gear.CameraModel)) *gear.Set {
	set := sample.Set()
	small := gear.CameraModel{
		Entry: gear.Entry{ID: "little", Name: "Little"},
		Camera: gear.Camera{
			WidthMM: new(unit.Millimetres(14)),
			LensMM:  new(unit.Millimetres(7)),
			CableMM: new(unit.Millimetres(120)),
			PerSide: new(1),
			MassG:   new(unit.Grams(5)),
		},
		Units: []string{"first"},
	}
	change(&small)
	set.Cameras = append(set.Cameras, small)
	return set
}

// A camera in the place of the unit's own is judged as what it is: its own width, its own
// cable, and whether it works with the unit at all.
func TestAnotherCamera(t *testing.T) {
	for _, c := range []struct {
		name   string
		unit   string
		change func(*gear.CameraModel)
		code   verdict.Code
		level  verdict.Level
		field  string
	}{
		{"its width is judged", "first", func(*gear.CameraModel) {}, mount.CodeCage, verdict.Caution, ""},
		{"its cable is judged", "first", func(m *gear.CameraModel) { m.CableMM = new(unit.Millimetres(20)) },
			mount.CodeCable, verdict.Unfit, ""},
		{"what it does not state is asked of it", "first", func(m *gear.CameraModel) { m.WidthMM = nil },
			mount.CodeUnknown, verdict.Unknown, "widthMM"},
		{"it works with another unit", "first", func(m *gear.CameraModel) { m.Units = []string{"second"} },
			mount.CodeCamera, verdict.Unfit, ""},
		{"nobody states what it works with", "first", func(m *gear.CameraModel) { m.Units = nil },
			mount.CodeCamera, verdict.Unknown, "units"},
	} {
		t.Run(c.name, func(t *testing.T) {
			seat := sample.Seat()
			seat.Camera = "little"
			for _, f := range mount.Check(caseOf(withCamera(c.change), c.unit, seat)) {
				if f.Code == c.code {
					assert.Equal(t, c.level, f.Level)
					if c.field != "" {
						require.NotEmpty(t, f.Missing)
						assert.Equal(t, "little", f.Missing[0].ID)
						assert.Equal(t, c.field, f.Missing[0].Field)
					}
					return
				}
			}
			t.Fatalf("%s is not found", c.code)
		})
	}
}

// A camera that is too wide for its cage is replaced alone, by one that works with the
// unit, and the unit's own comes back.
func TestACameraIsReplacedAlone(t *testing.T) {
	set := withCamera(func(*gear.CameraModel) {})
	set.Frames[0].CageMM = new(unit.Millimetres(14))
	offers := func(camera string) bool {
		seat := sample.Seat()
		seat.Camera = map[string]string{"little": "", "": "little"}[camera]
		for _, c := range mount.Candidates(caseOf(set, "first", seat)) {
			if c.Patch.Mounting != nil && c.Patch.Mounting.Camera == camera {
				return true
			}
		}
		return false
	}
	assert.True(t, offers("little"))
	assert.True(t, offers(""), "its own again")
	set.Cameras[len(set.Cameras)-1].Units = []string{"second"}
	assert.False(t, offers("little"), "it works with another unit")
}

// The other camera weighs what it weighs; what the unit weighs without its own is not
// known where that is weighed with the unit.
func TestAnotherCameraIsWeighed(t *testing.T) {
	set := withCamera(func(*gear.CameraModel) {})
	own := sample.Seat()
	seat := sample.Seat()
	seat.Camera = "little"
	c := caseOf(set, "first", seat)
	c.Quad.Now = *caseOf(set, "first", own).Fit
	w := mount.Weigh(c.Library, c.Fleet, c.Quad, nil)
	labels := map[string]bool{}
	for _, p := range w.Parts {
		labels[p.Label] = true
	}
	assert.True(t, labels["Little"], "%v", labels)
	assert.True(t, labels["less the own camera of first"], "%v", labels)
}
