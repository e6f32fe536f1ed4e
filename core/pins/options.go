package pins

import (
	"fmt"
	"slices"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/verdict"
)

// Candidates lists what could be changed in the wiring: crimps to move, another
// cable, the pair crossed, the wires soldered anew, the feed the supply wire
// brings, and the ports planned anew.
func Candidates(c fleet.Case) []verdict.Candidate {
	l, ok := newLoom(c)
	if !ok || l.board == nil {
		return nil
	}
	var list []verdict.Candidate
	wired := func(says string, effort verdict.Effort, change func(*fleet.Wiring)) {
		w := l.Fit.Wiring
		change(&w)
		list = append(list, verdict.Candidate{Says: says, Owned: true, Effort: effort, Patch: fleet.Patch{Wiring: &w}})
	}
	for _, r := range Repins(c) {
		list = append(list, verdict.Candidate{Says: "re-pin the cable: " + r.Says, Owned: true, Effort: verdict.Wire, Patch: r.Patch})
	}
	list = append(list, l.cables()...)
	if wires, ok := l.crossed(); ok {
		wired("cross RX and TX at the board's pads", verdict.Wire, func(w *fleet.Wiring) { w.Wires = wires })
	}
	if out := l.of(gear.PinRCOut); l.plug == nil && l.Fit.Receiver != "" && out != nil && out.Live() {
		wired("take both RC wires off", verdict.Wire, func(w *fleet.Wiring) {
			w.Wires = slices.DeleteFunc(slices.Clone(w.Wires), func(s fleet.Wire) bool {
				f := l.airUnit.Plug.Pin(s.Pin)
				return f == gear.PinRCOut || f == gear.PinRCGround
			})
		})
	}
	if supply := l.of(gear.PinSupply); supply != nil && l.power(supply.Terminal) {
		list = append(list, verdict.Candidate{Says: "plan the feed the supply wire brings: " + l.words(supply.Terminal), Owned: true, Effort: verdict.Wire,
			Patch: fleet.Patch{Feed: &fleet.Feed{To: fleet.NodeAirUnit, From: fleet.PadNode(supply.Terminal)}}})
	}
	if l.airUnit.Plug != nil && l.plug == nil {
		if w, says, ok := l.soldered(); ok {
			list = append(list, verdict.Candidate{Says: says, Owned: true, Effort: verdict.Wire, Patch: fleet.Patch{Wiring: &w}})
		}
	}
	if ports, ok := l.planned(); ok {
		wired("plan the serial ports anew", verdict.Wire, func(w *fleet.Wiring) { w.Ports = ports })
	}
	return list
}

// cables are the harnesses of the library that go into both plugs.
func (l *loom) cables() (list []verdict.Candidate) {
	if l.airUnit.Plug == nil || l.airUnit.Plug.Connector == "" {
		return nil
	}
	for _, h := range gear.All[*gear.Harness](l.Library) {
		if h.ID == l.Fit.Harness || h.From != "" && h.From != l.airUnit.Plug.Connector {
			continue
		}
		for i := range l.board.Plugs {
			plug := &l.board.Plugs[i]
			if h.To == "" || plug.Connector != h.To {
				continue
			}
			w := l.Fit.Wiring
			w.Harness, w.HarnessTo, w.Moved, w.Wires = h.ID, plug.ID, nil, nil
			cand := verdict.Candidate{Says: fmt.Sprintf("use the %s into the %s", h.Label(), plug.Label()), Effort: verdict.Part,
				Owned: l.Fleet.SpareCount(h.ID, l.Quad.ID) > 0, Patch: fleet.Patch{Wiring: &w}}
			if !cand.Owned {
				cand.Costs = "to buy"
			}
			list = append(list, cand)
		}
	}
	return list
}

// crossed is the soldered wires with the UART pair crossed; false where they are
// not soldered or not swapped.
func (l *loom) crossed() ([]fleet.Wire, bool) {
	rx, tx := l.of(gear.PinUARTRX), l.of(gear.PinUARTTX)
	if l.plug != nil || rx == nil || tx == nil || !rx.Live() || !tx.Live() {
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
func (l *loom) soldered() (fleet.Wiring, string, bool) {
	w := l.Fit.Wiring
	needs, missing := l.needs()
	if len(missing) > 0 || len(l.board.UARTs) == 0 {
		return w, "", false
	}
	plan := l.portPlan(needs)
	terminal := map[string]string{gear.PinGround: gear.PinGround} // the supply goes where the feed says
	for _, a := range plan.Ports {
		u, _ := l.board.UART(a.UART)
		switch a.Use {
		case fleet.UseMSP:
			terminal[gear.PinUARTRX], terminal[gear.PinUARTTX] = u.TXPad(), u.RXPad()
		case fleet.UseRC:
			terminal[gear.PinRCOut], terminal[gear.PinRCGround] = u.RXPad(), gear.PinGround
		}
	}
	w.HarnessTo, w.Moved = "", nil
	old := w.Wires
	w.Wires = nil
	for i, function := range l.airUnit.Plug.Pins {
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
	if h, ok := gear.Find[*gear.Harness](l.Library, w.Harness); ok && h.To != "" {
		w.Harness = ""
	}
	w.Ports = portsOf(plan)
	return w, fmt.Sprintf("solder %d wires to the board's pads", len(w.Wires)), true
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
		ports = append(ports, fleet.Port{UART: a.UART, Use: a.Use})
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
	if !ok || l.board == nil || l.airUnit.Plug == nil {
		return list
	}
	connector, known := gear.Find[*gear.Connector](l.Library, l.airUnit.Plug.Connector)
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
	pins := l.airUnit.Plug.Pins
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
			return false, fmt.Sprintf("pin %d, %s, would meet %s", i+1, pinWords(function), l.words(row.Pins[i]))
		}
	}
	return true, "same pitch and order: a header soldered on takes the unit's cable. Insulate it, align before tacking one pad, check it against the supply pin"
}
