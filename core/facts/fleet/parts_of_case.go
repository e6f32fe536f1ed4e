package fleet

import (
	"slices"

	"yokeswap/core/facts/gear"
)

// The parts of a fit as their gear; false where the fit states none, or the library does
// not have it.

// Board is the flight board.
func (c Case) Board() (*gear.Board, bool) { return gear.Find[*gear.Board](c.Library, c.Fit.Board) }

// Pack is the flight pack.
func (c Case) Pack() (*gear.Pack, bool) { return gear.Find[*gear.Pack](c.Library, c.Fit.Pack) }

// Receiver is the separate receiver.
func (c Case) Receiver() (*gear.Receiver, bool) {
	return gear.Find[*gear.Receiver](c.Library, c.Fit.Receiver)
}

// BuiltIn says whether the receiver of the fit is the one that is built into its board.
func (c Case) BuiltIn() bool {
	b, ok := c.Board()
	return ok && b.BuiltIn != "" && b.BuiltIn == c.Fit.Receiver
}

// PlacedReceiver is the separate receiver where it is a part of its own: fed, wired,
// weighed and bought, and not built into the board.
func (c Case) PlacedReceiver() (*gear.Receiver, bool) {
	if c.BuiltIn() {
		return nil, false
	}
	return c.Receiver()
}

// Receive is the patch that brings the sticks through a receiver; one that is built into
// the board takes no wires and no feed of its own.
func (c Case) Receive(id string) Patch {
	p := Patch{Receiver: &id}
	if b, ok := c.Board(); ok && b.BuiltIn != "" && b.BuiltIn == id {
		p.ReceiverCable, p.Feeds = &Cable{}, []Feed{{To: NodeReceiver}}
	}
	return p
}

// Receivers are the receivers that can bring the sticks to this quad: the one built into
// its board first, and those that are built into none.
func (c Case) Receivers() (list []*gear.Receiver) {
	builtIn := map[string]bool{}
	for _, b := range gear.All[*gear.Board](c.Library) {
		builtIn[b.BuiltIn] = true
	}
	board, _ := c.Board()
	for _, r := range gear.All[*gear.Receiver](c.Library) {
		switch {
		case board != nil && board.BuiltIn == r.ID:
			list = slices.Insert(list, 0, r)
		case !builtIn[r.ID]:
			list = append(list, r)
		}
	}
	return list
}

// Harness is the cable of the air unit.
func (c Case) Harness() (*gear.Harness, bool) {
	return gear.Find[*gear.Harness](c.Library, c.Fit.Harness)
}

// Capacitor is the electrolytic across the battery leads, found by what it is rated for: one
// in the drawer, else the first of that rating. There is none where the fit does not state its
// rating, or no gear is of it.
func (c Case) Capacitor() (found *gear.Capacitor, ok bool) {
	uf, rated := c.Fit.CapacitorUF, c.Fit.CapacitorV
	if uf == nil || rated == nil {
		return nil, false
	}
	for _, k := range gear.All[*gear.Capacitor](c.Library) {
		switch {
		case k.UF == nil || k.RatedV == nil || *k.UF != *uf || *k.RatedV != *rated:
		case c.Fleet.SpareCount(k.ID, c.Quad.ID) > 0:
			return k, true
		case found == nil:
			found = k
		}
	}
	return found, found != nil
}

// Frame is the frame.
func (c Case) Frame() (*gear.Frame, bool) { return gear.Find[*gear.Frame](c.Library, c.Fit.Frame) }

// Plate is the adapter plate between unit and frame.
func (c Case) Plate() (*gear.Plate, bool) { return gear.Find[*gear.Plate](c.Library, c.Fit.Plate) }

// Screw is the screw chosen for the unit.
func (c Case) Screw() (*gear.Screw, bool) { return gear.Find[*gear.Screw](c.Library, c.Fit.Screw) }

// Washer is the washer under each of them.
func (c Case) Washer() (*gear.Washer, bool) { return gear.Find[*gear.Washer](c.Library, c.Fit.Washer) }
