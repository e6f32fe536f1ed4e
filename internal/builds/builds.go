// Package builds makes whole fits of quads for the tests: random, but weighted
// towards the corners, where verdicts go wrong: limits that are met exactly, two of
// everything, one thing missing, the wrong end, both ends.
//
// A build is drawn from a library, so that it holds together as a file would: its
// wires end on pins and pads there are, its feeds come from somewhere. What it says
// may still burn, fall or break the law; that is for the gates to find.
package builds

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// Maker draws builds from a library and a fleet.
type Maker struct {
	*rand.Rand
	lib   *gear.Library
	fleet *fleet.Index
	parts *rand.Rand // what is wired beside the air unit is drawn from
}

// New makes builds that a seed decides.
func New(seed uint64, lib *gear.Library, f *fleet.Index) *Maker {
	return &Maker{
		rand.New(rand.NewPCG(seed, seed^0x9e3779b97f4a7c15)),
		lib,
		f,
		rand.New(rand.NewPCG(seed, 0x77697265)),
	}
}

// odds says yes once in so many times.
func (m *Maker) odds(of int) bool { return m.IntN(of) == 0 }

func one[T any](m *Maker, list []T) (none T) {
	if len(list) == 0 {
		return none
	}
	return list[m.IntN(len(list))]
}

// Quad draws a quad with a fit now and a fit next that differs in a few things.
func (m *Maker) Quad(id string) fleet.Quad {
	q := fleet.Quad{ID: id, Now: m.Fit()}
	if !m.odds(3) {
		q.FullA = new(one(m, []unit.Amps{5, 20, 38, 62, 88, 140}))
	}
	if !m.odds(3) {
		q.AUWG = new(unit.Grams(30 + m.IntN(1200)))
	}
	next := m.Fit()
	if m.odds(2) { // much stays
		next.None = q.Now.None
		next.Board, next.Pack, next.Frame = q.Now.Board, q.Now.Pack, q.Now.Frame
		m.supply(&next)
		m.wire(&next)
		m.mount(&next)
		m.others(&next)
	}
	q.Next = &next
	for _, f := range []*fleet.Fit{&next, &q.Now} {
		if m.odds(9) {
			f.StandoffCutMM = new(one(m, []unit.Millimetres{5, 24, 28, 40}))
		}
	}
	return q
}

// Alone draws a build into a fleet of its own, with the kit and spares of another: in
// that one the demo's quads, or other builds, have a claim on every piece, and a link
// gate that says so says nothing else.
func Alone(seed uint64, lib *gear.Library, f *fleet.Fleet) *fleet.Index {
	own := *f
	own.Courses, own.TestFlights, own.Tasks = nil, nil, nil // flown by quads that are not there
	own.Quads = []fleet.Quad{New(seed, lib, fleet.NewIndex(f)).Quad(fmt.Sprintf("build-%d", seed))}
	return fleet.NewIndex(&own)
}

// Fit draws a fit.
func (m *Maker) Fit() fleet.Fit {
	f := fleet.Fit{}
	m.devices(&f)
	if b := one(m, gear.All[*gear.Board](m.lib)); b != nil && !m.odds(8) {
		f.Board = b.ID
	} else if m.odds(2) {
		f.None = append(f.None, fleet.NoBoard)
	}
	if p := one(m, gear.All[*gear.Pack](m.lib)); p != nil && !m.odds(12) {
		f.Pack = p.ID
	}
	m.loads(&f)
	m.supply(&f)
	m.wire(&f)
	m.antennas(&f)
	m.mount(&f)
	m.flight(&f)
	m.others(&f)
	return f
}

