// Package mount is the gate that asks whether the air unit really goes into the
// frame: holes, screws, height, camera, and what can be reached once it is closed.
package mount

import (
	"slices"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/verdict"
)

// seat is an air unit in a bay of a frame.
type seat struct {
	fleet.Case
	airUnit *gear.AirUnit
	frame   *gear.Frame
	bay     *gear.Bay
	plate   *gear.Plate
	washer  *gear.Washer
	hasUnit bool
	missing []verdict.Missing
}

func newSeat(c fleet.Case) *seat {
	s := &seat{Case: c}
	s.airUnit, _, s.hasUnit = c.AirUnit()
	s.plate, _ = gear.Find[*gear.Plate](c.Library, c.Fit.Plate)
	s.washer, _ = gear.Find[*gear.Washer](c.Library, c.Fit.Washer)
	if !s.hasUnit {
		s.missing = append(s.missing, verdict.FitValue(s.Case, "airUnit", "digital air unit of "+c.Quad.Label()))
		return s
	}
	if m := s.airUnit.Mount; m == nil || len(m.Patterns) == 0 {
		s.missing = append(s.missing, s.unitValue("mount.patterns", "hole patterns"))
	}
	s.frame, _ = gear.Find[*gear.Frame](c.Library, c.Fit.Frame)
	if s.frame == nil {
		s.missing = append(s.missing, verdict.FitValue(s.Case, "frame", "frame of "+c.Quad.Label()))
		return s
	}
	s.bay, _ = s.frame.Bay(c.Fit.Bay)
	switch {
	case s.bay == nil:
		s.missing = append(s.missing, verdict.FitValue(s.Case, "bay", "where in "+s.frame.Label()+" the unit goes"))
	case len(s.bay.Patterns) == 0:
		s.missing = append(s.missing, s.frameValue("bays."+s.bay.ID+".patterns", "hole patterns of its "+s.bay.Label()))
	}
	return s
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

// holds finds the unit's holes that take the screws: straight on the bay, on
// the plate between, or in new holes; false where none fits.
func (s *seat) holds() (gear.Holes, bool) {
	if s.plate == nil {
		if holes, ok := s.meets(s.bay.Patterns); ok || !s.Fit.Drill {
			return holes, ok
		}
		d, missing := s.drilling()
		return d.holes, len(missing) == 0
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
