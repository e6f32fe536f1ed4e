package antenna

import (
	"fmt"
	"slices"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Picture shows what is on each end of the link.
type Picture struct {
	Ends []Side `json:"ends"` // the air unit, then the goggles
	// Goggles is the kit whose antennas can be changed here, with its ports; empty:
	// none is owned.
	Goggles string `json:"goggles,omitempty"`
	Ports   []Port `json:"ports"`
	// Placed is how the quad's antennas are placed, in words.
	Placed string `json:"placed,omitempty"`
}

// Port is a port of goggles: what is on it, and what could be.
type Port struct {
	On      string   `json:"on"` // model; empty: nothing
	Choices []Choice `json:"choices"`
}

// Choice is an antenna that is owned: in the drawer, or on other goggles.
type Choice struct {
	Model string `json:"model"`
	From  string `json:"from,omitempty"` // goggles it is on; empty: the drawer
	Label string `json:"label"`
}

// Side is one end.
type Side struct {
	Label    string      `json:"label"`
	Bands    string      `json:"bands"` // in words; empty: not stated
	Uses     []DrawnBand `json:"uses"`  // the bands of its port
	Wanted   *int        `json:"wanted,omitempty"`
	Antennas []Drawn     `json:"antennas"`
}

// Drawn is one antenna.
type Drawn struct {
	Label string        `json:"label"`
	Hand  string        `json:"hand"` // right-hand, left-hand or linear; empty: not stated
	Beam  *unit.Degrees `json:"beam,omitempty"`
	// Pattern is how it weakens off its strongest direction, every ten degrees up to
	// 180, in decibels; PatternFrom says what that is taken from.
	Pattern     []unit.Decibels `json:"pattern,omitempty"`
	PatternFrom string          `json:"patternFrom,omitempty"`
	Bands       []DrawnBand     `json:"bands"`
}

// DrawnBand is a band of an antenna and whether its end uses it.
type DrawnBand struct {
	Band    gear.Band      `json:"band"`
	Label   string         `json:"label"`
	GainDBi *unit.Decibels `json:"gainDBi,omitempty"`
	Used    bool           `json:"used"`
	// FromMHz and ToMHz are its ends, as stated for the antenna or usual for the band.
	FromMHz unit.Megahertz `json:"fromMHz"`
	ToMHz   unit.Megahertz `json:"toMHz"`
}

// Draw makes the picture of a fit; an end that is not there is left out.
func Draw(c fleet.Case) Picture {
	p := newPair(c)
	pic := Picture{Ends: []Side{}, Ports: []Port{}}
	if p.hasUnit {
		pic.Ends = append(pic.Ends, p.unit.draw())
	}
	if p.hasGoggles {
		pic.Ends = append(pic.Ends, p.gogglesSide.draw())
		pic.Goggles, pic.Ports = p.ports()
	}
	pic.Placed = placed(c.Fit.Antennas)
	return pic
}

// placed says how antennas stand and what that means (common practice).
func placed(a *fleet.Antennas) string {
	if a == nil || a.Placed == "" {
		return ""
	}
	says := map[string]string{
		"clear":     "standing clear: they hear best, and a crash takes them first",
		"protected": "protected: they survive a crash, and the frame shades them where it lies between",
	}[a.Placed]
	if a.Why != "" {
		says += "; " + a.Why
	}
	return says
}

// ports lists the antenna ports of the goggles with what is owned for them.
func (p *pair) ports() (goggles string, ports []Port) {
	ports = []Port{}
	kit, owned := p.Fleet.Piece(p.Fit.Goggles.Kit)
	if !owned || p.goggles.Receive == nil || p.goggles.Receive.Antennas == nil {
		return "", ports
	}
	choices := []Choice{}
	for _, a := range gear.All[*gear.Antenna](p.Library) {
		if n := p.Fleet.SpareCount(a.ID, ""); n > 0 && p.takes(kit, a) {
			choices = append(choices, Choice{Model: a.ID, Label: fmt.Sprintf("%s, %d in the drawer", a.Label(), n)})
		}
	}
	for i := range p.Fleet.Kit {
		other := &p.Fleet.Kit[i]
		if other.ID == kit.ID {
			continue
		}
		for n, id := range other.Antennas {
			a, ok := gear.Find[*gear.Antenna](p.Library, id)
			if ok && p.takes(kit, a) && !slices.Contains(other.Antennas[:n], id) {
				choices = append(
					choices,
					Choice{Model: id, From: other.ID, Label: fmt.Sprintf("%s off %s, in exchange", a.Label(), other.Label())},
				)
			}
		}
	}
	for i := range *p.goggles.Receive.Antennas {
		port := Port{Choices: choices}
		if i < len(kit.Antennas) {
			port.On = kit.Antennas[i]
		}
		ports = append(ports, port)
		if i >= len(kit.Antennas) {
			break // they are filled one after the other
		}
	}
	return kit.ID, ports
}

// takes says whether an antenna goes onto goggles, through the adapter on them if
// there is one.
func (p *pair) takes(kit *fleet.Kit, a *gear.Antenna) bool {
	adapter, ok := gear.Find[*gear.Adapter](p.Library, kit.Adapter)
	return a.Onto(p.goggles.Receive) || ok && adapter.Joins(a, p.goggles.Receive)
}

func (e *end) draw() Side {
	s := Side{Label: e.label, Antennas: []Drawn{}, Uses: []DrawnBand{}}
	var uses []gear.Band
	if e.port != nil {
		uses = e.port.Bands
		s.Wanted = e.port.Antennas
		if len(e.port.Bands) > 0 {
			s.Bands = gear.BandWords(e.port.Bands)
		}
		for _, b := range e.port.Bands {
			drawn := ends(b)
			drawn.Used = true
			s.Uses = append(s.Uses, drawn)
		}
	}
	for _, a := range e.antennas {
		d := Drawn{Label: a.Label(), Beam: a.BeamDeg, Bands: []DrawnBand{}}
		d.Pattern, d.PatternFrom = drawPattern(a)
		if a.Polarisation.Known() {
			d.Hand = handWords(a.Polarisation)
		}
		for _, b := range a.Bands {
			drawn := ends(b.Band)
			drawn.GainDBi, drawn.Used = b.GainDBi, slices.ContainsFunc(uses, b.Band.Meets)
			if b.FromMHz != nil && b.ToMHz != nil {
				drawn.FromMHz, drawn.ToMHz = *b.FromMHz, *b.ToMHz
			}
			d.Bands = append(d.Bands, drawn)
		}
		s.Antennas = append(s.Antennas, d)
	}
	return s
}

// ends is a band with its usual ends.
func ends(b gear.Band) DrawnBand {
	low, high, _ := b.Ends()
	return DrawnBand{Band: b, Label: b.String(), FromMHz: low, ToMHz: high}
}
