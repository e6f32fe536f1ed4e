package change

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
)

// Settle completes a patch so that nothing of its fit points at what is no longer
// there: a cable in a plug another board does not have, wires on pins another unit does
// not have, crimps of another cable, ports another board does not have. A patch that
// needs nothing of that comes back as it is.
func Settle(c fleet.Case, p fleet.Patch) fleet.Patch {
	p, _ = settle(c, c.Sharing(p), p)
	return p
}

// Settled is the case with a patch that is settled, for those who only read (see fleet.Fit.Sharing).
func Settled(c fleet.Case, p fleet.Patch) fleet.Case {
	after := c.Sharing(p)
	if p, changed := settle(c, after, p); changed {
		return c.Sharing(p)
	}
	return after
}

// settle completes a patch by what a case is after it; false: it needs nothing.
func settle(c, after fleet.Case, p fleet.Patch) (settled fleet.Patch, changed bool) {
	board, hasBoard := gear.Find[*gear.Board](c.Library, after.Fit.Board)
	w := after.Fit.Wiring
	drop := func(gone bool) bool { changed = changed || gone; return gone }
	if w.HarnessTo != "" {
		there := false
		if hasBoard {
			_, there = board.Plug(w.HarnessTo)
		}
		if drop(!there) {
			w.HarnessTo = ""
		}
	}
	pins := -1 // not known
	if unit, _, ok := after.AirUnit(); ok && unit.Plug != nil {
		pins = len(unit.Plug.Pins)
		if w.Header != nil && drop(!unit.Plug.Pads() && p.AirUnit != nil) {
			w.Headers.Header = nil
		}
	}
	w.BranchTo, w.Beside = cables(c.Library, board, w.Cable(), func() { drop(true) })
	if w.BoardHeader != nil && drop(w.HarnessTo == "") {
		w.BoardHeader = nil
	}
	w.Wires = without(w.Wires, func(x fleet.Wire) bool {
		return drop(pins >= 0 && x.Pin > pins || hasBoard && !board.Terminal(x.To))
	})
	harness, hasHarness := gear.Find[*gear.Harness](c.Library, w.Harness)
	w.Moved = without(w.Moved, func(m fleet.CrimpMove) bool {
		return drop(!hasHarness || !slices.ContainsFunc(harness.Wires, func(x gear.HarnessWire) bool {
			return m.End == fleet.UnitEnd && x.From == m.From || m.End == fleet.BoardEnd && x.To == m.From
		}))
	})
	w.Ports = without(w.Ports, func(x fleet.Port) bool {
		if !hasBoard {
			return false
		}
		_, there := board.UART(x.UART)
		return drop(!there)
	})
	if changed {
		p.Wiring = &w
	}
	p, parts := settleParts(after.Fit, p, board)
	return p, changed || parts
}

// without is a list without what goes: itself where nothing does.
func without[T any](list []T, goes func(T) bool) []T {
	first := slices.IndexFunc(list, goes)
	if first < 0 {
		return list
	}
	return append(slices.Clone(list[:first]), slices.DeleteFunc(slices.Clone(list[first+1:]), goes)...)
}

// SettlePick completes what a builder picks, as Settle does. Who wires the air unit has said
// what feeds it, where nobody had: what its supply wire ends on.
func SettlePick(c fleet.Case, p fleet.Patch) fleet.Patch {
	p = Settle(c, p)
	after := c.With(p)
	board, hasBoard := after.Board()
	if p.Wiring == nil || p.Feed != nil || !hasBoard {
		return p
	}
	if _, stated := after.Fit.FeedOf(fleet.NodeAirUnit); stated {
		return p
	}
	if run, ok := netlist.AirUnit(after); ok {
		if feed, fed := run.Feed(board); fed {
			p.Feed = &feed
		}
	}
	return p
}

// settleParts does the same for the wires of the receiver and of placed parts; nil is no
// board.
func settleParts(after *fleet.Fit, p fleet.Patch, board *gear.Board) (settled fleet.Patch, changed bool) {
	if after.ReceiverCable != nil {
		if cable, drops := onBoard(*after.ReceiverCable, board); drops {
			p.ReceiverCable, changed = &cable, true
		}
	}
	for i := range after.Parts {
		part := after.Parts[i]
		if cable, drops := onBoard(part.Cable, board); drops {
			part.Cable, changed = cable, true
			p.Parts = append(slices.DeleteFunc(slices.Clone(p.Parts), func(o fleet.PlacedPart) bool {
				return o.ID == part.ID
			}), part)
		}
	}
	return p, changed
}

// onBoard is a cable without what a board does not have; false where it has all.
func onBoard(c fleet.Cable, board *gear.Board) (fleet.Cable, bool) {
	if board == nil {
		return c, false
	}
	n := len(c.Wires)
	c.Wires = without(c.Wires, func(x fleet.Wire) bool { return !board.Terminal(x.To) })
	drops := len(c.Wires) < n
	if _, there := board.Plug(c.HarnessTo); c.HarnessTo != "" && !there {
		c.HarnessTo, c.BoardHeader, drops = "", nil, true
	}
	c.BranchTo, c.Beside = cables(nil, board, c, func() { drops = true })
	return c, drops
}

// cables are the branch of a cable and those beside it as far as a board has their plugs,
// and the library their branches; dropped is called where something is left out. A nil board
// has none; a nil library is not asked.
func cables(
	lib *gear.Library, board *gear.Board, c fleet.Cable, dropped func(),
) (branchTo string, beside []fleet.Beside) {
	plug := func(id, harness string, branch bool) string {
		there := id == ""
		if board != nil && id != "" {
			_, there = board.Plug(id)
		}
		if there && id != "" && branch && lib != nil {
			h, ok := gear.Find[*gear.Harness](lib, harness)
			there = ok && h.Branch != nil
		}
		if !there {
			dropped()
			return ""
		}
		return id
	}
	branchTo = plug(c.BranchTo, c.Harness, true)
	for _, b := range c.Beside {
		beside = append(beside, fleet.Beside{
			Harness:   b.Harness,
			HarnessTo: plug(b.HarnessTo, b.Harness, false),
			BranchTo:  plug(b.BranchTo, b.Harness, true),
		})
	}
	return branchTo, beside
}
