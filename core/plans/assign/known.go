package assign

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
)

// known are choices that were found soon, and what they leave to be hoped for: a label that
// cannot become better than they are is dropped (dynamic programming with bounds; Morin and
// Marsten 1976).
type known struct {
	whole  front
	bounds []*bound
	at     []int64 // the budgets their rents suit
	within []int64 // the budgets within which choices are looked for
	steps  []step
	grain  grain
	// searched says that choices were looked for beside what is had elsewhere.
	searched bool
}

// step is a range of budgets within which the same choice is the best that is known.
type step struct {
	money int64 // the greatest budget of it
	worth int64 // within it; never: nothing is known
	bound int   // whose rents suit it
	lost  int64 // what a choice that was dropped could be worth within it; never: none was
}

// easy is how many ways to draw on things are told apart before choices are looked for; a test looks for
// them at once.
var easy = 600

// mostSmall is how many choices there are at most where every difference in worth counts.
const mostSmall = 1_000_000

// hard is how many part choices there are before choices are looked for beside what is had elsewhere.
const hard = 4000

const (
	// between is within how many budgets they are from those that rents suit to the next, soon how
	// many labels are kept of each.
	between = 4
	soon    = 6
	// mostSteps is how many steps are told apart about.
	mostSteps = 128
	// unlimited is more money than anything costs.
	unlimited = math.MaxInt64 / 4
)

// known are the bounds, and what is had elsewhere.
func (p *Problem) known(fore *half) *known {
	k := &known{}
	if p.large() {
		k.grain = grain(p.Grain)
	}
	k.bounds, k.at = p.bounds()
	for i := range k.at {
		step := (k.at[i] - k.at[max(0, i-1)]) / between
		for n := range int64(between) {
			k.within = append(k.within, k.at[i]-n*step)
		}
	}
	fore.bounds = k.bounds
	for _, c := range p.Beat {
		k.whole.take(whole{money: c.Money, worth: c.Worth})
	}
	k.stairs()
	return k
}

// large says whether there are more choices than are gone through in a moment.
func (p *Problem) large() bool {
	choices := 1
	for _, options := range p.Places {
		if choices *= len(options); choices > mostSmall {
			return true
		}
	}
	return false
}

// search finds choices soon: of the labels of each place those are kept from which most is to be
// hoped for within some budgets, and from what comes of them it is climbed.
func (k *known) search(ctx context.Context, p *Problem) error {
	k.searched = true
	h := p.half()
	h.bounds = k.bounds
	for range p.Places {
		if err := ctx.Err(); err != nil {
			return err
		}
		next, err := h.next()
		if err != nil {
			h.labels = nil // there may be choices all the same
			break
		}
		h.labels = k.best(h, next, soon)
	}
	if len(h.labels) == 0 {
		found, err := p.any(ctx)
		if err != nil {
			return err
		}
		h.labels = []*label{found}
	}
	var own front
	for _, l := range h.labels {
		own.take(whole{l.money, l.worth, l, nil})
	}
	if err := p.climb(ctx, &own); err != nil {
		return err
	}
	for _, w := range own {
		k.whole.take(w)
	}
	k.stairs()
	return nil
}

// any is some choice for all places, whatever it costs and is worth.
func (p *Problem) any(ctx context.Context) (*label, error) {
	bare := *p
	bare.Places = make([][]Option, len(p.Places))
	for at, options := range p.Places {
		for _, o := range options {
			bare.Places[at] = append(bare.Places[at], Option{Uses: o.Uses})
		}
	}
	from := bare.reduce()
	h := bare.half()
	for range bare.Places {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		next, err := h.next()
		if err != nil {
			return nil, fmt.Errorf("find any choice: %w", err)
		}
		h.labels, _ = h.unbeaten(next, 0)
		h.labels = h.unexchanged(h.labels, 0)
	}
	found := &label{used: make([]uint8, len(p.Things))}
	for at, pick := range picked(h.labels[0], nil, from) {
		found = p.with(found, &p.Places[at][pick], pick)
	}
	return found, nil
}

// turned are the bounds for the same places from the last to the first.
func (k *known) turned(p *Problem) (list []*bound) {
	for _, b := range k.bounds {
		list = append(list, p.bound(b.rent))
	}
	return list
}

