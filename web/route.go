package web

import (
	"context"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/route"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
	"yokeswap/store"
)

// Named is a thing that can be picked.
type Named struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Note string `json:"note,omitempty"`
}

// RouteView is what is wanted of the fleet and the plan for it.
type RouteView struct {
	Title       string            `json:"title"`
	Revision    int64             `json:"revision"           doc:"of the goals"`
	Whole       int64             `json:"whole"              doc:"revision of everything the route was planned on"`
	Goals       fleet.Goals       `json:"goals"`
	Quads       []Named           `json:"quads"`
	Goggles     []Named           `json:"goggles"`
	Controllers []Named           `json:"controllers"`
	Features    []string          `json:"features"           doc:"what the pairings give, to choose from"`
	Plan        route.Plan        `json:"plan"`
	Deadline    *swap.Deadline    `json:"deadline,omitempty" doc:"the day wanted, held against deliveries and updates"`
	Taken       []route.TakenStep `json:"taken"              doc:"steps of the route carried out, oldest first"`
}

func (s *server) registerRoute(api huma.API) {
	huma.Get(
		api,
		"/api/route",
		func(ctx context.Context, _ *struct{}) (*ready[RouteView], error) { return s.routeView(ctx) },
		holds[RouteView](api),
	)
	huma.Put(api, "/api/route", s.saveGoals, holds[RouteView](api))
	huma.Get(api, "/api/route/why", s.why)
	huma.Get(
		api,
		"/api/route/back",
		func(ctx context.Context, _ *struct{}) (*ready[BackView], error) { return s.backView(ctx) },
		holds[BackView](api),
	)
	huma.Post(api, "/api/route/read", s.recordRead, holds[RouteView](api))
	huma.Post(api, "/api/route/offered", s.offered, holds[RouteView](api))
	huma.Post(api, "/api/route/close", s.closeRoute, holds[RouteView](api))
}

// saveGoals sets what is wanted and answers with the plan for it.
func (s *server) saveGoals(ctx context.Context, in *struct {
	Body struct {
		Revision int64       `json:"revision" doc:"of the goals, as read"`
		Goals    fleet.Goals `json:"goals"`
	}
}) (*ready[RouteView], error) {
	want := func(st *stock.Stock) error {
		st.Want(in.Body.Goals)
		return nil
	}
	err := s.store.Update(deed(ctx, "set the goals"), func(st *stock.Stock) error {
		if err := want(st); err != nil {
			return err
		}
		return format.TakeHead(st)
	}, store.Expect{Ref: store.FleetHead, Revision: in.Body.Revision})
	if conflict, ok := problem(err).(*Conflict); ok {
		s.describe(conflict, store.FleetHead, want)
		return nil, conflict
	}
	if err != nil {
		return nil, problem(err)
	}
	return s.routeView(ctx)
}

// why explains one want that failed, of which the plan itself explains the first.
func (s *server) why(ctx context.Context, in *struct {
	Want  int   `query:"want" required:"true" minimum:"0" doc:"its place among the wants"`
	Whole int64 `query:"whole" required:"true" doc:"revision of everything the route was planned on"`
}) (*answer[route.Conflict], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	if snap.Revision != in.Whole {
		return nil, huma.Error409Conflict("The fleet has changed since the route was planned: look at it again.")
	}
	request := routeRequest(snap)
	request.Context = ctx
	conflict, err := route.Why(request, in.Want)
	switch {
	case ctx.Err() != nil:
		return nil, problem(ctx.Err())
	case err != nil:
		return nil, huma.Error404NotFound(err.Error())
	case conflict == nil:
		return nil, huma.Error404NotFound("this want is met")
	}
	return reply(*conflict), nil
}

func (s *server) routeView(ctx context.Context) (*ready[RouteView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	question := "route on " + time.Now().Format(time.DateOnly)
	return answered(
		ctx,
		s.answers,
		snap,
		question,
		func(ctx context.Context) (*RouteView, error) { return routeOf(ctx, snap) },
	)
}

func routeOf(ctx context.Context, snap *store.Snapshot) (*RouteView, error) {
	v := RouteView{
		Title:       snap.Fleet.Title,
		Revision:    snap.RevisionOf(store.FleetHead),
		Whole:       snap.Revision,
		Goals:       snap.Fleet.Goals,
		Quads:       []Named{},
		Goggles:     []Named{},
		Controllers: []Named{},
		Features:    []string{},
		Taken:       route.Record(snap.Library, snap.Index),
	}
	if v.Goals.Wants == nil {
		v.Goals.Wants = []fleet.Want{}
	}
	if v.Goals.Values == nil {
		v.Goals.Values = []string{}
	}
	v.choices(snap)
	var err error
	request := routeRequest(snap)
	request.Context = ctx
	if v.Plan, err = route.Solve(request); err != nil {
		return nil, err
	}
	v.Deadline = deadlineOf(snap, v.Plan.Steps)
	return &v, nil
}

// choices lists what a want can be put together from.
func (v *RouteView) choices(snap *store.Snapshot) {
	for i := range snap.Fleet.Quads {
		q := &snap.Fleet.Quads[i]
		v.Quads = append(v.Quads, Named{ID: q.ID, Name: q.Label(), Note: q.Use})
		for k := range q.InTurn {
			t := &q.InTurn[k]
			if q.NextTurn == t.ID {
				continue // the plan of the quad itself
			}
			v.Quads = append(v.Quads, Named{
				ID:   route.TurnID(q.ID, t.ID),
				Name: route.TurnLabel(snap.Library, snap.Index, q, t),
				Note: q.Use,
			})
		}
	}
	for i := range snap.Fleet.Kit {
		kit := &snap.Fleet.Kit[i]
		named := Named{ID: kit.ID, Name: kit.Label(), Note: string(kit.Firmware)}
		switch item, _ := snap.Library.Item(kit.Model); item.(type) {
		case *gear.Goggles:
			v.Goggles = append(v.Goggles, named)
		case *gear.Controller:
			v.Controllers = append(v.Controllers, named)
		}
	}
	for _, p := range gear.All[*gear.Pairing](snap.Library) {
		for _, f := range p.Features {
			if !slices.Contains(v.Features, f) {
				v.Features = append(v.Features, f)
			}
		}
	}
}

// deadlineOf holds the day that is wanted against the fleet; nil where none is set.
func deadlineOf(snap *store.Snapshot, steps []route.Step) *swap.Deadline {
	by := snap.Fleet.By
	if by == "" {
		return nil
	}
	bill := swap.NewBill(swap.Shopping(snap.Library, snap.Index), snap.Fleet)
	deadline, err := swap.NewDeadline(by, time.Now().Format(time.DateOnly), bill, steps)
	if err != nil { // kept by a release that took any
		deadline = swap.Deadline{By: by, Says: by + " is no day of the calendar: set another."}
	}
	return &deadline
}

func routeRequest(snap *store.Snapshot) route.Request {
	f := snap.Fleet
	return route.Request{
		Library:     snap.Library,
		Fleet:       snap.Index,
		Wants:       f.Wants,
		Values:      f.Values,
		KeepWayBack: f.KeepWayBack,
		NotOffered:  route.NotOffered(f.Taken),
	}
}
