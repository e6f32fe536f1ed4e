package unit_test

import (
	"fmt"

	"yokeswap/core/measure/unit"
)

// Quantities print themselves and compare in whole thousandths.
func Example() {
	pack, limit := unit.Volts(6*4.2), unit.Volts(25.2)
	fmt.Println(pack, unit.Over(pack, limit), unit.Less(limit, unit.Volts(26.1)))
	// Output: 25.2 V false −0.9 V
}

// Two quantities that print alike get as many decimals as tell them apart.
func ExamplePair() {
	fmt.Println(unit.Pair(unit.Volts(16.84), unit.Volts(16.8)))
	// Output: 16.84 V 16.80 V
}
