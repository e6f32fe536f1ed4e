// Package solid makes bodies out of flat shapes: a body is a shape drawn out along a
// direction, a part is one body or several that touch.
//
// The frame of reference is that of the quad: x forward, y to the left, z up, millimetres.
// A body is closed and its triangles turn to the left seen from outside, so that it goes to a
// printer as it is.
package solid

import (
	"yokeswap/core/measure/plane"
	"yokeswap/core/measure/unit"
)

// Along is the direction a shape is drawn out in.
type Along int

// The directions, with what the shape's own directions become.
const (
	AlongZ Along = iota // the shape lies flat: its x and y are x and y
	AlongX              // the shape stands across: its x and y are y and z
	AlongY              // the shape stands lengthwise: its x and y are z and x
)

// Body is a shape drawn out.
type Body struct {
	Shape    plane.Shape
	Along    Along
	From, To unit.Millimetres
}

// Point is a place in millimetres.
type Point struct{ X, Y, Z float64 }

// Triangle is three corners, to the left seen from outside.
type Triangle [3]Point

// VolumeMM3 is the volume in cubic millimetres.
func (b Body) VolumeMM3() float64 { return b.Shape.AreaMM2() * float64(b.To-b.From) }

// Triangles are the skin of the body: both ends, and a wall on each side of each ring.
func (b Body) Triangles() (list []Triangle) {
	low, high := float64(b.From), float64(b.To)
	at := func(p plane.Point, z float64) Point {
		x, y := plane.MM(p.X), plane.MM(p.Y)
		switch b.Along {
		case AlongX:
			return Point{z, x, y}
		case AlongY:
			return Point{y, z, x}
		}
		return Point{x, y, z}
	}
	for _, area := range b.Shape.Areas() {
		for _, t := range area.Triangles() {
			list = append(list,
				Triangle{at(t[0], high), at(t[1], high), at(t[2], high)},
				Triangle{at(t[0], low), at(t[2], low), at(t[1], low)})
		}
		for _, ring := range append([]plane.Ring{area.Outer}, area.Holes...) {
			for i, p := range ring {
				q := ring[(i+1)%len(ring)]
				list = append(list,
					Triangle{at(p, low), at(q, low), at(q, high)},
					Triangle{at(p, low), at(q, high), at(p, high)})
			}
		}
	}
	return list
}

// Volume of a skin in cubic millimetres, by the divergence theorem: what it encloses where it
// is closed and turns outwards.
func Volume(skin []Triangle) (sum float64) {
	for _, t := range skin {
		a, b, c := t[0], t[1], t[2]
		sum += a.X*(b.Y*c.Z-b.Z*c.Y) - a.Y*(b.X*c.Z-b.Z*c.X) + a.Z*(b.X*c.Y-b.Y*c.X)
	}
	return sum / 6
}
