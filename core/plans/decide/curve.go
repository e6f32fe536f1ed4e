package decide

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/assign"
	"yokeswap/core/plans/route"
)

// Question is what is asked of a fleet.
type Question struct {
	Currency string // three letters of ISO 4217; empty: the one most prices are in
	// Weights are those changed of a purpose; absent: as the register has them.
	Weights map[fleet.Purpose]Weights
}

// FleetPlan is what can be done with a whole fleet: money against worth, and the worthiest
// within the budget.
type FleetPlan struct {
	Currency string  `json:"currency"`
	Points   []Point `json:"points"` // that no other beats in money and worth, the cheapest first
	Chosen   int     `json:"chosen"` // the worthiest within the budget; below zero: none
	// Exact says that these are all; Tried how many part choices were looked at.
	Exact bool       `json:"exact"`
	Tried int        `json:"tried"`
	Quads []QuadPlan `json:"quads"` // of the point that is chosen
	// Assumed are parts without a price, counted as the dearest of their kind; Foreign those
	// priced in another currency: ways that need them are left out until a rate is known.
	Assumed []string `json:"assumed"`
	Foreign []string `json:"foreign"`
}

// Point is one choice for all quads.
type Point struct {
	Money   float64 `json:"money"`
	Worth   int64   `json:"worth"`
	Changed int     `json:"changed"` // quads on which something is done

	picks []int
}

// QuadPlan is what becomes of one quad, and why not something else.
type QuadPlan struct {
	Quad    string     `json:"quad"`
	Name    string     `json:"name"`
	Purpose Purpose    `json:"purpose"`
	Stated  bool       `json:"stated"` // its purpose; else it counts as for fun
	Weight  int        `json:"weight"`
	Way     Way        `json:"way"`
	Leave   bool       `json:"leave"`
	Price   float64    `json:"price"` // by itself, without what lies in the drawer for another
	Worth   int64      `json:"worth"`
	Rows    []WorthRow `json:"rows"`
	Others  []OtherWay `json:"others"` // the nearest, the worthiest first
	Out     []Out      `json:"out"`
}

// OtherWay is one that was not taken, held against the one that was.
type OtherWay struct {
	Label  string  `json:"label"`
	Origin Origin  `json:"origin"`
	From   string  `json:"from,omitempty"`
	More   float64 `json:"more"`  // money, by itself
	Worth  int64   `json:"worth"` // more, or less
	Says   string  `json:"says"`
}

// mostScenarios is how many states of the goggles are gone through.
const mostScenarios = 256

// table is the ways of all quads with their price and worth.
type table struct {
	*Ways
	prices *prices
	things []assign.Thing
	of     map[string]int // thing by kit id or model
	quads  []quadTable
}

type quadTable struct {
	*QuadWays
	quad    *fleet.Quad
	purpose Purpose
	weight  int
	ways    []*Way
	options []assign.Option
	alone   []int64 // price with what lies in the drawer
	rows    [][]WorthRow
	out     []Out
}

// Weighed is the trade-off for a fleet by some weights, whatever the budget.
type Weighed struct {
	table  *table
	points []Point
	exact  bool
	tried  int
}

// Weigh works out the trade-off for a fleet. It ends with the context.
func (w *Ways) Weigh(ctx context.Context, q Question) (*Weighed, error) {
	t := newTable(w, q)
	out := Weighed{table: t}
	found, err := t.choices(ctx, &out)
	if err != nil {
		return nil, err
	}
	slices.SortStableFunc(found, func(a, b Point) int {
		return cmp.Or(cmp.Compare(a.Money, b.Money), cmp.Compare(b.Worth, a.Worth), a.Changed-b.Changed)
	})
	for _, p := range found {
		if n := len(out.points); n > 0 && out.points[n-1].Worth >= p.Worth {
			continue
		}
		if ok, err := t.reached(ctx, &p); err != nil {
			return nil, err
		} else if ok {
			out.points = append(out.points, p)
		}
	}
	return &out, nil
}

