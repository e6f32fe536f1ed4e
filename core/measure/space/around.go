package space

import "math"

// Around is how long a way from one place to another is at least that does not go through a block, in
// millimetres: a way around it touches one of its edges, and is no shorter than the shortest that does.
// Where the straight way does not go through, it is that.
func (b Box) Around(from, to [3]float64) float64 {
	if !b.Crossed(from, to) {
		return length(minus(point(to), point(from)))
	}
	least := math.Inf(1)
	for axis := range 3 {
		across, up := (axis+1)%3, (axis+2)%3
		for _, a := range []int64{b.Min[across], b.Max[across]} {
			for _, u := range []int64{b.Min[up], b.Max[up]} {
				var edge point
				edge[across], edge[up] = float64(MM(a)), float64(MM(u))
				least = min(least, over(edge, axis, float64(MM(b.Min[axis])), float64(MM(b.Max[axis])), point(from), point(to)))
			}
		}
	}
	return least
}

// Crossed says whether the straight way from one place to another goes through the inside of a block.
func (b Box) Crossed(from, to [3]float64) bool {
	enters, leaves := 0.0, 1.0
	for i := range 3 {
		low, high, way := float64(MM(b.Min[i])), float64(MM(b.Max[i])), to[i]-from[i]
		if way == 0 {
			if from[i] <= low || from[i] >= high {
				return false
			}
			continue
		}
		first, last := (low-from[i])/way, (high-from[i])/way
		enters, leaves = max(enters, min(first, last)), min(leaves, max(first, last))
	}
	return enters < leaves
}

// over is the shortest way from one place to another over an edge along an axis. Unrolled around the
// edge both lie in one plane, and the way crosses the edge where a straight line does, or at its end.
func over(edge point, axis int, low, high float64, from, to point) float64 {
	off := func(p point) float64 {
		return math.Hypot(p[(axis+1)%3]-edge[(axis+1)%3], p[(axis+2)%3]-edge[(axis+2)%3])
	}
	a, b := off(from), off(to)
	edge[axis] = from[axis]
	if a+b > 0 {
		edge[axis] += (to[axis] - from[axis]) * a / (a + b)
	}
	edge[axis] = min(max(edge[axis], low), high)
	return length(minus(edge, from)) + length(minus(to, edge))
}
