// Package antenna is the gate that asks whether the antennas at both ends fit the
// system: band, polarisation and hand, number, plug, beam and placing, and what
// the link gains or loses against today.
package antenna

import (
	"math"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
)

// end is one end of the link: its port and what is on it.
type end struct {
	label    string
	port     *gear.AntennaPort
	antennas []*gear.Antenna
	adapter  *gear.Adapter
	missing  []verdict.Missing
	owner    *gear.Entry // on whose sheet the port stands, and where
	field    string
}

// pair is both ends of one fit.
type pair struct {
	fleet.Case
	airUnit     *gear.AirUnit
	air         fleet.State
	goggles     *gear.Goggles
	unit        end
	gogglesSide end
	hasUnit     bool
	hasGoggles  bool
	region      *gear.Region
}

func newPair(c fleet.Case) *pair {
	p := &pair{Case: c}
	var gogglesSide fleet.State
	p.airUnit, p.air, p.hasUnit = c.AirUnit()
	p.goggles, gogglesSide, p.hasGoggles = c.Goggles()
	p.region, _ = gear.Find[*gear.Region](c.Library, c.Fleet.Region)
	if p.hasUnit {
		p.unit = p.unitEnd()
	}
	if p.hasGoggles {
		p.gogglesSide = p.gogglesEnd(gogglesSide)
	}
	return p
}

func (p *pair) unitEnd() end {
	e := end{label: p.airUnit.Label(), owner: &p.airUnit.Entry, field: "radio"}
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
	e := end{label: s.Label, port: p.goggles.Receive, owner: &p.goggles.Entry, field: "receive"}
	e.missing = portMissing(e.port, &p.goggles.Entry, "receive")
	kit, owned := p.Fleet.Piece(s.KitID)
	if boxed := p.Library.BoxedAntennas(p.goggles.ID); !owned && len(boxed) > 0 {
		e.put(p.Library, boxed, "")
		return e
	}
	if !owned {
		e.missing = append(e.missing, verdict.GearValue(&p.goggles.Entry, "box", "antennas that come in its box"))
		return e
	}
	if len(kit.Antennas) == 0 {
		e.missing = append(e.missing, verdict.Missing{
			Of:    "kit",
			ID:    s.KitID,
			Field: "antennas",
			Label: "antennas on " + s.Label,
		})
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
func (p *pair) bands() []gear.Band { return p.unit.port.Shared(p.gogglesSide.port) }

// used are the bands an end is judged by: those the link uses; its own where the ends
// have none in common.
func (p *pair) used(e *end) []gear.Band {
	if p.hasUnit && p.hasGoggles && p.unit.port != nil && p.gogglesSide.port != nil {
		if both := p.bands(); len(both) > 0 {
			return both
		}
	}
	return e.port.Bands
}

// bestPair is the pair of antennas that does most on a band: gains, losses on the way
// and hands taken together. Where gains are not stated it is the best of each end.
func (p *pair) bestPair(b gear.Band) (x, y *gear.Antenna) {
	x, y = p.unit.best(b), p.gogglesSide.best(b)
	top := unit.Decibels(math.Inf(-1))
	for _, own := range p.unit.antennas {
		for _, far := range p.gogglesSide.antennas {
			g, h := gain(own, b), gain(far, b)
			if g == nil || h == nil || !own.Polarisation.Known() || !far.Polarisation.Known() {
				continue
			}
			sum := *g + *h - radio.PolarisationLoss(own.Polarisation, far.Polarisation)
			if loss, known := p.unit.chain(own); known {
				sum -= loss
			}
			if loss, known := p.gogglesSide.chain(far); known {
				sum -= loss
			}
			if sum > top {
				x, y, top = own, far, sum
			}
		}
	}
	return x, y
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
