package decide

import (
	"maps"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/assign"
)

// scenario is what holds for all quads together: the state of the goggles, and the goggles and
// controllers that are bought.
type scenario struct {
	goggles map[string]fleet.Slot
	bought  []purchase
	only    string // goggles' model: none other is flown with; empty: any
	barred  []bar
	sold    []string // goggles and controllers, by kit id
	brings  int64    // what they bring, in hundredths
}

// bar is a way of a quad that is not to be had, by their places.
type bar struct{ quad, way int }

// without is a scenario in which a way of a quad is not to be had.
func (s scenario) without(quad, way int) scenario {
	s.barred = append(slices.Clip(s.barred), bar{quad, way})
	return s
}

// purchase is one device bought for all quads, by itself or in a bundle, whichever of its things that is
// a price of.
type purchase struct {
	model  string
	deal   gear.Deal
	with   []gear.Pieces // what comes beside it
	amount int64
}

// brings is how many of a model come beside the device.
func (p *purchase) brings(model string) (n int) {
	for _, with := range p.with {
		if with.Model == model {
			n += with.Count
		}
	}
	return n
}

// mostScenarios is how many are gone through.
const mostScenarios = 512

// scenarios are all combinations of those the ways want; false where there are too many to go
// through.
func (t *table) scenarios() (list []scenario, all bool) {
	list = []scenario{{goggles: map[string]fleet.Slot{}}}
	states := t.states()
	for _, kit := range slices.Sorted(maps.Keys(states)) {
		var next []scenario
		for _, s := range list {
			for _, state := range states[kit] {
				with := s
				with.goggles = maps.Clone(s.goggles)
				with.goggles[kit] = state
				next = append(next, with)
			}
		}
		list = next
	}
	shared := t.shared()
	for at, model := range shared {
		purchases := t.unbeaten(t.purchases(model))
		for _, s := range list {
			for _, p := range purchases {
				brings := func(other string) bool { return p.brings(other) > 0 }
				if s.has(model) || slices.ContainsFunc(shared[:at], brings) {
					continue // it came with another, or the other with it
				}
				with := s
				with.bought = append(slices.Clip(s.bought), p)
				list = append(list, with)
			}
		}
	}
	for _, kit := range t.forSale() {
		for _, s := range list {
			if at := states[kit.ID]; len(at) > 0 && s.goggles[kit.ID] != at[0] {
				continue // in which state they are sold is all the same
			}
			with := s
			with.sold, with.brings = append(slices.Clip(s.sold), kit.ID), s.brings+t.prices.resale(kit.Model)
			list = append(list, with)
		}
	}
	if t.question.OneGoggles {
		list = t.ofOneKind(list)
	}
	return list[:min(len(list), mostScenarios)], len(list) <= mostScenarios
}

// states are those the ways want of goggles that are owned.
func (t *table) states() map[string][]fleet.Slot {
	states := map[string][]fleet.Slot{}
	for i := range t.quads {
		for _, way := range t.quads[i].ways {
			if g := way.fit.Goggles; g != nil && g.Kit != "" && !slices.Contains(states[g.Kit], *g) {
				states[g.Kit] = append(states[g.Kit], *g)
			}
		}
	}
	return states
}

// shared are the goggles and controllers to buy that any way is flown with, by model.
func (t *table) shared() (list []string) {
	for i := range t.Quads {
		for k := range t.Quads[i].Ways {
			for _, model := range t.Quads[i].Ways[k].shares() {
				if !slices.Contains(list, model) {
					list = append(list, model)
				}
			}
		}
	}
	slices.Sort(list)
	return list
}

// unbeaten are the purchases of a device without those that cost no less than another and bring nothing
// more that anybody wants.
func (t *table) unbeaten(list []purchase) (left []purchase) {
	beats := func(a, b *purchase) bool {
		return a.amount <= b.amount && !slices.ContainsFunc(b.with, func(w gear.Pieces) bool {
			_, drawn := t.of[w.Model]
			return (drawn || slices.Contains(t.shared(), w.Model)) && a.brings(w.Model) < b.brings(w.Model)
		})
	}
	for i := range list {
		if slices.ContainsFunc(left, func(o purchase) bool { return beats(&o, &list[i]) }) {
			continue
		}
		left = slices.DeleteFunc(left, func(o purchase) bool { return beats(&list[i], &o) })
		left = append(left, list[i])
	}
	return left
}

// serves says whether a purchase is what a way is flown with, or brings what the way draws on.
func (p *purchase) serves(way *Way, draws map[string]int) bool {
	for model, n := range draws {
		if n > 0 && p.brings(model) > 0 {
			return true
		}
	}
	return p.flies(way)
}

// flies says whether a way is flown with what a purchase brings.
func (p *purchase) flies(way *Way) bool {
	return slices.ContainsFunc(way.shares(), func(model string) bool { return p.model == model || p.brings(model) > 0 })
}

