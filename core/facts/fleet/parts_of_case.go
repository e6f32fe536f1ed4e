package fleet

import "yokeswap/core/facts/gear"

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

// Harness is the cable of the air unit.
func (c Case) Harness() (*gear.Harness, bool) {
	return gear.Find[*gear.Harness](c.Library, c.Fit.Harness)
}

// Frame is the frame.
func (c Case) Frame() (*gear.Frame, bool) { return gear.Find[*gear.Frame](c.Library, c.Fit.Frame) }

// Plate is the adapter plate between unit and frame.
func (c Case) Plate() (*gear.Plate, bool) { return gear.Find[*gear.Plate](c.Library, c.Fit.Plate) }

// Screw is the screw chosen for the unit.
func (c Case) Screw() (*gear.Screw, bool) { return gear.Find[*gear.Screw](c.Library, c.Fit.Screw) }

// Washer is the washer under each of them.
func (c Case) Washer() (*gear.Washer, bool) { return gear.Find[*gear.Washer](c.Library, c.Fit.Washer) }

// Standoff is what stands in the place of the frame's own standoffs.
func (c Case) Standoff() (*gear.Standoff, bool) {
	return gear.Find[*gear.Standoff](c.Library, c.Fit.Standoff)
}
