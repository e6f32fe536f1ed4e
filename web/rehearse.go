package web

import (
	"context"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/route"
	"yokeswap/sim"
	"yokeswap/store"
)

// mostActions bounds a rehearsal.
const mostActions = 500

// Rehearsal is a bench of stand-ins after some actions. It is computed from
// the actions each time; nothing of it is stored.
type Rehearsal struct {
	Devices  []*sim.Device `json:"devices"`
	Outcomes []sim.Outcome `json:"outcomes" doc:"one for each action"`
	Plan     []Rehearsed   `json:"plan" doc:"the route's steps, each with how it is done right"`
	Off      []string      `json:"off" doc:"where the bench is not yet as the route promises"`
	Back     []Rehearsed   `json:"back" doc:"the steps of the way back, once asked for"`
	Doors    []string      `json:"doors" doc:"what does not open again on the way back"`
	Astray   []string      `json:"astray" doc:"where the bench is not yet as it was before the route, shut doors apart"`
	Tools    []string      `json:"tools"`
	Modes    []NamedMode   `json:"modes"`
}

// Rehearsed is a step of the route with its right action.
type Rehearsed struct {
	Step   route.Step `json:"step"`
	Action sim.Action `json:"action"`
	Done   bool       `json:"done"` // an action did just that
}

// NamedMode is a mode of a pair of goggles on the bench.
type NamedMode struct {
	Device string `json:"device"`
	ID     string `json:"id"`
	Name   string `json:"name"`
}

func (s *server) registerRehearsal(api huma.API) {
	huma.Post(api, "/api/rehearsal", func(_ context.Context, in *struct {
		Body struct {
			Actions []sim.Action `json:"actions"`
			Back    bool         `json:"back,omitempty" doc:"rehearse the way back too"`
		}
	}) (*answer[Rehearsal], error) {
		if len(in.Body.Actions) > mostActions {
			return nil, huma.Error422UnprocessableEntity("a rehearsal takes at most 500 actions; begin it anew")
		}
		return s.rehearse(in.Body.Actions, in.Body.Back)
	})
}

func (s *server) rehearse(actions []sim.Action, back bool) (*answer[Rehearsal], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	steps, err := route.Steps(routeRequest(snap))
	if err != nil {
		return nil, problem(err)
	}
	bench := sim.NewBench(snap.Library, snap.Fleet)
	r := Rehearsal{
		Outcomes: []sim.Outcome{},
		Plan:     []Rehearsed{},
		Back:     []Rehearsed{},
		Doors:    []string{},
		Astray:   []string{},
		Tools:    []string{},
		Modes:    []NamedMode{},
	}
	r.Plan = rehearsed(bench, steps)
	var homeward []route.Step
	if back {
		after, homes, err := route.After(routeRequest(snap), steps)
		if err != nil {
			return nil, problem(err)
		}
		way, err := route.WayBack(after, homes)
		if err != nil {
			return nil, problem(err)
		}
		r.Back, r.Doors, homeward = rehearsed(bench, way.Steps), way.Doors, way.Steps
	}
	for _, a := range actions {
		out := bench.Do(a)
		r.Outcomes = append(r.Outcomes, out)
		if out.Done && !tick(r.Plan, a) {
			tick(r.Back, a)
		}
	}
	r.Devices, r.Off, r.Astray = bench.Devices, bench.Compare(steps), bench.Compare(homeward)
	r.choices(snap)
	return reply(r), nil
}

// rehearsed are the steps of devices that are on the bench, with what is done at each.
func rehearsed(bench *sim.Bench, steps []route.Step) []Rehearsed {
	list := []Rehearsed{}
	for _, step := range steps {
		if _, ok := bench.Device(step.Device); ok {
			list = append(list, Rehearsed{Step: step, Action: sim.ActionOf(step)})
		}
	}
	return list
}

// choices are the tools and modes that can be picked.
func (r *Rehearsal) choices(snap *store.Snapshot) {
	for _, item := range snap.Library.Items() {
		if linked, ok := item.(gear.Linked); ok {
			r.addTools(linked.AsDevice())
		}
	}
	for _, d := range r.Devices {
		kit, _ := snap.Index.Piece(d.Kit)
		if goggles, ok := gear.Find[*gear.Goggles](snap.Library, kit.Model); ok {
			for _, m := range goggles.Modes {
				r.Modes = append(r.Modes, NamedMode{Device: d.Kit, ID: m.ID, Name: m.Label()})
			}
		}
	}
}

// tick marks the first step the action carries out.
func tick(steps []Rehearsed, a sim.Action) bool {
	for i := range steps {
		p := &steps[i]
		if !p.Done && p.Action.Do == a.Do && p.Action.Device == a.Device && p.Action.To == a.To && p.Action.Mode == a.Mode {
			p.Done = true
			return true
		}
	}
	return false
}

func (r *Rehearsal) addTools(d *gear.Device) {
	add := func(tools []string) {
		for _, t := range tools {
			if !slices.Contains(r.Tools, t) {
				r.Tools = append(r.Tools, t)
			}
		}
	}
	for _, release := range d.Releases {
		if release.Install != nil {
			add(release.Install.Tools)
		}
	}
	if d.Activation != nil {
		add(d.Activation.Tools)
	}
}
