package change

import (
	"cmp"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// shopper goes through the ways to buy a list.
type shopper struct {
	lib    *gear.Library
	fleet  *fleet.Fleet
	terms  Terms
	shared func(string) bool
	wants  []want
	sides  []string // models that are shared, of what is wanted and what comes with it
	part   []int    // of the wants, by their places: what is bought is independent of the others
	taken  []taking
	steps  int  // left to be gone
	cut    bool // not all ways were gone through
	found  []found
	so     found // what is taken so far, in money
}

// want is a model of a list.
type want struct {
	model  string
	count  int
	shared bool
	offers []Line // the prices it is bought at, one of each
	plain  Line   // what it is where it is not bought
	comes  bool   // something later on the list may bring it
}

// taking is how often something is bought at a price; offer below zero: it is drawn of what is shared.
type taking struct{ want, offer, times int }

// found is a way to buy all.
type found struct {
	taken    []taking
	unpriced int
	amount   int64
	draws    []int // of each model that is shared, less what is left over of it
}

// pieces is how many of its own model come for one price.
func (l *Line) pieces() int { return 1 + l.brings(l.Model) }

// brings is how many of a model come beside it.
func (l *Line) brings(model string) (n int) {
	for _, p := range l.With {
		if p.Model == model {
			n += p.Count
		}
	}
	return n
}

func (w *want) brings(model string) bool {
	return slices.ContainsFunc(w.offers, func(l Line) bool { return l.Model != model && l.brings(model) > 0 })
}

// lists says whether a model is on the list.
func (s *shopper) lists(model string) bool {
	return slices.ContainsFunc(s.wants, func(w want) bool { return w.model == model })
}

// offers are the prices a model is bought at: of those that bring nothing that is asked for, the
// cheapest. Where that is shared, it is not told apart from what is drawn.
func (s *shopper) offers(w *want) {
	deals := dealsOf(s.lib, s.fleet, w.model, s.terms)
	w.shared = s.shared(w.model)
	var plain *Line
	for _, l := range deals {
		if l.Amount != nil && slices.ContainsFunc(l.With, func(p gear.Pieces) bool { return s.asks(p.Model) }) {
			w.offers = append(w.offers, l)
		} else if plain == nil || l.Amount != nil && (plain.Amount == nil || *l.Amount < *plain.Amount) {
			plain = &l
		}
	}
	if plain != nil && !w.shared {
		w.offers = append(w.offers, *plain)
	}
	w.plain = *cmp.Or(plain, &deals[0])
	w.plain.Amount, w.plain.With = nil, nil
	for i := range w.offers {
		s.share(w.offers[i].With)
	}
	s.share([]gear.Pieces{{Model: w.model}})
}

// besides puts what is bought for what comes with it on the list.
func (s *shopper) besides(lacks map[string]int) {
	for _, l := range Besides(s.lib, s.fleet, lacks, s.terms, s.shared) {
		last := len(s.wants) - 1
		if s.wants[last].model != l.Model {
			s.wants, last = append(s.wants, want{model: l.Model, plain: l}), last+1
		}
		s.wants[last].offers = append(s.wants[last].offers, l)
		s.share(l.With)
	}
}

// share notes what is shared of some models.
func (s *shopper) share(list []gear.Pieces) {
	for _, p := range list {
		if s.shared(p.Model) && !slices.Contains(s.sides, p.Model) {
			s.sides = append(s.sides, p.Model)
		}
	}
}

// asks says whether a model is on the list, or shared.
func (s *shopper) asks(model string) bool {
	return s.shared(model) || s.lists(model)
}

// buyAll goes through the ways to buy all, one part of the list after the other.
func (s *shopper) buyAll() {
	all := []found{{draws: make([]int, len(s.sides))}}
	for _, s.part = range s.parts() {
		s.found = nil
		if w := &s.wants[s.part[0]]; len(s.part) == 1 && !s.shares(w) {
			s.found = []found{w.alone(s.part[0])}
		} else {
			s.buy(0, make([]int, len(s.wants)))
		}
		all = s.together(all, s.found)
	}
	s.found = all
}

// together are the ways to buy two parts of a list, the cheapest of each first.
func (s *shopper) together(parts, others []found) []found {
	slices.SortStableFunc(parts, func(a, b found) int { return a.compare(&b) })
	slices.SortStableFunc(others, func(a, b found) int { return a.compare(&b) })
	s.found = nil
	for i := range parts {
		for k := range others {
			if s.steps--; s.steps < 0 && len(s.found) > 0 {
				s.cut = true
				return s.found
			}
			s.keep(parts[i].and(&others[k]))
		}
	}
	return s.found
}

// shares says whether anything of a model, or what comes with it, is shared.
func (s *shopper) shares(w *want) bool {
	return w.shared || slices.ContainsFunc(w.offers, func(l Line) bool {
		return slices.ContainsFunc(l.With, func(p gear.Pieces) bool { return s.shared(p.Model) })
	})
}

// parts are the models of a list that cannot come with those of others, by their places (union and find).
func (s *shopper) parts() (list [][]int) {
	of := make([]int, len(s.wants))
	for i := range of {
		of[i] = i
	}
	for i := range s.wants {
		for k := range s.wants {
			if i != k && of[i] != of[k] && s.wants[i].brings(s.wants[k].model) {
				was := of[i]
				for n := range of {
					if of[n] == was {
						of[n] = of[k]
					}
				}
			}
		}
	}
	places := map[int]int{}
	for i, part := range of {
		at, known := places[part]
		if !known {
			at, places[part] = len(list), len(list)
			list = append(list, nil)
		}
		list[at] = append(list[at], i)
	}
	return list
}

// alone is the cheapest way to buy a model by itself, at its prices as often as that takes (a knapsack
// that is to be filled; dynamic programming over the number that is had).
func (w *want) alone(at int) (out found) {
	best, last := make([]found, w.count+1), make([]int, w.count+1) // for each number, and the price it takes last
	for n := 1; n <= w.count; n++ {
		for k := range w.offers {
			is := best[max(0, n-w.offers[k].pieces())]
			is.add(&w.offers[k], 1)
			if k == 0 || is.compare(&best[n]) < 0 {
				best[n], last[n] = is, k
			}
		}
	}
	times := make([]int, len(w.offers))
	for n := w.count; n > 0; n -= w.offers[last[n]].pieces() {
		times[last[n]]++
	}
	out = best[w.count]
	for k, n := range times {
		if n > 0 {
			out.taken = append(out.taken, taking{at, k, n})
		}
	}
	return out
}

// buy goes through the ways to come by what is wanted from one model of the part on. Brought is what comes
// of each with what has been bought.
func (s *shopper) buy(at int, brought []int) {
	if at == len(s.part) {
		for _, i := range s.part {
			if brought[i] < s.wants[i].count || brought[i] > s.wants[i].count && s.draws(i) {
				return // it was hoped to come with something else, or came with it besides
			}
		}
		s.keep(found{taken: slices.Clone(s.taken), draws: s.drawn(brought), unpriced: s.so.unpriced, amount: s.so.amount})
		return
	}
	w := &s.wants[s.part[at]]
	rest := max(0, w.count-brought[s.part[at]])
	s.take(at, 0, rest, brought)
	for part := rest - 1; w.comes && part >= 0; part-- {
		s.take(at, 0, part, brought)
	}
}

// take goes through the ways to buy a number of a model at its prices from one on. The first it comes upon is a
// way to buy all.
func (s *shopper) take(at, offer, rest int, brought []int) {
	if s.steps--; s.steps < 0 && len(s.found) > 0 {
		s.cut = true
		return
	}
	w := &s.wants[s.part[at]]
	switch {
	case offer < len(w.offers):
	case rest == 0:
		s.buy(at+1, brought)
		return
	case w.shared:
		s.with(taking{s.part[at], -1, rest}, brought, func(brought []int) { s.buy(at+1, brought) })
		return
	default:
		return // it was not bought
	}
	pieces := w.offers[offer].pieces()
	most := max((rest+pieces-1)/pieces, s.timesFor(&w.offers[offer]))
	least := 0
	if offer == len(w.offers)-1 && !w.shared {
		least = (rest + pieces - 1) / pieces
	}
	for times := least; times <= most; times++ { // few first: that is mostly cheap
		if times == 0 {
			s.take(at, offer+1, rest, brought)
			continue
		}
		s.with(taking{s.part[at], offer, times}, brought, func(brought []int) {
			s.take(at, offer+1, max(0, rest-times*pieces), brought)
		})
	}
}

// timesFor is how often a bundle is bought at most for what else of the list comes with it.
func (s *shopper) timesFor(l *Line) (times int) {
	for _, w := range s.wants {
		if n := l.brings(w.model); n > 0 && w.model != l.Model {
			times = max(times, (w.count+n-1)/n)
		}
	}
	return times
}

// with goes on with something taken.
func (s *shopper) with(t taking, brought []int, on func(brought []int)) {
	brought = slices.Clone(brought)
	before := s.so
	brought[t.want] += t.times
	if t.offer >= 0 {
		l := &s.wants[t.want].offers[t.offer]
		for i := range s.wants {
			brought[i] += t.times * l.brings(s.wants[i].model)
		}
		s.so.add(l, t.times)
	}
	s.taken = append(s.taken, t)
	if !s.beaten() {
		on(brought)
	}
	s.taken, s.so = s.taken[:len(s.taken)-1], before
}

// beaten says whether what is taken so far costs no less than a way to buy all; where something is shared
// that cannot be said before it is known what is drawn.
func (s *shopper) beaten() bool {
	return len(s.sides) == 0 && len(s.found) > 0 && s.found[0].compare(&s.so) <= 0
}

// keep keeps a way to buy all that no other beats.
func (s *shopper) keep(f found) {
	if slices.ContainsFunc(s.found, func(o found) bool { return o.beats(&f) }) {
		return
	}
	s.found = append(slices.DeleteFunc(s.found, func(o found) bool { return f.beats(&o) }), f)
}

// add takes in what something costs so often.
func (f *found) add(l *Line, times int) {
	if l.Amount == nil {
		f.unpriced += times
	} else {
		f.amount += *l.Amount * int64(times)
	}
}

// and is a way to buy two parts of a list.
func (f *found) and(o *found) found {
	out := found{taken: slices.Concat(f.taken, o.taken), unpriced: f.unpriced + o.unpriced, amount: f.amount + o.amount,
		draws: slices.Clone(f.draws)}
	for k := range o.draws {
		out.draws[k] += o.draws[k]
	}
	return out
}

// draws says whether some of a model is drawn.
func (s *shopper) draws(want int) bool {
	return slices.ContainsFunc(s.taken, func(t taking) bool { return t.want == want && t.offer < 0 })
}

// drawn are what is drawn of each model that is shared, less what is left over of it.
func (s *shopper) drawn(brought []int) []int {
	draws := make([]int, len(s.sides))
	for k, model := range s.sides {
		for _, i := range s.part {
			if s.wants[i].model == model {
				draws[k] -= brought[i] - s.wants[i].count
			}
		}
	}
	for _, t := range s.taken {
		for k, model := range s.sides {
			switch w := &s.wants[t.want]; {
			case t.offer < 0 && w.model == model:
				draws[k] += t.times
			case t.offer >= 0 && !s.lists(model):
				draws[k] -= t.times * w.offers[t.offer].brings(model)
			}
		}
	}
	return draws
}

// compare holds two ways to buy a list against each other by what they cost.
func (f *found) compare(o *found) int {
	return cmp.Or(cmp.Compare(f.unpriced, o.unpriced), cmp.Compare(f.amount, o.amount))
}

// beats says whether a way to buy a list costs no more than another, and draws no more of anything.
func (f *found) beats(o *found) bool {
	for k := range f.draws {
		if f.draws[k] > o.draws[k] {
			return false
		}
	}
	return f.compare(o) <= 0
}

// baskets are what was found, the cheapest first.
func (s *shopper) baskets() (list []Basket) {
	slices.SortStableFunc(s.found, func(a, b found) int { return a.compare(&b) })
	for i := range s.found {
		f := &s.found[i]
		b := Basket{Lines: []Line{}, Draws: map[string]int{}}
		for k, model := range s.sides {
			if f.draws[k] != 0 {
				b.Draws[model] = f.draws[k]
			}
		}
		for at := range s.wants {
			b.Lines = append(b.Lines, s.lines(f, at)...)
		}
		list = append(list, b)
	}
	return list
}

// lines are those of a model.
func (s *shopper) lines(f *found, at int) (list []Line) {
	w := &s.wants[at]
	rest := w.count
	for _, t := range f.taken {
		if t.want != at {
			continue
		}
		line, pieces := w.plain, 1
		if t.offer >= 0 {
			line = w.offers[t.offer]
			pieces, line.Times = line.pieces(), t.times
			if line.Amount != nil {
				line.Amount = new(*line.Amount * int64(t.times))
			}
		}
		line.Count = min(rest, t.times*pieces)
		if t.offer < 0 {
			line.Drawn = line.Count
		}
		rest -= line.Count
		list = append(list, line)
	}
	if len(list) == 0 && w.count == 0 {
		return nil // it was not bought for what comes with it
	}
	if len(list) == 0 {
		line := w.plain
		if !line.Printed {
			line.Amount = new(int64(0))
		}
		list = []Line{line}
	}
	list[0].Count, list[0].Boxed = list[0].Count+rest, rest
	return list
}
