package pins

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/power"
)

// resolders are the ways to solder each part anew that is not wired as it should be: the
// lines of its port crossed onto each port of the board, everything else where it belongs,
// its supply where it is if it can live there, else on each pad within its window.
func resolders(c fleet.Case) (list []verdict.Candidate) {
	board, ok := c.Board()
	if !ok {
		return nil
	}
	runs := netlist.Others(c)
	for _, run := range runs {
		l := partLoom(c, run)
		if run.Plug == nil || run.Into != nil || !l.troubled(runs) {
			continue
		}
		for _, port := range l.portsFor(board) {
			for _, pad := range l.padsFor(board) {
				cable := run.Cable
				cable.Wires = l.rightly(board, port, pad)
				patch := netlist.Recable(c, run.Node, cable)
				if from, stated := c.Fit.FeedOf(run.Node); stated && pad != "" && from != fleet.PadNode(pad) {
					patch.Feed = &fleet.Feed{To: run.Node, From: fleet.PadNode(pad)}
				}
				list = append(list, verdict.Candidate{Effort: verdict.Wire, Patch: patch})
			}
		}
	}
	return list
}

// troubled says whether anything but fitting is said of the part, or of a line it shares.
func (l *loom) troubled(runs []*netlist.Run) bool {
	if len(l.checkPart()) > 0 {
		return true
	}
	if unit, ok := netlist.AirUnit(l.Case); ok {
		runs = append([]*netlist.Run{unit}, runs...)
	}
	nets := netlist.Nets(l.Case, runs)
	return slices.ContainsFunc(nets, func(n netlist.Net) bool {
		return slices.ContainsFunc(n.Pins, func(p netlist.Pin) bool { return p.Node == l.run.Node }) &&
			len(n.Meetings(runs, l.Case)) > 0
	})
}

// portsFor are the ports the part's serial lines could go to; a single 0 where it has none.
func (l *loom) portsFor(board *gear.Board) []int {
	sends := l.run.Has(gear.PinUARTRX) || l.run.Has(gear.PinControl)
	hears := l.run.Has(gear.PinUARTTX) || l.run.Has(gear.PinTelemetry)
	if !sends && !hears {
		return []int{0}
	}
	var ports []int
	for i := range board.UARTs {
		if u := &board.UARTs[i]; !u.BuiltIn && (!sends || u.TX) && (!hears || u.RX) {
			ports = append(ports, u.ID)
		}
	}
	return ports
}

// padsFor are the pads the part could be fed from by its own wire: the one the plan or the
// wire has, unless it fails or burns there, else those whose voltage lies within its
// window; a single empty one where it needs none, or hangs on the pack or a regulator.
func (l *loom) padsFor(board *gear.Board) []string {
	from, stated := l.Fit.FeedOf(l.run.Node)
	pad, onBoard := fleet.PadOf(from)
	if !l.run.Has(gear.PinSupply) || stated && !onBoard {
		return []string{""}
	}
	if supply := l.run.LiveOf(gear.PinSupply); !stated && supply != nil && l.power(supply.Terminal) {
		pad = supply.Terminal
	}
	if pad != "" && power.Part(l.Case, l.run.Node).Level != verdict.Unfit {
		return []string{pad}
	}
	return board.PadsWithin(l.run.Input)
}

// rightly is the part soldered where each pin belongs.
func (l *loom) rightly(board *gear.Board, port int, pad string) (wires []fleet.Wire) {
	for i, function := range l.run.Plug.Pins {
		to := ""
		switch function {
		case gear.PinSupply:
			to = pad
		case gear.PinSpare, gear.PinReset, "":
		default:
			to = belongsAt(board, function, port)
		}
		if to == "" {
			continue
		}
		wire := fleet.Wire{Pin: i + 1, To: to}
		if at := slices.IndexFunc(l.run.Wires, func(w fleet.Wire) bool { return w.Pin == i+1 }); at >= 0 {
			was := l.run.Wires[at]
			wire.Colour, wire.AWG, wire.MM = was.Colour, was.AWG, was.MM
		}
		wires = append(wires, wire)
	}
	return wires
}

// belongsAt is the place of the board where a function does its work, on a port where it
// is a serial line; empty where the board has none.
func belongsAt(board *gear.Board, function string, port int) string {
	for at := range board.Terminals() {
		if id, _, serial := gear.SerialPin(at); board.Belongs(function, at) && (!serial || id == port) {
			return at
		}
	}
	return ""
}
