package swap_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// Side by side stand the antennas of the plan and each other that goes on, with what they weigh,
// what has to be bought, the lead against its way, and what the gates say; a straight plug with
// no room is told from a right-angled one. Taken, each becomes the plan.
func TestAntennasSideBySide(t *testing.T) {
	st := builds.Demo()
	f := fleet.NewIndex(st.Fleet)
	q, ok := f.Quad("quern")
	require.True(t, ok)
	c := fleet.NewCase(st.Library(), f, q)
	list := swap.Alternatives(c)
	require.Greater(t, len(list), 3)
	first := list[0]
	assert.True(t, first.Planned)
	assert.Equal(t, "2 × Cowl R", first.Label)
	assert.InDelta(t, 2.6, float64(*first.MassG), 1e-9)
	assert.Zero(t, *first.Price, "it carries them today")
	assert.Equal(t, "right-angled, 3 mm", first.Plug)
	require.NotNil(t, first.LeadMM)
	assert.Greater(t, float64(first.LeadMM.NeedMM), 30.0)
	assert.InDelta(t, 85, float64(first.LeadMM.HasMM), 0)
	assert.Equal(t, verdict.Fits, first.Mount)
	for _, a := range list[1:] {
		assert.False(t, a.Planned)
		with := c.With(a.Patch)
		assert.Len(t, with.Fit.Antennas.Models, 2, a.Label)
		assert.Equal(t, first.Patch.Antennas.Stands, with.Fit.Antennas.Stands, "they stand where those of the plan do")
		if a.Antenna != verdict.Fits || a.Mount != verdict.Fits {
			assert.NotEmpty(t, a.Says, a.Label)
		}
	}
}

// A pair of two models is named as two, and each that is not had is paid for; where it is not said
// where antennas stand, whether they have room is not known, whatever their leads do.
func TestAMixedPairSideBySide(t *testing.T) {
	st := builds.Demo()
	f := fleet.NewIndex(st.Fleet)
	q, ok := f.Quad("quern")
	require.True(t, ok)
	c := fleet.NewCase(st.Library(), f, q)
	mixed := *c.Fit.Antennas
	mixed.Models, mixed.Stands = []string{"cowl-r", "teasel"}, nil
	planned := swap.Alternatives(c.With(fleet.Patch{Antennas: &mixed}))[0]
	assert.Equal(t, "1 × Cowl R and 1 × Teasel", planned.Label)
	assert.InDelta(t, 1.3+0.4, float64(*planned.MassG), 1e-9)
	assert.InDelta(t, 6.4, *planned.Price, 1e-9, "the Teasel alone")
	assert.NotEqual(t, verdict.Fits, planned.Mount)
	mixed.Models = []string{"cowl-r", "cowl-r"}
	assert.Equal(t, verdict.Unknown, swap.Alternatives(c.With(fleet.Patch{Antennas: &mixed}))[0].Mount)
}
