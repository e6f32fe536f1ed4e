package decide

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/assign"
	"yokeswap/core/plans/route"
	"yokeswap/core/plans/swap"
)

// Question is what is asked of a fleet.
type Question struct {
	Currency string // three letters of ISO 4217; empty: that of the fleet's means, else the one most prices are in
	// Used says that used things are bought as well, Sell that units left over are sold, OneGoggles
	// that all quads are flown with goggles of one model.
	Used, Sell, OneGoggles bool
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
	Bill  []BillLine `json:"bill"`  // of the point that is chosen; the lines add up to its money
	// Devices are what becomes of all goggles and controllers in the point that is chosen.
	Devices []DevicePlan `json:"devices"`
	// Assumed are parts without a price, counted as the dearest of their kind; Foreign those
	// priced in another currency of which no rate is stated: ways that need them are left out.
	Assumed []string `json:"assumed"`
	Foreign []string `json:"foreign"`
}

// Point is one choice for all quads.
type Point struct {
	Money   float64 `json:"money"`
	Worth   int64   `json:"worth"`
	Changed int     `json:"changed"` // quads on which something is done
	// AtMost is what no choice is worth more than that costs less than the next point; absent: that
	// is its own worth, or it cannot be said.
	AtMost *int64 `json:"atMost,omitempty"`

	picks    []int
	worth    int64 // with its moves taken off, as it was chosen by
	scenario *scenario
	apart    []int // quads whose ways cannot be had together, since no pieces can be given out; none: they can
	reached  bool  // a firmware route brings it about
}

// QuadPlan is what becomes of one quad, and why not something else.
type QuadPlan struct {
	Quad    string  `json:"quad"`
	Name    string  `json:"name"`
	Purpose Purpose `json:"purpose"`
	Stated  bool    `json:"stated"` // its purpose; else it counts as for fun
	Weight  int     `json:"weight"`
	Way     Way     `json:"way"`
	Leave   bool    `json:"leave"`
	// Grounded says that it flies today and would not any more: its goggles are given up.
	Grounded bool       `json:"grounded"`
	Price    float64    `json:"price"` // of what is bought for it, goggles and controllers aside
	Worth    int64      `json:"worth"`
	Rows     []WorthRow `json:"rows"`
	Others   []OtherWay `json:"others"` // the nearest, the worthiest first
	Out      []Out      `json:"out"`
}

// OtherWay is one that was not taken, held against the one that was.
type OtherWay struct {
	Label  string  `json:"label"`
	Origin Origin  `json:"origin"`
	From   string  `json:"from,omitempty"`
	More   float64 `json:"more"`  // money, by itself
	Worth  int64   `json:"worth"` // more, or less
	Says   string  `json:"says"`
	// Tips says that it would be the one if it cost so much less that what is left does.
	Tips bool `json:"-"`
}

// Weighed is the trade-off for a fleet by some weights, whatever the budget.
type Weighed struct {
	table     *table
	points    []Point
	exact     bool
	tried     int
	scenarios int
	limits    []limit
	// unlimited says that something was left out of which nothing can be said.
	unlimited bool
}

// Weigh works out the trade-off for a fleet. It ends with the context.
func (w *Ways) Weigh(ctx context.Context, q Question) (*Weighed, error) {
	t := newTable(w, q)
	out := Weighed{table: t}
	var err error
	if out.points, err = t.front(ctx, &out); err != nil {
		return nil, err
	}
	return &out, nil
}

// Within is what is worth most within a budget, in hundredths, with all of the trade-off.
func (w *Weighed) Within(budget int64) FleetPlan {
	out := FleetPlan{Currency: w.table.prices.terms.Currency, Points: w.points, Chosen: -1, Exact: w.exact, Tried: w.tried,
		Quads: []QuadPlan{}, Bill: []BillLine{}, Devices: []DevicePlan{}}
	if out.Points == nil {
		out.Points = []Point{}
	}
	if out.Chosen = w.within(budget); out.Chosen >= 0 {
		out.Quads = w.table.told(&out.Points[out.Chosen], budget)
		out.Bill = w.table.bill(&out.Points[out.Chosen])
		out.Devices = w.table.devices(&out.Points[out.Chosen])
	}
	out.Assumed, out.Foreign = w.table.labels(w.table.prices.assumed), w.table.labels(w.table.prices.foreign)
	return out
}

// Currency is what money is reckoned in.
func (w *Weighed) Currency() string { return w.table.prices.terms.Currency }

// within is the place of the worthiest point within a budget; below zero: none is.
func (w *Weighed) within(budget int64) int {
	chosen := -1
	for i := range w.points {
		if w.points[i].Money*100 <= float64(budget)+0.5 {
			chosen = i
		}
	}
	return chosen
}

// mostParted is how often scenarios are parted where no firmware route brings a choice about.
const mostParted = 200

