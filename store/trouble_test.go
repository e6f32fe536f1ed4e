package store_test

import (
	"os"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/stock"
	"yokeswap/core/work/setup"
	"yokeswap/store"
)

// Each state of disk and file has its sentence, what was confirmed stays, and once it is
// over the program goes on.
func TestTroubleIsSaidAndNothingIsLost(t *testing.T) {
	for _, c := range []struct {
		condition  store.Condition
		bring, end string
		says       string
	}{
		{store.Full, "max_page_count = 1", "max_page_count = 1000000", "make room on it"},
		{store.ReadOnly, "query_only = 1", "query_only = 0", "can be read and not written"},
	} {
		t.Run(string(c.condition), func(t *testing.T) {
			st, _ := withDemo(t)
			before := asText(t, &snapshot(t, st).Stock)
			change := func(note string) error {
				return st.Update(store.Deed{}, func(s *stock.Stock) error {
					s.Fleet.Quads[0].Note = strings.Repeat(note, 100_000)
					return nil
				})
			}
			require.NoError(t, st.Settle(c.bring))
			for _, try := range []func() error{
				func() error { return change("a") },
				func() error { return st.Log("quern", strings.Repeat("b", 100_000), time.Now()) },
				func() error {
					_, err := st.KeepBoard("quern", "by hand", setup.State{Name: strings.Repeat("c", 100_000)}, "", time.Now())
					return err
				},
			} {
				err := try()
				var trouble *store.Trouble
				require.ErrorAs(t, err, &trouble)
				assert.Equal(t, c.condition, trouble.Condition)
				assert.ErrorContains(t, err, c.says)
				assert.NotContains(t, err.Error(), "SQL")
			}
			assert.Equal(t, before, asText(t, &snapshot(t, st).Stock), "nothing was changed")
			condition, err := st.Health()
			assert.Equal(t, c.condition, condition)
			assert.ErrorContains(t, err, c.says)
			require.NoError(t, st.Settle(c.end))
			require.NoError(t, change("a"))
			condition, err = st.Health()
			assert.Equal(t, store.Sound, condition)
			assert.NoError(t, err)
		})
	}
}

func TestALockedDatabaseIsSaidToBe(t *testing.T) {
	st, dir := withDemo(t)
	other := open(t, dir)
	require.NoError(t, st.Settle("busy_timeout = 20"))
	require.NoError(t, other.Settle("busy_timeout = 20"))
	require.NoError(t, other.Exec("BEGIN EXCLUSIVE"))
	err := st.Log("quern", "x", time.Now())
	var trouble *store.Trouble
	require.ErrorAs(t, err, &trouble)
	assert.Equal(t, store.Locked, trouble.Condition)
	require.NoError(t, other.Exec("ROLLBACK"))
	assert.NoError(t, st.Log("quern", "x", time.Now()))
}

// A folder may be called anything; the database lies in it, with the settings that keep
// what was confirmed, and is for its owner alone.
func TestAnyFolderWillDo(t *testing.T) {
	for _, name := range []string{"plain", "a#b", "a?b=c&mode=memory", "100%", "a%20b", "with space", "ä ö", "a;b'c\"d"} {
		if runtime.GOOS == "windows" && strings.ContainsAny(name, `?"`) {
			continue
		}
		dir := filepath.Join(t.TempDir(), name)
		st := open(t, dir)
		require.NoError(t, st.Log("quern", "was here", time.Now()), name)
		for pragma, want := range map[string]string{"journal_mode": "wal", "synchronous": "2", "foreign_keys": "1"} {
			got, err := st.Pragma(pragma)
			require.NoError(t, err, name)
			assert.Equal(t, want, got, "%s in %s", pragma, name)
		}
		info, err := os.Stat(filepath.Join(dir, store.FileName))
		require.NoError(t, err, name)
		assert.Positive(t, info.Size(), name)
		if runtime.GOOS != "windows" {
			assert.Zero(t, info.Mode().Perm()&0o077, name)
		}
		beside, err := os.ReadDir(filepath.Dir(dir))
		require.NoError(t, err)
		assert.Len(t, beside, 1, "nothing beside the folder of %s", name)
		require.NoError(t, st.Close())
		_, err = store.OpenExisting(dir)
		assert.NoError(t, err, name)
	}
	empty := t.TempDir()
	_, err := store.OpenExisting(empty)
	assert.ErrorIs(t, err, store.ErrNoDatabase)
	list, err := os.ReadDir(empty)
	require.NoError(t, err)
	assert.Empty(t, list, "none was made")
}

// What an earlier release has written is read by this one, and a copy of it stays.
func TestUpgradeKeepsWhatWasThere(t *testing.T) {
	for upTo := 1; upTo < len(store.Migrations()); upTo++ {
		t.Run(strconv.Itoa(upTo), func(t *testing.T) {
			dir := t.TempDir()
			require.NoError(t, store.OldDatabase(dir, upTo))
			st := open(t, dir)
			snap := snapshot(t, st)
			q, ok := snap.Fleet.Quad("old")
			require.True(t, ok)
			assert.Equal(t, "Old", q.Name)
			assert.Equal(t, int64(3), snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: "old"}))
			records, err := st.Records("old")
			require.NoError(t, err)
			require.Len(t, records, 1)
			assert.Equal(t, 5100.0, *records[0].Value)
			if upTo >= 2 {
				notes, err := st.LogOf("old", 0, 0)
				require.NoError(t, err)
				require.Len(t, notes, 1)
				assert.Equal(t, "flew", notes[0].Says)
				kept, err := st.Boards("old", 0, 0)
				require.NoError(t, err)
				require.Len(t, kept, 1)
			}
			_, err = os.Stat(filepath.Join(dir, store.FileName+".before-"+store.Migrations()[upTo]))
			assert.NoError(t, err, "a copy stays")
			require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error { s.Fleet.Title = "goes on"; return nil }))
		})
	}
}

// A database of a later release is refused, and left as it is.
func TestDowngradeIsRefused(t *testing.T) {
	st, dir := withDemo(t)
	require.NoError(t, st.Exec("INSERT INTO migrations (id) VALUES ('2099-01-01-later')"))
	require.NoError(t, st.Close())
	_, err := store.Open(dir)
	assert.ErrorContains(t, err, "later release")
}
