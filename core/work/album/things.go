package album

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/work/bench"
)

// PhotoThing is something a photo can be of.
type PhotoThing struct {
	Of    Of     `json:"of"`
	Key   string `json:"key,omitempty"`
	Label string `json:"label"`
}

// Things are what a photo of a quad can be of: the quad, the plugs of its board and of its air unit, what is
// wrong with it, and the steps of its sheet.
func Things(c fleet.Case, sheet *bench.Sheet) []PhotoThing {
	list := []PhotoThing{{Of: Whole, Label: c.Quad.Label()}}
	if board, ok := c.Board(); ok {
		for i := range board.Plugs {
			list = append(list, PhotoThing{Plug, board.Plugs[i].ID, board.Plugs[i].Label()})
		}
	}
	if _, _, ok := c.AirUnit(); ok {
		list = append(list, PhotoThing{Plug, fleet.NodeAirUnit, "the plug of the air unit"})
	}
	list = append(list, PhotoThing{Of: Fault, Label: "what is wrong"})
	for i := range sheet.Steps {
		list = append(list, PhotoThing{Step, sheet.Steps[i].ID, sheet.Steps[i].Title})
	}
	return list
}
