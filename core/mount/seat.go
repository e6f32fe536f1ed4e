// Package mount is the gate that asks whether the air unit really goes into the
// frame: holes, screws, height, camera, and what can be reached once it is closed.
package mount

import (
	"slices"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/unit"
	"yokeswap/core/verdict"
)

// seat is an air unit in a bay of a frame.
type seat struct {
	fleet.Case
	airUnit *gear.AirUnit
	frame   *gear.Frame
	bay     *gear.Bay
	plate   *gear.Plate
	hasUnit bool
	missing []verdict.Missing
}

func newSeat(c fleet.Case) *seat {
	s := &seat{Case: c}
	s.airUnit, _, s.hasUnit = c.AirUnit()
	s.plate, _ = gear.Find[*gear.Plate](c.Library, c.Fit.Plate)
	if !s.hasUnit {
		s.missing = append(s.missing, s.fitValue("airUnit", "digital air unit of "+c.Quad.Label()))
		return s
	}
	if m := s.airUnit.Mount; m == nil || len(m.Patterns) == 0 {
		s.missing = append(s.missing, s.unitValue("mount.patterns", "hole patterns"))
	}
	s.frame, _ = gear.Find[*gear.Frame](c.Library, c.Fit.Frame)
	if s.frame == nil {
		s.missing = append(s.missing, s.fitValue("frame", "frame of "+c.Quad.Label()))
		return s
	}
	s.bay, _ = s.frame.Bay(c.Fit.Bay)
	switch {
	case s.bay == nil:
		s.missing = append(s.missing, s.fitValue("bay", "where in "+s.frame.Label()+" the unit goes"))
	case len(s.bay.Patterns) == 0:
		s.missing = append(s.missing, s.frameValue("bays."+s.bay.ID+".patterns", "hole patterns of its "+s.bay.Label()))
	}
	return s
}

func (s *seat) fitValue(field, label string) verdict.Missing {
	return verdict.Missing{Of: "quad", ID: s.Quad.ID, Field: s.FitName + "." + field, Label: label}
}

func (s *seat) unitValue(field, words string) verdict.Missing {
	return verdict.GearValue(&s.airUnit.Entry, field, words)
}

func (s *seat) frameValue(field, words string) verdict.Missing {
	return verdict.GearValue(&s.frame.Entry, field, words)
}

// meets finds a pattern of the unit that lies over one of a list.
func (s *seat) meets(list []gear.Holes) (gear.Holes, bool) {
	for _, own := range s.airUnit.Mount.Patterns {
		if slices.ContainsFunc(list, own.Same) {
			return own, true
		}
	}
	return gear.Holes{}, false
}

// holds finds the unit's holes that take the screws: straight on the bay, or on
// the plate between; false where neither fits.
func (s *seat) holds() (gear.Holes, bool) {
	if s.plate == nil {
		return s.meets(s.bay.Patterns)
	}
	if !slices.ContainsFunc(s.bay.Patterns, s.plate.From.Same) {
		return gear.Holes{}, false
	}
	return s.meets([]gear.Holes{s.plate.To})
}

// plates lists the plates that would join the unit and the bay.
func (s *seat) plates() (list []*gear.Plate) {
	for _, p := range gear.All[*gear.Plate](s.Library) {
		if _, ok := s.meets([]gear.Holes{p.To}); ok && slices.ContainsFunc(s.bay.Patterns, p.From.Same) {
			list = append(list, p)
		}
	}
	return list
}

// Clamp is one layer a screw goes through.
type Clamp struct {
	What string           `json:"what"`
	MM   unit.Millimetres `json:"mm"`
}

// ScrewPlan is the screw a unit wants.
type ScrewPlan struct {
	Size    string           `json:"size"`
	Clamped []Clamp          `json:"clamped"` // in the order the screw meets them
	LeastMM unit.Millimetres `json:"leastMM"` // everything clamped and enough thread
	MostMM  unit.Millimetres `json:"mostMM"`  // as deep as the thread goes
	// Use is the screw to take; owned first, then the shortest that does.
	Use   string `json:"use,omitempty"`
	Label string `json:"label,omitempty"`
	Owned bool   `json:"owned"`
}

// threads is how many diameters of thread should hold (common practice: one
// diameter in metal).
const threads = 1.0

// sizes are the diameters of the screws (ISO metric).
var sizes = map[string]unit.Millimetres{"M1.6": 1.6, "M2": 2, "M2.5": 2.5, "M3": 3}

// screwPlan adds up what is clamped and picks a screw; missing lists what keeps
// it from being added up. With a plate the screws into the unit go through the
// plate alone.
func (s *seat) screwPlan(holes gear.Holes) (plan ScrewPlan, missing []verdict.Missing) {
	plan = ScrewPlan{Size: holes.Screw, Clamped: []Clamp{}}
	through, field := s.bay.PlateMM, "bays."+s.bay.ID+".plateMM"
	switch {
	case s.plate != nil && s.plate.ThickMM == nil:
		missing = append(missing, verdict.GearValue(&s.plate.Entry, "thickMM", "thickness"))
	case s.plate != nil:
		plan.Clamped = append(plan.Clamped, Clamp{s.plate.Label(), *s.plate.ThickMM})
	case through == nil:
		missing = append(missing, s.frameValue(field, "thickness of its "+s.bay.Label()))
	default:
		plan.Clamped = append(plan.Clamped, Clamp{s.bay.Label(), *through})
	}
	if s.Fit.SoftMM != nil {
		plan.Clamped = append(plan.Clamped, Clamp{"soft mount", *s.Fit.SoftMM})
	}
	if holes.Screw == "" {
		missing = append(missing, s.unitValue("mount.patterns", "size of the screws"))
	}
	if holes.DepthMM == nil {
		missing = append(missing, s.unitValue("mount.patterns", "depth of the threads"))
	}
	if len(missing) > 0 {
		return plan, missing
	}
	var clamped unit.Millimetres
	for _, c := range plan.Clamped {
		clamped += c.MM
	}
	plan.LeastMM = clamped + unit.Millimetres(threads)*sizes[holes.Screw]
	plan.MostMM = clamped + *holes.DepthMM
	plan.pick(s)
	return plan, nil
}

// pick takes the shortest owned screw that does, else the shortest there is.
func (p *ScrewPlan) pick(s *seat) {
	var best *gear.Screw
	owned := false
	for _, screw := range gear.All[*gear.Screw](s.Library) {
		if !p.does(screw) {
			continue
		}
		have := s.Fleet.SpareCount(screw.ID, s.Quad.ID) > 0
		if best == nil || have && !owned || have == owned && *screw.LengthMM < *best.LengthMM {
			best, owned = screw, have
		}
	}
	if best != nil {
		p.Use, p.Label, p.Owned = best.ID, best.Label(), owned
	}
}

func (p *ScrewPlan) does(s *gear.Screw) bool {
	return s.Size == p.Size && s.LengthMM != nil && *s.LengthMM >= p.LeastMM && *s.LengthMM <= p.MostMM
}
