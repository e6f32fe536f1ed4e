package store_test

import (
	"errors"
	"os"
	"path/filepath"
	"strconv"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/measure/unit"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/setup"
	"yokeswap/demo"
	"yokeswap/format"
	"yokeswap/store"
)

func open(t testing.TB, dir string) *store.Store {
	t.Helper()
	st, err := store.Open(dir)
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	return st
}

func withDemo(t testing.TB) (*store.Store, string) {
	t.Helper()
	dir := t.TempDir()
	st := open(t, dir)
	require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error { return demo.Load(s) }))
	return st, dir
}

func snapshot(t testing.TB, st *store.Store) *store.Snapshot {
	t.Helper()
	snap, err := st.Snapshot()
	require.NoError(t, err)
	return snap
}

func TestWhatIsStoredComesBackToTheByte(t *testing.T) {
	st, dir := withDemo(t)
	require.NoError(t, st.Close())
	snap := snapshot(t, open(t, dir))
	for i, value := range []any{snap.Sets[0], snap.Fleet} {
		want, err := demo.Files.ReadFile(demo.Names[i])
		require.NoError(t, err)
		got, err := format.Write(value)
		require.NoError(t, err)
		assert.Equal(t, string(want), string(got))
	}
}

func TestTheDatabaseKeepsItsPromises(t *testing.T) {
	st, dir := withDemo(t)
	require.NoError(t, st.Check())
	for pragma, want := range map[string]string{"journal_mode": "wal", "synchronous": "2", "foreign_keys": "1"} {
		got, err := st.Pragma(pragma)
		require.NoError(t, err)
		assert.Equal(t, want, got, pragma)
	}
	_, err := os.Stat(filepath.Join(dir, store.FileName))
	assert.NoError(t, err)
}

func TestAFailedChangeChangesNothing(t *testing.T) {
	st, _ := withDemo(t)
	before := snapshot(t, st).Revision
	failed := errors.New("no")
	err := st.Update(store.Deed{}, func(s *stock.Stock) error {
		s.Fleet.Quads = nil
		s.Fleet.Title = "gone"
		s.Sets = nil
		return failed
	})
	assert.ErrorIs(t, err, failed)
	after := snapshot(t, st)
	assert.Equal(t, before, after.Revision)
	assert.Len(t, after.Fleet.Quads, 9)
	assert.Equal(t, "Harrow Fell Mill Trust", after.Fleet.Title)
}

func TestAStaleWriteIsRefused(t *testing.T) {
	st, _ := withDemo(t)
	quern := stock.Ref{Kind: stock.KindQuad, ID: "quern"}
	read := snapshot(t, st).RevisionOf(quern)
	plan := func(pack string) error {
		return st.Update(
			store.Deed{},
			func(s *stock.Stock) error { return s.Plan("quern", fleet.Patch{Pack: &pack}) },
			store.Expect{Ref: quern, Revision: read},
		)
	}
	require.NoError(t, plan("tallow-6s"))
	var stale store.Stale
	require.ErrorAs(t, plan("tallow-3s"), &stale)
	assert.Equal(t, quern, stale.Ref)
	snap := snapshot(t, st)
	assert.Equal(t, "tallow-6s", snap.Index.Quads[1].Next.Pack)
	assert.Greater(t, snap.RevisionOf(quern), read)
	assert.Equal(
		t,
		read,
		snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: "damsel"}),
		"other quads stay at their revision",
	)
}

func TestOfManyWritersAtOneRevisionOneWins(t *testing.T) {
	st, _ := withDemo(t)
	quern := stock.Ref{Kind: stock.KindQuad, ID: "quern"}
	read := snapshot(t, st).RevisionOf(quern)
	var wait sync.WaitGroup
	var mu sync.Mutex
	won := 0
	for i := range 8 {
		wait.Go(func() {
			err := st.Update(
				store.Deed{},
				func(s *stock.Stock) error { s.Fleet.Quads[1].Note = strconv.Itoa(i); return nil },
				store.Expect{Ref: quern, Revision: read},
			)
			mu.Lock()
			defer mu.Unlock()
			if err == nil {
				won++
			} else {
				assert.ErrorAs(t, err, &store.Stale{})
			}
		})
	}
	wait.Wait()
	assert.Equal(t, 1, won)
}

