package stock_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// turning is a quad with one unit on it, another planned, and a drawer.
func turning() *stock.Stock {
	st := stock.New()
	st.Sets = []*gear.Set{{ID: "own", Headers: []gear.Header{{Entry: gear.Entry{ID: "header"}}}}}
	st.Fleet.Kit = []fleet.Kit{
		{ID: "one", Model: "unit-one"}, {ID: "two", Model: "unit-two"},
		{ID: "goggles", Model: "goggles", Firmware: "4.1", Mode: "first"},
	}
	st.Fleet.Spares = []fleet.Spare{{Model: "patch", Count: 4}, {Model: "loom", Count: 2}, {Model: "header", Count: 2}}
	fit := func(unit string, antennas ...string) fleet.Fit {
		return fleet.Fit{
			AirUnit:  &fleet.Slot{Kit: unit},
			Goggles:  &fleet.Slot{Kit: "goggles"},
			Antennas: &fleet.Antennas{Models: antennas},
			Wiring:   fleet.Wiring{Harness: "loom"},
		}
	}
	next := fit("two", "patch", "patch")
	next.Goggles = &fleet.Slot{Kit: "goggles", Firmware: "4.6", Mode: "second"}
	next.Header = &fleet.Header{Model: "header"}
	st.Fleet.Quads = []fleet.Quad{{ID: "quad", Now: fit("one", "cowl"), Next: &next}, {ID: "other"}}
	return st
}

func quadOf(t *testing.T, st *stock.Stock) *fleet.Quad {
	q, ok := st.Fleet.Quad("quad")
	require.True(t, ok)
	return q
}

func TestTwoFitsChangePlaces(t *testing.T) {
	st := turning()
	require.NoError(t, st.KeepInTurn("quad"))
	st.Fleet.Wants = []fleet.Want{{Quad: "quad", Goggles: "goggles"}, {Quad: "quad", Goggles: "old"}, {Quad: "other"}}
	st.Fleet.Wants[1].Turn = quadOf(t, st).InTurn[0].ID
	require.NoError(t, st.Finish("quad", stock.Done{}))
	q := quadOf(t, st)
	assert.Equal(t, []string{q.InTurn[0].ID, "", ""},
		[]string{st.Fleet.Wants[0].Turn, st.Fleet.Wants[1].Turn, st.Fleet.Wants[2].Turn},
		"what was wanted of a fit goes on to be wanted of it")
	assert.Equal(t, "two", q.Now.AirUnit.Kit)
	assert.Nil(t, q.Next)
	assert.Empty(t, q.NextTurn)
	require.Len(t, q.InTurn, 1)
	was := q.InTurn[0]
	assert.True(t, was.Flown)
	assert.Equal(t, "one", was.Fit.AirUnit.Kit)
	assert.Equal(t, &fleet.Slot{Kit: "goggles", Firmware: "4.1", Mode: "first"}, was.Fit.Goggles,
		"how it was flown is noted, to bring it back like that")
	assert.Equal(t, []fleet.Spare{{Model: "patch", Count: 2}, {Model: "loom", Count: 2}, {Model: "header", Count: 1}},
		st.Fleet.Spares, "the antenna of the One stays on it and is not in the drawer; the loom stays on the quad")

	require.NoError(t, st.PlanTurn("quad", was.ID))
	require.NoError(t, st.Finish("quad", stock.Done{}))
	q = quadOf(t, st)
	assert.Equal(t, "one", q.Now.AirUnit.Kit)
	assert.Equal(t, "two", q.InTurn[0].Fit.AirUnit.Kit)
	assert.Equal(t, 2, st.Fleet.Spares[0].Count, "nothing goes into the drawer or out of it at a turn")

	require.NoError(t, st.LeaveTurn("quad", was.ID))
	assert.Len(t, st.Fleet.Wants, 2, "nothing is wanted of a fit that is no longer kept")
	assert.Equal(t, []fleet.Spare{{Model: "patch", Count: 4}, {Model: "loom", Count: 2}, {Model: "header", Count: 1}},
		st.Fleet.Spares, "what lay ready is loose again; a header stays on its pads")
	assert.Empty(t, quadOf(t, st).InTurn)
}

