package web

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/decide"
)

// CandidatesView is every unit a quad could carry, side by side.
type CandidatesView struct {
	Quad       string             `json:"quad"`
	Name       string             `json:"name"`
	Revision   int64              `json:"revision" doc:"of the quad"`
	Candidates []decide.Candidate `json:"candidates" doc:"the first is leaving it as it flies"`
}

func (s *server) registerDecide(api huma.API) {
	huma.Get(api, "/api/quads/{quad}/candidates", s.candidates, holds[CandidatesView](api))
	huma.Post(api, "/api/quads/{quad}/whole", s.planWhole, holds[QuadView](api))
}

// candidates tries every unit on a quad.
func (s *server) candidates(ctx context.Context, in *struct {
	Quad string `path:"quad"`
}) (*ready[CandidatesView], error) {
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	return answered(ctx, s.answers, snap, "candidates "+q.ID, func(ctx context.Context) (*CandidatesView, error) {
		c := fleet.NewCase(snap.Library, snap.Index, q)
		view := CandidatesView{Quad: q.ID, Name: q.Label(), Candidates: decide.Candidates(ctx, c),
			Revision: snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: q.ID})}
		return &view, ctx.Err()
	})
}

// planWhole applies all changes of a whole plan to a quad's next fit, as one.
func (s *server) planWhole(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Revision int64         `json:"revision" doc:"of the quad, as read"`
		Patches  []fleet.Patch `json:"patches" minItems:"1" maxItems:"64" doc:"in their order"`
	}
}) (*ready[QuadView], error) {
	return s.changeQuad(ctx, in.Quad, in.Body.Revision, "planned as a whole", func(st *stock.Stock) error {
		for _, patch := range in.Body.Patches {
			if err := st.Plan(in.Quad, patch); err != nil {
				return refused(err)
			}
		}
		return nil
	})
}
