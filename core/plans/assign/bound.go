package assign

import (
	"cmp"
	"math"
	"slices"
)

// A bound says what the places that are left can be worth at most for some money: what there is
// only so much of is lent at a rent instead of being counted. Whatever the rents, that is never less
// than what can be had (Lagrangian relaxation; Geoffrion 1974), and what is left is worked out place
// by place.

// bound is that for one set of rents.
type bound struct {
	rent  []int64  // of each thing, in hundredths
	rest  []stairs // by the first place that is left
	spare []int64  // what the rents of all that there is come to, by the first place that is left
}

// stairs are the most worth by money: both rise.
type stairs struct{ money, worth []int64 }

const never = math.MinInt64

// at is the most worth for some money; never where it does not do for the cheapest.
func (s *stairs) at(money int64) int64 {
	i, there := slices.BinarySearch(s.money, money)
	if !there {
		i--
	}
	if i < 0 {
		return never
	}
	return s.worth[i]
}

// mostStairs is how many are told apart; beyond, some are taken for cheaper than they are.
const mostStairs = 1500

// before are the stairs with the options of one place more, each for what it costs with its rents.
func (s *stairs) before(options []corner) stairs {
	var all []corner
	for i := range s.money {
		for _, o := range options {
			all = append(all, corner{money: s.money[i] + o.money, worth: s.worth[i] + o.worth})
		}
	}
	slices.SortFunc(all, cheapest)
	kept := all[:0]
	for _, c := range all {
		if n := len(kept); n == 0 || c.worth > kept[n-1].worth {
			kept = append(kept, c)
		}
	}
	var out stairs
	every := (len(kept) + mostStairs - 1) / mostStairs
	for i := 0; i < len(kept); i += every {
		last := min(i+every, len(kept)) - 1 // the worthiest of some, for what the cheapest costs
		out.money, out.worth = append(out.money, kept[i].money), append(out.worth, kept[last].worth)
	}
	return out
}

// corner is one of the outline of a place, with its option.
type corner struct {
	money, worth int64
	option       int
}

// rented are the options of a place that none beats, for what they cost with their rents.
func rented(options []Option, rent []int64) (list []corner) {
	all := make([]corner, 0, len(options))
	for i := range options {
		c := corner{options[i].Money, options[i].Worth, i}
		for _, u := range options[i].Uses {
			c.money += rent[u.Thing] * int64(u.Count)
		}
		all = append(all, c)
	}
	slices.SortFunc(all, cheapest)
	for _, c := range all {
		if n := len(list); n == 0 || c.worth > list[n-1].worth {
			list = append(list, c)
		}
	}
	return list
}

// corners are those of them that bring the most worth for the money, and the cheapest.
func corners(options []Option, rent []int64) (list []corner) {
	for _, c := range rented(options, rent) {
		for n := len(list); n > 1 && !bends(list[n-2], list[n-1], c); n = len(list) {
			list = list[:n-1]
		}
		list = append(list, c)
	}
	return list
}

func cheapest(a, b corner) int {
	return cmp.Or(cmp.Compare(a.money, b.money), cmp.Compare(b.worth, a.worth))
}

// bends says whether the way from a to b rises more than that from b to c.
func bends(a, b, c corner) bool {
	return (b.worth-a.worth)*(c.money-b.money) > (c.worth-b.worth)*(b.money-a.money)
}

// side is a piece of the outline of a place: from one of its options to the next.
type side struct {
	money, worth int64
	place        int
	from, to     int // options
}

func steeper(a, b side) int {
	return cmp.Or(cmp.Compare(b.worth*a.money, a.worth*b.money), cmp.Compare(a.place, b.place))
}

// sides are those of all places, the steepest first, and the cheapest option of each.
func (p *Problem) sides(rent []int64) (list []side, first []corner) {
	for at, options := range p.Places {
		all := corners(options, rent)
		first = append(first, all[0])
		for i := 1; i < len(all); i++ {
			list = append(list, side{all[i].money - all[i-1].money, all[i].worth - all[i-1].worth, at,
				all[i-1].option, all[i].option})
		}
	}
	slices.SortFunc(list, steeper)
	return list, first
}

// bound is what is left at most, for some rents.
func (p *Problem) bound(rent []int64) *bound {
	n := len(p.Places)
	b := &bound{rent: rent, rest: make([]stairs, n+1), spare: make([]int64, n+1)}
	b.rest[n] = stairs{[]int64{0}, []int64{0}}
	for k := n - 1; k >= 0; k-- {
		b.rest[k] = b.rest[k+1].before(rented(p.Places[k], rent))
		for t, later := range p.later(k) {
			if later {
				b.spare[k] += rent[t] * int64(p.Things[t].Have)
			}
		}
	}
	return b
}

