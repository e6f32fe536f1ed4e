package antenna

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
)

// Row is one part of the link budget, now and next; absent: not known.
type Row struct {
	What   string         `json:"what"`
	NowDB  *unit.Decibels `json:"nowDB,omitempty"`
	NextDB *unit.Decibels `json:"nextDB,omitempty"`
}

// Budget compares the link now and next on one band.
type Budget struct {
	Band  gear.Band `json:"band"`
	Label string    `json:"label"` // the band as it is read
	Rows  []Row     `json:"rows"`
	// ChangeDB is the sum of what is known on both sides; absent where nothing is.
	ChangeDB *unit.Decibels `json:"changeDB,omitempty"`
	Factor   *float64       `json:"factor,omitempty"` // of today's range in free space
	// BehindFactor is the same straight behind the goggles; absent: not known.
	BehindFactor *float64 `json:"behindFactor,omitempty"`
	Says         string   `json:"says"`
	LeftOut      []string `json:"leftOut"` // what could not be compared
}

// Compare holds the link of the next fit against today's, band by band. Only what
// is known on both sides is compared, and the rest named. It is empty where
// either side has no link.
func Compare(lib *gear.Library, f *fleet.Index, q *fleet.Quad) []Budget {
	return Between(fleet.NowCase(lib, f, q), fleet.NewCase(lib, f, q))
}

// Between holds one link against another, which takes its place, as Compare does.
func Between(before, after fleet.Case) []Budget {
	now, next := newPair(before), newPair(after)
	budgets := []Budget{}
	for _, p := range []*pair{now, next} {
		if !p.hasUnit || !p.hasGoggles || len(p.unit.missing)+len(p.gogglesSide.missing) > 0 {
			return budgets
		}
	}
	for _, b := range next.bands() {
		budgets = append(budgets, compareOn(b, now, next))
	}
	return budgets
}

// against is what a link would gain over another on the bands both use, in words
// for a fix: "+2.1 dB"; empty where nothing can be compared.
func (p *pair) against(before *pair) string {
	var words []string
	if len(p.unit.missing)+len(p.gogglesSide.missing)+len(before.unit.missing)+len(before.gogglesSide.missing) > 0 ||
		!p.hasGoggles ||
		!before.hasGoggles {
		return ""
	}
	for _, b := range p.bands() {
		if change := compareOn(b, before, p).ChangeDB; change != nil {
			words = append(words, fmt.Sprintf("%+.1f dB on %s", float64(*change), b))
		}
	}
	return strings.Join(words, ", ")
}

// way is a link by the antennas that do best on a band, x on the unit and y on the goggles.
type way struct {
	*pair
	x, y *gear.Antenna
}

// terms are what adds up to the strength of a link; nil where a term is not stated.
var terms = []struct {
	what string
	of   func(way, gear.Band) *unit.Decibels
}{
	{"transmit power", func(p way, b gear.Band) *unit.Decibels { return p.power(b, p.x) }},
	{"antenna of the unit", func(p way, b gear.Band) *unit.Decibels { return gain(p.x, b) }},
	{"its lead and adapter", func(p way, _ gear.Band) *unit.Decibels { return p.unit.lost(p.x) }},
	{"polarisation", func(p way, _ gear.Band) *unit.Decibels { return mismatch(p.x, p.y) }},
	{"antenna of the goggles", func(p way, b gear.Band) *unit.Decibels { return gain(p.y, b) }},
	{"their lead and adapter", func(p way, _ gear.Band) *unit.Decibels { return p.gogglesSide.lost(p.y) }},
	{"sensitivity", func(p way, _ gear.Band) *unit.Decibels {
		if s := p.gogglesSide.port.SensitivityDBm; s != nil {
			return new(-*s)
		}
		return nil
	}},
}

