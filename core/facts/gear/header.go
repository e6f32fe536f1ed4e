package gear

import (
	"slices"

	"yokeswap/core/measure/unit"
)

// KindHeader is a header.
const KindHeader Kind = "header"

// Header is a small socket that is soldered onto a row of pads, so that a cable goes in
// where there were bare pads.
type Header struct {
	Entry
	Connector string `json:"connector,omitempty"` // what goes into it
	// PitchMM is how far the pins that go onto the pads are apart.
	PitchMM *unit.Millimetres `json:"pitchMM,omitempty"`
	Pins    *int              `json:"pins,omitempty"`
	MassG   *unit.Grams       `json:"massG,omitempty"`
}

// Kind of a header.
func (*Header) Kind() Kind { return KindHeader }

// On is the plug that a header makes of a row of pads, pin 1 on pad 1, or turned, pin 1 on
// the last pad.
func (h *Header) On(row *Plug, turned bool) *Plug {
	plug := *row
	plug.Connector, plug.PitchMM, plug.None = h.Connector, nil, nil
	if turned {
		plug.Pins = slices.Clone(row.Pins)
		slices.Reverse(plug.Pins)
	}
	return &plug
}
