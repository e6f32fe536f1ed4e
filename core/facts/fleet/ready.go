package fleet

import (
	"slices"

	"yokeswap/core/facts/gear"
)

// ReadyMade is what is in a quad that is bought whole, flown with the goggles of another, and with its
// controller where no receiver of its own is stated: then the sticks go through the air unit.
func ReadyMade(made *gear.ReadyQuad, flownLike *Fit) *Fit {
	fit := &Fit{Goggles: clone(flownLike.Goggles), Board: made.Board, Receiver: made.Receiver, Pack: made.Pack}
	fit.Frame = made.Frame
	if made.AirUnit != "" {
		fit.AirUnit = &Slot{Model: made.AirUnit}
	}
	if made.Receiver == "" {
		fit.Controller = clone(flownLike.Controller)
	}
	if len(made.Antennas) > 0 {
		fit.Antennas = &Antennas{Models: slices.Clone(made.Antennas)}
	}
	return fit
}
