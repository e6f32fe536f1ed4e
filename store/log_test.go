package store_test

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/measure/unit"
	"yokeswap/store"
)

// changed does something to the stock, drawn at random.
func changed(r *rand.Rand, s *stock.Stock) error {
	quads := s.Fleet.Quads
	pick := quads[r.IntN(len(quads))].ID
	switch r.IntN(7) {
	case 0:
		return s.Plan(pick, fleet.Patch{Pack: new([]string{"tallow-6s", "tallow-4s", "mast-4s"}[r.IntN(3)])})
	case 1:
		if len(quads) > 3 {
			s.Remove(stock.Ref{Kind: stock.KindQuad, ID: pick})
		}
	case 2:
		s.SetRegion([]string{"", "harrow-shire"}[r.IntN(2)])
	case 3:
		_, err := s.Begin(pick, "post-mill", fmt.Sprintf("2026-0%d-01", 1+r.IntN(9)), "1200")
		return err
	case 4:
		if n := len(s.Fleet.TestFlights); n > 0 {
			t := s.Fleet.TestFlights[r.IntN(n)].ID
			return s.Read(t, "ridge", fleet.PassRead{Pass: 1, Lowest: new(unit.MegabitsPerSecond(r.IntN(30)))})
		}
	case 5:
		for i := range quads {
			if quads[i].ID == pick && quads[i].Next != nil {
				return s.Finish(pick, stock.Done{})
			}
		}
	case 6:
		s.Fleet.Title = fmt.Sprint("title ", r.IntN(4))
	}
	return nil
}

// What was true at a moment, over random histories: the state after each change is what is
// asked for later, whatever has happened since.
func TestWhatWasTrueThenOverRandomHistories(t *testing.T) {
	for seed := range uint64(3) {
		r := rand.New(rand.NewPCG(seed, 3))
		st, _ := withDemo(t)
		var was []map[string]int
		var at []time.Time
		for range 25 {
			_ = st.Update(store.Deed{Does: "tried"}, func(s *stock.Stock) error { return changed(r, s) })
			was = append(was, sorted(t, asText(t, &snapshot(t, st).Stock)))
			at = append(at, time.Now())
			time.Sleep(time.Millisecond)
		}
		for i := range at {
			then, err := st.AsOf(at[i])
			require.NoError(t, err)
			require.Equal(t, was[i], sorted(t, asText(t, then)), "seed %d, after change %d", seed, i)
		}
	}
}

// The log is searched by letters, by quad, by kind and by day, and read out whole.
func TestTheLogIsSearched(t *testing.T) {
	st, _ := lived(t)
	find := func(f store.LogFilter) (list []string) {
		events, err := st.FindEvents(f)
		require.NoError(t, err)
		for _, e := range events {
			list = append(list, e.Does+e.Says+" "+e.Kind+" "+e.Entry)
		}
		return list
	}
	assert.Equal(t, []string{"smelled of solder  "}, find(store.LogFilter{Find: "SOLDER"}))
	assert.Equal(t, []string{"smelled of solder  "}, find(store.LogFilter{Quad: "quern", Kind: store.LogNotes}))
	assert.Len(t, find(store.LogFilter{Kind: store.LogReadings}), 1)
	assert.Len(t, find(store.LogFilter{Kind: stock.KindTestFlight, Find: "whip 2026-05"}), 2, "put in, and taken out with Whip")
	assert.Empty(t, find(store.LogFilter{Find: "100%"}), "no letter stands for others")
	assert.Empty(t, find(store.LogFilter{From: time.Now().Add(time.Hour)}))
	assert.Empty(t, find(store.LogFilter{To: time.Now().Add(-time.Hour)}))
	assert.NotEmpty(t, find(store.LogFilter{Find: "nothing of that name", Named: []string{"quern"}}))
	all, n := 0, int64(0)
	require.NoError(t, st.EachEvent(store.LogFilter{}, func(e store.Event) error {
		assert.Greater(t, e.ID, n, "the oldest first")
		all, n = all+1, e.ID
		return nil
	}))
	newest, err := st.FindEvents(store.LogFilter{Count: 5})
	require.NoError(t, err)
	require.Len(t, newest, 5)
	assert.Equal(t, n, newest[0].ID)
	assert.Greater(t, all, 5)
}

// longLog is a store with a history of 50,000 events.
func longLog(b *testing.B) *store.Store {
	st, _ := withDemo(b)
	require.NoError(b, st.Exec(`WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 50000)
		INSERT INTO events (at, change, who, does, kind, entry, quad, life, says, before, after)
		SELECT datetime('2026-01-01', '+' || (i * 8) || ' minutes'), 0, 'this machine', 'planned', '', '', 'quern', 0,
			'line ' || i || ' of the log', randomblob(600), randomblob(600) FROM n`))
	return st
}

func BenchmarkSearchOfALongLog(b *testing.B) {
	st := longLog(b)
	for b.Loop() {
		list, err := st.FindEvents(store.LogFilter{Find: "line 4999 of"})
		if err != nil || len(list) != 1 {
			b.Fatal(len(list), err)
		}
	}
}

func BenchmarkADayOfALongHistory(b *testing.B) {
	st := longLog(b)
	require.NoError(b, st.Exec(`UPDATE events SET kind = 'screw', entry = 'gone-' || (id % 500), before = NULL WHERE says <> ''`))
	for b.Loop() {
		if _, err := st.AsOf(time.Date(2026, 5, 12, 0, 0, 0, 0, time.UTC)); err != nil {
			b.Fatal(err)
		}
	}
}
