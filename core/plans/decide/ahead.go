package decide

import (
	"cmp"
	"container/heap"
)

// ahead are the fits to be gone on from. The cheapest comes first: then no fit is looked at
// twice, and nothing dearer than the best plan is looked at at all; but that finds no plan before
// it has seen all that is cheaper. Until there is one, every second comes as a search into the
// depth would have it: a plan is soon there, also where not all can be looked at.
type ahead struct {
	cheapest queue
	deepest  []*node // what was come upon by going into the depth
	diving   bool    // what was given last was of those
	come     int     // upon so many
}

func (a *ahead) put(n *node) {
	a.come++
	n.nr, n.done = a.come, false
	heap.Push(&a.cheapest, n)
	if a.diving {
		a.deepest = append(a.deepest, n)
	}
}

// next is the fit to go on from; nil: there is none. Deep says whether a plan is to be found first.
func (a *ahead) next(deep bool) *node {
	a.diving = deep && !a.diving
	for len(a.cheapest) > 0 {
		var n *node
		if last := len(a.deepest) - 1; a.diving && last >= 0 {
			n, a.deepest = a.deepest[last], a.deepest[:last]
		} else {
			n = heap.Pop(&a.cheapest).(*node)
		}
		if !n.done {
			n.done = true
			return n
		}
	}
	return nil
}

// queue is a heap of fits by what they cost (container/heap).
type queue []*node

func (q queue) Len() int { return len(q) }

// Less: of what costs the same, what was come upon last comes first.
func (q queue) Less(a, b int) bool {
	return cmp.Or(q[a].cost.compare(&q[b].cost), q[b].nr-q[a].nr) < 0
}

func (q queue) Swap(a, b int) { q[a], q[b] = q[b], q[a] }
func (q *queue) Push(x any)   { *q = append(*q, x.(*node)) }

func (q *queue) Pop() any {
	last := len(*q) - 1
	n := (*q)[last]
	(*q)[last], *q = nil, (*q)[:last]
	return n
}
