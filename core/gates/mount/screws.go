package mount

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// Clamp is one layer a screw goes through.
type Clamp struct {
	What string           `json:"what"`
	MM   unit.Millimetres `json:"mm"`
}

// ScrewPlan is the screw a unit wants.
type ScrewPlan struct {
	Size    string           `json:"size"`
	Clamped []Clamp          `json:"clamped"` // in the order the screw meets them
	LeastMM unit.Millimetres `json:"leastMM"` // everything clamped and enough thread
	MostMM  unit.Millimetres `json:"mostMM"`  // as deep as the thread goes
	// Use is the screw to take; owned first, then the shortest that does.
	Use   string `json:"use,omitempty"`
	Label string `json:"label,omitempty"`
	Owned bool   `json:"owned"`

	countersunk bool // what lies under the head is sunk for it
}

// threads is how many diameters of thread should hold (common practice: one
// diameter in metal).
const threads = 1.0

// sizes are the diameters of the screws: ISO 261 metric, and of the inch sizes of ASME
// B1.1, 0.060 in and 0.013 in more a number.
var sizes = map[string]unit.Millimetres{"M1.6": 1.6, "M2": 2, "M2.5": 2.5, "M3": 3, "M4": 4,
	"#2-56": 2.184, "#4-40": 2.845}

// screwPlan adds up what is clamped and picks a screw; missing lists what keeps
// it from being added up. With a plate the screws into the unit go through the
// plate alone.
func (s *seat) screwPlan(holes gear.Holes) (plan ScrewPlan, missing []verdict.Missing) {
	plan = ScrewPlan{Size: holes.Screw, Clamped: []Clamp{}}
	if s.washer != nil && s.washer.ThickMM == nil {
		missing = append(missing, verdict.GearValue(&s.washer.Entry, "thickMM", "thickness"))
	} else if s.washer != nil {
		plan.Clamped = append(plan.Clamped, Clamp{s.washer.Label(), *s.washer.ThickMM})
	}
	through, field := s.bay.PlateMM, "bays."+s.bay.ID+".plateMM"
	switch {
	case s.plate != nil && s.plate.ThickMM == nil:
		missing = append(missing, verdict.GearValue(&s.plate.Entry, "thickMM", "thickness"))
	case s.plate != nil:
		plan.Clamped = append(plan.Clamped, Clamp{s.plate.Label(), *s.plate.ThickMM})
	case through == nil:
		missing = append(missing, s.frameValue(field, "thickness of its "+s.bay.Label()))
	default:
		plan.Clamped = append(plan.Clamped, Clamp{s.bay.Label(), *through})
	}
	if s.Fit.SoftMM != nil {
		plan.Clamped = append(plan.Clamped, Clamp{"soft mount", *s.Fit.SoftMM})
	}
	if holes.Screw == "" {
		missing = append(missing, s.unitValue("mount.patterns", "size of the screws"))
	}
	if holes.DepthMM == nil {
		missing = append(missing, s.unitValue("mount.patterns", "depth of the threads"))
	}
	if len(missing) > 0 {
		return plan, missing
	}
	var clamped unit.Millimetres
	for _, c := range plan.Clamped {
		clamped += c.MM
	}
	plan.countersunk = s.sunk() != nil && *s.sunk()
	plan.LeastMM = clamped + unit.Millimetres(threads)*sizes[holes.Screw]
	plan.MostMM = clamped + *holes.DepthMM
	plan.pick(s)
	return plan, nil
}

// pick takes the shortest owned screw that does, else the shortest there is.
func (p *ScrewPlan) pick(s *seat) {
	var best *gear.Screw
	owned := false
	for _, screw := range gear.All[*gear.Screw](s.Library) {
		if !p.does(screw) {
			continue
		}
		have := s.Fleet.SpareCount(screw.ID, s.Quad.ID) >= fleet.UnitScrews
		if best == nil || have && !owned || have == owned && *screw.LengthMM < *best.LengthMM {
			best, owned = screw, have
		}
	}
	if best != nil {
		p.Use, p.Label, p.Owned = best.ID, best.Label(), owned
	}
}

func (p *ScrewPlan) does(s *gear.Screw) bool {
	if s.HeadKind == gear.HeadCountersunk && !p.countersunk {
		return false
	}
	return s.Size == p.Size && s.LengthMM != nil && !unit.Over(p.LeastMM, *s.LengthMM) && !unit.Over(*s.LengthMM, p.MostMM)
}

