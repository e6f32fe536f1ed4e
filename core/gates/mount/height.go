package mount

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// StandoffCount is how many standoffs the frame of a fit has.
func StandoffCount(c fleet.Case) int {
	frame, ok := c.Frame()
	if !ok {
		return (&gear.Frame{}).StandoffCount()
	}
	return frame.StandoffCount()
}

// stack is how high the unit stands in its bay, and what of that is not known.
func (s *seat) stack() (stack unit.Millimetres, missing []verdict.Missing) {
	if h := s.mount.HeightMM; h != nil {
		stack = *h
	} else {
		missing = append(missing, s.unitValue("mount.heightMM", "height"))
	}
	switch {
	case s.plate == nil:
	case s.plate.ThickMM == nil:
		missing = append(missing, verdict.GearValue(&s.plate.Entry, "thickMM", "thickness"))
	default:
		stack += *s.plate.ThickMM
	}
	if s.Fit.SoftMM != nil {
		stack += *s.Fit.SoftMM
	}
	switch {
	case s.Fit.OwnHoles():
	case s.held.ThickMM == nil:
		missing = append(missing, s.holdValue(s.held, "thickMM", "thickness of what lies under "+s.airUnit.Label()))
	default:
		stack += *s.held.ThickMM
	}
	return stack, missing
}

// clear is the height a bay gives on the standoffs of a fit.
func (s *seat) clear(bay *gear.Bay, on fleet.Case) (clear unit.Millimetres, missing []verdict.Missing) {
	if bay.HeightMM == nil {
		missing = append(missing, s.frameValue("bays."+bay.ID+".heightMM", "clear height of its "+bay.Label()))
	} else {
		clear = *bay.HeightMM
	}
	by, known := on.RaisedMM()
	switch {
	case !known:
		missing = append(missing, s.lengths(on)...)
	case bay.Raised || by < 0: // shorter ones may lower any bay
		clear += by
	}
	return clear, missing
}

// lengths are those of standoffs that are not stated.
func (s *seat) lengths(of fleet.Case) (missing []verdict.Missing) {
	if s.frame.StandoffMM == nil {
		missing = append(missing, s.frameValue("standoffMM", "length of its standoffs"))
	}
	if on, other := of.Standoff(); other && on.LengthMM == nil {
		missing = append(missing, verdict.GearValue(&on.Entry, "lengthMM", "length"))
	}
	return missing
}

func (s *seat) checkHeight() []verdict.Finding {
	on, swapped := s.Standoff()
	if swapped && on.Size != s.frame.StandoffSize && s.frame.StandoffSize != "" {
		return []verdict.Finding{{Code: CodeHeight, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("%s has %s threads, the standoffs of %s are %s.", on.Label(), on.Size, s.frame.Label(),
				s.frame.StandoffSize)}}
	}
	stack, missing := s.stack()
	clear, more := s.clear(s.bay, s.Case)
	if s.Fit.Off(s.bay.Cover) {
		return nil // nothing lies over it
	}
	if missing = append(missing, more...); len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...)}
	}
	over := unit.Less(stack, clear)
	if over <= 0 {
		return nil
	}
	f := verdict.Finding{Code: CodeHeight, Level: verdict.Unfit, Source: verdict.Practice,
		Compares: []verdict.Compare{{
			What:   "height",
			Needed: stack.String(),
			There:  clear.String(),
			Margin: (-over).String(),
		}},
		Says: fmt.Sprintf("It stacks to %s, the %s of %s is clear for %s: %s too high.", stack, s.bay.Label(),
			s.frame.Label(), clear, over)}
	if s.bay.Raised && s.frame.StandoffMM != nil {
		f.Says += fmt.Sprintf(" Standoffs of %s would do.", *s.frame.StandoffMM+over)
	}
	return []verdict.Finding{f}
}

// on is the fit on other standoffs as they come; on the frame's own where none is named.
func (s *seat) on(model string) fleet.Case {
	m := s.Fit.Mounting
	m.Standoff, m.StandoffCutMM = model, nil
	return s.With(fleet.Patch{Mounting: &m})
}

// standoff is what would raise a bay enough: owned first, then the shortest; nil
// where the bay is high enough, standoffs do not help, or something is not known.
func (s *seat) standoff(bay *gear.Bay) (best *gear.Standoff, owned bool) {
	stack, missing := s.stack()
	if clear, more := s.clear(bay, s.Case); len(missing)+len(more) > 0 || !bay.Raised || clear >= stack {
		return nil, false
	}
	for _, on := range gear.All[*gear.Standoff](s.Library) {
		clear, missing := s.clear(bay, s.on(on.ID))
		if len(missing) > 0 || clear < stack || s.frame.StandoffSize == "" || on.Size != s.frame.StandoffSize {
			continue
		}
		have := s.Fleet.SpareCount(on.ID, s.Quad.ID) >= s.frame.StandoffCount()
		if best == nil || have && !owned || have == owned && *on.LengthMM < *best.LengthMM {
			best, owned = on, have
		}
	}
	return best, owned
}
