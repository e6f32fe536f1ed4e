package web

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/antenna"
	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/stock"
)

// AntennaView is what the antenna gate shows beside its findings.
type AntennaView struct {
	Picture antenna.Picture  `json:"picture"`
	Budgets []antenna.Budget `json:"budgets" doc:"the link next held against today's, band by band"`
	Sets    []antenna.Set    `json:"sets" doc:"the best of what is owned, for the goggles of this fit"`
	Region  string           `json:"region" doc:"id of the region whose limits hold; empty: none chosen"`
	Regions []Named          `json:"regions"`
}

func (s *server) registerRegion(api huma.API) {
	huma.Put(api, "/api/region", func(_ context.Context, in *struct {
		Body struct {
			Region string `json:"region" doc:"id of a region; empty: none"`
		}
	}) (*answer[Health], error) {
		err := s.store.Update(func(st *stock.Stock) error {
			st.SetRegion(in.Body.Region)
			return readAgain(st)
		})
		if err != nil {
			return nil, problem(err)
		}
		return reply(Health{Status: "ok", Version: s.options.Version, Database: "ok"}), nil
	})
}

func antennasOf(c fleet.Case) AntennaView {
	v := AntennaView{Picture: antenna.Draw(c), Budgets: antenna.Compare(c.Library, c.Fleet, c.Quad), Sets: []antenna.Set{}, Region: c.Fleet.Region, Regions: []Named{}}
	for _, r := range gear.All[*gear.Region](c.Library) {
		v.Regions = append(v.Regions, Named{ID: r.ID, Name: r.Label()})
	}
	if c.Fit.Goggles == nil {
		return v
	}
	for _, s := range antenna.Sets(c.Library, c.Fleet) {
		if s.Goggles == c.Fit.Goggles.Kit {
			v.Sets = append(v.Sets, s)
		}
	}
	return v
}
