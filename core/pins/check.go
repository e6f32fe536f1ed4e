package pins

import (
	"fmt"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/verdict"
)

// The findings of this gate.
const (
	CodeNoUnit     verdict.Code = "pins.no-air-unit"
	CodeUnknown    verdict.Code = "pins.unknown"
	CodeDanger     verdict.Code = "pins.danger"
	CodeShort      verdict.Code = "pins.short"
	CodeDead       verdict.Code = "pins.dead"
	CodeOtherFeed  verdict.Code = "pins.other-feed"
	CodeConnector  verdict.Code = "pins.connector"
	CodeSwapped    verdict.Code = "pins.swapped"
	CodeTwoPorts   verdict.Code = "pins.two-ports"
	CodeNoOSD      verdict.Code = "pins.no-osd"
	CodeHalf       verdict.Code = "pins.half"
	CodeSoftSerial verdict.Code = "pins.soft-serial"
	CodeNoSticks   verdict.Code = "pins.no-sticks"
	CodeInverted   verdict.Code = "pins.inverted"
	CodeJumper     verdict.Code = "pins.inverter-jumper"
	CodeSpareRC    verdict.Code = "pins.spare-rc"
	CodePort       verdict.Code = "pins.port"
	CodeFits       verdict.Code = "pins.fits"
)

// Check judges the wiring of one fit.
func Check(c fleet.Case) []verdict.Finding {
	l, hasUnit := newLoom(c)
	if !hasUnit {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeNoUnit, c.Quad.Label(), verdict.FitValue(l.Case, "airUnit", "digital air unit of "+c.Quad.Label()))}
	}
	findings := make([]verdict.Finding, 0, 4)
	if len(l.missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Pins, CodeUnknown, l.airUnit.Label(), l.missing...))
	} else {
		findings = append(findings, l.checkEnds()...)
		findings = append(findings, l.checkPlaces()...)
		if l.board != nil {
			findings = append(findings, l.checkFeed()...)
			findings = append(findings, l.checkMSP()...)
			findings = append(findings, l.checkRC()...)
		}
	}
	if l.board != nil {
		findings = append(findings, l.checkPorts()...)
	}
	if len(findings) == 0 {
		findings = append(findings, l.fits())
	}
	return verdict.Said(verdict.Pins, l.airUnit.Label(), findings)
}

func (l *loom) fits() verdict.Finding {
	if l.board == nil {
		return verdict.Finding{Code: CodeFits, Level: verdict.Fits, Source: verdict.Practice, Says: "There is no flight board: supply and ground alone give the picture."}
	}
	port, _ := l.mspPort()
	says := fmt.Sprintf("%d wires end where they belong; the OSD goes over UART %d.", len(l.conns), port)
	return verdict.Finding{Code: CodeFits, Level: verdict.Fits, Source: verdict.Practice, Says: says}
}

// checkEnds looks for connectors that do not go together.
func (l *loom) checkEnds() (findings []verdict.Finding) {
	if l.harness == nil {
		return nil
	}
	clash := func(end, harness, plug, of string) {
		if harness != "" && plug != "" && harness != plug {
			findings = append(findings, verdict.Finding{Code: CodeConnector, Level: verdict.Unfit, Source: l.harness.Source.String(),
				Says: fmt.Sprintf("%s has a %s at the %s's end; %s takes a %s.", l.harness.Label(), l.Library.Label(harness), end, of, l.Library.Label(plug))})
		}
	}
	clash("unit", l.harness.From, l.airUnit.Plug.Connector, l.airUnit.Label())
	if l.plug != nil {
		clash("board", l.harness.To, l.plug.Connector, l.board.Label())
	}
	return findings
}

// checkPlaces looks at each wire by function, what destroys first.
func (l *loom) checkPlaces() (findings []verdict.Finding) {
	for i := range l.conns {
		c := &l.conns[i]
		if !c.Live() {
			continue
		}
		colour := ""
		if c.Colour != "" {
			colour = " (" + c.Colour + ")"
		}
		wire := fmt.Sprintf("The wire%s on pin %d, %s, ends on %s", colour, c.Pin, pinWords(c.Function), l.words(c.Terminal))
		add := func(code verdict.Code, why string) {
			findings = append(findings, verdict.Finding{Code: code, Level: verdict.Unfit, Source: verdict.Practice, Says: wire + ": " + why})
		}
		grounded := c.Terminal == gear.PinGround
		switch c.Function {
		case gear.PinSupply:
			switch {
			case grounded:
				add(CodeShort, "the supply is shorted.")
			case !l.power(c.Terminal):
				add(CodeDead, "the unit gets no power there.")
			}
		case gear.PinGround, gear.PinRCGround:
			switch {
			case l.power(c.Terminal):
				add(CodeShort, "that shorts it to ground.")
			case !grounded:
				add(CodeDead, "that port is held to ground.")
			}
		default:
			switch {
			case l.power(c.Terminal):
				add(CodeDanger, "power on a signal pin destroys the unit.")
			case grounded:
				add(CodeDead, "the signal is shorted to ground.")
			}
		}
	}
	return findings
}

