package space

import (
	"cmp"
	"math"
	"slices"

	"yokeswap/core/measure/unit"
)

// View is what a camera sees: all that lies between four planes through its lens.
type View struct {
	From       [3]unit.Millimetres // the lens
	Turn       unit.Degrees        // to the left, seen from above; 0: it looks forward
	Up         unit.Degrees        // it looks up by
	Wide, High unit.Degrees        // between the planes at its sides, above and below; under 180
}

// Misses says whether nothing within a distance of a place is in the picture: it is all beyond one
// plane. Where it is false, something may be.
func (v View) Misses(place [3]float64, within float64) bool {
	into := v.into()
	at := into.as(place)
	for _, s := range v.sides() {
		if s.near(at) < -within*length(s.normal) {
			return true
		}
	}
	return false
}

// Sees says whether anything of a body is in the picture; mostly its corners alone tell.
func (v View) Sees(body Solid) bool {
	l := v.Look(body)
	switch l.where() {
	case beyondOne:
		return false
	case cornerIn:
		return true
	}
	return l.Seen() != nil
}

// Look is a body as a camera has it.
type Look struct {
	from        View
	body        Solid
	sides       [5]side
	bottom, top []corner
}

// corner is a point as the camera has it, and the planes it is beyond, a bit each.
type corner struct {
	at     point
	beyond uint8
}

// Look is a body as the camera has it.
func (v View) Look(body Solid) *Look {
	into, l := v.into(), &Look{from: v, body: body, sides: v.sides()}
	wide, high := tan(v.Wide/2), tan(v.High/2)
	list := make([]corner, 0, len(body.bottom)+len(body.top))
	for _, outline := range [][]point{body.bottom, body.top} {
		for _, p := range outline {
			c := corner{at: into.as(p)}
			for k, near := range nears(c.at, wide, high) {
				if near < 0 {
					c.beyond |= 1 << k
				}
			}
			list = append(list, c)
		}
	}
	l.bottom, l.top = list[:len(body.bottom)], list[len(body.bottom):]
	return l
}

// Seen is what of a body lies in the picture: a convex outline, where the edges of the picture
// lie at −1 and 1, right and up counted above 0, drawn as a lens without distortion does it.
// It is nil where nothing of it is in the picture.
func (l *Look) Seen() [][2]float64 {
	if l.where() == beyondOne {
		return nil
	}
	wide, high := tan(l.from.Wide/2), tan(l.from.High/2)
	var corners [][2]float64
	l.faces(func(face []point) {
		for _, c := range face {
			corners = append(corners, [2]float64{-c[Y] / (c[X] * wide), c[Z] / (c[X] * high)})
		}
	})
	if around := hull(corners); Share(around) > 0 {
		return around
	}
	return nil
}

// faces visits what of each flat face of a body lies in the view. A face from outline to outline
// that no plane cuts is left out: its corners are those of the outlines.
func (l *Look) faces(visit func([]point)) {
	var room [2][]point
	cut := func(always bool, corners ...corner) {
		all, any := ^uint8(0), uint8(0)
		face, spare := room[0][:0], room[1]
		for i := range corners {
			all, any = all&corners[i].beyond, any|corners[i].beyond
			face = append(face, corners[i].at)
		}
		if all != 0 || any == 0 && !always {
			return
		}
		for k := range l.sides {
			if any&(1<<k) != 0 {
				face, spare = clip(spare[:0], face, &l.sides[k]), face
			}
		}
		room = [2][]point{face, spare}
		visit(face)
	}
	cut(true, l.bottom...)
	cut(true, l.top...)
	for i := range l.bottom {
		next := (i + 1) % len(l.bottom)
		cut(false, l.bottom[i], l.bottom[next], l.top[next], l.top[i])
	}
}

// What the corners of a body tell of where it lies.
const (
	across    = iota // each plane has corners on its near side, and no corner is in the picture
	beyondOne        // all of it is beyond one plane
	cornerIn         // a corner is in the picture
)

