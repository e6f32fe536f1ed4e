package swap

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/osd"
)

// mostPicks is how many answers are offered at once; the rest is on the quad's gates.
const mostPicks = 12

// Picks are answers to a value that is missing of a fit, each one press: what feeds a part,
// how the unit and the receiver are wired, the port the sticks come in on, the place in the
// frame, how the switches are set up, where the
// elements of the OSD stand, how the antennas are to stand. There are none where the value is typed.
func Picks(c fleet.Case, m verdict.Missing) []Option {
	field, of := strings.CutPrefix(m.Field, c.FitName+".")
	if m.Of != "quad" || !of {
		return nil
	}
	var list []Option
	node, isFeed := strings.CutPrefix(field, "feeds.")
	switch {
	case isFeed && node == fleet.NodeAirUnit:
		list = feeds(c)
	case isFeed:
		list = feedsOf(c, node)
	case field == "wires":
		list = waysToWire(c)
	case field == "ports":
		list = portsFor(c)
	case field == "bay":
		list = seats(c)
	case field == "sticks":
		for _, l := range control.Layouts(c) {
			list = append(list, Option{Key: l.Label, Label: l.Label, Note: l.Note, Patch: fleet.Patch{Sticks: &l.Sticks}})
		}
	case field == "osd":
		for _, l := range osd.Layouts(c) {
			list = append(list, Option{Key: l.Label, Label: l.Label, Note: l.Note, Patch: fleet.Patch{OSD: &l.Layout}})
		}
	case field == "antennas.angleDeg" || field == "antennas.carbonMM":
		list = aims(c)
	}
	list = slices.DeleteFunc(list, func(o Option) bool { return o.Chosen || o.Key == "" })
	for i := range list {
		list[i].Patch = change.SettlePick(c, list[i].Patch)
	}
	return list[:min(len(list), mostPicks)]
}

// aims are how the antennas are to stand, as builders aim at.
func aims(c fleet.Case) []Option {
	aim, ok := antenna.Aim(c)
	if !ok {
		return nil
	}
	label := fmt.Sprintf("plan them %s from carbon", aim.CarbonMM)
	if aim.AngleDeg != nil {
		label = fmt.Sprintf("plan them %s apart and %s from carbon", aim.AngleDeg, aim.CarbonMM)
	}
	return []Option{{Key: "aim", Label: label, Note: "as builders aim at", Patch: fleet.Patch{Antennas: &aim}}}
}

// feedsOf are what a part beside the air unit can be fed from: the pack, the board's pads,
// and the regulators that are there.
func feedsOf(c fleet.Case, node string) (list []Option) {
	feed := func(from, label, note string) {
		list = append(list, Option{Key: from, Label: label, Note: note,
			Patch: fleet.Patch{Feed: &fleet.Feed{To: node, From: from}}})
	}
	if board, ok := c.Board(); ok {
		for i := range board.Pads {
			feed(fleet.PadNode(board.Pads[i].ID), board.Pads[i].Label(), "")
		}
	}
	for _, r := range c.Fit.Regulators {
		feed(r.ID, c.Library.Label(r.Model), "")
	}
	feed(fleet.NodePack, "the pack, direct", "")
	return list
}

// waysToWire are the depths the unit can be wired to, with what the sticks come through.
func waysToWire(c fleet.Case) (list []Option) {
	for _, d := range Depths(c) {
		label := d.Label
		if d.Sticks != "" {
			label += "; sticks through " + d.Sticks
		}
		list = append(list, Option{Key: label, Label: label, Note: string(d.Level), Patch: d.Patch})
	}
	return list
}

// portsFor are the free ports of the board that listen, each for the sticks: of the separate
// receiver, else through the air unit. Where the receiver's wires end on one, that is the
// first.
func portsFor(c fleet.Case) (list []Option) {
	board, ok := c.Board()
	if !ok {
		return nil
	}
	use := fleet.UseRC
	if _, own := c.PlacedReceiver(); own {
		use = fleet.UseReceiver
	}
	wired := map[int]bool{}
	if c.Fit.ReceiverCable != nil {
		for _, w := range c.Fit.ReceiverCable.Wires {
			if n, _, serial := gear.SerialPin(w.To); serial {
				wired[n] = true
			}
		}
	}
	for i := range board.UARTs {
		n := board.UARTs[i].ID
		if !board.UARTs[i].RX || slices.ContainsFunc(c.Fit.Ports, func(p fleet.Port) bool { return p.UART == n }) {
			continue
		}
		wiring := c.Fit.Wiring
		wiring.Ports = append(slices.Clone(wiring.Ports), fleet.Port{UART: n, Use: use})
		o := Option{Key: fmt.Sprint(n), Label: fmt.Sprintf("serial port %d", n), Patch: fleet.Patch{Wiring: &wiring}}
		if wired[n] {
			o.Note = "the receiver's wires end there"
			list = slices.Insert(list, 0, o)
		} else {
			list = append(list, o)
		}
	}
	return list
}
