package change

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

func (d *differ) wiring() {
	was, is := &d.before.Fit.Wiring, &d.after.Fit.Wiring
	_, hasBoard := d.after.Board()
	if is.Harness != was.Harness || is.HarnessTo != was.HarnessTo {
		switch {
		case is.HarnessTo != "" && hasBoard:
			d.say("put the %s into the %s", d.label(is.Harness), d.plug(is.HarnessTo))
		case is.Harness != "" && is.Harness != was.Harness:
			d.say("use the %s", d.label(is.Harness))
		case is.Harness != was.Harness:
			d.say("leave the %s out", d.label(was.Harness))
		default:
			d.say("cut the plug off the %s at the board's end", d.label(is.Harness))
		}
	}
	if !slices.Equal(is.Moved, was.Moved) && len(is.Moved) > 0 {
		d.say("re-pin the cable: %s moved%s", Count(len(is.Moved), "crimp"), ends(is.Moved))
	}
	d.furtherCables(was.Cable(), is.Cable(), "")
	d.headers(was.Headers, is.Headers, "the unit")
	d.wires(was.Wires, is.Wires, "")
	d.others()
	d.ports(was.Ports, is.Ports)
}

// others says what becomes of the wired parts beside the air unit.
func (d *differ) others() {
	was, is := d.before.Fit, d.after.Fit
	d.cable(was.ReceiverCable, is.ReceiverCable, d.label(is.Receiver))
	for i := range is.Parts {
		p := &is.Parts[i]
		before, there := was.Part(p.ID)
		if !there || before.Model != p.Model {
			d.say("fit the %s", d.label(p.Model))
			before = &fleet.PlacedPart{}
		}
		d.cable(&before.Cable, &p.Cable, d.label(p.Model))
	}
	for i := range was.Parts {
		if _, stays := is.Part(was.Parts[i].ID); !stays {
			d.say("take the %s out", d.label(was.Parts[i].Model))
		}
	}
}

// cable says what becomes of the cable of one part.
func (d *differ) cable(was, is *fleet.Cable, part string) {
	if is == nil {
		return
	}
	if was == nil {
		was = &fleet.Cable{}
	}
	switch {
	case is.Harness == was.Harness && is.HarnessTo == was.HarnessTo:
	case is.HarnessTo != "":
		d.say("put the %s of the %s into the %s", d.label(is.Harness), part, d.plug(is.HarnessTo))
	case is.Harness != "":
		d.say("use the %s for the %s", d.label(is.Harness), part)
	default:
		d.say("leave the %s out", d.label(was.Harness))
	}
	if !slices.Equal(is.Moved, was.Moved) && len(is.Moved) > 0 {
		d.say("re-pin the cable of the %s: %s moved%s", part, Count(len(is.Moved), "crimp"), ends(is.Moved))
	}
	d.furtherCables(*was, *is, " of the "+part)
	d.headers(was.Headers, is.Headers, "the "+part)
	d.wires(was.Wires, is.Wires, " of the "+part)
}

// plug names a plug of the board; by its id where the board has none such.
func (d *differ) plug(id string) string {
	if board, ok := d.after.Board(); ok {
		if p, found := board.Plug(id); found {
			return p.Label()
		}
	}
	return id
}

// furtherCables says what becomes of a cable's branch and of those beside it.
func (d *differ) furtherCables(was, is fleet.Cable, of string) {
	ends := func(cable, says, was, is string) {
		switch {
		case is == was:
		case is != "":
			d.say("put the %s%s%s into the %s", says, d.label(cable), of, d.plug(is))
		default:
			d.say("take the %s%s%s out of the %s", says, d.label(cable), of, d.plug(was))
		}
	}
	if is.Harness != "" {
		ends(is.Harness, "branch of the ", was.BranchTo, is.BranchTo)
	}
	left := slices.Clone(was.Beside)
	for _, b := range is.Beside {
		at := slices.IndexFunc(left, func(o fleet.Beside) bool { return o.Harness == b.Harness })
		before := fleet.Beside{}
		if at >= 0 {
			before = left[at]
			left = slices.Delete(left, at, at+1)
		} else if b.HarnessTo == "" {
			d.say("use the %s beside it%s", d.label(b.Harness), of)
		}
		ends(b.Harness, "", before.HarnessTo, b.HarnessTo)
		ends(b.Harness, "branch of the ", before.BranchTo, b.BranchTo)
	}
	for _, gone := range left {
		d.say("leave the %s%s out", d.label(gone.Harness), of)
	}
}

