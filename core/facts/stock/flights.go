package stock

import (
	"errors"
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
)

// Begin makes a test flight of a quad along a course on a day, with what the quad carries
// now, and puts it in. The day is yyyy-mm-dd; the moment tells the flight from every other,
// also from one that was taken out. A second one of a day is called so.
func (s *Stock) Begin(quad, course, day, moment string) (fleet.TestFlight, error) {
	q, ok := s.Fleet.Quad(quad)
	if !ok {
		return fleet.TestFlight{}, fmt.Errorf("there is no quad %q", quad)
	}
	if _, ok := s.Fleet.Course(course); !ok {
		return fleet.TestFlight{}, fmt.Errorf("there is no course %q", course)
	}
	t := fleet.TestFlight{ID: s.freeFlight(quad + "-" + day + "-" + moment), Quad: quad, Course: course, On: day,
		Carried: s.Fleet.Carries(q)}
	before := 0
	for i := range s.Fleet.TestFlights {
		if o := &s.Fleet.TestFlights[i]; o.Course == course && o.On == day {
			before++
		}
	}
	if before > 0 {
		t.Name = fmt.Sprintf("%s, flight %d", day, before+1)
	}
	f := *s.Fleet
	f.TestFlights = append(slices.Clone(f.TestFlights), t)
	s.Fleet = &f
	return t, nil
}

// freeFlight is an id that no test flight has.
func (s *Stock) freeFlight(base string) string {
	id := base
	for n := 2; ; n++ {
		if _, taken := s.Fleet.TestFlight(id); !taken {
			return id
		}
		id = fmt.Sprintf("%s-%d", base, n)
	}
}

// ErrNoFlight: there is no such test flight.
var ErrNoFlight = errors.New("there is no such test flight")

// Read notes what was read at a pass of a spot, in the place of what was noted of it. A pass
// of which nothing is said is taken out.
func (s *Stock) Read(flight, spot string, pass fleet.PassRead) error {
	f := *s.Fleet
	f.TestFlights = slices.Clone(f.TestFlights)
	at := slices.IndexFunc(f.TestFlights, func(t fleet.TestFlight) bool { return t.ID == flight })
	if at < 0 {
		return ErrNoFlight
	}
	t := f.TestFlights[at]
	t.Reads = slices.Clone(t.Reads)
	here := slices.IndexFunc(t.Reads, func(r fleet.SpotReads) bool { return r.Spot == spot })
	if here < 0 {
		here = len(t.Reads)
		t.Reads = append(t.Reads, fleet.SpotReads{Spot: spot})
	}
	passes := slices.DeleteFunc(slices.Clone(t.Reads[here].Passes), func(p fleet.PassRead) bool {
		return p.Pass == pass.Pass
	})
	if pass.Lowest != nil || pass.Freezes != nil || pass.Picture != "" {
		passes = append(passes, pass)
	}
	slices.SortFunc(passes, func(a, b fleet.PassRead) int { return a.Pass - b.Pass })
	t.Reads[here].Passes = passes
	if len(passes) == 0 {
		t.Reads = slices.Delete(t.Reads, here, here+1)
	}
	t.LeftOut = slices.DeleteFunc(slices.Clone(t.LeftOut), func(id string) bool { return id == spot && len(passes) > 0 })
	f.TestFlights[at] = t
	s.Fleet = &f
	return nil
}
