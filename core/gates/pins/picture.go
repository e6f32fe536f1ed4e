package pins

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// Picture shows both plugs face to face, seen from the mating side, and the wires
// between them.
type Picture struct {
	Unit  Face   `json:"unit"`
	Board Face   `json:"board"`
	Wires []Line `json:"wires"`
	// Missing says what keeps the picture from being drawn; empty where nothing does.
	Missing string `json:"missing,omitempty"`
}

// Face is one plug, or a row of pads.
type Face struct {
	Label string `json:"label"`
	Kind  string `json:"kind"` // the connector, or "solder pads"
	Pins  []Spot `json:"pins"`
}

// Spot is one pin of a face.
type Spot struct {
	N     int    `json:"n"`     // from 1; 0: a pad without a number
	Words string `json:"words"` // its function; empty: nothing there
	Used  bool   `json:"used"`
}

// Line is one wire between two spots; a spot of -1 is no end.
type Line struct {
	Pin      int               `json:"pin"`  // place in the unit's spots
	Spot     int               `json:"spot"` // place in the board's spots
	Colour   string            `json:"colour,omitempty"`
	Paint    string            `json:"paint"` // what to draw it in, as #rrggbb
	Function string            `json:"function"`
	Terminal string            `json:"terminal"`
	Place    string            `json:"place,omitempty"` // the terminal, as the fit names it
	AWG      *wire.Gauge       `json:"awg,omitempty"`
	LengthMM *unit.Millimetres `json:"lengthMM,omitempty"`
	Level    verdict.Level     `json:"level"`
	Says     string            `json:"says,omitempty"` // what is wrong with it
}

// Draw makes the picture of the air unit's wiring.
func Draw(c fleet.Case) Picture {
	l, ok := newLoom(c)
	if !ok {
		return Picture{
			Unit:    Face{Pins: []Spot{}},
			Board:   Face{Pins: []Spot{}},
			Wires:   []Line{},
			Missing: "Pick an air unit to see its pins.",
		}
	}
	return l.draw()
}

// PartPicture is the picture of one part wired beside the air unit.
type PartPicture struct {
	Node    string `json:"node"`
	Label   string `json:"label"`
	Rewired bool   `json:"rewired"` // it is not as it is today
	Picture
}

// DrawAll makes the pictures of everything that is wired, the air unit's first.
func DrawAll(c fleet.Case) []PartPicture {
	list := DrawParts(c)
	if unit, ok := netlist.AirUnit(c); ok {
		list = slices.Insert(list, 0, PartPicture{Node: unit.Node, Label: unit.Label(), Picture: Draw(c)})
	}
	return list
}

// DrawParts makes the pictures of everything wired beside the air unit.
func DrawParts(c fleet.Case) []PartPicture {
	anew := map[string]bool{}
	for _, run := range Rewired(c) {
		anew[run.Node] = true
	}
	list := []PartPicture{}
	for _, run := range netlist.Others(c) {
		list = append(list, PartPicture{run.Node, run.Label(), anew[run.Node], partLoom(c, run).draw()})
	}
	return list
}

func (l *loom) draw() Picture {
	pic := Picture{Unit: Face{Pins: []Spot{}}, Board: Face{Pins: []Spot{}}, Wires: []Line{}}
	switch {
	case l.run.Plug == nil:
		pic.Missing = "The pins of " + l.run.Label() + " are not stated."
		return pic
	}
	pic.Unit = Face{Label: l.run.Label(), Kind: l.kind(l.run.Plug) + l.over(l.run.Row, l.run.Header), Pins: []Spot{}}
	for i, function := range l.run.Plug.Pins {
		pic.Unit.Pins = append(pic.Unit.Pins, Spot{
			N:     i + 1,
			Words: PinWords(function),
			Used:  slices.ContainsFunc(l.run.Conns, func(c netlist.Conn) bool { return c.Pin == i+1 && c.Live() }),
		})
	}
	if l.board == nil {
		pic.Missing = "There is no flight board: nothing but supply and ground is wired."
		return pic
	}
	l.face(&pic)
	for i := range l.run.Conns {
		conn := &l.run.Conns[i]
		line := Line{
			Pin:      conn.Pin - 1,
			Spot:     -1,
			Colour:   conn.Colour,
			Paint:    wire.Paint(conn.Colour),
			Function: PinWords(conn.Function),
			Terminal: l.words(conn.Terminal),
			Place:    conn.Terminal,
			AWG:      conn.AWG,
			LengthMM: conn.LengthMM,
			Level:    verdict.Fits,
		}
		if l.run.Into != nil && conn.Slot > 0 && conn.Through == l.run.Into {
			line.Spot = conn.Slot - 1
		} else if conn.Terminal != "" {
			line.Spot = l.pad(&pic, conn)
		}
		line.Level, line.Says = l.judgeLine(conn)
		pic.Wires = append(pic.Wires, line)
	}
	if len(l.run.Conns) == 0 {
		pic.Missing = "Nobody has said how it is wired."
	}
	return pic
}