func TestEntriesComeAndGo(t *testing.T) {
	st, _ := withDemo(t)
	ref := stock.Ref{Kind: string(gear.KindPack), ID: "tallow-3s"}
	var kept any
	require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error {
		kept = s.Entry(ref)
		if !s.Remove(ref) {
			return errors.New("nothing to remove")
		}
		return nil
	}))
	snap := snapshot(t, st)
	_, there := snap.Library.Item("tallow-3s")
	assert.False(t, there)
	assert.Zero(t, snap.RevisionOf(ref))
	assert.NotNil(t, kept)
	assert.NotEmpty(t, format.Referrers(&snap.Stock, stock.Ref{Kind: stock.KindKit, ID: "visor-c-1"}))
	assert.NotEmpty(t, format.Referrers(&snap.Stock, stock.Ref{Kind: string(gear.KindGoggles), ID: "visor-c"}))
}

func TestBenchRecordsLast(t *testing.T) {
	st, dir := withDemo(t)
	at := time.Date(2026, 10, 1, 9, 30, 0, 0, time.UTC)
	record := bench.Record{Step: "meter-short:pack", Done: true, Value: new(4700.0), At: at}
	require.NoError(
		t,
		st.Confirm(store.Deed{}, "quern", func([]bench.Record) (bench.Record, error) { return record, nil }),
	)
	refused := errors.New("held")
	assert.ErrorIs(t, st.Confirm(store.Deed{}, "quern", func(have []bench.Record) (bench.Record, error) {
		assert.Equal(t, []bench.Record{record}, have)
		return bench.Record{}, refused
	}), refused)
	require.NoError(t, st.Close())
	have, err := open(t, dir).Records("quern")
	require.NoError(t, err)
	assert.Equal(t, []bench.Record{record}, have)
}

func TestADamagedDatabaseIsNotServed(t *testing.T) {
	dir := t.TempDir()
	require.NoError(
		t,
		os.WriteFile(filepath.Join(dir, store.FileName), []byte("this is no database, it is a shopping list"), 0o600),
	)
	_, err := store.Open(dir)
	assert.Error(t, err)
}

func BenchmarkPlan(b *testing.B) {
	st, err := store.Open(b.TempDir())
	require.NoError(b, err)
	defer st.Close()
	require.NoError(b, st.Update(store.Deed{}, func(s *stock.Stock) error { return demo.Load(s) }))
	packs := []string{"tallow-4s", "tallow-6s"}
	for i := 0; b.Loop(); i++ {
		if err := st.Update(store.Deed{}, func(s *stock.Stock) error { return s.Plan("quern", fleet.Patch{Pack: &packs[i%2]}) }); err != nil {
			b.Fatal(err)
		}
	}
}

// Two programs on one folder, such as the server and an import: neither shows
// what the other has long replaced.
func TestAnotherProgramsChangeIsSeen(t *testing.T) {
	st, dir := withDemo(t)
	snapshot(t, st)
	other := open(t, dir)
	require.NoError(
		t,
		other.Update(store.Deed{}, func(s *stock.Stock) error { s.Fleet.Title = "Changed by the other"; return nil }),
	)
	assert.Equal(t, "Changed by the other", snapshot(t, st).Fleet.Title)
}

