package web

import (
	"context"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/decide"
	"yokeswap/format"
	"yokeswap/store"
)

// ScenarioRow is a scenario with what it comes to. The one without an id is the plan there is.
type ScenarioRow struct {
	ID   string      `json:"id"`
	Name string      `json:"name"`
	Note string      `json:"note,omitempty"`
	Made string      `json:"made,omitempty"`
	Told decide.Told `json:"told"`
}

// ScenariosView is all scenarios, today's plan first, and two of them held against each other.
type ScenariosView struct {
	Revision  int64                   `json:"revision" doc:"of the fleet"`
	Scenarios []ScenarioRow           `json:"scenarios"`
	Differ    []decide.ToldDifference `json:"differ" doc:"what the first asked for has otherwise than the second"`
}

func (s *server) registerScenarios(api huma.API) {
	huma.Get(api, "/api/scenarios", s.scenarios, holds[ScenariosView](api))
	huma.Post(api, "/api/scenarios", s.keepScenario)
	huma.Post(api, "/api/scenarios/{scenario}/plan", s.planScenario)
	huma.Delete(api, "/api/scenarios/{scenario}", s.dropScenario)
}

// scenarioOf is a scenario by its id, the plan there is where there is none.
func scenarioOf(f *fleet.Fleet, id string) (*fleet.Scenario, error) {
	if id == "" {
		return new(f.Planned()), nil
	}
	if s, ok := f.Scenario(id); ok {
		return s, nil
	}
	return nil, notFound("scenario", id)
}

func (s *server) scenarios(ctx context.Context, in *struct {
	Is   string `query:"is" maxLength:"64" doc:"held against the other; absent: the plan there is"`
	Than string `query:"than" maxLength:"64"`
}) (*ready[ScenariosView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	f := snap.Fleet
	is, err := scenarioOf(f, in.Is)
	if err != nil {
		return nil, err
	}
	than, err := scenarioOf(f, in.Than)
	if err != nil {
		return nil, err
	}
	text := "scenarios " + in.Is + " " + in.Than
	return answered(ctx, s.answers, snap, text, func(ctx context.Context) (*ScenariosView, error) {
		view := ScenariosView{Revision: snap.RevisionOf(store.FleetHead)}
		plan := f.Planned()
		plan.Name = "the plan there is"
		for _, one := range append([]fleet.Scenario{plan}, f.Scenarios...) {
			view.Scenarios = append(view.Scenarios, ScenarioRow{ID: one.ID, Name: one.Label(), Note: one.Note, Made: one.Made,
				Told: decide.Tell(ctx, snap.Library, f, &one)})
		}
		view.Differ = decide.Differ(ctx, snap.Library, f, is, than)
		return &view, ctx.Err()
	})
}

// keepScenario keeps the plan there is, a scenario that is there, or a decision, under a name.
func (s *server) keepScenario(ctx context.Context, in *struct {
	Body struct {
		Revision int64          `json:"revision" doc:"of the fleet, as read"`
		Name     string         `json:"name" minLength:"1" maxLength:"200"`
		Note     string         `json:"note,omitempty" maxLength:"1000"`
		Copy     string         `json:"copy,omitempty" maxLength:"64" doc:"of this scenario; absent: of the plan there is"`
		Quads    []QuadDecision `json:"quads,omitempty" maxItems:"10000" doc:"a decision: over the plan there is"`
		Sells    []string       `json:"sells,omitempty" maxItems:"10000" doc:"of a decision: kit that is to be sold"`
		Used     bool           `json:"used,omitempty" doc:"of a decision: used things are bought as well"`
	}
}) (*answer[Health], error) {
	expect := append(quadsAsRead(in.Body.Quads), store.Expect{Ref: store.FleetHead, Revision: in.Body.Revision})
	err := s.store.Update(deed(ctx, "kept a scenario"), func(st *stock.Stock) error {
		of, err := scenarioOf(st.Fleet, in.Body.Copy)
		if err != nil {
			return err
		}
		if len(in.Body.Quads) > 0 {
			tried := st.Fork()
			if err := planQuads(tried, in.Body.Quads); err != nil {
				return err
			}
			if err := tried.Sell(in.Body.Sells); err != nil {
				return refused(err)
			}
			of = new(tried.Fleet.Planned())
			of.Used = in.Body.Used
		}
		kept := fleet.Scenario{Name: in.Body.Name, Note: in.Body.Note, Quads: of.Quads, Sells: of.Sells, Used: of.Used}
		kept.Made = time.Now().Format(time.DateOnly)
		if _, err := st.KeepScenario(kept); err != nil {
			return refused(err)
		}
		return format.TakeHead(st)
	}, expect...)
	if err != nil {
		return nil, problem(err)
	}
	return reply(Health{Status: "ok", Version: s.options.Version, Database: "ok"}), nil
}

// planScenario makes a scenario the plan of the fleet, as one change.
func (s *server) planScenario(ctx context.Context, in *struct {
	Scenario string `path:"scenario"`
	Body     struct {
		Revision int64 `json:"revision" doc:"of the fleet, as read"`
	}
}) (*answer[Health], error) {
	return s.changeScenario(ctx, in.Scenario, in.Body.Revision, "planned a scenario", func(st *stock.Stock) error {
		st.PlanScenario(in.Scenario)
		for i := range st.Fleet.Quads {
			if err := takeAgain(st, stock.Ref{Kind: stock.KindQuad, ID: st.Fleet.Quads[i].ID}); err != nil {
				return err
			}
		}
		return nil
	})
}

// dropScenario takes a scenario out.
func (s *server) dropScenario(ctx context.Context, in *struct {
	Scenario string `path:"scenario"`
	Revision int64  `query:"revision" doc:"of the fleet, as read"`
}) (*answer[Health], error) {
	return s.changeScenario(ctx, in.Scenario, in.Revision, "took a scenario out", func(st *stock.Stock) error {
		st.DropScenario(in.Scenario)
		return nil
	})
}

func (s *server) changeScenario(
	ctx context.Context, id string, revision int64, does string, change func(st *stock.Stock) error,
) (*answer[Health], error) {
	err := s.store.Update(deed(ctx, does), func(st *stock.Stock) error {
		if _, ok := st.Fleet.Scenario(id); !ok {
			return notFound("scenario", id)
		}
		return change(st)
	}, store.Expect{Ref: store.FleetHead, Revision: revision})
	if err != nil {
		return nil, problem(err)
	}
	return reply(Health{Status: "ok", Version: s.options.Version, Database: "ok"}), nil
}
