package space

import "math"

// Lead is the way of a lead: it leaves a place in one direction and comes to another in one,
// bent around a radius at each corner. Lengths are in millimetres.
type Lead struct {
	From, Leaves [3]float64 // where it starts, and the unit vector of the way it leaves
	To, Arrives  [3]float64 // where it ends, and the way it comes in
	Radius       float64    // it is bent around at least
}

// Way is how long the lead has to be at least to lie without pulling, and the least radius it is
// then bent around: less than is asked for where there is no room for it. It runs straight for
// one to three radii from either end and straight between; each corner is rounded (the tangent of
// half the turn, times the radius, goes to either side of a corner). Of these ways it is the one
// bent least, and of those the shortest.
func (l Lead) Way() (long, radius float64) {
	stretches := []float64{1, 1.5, 2, 3}
	radius = -1
	for _, out := range stretches {
		for _, in := range stretches {
			if way, r := l.way(out*l.Radius, in*l.Radius); r > radius+1e-9 || r > radius-1e-9 && way < long {
				long, radius = way, r
			}
		}
	}
	return long, radius
}

// way is that with so much straight from either end.
func (l Lead) way(out, in float64) (long, radius float64) {
	from := plus(point(l.From), times(point(l.Leaves), out))
	to := minus(point(l.To), times(point(l.Arrives), in))
	between := minus(to, from)
	first, second := min(maxTurn, angle(point(l.Leaves), between)), min(maxTurn, angle(between, point(l.Arrives)))
	long, radius = out+length(between)+in, l.Radius
	// The straight stretches share what their corners take.
	a, b := math.Tan(first/2), math.Tan(second/2)
	for _, s := range []struct{ room, wants float64 }{{out, a}, {length(between), a + b}, {in, b}} {
		if s.wants > 0 {
			radius = min(radius, s.room/s.wants)
		}
	}
	return long - radius*(2*a-first+2*b-second), radius
}

// maxTurn is how far a lead turns at one corner: beyond it, it would fold back on itself.
const maxTurn = 170 * math.Pi / 180
