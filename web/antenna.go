package web

import (
	"cmp"
	"context"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
)

// AntennaView is what the antenna gate shows beside its findings.
type AntennaView struct {
	Picture antenna.Picture  `json:"picture"`
	Budgets []antenna.Budget `json:"budgets" doc:"the link next held against today's, band by band"`
	Sets    []antenna.Set    `json:"sets" doc:"the best of what is owned, for the goggles of this fit"`
	// Beside are the antennas of the plan and those that could go on instead.
	Beside  []swap.Alternative `json:"beside"`
	Region  string             `json:"region" doc:"id of the region whose limits hold; empty: none chosen"`
	Regions []Named            `json:"regions"`
}

func (s *server) registerRegion(api huma.API) {
	huma.Put(api, "/api/region", func(ctx context.Context, in *struct {
		Body struct {
			Was    string `json:"was" doc:"the region that was shown as chosen; empty: none"`
			Region string `json:"region" doc:"id of a region; empty: none"`
		}
	}) (*answer[Health], error) {
		err := s.store.Update(deed(ctx, "chose the region"), func(st *stock.Stock) error {
			if st.Fleet.Region != in.Body.Was {
				return huma.Error409Conflict("Another region has been chosen meanwhile: look at the gate again.")
			}
			st.SetRegion(in.Body.Region)
			return format.TakeHead(st)
		})
		if err != nil {
			return nil, problem(err)
		}
		return reply(Health{Status: "ok", Version: s.options.Version, Database: "ok"}), nil
	})
}

// registerAntennas lets the antennas on goggles be changed.
func (s *server) registerAntennas(api huma.API) {
	huma.Put(api, "/api/kit/{kit}/antennas/{port}", func(ctx context.Context, in *struct {
		Kit  string `path:"kit"`
		Port int    `path:"port" minimum:"1" maximum:"16"`
		Body struct {
			Was   string `json:"was" doc:"what was on the port; empty: nothing"`
			Model string `json:"model" doc:"the antenna to go on; empty: none"`
			From  string `json:"from,omitempty" doc:"goggles it comes from, in exchange; empty: the drawer"`
		}
	}) (*answer[Saved], error) {
		ref := stock.Ref{Kind: stock.KindKit, ID: in.Kit}
		change, err := s.change(ctx, "changed antennas", func(st *stock.Stock) error {
			kit, ok := st.Fleet.Piece(in.Kit)
			if !ok {
				return notFound("kit", in.Kit)
			}
			on := ""
			if in.Port <= len(kit.Antennas) {
				on = kit.Antennas[in.Port-1]
			}
			if on != in.Body.Was {
				return huma.Error409Conflict("What is on " + kit.Label() + " has changed meanwhile: look at it again.")
			}
			if err := st.ChangeAntenna(in.Kit, in.Port-1, in.Body.Model, in.Body.From); err != nil {
				return huma.Error409Conflict(err.Error())
			}
			return format.TakeHead(st)
		})
		if err != nil {
			return nil, problem(err)
		}
		return s.saved(ref, change)
	})
}

func antennasOf(c fleet.Case) AntennaView {
	v := AntennaView{
		Picture: antenna.Draw(c),
		Budgets: antenna.Compare(c.Library, c.Fleet, c.Quad),
		Sets:    []antenna.Set{},
		Beside:  swap.Alternatives(c),
		Region:  c.Fleet.Region,
		Regions: []Named{},
	}
	for _, r := range gear.All[*gear.Region](c.Library) {
		v.Regions = append(v.Regions, Named{ID: r.ID, Name: r.Label()})
	}
	if c.Fit.Goggles == nil {
		return v
	}
	v.Sets = antenna.SetsFor(c.Library, c.Fleet, cmp.Or(c.Fit.Goggles.Kit, "none owned"))
	return v
}