// Within is what is worth most within a budget, in hundredths, with all of the trade-off.
func (w *Weighed) Within(budget int64) FleetPlan {
	out := FleetPlan{Currency: w.table.prices.currency, Points: w.points, Chosen: -1, Exact: w.exact, Tried: w.tried,
		Quads: []QuadPlan{}}
	if out.Points == nil {
		out.Points = []Point{}
	}
	for i := range out.Points {
		if out.Points[i].Money*100 <= float64(budget)+0.5 {
			out.Chosen = i
		}
	}
	if out.Chosen >= 0 {
		out.Quads = w.table.told(&out.Points[out.Chosen], budget)
	}
	out.Assumed, out.Foreign = w.table.labels(w.table.prices.assumed), w.table.labels(w.table.prices.foreign)
	return out
}

// choices are those of each state the goggles may be in.
func (t *table) choices(ctx context.Context, out *Weighed) (found []Point, err error) {
	scenarios, all := t.scenarios()
	out.exact = all
	for i := range t.quads {
		out.exact = out.exact && t.quads[i].All
	}
	for _, goggles := range scenarios {
		problem, from := t.under(goggles)
		curve, err := assign.Solve(ctx, problem)
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		out.tried += curve.Labels
		out.exact = out.exact && curve.Exact
		if err != nil {
			continue // a quad has nothing left with the goggles in this state
		}
		for _, c := range curve.Choices {
			p := Point{Money: float64(c.Money) / 100, Worth: c.Worth, picks: make([]int, len(c.Picks))}
			for i, pick := range c.Picks {
				if p.picks[i] = from[i][pick]; p.picks[i] > 0 {
					p.Changed++
				}
			}
			found = append(found, p)
		}
	}
	return found, nil
}

// labels are models by name, each once.
func (t *table) labels(models []string) []string {
	list := []string{}
	for _, m := range models {
		if label := t.library.Label(m); !slices.Contains(list, label) {
			list = append(list, label)
		}
	}
	slices.Sort(list)
	return list
}

// currencyOf is the currency most prices are in.
func currencyOf(lib *gear.Library) string {
	counts := map[string]int{}
	for _, item := range lib.Items() {
		if o := item.Head().Offer; o != nil && o.Price != nil {
			counts[o.Currency]++
		}
	}
	best := ""
	for _, c := range slices.Sorted(maps.Keys(counts)) {
		if counts[c] > counts[best] {
			best = c
		}
	}
	return best
}

func newTable(w *Ways, q Question) *table {
	t := &table{Ways: w, prices: newPrices(w.library, cmp.Or(q.Currency, currencyOf(w.library))), of: map[string]int{}}
	var s scale
	for i := range w.Quads {
		for k := range w.Quads[i].Ways {
			s.take(&w.Quads[i].Ways[k].outcome)
		}
	}
	for i := range w.Quads {
		quad, _ := w.index.Quad(w.Quads[i].Quad)
		row := quadTable{QuadWays: &w.Quads[i], quad: quad, purpose: PurposeOf(quad), weight: 1}
		row.out = slices.Clone(row.Out)
		if quad.Weight != nil {
			row.weight = *quad.Weight
		}
		weights := row.purpose.Weights
		if changed, ok := q.Weights[row.purpose.ID]; ok {
			weights = changed
			row.purpose.Weights = changed
		}
		for k := range w.Quads[i].Ways {
			way := &w.Quads[i].Ways[k]
			option, alone, ok := t.option(way)
			if !ok {
				row.out = append(row.out, Out{Label: way.Label, Gates: []string{}, Says: "a part of it is priced in another " +
					"currency, or nothing of its kind has a price: state one in " + t.prices.currency})
				continue
			}
			var rows []WorthRow
			option.Worth, rows = s.worth(&way.outcome, weights, row.weight)
			row.ways, row.options = append(row.ways, way), append(row.options, option)
			row.alone, row.rows = append(row.alone, alone), append(row.rows, rows)
		}
		t.quads = append(t.quads, row)
	}
	return t
}