// Where goggles are bought for a turn, the fit that comes off is kept as where they were owned.
func TestAFitIsKeptWhereATurnBuysGoggles(t *testing.T) {
	st := turning()
	quadOf(t, st).Next.Goggles = &fleet.Slot{Model: "eyes"}
	require.NoError(t, st.KeepInTurn("quad"))
	require.NoError(t, st.Finish("quad", stock.Done{}))
	q := quadOf(t, st)
	require.Len(t, q.InTurn, 1)
	assert.Equal(t, "one", q.InTurn[0].Fit.AirUnit.Kit)
	assert.Equal(t, "goggles", q.InTurn[0].Fit.Goggles.Kit)
	assert.Equal(t, "eyes-1", q.Now.Goggles.Kit)
}

// A swap that is planned is never lost for a turn, and a turn that is dropped leaves no trace.
func TestAPlanIsNotLostForATurn(t *testing.T) {
	st := turning()
	before := quadOf(t, st).Now.Clone()
	require.NoError(t, st.KeepInTurn("quad"))
	require.ErrorContains(t, st.KeepInTurn("quad"), "already")
	require.NoError(t, st.DropPlan("quad"))
	assert.Equal(t, before, quadOf(t, st).Now)
	assert.Nil(t, quadOf(t, st).Next)
	require.Len(t, quadOf(t, st).InTurn, 1, "the fit stays in turn")

	require.ErrorContains(t, st.KeepInTurn("quad"), "nothing is planned")
	require.NoError(t, st.Plan("quad", fleet.Patch{Pack: new("other-pack")}))
	require.ErrorContains(t, st.PlanTurn("quad", "turn-1"), "a swap is planned")
	require.NoError(t, st.KeepInTurn("quad"))
	require.NoError(t, st.PlanTurn("quad", "turn-1"), "the plan is kept: nothing is lost")
	assert.Equal(t, "two", quadOf(t, st).Next.AirUnit.Kit)
	require.ErrorContains(t, st.PlanTurn("quad", "turn-9"), "no fit")
	require.ErrorContains(t, st.LeaveTurn("quad", "turn-9"), "no fit")
	require.ErrorContains(t, st.PlanTurn("none", "turn-1"), "no quad")

	require.NoError(t, st.LeaveTurn("quad", "turn-1"))
	assert.NotNil(t, quadOf(t, st).Next, "the plan to turn to it stays, as a plan like any other")
	assert.Empty(t, quadOf(t, st).NextTurn)
	for range 7 {
		require.NoError(t, st.KeepInTurn("quad"))
		require.NoError(t, st.DropPlan("quad"))
		require.NoError(t, st.Plan("quad", fleet.Patch{Pack: new("other-pack")}))
	}
	require.ErrorContains(t, st.KeepInTurn("quad"), "takes no more")
}

// Whatever is kept, turned, dropped and left: no part is lost, and none comes from nowhere.
func TestNoPartIsLostInTurning(t *testing.T) {
	for seed := range uint64(200) {
		r := rand.New(rand.NewPCG(seed, 1))
		st := turning()
		st.Fleet.Spares = append(st.Fleet.Spares, fleet.Spare{Model: "cowl", Count: 3})
		start := owned(t, st)
		require.Equal(t, 4, start["cowl"])
		for range 12 {
			q := quadOf(t, st)
			turn := ""
			if len(q.InTurn) > 0 {
				turn = q.InTurn[r.IntN(len(q.InTurn))].ID
			}
			switch r.IntN(6) {
			case 0:
				antennas := fleet.Antennas{Models: []string{[]string{"patch", "cowl"}[r.IntN(2)]}}
				_ = st.Plan("quad", fleet.Patch{Antennas: &antennas})
			case 1:
				_ = st.KeepInTurn("quad")
			case 2:
				_ = st.PlanTurn("quad", turn)
			case 3:
				_ = st.DropPlan("quad")
			default:
				if q.Next != nil {
					require.NoError(t, st.Finish("quad", stock.Done{}))
				}
			}
		}
		is := owned(t, st)
		for _, model := range []string{"patch", "cowl", "loom"} {
			assert.Equal(t, start[model], is[model], "%s, seed %d", model, seed)
		}
		for len(quadOf(t, st).InTurn) > 0 {
			require.NoError(t, st.LeaveTurn("quad", quadOf(t, st).InTurn[0].ID))
		}
		assert.Equal(t, is, owned(t, st), "what lay ready is in the drawer")
	}
}

// owned counts what lies in the drawer, is on the quad and lies ready for it; headers stay
// where they were soldered.
func owned(t *testing.T, st *stock.Stock) map[string]int {
	parts := quadOf(t, st).Now.Loose()
	for model, n := range quadOf(t, st).Ready() {
		parts[model] += n
	}
	for _, s := range st.Fleet.Spares {
		parts[s.Model] += s.Count
	}
	delete(parts, "header")
	return parts
}
