package firmware_test

import (
	"fmt"

	"yokeswap/core/facts/firmware"
)

// Ranges hold versions, number by number: 1.10 comes after 1.9.
func ExampleRange_Holds() {
	r := firmware.Range(">=1.9 <2")
	fmt.Println(r.Holds("1.10"), r.Holds("1.8.9"), r.Holds("2"))
	// Output: true false false
}
