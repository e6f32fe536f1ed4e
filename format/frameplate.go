package format

import (
	"fmt"
	"math"

	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/plane"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// outlinePlay is how far an outline may be off the edges that are stated of its plate (from memory).
const outlinePlay unit.Millimetres = 0.5

// checkPlate checks what is drawn of a plate: an outline that does not cross itself and reaches its
// stated edges, and openings within it that keep clear of each other.
func checkPlate(ps *Problems, at string, p *gear.FramePlate) {
	if len(p.Outline) == 0 {
		if len(p.Openings) > 0 {
			ps.add(at+".openings", "openings without an outline: draw what they are cut out of")
		}
		return
	}
	outline, ok := drawn(ps, at+".outline", p.Outline)
	if !ok {
		return
	}
	checkReach(ps, at+".outline", p, outline)
	left := outline
	for i := range p.Openings {
		here := at + "." + indexed("openings", i) + ".corners"
		opening, ok := drawn(ps, here, p.Openings[i].Corners)
		if !ok {
			continue
		}
		rest, err := plane.Cut(left, opening)
		if err != nil || !near(left.AreaMM2()-opening.AreaMM2(), rest.AreaMM2()) {
			ps.add(here, "expected an opening within the outline and clear of the others")
			continue
		}
		if left = rest; len(rest.Areas()) != 1 {
			ps.add(here, "the opening cuts the plate in two")
			return
		}
	}
}

// near says whether two areas are one within what cutting rounds off.
func near(a, b float64) bool { return math.Abs(a-b) < 0.5 }

// drawn is the area within some corners; false where they enclose none, which is said.
func drawn(ps *Problems, at string, corners []gear.Corner) (s plane.Shape, ok bool) {
	if len(corners) < 3 {
		ps.add(at, "expected three corners at least, got %d", len(corners))
		return s, false
	}
	line := make([][2]float64, 0, len(corners))
	for _, c := range corners {
		line = append(line, [2]float64{float64(c.XMM), float64(c.YMM)})
	}
	s = plane.Outline(line...)
	if err := s.Check(); err != nil {
		ps.add(at, "%v", err)
		return s, false
	}
	return s, true
}

// checkReach holds an outline against the edges that are stated of its plate.
func checkReach(ps *Problems, at string, p *gear.FramePlate, outline plane.Shape) {
	rear, right, front, left := outline.Box()
	off := func(a, b unit.Millimetres) bool { return unit.Over(max(a-b, b-a), outlinePlay) }
	if off(rear, p.FromXMM) || off(front, p.ToXMM) {
		ps.add(at, "expected it to reach from the rear edge at %s to the front edge at %s, it reaches from %s to %s",
			p.FromXMM, p.ToXMM, rear, front)
	}
	if p.YMM == nil {
		ps.add(at, "state how wide the plate is: its outline is %s", fmt.Sprint(left-right))
		return
	}
	if half := *p.YMM / 2; off(left, half) || off(-right, half) {
		ps.add(at, "expected it to reach %s to either side, half the width stated, it reaches %s to the left and %s to the "+
			"right", half, left, -right)
	}
}

// checkHoles asks whether the holes of the bays of a frame lie on the plates they are said to be in.
func checkHoles(ps *Problems, path string, f *gear.Frame) {
	for i := range f.Bays {
		bay := &f.Bays[i]
		on, there := f.Plate(bay.On)
		if !there || on.YMM == nil || bay.AtXMM == nil || bay.AtYMM == nil {
			continue
		}
		flat := *on
		flat.ZMM, flat.ThickMM = new(unit.Millimetres), new(unit.Millimetres(1))
		slab, _ := flat.Slab()
		for k, h := range bay.Patterns {
			if x, y, off := offPlate(slab, *bay.AtXMM, *bay.AtYMM, h); off {
				ps.add(fmt.Sprintf("%s.%s.%s", path, indexed("bays", i), indexed("patterns", k)),
					"the hole %s forward and %s to the left is not on the %s: the pattern is larger than it, or lies elsewhere", x, y,
					on.Label())
			}
		}
	}
}

// offPlate is a hole of a pattern around a place that is not on a plate; its x is along.
func offPlate(slab space.Slab, x, y unit.Millimetres, h gear.Holes) (atX, atY unit.Millimetres, off bool) {
	const middle unit.Millimetres = 0.02
	for _, side := range [][2]unit.Millimetres{{-1, -1}, {-1, 1}, {1, -1}, {1, 1}} {
		atX, atY = x+side[0]*h.YMM/2, y+side[1]*h.XMM/2
		hole := space.Standing([3]unit.Millimetres{atX, atY}, [3]unit.Millimetres{middle, middle, 1}, 0)
		if slab.Carries(hole) < 0.5 {
			return atX, atY, true
		}
	}
	return 0, 0, false
}
