package web

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/stock"
	"yokeswap/core/work/turns"
)

// TurnsView is what is said of the fits a quad carries in turn.
type TurnsView struct {
	turns.Sheet
	Revision int64 `json:"revision"`
}

// turnDeeds are what can be done about the fits a quad carries in turn.
var turnDeeds = map[string]struct {
	does string
	do   func(st *stock.Stock, quad, turn string) error
}{
	"keep":  {"kept in turn", func(st *stock.Stock, quad, _ string) error { return st.KeepInTurn(quad) }},
	"plan":  {"planned a turn", turns.Plan},
	"drop":  {"dropped the plan", func(st *stock.Stock, quad, _ string) error { return st.DropPlan(quad) }},
	"leave": {"left a fit in turn", (*stock.Stock).LeaveTurn},
}

func (s *server) registerTurns(api huma.API) {
	huma.Get(api, "/api/quads/{quad}/turns", func(_ context.Context, in *struct {
		Quad string `path:"quad"`
	}) (*answer[TurnsView], error) {
		return s.turns(in.Quad)
	})
	huma.Post(api, "/api/quads/{quad}/turns", s.turn)
}

func (s *server) turns(quad string) (*answer[TurnsView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	sheet, ok := turns.Of(&snap.Stock, quad)
	if !ok {
		return nil, notFound("quad", quad)
	}
	return reply(TurnsView{sheet, snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: quad})}), nil
}

// turn keeps, plans, drops or leaves a fit in turn.
func (s *server) turn(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Revision int64  `json:"revision" doc:"of the quad, as read"`
		Do       string `json:"do" enum:"keep,plan,drop,leave"`
		Turn     string `json:"turn,omitempty" doc:"which fit; not needed to keep what is planned, or to drop it"`
	}
}) (*answer[TurnsView], error) {
	deed := turnDeeds[in.Body.Do]
	_, err := s.changeQuad(ctx, in.Quad, in.Body.Revision, deed.does, func(st *stock.Stock) error {
		if err := deed.do(st, in.Quad, in.Body.Turn); err != nil {
			return huma.Error409Conflict(err.Error())
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	return s.turns(in.Quad)
}
