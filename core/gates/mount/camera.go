package mount

import (
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

const (
	// bend is what a cable wants over the straight way: a ribbon must not be bent
	// hard (common practice; the share is from memory).
	bend = 1.10
	// cageSlack is what a camera cage gives on both sides together (from memory).
	cageSlack unit.Millimetres = 0.5
)

func (s *seat) checkCamera() (findings []verdict.Finding) {
	cam := s.camera.Camera
	if cam == nil {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(),
			s.unitValue("camera", "camera"))}
	}
	findings = s.checkOtherCamera()
	var missing []verdict.Missing
	for _, check := range []func(*gear.Camera) (verdict.Finding, []verdict.Missing){
		s.checkCage, s.checkPerSide, s.checkCable, s.checkLens,
	} {
		f, lacks := check(cam)
		missing = append(missing, lacks...)
		if f.Code != "" {
			f.Source = verdict.Practice
			findings = append(findings, f)
		}
	}
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...))
	}
	return findings
}

// cameraValue names a value that the sheet of the camera, or of its unit, does not state.
func (s *seat) cameraValue(field, words string) verdict.Missing {
	return verdict.GearValue(s.camera.Of, s.camera.Field(field), words)
}

// checkOtherCamera asks whether a camera that is put in the place of the unit's own works
// with it.
func (s *seat) checkOtherCamera() []verdict.Finding {
	other := s.camera.Model
	switch {
	case other == nil || slices.Contains(other.Units, s.airUnit.ID):
		return nil
	case len(other.Units) == 0:
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeCamera, s.Quad.Label(),
			s.cameraValue("units", "which air units work with"))}
	}
	works := make([]string, len(other.Units))
	for i, id := range other.Units {
		works[i] = s.Library.Label(id)
	}
	return []verdict.Finding{{Code: CodeCamera, Level: verdict.Unfit, Subject: other.Label(),
		Source: other.SourceOf("units").String(),
		Says: fmt.Sprintf("The %s works with %s, not with %s: there is no picture.", other.Label(), change.And(works),
			s.airUnit.Label())}}
}

// checkCage asks whether the camera goes into its cage.
func (s *seat) checkCage(cam *gear.Camera) (f verdict.Finding, missing []verdict.Missing) {
	if held, other := s.HoldingOf(fleet.NodeCamera); other && held.Way != fleet.HeldByScrews {
		return s.checkHeldCamera(cam, held)
	}
	if cam.WidthMM == nil {
		missing = append(missing, s.cameraValue("widthMM", "camera width"))
	}
	if s.frame.CageMM == nil {
		missing = append(missing, s.frameValue("cageMM", "camera cage"))
	}
	if len(missing) > 0 {
		return f, missing
	}
	gap := unit.Less(*s.frame.CageMM, *cam.WidthMM)
	switch {
	case unit.Over(-cageSlack, gap):
		f.Code, f.Level = CodeCage, verdict.Unfit
		f.Says = fmt.Sprintf("The camera is %s wide, the cage of %s %s: it does not go in.", cam.WidthMM, s.frame.Label(),
			s.frame.CageMM)
	case unit.Over(gap, cageSlack):
		f.Code, f.Level = CodeCage, verdict.Caution
		f.Says = fmt.Sprintf("The camera is %s wide in a cage of %s: spacers of %s on each side.", cam.WidthMM,
			s.frame.CageMM, gap/2)
	}
	return f, nil
}

// checkPerSide asks whether the cage has a hole for each screw of the camera.
func (s *seat) checkPerSide(cam *gear.Camera) (f verdict.Finding, missing []verdict.Missing) {
	if held, other := s.HoldingOf(fleet.NodeCamera); other && held.Way != fleet.HeldByScrews {
		return f, nil // its frame's cage does not hold it
	}
	if cam.PerSide == nil {
		missing = append(missing, s.cameraValue("perSide", "screws on each side of its camera"))
	}
	if s.frame.CagePerSide == nil {
		missing = append(missing, s.frameValue("cagePerSide", "screws on each side of its cage"))
	}
	if len(missing) == 0 && *cam.PerSide > *s.frame.CagePerSide {
		f.Code, f.Level = CodePerSide, verdict.Caution
		f.Says = fmt.Sprintf("The camera takes %d screws a side, the cage of %s %d: it turns in a crash; check the tilt "+
			"after each.", *cam.PerSide, s.frame.Label(), *s.frame.CagePerSide)
	}
	return f, missing
}

