package plane

import (
	"cmp"
	"slices"
)

// Triangle is three corners of a piece, to the left.
type Triangle [3]Point

// Triangles cuts a piece into triangles whose corners are its own points: holes are bridged
// to the outline, then ears are cut off (Meisters 1975; bridges after Eberly, "Triangulation
// by Ear Clipping"). All decisions are made on whole numbers.
func (a Area) Triangles() []Triangle {
	ring := slices.Clone(a.Outer)
	holes := slices.Clone(a.Holes)
	slices.SortFunc(holes, func(x, y Ring) int { // the hole that reaches farthest right first
		return int(y[y.rightmost()].X - x[x.rightmost()].X)
	})
	for {
		if ring, holes = touching(ring, holes); len(holes) == 0 {
			return ears(ring)
		}
		ring, holes = bridged(ring, holes), holes[1:]
	}
}

// touching joins the holes that touch a ring to it, and those that touch these.
func touching(ring Ring, holes []Ring) (Ring, []Ring) {
	for k := 0; k < len(holes); k++ {
		hole := holes[k]
		i, j := meet(ring, hole)
		if i < 0 {
			continue
		}
		ring = slices.Concat(ring[:i+1], hole[j+1:], hole[:j+1], ring[i+1:])
		holes, k = slices.Delete(holes, k, k+1), -1
	}
	return ring, holes
}

// meet are the corners at which a hole lies on a ring, inside of it; below zero: none.
func meet(ring, hole Ring) (i, j int) {
	for j, p := range hole {
		for i, q := range ring {
			if p == q && inCone(ring, i, hole[(j+1)%len(hole)]) {
				return i, j
			}
		}
	}
	return -1, -1
}

// meeting is an area whose sides have a point wherever one of another ring lies on them.
func (a Area) meeting() Area {
	rings := append([]Ring{a.Outer}, a.Holes...)
	with := make([]Ring, len(rings))
	for i, r := range rings {
		for k, p := range r {
			q := r[(k+1)%len(r)]
			with[i] = append(append(with[i], p), between(p, q, rings, i)...)
		}
	}
	return Area{with[0], with[1:]}
}

// between are the points of other rings on a side, in its order.
func between(p, q Point, rings []Ring, own int) (list []Point) {
	for k, r := range rings {
		if k == own {
			continue
		}
		for _, at := range r {
			if within(p, q, at) && at != p && at != q && turn(p, q, at) == 0 && !slices.Contains(list, at) {
				list = append(list, at)
			}
		}
	}
	away := func(at Point) int64 { return max(at.X-p.X, p.X-at.X) + max(at.Y-p.Y, p.Y-at.Y) }
	slices.SortFunc(list, func(a, b Point) int { return cmp.Compare(away(a), away(b)) })
	return list
}

func (r Ring) rightmost() (at int) {
	for i, p := range r {
		if p.X > r[at].X || p.X == r[at].X && p.Y < r[at].Y {
			at = i
		}
	}
	return at
}

// turn is twice the area of three points: above zero to the left.
func turn(a, b, c Point) int64 { return (b.X-a.X)*(c.Y-a.Y) - (b.Y-a.Y)*(c.X-a.X) }

// bridged joins the first of some holes to a ring around them by a line there and back: from
// the hole's rightmost point to the nearest point of the ring that it sees past the others.
func bridged(ring Ring, holes []Ring) Ring {
	hole := holes[0]
	at := hole.rightmost()
	from := hole[at]
	order := make([]int, len(ring))
	for i := range order {
		order[i] = i
	}
	away := func(i int) int64 {
		dx, dy := ring[i].X-from.X, ring[i].Y-from.Y
		return dx*dx + dy*dy
	}
	slices.SortFunc(order, func(i, j int) int {
		return cmp.Compare(away(i), away(j))
	})
	best := slices.IndexFunc(order, func(i int) bool {
		return inCone(ring, i, from) && sees(ring, from, ring[i]) &&
			!slices.ContainsFunc(holes, func(h Ring) bool { return !sees(h, from, ring[i]) })
	})
	if best < 0 {
		return ring // no hole of this ring
	}
	best = order[best]
	joined := slices.Clone(ring[:best+1])
	joined = append(append(joined, hole[at:]...), hole[:at+1]...)
	return append(joined, ring[best:]...)
}