// checkFeed holds the supply wire against what the plan feeds the unit from.
func (l *loom) checkFeed() []verdict.Finding {
	from, ok := l.Fit.FeedOf(fleet.NodeAirUnit)
	if !ok {
		return nil // the power gate asks for it
	}
	pad, onBoard := fleet.PadOf(from)
	supply := l.of(gear.PinSupply)
	switch {
	case onBoard && (supply == nil || supply.Terminal == ""):
		return []verdict.Finding{{Code: CodeDead, Level: verdict.Unfit, Source: "this plan",
			Says: fmt.Sprintf("The plan feeds %s from %s, but no supply wire ends there.", l.airUnit.Label(), l.words(pad))}}
	case supply == nil || supply.Terminal == "" || !l.power(supply.Terminal):
		return nil
	case !onBoard || supply.Terminal != pad:
		return []verdict.Finding{{Code: CodeOtherFeed, Level: verdict.Change, Source: "this plan",
			Says: fmt.Sprintf("The supply wire ends on %s, but the plan feeds %s from %s: the power gate judges another voltage than the wire brings.",
				l.words(supply.Terminal), l.airUnit.Label(), l.feedWords(from))}}
	}
	return nil
}

func (l *loom) feedWords(from string) string {
	if pad, ok := fleet.PadOf(from); ok {
		return l.words(pad)
	}
	if from == fleet.NodePack {
		return "the pack, direct"
	}
	if placed, ok := l.Fit.Regulator(from); ok {
		return "the " + l.Library.Label(placed.Model)
	}
	return from
}

// mspPort is the port the UART pair is on; false where it is not on one.
func (l *loom) mspPort() (int, bool) {
	rx, tx := l.of(gear.PinUARTRX), l.of(gear.PinUARTTX)
	if rx == nil || tx == nil {
		return 0, false
	}
	a, sends, isPort := gear.SerialPin(rx.Terminal)
	b, back, isPortToo := gear.SerialPin(tx.Terminal)
	return a, isPort && isPortToo && a == b && sends && !back
}

// MSPPort is the serial port of the board that the air unit's UART is on: as it is
// wired, or where the wiring is not said, as the port is said to be. It is false
// where neither is said, and where the wires as they are cannot carry MSP.
func MSPPort(c fleet.Case) (int, bool) {
	l, ok := newLoom(c)
	if !ok || len(l.missing) > 0 {
		return c.Fit.PortOf(fleet.UseMSP)
	}
	return l.mspPort()
}

// MSPWired says whether the wires of the air unit are said, so that MSPPort speaks of
// them.
func MSPWired(c fleet.Case) bool {
	l, ok := newLoom(c)
	return ok && len(l.missing) == 0
}

// SticksPort is the serial port the sticks come in on, from the air unit or from a
// separate receiver.
func SticksPort(c fleet.Case) (int, bool) {
	if c.Fit.Receiver != "" {
		return c.Fit.PortOf(fleet.UseReceiver)
	}
	if l, ok := newLoom(c); ok && len(l.missing) == 0 {
		if out := l.of(gear.PinRCOut); out != nil {
			if port, sends, isPort := gear.SerialPin(out.Terminal); isPort && !sends {
				return port, true
			}
		}
	}
	return c.Fit.PortOf(fleet.UseRC)
}

