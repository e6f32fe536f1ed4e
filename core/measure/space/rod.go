package space

import (
	"math"

	"yokeswap/core/measure/unit"
)

// Rod is a straight round body from its foot to its tip, such as an antenna, in millimetres.
type Rod struct {
	Foot, Tip [3]float64
	Radius    float64
}

// NewRod stands at a foot, so long and thick, turned to the left from forward and risen from the
// level.
func NewRod(foot [3]unit.Millimetres, long, diameter unit.Millimetres, turn, rise unit.Degrees) Rod {
	r := Rod{Radius: float64(diameter) / 2}
	way := Direction(turn, rise)
	for i := range 3 {
		r.Foot[i] = float64(foot[i])
		r.Tip[i] = r.Foot[i] + way[i]*float64(long)
	}
	return r
}

// Direction is the unit vector turned to the left from forward and risen from the level.
func Direction(turn, rise unit.Degrees) [3]float64 {
	sinT, cosT := math.Sincos(float64(turn) * math.Pi / 180)
	sinR, cosR := math.Sincos(float64(rise) * math.Pi / 180)
	return [3]float64{cosT * cosR, sinT * cosR, sinR}
}

// Between is the angle between two rods, 0 to 180 degrees.
func (r Rod) Between(o Rod) unit.Degrees {
	a, b := minus(point(r.Tip), point(r.Foot)), minus(point(o.Tip), point(o.Foot))
	return unit.Degrees(angle(a, b) * 180 / math.Pi)
}

// Apart is how far the middle line of a rod is from a block at the nearest; zero: it goes
// through.
func (r Rod) Apart(b Box) float64 {
	return r.least(func(p point) float64 {
		var square float64
		for i := range 3 {
			off := outside(p[i], float64(MM(b.Min[i])), float64(MM(b.Max[i])))
			square += off * off
		}
		return math.Sqrt(square)
	})
}

// ApartFrom is how far the middle line of a rod is from a cylinder at the nearest.
func (r Rod) ApartFrom(d Disc) float64 {
	return r.least(func(p point) float64 {
		from := math.Hypot(p[X]-float64(MM(d.X)), p[Y]-float64(MM(d.Y)))
		return math.Hypot(max(0, from-float64(MM(d.Radius))), outside(p[Z], float64(MM(d.From)), float64(MM(d.To))))
	})
}

// In says how far a rod reaches into a block, and InDisc into a cylinder, by its thickness;
// zero: it does not.
func (r Rod) In(b Box) float64 {
	if r.clear(b) {
		return 0
	}
	return max(0, r.Radius-r.Apart(b))
}

// InDisc is the same of a cylinder.
func (r Rod) InDisc(d Disc) float64 {
	if r.clear(d.around()) || r.besides(d) {
		return 0
	}
	return max(0, r.Radius-r.ApartFrom(d))
}

// besides says whether a rod, seen from above, passes a cylinder.
func (r Rod) besides(d Disc) bool {
	x, y := float64(MM(d.X)), float64(MM(d.Y))
	dx, dy := r.Tip[X]-r.Foot[X], r.Tip[Y]-r.Foot[Y]
	along := 0.0
	if square := dx*dx + dy*dy; square > 0 {
		along = max(0, min(1, ((x-r.Foot[X])*dx+(y-r.Foot[Y])*dy)/square))
	}
	return math.Hypot(r.Foot[X]+along*dx-x, r.Foot[Y]+along*dy-y) > float64(MM(d.Radius))+r.Radius
}

// clear says whether the whole length of a rod lies beyond one side of a block: most do, and
// need no search.
func (r Rod) clear(b Box) bool {
	for i := range 3 {
		if min(r.Foot[i], r.Tip[i])-r.Radius > float64(MM(b.Max[i])) ||
			max(r.Foot[i], r.Tip[i])+r.Radius < float64(MM(b.Min[i])) {
			return true
		}
	}
	return false
}

func outside(at, low, high float64) float64 { return max(low-at, 0, at-high) }

// least is the least distance along a rod. The distance from a convex body is convex along a
// line: narrowed down by the golden section.
func (r Rod) least(distance func(point) float64) float64 {
	on := func(t float64) float64 {
		var p point
		for i := range p {
			p[i] = r.Foot[i] + t*(r.Tip[i]-r.Foot[i])
		}
		return distance(p)
	}
	golden := (math.Sqrt(5) - 1) / 2
	low, high := 0.0, 1.0
	a, b := high-golden*(high-low), low+golden*(high-low)
	atA, atB := on(a), on(b)
	for range 48 {
		if atA <= atB {
			high, b, atB = b, a, atA
			a = high - golden*(high-low)
			atA = on(a)
		} else {
			low, a, atA = a, b, atB
			b = low + golden*(high-low)
			atB = on(b)
		}
	}
	return min(on(0), on(1), on((low+high)/2))
}

// Solid is a rod as a body of eight sides around it.
func (r Rod) Solid() Solid {
	const corners = 8
	way := minus(point(r.Tip), point(r.Foot))
	side := cross(way, point{0, 0, 1})
	if length(side) < 1e-9 {
		side = point{1, 0, 0}
	}
	side = times(side, 1/length(side))
	up := cross(side, way)
	if l := length(up); l > 0 {
		up = times(up, 1/l)
	}
	reach := r.Radius / math.Cos(math.Pi/corners)
	foot, tip := make([]point, corners), make([]point, corners)
	for i := range corners {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / corners)
		for k := range 3 {
			off := reach * (cos*side[k] + sin*up[k])
			foot[i][k], tip[i][k] = r.Foot[k]+off, r.Tip[k]+off
		}
	}
	return Solid{foot, tip}
}

func minus(a, b point) point          { return point{a[0] - b[0], a[1] - b[1], a[2] - b[2]} }
func plus(a, b point) point           { return point{a[0] + b[0], a[1] + b[1], a[2] + b[2]} }
func times(a point, by float64) point { return point{a[0] * by, a[1] * by, a[2] * by} }
func dot(a, b point) float64          { return a[0]*b[0] + a[1]*b[1] + a[2]*b[2] }
func length(a point) float64          { return math.Sqrt(dot(a, a)) }
func cross(a, b point) point {
	return point{a[1]*b[2] - a[2]*b[1], a[2]*b[0] - a[0]*b[2], a[0]*b[1] - a[1]*b[0]}
}

// angle between two vectors, 0 to π.
func angle(a, b point) float64 {
	l := length(a) * length(b)
	if l == 0 {
		return 0
	}
	return math.Acos(max(-1, min(1, dot(a, b)/l)))
}
