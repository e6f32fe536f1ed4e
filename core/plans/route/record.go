package route

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// TakenStep is a step carried out, in words.
type TakenStep struct {
	fleet.Taken
	Says   string `json:"says"`
	AsPlan bool   `json:"asPlan"`
}

// Record puts the steps carried out into words, oldest first.
func Record(lib *gear.Library, f *fleet.Index) []TakenStep {
	steps := []TakenStep{}
	for _, t := range f.Taken {
		label, mode := t.Kit, t.Mode
		if kit, ok := f.Piece(t.Kit); ok {
			label = kit.Label()
			if goggles, ok := gear.Find[*gear.Goggles](lib, kit.Model); ok {
				if m, ok := goggles.Mode(t.Mode); ok {
					mode = m.Label()
				}
			}
		}
		step := TakenStep{Taken: t, AsPlan: true}
		switch {
		case t.NotOffered:
			step.Says, step.AsPlan = fmt.Sprintf("%s: %s was not offered", label, t.Planned), false
		case t.Do == string(Mode):
			step.Says = fmt.Sprintf("%s: switched to mode %s", label, mode)
		case t.Do == string(Activate):
			step.Says = label + ": activated"
		default:
			step.AsPlan = t.Planned.Known() && t.Read.Compare(t.Planned) == 0
			step.Says = fmt.Sprintf("%s: carries %s", label, t.Read)
			if !t.Read.Known() {
				step.Says = label + ": shows no release"
			}
			if !step.AsPlan && t.Planned.Known() {
				step.Says += fmt.Sprintf(", %s was planned", t.Planned)
			}
		}
		steps = append(steps, step)
	}
	return steps
}
