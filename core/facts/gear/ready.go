package gear

import "yokeswap/core/measure/unit"

// ReadyQuad is a quad that is bought whole: what its sheet says is in it. How it is wired, held and set is
// its builder's.
type ReadyQuad struct {
	Entry
	AirUnit  string   `json:"airUnit,omitempty"`
	Board    string   `json:"board,omitempty"`
	Frame    string   `json:"frame,omitempty"`
	Receiver string   `json:"receiver,omitempty"` // empty: none is stated, the sticks go through its air unit
	Antennas []string `json:"antennas,omitempty"` // of its air unit
	Pack     string   `json:"pack,omitempty"`     // it is flown with
	// MassG is what it weighs without a pack.
	MassG *unit.Grams `json:"massG,omitempty"`
	// HoverA is what it draws at hover with that pack.
	HoverA *unit.Amps `json:"hoverA,omitempty"`
}

// Kind of a ready-made quad.
func (*ReadyQuad) Kind() Kind { return KindReadyQuad }
