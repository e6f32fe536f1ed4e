package mount

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/unit"
	"yokeswap/core/verdict"
)

// The findings of this gate.
const (
	CodeUnknown verdict.Code = "mount.unknown"
	CodeHoles   verdict.Code = "mount.holes"
	CodePlate   verdict.Code = "mount.plate"
	CodeScrew   verdict.Code = "mount.screw"
	CodeTooLong verdict.Code = "mount.screw-too-long"
	CodeShort   verdict.Code = "mount.screw-too-short"
	CodeOrder   verdict.Code = "mount.screw-to-order"
	CodeHeight  verdict.Code = "mount.height"
	CodeCage    verdict.Code = "mount.cage"
	CodeLens    verdict.Code = "mount.lens"
	CodeCable   verdict.Code = "mount.camera-cable"
	CodeAccess  verdict.Code = "mount.access"
	CodeLead    verdict.Code = "mount.antenna-lead"
	CodeTurned  verdict.Code = "mount.board-turned"
	CodeFits    verdict.Code = "mount.fits"
)

const practice = "common practice"

const (
	// bend is what a cable wants over the straight way: a ribbon must not be bent
	// hard (common practice; the share is from memory).
	bend = 1.10
	// cageSlack is what a camera cage gives on both sides together (from memory).
	cageSlack unit.Millimetres = 0.5
)

// Check judges how the air unit of one fit is mounted.
func Check(c fleet.Case) []verdict.Finding {
	s := newSeat(c)
	findings := make([]verdict.Finding, 0, 4)
	if len(s.missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeUnknown, c.Quad.Label(), s.missing...))
	} else {
		findings = append(findings, s.checkHoles()...)
		findings = append(findings, s.checkHeight()...)
		findings = append(findings, s.checkCamera()...)
		findings = append(findings, s.checkLeads()...)
		findings = append(findings, s.checkAccess()...)
	}
	if turn := c.Fit.BoardTurnDeg; turn != nil && *turn != 0 {
		findings = append(findings, verdict.Finding{Code: CodeTurned, Level: verdict.Caution, Source: practice,
			Says: fmt.Sprintf("The flight board is turned by %s: set its yaw alignment to %s before the first arming, or it flips over.", turn, turn)})
	}
	if len(findings) == 0 {
		holes, _ := s.holds()
		findings = append(findings, verdict.Finding{Code: CodeFits, Level: verdict.Fits, Source: practice,
			Says: fmt.Sprintf("%s sits on %s holes in the %s of %s; its screws are in the box.", s.airUnit.Label(), holes, s.bay.Label(), s.frame.Label())})
	}
	for i := range findings {
		findings[i].Gate = verdict.Mount
		if findings[i].Subject == "" {
			findings[i].Subject = c.Quad.Label()
		}
	}
	return findings
}

func patterns(list []gear.Holes) string {
	words := make([]string, len(list))
	for i, h := range list {
		words[i] = h.String()
	}
	return strings.Join(words, " or ")
}

func (s *seat) checkHoles() []verdict.Finding {
	holes, ok := s.holds()
	if !ok {
		f := verdict.Finding{Code: CodeHoles, Level: verdict.Unfit, Source: practice,
			Compares: []verdict.Compare{{What: "holes", Needed: patterns(s.airUnit.Mount.Patterns), There: patterns(s.bay.Patterns)}},
			Says:     fmt.Sprintf("%s has holes of %s, the %s of %s %s.", s.airUnit.Label(), patterns(s.airUnit.Mount.Patterns), s.bay.Label(), s.frame.Label(), patterns(s.bay.Patterns))}
		if s.plate != nil {
			f.Says = fmt.Sprintf("%s joins %s with %s; that is not what lies here.", s.plate.Label(), s.plate.From, s.plate.To)
		}
		if plates := s.plates(); len(plates) > 0 {
			f.Code, f.Level = CodePlate, verdict.Change
			f.Says += fmt.Sprintf(" %s joins them.", plates[0].Label())
		} else {
			f.Says += fmt.Sprintf(" An adapter plate from %s to %s would join them, or two new holes.", s.bay.Patterns[0], s.airUnit.Mount.Patterns[0])
		}
		return []verdict.Finding{f}
	}
	plan, missing := s.screwPlan(holes)
	if len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...)}
	}
	return s.checkScrew(plan)
}

