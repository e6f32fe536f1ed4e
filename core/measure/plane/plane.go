// Package plane draws flat shapes with holes and works out what they leave between them.
//
// Lengths are millimetres; the points of a shape lie on whole micrometres, so that what is
// joined, cut and turned into triangles meets exactly. Joining and cutting is done by a
// general geometry library (overlay of valid polygons after OGC Simple Features).
package plane

import (
	"fmt"
	"math"

	"github.com/peterstace/simplefeatures/geom"

	"yokeswap/core/measure/unit"
)

// Shape is an area of the plane, of one piece or several, with or without holes.
type Shape struct{ g geom.Geometry }

// Ring is a closed line; its last point is followed by its first.
type Ring []Point

// Point is a place in whole micrometres.
type Point struct{ X, Y int64 }

// Area is one piece of a shape: its outer ring runs to the left, those of its holes to the
// right.
type Area struct {
	Outer Ring
	Holes []Ring
}

// perMM is how many units of a point are a millimetre.
const perMM = 1000

// MM is a length of points in millimetres.
func MM(n int64) float64 { return float64(n) / perMM }

func micro(mm float64) float64 { return math.Round(mm * perMM) }

// sagittaMM is how far the sides of a many-sided circle stay inside it.
const sagittaMM = 0.01

// sides are how many a circle is drawn with: a multiple of four.
func sides(radius float64) int {
	if radius <= sagittaMM {
		return 8
	}
	return 4 * max(6, int(math.Ceil(math.Pi/math.Acos(1-sagittaMM/radius)/4)))
}

// Disc is a round area around a place.
func Disc(x, y, diameter unit.Millimetres) Shape {
	n := sides(float64(diameter) / 2)
	line := make([]float64, 0, 2*n+2)
	for i := range n {
		angle := 2 * math.Pi * float64(i) / float64(n)
		line = append(line, micro(float64(x)+float64(diameter)/2*math.Cos(angle)),
			micro(float64(y)+float64(diameter)/2*math.Sin(angle)))
	}
	return polygon(line)
}

// Rect is a rectangle around a place, its corners rounded by a radius.
func Rect(x, y, width, height, radius unit.Millimetres) Shape {
	radius = max(0, min(radius, min(width, height)/2))
	w, h := float64(width)/2-float64(radius), float64(height)/2-float64(radius)
	var line []float64
	n := sides(float64(radius)) / 4
	for corner, at := range [][2]float64{{w, h}, {-w, h}, {-w, -h}, {w, -h}} {
		for i := range n + 1 {
			if radius == 0 && i > 0 {
				break
			}
			angle := math.Pi / 2 * (float64(corner) + float64(i)/float64(n))
			line = append(line, micro(float64(x)+at[0]+float64(radius)*math.Cos(angle)),
				micro(float64(y)+at[1]+float64(radius)*math.Sin(angle)))
		}
	}
	return polygon(line)
}

// Outline is a shape from its corners in order, in millimetres.
func Outline(corners ...[2]float64) Shape {
	var line []float64
	for _, c := range corners {
		line = append(line, micro(c[0]), micro(c[1]))
	}
	return polygon(line)
}

// polygon closes a line of whole micrometres; a point that comes twice in a row comes once.
func polygon(line []float64) Shape {
	ring := make([]float64, 0, len(line)+2)
	for i := 0; i < len(line); i += 2 {
		n := len(ring)
		if n == 0 || ring[n-2] != line[i] || ring[n-1] != line[i+1] {
			ring = append(ring, line[i], line[i+1])
		}
	}
	if n := len(ring); n >= 4 && (ring[0] != ring[n-2] || ring[1] != ring[n-1]) {
		ring = append(ring, ring[0], ring[1])
	}
	seq := geom.NewSequence(ring, geom.DimXY)
	return Shape{geom.NewPolygon([]geom.LineString{geom.NewLineString(seq)}).AsGeometry()}
}

// Turned is the shape turned to the left around the origin.
func (s Shape) Turned(by unit.Degrees) Shape {
	sin, cos := math.Sincos(float64(by) * math.Pi / 180)
	return Shape{s.g.TransformXY(func(p geom.XY) geom.XY {
		return geom.XY{X: math.Round(p.X*cos - p.Y*sin), Y: math.Round(p.X*sin + p.Y*cos)}
	})}
}

// Moved is the shape somewhere else.
func (s Shape) Moved(x, y unit.Millimetres) Shape {
	return Shape{s.g.TransformXY(func(p geom.XY) geom.XY {
		return geom.XY{X: p.X + micro(float64(x)), Y: p.Y + micro(float64(y))}
	})}
}

