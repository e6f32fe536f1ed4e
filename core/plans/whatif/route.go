package whatif

import (
	"cmp"
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/route"
)

// TriedOnRoute is a device as if it were bought for the route: those wants are put to it with which most
// are met, the others stay as they are.
type TriedOnRoute struct {
	Offered
	Wants []TriedWant `json:"wants"` // as those of the route
	Opens []string    `json:"opens"` // wants met with it alone, in words
	Loses []string    `json:"loses"` // wants met without it alone
	Moves []string    `json:"moves"` // quads that would fly without it, and fly with it for the sake of others
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
	var plan route.Plan
	var takes []bool
	var err error
	count := 0
	if d.Kind == gear.KindAirUnit {
		plan, takes, count, err = withUnits(r, base, d.Model)
	} else {
		plan, takes, err = withShared(r, base, d)
		if slices.Contains(takes, true) {
			count = 1
		}
	}
	if err != nil {
		return TriedOnRoute{}, err
	}
	t := TriedOnRoute{Offered: d, Wants: []TriedWant{}, Opens: []string{}, Loses: []string{}, Moves: []string{},
		Steps: len(plan.Steps), Doors: len(plan.Doors), Count: count}
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
		case was.Met && takes[i] && d.Kind != gear.KindAirUnit:
			t.Moves = append(t.Moves, was.QuadName)
		}
	}
	t.Says = t.sentence(base, d)
	return t, nil
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
	_, is := controllerOf(r, want)
	return is
}

// controllerOf is the controller a want flies with through the air unit, by kit id or model; false: none.
func controllerOf(r route.Request, want *fleet.Want) (string, bool) {
	if want.Controller != "" {
		return want.Controller, want.Controller != fleet.SeparateReceiver
	}
	quad, ok := r.Fleet.Quad(want.Quad)
	if !ok {
		return "", false
	}
	fit := quad.NextFit()
	if fit.Receiver != "" || fit.Controller == nil {
		return "", false
	}
	return cmp.Or(fit.Controller.Kit, fit.Controller.Model), true
}

// withUnits puts a unit on each quad with a want that failed, where that meets more of the quad's wants
// and loses none that is met: one for each.
func withUnits(r route.Request, base *route.Plan, model string) (with route.Plan, takes []bool, count int, err error) {
	takes, with = make([]bool, len(r.Wants)), *base
	tried := map[string]bool{}
	for i := range r.Wants {
		want := &r.Wants[i]
		if base.Links[i].Met || want.Turn != "" || tried[want.Quad] || len(tried) >= route.MostExplained {
			continue
		}
		tried[want.Quad] = true
		one := onQuad(r, want.Quad, model)
		plan, err := route.Bare(one)
		if err != nil {
			return with, nil, 0, err
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
	return with, takes, count, nil
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
	name, those := verdict.Capital(d.Name), "the want that fails"
	if failed > 1 {
		those = fmt.Sprintf("%d of the %d wants that fail", len(t.Opens), failed)
	}
	if failed == 0 {
		return name + " meets nothing more: every want is met."
	}
	if len(t.Opens) == 0 {
		if failed == 1 {
			return name + " does not meet the want that fails."
		}
		return fmt.Sprintf("%s meets none of the %d wants that fail.", name, failed)
	}
	says := fmt.Sprintf("%s meets %s: %s", name, those, change.And(t.Opens))
	if t.Count > 1 {
		says += fmt.Sprintf(", with one on each of %d quads", t.Count)
	}
	if len(t.Moves) > 0 {
		says += "; " + change.And(t.Moves) + " would fly with it too, to make room"
	}
	if len(t.Loses) > 0 {
		says += "; then no longer " + change.And(t.Loses)
	}
	return fmt.Sprintf("%s. The route then takes %s instead of %d.", says, change.Count(t.Steps, "step"), len(base.Steps))
}
