package store_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/work/album"
	"yokeswap/store"
)

// Photos belong to the quad they were taken of: not to a later one of its id, and to it again when it comes
// back.
func TestPhotosStayWithTheirQuad(t *testing.T) {
	st, _ := withDemo(t)
	id, err := st.KeepPhoto("quern", album.Photo{Of: album.Whole, Label: "Quern", At: time.Now()}, []byte("one"))
	require.NoError(t, err)
	other, err := st.KeepPhoto("damsel", album.Photo{Of: album.Whole, Label: "Damsel", At: time.Now()}, []byte("two"))
	require.NoError(t, err)
	_, ok, err := st.PhotoBody("quern", other)
	require.NoError(t, err)
	assert.False(t, ok, "it is another quad's")
	ok, err = st.DropPhoto("quern", other)
	require.NoError(t, err)
	assert.False(t, ok)

	quern, _ := snapshot(t, st).Fleet.Quad("quern")
	again := *quern
	remove := func(s *stock.Stock) error { s.Remove(stock.Ref{Kind: stock.KindQuad, ID: "quern"}); return nil }
	require.NoError(t, st.Update(store.Deed{}, remove))
	removal := snapshot(t, st).Revision
	require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error {
		s.Fleet.Quads = append(s.Fleet.Quads, fleet.Quad{ID: "quern", Name: "Another", Now: again.Now})
		return nil
	}))
	list, err := st.Photos("quern")
	require.NoError(t, err)
	assert.Empty(t, list, "of a later quad with its id")
	require.NoError(t, st.Update(store.Deed{}, remove))
	require.NoError(t, st.Undo(removal, store.Deed{}, anything))
	list, err = st.Photos("quern")
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, id, list[0].ID)
	assert.Equal(t, []album.PhotoMark{}, list[0].Marks)

	said := album.Photo{Moment: album.Before, Words: "as it came", Marks: []album.PhotoMark{{Says: "here"}}}
	say := func(letGo bool) {
		said.LetGo = letGo
		ok, err = st.SayPhoto("quern", id, said)
		require.NoError(t, err)
		assert.True(t, ok)
		list, err = st.Photos("quern")
		require.NoError(t, err)
		assert.Equal(t, letGo, list[0].LetGo)
		assert.Equal(t, said.Marks, list[0].Marks)
	}
	say(false)
	ok, err = st.DropPhoto("quern", id)
	require.NoError(t, err)
	assert.False(t, ok, "it was not let go of")
	say(true)
	say(false)
	say(true)
	ok, err = st.DropPhoto("quern", id)
	require.NoError(t, err)
	assert.True(t, ok)
	list, err = st.Photos("quern")
	require.NoError(t, err)
	assert.Empty(t, list)
}
