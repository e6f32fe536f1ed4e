package assign

import (
	"cmp"
	"math"
	"slices"
)

// A bound says what the places that are left can be worth at most for some money: options are
// taken in parts, and what there is only so much of is lent at a rent instead of being counted.
// Whatever the rents, that is never less than what can be had (Lagrangian relaxation; Geoffrion
// 1974. Options in parts: Sinha and Zoltners 1979).

// bound is that for one set of rents.
type bound struct {
	rent  []int64   // of each thing, in hundredths
	rest  []outline // by the first place that is left
	spare []int64   // what the rents of all that there is come to, by the first place that is left
}

// outline is worth by money, rising and bent to the right: between two corners options are taken
// in parts.
type outline struct{ money, worth []int64 }

const never = math.MinInt64

// at is the most worth for some money; never where it does not do for the cheapest.
func (o *outline) at(money int64) int64 {
	n := len(o.money)
	if n == 0 || money < o.money[0] {
		return never
	}
	i, there := slices.BinarySearch(o.money, money)
	if !there {
		i--
	}
	if i == n-1 {
		return o.worth[i]
	}
	return o.worth[i] + (money-o.money[i])*(o.worth[i+1]-o.worth[i])/(o.money[i+1]-o.money[i])
}

// corner is one of the outline of a place, with its option.
type corner struct {
	money, worth int64
	option       int
}

// corners are those of the options of a place: the cheapest, then those that bring the most worth
// for the money.
func corners(options []Option, rent []int64) (list []corner) {
	all := make([]corner, 0, len(options))
	for i := range options {
		c := corner{options[i].Money, options[i].Worth, i}
		for _, u := range options[i].Uses {
			c.money += rent[u.Thing] * int64(u.Count)
		}
		all = append(all, c)
	}
	slices.SortFunc(all, func(a, b corner) int {
		return cmp.Or(cmp.Compare(a.money, b.money), cmp.Compare(b.worth, a.worth))
	})
	for _, c := range all {
		if n := len(list); n > 0 && c.worth <= list[n-1].worth {
			continue
		}
		for n := len(list); n > 1 && !bends(list[n-2], list[n-1], c); n = len(list) {
			list = list[:n-1]
		}
		list = append(list, c)
	}
	return list
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
	sides, first := p.sides(rent)
	n := len(p.Places)
	b := &bound{rent: rent, rest: make([]outline, n+1), spare: make([]int64, n+1)}
	for k := range b.rest {
		o := outline{make([]int64, 1, len(sides)+1), make([]int64, 1, len(sides)+1)}
		for _, c := range first[k:] {
			o.money[0], o.worth[0] = o.money[0]+c.money, o.worth[0]+c.worth
		}
		for _, s := range sides {
			if s.place >= k {
				last := len(o.money) - 1
				o.money, o.worth = append(o.money, o.money[last]+s.money), append(o.worth, o.worth[last]+s.worth)
			}
		}
		b.rest[k] = o
	}
	for k := range n {
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
	free := p.bound(make([]int64, len(p.Things))).rest[0]
	all := free.money[len(free.money)-1] - free.money[0]
	rent := make([]int64, len(p.Things))
	high := free.money[0] + all
	beyond := []int64{high + all/4, high + all*3/4, high + all*3/2} // what is bought beside is not in it
	for _, money := range append(free.spread(budgets), beyond...) {
		rent = p.rents(slices.Clone(rent), money, all)
		list, at = append(list, p.bound(rent)), append(at, money)
	}
	return list, at
}

// spread are so many budgets between which about as much worth lies.
func (o *outline) spread(n int) (list []int64) {
	low, high := o.worth[0], o.worth[len(o.worth)-1]
	for i := range n {
		want := low + (high-low)*int64(i)/int64(n-1)
		at, _ := slices.BinarySearch(o.worth, want)
		money := o.money[at]
		if at > 0 {
			money = o.money[at-1] + (want-o.worth[at-1])*(o.money[at]-o.money[at-1])/(o.worth[at]-o.worth[at-1])
		}
		list = append(list, money)
	}
	return list
}

// rents are those with which least is left to be hoped for within a budget, as far as they are
// found: what is drawn on more than there is becomes dearer (subgradient; Held, Wolfe and Crowder
// 1974). A rent never is above what one more costs.
func (p *Problem) rents(rent []int64, budget, all int64) []int64 {
	if len(p.Things) == 0 {
		return rent
	}
	best, least := rent, int64(math.MaxInt64)
	step := float64(all) / float64(4*len(p.Places))
	for range mended {
		worth, used := p.inParts(rent, budget)
		if worth < least {
			best, least = rent, worth
		} else {
			step *= 0.8
		}
		next := make([]int64, len(rent))
		for t := range rent {
			over := used[t] - float64(p.Things[t].Have)
			next[t] = max(0, rent[t]+int64(step*over))
			if most := p.Things[t].Price; most >= 0 {
				next[t] = min(next[t], most)
			}
		}
		rent = next
		step *= 0.95
	}
	return best
}

// inParts is the most worth within a budget with options taken in parts, and what that draws on.
func (p *Problem) inParts(rent []int64, budget int64) (worth int64, used []float64) {
	used = make([]float64, len(p.Things))
	draw := func(place, option int, part float64) {
		for _, u := range p.Places[place][option].Uses {
			used[u.Thing] += part * float64(u.Count)
		}
	}
	for t, r := range rent {
		budget += r * int64(p.Things[t].Have)
	}
	sides, first := p.sides(rent)
	for at, c := range first {
		budget, worth = budget-c.money, worth+c.worth
		draw(at, c.option, 1)
	}
	for _, s := range sides {
		if budget <= 0 {
			break
		}
		part := min(1, float64(budget)/float64(s.money))
		draw(s.place, s.from, -part)
		draw(s.place, s.to, part)
		worth, budget = worth+int64(part*float64(s.worth)), budget-s.money
	}
	return worth, used
}
