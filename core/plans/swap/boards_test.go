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
	"yokeswap/internal/builds"
)

// Another flight board, picked: whatever hangs on the old one is wired onto the new, so
// that no wire destroys, nothing is left in the air, and what does not fit is for want of
// a port or a pad, and named.
func TestAnotherBoardIsWiredAnew(t *testing.T) {
	st := builds.Demo()
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
	st := builds.Demo()
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

// A part on a jumper goes to what the jumper makes, not to the new board's jumper as it is
// delivered.
func TestAPartOnAJumperKeepsItsVoltage(t *testing.T) {
	st := builds.Demo()
	f := fleet.NewIndex(st.Fleet)
	q, _ := f.Quad("wallower")
	q.Next.Parts = append(q.Next.Parts, fleet.PlacedPart{ID: "cam", Model: "keek-cam", Cable: fleet.Cable{
		Wires: []fleet.Wire{{Pin: 1, To: "cam"}, {Pin: 2, To: "ground"}, {Pin: 3, To: "video-in"}},
	}})
	for choice, want := range map[string]string{"pack": "batt", "10v": "9v", "5v": "5v"} {
		q.Next.Jumpers = map[string]string{"cam": choice}
		c := fleet.NewCase(st.Library(), f, q)
		cam, ok := c.With(pins.Onto(c, "thistle-f4")).Fit.Part("cam")
		require.True(t, ok)
		assert.Equal(t, want, cam.Wires[0].To, choice)
	}
}
