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
		patch := fleet.Patch{Wiring: &w}
		if plug != nil && plug.Pin(pin) == gear.PinSupply {
			patch.Feed = fedBy(c, node, place)
		}
		return patch, nil
	}
	return Recable(c, node, cable), nil
}

// fedBy is what a supply wire says of the feed of its part: it is fed from the power pad
// the wire goes to, and no longer from one it comes off. Nil where it says nothing.
func fedBy(c fleet.Case, node, place string) *fleet.Feed {
	board, ok := c.Board()
	if !ok {
		return nil
	}
	if pad, power := board.Pad(place); power {
		feed := &fleet.Feed{To: node, From: fleet.PadNode(pad.ID)}
		for _, was := range c.Fit.Feeds {
			if was.To == node {
				feed.Lead = was.Lead // the same wire
			}
		}
		return feed
	}
	from, _ := c.Fit.FeedOf(node)
	if _, onBoard := fleet.PadOf(from); onBoard && place == "" {
		return &fleet.Feed{To: node}
	}
	return nil
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

// OffItsPad is the wiring of the air unit with its supply wires off the board, for a unit
// that hangs on the pack or a regulator: soldered ones come off, the crimp of a cable is
// pulled out of its slot. It is nil where no supply wire ends on the board.
func OffItsPad(c fleet.Case) *fleet.Wiring {
	run, ok := AirUnit(c)
	if !ok {
		return nil
	}
	w, off := c.Fit.Wiring, false
	for _, conn := range run.Conns {
		switch {
		case conn.Function != gear.PinSupply || !conn.Live():
			continue
		case conn.Slot > 0 && conn.Through != run.Into:
			continue // a further cable: its crimps stay where they are
		case conn.Slot > 0 && run.Harness != nil:
			w.Moved = pulled(w.Cable(), run.Harness, conn.Slot)
		default:
			w.Wires = slices.DeleteFunc(slices.Clone(w.Wires), func(s fleet.Wire) bool { return s.Pin == conn.Pin })
		}
		off = true
	}
	if !off {
		return nil
	}
	return &w
}

// Resupplied is the wiring of the air unit once it is fed from another source: off its pad
// where that is not the board, on the other pad where its wire is soldered. It is nil where
// nothing changes, and where the wire goes through a plug to the board.
func Resupplied(c fleet.Case, from string) *fleet.Wiring {
	pad, onBoard := fleet.PadOf(from)
	if !onBoard {
		return OffItsPad(c)
	}
	w := c.Fit.Wiring
	run, ok := AirUnit(c)
	if !ok {
		return nil
	}
	supply := run.LiveOf(gear.PinSupply)
	if supply == nil || supply.Slot > 0 || supply.Terminal == pad {
		return nil
	}
	w.Wires = slices.Clone(w.Wires)
	for i := range w.Wires {
		if w.Wires[i].Pin == supply.Pin {
			w.Wires[i].To = pad
		}
	}
	return &w
}

// pulled is the moves of a cable with the crimp in a slot of the board's end pulled.
func pulled(cable fleet.Cable, h *gear.Harness, slot int) []fleet.CrimpMove {
	moved := slices.Clone(cable.Moved)
	for i, now := range cable.Wired(h) {
		came := h.Wires[i].To
		if now.To != slot || came == 0 {
			continue
		}
		moved = slices.DeleteFunc(moved, func(m fleet.CrimpMove) bool { return m.End == fleet.BoardEnd && m.From == came })
		moved = append(moved, fleet.CrimpMove{End: fleet.BoardEnd, From: came})
	}
	return moved
}
