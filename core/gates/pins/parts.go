package pins

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// checkOthers judges everything wired beside the air unit, and what the wires of one part
// do to another's. A fit without a flight board has nothing to wire them to.
func (l *loom) checkOthers() (findings []verdict.Finding) {
	others := l.beside
	if l.board == nil {
		return nil
	}
	for _, run := range others {
		for _, f := range partLoom(l.Case, run).checkPart() {
			if f.Subject == "" {
				f.Subject = run.Label()
			}
			f.Part = run.Node
			findings = append(findings, f)
		}
	}
	if l.run != nil {
		others = append([]*netlist.Run{l.run}, others...)
	}
	findings = append(findings, checkPlugs(others)...)
	return append(findings, checkNets(l.Case, others)...)
}

// checkPlugs says where two cables are to go into one plug.
func checkPlugs(runs []*netlist.Run) (findings []verdict.Finding) {
	type end struct {
		run  *netlist.Run
		plug *gear.Plug
	}
	var list []end
	for _, r := range runs {
		if r.Into != nil && r.Harness == nil {
			list = append(list, end{r, r.Into})
		}
		for _, in := range r.PluggedIn() {
			list = append(list, end{r, in.Plug})
		}
	}
	for i, a := range list {
		for _, b := range list[i+1:] {
			if a.plug.ID != b.plug.ID {
				continue
			}
			cables := fmt.Sprintf("The cables of %s and of %s are", a.run.Label(), b.run.Label())
			if a.run == b.run {
				cables = "Two ends of the cables of " + a.run.Label() + " are"
			}
			findings = append(findings, verdict.Finding{Code: CodeConnector, Level: verdict.Unfit, Subject: b.run.Label(),
				Part: b.run.Node, Source: "this plan",
				Says: fmt.Sprintf("%s both to go into the %s: a plug takes one.", cables, a.plug.Label())})
		}
	}
	return findings
}

// checkPart judges the wires of one part: what destroys first, then its ground and what
// it is fed from, then what stays dead.
func (l *loom) checkPart() (findings []verdict.Finding) {
	if len(l.missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.run.Label(), l.missing...)}
	}
	places := l.checkPlaces()
	findings = append(findings, places.destroys...)
	findings = append(findings, l.checkGround()...)
	findings = append(findings, l.checkPartFeed()...)
	findings = append(findings, places.dead...)
	findings = append(findings, l.checkHeaders()...)
	findings = append(findings, l.checkEnds()...)
	findings = append(findings, l.checkLines()...)
	return append(findings, l.checkOpen()...)
}

// checkPartFeed asks what a part is fed from where neither the plan nor a wire says it.
func (l *loom) checkPartFeed() []verdict.Finding {
	if _, stated := l.Fit.FeedOf(l.run.Node); stated {
		return l.checkFeed()
	}
	if !l.run.Has(gear.PinSupply) || l.run.LiveOf(gear.PinSupply) != nil {
		return nil // it takes no power, or as its supply wire goes
	}
	return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeOtherFeed, l.run.Label(),
		verdict.FitValue(l.Case, "feeds."+l.run.Node, "what feeds "+l.run.Label()))}
}

// checkLines judges the serial lines of a part: crossed, on one port, not inverted where
// the port cannot take it, and none too slow for the sticks.
func (l *loom) checkLines() (findings []verdict.Finding) {
	add := func(code verdict.Code, level verdict.Level, says string, args ...any) {
		findings = append(findings, verdict.Finding{Code: code, Level: level, Source: verdict.Practice,
			Says: fmt.Sprintf(says, args...)})
	}
	hears, hearsPort, hearsSends := l.line(gear.PinUARTRX)
	tells, tellsPort, tellsSends := l.line(gear.PinUARTTX)
	switch {
	case hears != nil && tells != nil && !hearsSends && tellsSends && hearsPort == tellsPort:
		add(CodeSwapped, verdict.Change,
			"RX and TX of %s are not crossed: its RX is on %s and its TX on %s. It harms nothing; it stays silent.",
			l.run.Label(), l.words(hears.Terminal), l.words(tells.Terminal))
		return findings
	case hears != nil && tells != nil && hearsPort != tellsPort:
		add(CodeTwoPorts, verdict.Unfit, "RX and TX of %s are on two ports, UART %d and UART %d: it needs one.",
			l.run.Label(), hearsPort, tellsPort)
	}
	for _, function := range []string{gear.PinUARTRX, gear.PinControl} {
		if c, _, sends := l.line(function); c != nil && !sends {
			add(CodeHalf, verdict.Unfit, "The %s of %s ends on %s, which listens: it hears nothing there.",
				PinWords(function), l.run.Label(), l.words(c.Terminal))
		}
	}
	for _, function := range []string{gear.PinUARTTX, gear.PinTelemetry} {
		c, port, sends := l.line(function)
		if c == nil {
			continue
		}
		u, ok := l.board.UART(port)
		switch {
		case !ok:
			findings = append(findings, verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(),
				l.boardValue("uarts", fmt.Sprintf("UART %d of %s", port, l.board.Label()))))
		case sends && (u.TXListens == nil || !*u.TXListens || !l.isReceiver()):
			add(CodeHalf, verdict.Unfit, "The %s of %s ends on %s, a sender: nothing arrives. It belongs on an RX.",
				PinWords(function), l.run.Label(), l.words(c.Terminal))
		default:
			findings = append(findings, l.checkArrives(u, c)...)
		}
	}
	return findings
}

