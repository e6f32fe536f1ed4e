package gear

import "yokeswap/core/measure/unit"

// Bracket is what holds a part around it or under it, had ready-made or made once and kept: a bracket,
// a cage for a camera, a clip on a standoff.
type Bracket struct {
	Entry
	Nones // "frames": it goes on any
	// Way is what it is: bracket, cage or clip; empty: not stated.
	Way string `json:"way,omitempty"`
	// For are the models it is made around; absent: not stated.
	For []string `json:"for,omitempty"`
	// Frames are those it goes on; absent: not stated.
	Frames []string `json:"frames,omitempty"`
	// ThickMM is its floor, which lies under the part.
	ThickMM *unit.Millimetres `json:"thickMM,omitempty"`
	// InsideMM is its clear width, of one for a camera.
	InsideMM *unit.Millimetres `json:"insideMM,omitempty"`
	// Screws are how many of its own hold it; zero: it clamps.
	Screws *int        `json:"screws,omitempty"`
	MassG  *unit.Grams `json:"massG,omitempty"`
	// SoftensC is where what it is made of softens, in degrees Celsius.
	SoftensC *float64 `json:"softensC,omitempty"`
}

// NoFrames is what a bracket can state that it has none of: frames it is made for alone.
const NoFrames = "frames"

// Kind of a bracket.
func (*Bracket) Kind() Kind { return KindBracket }
