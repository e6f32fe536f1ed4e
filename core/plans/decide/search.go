package decide

import (
	"cmp"
	"context"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
)

// The search goes through fits, from the one that is asked about, by the changes that the
// gates propose, always for the first gate in bench order that is not open. Every change must
// better that gate. What is left open or warned of is a branch as well. What costs least so far
// is gone on with first (see ahead). A branch ends where what it costs so
// far is more than the plans that are kept cost whole: further changes only add (branch and
// bound, the best first; Land and Doig 1960).

// mostMade is how many fits are made to see what they would do before it is said that not all
// were: a few seconds. Showing what forbids a plan may take as many again.
const mostMade = 40_000

// finder looks for whole plans of one quad.
type finder struct {
	ctx   context.Context
	from  fleet.Case
	gates []int // that have to be open, by their places in the register
	most  int   // plans kept
	// terms are those of the bill; what has no price by them counts as unpriced.
	terms change.Terms
	*memory
	seen  map[visited]Cost
	plans []Plan
	dead  []dead
	ahead ahead
	nodes int  // fits gone on from
	made  int  // fits made
	cut   bool // not all was looked at
}

// memory is what gates said of the fits of one quad and proposed for them, by their places in
// the register.
type memory struct {
	limit   int // how many fits are made in one search
	numbers numbers
	worlds  swap.Worlds
	said    []map[key]swap.GateVerdict
	offered []map[key][]*verdict.Candidate
	better  []map[key][]*verdict.Candidate // of those, what betters it
	others  []map[key][]*verdict.Candidate // what others propose that does
}

// visited is a fit with what is left as it is in it.
type visited struct {
	key  key
	left gateSet
}

type gateSet uint16

func (s gateSet) has(i int) bool { return s&(1<<i) != 0 }

// node is a fit on the way.
type node struct {
	at    *swap.Lazy
	key   key
	kids  map[*verdict.Candidate]*node // fits one change on
	left  gateSet                      // gates whose unknown or warning is left as it is
	steps []*verdict.Candidate
	cost  Cost
	nr    int // in the order in which they were come upon
	done  bool
}

func newFinder(ctx context.Context, c fleet.Case, most int, gates []int, m *memory) *finder {
	return &finder{ctx: ctx, from: c, gates: gates, most: most, terms: change.TermsOf(c.Library, c.Fleet), memory: m,
		seen: map[visited]Cost{}}
}

func newMemory(limit int) *memory {
	return &memory{
		limit:   limit,
		said:    byGate[swap.GateVerdict](),
		offered: byGate[[]*verdict.Candidate](),
		better:  byGate[[]*verdict.Candidate](),
		others:  byGate[[]*verdict.Candidate](),
	}
}

// byGate is a map for each gate.
func byGate[T any]() []map[key]T {
	list := make([]map[key]T, len(swap.Gates))
	for i := range list {
		list[i] = map[key]T{}
	}
	return list
}

// gate is what a gate says of a fit, asked once for all that look the same to it.
func (f *finder) gate(n *node, i int) swap.GateVerdict {
	k := n.key.seenBy(swap.Gates[i].Name)
	v, known := f.said[i][k]
	if !known {
		v = n.at.Gate(i)
		f.said[i][k] = v
	}
	return v
}

// candidates are what a gate proposes for a fit.
func (f *finder) candidates(n *node, i int, v *swap.GateVerdict) []*verdict.Candidate {
	k := n.key.seenBy(swap.Gates[i].Name)
	list, known := f.offered[i][k]
	if !known {
		propose := swap.Gates[i].Candidates
		all := propose(n.at.Case)
		if worst := n.at.At(v); worst.Library != n.at.Library { // what the gear leaves open, at its worst
			all = append(slices.Clip(all), propose(worst)...)
		}
		for at := range all {
			list = append(list, &all[at])
		}
		f.offered[i][k] = list
	}
	return list
}

// standing is how a gate stands.
type standing int

const (
	open   standing = iota // it fits, or warns of something that is no more than inconvenient
	warned                 // it fits with a warning of one of the first three dangers
	hangs                  // a value is missing
	shut
)

func standingOf(v *swap.GateVerdict) standing {
	switch c := countsOf(v); {
	case c.unfit+c.change > 0:
		return shut
	case v.Level == verdict.Unknown:
		return hangs
	case c.danger > verdict.Fails.Rank():
		return warned
	}
	return open
}

// counts are how many findings of a gate are of which level, and the rank of the greatest
// danger it speaks of.
type counts struct{ unfit, change, unknown, danger int }

func countsOf(v *swap.GateVerdict) (c counts) {
	for i := range v.Findings {
		switch v.Findings[i].Level {
		case verdict.Unfit:
			c.unfit++
		case verdict.Change:
			c.change++
		case verdict.Unknown:
			c.unknown++
		}
	}
	c.danger = verdict.Greatest(v.Findings).Rank()
	return c
}

