package store_test

import (
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/setup"
	"yokeswap/format"
	"yokeswap/store"
)

func asText(t *testing.T, st *stock.Stock) string {
	t.Helper()
	text, err := format.Write(st.Fleet)
	require.NoError(t, err)
	for _, set := range st.Sets {
		more, err := format.Write(set)
		require.NoError(t, err)
		text = append(text, more...)
	}
	return string(text)
}

func anything(*stock.Stock) error { return nil }

// What belongs to a quad goes into the history with it: one that gets its id later
// begins with nothing done, and the first comes back with all that was done.
func TestTicksDoNotOutliveAQuad(t *testing.T) {
	st, _ := withDemo(t)
	quern := stock.Ref{Kind: stock.KindQuad, ID: "quern"}
	require.NoError(t, st.Confirm(store.Deed{}, "quern", func([]bench.Record) (bench.Record, error) {
		return bench.Record{Step: "no-short", Done: true, Value: new(5100.0), At: time.Now()}, nil
	}))
	require.NoError(t, st.Log("quern", "smelled of solder", time.Now()))
	_, err := st.KeepBoard("quern", "by hand", setup.State{Variant: "TNSY"}, "", time.Now())
	require.NoError(t, err)
	has := func() (ticks, lines, boards int) {
		records, err := st.Records("quern")
		require.NoError(t, err)
		notes, err := st.LogOf("quern", 0, 0)
		require.NoError(t, err)
		kept, err := st.Boards("quern", 0, 0)
		require.NoError(t, err)
		return len(records), len(notes), len(kept)
	}
	require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error { s.Remove(quern); return nil }))
	removal := snapshot(t, st).Revision
	require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error {
		s.Fleet.Quads = append(s.Fleet.Quads, fleet.Quad{ID: "quern", Name: "another"})
		return nil
	}))
	ticks, lines, boards := has()
	assert.Zero(t, ticks+lines+boards, "a new quad begins anew")
	var later store.ChangedSince
	assert.ErrorAs(t, st.Undo(removal, store.Deed{}, anything), &later, "its id is taken")

	require.NoError(t, st.Undo(snapshot(t, st).Revision, store.Deed{}, anything))
	require.NoError(t, st.Undo(removal, store.Deed{}, anything))
	ticks, lines, boards = has()
	assert.Equal(t, []int{1, 1, 1}, []int{ticks, lines, boards}, "it comes back with what was done")
	q, ok := snapshot(t, st).Fleet.Quad("quern")
	require.True(t, ok)
	assert.NotEqual(t, "another", q.Name)
}

// A law over random changes: taken back one by one, newest first, they lead back to
// where it began; and what was true after each can be asked for later.
func TestEveryChangeCanBeTakenBack(t *testing.T) {
	st, dir := withDemo(t)
	began := asText(t, &snapshot(t, st).Stock)
	changes := []func(s *stock.Stock) error{
		func(s *stock.Stock) error { return s.Plan("quern", fleet.Patch{Pack: new("tallow-6s")}) },
		func(s *stock.Stock) error { s.Remove(stock.Ref{Kind: stock.KindQuad, ID: "whip"}); return nil },
		func(s *stock.Stock) error { s.SetRegion(""); return nil },
		func(s *stock.Stock) error {
			return s.Take(fleet.Taken{Kit: "visor-c-1", Do: "update", Read: "2.2", Planned: "2.2", At: "2026-01-02T10:00:00Z"})
		},
		func(s *stock.Stock) error { return s.Finish("quern", stock.Done{}) },
		func(s *stock.Stock) error {
			s.Remove(stock.Ref{Kind: "screw", ID: s.Sets[0].Screws[0].ID})
			s.Fleet.Title = "other"
			return nil
		},
	}
	var after []string
	var at []time.Time
	var revisions []int64
	for i, change := range changes {
		require.NoError(t, st.Update(store.Deed{Does: "tried"}, change), i)
		after = append(after, asText(t, &snapshot(t, st).Stock))
		revisions = append(revisions, snapshot(t, st).Revision)
		at = append(at, time.Now())
		time.Sleep(2 * time.Millisecond)
	}
	for i := range at {
		then, err := st.AsOf(at[i])
		require.NoError(t, err)
		assert.Equal(t, sorted(t, after[i]), sorted(t, asText(t, then)), "as it was after change %d", i)
	}
	for i := len(revisions) - 1; i >= 0; i-- {
		require.NoError(t, st.Undo(revisions[i], store.Deed{Does: "took back"}, anything), "change %d", i)
	}
	assert.Equal(t, sorted(t, began), sorted(t, asText(t, &snapshot(t, st).Stock)))

	require.NoError(t, st.Close())
	again := open(t, dir)
	assert.Equal(t, sorted(t, began), sorted(t, asText(t, &snapshot(t, again).Stock)), "and so it is in the database")
	events, err := again.Events("", 0, 3)
	require.NoError(t, err)
	require.Len(t, events, 3)
	assert.Equal(t, "took back", events[0].Does)
	older, err := again.Events("", events[2].ID, 500)
	require.NoError(t, err)
	assert.Less(t, older[0].ID, events[2].ID)
}

