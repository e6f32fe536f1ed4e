package store_test

import (
	"bytes"
	"crypto/sha256"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/work/album"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/setup"
	"yokeswap/format"
	"yokeswap/store"
)

// lived is a store with something in every table.
func lived(t *testing.T) (*store.Store, string) {
	st, dir := withDemo(t)
	require.NoError(t, st.Update(store.Deed{Does: "planned", Who: "the phone"}, func(s *stock.Stock) error {
		return s.Plan("quern", fleet.Patch{Pack: new("tallow-6s")})
	}))
	require.NoError(t, st.Confirm(store.Deed{}, "quern", func([]bench.Record) (bench.Record, error) {
		return bench.Record{Step: "no-short", Done: true, Value: new(5100.0), At: time.Now()}, nil
	}))
	require.NoError(t, st.Log("quern", "smelled of solder", time.Now()))
	_, err := st.KeepBoard("quern", "by hand", setup.State{Variant: "TNSY", Receiver: []byte{1, 2, 255}}, "gone is drop\n", time.Now())
	require.NoError(t, err)
	_, err = st.Keep(store.Kept{Flight: "whip-2026-05-12", Name: "a.srt", At: time.Now(), Signature: "rate|delay",
		Means: `{"bit-rate":"rate"}`, Marks: "[]", Body: []byte("time,rate\n0,20\n")})
	require.NoError(t, err)
	photo, err := st.KeepPhoto("quern", album.Photo{Of: album.Step, Key: "solder:1", Label: "Solder the supply", Wide: 3, High: 2,
		At: time.Now()}, []byte{0xFF, 0xD8, 0xFF, 0, 1, 2})
	require.NoError(t, err)
	ok, err := st.SayPhoto("quern", photo, album.Photo{Moment: album.After, Words: "the pads", LetGo: true,
		Marks: []album.PhotoMark{{X: 0.25, Y: 1, Says: "TX5"}}})
	require.NoError(t, err)
	require.True(t, ok)
	require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error {
		s.Remove(stock.Ref{Kind: stock.KindQuad, ID: "whip"})
		return nil
	}))
	return st, dir
}

func backupOf(t *testing.T, st *store.Store) string {
	t.Helper()
	var out bytes.Buffer
	_, err := st.Backup(&out, time.Date(2026, 1, 2, 3, 4, 5, 0, time.UTC))
	require.NoError(t, err)
	return out.String()
}

// A backup put into another folder is all there was, to the byte but for the count of
// changes; undo and history go on from it.
func TestABackupMovesEverything(t *testing.T) {
	st, _ := lived(t)
	text := backupOf(t, st)
	path := filepath.Join(t.TempDir(), "all.jsonl")
	rows, err := st.BackupTo(path, time.Now())
	require.NoError(t, err)
	assert.Equal(t, strings.Count(text, "\n")-2, rows)

	elsewhere := open(t, t.TempDir())
	n, err := elsewhere.Restore(strings.NewReader(text), false, format.CheckWhole, time.Now())
	require.NoError(t, err)
	assert.Equal(t, rows, n)
	again := strings.Split(backupOf(t, elsewhere), "\n")
	for i, line := range strings.Split(text, "\n") {
		if !strings.Contains(line, `"table":"counters"`) && !strings.Contains(line, `"end"`) {
			assert.Equal(t, line, again[i])
		}
	}
	assert.Equal(t, asText(t, &snapshot(t, st).Stock), asText(t, &snapshot(t, elsewhere).Stock))
	removal := snapshot(t, st).Revision
	require.NoError(t, elsewhere.Undo(removal, store.Deed{}, anything), "what was taken out before comes back after")
	_, ok := snapshot(t, elsewhere).Fleet.Quad("whip")
	assert.True(t, ok)
	assert.Len(t, snapshot(t, elsewhere).Fleet.TestFlights, 2, "with what it has flown")
	kept, err := elsewhere.Recordings("whip-2026-05-12")
	require.NoError(t, err)
	require.Len(t, kept, 1)
	whole, ok, err := elsewhere.Recording("whip-2026-05-12", kept[0].ID)
	require.NoError(t, err)
	assert.True(t, ok)
	assert.Equal(t, "time,rate\n0,20\n", string(whole.Body))
	photos, err := elsewhere.Photos("quern")
	require.NoError(t, err)
	before, err := st.Photos("quern")
	require.NoError(t, err)
	assert.Equal(t, before, photos)
	require.Len(t, photos, 1)
	assert.Equal(t, []album.PhotoMark{{X: 0.25, Y: 1, Says: "TX5"}}, photos[0].Marks)
	picture, ok, err := elsewhere.PhotoBody("quern", photos[0].ID)
	require.NoError(t, err)
	assert.True(t, ok)
	assert.Equal(t, []byte{0xFF, 0xD8, 0xFF, 0, 1, 2}, picture)
}