func (s *seat) checkScrew(plan ScrewPlan) []verdict.Finding {
	if s.washer != nil && s.washer.Size != plan.Size {
		return []verdict.Finding{{Code: CodeScrew, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("%s is for %s, the threads of %s take %s.", s.washer.Label(), s.washer.Size, s.airUnit.Label(),
				plan.Size)}}
	}
	range_ := fmt.Sprintf("%s from %s to %s", plan.Size, plan.LeastMM, plan.MostMM)
	f := verdict.Finding{
		Source:   verdict.Practice,
		Compares: []verdict.Compare{{What: "screws", Needed: range_, There: "none chosen"}},
	}
	chosen, picked := s.Screw()
	if picked && (chosen.LengthMM == nil || chosen.Size == "") {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(),
			verdict.GearValue(&chosen.Entry, "lengthMM", "size and length"))}
	}
	if unit.Over(plan.LeastMM, plan.MostMM) {
		depth := unit.Less(plan.MostMM, plan.LeastMM-sizes[plan.Size])
		f.Code, f.Level = CodeShallow, verdict.Unfit
		f.Says = fmt.Sprintf("The %s thread of %s is %s deep, less than a diameter: no length of screw holds and stays "+
			"clear of its circuit board. Use other holes of it, a plate, or another way to hold it.",
			plan.Size, s.airUnit.Label(), depth)
		return []verdict.Finding{f}
	}
	if hole, tight := s.tightHole(plan.Size); tight {
		f.Code, f.Level = CodeScrew, verdict.Unfit
		f.Says = fmt.Sprintf("The holes of %s are made for %s: a screw of %s does not go through.", hole.of, hole.size,
			plan.Size)
		return []verdict.Finding{f}
	}
	if picked {
		f.Compares[0].There = chosen.Label()
		return s.checkChosen(plan, chosen, f)
	}
	switch {
	case plan.Use == "":
		f.Code, f.Level, f.Says = CodeOrder, verdict.Change, fmt.Sprintf("Four %s are to be ordered before the bench day: "+
			"none in the library is as long.",
			range_)
	case !plan.Owned:
		f.Code, f.Level, f.Says = CodeOrder, verdict.Change, fmt.Sprintf("Four %s are to be ordered before the bench day: "+
			"%s would do, none is in the box.",
			range_, plan.Label)
	default:
		return nil
	}
	return []verdict.Finding{f}
}

// checkChosen holds a screw of a stated size and length against the plan.
func (s *seat) checkChosen(plan ScrewPlan, chosen *gear.Screw, f verdict.Finding) []verdict.Finding {
	f.Level = verdict.Unfit
	sunk := s.sunk()
	if chosen.HeadKind == gear.HeadCountersunk && sunk == nil {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(),
			s.frameValue("bays."+s.bay.ID+".countersunk", "whether its holes are sunk for screw heads, of "+s.bay.Label()))}
	}
	switch {
	case chosen.HeadKind == gear.HeadCountersunk && !*sunk:
		f.Code, f.Says = CodeHead, fmt.Sprintf("%s has a countersunk head, and what lies under it has plain holes: the head "+
			"stands on their edge, splits carbon and works loose. Take one with a flat head.", chosen.Label())
	case chosen.Size != plan.Size:
		f.Code, f.Says = CodeScrew, fmt.Sprintf("%s is %s, the threads of %s take %s.",
			chosen.Label(), chosen.Size, s.airUnit.Label(), plan.Size)
	case unit.Over(*chosen.LengthMM, plan.MostMM):
		f.Code, f.Says = CodeTooLong, fmt.Sprintf("%s is %s too long: it drives into the circuit board of %s.",
			chosen.Label(), unit.Less(*chosen.LengthMM, plan.MostMM), s.airUnit.Label())
	case unit.Over(plan.LeastMM, *chosen.LengthMM):
		f.Code, f.Says = CodeShort, fmt.Sprintf("%s is %s too short to hold: %s is clamped and %s of thread wanted.",
			chosen.Label(), unit.Less(plan.LeastMM, *chosen.LengthMM), plan.LeastMM-sizes[plan.Size], sizes[plan.Size])
	default:
		return nil
	}
	return []verdict.Finding{f}
}

// sunk says whether what lies under the heads of the screws is sunk for them; nil: not
// stated. A washer is not, and neither is an adapter plate.
func (s *seat) sunk() *bool {
	if s.washer != nil || s.plate != nil {
		return new(false)
	}
	return s.bay.Countersunk
}

// tightHole is a layer whose holes are made for a thinner screw than the unit's threads
// take; where the size of a hole is not stated, it is taken to let the screw through.
func (s *seat) tightHole(size string) (hole struct{ of, size string }, tight bool) {
	layers := s.bay.Patterns
	hole.of = "the " + s.bay.Label()
	if s.plate != nil {
		layers, hole.of = []gear.Holes{s.plate.To}, s.plate.Label()
	} else if s.drills() {
		return hole, false
	}
	for _, l := range layers {
		if len(s.common([]gear.Holes{l})) == 0 {
			continue
		}
		if d, known := sizes[l.Screw]; known && unit.Over(sizes[size], d) {
			hole.size, tight = l.Screw, true
		} else {
			return hole, false
		}
	}
	return hole, tight
}

// screws names the screws of a unit: the ones chosen, or those its plan takes.
func (s *seat) screws(holes gear.Holes) string {
	if s.Fit.Screw != "" {
		return s.Library.Label(s.Fit.Screw)
	}
	plan, _ := s.screwPlan(holes)
	return plan.Label
}