// visit looks at a fit: it is a whole plan, or goes on by its first gate that is not open. It ends
// where a gate can be opened by nothing.
func (f *finder) visit(n *node) {
	f.nodes++
	if f.spent() {
		return
	}
	at, worst := -1, open
	for _, i := range f.gates {
		v := f.gate(n, i)
		stands := standingOf(&v)
		if stands == open || n.left.has(i) && stands != shut {
			continue
		}
		if stands == shut && f.hopeless(n, i, &v) {
			f.dead = append(f.dead, dead{gate: i, verdict: v})
			return
		}
		if at < 0 || worst == warned && stands != warned {
			at, worst = i, stands
		}
	}
	if at < 0 {
		f.keep(n)
		return
	}
	f.branch(n, at)
}

// spent says whether no more is to be looked at; then not all was.
func (f *finder) spent() bool {
	f.cut = f.cut || f.made > f.limit || f.ctx.Err() != nil
	return f.cut
}

// hopeless says whether nothing that is proposed betters a gate that is shut, nor would after
// any change that betters another.
func (f *finder) hopeless(n *node, i int, v *swap.GateVerdict) bool {
	if len(f.helps(n, i, v)) > 0 || f.anotherHelps(n, i, v) {
		return false
	}
	for j := range swap.Gates { // those left aside may help as well
		if j == i {
			continue
		}
		w := f.gate(n, j)
		if standingOf(&w) == open {
			continue
		}
		for _, candidate := range f.helps(n, j, &w) {
			if unseenBy(swap.Gates[i].Name, &candidate.Patch) {
				continue
			}
			child := f.child(n, candidate)
			if after := f.gate(child, i); standingOf(&after) != shut || len(f.helps(child, i, &after)) > 0 {
				return false
			}
		}
	}
	return true
}

// branch goes on by each change that betters a gate, the cheapest first, and by leaving it as
// it is where that can be.
func (f *finder) branch(n *node, i int) {
	v := f.gate(n, i)
	list := f.helps(n, i, &v)
	stands := standingOf(&v)
	if len(list) == 0 && stands == shut {
		list = f.othersHelp(n, i, &v)
	}
	if stands == hangs {
		list = slices.Concat(list, f.helpsOthers(n, i, &v))
	}
	next := make([]*node, 0, len(list)+1)
	for _, candidate := range list {
		child := *f.child(n, candidate)
		child.kids, child.steps = nil, append(slices.Clip(n.steps), candidate)
		child.cost = f.costOf(&child)
		next = append(next, &child)
	}
	n.kids = nil // they have their own
	slices.SortStableFunc(next, func(a, b *node) int { return a.cost.compare(&b.cost) })
	if stands != shut {
		next = append(next, f.left(n, i, &v))
	}
	for _, child := range slices.Backward(next) {
		if f.fresh(child) && !f.beaten(&child.cost) {
			f.ahead.put(child)
		}
	}
}

// helps are the changes a gate proposes that better it, asked once for all fits that look the
// same to it.
func (f *finder) helps(n *node, i int, v *swap.GateVerdict) []*verdict.Candidate {
	k := n.key.seenBy(swap.Gates[i].Name)
	list, known := f.better[i][k]
	if !known {
		list = f.bettering(n, i, v, f.candidates(n, i, v))
		if !f.cut { // else it may lack some, and another search would believe it
			f.better[i][k] = list
		}
	}
	return list
}

// othersHelp are the changes other gates propose that better a gate.
func (f *finder) othersHelp(n *node, i int, v *swap.GateVerdict) (list []*verdict.Candidate) {
	if known, ok := f.others[i][n.key]; ok {
		return known
	}
	for j := range swap.Gates {
		if j != i {
			w := f.gate(n, j)
			list = append(list, f.bettering(n, i, v, f.candidates(n, j, &w))...)
		}
	}
	if !f.cut {
		f.others[i][n.key] = list
	}
	return list
}

// anotherHelps says whether othersHelp are any; it looks for no more than one.
func (f *finder) anotherHelps(n *node, i int, v *swap.GateVerdict) bool {
	if known, ok := f.others[i][n.key]; ok {
		return len(known) > 0
	}
	for j := range swap.Gates {
		if j == i {
			continue
		}
		w := f.gate(n, j)
		if slices.ContainsFunc(f.candidates(n, j, &w), func(c *verdict.Candidate) bool { return f.betters(n, i, v, c) }) {
			return true
		}
	}
	if !f.cut {
		f.others[i][n.key] = nil
	}
	return false
}

// helpsOthers are the changes a gate that hangs on something proposes that do not better it, but
// another that is not open: goggles, where the controller is not known either.
func (f *finder) helpsOthers(n *node, i int, v *swap.GateVerdict) (list []*verdict.Candidate) {
	for _, candidate := range f.candidates(n, i, v) {
		child := f.child(n, candidate)
		after := f.gate(child, i)
		if better(&after, v) || !sameGoal(n.at.Fit, child.at.Fit) {
			continue
		}
		if slices.ContainsFunc(f.gates, func(j int) bool {
			was, is := f.gate(n, j), f.gate(child, j)
			return standingOf(&was) != open && better(&is, &was)
		}) {
			list = append(list, candidate)
		}
	}
	return list
}

