package web

import (
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/measure/unit"
	"yokeswap/core/work/prove"
	"yokeswap/store"
)

// FlightsView are the courses with the flights along them, and the quads that can fly them.
type FlightsView struct {
	Courses   []CourseView     `json:"courses"`
	Quads     []NamedQuad      `json:"quads"`
	Standings []prove.Standing `json:"standings" doc:"whether each quad with a digital unit is proven as it flies today"`
}

// NamedQuad is a quad by its name, and what it carries.
type NamedQuad struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Carries string `json:"carries,omitempty"` // its air unit; absent: none
}

// CourseView is a course with the flights along it, the newest first.
type CourseView struct {
	ID      string       `json:"id"`
	Name    string       `json:"name"`
	Spots   int          `json:"spots"`
	Flights []FlightLine `json:"flights"`
}

// FlightLine is a test flight in a list.
type FlightLine struct {
	ID      string `json:"id"`
	Label   string `json:"label"`
	On      string `json:"on,omitempty"`
	Quad    string `json:"quad"`
	Unit    string `json:"unit,omitempty"`
	Goggles string `json:"goggles,omitempty"`
	Read    int    `json:"read" doc:"spots of which something was read"`
}

// FlightView is a test flight with its course.
type FlightView struct {
	Flight   fleet.TestFlight `json:"flight"`
	Label    string           `json:"label"`
	Quad     string           `json:"quad"`
	Course   fleet.Course     `json:"course"`
	Revision int64            `json:"revision"`
	Cautions []string         `json:"cautions"`
}

func (s *server) registerFlights(api huma.API) {
	huma.Get(api, "/api/flights", s.flights)
	huma.Post(api, "/api/flights", s.beginFlight)
	huma.Get(api, "/api/flights/{flight}", func(_ context.Context, in *struct {
		Flight string `path:"flight"`
	}) (*answer[FlightView], error) {
		return s.flight(in.Flight)
	})
	huma.Post(api, "/api/flights/{flight}/read", s.readSpot)
	huma.Get(api, "/api/proof", s.proof)
}

func (s *server) flights(context.Context, *struct{}) (*answer[FlightsView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	out := FlightsView{Courses: []CourseView{}, Quads: []NamedQuad{}, Standings: prove.Standings(snap.Library, snap.Fleet)}
	label := func(model string) string {
		if model == "" {
			return ""
		}
		return snap.Library.Label(model)
	}
	names := map[string]string{}
	for i := range snap.Fleet.Quads {
		q := &snap.Fleet.Quads[i]
		names[q.ID] = q.Label()
		out.Quads = append(out.Quads, NamedQuad{q.ID, q.Label(), label(snap.Fleet.Carries(q).AirUnit)})
	}
	for i := range snap.Fleet.Courses {
		c := &snap.Fleet.Courses[i]
		view := CourseView{ID: c.ID, Name: c.Label(), Spots: len(c.Spots), Flights: []FlightLine{}}
		for k := range snap.Fleet.TestFlights {
			if t := &snap.Fleet.TestFlights[k]; t.Course == c.ID {
				view.Flights = append(view.Flights, FlightLine{ID: t.ID, Label: t.Label(), On: t.On, Quad: names[t.Quad],
					Unit: label(t.Carried.AirUnit), Goggles: label(t.Carried.Goggles), Read: len(t.Reads)})
			}
		}
		slices.Reverse(view.Flights)
		slices.SortStableFunc(view.Flights, func(a, b FlightLine) int { return strings.Compare(b.On, a.On) })
		out.Courses = append(out.Courses, view)
	}
	return reply(out), nil
}

func (s *server) flight(id string) (*answer[FlightView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	t, ok := snap.Fleet.TestFlight(id)
	if !ok {
		return nil, notFound("test flight", id)
	}
	view := FlightView{Flight: *t, Label: t.Label(), Quad: t.Quad, Cautions: prove.Cautions(t),
		Revision: snap.RevisionOf(stock.Ref{Kind: stock.KindTestFlight, ID: id})}
	if q, ok := snap.Fleet.Quad(t.Quad); ok {
		view.Quad = q.Label()
	}
	if c, ok := snap.Fleet.Course(t.Course); ok {
		view.Course = *c
	}
	return reply(view), nil
}

// beginFlight makes a test flight with what the quad carries now.
func (s *server) beginFlight(ctx context.Context, in *struct {
	Body struct {
		Quad   string `json:"quad"`
		Course string `json:"course"`
	}
}) (*answer[FlightView], error) {
	id := ""
	_, err := s.change(ctx, "began a test flight", func(st *stock.Stock) error {
		now := time.Now()
		t, err := st.Begin(in.Body.Quad, in.Body.Course, now.Format(time.DateOnly), now.Format("150405"))
		if err != nil {
			return huma.Error404NotFound(err.Error())
		}
		id = t.ID
		return takeAgain(st, stock.Ref{Kind: stock.KindTestFlight, ID: id})
	})
	if err != nil {
		return nil, problem(err)
	}
	return s.flight(id)
}

// readSpot notes what was read at a pass of a spot.
func (s *server) readSpot(ctx context.Context, in *struct {
	Flight string `path:"flight"`
	Body   struct {
		Revision int64                   `json:"revision" doc:"of the flight, as read"`
		Spot     string                  `json:"spot"`
		Pass     int                     `json:"pass" minimum:"1" maximum:"100"`
		Lowest   *unit.MegabitsPerSecond `json:"lowestMbps,omitempty"`
		Freezes  *int                    `json:"freezes,omitempty"`
		Picture  string                  `json:"picture,omitempty"`
	}
}) (*answer[FlightView], error) {
	b := &in.Body
	ref := stock.Ref{Kind: stock.KindTestFlight, ID: in.Flight}
	_, err := s.change(ctx, "read a spot", func(st *stock.Stock) error {
		pass := fleet.PassRead{Pass: b.Pass, Lowest: b.Lowest, Freezes: b.Freezes, Picture: b.Picture}
		if err := st.Read(in.Flight, b.Spot, pass); err != nil {
			return err
		}
		return takeAgain(st, ref)
	}, store.Expect{Ref: ref, Revision: b.Revision})
	switch {
	case errors.Is(err, stock.ErrNoFlight):
		return nil, notFound("test flight", in.Flight)
	case err != nil:
		return nil, problem(err)
	}
	return s.flight(in.Flight)
}

// proof holds flights against each other.
func (s *server) proof(_ context.Context, in *struct {
	Before string `query:"before" doc:"ids of test flights, separated by commas"`
	After  string `query:"after" doc:"of the same course"`
}) (*answer[prove.Proof], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	ids := func(list string) []string { return strings.FieldsFunc(list, func(r rune) bool { return r == ',' }) }
	course, before, after, err := prove.Sides(snap.Fleet, ids(in.Before), ids(in.After))
	var none *prove.NoFlight
	switch {
	case errors.As(err, &none):
		return nil, notFound("test flight", none.ID)
	case err != nil:
		return nil, huma.Error422UnprocessableEntity(err.Error() + ".")
	}
	return reply(prove.Compare(snap.Library, snap.Fleet, course, before, after)), nil
}
