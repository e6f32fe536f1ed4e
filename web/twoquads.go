package web

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/decide"
)

// AgainstView is two quads held against each other, and the quads there are to pick from.
type AgainstView struct {
	decide.Against
	Quads []Named `json:"quads"`
}

func (s *server) registerAgainst(api huma.API) {
	huma.Get(api, "/api/against", s.against, holds[AgainstView](api))
}

// against holds two quads against each other, as they fly or as they are planned. Where none is
// asked for, there is nothing to hold yet.
func (s *server) against(ctx context.Context, in *struct {
	One     string `query:"one" doc:"id of a quad"`
	Other   string `query:"other" doc:"id of another"`
	Planned bool   `query:"planned" doc:"as they are planned; absent: as they fly"`
}) (*ready[AgainstView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	if in.One != "" && in.One == in.Other {
		return nil, huma.Error422UnprocessableEntity("a quad is held against another, not against itself: pick two")
	}
	var quads []*fleet.Quad
	for _, id := range []string{in.One, in.Other} {
		if id == "" {
			continue
		}
		q, ok := snap.Fleet.Quad(id)
		if !ok {
			return nil, problem(notFound("quad", id))
		}
		quads = append(quads, q)
	}
	what := "against " + in.One + " " + in.Other
	if in.Planned {
		what += " planned"
	}
	return answered(ctx, s.answers, snap, what, func(ctx context.Context) (*AgainstView, error) {
		v := AgainstView{Quads: []Named{}, Against: decide.Against{Sides: []decide.Side{}, Measures: []decide.Measure{}}}
		for i := range snap.Fleet.Quads {
			q := &snap.Fleet.Quads[i]
			v.Quads = append(v.Quads, Named{ID: q.ID, Name: q.Label(), Note: q.Use})
		}
		if len(quads) == 2 {
			as := fleet.NowCase
			if in.Planned {
				as = fleet.NewCase
			}
			v.Against = decide.HoldAgainst(as(snap.Library, snap.Index, quads[0]), as(snap.Library, snap.Index, quads[1]))
		}
		return &v, ctx.Err()
	})
}
