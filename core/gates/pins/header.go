package pins

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// CodeHeader is about a header on a row of pads.
const CodeHeader verdict.Code = "pins.header"

// headed is one end of a cable with the header that is planned onto its row of pads.
type headed struct {
	*fleet.Header
	plug  *gear.Plug // the row as it is, or the plug that is there; nil: not stated
	of    string     // whose it is, in words
	owner *gear.Entry
	field string // where the row is stated
}

// headed are the ends of the cable that have a header.
func (l *loom) headed() (ends []headed) {
	if h := l.run.Headers.Header; h != nil {
		ends = append(ends, headed{h, bare(l.run.Row, l.run.Plug), l.run.Label(), l.run.Entry, "plug"})
	}
	if h := l.run.BoardHeader; h != nil && l.run.Into != nil {
		row := bare(l.run.IntoRow, l.run.Into)
		ends = append(ends, headed{h, row, "the " + row.Label() + " of " + l.board.Label(), &l.board.Entry,
			"plugs." + row.ID})
	}
	return ends
}

func bare(row, plug *gear.Plug) *gear.Plug {
	if row != nil {
		return row
	}
	return plug
}

// checkHeaders judges each header: it goes onto pads alone, pad for pad and pin for pin.
// Which way round it lies is judged with the wires.
func (l *loom) checkHeaders() (findings []verdict.Finding) {
	for _, end := range l.headed() {
		findings = append(findings, l.checkHeader(end)...)
	}
	return findings
}

func (l *loom) checkHeader(end headed) []verdict.Finding {
	h, ok := gear.Find[*gear.Header](l.Library, end.Model)
	if !ok {
		return nil // the gear is not there: said with the entry
	}
	unfit := func(says string, args ...any) []verdict.Finding {
		return []verdict.Finding{{Code: CodeHeader, Level: verdict.Unfit, Subject: h.Label(), Source: h.Source.String(),
			Says: fmt.Sprintf(says, args...)}}
	}
	if !end.plug.Pads() && end.plug.Connector != "" {
		return unfit("%s has a plug already: there are no pads for %s.", verdict.Capital(end.of), h.Label())
	}
	var missing []verdict.Missing
	if !end.plug.Pads() {
		missing = append(missing, verdict.Missing{Of: "gear", ID: end.owner.ID, Field: end.field + ".connector",
			Label: "which connector " + end.of + " has, or that it has pads"})
	}
	pitch, pins := h.PitchMM, h.Pins
	if h.Connector == "" {
		missing = append(missing, verdict.GearValue(&h.Entry, "connector", "connector it takes"))
	}
	if pitch == nil {
		missing = append(missing, verdict.GearValue(&h.Entry, "pitchMM", "how far its pins are apart"))
	}
	if pins == nil {
		missing = append(missing, verdict.GearValue(&h.Entry, "pins", "how many pins it has"))
	}
	if end.plug.PitchMM == nil {
		missing = append(missing, verdict.Missing{Of: "gear", ID: end.owner.ID, Field: end.field + ".pitchMM",
			Label: "how far the pads of " + end.of + " are apart"})
	}
	pads := len(end.plug.Pins)
	switch {
	case pins != nil && *pins != pads:
		return unfit("%s has %d pins, %s %d pads: pin and pad do not lie over one another.", h.Label(), *pins, end.of, pads)
	case pitch != nil && end.plug.PitchMM != nil && *pitch != *end.plug.PitchMM:
		off := unit.Millimetres(float64(*pitch-*end.plug.PitchMM) * float64(pads-1))
		f := unfit("The pins of %s are %s apart, the pads of %s %s: at the last pad it is %s off.", h.Label(), *pitch, end.of,
			*end.plug.PitchMM, max(off, -off))
		f[0].Compares = []verdict.Compare{{What: "pitch", Needed: end.plug.PitchMM.String(), There: pitch.String()}}
		return f
	case len(missing) > 0:
		return []verdict.Finding{verdict.CannotTell(verdict.Pins, CodeHeader, h.Label(), missing...)}
	}
	return nil
}

// headersFor are the headers that make a row of pads take a connector, each way round it
// can lie; a single nil where the plug takes it as it is.
func (l *loom) headersFor(plug *gear.Plug, connector string) (list []*fleet.Header) {
	switch {
	case plug.Connector == connector:
		return []*fleet.Header{nil}
	case !plug.Pads() || plug.PitchMM == nil:
		return nil
	}
	for _, h := range gear.All[*gear.Header](l.Library) {
		if h.Connector != connector || h.PitchMM == nil || *h.PitchMM != *plug.PitchMM || h.Pins == nil ||
			*h.Pins != len(plug.Pins) {
			continue
		}
		list = append(list, &fleet.Header{Model: h.ID}, &fleet.Header{Model: h.ID, Turned: true})
	}
	return list
}
