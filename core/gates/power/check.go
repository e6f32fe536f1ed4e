package power

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// The findings of this gate.
const (
	CodeOver       verdict.Code = "power.over-window"
	CodeUnder      verdict.Code = "power.under-window"
	CodeInWindow   verdict.Code = "power.in-window"
	CodeSpike      verdict.Code = "power.spike"
	CodeCapacitor  verdict.Code = "power.capacitor"
	CodeJumper     verdict.Code = "power.jumper"
	CodeUnknown    verdict.Code = "power.unknown"
	CodeDropout    verdict.Code = "power.dropout"
	CodeRailOver   verdict.Code = "power.rail-over"
	CodeRailPeak   verdict.Code = "power.rail-short-peak"
	CodeRailTight  verdict.Code = "power.rail-tight"
	CodeRailFits   verdict.Code = "power.rail-fits"
	CodeContact    verdict.Code = "power.contact"
	CodeWire       verdict.Code = "power.wire"
	CodeNothingFed verdict.Code = "power.nothing-fed"
	CodeGoggles    verdict.Code = "power.goggles"
)

// dangers of the findings; an unknown may hide that it burns, unless it says that
// only the lower end is open.
var dangers = map[verdict.Code]verdict.Danger{
	CodeGoggles: verdict.Destroys,
	CodeOver:    verdict.Destroys, CodeUnder: verdict.Falls, CodeSpike: verdict.Destroys, CodeCapacitor: verdict.Destroys,
	CodeJumper: verdict.Destroys, CodeUnknown: verdict.Destroys, CodeDropout: verdict.Inconvenient,
	CodeRailOver: verdict.Falls, CodeRailPeak: verdict.Falls, CodeRailTight: verdict.Inconvenient,
	CodeContact: verdict.Destroys, CodeWire: verdict.Destroys, CodeNothingFed: verdict.Destroys,
}

// railReserve is the share of a rail's rating that should stay free at
// peak (common practice; the share itself is from memory).
const railReserve = 0.20

// SpikeCapacitor is the usual low-ESR electrolytic across the battery leads:
// 470 µF (common practice).
const SpikeCapacitor unit.Microfarads = 470

// Path is the way of the supply through one fit, for drawing and for judging.
type Path struct {
	Nodes []Node  `json:"nodes"` // the pack first, then every part with a window
	Rails []*Rail `json:"rails"`
	// Plugins are the peaks at plug-in of what hangs straight on the pack.
	Plugins []Plugin `json:"plugins"`
	USB     OnUSB    `json:"usb"`

	findings []verdict.Finding
}

// Node is one point of the path.
type Node struct {
	ID    string        `json:"id"`
	Label string        `json:"label"`
	From  string        `json:"from,omitempty"` // in words
	Sees  Envelope      `json:"sees"`
	MinV  *unit.Volts   `json:"minV,omitempty"`
	MaxV  *unit.Volts   `json:"maxV,omitempty"`
	Over  bool          `json:"over"`  // what it sees lies above its window
	Under bool          `json:"under"` // or below
	Level verdict.Level `json:"level"`
}

// Check judges the power of one fit.
func Check(c fleet.Case) []verdict.Finding { return Trace(c).findings }

// Trace follows the supply of one fit from the pack to every part.
func Trace(c fleet.Case) Path {
	s := newSupply(c)
	consumers := s.consumers()
	path := Path{
		Nodes:    make([]Node, 0, len(consumers)+1),
		Rails:    []*Rail{},
		Plugins:  []Plugin{},
		findings: make([]verdict.Finding, 0, len(consumers)+2),
	}
	if pack, ok := c.Pack(); ok {
		path.Nodes = append(path.Nodes, Node{
			ID:    fleet.NodePack,
			Label: pack.Label(),
			Sees:  packEnvelope(pack, c.Quad),
			Level: verdict.Fits,
		})
	}
	for _, part := range consumers {
		node, findings := s.judge(part)
		node.Over = node.Sees.Full != nil && node.MaxV != nil && unit.Over(*node.Sees.Full, *node.MaxV)
		node.Under = node.Sees.Lowest != nil && node.MinV != nil && unit.Over(*node.MinV, *node.Sees.Lowest)
		path.Nodes = append(path.Nodes, node)
		path.findings = append(path.findings, findings...)
		path.plugIn(s.judgePlugin(part, node))
	}
	path.USB = s.onUSB(consumers)
	path.Rails = append(path.Rails, s.rails(consumers)...)
	for _, rail := range path.Rails {
		path.rail(s, rail)
	}
	path.findings = append(path.findings, s.checkConductors(consumers)...)
	path.findings = append(path.findings, s.checkCapacitor()...)
	path.findings = append(path.findings, s.checkGoggles()...)
	if len(consumers) == 0 || c.Fit.AirUnit == nil && c.Fit.Analog == "" {
		path.findings = append(path.findings, verdict.CannotTell(verdict.Power, CodeNothingFed, c.Quad.Label(),
			verdict.FitValue(s.Case, "airUnit", "any part that takes power on "+c.Quad.Label())))
	}
	if c.Fit.Board == "" && !c.Fit.Without(fleet.NoBoard) {
		path.findings = append(path.findings, verdict.CannotTell(verdict.Power, CodeUnknown, c.Quad.Label(),
			verdict.FitValue(s.Case, "board", "flight board of "+c.Quad.Label()+", or that it has none")))
	}
	path.findings = verdict.Complete(verdict.Power, c.Quad.Label(), path.findings, dangers)
	return path
}