// Snapshots of boards and the log outlast the program, the newest first, and each
// quad has its own.
func TestBoardsAndLogLast(t *testing.T) {
	st, dir := withDemo(t)
	at := time.Date(2026, 11, 20, 18, 0, 0, 0, time.UTC)
	state := setup.State{
		Variant: "TNSY",
		Version: "4.5.3",
		Ports:   []setup.Port{{ID: 3, Functions: 1, Rest: []byte{5, 4, 0, 5}}},
		Modes:   []setup.Range{{Aux: 1, FromUS: 900, ToUS: 1300}},
		OSD:     []setup.Cell{{X: 1, Y: 2, Profiles: 3}},
	}
	first, err := st.KeepBoard("rynd", "by hand", state, "rate is 60", at)
	require.NoError(t, err)
	named, err := st.NameBoard("rynd", first, "as bought")
	require.NoError(t, err)
	assert.True(t, named)
	named, err = st.NameBoard("quern", first, "of another quad")
	require.NoError(t, err)
	assert.False(t, named)
	state.Features = 7
	second, err := st.KeepBoard("rynd", "before it was set", state, "", at.Add(time.Minute))
	require.NoError(t, err)
	require.NoError(t, st.Log("rynd", "one", at))
	require.NoError(t, st.Log("rynd", "two", at.Add(time.Hour)))
	require.NoError(t, st.Log("quern", "other", at))
	require.NoError(t, st.Close())

	st = open(t, dir)
	kept, err := st.Boards("rynd", 0, 0)
	require.NoError(t, err)
	require.Len(t, kept, 2)
	assert.Equal(t, []int64{second, first}, []int64{kept[0].ID, kept[1].ID})
	assert.Equal(t, state, kept[0].State)
	assert.Equal(t, at, kept[1].At.UTC())
	assert.Equal(t, []string{"", "rate is 60"}, []string{kept[0].Text, kept[1].Text})
	assert.Equal(t, []string{"", "as bought"}, []string{kept[0].Name, kept[1].Name})
	notes, err := st.LogOf("rynd", 0, 0)
	require.NoError(t, err)
	assert.Equal(t, []string{"two", "one"}, []string{notes[0].Says, notes[1].Says})
	none, err := st.Boards("whip", 0, 0)
	require.NoError(t, err)
	assert.Empty(t, none)
}

// Finishing a swap is one thing: where it is refused, neither records nor log
// change.
func TestFinishingIsWholeOrNot(t *testing.T) {
	st, _ := withDemo(t)
	at := time.Date(2026, 11, 20, 18, 0, 0, 0, time.UTC)
	weigh := func(grams float64) {
		require.NoError(t, st.Confirm(store.Deed{}, "hopper", func([]bench.Record) (bench.Record, error) {
			return bench.Record{Step: bench.WeighStep, Done: true, Value: &grams, At: at}, nil
		}))
	}
	weigh(431)
	says := func(records []bench.Record) bench.Outcome {
		return bench.Outcome{Done: stock.Done{WeighedG: new(unit.Grams(*records[0].Value)), FlownOn: "2026-11-20"},
			Says: strconv.Itoa(len(records)) + " recorded"}
	}
	ref := stock.Ref{Kind: stock.KindQuad, ID: "hopper"}
	revision := snapshot(t, st).RevisionOf(ref)
	err := st.Finish(store.Deed{}, "hopper", says, at, store.Expect{Ref: ref, Revision: revision - 1})
	require.ErrorAs(t, err, new(store.Stale))
	records, err := st.Records("hopper")
	require.NoError(t, err)
	assert.Len(t, records, 1)
	require.NoError(
		t,
		st.Finish(store.Deed{}, "hopper", says, at, store.Expect{Ref: ref, Revision: revision}),
	)
	q, _ := snapshot(t, st).Fleet.Quad("hopper")
	assert.Nil(t, q.Next)
	assert.InDelta(t, 431, float64(*q.AUWG), 1e-9)
	require.NotNil(t, q.FlownIn)
	assert.Equal(t, fleet.FlownIn{On: "2026-11-20", Carried: snapshot(t, st).Fleet.Carries(q)}, *q.FlownIn)
	records, err = st.Records("hopper")
	require.NoError(t, err)
	assert.Empty(t, records)
	notes, err := st.LogOf("hopper", 0, 0)
	require.NoError(t, err)
	assert.Equal(t, "1 recorded", notes[0].Says)
	none := func([]bench.Record) bench.Outcome { return bench.Outcome{} }
	assert.Error(t, st.Finish(store.Deed{}, "hopper", none, at), "nothing is planned any more")
}

// A mating is counted with its record, or not at all.
func TestAMatingIsCountedWithItsRecord(t *testing.T) {
	st, _ := withDemo(t)
	matings := func() int {
		k, _ := snapshot(t, st).Fleet.Piece("two-quern")
		return *k.Matings
	}
	require.Zero(t, matings())
	tick := func(by int, fail error) error {
		return st.Confirm(store.Deed{}, "quern", func([]bench.Record) (bench.Record, error) {
			return bench.Record{Step: "fit", Done: by > 0, Mates: "two-quern", Mated: by, At: time.Now()}, fail
		})
	}
	require.NoError(t, tick(1, nil))
	assert.Equal(t, 1, matings())
	require.Error(t, tick(1, errors.New("refused")))
	assert.Equal(t, 1, matings())
	require.NoError(t, tick(-1, nil))
	assert.Zero(t, matings())
}
