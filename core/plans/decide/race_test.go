//go:build race

package decide

import "testing"

// withoutRace leaves what tries everything to the run without the race detector.
func withoutRace(t *testing.T) {
	t.Helper()
	t.Skip("runs without the race detector")
}
