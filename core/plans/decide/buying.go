package decide

import (
	"maps"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/plans/assign"
)

// Some things are had in common: what lies in the drawer, what comes with goggles that are bought for
// all, and what is left over of a box, a bundle or a pack that is bought for one quad. A way draws on
// them instead of buying, or leaves something to them, so that it is told apart by how what it takes is
// bought.

// buying is how what a way takes is bought.
type buying struct {
	lines  []change.Line
	draws  map[string]int // on things in common, by model; below zero: it leaves some
	alone  int64          // price with what lies in the drawer, in hundredths
	of     int            // the first of its way
	basket int            // its place among the ways to buy that
	option assign.Option
}

// of is the first of the ways that differ from the one that stands for a way in how they are bought.
func (q *quadTable) of(pick int) int { return q.buyings[q.stands[pick]].of }

// mostBuyings is how many ways to buy what a way takes are told apart; a test tells apart all.
var mostBuyings = 12

// common says whether a model is had in common.
func (t *table) common(model string) bool {
	return t.bundled[model] || t.leftOver[model] || t.spares(model) > 0
}

// lacks are what a way takes, without the goggles and controllers that are bought for all.
func (w *Way) lacks() map[string]int {
	needs := maps.Clone(w.needs)
	for _, model := range w.shares() {
		delete(needs, model)
	}
	return needs
}

// baskets are the ways to buy what a way takes.
func (t *table) baskets(way *Way) []change.Basket {
	list, all := change.Baskets(t.library, t.index.Fleet, way.lacks(), t.prices.terms, t.common)
	if !all || len(list) > mostBuyings {
		t.simpler = true
	}
	return list[:min(len(list), mostBuyings)]
}

// leavings are the models that one quad's way may leave over and another's takes.
func (t *table) leavings() map[string]bool {
	leaves, takes := map[string][]int{}, map[string][]int{}
	note := func(of map[string][]int, model string, quad int) {
		if !slices.Contains(of[model], quad) {
			of[model] = append(of[model], quad)
		}
	}
	for i := range t.Quads {
		for k := range t.Quads[i].Ways {
			for model := range t.Quads[i].Ways[k].lacks() {
				note(takes, model, i)
			}
		}
	}
	taken := func(model string) bool { return len(takes[model]) > 0 }
	for i := range t.Quads {
		for k := range t.Quads[i].Ways {
			lacks := t.Quads[i].Ways[k].lacks()
			for _, l := range change.Besides(t.library, t.index.Fleet, lacks, t.prices.terms, taken) {
				for _, p := range l.With {
					note(leaves, p.Model, i)
				}
			}
			for model, n := range lacks {
				for other, comes := range change.Comes(t.library, model, n, t.prices.terms) {
					if comes > lacks[other] {
						note(leaves, other, i)
					}
				}
			}
		}
	}
	list := map[string]bool{}
	for model, by := range leaves {
		list[model] = slices.ContainsFunc(takes[model], func(quad int) bool { return len(by) > 1 || quad != by[0] })
	}
	return list
}

// buying is a way with one way to buy what it takes; false where that has no price to reckon with. Goggles
// and controllers to buy are not in it: they are bought once for all quads.
func (t *table) buying(way *Way, basket *change.Basket) (b buying, ok bool) {
	b.lines, b.draws = basket.Lines, basket.Draws
	o := &b.option
	if way.kit != "" {
		pool, pieces := t.pool(way.kit)
		o.Uses = append(o.Uses, assign.Use{Thing: t.thing("kit "+pool, "", pieces, -1), Count: 1})
		if kit, owned := t.index.Piece(way.kit); owned && t.question.Sell {
			o.Money += t.sale(kit)
		}
	}
	for i := range b.lines {
		l := &b.lines[i]
		t.prices.note(l)
		cost, priced := t.prices.cost(l)
		if !priced {
			return b, false
		}
		o.Money, b.alone = o.Money+cost, b.alone+cost
	}
	for _, model := range slices.Sorted(maps.Keys(b.draws)) {
		n, have := b.draws[model], t.spares(model)
		price, priced := t.prices.each(model)
		if !priced {
			if have < n && !t.bundled[model] && !t.leftOver[model] {
				return b, false
			}
			price = -1
		}
		o.Uses = append(o.Uses, assign.Use{Thing: t.thing(model, model, have, price), Count: n})
		b.alone += max(0, price) * int64(max(0, n-have))
	}
	return b, true
}

// mostInCommon is how many of a thing there are at most in common.
const mostInCommon = 200

