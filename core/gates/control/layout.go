package control

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// Layout is how sticks and switches can be set up.
type Layout struct {
	Label  string
	Note   string
	Sticks fleet.Sticks
}

// mostLayouts bounds how many are proposed.
const mostLayouts = 2

// Layouts proposes how the sticks and switches of a plan could be set up, where nothing is said
// of them: as on it today and on the quads there are, so that hands find the same, and as is usual. None is
// what is set up today: that is read off the board.
//
// Source: common practice.
func Layouts(c fleet.Case) (list []Layout) {
	if c.FitName != fleet.FitNext || c.Fit.Sticks != nil {
		return nil
	}
	if whole(c.Quad.Now.Sticks) {
		list = append(list, Layout{words(c.Quad.Now.Sticks), "as on " + c.Quad.Label() + " today", *c.Quad.Now.Sticks})
	}
	for i := range c.Fleet.Quads {
		q := &c.Fleet.Quads[i]
		s := q.Now.Sticks
		if q.ID == c.Quad.ID || !whole(s) {
			continue
		}
		same := slices.IndexFunc(list, func(l Layout) bool { return alike(&l.Sticks, s) })
		switch {
		case same >= 0:
			list[same].Note += ", " + q.Label()
		case len(list) < mostLayouts:
			list = append(list, Layout{words(s), "as on " + q.Label(), *s})
		}
	}
	if s, ok := usual(c); ok && !slices.ContainsFunc(list, func(l Layout) bool { return alike(&l.Sticks, &s) }) {
		list = append(list, Layout{words(&s), "as is usual: it is set up so, and tried without propellers", s})
	}
	for i := range list {
		list[i].Sticks.Unit, list[i].Sticks.Board = variantOf(c), variantOf(c)
	}
	return slices.DeleteFunc(list, func(l Layout) bool { return !harmless(c.With(fleet.Patch{Sticks: &l.Sticks})) })
}

// whole says whether all is known of a set-up that hands find.
func whole(s *fleet.Sticks) bool {
	return s != nil && s.Order != "" && s.MinUS != nil && s.MaxUS != nil && len(s.Switches) > 0
}

// harmless says whether the gate has nothing to say against how the sticks are set up.
func harmless(c fleet.Case) bool {
	return !slices.ContainsFunc(check(c), func(f verdict.Finding) bool {
		return f.Code != CodeLatency && (f.Level == verdict.Unfit || f.Level == verdict.Change || f.Level == verdict.Caution)
	})
}

// alike says whether hands find the same on both.
func alike(a, b *fleet.Sticks) bool {
	return a.Order == b.Order && *a.MinUS == *b.MinUS && *a.MaxUS == *b.MaxUS && slices.Equal(a.Switches, b.Switches)
}

// usual is arming and, where the firmware has it, the level mode on a switch each; false where
// the firmware's modes are not known.
func usual(c fleet.Case) (s fleet.Sticks, ok bool) {
	if c.Fit.Runs == nil {
		return s, false
	}
	runs, known := gear.Find[*gear.FlightFirmware](c.Library, c.Fit.Runs.ID)
	if !known {
		return s, false
	}
	low, high := lowEnd, highEnd
	s = fleet.Sticks{Order: "AETR", MinUS: &low, MaxUS: &high}
	for aux, mode := range []string{Arm, Level} {
		if _, has := runs.Modes[mode]; has {
			s.Switches = append(s.Switches, fleet.Switch{Mode: mode, Aux: aux + 1, FromUS: armFrom, ToUS: armTo})
		}
	}
	return s, len(s.Switches) > 0 && s.Switches[0].Mode == Arm
}

// variantOf is the first RC protocol the air unit sends its sticks with; empty where they come
// another way, or that is not stated.
func variantOf(c fleet.Case) fleet.Variant {
	if _, own := c.Receiver(); own {
		return ""
	}
	if u, _, ok := c.AirUnit(); ok && u.RCOut != nil && len(u.RCOut.Variants) > 0 {
		return fleet.Variant(u.RCOut.Variants[0])
	}
	return ""
}

// words are a layout in one line.
func words(s *fleet.Sticks) string {
	list := []string{fmt.Sprintf("%s, %d to %d µs", s.Order, *s.MinUS, *s.MaxUS)}
	for _, w := range s.Switches {
		list = append(list, fmt.Sprintf("%s on AUX %d, %d to %d", modeWords(w.Mode), w.Aux, w.FromUS, w.ToUS))
	}
	return strings.Join(list, "; ")
}