// Backups of the earlier versions, which knew no recordings or no photos, are read for ever.
func TestBackupsOfEarlierVersions(t *testing.T) {
	st, _ := lived(t)
	for version, lacks := range map[int][]string{1: {"recordings", "photos"}, 2: {"photos"}} {
		var lines []string
		for _, line := range strings.SplitAfter(backupOf(t, st), "\n") {
			lacking := slices.ContainsFunc(lacks, func(table string) bool { return strings.Contains(line, `"table":"`+table+`"`) })
			if !lacking && !strings.Contains(line, `"end":`) && line != "" {
				lines = append(lines, line)
			}
		}
		now := fmt.Sprintf(`"version":%d`, store.BackupVersion)
		require.Contains(t, lines[0], now)
		lines[0] = strings.Replace(lines[0], now, fmt.Sprintf(`"version":%d`, version), 1)
		all := strings.Join(lines, "")
		end := fmt.Sprintf(`{"end":{"rows":%d,"sha256":"%x"}}`+"\n", len(lines)-1, sha256.Sum256([]byte(all)))
		elsewhere := open(t, t.TempDir())
		_, err := elsewhere.Restore(strings.NewReader(all+end), false, format.CheckWhole, time.Now())
		require.NoError(t, err)
		assert.Equal(t, asText(t, &snapshot(t, st).Stock), asText(t, &snapshot(t, elsewhere).Stock))
	}
}

func TestARestoreNeverLosesWhatIsThere(t *testing.T) {
	st, _ := lived(t)
	text := backupOf(t, st)
	there, dir := withDemo(t)
	before := asText(t, &snapshot(t, there).Stock)
	_, err := there.Restore(strings.NewReader(text), false, format.CheckWhole, time.Now())
	assert.ErrorIs(t, err, store.ErrNotEmpty)
	lines := strings.SplitAfter(text, "\n")
	for name, bad := range map[string]string{
		"cut short":       strings.Join(lines[:len(lines)-5], ""),
		"in a line":       text[:len(text)/2],
		"changed":         strings.Replace(text, "smelled of solder", "smelled of roses", 1),
		"a line less":     strings.Join(append(append([]string{}, lines[:3]...), lines[4:]...), ""),
		"more at the end": text + "{}\n",
		"no backup":       `{"format":"fleet"}` + "\n",
		"later":           strings.Replace(text, fmt.Sprintf(`"version":%d`, store.BackupVersion), `"version":9`, 1),
		"nothing":         "",
	} {
		_, err := there.Restore(strings.NewReader(bad), true, format.CheckWhole, time.Now())
		assert.Error(t, err, name)
		assert.Equal(t, before, asText(t, &snapshot(t, there).Stock), name)
	}
	_, err = there.Restore(strings.NewReader(text), true, format.CheckWhole, time.Now())
	require.NoError(t, err)
	assert.Equal(t, asText(t, &snapshot(t, st).Stock), asText(t, &snapshot(t, there).Stock))
	kept, err := filepath.Glob(filepath.Join(dir, store.FileName+".before-restore-*"))
	require.NoError(t, err)
	assert.NotEmpty(t, kept, "a copy of what was there stays")
}

