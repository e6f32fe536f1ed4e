package space

import (
	"cmp"
	"math"
	"slices"
)

// Slab is a level plate of any outline, with openings: upright convex pieces of one height that lie side
// by side and cover it.
type Slab struct {
	Box    // the least block that holds it
	pieces []piece
}

// piece is one of them, seen from above, its corners to the left, in millimetres.
type piece struct {
	corners [][2]float64
	around  Box
}

// Whole is a block as a plate.
func (b Box) Whole() Slab {
	ring := [][2]int64{{b.Min[X], b.Min[Y]}, {b.Max[X], b.Min[Y]}, {b.Max[X], b.Max[Y]}, {b.Min[X], b.Max[Y]}}
	return NewSlab([][][2]int64{ring}, b.Min[Z], b.Max[Z])
}

// NewSlab is a plate between two heights whose outlines are rings of corners, in whole micrometres: a place
// is on it that lies within an odd number of them. It is cut into the strips between neighbouring corners,
// and these along its sides; what goes on between the same two sides is one piece.
func NewSlab(rings [][][2]int64, from, to int64) Slab {
	sides, cuts := sidesOf(rings)
	s := Slab{Box: Box{Min: [3]int64{math.MaxInt64, math.MaxInt64, from}, Max: [3]int64{math.MinInt64, math.MinInt64, to}}}
	var last []strip
	for i := 1; i < len(cuts); i++ {
		now := between(sides, cuts[i-1], cuts[i])
		for k := range now {
			if before := slices.IndexFunc(last, now[k].goesOn); before >= 0 {
				now[k].from, last[before].ended = last[before].from, true
			}
		}
		s.take(last)
		last = now
	}
	if s.take(last); len(s.pieces) == 0 {
		return Slab{}
	}
	return s
}

// line is a side of a ring that is not across, from its rear end to its front end.
type line struct{ from, to [2]int64 }

// at is how far to the left it lies.
func (l line) at(x int64) float64 {
	part := float64(x-l.from[X]) / float64(l.to[X]-l.from[X])
	return float64(l.from[Y]) + part*float64(l.to[Y]-l.from[Y])
}

// sidesOf are the sides of rings and where one begins or ends, in order.
func sidesOf(rings [][][2]int64) (sides []line, cuts []int64) {
	for _, ring := range rings {
		for i, to := range ring {
			from := ring[(i+len(ring)-1)%len(ring)]
			cuts = append(cuts, to[X])
			switch {
			case from[X] < to[X]:
				sides = append(sides, line{from, to})
			case from[X] > to[X]:
				sides = append(sides, line{to, from})
			}
		}
	}
	slices.Sort(cuts)
	return sides, slices.Compact(cuts)
}

// strip is what of a plate lies between two of its sides.
type strip struct {
	right, left line
	from, to    int64
	ended       bool // it goes on in the next
}

func (s strip) goesOn(before strip) bool { return s.right == before.right && s.left == before.left }

// between are the strips between two neighbouring cuts.
func between(sides []line, from, to int64) (list []strip) {
	var over []line
	for _, l := range sides {
		if l.from[X] <= from && l.to[X] >= to {
			over = append(over, l)
		}
	}
	slices.SortFunc(over, func(a, b line) int {
		return cmp.Compare(a.at(from)+a.at(to), b.at(from)+b.at(to))
	})
	for i := 1; i < len(over); i += 2 {
		list = append(list, strip{right: over[i-1], left: over[i], from: from, to: to})
	}
	return list
}