func (m *Maker) devices(f *fleet.Fit) {
	kit := func(is func(gear.Item) bool) (ids []string) {
		for _, k := range m.fleet.Kit {
			if item, ok := m.lib.Item(k.Model); ok && is(item) {
				ids = append(ids, k.ID)
			}
		}
		return ids
	}
	slot := func(ids, models []string) *fleet.Slot {
		if m.odds(15) || len(ids) == 0 {
			if len(models) == 0 || m.odds(2) {
				return nil
			}
			return &fleet.Slot{Model: one(m, models)}
		}
		return &fleet.Slot{Kit: one(m, ids)}
	}
	f.AirUnit = slot(kit(func(i gear.Item) bool { _, ok := i.(*gear.AirUnit); return ok }), ids[*gear.AirUnit](m))
	f.Goggles = slot(kit(func(i gear.Item) bool { _, ok := i.(*gear.Goggles); return ok }), ids[*gear.Goggles](m))
	if m.odds(3) {
		f.Receiver = one(m, ids[*gear.Receiver](m))
	} else {
		f.Controller = slot(kit(func(i gear.Item) bool { _, ok := i.(*gear.Controller); return ok }), nil)
	}
	for _, s := range []*fleet.Slot{f.AirUnit, f.Goggles} {
		if s == nil || !m.odds(2) {
			continue
		}
		model := s.Model
		if k, ok := m.fleet.Piece(s.Kit); ok {
			model = k.Model
		}
		item, _ := m.lib.Item(model)
		d, ok := item.(gear.Linked)
		if !ok || len(d.AsDevice().Releases) == 0 {
			continue
		}
		s.Firmware = one(m, d.AsDevice().Releases).Version
		if g, isGoggles := item.(*gear.Goggles); isGoggles && len(g.Modes) > 0 {
			s.Mode = one(m, g.Modes).ID
		}
	}
}

func ids[T gear.Item](m *Maker) (list []string) {
	for _, g := range gear.All[T](m.lib) {
		list = append(list, g.Head().ID)
	}
	return list
}

// windows are supply windows with ends where packs and pads have theirs, so that
// equality is met often.
var windows = [][2]unit.Volts{
	{4.5, 5.5},
	{3, 3.6},
	{4.9, 5.1},
	{9, 10.2},
	{6, 16.8},
	{6, 25.2},
	{12, 17},
	{7, 30},
	{14, 25.2},
	{3.3, 4.35},
}

func (m *Maker) loads(f *fleet.Fit) {
	for i := range m.IntN(3) {
		w := one(m, windows)
		l := fleet.Load{
			ID: []string{"gps", "lights"}[i],
			Input: gear.Input{
				MinV:      &w[0],
				MaxV:      &w[1],
				PeakW:     new(one(m, []unit.Watts{0.5, 3, 14})),
				CeramicUF: new(unit.Microfarads(10)),
			},
		}
		if m.odds(4) {
			l.Input.PeakW = nil
		}
		if m.odds(6) {
			l.Input.MaxV = nil
		}
		f.Loads = append(f.Loads, l)
	}
}

func (m *Maker) lead() *fleet.Lead {
	l := &fleet.Lead{MM: new(unit.Millimetres(40 + m.IntN(160))), AWG: new(one(m, []wire.Gauge{12, 14, 18, 24, 28, 32}))}
	if m.odds(6) {
		l.AWG = nil
	}
	return l
}

func (m *Maker) supply(f *fleet.Fit) {
	f.Feeds, f.Regulators, f.Jumpers, f.PackLead, f.CapacitorUF, f.CapacitorV = nil, nil, nil, nil, nil, nil
	sources := []string{fleet.NodePack}
	board, _ := gear.Find[*gear.Board](m.lib, f.Board)
	if board != nil {
		for _, p := range board.Pads {
			sources = append(sources, fleet.PadNode(p.ID))
			if p.Kind == gear.PadJumper && !m.odds(3) {
				if f.Jumpers == nil {
					f.Jumpers = map[string]string{}
				}
				f.Jumpers[p.ID] = one(m, p.Choices)
			}
		}
	}
	if r := one(m, ids[*gear.Regulator](m)); r != "" && m.odds(3) {
		f.Regulators = []fleet.PlacedRegulator{{ID: "reg", Model: r}}
		f.Feeds = append(f.Feeds, fleet.Feed{To: "reg", From: one(m, sources)})
		sources = append(sources, "reg", "reg")
	}
	feed := func(to string, there bool) {
		if !there || m.odds(14) {
			return
		}
		g := fleet.Feed{To: to, From: one(m, sources)}
		if m.odds(3) {
			g.Lead = m.lead()
		}
		f.Feeds = append(f.Feeds, g)
	}
	feed(fleet.NodeAirUnit, f.AirUnit != nil)
	feed(fleet.NodeReceiver, f.Receiver != "")
	for _, l := range f.Loads {
		feed(l.ID, true)
	}
	if !m.odds(5) {
		f.PackLead = m.lead()
	}
	if m.odds(2) {
		f.CapacitorUF = new(unit.Microfarads(470))
		if !m.odds(5) {
			f.CapacitorV = new(one(m, []unit.Volts{16, 25, 35}))
		}
	}
	if f.Cycle() != nil {
		f.Feeds = slices.DeleteFunc(f.Feeds, func(g fleet.Feed) bool { return g.To == "reg" })
	}
}
