package space

// Solid is an upright or slanting convex body between two outlines of as many corners, in
// millimetres: a corner of the one is joined with that of the same place in the other.
type Solid struct{ bottom, top []point }

type point [3]float64

// Solid is a block as a body.
func (b Box) Solid() Solid {
	low, high := [2]float64{}, [2]float64{}
	for i := range 2 {
		low[i], high[i] = float64(MM(b.Min[i])), float64(MM(b.Max[i]))
	}
	around := [][2]float64{low, {high[0], low[1]}, high, {low[0], high[1]}}
	s := Solid{make([]point, len(around)), make([]point, len(around))}
	for i, c := range around {
		s.bottom[i] = point{c[0], c[1], float64(MM(b.Min[Z]))}
		s.top[i] = point{c[0], c[1], float64(MM(b.Max[Z]))}
	}
	return s
}

// Bottom are the corners it begins with.
func (s Solid) Bottom() []point { return s.bottom }

// Middle of a body's corners.
func (s Solid) Middle() (middle [3]float64) {
	for _, outline := range [][]point{s.bottom, s.top} {
		for _, c := range outline {
			for i := range c {
				middle[i] += c[i]
			}
		}
	}
	for i := range middle {
		middle[i] /= float64(len(s.bottom) + len(s.top))
	}
	return middle
}
