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
)

// mspPort is the port the UART pair is on; false where it is not on one.
func (l *loom) mspPort() (int, bool) {
	rx, tx := l.run.Of(gear.PinUARTRX), l.run.Of(gear.PinUARTTX)
	if rx == nil || tx == nil {
		return 0, false
	}
	a, sends, isPort := gear.SerialPin(rx.Terminal)
	b, back, isPortToo := gear.SerialPin(tx.Terminal)
	return a, isPort && isPortToo && a == b && sends && !back
}

// rcPort is the serial port that hears the air unit's RC output; false where it goes to none.
func (l *loom) rcPort() (int, bool) {
	out := l.run.Of(gear.PinRCOut)
	if out == nil {
		return 0, false
	}
	port, sends, isPort := gear.SerialPin(out.Terminal)
	return port, isPort && !sends
}

// MSPPort is the serial port of the board that the air unit's UART is on: as it is
// wired, or where the wiring is not said, as the port is said to be. It is false
// where neither is said, and where the wires as they are cannot carry MSP.
func MSPPort(c fleet.Case) (int, bool) {
	port, on, _ := MSPWiredTo(c)
	return port, on
}

// MSPWiredTo is MSPPort, with whether the wires of the air unit are said: else it is what
// the fit states of its ports.
func MSPWiredTo(c fleet.Case) (port int, on, said bool) {
	l, ok := ownLoom(c)
	if !ok || len(l.missing) > 0 {
		port, on = c.Fit.PortOf(fleet.UseMSP)
		return port, on, false
	}
	port, on = l.mspPort()
	return port, on, true
}

// SticksPort is the serial port the sticks come in on, from the air unit or from a
// separate receiver; 0 where that is built into the board and takes none.
func SticksPort(c fleet.Case) (int, bool) {
	if board, _ := c.Board(); c.BuiltIn() {
		port, _ := board.BuiltInPort()
		return port, true
	}
	if c.Fit.Receiver != "" {
		if run, wired := netlist.Receiver(c); wired {
			if tells := run.LiveOf(gear.PinUARTTX); tells != nil {
				if port, sends, isPort := gear.SerialPin(tells.Terminal); isPort && !sends {
					return port, true
				}
			}
		}
		return c.Fit.PortOf(fleet.UseReceiver)
	}
	if l, ok := ownLoom(c); ok && len(l.missing) == 0 {
		if out := l.run.Of(gear.PinRCOut); out != nil {
			if port, sends, isPort := gear.SerialPin(out.Terminal); isPort && !sends {
				return port, true
			}
		}
	}
	return c.Fit.PortOf(fleet.UseRC)
}

// checkMSP judges the UART pair.
func (l *loom) checkMSP() []verdict.Finding {
	one := func(code verdict.Code, level verdict.Level, says string, args ...any) []verdict.Finding {
		return []verdict.Finding{{Code: code, Level: level, Source: verdict.Practice, Says: fmt.Sprintf(says, args...)}}
	}
	rx, tx := l.run.LiveOf(gear.PinUARTRX), l.run.LiveOf(gear.PinUARTTX)
	switch {
	case rx == nil && tx == nil && l.Fit.Depth == fleet.PictureOnly:
		return nil // left out on purpose
	case rx == nil && tx == nil:
		return one(CodeNoOSD, verdict.Caution,
			"The UART pair is not wired: there is a picture, but no OSD and no tuning from the goggles.")
	case rx == nil || tx == nil:
		return one(CodeHalf, verdict.Unfit,
			"Only one wire of the UART pair is connected: the OSD stays blank. MSP needs both.")
	}
	rxPort, rxSends, rxOK := gear.SerialPin(rx.Terminal)
	txPort, txSends, txOK := gear.SerialPin(tx.Terminal)
	if !rxOK || !txOK {
		return nil // said wire by wire
	}
	switch {
	case rxPort != txPort:
		return one(CodeTwoPorts, verdict.Unfit,
			"UART RX and TX of the unit are on two ports, UART %d and UART %d: MSP needs one.", rxPort, txPort)
	case !rxSends && txSends:
		return one(CodeSwapped, verdict.Change,
			"RX and TX are not crossed: the unit's RX is on %s and its TX on %s. It harms nothing; the OSD stays blank.",
			l.words(rx.Terminal), l.words(tx.Terminal))
	case !rxSends || txSends:
		return one(CodeHalf, verdict.Unfit,
			"The UART pair does not meet a sender and a receiver on UART %d: the OSD stays blank.", rxPort)
	}
	u, ok := l.board.UART(rxPort)
	switch {
	case !ok:
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.airUnit.Label(),
			l.boardValue("uarts", fmt.Sprintf("UART %d of %s", rxPort, l.board.Label())))}
	case u.BuiltIn:
		return one(CodePort, verdict.Unfit, "UART %d is taken by the receiver on the board: MSP needs a port of its own.",
			rxPort)
	case u.Hardware == nil:
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.airUnit.Label(), l.hardware(rxPort))}
	case !*u.Hardware:
		return one(CodeSoftSerial, verdict.Unfit, "UART %d is soft-serial: too slow for MSP.", rxPort)
	}
	return l.checkPlain(u, tx.Terminal, "MSP")
}

