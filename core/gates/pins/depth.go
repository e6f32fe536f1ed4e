package pins

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// within says whether a function of the air unit is wired at a depth.
func within(function string, depth fleet.Depth) bool {
	switch function {
	case gear.PinUARTRX, gear.PinUARTTX:
		return depth != fleet.PictureOnly
	case gear.PinRCOut, gear.PinRCGround:
		return depth == fleet.WithSticks
	}
	return true
}

// AtDepth is the air unit's wiring as far as a depth goes: soldered on the ports planned
// for it, or in its cable with the crimps pulled that are not wanted and those back in
// that are. It is false where that cannot be said.
func AtDepth(c fleet.Case, depth fleet.Depth) (fleet.Wiring, bool) {
	w := c.Fit.Wiring
	w.Depth = depth
	l, ok := newLoom(c.With(fleet.Patch{Wiring: &w}))
	if !ok || l.board == nil || l.run.Plug == nil {
		return w, false
	}
	if l.run.Into != nil && l.run.Harness != nil {
		w.Moved = l.pulledTo(depth)
		w.Wires = l.soldersWithin(w.Wires, depth)
		w.Beside = l.besideWithin(w, depth)
		if ports, ok := l.planned(); ok {
			w.Ports = ports
		}
		return w, true
	}
	w, ok = l.soldered()
	w.Depth, w.Wires = depth, l.soldersWithin(w.Wires, depth)
	w.Beside = l.besideWithin(w, depth)
	return w, ok
}

// besideWithin are the further cables of a wiring that a depth needs: those of which a wire
// lies within it and goes somewhere.
func (l *loom) besideWithin(w fleet.Wiring, depth fleet.Depth) (list []fleet.Beside) {
	for _, b := range w.Beside {
		h, ok := gear.Find[*gear.Harness](l.Library, b.Harness)
		needed := !ok || slices.ContainsFunc(h.Wires, func(x gear.HarnessWire) bool {
			return within(l.run.Plug.Pin(x.From), depth) && (b.HarnessTo != "" ||
				slices.ContainsFunc(w.Wires, func(s fleet.Wire) bool { return s.Pin == x.From }))
		})
		if needed || b.BranchTo != "" {
			list = append(list, b)
		}
	}
	return list
}

// pulledTo is the moved crimps of the cable with what lies beyond a depth pulled out of
// the unit's plug, and nothing pulled that lies within.
func (l *loom) pulledTo(depth fleet.Depth) (moves []fleet.CrimpMove) {
	function := func(slot int) string { return l.run.Plug.Pin(slot) }
	for _, m := range l.run.Moved {
		if m.End != fleet.UnitEnd || m.To != 0 || function(m.From) == "" {
			moves = append(moves, m)
		}
	}
	for _, w := range l.run.Harness.Wires {
		moved := slices.ContainsFunc(moves, func(m fleet.CrimpMove) bool {
			return m.End == fleet.UnitEnd && (m.From == w.From || m.To == w.From)
		})
		if f := function(w.From); f != "" && !within(f, depth) && !moved {
			moves = append(moves, fleet.CrimpMove{End: fleet.UnitEnd, From: w.From, To: 0})
		}
	}
	return moves
}

func (l *loom) soldersWithin(wires []fleet.Wire, depth fleet.Depth) []fleet.Wire {
	return slices.DeleteFunc(slices.Clone(wires), func(w fleet.Wire) bool {
		return !within(l.run.Plug.Pin(w.Pin), depth)
	})
}

// DepthOf is how far the air unit of a fit is wired, as its wires have it.
func DepthOf(c fleet.Case) fleet.Depth {
	l, ok := newLoom(c)
	switch {
	case !ok:
		return fleet.PictureOnly
	case l.run.LiveOf(gear.PinRCOut) != nil:
		return fleet.WithSticks
	case l.run.LiveOf(gear.PinUARTRX) != nil || l.run.LiveOf(gear.PinUARTTX) != nil:
		return fleet.PictureAndData
	}
	return fleet.PictureOnly
}