// checkCable asks whether the camera's cable reaches, bends included.
func (s *seat) checkCable(cam *gear.Camera) (f verdict.Finding, missing []verdict.Missing) {
	if cam.CableMM == nil {
		missing = append(missing, s.cameraValue("cableMM", "camera cable"))
	}
	if s.bay.CameraMM == nil {
		missing = append(
			missing,
			s.frameValue("bays."+s.bay.ID+".cameraMM", "way of the camera cable from its "+s.bay.Label()),
		)
	}
	if len(missing) > 0 {
		return f, missing
	}
	wanted := *s.bay.CameraMM * bend
	if !unit.Over(wanted, *cam.CableMM) {
		return f, nil
	}
	f.Code, f.Level = CodeCable, verdict.Unfit
	f.Compares = []verdict.Compare{{
		What:   "camera cable",
		Needed: fmt.Sprintf("%.0f mm with bends", float64(wanted)),
		There:  cam.CableMM.String(),
	}}
	f.Says = fmt.Sprintf("The camera cable is %s; from the %s of %s it wants %.0f mm with its bends.", cam.CableMM,
		s.bay.Label(), s.frame.Label(), float64(wanted))
	return f, nil
}

// checkLens asks whether the cage stands out in front of the lens.
func (s *seat) checkLens(cam *gear.Camera) (f verdict.Finding, missing []verdict.Missing) {
	if cam.LensMM == nil {
		missing = append(missing, s.cameraValue("lensMM", "how far its lens stands out"))
	}
	if s.frame.GuardMM == nil {
		missing = append(missing, s.frameValue("guardMM", "how far its cage stands out in front"))
	}
	if len(missing) == 0 && unit.Over(*cam.LensMM, *s.frame.GuardMM) {
		f.Code, f.Level = CodeLens, verdict.Caution
		f.Says = fmt.Sprintf("The lens stands %s out in front of the cage: the first crash lands on it.",
			unit.Less(*cam.LensMM, *s.frame.GuardMM))
	}
	return f, missing
}

// Tilt is how far a camera turns in its cage before it touches.
type Tilt struct {
	UpDeg   unit.Degrees  `json:"upDeg"`   // below 0: it touches as it lies
	DownDeg unit.Degrees  `json:"downDeg"` // the same looking down
	Below   string        `json:"below"`   // what it touches then
	Touches string        `json:"touches"`
	Wanted  *unit.Degrees `json:"wanted,omitempty"`
	// The body from its screws, and the room around them.
	HeightMM unit.Millimetres `json:"heightMM"`
	FrontMM  unit.Millimetres `json:"frontMM"`
	BackMM   unit.Millimetres `json:"backMM"`
	DownMM   unit.Millimetres `json:"downMM"`
	UpMM     unit.Millimetres `json:"upMM"`
	BehindMM unit.Millimetres `json:"behindMM"`
}

// tilt turns the camera's body, a block around its screws, until a corner meets
// the bottom plate, the top plate, which is taken to reach over it, or what
// stands behind. A corner at distance r and angle a above the horizontal rises as
// r·sin(a + tilt).
func (s *seat) tilt() (Tilt, []verdict.Missing) {
	cam, f, over := s.camera.Camera, s.frame, s.CameraUpMM()
	var missing []verdict.Missing
	for _, need := range []struct {
		value *unit.Millimetres
		what  verdict.Missing
	}{
		{cam.HeightMM, s.cameraValue("heightMM", "height of the camera")},
		{cam.FrontMM, s.cameraValue("frontMM", "front of the camera's body")},
		{cam.BackMM, s.cameraValue("backMM", "back of the camera")},
		{f.CameraDownMM, s.frameValue("cameraDownMM", "room under the camera")},
		{over, s.frameValue("cameraUpMM", "room over the camera")},
		{f.CameraBackMM, s.frameValue("cameraBackMM", "room behind the camera")},
	} {
		if need.value == nil {
			missing = append(missing, need.what)
		}
	}
	if len(missing) > 0 {
		return Tilt{}, missing
	}
	half, back, front := float64(*cam.HeightMM)/2, float64(*cam.BackMM), float64(*cam.FrontMM)
	t := Tilt{Wanted: s.Fit.TiltDeg, HeightMM: *cam.HeightMM, FrontMM: *cam.FrontMM, BackMM: *cam.BackMM,
		DownMM: *f.CameraDownMM, UpMM: *over, BehindMM: *f.CameraBackMM}
	down, up, behind := float64(*f.CameraDownMM), float64(*over), float64(*f.CameraBackMM)
	if s.Fit.Off(f.CameraCover) {
		up = math.Inf(1)
	}
	t.UpDeg, t.Touches = turnsFree([]wall{
		{"the bottom plate with its back", down, back, half},
		{"the top plate with its front", up, front, half},
		{"what stands behind it", behind, half, back},
	})
	t.DownDeg, t.Below = turnsFree([]wall{
		{"the bottom plate with its front", down, front, half},
		{"the top plate with its back", up, back, half},
		{"what stands behind it", behind, half, back},
	})
	return t, nil
}