// take adds the strips that do not go on.
func (s *Slab) take(strips []strip) {
	for _, t := range strips {
		if t.ended {
			continue
		}
		corners := make([][2]float64, 0, 4)
		for _, c := range [][2]float64{
			{float64(t.from), t.right.at(t.from)}, {float64(t.to), t.right.at(t.to)},
			{float64(t.to), t.left.at(t.to)}, {float64(t.from), t.left.at(t.from)},
		} {
			at := [2]float64{c[X] / 1000, c[Y] / 1000}
			if len(corners) == 0 || at != corners[len(corners)-1] && at != corners[0] {
				corners = append(corners, at)
			}
		}
		if len(corners) < 3 {
			continue
		}
		p := piece{corners: corners, around: Box{Min: s.Min, Max: s.Max}}
		for axis := range 2 {
			low, high := extent(corners, axis)
			p.around.Min[axis], p.around.Max[axis] = low, high
			s.Min[axis], s.Max[axis] = min(s.Min[axis], low), max(s.Max[axis], high)
		}
		s.pieces = append(s.pieces, p)
	}
}

// extent is from where to where corners reach along an axis, in whole micrometres.
func extent(corners [][2]float64, axis int) (low, high int64) {
	least, most := math.Inf(1), math.Inf(-1)
	for _, c := range corners {
		least, most = min(least, c[axis]), max(most, c[axis])
	}
	return int64(math.Round(1000 * least)), int64(math.Round(1000 * most))
}

// band is what of a piece lies between two edges across an axis, as from where to where it reaches along
// it; false where nothing does.
func (p *piece) band(axis int, from, to int64) (low, high int64, there bool) {
	across := 1 - axis
	if p.around.Max[across] <= from || p.around.Min[across] >= to {
		return 0, 0, false
	}
	inside := p.corners
	if p.around.Min[across] < from || p.around.Max[across] > to {
		inside = beyond(beyond(p.corners, across, float64(from)/1000, 1), across, float64(to)/1000, -1)
		if len(inside) < 3 {
			return 0, 0, false
		}
	}
	low, high = extent(inside, axis)
	return low, high, true
}

// beyond is what of a flat outline lies on one side of an edge across an axis: above it, or below (the way
// of Sutherland and Hodgman).
func beyond(corners [][2]float64, axis int, edge, way float64) (out [][2]float64) {
	for i, to := range corners {
		from := corners[(i+len(corners)-1)%len(corners)]
		a, b := way*(from[axis]-edge), way*(to[axis]-edge)
		if (a < 0) != (b < 0) {
			part := a / (a - b)
			out = append(out, [2]float64{from[X] + part*(to[X]-from[X]), from[Y] + part*(to[Y]-from[Y])})
		}
		if b >= 0 {
			out = append(out, to)
		}
	}
	return out
}

// MeetsSlab says how far a block lies in a plate, as Meets does: into one of its openings is a way out too.
func (b Box) MeetsSlab(s Slab) (axis int, by int64) {
	if _, near := b.Meets(s.Box); near == 0 {
		return 0, 0
	}
	axis, by = Z, s.Max[Z]-b.Min[Z]
	if down := b.Max[Z] - s.Min[Z]; down < by {
		by = -down
	}
	for along := range 2 {
		up, down := s.ways(b, along)
		if up == 0 {
			return 0, 0
		}
		if up < max(by, -by) {
			axis, by = along, up
		}
		if down < max(by, -by) {
			axis, by = along, -down
		}
	}
	return axis, by
}

// ways is how far a block has to move up and down an axis until it is beside a plate or within an opening;
// zero: it is.
func (s Slab) ways(b Box, axis int) (up, down int64) {
	across := 1 - axis
	var taken [][2]int64 // moves after which it meets a piece, without the ends
	for i := range s.pieces {
		if low, high, there := s.pieces[i].band(axis, b.Min[across], b.Max[across]); there {
			taken = append(taken, [2]int64{low - b.Max[axis], high - b.Min[axis]})
		}
	}
	var move int64
	slices.SortFunc(taken, func(a, b [2]int64) int { return cmp.Compare(a[0], b[0]) })
	for _, t := range taken {
		if t[0] < move && t[1] > move {
			move = t[1]
		}
	}
	up, move = move, 0
	slices.SortFunc(taken, func(a, b [2]int64) int { return cmp.Compare(b[1], a[1]) })
	for _, t := range taken {
		if t[0] < move && t[1] > move {
			move = t[0]
		}
	}
	return up, -move
}

