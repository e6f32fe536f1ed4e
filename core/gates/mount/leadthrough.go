package mount

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// leadRadius is half the thickness of a thin coax lead (1.13 mm cable, common value of its data sheets).
const leadRadius = 0.565

// checkLeadThrough asks what lies between the plug of an antenna and its foot: the lead goes around
// it, which wants more of it, or is pinched; through a plate it goes where that has an opening.
func (r *Room) checkLeadThrough(on *fleet.Standing, plug space.Rod) (findings []verdict.Finding) {
	foot := [3]float64{float64(on.Stand.XMM), float64(on.Stand.YMM), float64(on.Stand.ZMM)}
	way := space.Rod{Foot: plug.Tip, Tip: foot, Radius: leadRadius}
	for i := range r.Blocks {
		b := &r.Blocks[i]
		if b.struckBy(way) == 0 || b.holds(foot) && !b.between(way) {
			continue
		}
		f := verdict.Finding{Code: CodeThrough, Level: verdict.Caution, Source: verdict.Practice, Subject: on.Label(),
			Part: b.Part}
		around := unit.Millimetres(b.box.Around(way.Foot, way.Tip))
		switch {
		case b.Part == "" && !b.Post:
			f.Says = fmt.Sprintf("%s is between the plug of %s and its foot: its lead goes through an opening, with the edge "+
				"covered, for carbon cuts it; and is not caught when the plate goes on.%s", verdict.Capital(b.Label), on.Label(),
				b.drawn())
		case unit.Over(around, *on.LeadMM):
			f.Code, f.Level = CodeLead, verdict.Unfit
			f.Compares = []verdict.Compare{{What: "antenna lead", Needed: fmt.Sprintf("%.0f mm at least", float64(around)),
				There: on.LeadMM.String()}}
			f.Says = fmt.Sprintf("%s is between the plug of %s and its foot, and around it the lead of %s does not reach.",
				verdict.Capital(b.Label), on.Label(), on.LeadMM)
		case b.Part == fleet.NodeAirUnit:
			continue // around its own case each lead goes
		default:
			f.Says = fmt.Sprintf("%s is between the plug of %s and its foot: lay the lead around it, which takes %.0f mm of "+
				"its %s at least, where nothing pinches it.", verdict.Capital(b.Label), on.Label(), float64(around), on.LeadMM)
		}
		findings = append(findings, f)
	}
	for i := range r.Rounds {
		round := &r.Rounds[i]
		if !round.Propeller || way.InDisc(round.disc) == 0 {
			continue
		}
		findings = append(findings, verdict.Finding{Code: CodeSwept, Level: verdict.Caution, Source: verdict.Practice,
			Subject: on.Label(), Says: fmt.Sprintf("Between the plug of %s and its foot is what %s sweeps: lay the lead around "+
				"it and tie it down all the way, or it is cut when the motors start and stops them.", on.Label(), round.Label)})
	}
	return findings
}

// holds says whether something stands on a block at a place, or in an opening of it there.
func (b *Block) holds(foot [3]float64) bool {
	return space.Rod{Foot: foot, Tip: foot, Radius: leadRadius}.In(b.box) > 0
}

// between says whether a plate lies between the ends of a lead: one over it, one under it.
func (b *Block) between(way space.Rod) bool {
	under, over := float64(b.Min[space.Z]), float64(b.Max[space.Z])
	low, high := min(way.Foot[space.Z], way.Tip[space.Z]), max(way.Foot[space.Z], way.Tip[space.Z])
	return b.slab != nil && low <= under && high >= over
}