// Join is the area of all shapes together. It fails where one of them crosses itself or has
// no area.
func Join(shapes ...Shape) (Shape, error) {
	for _, s := range shapes {
		if err := s.Check(); err != nil {
			return s, err
		}
	}
	return onGrid("join outlines", func(by float64) (geom.Geometry, error) {
		list := make([]geom.Geometry, len(shapes))
		for i, s := range shapes {
			list[i] = nudged(s.g, by*float64(i))
		}
		return geom.UnionMany(list)
	})
}

// Cut is a shape without the areas of others. It fails as Join does.
func Cut(from Shape, others ...Shape) (Shape, error) {
	if err := from.Check(); err != nil || len(others) == 0 {
		return from, err
	}
	away, err := Join(others...)
	if err != nil {
		return from, err
	}
	return onGrid("cut one outline out of another", func(by float64) (geom.Geometry, error) {
		return geom.Difference(from.g, nudged(away.g, by))
	})
}

// nudged is a shape moved by some micrometres, twice as many across.
func nudged(g geom.Geometry, by float64) geom.Geometry {
	return g.TransformXY(func(p geom.XY) geom.XY { return geom.XY{X: p.X + by, Y: p.Y - 2*by} })
}

// onGrid is what comes of shapes, its points on whole micrometres. Where a point comes to lie
// past a side that way it is done again with the shapes a micrometre or a few apart, which is
// less than a circle is drawn with.
func onGrid(what string, done func(nudge float64) (geom.Geometry, error)) (s Shape, err error) {
	for nudge := range 6 {
		g, failed := done(float64(nudge))
		if failed != nil {
			return Shape{}, fmt.Errorf("%s: %w", what, failed)
		}
		s = Shape{g.SnapToGrid(0)}
		if err = s.Check(); err == nil {
			break
		}
	}
	return s, err
}

// Check says what is wrong with a shape: it has no area, or an outline crosses itself.
func (s Shape) Check() error {
	if s.g.IsEmpty() || s.g.Area() == 0 {
		return fmt.Errorf("an outline has no area")
	}
	if err := s.g.Validate(); err != nil {
		return fmt.Errorf("an outline crosses itself: %w", err)
	}
	return nil
}

// AreaMM2 is the area in square millimetres.
func (s Shape) AreaMM2() float64 { return s.g.Area() / (perMM * perMM) }

// Box is the smallest upright rectangle around the shape.
func (s Shape) Box() (minX, minY, maxX, maxY unit.Millimetres) {
	low, high, ok := s.g.Envelope().MinMaxXYs()
	if !ok {
		return 0, 0, 0, 0
	}
	mm := func(v float64) unit.Millimetres { return unit.Millimetres(v / perMM) }
	return mm(low.X), mm(low.Y), mm(high.X), mm(high.Y)
}

// Areas are the pieces of the shape. Where rings touch, each has a point there.
func (s Shape) Areas() (list []Area) {
	for _, part := range s.g.Dump() {
		p, ok := part.AsPolygon()
		if !ok || p.IsEmpty() {
			continue
		}
		a := Area{Outer: ringOf(p.ExteriorRing(), true)}
		for i := range p.NumInteriorRings() {
			a.Holes = append(a.Holes, ringOf(p.InteriorRingN(i), false))
		}
		list = append(list, a.meeting())
	}
	return list
}

// ringOf are the points of a closed line, to the left or to the right.
func ringOf(line geom.LineString, left bool) (ring Ring) {
	seq := line.Coordinates()
	for i := range seq.Length() - 1 {
		xy := seq.GetXY(i)
		if p := (Point{int64(xy.X), int64(xy.Y)}); len(ring) == 0 || p != ring[len(ring)-1] {
			ring = append(ring, p)
		}
	}
	if last := len(ring) - 1; last > 0 && ring[last] == ring[0] {
		ring = ring[:last]
	}
	if (ring.twiceArea() > 0) != left {
		for i, j := 0, len(ring)-1; i < j; i, j = i+1, j-1 {
			ring[i], ring[j] = ring[j], ring[i]
		}
	}
	return ring
}

// twiceArea is twice the area inside a ring; below zero where it runs to the right.
func (r Ring) twiceArea() (sum int64) {
	for i, p := range r {
		q := r[(i+1)%len(r)]
		sum += p.X*q.Y - q.X*p.Y
	}
	return sum
}
