package pins

import (
	"cmp"
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// Table is the wiring of a fit to be written down pin by pin: every part with its pins and
// where each ends, the places of the board, and the parts that could be added.
type Table struct {
	Parts  []TablePart `json:"parts"`
	Places []Place     `json:"places"`
	Adds   []Adding    `json:"adds"`
	// Missing says what keeps the wiring from being written down; empty where nothing does.
	Missing string `json:"missing,omitempty"`
}

// TablePart is one part with its pins.
type TablePart struct {
	Node  string       `json:"node"`
	Label string       `json:"label"`
	Pins  []TablePin   `json:"pins"`
	Note  string       `json:"note,omitempty"`
	Takes *fleet.Patch `json:"takes,omitempty"` // takes the part out; absent: it cannot be
	// Joined are the ways it can be joined to the board; empty for the air unit, whose cable
	// is a place of the plan.
	Joined []Joining `json:"joined,omitempty"`
}

// TablePin is one pin and where it ends.
type TablePin struct {
	N      int           `json:"n"`
	Words  string        `json:"words"`
	Place  string        `json:"place"`           // of the board; empty: nowhere
	Cabled bool          `json:"cabled"`          // through a plug: it is moved with its crimp
	Level  verdict.Level `json:"level,omitempty"` // of the wire; empty: there is none
	Says   string        `json:"says,omitempty"`
}

// Place is a place of the board to solder to.
type Place struct {
	ID    string `json:"id"`
	Words string `json:"words"`
}

// Adding is a part that could be put on.
type Adding struct {
	Label string      `json:"label"`
	Patch fleet.Patch `json:"patch"`
}

// NewTable writes the wiring of a fit down.
func NewTable(c fleet.Case) Table {
	t := Table{Parts: []TablePart{}, Places: []Place{}, Adds: adds(c)}
	board, ok := c.Board()
	if !ok {
		t.Missing = "Which flight board is on it is not stated: pick it, or state it in the form."
		return t
	}
	l := partOf(c)
	for id := range board.Terminals() {
		t.Places = append(t.Places, Place{id, l.words(id)})
	}
	for _, run := range netlist.All(c) {
		l := partLoom(c, run)
		if run.Node == fleet.NodeAirUnit {
			l, _ = newLoom(c)
		}
		part := l.table()
		if run.Node != fleet.NodeAirUnit {
			part.Joined = joinings(c, run.Node, bare(run.Row, run.Plug), board, &run.Cable)
		}
		t.Parts = append(t.Parts, part)
	}
	if r, ok := c.PlacedReceiver(); ok && c.Fit.ReceiverCable == nil {
		part := TablePart{Node: fleet.NodeReceiver, Label: r.Label(), Pins: []TablePin{},
			Note: "Its wires are not stated: it is taken to be on the port and the pad stated for it."}
		if r.Plug == nil {
			part.Note += " Its own pins are not stated either."
		} else {
			for i, function := range r.Plug.Pins {
				if function != "" {
					part.Pins = append(part.Pins, TablePin{N: i + 1, Words: PinWords(function)})
				}
			}
			part.Joined = joinings(c, fleet.NodeReceiver, r.Plug, board, nil)
		}
		t.Parts = append(t.Parts, part)
	}
	return t
}

// table is one part with its pins, each judged as the picture shows it.
func (l *loom) table() TablePart {
	part := TablePart{Node: l.run.Node, Label: l.run.Label(), Pins: []TablePin{}}
	if _, placed := l.Fit.Part(l.run.Node); placed {
		part.Takes = &fleet.Patch{Parts: []fleet.PlacedPart{{ID: l.run.Node}}}
	}
	if l.run.Plug == nil {
		part.Note = "The pins of " + l.run.Label() + " are not stated."
		return part
	}
	for i, function := range l.run.Plug.Pins {
		if function == "" {
			continue
		}
		pin := TablePin{N: i + 1, Words: PinWords(function)}
		if at := slices.IndexFunc(l.run.Conns, func(c netlist.Conn) bool { return c.Pin == i+1 }); at >= 0 {
			conn := &l.run.Conns[at]
			pin.Place, pin.Cabled = conn.Terminal, conn.Slot > 0
			if l.board != nil {
				pin.Level, pin.Says = l.judgeLine(conn)
			}
		}
		part.Pins = append(part.Pins, pin)
	}
	return part
}

// adds are the parts of the library that could be put on, each under an id of its own.
func adds(c fleet.Case) []Adding {
	list := []Adding{}
	for _, p := range gear.All[*gear.Part](c.Library) {
		base := cmp.Or(string(p.Sort), p.ID)
		id := base
		for n := 2; c.Fit.Has(id); n++ {
			id = fmt.Sprintf("%s-%d", base, n)
		}
		list = append(list, Adding{p.Label(), fleet.Patch{Parts: []fleet.PlacedPart{{ID: id, Model: p.ID}}}})
	}
	return list
}