// front are the choices that no other beats and that a firmware route brings about, of all scenarios.
// Where none brings one about, the ways that cannot be had together are barred one after the other,
// each in a scenario of its own: together those hold all choices but the ones with all of these ways.
func (t *table) front(ctx context.Context, out *Weighed) (front []Point, err error) {
	ahead, all := t.scenarios()
	out.exact = all && !t.simpler
	for i := range t.quads {
		out.exact = out.exact && t.quads[i].All
	}
	out.unlimited, out.scenarios = !out.exact, len(ahead)
	parted := 0
	for len(ahead) > 0 {
		some := ahead[:min(atOnce, len(ahead))]
		if len(front) == 0 {
			some = some[:1] // the first that has any: what it has spares the others most
		}
		ahead = ahead[len(some):]
		solved := make([]solved, len(some))
		swap.Each(ctx, len(some), func(i int) { solved[i] = t.solve(ctx, &some[i], front, out.scenarios) })
		for i := range solved {
			one := &solved[i]
			if one.err != nil || ctx.Err() != nil {
				return nil, cmp.Or(one.err, ctx.Err())
			}
			out.tried += one.tried
			out.exact = out.exact && one.exact
			with := frontOf(slices.Concat(front, one.points))
			wrong, apart, err := t.unreachable(ctx, with)
			switch {
			case err != nil:
				return nil, err
			case wrong != nil && parted < mostParted:
				parted++
				for _, place := range apart {
					ahead = append(ahead, some[i].without(place, t.quads[place].of(wrong.picks[place])))
				}
				continue
			case wrong != nil:
				out.exact = false // without what is left of it
			default:
				front = with
			}
			out.limits = append(out.limits, one.limit)
		}
	}
	out.limit(front)
	return front, nil
}

// atOnce is how many scenarios are worked out at once.
const atOnce = 2

// solved are the choices of a scenario.
type solved struct {
	points []Point
	limit  limit
	tried  int
	exact  bool
	err    error // it was not worked out to the end
}

// unreachable is the first of some choices that cannot be had, with the quads whose ways cannot be
// had together; nil: all can.
func (t *table) unreachable(ctx context.Context, front []Point) (wrong *Point, apart []int, err error) {
	for i := range front {
		p := &front[i]
		if p.reached {
			continue
		}
		apart := p.apart
		if len(apart) == 0 {
			if apart, err = t.reach(ctx, p); err != nil {
				return nil, nil, err
			}
		}
		if len(apart) > 0 {
			return p, apart, nil
		}
		p.reached = true
	}
	return nil, nil, nil
}

// solve works out the choices of a scenario that neither another of it beats nor one of some that are
// had already.
func (t *table) solve(ctx context.Context, s *scenario, had []Point, scenarios int) (out solved) {
	problem, from := t.under(s)
	problem.Most = t.most(scenarios)
	problem.Grain = t.moves // fewer moves for the same worth are not searched for where there is much to search
	for i := range had {
		money := int64(math.Round(had[i].Money*100)) - s.amount() + t.sold
		problem.Beat = append(problem.Beat, assign.Choice{Money: money, Worth: had[i].worth})
	}
	curve, err := assign.Solve(ctx, problem)
	out.tried, out.exact, out.err = curve.Labels, curve.Exact, ctx.Err()
	if err != nil {
		return out // a quad has nothing left in this scenario, or nobody waits any more
	}
	points := func(worth int64) int64 { return (worth + t.moves - 1) / t.moves } // less than one is taken off for moves
	for _, c := range curve.Choices {
		money := c.Money + s.amount() - t.sold
		out.limit.steps = append(out.limit.steps, atMost{float64(money) / 100, points(c.AtMost)})
		p := Point{Money: float64(money) / 100, Worth: points(c.Worth), picks: make([]int, len(c.Picks)), worth: c.Worth,
			scenario: s}
		for i, pick := range c.Picks {
			if p.picks[i] = from[i][pick]; p.picks[i] > 0 {
				p.Changed++
			}
		}
		p.apart = t.giveOut(p.picks)
		out.points = append(out.points, p)
	}
	return out
}

// frontOf are the choices that no other beats, the cheapest first.
func frontOf(found []Point) (front []Point) {
	slices.SortStableFunc(found, func(a, b Point) int {
		return cmp.Or(cmp.Compare(a.Money, b.Money), cmp.Compare(b.Worth, a.Worth), a.Changed-b.Changed)
	})
	for _, p := range found {
		if n := len(front); n == 0 || p.Worth > front[n-1].Worth {
			front = append(front, p)
		}
	}
	return front
}

