package web

import (
	"context"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/plans/whatif"
)

// WhatIf is what could be tried on the yoke board, and the columns of what is.
type WhatIf struct {
	Devices []whatif.Offered     `json:"devices"`
	Columns []whatif.TriedColumn `json:"columns"`
}

func (s *server) registerWhatIf(api huma.API) {
	huma.Get(api, "/api/whatif", s.whatIf, holds[WhatIf](api))
	huma.Get(api, "/api/route/whatif", s.whatIfOnRoute, holds[RouteWhatIf](api))
}

// whatIf tries devices nobody owns on every quad, beside what is brought.
func (s *server) whatIf(ctx context.Context, in *struct {
	Try  string `query:"try" doc:"models tried, separated by commas"`
	Left string `query:"left" doc:"what is left at home, as of the board"`
}) (*ready[WhatIf], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	models := strings.FieldsFunc(in.Try, func(r rune) bool { return r == ',' })
	return answered(ctx, s.answers, snap, "whatif "+in.Try+" left "+in.Left, func(ctx context.Context) (*WhatIf, error) {
		out := WhatIf{Devices: whatif.Devices(snap.Library, snap.Index), Columns: []whatif.TriedColumn{}}
		if len(models) == 0 {
			return &out, nil
		}
		board, err := s.memory.Board(ctx, snap.Library, snap.Index, strings.Split(in.Left, ","))
		if err != nil {
			return nil, err
		}
		columns, err := whatif.Columns(ctx, snap.Library, snap.Index, board, models)
		switch {
		case ctx.Err() != nil:
			return nil, ctx.Err()
		case err != nil:
			return nil, huma.Error422UnprocessableEntity(err.Error() + "; take it off the address or the board.")
		}
		out.Columns = columns
		return &out, nil
	})
}

// RouteWhatIf is what could be tried on the route, and what is.
type RouteWhatIf struct {
	Devices []whatif.Offered      `json:"devices"`
	Columns []whatif.TriedOnRoute `json:"columns"`
}

// whatIfOnRoute puts what the route cannot meet to devices that could be bought.
func (s *server) whatIfOnRoute(ctx context.Context, in *struct {
	Try string `query:"try" doc:"models tried, separated by commas"`
}) (*ready[RouteWhatIf], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	models := strings.FieldsFunc(in.Try, func(r rune) bool { return r == ',' })
	return answered(ctx, s.answers, snap, "whatif on the route "+in.Try, func(ctx context.Context) (*RouteWhatIf, error) {
		out := RouteWhatIf{Devices: whatif.ForRoute(snap.Library, snap.Index), Columns: []whatif.TriedOnRoute{}}
		if len(models) == 0 {
			return &out, nil
		}
		request := routeRequest(snap)
		request.Context = ctx
		columns, err := whatif.OnRoute(request, models)
		switch {
		case ctx.Err() != nil:
			return nil, ctx.Err()
		case err != nil:
			return nil, huma.Error422UnprocessableEntity(err.Error() + "; take it off the route.")
		}
		out.Columns = columns
		return &out, nil
	})
}
