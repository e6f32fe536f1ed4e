package mount

import (
	"fmt"

	"yokeswap/core/facts/verdict"
)

// checkLeftOff says what it means that plates of the frame are left off.
func (s *seat) checkLeftOff() (findings []verdict.Finding) {
	if s.frame == nil {
		return nil
	}
	if len(s.Fit.LeftOff) > 0 && s.bay != nil && s.bay.On == "" {
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeLeftOff, s.Quad.Label(),
			s.frameValue("bays."+s.bay.ID+".on", "plate its "+s.bay.Label()+" is on")))
	}
	for _, id := range s.Fit.LeftOff {
		plate, there := s.frame.Plate(id)
		f := verdict.Finding{Code: CodeLeftOff, Level: verdict.Caution, Source: verdict.Practice, Subject: s.frame.Label()}
		switch {
		case !there:
			f.Level = verdict.Unfit
			f.Says = fmt.Sprintf("A plate is left off that %s does not have: %s.", s.frame.Label(), id)
		case s.bay != nil && s.bay.On == id:
			f.Level = verdict.Unfit
			f.Says = fmt.Sprintf("The %s of %s is on its %s, which is left off: the unit has nothing to sit on.",
				s.bay.Label(), s.frame.Label(), plate.Label())
		default:
			f.Says = fmt.Sprintf("The %s of %s is left off: the frame bends more, its arms hold less, and what lies under it "+
				"takes the crash.", plate.Label(), s.frame.Label())
		}
		findings = append(findings, f)
	}
	return findings
}

// wronglyOff are the plates left off that have to be put on: the one the unit sits on, and any the
// frame does not have.
func (s *seat) wronglyOff() (list []string) {
	for _, id := range s.Fit.LeftOff {
		if _, there := s.frame.Plate(id); !there || s.bay.On == id {
			list = append(list, id)
		}
	}
	return list
}
