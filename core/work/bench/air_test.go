package bench_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/internal/sample"
)

// A unit that does not lie in the wind is tried on the bench with a reading of its own; one that
// does, or of which nobody says it, is not.
func TestTheHeatIsTried(t *testing.T) {
	for air, wanted := range map[fleet.Air]bool{"": false, fleet.AirOpen: false, fleet.AirSlots: true, fleet.AirClosed: true} {
		next := ready()
		next.Air = air
		s := sheet(sample.Set(), next)
		i := slices.Index(ids(s), "check:heat:"+string(air))
		require.Equal(t, wanted, i >= 0, air)
		if !wanted {
			continue
		}
		reading := s.Steps[i].Reading
		_, ok := reading.Judge(79)
		assert.True(t, ok)
		says, ok := reading.Judge(85)
		assert.False(t, ok, says)
		assert.Less(t, slices.Index(ids(s), "power-up:board.10v:lipo-4"), i, "after the first power-up")
	}
}

// Antennas that stand otherwise than today have a step that says where each goes.
func TestAntennasAreStood(t *testing.T) {
	next := ready()
	next.Antennas = sample.Pair()
	next.Antennas.Stands = []fleet.Stand{{XMM: -90, YMM: 20, ZMM: 16, TurnDeg: 145, RiseDeg: 30}}
	s := sheet(sample.Set(), next)
	i := slices.Index(ids(s), "stand-antennas")
	require.GreaterOrEqual(t, i, 0)
	assert.Contains(t, s.Steps[i].Do[0],
		"its foot 90 mm back, 20 mm to the left, 16 mm up, pointing 145° to the left of forward and 30° up")
	next.Antennas.Stands = nil
	assert.NotContains(t, ids(sheet(sample.Set(), next)), "stand-antennas")
}
