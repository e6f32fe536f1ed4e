package mount

import (
	"fmt"
	"math"
	"strings"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

func patterns(list []gear.Holes) string {
	words := make([]string, len(list))
	for i, h := range list {
		words[i] = h.String()
	}
	return strings.Join(words, " or ")
}

func (s *seat) checkHoles() []verdict.Finding {
	if s.drills() {
		if _, missing := s.drilling(); len(missing) > 0 {
			return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...)}
		}
	}
	holes, ok := s.holds()
	if !ok {
		f := verdict.Finding{Code: CodeHoles, Level: verdict.Unfit, Source: verdict.Practice,
			Compares: []verdict.Compare{{
				What:   "holes",
				Needed: patterns(s.mount.Patterns),
				There:  patterns(s.bay.Patterns),
			}},
			Says: fmt.Sprintf("%s has holes of %s, the %s of %s %s.", s.airUnit.Label(), patterns(s.mount.Patterns),
				s.bay.Label(), s.frame.Label(), patterns(s.bay.Patterns))}
		if s.plate != nil {
			f.Says = fmt.Sprintf("%s joins %s with %s; that is not what lies here.", s.plate.Label(), s.plate.From, s.plate.To)
		}
		if plates := s.plates(); len(plates) > 0 {
			f.Code, f.Level = CodePlate, verdict.Change
			f.Says += fmt.Sprintf(" %s joins them.", plates[0].Label())
		} else {
			f.Says += fmt.Sprintf(" An adapter plate from %s to %s would join them.", s.bay.Patterns[0],
				s.mount.Patterns[0])
		}
		return []verdict.Finding{f}
	}
	var findings []verdict.Finding
	if s.drills() {
		findings = append(findings, s.checkDrilling())
	}
	if s.stays() && s.Fit.Screw == "" {
		return findings // it flies on the screws it has
	}
	plan, missing := s.screwPlan(holes)
	if len(missing) > 0 {
		return append(findings, verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...))
	}
	return append(findings, s.checkScrew(plan)...)
}

// What a hole wants around it. Carbon splits where a hole comes near an edge or
// another hole (common practice; both values are from memory).
const (
	edgeDiameters                  = 2.0 // from the middle of a hole to the edge of the plate
	leastWeb      unit.Millimetres = 1.5 // of plate left between two holes
)

// drilling is a pattern of the unit as new holes in the plate of the bay.
type drilling struct {
	holes gear.Holes
	edge  unit.Millimetres // from the middle of a hole to the edge
	web   unit.Millimetres // left to the nearest hole there is
}

// does says whether the plate holds after that.
func (d *drilling) does() bool {
	return !unit.Over(edgeDiameters*sizes[d.holes.Screw], d.edge) && !unit.Over(leastWeb, d.web)
}

// drills says whether new holes are planned and needed.
func (s *seat) drills() bool {
	if s.plate != nil || !s.Fit.Drill {
		return false
	}
	_, meets := s.meets(s.bay.Patterns)
	return !meets
}

// drilling picks the pattern of the unit that leaves most of the plate.
func (s *seat) drilling() (best drilling, missing []verdict.Missing) {
	if s.bay.SolidXMM == nil || s.bay.SolidYMM == nil {
		return best, []verdict.Missing{s.frameValue("bays."+s.bay.ID+".solidXMM",
			"how far the plate of its "+s.bay.Label()+" is solid")}
	}
	for i, own := range s.mount.Patterns {
		if own.Screw == "" {
			continue
		}
		d := drilling{
			holes: own,
			edge:  min(*s.bay.SolidXMM-own.XMM, *s.bay.SolidYMM-own.YMM) / 2,
			web:   unit.Millimetres(math.Inf(1)),
		}
		for _, there := range s.bay.Patterns {
			apart := unit.Millimetres(math.Hypot(float64(own.XMM-there.XMM), float64(own.YMM-there.YMM)) / 2)
			width := sizes[own.Screw]
			if other, ok := sizes[there.Screw]; ok {
				width = (width + other) / 2
			}
			d.web = min(d.web, apart-width)
		}
		if i == 0 || best.holes.Screw == "" || d.does() && !best.does() {
			best = d
		}
	}
	if best.holes.Screw == "" {
		missing = append(missing, s.unitValue("mount.patterns", "size of the screws"))
	}
	return best, missing
}

func (s *seat) checkDrilling() verdict.Finding {
	d, _ := s.drilling()
	least := edgeDiameters * sizes[d.holes.Screw]
	f := verdict.Finding{Code: CodeDrilled, Level: verdict.Caution, Source: verdict.Practice,
		Compares: []verdict.Compare{
			{
				What:   "from a hole's middle to the edge",
				Needed: least.String(),
				There:  d.edge.String(),
				Margin: unit.Less(d.edge, least).String(),
			},
			{
				What:   "left between two holes",
				Needed: leastWeb.String(),
				There:  d.web.String(),
				Margin: unit.Less(d.web, leastWeb).String(),
			},
		},
		Says: fmt.Sprintf("Four new %s holes of %s in the %s: %s to the edge, %s left to the next hole.", d.holes.Screw,
			d.holes, s.bay.Label(), d.edge, d.web)}
	if !d.does() {
		f.Code, f.Level = CodeEdge, verdict.Unfit
		f.Says = fmt.Sprintf("New %s holes of %s would tear out of the %s: %s to the edge where %s are wanted, %s left to "+
			"the next hole where %s are.",
			d.holes.Screw, d.holes, s.bay.Label(), d.edge, least, d.web, leastWeb)
	}
	return f
}