// sorted is a text's lines in order: what comes back comes at the end of its list.
func sorted(t *testing.T, text string) map[string]int {
	t.Helper()
	lines := map[string]int{}
	dec := json.NewDecoder(strings.NewReader(text))
	for dec.More() {
		var file map[string]any
		require.NoError(t, dec.Decode(&file))
		for key, value := range file {
			list, ok := value.([]any)
			if !ok {
				list = []any{value}
			}
			for _, entry := range list {
				body, err := json.Marshal(entry)
				require.NoError(t, err)
				lines[key+" "+string(body)]++
			}
		}
	}
	return lines
}

// A swap that was finished by mistake is taken back with all that was ticked for it.
func TestAFinishedSwapIsTakenBackWithItsTicks(t *testing.T) {
	st, _ := withDemo(t)
	began := asText(t, &snapshot(t, st).Stock)
	require.NoError(
		t,
		st.Confirm(store.Deed{Does: "ticked", Who: "the phone"}, "quern", func([]bench.Record) (bench.Record, error) {
			return bench.Record{Step: "no-short", Done: true, Value: new(5100.0), At: time.Now()}, nil
		}),
	)
	events, err := st.Events("quern", 0, 1)
	require.NoError(t, err)
	assert.Equal(t, "the phone", events[0].Who, "a tick is part of the history")
	assert.Equal(t, "no-short", events[0].Entry)
	require.NoError(
		t,
		st.Finish(store.Deed{Does: "finished"}, "quern", func([]bench.Record) bench.Outcome { return bench.Outcome{Says: "done"} }, time.Now()),
	)
	records, err := st.Records("quern")
	require.NoError(t, err)
	assert.Empty(t, records)
	finished := snapshot(t, st).Revision
	then, err := st.AsOf(time.Now())
	require.NoError(t, err)
	assert.NotEqual(t, began, asText(t, then))
	require.NoError(t, st.Undo(finished, store.Deed{Does: "took back"}, anything))
	records, err = st.Records("quern")
	require.NoError(t, err)
	require.Len(t, records, 1)
	assert.Equal(t, 5100.0, *records[0].Value)
	assert.Equal(t, sorted(t, began), sorted(t, asText(t, &snapshot(t, st).Stock)))
}

// What is newer is said by what was written later, whatever the clock does.
func TestAClockThatGoesBackChangesNoOrder(t *testing.T) {
	st, _ := withDemo(t)
	now := time.Now()
	require.NoError(t, st.Log("quern", "first", now))
	require.NoError(t, st.Log("quern", "then", now.Add(-48*time.Hour)))
	notes, err := st.LogOf("quern", 0, 0)
	require.NoError(t, err)
	assert.Equal(t, []string{"then", "first"}, []string{notes[0].Says, notes[1].Says})
	for _, at := range []time.Time{now, now.Add(-48 * time.Hour)} {
		_, err := st.KeepBoard("quern", at.String(), setup.State{}, "", at)
		require.NoError(t, err)
	}
	kept, err := st.Boards("quern", 0, 0)
	require.NoError(t, err)
	assert.Equal(t, now.Add(-48*time.Hour).String(), kept[0].Why, "the one kept last is the newest")
}

// Ticks tell when a step was done: one that was taken back is none, nor is what a finished run puts away.
func TestTicksAreStepsThatWereDone(t *testing.T) {
	st, _ := withDemo(t)
	at := time.Date(2026, 5, 12, 9, 0, 0, 0, time.UTC)
	for i, r := range []bench.Record{{Step: "one", Done: true}, {Step: "two", Done: true}, {Step: "two"}, {Step: "three", Done: true}} {
		r.At = at.Add(time.Duration(i) * time.Minute)
		require.NoError(t, st.Confirm(store.Deed{}, "wallower", func([]bench.Record) (bench.Record, error) { return r, nil }))
	}
	want := []bench.Tick{
		{Quad: "wallower", Step: "one", At: at},
		{Quad: "wallower", Step: "two", At: at.Add(time.Minute)},
		{Quad: "wallower", Step: "three", At: at.Add(3 * time.Minute)},
	}
	ticks, err := st.Ticks()
	require.NoError(t, err)
	assert.Equal(t, want, ticks)
	says := func([]bench.Record) bench.Outcome { return bench.Outcome{Says: "done"} }
	require.NoError(t, st.Finish(store.Deed{}, "wallower", says, at.Add(time.Hour)))
	ticks, err = st.Ticks()
	require.NoError(t, err)
	assert.Equal(t, want, ticks, "they stay known after the swap")
}