// best are the labels from which most is to be hoped for within each of the budgets: of those alike in
// that, what draws on least.
func (k *known) best(h *half, labels []*label, each int) (best []*label) {
	type hope struct {
		worth int64
		draws int
		label *label
	}
	draws := make([]int, len(labels))
	for i, l := range labels {
		for _, n := range l.used {
			draws[i] += int(n)
		}
	}
	taken := map[*label]bool{}
	for _, money := range k.within {
		b := h.bounds[k.near(money)]
		hopes := make([]hope, 0, each+1) // the best first
		for i, l := range labels {
			is := hope{k.grain.of(b.at(l, h.taken, money)), draws[i], l}
			order := func(h hope, is hope) int { return cmp.Or(cmp.Compare(is.worth, h.worth), h.draws-is.draws) }
			if is.worth == never || len(hopes) == each && order(hopes[each-1], is) <= 0 {
				continue
			}
			at, _ := slices.BinarySearchFunc(hopes, is, order)
			hopes = slices.Insert(hopes[:min(len(hopes), each)], at, is)
			hopes = hopes[:min(len(hopes), each)]
		}
		for _, h := range hopes {
			if !taken[h.label] {
				taken[h.label] = true
				best = append(best, h.label)
			}
		}
	}
	return best
}

// grain is how much worth makes a difference.
type grain int64

// of is how many whole grains a worth is, rounded up.
func (g grain) of(worth int64) int64 {
	if worth == never || g <= 1 {
		return worth
	}
	return (worth + int64(g) - 1) / int64(g)
}

// near is the bound whose rents suit a budget.
func (k *known) near(money int64) (at int) {
	for i := range k.at {
		if money >= k.at[i] {
			at = i
		}
	}
	return at
}

// stairs are the steps that the known choices leave, each about as high.
func (k *known) stairs() {
	k.steps = nil
	rise := int64(0)
	if n := len(k.whole); n > 0 {
		rise = (k.whole[n-1].worth - k.whole[0].worth) / mostSteps
	}
	worth := int64(never)
	for _, w := range k.whole {
		if worth == never || w.worth > worth+rise {
			k.steps = append(k.steps, step{w.money - 1, worth, k.near(w.money), never})
			worth = w.worth
		}
	}
	k.steps = append(k.steps, step{unlimited, worth, k.near(unlimited), never})
}

// hopeful are the labels that may become better than what is known.
func (k *known) hopeful(h *half, labels []*label) []*label {
	if k == nil {
		return labels
	}
	if h.bounds == nil {
		h.bounds = k.turned(h.Problem)
	}
	return slices.DeleteFunc(labels, func(l *label) bool {
		return !slices.ContainsFunc(k.steps, func(s step) bool {
			near := h.bounds[max(0, s.bound-1):min(len(h.bounds), s.bound+2)]
			return !slices.ContainsFunc(near, func(b *bound) bool {
				return k.grain.of(b.at(l, h.taken, s.money)) <= k.grain.of(s.worth)
			})
		})
	})
}

// some are about as many labels as are to be kept; what those that are not could become is noted.
func (k *known) some(h *half, most int) []*label {
	kept := k.best(h, h.labels, max(1, most/len(k.within)))
	in := make(map[*label]bool, len(kept))
	for _, l := range kept {
		in[l] = true
	}
	for _, l := range h.labels {
		if in[l] {
			continue
		}
		for i := range k.steps {
			s := &k.steps[i]
			s.lost = max(s.lost, h.bounds[s.bound].at(l, h.taken, s.money))
		}
	}
	return kept
}

// front are the choices to begin with.
func (k *known) front() *front {
	if k == nil {
		return &front{}
	}
	return &k.whole
}

// fine is how much more makes a difference: where little is looked at, all does.
func (k *known) fine() grain {
	if k == nil {
		return 0
	}
	return k.grain
}

// limit says of each choice of a curve what no choice is worth more than that costs less than
// the next.
func (k *known) limit(list []Choice) {
	for i := range list {
		c := &list[i]
		c.AtMost = c.Worth
		if k == nil {
			continue
		}
		money := int64(unlimited)
		if i+1 < len(list) {
			money = list[i+1].Money - 1
		}
		at := slices.IndexFunc(k.steps, func(s step) bool { return s.money >= money })
		c.AtMost = max(c.Worth, k.steps[at].lost)
	}
}
