package pins

import (
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// Need is a function that wants a serial port.
type Need struct {
	Use      fleet.Use `json:"use"`
	For      string    `json:"for"` // in words
	Label    string    `json:"label"`
	TX       bool      `json:"tx"` // the board sends
	RX       bool      `json:"rx"` // the board listens
	Inverted bool      `json:"inverted"`
	Fast     bool      `json:"fast"` // a soft-serial port is too slow
	Now      int       `json:"now"`  // the port it is on; 0: none yet
	node     string    // of the part; empty: nobody says which
	builtIn  bool      // it is on the board itself, and stays on its port
}

// wires is how many wires the need has.
func (n *Need) wires() int {
	count := 0
	if n.TX {
		count++
	}
	if n.RX {
		count++
	}
	return count
}

// needs lists what wants a port, the most important first: the sticks, then MSP,
// then the parts as their pins have it, then the rest as the fit has it (common practice).
func (l *loom) needs() (needs []Need, missing []verdict.Missing) {
	if n, on := l.builtInNeed(); on {
		needs = append(needs, n)
	} else if r, ok := l.PlacedReceiver(); ok {
		n, lacks := l.receiverNeed(r)
		needs, missing = append(needs, n), append(missing, lacks...)
	} else if !l.BuiltIn() && l.sticksThroughUnit() {
		n, lacks := l.sticksNeed()
		needs, missing = append(needs, n), append(missing, lacks...)
	}
	if l.airUnit != nil && l.Fit.Depth != fleet.PictureOnly {
		n := Need{
			Use:   fleet.UseMSP,
			Label: l.airUnit.Label(),
			TX:    true,
			RX:    true,
			Fast:  true,
			Now:   l.statedPort(fleet.UseMSP),
		}
		if id, ok := l.mspPort(); ok {
			n.Now = id
		}
		needs = append(needs, n)
	}
	parts := l.partNeeds()
	needs = append(append(needs, parts...), l.statedNeeds(parts)...)
	for i := range needs {
		needs[i].For = change.Use(needs[i].Use)
		if needs[i].Label == needs[i].For {
			needs[i].Label = "" // nobody says which
		}
	}
	return needs, missing
}

func (l *loom) statedPort(use fleet.Use) int {
	id, _ := l.Fit.PortOf(use)
	return id
}

// builtInNeed is the port of the receiver that is built into the board; false where the
// plan has none, or it takes no port.
func (l *loom) builtInNeed() (Need, bool) {
	r, ok := l.Receiver()
	if !ok || !l.BuiltIn() {
		return Need{}, false
	}
	port, on := l.board.BuiltInPort()
	return Need{Use: fleet.UseReceiver, Label: r.Label(), RX: true, Now: port, builtIn: true}, on
}

// receiverNeed is what the separate receiver wants, with what its sheet does not say.
func (l *loom) receiverNeed(r *gear.Receiver) (n Need, missing []verdict.Missing) {
	n = Need{Use: fleet.UseReceiver, node: fleet.NodeReceiver, Label: r.Label(), RX: true, Fast: true,
		Now: l.statedPort(fleet.UseReceiver)}
	for _, v := range []struct {
		value       *bool
		field, what string
		set         *bool
	}{
		{r.FullDuplex, "fullDuplex", "whether " + r.Label() + " needs both pads of its port", &n.TX},
		{r.Inverted, "inverted", "whether the signal of " + r.Label() + " is inverted", &n.Inverted},
	} {
		if v.value == nil {
			missing = append(missing, verdict.Missing{Of: "gear", ID: r.ID, Field: v.field, Label: v.what})
		} else {
			*v.set = *v.value
		}
	}
	if run := l.runOf(fleet.NodeReceiver); run != nil && run.Said() {
		n.Now = portOn(run, l.board)
	}
	return n, missing
}

// sticksNeed is what the air unit's RC output wants.
func (l *loom) sticksNeed() (n Need, missing []verdict.Missing) {
	n = Need{Use: fleet.UseRC, Label: l.airUnit.Label(), RX: true, Fast: true, Now: l.statedPort(fleet.UseRC)}
	if port, ok := l.rcPort(); ok {
		n.Now = port
	}
	if rc := l.airUnit.RCOut; rc != nil && rc.Inverted != nil {
		n.Inverted = *rc.Inverted
		return n, nil
	}
	return n, []verdict.Missing{l.rcInverted()}
}

// statedNeeds are the ports a fit states for a use that no part with pins of its own has.
func (l *loom) statedNeeds(parts []Need) (needs []Need) {
	wired := map[fleet.Use]int{}
	for _, n := range parts {
		wired[n.Use]++
	}
	for _, p := range l.Fit.Noted() {
		if wired[p.Use] > 0 {
			wired[p.Use]-- // it is this part's
			continue
		}
		n := Need{Use: p.Use, Label: change.Use(p.Use), Now: p.UART}
		switch p.Use {
		case fleet.UseGPS, fleet.UseOther:
			n.TX, n.RX = true, true
		case fleet.UseTelemetry:
			n.RX = true
		case fleet.UseVTXControl:
			if n.TX = l.airUnit == nil; !n.TX {
				continue // it goes with the analog transmitter
			}
		default:
			continue
		}
		needs = append(needs, n)
	}
	return needs
}

// sticksThroughUnit says whether the air unit hands the sticks on: a controller is named
// that flies it, or the wire is there.
func (l *loom) sticksThroughUnit() bool {
	if l.airUnit == nil || l.airUnit.Without("rcOut") {
		return false
	}
	_, _, flown := l.Controller()
	return flown || l.run.LiveOf(gear.PinRCOut) != nil
}

// Uses are the serial ports of a fit with what they carry: as the parts with pins of their
// own are wired, the rest as it is stated.
func Uses(c fleet.Case) []fleet.Port {
	l := &loom{Case: c, beside: netlist.Others(c)}
	l.board, _ = c.Board()
	ports, moved := l.wiredPorts()
	for _, m := range moved {
		ports = append(ports, fleet.Port{UART: m.Now, Use: m.Use})
	}
	if n, on := l.builtInNeed(); on {
		ports = slices.DeleteFunc(ports, func(p fleet.Port) bool { return p.Use == n.Use })
		ports = append(ports, fleet.Port{UART: n.Now, Use: n.Use})
	}
	return ports
}

// elsewhere is a part that is wired to another port than the one stated for its use; 0:
// none is stated.
type elsewhere struct {
	Need
	stated int
}

// wiredPorts holds the ports that are stated against the wires, each part against a port
// of its use that no other part is on: those that stand as they are stated, and the parts
// that are wired elsewhere.
func (l *loom) wiredPorts() (stand []fleet.Port, moved []elsewhere) {
	stand = slices.Clone(l.Fit.Noted())
	var open []Need
	var same []fleet.Port
	for _, n := range l.wiredNeeds() {
		port := fleet.Port{UART: n.Now, Use: n.Use}
		at := slices.Index(stand, port)
		if at < 0 {
			open = append(open, n)
			continue
		}
		stand, same = slices.Delete(stand, at, at+1), append(same, port)
	}
	for _, n := range open {
		m := elsewhere{Need: n}
		if at := slices.IndexFunc(stand, func(p fleet.Port) bool { return p.Use == n.Use }); at >= 0 {
			m.stated = stand[at].UART
			stand = slices.Delete(stand, at, at+1)
		}
		moved = append(moved, m)
	}
	return append(stand, same...), moved
}

// wiredNeeds are those of the air unit, the parts and the receiver whose wires say their
// port.
func (l *loom) wiredNeeds() (needs []Need) {
	if l.airUnit != nil {
		if port, ok := l.mspPort(); ok {
			needs = append(needs, Need{Use: fleet.UseMSP, Label: l.airUnit.Label(), Now: port})
		}
		if port, ok := l.rcPort(); ok {
			needs = append(needs, Need{Use: fleet.UseRC, Label: l.airUnit.Label(), Now: port})
		}
	}
	for _, n := range l.partNeeds() {
		if n.Now != 0 {
			needs = append(needs, n)
		}
	}
	if run := l.runOf(fleet.NodeReceiver); run != nil && run.Said() {
		if port := portOn(run, l.board); port != 0 {
			needs = append(needs, Need{Use: fleet.UseReceiver, Label: run.Label(), Now: port})
		}
	}
	return needs
}

// uses is what the serial lines of a placed part are for, by what it is.
var uses = map[gear.PartSort]fleet.Use{
	gear.SortGPS:         fleet.UseGPS,
	gear.SortESC:         fleet.UseTelemetry,
	gear.SortTransmitter: fleet.UseVTXControl,
}

// partNeeds are the ports the placed parts want, as their pins have it.
func (l *loom) partNeeds() (needs []Need) {
	for _, run := range l.beside {
		if run.Node == fleet.NodeReceiver {
			continue
		}
		n := Need{
			Use:   fleet.UseOther,
			node:  run.Node,
			Label: run.Label(),
			TX:    run.Has(gear.PinUARTRX) || run.Has(gear.PinControl),
			RX:    run.Has(gear.PinUARTTX) || run.Has(gear.PinTelemetry),
			Now:   portOn(run, l.board),
		}
		if n.TX || n.RX {
			if use, ok := uses[gear.PartSort(run.Sort)]; ok {
				n.Use = use
			}
			n.Inverted = run.Inverted != nil && *run.Inverted
			needs = append(needs, n)
		}
	}
	return needs
}

func (l *loom) runOf(node string) *netlist.Run {
	for _, run := range l.beside {
		if run.Node == node {
			return run
		}
	}
	return nil
}

// portOn is the serial port a part is wired to; 0 where it is on none.
func portOn(run *netlist.Run, board *gear.Board) int {
	if board == nil {
		return 0
	}
	for _, function := range []string{gear.PinUARTTX, gear.PinUARTRX, gear.PinTelemetry, gear.PinControl} {
		if c := run.LiveOf(function); c != nil {
			if id, _, serial := gear.SerialPin(c.Terminal); serial {
				return id
			}
		}
	}
	return 0
}
