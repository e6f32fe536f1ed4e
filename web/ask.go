package web

import (
	"context"
	"fmt"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/ask"
	"yokeswap/core/plans/begin"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
	"yokeswap/trade"
)

// AskView is what is worth asking about a quad's plan, or about what is on it today.
type AskView struct {
	Quad string `json:"quad"`
	Name string `json:"name"`
	ask.Report
}

// asks orders what is missing for a quad.
func (s *server) asks(ctx context.Context, in *struct {
	Quad  string `path:"quad"`
	Today bool   `query:"today" doc:"what is on it today; else the plan"`
}) (*ready[AskView], error) {
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	return answered(
		ctx,
		s.answers,
		snap,
		fmt.Sprintf("ask %s %t", q.ID, in.Today),
		func(context.Context) (*AskView, error) {
			c := fleet.NewCase(snap.Library, snap.Index, q)
			if in.Today {
				c = fleet.NowCase(snap.Library, snap.Index, q)
			}
			return &AskView{q.ID, q.Label(), ask.Next(c, format.ValuesOf)}, nil
		},
	)
}

// PicksView is what can be picked for a value that is missing of a fit.
type PicksView struct {
	Revision int64         `json:"revision" doc:"of the quad"`
	Picks    []swap.Option `json:"picks" doc:"each is one change to the fit; none: the value is typed"`
}

// antennaPicks are the antennas that could be on a piece of kit.
func (s *server) antennaPicks(_ context.Context, in *struct {
	Kit string `path:"kit"`
}) (*answer[[]begin.AntennaPick], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	kit, ok := snap.Index.Piece(in.Kit)
	if !ok {
		return nil, notFound("piece of kit", in.Kit)
	}
	return reply(append([]begin.AntennaPick{}, begin.AntennaPicks(snap.Library, trade.Shelf(), kit)...)), nil
}

// picks are the answers of one press to a value that is missing of a fit.
func (s *server) picks(_ context.Context, in *struct {
	Quad  string `path:"quad"`
	Field string `query:"field" required:"true" doc:"of the quad, as in the open formats"`
}) (*answer[PicksView], error) {
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	c := fleet.NewCase(snap.Library, snap.Index, q)
	if strings.HasPrefix(in.Field, fleet.FitNow+".") {
		c = fleet.NowCase(snap.Library, snap.Index, q)
	}
	list := swap.Picks(c, verdict.Missing{Of: "quad", ID: q.ID, Field: in.Field})
	return reply(PicksView{snap.RevisionOf(stock.Ref{Kind: "quad", ID: q.ID}), append([]swap.Option{}, list...)}), nil
}

// putAntennas puts a picked set of antennas on a piece of kit.
func (s *server) putAntennas(ctx context.Context, in *struct {
	Kit  string `path:"kit"`
	Body struct {
		Key string `json:"key" doc:"of a pick"`
	}
}) (*answer[Saved], error) {
	ref := stock.Ref{Kind: stock.KindKit, ID: in.Kit}
	change, err := s.change(ctx, "put antennas on", func(st *stock.Stock) error {
		return madeFor(st, func() (stock.Ref, error) {
			return ref, begin.PutAntennas(st, trade.Shelf(), in.Kit, in.Body.Key)
		})
	})
	if err != nil {
		return nil, problem(err)
	}
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	return reply(Saved{Kind: ref.Kind, ID: ref.ID, Revision: snap.RevisionOf(ref), Change: change}), nil
}