// checkMSP judges the UART pair.
func (l *loom) checkMSP() []verdict.Finding {
	rx, tx := l.of(gear.PinUARTRX), l.of(gear.PinUARTTX)
	live := func(c *Conn) bool { return c != nil && c.Live() }
	switch {
	case !live(rx) && !live(tx):
		return []verdict.Finding{{Code: CodeNoOSD, Level: verdict.Caution, Source: verdict.Practice,
			Says: "The UART pair is not wired: there is a picture, but no OSD and no tuning from the goggles."}}
	case !live(rx) || !live(tx):
		return []verdict.Finding{{Code: CodeHalf, Level: verdict.Unfit, Source: verdict.Practice,
			Says: "Only one wire of the UART pair is connected: the OSD stays blank. MSP needs both."}}
	}
	rxPort, rxSends, rxOK := gear.SerialPin(rx.Terminal)
	txPort, txSends, txOK := gear.SerialPin(tx.Terminal)
	if !rxOK || !txOK {
		return nil // said wire by wire
	}
	switch {
	case rxPort != txPort:
		return []verdict.Finding{{Code: CodeTwoPorts, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("UART RX and TX of the unit are on two ports, UART %d and UART %d: MSP needs one.", rxPort, txPort)}}
	case !rxSends && txSends:
		return []verdict.Finding{{Code: CodeSwapped, Level: verdict.Change, Source: verdict.Practice,
			Says: fmt.Sprintf("RX and TX are not crossed: the unit's RX is on %s and its TX on %s. It harms nothing; the OSD stays blank.", l.words(rx.Terminal), l.words(tx.Terminal))}}
	case !rxSends || txSends:
		return []verdict.Finding{{Code: CodeHalf, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("The UART pair does not meet a sender and a receiver on UART %d: the OSD stays blank.", rxPort)}}
	}
	u, ok := l.board.UART(rxPort)
	switch {
	case !ok:
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.airUnit.Label(), l.boardValue("uarts", fmt.Sprintf("UART %d", rxPort)))}
	case u.Hardware == nil:
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.airUnit.Label(), l.boardValue(fmt.Sprintf("uarts.%d.hardware", rxPort), fmt.Sprintf("whether UART %d is a hardware port", rxPort)))}
	case !*u.Hardware:
		return []verdict.Finding{{Code: CodeSoftSerial, Level: verdict.Unfit, Source: verdict.Practice, Says: fmt.Sprintf("UART %d is soft-serial: too slow for MSP.", rxPort)}}
	}
	return nil
}

// checkRC judges the wire that hands on the sticks.
func (l *loom) checkRC() []verdict.Finding {
	out := l.of(gear.PinRCOut)
	wired := out != nil && out.Live()
	_, _, flown := l.Controller()
	if l.Fit.Receiver != "" {
		if wired {
			return []verdict.Finding{{Code: CodeSpareRC, Level: verdict.Caution, Source: verdict.Practice,
				Says: "A separate receiver takes the sticks: leave both RC wires of the unit off."}}
		}
		return nil
	}
	if !flown {
		return nil // the link gate asks how the sticks get there
	}
	if !wired {
		return []verdict.Finding{{Code: CodeNoSticks, Level: verdict.Unfit, Source: verdict.Practice,
			Says: "The sticks come through the air unit, but its RC output is wired to nothing."}}
	}
	port, sends, ok := gear.SerialPin(out.Terminal)
	if !ok {
		return nil // said wire by wire
	}
	if sends {
		return []verdict.Finding{{Code: CodeNoSticks, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("The RC output ends on %s, a sender: the sticks do nothing. It belongs on an RX.", l.words(out.Terminal))}}
	}
	rc := l.airUnit.RCOut
	if rc == nil || rc.Inverted == nil {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.airUnit.Label(),
			verdict.Missing{Of: "gear", ID: l.airUnit.ID, Field: "rcOut.inverted", Label: "whether the RC output of " + l.airUnit.Label() + " is inverted"})}
	}
	return l.checkInverted(port, *rc.Inverted, "The RC output is an inverted signal")
}

// checkInverted judges whether a port can take an inverted signal.
func (l *loom) checkInverted(port int, inverted bool, signal string) []verdict.Finding {
	u, ok := l.board.UART(port)
	if !ok {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(), l.boardValue("uarts", fmt.Sprintf("UART %d", port)))}
	}
	if !inverted {
		return nil
	}
	switch u.Invert {
	case gear.InvertPad, gear.InvertSoftware:
		return nil
	case gear.InvertJumper:
		return []verdict.Finding{{Code: CodeJumper, Level: verdict.Caution, Source: verdict.Practice,
			Says: fmt.Sprintf("%s; RX %d takes it once its solder jumper is set to inverted.", signal, port)}}
	case gear.InvertNone:
		return []verdict.Finding{{Code: CodeInverted, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("%s, and RX %d has no inverter: the sticks do nothing.", signal, port)}}
	}
	return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(), l.boardValue(fmt.Sprintf("uarts.%d.invert", port), fmt.Sprintf("how UART %d takes an inverted signal", port)))}
}
