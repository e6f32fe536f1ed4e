package pins

import (
	"fmt"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// checkOrders names the rows of pins that rest on common practice alone: plugs of one shape
// are wired in different orders, so such a row counts once it has been held against the
// drawing of the very thing. Source: common practice.
func (l *loom) checkOrders() (findings []verdict.Finding) {
	seen := map[*gear.Plug]bool{}
	check := func(plug *gear.Plug, owner *gear.Entry, field, of string) {
		if plug == nil || owner == nil || len(plug.Pins) == 0 || seen[plug] {
			return
		}
		if owner.SourceOf(field).Kind != gear.Practice {
			return
		}
		seen[plug] = true
		says := fmt.Sprintf("The order of the pins of %s is one that others have, and nobody has held it "+
			"against its drawing: a wrong pin destroys the unit. Hold it against the drawing, and say so where "+
			"its pins are stated, before anything is plugged in.", of)
		findings = append(findings, verdict.Finding{Code: CodeOrder, Level: verdict.Caution, Subject: of,
			Source: owner.SourceOf(field).String(), Says: says})
	}
	run := func(r *netlist.Run) {
		own := r.Plug
		if r.Row != nil {
			own = r.Row // a header leads its pads on
		}
		check(own, r.Entry, "plug.pins", r.Label())
		for _, end := range r.PluggedIn() {
			if l.board != nil && r.IntoRow == nil {
				check(end.Plug, &l.board.Entry, "plugs."+end.Plug.ID+".pins", "the "+end.Plug.Label()+" of "+l.board.Label())
			}
		}
	}
	run(l.run)
	for _, r := range l.beside {
		run(r)
	}
	return findings
}
