package pins

import (
	"fmt"
	"slices"
	"strconv"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/power"
)

// The findings of this gate.
const (
	CodeNoUnit     verdict.Code = "pins.no-air-unit"
	CodeUnknown    verdict.Code = "pins.unknown"
	CodeDanger     verdict.Code = "pins.danger"
	CodeShort      verdict.Code = "pins.short"
	CodeNoGround   verdict.Code = "pins.no-ground"
	CodeBurns      verdict.Code = "pins.wire-burns"
	CodeDead       verdict.Code = "pins.dead"
	CodeOtherFeed  verdict.Code = "pins.other-feed"
	CodeConnector  verdict.Code = "pins.connector"
	CodeNoPin      verdict.Code = "pins.no-such-pin"
	CodeSwapped    verdict.Code = "pins.swapped"
	CodeTwoPorts   verdict.Code = "pins.two-ports"
	CodeNoOSD      verdict.Code = "pins.no-osd"
	CodeHalf       verdict.Code = "pins.half"
	CodeSoftSerial verdict.Code = "pins.soft-serial"
	CodeNoSticks   verdict.Code = "pins.no-sticks"
	CodeRCGround   verdict.Code = "pins.no-rc-ground"
	CodeInverted   verdict.Code = "pins.inverted"
	CodeJumper     verdict.Code = "pins.inverter-jumper"
	CodeDrivers    verdict.Code = "pins.two-drivers"
	CodeSpareRC    verdict.Code = "pins.spare-rc"
	CodePort       verdict.Code = "pins.port"
	CodeDropped    verdict.Code = "pins.use-dropped"
	CodeOpen       verdict.Code = "pins.open"
	CodeLoop       verdict.Code = "pins.ground-loop"
	CodeWaiting    verdict.Code = "pins.no-telemetry"
	CodeMotor      verdict.Code = "pins.motor"
	CodeOrder      verdict.Code = "pins.usual-order"
	CodeFits       verdict.Code = "pins.fits"
)

// dangers of the findings: a wire in the wrong place may destroy, and so may what is
// not known of the wiring.
var dangers = map[verdict.Code]verdict.Danger{
	CodeDanger: verdict.Destroys, CodeShort: verdict.Destroys, CodeNoGround: verdict.Destroys, CodeBurns: verdict.Destroys,
	CodeUnknown: verdict.Destroys, CodeNoUnit: verdict.Destroys, CodeOtherFeed: verdict.Fails,
	CodeHeader: verdict.Destroys, // it bridges pads, or lies on the wrong ones
	CodeMotor:  verdict.Falls, CodeConnector: verdict.Fails, CodeNoPin: verdict.Fails, CodeDropped: verdict.Inconvenient,
}

// Check judges the wiring of one fit. What destroys comes first, then a missing
// ground, then a missing supply, then what stays dead.
func Check(c fleet.Case) []verdict.Finding {
	l, hasUnit := newLoom(c)
	if !hasUnit {
		return verdict.Complete(verdict.Pins, c.Quad.Label(),
			append(l.checkOthers(), verdict.CannotTell(verdict.Pins, CodeNoUnit, c.Quad.Label(),
				verdict.FitValue(l.Case, "airUnit", "digital air unit of "+c.Quad.Label()))),
			dangers)
	}
	findings := make([]verdict.Finding, 0, 4)
	switch {
	case l.board == nil && !c.Fit.Without(fleet.NoBoard):
		findings = append(findings,
			verdict.CannotTell(verdict.Pins, CodeUnknown, l.airUnit.Label(),
				verdict.FitValue(l.Case, "board", "flight board of "+c.Quad.Label()+", or that it has none")))
	case len(l.missing) > 0:
		findings = append(findings, verdict.CannotTell(verdict.Pins, CodeUnknown, l.airUnit.Label(), l.missing...))
	default:
		places := l.checkPlaces()
		findings = append(findings, places.destroys...)
		if l.board != nil {
			findings = append(findings, l.checkGround()...)
			findings = append(findings, l.checkFeed()...)
		}
		findings = append(findings, places.dead...)
		findings = append(findings, l.checkHeaders()...)
		findings = append(findings, l.checkEnds()...)
		if l.board != nil {
			findings = append(findings, l.checkMSP()...)
			findings = append(findings, l.checkRC()...)
			findings = append(findings, l.checkDrivers()...)
		}
	}
	if l.board != nil {
		findings = append(findings, l.checkOthers()...)
		findings = append(findings, l.checkPorts()...)
		findings = append(findings, l.checkDropped()...)
		findings = append(findings, leftOut(c)...)
	}
	if len(findings) == 0 {
		findings = append(findings, l.fits())
	}
	findings = append(findings, l.checkOrders()...)
	if l.board != nil {
		findings = append(findings, l.groundLoops()...)
	}
	return verdict.Complete(verdict.Pins, l.airUnit.Label(), findings, dangers)
}

