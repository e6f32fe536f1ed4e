package decide

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/internal/builds"
)

// triedOn are the units of a quad of the demo, tried within limits.
func triedOn(t *testing.T, quad string, atFirst, inAll int) []Candidate {
	st := builds.Demo()
	index := fleet.NewIndex(st.Fleet)
	q, ok := index.Quad(quad)
	require.True(t, ok)
	c := fleet.NewCase(st.Library(), index, q)
	list := units(c)
	trials := make([]trial, len(list)-1)
	for i := range trials {
		trials[i] = trial{at: c, one: &list[i+1]}
	}
	tryAll(context.Background(), trials, atFirst, inAll)
	return list
}

// With little work at first the same is found; with little in all it is said that not all was looked at,
// and what was found is a plan all the same.
func TestLittleWorkAtFirst(t *testing.T) {
	for _, quad := range []string{"hopper", "brayer"} {
		whole := triedOn(t, quad, mostMade, 0)
		first := triedOn(t, quad, 20, 20*mostMade)
		for i := range whole {
			require.False(t, whole[i].cut, whole[i].Label)
			assert.Equal(t, whole[i].Found.Plans, first[i].Found.Plans, whole[i].Label)
			assert.Equal(t, whole[i].Found.Hanging, first[i].Found.Hanging, whole[i].Label)
			assert.Equal(t, whole[i].With, first[i].With, whole[i].Label)
		}
		cut := 0
		for i, one := range triedOn(t, quad, 20, 20) {
			if !one.cut {
				assert.Equal(t, whole[i].Found.Plans, one.Found.Plans, one.Label)
				continue
			}
			cut++
			var ways QuadWays
			ways.All = true
			ways.take(fleet.Case{}, &Candidate{Label: one.Label, Found: Found{All: true}, cut: true})
			assert.False(t, ways.All)
		}
		assert.Positive(t, cut)
	}
}

// A plan is soon there, also where few fits are looked at and what is cheaper has not been gone
// through.
func TestAPlanIsSoonThere(t *testing.T) {
	st := builds.Demo()
	index := fleet.NewIndex(st.Fleet)
	q, ok := index.Quad("quern")
	require.True(t, ok)
	c := fleet.NewCase(st.Library(), index, q)
	goal := fleet.Patch{AirUnit: &fleet.Slot{Model: "aldine-one-compact"}}
	few := forGoal(context.Background(), c, goal, newMemory(800), MostPlans, false)
	all := forGoal(context.Background(), c, goal, newMemory(mostMade), MostPlans, false)
	assert.False(t, few.All)
	assert.True(t, all.All)
	require.NotEmpty(t, few.Hanging)
	assert.LessOrEqual(t, all.Hanging[0].Cost.compare(&few.Hanging[0].Cost), 0)
}
