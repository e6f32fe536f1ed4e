package space

import (
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

// Solid is a convex body as its flat faces, their corners in millimetres.
type Solid [][]point

type point [3]float64

// Solid is a block as a body.
func (b Box) Solid() Solid {
	low, high := [2]float64{}, [2]float64{}
	for i := range 2 {
		low[i], high[i] = float64(MM(b.Min[i])), float64(MM(b.Max[i]))
	}
	around := [][2]float64{low, {high[0], low[1]}, high, {low[0], high[1]}}
	bottom, top := make([]point, len(around)), make([]point, len(around))
	for i, c := range around {
		bottom[i] = point{c[0], c[1], float64(MM(b.Min[Z]))}
		top[i] = point{c[0], c[1], float64(MM(b.Max[Z]))}
	}
	return between(bottom, top)
}

// bases is how many of a body's faces hold all of its corners: the two that it lies between.
const bases = 2

// between is the body between two outlines of as many corners.
func between(bottom, top []point) Solid {
	faces := Solid{bottom, top}
	for i := range bottom {
		next := (i + 1) % len(bottom)
		faces = append(faces, []point{bottom[i], bottom[next], top[next], top[i]})
	}
	return faces
}

// Middle of a body's corners.
func (s Solid) Middle() (middle [3]float64) {
	n := 0.0
	for _, face := range s {
		for _, c := range face {
			for i := range c {
				middle[i] += c[i]
			}
			n++
		}
	}
	for i := range middle {
		middle[i] /= n
	}
	return middle
}

// Seen is what of a solid lies in the picture: a convex outline, where the edges of the picture
// lie at −1 and 1, right and up counted above 0, drawn as a lens without distortion does it.
// It is nil where nothing of it is in the picture.
func (v View) Seen(body Solid) [][2]float64 {
	var corners [][2]float64
	into, sides := v.into(), v.sides()
	wide, high := tan(v.Wide/2), tan(v.High/2)
	if where(body[:bases], into, sides) == beyondOne {
		return nil
	}
	for _, outline := range body {
		face := make([]point, len(outline))
		for i, c := range outline {
			face[i] = into(c)
		}
		for _, side := range sides {
			face = clip(face, side)
		}
		for _, c := range face {
			corners = append(corners, [2]float64{-c[Y] / (c[X] * wide), c[Z] / (c[X] * high)})
		}
	}
	if around := hull(corners); Share(around) > 0 {
		return around
	}
	return nil
}

// Sees says whether Seen has anything; mostly its corners alone tell.
func (v View) Sees(body Solid) bool {
	switch where(body[:bases], v.into(), v.sides()) {
	case beyondOne:
		return false
	case cornerIn:
		return true
	}
	return v.Seen(body) != nil
}

// What the corners of a body tell of where it lies.
const (
	across    = iota // each plane has corners on its near side, and no corner is in the picture
	beyondOne        // all of it is beyond one plane
	cornerIn         // a corner is in the picture
)

// where the corners of outlines lie to the planes of a view.
func where(outlines [][]point, into func(point) point, sides [5]side) int {
	beyondAll := 1<<len(sides) - 1
	for _, outline := range outlines {
		for _, c := range outline {
			at, beyond := into(c), 0
			for k := range sides {
				if sides[k].near(at) < 0 {
					beyond |= 1 << k
				}
			}
			if beyond == 0 {
				return cornerIn
			}
			beyondAll &= beyond
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

// nearest is how near before the lens something is seen, in millimetres: what touches the
// planes behind it is not.
const nearest = 1e-6

func tan(d unit.Degrees) float64 { return math.Tan(float64(d) * math.Pi / 180) }

// into gives a point as the camera has it: how far before the lens, to its left and above it.
func (v View) into() func(point) point {
	sinT, cosT := math.Sincos(float64(v.Turn) * math.Pi / 180)
	sinU, cosU := math.Sincos(float64(v.Up) * math.Pi / 180)
	return func(c point) point {
		for i := range c {
			c[i] -= float64(v.From[i])
		}
		c[X], c[Y] = cosT*c[X]+sinT*c[Y], cosT*c[Y]-sinT*c[X]
		c[X], c[Z] = cosU*c[X]+sinU*c[Z], cosU*c[Z]-sinU*c[X]
		return c
	}
}

// clip is what of a flat outline lies on the near side of a plane (the way of Sutherland and
// Hodgman).
func clip(face []point, at side) (out []point) {
	if !slices.ContainsFunc(face, func(c point) bool { return at.near(c) < 0 }) {
		return face
	}
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
	slices.SortFunc(points, func(a, b [2]float64) int { return slices.Compare(a[:], b[:]) })
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

// Share is how much of the picture an outline in it covers, 0 to 1.
func Share(outline [][2]float64) (share float64) {
	for i, c := range outline {
		next := outline[(i+1)%len(outline)]
		share += (c[0]*next[1] - next[0]*c[1]) / 2 / 4
	}
	if share < 1e-9 {
		return 0 // rounding: they touch
	}
	return share
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
func (v View) FreeAfter(body Solid, within unit.Millimetres) (unit.Millimetres, bool) {
	seen, free := unit.Millimetres(0), within
	if v.Moved(free).Sees(body) {
		return 0, false
	}
	for free-seen > 0.01 {
		if middle := (seen + free) / 2; v.Moved(middle).Sees(body) {
			seen = middle
		} else {
			free = middle
		}
	}
	return free, true
}
