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
	for _, p := range l.Fit.Ports {
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
	stand = slices.Clone(l.Fit.Ports)
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

// checkStated says where a part is wired to another port than the plan states for it.
func (l *loom) checkStated() (findings []verdict.Finding) {
	_, moved := l.wiredPorts()
	for _, m := range moved {
		if m.stated == 0 {
			continue
		}
		findings = append(findings, verdict.Finding{
			Code:    CodePort,
			Level:   verdict.Change,
			Subject: m.Label,
			Part:    m.node,
			Source:  "this plan",
			Says: fmt.Sprintf("%s is wired to UART %d; the plan has %s on UART %d.", m.Label, m.Now, change.Use(m.Use),
				m.stated),
		})
	}
	return findings
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

// refuses says why a port cannot take a need; empty where it can.
func refuses(u *gear.UART, n *Need) string {
	switch {
	case u.BuiltIn && n.builtIn:
		return ""
	case u.BuiltIn:
		return fmt.Sprintf("UART %d is taken by the receiver on the board", u.ID)
	case n.builtIn:
		return "the receiver is built in on another port"
	case n.TX && !u.TX && n.RX && !u.RX:
		return fmt.Sprintf("UART %d has no pad broken out", u.ID)
	case n.TX && !u.TX:
		return fmt.Sprintf("UART %d has no TX pad", u.ID)
	case n.RX && !u.RX:
		return fmt.Sprintf("UART %d has no RX pad", u.ID)
	case n.Fast && u.Hardware == nil:
		return fmt.Sprintf("nobody has stated whether UART %d is a hardware port", u.ID)
	case n.Fast && !*u.Hardware:
		return fmt.Sprintf("UART %d is soft-serial: too slow", u.ID)
	case n.Inverted && u.Invert == "":
		return fmt.Sprintf("nobody has stated how UART %d takes an inverted signal", u.ID)
	case n.Inverted && u.Invert == gear.InvertNone:
		return fmt.Sprintf("UART %d cannot take an inverted signal", u.ID)
	case n.RX && !n.Inverted && u.Invert == gear.InvertPad:
		return fmt.Sprintf("RX %d is always inverted", u.ID)
	}
	return ""
}

// Assigned is a need with its port.
type Assigned struct {
	Need
	UART  int    `json:"uart"`
	Moves int    `json:"moves"` // wires to move
	Why   string `json:"why"`
}

// Lost is a need no port is left for.
type Lost struct {
	Need
	Why   []string `json:"why"`   // port by port
	Cures []string `json:"cures"` // each tried
}

// PortPlan is the plan for a board's serial ports.
type PortPlan struct {
	Says  string     `json:"says"`
	Ports []Assigned `json:"ports"`
	Lost  []Lost     `json:"lost"`
	Freed []string   `json:"freed"` // by taking the analog transmitter out
	Moves int        `json:"moves"`
}

// assign gives each need a port: the most important ones first in the list are
// kept before any later one, then the fewest wires are moved, then lower ports
// are taken. Exact, by dynamic programming over the ports taken: with p ports
// and n needs it looks at n·2^p·p states; boards have eight ports at most.
func assign(ports []gear.UART, needs []Need) []int {
	type state struct {
		reached     bool
		kept, moves int
		chosen      [mostNeeds]int8
	}
	better := func(a, b *state) bool {
		return !b.reached || a.kept > b.kept || a.kept == b.kept && a.moves < b.moves
	}
	masks := 1 << len(ports)
	states, next := make([]state, masks), make([]state, masks)
	states[0].reached = true
	for i := range needs {
		clear(next)
		for mask := range states {
			s := &states[mask]
			if !s.reached {
				continue
			}
			for p := -1; p < len(ports); p++ {
				after, to := *s, mask
				after.chosen[i] = int8(p)
				if p >= 0 {
					if mask&(1<<p) != 0 || refuses(&ports[p], &needs[i]) != "" {
						continue
					}
					to |= 1 << p
					after.kept |= 1 << (len(needs) - 1 - i)
					after.moves += movesTo(&ports[p], &needs[i])
				}
				if better(&after, &next[to]) {
					next[to] = after
				}
			}
		}
		states, next = next, states
	}
	best := &states[0]
	for mask := range states {
		if states[mask].reached && better(&states[mask], best) {
			best = &states[mask]
		}
	}
	chosen := make([]int, len(needs))
	for i := range chosen {
		chosen[i] = int(best.chosen[i])
	}
	return chosen
}

// mostNeeds bounds the uses of one board: the file format takes no more.
const mostNeeds = 16

// movesTo is what putting a need on a port takes: its wires where they are not
// there yet, and the solder jumper of an inverter.
func movesTo(u *gear.UART, n *Need) int {
	moves := 0
	if n.Now != u.ID {
		moves = n.wires()
	}
	if n.Inverted && u.Invert == gear.InvertJumper && n.Now != u.ID {
		moves++
	}
	return moves
}

// Ports plans the serial ports of the board of a fit; false where it has none or
// a value is missing.
func Ports(c fleet.Case) (PortPlan, bool) {
	l, _ := newLoom(c)
	if l.board == nil || len(l.board.UARTs) == 0 {
		return PortPlan{}, false
	}
	needs, missing := l.needs()
	if len(missing) > 0 {
		return PortPlan{}, false
	}
	return l.portPlan(needs), true
}

func (l *loom) portPlan(needs []Need) PortPlan {
	ports := l.board.UARTs
	plan := PortPlan{Ports: []Assigned{}, Lost: []Lost{}, Freed: l.freed()}
	for i, p := range assign(ports, needs) {
		n := needs[i]
		if p < 0 {
			plan.Lost = append(plan.Lost, l.lost(needs, i))
			continue
		}
		a := Assigned{Need: n, UART: ports[p].ID, Moves: movesTo(&ports[p], &n)}
		a.Why = why(&ports[p], &n)
		plan.Moves += a.Moves
		plan.Ports = append(plan.Ports, a)
	}
	plan.Says = plan.sentence()
	return plan
}

func why(u *gear.UART, n *Need) string {
	if n.builtIn {
		return "it is built into the board, on this port"
	}
	says := "it stays where it is"
	if n.Now != u.ID {
		switch {
		case n.TX && n.RX:
			says = "both pads are broken out"
		case n.RX:
			says = "only its RX is needed"
		default:
			says = "only its TX is needed"
		}
		if n.Now != 0 {
			says += fmt.Sprintf(", moved from UART %d", n.Now)
		}
	}
	if n.Inverted {
		says += map[gear.Invert]string{
			gear.InvertPad:      "; its pad has an inverter",
			gear.InvertJumper:   "; its solder jumper is set to inverted",
			gear.InvertSecond:   "; its second pad has an inverter",
			gear.InvertSoftware: "; the processor inverts the signal",
		}[u.Invert]
	}
	return says
}

// lost says why a need has no port and what would give it one: each way is tried.
func (l *loom) lost(needs []Need, at int) Lost {
	ports := l.board.UARTs
	lost := Lost{Need: needs[at], Why: []string{}, Cures: []string{}}
	for p := range ports {
		if says := refuses(&ports[p], &needs[at]); says != "" {
			lost.Why = append(lost.Why, says)
		} else {
			lost.Why = append(lost.Why, fmt.Sprintf("UART %d is taken by a more important use", ports[p].ID))
		}
	}
	complete := func(ports []gear.UART, needs []Need) bool {
		return !slices.Contains(assign(ports, needs), -1)
	}
	for i := range needs {
		if i != at && complete(ports, slices.Delete(slices.Clone(needs), i, i+1)) {
			lost.Cures = append(lost.Cures, "do without "+change.Use(needs[i].Use))
		}
	}
	full := gear.UART{ID: 99, TX: true, RX: true, Hardware: new(true), Invert: gear.InvertSoftware}
	if complete(append(slices.Clone(ports), full), needs) {
		lost.Cures = append(lost.Cures, "a board with one more hardware port, both pads broken out")
	}
	return lost
}

// freed lists the ports an analog transmitter's control wire gives back.
func (l *loom) freed() []string {
	freed := []string{}
	if l.airUnit == nil {
		return freed
	}
	for _, p := range append(slices.Clone(l.Quad.Now.Ports), l.Fit.Ports...) {
		says := fmt.Sprintf("UART %d, once the control wire of the analog transmitter is off", p.UART)
		if u, ok := l.board.UART(p.UART); p.Use == fleet.UseVTXControl && ok {
			if !u.RX {
				says += "; only its TX pad is broken out, so it cannot carry MSP"
			}
			if !slices.Contains(freed, says) {
				freed = append(freed, says)
			}
		}
	}
	return freed
}

func (p *PortPlan) sentence() string {
	if len(p.Lost) > 0 {
		return fmt.Sprintf("%s finds no port on this board.", verdict.Capital(change.Use(p.Lost[0].Use)))
	}
	switch p.Moves {
	case 0:
		return "Every use has its port, and nothing is moved."
	case 1:
		return "Every use has its port; one wire or jumper is set."
	}
	return fmt.Sprintf("Every use has its port; %d wires or jumpers are set.", p.Moves)
}

// checkPorts judges what the fit says of the ports beside its wires.
func (l *loom) checkPorts() (findings []verdict.Finding) {
	needs, missing := l.needs()
	if len(l.board.UARTs) == 0 {
		missing = append(missing, l.boardValue("uarts", "serial ports of "+l.board.Label()))
	}
	if len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(), missing...)}
	}
	add := func(level verdict.Level, says string) {
		findings = append(findings, verdict.Finding{
			Code:    CodePort,
			Level:   level,
			Subject: l.board.Label(),
			Source:  verdict.Practice,
			Says:    says,
		})
	}
	findings = l.checkStated()
	if l.BuiltIn() && l.Fit.ReceiverCable != nil {
		findings = append(findings, verdict.Finding{Code: CodePort, Level: verdict.Caution, Danger: verdict.Inconvenient,
			Subject: l.board.Label(), Part: fleet.NodeReceiver, Source: "this plan",
			Says: fmt.Sprintf("%s is built into the board: the wires noted for it are not there.", l.Library.Label(l.Fit.Receiver))})
	}
	taken := map[int]Need{}
	for i := range needs {
		n := &needs[i]
		if n.Now == 0 {
			if n.Use == fleet.UseReceiver && l.Fit.ReceiverCable == nil {
				findings = append(findings,
					verdict.CannotTell(verdict.Pins, CodePort, l.board.Label(),
						verdict.FitValue(l.Case, "ports", "which serial port "+n.Label+" is on")))
			}
			continue
		}
		u, ok := l.board.UART(n.Now)
		if !ok {
			findings = append(findings,
				verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(),
					l.boardValue("uarts", fmt.Sprintf("UART %d of %s", n.Now, l.board.Label()))))
			continue
		}
		if other, twice := taken[n.Now]; twice {
			add(verdict.Unfit,
				fmt.Sprintf("UART %d is to carry %s and %s: a port has one use.", n.Now, change.Use(other.Use), change.Use(n.Use)))
		}
		taken[n.Now] = *n
		if says := refuses(u, n); says != "" && n.Use != fleet.UseMSP && n.Use != fleet.UseRC {
			add(verdict.Unfit, fmt.Sprintf("%s is on UART %d, but %s.", verdict.Capital(change.Use(n.Use)), n.Now, says))
		}
	}
	return findings
}
