package builds

import (
	"math/rand/v2"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// others draws what is wired beside the air unit: a receiver whose wires are stated, and
// parts of the library. Its own source of chance leaves the rest of a build as it was.
func (m *Maker) others(f *fleet.Fit) {
	own := &Maker{rand.New(rand.NewPCG(m.parts.Uint64(), m.parts.Uint64())), m.lib, m.fleet, m.parts}
	f.Feeds = slices.DeleteFunc(f.Feeds, func(feed fleet.Feed) bool {
		_, part := f.Part(feed.To)
		return part
	})
	f.Parts, f.ReceiverCable = nil, nil
	board, ok := gear.Find[*gear.Board](m.lib, f.Board)
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

// cable draws the wires of a part: in a harness now and then, else soldered, mostly where
// they belong.
func (m *Maker) cable(board *gear.Board, plug *gear.Plug) *fleet.Cable {
	if plug == nil {
		return nil
	}
	c := &fleet.Cable{}
	if h := one(m, gear.All[*gear.Harness](m.lib)); h != nil && len(board.Plugs) > 0 && h.To != "" && m.odds(6) {
		c.Harness, c.HarnessTo = h.ID, one(m, board.Plugs).ID
		if w := one(m, h.Wires); m.odds(3) && w.From > 0 {
			c.Moved = []fleet.CrimpMove{{End: fleet.UnitEnd, From: w.From, To: 0}}
		}
		return c
	}
	places := terminals(board)
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
			c.Wires = append(c.Wires, fleet.Wire{Pin: i + 1, To: to})
		}
	}
	return c
}

// terminals are all places of a board to solder to.
func terminals(board *gear.Board) []string {
	list := []string{gear.PinGround}
	for _, p := range board.Pads {
		list = append(list, p.ID)
	}
	for _, u := range board.UARTs {
		for _, pad := range []string{u.TXPad(), u.RXPad()} {
			if board.Terminal(pad) {
				list = append(list, pad)
			}
		}
	}
	return append(list, board.Signals...)
}
