package mount

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// checkStack asks whether another flight board, or the one there in another frame, goes
// where the stack sits: holes, and the height it takes. One that stays where it is is not
// asked about, and neither is one where nobody has stated anything of it.
func (s *seat) checkStack() []verdict.Finding {
	board, ok := s.Board()
	if !ok || s.FitName == fleet.FitNow ||
		s.Fit.Board == s.Quad.Now.Board && s.Fit.Frame == s.Quad.Now.Frame {
		return nil
	}
	var missing []verdict.Missing
	if len(board.Patterns) == 0 {
		missing = append(missing, verdict.GearValue(&board.Entry, "patterns", "holes"))
	}
	if board.HeightMM == nil {
		missing = append(missing, verdict.GearValue(&board.Entry, "heightMM", "height with what is on it"))
	}
	if len(s.frame.StackPatterns) == 0 {
		missing = append(missing, s.frameValue("stackPatterns", "holes of its stack"))
	}
	if s.frame.StackMM == nil {
		missing = append(missing, s.frameValue("stackMM", "height there is for its flight board"))
	}
	if len(missing) == 4 {
		return nil
	}
	f := verdict.Finding{Code: CodeStack, Level: verdict.Unfit, Subject: board.Label(), Part: fleet.NodeBoard,
		Source: verdict.Practice}
	if len(board.Patterns) > 0 && len(s.frame.StackPatterns) > 0 &&
		!slices.ContainsFunc(board.Patterns, func(h gear.Holes) bool {
			return slices.ContainsFunc(s.frame.StackPatterns, h.Same)
		}) {
		f.Compares = []verdict.Compare{{What: "holes of the flight board", Needed: patterns(board.Patterns),
			There: patterns(s.frame.StackPatterns)}}
		f.Says = fmt.Sprintf("%s has holes of %s, the stack of %s sits on %s.", board.Label(), patterns(board.Patterns),
			s.frame.Label(), patterns(s.frame.StackPatterns))
		return []verdict.Finding{f}
	}
	if board.HeightMM != nil && s.frame.StackMM != nil && unit.Over(*board.HeightMM, *s.frame.StackMM) {
		there, needed := unit.Pair(*s.frame.StackMM, *board.HeightMM)
		f.Compares = []verdict.Compare{{What: "height for the flight board", Needed: needed + " at least", There: there}}
		f.Says = fmt.Sprintf("%s stands %s high, %s leaves %s for it: %s too little. Longer standoffs, or a lower stack.",
			board.Label(), needed, s.frame.Label(), there, unit.Less(*board.HeightMM, *s.frame.StackMM))
		return []verdict.Finding{f}
	}
	if len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeStack, board.Label(), missing...)}
	}
	return nil
}