// Within is from where to where along an axis a plate lies in a block; false where it does not.
func (s Slab) Within(b Box, axis int) (low, high int64, there bool) {
	if b.Max[Z] <= s.Min[Z] || b.Min[Z] >= s.Max[Z] {
		return 0, 0, false
	}
	low, high = math.MaxInt64, math.MinInt64
	for i := range s.pieces {
		along := min(axis, Y)
		from, to, crosses := s.pieces[i].band(along, b.Min[1-along], b.Max[1-along])
		if !crosses || to <= b.Min[along] || from >= b.Max[along] {
			continue
		}
		there = true
		low, high = min(low, max(from, b.Min[along])), max(high, min(to, b.Max[along]))
	}
	if axis == Z && there {
		return max(s.Min[Z], b.Min[Z]), min(s.Max[Z], b.Max[Z]), true
	}
	return low, high, there
}

// Carries is which share of a block, seen from above, has the plate under it or over it, 0 to 1.
func (s Slab) Carries(b Box) float64 {
	var covered float64
	for i := range s.pieces {
		part := s.pieces[i].corners
		for axis := range 2 {
			part = beyond(beyond(part, axis, float64(MM(b.Min[axis])), 1), axis, float64(MM(b.Max[axis])), -1)
		}
		covered += twiceArea(part) / 2
	}
	return covered / float64(MM(b.Max[X]-b.Min[X])*MM(b.Max[Y]-b.Min[Y]))
}

// ApartFromSlab is how far the middle line of a rod is from a plate at the nearest; zero: it goes through.
func (r Rod) ApartFromSlab(s Slab) float64 {
	least := math.Inf(1)
	for i := range s.pieces {
		if p := &s.pieces[i]; r.beyond(p.around) < least {
			low, high := float64(MM(s.Min[Z])), float64(MM(s.Max[Z]))
			least = min(least, r.least(func(at point) float64 {
				return math.Hypot(p.apart(at), outside(at[Z], low, high))
			}))
		}
	}
	return least
}

// InSlab says how far a rod reaches into a plate, by its thickness; zero: it does not.
func (r Rod) InSlab(s Slab) float64 {
	if r.clear(s.Box) {
		return 0
	}
	return max(0, r.Radius-r.ApartFromSlab(s))
}

// beyond is how far a rod is from a block at least: no farther than that along any axis.
func (r Rod) beyond(b Box) (least float64) {
	for i := range 3 {
		least = max(least, float64(MM(b.Min[i]))-max(r.Foot[i], r.Tip[i]), min(r.Foot[i], r.Tip[i])-float64(MM(b.Max[i])))
	}
	return least
}

// apart is how far a place is from a piece, seen from above; zero: it lies on it.
func (p *piece) apart(at point) float64 {
	least, on := math.Inf(1), true
	here := [2]float64{at[X], at[Y]}
	for i, to := range p.corners {
		from := p.corners[(i+len(p.corners)-1)%len(p.corners)]
		if turns(from, to, here) >= 0 {
			continue
		}
		on = false
		dx, dy := to[X]-from[X], to[Y]-from[Y]
		along := max(0, min(1, ((here[X]-from[X])*dx+(here[Y]-from[Y])*dy)/(dx*dx+dy*dy)))
		least = min(least, math.Hypot(from[X]+along*dx-here[X], from[Y]+along*dy-here[Y]))
	}
	if on {
		return 0
	}
	return least
}

// Solids are the pieces of a plate as bodies.
func (s Slab) Solids() []Solid {
	list := make([]Solid, 0, len(s.pieces))
	for i := range s.pieces {
		var body Solid
		for _, c := range s.pieces[i].corners {
			body.bottom = append(body.bottom, point{c[X], c[Y], float64(MM(s.Min[Z]))})
			body.top = append(body.top, point{c[X], c[Y], float64(MM(s.Max[Z]))})
		}
		list = append(list, body)
	}
	return list
}
