package pins

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// unstated are the wires of cables that nobody has stated: where they end cannot be told.
func unstated(run *netlist.Run) (missing []verdict.Missing) {
	ask := func(h *gear.Harness, field string, wires []gear.HarnessWire) {
		if len(wires) == 0 {
			missing = append(missing, verdict.GearValue(&h.Entry, field, "its wires"))
		}
	}
	if run.Harness != nil {
		ask(run.Harness, "wires", run.Harness.Wires)
	}
	for i := range run.Strands {
		field := "wires"
		if run.Strands[i].Branch {
			field = "branch.wires"
		}
		ask(run.Strands[i].Harness, field, run.Strands[i].Wires)
	}
	return missing
}

// adrift are the further cables, and branches, of which nobody says where they go: into no
// plug, and none of their wires is soldered anywhere. One that only feeds the part goes
// where the plan feeds it from.
func adrift(c fleet.Case, run *netlist.Run) (missing []verdict.Missing) {
	from, fed := c.Fit.FeedOf(run.Node)
	_, onBoard := fleet.PadOf(from)
	for i := range run.Strands {
		s := &run.Strands[i]
		ends := slices.ContainsFunc(s.Wires, func(w gear.HarnessWire) bool {
			return slices.ContainsFunc(run.Wires, func(o fleet.Wire) bool { return o.Pin == w.From })
		})
		feeds := fed && !onBoard && run.Plug != nil && !slices.ContainsFunc(s.Wires, func(w gear.HarnessWire) bool {
			function := run.Plug.Pin(w.From)
			return function != gear.PinSupply && function != gear.PinGround
		})
		if s.Into != nil || ends || feeds || len(s.Wires) == 0 {
			continue
		}
		what, field := s.Harness.Label(), "beside"
		if s.Branch {
			what, field = "the branch of "+what, "branchTo"
		}
		missing = append(missing, verdict.FitValue(c, strings.TrimSuffix(run.Field, "wires")+field,
			fmt.Sprintf("where %s of %s goes", what, run.Label())))
	}
	return missing
}

// checkStrand judges the ends of a further cable, or of a branch: that it goes into the
// plug it is to go into.
func (l *loom) checkStrand(s *netlist.Strand) (findings []verdict.Finding) {
	h := s.Harness
	if !s.Branch {
		findings = l.checkEnd(l.unitEnd(h))
	}
	switch {
	case s.Into == nil:
		return findings
	case s.Branch:
		return append(findings, l.checkEnd(l.boardEnd(h, s.To, "branch.to", false, s.Into))...)
	}
	return append(findings, l.checkEnd(l.boardEnd(h, s.To, "to", h.Without("to"), s.Into))...)
}

// checkOnePlug says where two cables are to go into the one plug of a part; bare ends go
// onto its pads side by side.
func (l *loom) checkOnePlug() []verdict.Finding {
	var first *gear.Harness
	plugs := func(h *gear.Harness) bool { return h != nil && !h.Without("from") && !l.run.Plug.Pads() }
	if plugs(l.run.Harness) {
		first = l.run.Harness
	}
	for i := range l.run.Strands {
		s := &l.run.Strands[i]
		if s.Branch || !plugs(s.Harness) {
			continue
		}
		if first == nil {
			first = s.Harness
			continue
		}
		return []verdict.Finding{{Code: CodeConnector, Level: verdict.Unfit, Source: "this plan",
			Says: fmt.Sprintf("The %s and the %s are both to go into the plug of %s: a plug takes one.", first.Label(),
				s.Harness.Label(), l.run.Label())}}
	}
	return nil
}