func (l *loom) fits() verdict.Finding {
	f := verdict.Finding{Code: CodeFits, Level: verdict.Fits, Source: verdict.Practice}
	port, data := l.mspPort()
	switch {
	case l.board == nil:
		f.Says = "There is no flight board: supply and ground alone give the picture."
	case l.Fit.Depth == fleet.PictureOnly && !data:
		f.Says = "Only the picture is wired, on purpose: there is no OSD, no tuning from the goggles, and the sticks need " +
			"a receiver of their own."
	case l.Fit.Depth == fleet.PictureAndData:
		f.Says = fmt.Sprintf("Picture and data are wired, on purpose; the OSD goes over UART %d, and the sticks need a "+
			"receiver of their own.",
			port)
	default:
		f.Says = fmt.Sprintf("%d wires end where they belong; the OSD goes over UART %d.", len(l.run.Conns), port)
	}
	return f
}

// cableEnd is one end of a cable and the plug it goes into.
type cableEnd struct {
	cable     *gear.Harness
	name      string // "unit" or "board"
	connector string
	field     string // of the cable
	bare      bool
	plug      *gear.Plug
	owner     *gear.Entry // of the plug; nil: a header
	plugField string
	of        string // whose plug it is, in words
}

// checkEnds looks for connectors that do not go together. A cable goes into a plug,
// never into bare pads, and what kind a plug is must be known.
func (l *loom) checkEnds() (findings []verdict.Finding) {
	if h := l.run.Harness; h != nil {
		findings = l.checkEnd(l.unitEnd(h))
		if l.run.Into != nil {
			findings = append(findings, l.checkEnd(l.boardEnd(h, h.To, "to", h.Without("to"), l.run.Into))...)
		}
	}
	for i := range l.run.Strands {
		findings = append(findings, l.checkStrand(&l.run.Strands[i])...)
	}
	return append(findings, l.checkOnePlug()...)
}

// unitEnd is a cable at the part's plug.
func (l *loom) unitEnd(h *gear.Harness) cableEnd {
	end := cableEnd{h, "unit", h.From, "from", h.Without("from"), l.run.Plug, l.run.Entry, "plug.connector", l.run.Label()}
	if l.run.Row != nil {
		end.owner = nil
	}
	return end
}

// boardEnd is an end of a cable at a plug of the board.
func (l *loom) boardEnd(h *gear.Harness, connector, field string, bare bool, into *gear.Plug) cableEnd {
	end := cableEnd{h, "board", connector, field, bare, into, &l.board.Entry, "plugs." + into.ID + ".connector",
		"the " + into.Label() + " of " + l.board.Label()}
	if l.run.IntoRow != nil && into == l.run.Into {
		end.owner = nil
	}
	return end
}

func (l *loom) checkEnd(e cableEnd) []verdict.Finding {
	h := e.cable
	unfit := func(says string, args ...any) []verdict.Finding {
		return []verdict.Finding{{
			Code:   CodeConnector,
			Level:  verdict.Unfit,
			Source: h.Source.String(),
			Says:   fmt.Sprintf(says, args...),
		}}
	}
	unknown := func(m verdict.Missing) []verdict.Finding {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, h.Label(), m)}
	}
	switch {
	case e.plug.Pads() && e.bare:
		return nil // bare ends soldered to bare pads
	case e.plug.Pads():
		return unfit("%s has solder pads and no plug: the %s cannot be plugged in there. A header soldered on, or bare "+
			"wires, would do.", e.of, h.Label())
	case e.bare:
		return unfit("%s has bare ends at the %s's side; %s takes a plug.", h.Label(), e.name, e.of)
	case e.plug.Connector == "" && e.owner == nil:
		return nil // said of the header
	case e.plug.Connector == "":
		return unknown(
			verdict.Missing{Of: "gear", ID: e.owner.ID, Field: e.plugField, Label: "which connector " + e.of + " has"},
		)
	case e.connector == "":
		return unknown(verdict.GearValue(&h.Entry, e.field, "connector at the "+e.name+"'s end"))
	case e.connector != e.plug.Connector:
		return unfit("The plug of %s at the %s's end is %s; %s takes %s.", h.Label(), e.name,
			l.Library.Label(e.connector), e.of, l.Library.Label(e.plug.Connector))
	}
	return nil
}