// where is where a body lies to the planes of the view.
func (l *Look) where() int {
	beyondAll := ^uint8(0)
	for _, outline := range [][]corner{l.bottom, l.top} {
		for i := range outline {
			if outline[i].beyond == 0 {
				return cornerIn
			}
			beyondAll &= outline[i].beyond
		}
	}
	if beyondAll != 0 {
		return beyondOne
	}
	return across
}

// side is a plane by its normal, and how far a point is on its near side, not below 0.
type side struct {
	normal point
	shift  float64
}

func (s *side) near(p point) float64 { return dot(s.normal, p) + s.shift }

// sides are the planes of a view, as the camera has them.
func (v View) sides() [5]side {
	wide, high := tan(v.Wide/2), tan(v.High/2)
	return [5]side{
		{point{1, 0, 0}, -nearest},
		{point{wide, -1, 0}, 0}, {point{wide, 1, 0}, 0},
		{point{high, 0, -1}, 0}, {point{high, 0, 1}, 0},
	}
}

// nears is how far a point is on the near side of each of them.
func nears(p point, wide, high float64) [5]float64 {
	across, up := wide*p[X], high*p[X]
	return [5]float64{p[X] - nearest, across - p[Y], across + p[Y], up - p[Z], up + p[Z]}
}

// nearest is how near before the lens something is seen, in millimetres: what touches the
// planes behind it is not.
const nearest = 1e-6

func tan(d unit.Degrees) float64 { return math.Tan(float64(d) * math.Pi / 180) }

// eye is where a camera stands and how it is turned.
type eye struct {
	from                   point
	sinT, cosT, sinU, cosU float64
}

func (v View) into() (e eye) {
	for i := range e.from {
		e.from[i] = float64(v.From[i])
	}
	e.sinT, e.cosT = math.Sincos(float64(v.Turn) * math.Pi / 180)
	e.sinU, e.cosU = math.Sincos(float64(v.Up) * math.Pi / 180)
	return e
}

// as is a point as the camera has it: how far before the lens, to its left and above it.
func (e *eye) as(p point) point {
	p = minus(p, e.from)
	p[X], p[Y] = e.cosT*p[X]+e.sinT*p[Y], e.cosT*p[Y]-e.sinT*p[X]
	p[X], p[Z] = e.cosU*p[X]+e.sinU*p[Z], e.cosU*p[Z]-e.sinU*p[X]
	return p
}

// clip adds to a list what of a flat outline lies on the near side of a plane (the way of
// Sutherland and Hodgman).
func clip(out, face []point, at *side) []point {
	for i, to := range face {
		from := face[(i+len(face)-1)%len(face)]
		a, b := at.near(from), at.near(to)
		if (a < 0) != (b < 0) {
			out = append(out, plus(from, times(minus(to, from), a/(a-b))))
		}
		if b >= 0 {
			out = append(out, to)
		}
	}
	return out
}

// hull is the convex outline around points (Andrew's way).
func hull(points [][2]float64) [][2]float64 {
	slices.SortFunc(points, func(a, b [2]float64) int {
		if a[0] != b[0] {
			return cmp.Compare(a[0], b[0])
		}
		return cmp.Compare(a[1], b[1])
	})
	half := func(list [][2]float64) (out [][2]float64) {
		for _, c := range list {
			for len(out) > 1 && turns(out[len(out)-2], out[len(out)-1], c) <= 0 {
				out = out[:len(out)-1]
			}
			out = append(out, c)
		}
		return out[:max(0, len(out)-1)]
	}
	lower := half(points)
	slices.Reverse(points)
	return append(lower, half(points)...)
}

func turns(a, b, c [2]float64) float64 { return (b[0]-a[0])*(c[1]-a[1]) - (b[1]-a[1])*(c[0]-a[0]) }

// Share is how much of the picture convex outlines in it cover together, 0 to 1.
func Share(outlines ...[][2]float64) (share float64) {
	if len(outlines) > 1 {
		return together(outlines)
	}
	for _, outline := range outlines {
		share += twiceArea(outline) / 2 / 4
	}
	if share < 1e-9 {
		return 0 // rounding: they touch
	}
	return share
}

