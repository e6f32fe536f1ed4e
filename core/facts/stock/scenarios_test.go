package stock_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
)

// A scenario is kept, changes nothing until it is planned, and leaves alone what it says nothing of.
func TestAScenario(t *testing.T) {
	st := stock.New()
	fit := func(board string) *fleet.Fit { return &fleet.Fit{Board: board} }
	st.Fleet.Quads = []fleet.Quad{
		{ID: "a", Next: fit("one"), NextTurn: "turn-1"},
		{ID: "b", Next: fit("two")},
		{ID: "c", Next: fit("three")},
	}
	kept := fleet.Scenario{Name: "winter", Quads: []fleet.ScenarioQuad{{Quad: "a", Next: fit("other")}, {Quad: "b"}}}
	id, err := st.KeepScenario(kept)
	require.NoError(t, err)
	assert.Equal(t, "scenario-1", id)
	assert.Equal(t, "one", st.Fleet.Quads[0].Next.Board)
	_, err = st.KeepScenario(kept)
	require.Error(t, err, "the name is taken")
	_, err = st.KeepScenario(fleet.Scenario{})
	require.Error(t, err, "no name")
	kept.ID, kept.Note = id, "after the frost"
	_, err = st.KeepScenario(kept)
	require.NoError(t, err)
	require.Len(t, st.Fleet.Scenarios, 1)
	assert.Equal(t, "after the frost", st.Fleet.Scenarios[0].Note)

	before := st.Fleet
	require.True(t, st.PlanScenario(id))
	assert.Equal(t, "other", st.Fleet.Quads[0].Next.Board)
	assert.Empty(t, st.Fleet.Quads[0].NextTurn, "what was planned in turn is not what is planned now")
	assert.Nil(t, st.Fleet.Quads[1].Next)
	assert.Equal(t, "three", st.Fleet.Quads[2].Next.Board)
	assert.Equal(t, "one", before.Quads[0].Next.Board, "the fleet as it was stays")
	st.Fleet.Quads[0].Next.Board = "changed"
	assert.Equal(t, "other", st.Fleet.Scenarios[0].Quads[0].Next.Board, "planning on leaves the scenario alone")

	st.Remove(stock.Ref{Kind: stock.KindQuad, ID: "a"})
	assert.Equal(t, []fleet.ScenarioQuad{{Quad: "b"}}, st.Fleet.Scenarios[0].Quads)
	assert.Len(t, before.Scenarios[0].Quads, 2)
	assert.False(t, st.PlanScenario("nobody"))
	assert.True(t, st.DropScenario(id))
	assert.False(t, st.DropScenario(id))
	assert.Empty(t, st.Fleet.Scenarios)
}

// A file's scenarios and rates come beside those there are, in the place of their own.
func TestScenariosOfAFile(t *testing.T) {
	st := stock.New()
	st.Fleet.Scenarios = []fleet.Scenario{{ID: "x", Name: "mine"}, {ID: "y", Name: "old"}}
	st.Fleet.Rates = []fleet.Rate{{Currency: "GBP", Worth: 1.1, In: "EUR"}, {Currency: "SEK", Worth: 0.09, In: "EUR"}}
	st.MergeFleet(&fleet.Fleet{
		Scenarios: []fleet.Scenario{{ID: "y", Name: "new"}, {ID: "z", Name: "more"}},
		Rates:     []fleet.Rate{{Currency: "EUR", Worth: 0.8, In: "GBP"}},
	})
	assert.Equal(t, []fleet.Scenario{{ID: "x", Name: "mine"}, {ID: "y", Name: "new"}, {ID: "z", Name: "more"}},
		st.Fleet.Scenarios)
	assert.Equal(t, []fleet.Rate{{Currency: "EUR", Worth: 0.8, In: "GBP"}, {Currency: "SEK", Worth: 0.09, In: "EUR"}},
		st.Fleet.Rates)
}