// inCone says whether a point lies on the inner side of a corner of a ring to the left.
func inCone(ring Ring, i int, p Point) bool {
	n := len(ring)
	before, here, after := ring[(i+n-1)%n], ring[i], ring[(i+1)%n]
	if turn(before, here, after) >= 0 {
		return turn(here, p, before) > 0 && turn(p, here, after) > 0
	}
	return !(turn(here, p, after) >= 0 && turn(p, here, before) >= 0)
}

// sees says whether no side of a ring lies across the line between two points.
func sees(ring Ring, a, b Point) bool {
	for i, p := range ring {
		q := ring[(i+1)%len(ring)]
		if p == a || p == b || q == a || q == b {
			continue
		}
		if crosses(a, b, p, q) {
			return false
		}
	}
	return true
}

// crosses says whether two lines meet, touching included.
func crosses(a, b, p, q Point) bool {
	d1, d2, d3, d4 := sign(turn(a, b, p)), sign(turn(a, b, q)), sign(turn(p, q, a)), sign(turn(p, q, b))
	if d1 != d2 && d3 != d4 {
		return true
	}
	return d1 == 0 && within(a, b, p) || d2 == 0 && within(a, b, q) ||
		d3 == 0 && within(p, q, a) || d4 == 0 && within(p, q, b)
}

func sign(n int64) int {
	switch {
	case n < 0:
		return -1
	case n > 0:
		return 1
	}
	return 0
}

func within(a, b, p Point) bool {
	return min(a.X, b.X) <= p.X && p.X <= max(a.X, b.X) && min(a.Y, b.Y) <= p.Y && p.Y <= max(a.Y, b.Y)
}

// ears cuts a ring to the left into triangles. Where only corners in a line are left, they
// are laid onto the triangles beside them.
func ears(ring Ring) (list []Triangle) {
	left := make([]int, len(ring))
	for i := range left {
		left[i] = i
	}
	var inLine []Triangle
	for at := 0; len(left) >= 3; at += len(left) - 1 { // the corner before may be an ear now
		at = cornerFrom(left, at, func(a, b, c int) bool {
			return turn(ring[a], ring[b], ring[c]) > 0 && empty(ring, left, ring[a], ring[b], ring[c])
		})
		if at >= 0 {
			list = append(list, corner(ring, left, at))
		} else {
			at = cornerFrom(left, 0, func(a, b, c int) bool {
				return turn(ring[a], ring[b], ring[c]) == 0 && within(ring[a], ring[c], ring[b])
			})
			if at < 0 {
				return list // no ring to the left
			}
			if c := corner(ring, left, at); c[1] != c[0] && c[1] != c[2] {
				inLine = append(inLine, c)
			}
		}
		left = slices.Delete(left, at, at+1)
	}
	for _, l := range slices.Backward(inLine) {
		list = laidOn(list, l)
	}
	return list
}

// cornerFrom is the first corner from one on for which something holds; below zero: none.
func cornerFrom(left []int, from int, holds func(before, at, after int) bool) int {
	n := len(left)
	for i := range n {
		at := (from + i) % n
		if holds(left[(at+n-1)%n], left[at], left[(at+1)%n]) {
			return at
		}
	}
	return -1
}

func corner(ring Ring, left []int, at int) Triangle {
	n := len(left)
	return Triangle{ring[left[(at+n-1)%n]], ring[left[at]], ring[left[(at+1)%n]]}
}

// laidOn splits the triangle beside a line at the point that lies in the middle of it.
func laidOn(list []Triangle, l Triangle) []Triangle {
	for i, t := range list {
		for k := range t {
			if t[k] == l[0] && t[(k+1)%3] == l[2] && l[0] != l[2] {
				far := t[(k+2)%3]
				list[i] = Triangle{l[0], l[1], far}
				return append(list, Triangle{l[1], l[2], far})
			}
		}
	}
	return list
}

// empty says whether no corner of what is left lies in a triangle.
func empty(ring Ring, left []int, a, b, c Point) bool {
	for _, i := range left {
		p := ring[i]
		if p != a && p != b && p != c && turn(a, b, p) >= 0 && turn(b, c, p) >= 0 && turn(c, a, p) >= 0 {
			return false
		}
	}
	return true
}
