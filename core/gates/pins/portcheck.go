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

// checkPorts judges what the fit says of the ports beside its wires.
func (l *loom) checkPorts() []verdict.Finding {
	needs, missing := l.needs()
	if len(l.board.UARTs) == 0 {
		missing = append(missing, l.boardValue("uarts", "serial ports of "+l.board.Label()))
	}
	if len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(), missing...)}
	}
	findings := slices.Concat(l.checkStated(), l.statedTwice(), l.checkWaiting())
	if l.BuiltIn() && l.Fit.ReceiverCable != nil {
		findings = append(findings, verdict.Finding{
			Code:    CodePort,
			Level:   verdict.Caution,
			Danger:  verdict.Inconvenient,
			Subject: l.board.Label(),
			Part:    fleet.NodeReceiver,
			Source:  "this plan",
			Says: fmt.Sprintf(
				"%s is built into the board: the wires noted for it are not there.",
				l.Library.Label(l.Fit.Receiver),
			),
		})
	}
	taken := map[int]Need{}
	for i := range needs {
		n := &needs[i]
		findings = append(findings, l.checkNeed(n, taken)...)
		if n.Now != 0 {
			taken[n.Now] = *n
		}
	}
	return findings
}

// checkNeed judges the port one use is on; taken are the ports of the uses before it.
func (l *loom) checkNeed(n *Need, taken map[int]Need) (findings []verdict.Finding) {
	if n.Now == 0 {
		if n.Use == fleet.UseReceiver && l.Fit.ReceiverCable == nil {
			return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodePort, l.board.Label(),
				verdict.FitValue(l.Case, "ports", "which serial port "+n.Label+" is on"))}
		}
		return nil
	}
	u, ok := l.board.UART(n.Now)
	if !ok {
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeUnknown, l.board.Label(),
			l.boardValue("uarts", fmt.Sprintf("UART %d of %s", n.Now, l.board.Label())))}
	}
	if other, twice := taken[n.Now]; twice {
		findings = append(findings, l.portUnfit(fmt.Sprintf("UART %d is to carry %s and %s: a port has one use.", n.Now,
			change.Use(other.Use), change.Use(n.Use))))
	}
	if says := refuses(u, n); says != "" && n.Use != fleet.UseMSP && n.Use != fleet.UseRC {
		findings = append(
			findings,
			l.portUnfit(fmt.Sprintf("%s is on UART %d, but %s.", verdict.Capital(change.Use(n.Use)), n.Now, says)),
		)
	}
	return findings
}

// waiting are the ports that wait for the telemetry of an ESC where none is noted that could
// send it. What a part whose kind nobody states is, is asked with the part.
func (l *loom) waiting() (list []fleet.Port) {
	if slices.ContainsFunc(l.beside, func(r *netlist.Run) bool {
		return r.Sort == "" || r.Sort == string(gear.SortESC)
	}) {
		return nil
	}
	for _, p := range l.Fit.Noted() {
		if p.Use == fleet.UseTelemetry {
			list = append(list, p)
		}
	}
	return list
}

func (l *loom) checkWaiting() (findings []verdict.Finding) {
	for _, p := range l.waiting() {
		findings = append(findings, verdict.Finding{
			Code:    CodeWaiting,
			Level:   verdict.Caution,
			Danger:  verdict.Inconvenient,
			Subject: l.board.Label(),
			Source:  "this plan",
			Says: fmt.Sprintf("UART %d waits for ESC telemetry, and no ESC is noted that sends it: note the ESC with its "+
				"wires, or free the port.", p.UART),
		})
	}
	return findings
}

func (l *loom) portUnfit(says string) verdict.Finding {
	return verdict.Finding{
		Code:    CodePort,
		Level:   verdict.Unfit,
		Subject: l.board.Label(),
		Source:  verdict.Practice,
		Says:    says,
	}
}

// onOnePort are the uses a board takes on one port alone: which of two it heeds is not
// the builder's to say (common practice). MSP may be on several; so may telemetry of an
// ESC and what is noted as something else.
var onOnePort = []fleet.Use{fleet.UseReceiver, fleet.UseRC, fleet.UseGPS, fleet.UseVTXControl}

// putTwice are the ports of the uses that are put on several where a board has them on
// one, in the order they are stated.
func (l *loom) putTwice() (list []fleet.Port) {
	ports := l.Fit.Noted()
	for _, p := range ports {
		elsewhere := func(q fleet.Port) bool { return q.Use == p.Use && q.UART != p.UART }
		if slices.Contains(onOnePort, p.Use) && slices.ContainsFunc(ports, elsewhere) {
			list = append(list, p)
		}
	}
	return list
}

func (l *loom) statedTwice() (findings []verdict.Finding) {
	twice := l.putTwice()
	for i, p := range twice {
		first := slices.IndexFunc(twice, func(q fleet.Port) bool { return q.Use == p.Use })
		if first == i {
			continue
		}
		findings = append(findings, l.portUnfit(fmt.Sprintf("%s is put on UART %d and on UART %d: a board has it on one.",
			verdict.Capital(change.Use(p.Use)), twice[first].UART, p.UART)))
	}
	return findings
}
