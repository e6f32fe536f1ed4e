package gear

import (
	"math"
	"slices"
	"strconv"

	"yokeswap/core/measure/unit"
)

// Outline is a board or a part as it lies there, seen from above with its front up, with
// its solder pads where they are, as a builder copies them off a photo.
type Outline struct {
	XMM  *unit.Millimetres `json:"xMM,omitempty"` // from left to right
	YMM  *unit.Millimetres `json:"yMM,omitempty"` // from front to rear
	Pads []PadPlace        `json:"pads,omitempty"`
}

// PadPlace is where a pad lies. A board can have several pads of one name, as of ground.
type PadPlace struct {
	// At is what the pad is: of a board "ground", "tx4", "rx4", the id of a power pad or
	// a signal; of a part the number of its pin.
	At      string           `json:"at"`
	XMM     unit.Millimetres `json:"xMM"`            // of its middle, from the left edge
	YMM     unit.Millimetres `json:"yMM"`            // from the front edge
	Back    bool             `json:"back,omitempty"` // it lies underneath
	Printed string           `json:"printed,omitempty"`
}

// AtPin is what the place of a part's pin is called, counted from 1.
func AtPin(n int) string { return strconv.Itoa(n) }

// Places are the pads of a name, in the order they are listed; nil where none is placed.
func (o *Outline) Places(at string) (list []PadPlace) {
	if o == nil {
		return nil
	}
	for _, p := range o.Pads {
		if p.At == at {
			list = append(list, p)
		}
	}
	return list
}

// Drawn says whether there is anything to draw: its size, and a pad.
func (o *Outline) Drawn() bool {
	return o != nil && o.XMM != nil && o.YMM != nil && len(o.Pads) > 0
}

// Neighbour is a pad near another.
type Neighbour struct {
	PadPlace
	MM unit.Millimetres // from middle to middle
}

// Near are the pads on the same side within a distance of one, the nearest first.
func (o *Outline) Near(p PadPlace, within unit.Millimetres) (list []Neighbour) {
	for _, other := range o.Pads {
		away := unit.Millimetres(math.Hypot(float64(other.XMM-p.XMM), float64(other.YMM-p.YMM)))
		if other != p && other.Back == p.Back && away <= within {
			list = append(list, Neighbour{other, away})
		}
	}
	slices.SortStableFunc(list, func(a, b Neighbour) int {
		switch {
		case a.MM < b.MM:
			return -1
		case a.MM > b.MM:
			return 1
		}
		return 0
	})
	return list
}
