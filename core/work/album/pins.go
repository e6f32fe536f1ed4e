package album

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
)

// Pins are what can be marked on a photo of a fit, in words: the pins of its air unit, and what is broken out
// of its flight board.
func Pins(c fleet.Case) []string {
	list := []string{}
	add := func(words string) {
		if !slices.Contains(list, words) {
			list = append(list, words)
		}
	}
	if unit, _, ok := c.AirUnit(); ok {
		for i, pin := range unit.Plug.Pins {
			if pin != "" {
				add(fmt.Sprintf("%s, pin %d: %s", unit.Label(), i+1, pin))
			}
		}
	}
	if board, ok := c.Board(); ok {
		for _, u := range board.UARTs {
			if u.TX {
				add(fmt.Sprintf("TX%d", u.ID))
			}
			if u.RX {
				add(fmt.Sprintf("RX%d", u.ID))
			}
		}
		for i := range board.Pads {
			add(board.Pads[i].Label())
		}
		add("ground")
	}
	return list
}