// bettering are those of some changes that better a gate and leave the goal alone.
func (f *finder) bettering(n *node, i int, v *swap.GateVerdict, all []*verdict.Candidate) (list []*verdict.Candidate) {
	for _, candidate := range all {
		if f.betters(n, i, v, candidate) {
			list = append(list, candidate)
		}
	}
	return list
}

// betters says whether a change betters a gate and leaves the goal alone.
func (f *finder) betters(n *node, i int, v *swap.GateVerdict, candidate *verdict.Candidate) bool {
	if unseenBy(swap.Gates[i].Name, &candidate.Patch) || f.spent() {
		return false
	}
	child := f.child(n, candidate)
	if child.key == n.key || !sameGoal(n.at.Fit, child.at.Fit) {
		return false
	}
	after := f.gate(child, i)
	return better(&after, v)
}

// child is a fit with one change more, made once for all gates that ask what it would do.
func (f *finder) child(n *node, candidate *verdict.Candidate) *node {
	if kid, made := n.kids[candidate]; made {
		return kid
	}
	f.made++
	child := &node{at: f.worlds.Lazily(change.Settled(n.at.Case, candidate.Patch)), left: n.left}
	child.key = f.numbers.near(child.at.Fit, n, touched(&candidate.Patch))
	if n.kids == nil {
		n.kids = map[*verdict.Candidate]*node{}
	}
	n.kids[candidate] = child
	return child
}

// fresh says whether a fit was not reached for as little before.
func (f *finder) fresh(n *node) bool {
	at := visited{n.key, n.left}
	before, seen := f.seen[at]
	if seen && before.compare(&n.cost) <= 0 {
		return false
	}
	f.seen[at] = n.cost
	return true
}

// cheaperSeen says whether a fit was reached for less since it was come upon.
func (f *finder) cheaperSeen(n *node) bool {
	before, seen := f.seen[visited{n.key, n.left}]
	return seen && before.compare(&n.cost) < 0
}

// sameGoal says whether a change leaves alone what a plan is for: the air unit, and goggles that
// are to be bought.
func sameGoal(before, after *fleet.Fit) bool {
	return sameDevice(before.AirUnit, after.AirUnit) &&
		(!toBuy(before.Goggles) || sameDevice(before.Goggles, after.Goggles))
}

// toBuy says whether a slot holds a device that is not owned.
func toBuy(s *fleet.Slot) bool { return s != nil && s.Kit == "" && s.Model != "" }

// sameDevice says whether two slots hold the same device, whatever is planned for it.
func sameDevice(a, b *fleet.Slot) bool {
	return a == nil && b == nil || a != nil && b != nil && a.Kit == b.Kit && a.Model == b.Model
}

// better says whether a gate stands better than before: what is unfit, what is to be changed,
// what is not known, then the danger that is warned of.
func better(after, before *swap.GateVerdict) bool {
	a, b := countsOf(after), countsOf(before)
	return cmp.Or(a.unfit-b.unfit, a.change-b.change, a.unknown-b.unknown, a.danger-b.danger) < 0
}

// left is a fit whose gate is left as it is.
func (f *finder) left(n *node, i int, v *swap.GateVerdict) *node {
	child := *n
	child.left |= 1 << i
	danger := verdict.Greatest(v.Findings)
	if v.Level == verdict.Unknown {
		child.cost.Open++
		if danger.WorseThan(child.cost.Hides) {
			child.cost.Hides = danger
		}
	} else if danger.WorseThan(child.cost.Warns) {
		child.cost.Warns = danger
	}
	return &child
}

// costOf is what a fit takes so far.
func (f *finder) costOf(n *node) Cost {
	c := Cost{Currency: f.terms.Currency}
	for i := range swap.Gates {
		if !n.left.has(i) {
			continue
		}
		v := f.gate(n, i)
		if danger := verdict.Greatest(v.Findings); v.Level == verdict.Unknown {
			c.Open++
			if danger.WorseThan(c.Hides) {
				c.Hides = danger
			}
		} else if danger.WorseThan(c.Warns) && danger.WorseThan(verdict.Fails) {
			c.Warns = danger
		}
	}
	c.money(n.at.Library, change.Lines(n.at.Case, f.terms))
	c.Doors = f.doors(n)
	for _, s := range n.steps {
		c.Work += int(s.Effort) + 1
	}
	return c
}

func (f *finder) doors(n *node) int {
	v := f.gate(n, 0)
	return doorsOf(&v)
}

// mostOpen is on how many more gates a plan may hang than the best does.
const mostOpen = 1

// beaten says whether what a fit costs so far is more than each of the plans kept costs whole, or
// too much beside the best: where there is a plan that hides less, or hangs on less, nobody asks
// for one that may burn.
func (f *finder) beaten(c *Cost) bool {
	c = c.least()
	if len(f.plans) > 0 {
		best := &f.plans[0].Cost
		far := c.Hides.WorseThan(best.Hides) || c.Warns.WorseThan(best.Warns) || c.Open > best.Open+mostOpen
		if far && c.sofar(best) > 0 { // else it may still be the best itself
			return true
		}
	}
	return len(f.plans) == f.most && c.sofar(&f.plans[len(f.plans)-1].Cost) > 0
}
