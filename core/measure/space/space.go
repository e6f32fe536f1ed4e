// Package space asks whether blocks meet. The frame of reference is that of the quad: x
// forward, y to the left, z up, lengths in whole micrometres, so that blocks that touch do
// not overlap.
package space

import (
	"math"
	"slices"

	"yokeswap/core/measure/unit"
)

// Box is a block with upright sides.
type Box struct{ Min, Max [3]int64 }

// Axes of a box.
const (
	X = iota // forward
	Y        // to the left
	Z        // up
)

// Micro is a length in whole micrometres.
func Micro(l unit.Millimetres) int64 { return int64(math.Round(float64(l) * 1000)) }

// MM is a length of a box in millimetres.
func MM(n int64) unit.Millimetres { return unit.Millimetres(float64(n) / 1000) }

// Standing is a block of a size, the middle of its underside at a place, turned to the left
// by quarters.
func Standing(at, size [3]unit.Millimetres, quarters int) Box {
	lengthX, lengthY := Micro(size[X]), Micro(size[Y])
	if quarters%2 != 0 {
		lengthX, lengthY = lengthY, lengthX
	}
	x, y, z := Micro(at[X]), Micro(at[Y]), Micro(at[Z])
	return Box{
		Min: [3]int64{x - lengthX/2, y - lengthY/2, z},
		Max: [3]int64{x - lengthX/2 + lengthX, y - lengthY/2 + lengthY, z + Micro(size[Z])},
	}
}

// Meets says how far two blocks lie in one another, along the way that takes least to part
// them, and that way: above zero the first moves up the axis. They do not meet where by is
// zero.
func (b Box) Meets(o Box) (axis int, by int64) {
	least := int64(math.MaxInt64)
	for i := range 3 {
		up, down := o.Max[i]-b.Min[i], b.Max[i]-o.Min[i]
		if up <= 0 || down <= 0 {
			return 0, 0
		}
		if up < least {
			least, axis, by = up, i, up
		}
		if down < least {
			least, axis, by = down, i, -down
		}
	}
	return axis, by
}

// Beside is the block of a depth that lies at a side of another: above zero up the axis.
func (b Box) Beside(axis int, depth int64) Box {
	if depth > 0 {
		b.Min[axis], b.Max[axis] = b.Max[axis], b.Max[axis]+depth
	} else {
		b.Min[axis], b.Max[axis] = b.Min[axis]+depth, b.Min[axis]
	}
	return b
}

// Narrowed is the middle of a block along an axis, no wider than it is.
func (b Box) Narrowed(axis int, width int64) Box {
	if off := (b.Max[axis] - b.Min[axis] - width) / 2; off > 0 {
		b.Min[axis] += off
		b.Max[axis] = b.Min[axis] + width
	}
	return b
}

// Covered says whether nothing of a block is free along an axis: whoever looks along it sees one of
// some others in front of each place.
func (b Box) Covered(axis int, by []Box) bool {
	across, up := (axis+1)%3, (axis+2)%3
	var before []Box
	edges := [2][]int64{{b.Min[across], b.Max[across]}, {b.Min[up], b.Max[up]}}
	for _, o := range by {
		if _, in := b.Meets(o); in == 0 {
			continue
		}
		before = append(before, o)
		for i, side := range []int{across, up} {
			for _, edge := range []int64{o.Min[side], o.Max[side]} {
				if edge > b.Min[side] && edge < b.Max[side] {
					edges[i] = append(edges[i], edge)
				}
			}
		}
	}
	for i := range edges {
		slices.Sort(edges[i])
		edges[i] = slices.Compact(edges[i])
	}
	// Between two neighbouring edges it is covered everywhere or nowhere.
	for i := range len(edges[0]) - 1 {
		for k := range len(edges[1]) - 1 {
			if !slices.ContainsFunc(before, func(o Box) bool {
				return o.Min[across] <= edges[0][i] && o.Max[across] >= edges[0][i+1] &&
					o.Min[up] <= edges[1][k] && o.Max[up] >= edges[1][k+1]
			}) {
				return false
			}
		}
	}
	return true
}