func (s *seat) checkScrew(plan ScrewPlan) []verdict.Finding {
	range_ := fmt.Sprintf("%s from %s to %s", plan.Size, plan.LeastMM, plan.MostMM)
	f := verdict.Finding{Source: practice, Compares: []verdict.Compare{{What: "screws", Needed: range_, There: "none chosen"}}}
	chosen, picked := gear.Find[*gear.Screw](s.Library, s.Fit.Screw)
	if picked && chosen.LengthMM != nil {
		f.Compares[0].There = chosen.Label()
		switch {
		case chosen.Size != plan.Size:
			f.Code, f.Level, f.Says = CodeScrew, verdict.Unfit, fmt.Sprintf("%s is %s, the threads of %s take %s.", chosen.Label(), chosen.Size, s.airUnit.Label(), plan.Size)
		case *chosen.LengthMM > plan.MostMM:
			f.Code, f.Level = CodeTooLong, verdict.Unfit
			f.Says = fmt.Sprintf("%s is %s too long: it drives into the circuit board of %s.", chosen.Label(), *chosen.LengthMM-plan.MostMM, s.airUnit.Label())
		case *chosen.LengthMM < plan.LeastMM:
			f.Code, f.Level = CodeShort, verdict.Unfit
			f.Says = fmt.Sprintf("%s is %s too short to hold: %s is clamped and %s of thread wanted.", chosen.Label(), plan.LeastMM-*chosen.LengthMM, plan.LeastMM-sizes[plan.Size], sizes[plan.Size])
		default:
			return nil
		}
		return []verdict.Finding{f}
	}
	switch {
	case plan.Use == "":
		f.Code, f.Level, f.Says = CodeOrder, verdict.Change, fmt.Sprintf("Four %s are to be ordered before the bench day: none in the library is as long.", range_)
	case !plan.Owned:
		f.Code, f.Level, f.Says = CodeOrder, verdict.Change, fmt.Sprintf("Four %s are to be ordered before the bench day: %s would do, none is in the box.", range_, plan.Label)
	default:
		return nil
	}
	return []verdict.Finding{f}
}

func (s *seat) checkHeight() []verdict.Finding {
	height := s.airUnit.Mount.HeightMM
	var missing []verdict.Missing
	if height == nil {
		missing = append(missing, s.unitValue("mount.heightMM", "height"))
	}
	if s.bay.HeightMM == nil {
		missing = append(missing, s.frameValue("bays."+s.bay.ID+".heightMM", "clear height of its "+s.bay.Label()))
	}
	if s.plate != nil && s.plate.ThickMM == nil {
		missing = append(missing, verdict.GearValue(&s.plate.Entry, "thickMM", "thickness"))
	}
	if len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...)}
	}
	stack := *height
	if s.plate != nil {
		stack += *s.plate.ThickMM
	}
	if s.Fit.SoftMM != nil {
		stack += *s.Fit.SoftMM
	}
	over := stack - *s.bay.HeightMM
	if over <= 0 {
		return nil
	}
	return []verdict.Finding{{Code: CodeHeight, Level: verdict.Unfit, Source: practice,
		Compares: []verdict.Compare{{What: "height", Needed: stack.String(), There: s.bay.HeightMM.String()}},
		Says:     fmt.Sprintf("It stacks to %s, the %s of %s is clear for %s: %s too high. Standoffs longer by that, the top plate, or side by side.", stack, s.bay.Label(), s.frame.Label(), s.bay.HeightMM, over)}}
}

func (s *seat) checkCamera() (findings []verdict.Finding) {
	cam := s.airUnit.Camera
	if cam == nil {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), s.unitValue("camera", "camera"))}
	}
	var missing []verdict.Missing
	need := func(v *unit.Millimetres, m verdict.Missing) bool {
		if v == nil {
			missing = append(missing, m)
		}
		return v != nil
	}
	wide, cage := need(cam.WidthMM, s.unitValue("camera.widthMM", "camera width")), need(s.frame.CageMM, s.frameValue("cageMM", "camera cage"))
	if wide && cage {
		gap := *s.frame.CageMM - *cam.WidthMM
		switch {
		case gap < -cageSlack:
			findings = append(findings, verdict.Finding{Code: CodeCage, Level: verdict.Unfit, Source: practice,
				Says: fmt.Sprintf("The camera is %s wide, the cage of %s %s: it does not go in.", cam.WidthMM, s.frame.Label(), s.frame.CageMM)})
		case gap > cageSlack:
			findings = append(findings, verdict.Finding{Code: CodeCage, Level: verdict.Caution, Source: practice,
				Says: fmt.Sprintf("The camera is %s wide in a cage of %s: spacers of %s on each side.", cam.WidthMM, s.frame.CageMM, gap/2)})
		}
	}
	cable, way := need(cam.CableMM, s.unitValue("camera.cableMM", "camera cable")), need(s.bay.CameraMM, s.frameValue("bays."+s.bay.ID+".cameraMM", "way of the camera cable from its "+s.bay.Label()))
	if cable && way {
		if wanted := *s.bay.CameraMM * bend; *cam.CableMM < wanted {
			findings = append(findings, verdict.Finding{Code: CodeCable, Level: verdict.Unfit, Source: practice,
				Compares: []verdict.Compare{{What: "camera cable", Needed: fmt.Sprintf("%.0f mm with bends", float64(wanted)), There: cam.CableMM.String()}},
				Says:     fmt.Sprintf("The camera cable is %s; from the %s of %s it wants %.0f mm with its bends.", cam.CableMM, s.bay.Label(), s.frame.Label(), float64(wanted))})
		}
	}
	if cam.LensMM != nil && s.frame.GuardMM != nil && *cam.LensMM > *s.frame.GuardMM {
		findings = append(findings, verdict.Finding{Code: CodeLens, Level: verdict.Caution, Source: practice,
			Says: fmt.Sprintf("The lens stands %s out in front of the cage: the first crash lands on it.", *cam.LensMM-*s.frame.GuardMM)})
	}
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...))
	}
	return findings
}

