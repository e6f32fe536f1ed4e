package power

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

const (
	// spikeRoom is the share of the limit that should stay free above the peak;
	// leads are never laid as computed (the share is from memory).
	spikeRoom = 0.05
	// bulkResistance is the series resistance taken for a low-ESR electrolytic of
	// the usual kind (from memory).
	bulkResistance unit.Milliohms = 30
)

// capacitors are the electrolytics tried, in µF (the E6 values sold for 35 V).
var capacitors = []unit.Microfarads{220, 330, 470, 680, 1000}

// Plugin is the peak at one part when the pack is plugged in.
type Plugin struct {
	Node     string      `json:"node"`
	Label    string      `json:"label"`
	PeakV    *unit.Volts `json:"peakV,omitempty"` // absent: not known
	LimitV   *unit.Volts `json:"limitV,omitempty"`
	WithoutV *unit.Volts `json:"withoutV,omitempty"` // the peak without the electrolytic
	// Cure is the smallest electrolytic that brings the peak in range; absent
	// where none is needed or none does.
	Cure  *unit.Microfarads `json:"cure,omitempty"`
	Level verdict.Level     `json:"level"`
}

// plugin judges the peak a part sees that hangs straight on the pack.
func (s supply) plugin(part consumer, sees Envelope) (Plugin, verdict.Finding) {
	p := Plugin{Node: part.node, Label: part.label, LimitV: part.input.AbsoluteMaxV}
	limit, ends := "absoluteMaxV", "its absolute limit is"
	if p.LimitV == nil {
		p.LimitV, limit, ends = part.input.MaxV, "maxV", "no absolute limit is stated, so its window's end counts:"
	}
	f := verdict.Finding{Code: CodeSpike, Source: "series RLC step response; limit: " + part.source(limit)}
	if sees.Full == nil || p.LimitV == nil {
		p.Level = verdict.Unknown
		return p, f // the window has said what is missing
	}
	circuit, missing := s.circuit(part, *sees.Full)
	switch {
	case !unit.Over(2**sees.Full, *p.LimitV):
		f.Level = verdict.Fits
		f.Says = fmt.Sprintf("%s sees at most twice the pack's %s for a moment when the pack is plugged in; %s %s.",
			part.label, sees.Full, ends, p.LimitV)
		p.Level = f.Level
		return p, f
	case len(missing) > 0:
		p.Level = verdict.Unknown
		return p, verdict.CannotTell(verdict.Power, CodeSpike, part.label, missing...)
	}
	peak := circuit.Peak()
	p.PeakV = &peak
	if circuit.BulkUF > 0 {
		bare := circuit
		bare.BulkUF = 0
		p.WithoutV = new(bare.Peak())
	}
	f.Compares = []verdict.Compare{{
		What:   "peak at plug-in",
		Needed: p.LimitV.String() + " at most",
		There:  peak.String(),
		Margin: margin(unit.Less(*p.LimitV, peak)),
	}}
	f.Says = fmt.Sprintf("%s sees a peak of %s when the pack is plugged in; %s %s.", part.label, peak, ends, p.LimitV)
	p.judge(&f, peak, circuit)
	p.Level = f.Level
	return p, f
}

// judge holds a peak against the limit, and looks for what brings it down.
func (p *Plugin) judge(f *verdict.Finding, peak unit.Volts, circuit Circuit) {
	switch {
	case !unit.Over(peak, *p.LimitV*(1-spikeRoom)):
		f.Level = verdict.Fits
	case !unit.Over(peak, *p.LimitV):
		f.Level = verdict.Caution
		f.Says += " Little room: keep the leads as short as planned."
	default:
		f.Level = verdict.Unfit
		var to unit.Volts
		if p.Cure, to = cure(circuit, *p.LimitV); p.Cure != nil {
			f.Level = verdict.Change
			f.Says += fmt.Sprintf(" A %s low-ESR electrolytic across the battery leads brings it to %s.", p.Cure, to)
		}
	}
}

func (c Circuit) with(bulk unit.Microfarads) Circuit {
	c.BulkUF, c.BulkMilli = bulk, bulkResistance
	return c
}

// cure is the smallest electrolytic that keeps the peak within the limit, and the
// peak with it; nil where none does.
func cure(c Circuit, limit unit.Volts) (*unit.Microfarads, unit.Volts) {
	for _, bulk := range capacitors {
		if bulk <= c.BulkUF {
			continue
		}
		if peak := c.with(bulk).Peak(); !unit.Over(peak, limit) {
			return &bulk, peak
		}
	}
	return nil, 0
}

// circuit is what rings when the pack is plugged in: the pack and its leads with
// the ceramics of the part. What else hangs on the pack adds capacitance and
// lowers the peak; it is left out, on the safe side.
func (s supply) circuit(part consumer, full unit.Volts) (Circuit, []verdict.Missing) {
	c := Circuit{Volts: full}
	var missing []verdict.Missing
	if part.input.CeramicUF == nil {
		missing = append(missing, part.value("ceramicUF", "ceramic capacitance at the input"))
	} else {
		c.CeramicUF = *part.input.CeramicUF
	}
	pack, known := s.Pack()
	switch {
	case !known:
		missing = append(missing, verdict.FitValue(s.Case, "pack", "pack of "+s.Quad.Label()))
	case pack.MilliohmPerCell == nil:
		missing = append(missing, verdict.GearValue(&pack.Entry, "milliohmPerCell", "resistance per cell"))
	default:
		c.Milliohms = packResistance(pack)
	}
	lead := s.packLead()
	if lead == nil {
		lead = &leadAt{&fleet.Lead{}, s.Quad.ID, s.FitName + ".packLead", "the pack lead of " + s.Quad.Label()}
	}
	if lacks := lead.missing(); len(lacks) > 0 {
		missing = append(missing, lacks...)
	} else {
		c.add(lead.Lead)
	}
	if own := s.leadOf(part.node); own != nil && len(own.missing()) == 0 {
		c.add(own.Lead)
	}
	if s.Fit.CapacitorUF != nil {
		c = c.with(*s.Fit.CapacitorUF)
	}
	return c, missing
}

func (c *Circuit) add(lead *fleet.Lead) {
	resistance, _ := lead.Resistance()
	c.Milliohms += resistance
	c.Nanohenries += lead.AWG.PairInductance(*lead.MM)
}
