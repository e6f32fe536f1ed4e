package builds

import (
	"math/rand/v2"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// others draws what is wired beside the air unit: a receiver whose wires are stated, and
// parts of the library. Its own source of chance leaves the rest of a build as it was.
func (m *Maker) others(f *fleet.Fit) {
	own := &Maker{rand.New(rand.NewPCG(m.parts.Uint64(), m.parts.Uint64())), m.lib, m.fleet, m.parts}
	f.Feeds = slices.DeleteFunc(f.Feeds, func(feed fleet.Feed) bool {
		_, part := f.Part(feed.To)
		return part
	})
	f.Parts, f.ReceiverCable, f.Headers = nil, nil, fleet.Headers{}
	if f.Harness != "" && own.odds(5) {
		f.Headers.Header = own.header()
	}
	if f.HarnessTo != "" && own.odds(5) {
		f.BoardHeader = own.header()
	}
	board, ok := gear.Find[*gear.Board](m.lib, f.Board)
	if f.BranchTo, f.Beside = "", nil; ok && own.odds(6) {
		f.Beside = own.beside(board)
	}
	if !ok || !own.odds(3) {
		return
	}
	if r, ok := gear.Find[*gear.Receiver](m.lib, f.Receiver); ok && own.odds(2) {
		f.ReceiverCable = own.cable(board, r.Plug)
	}
	for _, p := range gear.All[*gear.Part](m.lib) {
		if !own.odds(3) {
			continue
		}
		placed := fleet.PlacedPart{ID: "on-" + p.ID, Model: p.ID}
		if c := own.cable(board, p.Plug); c != nil && !own.odds(8) {
			placed.Cable = *c
		}
		f.Parts = append(f.Parts, placed)
		if own.odds(4) && len(board.Pads) > 0 {
			f.Feeds = append(f.Feeds, fleet.Feed{To: placed.ID, From: fleet.PadNode(one(own, board.Pads).ID)})
		}
	}
}

// beside draws a further cable, into a plug of the board now and then.
func (m *Maker) beside(board *gear.Board) []fleet.Beside {
	h := one(m, gear.All[*gear.Harness](m.lib))
	if h == nil {
		return nil
	}
	b := fleet.Beside{Harness: h.ID}
	if len(board.Plugs) > 0 && h.To != "" && !m.odds(3) {
		b.HarnessTo = one(m, board.Plugs).ID
	}
	return []fleet.Beside{b}
}

// header is one onto a row of pads, either way round; nil where the library has none.
func (m *Maker) header() *fleet.Header {
	h := one(m, gear.All[*gear.Header](m.lib))
	if h == nil {
		return nil
	}
	return &fleet.Header{Model: h.ID, Turned: m.odds(3)}
}

// cable draws the wires of a part: in a harness now and then, else soldered, mostly where
// they belong.
func (m *Maker) cable(board *gear.Board, plug *gear.Plug) *fleet.Cable {
	if plug == nil {
		return nil
	}
	c := &fleet.Cable{}
	if h := one(m, gear.All[*gear.Harness](m.lib)); h != nil && len(board.Plugs) > 0 && h.To != "" && m.odds(6) {
		c.Harness, c.HarnessTo = h.ID, one(m, board.Plugs).ID
		if m.odds(3) {
			c.Headers.Header = m.header()
		}
		if w := one(m, h.Wires); m.odds(3) && w.From > 0 {
			c.Moved = []fleet.CrimpMove{{End: fleet.UnitEnd, From: w.From, To: 0}}
		}
		return c
	}
	places := slices.Collect(board.Terminals())
	port := one(m, board.UARTs)
	for i, function := range plug.Pins {
		var right []string
		for _, at := range places {
			id, _, serial := gear.SerialPin(at)
			if board.Belongs(function, at) && (!serial || id == port.ID) {
				right = append(right, at)
			}
		}
		to := one(m, right)
		if m.odds(14) {
			to = one(m, places)
		}
		if to != "" && function != "" && !m.odds(12) {
			w := fleet.Wire{Pin: i + 1, To: to}
			if m.odds(5) {
				w.AWG, w.MM = new(wire.Gauge(20+2*m.IntN(7))), new(unit.Millimetres(40+m.IntN(200)))
			}
			c.Wires = append(c.Wires, w)
		}
	}
	return c
}
