package netlist

import (
	"errors"
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// ErrCabled: a pin's wire goes through a plug, and is moved with its crimp.
var ErrCabled = errors.New("its wire goes through a plug: move the crimp, or take the cable out")

// Solder is the patch that solders one pin of a part to a place of the board; an empty
// place takes its wire off. What else the wire is, its colour, gauge and length, stays.
func Solder(c fleet.Case, node string, pin int, place string) (fleet.Patch, error) {
	cable, plug, ok := cableOf(c, node)
	if !ok {
		return fleet.Patch{}, fmt.Errorf("there is no part %q on %s", node, c.Quad.Label())
	}
	if plug != nil && (pin < 1 || pin > len(plug.Pins)) {
		return fleet.Patch{}, fmt.Errorf("%s has %d pins, there is no pin %d", node, len(plug.Pins), pin)
	}
	for _, r := range All(c) {
		if r.Node == node && slices.ContainsFunc(r.Conns, func(w Conn) bool { return w.Pin == pin && w.Slot > 0 }) {
			return fleet.Patch{}, fmt.Errorf("pin %d of %s: %w", pin, r.Label(), ErrCabled)
		}
	}
	wires := slices.Clone(cable.Wires)
	at := slices.IndexFunc(wires, func(w fleet.Wire) bool { return w.Pin == pin })
	switch {
	case place == "":
		wires = slices.DeleteFunc(wires, func(w fleet.Wire) bool { return w.Pin == pin })
	case at >= 0:
		wires[at].To = place
	default:
		wires = append(wires, fleet.Wire{Pin: pin, To: place})
	}
	slices.SortStableFunc(wires, func(a, b fleet.Wire) int { return a.Pin - b.Pin })
	cable.Wires = wires
	if node == fleet.NodeAirUnit {
		w := c.Fit.Wiring
		w.Wires = wires
		return fleet.Patch{Wiring: &w}, nil
	}
	return Recable(c, node, cable), nil
}

// cableOf is the cable of a part, with its pins where they are stated.
func cableOf(c fleet.Case, node string) (fleet.Cable, *gear.Plug, bool) {
	switch node {
	case fleet.NodeAirUnit:
		u, _, ok := c.AirUnit()
		if !ok {
			return fleet.Cable{}, nil, false
		}
		return c.Fit.Cable(), u.Plug, true
	case fleet.NodeReceiver:
		r, ok := c.Receiver()
		if !ok {
			return fleet.Cable{}, nil, false
		}
		if c.Fit.ReceiverCable == nil {
			return fleet.Cable{}, r.Plug, true
		}
		return *c.Fit.ReceiverCable, r.Plug, true
	}
	placed, ok := c.Fit.Part(node)
	if !ok {
		return fleet.Cable{}, nil, false
	}
	var plug *gear.Plug
	if p, known := gear.Find[*gear.Part](c.Library, placed.Model); known {
		plug = p.Plug
	}
	return placed.Cable, plug, true
}
