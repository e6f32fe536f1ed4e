package album_test

import (
	"math"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/work/album"
	"yokeswap/internal/builds"
)

// Photos of one thing lie together, before beside after, the oldest first; the whole quad comes first, and a
// thing is called what it was called last.
func TestPhotosAreLaidOut(t *testing.T) {
	day := func(n int) time.Time { return time.Date(2026, 5, n, 0, 0, 0, 0, time.UTC) }
	groups := album.Groups([]album.Photo{
		{ID: 1, Of: album.Plug, Key: "hd", Label: "HD plug", Moment: album.After, At: day(3)},
		{ID: 2, Of: album.Plug, Key: "hd", Label: "HD", Moment: album.Before, At: day(1)},
		{ID: 3, Of: album.Plug, Key: "vtx", Label: "VTX", At: day(2)},
		{ID: 4, Of: album.Whole, Label: "Quern", Moment: album.Before, At: day(4)},
		{ID: 5, Of: album.Plug, Key: "hd", Label: "HD plug", Moment: album.After, At: day(2)},
	})
	assert.Len(t, groups, 3)
	assert.Equal(t, album.Whole, groups[0].Of)
	hd := groups[1]
	assert.Equal(t, "HD plug", hd.Label)
	assert.Equal(t, []int64{5, 1}, []int64{hd.After[0].ID, hd.After[1].ID})
	assert.Equal(t, int64(2), hd.Before[0].ID)
	assert.Empty(t, hd.Others)
	assert.Equal(t, int64(3), groups[2].Others[0].ID)
	assert.Empty(t, album.Groups(nil))
}

func TestMarks(t *testing.T) {
	assert.NoError(t, album.CheckMarks([]album.PhotoMark{{X: 0, Y: 1, Says: "TX5"}}))
	for says, marks := range map[string][]album.PhotoMark{
		"mark 1 lies beside": {{X: -0.1, Says: "a"}},
		"mark 2 lies beside": {{Says: "a"}, {Y: 1.01, Says: "a"}},
		"mark 1 lies":        {{X: math.NaN(), Says: "a"}},
		"says nothing":       {{Says: "  "}},
		"more than 80":       {{Says: strings.Repeat("ä", 81)}},
		"at most 40":         make([]album.PhotoMark, 41),
	} {
		assert.ErrorContains(t, album.CheckMarks(marks), says)
	}
}

// What can be marked is what the quad has: the pins of its unit, and what its board breaks out.
func TestPinsToMark(t *testing.T) {
	st := builds.Demo()
	x := fleet.NewIndex(st.Fleet)
	quern, _ := x.Quad("quern")
	list := album.Pins(fleet.NewCase(st.Library(), x, quern))
	assert.Contains(t, list, "Aldine Two, pin 1: ground")
	assert.Contains(t, list, "TX5")
	assert.Contains(t, list, "ground")
	bare := *quern
	bare.Now, bare.Next = fleet.Fit{}, nil
	assert.Empty(t, album.Pins(fleet.NewCase(st.Library(), x, &bare)))
}