// option is a way as it is chosen: its price, and what it draws on. Alone is its price by
// itself.
func (t *table) option(way *Way) (o assign.Option, alone int64, ok bool) {
	if way.kit != "" {
		o.Uses = append(o.Uses, assign.Use{Thing: t.thing(way.kit, 1, -1), Count: 1})
	}
	for _, model := range slices.Sorted(maps.Keys(way.needs)) {
		n := way.needs[model]
		price, priced := t.prices.of(model)
		have := t.spares(model)
		if !priced && have < n {
			return o, 0, false
		}
		if have == 0 {
			o.Money += price * int64(n)
			alone += price * int64(n)
			continue
		}
		if !priced {
			price = -1
		}
		o.Uses = append(o.Uses, assign.Use{Thing: t.thing(model, have, price), Count: n})
		alone += max(0, price) * int64(max(0, n-have))
	}
	return o, alone, true
}

// spares are how many of a model lie in the drawer, whatever plans there are today.
func (t *table) spares(model string) (n int) {
	for _, s := range t.index.Spares {
		if s.Model == model {
			n += s.Count
		}
	}
	return n
}

// thing is the place of something there is only so much of.
func (t *table) thing(id string, have int, price int64) int {
	at, known := t.of[id]
	if !known {
		at = len(t.things)
		t.of[id] = at
		t.things = append(t.things, assign.Thing{Have: min(have, 200), Price: price})
	}
	return at
}

// scenarios are the states the goggles may be in: all combinations of those the ways want;
// false where there are too many to go through.
func (t *table) scenarios() (list []map[string]fleet.Slot, all bool) {
	states := map[string][]fleet.Slot{}
	for i := range t.quads {
		for _, way := range t.quads[i].ways {
			if g := way.fit.Goggles; g != nil && g.Kit != "" && !slices.Contains(states[g.Kit], *g) {
				states[g.Kit] = append(states[g.Kit], *g)
			}
		}
	}
	list = []map[string]fleet.Slot{{}}
	for _, kit := range slices.Sorted(maps.Keys(states)) {
		var next []map[string]fleet.Slot
		for _, s := range list {
			for _, state := range states[kit] {
				with := maps.Clone(s)
				with[kit] = state
				next = append(next, with)
			}
		}
		list = next
	}
	return list[:min(len(list), mostScenarios)], len(list) <= mostScenarios
}

// under is the problem with the goggles in a state, and the way each of its options stands for.
func (t *table) under(goggles map[string]fleet.Slot) (p assign.Problem, from [][]int) {
	p.Things = t.things
	for i := range t.quads {
		q := &t.quads[i]
		var options []assign.Option
		var ways []int
		for k, way := range q.ways {
			if !q.holdsWith(way, goggles[way.goggles()]) {
				continue
			}
			options, ways = append(options, q.options[k]), append(ways, k)
		}
		p.Places, from = append(p.Places, options), append(from, ways)
	}
	return p, from
}

// reached says whether a firmware route brings a choice about with the goggles it is flown with.
func (t *table) reached(ctx context.Context, p *Point) (bool, error) {
	planned := *t.index.Fleet
	planned.Quads = slices.Clone(planned.Quads)
	var wants []fleet.Want
	for i, pick := range p.picks {
		q := &planned.Quads[i]
		q.Next = nil
		way := t.quads[i].ways[pick]
		if pick > 0 {
			q.Next = new(way.fit.Clone())
		}
		if way.goggles() != "" && (pick > 0 || t.quads[i].flies) {
			wants = append(wants, fleet.Want{Quad: q.ID, Goggles: way.goggles(), Weight: fleet.Must})
		}
	}
	if len(wants) == 0 {
		return true, nil
	}
	request := route.Request{Library: t.library, Fleet: fleet.NewIndex(&planned), Wants: wants, Context: ctx}
	plan, err := route.Solve(request)
	if err != nil {
		return false, fmt.Errorf("find the route of a choice: %w", err)
	}
	return !slices.ContainsFunc(plan.Links, func(l route.Link) bool { return !l.Met && l.Conflict != nil }), nil
}