// purchases are the ways to buy a device, at one counted as the dearest of its kind where it has
// no price.
func (t *table) purchases(model string) (list []purchase) {
	item, _ := t.library.Item(model)
	deals := item.Head().Bought()
	for _, d := range deals {
		list = t.purchase(list, purchase{model: model, deal: d, with: d.With})
	}
	for _, other := range t.library.Items() {
		for _, d := range other.Head().Bought() {
			with := append(slices.Clone(d.With), gear.Pieces{Model: other.Head().ID, Count: 1})
			if at := slices.IndexFunc(with, func(p gear.Pieces) bool { return p.Model == model }); other != item && at >= 0 {
				with[at].Count--
				list = t.purchase(list, purchase{model: model, deal: d, with: with})
			}
		}
	}
	if price := t.prices.dearest[item.Kind()]; len(deals) == 0 && price > 0 {
		list = append(list, purchase{model: model, deal: gear.Deal{Kind: gear.DealNew}, amount: price})
	}
	return list
}

// purchase adds a way to buy a device where it has a price to reckon with and is not bound to its former
// owner.
func (t *table) purchase(list []purchase, p purchase) []purchase {
	amount, known := t.index.InCurrency(*p.deal.Price, p.deal.Currency, t.prices.terms.Currency)
	if !known || !t.prices.terms.Take(&p.deal) {
		return list
	}
	p.amount = amount
	return append(list, p)
}

// ofOneKind are scenarios each with one model of goggles and none other.
func (t *table) ofOneKind(list []scenario) (one []scenario) {
	var models []string
	for i := range t.quads {
		for _, way := range t.quads[i].ways {
			if m := t.gogglesModel(way); m != "" && !slices.Contains(models, m) {
				models = append(models, m)
			}
		}
	}
	slices.Sort(models)
	if len(models) == 0 {
		return list // nothing is flown with goggles
	}
	for _, m := range models {
		for _, s := range list {
			s.only = m
			one = append(one, s)
		}
	}
	return one
}

// gogglesModel is the model a way is flown with; empty: it states none.
func (t *table) gogglesModel(way *Way) string {
	g := way.fit.Goggles
	if g == nil {
		return ""
	}
	if kit, ok := t.index.Piece(g.Kit); ok {
		return kit.Model
	}
	return g.Model
}

// has says whether a device is bought.
func (s *scenario) has(model string) bool {
	return slices.ContainsFunc(s.bought, func(p purchase) bool { return p.model == model || p.brings(model) > 0 })
}

// amount is what the devices cost, less what those bring that are sold.
func (s *scenario) amount() int64 {
	sum := -s.brings
	for _, p := range s.bought {
		sum += p.amount
	}
	return sum
}

// gives says whether goggles or a controller a way is flown with are sold.
func (s *scenario) gives(way *Way) bool { return slices.ContainsFunc(s.sold, way.fit.FliesWith) }

// comes is how many of a model come with the devices.
func (s *scenario) comes(model string) (n int) {
	for _, p := range s.bought {
		n += p.brings(model)
	}
	return n
}

// held is a way with a state of its goggles.
type held struct {
	way   *Way
	state fleet.Slot
}

// hold notes which ways go with their goggles in the states that others want: every scenario asks that.
func (t *table) hold() {
	states := t.states()
	for i := range t.quads {
		q := &t.quads[i]
		holds := map[held]bool{}
		for k, way := range q.ways {
			for _, state := range states[way.goggles()] {
				first := held{q.ways[q.buyings[k].of], state}
				if first.way == way {
					holds[first] = q.holdsWith(way, state)
				}
				holds[held{way, state}] = holds[first]
			}
		}
		q.holds = holds
	}
}

// holdsWith is that of its ways, as far as it was noted without asking again.
func (q *quadTable) holdsWith(way *Way, state fleet.Slot) bool {
	if holds, noted := q.holds[held{way, state}]; noted {
		return holds
	}
	return q.QuadWays.holdsWith(way, state)
}

// allows says whether a way of a quad can be chosen.
func (t *table) allows(s *scenario, q *quadTable, way *Way) bool {
	if !q.holdsWith(way, s.goggles[way.goggles()]) {
		return false
	}
	if slices.ContainsFunc(way.shares(), func(model string) bool { return !s.has(model) }) {
		return false
	}
	return way.Key == leaveKey || !s.gives(way) && (s.only == "" || t.gogglesModel(way) == s.only)
}

// grounded says whether a quad that flies today and is left has nobody's goggles any more, or no sticks.
func (t *table) grounded(s *scenario, q *quadTable, way *Way) bool {
	givenUp := s.only != "" && t.gogglesModel(way) != s.only || s.gives(way)
	return givenUp && way.Key == leaveKey && q.flies
}

// under is the problem of a scenario, and the way each of its options stands for.
func (t *table) under(s *scenario) (p assign.Problem, from [][]int) {
	p.Things = slices.Clone(t.things)
	for i, model := range t.models {
		if model != "" {
			p.Things[i].Have = min(200, p.Things[i].Have+s.comes(model))
		}
	}
	for i := range t.quads {
		q := &t.quads[i]
		var options []assign.Option
		var ways []int
		for k, way := range q.ways {
			if q.stands[k] == k && t.allows(s, q, way) && !slices.Contains(s.barred, bar{i, q.buyings[k].of}) {
				option := q.options[k]
				worth, _ := t.worth(s, q, k)
				option.Worth += (worth - q.worths[k]) * t.moves
				if t.grounded(s, q, way) {
					option.Worth = 0
				}
				options, ways = append(options, option), append(ways, k)
			}
		}
		p.Places, from = append(p.Places, options), append(from, ways)
	}
	return p, from
}