func (l *loom) hardware(port int) verdict.Missing {
	return l.boardValue(fmt.Sprintf("uarts.%d.hardware", port),
		fmt.Sprintf("whether UART %d of %s is a hardware port", port, l.board.Label()))
}

// checkPlain judges whether a signal that is not inverted arrives at a pad.
func (l *loom) checkPlain(u *gear.UART, pad, signal string) []verdict.Finding {
	switch {
	case u.Invert == "":
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(), l.inverter(u.ID))}
	case u.Invert == gear.InvertPad || gear.InvertedPin(pad):
		return []verdict.Finding{{Code: CodeInverted, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("%s is always inverted, and %s is not: nothing arrives.", verdict.Capital(l.words(pad)), signal)}}
	case u.Invert == gear.InvertJumper && l.Fit.Jumpers[fleet.InverterJumper(u.ID)] == fleet.Inverted:
		return []verdict.Finding{{Code: CodeJumper, Level: verdict.Change, Source: verdict.Practice,
			Says: fmt.Sprintf("The solder jumper of RX %d is set to inverted, and %s is not inverted: nothing arrives until "+
				"it is set to plain.",
				u.ID, signal)}}
	}
	return nil
}

func (l *loom) inverter(port int) verdict.Missing {
	return l.boardValue(fmt.Sprintf("uarts.%d.invert", port),
		fmt.Sprintf("how UART %d of %s takes an inverted signal", port, l.board.Label()))
}

// checkRC judges the wire that hands on the sticks.
func (l *loom) checkRC() []verdict.Finding {
	out := l.run.LiveOf(gear.PinRCOut)
	_, _, flown := l.Controller()
	one := func(code verdict.Code, level verdict.Level, says string, args ...any) []verdict.Finding {
		return []verdict.Finding{{Code: code, Level: level, Source: verdict.Practice, Says: fmt.Sprintf(says, args...)}}
	}
	switch {
	case l.Fit.Receiver != "" && out != nil:
		return one(CodeSpareRC, verdict.Caution, "A separate receiver takes the sticks: leave both RC wires of the unit off.")
	case l.Fit.Receiver != "":
		return nil
	case !flown && out == nil && l.Fit.Without(fleet.NoController):
		return nil // nobody flies it
	case !flown && out == nil:
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeNoSticks, l.airUnit.Label(),
			verdict.FitValue(l.Case, "controller", "controller, or a separate receiver, of "+l.Quad.Label()))}
	case l.airUnit.Without("rcOut"):
		return one(CodeNoSticks, verdict.Unfit, "The sticks are to come through %s, which has no RC output.",
			l.airUnit.Label())
	case out == nil:
		return one(CodeNoSticks, verdict.Unfit,
			"The sticks come through the air unit, but its RC output is wired to nothing.")
	}
	port, sends, ok := gear.SerialPin(out.Terminal)
	if !ok {
		return nil // said wire by wire
	}
	u, has := l.board.UART(port)
	if !has {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(),
			l.boardValue("uarts", fmt.Sprintf("UART %d of %s", port, l.board.Label())))}
	}
	if u.BuiltIn {
		return one(CodeDrivers, verdict.Unfit,
			"The RC output ends on UART %d, which the receiver on the board drives: neither is heard.", port)
	}
	if sends && (u.TXListens == nil || !*u.TXListens) {
		return one(CodeNoSticks, verdict.Unfit,
			"The RC output ends on %s, a sender: the sticks do nothing. It belongs on an RX.", l.words(out.Terminal))
	}
	findings := append(l.checkFast(u), l.checkRCGround()...)
	if rc := l.airUnit.RCOut; rc == nil || rc.Inverted == nil {
		return append(findings, verdict.CannotTell(verdict.Pins, CodeUnknown, l.airUnit.Label(), l.rcInverted()))
	} else if *rc.Inverted {
		return append(findings, l.checkInverted(u, out.Terminal, "The RC output is an inverted signal")...)
	}
	return append(findings, l.checkPlain(u, out.Terminal, "the RC output")...)
}

// checkFast judges whether a port is fast enough for the sticks.
func (l *loom) checkFast(u *gear.UART) []verdict.Finding {
	switch {
	case u.Hardware == nil:
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(), l.hardware(u.ID))}
	case !*u.Hardware:
		return []verdict.Finding{{Code: CodeSoftSerial, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("The sticks come in on UART %d, which is soft-serial: too slow and too late for them.", u.ID)}}
	}
	return nil
}

func (l *loom) rcInverted() verdict.Missing {
	return verdict.Missing{
		Of:    "gear",
		ID:    l.airUnit.ID,
		Field: "rcOut.inverted",
		Label: "whether the RC output of " + l.airUnit.Label() + " is inverted",
	}
}

