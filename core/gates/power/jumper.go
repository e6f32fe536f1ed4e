package power

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// jumperOf is the jumper pad a part is fed from, and the choice soldered; an empty
// choice is not known.
func (s supply) jumperOf(node string) (pad *gear.Pad, choice string, ok bool) {
	from, _ := s.Fit.FeedOf(node)
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

// onJumper lists the parts fed through a jumper pad.
func (s supply) onJumper(pad *gear.Pad) (parts []consumer) {
	for _, part := range s.consumers() {
		if other, _, ok := s.jumperOf(part.node); ok && other.ID == pad.ID {
			parts = append(parts, part)
		}
	}
	return parts
}

// suits says whether a choice of a jumper gives a part a voltage within its window.
func (s supply) suits(part consumer, set fleet.Jumper) bool {
	return inside(newSupply(s.With(fleet.Patch{Jumper: &set})).sees(part.node), part.input)
}

// cureByJumper looks for a choice of the part's own jumper pad that gives it, and
// everything else on that jumper, a voltage within its window. Where a choice would
// do for the part alone, the parts it would harm are named.
func (s supply) cureByJumper(part consumer) (cure fleet.Jumper, ok bool, against []string) {
	pad, choice, ok := s.jumperOf(part.node)
	if !ok {
		return fleet.Jumper{}, false, nil
	}
	others := slices.DeleteFunc(s.onJumper(pad), func(o consumer) bool { return o.node == part.node })
	for _, other := range pad.Choices {
		set := fleet.Jumper{Pad: pad.ID, Choice: other}
		if other == choice || !s.suits(part, set) {
			continue
		}
		var harmed []string
		for _, o := range others {
			if !s.suits(o, set) {
				harmed = append(harmed, o.label)
			}
		}
		if len(harmed) == 0 {
			return set, true, nil
		}
		if against == nil {
			against = harmed
		}
	}
	return fleet.Jumper{}, false, against
}

// inside says whether a fully known envelope lies in a fully known window.
func inside(e Envelope, w *gear.Input) bool {
	return e.Full != nil && e.Lowest != nil && w.MinV != nil && w.MaxV != nil &&
		!unit.Over(*e.Full, *w.MaxV) && !unit.Over(*w.MinV, *e.Lowest)
}

// jumpers turns an unfit feed into the change that mends it, where the part's jumper
// does; where two parts on one jumper want different choices, that is said.
func (s supply) jumpers(part consumer, findings []verdict.Finding) []verdict.Finding {
	if verdict.Worst(findings) != verdict.Unfit {
		return findings
	}
	cure, ok, against := s.cureByJumper(part)
	first := findings[0]
	switch {
	case ok:
		first.Danger = dangers[first.Code]
		first.Code, first.Level = CodeJumper, verdict.Change
		first.Says += fmt.Sprintf(" The solder jumper of the %s on %s puts that right.", padLabel(s.board, cure.Pad),
			padLabel(s.board, cure.Choice))
		return []verdict.Finding{first}
	case len(against) > 0:
		pad, _, _ := s.jumperOf(part.node)
		findings[0].Says += fmt.Sprintf(" No choice of the solder jumper of the %s suits it and %s: one of them needs "+
			"another feed.",
			pad.Label(), strings.Join(against, ", "))
	}
	return findings
}

func padLabel(b *gear.Board, id string) string {
	if pad, ok := b.Pad(id); ok {
		return pad.Label()
	}
	return id
}
