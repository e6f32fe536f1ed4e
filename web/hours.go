package web

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/work/hours"
)

// HoursView is what air units have flown, and the quads an outing can be noted of.
type HoursView struct {
	Units []hours.UnitHours `json:"units"`
	Quads []Named           `json:"quads"`
}

func (s *server) registerHours(api huma.API) {
	huma.Get(api, "/api/hours", func(context.Context, *struct{}) (*answer[HoursView], error) { return s.hours() })
	huma.Post(api, "/api/quads/{quad}/outings", s.fly)
	huma.Post(api, "/api/quads/{quad}/outings/{at}/looked", s.lookOver)
}

func (s *server) hours() (*answer[HoursView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	view := HoursView{Units: hours.Units(snap.Library, snap.Index), Quads: []Named{}}
	for i := range snap.Fleet.Quads {
		q := &snap.Fleet.Quads[i]
		view.Quads = append(view.Quads, Named{ID: q.ID, Name: q.Label(), Note: unitOn(snap.Index, q)})
	}
	return reply(view), nil
}

// unitOn is the piece of kit on a quad as it flies, in words; empty: there is none, or nobody has said which.
func unitOn(f *fleet.Index, q *fleet.Quad) string {
	if q.Now.AirUnit == nil {
		return ""
	}
	if kit, ok := f.Piece(q.Now.AirUnit.Kit); ok {
		return kit.Label()
	}
	return ""
}

// fly notes an outing, with the unit that was on the quad on that day.
func (s *server) fly(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		On      string   `json:"on" maxLength:"10" doc:"yyyy-mm-dd; empty: today"`
		Minutes *float64 `json:"minutes,omitempty" doc:"in the air; absent: nobody has counted them"`
		Crash   bool     `json:"crash"`
		Says    string   `json:"says" maxLength:"400"`
	}
}) (*answer[HoursView], error) {
	today := time.Now().Format(time.DateOnly)
	o := fleet.Outing{On: in.Body.On, Minutes: in.Body.Minutes, Crash: in.Body.Crash,
		Says: strings.TrimSpace(in.Body.Says)}
	if o.On == "" {
		o.On = today
	}
	if _, err := time.Parse(time.DateOnly, o.On); err != nil || o.On > today {
		return nil, huma.Error422UnprocessableEntity(fmt.Sprintf(
			"Nothing was noted: expected a day up to today as yyyy-mm-dd, got %q.", o.On))
	}
	if o.Minutes != nil && (*o.Minutes <= 0 || *o.Minutes > mostMinutes) {
		return nil, huma.Error422UnprocessableEntity(fmt.Sprintf(
			"Nothing was noted: expected minutes above 0, %d at most, got %g.", mostMinutes, *o.Minutes))
	}
	unit, err := s.unitThen(in.Quad, o.On, today)
	if err != nil {
		return nil, err
	}
	o.AirUnit = unit
	does := "noted a flight"
	if o.Crash {
		does = "noted a crash"
	}
	if _, err := s.change(ctx, does, func(st *stock.Stock) error { return st.Fly(in.Quad, o) }); err != nil {
		return nil, problem(err)
	}
	return s.hours()
}

const mostMinutes = 1440

// unitThen is the piece of kit that was on a quad on a day: today as it flies, on an earlier one as it was at
// its end.
func (s *server) unitThen(quad, day, today string) (string, error) {
	_, q, err := s.quadOf(quad)
	if err != nil {
		return "", err
	}
	was := q
	if day < today {
		at, err := endOf(day)
		if err != nil {
			return "", err
		}
		then, err := s.store.AsOf(at)
		if err != nil {
			return "", problem(err)
		}
		if was, _ = then.Fleet.Quad(quad); was == nil {
			return "", nil // nobody had written it down yet
		}
	}
	if was.Now.AirUnit == nil {
		return "", nil
	}
	return was.Now.AirUnit.Kit, nil
}

// lookOver says that a quad was looked over after a crash.
func (s *server) lookOver(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	At   int    `path:"at"`
}) (*answer[HoursView], error) {
	if _, err := s.change(ctx, "looked over after a crash", func(st *stock.Stock) error {
		if err := st.LookOver(in.Quad, in.At); err != nil {
			return notFound("crash of "+in.Quad, fmt.Sprint(in.At))
		}
		return nil
	}); err != nil {
		return nil, problem(err)
	}
	return s.hours()
}