// level has no way leave anything: what the ways of a quad leave at most is there from the start, and a way
// that leaves less draws on it. What all quads together can do with is enough.
func (t *table) level() {
	for thing := range t.things {
		wanted := -t.things[thing].Have
		for i := range t.quads {
			most := 0
			for k := range t.quads[i].options {
				most = max(most, drawsOn(&t.quads[i].options[k], thing))
			}
			wanted += most
		}
		for i := range t.quads {
			q := &t.quads[i]
			most := 0
			for k := range q.options {
				most = max(most, min(wanted, -drawsOn(&q.options[k], thing)))
			}
			if free := mostInCommon - t.things[thing].Have; most > free {
				most, t.simpler = free, true
			}
			t.things[thing].Have += most
			for k := range q.options {
				draw(&q.options[k], thing, max(0, drawsOn(&q.options[k], thing)+most))
			}
		}
	}
}

// drawsOn is how many of a thing an option draws on.
func drawsOn(o *assign.Option, thing int) int {
	if at := slices.IndexFunc(o.Uses, func(u assign.Use) bool { return u.Thing == thing }); at >= 0 {
		return o.Uses[at].Count
	}
	return 0
}

// draw has an option draw on so many of a thing.
func draw(o *assign.Option, thing, count int) {
	o.Uses = slices.DeleteFunc(o.Uses, func(u assign.Use) bool { return u.Thing == thing })
	if count > 0 {
		o.Uses = append(o.Uses, assign.Use{Thing: thing, Count: count})
	}
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
func (t *table) thing(id, model string, have int, price int64) int {
	at, known := t.of[id]
	if !known {
		at = len(t.things)
		t.of[id] = at
		t.things = append(t.things, assign.Thing{Have: min(have, mostInCommon), Price: price})
		t.models = append(t.models, model)
	}
	return at
}

// leaves is how many of a model the ways of a choice leave over.
func (t *table) leaves(picks []int, model string) (n int) {
	for i, pick := range picks {
		n += max(0, -t.quads[i].buyings[pick].draws[model])
	}
	return n
}

// paid is what a choice costs in a scenario, without what the scenario does, in hundredths; false where it
// draws on more than there is of something.
func (t *table) paid(s *scenario, picks []int) (money int64, ok bool) {
	used := make([]int, len(t.things))
	for i, pick := range picks {
		o := &t.quads[i].options[t.quads[i].stands[pick]]
		money += o.Money
		for _, u := range o.Uses {
			used[u.Thing] += u.Count
		}
	}
	for thing, n := range used {
		have, price := t.things[thing].Have, t.things[thing].Price
		if model := t.models[thing]; model != "" {
			have += s.comes(model)
		}
		if n > have && price < 0 {
			return 0, false
		}
		money += int64(max(0, n-have)) * max(0, price)
	}
	return money, true
}

// bought is how many of each model are bought for each quad in a choice that it draws on what is had in common:
// that goes to the first that draw on it.
func (t *table) bought(p *Point) []map[string]int {
	list, had := make([]map[string]int, len(p.picks)), map[string]int{}
	for i, pick := range p.picks {
		list[i] = map[string]int{}
		for _, l := range t.quads[i].buyings[pick].lines {
			if l.Drawn == 0 {
				continue
			}
			if _, known := had[l.Model]; !known {
				had[l.Model] = p.scenario.comes(l.Model) + t.leaves(p.picks, l.Model) + t.spares(l.Model)
			}
			taken := min(l.Drawn, had[l.Model])
			had[l.Model] -= taken
			list[i][l.Model] += l.Drawn - taken
		}
	}
	return list
}

// pays is what is bought for a quad in a choice, in hundredths, with what it draws on and is bought.
func (t *table) pays(p *Point, at int, bought map[string]int) (sum int64) {
	lines := t.quads[at].buyings[p.picks[at]].lines
	for k := range lines {
		cost, _ := t.prices.cost(&lines[k])
		sum += cost
	}
	for model, n := range bought {
		price, _ := t.prices.each(model)
		sum += price * int64(n)
	}
	return sum
}

// instead is what a choice costs more with another way of a quad, however that is bought; false where
// something it takes is wanted by others.
func (t *table) instead(p *Point, at, way int) (more int64, ok bool) {
	q, picks := &t.quads[at], slices.Clone(p.picks)
	is, _ := t.paid(p.scenario, p.picks)
	for k := range q.ways {
		if q.buyings[k].of != q.buyings[way].of {
			continue
		}
		picks[at] = k
		if would, had := t.paid(p.scenario, picks); had && (!ok || would-is < more) {
			more, ok = would-is, true
		}
	}
	return more, ok
}