// places is what is wrong with where wires end: what destroys, and what stays dead.
type places struct{ destroys, dead []verdict.Finding }

// checkPlaces looks at each wire by function.
func (l *loom) checkPlaces() (found places) {
	for i := range l.run.Conns {
		c := &l.run.Conns[i]
		if l.noSuchPin(c) {
			found.dead = append(found.dead, verdict.Finding{Code: CodeNoPin, Level: verdict.Unfit, Source: verdict.Practice,
				Says: fmt.Sprintf("A wire is said to be on pin %d of %s, which has %d.", c.Pin, l.run.Label(),
					len(l.run.Plug.Pins))})
		}
		if !c.Live() {
			continue
		}
		if l.board != nil && !l.board.Terminal(c.Terminal) {
			found.destroys = append(found.destroys, verdict.CannotTell(verdict.Pins, CodeUnknown, l.run.Label(),
				verdict.GearValue(&l.board.Entry, "pads", "what "+c.Terminal+" is, where pin "+strconv.Itoa(c.Pin)+" ends")))
			continue
		}
		code, why := l.judgePlace(c)
		if code == "" {
			continue
		}
		colour := ""
		if c.Colour != "" {
			colour = " (" + c.Colour + ")"
		}
		f := verdict.Finding{Code: code, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("The wire%s on pin %d, %s, ends on %s: %s", colour, c.Pin, PinWords(c.Function),
				l.words(c.Terminal), why)}
		switch {
		case dangers[code] == verdict.Destroys:
			found.destroys = append(found.destroys, f)
		case c.Function == gear.PinSupply:
			found.dead = slices.Insert(found.dead, 0, f)
		default:
			found.dead = append(found.dead, f)
		}
	}
	return found
}

func (l *loom) noSuchPin(c *netlist.Conn) bool { return c.Pin > len(l.run.Plug.Pins) }

// judgePlace says what a wire does where it ends; an empty code: what it should.
func (l *loom) judgePlace(c *netlist.Conn) (code verdict.Code, why string) {
	grounded := c.Terminal == gear.PinGround
	switch c.Function {
	case gear.PinSupply:
		switch {
		case grounded:
			return CodeShort, "the supply is shorted."
		case !l.power(c.Terminal):
			return CodeDead, "the " + l.thing() + " gets no power there."
		}
	case gear.PinGround, gear.PinRCGround:
		switch {
		case l.power(c.Terminal):
			return CodeShort, "that shorts it to ground."
		case !grounded:
			return CodeDead, "that port is held to ground."
		}
	case gear.PinSpare:
	default:
		switch {
		case l.power(c.Terminal):
			return CodeDanger, "power on a signal pin destroys the " + l.thing() + "."
		case grounded:
			return CodeDead, "the signal is shorted to ground."
		case gear.IsMotor(c.Function) && gear.IsMotor(c.Terminal) && c.Function != c.Terminal:
			return CodeMotor, "another motor turns than the board means; it flips over as it takes off."
		case l.board != nil && !l.worksOn(c):
			return CodeDead, "it does nothing there."
		}
	}
	return "", ""
}

// checkGround asks for a ground between unit and board: without one the current of
// the unit looks for its way back through the signal wires (common practice).
// thing is what the run's part is called beside its name.
func (l *loom) thing() string {
	if l.airUnit != nil {
		return "unit"
	}
	return "part"
}

// returns says whether a part needs a ground of its own: what only switches its supply,
// as a buzzer does, has none.
func (l *loom) returns() bool {
	return l.run.Has(gear.PinGround) || !l.run.Has(gear.PinBuzzer)
}

