package link

import (
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// Map is every air unit by every pair of goggles, as models, with what is stated of each
// pair.
type Map struct {
	Units   []MapModel `json:"units"`
	Goggles []MapModel `json:"goggles"`
	Cells   []Cell     `json:"cells"` // row by row
}

// MapModel is a row or a column, with what of it is owned.
type MapModel struct {
	ID    string   `json:"id"`
	Label string   `json:"label"`
	Owned []string `json:"owned"` // "One of Quern on 1.0.4"
}

// Stated is what the statements about a pair come to.
type Stated string

// What they come to.
const (
	StatedAny    Stated = "any"     // they link on any release
	StatedSome   Stated = "some"    // on some
	StatedNever  Stated = "never"   //
	StatedNobody Stated = "nobody"  // nobody has said anything
	StatedAtOdds Stated = "at-odds" // the statements contradict each other
)

// Cell is one pair of models.
type Cell struct {
	Unit       string      `json:"unit"`
	Goggles    string      `json:"goggles"`
	Stated     Stated      `json:"stated" enum:"any,some,never,nobody,at-odds"`
	Says       string      `json:"says"`
	Statements []Statement `json:"statements"`
	// Now is how the pieces owned stand today, the best pair of them; absent: no pair is owned.
	Now     verdict.Level `json:"now,omitempty"`
	NowSays string        `json:"nowSays,omitempty"`
}

// Statement is one statement about a pair, in words.
type Statement struct {
	ID       string   `json:"id"`
	Says     string   `json:"says"`
	Sticks   []string `json:"sticks"` // controllers that reach the flight board through the unit
	SticksIn string   `json:"sticksIn"`
	Gives    []string `json:"gives"`
	Source   string   `json:"source"`
}

// NewMap draws the map of a library and a fleet.
func NewMap(lib *gear.Library, f *fleet.Index) Map {
	m := Map{Units: []MapModel{}, Goggles: []MapModel{}, Cells: []Cell{}}
	for _, g := range gear.All[*gear.Goggles](lib) {
		m.Goggles = append(m.Goggles, mapModel(&g.Device, f))
	}
	for _, u := range gear.All[*gear.AirUnit](lib) {
		m.Units = append(m.Units, mapModel(&u.Device, f))
		for _, g := range m.Goggles {
			m.Cells = append(m.Cells, cellOf(lib, f, u.ID, g.ID))
		}
	}
	return m
}

func mapModel(d *gear.Device, f *fleet.Index) MapModel {
	m := MapModel{ID: d.ID, Label: d.Label(), Owned: []string{}}
	for _, kit := range f.PiecesOf(d.ID) {
		on := ", firmware not known"
		if kit.Firmware.Known() {
			on = " on " + string(kit.Firmware)
		}
		m.Owned = append(m.Owned, kit.Label()+on)
	}
	return m
}

func cellOf(lib *gear.Library, f *fleet.Index, unit, goggles string) Cell {
	c := Cell{Unit: unit, Goggles: goggles, Statements: []Statement{}}
	list := lib.Pairings(unit, goggles)
	for _, p := range list {
		c.Statements = append(c.Statements, statementOf(lib, p))
	}
	c.Stated, c.Says = stated(lib, list)
	if odds := lib.Contradiction(unit, goggles); odds != "" {
		c.Stated, c.Says = StatedAtOdds, odds
	}
	c.now(lib, f)
	return c
}

// stated is what statements come to, in short.
func stated(lib *gear.Library, list []*gear.Pairing) (Stated, string) {
	if len(list) == 0 {
		return StatedNobody, "nobody has said"
	}
	var ways []string
	for _, p := range list {
		if p.Never {
			return StatedNever, "never"
		}
		ways = append(ways, rangesOf(lib, p))
	}
	for _, p := range list {
		if p.AirFirmware.IsAny() && p.GogglesFirmware.IsAny() && p.Mode == "" {
			return StatedAny, "any to any"
		}
	}
	return StatedSome, strings.Join(ways, "; or ")
}

// rangesOf says on what a pair links: the releases of both, and the mode.
func rangesOf(lib *gear.Library, p *gear.Pairing) string {
	var parts []string
	for _, end := range []struct {
		of string
		r  firmware.Range
	}{{"unit", p.AirFirmware}, {"goggles", p.GogglesFirmware}} {
		if !end.r.IsAny() {
			parts = append(parts, end.of+" "+end.r.String())
		}
	}
	if p.Mode != "" {
		name := p.Mode
		if g, ok := gear.Find[*gear.Goggles](lib, p.Goggles); ok {
			if mode, there := g.Mode(p.Mode); there {
				name = mode.Label()
			}
		}
		parts = append(parts, "mode "+name)
	}
	if len(parts) == 0 {
		return "any to any"
	}
	return strings.Join(parts, ", ")
}

func statementOf(lib *gear.Library, p *gear.Pairing) Statement {
	s := Statement{ID: p.ID, Says: rangesOf(lib, p), Sticks: []string{}, Gives: append([]string{}, p.Features...),
		Source: p.Source.String()}
	if p.Never {
		s.Says = "they never link"
		return s
	}
	for _, c := range p.Controllers {
		on := ""
		if !c.Firmware.IsAny() {
			on = " on " + c.Firmware.String()
		}
		s.Sticks = append(s.Sticks, lib.Label(c.ID)+on)
	}
	switch {
	case p.Controllers == nil:
		s.SticksIn = "which controllers come through is not stated"
	case len(p.Controllers) == 0:
		s.SticksIn = "no controller comes through: a receiver of its own is needed"
	default:
		s.SticksIn = "sticks through " + strings.Join(s.Sticks, ", ")
	}
	return s
}

// now says how the pieces that are owned stand, each with what is on it and the mode it is in.
func (c *Cell) now(lib *gear.Library, f *fleet.Index) {
	for _, u := range f.PiecesOf(c.Unit) {
		for _, g := range f.PiecesOf(c.Goggles) {
			level, says := standing(lib, f, u, g)
			if c.Now == "" || c.Now.WorseThan(level) {
				c.Now, c.NowSays = level, says
			}
			if level == verdict.Fits {
				return
			}
		}
	}
}

// standing is what the gate says of the picture of two pieces of kit as they are.
func standing(lib *gear.Library, f *fleet.Index, u, g *fleet.Kit) (verdict.Level, string) {
	q := &fleet.Quad{ID: "pair", Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: u.ID}, Goggles: &fleet.Slot{Kit: g.ID}}}
	t, _, _ := newSystem(fleet.NowCase(lib, f, q))
	picture := t.checkPair()[0]
	return picture.Level, strings.TrimSuffix(picture.Says, ".")
}
