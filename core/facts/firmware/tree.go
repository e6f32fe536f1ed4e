package firmware

import (
	"container/heap"
	"slices"
	"sync"
)

// origin is where the ways of a tree begin, and what decides which steps are worth
// taking on them.
type origin struct {
	from      State
	mode      string // that is wanted in the end; empty: any
	activated bool   // is wanted in the end
}

// node is a place on a way.
type node struct {
	at        int
	mode      string
	activated bool
}

// tree holds the best way from one state to every other that can be reached, by
// Dijkstra's search. It grows with what is reachable: a mode counts where a release
// asks for it or it is wanted in the end, and not otherwise.
type tree struct {
	chart  *Chart
	origin origin
	nodes  []node
	before []int32  // where the way to a node comes from; -1: the origin
	order  []int32  // the nodes, the cheapest to reach first
	ways   sync.Map // place of a release to *way
}

// way is the best way to a release, as it is wanted in the end.
type way struct {
	steps []Step
	ok    bool
}

// cost of a way: one-way steps, steps, steps after activation.
type cost [3]int32

func (c *Chart) tree(o origin) *tree {
	if known, ok := c.trees.Load(o); ok {
		return known.(*tree)
	}
	c.lay()
	t := &tree{chart: c, origin: o}
	t.grow()
	c.trees.Store(o, t)
	return t
}

// reached is a node on the heap: the cheapest first, among equals the one found first.
type reached struct {
	cost cost
	node int32
}

type heapOf []reached

func (h heapOf) Len() int { return len(h) }
func (h heapOf) Less(a, b int) bool {
	if order := slices.Compare(h[a].cost[:], h[b].cost[:]); order != 0 {
		return order < 0
	}
	return h[a].node < h[b].node
}
func (h heapOf) Swap(a, b int) { h[a], h[b] = h[b], h[a] }
func (h *heapOf) Push(x any)   { *h = append(*h, x.(reached)) }
func (h *heapOf) Pop() any {
	old := *h
	last := old[len(old)-1]
	*h = old[:len(old)-1]
	return last
}

func (t *tree) grow() {
	from := t.origin.from
	start := node{t.chart.place(from.Version), from.Mode, from.Activated}
	costs, closed := []cost{{}}, []bool{false}
	ids := map[node]int32{start: 0}
	t.nodes, t.before = []node{start}, []int32{-1}
	for open := (heapOf{{}}); len(open) > 0; {
		r := heap.Pop(&open).(reached)
		if closed[r.node] || costs[r.node] != r.cost {
			continue // a cheaper way was found meanwhile
		}
		closed[r.node] = true
		t.order = append(t.order, r.node)
		here := t.nodes[r.node]
		t.leave(here, func(to node, oneWay bool) {
			next := r.cost
			if oneWay {
				next[0]++
			}
			next[1]++
			if here.activated && !from.Activated {
				next[2]++
			}
			id, known := ids[to]
			switch {
			case !known:
				id = int32(len(t.nodes))
				ids[to] = id
				t.nodes, t.before = append(t.nodes, to), append(t.before, r.node)
				costs, closed = append(costs, next), append(closed, false)
			case closed[id] || slices.Compare(next[:], costs[id][:]) >= 0:
				return
			}
			costs[id], t.before[id] = next, r.node
			heap.Push(&open, reached{next, id})
		})
	}
}

// leave lists the steps that lead on from a node.
func (t *tree) leave(here node, visit func(to node, oneWay bool)) {
	c := t.chart
	for i := range c.moves {
		m := &c.moves[i]
		if (m.Mode != "" && m.Mode != here.mode) || m.Activated && !here.activated || !c.installs(i, here.at) {
			continue
		}
		visit(node{i, c.keepsMode(here.mode, i), here.activated}, c.door(i, here.at))
	}
	for i := range c.moves {
		if c.rollsBack(here.at, i) {
			visit(node{i, c.keepsMode(here.mode, i), here.activated}, false)
		}
	}
	for _, mode := range c.modes {
		if mode.ID != here.mode && t.wants(mode.ID) && c.has(mode, here.at) {
			visit(node{here.at, mode.ID, here.activated}, false)
		}
	}
	if !here.activated && (!c.plain || t.origin.activated) && c.activates(here.at) {
		visit(node{here.at, here.mode, true}, false)
	}
}

// wants says whether being in a mode can be of use.
func (t *tree) wants(mode string) bool {
	return mode == t.origin.mode || slices.ContainsFunc(t.chart.moves, func(m Move) bool { return m.Mode == mode })
}

// to is the best way to the release at a place, in the mode and state that is wanted in
// the end. It is traced once.
func (t *tree) to(target int) ([]Step, bool) {
	if known, ok := t.ways.Load(target); ok {
		w := known.(*way)
		return w.steps, w.ok
	}
	w := &way{}
	w.steps, w.ok = t.trace(target)
	t.ways.Store(target, w)
	return w.steps, w.ok
}

func (t *tree) trace(target int) (steps []Step, ok bool) {
	for _, at := range t.order {
		n := t.nodes[at]
		if n.at != target || t.origin.mode != "" && t.origin.mode != n.mode || t.origin.activated && !n.activated {
			continue
		}
		for ; t.before[at] >= 0; at = t.before[at] {
			steps = append(steps, t.step(t.nodes[t.before[at]], t.nodes[at]))
		}
		slices.Reverse(steps)
		return steps, true
	}
	return nil, false
}

// step is what leads from one node to the next.
func (t *tree) step(here, to node) Step {
	c := t.chart
	s := Step{From: t.origin.from.Version}
	if here.at != unlisted {
		s.From = c.moves[here.at].Version
	}
	switch {
	case to.at != here.at:
		s.To = c.moves[to.at].Version
		if s.Back = !c.installs(to.at, here.at); !s.Back {
			s.OneWay = c.door(to.at, here.at)
		}
	case to.activated != here.activated:
		s.Activate = true
	default:
		s.FromMode, s.Mode = here.mode, to.mode
	}
	return s
}