// conflict is which quads' ways no firmware route brings about together with the goggles they are
// flown with; none: one does. What a unit carries that is still to be bought is asked for before it
// is paid, and not held against it.
func (t *table) conflict(ctx context.Context, p *Point) (places []int, err error) {
	planned := *t.index.Fleet
	planned.Quads = slices.Clone(planned.Quads)
	var wants []fleet.Want
	var of []int
	for i, pick := range p.picks {
		q := &planned.Quads[i]
		q.Next = nil
		way := t.quads[i].ways[pick]
		if pick > 0 {
			q.Next = new(way.fit.Clone())
		}
		if way.goggles() != "" && (pick > 0 && way.kit != "" || pick == 0 && t.quads[i].flies) {
			wants = append(wants, fleet.Want{Quad: q.ID, Goggles: way.goggles(), Weight: fleet.Must})
			of = append(of, i)
		}
	}
	found, err := conflictOf(ctx, t.library, &planned, wants)
	for _, want := range found {
		places = append(places, of[want])
	}
	return places, err
}

// conflictOf is which wants cannot be met together, by their places; none: they can.
func conflictOf(ctx context.Context, lib *gear.Library, f *fleet.Fleet, wants []fleet.Want) (list []int, err error) {
	if len(wants) == 0 {
		return nil, nil
	}
	plan, err := route.Solve(route.Request{Library: lib, Fleet: fleet.NewIndex(f), Wants: wants, Context: ctx})
	if err != nil {
		return nil, fmt.Errorf("find the route of a choice: %w", err)
	}
	for _, l := range plan.Links {
		if l.Met || l.Conflict == nil {
			continue
		}
		if len(l.Conflict.Wants) > 0 {
			return l.Conflict.Wants, nil
		}
		for i := range wants { // which of them is not told: any of them
			list = append(list, i)
		}
		return list, nil
	}
	return nil, nil
}

// mostOthers is how many other ways of a quad are told.
const mostOthers = 4

// told is what becomes of each quad in a choice.
func (t *table) told(p *Point, budget int64) (list []QuadPlan) {
	left, bought := float64(budget)/100-p.Money, t.bought(p)
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
			Price:   float64(t.pays(p, i, bought[i])) / 100,
			Out:     q.out,
		}
		plan.Worth, plan.Rows = t.worth(p.scenario, q, pick)
		plan.Way.FindOut = slices.Concat(plan.Way.FindOut, t.secondHand(p, i, bought[i]))
		if plan.Grounded = t.grounded(p.scenario, q, q.ways[pick]); plan.Grounded {
			plan.Worth, plan.Rows = 0, nil
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

// others are the ways of a quad that were not taken, the worthiest first, and what could be bought whole;
// left is the money that is.
func (t *table) others(p *Point, at int, left float64) []OtherWay {
	q, pick := &t.quads[at], p.picks[at]
	is, _ := t.worth(p.scenario, q, pick)
	list := []OtherWay{}
	for k, way := range q.ways {
		if k == pick || way.Key == q.ways[pick].Key {
			continue
		}
		more, had := t.instead(p, at, k)
		if !had { // what others take of it is bought for them
			more = q.buyings[k].alone - q.buyings[pick].alone
		}
		more += t.beyond(p.scenario, way)
		other := OtherWay{
			Label:  way.Label,
			Origin: way.Origin,
			From:   way.From,
			More:   float64(more) / 100,
		}
		would, _ := t.worth(p.scenario, q, k)
		other.Worth = would - is
		other.Says = tips(&other, left, t.prices.terms.Currency)
		rival := t.rival(p, at, way)
		if rival == "" && !had {
			rival = "worth more, but others have what it takes in this choice"
		}
		if rival != "" && other.Worth > 0 {
			other.Says, other.Tips = rival, false
		}
		if !slices.ContainsFunc(list, func(o OtherWay) bool { return o.Label == other.Label }) {
			list = append(list, other)
		}
	}
	slices.SortStableFunc(list, func(a, b OtherWay) int {
		return cmp.Or(cmp.Compare(b.Worth, a.Worth), cmp.Compare(a.More, b.More))
	})
	return append(list[:min(len(list), mostOthers)], t.whole(p, at, left)...)
}

// beyond is what the goggles and the controller of a way cost that are not bought in a scenario, and what
// they do not bring that are sold in it.
func (t *table) beyond(s *scenario, way *Way) (sum int64) {
	for _, model := range way.shares() {
		if s.has(model) {
			continue
		}
		least := int64(-1)
		for _, p := range t.purchases(model) {
			if least < 0 || p.amount < least {
				least = p.amount
			}
		}
		sum += max(0, least)
	}
	for _, id := range s.sold {
		if kit, ok := t.index.Piece(id); ok && way.fit.FliesWith(id) {
			sum += t.prices.resale(kit.Model)
		}
	}
	return sum
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
		o.Tips = true
		return fmt.Sprintf("worth more, for %.2f %s more; %.2f are left: it would be the one if it cost %.2f less",
			o.More, currency, left, o.More-left)
	case o.More > left:
		o.Tips = true
		return fmt.Sprintf("worth more, for %.2f %s more than is there", o.More, currency)
	}
	return "worth more by itself; all of the choice together is worth less with it, or no firmware route brings it about"
}
