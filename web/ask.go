package web

import (
	"context"
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/ask"
	"yokeswap/format"
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
