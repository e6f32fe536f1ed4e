package antenna

import (
	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/unit"
)

// Picture shows what is on each end of the link.
type Picture struct {
	Ends []Side `json:"ends"` // the air unit, then the goggles
}

// Side is one end.
type Side struct {
	Label    string  `json:"label"`
	Bands    string  `json:"bands"` // in words; empty: not stated
	Wanted   *int    `json:"wanted,omitempty"`
	Antennas []Drawn `json:"antennas"`
}

// Drawn is one antenna.
type Drawn struct {
	Label string        `json:"label"`
	Hand  string        `json:"hand"` // right-hand, left-hand or linear; empty: not stated
	Beam  *unit.Degrees `json:"beam,omitempty"`
	Bands []DrawnBand   `json:"bands"`
}

// DrawnBand is a band of an antenna and whether its end uses it.
type DrawnBand struct {
	Band    gear.Band      `json:"band"`
	GainDBi *unit.Decibels `json:"gainDBi,omitempty"`
	Used    bool           `json:"used"`
}

// Draw makes the picture of a fit; an end that is not there is left out.
func Draw(c fleet.Case) Picture {
	p := newPair(c)
	pic := Picture{Ends: []Side{}}
	if p.hasUnit {
		pic.Ends = append(pic.Ends, p.unit.draw())
	}
	if p.hasEyes {
		pic.Ends = append(pic.Ends, p.eyes.draw())
	}
	return pic
}

func (e *end) draw() Side {
	s := Side{Label: e.label, Antennas: []Drawn{}}
	used := map[gear.Band]bool{}
	if e.port != nil {
		s.Wanted = e.port.Antennas
		if len(e.port.Bands) > 0 {
			s.Bands = names(e.port.Bands)
		}
		for _, b := range e.port.Bands {
			used[b] = true
		}
	}
	for _, a := range e.antennas {
		d := Drawn{Label: a.Label(), Beam: a.BeamDeg, Bands: []DrawnBand{}}
		if a.Polarisation.Known() {
			d.Hand = handWords(a.Polarisation)
		}
		for _, b := range a.Bands {
			d.Bands = append(d.Bands, DrawnBand{b.Band, b.GainDBi, used[b.Band]})
		}
		s.Antennas = append(s.Antennas, d)
	}
	return s
}