func twiceArea(outline [][2]float64) (twice float64) {
	for i, c := range outline {
		next := outline[(i+1)%len(outline)]
		twice += c[0]*next[1] - next[0]*c[1]
	}
	return twice
}

// columns is into how many columns of one width a picture is cut to add up what lies over one another: the
// share is off by less than a thousandth for each outline.
const columns = 1000

// together is the share of the picture that is covered by one outline at least: in the middle of each
// column their stretches are joined.
func together(outlines [][][2]float64) (share float64) {
	stretches := make([][2]float64, 0, len(outlines))
	for i := range columns {
		x := -1 + (2*float64(i)+1)/columns
		stretches = stretches[:0]
		for _, outline := range outlines {
			if low, high := stretch(outline, x); low < high {
				stretches = append(stretches, [2]float64{low, high})
			}
		}
		slices.SortFunc(stretches, func(a, b [2]float64) int { return cmp.Compare(a[0], b[0]) })
		end := math.Inf(-1)
		for _, s := range stretches {
			share += max(0, s[1]-max(s[0], end)) / 2 / columns
			end = max(end, s[1])
		}
	}
	return share
}

// stretch is from where to where a convex outline reaches at a place across.
func stretch(outline [][2]float64, x float64) (low, high float64) {
	low, high = math.Inf(1), math.Inf(-1)
	for i, to := range outline {
		from := outline[(i+len(outline)-1)%len(outline)]
		if (from[0] <= x) == (to[0] <= x) {
			continue
		}
		y := from[1] + (x-from[0])/(to[0]-from[0])*(to[1]-from[1])
		low, high = min(low, y), max(high, y)
	}
	return low, high
}

// Moved is the view from further on, the way the camera is turned, level.
func (v View) Moved(by unit.Millimetres) View {
	sin, cos := math.Sincos(float64(v.Turn) * math.Pi / 180)
	v.From[X] += unit.Millimetres(cos) * by
	v.From[Y] += unit.Millimetres(sin) * by
	return v
}

// FreeAfter is how far on a camera has to be moved, level, until a solid that it sees is out of
// its picture; false where that is not within a distance. A solid is seen from one stretch of
// the way alone: solid and view are convex.
func (l *Look) FreeAfter(within unit.Millimetres) (unit.Millimetres, bool) {
	last, beyond := l.leaves()
	seen, free := unit.Millimetres(last), min(unit.Millimetres(beyond), within)
	if free == within && (seen >= within || l.from.Moved(free).Sees(l.body)) {
		return 0, false
	}
	for free-seen > 0.01 {
		if middle := (seen + free) / 2; l.from.Moved(middle).Sees(l.body) {
			seen = middle
		} else {
			free = middle
		}
	}
	return free, true
}

// leaves says how far on, in millimetres, a corner of a body is in the picture for the last time,
// 0 where none is, and from where on all of it is beyond one plane; infinite: never.
func (l *Look) leaves() (last, beyond float64) {
	sin, cos := math.Sincos(float64(l.from.Up) * math.Pi / 180)
	var nears [5]float64 // how much nearer a plane is for each millimetre
	furthest := [5]float64{math.Inf(-1), math.Inf(-1), math.Inf(-1), math.Inf(-1), math.Inf(-1)}
	for k := range l.sides {
		nears[k] = dot(l.sides[k].normal, point{cos, 0, -sin})
	}
	for _, outline := range [][]corner{l.bottom, l.top} {
		for i := range outline {
			from, to := 0.0, math.Inf(1)
			for k := range l.sides {
				near := l.sides[k].near(outline[i].at)
				furthest[k] = max(furthest[k], near)
				switch {
				case nears[k] > 0:
					to = min(to, near/nears[k])
				case nears[k] < 0:
					from = max(from, near/nears[k])
				case near < 0:
					to = 0
				}
			}
			if from <= to {
				last = max(last, to)
			}
		}
	}
	beyond = math.Inf(1)
	for k := range nears {
		if nears[k] > 0 {
			beyond = min(beyond, furthest[k]/nears[k])
		}
	}
	return last, beyond
}
