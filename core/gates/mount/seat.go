// Package mount is the gate that asks whether the air unit really goes into the
// frame: holes, screws, height, camera, and what can be reached once it is closed.
package mount

import (
	"reflect"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// seat is an air unit in a bay of a frame.
type seat struct {
	fleet.Case
	airUnit *gear.AirUnit
	mount   *gear.UnitMount // of the unit; empty where its sheet states nothing
	held    *fleet.Hold     // how the unit is held; nil: by screws in its holes
	camera  fleet.CameraOn
	frame   *gear.Frame
	bay     *gear.Bay
	plate   *gear.Plate
	washer  *gear.Washer
	hasUnit bool
	missing []verdict.Missing
}

func newSeat(c fleet.Case) *seat {
	s := &seat{Case: c, mount: &gear.UnitMount{}}
	s.airUnit, _, s.hasUnit = c.AirUnit()
	s.camera = c.Camera()
	s.plate, _ = c.Plate()
	s.washer, _ = c.Washer()
	s.frame, _ = c.Frame()
	if !s.hasUnit {
		s.missing = append(s.missing, verdict.FitValue(s.Case, "airUnit", "digital air unit of "+c.Quad.Label()))
		return s
	}
	if s.mount = s.airUnit.Mount; s.mount == nil {
		s.mount = &gear.UnitMount{}
	}
	s.held, _ = c.HoldingOf(fleet.NodeAirUnit)
	if len(s.mount.Patterns) == 0 && c.Fit.OwnHoles() {
		s.missing = append(s.missing, s.unitValue("mount.patterns", "hole patterns"))
	}
	if s.frame == nil {
		s.missing = append(s.missing, verdict.FitValue(s.Case, "frame", "frame of "+c.Quad.Label()))
		return s
	}
	s.bay, _ = s.frame.Bay(c.Fit.Bay)
	switch {
	case s.bay == nil:
		s.missing = append(s.missing, verdict.FitValue(s.Case, "bay", "where in "+s.frame.Label()+" the unit goes"))
	case len(s.bay.Patterns) == 0 && c.Fit.OwnHoles():
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

// common lists the patterns of the unit that lie over one of a list.
func (s *seat) common(list []gear.Holes) (common []gear.Holes) {
	for _, own := range s.mount.Patterns {
		if slices.ContainsFunc(list, own.Same) {
			common = append(common, own)
		}
	}
	return common
}

// meets finds the pattern of the unit that lies over one of a list, and of several the
// one with the best screw: the one chosen, one in the box, one there is.
func (s *seat) meets(list []gear.Holes) (best gear.Holes, ok bool) {
	least := -1
	for _, holes := range s.common(list) {
		if effort := s.screwEffort(holes); least < 0 || effort < least {
			best, least = holes, effort
		}
	}
	return best, least >= 0
}

// screwEffort orders patterns by what their screws take.
func (s *seat) screwEffort(holes gear.Holes) int {
	plan, missing := s.screwPlan(holes)
	chosen, picked := s.Screw()
	switch {
	case len(missing) > 0:
		return 3
	case picked && plan.does(chosen):
		return 0
	case !picked && plan.Owned:
		return 1
	case plan.Use != "":
		return 2
	}
	return 4
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

// stays says whether the unit sits today as it is planned to: it is not judged on
// screws it already has.
func (s *seat) stays() bool {
	if s.FitName == fleet.FitNow {
		return true
	}
	now := s.Quad.Now
	return now.AirUnit != nil && s.Fit.AirUnit != nil && now.AirUnit.Kit == s.Fit.AirUnit.Kit &&
		now.AirUnit.Model == s.Fit.AirUnit.Model &&
		reflect.DeepEqual(now.Mounting, s.Fit.Mounting)
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
