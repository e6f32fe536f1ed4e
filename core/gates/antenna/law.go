package antenna

import (
	"fmt"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
)

// sender is something on a fit that transmits.
type sender struct {
	label   string
	owner   *gear.Entry
	field   string // of the power on its sheet
	band    gear.Band
	maxMW   *unit.Milliwatts
	gain    *unit.Decibels
	missing []verdict.Missing
	steps   []unit.Milliwatts // settings; absent: not stated
	leastMW *unit.Milliwatts
}

// senders lists everything that transmits: the air unit on each of its bands with the
// best of its antennas, and controller, receiver and goggles as far as it is stated
// what they send.
func (p *pair) senders() (list []sender) {
	if r := p.airUnit.Radio; r != nil {
		for _, b := range p.used(&p.unit) {
			list = append(list, p.unitSends(r, b))
		}
	}
	other := func(item gear.Item, label string, sends *gear.Sender) {
		if sends != nil {
			list = append(list, otherSends(item, label, sends))
		}
	}
	if c, state, ok := p.Controller(); ok && p.Fit.Receiver == "" {
		other(c, state.Label, c.Sends)
	}
	if r, ok := p.Receiver(); ok {
		other(r, r.Label(), r.Sends)
	}
	if p.hasGoggles {
		other(p.goggles, p.gogglesSide.label, p.goggles.Sends)
	}
	return list
}

// unitSends is the air unit on a band, with the antenna that gains most.
func (p *pair) unitSends(r *gear.Radio, b gear.Band) sender {
	s := sender{
		label:   p.unit.label,
		owner:   &p.airUnit.Entry,
		field:   "radio.maxMW",
		band:    b,
		maxMW:   r.MaxMW,
		steps:   r.StepsMW,
		leastMW: r.BenchMW,
	}
	if r.MaxMW == nil {
		s.missing = append(s.missing, verdict.GearValue(s.owner, s.field, "highest transmit power"))
	}
	var missing []verdict.Missing
	s.gain, missing = p.unitGain(b)
	s.missing = append(s.missing, missing...)
	return s
}

// unitGain is the gain on a band of the air unit's antenna that gains most; nil where none
// works on it.
func (p *pair) unitGain(b gear.Band) (most *unit.Decibels, missing []verdict.Missing) {
	for _, a := range p.unit.antennas {
		if a.On(b) == nil {
			continue
		}
		g := gain(a, b)
		if g == nil {
			missing = append(missing, verdict.GearValue(&a.Entry, "bands", fmt.Sprintf("gain on %s", b)))
		} else if most == nil || *g > *most {
			most = g
		}
	}
	return most, missing
}

// otherSends is something else that transmits, as its sheet states it.
func otherSends(item gear.Item, label string, sends *gear.Sender) sender {
	s := sender{
		label: label,
		owner: item.Head(),
		field: "sends.maxMW",
		band:  sends.Band,
		maxMW: sends.MaxMW,
		gain:  sends.GainDBi,
	}
	for _, need := range []struct {
		there       bool
		field, what string
	}{
		{sends.Band != "", "sends.band", "band it sends on"},
		{sends.MaxMW != nil, "sends.maxMW", "power it sends with"},
		{sends.GainDBi != nil, "sends.gainDBi", "gain of its sending antenna"},
	} {
		if !need.there {
			s.missing = append(s.missing, verdict.GearValue(s.owner, need.field, need.what))
		}
	}
	return s
}

// checkPower holds whatever transmits against the region's limits. It never says how
// to go beyond one, and names no setting that is not there.
func (p *pair) checkPower() (findings []verdict.Finding) {
	if p.region == nil {
		return []verdict.Finding{verdict.CannotTell(verdict.Antenna, CodeNoRegion, p.Quad.Label(),
			verdict.Missing{
				Of:    "fleet",
				Field: "region",
				Label: "region whose limits hold: keep to the bands and the power your country allows; some powers need a licence",
			})}
	}
	if from := p.region.Source; from.Text == "" || from.Date == "" {
		findings = append(findings, verdict.Finding{Code: CodeUndated, Level: verdict.Caution, Subject: p.region.Label(),
			Source: from.String(),
			Says: fmt.Sprintf("The limits of %s stand without a document and its date. Hold them against what your authority "+
				"publishes today, and note both.", p.region.Label())})
	}
	for _, s := range p.senders() {
		limit := p.region.Limit(s.band)
		missing := s.missing
		if s.band != "" && (limit == nil || limit.MaxEIRPMW == nil) {
			missing = append(missing, verdict.GearValue(&p.region.Entry, "limits", fmt.Sprintf("limit on %s", s.band)))
		}
		if len(missing) > 0 {
			findings = append(findings, verdict.CannotTell(verdict.Antenna, CodeLimit, s.label, missing...))
			continue
		}
		if s.gain == nil {
			continue // no antenna of its own on this band: said at the band
		}
		if f, over := p.overLimit(s, *limit.MaxEIRPMW); over {
			findings = append(findings, f)
		}
	}
	return findings
}

// overLimit says that a sender could radiate more than is allowed, and what of its
// settings does not.
func (p *pair) overLimit(s sender, limit unit.Milliwatts) (verdict.Finding, bool) {
	eirp := func(mw unit.Milliwatts) unit.Milliwatts { return radio.Milliwatts(radio.DBm(mw) + *s.gain) }
	most := eirp(*s.maxMW)
	if !unit.Over(most, limit) {
		return verdict.Finding{}, false
	}
	there, needed := unit.Pair(unit.Milliwatts(tenth(most)), limit)
	f := verdict.Finding{Code: CodeLimit, Level: verdict.Caution, Subject: s.label, Source: p.region.Source.String(),
		Compares: []verdict.Compare{{What: "radiated power", Needed: needed + " at most", There: there}},
		Says: fmt.Sprintf("%s could radiate %s on %s; %s allows %s.", s.label, there, s.band, p.region.Label(),
			needed)}
	var use, least *unit.Milliwatts
	for i := range s.steps {
		step := &s.steps[i]
		if !unit.Over(eirp(*step), limit) && (use == nil || *step > *use) {
			use = step
		}
		if least == nil || *step < *least {
			least = step
		}
	}
	if len(s.steps) == 0 {
		least = s.leastMW
		if least != nil && !unit.Over(eirp(*least), limit) {
			use = least
		}
	}
	switch {
	case use != nil && len(s.steps) > 0:
		f.Says += fmt.Sprintf(" Its setting of %s stays within it: set that.", use)
	case use != nil:
		f.Says += fmt.Sprintf(" Its lowest setting, %s, stays within it; which others there are is not stated.", use)
	case least != nil || s.maxMW != nil && s.field == "sends.maxMW":
		f.Level = verdict.Unfit
		f.Says += " No setting of it that is stated stays within that: it must not be used here like this."
	default:
		f = verdict.CannotTell(verdict.Antenna, CodeLimit, s.label,
			verdict.GearValue(s.owner, "radio.stepsMW", "power settings"))
		f.Says += fmt.Sprintf(" (at its highest it would radiate %s on %s; %s allows %s)", there, s.band,
			p.region.Label(), needed)
	}
	return f, true
}

// tenth rounds a power as it is told.
func tenth(mw unit.Milliwatts) unit.Milliwatts { return unit.Milliwatts(int64(mw*10+0.5)) / 10 }
