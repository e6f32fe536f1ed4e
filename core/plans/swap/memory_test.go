package swap_test

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// A law: a board from memory is the board judged anew, whatever was changed in between.
func TestMemoryNeverTellsOtherwise(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 3))
	st := builds.Demo()
	var memory swap.Memory
	lists := [][]string{nil, {"visor-b-1"}, {swap.LeaveSwap("quern"), "grip-1-a"}}
	for n := range 120 {
		st = changed(t, r, st, n)
		lib, index := st.Library(), fleet.NewIndex(st.Fleet)
		left := lists[r.IntN(len(lists))]
		want, err := json.Marshal(swap.NewBoard(lib, index, left))
		require.NoError(t, err)
		board, err := memory.Board(context.Background(), lib, index, left)
		require.NoError(t, err)
		got, err := json.Marshal(board)
		require.NoError(t, err)
		require.Equal(t, string(want), string(got), "change %d", n)
	}
}

// changed makes a stock with one thing changed, the rest shared.
func changed(t *testing.T, r *rand.Rand, st *stock.Stock, n int) *stock.Stock {
	next := st.Fork()
	lib, index := st.Library(), fleet.NewIndex(st.Fleet)
	q := &next.Fleet.Quads[r.IntN(len(next.Fleet.Quads))]
	switch r.IntN(8) {
	case 0, 1, 2: // a fix or a pick
		places := swap.Places(fleet.NewCase(lib, index, q))
		p := places[r.IntN(len(places))]
		if len(p.Options) > 0 {
			require.NoError(t, next.Plan(q.ID, p.Options[r.IntN(len(p.Options))].Patch))
		}
	case 3: // another build in its place, parts and units claimed and given up
		other := builds.New(uint64(n), lib, index).Quad(q.ID)
		*q = other
	case 4:
		next.Fleet.Kit[r.IntN(len(next.Fleet.Kit))].Firmware = ""
	case 5:
		if len(next.Fleet.Spares) > 0 {
			next.Fleet.Spares[r.IntN(len(next.Fleet.Spares))].Count = r.IntN(3)
		}
	case 6:
		next.SetRegion([]string{"", st.Fleet.Region}[r.IntN(2)])
	case 7:
		next.Fleet.Quads = append(next.Fleet.Quads, builds.New(uint64(n), lib, index).Quad(fmt.Sprintf("more-%d", n)))
	}
	// What was left alone is the very list it was, as the store leaves it.
	if r.IntN(2) == 0 && same(st.Fleet.Kit, next.Fleet.Kit) {
		next.Fleet.Kit = st.Fleet.Kit
	}
	if same(st.Fleet.Spares, next.Fleet.Spares) {
		next.Fleet.Spares = st.Fleet.Spares
	}
	return next
}

func same[T any](a, b []T) bool { return assert.ObjectsAreEqual(a, b) }

// What nothing has changed for is not found again.
func BenchmarkBoardRemembered(b *testing.B) {
	lib, index := bigFleet(1000)
	var memory swap.Memory
	_, err := memory.Board(context.Background(), lib, index, nil)
	require.NoError(b, err)
	for n := 0; b.Loop(); n++ {
		q := index.Quads[n%1000]
		q.Note = fmt.Sprint(n)
		f := *index.Fleet
		f.Quads = append([]fleet.Quad{}, f.Quads...)
		f.Quads[n%1000] = q
		_, _ = memory.Board(context.Background(), lib, fleet.NewIndex(&f), nil)
	}
	b.ReportMetric(40, "goal-ms")
}

// Judging ends with its context: of a fleet that nobody waits for any more no quad is judged.
func TestJudgingEndsWithItsContext(t *testing.T) {
	st := builds.Demo()
	gone, goes := context.WithCancel(context.Background())
	goes()
	var memory swap.Memory
	_, err := memory.Board(gone, st.Library(), fleet.NewIndex(st.Fleet), nil)
	assert.ErrorIs(t, err, context.Canceled)
	_, err = swap.Turns(gone, st.Library(), fleet.NewIndex(st.Fleet), st.Library(), fleet.NewIndex(st.Fleet))
	assert.ErrorIs(t, err, context.Canceled)
}

// What makes a fleet slow is said in numbers: its size, and the model with the most states.
func TestWhatMakesAFleetHeavy(t *testing.T) {
	st := builds.Demo()
	says := swap.Heavy(st.Library(), fleet.NewIndex(st.Fleet))
	assert.Contains(t, says, fmt.Sprintf("%d quads", len(st.Fleet.Quads)))
	assert.Contains(t, says, " releases in ")
	assert.Empty(t, swap.Heavy(gear.NewLibrary(), fleet.NewIndex(&fleet.Fleet{})))
}