func (l *loom) kind(p *gear.Plug) string {
	if p.Connector != "" {
		return l.Library.Label(p.Connector)
	}
	if p.PitchMM != nil {
		return fmt.Sprintf("solder pads, %s apart", p.PitchMM)
	}
	return "solder pads"
}

// over names the header that makes a plug of a row of pads.
func (l *loom) over(row *gear.Plug, on *fleet.Header) string {
	switch {
	case row == nil || on == nil:
		return ""
	case on.Turned:
		return ", " + l.Library.Label(on.Model) + " turned"
	}
	return ", " + l.Library.Label(on.Model)
}

// face is the board's side: its plug, or the pads the wires end on.
func (l *loom) face(pic *Picture) {
	pic.Board = Face{Label: l.board.Label(), Kind: "solder pads", Pins: []Spot{}}
	if l.run.Into == nil {
		return
	}
	pic.Board.Label += ", " + l.run.Into.Label()
	pic.Board.Kind = l.kind(l.run.Into) + l.over(l.run.IntoRow, l.run.BoardHeader)
	for i, pin := range l.run.Into.Pins {
		pic.Board.Pins = append(pic.Board.Pins, Spot{
			N:     i + 1,
			Words: strings.TrimPrefix(l.words(pin), "the "),
			Used: slices.ContainsFunc(l.run.Conns, func(c netlist.Conn) bool {
				return c.Slot == i+1 && c.Through == l.run.Into && c.Live()
			}),
		})
	}
}

// pad is the place of a soldered wire's pad among the board's spots, added where
// it is not there yet.
func (l *loom) pad(pic *Picture, conn *netlist.Conn) int {
	spot := Spot{Words: strings.TrimPrefix(l.words(conn.Terminal), "the "), Used: true}
	if conn.Through != nil {
		spot.N, spot.Words = conn.Slot, spot.Words+" in the "+conn.Through.Label()
	}
	pic.Board.Pins = append(pic.Board.Pins, spot)
	return len(pic.Board.Pins) - 1
}

// judgeLine says how one wire stands.
func (l *loom) judgeLine(conn *netlist.Conn) (verdict.Level, string) {
	if from, fed := l.Fit.FeedOf(l.run.Node); fed && conn.Function == gear.PinSupply && conn.Terminal == "" &&
		l.run.Into == nil {
		return verdict.Fits, "to " + change.Source(l.Case, from)
	}
	if !conn.Live() {
		return verdict.Caution, "joins nothing"
	}
	if code, why := l.judgePlace(conn); code != "" {
		return verdict.Unfit, strings.TrimSuffix(why, ".")
	}
	if conn.Function == gear.PinSupply && l.secondSupply(conn) {
		return verdict.Unfit, "a second supply: one destroys the other"
	}
	_, sends, serial := gear.SerialPin(conn.Terminal)
	if serial && (conn.Function == gear.PinUARTRX && !sends || conn.Function == gear.PinUARTTX && sends) {
		return verdict.Change, "not crossed"
	}
	if serial && conn.Function == gear.PinRCOut && sends {
		return verdict.Unfit, "a sender: the sticks do nothing"
	}
	if l.Fit.Receiver != "" && (conn.Function == gear.PinRCOut || conn.Function == gear.PinRCGround) {
		return verdict.Caution, "leave it off with a separate receiver"
	}
	return verdict.Fits, ""
}
