package web

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/work/day"
)

// DayView is a day at the bench with two quads, and the quads there are to pick from.
type DayView struct {
	Plan  *day.Schedule `json:"plan,omitempty" doc:"absent: two are still to be picked"`
	Quads []Named       `json:"quads" doc:"those with a swap planned"`
}

func (s *server) registerDay(api huma.API) {
	huma.Get(api, "/api/bench-day", s.day)
}

// day lays what is left of the sheets of two quads over each other.
func (s *server) day(_ context.Context, in *struct {
	One   string `query:"one" doc:"id of a quad"`
	Other string `query:"other" doc:"id of another"`
	Hands int    `query:"hands" minimum:"1" maximum:"2" default:"1" doc:"how many people work"`
}) (*answer[DayView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	view := DayView{Quads: []Named{}}
	for i := range snap.Fleet.Quads {
		if q := &snap.Fleet.Quads[i]; q.Next != nil {
			view.Quads = append(view.Quads, Named{ID: q.ID, Name: q.Label(), Note: q.Use})
		}
	}
	if in.One == "" || in.Other == "" {
		return reply(view), nil
	}
	if in.One == in.Other {
		return nil, huma.Error422UnprocessableEntity("a day is laid out for two quads, not twice for one: pick two")
	}
	for _, id := range []string{in.One, in.Other} {
		if q, ok := snap.Fleet.Quad(id); ok && q.Next == nil {
			return nil, nothingPlanned(q)
		}
	}
	one, err := s.timed(in.One)
	if err != nil {
		return nil, problem(err)
	}
	other, err := s.timed(in.Other)
	if err != nil {
		return nil, problem(err)
	}
	plan := day.Of(one.Left(), other.Left(), in.Hands)
	view.Plan = &plan
	return reply(view), nil
}
