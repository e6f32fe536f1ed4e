package swap_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/plans/swap"
)

// Another flight board, picked: whatever hangs on the old one is wired onto the new, so
// that no wire destroys, nothing is left in the air, and what does not fit is for want of
// a port or a pad, and named.
func TestAnotherBoardIsWiredAnew(t *testing.T) {
	st := demoStock(t)
	f := fleet.NewIndex(st.Fleet)
	tried := 0
	for i := range f.Quads {
		c := fleet.NewCase(st.Library(), f, &f.Quads[i])
		if before := swap.Judge(c); before.Gate(verdict.Pins).Level == verdict.Unknown || c.Fit.Board == "" {
			continue
		}
		for _, b := range gear.All[*gear.Board](st.Library()) {
			if b.ID == c.Fit.Board {
				continue
			}
			after := c.With(pins.Onto(c, b.ID))
			tried++
			require.Equal(t, b.ID, after.Fit.Board)
			j := swap.Judge(after)
			for _, found := range j.Gate(verdict.Pins).Findings {
				assert.NotEqual(t, verdict.Destroys, found.Danger, "%s onto %s: %s", c.Quad.ID, b.ID, found.Says)
			}
			assert.Len(t, after.Fit.Parts, len(c.Fit.Parts), "every part is still there")
			off := pins.TakeOff(st.Library(), f, c.Quad)
			assert.NotNil(t, off)
		}
		bare := c.With(pins.Onto(c, ""))
		assert.Empty(t, bare.Fit.Board)
		assert.True(t, bare.Fit.Without(fleet.NoBoard))
		for _, feed := range bare.Fit.Feeds {
			_, onBoard := fleet.PadOf(feed.From)
			assert.False(t, onBoard, feed)
		}
	}
	assert.Greater(t, tried, 10)
}

// Where the new board has all that is needed, the move leaves nothing to say: the long
// range quad onto a board with six ports.
func TestAMoveToABoardThatHasItAll(t *testing.T) {
	st := demoStock(t)
	f := fleet.NewIndex(st.Fleet)
	q, _ := f.Quad("wallower")
	c := fleet.NewCase(st.Library(), f, q)
	after := c.With(pins.Onto(c, "thistle-h7"))
	j := swap.Judge(after)
	for _, found := range j.Gate(verdict.Pins).Findings {
		assert.Equal(t, verdict.Fits, found.Level, found.Says)
	}
	gps, _ := after.Fit.Part("gps")
	assert.Len(t, gps.Wires, 6)
	assert.Equal(t, fleet.Wire{Pin: 1, To: "5v", Colour: "red"}, gps.Wires[0])
}
