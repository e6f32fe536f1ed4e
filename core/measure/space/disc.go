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
	const corners = 24
	reach := float64(MM(d.Radius)) / math.Cos(math.Pi/corners)
	bottom, top := make([]point, corners), make([]point, corners)
	for i := range corners {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / corners)
		x, y := float64(MM(d.X))+reach*cos, float64(MM(d.Y))+reach*sin
		bottom[i], top[i] = point{x, y, float64(MM(d.From))}, point{x, y, float64(MM(d.To))}
	}
	return between(bottom, top)
}