// worksOn says whether a signal does its work where it ends. Which way round a serial
// line goes is judged with its pair.
func (l *loom) worksOn(c *netlist.Conn) bool {
	_, _, onPort := gear.SerialPin(c.Terminal)
	switch c.Function {
	case gear.PinUARTRX, gear.PinUARTTX, gear.PinRCOut, gear.PinTelemetry, gear.PinControl:
		return onPort
	}
	return l.board.Belongs(c.Function, c.Terminal)
}

func (l *loom) checkGround() []verdict.Finding {
	wired := slices.ContainsFunc(l.run.Conns, func(c netlist.Conn) bool {
		return c.Live() && c.Function != gear.PinGround && c.Function != gear.PinRCGround
	})
	ground := l.run.LiveOf(gear.PinGround)
	if !l.returns() {
		return nil
	}
	if !wired || ground != nil && ground.Terminal == gear.PinGround {
		return nil
	}
	return []verdict.Finding{{Code: CodeNoGround, Level: verdict.Unfit, Source: verdict.Practice,
		Says: fmt.Sprintf("No ground wire joins %s and %s: its current comes back through the signal wires, and that "+
			"destroys them.",
			l.run.Label(), l.board.Label())}}
}

// secondSupply says whether the plan feeds the part from elsewhere than the board, and its
// supply wire joins that with another supply.
func (l *loom) secondSupply(supply *netlist.Conn) bool {
	from, fed := l.Fit.FeedOf(l.run.Node)
	_, onBoard := fleet.PadOf(from)
	return fed && !onBoard && l.power(supply.Terminal) && netlist.TwoSources(l.Case, l.board, from, supply.Terminal)
}

// checkFeed holds the supply wire against what the plan feeds the unit from, and what
// the wire really brings against what the unit takes.
func (l *loom) checkFeed() []verdict.Finding {
	from, ok := l.Fit.FeedOf(l.run.Node)
	if !ok {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeOtherFeed, l.run.Label(),
			verdict.FitValue(l.Case, "feeds."+l.run.Node, "what feeds "+l.run.Label()))}
	}
	pad, onBoard := fleet.PadOf(from)
	supply := l.run.LiveOf(gear.PinSupply)
	switch {
	case onBoard && supply == nil:
		return []verdict.Finding{{Code: CodeDead, Level: verdict.Unfit, Source: "this plan",
			Says: fmt.Sprintf("The plan feeds %s from %s, but no supply wire ends there.", l.run.Label(), l.words(pad))}}
	case supply == nil || !l.power(supply.Terminal) || onBoard && supply.Terminal == pad:
		return nil
	}
	f := verdict.Finding{Code: CodeOtherFeed, Level: verdict.Change, Source: "this plan",
		Says: fmt.Sprintf("The supply wire ends on %s, but the plan feeds %s from %s: the power gate judges another "+
			"voltage than the wire brings.",
			l.words(supply.Terminal), l.run.Label(), change.Source(l.Case, from))}
	brings := power.Part(l.With(fleet.Patch{Feed: &fleet.Feed{
		To:   l.run.Node,
		From: fleet.PadNode(supply.Terminal),
	}}), l.run.Node)
	switch {
	case l.secondSupply(supply):
		f.Code, f.Level = CodeShort, verdict.Unfit
		f.Says = fmt.Sprintf("%s is fed from %s, and its supply wire ends on %s: two supplies are joined, and one "+
			"destroys the other. One of the two comes off.",
			l.run.Label(), change.Source(l.Case, from), l.words(supply.Terminal))
	case brings.Level == verdict.Unfit && brings.Danger == verdict.Destroys:
		f.Code, f.Level, f.Compares = CodeBurns, verdict.Unfit, brings.Compares
		f.Says = fmt.Sprintf("The plan feeds %s from %s, but the supply wire ends on %s. %s", l.run.Label(),
			change.Source(l.Case, from), l.words(supply.Terminal), brings.Says)
	case brings.Level == verdict.Unfit:
		f.Level, f.Danger, f.Compares = verdict.Unfit, brings.Danger, brings.Compares
		f.Says += " " + brings.Says
	case brings.Level == verdict.Unknown:
		f.Danger = brings.Danger
		f.Level, f.Missing = verdict.Unknown, brings.Missing
		f.Says += " What it brings is not known."
	}
	return []verdict.Finding{f}
}
