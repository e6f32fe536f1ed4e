package netlist

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Placed is a part of the whole circuit.
type Placed struct{ Node, Label string }

// Whole is the circuit of a fit with its leads: the wires of all runs, and the feeds that
// no wire of a run says, from the pack through pads and regulators to each part. The parts
// are the ends of its nets, in their order.
func Whole(c fleet.Case) ([]Net, []Placed) {
	board, hasBoard := c.Board()
	if !hasBoard {
		board = &gear.Board{}
	}
	runs := All(c)
	list := joints(c, board, runs)
	for _, feed := range c.Fit.Feeds {
		if !hasSupplyWire(runs, feed.To) {
			list = append(list, joint{supplyPin(c, runs, feed.To), source(c, board, feed.From)})
		}
	}
	if _, stated := c.Fit.FeedOf(fleet.NodeBoard); stated && hasBoard && !hasFeed(c.Fit, fleet.NodeBoard) {
		list = append(list, joint{supplyPin(c, runs, fleet.NodeBoard), packPin})
	}
	nets := components(list)
	var parts []Placed
	for _, n := range nets {
		for _, p := range n.Pins {
			if !slices.ContainsFunc(parts, func(o Placed) bool { return o.Node == p.Node }) {
				parts = append(parts, Placed{p.Node, c.Library.Label(modelOf(c, runs, p.Node))})
			}
		}
	}
	return nets, parts
}

// packPin is the plus of the pack.
var packPin = Pin{Node: fleet.NodePack, Name: "plus", Electric: gear.Gives}

func hasFeed(f *fleet.Fit, node string) bool {
	return slices.ContainsFunc(f.Feeds, func(feed fleet.Feed) bool { return feed.To == node })
}

func hasSupplyWire(runs []*Run, node string) bool {
	return slices.ContainsFunc(runs, func(r *Run) bool { return r.Node == node && r.LiveOf(gear.PinSupply) != nil })
}

// supplyPin is the pin a part takes its power at, with its number where that is known.
func supplyPin(c fleet.Case, runs []*Run, node string) Pin {
	p := Pin{Node: node, Name: gear.PinSupply, Electric: gear.Takes}
	if _, regulator := c.Fit.Regulator(node); regulator {
		p.Name = "in"
	}
	for _, r := range runs {
		if r.Node == node && r.Plug != nil {
			p.N = slices.Index(r.Plug.Pins, gear.PinSupply) + 1
		}
	}
	return p
}

// source is where a feed comes from.
func source(c fleet.Case, board *gear.Board, from string) Pin {
	if pad, onBoard := fleet.PadOf(from); onBoard {
		return boardPin(c.Fit, board, pad)
	}
	if from == fleet.NodePack {
		return packPin
	}
	return Pin{Node: from, Name: "out", Electric: gear.Gives}
}

// TwoSources says whether a part that is fed from somewhere, and whose supply wire ends on a
// terminal of the board, has two supplies joined at its pin. A pad of which nobody says what
// it carries is none that is known.
func TwoSources(c fleet.Case, board *gear.Board, from, terminal string) bool {
	feed, wired := source(c, board, from), boardPin(c.Fit, board, terminal)
	pad, ok := board.Pad(wired.Name)
	if wired.Node == boardNode && ok && pad.Kind != gear.PadPack && pad.Kind != gear.PadRegulated {
		return false
	}
	return feed != wired && feed.Electric == gear.Gives && wired.Electric == gear.Gives
}

// modelOf is the model of a part of the circuit, or what it is called.
func modelOf(c fleet.Case, runs []*Run, node string) string {
	switch node {
	case fleet.NodePack:
		return c.Fit.Pack
	case fleet.NodeBoard:
		return c.Fit.Board
	case fleet.NodeReceiver:
		return c.Fit.Receiver
	}
	for _, r := range runs {
		if r.Node == node {
			return r.Entry.ID
		}
	}
	if placed, ok := c.Fit.Regulator(node); ok {
		return placed.Model
	}
	return node
}

// Name is what a net is called: by the place of the board or the pack it is on, else by
// its number.
func (n *Net) Name(number int) string {
	for _, p := range n.Pins {
		if p.Node == boardNode || p.Node == fleet.NodePack {
			return p.Name
		}
	}
	return fmt.Sprintf("net %d", number)
}
