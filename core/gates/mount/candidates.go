package mount

import (
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// Candidates lists the plates and screws that would do, and the other bays.
func Candidates(c fleet.Case) (list []verdict.Candidate) {
	s := newSeat(c)
	change := func(costs string, change func(*fleet.Mounting)) {
		m := c.Fit.Mounting
		change(&m)
		list = append(list, verdict.Candidate{Costs: costs, Effort: verdict.Part, Patch: fleet.Patch{Mounting: &m}})
	}
	if s.firstBays(change); len(s.missing) > 0 {
		return list
	}
	for _, p := range s.plates() {
		costs := ""
		if p.Printed && c.Fleet.SpareCount(p.ID, c.Quad.ID) == 0 {
			if across, ok := outline(p); ok {
				costs = "about " + across
			}
		}
		change(costs, func(m *fleet.Mounting) { m.Plate, m.Screw = p.ID, "" })
	}
	_, holds := s.holds()
	for _, cand := range s.screwChoices() {
		change("", func(m *fleet.Mounting) { m.Screw, m.Washer = cand.screw, cand.washer })
	}
	if d, missing := s.drilling(); len(missing) == 0 && d.does() && !holds {
		change("four holes in the frame", func(m *fleet.Mounting) { m.Drill, m.Plate, m.Screw = true, "", "" })
	}
	if most, less := s.lessTilt(); less {
		change("less tilt", func(m *fleet.Mounting) { m.TiltDeg = &most })
	}
	for _, camera := range s.cameras() {
		change("", func(m *fleet.Mounting) { m.Camera = camera })
	}
	for _, hold := range slices.Concat(s.brackets(), s.secondHolds()) {
		list = append(list, verdict.Candidate{Effort: verdict.Part, Patch: fleet.Patch{Hold: &hold}})
	}
	for _, place := range s.Fit.Places {
		if onto := s.snap(place.Part, place); onto != nil && *onto != place {
			list = append(list, verdict.Candidate{Effort: verdict.Other, Patch: fleet.Patch{Place: &fleet.Placing{Spot: *onto}}})
		}
	}
	for _, id := range s.wronglyOff() {
		list = append(list, verdict.Candidate{Effort: verdict.Other,
			Patch: fleet.Patch{LeaveOff: &fleet.LeaveOff{Plate: id, On: true}}})
	}
	for _, other := range s.otherAntennas() {
		list = append(list, verdict.Candidate{Effort: verdict.Part, Patch: fleet.Patch{Antennas: &other}})
	}
	s.otherBays(change)
	return list
}

// firstBays puts a unit into each bay, where it is in none.
func (s *seat) firstBays(change func(costs string, change func(*fleet.Mounting))) {
	if !s.hasUnit || s.frame == nil || s.bay != nil {
		return
	}
	for i := range s.frame.Bays {
		change("", func(m *fleet.Mounting) { m.Bay = s.frame.Bays[i].ID })
	}
}

// otherBays puts the unit into each other bay, or lifts its own with longer standoffs, or with those
// it has left as they are.
func (s *seat) otherBays(change func(costs string, change func(*fleet.Mounting))) {
	if s.Fit.StandoffCutMM != nil {
		change("", func(m *fleet.Mounting) { m.StandoffCutMM = nil })
	}
	for i := range s.frame.Bays {
		bay := &s.frame.Bays[i]
		on, _ := s.standoff(bay)
		switch {
		case on != nil:
			change("", func(m *fleet.Mounting) {
				m.StandoffCutMM = nil
				if m.Standoff = on.ID; bay.ID != m.Bay {
					m.Bay, m.Plate, m.Screw, m.Drill = bay.ID, "", "", false
				}
			})
		case bay.ID != s.Fit.Bay:
			change("", func(m *fleet.Mounting) { m.Bay, m.Plate, m.Screw, m.Drill = bay.ID, "", "", false })
		}
	}
}

// lessTilt is how far the camera can look up, or down, where more is wanted.
func (s *seat) lessTilt() (most unit.Degrees, less bool) {
	t, missing := s.tiltIfAny()
	if len(missing) > 0 || t.Wanted == nil || t.UpDeg < 0 ||
		!unit.Over(*t.Wanted, t.UpDeg) && !unit.Over(-*t.Wanted, t.DownDeg) {
		return 0, false
	}
	if *t.Wanted < 0 {
		return -unit.Degrees(math.Floor(float64(t.DownDeg))), true
	}
	return unit.Degrees(math.Floor(float64(t.UpDeg))), true
}

// cameras are those the unit could look through beside the one it does; empty is its own.
func (s *seat) cameras() (list []string) {
	for _, other := range gear.All[*gear.CameraModel](s.Library) {
		if slices.Contains(other.Units, s.airUnit.ID) && other.ID != s.Fit.Camera {
			list = append(list, other.ID)
		}
	}
	if s.Fit.Camera != "" {
		list = append(list, "")
	}
	return list
}

// screwChoice is a screw that would do, as it is or over a washer.
type screwChoice struct{ screw, washer string }

// screwChoices lists the screws that would do, and those in the box that would
// over a washer.
func (s *seat) screwChoices() (list []screwChoice) {
	holes, ok := s.holds()
	if !ok {
		return nil
	}
	plan, missing := s.screwPlan(holes)
	if len(missing) > 0 {
		return nil
	}
	have := func(id string) bool { return s.Fleet.SpareCount(id, s.Quad.ID) >= fleet.UnitScrews }
	for _, screw := range gear.All[*gear.Screw](s.Library) {
		if plan.does(screw) {
			if screw.ID != s.Fit.Screw {
				list = append(list, screwChoice{screw.ID, s.Fit.Washer})
			}
			continue
		}
		for _, w := range gear.All[*gear.Washer](s.Library) {
			if s.washer != nil || w.Size != plan.Size || w.ThickMM == nil || !have(screw.ID) {
				continue
			}
			over := plan
			over.LeastMM, over.MostMM = plan.LeastMM+*w.ThickMM, plan.MostMM+*w.ThickMM
			if over.does(screw) {
				list = append(list, screwChoice{screw.ID, w.ID})
			}
		}
	}
	return list
}

// outline is how large a plate that joins two patterns is: the larger of them and
// what a hole wants around it; false where its screws or thickness are not stated.
func outline(p *gear.Plate) (string, bool) {
	size := max(sizes[p.From.Screw], sizes[p.To.Screw])
	if p.ThickMM == nil || size == 0 {
		return "", false
	}
	around := 2 * edgeDiameters * size
	return fmt.Sprintf("%.0f×%.0f×%s", float64(max(p.From.XMM, p.To.XMM)+around),
		float64(max(p.From.YMM, p.To.YMM)+around), p.ThickMM), true
}

func (s *seat) tiltIfAny() (Tilt, []verdict.Missing) {
	if s.camera.Camera == nil {
		return Tilt{}, []verdict.Missing{s.unitValue("camera", "camera")}
	}
	return s.tilt()
}
