package pins

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// groundLoops say which parts have their ground go two ways, so that the two and what they
// join are a loop: with a supply that does not come over the board and along a signal, or
// by two cables. Nothing is wrong with that as long as both hold (common practice); what to
// do is to know it.
func (l *loom) groundLoops() (findings []verdict.Finding) {
	add := func(run *netlist.Run, part string) {
		if says := l.loop(run); says != "" {
			findings = append(findings, verdict.Finding{Code: CodeLoop, Level: verdict.Fits, Subject: run.Label(),
				Part: part, Source: verdict.Practice, Says: says})
		}
	}
	add(l.run, "")
	for _, run := range l.beside {
		add(run, run.Node)
	}
	return findings
}

// loop is what is to be said of the two ways of a part's ground; empty where it goes one.
func (l *loom) loop(run *netlist.Run) string {
	ways := groundWays(run)
	from, fed := l.Fit.FeedOf(run.Node)
	_, onBoard := fleet.PadOf(from)
	switch apart := fed && !onBoard && run.LiveOf(gear.PinSupply) == nil; {
	case apart && len(ways) > 0:
		return fmt.Sprintf("The ground of %s goes two ways, a loop: with its supply (%s), and by %s to %s. The one "+
			"with the supply is soldered first and comes off last: without it all of its current comes back through the "+
			"other.",
			run.Label(), change.Source(l.Case, from), strings.Join(ways, " and "), l.board.Label())
	case len(ways) > 1:
		return fmt.Sprintf("The ground of %s goes to %s two ways, a loop: by %s. Lay them side by side: a wide loop picks "+
			"up what motors and ESC give off.", run.Label(), l.board.Label(), strings.Join(ways, " and by "))
	}
	return ""
}

// groundWays are the cables by which grounds of a part reach the board, each once; wires
// that are in none are one way.
func groundWays(run *netlist.Run) (ways []string) {
	for i := range run.Conns {
		c := &run.Conns[i]
		if !c.Live() || c.Terminal != gear.PinGround || gear.PinDoes(c.Function) != gear.Grounded {
			continue
		}
		way := "a wire of its own"
		if c.Cable != nil {
			way = c.Cable.Label()
		}
		if !slices.Contains(ways, way) {
			ways = append(ways, way)
		}
	}
	return ways
}
