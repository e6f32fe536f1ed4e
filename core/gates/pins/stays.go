package pins

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
)

// before is the wiring of today, to hold the next against.
type before struct {
	runs      []*netlist.Run
	sameBoard bool
	otherUnit bool // the air unit is exchanged, be it for one of the same model
}

func beforeOf(c fleet.Case) before {
	now := fleet.NowCase(c.Library, c.Fleet, c.Quad)
	b := before{runs: netlist.All(now), sameBoard: now.Fit.Board == c.Fit.Board}
	was, is := now.Fit.AirUnit, c.Fit.AirUnit
	b.otherUnit = was == nil || is == nil || was.Kit != is.Kit || was.Model != is.Model
	return b
}

// has says whether a soldered wire of a part is on its place today. The wires of a cable
// stay on the board when the part on its other end is exchanged; single wires stay with
// their part.
func (b before) has(run *netlist.Run, c *netlist.Conn) bool {
	at := slices.IndexFunc(b.runs, func(r *netlist.Run) bool { return r.Node == run.Node })
	if !b.sameBoard || at < 0 {
		return false
	}
	return onBoard(b.runs[at], run, c, run.Node == fleet.NodeAirUnit && b.otherUnit)
}

// onBoard says whether a soldered wire of one run is there in another too, on the same
// place of the board.
func onBoard(other, run *netlist.Run, c *netlist.Conn, exchanged bool) bool {
	same := !exchanged && other.Entry.ID == run.Entry.ID
	return slices.ContainsFunc(other.Conns, func(n netlist.Conn) bool {
		if n.Slot != 0 || n.Terminal != c.Terminal {
			return false
		}
		if same && n.Pin == c.Pin {
			return n.Cable == nil && c.Cable == nil || n.Cable != nil && c.Cable != nil && n.Cable.ID == c.Cable.ID
		}
		return ofOneCable(&n, c) && !bareAt(other, &n) && !bareAt(run, c)
	})
}

// ofOneCable says whether two wires are the same one of the same cable. Where nobody
// states their colours, it is not known that they are.
func ofOneCable(a, b *netlist.Conn) bool {
	return a.Cable != nil && b.Cable != nil && a.Cable.ID == b.Cable.ID && a.Colour != "" && a.Colour == b.Colour
}

// bareAt says whether the end of a cable is soldered to the pads of the part.
func bareAt(run *netlist.Run, c *netlist.Conn) bool {
	return c.Cable != nil && c.Cable.Without("from") && run.Plug.Pads()
}

// hasPlugged says whether a cable is in that plug of the board today.
func (b before) hasPlugged(end netlist.PluggedIn) bool {
	return b.sameBoard && slices.ContainsFunc(b.runs, func(r *netlist.Run) bool {
		return slices.ContainsFunc(r.PluggedIn(), func(is netlist.PluggedIn) bool {
			return is.Cable.ID == end.Cable.ID && is.Plug.ID == end.Plug.ID
		})
	})
}

// ToPlugIn are the cables of the air unit that go into a plug of the board and are not in
// it today.
func ToPlugIn(c fleet.Case) (ends []netlist.PluggedIn) {
	run, ok := netlist.AirUnit(c)
	if !ok {
		return nil
	}
	today := beforeOf(c)
	for _, end := range run.PluggedIn() {
		if !today.hasPlugged(end) {
			ends = append(ends, end)
		}
	}
	return ends
}

// movesFrom are the crimps to move in a cable that has some moved already: from the slot
// each is in now to that it shall be in.
func movesFrom(h *gear.Harness, had, has *fleet.Cable) (moves []fleet.CrimpMove) {
	was, is := had.Wired(h), has.Wired(h)
	add := func(end fleet.End, from, to int) {
		if from != to {
			moves = append(moves, fleet.CrimpMove{End: end, From: from, To: to})
		}
	}
	for i := range was {
		add(fleet.UnitEnd, was[i].From, is[i].From)
		add(fleet.BoardEnd, was[i].To, is[i].To)
	}
	return moves
}

// CableStays says whether the air unit's cable is on the board today, and the plan leaves
// its ends there where they are: another unit goes onto its other end.
func CableStays(c fleet.Case) bool {
	now, has := c.Quad.Now.Cable(), c.Fit.Cable()
	run, ok := netlist.AirUnit(c)
	return ok && c.Quad.Now.Board == c.Fit.Board && has.Harness != "" && now.Harness == has.Harness &&
		now.HarnessTo == has.HarnessTo && run.Harness != nil && !(run.Harness.Without("from") && run.Plug.Pads())
}
