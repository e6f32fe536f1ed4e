package assign

import (
	"cmp"
	"context"
	"fmt"
	"slices"
)

// half is the places from one end on, as far as they are taken (meet in the middle; Horowitz and
// Sahni 1974): labels are fewest near both ends.
type half struct {
	*Problem // its places in the order in which they are taken
	labels   []*label
	taken    int        // places
	groups   int        // that draw on things in the same way
	bounds   []*bound   // in that order; nil: not worked out
	pays     []exchange // by the first place that is left, for worths by payGrain; nil: not worked out
	payGrain grain
}

func (p *Problem) half() *half {
	return &half{Problem: p, labels: []*label{{used: make([]uint8, len(p.Things))}}}
}

// turned is the problem with its places from the last to the first.
func (p *Problem) turned() *Problem {
	other := *p
	other.Places = slices.Clone(p.Places)
	slices.Reverse(other.Places)
	return &other
}

// next are the labels with the options of one place more.
func (h *half) next() (next []*label, err error) {
	options := h.Places[h.taken]
	for _, l := range h.labels {
		for i := range options {
			if more := h.with(l, &options[i], i); more != nil {
				next = append(next, more)
			}
		}
	}
	if len(next) == 0 {
		return nil, fmt.Errorf("no option is left of %d", len(options))
	}
	h.taken++
	h.forget(next, h.taken)
	return next, nil
}

// front are whole choices that no other beats, the cheapest first.
type front []whole

// whole is a choice for all places: that of one end and that of the other.
type whole struct {
	money, worth int64
	fore, back   *label // back nil: fore holds all places; fore nil: it is had elsewhere
}

// join takes in what the labels of two halves are together, where that is more by a grain.
func (f *front) join(ctx context.Context, fore, back *half, g grain) error {
	if len(back.labels) == 0 {
		return nil
	}
	slices.SortFunc(back.labels, func(a, b *label) int { return cmp.Compare(a.money, b.money) })
	best := front{} // of the labels of the other end, whatever they draw on
	for _, m := range back.labels {
		best.take(whole{m.money, m.worth, m, nil})
	}
	for _, l := range fore.labels {
		if err := ctx.Err(); err != nil {
			return err
		}
		if !f.mayGain(l, best, g) {
			continue
		}
		at := f.within(l.money + back.labels[0].money)
		for _, m := range back.labels {
			money, worth := l.money+m.money, l.worth+m.worth
			for at+1 < len(*f) && (*f)[at+1].money <= money {
				at++
			}
			if at >= 0 && g.of((*f)[at].worth) >= g.of(worth) {
				continue
			}
			if beyond, ok := fore.beyond(l.used, m.used); ok {
				f.take(whole{money + beyond, worth, l, m})
				at = f.within(money)
			}
		}
	}
	return nil
}

// mayGain says whether a label may come to something better with any of some labels, if they draw
// on different things.
func (f *front) mayGain(l *label, best front, g grain) bool {
	return slices.ContainsFunc(best, func(m whole) bool {
		at := f.within(l.money + m.money)
		return at < 0 || g.of((*f)[at].worth) < g.of(l.worth+m.worth)
	})
}

// beyond is what is to be paid for what both draw on together beyond what there is; false where
// there is no more of something.
func (p *Problem) beyond(one, other []uint8) (money int64, ok bool) {
	for t := range one {
		if over := int64(one[t]) + int64(other[t]) - int64(p.Things[t].Have); over > 0 {
			if p.Things[t].Price < 0 {
				return 0, false
			}
			money += over * p.Things[t].Price
		}
	}
	return money, true
}

// within is the place of the worthiest within some money; below zero: none is.
func (f *front) within(money int64) int {
	at, there := slices.BinarySearchFunc(*f, money, func(w whole, money int64) int { return cmp.Compare(w.money, money) })
	if there {
		return at
	}
	return at - 1
}

// take takes in a choice, and lets go of those it beats.
func (f *front) take(w whole) {
	at := f.within(w.money)
	if at >= 0 && (*f)[at].worth >= w.worth {
		return
	}
	from := at + 1
	if at >= 0 && (*f)[at].money == w.money {
		from = at
	}
	to := from
	for to < len(*f) && (*f)[to].worth <= w.worth {
		to++
	}
	*f = slices.Replace(*f, from, to, w)
}

// choices are what was picked for each place, by what its options are, without what is had elsewhere.
func (f front) choices(from []origin) (list []Choice) {
	for _, w := range f {
		if w.fore != nil {
			list = append(list, Choice{Money: w.money, Worth: w.worth, Picks: picked(w.fore, w.back, from)})
		}
	}
	return list
}

// picked is what was picked from both ends, by what the options are.
func picked(fore, back *label, from []origin) []int {
	picks := make([]int, len(from))
	for at, l := len(from)-back.count(), back; at < len(from); at, l = at+1, l.before {
		picks[from[at].place] = from[at].options[l.pick]
	}
	for at, l := fore.count()-1, fore; at >= 0; at, l = at-1, l.before {
		picks[from[at].place] = from[at].options[l.pick]
	}
	return picks
}

// count is how many places a label is for.
func (l *label) count() (n int) {
	for ; l != nil && l.before != nil; l = l.before {
		n++
	}
	return n
}
