package mount

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Picture shows the hole patterns over each other and the screw in section.
type Picture struct {
	Unit    string            `json:"unit"`
	Bay     string            `json:"bay"`
	OfUnit  []gear.Holes      `json:"ofUnit"`
	OfBay   []gear.Holes      `json:"ofBay"`
	Plate   string            `json:"plate,omitempty"` // adapter plate between
	Holds   string            `json:"holds,omitempty"` // the pattern used
	Held    string            `json:"held,omitempty"`  // what holds it, where that is not screws in its holes
	Screw   *ScrewPlan        `json:"screw,omitempty"`
	Chosen  *unit.Millimetres `json:"chosen,omitempty"` // length of the screw chosen
	DepthMM *unit.Millimetres `json:"depthMM,omitempty"`
	Tilt    *Tilt             `json:"tilt,omitempty"` // of the camera; absent: not known
	StackMM *unit.Millimetres `json:"stackMM,omitempty"`
	ClearMM *unit.Millimetres `json:"clearMM,omitempty"`
	// SpareMM is how much lower than clear it stands; less than none: it is too high.
	SpareMM *unit.Millimetres `json:"spareMM,omitempty"`
	TooHigh bool              `json:"tooHigh"`
	// WrongScrew: the screw chosen is too long or too short.
	WrongScrew bool `json:"wrongScrew"`
	Drilled    bool `json:"drilled"` // the unit's holes are new in the bay
	// SolidXMM and SolidYMM are how far the bay's plate is solid.
	SolidXMM *unit.Millimetres `json:"solidXMM,omitempty"`
	SolidYMM *unit.Millimetres `json:"solidYMM,omitempty"`
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
	pic.OfUnit, pic.OfBay = append(pic.OfUnit, s.mount.Patterns...), append(pic.OfBay, s.bay.Patterns...)
	if s.plate != nil {
		pic.Plate = s.plate.Label()
	}
	pic.Drilled, pic.SolidXMM, pic.SolidYMM = s.drills(), s.bay.SolidXMM, s.bay.SolidYMM
	if t, missing := s.tiltIfAny(); len(missing) == 0 {
		pic.Tilt = &t
	}
	if stack, missing := s.stack(); len(missing) == 0 {
		pic.StackMM = &stack
	}
	if clear, missing := s.clear(s.bay, s.Case); len(missing) == 0 {
		pic.ClearMM = &clear
		if pic.StackMM != nil {
			pic.SpareMM, pic.TooHigh = new(unit.Less(clear, *pic.StackMM)), unit.Over(*pic.StackMM, clear)
		}
	}
	if !s.Fit.OwnHoles() {
		pic.Held = s.held.Words()
		return pic
	}
	holes, ok := s.holds()
	if !ok {
		return pic
	}
	pic.Holds, pic.DepthMM = holes.String(), holes.DepthMM
	if plan, missing := s.screwPlan(holes); len(missing) == 0 {
		pic.Screw = &plan
	}
	if screw, ok := c.Screw(); ok {
		pic.Chosen = screw.LengthMM
	} else if pic.Screw != nil {
		if screw, ok := gear.Find[*gear.Screw](c.Library, pic.Screw.Use); ok {
			pic.Chosen = screw.LengthMM
		}
	}
	if plan, chosen := pic.Screw, pic.Chosen; plan != nil && chosen != nil {
		pic.WrongScrew = unit.Over(*chosen, plan.MostMM) || unit.Over(plan.LeastMM, *chosen)
	}
	return pic
}
