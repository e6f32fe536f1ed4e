package pins

import (
	"fmt"
	"reflect"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// Candidates lists what could be changed in the wiring: crimps to move, another
// cable or another socket for this one, the pair crossed, the wires soldered anew,
// the feed the supply wire brings, an inverter's jumper, the ports planned anew, and each
// part beside the unit soldered where it belongs.
func Candidates(c fleet.Case) (list []verdict.Candidate) {
	list = resolders(c)
	l, ok := newLoom(c)
	if !ok || l.board == nil {
		return list
	}
	wired := func(change func(*fleet.Wiring)) {
		w := l.Fit.Wiring
		change(&w)
		list = append(list, verdict.Candidate{Effort: verdict.Wire, Patch: fleet.Patch{Wiring: &w}})
	}
	for _, r := range Repins(c) {
		list = append(list, verdict.Candidate{Effort: verdict.Wire, Patch: r.Patch})
	}
	list = append(list, l.cables()...)
	if wires, ok := l.crossed(); ok {
		wired(func(w *fleet.Wiring) { w.Wires = wires })
	}
	if out := l.run.LiveOf(gear.PinRCOut); l.run.Plug != nil && out != nil && out.Slot == 0 {
		wired(func(w *fleet.Wiring) { w.Wires = l.withoutSticks(w.Wires) })
	}
	if supply := l.run.Of(gear.PinSupply); supply != nil && l.power(supply.Terminal) {
		feed := fleet.Feed{To: fleet.NodeAirUnit, From: fleet.PadNode(supply.Terminal), Lead: l.feedLead()}
		list = append(list, verdict.Candidate{Effort: verdict.Wire, Patch: fleet.Patch{Feed: &feed}})
		wired(func(w *fleet.Wiring) { *w = l.fedElsewhere(*w) })
	}
	if w, ok := l.grounded(); ok {
		wired(func(to *fleet.Wiring) { *to = w })
	}
	if l.run.Plug != nil {
		if w, ok := l.soldered(); ok {
			wired(func(to *fleet.Wiring) { *to = w })
		}
	}
	for _, set := range l.inverters() {
		list = append(list, verdict.Candidate{Effort: verdict.Wire, Patch: fleet.Patch{Jumper: &set}})
	}
	for _, p := range append(l.putTwice(), l.waiting()...) {
		wired(func(w *fleet.Wiring) {
			w.Ports = slices.DeleteFunc(slices.Clone(w.Ports), func(q fleet.Port) bool { return q == p })
		})
	}
	if ports, ok := l.planned(); ok {
		wired(func(w *fleet.Wiring) { w.Ports = ports })
	}
	return list
}

// SupplyPlugged says whether the supply of the air unit comes through a cable that goes
// into plugs at both ends.
func SupplyPlugged(c fleet.Case) bool {
	l, ok := newLoom(c)
	if !ok || len(l.missing) > 0 {
		return false
	}
	supply := l.run.LiveOf(gear.PinSupply)
	return supply != nil && supply.Slot > 0
}

// withoutSticks is the soldered wires without the RC pair.
func (l *loom) withoutSticks(wires []fleet.Wire) []fleet.Wire {
	return slices.DeleteFunc(slices.Clone(wires), func(s fleet.Wire) bool {
		f := l.run.Plug.Pin(s.Pin)
		return f == gear.PinRCOut || f == gear.PinRCGround
	})
}

// feedLead is the lead the unit is fed through, as the fit has it.
func (l *loom) feedLead() *fleet.Lead {
	for _, f := range l.Fit.Feeds {
		if f.To == fleet.NodeAirUnit {
			return f.Lead
		}
	}
	return nil
}

// solderables are the further cables that can be used where all is soldered.
func (l *loom) solderables(beside []fleet.Beside, plug *gear.Plug) (list []fleet.Beside) {
	for _, b := range beside {
		h, ok := gear.Find[*gear.Harness](l.Library, b.Harness)
		if ok && b.HarnessTo == "" && b.BranchTo == "" && solderable(h, plug) {
			list = append(list, b)
		}
	}
	return list
}

// solderable says whether a cable can be used where all is soldered at the board: it has
// bare ends there, and at the part's side a plug for its plug or bare ends for its pads.
func solderable(h *gear.Harness, plug *gear.Plug) bool {
	return h.To == "" && (!plug.Pads() || h.Without("from"))
}

// grounded is the wiring with the grounds soldered that are not joined.
func (l *loom) grounded() (fleet.Wiring, bool) {
	w := l.Fit.Wiring
	if l.run.Plug == nil {
		return w, false
	}
	w.Wires = slices.Clone(w.Wires)
	added := false
	for _, function := range []string{gear.PinGround, gear.PinRCGround} {
		pin := slices.Index(l.run.Plug.Pins, function) + 1
		if pin == 0 || l.run.LiveOf(function) != nil || function == gear.PinRCGround && l.run.LiveOf(gear.PinRCOut) == nil {
			continue
		}
		w.Wires = append(w.Wires, fleet.Wire{Pin: pin, To: gear.PinGround})
		added = true
	}
	return w, added
}

// inverters are the inverter jumpers the plan sets the wrong way.
func (l *loom) inverters() (list []fleet.Jumper) {
	for _, u := range l.board.UARTs {
		name := fleet.InverterJumper(u.ID)
		switch l.Fit.Jumpers[name] {
		case fleet.Inverted:
			list = append(list, fleet.Jumper{Pad: name, Choice: fleet.Plain})
		case fleet.Plain:
			list = append(list, fleet.Jumper{Pad: name, Choice: fleet.Inverted})
		default:
			if out := l.run.LiveOf(gear.PinRCOut); out != nil && out.Terminal == u.RXPad() && u.Invert == gear.InvertJumper {
				list = append(list, fleet.Jumper{Pad: name, Choice: fleet.Inverted})
			}
		}
	}
	return list
}

// cables are the harnesses of the library that go into both plugs, the one planned
// in another socket of the board included.
func (l *loom) cables() (list []verdict.Candidate) {
	for _, on := range l.cabled() {
		h, _ := gear.Find[*gear.Harness](l.Library, on.Harness)
		if h.From == "" || reflect.DeepEqual(on, fleet.Cable{Harness: l.Fit.Harness, HarnessTo: l.Fit.HarnessTo,
			Headers: l.Fit.Headers}) {
			continue
		}
		for _, keeps := range []bool{false, true} { // what is soldered beside it
			w := l.Fit.Wiring
			w.Harness, w.HarnessTo, w.Moved, w.Headers = on.Harness, on.HarnessTo, nil, on.Headers
			w.BranchTo = ""
			if !keeps {
				w.Wires, w.Beside = nil, nil
			} else if len(w.Wires) == 0 && len(w.Beside) == 0 {
				continue
			}
			w = l.fedElsewhere(w)
			effort := verdict.Part
			if w.Harness == l.Fit.Harness {
				effort = verdict.Wire
			}
			list = append(list, verdict.Candidate{Effort: effort, Patch: fleet.Patch{Wiring: &w}})
		}
	}
	return list
}

// fedElsewhere is a wiring with the supply wire off the board where the plan feeds the unit
// from the pack or a regulator.
func (l *loom) fedElsewhere(w fleet.Wiring) fleet.Wiring {
	from, fed := l.Fit.FeedOf(fleet.NodeAirUnit)
	if _, onBoard := fleet.PadOf(from); !fed || onBoard {
		return w
	}
	if off := netlist.OffItsPad(l.With(fleet.Patch{Wiring: &w})); off != nil {
		return *off
	}
	return w
}

// Cables are the ways a harness of the library can go into the air unit and into a plug of
// the board, over a header on pads where one is needed. One whose end at the unit nobody
// has stated is among them.
func Cables(c fleet.Case) []fleet.Cable {
	l, ok := newLoom(c)
	if !ok || l.board == nil {
		return nil
	}
	return l.cabled()
}

func (l *loom) cabled() (list []fleet.Cable) {
	plug := bare(l.run.Row, l.run.Plug)
	for _, h := range gear.All[*gear.Harness](l.Library) {
		headers := []*fleet.Header{nil}
		if plug != nil && h.From != "" {
			headers = l.headersFor(plug, h.From)
		}
		if h.To == "" || h.Without("from") {
			continue
		}
		for _, header := range headers {
			for i := range l.board.Plugs {
				into := &l.board.Plugs[i]
				for _, boardHeader := range l.headersFor(into, h.To) {
					if header != nil && boardHeader != nil && header.Turned && boardHeader.Turned {
						continue // as good as neither turned
					}
					list = append(list, fleet.Cable{
						Harness:   h.ID,
						HarnessTo: into.ID,
						Headers:   fleet.Headers{Header: header, BoardHeader: boardHeader},
					})
				}
			}
		}
	}
	return list
}

// crossed is the soldered wires with the UART pair crossed; false where they are not
// soldered, and where the port could not carry MSP or is taken by another use.
func (l *loom) crossed() ([]fleet.Wire, bool) {
	rx, tx := l.run.LiveOf(gear.PinUARTRX), l.run.LiveOf(gear.PinUARTTX)
	if rx == nil || tx == nil || rx.Slot != 0 || tx.Slot != 0 {
		return nil, false
	}
	port, _, serial := gear.SerialPin(rx.Terminal)
	u, ok := l.board.UART(port)
	if !serial || !ok || u.Hardware == nil || !*u.Hardware {
		return nil, false
	}
	taken := func(p fleet.Port) bool {
		return p.UART == port && p.Use != fleet.UseMSP && p.Use != fleet.UseVTXControl
	}
	if slices.ContainsFunc(l.Fit.Ports, taken) {
		return nil, false
	}
	wires := slices.Clone(l.Fit.Wires)
	for i := range wires {
		switch wires[i].Pin {
		case rx.Pin:
			wires[i].To = tx.Terminal
		case tx.Pin:
			wires[i].To = rx.Terminal
		}
	}
	return wires, true
}

// soldered is all that is needed soldered to the board's pads, on the ports the
// plan gives; colours and lengths of wires that stay are kept.
func (l *loom) soldered() (fleet.Wiring, bool) {
	w := l.Fit.Wiring
	needs, missing := l.needs()
	if len(missing) > 0 || len(l.board.UARTs) == 0 {
		return w, false
	}
	plan := l.portPlan(needs)
	terminal := map[string]string{gear.PinGround: gear.PinGround}
	if from, fed := l.Fit.FeedOf(fleet.NodeAirUnit); fed {
		if pad, onBoard := fleet.PadOf(from); onBoard {
			terminal[gear.PinSupply] = pad
		}
	}
	for _, a := range plan.Ports {
		u, _ := l.board.UART(a.UART)
		switch a.Use {
		case fleet.UseMSP:
			terminal[gear.PinUARTRX], terminal[gear.PinUARTTX] = u.TXPad(), u.RXPad()
		case fleet.UseRC:
			terminal[gear.PinRCOut], terminal[gear.PinRCGround] = u.RXPad(), gear.PinGround
			if a.Inverted && u.Invert == gear.InvertSecond {
				terminal[gear.PinRCOut] = u.InvertedPad()
			}
		}
	}
	plug := l.run.Plug
	w.HarnessTo, w.Moved, w.BoardHeader, w.BranchTo = "", nil, nil, ""
	if h, ok := gear.Find[*gear.Harness](l.Library, w.Harness); ok && !solderable(h, plug) {
		w.Harness = ""
	}
	w.Beside = l.solderables(w.Beside, plug)
	if w.Harness == "" {
		plug, w.Headers = bare(l.run.Row, plug), fleet.Headers{} // the pads themselves
	}
	old := w.Wires
	w.Wires = nil
	for i, function := range plug.Pins {
		to := terminal[function]
		if to == "" {
			continue
		}
		line := fleet.Wire{Pin: i + 1, To: to}
		if at := slices.IndexFunc(old, func(o fleet.Wire) bool { return o.Pin == i+1 }); at >= 0 {
			line.Colour, line.AWG, line.MM = old[at].Colour, old[at].AWG, old[at].MM
		}
		w.Wires = append(w.Wires, line)
	}
	w.Ports = portsOf(plan)
	return w, true
}

// planned is the ports of the fit as the plan has them, where every use gets one.
func (l *loom) planned() ([]fleet.Port, bool) {
	needs, missing := l.needs()
	if len(missing) > 0 || len(l.board.UARTs) == 0 {
		return nil, false
	}
	plan := l.portPlan(needs)
	return portsOf(plan), len(plan.Lost) == 0
}

func portsOf(plan PortPlan) (ports []fleet.Port) {
	for _, a := range plan.Ports {
		if !a.builtIn {
			ports = append(ports, fleet.Port{UART: a.UART, Use: a.Use})
		}
	}
	return ports
}

// Header says whether a header of the unit's connector can be soldered onto a row
// of pads of the board, so that one plug serves: same pitch, same order.
type Header struct {
	Plug string `json:"plug"`
	Fits bool   `json:"fits"`
	Says string `json:"says"`
}

// Headers looks at each row of solder pads of the board.
func Headers(c fleet.Case) []Header {
	list := []Header{}
	l, ok := newLoom(c)
	if !ok || l.board == nil || l.run.Plug == nil {
		return list
	}
	connector, known := gear.Find[*gear.Connector](l.Library, l.run.Plug.Connector)
	for i := range l.board.Plugs {
		row := &l.board.Plugs[i]
		if row.Connector != "" {
			continue
		}
		h := Header{Plug: row.Label()}
		switch {
		case !known || connector.PitchMM == nil:
			h.Says = "unknown: pitch of the unit's connector"
		case row.PitchMM == nil:
			h.Says = "unknown: pitch of the pads"
		case *row.PitchMM != *connector.PitchMM:
			h.Says = fmt.Sprintf("its pads are %s apart, the connector's pins %s", row.PitchMM, connector.PitchMM)
		default:
			h.Fits, h.Says = l.sameOrder(row)
		}
		list = append(list, h)
	}
	return list
}

// sameOrder says whether a straight cable joins each pin of the unit with the
// right pad of a row.
func (l *loom) sameOrder(row *gear.Plug) (bool, string) {
	pins := l.run.Plug.Pins
	if len(pins) != len(row.Pins) {
		return false, fmt.Sprintf("it has %d pads, the connector %d pins", len(row.Pins), len(pins))
	}
	for i, function := range pins {
		_, sends, serial := gear.SerialPin(row.Pins[i])
		right := false
		switch function {
		case gear.PinSupply:
			right = l.power(row.Pins[i])
		case gear.PinGround, gear.PinRCGround:
			right = row.Pins[i] == gear.PinGround
		case gear.PinUARTRX:
			right = serial && sends
		case gear.PinUARTTX, gear.PinRCOut:
			right = serial && !sends
		default:
			right = true
		}
		if !right {
			return false, fmt.Sprintf("pin %d, %s, would meet %s", i+1, PinWords(function), l.words(row.Pins[i]))
		}
	}
	return true, "same pitch and order: a header soldered on takes the unit's cable. Insulate it, align before tacking " +
		"one pad, check it against the supply pin"
}
