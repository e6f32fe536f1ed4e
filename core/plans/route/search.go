package route

import (
	"cmp"
	"slices"
)

// search is the state of the depth-first search.
type search struct {
	*problem
	order  []int      // shared devices, the ones most depend on first
	masks  [][]uint64 // what each shared device allows at this node
	best   []score    // what each group can reach at most at this node, times its count
	sum    score      // of best, and of the costs chosen
	budget int
	nodes  int
	looks  int // releases of units looked at: the work of it

	mostLooks int

	found  bool
	top    score
	chosen []int // choice of each shared device at the best
	now    []int
}

// solution is the best choice found.
type solution struct {
	score    score
	ofShared []int // choice of each shared device
	ofUnits  []int // choice of each group
	bounded  bool
	nodes    int
	looks    int
}

// mostLooks bounds the work of one search where devices have very many releases that
// differ: about a second. Fleets that are flown stay far below.
const mostLooks = 30_000_000

func (p *problem) solve(budget int) solution { return p.solveWithin(budget, mostLooks) }

func (p *problem) solveWithin(budget, looks int) solution {
	s := &search{
		problem:   p,
		budget:    budget,
		mostLooks: looks,
		now:       make([]int, len(p.shared)),
		chosen:    make([]int, len(p.shared)),
	}
	for i, d := range p.shared {
		s.order = append(s.order, i)
		s.masks = append(s.masks, d.any)
	}
	slices.SortStableFunc(s.order, func(a, b int) int { return cmp.Compare(len(p.shared[b].uses), len(p.shared[a].uses)) })
	for _, g := range p.groups {
		_, v := g.choose(s.masks)
		v = v.times(len(g.members))
		s.best = append(s.best, v)
		s.sum = s.sum.add(v)
	}
	s.descend(0)
	out := solution{score: s.top, ofShared: s.chosen, bounded: s.over(), nodes: s.nodes, looks: s.looks}
	for i, d := range p.shared {
		s.masks[i] = d.choices[s.chosen[i]].masks
	}
	for _, g := range p.groups {
		c, _ := g.choose(s.masks)
		out.ofUnits = append(out.ofUnits, c)
	}
	return out
}

func (s *search) over() bool {
	return s.nodes > s.budget || s.looks > s.mostLooks || s.asked.gone() != nil
}

// branch is one choice of a device, with the score that would be left and the best of each
// group that uses it.
type branch struct {
	choice int
	sum    score
	best   []score
}

// branches are the choices of a device as things stand, the most promising first.
func (s *search) branches(at int) []branch {
	d := s.shared[at]
	branches := make([]branch, 0, len(d.choices))
	for c := range d.choices {
		s.masks[at] = d.choices[c].masks
		b := branch{choice: c, sum: s.sum.add(d.choices[c].cost.score()), best: make([]score, len(d.uses))}
		for k, g := range d.uses {
			s.looks += len(s.groups[g].unit.choices) * len(s.groups[g].wants)
			_, v := s.groups[g].choose(s.masks)
			b.best[k] = v.times(len(s.groups[g].members))
			b.sum = b.sum.add(b.best[k]).add(s.best[g].times(-1))
		}
		branches = append(branches, b)
	}
	slices.SortStableFunc(branches, func(a, b branch) int {
		switch {
		case b.sum.less(a.sum):
			return -1
		case a.sum.less(b.sum):
			return 1
		}
		return 0
	})
	return branches
}

func (s *search) descend(depth int) {
	s.nodes++
	if s.found && (s.over() || !s.top.less(s.sum)) {
		return
	}
	if depth == len(s.order) {
		s.found, s.top = true, s.sum
		copy(s.chosen, s.now)
		return
	}
	at := s.order[depth]
	d := s.shared[at]
	branches := s.branches(at)
	before, sum := make([]score, len(d.uses)), s.sum
	for k, g := range d.uses {
		before[k] = s.best[g]
	}
	for _, b := range branches {
		s.masks[at], s.now[at], s.sum = d.choices[b.choice].masks, b.choice, b.sum
		for k, g := range d.uses {
			s.best[g] = b.best[k]
		}
		s.descend(depth + 1)
	}
	for k, g := range d.uses {
		s.best[g] = before[k]
	}
	s.masks[at], s.sum = d.any, sum
}

// choose finds the best release of a unit of the group, given what the shared
// devices allow.
func (g *group) choose(masks [][]uint64) (int, score) {
	best, top := 0, score{}
	for i := range g.unit.choices {
		c := &g.unit.choices[i]
		v := c.cost.score()
		for k := range g.wants {
			w := &g.wants[k]
			if m := w.holding(c, masks); m != 0 {
				v = v.add(met(w.weight, w.pair.most(m)))
			}
		}
		if i == 0 || top.less(v) {
			best, top = i, v
		}
	}
	return best, top
}

// holding is the statements that hold for a want.
func (w *wanted) holding(unit *choice, masks [][]uint64) uint64 {
	m := unit.masks[w.own] & masks[w.goggles][w.gogglesPair]
	if w.controller >= 0 {
		m &= masks[w.controller][w.controllerPair]
	}
	return m
}