// checkLeads holds the antenna leads against their way; not asked for where the
// antennas or the way are not stated.
func (s *seat) checkLeads() (findings []verdict.Finding) {
	if s.Fit.Antennas == nil || s.bay.AntennaMM == nil {
		return nil
	}
	wanted := *s.bay.AntennaMM * bend
	seen := map[string]bool{}
	for _, id := range s.Fit.Antennas.Models {
		a, ok := gear.Find[*gear.Antenna](s.Library, id)
		if !ok || seen[id] || a.LeadMM == nil || *a.LeadMM >= wanted {
			continue
		}
		seen[id] = true
		findings = append(findings, verdict.Finding{Code: CodeLead, Level: verdict.Unfit, Source: practice,
			Compares: []verdict.Compare{{What: "antenna lead", Needed: fmt.Sprintf("%.0f mm with bends", float64(wanted)), There: a.LeadMM.String()}},
			Says:     fmt.Sprintf("The lead of %s is %s; from the %s of %s it wants %.0f mm with its bends.", a.Label(), a.LeadMM, s.bay.Label(), s.frame.Label(), float64(wanted))})
	}
	return findings
}

// accessWords are the things a builder must reach, in the order they are needed.
var accessWords = []struct{ key, words string }{{"usb", "the unit's USB"}, {"bind", "the bind button"}, {"card", "the card slot"}}

// Hidden lists what cannot be reached with the frame closed; false where that is
// not stated.
func (s *seat) hidden() (list []string, known bool) {
	if len(s.airUnit.Mount.Access) == 0 || s.bay.Open == nil {
		return nil, false
	}
	for _, a := range accessWords {
		if side, there := s.airUnit.Mount.Access[a.key]; there && !slices.Contains(s.bay.Open, side) {
			list = append(list, a.words)
		}
	}
	return list, true
}

func (s *seat) checkAccess() []verdict.Finding {
	list, known := s.hidden()
	switch {
	case !known:
		var missing []verdict.Missing
		if len(s.airUnit.Mount.Access) == 0 {
			missing = append(missing, s.unitValue("mount.access", "where USB, bind button and card are"))
		}
		if s.bay.Open == nil {
			missing = append(missing, s.frameValue("bays."+s.bay.ID+".open", "what can be reached of its "+s.bay.Label()))
		}
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...)}
	case len(list) == 0:
		return nil
	}
	return []verdict.Finding{{Code: CodeAccess, Level: verdict.Caution, Source: practice,
		Says: fmt.Sprintf("With the frame closed, %s cannot be reached: update, activate, bind and put the card in before.", strings.Join(list, ", "))}}
}

// Candidates lists the plates and screws that would do, and the other bays.
func Candidates(c fleet.Case) (list []verdict.Candidate) {
	s := newSeat(c)
	if len(s.missing) > 0 {
		return nil
	}
	change := func(says, costs string, owned bool, change func(*fleet.Mounting)) {
		m := c.Fit.Mounting
		change(&m)
		list = append(list, verdict.Candidate{Says: says, Costs: costs, Owned: owned, Effort: verdict.Part, Patch: fleet.Patch{Mounting: &m}})
	}
	for _, p := range s.plates() {
		owned := c.Fleet.SpareCount(p.ID, c.Quad.ID) > 0
		costs := "to buy"
		switch {
		case owned:
			costs = ""
		case p.Printed:
			costs = "to print"
		}
		change("put the "+p.Label()+" between", costs, owned, func(m *fleet.Mounting) { m.Plate, m.Screw = p.ID, "" })
	}
	if holes, ok := s.holds(); ok {
		if plan, missing := s.screwPlan(holes); len(missing) == 0 {
			for _, screw := range gear.All[*gear.Screw](c.Library) {
				if plan.does(screw) && screw.ID != c.Fit.Screw {
					owned := c.Fleet.SpareCount(screw.ID, c.Quad.ID) > 0
					costs := "to order"
					if owned {
						costs = ""
					}
					change("use "+screw.Label(), costs, owned, func(m *fleet.Mounting) { m.Screw = screw.ID })
				}
			}
		}
	}
	for i := range s.frame.Bays {
		if bay := &s.frame.Bays[i]; bay.ID != c.Fit.Bay {
			change("put it into the "+bay.Label(), "", true, func(m *fleet.Mounting) { m.Bay, m.Plate, m.Screw = bay.ID, "", "" })
		}
	}
	return list
}
