package link

import (
	"cmp"
	"slices"
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
	// Updates are what is planned between today and after: "Visor B 4.1 → 4.6".
	Updates []string `json:"updates"`
}

// MapModel is a row or a column, with what of it is owned.
type MapModel struct {
	ID    string   `json:"id"`
	Label string   `json:"label"`
	Owned []string `json:"owned"` // "One of Quern on 1.0.4"
	// Offer is what one costs that nobody owns; absent: one is owned, or no price is stated.
	Offer *gear.Offer `json:"offer,omitempty"`
	// Releases are those its gear lists, the oldest first.
	Releases []firmware.Version `json:"releases"`
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
	// After is how they stand once the updates are done; absent: none is planned, or no pair
	// is owned.
	After     verdict.Level `json:"after,omitempty"`
	AfterSays string        `json:"afterSays,omitempty"`
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

// NewMap draws the map of a library and a fleet; after is the fleet once planned updates are
// done, nil: none are.
func NewMap(lib *gear.Library, f, after *fleet.Index) Map {
	m := Map{Units: []MapModel{}, Goggles: []MapModel{}, Cells: []Cell{}, Updates: []string{}}
	if after != nil {
		m.Updates = updatesOf(lib, f, after)
	}
	for _, g := range gear.All[*gear.Goggles](lib) {
		m.Goggles = append(m.Goggles, mapModel(&g.Device, f))
	}
	for _, u := range gear.All[*gear.AirUnit](lib) {
		m.Units = append(m.Units, mapModel(&u.Device, f))
		for _, g := range m.Goggles {
			c := cellOf(lib, f, u.ID, g.ID)
			if len(m.Updates) > 0 {
				c.After, c.AfterSays = best(lib, after, u.ID, g.ID)
			}
			m.Cells = append(m.Cells, c)
		}
	}
	return m
}

func mapModel(d *gear.Device, f *fleet.Index) MapModel {
	m := MapModel{ID: d.ID, Label: d.Label(), Owned: []string{}, Releases: []firmware.Version{}}
	for i := range d.Releases {
		m.Releases = append(m.Releases, d.Releases[i].Version)
	}
	slices.SortFunc(m.Releases, firmware.Version.Compare)
	for _, kit := range f.PiecesOf(d.ID) {
		on := ", firmware not known"
		if kit.Firmware.Known() {
			on = " on " + string(kit.Firmware)
		}
		m.Owned = append(m.Owned, kit.Label()+on)
	}
	if len(m.Owned) == 0 {
		m.Offer = d.Offer
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
	c.Now, c.NowSays = best(lib, f, unit, goggles)
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

// best says how the pieces that are owned stand, each with what is on it and the mode it is
// in: the best pair of them; nothing where no pair is owned.
func best(lib *gear.Library, f *fleet.Index, unit, goggles string) (level verdict.Level, says string) {
	for _, u := range f.PiecesOf(unit) {
		for _, g := range f.PiecesOf(goggles) {
			of, words := standing(lib, f, u, g)
			if level == "" || level.WorseThan(of) {
				level, says = of, words
			}
			if level == verdict.Fits {
				return level, says
			}
		}
	}
	return level, says
}

// updatesOf are the pieces that carry something else afterwards, or are in another mode.
func updatesOf(lib *gear.Library, f, after *fleet.Index) []string {
	list := []string{}
	for i := range f.Kit {
		was := &f.Kit[i]
		is, ok := after.Piece(was.ID)
		if !ok {
			continue
		}
		if is.Firmware != was.Firmware {
			list = append(list, was.Label()+" "+cmp.Or(string(was.Firmware), "not read")+" → "+string(is.Firmware))
		}
		if is.Mode != was.Mode && is.Mode != "" {
			mode := is.Mode
			if g, ok := gear.Find[*gear.Goggles](lib, is.Model); ok {
				if m, there := g.Mode(is.Mode); there {
					mode = m.Label()
				}
			}
			list = append(list, was.Label()+" to mode "+mode)
		}
	}
	return list
}

// standing is what the gate says of the picture of two pieces of kit as they are.
func standing(lib *gear.Library, f *fleet.Index, u, g *fleet.Kit) (verdict.Level, string) {
	q := &fleet.Quad{ID: "pair", Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: u.ID}, Goggles: &fleet.Slot{Kit: g.ID}}}
	t, _, _ := newSystem(fleet.NowCase(lib, f, q))
	picture := t.checkPair()[0]
	return picture.Level, strings.TrimSuffix(picture.Says, ".")
}
