package pins

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// slack is what a wire is cut longer by, for a second try (common practice; the
// length is from memory).
const slack unit.Millimetres = 15

// Solder is one line of the soldering list.
type Solder struct {
	Part     string            `json:"part"` // the node it belongs to
	Wire     string            `json:"wire"` // what it is for
	From     string            `json:"from"`
	To       string            `json:"to"`
	Colour   string            `json:"colour"`
	AWG      *wire.Gauge       `json:"awg,omitempty"`
	LengthMM *unit.Millimetres `json:"lengthMM,omitempty"` // with slack
	Note     string            `json:"note"`
	// Printed says what stands at the board's pad, and whether it lies underneath.
	Printed string `json:"printed,omitempty"`
	// Beside are the pads that solder may bridge to, where the board's pads are placed.
	Beside []string `json:"beside,omitempty"`
}

// List is what has to be soldered and set for a fit's wiring.
type List struct {
	Wires     []Solder `json:"wires"`
	Jumpers   []string `json:"jumpers"`
	Materials []string `json:"materials"`
}

// Soldering lists the wires to solder, the jumpers to set and what else it takes: of the
// air unit all of them, of other parts those that are not as they are today.
// A plug at both ends leaves nothing to solder but what the feed needs.
func Soldering(c fleet.Case) List {
	list := List{Wires: []Solder{}, Jumpers: []string{}, Materials: []string{}}
	l, ok := newLoom(c)
	if l.board == nil {
		return list
	}
	cut, today := false, beforeOf(c)
	if c.Quad.Next == nil {
		today = before{} // nothing is planned: the list says how it is
	}
	on := map[string]onPads{}
	if l.board.Outline.Drawn() {
		on = place(netlist.All(c), l.board.Outline)
	}
	if ok && l.run.Plug != nil {
		list.Wires = append(list.Wires, l.solders(today, on[fleet.NodeAirUnit])...)
		cut = l.run.Harness == nil && len(list.Wires) > 0
		l.jumpers(&list)
	}
	for _, run := range Rewired(c) {
		wires := partLoom(c, run).solders(today, on[run.Node])
		list.Wires = append(list.Wires, wires...)
		cut = cut || run.Harness == nil && len(wires) > 0
	}
	if len(list.Wires) > 0 {
		list.Materials = append(list.Materials, "solder", "heat-shrink")
		if cut {
			list.Materials = append(list.Materials, "silicone wire")
		}
	}
	return list
}

// Rewired are the parts beside the air unit whose wires are not as they are today.
func Rewired(c fleet.Case) (runs []*netlist.Run) {
	now := netlist.Others(fleet.NowCase(c.Library, c.Fleet, c.Quad))
	sameBoard := c.Fit.Board == c.Quad.Now.Board
	for _, run := range netlist.Others(c) {
		if was := sameRun(now, run); was == nil || !sameBoard || !sameWires(was, run) {
			runs = append(runs, run)
		}
	}
	return runs
}

// solders are the wires of one part that are soldered and not on their place today.
func (l *loom) solders(today before, on onPads) (wires []Solder) {
	for i := range l.run.Conns {
		w := &l.run.Conns[i]
		atPads := w.Cable != nil && w.Cable.Without("from") && l.run.Plug.Pads()
		if w.Slot != 0 && !atPads || !w.Live() || w.Slot == 0 && !atPads && today.has(l.run, w) {
			continue
		}
		line := Solder{
			Part:   l.run.Node,
			Wire:   PinWords(w.Function),
			From:   fmt.Sprintf("%s pin %d (%s)", l.run.Label(), w.Pin, PinWords(w.Function)),
			To:     l.board.Label() + " " + strings.TrimPrefix(l.words(w.Terminal), "the "),
			Colour: w.Colour,
			AWG:    w.AWG,
		}
		if w.Slot != 0 { // its other end is in a plug: only this one is soldered
			line.To = fmt.Sprintf("the wire in slot %d of the %s", w.Slot, w.Cable.Label())
			wires = append(wires, line)
			continue
		}
		if w.LengthMM != nil {
			line.LengthMM = new(*w.LengthMM + slack)
		}
		printed, beside := l.nearby(w, on)
		line.Printed, line.Beside = printed, beside
		switch w.Function {
		case gear.PinUARTRX, gear.PinUARTTX:
			line.Note = "crossed: RX goes to TX"
		case gear.PinRCOut:
			line.Note = "an RX that takes an inverted signal"
		case gear.PinSupply:
			line.Note = "last, after the meter"
		}
		wires = append(wires, line)
	}
	return wires
}

