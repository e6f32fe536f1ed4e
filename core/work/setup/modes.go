package setup

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/control"
)

// Empty says whether a slot holds no range: it ends where it begins.
func (r Range) Empty() bool { return r.FromUS >= r.ToUS }

func (r Range) words() string { return fmt.Sprintf("AUX %d, %d to %d µs", r.Aux+1, r.FromUS, r.ToUS) }

// nothing is what an empty slot holds.
var nothing = Range{FromUS: 900, ToUS: 900}

// ranges lists the ranges a mode is on, in words and in order.
func (s *State) ranges(mode int) []string {
	var words []string
	for _, r := range s.Modes {
		if !r.Empty() && r.Mode == mode {
			words = append(words, r.words())
		}
	}
	slices.Sort(words)
	return words
}

// put brings a mode onto the ranges wanted and changes as few slots as it can: a
// board may keep more of a slot than is read here. Slots that hold a wanted range
// stay, other slots of the mode are used again or emptied, what is left goes into
// the first empty slots, and then behind.
func put(slots []Range, mode int, wanted []Range) []Range {
	slots, left := slices.Clone(slots), slices.Clone(wanted)
	var free []int
	for i, r := range slots {
		if r.Empty() || r.Mode != mode {
			continue
		}
		if at := slices.Index(left, r); at >= 0 {
			left = slices.Delete(left, at, at+1)
		} else {
			free = append(free, i)
		}
	}
	for _, i := range free {
		slots[i] = nothing
	}
	for i, r := range slots {
		if r.Empty() && !slices.Contains(free, i) {
			free = append(free, i)
		}
	}
	for i := range left {
		if i < len(free) {
			slots[free[i]] = left[i]
		} else {
			slots = append(slots, left[i])
		}
	}
	return trimmed(slots)
}

// trimmed leaves the empty slots at the end out.
func trimmed(slots []Range) []Range {
	for len(slots) > 0 && slots[len(slots)-1] == nothing {
		slots = slots[:len(slots)-1]
	}
	return slots
}

// modes sets the switches. Modes the plan does not speak of stay as they are.
func (w *comparing) modes() {
	if w.Fit.Sticks == nil {
		return
	}
	planned := map[string][]Range{}
	var order []string
	for _, s := range w.Fit.Sticks.Switches {
		n, ok := w.runs.Modes[s.Mode]
		if !ok {
			continue
		}
		if planned[s.Mode] == nil {
			order = append(order, s.Mode)
		}
		planned[s.Mode] = append(planned[s.Mode], Range{
			Mode:   n,
			Aux:    s.Aux - 1,
			FromUS: control.BoardSteps(s.FromUS),
			ToUS:   control.BoardSteps(s.ToUS),
		})
	}
	for _, mode := range order {
		n := w.runs.Modes[mode]
		found := strings.Join(w.found.ranges(n), ", ")
		w.Target.Modes = put(w.Target.Modes, n, planned[mode])
		wanted := strings.Join(w.Target.ranges(n), ", ")
		if found == "" {
			found = "on no switch"
		}
		w.row(verdict.Control, CodeModes, "mode "+strings.ReplaceAll(mode, "-", " "), wanted, found, "as the plan has it",
			"put it on "+wanted)
	}
}
