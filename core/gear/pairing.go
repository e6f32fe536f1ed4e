package gear

import (
	"slices"

	"yokeswap/core/firmware"
	"yokeswap/core/unit"
)

// Pairing states that an air unit and a pair of goggles link while both
// firmwares lie in their ranges and the goggles are in the mode; or that they
// never do.
//
// Three answers come from the statements about a pair of models: one that
// holds for the versions at hand (it links), some but none that holds (it
// does not; the nearest is the change), and none at all (unknown).
type Pairing struct {
	Entry
	AirUnit         string         `json:"airUnit"`
	AirFirmware     firmware.Range `json:"airFirmware,omitempty"`
	Goggles         string         `json:"goggles"`
	GogglesFirmware firmware.Range `json:"gogglesFirmware,omitempty"`
	Mode            string         `json:"mode,omitempty"` // empty: whatever mode
	// Controllers that reach the flight board through the air unit under this
	// statement. An empty list means none does; an absent one, not stated.
	Controllers []ControllerRange `json:"controllers,omitzero"`
	Features    []string          `json:"features,omitempty"`
	Limits      *Limits           `json:"limits,omitempty"`
	Never       bool              `json:"never,omitempty"`
	Note        string            `json:"note,omitempty"`
}

// ControllerRange is a controller and the firmware it needs.
type ControllerRange struct {
	ID       string         `json:"id"`
	Firmware firmware.Range `json:"firmware,omitempty"`
}

// Limits are the bounds a pairing puts on the picture.
type Limits struct {
	BitrateMbps *unit.MegabitsPerSecond `json:"bitrateMbps,omitempty"`
	RangeKM     *unit.Kilometres        `json:"rangeKM,omitempty"`
}

// Beyond lists the features this statement gives and the other does not.
func (p *Pairing) Beyond(other *Pairing) []string {
	beyond := []string{}
	for _, f := range p.Features {
		if !slices.Contains(other.Features, f) {
			beyond = append(beyond, f)
		}
	}
	return beyond
}

// Kind of a pairing.
func (*Pairing) Kind() Kind { return KindPairing }
