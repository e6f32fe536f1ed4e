package mount

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// threadEnds are the ends of a standoff that a screw goes into.
const threadEnds = 2

// checkCut says what it means that the standoffs are cut: it cannot be undone, and screws from both
// ends want their thread (common practice: a diameter each).
func (s *seat) checkCut() (findings []verdict.Finding) {
	cut := s.Fit.StandoffCutMM
	if s.frame == nil || cut == nil && s.Quad.Now.StandoffCutMM == nil {
		return nil
	}
	whole := s.WholeStandoffMM()
	size, lacks := s.standoffSize()
	if cut != nil {
		if missing := append(s.lengths(s.Case), lacks...); len(missing) > 0 {
			return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeCut, s.Quad.Label(), missing...)}
		}
	}
	f := verdict.Finding{Code: CodeCut, Level: verdict.Unfit, Source: verdict.Practice, Subject: s.frame.Label()}
	least := threadEnds * unit.Millimetres(threads) * sizes[size]
	switch was := s.cutAlready(); {
	case was != nil && (cut == nil || unit.Over(*cut, *was)):
		f.Says = fmt.Sprintf("The standoffs of %s are cut to %s: longer ones are to be had first. Put them on as others.",
			s.frame.Label(), was)
	case cut == nil:
		return nil
	case unit.Over(*cut, *whole):
		f.Says = fmt.Sprintf("The standoffs of %s are %s long: cut to %s they would have to grow.", s.frame.Label(), whole,
			cut)
	case unit.Over(least, *cut):
		f.Says = fmt.Sprintf("Cut to %s the standoffs of %s have no thread of a diameter for a screw from each end: %s at "+
			"least.", cut, s.frame.Label(), least)
	case was != nil || !unit.Over(*whole, *cut):
		return nil // it flies on them, or they are as long
	default:
		f.Level = verdict.Caution
		f.Says = fmt.Sprintf("The %d standoffs of %s are cut from %s to %s, and do not grow again: all to one length, "+
			"square, without burr, with %s of thread left at the cut end, or the frame stands crooked and its screws let go.",
			s.frame.StandoffCount(), s.frame.Label(), whole, cut, sizes[size])
	}
	return []verdict.Finding{f}
}

// cutAlready is what the standoffs are cut to today that the fit keeps; nil: they are not, or others
// go on.
func (s *seat) cutAlready() *unit.Millimetres {
	now := s.Quad.Now.Mounting
	if now.Frame != s.Fit.Frame || now.Standoff != s.Fit.Standoff {
		return nil
	}
	return now.StandoffCutMM
}

// standoffSize is the thread of the standoffs of a fit.
func (s *seat) standoffSize() (size string, missing []verdict.Missing) {
	on, other := s.Standoff()
	switch {
	case other && on.Size == "":
		return "", []verdict.Missing{verdict.GearValue(&on.Entry, "size", "size of its threads")}
	case other:
		return on.Size, nil
	case s.frame.StandoffSize == "":
		return "", []verdict.Missing{s.frameValue("standoffSize", "size of the threads of its standoffs")}
	}
	return s.frame.StandoffSize, nil
}

// checkStackUnder asks whether the flight board still has its height where standoffs are shorter than
// the frame's own.
func (s *seat) checkStackUnder() []verdict.Finding {
	by, known := s.RaisedMM()
	board, there := s.Board()
	if !there || known && by >= 0 || s.FitName == fleet.FitNow {
		return nil
	}
	missing := s.lengths(s.Case)
	if board.HeightMM == nil {
		missing = append(missing, verdict.GearValue(&board.Entry, "heightMM", "height with what is on it"))
	}
	if s.frame.StackMM == nil {
		missing = append(missing, s.frameValue("stackMM", "height there is for its flight board"))
	}
	if len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeStack, board.Label(), missing...)}
	}
	if !unit.Over(*board.HeightMM, *s.frame.StackMM+by) {
		return nil
	}
	has, needed := unit.Pair(*s.frame.StackMM+by, *board.HeightMM)
	return []verdict.Finding{{Code: CodeStack, Level: verdict.Unfit, Source: verdict.Practice, Subject: board.Label(),
		Part:     fleet.NodeBoard,
		Compares: []verdict.Compare{{What: "height for the flight board", Needed: needed + " at least", There: has}},
		Says: fmt.Sprintf("%s stands %s high, and on standoffs %s shorter %s leaves %s for it.", board.Label(), needed,
			-by, s.frame.Label(), has)}}
}

// standoffsOn says in words what stands between the plates.
func (s *seat) standoffsOn() *StandoffsOn {
	on := &StandoffsOn{Words: fmt.Sprintf("%d standoffs of the frame's own", s.frame.StandoffCount()),
		Cut: s.Fit.StandoffCutMM != nil}
	if other, there := s.Standoff(); there {
		on.Words = fmt.Sprintf("%d × %s", s.frame.StandoffCount(), other.Label())
	}
	if whole := s.WholeStandoffMM(); whole != nil {
		on.Words += fmt.Sprintf(", %s long", whole)
	}
	if on.Cut {
		on.Words += fmt.Sprintf(", cut to %s", s.Fit.StandoffCutMM)
	}
	return on
}
