package whatif

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/route"
)

// TriedOnRoute is a device as if it were bought for the route: every want that the route cannot meet is
// put to it, the others stay as they are.
type TriedOnRoute struct {
	Offered
	Wants []TriedWant `json:"wants"` // as those of the route
	Opens []string    `json:"opens"` // wants met with it alone, in words
	Loses []string    `json:"loses"` // wants met without it alone
	Steps int         `json:"steps"` // of the route with it
	Doors int         `json:"doors"` // devices that nothing brings back, on the route with it
	Count int         `json:"count"` // how many of it are bought
	Says  string      `json:"says"`
}

// TriedWant is one want of the route with the device.
type TriedWant struct {
	Takes bool   `json:"takes"` // it is put to the device
	Met   bool   `json:"met"`
	Says  string `json:"says"`
}

// ForRoute lists what could be tried on a route: all goggles, controllers and units of the gear, those
// nobody owns first; another of what is owned is one more.
func ForRoute(lib *gear.Library, f *fleet.Index) []Offered {
	list := Devices(lib, f)
	for _, item := range lib.Items() {
		switch item.(type) {
		case *gear.Goggles, *gear.Controller, *gear.AirUnit:
			if model := item.Head().ID; !slices.ContainsFunc(list, func(d Offered) bool { return d.Model == model }) {
				d := deviceOf(lib, f, item)
				d.Name = "another " + d.Name
				list = append(list, d)
			}
		}
	}
	return list
}

// OnRoute tries models on a route. A model that is no goggles, controller or unit of the gear is refused.
func OnRoute(r route.Request, models []string) ([]TriedOnRoute, error) {
	models = slices.Clone(models)
	slices.Sort(models) // one that is named twice is one column
	models = slices.Compact(models)
	if len(models) > Most {
		return nil, fmt.Errorf("%d devices are tried at once; at most %d go", len(models), Most)
	}
	base, err := route.Bare(r)
	if err != nil {
		return nil, fmt.Errorf("planning the route as it is: %w", err)
	}
	devices, columns := ForRoute(r.Library, r.Fleet), []TriedOnRoute{}
	for _, model := range models {
		at := slices.IndexFunc(devices, func(d Offered) bool { return d.Model == model })
		if at < 0 {
			return nil, fmt.Errorf("%s is no device that could be tried: it is in no gear pack", model)
		}
		column, err := tryOnRoute(r, &base, devices[at])
		if err != nil {
			return nil, fmt.Errorf("trying %s on the route: %w", devices[at].Name, err)
		}
		columns = append(columns, column)
	}
	return columns, nil
}

func tryOnRoute(r route.Request, base *route.Plan, d Offered) (TriedOnRoute, error) {
	var put route.Request
	var takes []bool
	var err error
	count := 0
	if d.Kind == gear.KindAirUnit {
		put, takes, count, err = withUnits(r, base, d.Model)
	} else {
		put, takes = withShared(r, base, d)
		if slices.Contains(takes, true) {
			count = 1
		}
	}
	if err != nil {
		return TriedOnRoute{}, err
	}
	plan := *base
	if count > 0 {
		if plan, err = route.Bare(put); err != nil {
			return TriedOnRoute{}, err
		}
	}
	t := TriedOnRoute{Offered: d, Wants: []TriedWant{}, Opens: []string{}, Loses: []string{}, Steps: len(plan.Steps),
		Doors: len(plan.Doors), Count: count}
	for i := range plan.Links {
		was, is := &base.Links[i], &plan.Links[i]
		with := is.GogglesName
		if takes[i] && d.Kind == gear.KindGoggles {
			with = "it"
		}
		t.Wants = append(t.Wants, TriedWant{Takes: takes[i], Met: is.Met, Says: is.Says})
		switch {
		case is.Met && !was.Met:
			t.Opens = append(t.Opens, is.QuadName+" with "+with)
		case was.Met && !is.Met:
			t.Loses = append(t.Loses, was.QuadName+" with "+was.GogglesName)
		}
	}
	t.Says = t.sentence(base, d)
	return t, nil
}

