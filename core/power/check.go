package power

import (
	"fmt"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/unit"
	"yokeswap/core/verdict"
)

// The findings of this gate.
const (
	CodeOver       verdict.Code = "power.over-window"
	CodeUnder      verdict.Code = "power.under-window"
	CodeInWindow   verdict.Code = "power.in-window"
	CodeSpike      verdict.Code = "power.spike"
	CodeJumper     verdict.Code = "power.jumper"
	CodeUnknown    verdict.Code = "power.unknown"
	CodeDropout    verdict.Code = "power.dropout"
	CodeRailOver   verdict.Code = "power.rail-over"
	CodeRailTight  verdict.Code = "power.rail-tight"
	CodeRailFits   verdict.Code = "power.rail-fits"
	CodeNothingFed verdict.Code = "power.nothing-fed"
)

const (
	// railReserve is the share of a rail's rating that should stay free at
	// peak (common practice; the share itself is from memory).
	railReserve = 0.20
	// meterResolution is the difference below which two voltages count as
	// equal, so that 6 × 4.2 V is not above 25.2 V.
	meterResolution unit.Volts = 0.0005
)

// SpikeCapacitor is the usual low-ESR electrolytic across the battery leads:
// 470 µF, 35 V (common practice).
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
	Level verdict.Level `json:"level"`
}

// Check judges the power of one fit.
func Check(c fleet.Case) []verdict.Finding { return Trace(c).findings }

// Trace follows the supply of one fit from the pack to every part.
func Trace(c fleet.Case) Path {
	s := newSupply(c)
	consumers := s.consumers()
	path := Path{Nodes: make([]Node, 0, len(consumers)+1), Rails: []*Rail{}, Plugins: []Plugin{}, findings: make([]verdict.Finding, 0, len(consumers)+2)}
	if pack, ok := gear.Find[*gear.Pack](c.Library, c.Fit.Pack); ok {
		path.Nodes = append(path.Nodes, Node{ID: fleet.NodePack, Label: pack.Label(), Sees: packEnvelope(pack, c.Quad), Level: verdict.Fits})
	}
	for _, part := range consumers {
		node, findings := s.judge(part)
		path.Nodes = append(path.Nodes, node)
		path.findings = append(path.findings, findings...)
		if plugin, finding, found := s.judgePlugin(part, node); found {
			path.Plugins = append(path.Plugins, plugin)
			if finding.Code != "" {
				path.findings = append(path.findings, finding)
			}
		}
	}
	path.USB = s.onUSB(consumers)
	path.Rails = append(path.Rails, s.rails(consumers)...)
	for _, rail := range path.Rails {
		finding := judgeRail(rail)
		rail.Level = finding.Level
		path.findings = append(path.findings, finding)
		if dropout, found := s.judgeDropout(rail); found {
			path.findings = append(path.findings, dropout)
		}
	}
	if len(consumers) == 0 {
		path.findings = append(path.findings, verdict.CannotTell(verdict.Power, CodeNothingFed, c.Quad.Label(),
			verdict.FitValue(s.Case, "airUnit", "any part that takes power on "+c.Quad.Label())))
	}
	return path
}

// judge compares what a part sees with its window.
func (s supply) judge(part consumer) (Node, []verdict.Finding) {
	sees := s.sees(part.node)
	node := Node{ID: part.node, Label: part.label, Sees: sees, MinV: part.input.MinV, MaxV: part.input.MaxV}
	var o origin
	if from, ok := s.Fit.FeedOf(part.node); ok {
		o = s.originOf(from)
		node.From = o.label
	}
	var missing []verdict.Missing
	if part.input.MaxV == nil {
		missing = append(missing, part.value("maxV", "highest input voltage"))
	}
	if part.input.MinV == nil {
		missing = append(missing, part.value("minV", "lowest input voltage"))
	}
	missing = appendNew(missing, sees.noFull)
	missing = appendNew(missing, sees.noLowest)

	var findings []verdict.Finding
	if sees.Full != nil && part.input.MaxV != nil && *sees.Full > *part.input.MaxV+meterResolution {
		over := *sees.Full - *part.input.MaxV
		findings = append(findings, verdict.Finding{
			Code: CodeOver, Level: verdict.Unfit, Source: part.source("maxV") + packSource,
			Says: fmt.Sprintf("%s would see %s from %s; its window ends at %s: %s too much. It burns.",
				part.label, sees.Full, o.label, part.input.MaxV, over),
			Compares: []verdict.Compare{topCompare(part, sees)},
		})
	}
	if sees.Lowest != nil && part.input.MinV != nil && *sees.Lowest < *part.input.MinV-meterResolution {
		under := *part.input.MinV - *sees.Lowest
		findings = append(findings, verdict.Finding{
			Code: CodeUnder, Level: verdict.Unfit, Source: part.source("minV") + packSource,
			Says: fmt.Sprintf("%s would see only %s from %s at the lowest; its window begins at %s: %s too little. It switches off in flight.",
				part.label, sees.Lowest, o.label, part.input.MinV, under),
			Compares: []verdict.Compare{bottomCompare(part, sees)},
		})
	}
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Power, CodeUnknown, part.label, missing...))
	}
	if len(findings) == 0 {
		findings = []verdict.Finding{inWindow(part, sees, o)}
	}
	if cure, ok := s.cureByJumper(part); ok && verdict.Worst(findings) == verdict.Unfit {
		findings = []verdict.Finding{jumperFinding(findings[0], cure)}
	}
	for i := range findings {
		findings[i].Gate, findings[i].Subject = verdict.Power, part.label
		if o.converter != nil && o.converter.ToleranceV == nil && findings[i].Level != verdict.Unknown {
			findings[i].Source += "; 5 % tolerance of " + o.rail + " assumed: common practice"
		}
	}
	node.Level = verdict.Worst(findings)
	return node, findings
}

