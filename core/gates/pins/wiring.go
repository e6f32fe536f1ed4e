// Package pins is the gate that asks whether every wire of the air unit ends
// where it belongs: supply and ground, the UART pair crossed to one hardware
// port, the sticks on a port that can take them.
//
// It works by position and function, never by colour. What would destroy a part
// comes first; swapped RX and TX harm nothing, but the OSD stays blank.
package pins

import (
	"fmt"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// loom is the wiring of one part of a fit, with the board it is joined to.
type loom struct {
	fleet.Case
	airUnit *gear.AirUnit // nil: the run is another part's
	board   *gear.Board
	run     *netlist.Run // nil: the fit has no air unit
	missing []verdict.Missing
	beside  []*netlist.Run // what is wired beside the air unit
}

// newLoom is the wiring of the air unit, and of what is wired beside it; false where the fit has
// no air unit.
func newLoom(c fleet.Case) (*loom, bool) {
	l, ok := ownLoom(c)
	l.beside = netlist.Others(c)
	return l, ok
}

// ownLoom is the wiring of the air unit alone; false where the fit has none.
func ownLoom(c fleet.Case) (*loom, bool) {
	l := &loom{Case: c}
	l.board, _ = c.Board()
	var ok bool
	if l.airUnit, _, ok = c.AirUnit(); !ok {
		return l, false
	}
	l.run, _ = netlist.AirUnit(c)
	l.lacks()
	return l, true
}

// partLoom is the wiring of another part.
func partLoom(c fleet.Case, run *netlist.Run) *loom {
	l := &loom{Case: c, run: run}
	l.board, _ = c.Board()
	l.lacks()
	return l
}

// lacks names what is not stated of the wiring at all.
func (l *loom) lacks() {
	l.missing = append(l.missing, unstated(l.run)...)
	l.missing = append(l.missing, adrift(l.Case, l.run)...)
	switch {
	case l.run.Plug == nil, l.airUnit == nil && len(l.run.Plug.Pins) == 0:
		l.missing = append(l.missing, verdict.GearValue(l.run.Entry, "plug", "pins"))
	case !l.run.Said() && l.board != nil && !l.pictureFromElsewhere():
		l.missing = append(l.missing, l.run.Missing(l.Case))
	}
}

// pictureFromElsewhere says whether only the picture is wanted and the unit is fed
// past the board: then no wire goes to the board at all.
func (l *loom) pictureFromElsewhere() bool {
	from, fed := l.Fit.FeedOf(fleet.NodeAirUnit)
	_, onBoard := fleet.PadOf(from)
	return l.airUnit != nil && l.Fit.Depth == fleet.PictureOnly && fed && !onBoard
}

// boardValue names a value of the board; the words name the board themselves.
func (l *loom) boardValue(field, words string) verdict.Missing {
	return verdict.Missing{Of: "gear", ID: l.board.ID, Field: field, Label: words}
}

// power says whether a terminal of the board carries power.
func (l *loom) power(terminal string) bool {
	if l.board == nil {
		return false
	}
	_, ok := l.board.Pad(terminal)
	return ok
}

// words names a terminal of the board.
func (l *loom) words(terminal string) string {
	if port, sends, ok := gear.SerialPin(terminal); ok {
		words := fmt.Sprintf("RX %d", port)
		if sends {
			words = fmt.Sprintf("TX %d", port)
		}
		if gear.InvertedPin(terminal) {
			words = fmt.Sprintf("the inverted RX %d", port)
		}
		return words + l.printed(port, terminal)
	}
	if l.board != nil {
		if pad, ok := l.board.Pad(terminal); ok {
			return "the " + pad.Label()
		}
	}
	if l.board != nil && l.board.Signal(terminal) {
		return "the " + PinWords(terminal) + " pad"
	}
	return terminal
}

// printed is what stands at a serial pad, where that is another name.
func (l *loom) printed(port int, terminal string) string {
	if l.board == nil {
		return ""
	}
	u, ok := l.board.UART(port)
	switch {
	case !ok:
	case terminal == u.TXPad() && u.TXPrinted != "":
		return ", printed " + u.TXPrinted
	case terminal == u.RXPad() && u.RXPrinted != "":
		return ", printed " + u.RXPrinted
	}
	return ""
}

// PinWords names a pin of a part.
func PinWords(function string) string {
	if gear.IsMotor(function) {
		return strings.Replace(function, "motor", "motor ", 1)
	}
	switch function {
	case gear.PinSDA, gear.PinSCL, gear.PinLED:
		return strings.ToUpper(function)
	case gear.PinControl:
		return "control wire"
	case gear.PinVideoIn, gear.PinVideoOut, gear.PinCamera:
		return strings.ReplaceAll(function, "-", " ")
	case gear.PinUARTRX:
		return "UART RX"
	case gear.PinUARTTX:
		return "UART TX"
	case gear.PinRCGround:
		return "RC ground"
	case gear.PinRCOut:
		return "RC output"
	}
	return function
}

// TerminalWords names a place of the board of a fit.
func TerminalWords(c fleet.Case, terminal string) string { return partOf(c).words(terminal) }
