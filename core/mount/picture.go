package mount

import (
	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/unit"
)

// Picture shows the hole patterns over each other and the screw in section.
type Picture struct {
	Unit    string            `json:"unit"`
	Bay     string            `json:"bay"`
	OfUnit  []gear.Holes      `json:"ofUnit"`
	OfBay   []gear.Holes      `json:"ofBay"`
	Plate   string            `json:"plate,omitempty"` // adapter plate between
	Holds   string            `json:"holds,omitempty"` // the pattern used
	Screw   *ScrewPlan        `json:"screw,omitempty"`
	Chosen  *unit.Millimetres `json:"chosen,omitempty"` // length of the screw chosen
	DepthMM *unit.Millimetres `json:"depthMM,omitempty"`
	// Missing says what keeps it from being drawn.
	Missing string `json:"missing,omitempty"`
}

// Draw makes the picture of a fit's mounting.
func Draw(c fleet.Case) Picture {
	s := newSeat(c)
	pic := Picture{OfUnit: []gear.Holes{}, OfBay: []gear.Holes{}}
	if len(s.missing) > 0 {
		pic.Missing = "Not known: " + s.missing[0].Label + "."
		return pic
	}
	pic.Unit, pic.Bay = s.airUnit.Label(), s.bay.Label()+" of "+s.frame.Label()
	pic.OfUnit, pic.OfBay = s.airUnit.Mount.Patterns, s.bay.Patterns
	if s.plate != nil {
		pic.Plate = s.plate.Label()
	}
	holes, ok := s.holds()
	if !ok {
		return pic
	}
	pic.Holds, pic.DepthMM = holes.String(), holes.DepthMM
	if plan, missing := s.screwPlan(holes); len(missing) == 0 {
		pic.Screw = &plan
	}
	if screw, ok := gear.Find[*gear.Screw](c.Library, c.Fit.Screw); ok {
		pic.Chosen = screw.LengthMM
	} else if pic.Screw != nil {
		if screw, ok := gear.Find[*gear.Screw](c.Library, pic.Screw.Use); ok {
			pic.Chosen = screw.LengthMM
		}
	}
	return pic
}

// Hidden lists what cannot be reached once the frame is closed; nil where nothing
// is hidden or that is not stated.
func Hidden(c fleet.Case) []string {
	s := newSeat(c)
	if len(s.missing) > 0 {
		return nil
	}
	list, _ := s.hidden()
	return list
}
