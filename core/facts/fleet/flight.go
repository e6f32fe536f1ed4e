package fleet

import (
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/gear"
)

// Flight is what the flight board of a quad runs, and how it is to be set up.
type Flight struct {
	Runs   *Runs   `json:"runs,omitempty"`
	OSD    *Layout `json:"osd,omitempty"`
	Sticks *Sticks `json:"sticks,omitempty"`
	// Features are those of the flight firmware that are on today, by its own names for them;
	// absent: not stated, and those that what is on the quad takes are taken to be on.
	Features []string `json:"features,omitzero"`
}

// Runs is a flight firmware and its release; an empty release is not known.
type Runs struct {
	ID      string           `json:"id"`
	Version firmware.Version `json:"version,omitempty"`
}

// Layout is where the elements of the OSD stand on a grid.
type Layout struct {
	Grid     gear.Grid `json:"grid"`
	Elements []Placed  `json:"elements"`
}

// Placed is one element with the cell of its left upper corner, both from 0.
type Placed struct {
	ID string `json:"id"`
	X  int    `json:"x"`
	Y  int    `json:"y"`
	// Profiles lists the profiles it is shown in, from 1; absent: the first alone.
	Profiles []int `json:"profiles,omitempty"`
}

// In says whether the element is shown in a profile.
func (p *Placed) In(profile int) bool {
	return len(p.Profiles) == 0 && profile == 1 || slices.Contains(p.Profiles, profile)
}

// ProfileBits is the profiles the element is shown in, as bits: the first is 1.
func (p *Placed) ProfileBits() (set uint8) {
	if len(p.Profiles) == 0 {
		return 1
	}
	for _, n := range p.Profiles {
		set |= 1 << (n - 1)
	}
	return set
}

func (l *Layout) clone() *Layout {
	if l == nil {
		return nil
	}
	out := *l
	out.Elements = slices.Clone(l.Elements)
	return &out
}

// Variant is how the sticks go from the air unit to the board; both ends must
// agree.
type Variant string

// The variants.
const (
	Normal     Variant = "normal"
	Fast       Variant = "fast"
	LowLatency Variant = "low-latency"
)

// Sticks is how the sticks reach the flight board and what the switches do.
type Sticks struct {
	Unit  Variant `json:"unit,omitempty"`  // set in the goggles, for the air unit
	Board Variant `json:"board,omitempty"` // set on the flight board
	// Order is the order of the first four channels, such as "AETR".
	Order string `json:"order,omitempty"`
	// MinUS and MaxUS are the ends the sticks reach, in microseconds.
	MinUS    *int     `json:"minUS,omitempty"`
	MaxUS    *int     `json:"maxUS,omitempty"`
	Switches []Switch `json:"switches,omitempty"`
}

// Switch is a mode on a range of an auxiliary channel, counted from 1.
type Switch struct {
	Mode   string `json:"mode"`
	Aux    int    `json:"aux"`
	FromUS int    `json:"fromUS"`
	ToUS   int    `json:"toUS"`
}

func (s *Sticks) clone() *Sticks {
	if s == nil {
		return nil
	}
	out := *s
	out.Switches = slices.Clone(s.Switches)
	return &out
}
