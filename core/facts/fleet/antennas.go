package fleet

import (
	"slices"

	"yokeswap/core/measure/unit"
)

// Antennas is what a quad carries on its air unit, and how it is placed.
type Antennas struct {
	Models  []string `json:"models,omitempty"` // one for each antenna
	Adapter string   `json:"adapter,omitempty"`
	// AngleDeg is the angle between two antennas; CarbonMM how far they stay from
	// carbon; ControlMM how far from the antenna of the sticks.
	AngleDeg  *unit.Degrees     `json:"angleDeg,omitempty"`
	CarbonMM  *unit.Millimetres `json:"carbonMM,omitempty"`
	ControlMM *unit.Millimetres `json:"controlMM,omitempty"`
	Placed    string            `json:"placed,omitempty"` // "protected" or "clear"
	Why       string            `json:"why,omitempty"`    // they stand as they do
}

func (a *Antennas) clone() *Antennas {
	if a == nil {
		return nil
	}
	out := *a
	out.Models = slices.Clone(a.Models)
	return &out
}
