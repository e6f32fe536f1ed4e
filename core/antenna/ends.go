// Package antenna is the gate that asks whether the antennas at both ends fit the
// system: band, polarisation and hand, number, plug, beam and placing, and what
// the link gains or loses against today.
package antenna

import (
	"slices"
	"strings"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/radio"
	"yokeswap/core/unit"
	"yokeswap/core/verdict"
)

// end is one end of the link: its port and what is on it.
type end struct {
	label    string
	port     *gear.AntennaPort
	antennas []*gear.Antenna
	adapter  *gear.Adapter
	missing  []verdict.Missing
}

// pair is both ends of one fit.
type pair struct {
	fleet.Case
	airUnit *gear.AirUnit
	air     fleet.State
	goggles *gear.Goggles
	unit    end
	eyes    end
	hasUnit bool
	hasEyes bool
	region  *gear.Region
}

func newPair(c fleet.Case) *pair {
	p := &pair{Case: c}
	var eyes fleet.State
	p.airUnit, p.air, p.hasUnit = c.AirUnit()
	p.goggles, eyes, p.hasEyes = c.Goggles()
	p.region, _ = gear.Find[*gear.Region](c.Library, c.Fleet.Region)
	if p.hasUnit {
		p.unit = p.unitEnd()
	}
	if p.hasEyes {
		p.eyes = p.gogglesEnd(eyes)
	}
	return p
}

func (p *pair) unitEnd() end {
	e := end{label: p.airUnit.Label()}
	if r := p.airUnit.Radio; r != nil {
		e.port = &r.AntennaPort
	}
	e.missing = portMissing(e.port, &p.airUnit.Entry, "radio")
	a := p.Fit.Antennas
	if a == nil || len(a.Models) == 0 {
		e.missing = append(e.missing, verdict.FitValue(p.Case, "antennas.models", "antennas of "+p.Quad.Label()))
		return e
	}
	e.put(p.Library, a.Models, a.Adapter)
	return e
}

func (p *pair) gogglesEnd(s fleet.State) end {
	e := end{label: s.Label, port: p.goggles.Receive}
	e.missing = portMissing(e.port, &p.goggles.Entry, "receive")
	kit, owned := p.Fleet.Piece(s.KitID)
	if !owned || len(kit.Antennas) == 0 {
		e.missing = append(e.missing, verdict.Missing{Of: "kit", ID: s.KitID, Field: "antennas", Label: "antennas on " + s.Label})
		return e
	}
	e.put(p.Library, kit.Antennas, kit.Adapter)
	return e
}

func (e *end) put(lib *gear.Library, models []string, adapter string) {
	for _, model := range models {
		if a, ok := gear.Find[*gear.Antenna](lib, model); ok {
			e.antennas = append(e.antennas, a)
			if len(a.Bands) == 0 {
				e.missing = append(e.missing, verdict.GearValue(&a.Entry, "bands", "bands"))
			}
			if !a.Polarisation.Known() {
				e.missing = append(e.missing, verdict.GearValue(&a.Entry, "polarisation", "polarisation"))
			}
		}
	}
	e.adapter, _ = gear.Find[*gear.Adapter](lib, adapter)
}

func portMissing(p *gear.AntennaPort, of *gear.Entry, field string) (missing []verdict.Missing) {
	if p == nil || len(p.Bands) == 0 {
		missing = append(missing, verdict.GearValue(of, field+".bands", "radio bands"))
	}
	if p == nil || p.Antennas == nil {
		missing = append(missing, verdict.GearValue(of, field+".antennas", "number of antennas"))
	}
	return missing
}

// bands that both ends work on, in the unit's order.
func (p *pair) bands() (both []gear.Band) {
	for _, b := range p.unit.port.Bands {
		if slices.Contains(p.eyes.port.Bands, b) {
			both = append(both, b)
		}
	}
	return both
}

// best is the antenna of an end that does most on a band; nil where none is made
// for it.
func (e *end) best(b gear.Band) (best *gear.Antenna) {
	for _, a := range e.antennas {
		on := a.On(b)
		if on == nil {
			continue
		}
		if best == nil || on.GainDBi != nil && (best.On(b).GainDBi == nil || *on.GainDBi > *best.On(b).GainDBi) {
			best = a
		}
	}
	return best
}

// chain is the loss between an antenna and its port; false where some of it is
// not stated.
func (e *end) chain(a *gear.Antenna) (unit.Decibels, bool) {
	loss, known := a.LeadLoss()
	if e.adapter != nil {
		if e.adapter.LossDB == nil {
			return loss, false
		}
		loss += *e.adapter.LossDB
	}
	return loss, known
}

func names(bands []gear.Band) string {
	list := make([]string, len(bands))
	for i, b := range bands {
		list[i] = string(b)
	}
	return strings.Join(list, " and ") + " GHz"
}

// handWords names a polarisation.
func handWords(p radio.Polarisation) string {
	switch p {
	case radio.RHCP:
		return "right-hand"
	case radio.LHCP:
		return "left-hand"
	}
	return "linear"
}
