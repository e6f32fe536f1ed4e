package web

import (
	"context"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/format"
)

// Purse is what there is to spend, and what currencies are worth in others.
type Purse struct {
	Means *fleet.Means `json:"means,omitempty" doc:"absent: nobody has said"`
	Rates []fleet.Rate `json:"rates" maxItems:"50"`
}

func purseOf(f *fleet.Fleet) Purse {
	p := Purse{Means: f.Means, Rates: f.Rates}
	if p.Rates == nil {
		p.Rates = []fleet.Rate{}
	}
	return p
}

func (s *server) registerMeans(api huma.API) {
	huma.Put(api, "/api/means", func(ctx context.Context, in *struct {
		Body struct {
			Was Purse `json:"was" doc:"as it was shown"`
			Is  Purse `json:"is"`
		}
	}) (*answer[Health], error) {
		err := s.store.Update(deed(ctx, "noted what there is to spend"), func(st *stock.Stock) error {
			if !reflect.DeepEqual(purseOf(st.Fleet), in.Body.Was) {
				return huma.Error409Conflict("What there is to spend has been noted otherwise meanwhile: look again.")
			}
			st.SetMeans(in.Body.Is.Means, in.Body.Is.Rates)
			return format.TakeHead(st)
		})
		if err != nil {
			return nil, problem(err)
		}
		return reply(Health{Status: "ok", Version: s.options.Version, Database: "ok"}), nil
	})
}
