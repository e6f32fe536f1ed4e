package decide

import (
	"fmt"

	"yokeswap/core/facts/fleet"
)

// kind is what a plan is by: the goggles it flies with, where its sticks come from, what feeds
// it, how it is joined to the board, where it sits and what holds it. Plans of one kind differ
// in details alone.
type kind struct {
	goggles, sticks, feed, cable, seat, held string
	hangs                                    bool
}

func kindOf(c fleet.Case, hangs bool) kind {
	f := c.Fit
	k := kind{hangs: hangs, cable: f.Harness, seat: f.Bay, held: f.Plate}
	if f.Goggles != nil {
		k.goggles = f.Goggles.Kit + f.Goggles.Model
	}
	if f.Controller != nil {
		k.sticks = f.Controller.Kit + f.Controller.Model
	}
	k.sticks += "/" + f.Receiver
	k.feed, _ = f.FeedOf(fleet.NodeAirUnit)
	if r, ok := f.Regulator(k.feed); ok {
		k.feed = r.Model
	}
	if h, ok := f.HoldingOf(fleet.NodeAirUnit); ok {
		k.held += fmt.Sprint(h.Way)
	}
	if f.Header != nil {
		k.cable += f.Header.Model
	}
	return k
}
