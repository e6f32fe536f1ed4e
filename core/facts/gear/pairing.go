package gear

import (
	"slices"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/measure/unit"
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
	// Untested states that nobody has tried the two with each other: whether they link is
	// not known, and that is no gap in what was entered.
	Untested bool   `json:"untested,omitempty"`
	Note     string `json:"note,omitempty"`
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

// FeatureFlip is the feature, as pairings name it, by which the picture of a camera that
// sits upside down is turned.
const FeatureFlip = "picture flip"

// Gives says whether a statement names a feature, however its words are joined.
func (p *Pairing) Gives(feature string) bool {
	plain := func(s string) string { return strings.ToLower(strings.NewReplacer("-", " ", "_", " ").Replace(s)) }
	return slices.ContainsFunc(p.Features, func(f string) bool { return plain(f) == plain(feature) })
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

// Contradicts says in words how this statement and another about the same pair
// of models cannot both be true; empty where they can. They contradict each
// other where one says never, or where they speak of the same releases and mode
// and differ in the controllers or in what the link gives.
func (p *Pairing) Contradicts(other *Pairing) string {
	same := p.AirFirmware.Same(other.AirFirmware) && p.GogglesFirmware.Same(other.GogglesFirmware) && p.Mode == other.Mode
	switch {
	case p.Never != other.Never:
		return "one says they never link, the other that they do"
	case p.Never || !same:
		return ""
	case p.Controllers != nil && other.Controllers != nil && !sameSet(p.Controllers, other.Controllers):
		return "they name different controllers"
	case len(p.Features) > 0 && len(other.Features) > 0 && !sameSet(p.Features, other.Features):
		return "they give different features"
	}
	return ""
}

// sameSet says whether two lists hold the same, in whatever order.
func sameSet[T comparable](a, b []T) bool {
	within := func(a, b []T) bool {
		return !slices.ContainsFunc(a, func(x T) bool { return !slices.Contains(b, x) })
	}
	return within(a, b) && within(b, a)
}

// Kind of a pairing.
func (*Pairing) Kind() Kind { return KindPairing }