// One broken row is set aside and said; the rest goes on, can be changed and exported; the
// doctor brings it back from its history.
func TestABrokenRowIsSetAside(t *testing.T) {
	st, dir := withDemo(t)
	require.NoError(t, st.Exec(`UPDATE gear SET body = '{"id":7}' WHERE id = 'visor-c'`))
	require.NoError(t, st.Exec(`UPDATE fleet_entries SET body = '[]' WHERE kind = 'kit' AND id = 'visor-b-1'`))
	require.NoError(t, st.Close())
	st = open(t, dir)
	snap := snapshot(t, st)
	require.Len(t, snap.Aside, 2)
	assert.Equal(t, "visor-c", snap.Aside[0].ID)
	assert.NotEmpty(t, snap.Aside[0].Why)
	assert.Len(t, snap.Library.AllUnread(), 2, "what rests on them is unknown")
	for _, change := range []func(s *stock.Stock) error{
		func(s *stock.Stock) error {
			text, err := format.Write(s.Entry(stock.Ref{Kind: stock.KindQuad, ID: "quern"}))
			if err != nil {
				return err
			}
			return format.TakeEntry(s, stock.Ref{Kind: stock.KindQuad, ID: "quern"}, text)
		},
		func(s *stock.Stock) error {
			text, err := format.Write(s.Entry(stock.Ref{Kind: "pack", ID: "tallow-6s"}))
			if err != nil {
				return err
			}
			return format.TakeEntry(s, stock.Ref{Kind: "pack", ID: "tallow-6s"}, text)
		},
		func(s *stock.Stock) error { s.SetRegion(""); return format.TakeHead(s) },
	} {
		require.NoError(t, st.Update(store.Deed{}, change))
	}
	require.NoError(t, st.Close())

	found, err := store.Doctor(dir, false, time.Now())
	require.NoError(t, err)
	require.Len(t, found, 2)
	assert.Contains(t, found[0].Says, "goggles visor-c cannot be read")
	assert.False(t, found[0].Mended)
	found, err = store.Doctor(dir, true, time.Now())
	require.NoError(t, err)
	require.Len(t, found, 2)
	assert.True(t, found[0].Mended && found[1].Mended, "%v", found)
	found, err = store.Doctor(dir, false, time.Now())
	require.NoError(t, err)
	assert.Empty(t, found)
	st = open(t, dir)
	require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error { s.SetRegion("harrow"); return nil }))
	assert.Empty(t, snapshot(t, st).Aside)
	assert.Empty(t, snapshot(t, st).Library.AllUnread())
	copies, err := filepath.Glob(filepath.Join(dir, store.FileName+".before-doctor-*"))
	require.NoError(t, err)
	assert.NotEmpty(t, copies)
}

func TestAMissingTableIsSaidAndMadeAnew(t *testing.T) {
	for _, table := range []string{"events", "bench_records", "counters", "gear"} {
		st, dir := withDemo(t)
		require.NoError(t, st.Exec("PRAGMA foreign_keys = 0; DROP TABLE "+table))
		require.NoError(t, st.Close())
		_, err := store.Open(dir)
		require.ErrorContains(t, err, table)
		assert.ErrorContains(t, err, "doctor")
		found, err := store.Doctor(dir, false, time.Now())
		require.NoError(t, err)
		assert.Len(t, found, 1)
		_, err = store.Doctor(dir, true, time.Now())
		require.NoError(t, err, table)
		st = open(t, dir)
		assert.NotEmpty(t, snapshot(t, st).Fleet.Quads)
		require.NoError(
			t,
			st.Update(store.Deed{}, func(s *stock.Stock) error { s.Fleet.Title = "goes on"; return nil }),
			table,
		)
		require.NoError(t, st.Close())
	}
	_, err := store.Doctor(t.TempDir(), true, time.Now())
	assert.ErrorIs(t, err, store.ErrNoDatabase)
	dir := t.TempDir()
	require.NoError(
		t,
		os.WriteFile(filepath.Join(dir, store.FileName), []byte("this is no database, whatever its name says"), 0o600),
	)
	_, err = store.Open(dir)
	var trouble *store.Trouble
	require.ErrorAs(t, err, &trouble)
	assert.Equal(t, store.Damaged, trouble.Condition)
}