// at is what a choice for the places before one can be worth at most with all others.
func (b *bound) at(l *label, place int, money int64) int64 {
	left := money - l.money + b.spare[place]
	for t, n := range l.used {
		left -= b.rent[t] * int64(n)
	}
	rest := b.rest[place].at(left)
	if rest == never {
		return never
	}
	return l.worth + rest
}

// later says of each thing whether a place from one on draws on it.
func (p *Problem) later(place int) []bool {
	later := make([]bool, len(p.Things))
	for _, options := range p.Places[place:] {
		for i := range options {
			for _, u := range options[i].Uses {
				later[u.Thing] = true
			}
		}
	}
	return later
}

// How many budgets rents are looked for, and how often each is mended.
const (
	budgets = 12
	mended  = 40
)

// bounds are those with rents that suit some budgets.
func (p *Problem) bounds() (list []*bound, at []int64) {
	rent := make([]int64, len(p.Things))
	free := p.bound(rent).rest[0]
	for _, money := range free.spread(budgets) {
		rent = p.rents(slices.Clone(rent), money)
		list, at = append(list, p.bound(rent)), append(at, money)
	}
	return list, at
}

// spread are so many budgets between which about as much worth lies, and some beyond: what is bought
// beside what there is is not in it.
func (s *stairs) spread(n int) (list []int64) {
	last := len(s.worth) - 1
	low, high := s.worth[0], s.worth[last]
	for i := range n {
		at, _ := slices.BinarySearch(s.worth, low+(high-low)*int64(i)/int64(n-1))
		if money := s.money[at]; len(list) == 0 || money > list[len(list)-1] {
			list = append(list, money)
		}
	}
	all := s.money[last] - s.money[0]
	return append(list, s.money[last]+all/4+1, s.money[last]+all*3/4+2, s.money[last]+all*3/2+3)
}

// rents are those with which least is left to be hoped for within a budget, as far as they are
// found: what is drawn on more than there is becomes dearer (subgradient; Held, Wolfe and Crowder
// 1974). A rent never is above what one more costs.
func (p *Problem) rents(rent []int64, budget int64) []int64 {
	if len(p.Things) == 0 {
		return rent
	}
	best, least := rent, int64(math.MaxInt64)
	now := p.inParts(rent, budget)
	step := now.hundredths(p.spread() / 2)
	for range mended {
		if now.worth < least {
			best, least = rent, now.worth
		} else {
			step *= 0.8
		}
		next := make([]int64, len(rent))
		for t := range rent {
			over := now.used[t] - float64(p.Things[t].Have)
			next[t] = max(0, rent[t]+int64(math.Round(step*over)))
			if most := p.Things[t].Price; most >= 0 {
				next[t] = min(next[t], most)
			}
		}
		rent = next
		now = p.inParts(rent, budget)
		step *= 0.95
	}
	return best
}

// spread is how far the worths of the options of a place lie apart, at the middle of all places.
func (p *Problem) spread() float64 {
	sum := int64(0)
	for _, options := range p.Places {
		low, high := options[0].Worth, options[0].Worth
		for _, o := range options {
			low, high = min(low, o.Worth), max(high, o.Worth)
		}
		sum += high - low
	}
	return float64(sum) / float64(len(p.Places))
}

// parts are options taken in parts within a budget.
type parts struct {
	worth int64     // the most
	used  []float64 // of each thing
	last  side      // where the budget ends
}

// hundredths is the money that brings some worth where the budget ends.
func (p *parts) hundredths(worth float64) float64 {
	if p.last.worth == 0 {
		return worth
	}
	return worth * float64(p.last.money) / float64(p.last.worth)
}

func (p *Problem) inParts(rent []int64, budget int64) (is parts) {
	is.used = make([]float64, len(p.Things))
	draw := func(place, option int, part float64) {
		for _, u := range p.Places[place][option].Uses {
			is.used[u.Thing] += part * float64(u.Count)
		}
	}
	for t, r := range rent {
		budget += r * int64(p.Things[t].Have)
	}
	sides, first := p.sides(rent)
	for at, c := range first {
		budget, is.worth = budget-c.money, is.worth+c.worth
		draw(at, c.option, 1)
	}
	for _, s := range sides {
		is.last = s
		if budget <= 0 {
			break
		}
		part := min(1, float64(budget)/float64(s.money))
		draw(s.place, s.from, -part)
		draw(s.place, s.to, part)
		is.worth, budget = is.worth+int64(part*float64(s.worth)), budget-s.money
	}
	return is
}
