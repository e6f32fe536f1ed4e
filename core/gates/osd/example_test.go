package osd_test

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/gates/osd"
)

// A layout of the analog grid on that of digital goggles: what stood near an edge stands as near
// in the picture.
func ExampleConvert() {
	analog := fleet.Layout{
		Grid:     "30x16",
		Elements: []fleet.Placed{{ID: "battery-voltage", X: 1, Y: 14}, {ID: "link-quality", X: 24, Y: 1}},
	}
	next, dropped := osd.Convert(analog, "53x20", func(string) (width, height int) { return 5, 1 })
	for _, e := range next.Elements {
		fmt.Println(e.ID, e.X, e.Y)
	}
	fmt.Println(len(dropped), "dropped")
	// Output:
	// battery-voltage 2 18
	// link-quality 46 1
	// 0 dropped
}