func (path *Path) plugIn(plugin Plugin, finding verdict.Finding, found bool) {
	if !found {
		return
	}
	path.Plugins = append(path.Plugins, plugin)
	if finding.Code != "" {
		path.findings = append(path.findings, finding)
	}
}

// rail judges a rail: the pad or regulator that makes it, and what hangs on it. Of a
// pad's own window only what is wrong is said.
func (path *Path) rail(s supply, rail *Rail) {
	finding := judgeRail(rail)
	rail.Level = finding.Level
	path.findings = append(path.findings, finding)
	if dropout, found := s.judgeDropout(rail); found {
		path.findings = append(path.findings, dropout)
	}
	if pad, isPad := s.padConsumer(rail); isPad {
		node, findings := s.judge(pad)
		plugin, peak, found := s.judgePlugin(pad, node)
		if found && peak.Level != verdict.Fits {
			path.plugIn(plugin, peak, true)
		}
		if node.Level != verdict.Fits {
			path.findings = append(path.findings, findings...)
		}
	}
}

// Part is the worst the gate says of one part of a fit, named by its node, where it is fed
// as the fit has it; the zero finding where the fit has no such part.
func Part(c fleet.Case, of string) (worst verdict.Finding) {
	s := newSupply(c)
	for _, part := range s.consumers() {
		if part.node != of {
			continue
		}
		node, findings := s.judge(part)
		if _, peak, found := s.judgePlugin(part, node); found && peak.Code != "" {
			findings = append(findings, peak)
		}
		for _, f := range verdict.Rated(findings, dangers) {
			if worst.Code == "" || f.Level.WorseThan(worst.Level) {
				worst = f
			}
		}
	}
	return worst
}

// judge compares what a part sees with its window.
func (s supply) judge(part consumer) (Node, []verdict.Finding) {
	sees := s.sees(part.node)
	node := Node{ID: part.node, Label: part.label, Sees: sees, MinV: part.input.MinV, MaxV: part.input.MaxV}
	var o origin
	if from, ok := s.feedOf(part.node); ok {
		o = s.originOf(from)
		node.From = o.label
	}
	findings := append(s.over(part, sees, o), s.under(part, sees, o)...)
	if missing := part.noWindow(sees); len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Power, CodeUnknown, part.label, missing...))
	}
	if len(findings) == 0 {
		findings = []verdict.Finding{inWindow(part, sees, o)}
	}
	findings = s.jumpers(part, findings)
	for i := range findings {
		findings[i].Gate, findings[i].Subject, findings[i].Part = verdict.Power, part.label, part.node
	}
	node.Level = verdict.Worst(findings)
	return node, findings
}

// noWindow names what of a part's window, or of what it sees, is not known at all.
func (c consumer) noWindow(sees Envelope) (missing []verdict.Missing) {
	if c.input.MaxV == nil {
		missing = append(missing, c.value("maxV", "highest input voltage"))
	}
	if c.input.MinV == nil {
		missing = append(missing, c.value("minV", "lowest input voltage"))
	}
	if sees.Full == nil {
		missing = appendNew(missing, sees.noFull)
	}
	if sees.Lowest == nil {
		missing = appendNew(missing, sees.noLowest)
	}
	return missing
}

