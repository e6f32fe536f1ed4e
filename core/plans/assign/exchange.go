package assign

import (
	"cmp"
	"math"
	"math/bits"
	"slices"
)

// Where one thing does as well as another for what is still to be chosen, it is all the same which
// of them was drawn on: a label beats another that has drawn on other things where the places that
// are left can do with what it leaves them, for no more money (dominance with exchange; Ibaraki 1977).
// That holds as long as those places are free to choose, so that it is made use of from one end only:
// from both, each would leave to the other what it has let go of itself.

// exchange is what the places from one on pay at most to do without one of a thing, for no less worth:
// with one of another thing, and last of all with none. What cannot be done without costs beyond.
type exchange [][]int64

// beyondAll is more than anything costs.
const beyondAll = math.MaxInt64 / 8

// exchanges are what the places from each on pay, worths told apart by whole grains.
func (p *Problem) exchanges(g grain) []exchange {
	list := make([]exchange, len(p.Places)+1)
	for at := len(p.Places); at >= 0; at-- {
		e := make(exchange, len(p.Things))
		for t := range e {
			e[t] = make([]int64, len(p.Things)+1)
			if at < len(p.Places) {
				copy(e[t], list[at+1][t])
			}
		}
		if at < len(p.Places) {
			p.exchangedAt(at, g, e)
		}
		list[at] = e
	}
	return list
}

// exchange is what the places that are left pay.
func (h *half) exchange(g grain) exchange {
	if h.pays == nil || h.payGrain != g {
		h.pays, h.payGrain = h.exchanges(g), g
	}
	return h.pays[h.taken]
}

// exchangedAt takes in what a place pays.
func (p *Problem) exchangedAt(at int, g grain, e exchange) {
	options := p.Places[at]
	for i := range options {
		for _, u := range options[i].Uses {
			if p.Things[u.Thing].Price >= 0 {
				continue // it is bought
			}
			pays := slices.Repeat([]int64{beyondAll}, len(p.Things)+1)
			for k := range options {
				if g.of(options[k].Worth) < g.of(options[i].Worth) {
					continue
				}
				if with, more, ok := p.instead(&options[i], &options[k], u); ok {
					pays[with] = min(pays[with], more)
				}
			}
			for s := range pays {
				e[u.Thing][s] = max(e[u.Thing][s], min(pays[s], pays[len(p.Things)]))
			}
		}
	}
}

// instead is the thing that an option draws on instead of what another does, the number of things where
// it is none, and what it costs more; false: it draws on more.
func (p *Problem) instead(had, is *Option, of Use) (with int, more int64, ok bool) {
	with, more = len(p.Things), is.Money-had.Money
	for _, u := range is.Uses {
		n := u.Count
		for _, v := range had.Uses {
			if v.Thing == u.Thing && v != of {
				n -= v.Count
			}
		}
		switch price := p.Things[u.Thing].Price; {
		case n <= 0:
		case price >= 0:
			more += int64(n) * price
		case n > 1 || with < len(p.Things):
			return 0, 0, false
		default:
			with = u.Thing
		}
	}
	return with, more, true
}

// exchanger holds labels against each other by what the places that are left pay for an exchange.
type exchanger struct {
	*Problem
	pays   exchange
	packed *packed
	prices []int64  // of the things
	least  []int64  // what each thing is done without for at least
	never  []uint64 // the things that cannot be done without, as they are packed
	short  []int    // of each thing, while two labels are held against each other
}

// unexchanged are the labels that none beats where the places that are left exchange what it leaves them.
func (h *half) unexchanged(labels []*label, g grain) (left []*label) {
	e := exchanger{Problem: h.Problem, pays: h.exchange(g), short: make([]int, len(h.Things))}
	for _, t := range h.Things {
		e.prices = append(e.prices, t.Price)
	}
	for _, pays := range e.pays {
		e.least = append(e.least, slices.Min(pays))
	}
	if len(e.least) == 0 || slices.Min(e.least) >= beyondAll {
		return labels
	}
	slices.SortStableFunc(labels, func(a, b *label) int {
		return cmp.Or(cmp.Compare(a.money, b.money), cmp.Compare(b.worth, a.worth))
	})
	e.pack(labels)
	var kept []int
	worths := make([]int64, len(labels))
	for i, l := range labels {
		worths[i] = g.of(l.worth)
		beaten := false
		for _, k := range slices.Backward(kept) { // what costs about as much is most alike
			if beaten = worths[k] >= worths[i] && e.beats(labels, k, i); beaten {
				break
			}
		}
		if !beaten {
			kept, left = append(kept, i), append(left, l)
		}
	}
	return left
}

// pack packs what labels draw on.
func (e *exchanger) pack(labels []*label) {
	order := make([]string, len(labels))
	for i, l := range labels {
		order[i] = string(l.used)
	}
	e.packed = e.Problem.pack(order)
	e.never = make([]uint64, e.packed.words)
	for at, t := range e.packed.things {
		if e.least[t] >= beyondAll {
			e.never[at/64] |= 1 << (at % 64) // where nothing is packed, nothing is asked
		}
	}
}

// beats says whether a label leaves what does for what another leaves, for no more money than that
// costs more.
func (e *exchanger) beats(labels []*label, one, other int) bool {
	left := labels[other].money - labels[one].money
	for w := range e.packed.words {
		over := e.packed.over(w, one, other)
		if over&e.never[w] != 0 {
			return false
		}
		for ; over != 0; over &= over - 1 {
			if left -= e.least[e.packed.things[w*64+bits.TrailingZeros64(over)]]; left < 0 {
				return false
			}
		}
	}
	return e.doesFor(labels[one], labels[other])
}

// doesFor says the same, and works out which exchanges are made: each for what is cheapest then.
func (e *exchanger) doesFor(one, other *label) bool {
	left, short := other.money-one.money, e.short
	used, most, wants := one.used, other.used[:len(one.used)], false
	for t, price := range e.prices {
		more := int(used[t]) - int(most[t])
		if price >= 0 {
			if more > 0 {
				if left -= int64(more) * price; left < 0 {
					return false
				}
			}
			more = 0
		}
		short[t], wants = more, wants || more > 0
	}
	for t := 0; wants && t < len(short); t++ {
		for ; short[t] > 0; short[t]-- {
			with, least := -1, e.pays[t][len(short)]
			for s, n := range short {
				if n < 0 && e.pays[t][s] < least {
					with, least = s, e.pays[t][s]
				}
			}
			if with >= 0 {
				short[with]++
			}
			if left -= least; left < 0 {
				return false
			}
		}
	}
	return left >= 0
}
