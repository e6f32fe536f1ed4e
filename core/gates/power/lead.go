package power

import (
	"math"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// leadAt is a lead with where its values stand, to name those that are missing.
type leadAt struct {
	*fleet.Lead
	quadID, field, label string
}

// missing lists the values of a lead that are not stated.
func (l *leadAt) missing() (list []verdict.Missing) {
	if l.MM == nil {
		list = append(list, verdict.Missing{Of: "quad", ID: l.quadID, Field: l.field + ".mm", Label: "length of " + l.label})
	}
	if l.AWG == nil {
		list = append(list, verdict.Missing{Of: "quad", ID: l.quadID, Field: l.field + ".awg", Label: "gauge of " + l.label})
	}
	return list
}

// packLead is the lead from the pack; nil where nothing is said of it.
func (s supply) packLead() *leadAt {
	if s.Fit.PackLead == nil {
		return nil
	}
	return &leadAt{s.Fit.PackLead, s.Quad.ID, s.FitName + ".packLead", "the pack lead of " + s.Quad.Label()}
}

// leadOf is the lead of a part; nil where nothing is said of it.
func (s supply) leadOf(node string) *leadAt {
	for i := range s.Fit.Feeds {
		if f := &s.Fit.Feeds[i]; f.To == node && f.Lead != nil {
			return &leadAt{f.Lead, s.Quad.ID, s.FitName + ".feeds." + node + ".lead", "the lead to " + s.label(node)}
		}
	}
	return nil
}

// behindLead takes the drop in a part's own lead off the lowest it sees. At the
// top it draws little: that stays.
func (s supply) behindLead(node string, e Envelope) Envelope {
	lead := s.leadOf(node)
	if lead == nil || e.Lowest == nil {
		return e
	}
	missing := lead.missing()
	watts, unknown := s.peakPower(node, s.consumers(), maxDepth)
	if missing = append(missing, unknown...); len(missing) > 0 {
		e.Lowest, e.lowestMost, e.noLowest = nil, nil, missing
		return e
	}
	resistance, _ := lead.Resistance()
	e.lowestMost = new(atEnd(*e.bottom(), resistance, watts))
	e.Lowest = new(atEnd(*e.Lowest, resistance, watts))
	return e
}

// atEnd is the voltage a constant-power load sees behind a resistance: the upper
// root of v² − v·source + P·R = 0 (Kirchhoff's and Ohm's laws). Zero where the
// lead cannot carry the power at all.
func atEnd(source unit.Volts, r unit.Milliohms, load unit.Watts) unit.Volts {
	under := float64(source)*float64(source) - 4*float64(load)*float64(r)/1000
	if under < 0 {
		return 0
	}
	return unit.Volts((float64(source) + math.Sqrt(under)) / 2)
}