// wall lies reach away from the screws; the corner that meets it is x along it and y
// towards it at no tilt.
type wall struct {
	touches     string
	reach, x, y float64
}

// turnsFree is how far a camera turns before a corner meets a wall, up to 90°.
func turnsFree(walls []wall) (free unit.Degrees, touches string) {
	free, touches = 90, "nothing"
	for _, w := range walls {
		if at := firstTouch(w.reach, w.x, w.y); at < free {
			free, touches = at, w.touches
		}
	}
	return free, touches
}

// firstTouch is the turn in degrees at which a corner, x along a wall and y
// towards it, meets that wall at a distance: y·cos t + x·sin t = reach. It is −1
// where the corner is through it from the start, and 90 where it never is up to
// there.
func firstTouch(reach, x, y float64) unit.Degrees {
	if y > reach {
		return -1
	}
	r := math.Hypot(x, y)
	if r <= reach {
		return 90
	}
	return unit.Degrees(min(90, (math.Asin(reach/r)-math.Atan2(y, x))*180/math.Pi))
}

// checkTilt says whether the camera turns as far as is wanted; not asked for
// where nothing is.
func (s *seat) checkTilt() []verdict.Finding {
	t, missing := s.tilt()
	wanted := s.Fit.TiltDeg
	switch {
	case len(missing) > 0 && wanted == nil:
		return nil
	case len(missing) > 0:
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...)}
	case t.UpDeg < 0:
		return []verdict.Finding{{
			Code:   CodeTilt,
			Level:  verdict.Unfit,
			Source: verdict.Practice,
			Says:   fmt.Sprintf("The camera does not go in: level, it already touches %s.", t.Touches),
		}}
	case wanted != nil && *wanted < 0 && unit.Over(-*wanted, t.DownDeg):
		return []verdict.Finding{{Code: CodeTilt, Level: verdict.Unfit, Source: verdict.Practice,
			Compares: []verdict.Compare{{
				What:   "tilt down",
				Needed: (-*wanted).String(),
				There:  fmt.Sprintf("%.0f° free", math.Floor(float64(t.DownDeg))),
			}},
			Says: fmt.Sprintf("Looking down by %s the camera touches %s; it is free down to %.0f°. Where it touches, the "+
				"recording shakes.",
				-*wanted, t.Below, math.Floor(float64(t.DownDeg)))}}
	case wanted != nil && unit.Over(*wanted, t.UpDeg):
		return []verdict.Finding{{Code: CodeTilt, Level: verdict.Unfit, Source: verdict.Practice,
			Compares: []verdict.Compare{{
				What:   "tilt",
				Needed: wanted.String(),
				There:  fmt.Sprintf("%.0f° free", math.Floor(float64(t.UpDeg))),
				Margin: fmt.Sprintf("%.0f°", math.Floor(float64(t.UpDeg))-float64(*wanted)),
			}},
			Says: fmt.Sprintf("Tilted by %s the camera touches %s; it is free up to %.0f°. Where it touches, the recording "+
				"shakes.",
				wanted, t.Touches, math.Floor(float64(t.UpDeg)))}}
	}
	return nil
}

// checkLeads holds the antenna leads against their way; not asked for where the
// antennas or the way are not stated.
func (s *seat) checkLeads() (findings []verdict.Finding) {
	if s.Fit.Antennas == nil || len(s.Fit.Antennas.Models) == 0 {
		return nil // the antenna gate asks for them
	}
	if s.bay.AntennaMM == nil {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeLead, s.Quad.Label(),
			s.frameValue("bays."+s.bay.ID+".antennaMM", "way of the antenna leads from its "+s.bay.Label()))}
	}
	wanted := *s.bay.AntennaMM * bend
	seen := map[string]bool{}
	for _, id := range s.Fit.Antennas.Models {
		a, ok := gear.Find[*gear.Antenna](s.Library, id)
		if !ok || seen[id] || a.LeadMM != nil && !unit.Over(wanted, *a.LeadMM) {
			continue
		}
		seen[id] = true
		if a.LeadMM == nil {
			findings = append(findings,
				verdict.CannotTell(verdict.Mount, CodeLead, s.Quad.Label(),
					verdict.GearValue(&a.Entry, "leadMM", "length of the lead")))
			continue
		}
		findings = append(findings, verdict.Finding{Code: CodeLead, Level: verdict.Unfit, Source: verdict.Practice,
			Compares: []verdict.Compare{{
				What:   "antenna lead",
				Needed: fmt.Sprintf("%.0f mm with bends", float64(wanted)),
				There:  a.LeadMM.String(),
			}},
			Says: fmt.Sprintf("The lead of %s is %s; from the %s of %s it wants %.0f mm with its bends.", a.Label(), a.LeadMM,
				s.bay.Label(), s.frame.Label(), float64(wanted))})
	}
	return findings
}
