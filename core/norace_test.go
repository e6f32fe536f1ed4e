//go:build !race

package core_test

import "testing"

// withoutRace leaves a net over thousands of builds to the run without the race detector.
func withoutRace(*testing.T) {}