// over judges the upper end of a part's window.
func (s supply) over(part consumer, sees Envelope, o origin) []verdict.Finding {
	most := part.input.MaxV
	switch {
	case sees.Full == nil || most == nil || !unit.Over(*sees.Full, *most):
		return nil
	case !unit.Over(*sees.top(), *most): // only at its worst
		return []verdict.Finding{verdict.CannotTell(verdict.Power, CodeUnknown, part.label, sees.noFull...)}
	}
	full, limit := unit.Pair(*sees.top(), *most)
	return []verdict.Finding{{
		Code: CodeOver, Level: verdict.Unfit, Source: part.source("maxV") + packSource,
		Says: fmt.Sprintf("%s would see %s from %s; its window ends at %s: %s too much. It burns.",
			part.label, full, o.label, limit, unit.Less(*sees.top(), *most)),
		Compares: []verdict.Compare{topCompare(part, *sees.top())},
	}}
}

// under judges the lower end of a part's window.
func (s supply) under(part consumer, sees Envelope, o origin) []verdict.Finding {
	least := part.input.MinV
	switch {
	case sees.Lowest == nil || least == nil || !unit.Over(*least, *sees.Lowest):
		return nil
	case !unit.Over(*least, *sees.bottom()):
		f := verdict.CannotTell(verdict.Power, CodeUnknown, part.label, sees.noLowest...)
		f.Danger = verdict.Falls
		f.Says += fmt.Sprintf(" (its window begins at %s; at worst it would see %s)", least, sees.Lowest)
		f.Compares = []verdict.Compare{bottomCompare(part, *sees.Lowest)}
		return []verdict.Finding{f}
	}
	lowest, limit := unit.Pair(*sees.bottom(), *least)
	return []verdict.Finding{{
		Code: CodeUnder, Level: verdict.Unfit, Source: part.source("minV") + packSource,
		Says: fmt.Sprintf("%s would see only %s from %s at the lowest; its window begins at %s: %s too little. It "+
			"switches off in flight.",
			part.label, lowest, o.label, limit, unit.Less(*least, *sees.bottom())),
		Compares: []verdict.Compare{bottomCompare(part, *sees.bottom())},
	}}
}

// inWindow is the finding of a part that sees a voltage within its window. Where the
// lowest is only bounded, it says what sag it would take to fail.
func inWindow(part consumer, sees Envelope, o origin) verdict.Finding {
	f := verdict.Finding{Code: CodeInWindow, Level: verdict.Fits, Source: part.source("maxV") + packSource,
		Compares: []verdict.Compare{topCompare(part, *sees.Full), bottomCompare(part, *sees.Lowest)},
		Says: part.label + " sees " + bare(*sees.Lowest) + " to " + sees.Full.String() + " from " + o.label +
			", within " + bare(*part.input.MinV) + " to " + part.input.MaxV.String() + ".",
	}
	if len(sees.noLowest) > 0 {
		f.Says += fmt.Sprintf(" The lowest is the worst it can be, whatever is not stated; it would fail only %s lower.",
			unit.Less(*sees.Lowest, *part.input.MinV))
	}
	return f
}

// judgePlugin judges the peak at plug-in of a part that the pack's peak reaches.
func (s supply) judgePlugin(part consumer, node Node) (Plugin, verdict.Finding, bool) {
	if !s.onPack(part.node) || node.Level == verdict.Unfit || node.Level == verdict.Change {
		return Plugin{}, verdict.Finding{}, false // what burns on the steady voltage needs no peak
	}
	plugin, finding := s.plugin(part, node.Sees)
	if finding.Says == "" {
		finding = verdict.Finding{}
	}
	finding.Gate, finding.Subject = verdict.Power, part.label
	return plugin, finding, true
}

func topCompare(part consumer, full unit.Volts) verdict.Compare {
	there, needed := unit.Pair(full, *part.input.MaxV)
	return verdict.Compare{
		What:   "at full charge",
		Needed: needed + " at most",
		There:  there,
		Margin: margin(unit.Less(*part.input.MaxV, full)),
	}
}

func bottomCompare(part consumer, lowest unit.Volts) verdict.Compare {
	there, needed := unit.Pair(lowest, *part.input.MinV)
	return verdict.Compare{
		What:   "lowest under load",
		Needed: needed + " at least",
		There:  there,
		Margin: margin(unit.Less(lowest, *part.input.MinV)),
	}
}

func appendNew(list, more []verdict.Missing) []verdict.Missing {
	for _, m := range more {
		seen := false
		for _, have := range list {
			seen = seen || have == m
		}
		if !seen {
			list = append(list, m)
		}
	}
	return list
}
