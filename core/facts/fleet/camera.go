package fleet

import "yokeswap/core/facts/gear"

// CameraOn is the camera that an air unit looks through: its own, or another in its place.
type CameraOn struct {
	*gear.Camera                   // nil: not stated
	Model        *gear.CameraModel // nil: the unit's own
	Of           *gear.Entry       // whose sheet states it; nil: there is no air unit
	within       string            // where it stands on that sheet
}

// Camera is the camera of the fit.
func (c Case) Camera() CameraOn {
	u, _, ok := c.AirUnit()
	if !ok {
		return CameraOn{}
	}
	if other, chosen := gear.Find[*gear.CameraModel](c.Library, c.Fit.Camera); chosen {
		return CameraOn{Camera: &other.Camera, Model: other, Of: &other.Entry}
	}
	return CameraOn{Camera: u.Camera, Of: &u.Entry, within: "camera."}
}

// Field is where a value of the camera stands on its sheet.
func (o CameraOn) Field(value string) string { return o.within + value }