// withShared puts the wants that failed to goggles or a controller, as it comes from a shop.
func withShared(r route.Request, base *route.Plan, d Offered) (route.Request, []bool) {
	id := ""
	r.Fleet, id = r.Fleet.Owning(d.Model)
	r.Wants = slices.Clone(r.Wants)
	takes := make([]bool, len(r.Wants))
	for i := range r.Wants {
		want := &r.Wants[i]
		if base.Links[i].Met || d.Kind == gear.KindController && !flown(r, want) ||
			d.Kind == gear.KindGoggles && flies(r, base, want.Quad, d.Model) {
			continue
		}
		takes[i] = true
		if d.Kind == gear.KindController {
			want.Controller = id
		} else {
			want.Goggles = id
		}
	}
	return r, takes
}

// flies says whether a quad flies on a route with goggles of a model already.
func flies(r route.Request, base *route.Plan, quad, model string) bool {
	for i := range base.Links {
		piece, ok := r.Fleet.Piece(base.Links[i].Goggles)
		if ok && base.Links[i].Met && r.Wants[i].Quad == quad && piece.Model == model {
			return true
		}
	}
	return false
}

// flown says whether a want flies through the air unit, with a controller that could be another.
func flown(r route.Request, want *fleet.Want) bool {
	if want.Controller != "" {
		return want.Controller != fleet.SeparateReceiver
	}
	quad, ok := r.Fleet.Quad(want.Quad)
	if !ok {
		return false
	}
	fit := quad.NextFit()
	return fit.Receiver == "" && fit.Controller != nil
}

// withUnits puts a unit on each quad with a want that failed, where that meets more of the quad's wants
// and loses none that is met: one for each.
func withUnits(r route.Request, base *route.Plan, model string) (route.Request, []bool, int, error) {
	takes, count := make([]bool, len(r.Wants)), 0
	tried, with := map[string]bool{}, *base
	for i := range r.Wants {
		want := &r.Wants[i]
		if base.Links[i].Met || want.Turn != "" || tried[want.Quad] || len(tried) >= route.MostExplained {
			continue
		}
		tried[want.Quad] = true
		one := onQuad(r, want.Quad, model)
		plan, err := route.Bare(one)
		if err != nil {
			return r, nil, 0, err
		}
		if !gains(&with, &plan) {
			continue
		}
		r, with = one, plan
		count++
		for k := range r.Wants {
			takes[k] = takes[k] || r.Wants[k].Quad == want.Quad && r.Wants[k].Turn == ""
		}
	}
	return r, takes, count, nil
}

// onQuad is a request with a unit planned on a quad.
func onQuad(r route.Request, quad, model string) route.Request {
	f := *r.Fleet.Fleet
	f.Quads = slices.Clone(f.Quads)
	for i := range f.Quads {
		if f.Quads[i].ID == quad {
			f.Quads[i].Next = new(f.Quads[i].NextFit().With(fleet.Patch{AirUnit: &fleet.Slot{Model: model}}))
		}
	}
	r.Fleet = fleet.NewIndex(&f)
	return r
}

// gains says whether a plan meets more than another and loses nothing that was met.
func gains(base, plan *route.Plan) bool {
	more := false
	for i := range plan.Links {
		if base.Links[i].Met && !plan.Links[i].Met {
			return false
		}
		more = more || plan.Links[i].Met && !base.Links[i].Met
	}
	return more
}

func (t *TriedOnRoute) sentence(base *route.Plan, d Offered) string {
	failed := 0
	for i := range base.Links {
		if !base.Links[i].Met {
			failed++
		}
	}
	name := verdict.Capital(d.Name)
	if failed == 0 {
		return name + " meets nothing more: every want is met."
	}
	if len(t.Opens) == 0 {
		return fmt.Sprintf("%s meets none of the %s that fail.", name, change.Count(failed, "want"))
	}
	says := fmt.Sprintf("%s meets %d of the %s that fail: %s", name, len(t.Opens), change.Count(failed, "want"),
		change.And(t.Opens))
	if t.Count > 1 {
		says += fmt.Sprintf(", with one on each of %d quads", t.Count)
	}
	if len(t.Loses) > 0 {
		says += "; then no longer " + change.And(t.Loses)
	}
	return fmt.Sprintf("%s. The route then takes %s instead of %d.", says, change.Count(t.Steps, "step"), len(base.Steps))
}