// mostOthers is how many other ways of a quad are told.
const mostOthers = 4

// told is what becomes of each quad in a choice.
func (t *table) told(p *Point, budget int64) (list []QuadPlan) {
	left := float64(budget)/100 - p.Money
	for i, pick := range p.picks {
		q := &t.quads[i]
		plan := QuadPlan{
			Quad:    q.quad.ID,
			Name:    q.quad.Label(),
			Purpose: q.purpose,
			Stated:  q.quad.Purpose != "",
			Weight:  q.weight,
			Way:     *q.ways[pick],
			Leave:   pick == 0,
			Price:   float64(q.alone[pick]) / 100,
			Worth:   q.options[pick].Worth,
			Rows:    q.rows[pick],
			Out:     q.out,
		}
		if plan.Rows == nil {
			plan.Rows = []WorthRow{}
		}
		plan.Others = t.others(p, i, left)
		list = append(list, plan)
	}
	slices.SortStableFunc(list, func(a, b QuadPlan) int { // what is done comes first
		switch {
		case a.Leave == b.Leave:
			return 0
		case a.Leave:
			return 1
		}
		return -1
	})
	return list
}

// others are the ways of a quad that were not taken, the worthiest first; left is the money that is.
func (t *table) others(p *Point, at int, left float64) []OtherWay {
	q, pick := &t.quads[at], p.picks[at]
	list := []OtherWay{}
	for k, way := range q.ways {
		if k == pick || way.Key == q.ways[pick].Key {
			continue
		}
		other := OtherWay{Label: way.Label, Origin: way.Origin, From: way.From,
			More: float64(q.alone[k]-q.alone[pick]) / 100, Worth: q.options[k].Worth - q.options[pick].Worth}
		other.Says = tips(&other, left, t.prices.currency)
		if rival := t.rival(p, at, way); rival != "" && other.Worth > 0 {
			other.Says = rival
		}
		if !slices.ContainsFunc(list, func(o OtherWay) bool { return o.Label == other.Label }) {
			list = append(list, other)
		}
	}
	slices.SortStableFunc(list, func(a, b OtherWay) int {
		return cmp.Or(cmp.Compare(b.Worth, a.Worth), cmp.Compare(a.More, b.More))
	})
	return list[:min(len(list), mostOthers)]
}

// rival says which other quad has what a way of a quad takes, or wants its goggles otherwise;
// empty: none.
func (t *table) rival(p *Point, at int, way *Way) string {
	for i, pick := range p.picks {
		other := t.quads[i].ways[pick]
		switch {
		case i == at:
		case way.kit != "" && other.kit == way.kit:
			return fmt.Sprintf("worth more, but %s carries it in this choice", t.quads[i].quad.Label())
		case way.goggles() != "" && other.goggles() == way.goggles() &&
			!t.quads[i].holdsWith(other, *way.fit.Goggles) && !t.quads[at].holdsWith(way, *other.fit.Goggles):
			return fmt.Sprintf("worth more, but %s cannot fly with %s as this wants them", t.quads[i].quad.Label(),
				t.nameOf(way.goggles()))
		}
	}
	return ""
}

func (t *table) nameOf(kit string) string {
	if k, ok := t.index.Piece(kit); ok {
		return k.Label()
	}
	return kit
}

// tips says why a way is not the one, and what would make it so.
func tips(o *OtherWay, left float64, currency string) string {
	switch {
	case o.Worth <= 0:
		return "worth no more"
	case o.More > left && left > 0:
		return fmt.Sprintf("worth more, for %.2f %s more; %.2f are left: it would be the one if it cost %.2f less",
			o.More, currency, left, o.More-left)
	case o.More > left:
		return fmt.Sprintf("worth more, for %.2f %s more than is there", o.More, currency)
	}
	return "worth more by itself; all of the choice together is worth less with it, or no firmware route brings it about"
}