// jumpers lists the solder jumpers of the plan: of power pads, and of inverters.
func (l *loom) jumpers(list *List) {
	for i := range l.board.Pads {
		pad := &l.board.Pads[i]
		if choice := l.Fit.Jumpers[pad.ID]; pad.Kind == gear.PadJumper && choice != "" {
			list.Jumpers = append(list.Jumpers, fmt.Sprintf("%s: on %s", pad.Label(), choice))
		}
	}
	for _, set := range l.inverterJumpers() {
		list.Jumpers = append(list.Jumpers,
			fmt.Sprintf("inverter of %s: on %s", strings.ToUpper(set.Pad[:2])+" "+set.Pad[2:], set.Choice))
	}
}

// inverterJumpers are the solder jumpers of inverters as the wires need them: plain
// for MSP, inverted where an inverted signal comes in.
func (l *loom) inverterJumpers() (list []fleet.Jumper) {
	for _, u := range l.board.UARTs {
		if u.Invert != gear.InvertJumper {
			continue
		}
		name := fleet.InverterJumper(u.ID)
		if choice := l.Fit.Jumpers[name]; choice != "" {
			list = append(list, fleet.Jumper{Pad: name, Choice: choice})
			continue
		}
		for i := range l.run.Conns {
			switch c := &l.run.Conns[i]; {
			case c.Terminal != u.RXPad():
			case c.Function == gear.PinUARTTX:
				list = append(list, fleet.Jumper{Pad: name, Choice: fleet.Plain})
			case c.Function == gear.PinRCOut && l.airUnit.RCOut != nil && l.airUnit.RCOut.Inverted != nil:
				choice := fleet.Plain
				if *l.airUnit.RCOut.Inverted {
					choice = fleet.Inverted
				}
				list = append(list, fleet.Jumper{Pad: name, Choice: choice})
			}
		}
	}
	return list
}

// InverterJumpers are the inverter jumpers to set for the wiring of a fit.
func InverterJumpers(c fleet.Case) []fleet.Jumper {
	l, ok := newLoom(c)
	if !ok || l.board == nil {
		return nil
	}
	return l.inverterJumpers()
}

// Change is one pin's wire, held against the wire of the same function today.
type Change struct {
	Function string `json:"function"`
	Kind     string `json:"kind"` // "same", "moved", "missing", "new"
	Says     string `json:"says"`
	// Colour is what to beware of: the colour that means something else now.
	Colour string `json:"colour,omitempty"`
}

// end is where a wire ends, in words: also the supply's that goes past the board.
func (l *loom) end(c *netlist.Conn) string {
	from, fed := l.Fit.FeedOf(l.run.Node)
	switch {
	case c.Terminal != "":
		return l.words(c.Terminal)
	case c.Function == gear.PinSupply && fed:
		return change.Source(l.Case, from)
	}
	return "nothing"
}

// Compare holds the wiring of the next fit against today's, by function and
// position, and says which colours mean something else now.
func Compare(lib *gear.Library, f *fleet.Index, q *fleet.Quad) []Change {
	changes := []Change{}
	now, hadUnit := newLoom(fleet.NowCase(lib, f, q))
	next, hasUnit := newLoom(fleet.NewCase(lib, f, q))
	if !hadUnit || !hasUnit || len(now.run.Conns) == 0 || len(next.run.Conns) == 0 {
		return changes
	}
	for _, function := range gear.UnitPins {
		was, is := now.run.Of(function), next.run.Of(function)
		c := Change{Function: PinWords(function)}
		switch {
		case was == nil && is == nil:
			continue
		case was == nil:
			c.Kind, c.Says = "new", fmt.Sprintf("pin %d to %s", is.Pin, next.end(is))
		case is == nil:
			c.Kind, c.Says = "missing", fmt.Sprintf("was pin %d to %s", was.Pin, now.end(was))
		case was.Pin == is.Pin && now.end(was) == next.end(is):
			c.Kind, c.Says = "same", fmt.Sprintf("pin %d to %s", is.Pin, next.end(is))
		default:
			c.Kind, c.Says = "moved", fmt.Sprintf("pin %d to %s; was pin %d to %s", is.Pin, next.end(is), was.Pin, now.end(was))
		}
		if is != nil && is.Colour != "" {
			at := slices.IndexFunc(now.run.Conns, func(o netlist.Conn) bool {
				return o.Colour == is.Colour && o.Function != "" && o.Function != function
			})
			if at >= 0 {
				c.Colour = fmt.Sprintf(
					"%s is %s now; it was %s",
					is.Colour,
					PinWords(function),
					PinWords(now.run.Conns[at].Function),
				)
			}
		}
		changes = append(changes, c)
	}
	return changes
}