// inWindow is the finding of a part that sees a voltage within its window.
func inWindow(part consumer, sees Envelope, o origin) verdict.Finding {
	return verdict.Finding{Code: CodeInWindow, Level: verdict.Fits, Source: part.source("maxV") + packSource,
		Compares: []verdict.Compare{topCompare(part, sees), bottomCompare(part, sees)},
		Says: part.label + " sees " + bare(*sees.Lowest) + " to " + sees.Full.String() + " from " + o.label +
			", within " + bare(*part.input.MinV) + " to " + part.input.MaxV.String() + ".",
	}
}

// judgePlugin judges the peak at plug-in of a part that hangs straight on the
// pack. Of the board itself only where its ceramics are stated: everything on
// the pack's pads is judged for itself.
func (s supply) judgePlugin(part consumer, node Node) (Plugin, verdict.Finding, bool) {
	from, ok := s.Fit.FeedOf(part.node)
	if !ok || part.node == fleet.NodeBoard && part.input.CeramicUF == nil {
		return Plugin{}, verdict.Finding{}, false
	}
	if o := s.originOf(from); o.node != fleet.NodePack || len(o.missing) > 0 || node.Level == verdict.Unfit || node.Level == verdict.Change {
		return Plugin{}, verdict.Finding{}, false // what burns on the steady voltage needs no peak
	}
	plugin, finding := s.plugin(part, node.Sees)
	if finding.Says == "" {
		finding = verdict.Finding{}
	}
	finding.Gate, finding.Subject = verdict.Power, part.label
	return plugin, finding, true
}

func topCompare(part consumer, sees Envelope) verdict.Compare {
	return verdict.Compare{What: "at full charge", Needed: part.input.MaxV.String() + " at most",
		There: sees.Full.String(), Margin: margin(*part.input.MaxV - *sees.Full)}
}

func bottomCompare(part consumer, sees Envelope) verdict.Compare {
	return verdict.Compare{What: "lowest under load", Needed: part.input.MinV.String() + " at least",
		There: sees.Lowest.String(), Margin: margin(*sees.Lowest - *part.input.MinV)}
}

// judgeRail compares the peak current of everything on a rail with its rating.
func judgeRail(r *Rail) verdict.Finding {
	f := verdict.Finding{Gate: verdict.Power, Subject: r.Label}
	if r.origin.owner != nil {
		f.Source = r.origin.owner.SourceOf(r.origin.field + "maxA").String()
	}
	if r.MaxA != nil {
		f.Compares = []verdict.Compare{{What: "peak current", Needed: r.MaxA.String() + " at most",
			There: r.knownA.String(), Margin: signed(float64(*r.MaxA-r.knownA), 2) + " A"}}
	}
	missing := r.noLoad
	if r.MaxA == nil {
		missing = append(missing, verdict.GearValue(r.origin.owner, r.origin.field+"maxA", "current rating of "+r.Label))
	}
	switch {
	case r.MaxA != nil && r.knownA > *r.MaxA:
		f.Code, f.Level = CodeRailOver, verdict.Unfit
		f.Says = fmt.Sprintf("%s carries %s at peak but is rated for %s.", verdict.Capital(r.Label), r.knownA, r.MaxA)
	case len(missing) > 0:
		return verdict.CannotTell(verdict.Power, CodeUnknown, r.Label, missing...)
	case r.knownA > *r.MaxA*(1-railReserve):
		f.Code, f.Level = CodeRailTight, verdict.Caution
		f.Says = fmt.Sprintf("%s carries %s of %s at peak: little in reserve.", verdict.Capital(r.Label), r.knownA, r.MaxA)
	default:
		f.Code, f.Level = CodeRailFits, verdict.Fits
		f.Says = verdict.Capital(r.Label) + " carries " + r.knownA.String() + " of " + r.MaxA.String() + " at peak."
	}
	return f
}

// judgeDropout warns of a step-down whose input comes too close to its output
// on a low pack: its output then follows the pack down.
func (s supply) judgeDropout(r *Rail) (verdict.Finding, bool) {
	c, in := r.origin.converter, s.sees(r.origin.input)
	if c.Topology != gear.StepDown || c.DropoutV == nil || c.OutV == nil || in.Lowest == nil {
		return verdict.Finding{}, false // what is missing is said at the parts it feeds
	}
	needed := *c.OutV + *c.DropoutV
	if *in.Lowest >= needed-meterResolution {
		return verdict.Finding{}, false
	}
	return verdict.Finding{Gate: verdict.Power, Code: CodeDropout, Level: verdict.Caution, Subject: r.Label,
		Says: fmt.Sprintf("%s needs %s in to hold %s; the pack falls to %s, and the output follows it down.",
			verdict.Capital(r.Label), needed, c.OutV, in.Lowest),
		Compares: []verdict.Compare{{What: "input, lowest under load", Needed: needed.String() + " at least",
			There: in.Lowest.String(), Margin: margin(*in.Lowest - needed)}},
		Source: r.origin.owner.SourceOf(r.origin.field + "dropoutV").String(),
	}, true
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
