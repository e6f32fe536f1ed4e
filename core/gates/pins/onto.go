package pins

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// Onto is the patch that puts another flight board into a fit and wires everything onto
// it: each part fed from the pad most like the one it hangs on, the serial ports planned
// anew, the air unit through its cable where a plug of the board does no harm and else
// soldered, every other part soldered where its pins belong. An empty id takes the board
// out.
func Onto(c fleet.Case, id string) fleet.Patch {
	patch := fleet.Patch{Board: &id}
	board, ok := gear.Find[*gear.Board](c.Library, id)
	switch {
	case id == c.Fit.Board:
		return patch
	case !ok:
		return off(c, patch)
	}
	old, _ := c.Board()
	if c.BuiltIn() { // the receiver goes with the board it is on
		patch.Receiver = &board.BuiltIn
	}
	patch.Feeds = feedsOnto(c.Fit, old, board)
	bare := fleet.Wiring{Harness: c.Fit.Harness, Depth: c.Fit.Depth, Ports: c.Fit.Ports}
	bare.Headers.Header = c.Fit.Headers.Header
	patch.Wiring = &bare
	on := c.With(patch)
	l, hasUnit := newLoom(on)
	needs, missing := l.needs()
	var ports map[string]int
	if len(missing) == 0 && len(board.UARTs) > 0 {
		plan := l.portPlan(needs)
		ports = map[string]int{}
		for _, a := range plan.Ports {
			ports[a.node] = a.UART
		}
		bare.Ports = portsOf(plan)
	}
	if hasUnit && l.run.Plug != nil {
		wiring := l.unitOnto(board, bare)
		patch.Wiring = &wiring
	}
	for _, run := range netlist.Others(c) {
		if run.Plug == nil {
			continue
		}
		cable := fleet.Cable{Wires: partLoom(on, run).rightly(board, ports[run.Node], padOf(c, run, old, board))}
		recabled := netlist.Recable(c, run.Node, cable)
		patch.Parts = append(patch.Parts, recabled.Parts...)
		if recabled.ReceiverCable != nil {
			patch.ReceiverCable = recabled.ReceiverCable
		}
	}
	return patch
}

// off takes everything off a board that goes.
func off(c fleet.Case, patch fleet.Patch) fleet.Patch {
	patch.Feeds = feedsOnto(c.Fit, nil, nil)
	patch.Wiring = &fleet.Wiring{Depth: c.Fit.Depth}
	if c.BuiltIn() {
		patch.Receiver = new("")
	}
	for _, run := range netlist.Others(c) {
		bare := netlist.Recable(c, run.Node, fleet.Cable{})
		patch.Parts = append(patch.Parts, bare.Parts...)
		if bare.ReceiverCable != nil {
			patch.ReceiverCable = bare.ReceiverCable
		}
	}
	return patch
}

// unitOnto is the wiring of the air unit on another board: its cable in a plug of the same
// kind, else soldered on the ports planned.
func (l *loom) unitOnto(board *gear.Board, w fleet.Wiring) fleet.Wiring {
	if h := l.run.Harness; h != nil && h.To != "" {
		for i := range board.Plugs {
			w.HarnessTo = board.Plugs[i].ID
			if off := l.fedElsewhere(w); board.Plugs[i].Connector == h.To && l.harmlessAs(off) {
				return off
			}
		}
		w.HarnessTo = ""
	}
	if soldered, ok := l.soldered(); ok {
		return soldered
	}
	return w
}

// harmlessAs says whether a wiring of the air unit puts no wire where it destroys, nor a
// second supply beside the one it is fed from.
func (l *loom) harmlessAs(w fleet.Wiring) bool {
	with, _ := newLoom(l.With(fleet.Patch{Wiring: &w}))
	burns := slices.ContainsFunc(
		with.checkFeed(),
		func(f verdict.Finding) bool { return dangers[f.Code] == verdict.Destroys },
	)
	return !burns && len(with.checkPlaces().destroys) == 0 && len(with.checkGround()) == 0
}

// feedsOnto moves every feed from a pad of one board to the pad of another most like it.
func feedsOnto(f *fleet.Fit, old, board *gear.Board) (feeds []fleet.Feed) {
	for _, feed := range f.Feeds {
		pad, onBoard := fleet.PadOf(feed.From)
		if !onBoard {
			continue
		}
		feed.From = ""
		if to := alike(f, old, board, pad); to != "" {
			feed.From = fleet.PadNode(to)
		}
		feeds = append(feeds, feed)
	}
	return feeds
}

// padOf is the pad of another board a part's own supply wire belongs on.
func padOf(c fleet.Case, run *netlist.Run, old, board *gear.Board) string {
	if from, stated := c.Fit.FeedOf(run.Node); stated {
		pad, _ := fleet.PadOf(from)
		return alike(c.Fit, old, board, pad)
	}
	if supply := run.LiveOf(gear.PinSupply); supply != nil {
		return alike(c.Fit, old, board, supply.Terminal)
	}
	return ""
}

// alike is the pad of a board that gives what a pad of another gives, its jumper followed:
// the pack's voltage, or the nearest to its own; empty where the board has none of the
// kind.
func alike(f *fleet.Fit, old, board *gear.Board, id string) string {
	was, pack := makes(f, old, id)
	if was == nil && !pack {
		return ""
	}
	best, apart := "", 0.0
	for i := range board.Pads {
		p := &board.Pads[i]
		switch {
		case pack && p.Kind == gear.PadPack:
			return p.ID
		case pack, p.Kind != gear.PadRegulated, p.OutV == nil, was.OutV == nil:
		default:
			away := max(float64(*p.OutV-*was.OutV), float64(*was.OutV-*p.OutV))
			if best == "" || away < apart {
				best, apart = p.ID, away
			}
		}
	}
	return best
}

// makes is the regulated pad that makes the voltage of a pad, or that it is the pack's;
// neither where there is no such pad, or nobody says how its jumper is soldered.
func makes(f *fleet.Fit, b *gear.Board, id string) (pad *gear.Pad, pack bool) {
	if b == nil {
		return nil, false
	}
	for range len(b.Pads) + 1 {
		p, ok := b.Pad(id)
		switch {
		case id == fleet.NodePack, ok && p.Kind == gear.PadPack:
			return nil, true
		case !ok:
			return nil, false
		case p.Kind == gear.PadRegulated:
			return p, false
		}
		id = p.Leads(f.Jumpers)
	}
	return nil, false
}
