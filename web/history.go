package web

import (
	"context"
	"errors"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/stock"
	"yokeswap/format"
	"yokeswap/store"
)

type whoKey struct{}

// deed says what a request does, and who sent it.
func deed(ctx context.Context, does string) store.Deed {
	who, _ := ctx.Value(whoKey{}).(string)
	if who == "" {
		who = "this machine"
	}
	return store.Deed{Does: does, Who: who}
}

// change carries out what a request asks for, and gives the change to take it back by.
func (s *server) change(
	ctx context.Context, does string, change func(*stock.Stock) error, expect ...store.Expect,
) (revision int64, err error) {
	d := deed(ctx, does)
	d.Revision = &revision
	return revision, s.store.Update(d, change, expect...)
}

// History is a page of what has happened, the newest first.
type History struct {
	Events []store.Event `json:"events"`
	Before int64         `json:"before,omitempty" doc:"ask for the page before this one; absent: there is none"`
}

func (s *server) registerHistory(api huma.API) {
	huma.Get(api, "/api/events", s.events)
	huma.Get(api, "/api/changes", s.changes)
	huma.Post(api, "/api/undo", s.undo)
	huma.Get(api, "/api/quads/{quad}/log", s.logOf)
	huma.Post(api, "/api/quads/{quad}/log", s.writeLog)
}

func (s *server) events(_ context.Context, in *struct {
	Quad   string `query:"quad" doc:"of this quad alone"`
	Before int64  `query:"before"`
	Count  int    `query:"count" minimum:"0" maximum:"500"`
}) (*answer[History], error) {
	count := in.Count
	if count == 0 {
		count = store.DefaultPage
	}
	list, err := s.store.Events(in.Quad, in.Before, count)
	if err != nil {
		return nil, problem(err)
	}
	out := History{Events: list}
	if len(list) == count {
		out.Before = list[len(list)-1].ID
	}
	return reply(out), nil
}

// undo takes a change back, whole.
func (s *server) undo(ctx context.Context, in *struct {
	Body struct {
		Change int64 `json:"change" minimum:"1"`
	}
}) (*answer[Saved], error) {
	d, change := deed(ctx, "took back"), int64(0)
	d.Revision = &change
	err := s.store.Undo(in.Body.Change, d, format.CheckWhole)
	var later store.ChangedSince
	switch {
	case errors.Is(err, store.ErrNoChange):
		return nil, huma.Error404NotFound(err.Error())
	case errors.As(err, &later):
		return nil, huma.Error409Conflict(later.Error())
	case err != nil:
		return nil, problem(err)
	}
	return s.saved(stock.Ref{}, change)
}

func (s *server) logOf(_ context.Context, in *struct {
	Quad   string `path:"quad"`
	Before int64  `query:"before" doc:"lines before this one; absent: the newest"`
}) (*answer[[]store.Note], error) {
	if _, err := s.planned(in.Quad); err != nil {
		return nil, err
	}
	return s.notes(in.Quad, in.Before)
}

func (s *server) notes(quad string, before int64) (*answer[[]store.Note], error) {
	s.tellLater()
	notes, err := s.store.LogOf(quad, before, store.DefaultPage)
	if err != nil {
		return nil, problem(err)
	}
	return reply(notes), nil
}

func (s *server) writeLog(_ context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Says string `json:"says" minLength:"1" maxLength:"500"`
	}
}) (*answer[[]store.Note], error) {
	if _, err := s.planned(in.Quad); err != nil {
		return nil, err
	}
	if err := s.store.Log(in.Quad, in.Body.Says, time.Now()); err != nil {
		return nil, problem(err)
	}
	return s.notes(in.Quad, 0)
}
