package plane

import (
	"math"

	"yokeswap/core/measure/unit"
)

// LeastWall is the thinnest place of a shape: from the middle of each side
// straight inwards to the next side, and between any two rings. Infinite for a shape without
// sides.
func (s Shape) LeastWall() unit.Millimetres {
	least := math.Inf(1)
	for _, a := range s.Areas() {
		rings := append([]Ring{a.Outer}, a.Holes...)
		for i, r := range rings {
			for j := range r {
				least = min(least, inwards(rings, r[j], r[(j+1)%len(r)]))
			}
			for _, other := range rings[i+1:] {
				least = min(least, apart(r, other))
			}
		}
	}
	return unit.Millimetres(least / perMM)
}

// inwards is how far it is from the middle of a side into the area, to the next side.
func inwards(rings []Ring, a, b Point) float64 {
	dx, dy := float64(b.X-a.X), float64(b.Y-a.Y)
	length := math.Hypot(dx, dy)
	nx, ny := -dy/length, dx/length // to the left lies the area
	mx, my := float64(a.X+b.X)/2, float64(a.Y+b.Y)/2
	least := math.Inf(1)
	for _, r := range rings {
		for i, p := range r {
			q := r[(i+1)%len(r)]
			ex, ey := float64(q.X-p.X), float64(q.Y-p.Y)
			across := nx*ey - ny*ex
			if math.Abs(across) < 1e-9 {
				continue
			}
			px, py := float64(p.X)-mx, float64(p.Y)-my
			far := (px*ey - py*ex) / across
			along := (px*ny - py*nx) / across
			if far > 1 && along >= 0 && along <= 1 {
				least = min(least, far)
			}
		}
	}
	return least
}

// apart is how near two rings come to one another.
func apart(r, o Ring) float64 {
	least := math.Inf(1)
	for i, p := range r {
		for j, q := range o {
			least = min(least, toLine(p, q, o[(j+1)%len(o)]), toLine(q, p, r[(i+1)%len(r)]))
		}
	}
	return least
}

// toLine is how far a point is from a line between two others.
func toLine(p, a, b Point) float64 {
	dx, dy := float64(b.X-a.X), float64(b.Y-a.Y)
	t := 0.0
	if square := dx*dx + dy*dy; square > 0 {
		t = max(0, min(1, (float64(p.X-a.X)*dx+float64(p.Y-a.Y)*dy)/square))
	}
	return math.Hypot(float64(p.X-a.X)-t*dx, float64(p.Y-a.Y)-t*dy)
}
