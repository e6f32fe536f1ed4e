package decide

import (
	"context"
	"fmt"
	"slices"
	"testing"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/swap"
)

// Fit is what a way puts on its quad.
func (w *Way) Fit() *fleet.Fit { return &w.fit }

// ReadyOn is a quad bought whole, by its id, for a quad.
func ReadyOn(c fleet.Case, id string) Candidate {
	list := BoughtWhole(c)
	return list[slices.IndexFunc(list, func(one Candidate) bool { return one.Key == "ready:"+id })]
}

// Ranked gives candidates their places.
func Ranked(list []Candidate) { rank(list) }

// LinkedWith are the goggles owned that a way links with, by name.
func LinkedWith(w *Way) []string { return w.outcome.Goggles }

// LinkOpen says whether the link of a fit stands open.
func LinkOpen(c fleet.Case) bool {
	v := swap.Lazily(c).Gate(0)
	return standingOf(&v) < hangs
}

// Share is how much of a criterion an outcome has, by itself.
func Share(c Criterion, o *Outcome) float64 {
	var s scale
	s.take(o)
	share, _ := s.share(c, o)
	return share
}

// Lost is the worth waited for in the order that is found for a choice, and the least of all orders
// there are; below zero: none is ever paid for.
func (w *Weighed) Lost(budget int64, purse Purse, days Calendar) (found, least int64) {
	s := newSequencer(w.table, &w.points[w.within(budget)], purse, days)
	order, _ := s.best(context.Background())
	run := func(order []int) int64 {
		seq, done := sequence{day: -1}, uint64(0)
		for _, k := range order {
			next, ok := s.then(seq, done, k)
			if !ok || s.jobs[k].before&^done != 0 {
				return -1
			}
			seq, done = next, done|1<<k
		}
		if len(order) < len(s.jobs) {
			return -1
		}
		return seq.lost
	}
	least = -1
	permute(len(s.jobs), func(order []int) {
		if lost := run(order); lost >= 0 && (least < 0 || lost < least) {
			least = lost
		}
	})
	return run(order), least
}

// permute calls do with each order of n things.
func permute(n int, do func([]int)) {
	var from func(order []int)
	from = func(order []int) {
		if len(order) == n {
			do(order)
			return
		}
		for i := range n {
			if !slices.Contains(order, i) {
				from(append(slices.Clip(order), i))
			}
		}
	}
	from(nil)
}

// Keep has few part choices kept of a scenario, whatever the fleet.
func Keep(t *testing.T, few int) {
	up, most, least := exactUpTo, mostChoices, leastChoices
	exactUpTo, mostChoices, leastChoices = 0, few, few
	t.Cleanup(func() { exactUpTo, mostChoices, leastChoices = up, most, least })
}

// TellApart tells pieces apart that are alike.
func TellApart(t *testing.T) {
	asOne = false
	t.Cleanup(func() { asOne = true })
}

// Times are the ways of a fleet with so many quads like each.
func (w *Ways) Times(n int) *Ways {
	f := *w.index.Fleet
	f.Quads = nil
	out := Ways{library: w.library}
	for i := range n {
		for k := range w.Quads {
			quad := w.index.Quads[k]
			quad.ID = fmt.Sprint(quad.ID, "-", i)
			quad.Weight = new(1 + (i+k)%4)
			ways := w.Quads[k]
			ways.Quad = quad.ID
			f.Quads, out.Quads = append(f.Quads, quad), append(out.Quads, ways)
		}
	}
	out.index = fleet.NewIndex(&f)
	return &out
}