// checkRCGround says that the ground of the RC pair is missing: some call it optional,
// common practice is to connect it.
func (l *loom) checkRCGround() []verdict.Finding {
	if !slices.Contains(l.run.Plug.Pins, gear.PinRCGround) || l.run.LiveOf(gear.PinRCGround) != nil {
		return nil
	}
	return []verdict.Finding{{Code: CodeRCGround, Level: verdict.Caution, Source: verdict.Practice,
		Says: "The ground of the RC pair is not connected: the sticks then lean on the supply's ground alone. Connect it."}}
}

// checkInverted judges whether a pad of a port can take an inverted signal. A jumper
// the plan does not speak of is set as it is needed.
func (l *loom) checkInverted(u *gear.UART, pad, signal string) []verdict.Finding {
	port := u.ID
	one := func(code verdict.Code, level verdict.Level, says string, args ...any) []verdict.Finding {
		return []verdict.Finding{{Code: code, Level: level, Source: verdict.Practice, Says: fmt.Sprintf(says, args...)}}
	}
	switch u.Invert {
	case gear.InvertPad, gear.InvertSoftware:
		return nil
	case gear.InvertSecond:
		if gear.InvertedPin(pad) {
			return nil
		}
		return one(CodeInverted, verdict.Unfit, "%s, and %s takes none; the second pad of UART %d does.", signal,
			l.words(pad), port)
	case gear.InvertJumper:
		switch l.Fit.Jumpers[fleet.InverterJumper(port)] {
		case fleet.Inverted:
			return nil
		case fleet.Plain:
			return one(CodeJumper, verdict.Change, "%s; the solder jumper of RX %d is set to plain: it must be set to inverted.",
				signal, port)
		}
		return one(CodeJumper, verdict.Caution, "%s; RX %d takes it once its solder jumper is set to inverted.", signal, port)
	case gear.InvertNone:
		return one(CodeInverted, verdict.Unfit, "%s, and RX %d has no inverter: the sticks do nothing.", signal, port)
	}
	return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(), l.inverter(port))}
}

// checkDrivers looks for pads that listen to two senders at once: neither is heard
// then, and one may harm the other.
func (l *loom) checkDrivers() (findings []verdict.Finding) {
	drivers := map[string][]string{}
	var order []string
	drive := func(terminal, who string) {
		if drivers[terminal] == nil {
			order = append(order, terminal)
		}
		drivers[terminal] = append(drivers[terminal], who)
	}
	for i := range l.run.Conns {
		c := &l.run.Conns[i]
		if _, sends, serial := gear.SerialPin(c.Terminal); serial && !sends &&
			(c.Function == gear.PinUARTTX || c.Function == gear.PinRCOut) {
			drive(c.Terminal, "the "+PinWords(c.Function)+" of "+l.airUnit.Label())
		}
	}
	wired := l.wiredUses()
	for _, p := range l.Fit.Noted() {
		if wired[p.Use] || p.Use == fleet.UseReceiver && l.BuiltIn() {
			continue // its wires say it
		}
		switch p.Use {
		case fleet.UseReceiver, fleet.UseGPS, fleet.UseTelemetry:
			if u, ok := l.board.UART(p.UART); ok && (p.Use != fleet.UseReceiver || l.Fit.Receiver != "") {
				drive(u.RXPad(), change.Use(p.Use))
			}
		}
	}
	for _, terminal := range order {
		if who := drivers[terminal]; len(who) > 1 {
			findings = append(findings, verdict.Finding{Code: CodeDrivers, Level: verdict.Unfit, Source: verdict.Practice,
				Says: fmt.Sprintf("%s drive %s together: neither is heard. Leave one off.",
					verdict.Capital(strings.Join(who, " and ")), l.words(terminal))})
		}
	}
	return findings
}

// wiredUses are the uses of serial ports that parts with wires of their own have.
func (l *loom) wiredUses() map[fleet.Use]bool {
	uses := map[fleet.Use]bool{}
	if run := l.runOf(fleet.NodeReceiver); run != nil && run.Said() {
		uses[fleet.UseReceiver] = true
	}
	for _, n := range l.partNeeds() {
		uses[n.Use] = uses[n.Use] || n.Now != 0
	}
	return uses
}

// checkDropped says what a serial port is for today and has none in this plan.
func (l *loom) checkDropped() (findings []verdict.Finding) {
	if l.FitName == fleet.FitNow {
		return nil
	}
	for _, p := range l.Quad.Now.Noted() {
		switch p.Use {
		case fleet.UseGPS, fleet.UseTelemetry, fleet.UseOther:
			if !l.wiredUses()[p.Use] && count(l.Fit.Noted(), p.Use) < count(l.Quad.Now.Noted(), p.Use) &&
				!slices.Contains(l.Fit.Ports, p) {
				findings = append(findings, verdict.Finding{
					Code:    CodeDropped,
					Level:   verdict.Caution,
					Subject: l.board.Label(),
					Source:  "this plan",
					Says: fmt.Sprintf("%s, on UART %d today, has no serial port in this plan: it is given up.",
						verdict.Capital(change.Use(p.Use)), p.UART),
				})
			}
		}
	}
	return findings
}

func count(ports []fleet.Port, use fleet.Use) (n int) {
	for _, p := range ports {
		if p.Use == use {
			n++
		}
	}
	return n
}