// headers says which headers come onto rows of pads and off them.
func (d *differ) headers(was, is fleet.Headers, part string) {
	for _, end := range []struct {
		was, is *fleet.Header
		on      string
	}{
		{was.Header, is.Header, part},
		{was.BoardHeader, is.BoardHeader, "the flight board"},
	} {
		switch {
		case end.is == nil && end.was == nil, end.is != nil && end.was != nil && *end.is == *end.was:
		case end.is == nil:
			d.say("take the %s off %s", d.label(end.was.Model), end.on)
		case end.is.Turned:
			d.say("solder the %s onto the pads of %s, its pin 1 on the last pad", d.label(end.is.Model), end.on)
		default:
			d.say("solder the %s onto the pads of %s, pin 1 on pad 1", d.label(end.is.Model), end.on)
		}
	}
}

// ends says at which end of a cable crimps are moved.
func ends(moves []fleet.CrimpMove) string {
	at := func(end fleet.End) bool {
		return slices.ContainsFunc(moves, func(m fleet.CrimpMove) bool { return m.End == end })
	}
	switch {
	case at(fleet.UnitEnd) && at(fleet.BoardEnd):
		return ", at both ends"
	case at(fleet.UnitEnd):
		return ", at the unit's end alone"
	}
	return ", at the board's end alone"
}

// wires names the soldered wires of a part that move, come and go: only those.
func (d *differ) wires(was, is []fleet.Wire, of string) {
	find := func(list []fleet.Wire, pin int) (string, bool) {
		i := slices.IndexFunc(list, func(w fleet.Wire) bool { return w.Pin == pin })
		if i < 0 {
			return "", false
		}
		return list[i].To, true
	}
	var solders, takes []string
	for _, w := range is {
		if to, there := find(was, w.Pin); !there || to != w.To {
			solders = append(solders, fmt.Sprintf("pin %d%s to %s", w.Pin, of, Terminal(d.after, w.To)))
		}
	}
	for _, w := range was {
		if _, stays := find(is, w.Pin); !stays {
			takes = append(takes, fmt.Sprintf("pin %d%s", w.Pin, of))
		}
	}
	if len(solders) > 0 {
		d.say("solder %s", And(solders))
	}
	if len(takes) > 0 {
		d.say("take the wire of %s off", And(takes))
	}
}

// Terminal names a place of the board to solder to.
func Terminal(c fleet.Case, to string) string {
	if port, sends, ok := gear.SerialPin(to); ok {
		if sends {
			return fmt.Sprintf("TX %d", port)
		}
		return fmt.Sprintf("RX %d", port)
	}
	board, ok := c.Board()
	switch {
	case !ok:
	case board.Signal(to):
		return "the " + strings.ReplaceAll(to, "-", " ") + " pad"
	default:
		return padWords(board, to)
	}
	return to
}

func (d *differ) ports(was, is []fleet.Port) {
	for _, p := range is {
		if slices.Contains(was, p) {
			continue
		}
		d.say("put %s on UART %d", Use(p.Use), p.UART)
	}
	for _, p := range was {
		if count(is, p.Use) < count(was, p.Use) && !slices.Contains(is, p) {
			if count(is, p.Use) == 0 {
				d.say("give up %s on UART %d", Use(p.Use), p.UART)
			} else {
				d.say("leave UART %d free", p.UART)
			}
		}
	}
}

func count(ports []fleet.Port, use fleet.Use) (n int) {
	for _, p := range ports {
		if p.Use == use {
			n++
		}
	}
	return n
}

// Use names what a serial port is for.
func Use(u fleet.Use) string {
	switch u {
	case fleet.UseMSP:
		return "MSP to the air unit"
	case fleet.UseRC:
		return "the sticks from the air unit"
	case fleet.UseReceiver:
		return "the separate receiver"
	case fleet.UseGPS:
		return "GPS"
	case fleet.UseTelemetry:
		return "ESC telemetry"
	case fleet.UseVTXControl:
		return "control of the analog transmitter"
	}
	return "another use"
}