// line is the live wire of a serial function on a serial pad, with its port and whether
// the pad sends; nil where there is none.
func (l *loom) line(function string) (c *netlist.Conn, port int, sends bool) {
	if c = l.run.LiveOf(function); c == nil {
		return nil, 0, false
	}
	port, sends, serial := gear.SerialPin(c.Terminal)
	if !serial {
		return nil, 0, false // said wire by wire
	}
	return c, port, sends
}

func (l *loom) isReceiver() bool { return l.run.Node == fleet.NodeReceiver }

// checkArrives judges whether what a part sends is heard at a port.
func (l *loom) checkArrives(u *gear.UART, c *netlist.Conn) (findings []verdict.Finding) {
	if l.isReceiver() {
		findings = l.checkFast(u)
	}
	switch {
	case l.run.Inverted == nil:
		return append(findings, verdict.CannotTell(verdict.Pins, CodeUnknown, l.run.Label(),
			verdict.GearValue(l.run.Entry, "inverted", "whether its signal is inverted")))
	case *l.run.Inverted:
		return append(findings, l.checkInverted(u, c.Terminal, "The signal of "+l.run.Label()+" is inverted")...)
	}
	return append(findings, l.checkPlain(u, c.Terminal, "the signal of "+l.run.Label())...)
}

// unwired is what becomes of a part whose pin of a function is wired to nothing (common
// practice). A function that is not listed may be left off without a word.
var unwired = []struct {
	function string
	level    verdict.Level
	danger   verdict.Danger
	says     string
}{
	{gear.PinUARTTX, verdict.Unfit, verdict.Fails, "the board hears nothing of it"},
	{gear.PinUARTRX, verdict.Caution, verdict.Inconvenient, "the board cannot set it up, nor tell it anything"},
	{gear.PinBuzzer, verdict.Unfit, verdict.Fails, "it never sounds: a quad that is down is not found"},
	{gear.PinLED, verdict.Unfit, verdict.Fails, "it stays dark"},
	{gear.PinVideoOut, verdict.Unfit, verdict.Fails, "its picture goes nowhere"},
	{gear.PinVideoIn, verdict.Unfit, verdict.Fails, "it sends no picture"},
	{gear.PinControl, verdict.Caution, verdict.Inconvenient, "its channel and power are set by its button alone"},
	{gear.PinSwitch, verdict.Caution, verdict.Inconvenient, "no switch reaches it"},
	{gear.PinSDA, verdict.Caution, verdict.Inconvenient, "its compass is not heard"},
	{gear.PinSCL, verdict.Caution, verdict.Inconvenient, "its compass is not heard"},
}

// checkOpen says what stays dead because a pin is wired to nothing. A motor that is not
// wired brings the quad down.
func (l *loom) checkOpen() (findings []verdict.Finding) {
	open := func(function string) bool { return l.run.Has(function) && l.run.LiveOf(function) == nil }
	add := func(function string, level verdict.Level, danger verdict.Danger, says string) {
		findings = append(findings, verdict.Finding{Code: CodeOpen, Level: level, Danger: danger, Source: verdict.Practice,
			Says: fmt.Sprintf("The %s of %s is wired to nothing: %s.", PinWords(function), l.run.Label(), says)})
	}
	for _, u := range unwired {
		if !open(u.function) {
			continue
		}
		if u.function == gear.PinUARTRX && l.isReceiver() {
			findings = append(findings, l.checkDuplex()...)
			continue
		}
		add(u.function, u.level, u.danger, u.says)
	}
	for _, function := range l.run.Plug.Pins {
		if gear.IsMotor(function) && open(function) {
			add(function, verdict.Unfit, verdict.Falls, "that motor stands still")
		}
	}
	return append(findings, l.checkTelemetry()...)
}

// checkTelemetry judges a part that sends no telemetry, or sends it nowhere, where a port
// waits for the ESC's and this is the ESC, or nobody says what it is.
func (l *loom) checkTelemetry() []verdict.Finding {
	_, asked := l.Fit.PortOf(fleet.UseTelemetry)
	if !asked || l.run.LiveOf(gear.PinTelemetry) != nil {
		return nil
	}
	switch l.run.Sort {
	case "":
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.run.Label(),
			verdict.GearValue(l.run.Entry, "sort", "what it is"))}
	case string(gear.SortESC):
		sends := l.run.Label() + " sends none"
		if l.run.Has(gear.PinTelemetry) {
			sends = fmt.Sprintf("the %s of %s is wired to nothing", PinWords(gear.PinTelemetry), l.run.Label())
		}
		return []verdict.Finding{{Code: CodeOpen, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("A serial port waits for ESC telemetry, and %s.", sends)}}
	}
	return nil
}

