//go:build !race

package swap_test

import "testing"

// withoutRace leaves a net over thousands of builds to the run without the race detector.
func withoutRace(*testing.T) {}
