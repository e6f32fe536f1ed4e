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
	runs := l.beside
	if l.run != nil {
		runs = append([]*netlist.Run{l.run}, runs...)
	}
	for _, run := range runs {
		if says := partLoom(l.Case, run).loops(); says != "" {
			findings = append(findings, verdict.Finding{Code: CodeLoop, Level: verdict.Fits, Subject: run.Label(),
				Part: beside(netlist.Meeting{A: netlist.Pin{Node: run.Node}}), Source: verdict.Practice, Says: says})
		}
	}
	return findings
}

// loops is what is to be said of the two ways of a part's ground; empty where it goes one.
func (l *loom) loops() string {
	ways := l.groundWays()
	from, fed := l.Fit.FeedOf(l.run.Node)
	_, onBoard := fleet.PadOf(from)
	switch apart := fed && !onBoard && l.run.LiveOf(gear.PinSupply) == nil; {
	case apart && len(ways) > 0:
		return fmt.Sprintf("The ground of %s goes two ways, a loop: with its supply (%s), and by %s to %s. The one "+
			"with the supply is soldered first and comes off last: without it all of its current comes back through the "+
			"other.",
			l.run.Label(), change.Source(l.Case, from), strings.Join(ways, " and "), l.board.Label())
	case len(ways) > 1:
		return fmt.Sprintf("The ground of %s goes to %s two ways, a loop: by %s. Lay them side by side: a wide loop picks "+
			"up what motors and ESC give off.", l.run.Label(), l.board.Label(), strings.Join(ways, " and by "))
	}
	return ""
}

// groundWays are the cables by which grounds of a part reach the board, each once; wires
// that are in none are one way.
func (l *loom) groundWays() (ways []string) {
	for i := range l.run.Conns {
		c := &l.run.Conns[i]
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
