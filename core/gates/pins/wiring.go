// Package pins is the gate that asks whether every wire of the air unit ends
// where it belongs: supply and ground, the UART pair crossed to one hardware
// port, the sticks on a port that can take them.
//
// It works by position and function, never by colour. What would destroy a part
// comes first; swapped RX and TX harm nothing, but the OSD stays blank.
package pins

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// Conn is one wire with both its ends.
type Conn struct {
	Pin      int               `json:"pin"`      // of the air unit, from 1; 0: that end is in no slot
	Function string            `json:"function"` // of that pin
	Slot     int               `json:"slot"`     // of the board's plug; 0: soldered, or in no slot
	Terminal string            `json:"terminal"` // where it ends on the board; empty: nowhere
	Colour   string            `json:"colour,omitempty"`
	AWG      *wire.Gauge       `json:"awg,omitempty"`
	LengthMM *unit.Millimetres `json:"lengthMM,omitempty"`
}

// Live says whether the wire makes a connection at both ends.
func (c *Conn) Live() bool { return c.Function != "" && c.Terminal != "" }

// loom is the wiring of one fit with the parts it joins.
type loom struct {
	fleet.Case
	airUnit *gear.AirUnit
	board   *gear.Board
	harness *gear.Harness
	plug    *gear.Plug // of the board, where the harness goes into one
	conns   []Conn
	missing []verdict.Missing
}

func newLoom(c fleet.Case) (*loom, bool) {
	l := &loom{Case: c}
	var ok bool
	if l.airUnit, _, ok = c.AirUnit(); !ok {
		return l, false
	}
	l.board, _ = c.Board()
	l.harness, _ = c.Harness()
	if l.board != nil && c.Fit.HarnessTo != "" {
		l.plug, _ = l.board.Plug(c.Fit.HarnessTo)
	}
	if l.airUnit.Plug == nil {
		l.missing = append(l.missing, verdict.GearValue(&l.airUnit.Entry, "plug", "pins"))
		return l, true
	}
	l.conns = l.connect()
	if l.endsNowhere() && l.board != nil && !l.pictureFromElsewhere() {
		l.missing = append(l.missing,
			verdict.FitValue(l.Case, "wires", "how "+l.airUnit.Label()+" is wired to "+l.board.Label()))
	}
	return l, true
}

// endsNowhere says whether nothing is said of where the wires go: none is listed, or
// only a cable with bare ends.
func (l *loom) endsNowhere() bool {
	return l.plug == nil && len(l.Fit.Wires) == 0
}

// pictureFromElsewhere says whether only the picture is wanted and the unit is fed
// past the board: then no wire goes to the board at all.
func (l *loom) pictureFromElsewhere() bool {
	from, fed := l.Fit.FeedOf(fleet.NodeAirUnit)
	_, onBoard := fleet.PadOf(from)
	return l.Fit.Depth == fleet.PictureOnly && fed && !onBoard
}

// connect follows each wire of the harness from slot to slot, moved crimps where
// they are now, and the soldered wires from pin to pad, also those beside a cable.
func (l *loom) connect() []Conn {
	var conns []Conn
	if l.plug == nil {
		conns = l.implied()
	}
	soldered := func(w fleet.Wire) Conn {
		return Conn{
			Pin:      w.Pin,
			Function: l.airUnit.Plug.Pin(w.Pin),
			Terminal: w.To,
			Colour:   w.Colour,
			AWG:      w.AWG,
			LengthMM: w.MM,
		}
	}
	if l.harness == nil {
		for _, w := range l.Fit.Wires {
			conns = append(conns, soldered(w))
		}
		return conns
	}
	used := map[int]bool{}
	for _, w := range l.Fit.Wired(l.harness) {
		c := Conn{Pin: w.From, Function: l.airUnit.Plug.Pin(w.From), Colour: w.Colour, AWG: w.AWG, LengthMM: w.LengthMM}
		if len(conns) > 0 && conns[0].Pin == w.From && l.plug == nil { // the implied supply is this wire
			c.Terminal = conns[0].Terminal
			conns[0] = c
			continue
		}
		if l.plug != nil {
			c.Slot, c.Terminal = w.To, l.plug.Pin(w.To)
		} else if at := slices.IndexFunc(l.Fit.Wires, func(s fleet.Wire) bool { return s.Pin == w.From }); at >= 0 {
			c.Terminal = l.Fit.Wires[at].To
			used[w.From] = true
		}
		conns = append(conns, c)
	}
	for _, w := range l.Fit.Wires {
		if !used[w.Pin] {
			conns = append(conns, soldered(w))
		}
	}
	return conns
}

// implied is the supply wire of a soldered unit where the plan feeds it from a
// pad of the board and no wire of its own is listed: it goes where the feed says.
func (l *loom) implied() []Conn {
	pin := slices.Index(l.airUnit.Plug.Pins, gear.PinSupply) + 1
	listed := slices.ContainsFunc(l.Fit.Wires, func(w fleet.Wire) bool { return w.Pin == pin })
	from, fed := l.Fit.FeedOf(fleet.NodeAirUnit)
	pad, onBoard := fleet.PadOf(from)
	if pin == 0 || listed || !fed || !onBoard || len(l.Fit.Wires) == 0 {
		return nil
	}
	c := Conn{Pin: pin, Function: gear.PinSupply, Terminal: pad}
	for i := range l.Fit.Feeds {
		if lead := l.Fit.Feeds[i].Lead; lead != nil && l.Fit.Feeds[i].To == fleet.NodeAirUnit {
			c.AWG, c.LengthMM = lead.AWG, lead.MM
		}
	}
	return []Conn{c}
}

// boardValue names a value of the board; the words name the board themselves.
func (l *loom) boardValue(field, words string) verdict.Missing {
	return verdict.Missing{Of: "gear", ID: l.board.ID, Field: field, Label: words}
}

// of finds the wire on a pin with a function, one that joins both ends first; nil
// where there is none.
func (l *loom) of(function string) (found *Conn) {
	for i := range l.conns {
		if c := &l.conns[i]; c.Function == function && (found == nil || !found.Live() && c.Live()) {
			found = c
		}
	}
	return found
}

// live is the wire on a function that joins both ends; nil where there is none.
func (l *loom) live(function string) *Conn {
	if c := l.of(function); c != nil && c.Live() {
		return c
	}
	return nil
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

// pinWords names a pin of an air unit.
func pinWords(function string) string {
	switch function {
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