// checkDuplex judges a receiver that the board cannot talk to.
func (l *loom) checkDuplex() []verdict.Finding {
	r, ok := l.Receiver()
	switch {
	case !ok || r.FullDuplex == nil:
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.run.Label(),
			verdict.GearValue(l.run.Entry, "fullDuplex", "whether it needs both pads of its port"))}
	case *r.FullDuplex:
		return []verdict.Finding{{Code: CodeHalf, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("%s needs both pads of its port, and its RX is wired to nothing.", l.run.Label())}}
	}
	return nil
}

// checkNets says what the wires of one part do to another's, and where two wires on one
// pin join what must not be joined: what no single wire shows.
func checkNets(c fleet.Case, runs []*netlist.Run) (findings []verdict.Finding) {
	if quiet(runs) {
		return nil
	}
	by := map[string]*netlist.Run{}
	for _, r := range runs {
		by[r.Node] = r
	}
	nets := netlist.Nets(c, runs)
	for i := range nets {
		meetings := nets[i].Meetings(runs, c)
		at := slices.IndexFunc(meetings, func(m netlist.Meeting) bool {
			// the air unit's own two senders on a pad are said with its wires
			return m.Clash != netlist.Fighting || m.A.Node != fleet.NodeAirUnit || m.B.Node != fleet.NodeAirUnit
		})
		if at < 0 || meetings[at].Clash <= nets[i].Direct(runs, c) {
			continue // a single wire does that, and is named
		}
		m := meetings[at]
		f := verdict.Finding{Code: clashCodes[m.Clash], Level: verdict.Unfit, Source: verdict.Practice, Part: beside(m)}
		a, b := pinOf(c, by, m.A), pinOf(c, by, m.B)
		switch m.Clash {
		case netlist.Fighting:
			f.Says = fmt.Sprintf("%s and %s drive one line together: neither is heard. Leave one off.",
				verdict.Capital(a), b)
		case netlist.Burning:
			f.Says = fmt.Sprintf("%s and %s are joined: power on a signal destroys the part.", verdict.Capital(a), b)
		case netlist.Joined:
			f.Says = fmt.Sprintf("%s and %s are joined, two supplies against each other: one destroys the other.",
				verdict.Capital(a), b)
		case netlist.Shorted:
			f.Says = fmt.Sprintf("%s and %s are joined: that is a short.", verdict.Capital(a), b)
		default:
			f.Says = fmt.Sprintf("%s and %s are joined: nothing arrives there.", verdict.Capital(a), b)
		}
		findings = append(findings, f)
	}
	return findings
}

// beside is the part beside the air unit that two joined pins are of; empty where there is
// none.
func beside(m netlist.Meeting) string {
	for _, p := range []netlist.Pin{m.A, m.B} {
		switch p.Node {
		case fleet.NodeAirUnit, fleet.NodeBoard, fleet.NodePack:
		default:
			return p.Node
		}
	}
	return ""
}

var clashCodes = map[netlist.Clash]verdict.Code{
	netlist.Silent:   CodeDead,
	netlist.Fighting: CodeDrivers,
	netlist.Burning:  CodeDanger,
	netlist.Joined:   CodeShort,
	netlist.Shorted:  CodeShort,
}

// quiet says whether nothing can meet but along a single wire: no pin has two wires, and
// what shares a place of the board does no harm to each other. Most builds are quiet, and
// need no nets.
func quiet(runs []*netlist.Run) bool {
	for r, run := range runs {
		for i := range run.Conns {
			a := &run.Conns[i]
			if !a.Live() || a.Terminal == gear.PinGround {
				continue
			}
			for o := r; o < len(runs); o++ {
				from := 0
				if o == r {
					from = i + 1
				}
				for k := from; k < len(runs[o].Conns); k++ {
					b := &runs[o].Conns[k]
					if b.Live() && (o == r && a.Pin == b.Pin || a.Terminal == b.Terminal &&
						netlist.Clashing(gear.PinDoes(a.Function), gear.PinDoes(b.Function)) != netlist.Fine) {
						return false
					}
				}
			}
		}
	}
	return true
}

// pinOf names an end of a wire.
func pinOf(c fleet.Case, by map[string]*netlist.Run, p netlist.Pin) string {
	if r, ok := by[p.Node]; ok {
		return "the " + PinWords(p.Name) + " of " + r.Label()
	}
	if p.Node == fleet.NodePack {
		return "the pack"
	}
	return change.Terminal(c, p.Name)
}
