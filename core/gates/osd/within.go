package osd

import (
	"slices"

	"yokeswap/core/facts/fleet"
)

// meant are elements that lie in one another wherever flight data is drawn, as far as
// the flight firmware's sheet says nothing else (common practice).
var meant = map[string][]string{"crosshair": {"horizon", "horizon-sidebars"}, "horizon": {"horizon-sidebars"}}

// within says whether an element is meant to lie in another.
func (v *view) within(inner, outer string) bool {
	if e, ok := v.runs.Element(inner); ok && len(e.Within) > 0 {
		return slices.Contains(e.Within, outer)
	}
	return slices.Contains(meant[inner], outer)
}

// convert brings a layout onto the grid of the screen. What lies in another element on
// purpose comes to lie in it again: in the same place of the picture where that is
// inside, else in its middle.
func (v *view) convert(l fleet.Layout) (out fleet.Layout, dropped []fleet.Placed) {
	rest := fleet.Layout{Grid: l.Grid, Elements: []fleet.Placed{}}
	type nested struct{ inner, outer fleet.Placed }
	var inside []nested
	for _, e := range l.Elements {
		at := slices.IndexFunc(l.Elements, func(o fleet.Placed) bool {
			return v.within(e.ID, o.ID) && v.box(e).overlaps(v.box(o)) && e.ProfileBits()&o.ProfileBits() != 0
		})
		if at < 0 {
			rest.Elements = append(rest.Elements, e)
		} else {
			inside = append(inside, nested{e, l.Elements[at]})
		}
	}
	out, dropped = Convert(rest, v.screen.Grid, v.sizes)
	for _, n := range inside {
		at := slices.IndexFunc(out.Elements, func(o fleet.Placed) bool { return o.ID == n.outer.ID })
		alone, _ := Convert(fleet.Layout{Grid: l.Grid, Elements: []fleet.Placed{n.inner}}, v.screen.Grid, v.sizes)
		if at < 0 || len(alone.Elements) == 0 {
			dropped = append(dropped, n.inner)
			continue
		}
		placed, around := alone.Elements[0], v.box(out.Elements[at])
		if own := v.box(placed); !around.holds(own) {
			placed.X, placed.Y = around.x+(around.w-own.w)/2, around.y+(around.h-own.h)/2
		}
		out.Elements = append(out.Elements, placed)
	}
	return out, dropped
}

// box is the room an element takes.
func (v *view) box(e fleet.Placed) box {
	w, h := v.sizes(e.ID)
	return box{e.X, e.Y, w, h}
}

// holds says whether a box lies wholly within another.
func (b box) holds(o box) bool {
	return o.x >= b.x && o.y >= b.y && o.x+o.w <= b.x+b.w && o.y+o.h <= b.y+b.h
}
