package space

import (
	"math"

	"yokeswap/core/measure/unit"
)

// Disc is an upright cylinder: what a propeller sweeps, a duct.
type Disc struct{ X, Y, Radius, From, To int64 }

// NewDisc is a cylinder of a diameter around a middle, from one height to another.
func NewDisc(x, y, diameter, from, to unit.Millimetres) Disc {
	return Disc{Micro(x), Micro(y), Micro(diameter / 2), Micro(from), Micro(to)}
}

// Meets says how far a block lies in the cylinder, straight away from its middle; zero: not.
func (d Disc) Meets(b Box) int64 {
	if b.Max[Z] <= d.From || b.Min[Z] >= d.To {
		return 0
	}
	outside := func(at, low, high int64) float64 { return float64(max(low-at, 0, at-high)) }
	away := math.Hypot(outside(d.X, b.Min[X], b.Max[X]), outside(d.Y, b.Min[Y], b.Max[Y]))
	return max(0, int64(math.Ceil(float64(d.Radius)-away)))
}

// around is the least block that holds the cylinder.
func (d Disc) around() Box {
	return Box{Min: [3]int64{d.X - d.Radius, d.Y - d.Radius, d.From}, Max: [3]int64{d.X + d.Radius, d.Y + d.Radius, d.To}}
}

// Solid is a cylinder as a body of many sides, which holds all of it.
func (d Disc) Solid() Solid {
	bottom, top := make([]point, len(roundabout)), make([]point, len(roundabout))
	radius := float64(MM(d.Radius))
	for i, at := range roundabout {
		x, y := float64(MM(d.X))+radius*at[X], float64(MM(d.Y))+radius*at[Y]
		bottom[i], top[i] = point{x, y, float64(MM(d.From))}, point{x, y, float64(MM(d.To))}
	}
	return Solid{bottom, top}
}

// roundabout are the corners of a polygon whose sides touch the circle of radius 1 from outside.
var roundabout = func() (list [24][2]float64) {
	reach := 1 / math.Cos(math.Pi/float64(len(list)))
	for i := range list {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(len(list)))
		list[i] = [2]float64{reach * cos, reach * sin}
	}
	return list
}()

// Reach is the middle of a cylinder, and how far from there it reaches.
func (d Disc) Reach() (middle [3]float64, far float64) {
	middle = [3]float64{float64(MM(d.X)), float64(MM(d.Y)), float64(MM(d.From)+MM(d.To)) / 2}
	return middle, math.Hypot(float64(MM(d.Radius))*roundabout[0][X], float64(MM(d.To)-MM(d.From))/2)
}
