package power_test

import (
	"fmt"

	"yokeswap/core/gates/power"
)

// A six-cell pack plugged into ceramics through its leads rings far above its voltage.
func ExampleCircuit_Peak() {
	bare := power.Circuit{Volts: 25.2, Milliohms: 50, Nanohenries: 200, CeramicUF: 10}
	cured := bare
	cured.BulkUF, cured.BulkMilli = 470, 30
	fmt.Println(bare.Peak(), cured.Peak())
	// Output: 39.5 V 25.2 V
}
