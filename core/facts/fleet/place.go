package fleet

import (
	"fmt"
	"slices"

	"yokeswap/core/measure/unit"
)

// Spot is where a part lies on the quad: x forward, y to the left and z up, from the origin
// of its frame.
type Spot struct {
	// Part is what lies there: airUnit, board, receiver, camera, pack, or the id of a part.
	Part string           `json:"part"`
	XMM  unit.Millimetres `json:"xMM"` // of the middle of its underside
	YMM  unit.Millimetres `json:"yMM"`
	ZMM  unit.Millimetres `json:"zMM"` // of its underside
	// Quarters it is turned to the left, seen from above.
	Quarters int `json:"quarters,omitempty"`
}

// Words say where it lies: "38 mm back, 2 mm up, turned by 90°".
func (p *Spot) Words() string {
	way := func(by unit.Millimetres, there, back string) string {
		if by < 0 {
			return fmt.Sprintf("%s %s", -by, back)
		}
		return fmt.Sprintf("%s %s", by, there)
	}
	words := way(p.XMM, "forward", "back")
	if p.YMM != 0 {
		words += ", " + way(p.YMM, "to the left", "to the right")
	}
	words += ", " + way(p.ZMM, "up", "down")
	if p.Quarters != 0 {
		words += fmt.Sprintf(", turned by %d°", 90*p.Quarters)
	}
	return words
}

// PlaceOf is where a part lies; false where nobody has said.
func (m *Mounting) PlaceOf(part string) (Spot, bool) {
	i := slices.IndexFunc(m.Places, func(p Spot) bool { return p.Part == part })
	if i < 0 {
		return Spot{}, false
	}
	return m.Places[i], true
}

// Placing puts a part somewhere, or takes out where it lies.
type Placing struct {
	Spot
	Out bool `json:"out,omitempty"`
}

// setPlace puts a part somewhere.
func (f *Fit) setPlace(p Placing) {
	f.Places = put(f.Places, p.Spot, p.Out, func(o Spot) bool { return o.Part == p.Part })
}

// lies are the parts without an id of their own that can lie somewhere.
var lies = []string{NodeAirUnit, NodeBoard, NodeReceiver, NodeCamera, NodePack}

// CanLie says whether a part of that name can lie somewhere on a fit.
func (f *Fit) CanLie(part string) bool {
	_, on := f.Part(part)
	return on || slices.Contains(lies, part)
}
