package power

import (
	"fmt"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/verdict"
)

// jumperOf is the jumper pad a part is fed from, and the choice soldered.
func (s supply) jumperOf(part consumer) (pad *gear.Pad, choice string, ok bool) {
	from, _ := s.Fit.FeedOf(part.node)
	id, isPad := fleet.PadOf(from)
	if !isPad || s.board == nil {
		return nil, "", false
	}
	pad, found := s.board.Pad(id)
	if !found || pad.Kind != gear.PadJumper {
		return nil, "", false
	}
	choice = s.Fit.Jumpers[pad.ID]
	if choice == "" {
		choice = pad.Default
	}
	return pad, choice, true
}

// cureByJumper looks for a choice of the part's own jumper pad that gives it a
// voltage within its window.
func (s supply) cureByJumper(part consumer) (fleet.Jumper, bool) {
	pad, choice, ok := s.jumperOf(part)
	if !ok {
		return fleet.Jumper{}, false
	}
	for _, other := range pad.Choices {
		if other == choice {
			continue
		}
		set := fleet.Jumper{Pad: pad.ID, Choice: other}
		sees := newSupply(s.With(fleet.Patch{Jumper: &set})).sees(part.node)
		if inside(sees, part.input) {
			return set, true
		}
	}
	return fleet.Jumper{}, false
}

// inside says whether a fully known envelope lies in a fully known window.
func inside(e Envelope, w *gear.Input) bool {
	return e.Full != nil && e.Lowest != nil && w.MinV != nil && w.MaxV != nil &&
		*e.Full <= *w.MaxV+meterResolution && *e.Lowest >= *w.MinV-meterResolution
}

// jumperFinding turns an unfit feed into the change that mends it.
func jumperFinding(f verdict.Finding, cure fleet.Jumper) verdict.Finding {
	f.Code, f.Level = CodeJumper, verdict.Change
	f.Says += fmt.Sprintf(" The solder jumper of pad %s on %s puts that right.", cure.Pad, cure.Choice)
	return f
}