// compareOn holds the link as planned against today's, on one band.
func compareOn(b gear.Band, now, next *pair) Budget {
	out := Budget{Band: b, Label: b.String(), LeftOut: []string{}, Rows: []Row{}}
	switch {
	case next.unit.best(b) == nil || next.gogglesSide.best(b) == nil:
		out.Says = fmt.Sprintf("On %s nothing is heard: an end has no antenna made for it.", b)
		return out
	case !slices.Contains(now.bands(), b) || now.unit.best(b) == nil || now.gogglesSide.best(b) == nil:
		out.Says = fmt.Sprintf("%s is new: today's link does not use it.", b)
		return out
	}
	was, is := way{pair: now}, way{pair: next}
	was.x, was.y = now.bestPair(b)
	is.x, is.y = next.bestPair(b)
	var change unit.Decibels
	known := false
	for _, t := range terms {
		row := Row{What: t.what, NowDB: t.of(was, b), NextDB: t.of(is, b)}
		out.Rows = append(out.Rows, row)
		if row.NowDB == nil || row.NextDB == nil {
			out.LeftOut = append(out.LeftOut, t.what)
			continue
		}
		known = true
		change += *row.NextDB - *row.NowDB
	}
	if known {
		out.ChangeDB, out.Factor = &change, new(radio.RangeFactor(change))
		out.BehindFactor = behindFactor(b, change, now, next)
	}
	out.Says = out.sentence(next)
	return out
}

// behindFactor is the range straight behind the goggles as a share of today's
// there, given the change in front; nil where a pattern is not stated.
func behindFactor(b gear.Band, change unit.Decibels, now, next *pair) *float64 {
	was, known := now.gogglesSide.behind(b)
	does, also := next.gogglesSide.behind(b)
	front, today := gain(next.gogglesSide.best(b), b), gain(now.gogglesSide.best(b), b)
	if !known || !also || front == nil || today == nil {
		return nil
	}
	return new(radio.RangeFactor(change - (*front - *today) + does - was))
}

// power is the most the unit may send: its own, or what the region leaves it.
func (p *pair) power(b gear.Band, x *gear.Antenna) *unit.Decibels {
	r := p.airUnit.Radio
	if r == nil || r.MaxMW == nil {
		return nil
	}
	power := radio.DBm(*r.MaxMW)
	if p.region != nil {
		limit, g := p.region.Limit(b), gain(x, b)
		if limit != nil && limit.MaxEIRPMW != nil && g != nil {
			power = min(power, radio.DBm(*limit.MaxEIRPMW)-*g)
		}
	}
	return &power
}

func gain(a *gear.Antenna, b gear.Band) *unit.Decibels {
	if a == nil || a.On(b) == nil {
		return nil
	}
	return a.On(b).GainDBi
}

func (e *end) lost(a *gear.Antenna) *unit.Decibels {
	if a == nil {
		return nil
	}
	loss, known := e.chain(a)
	if !known {
		return nil
	}
	return new(-loss)
}

func mismatch(x, y *gear.Antenna) *unit.Decibels {
	if x == nil || y == nil || !x.Polarisation.Known() || !y.Polarisation.Known() {
		return nil
	}
	return new(-radio.PolarisationLoss(x.Polarisation, y.Polarisation))
}

func (b *Budget) sentence(next *pair) string {
	if b.Factor == nil {
		return fmt.Sprintf("On %s nothing can be compared.", b.Band)
	}
	says := fmt.Sprintf("On %s about %.1f of today's range in free space (%+.1f dB)", b.Band, *b.Factor,
		float64(*b.ChangeDB))
	if math.Abs(float64(*b.ChangeDB)) < 0.05 {
		says = fmt.Sprintf("On %s the range of today", b.Band)
	}
	switch {
	case b.BehindFactor != nil && math.Abs(*b.BehindFactor-*b.Factor) > 0.05:
		says += fmt.Sprintf(" in front, about %.1f of today's behind", *b.BehindFactor)
	case next.gogglesSide.directed():
		says += " in front, picture lost behind"
	}
	if len(b.LeftOut) > 0 {
		says += "; not known, and left out: " + strings.Join(b.LeftOut, ", ")
	}
	return says + "."
}
