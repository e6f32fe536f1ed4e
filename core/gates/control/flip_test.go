package control_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/gates/control"
)

// flipped are samples of one auxiliary channel that stands at some places in turn, the
// others still.
func flipped(aux int, places ...int) (samples []control.Sample) {
	for _, us := range places {
		channels := []int{1500, 1500, 1000, 1500, 1000, 1000, 1000, 1000}
		channels[3+aux] = us
		samples = append(samples, control.Sample{Channels: channels}, control.Sample{Channels: channels})
	}
	return samples
}

// A switch is found by flipping it (common practice): where it moved, where it stood, and
// the range around where it ended.
func TestASwitchIsFoundByFlippingIt(t *testing.T) {
	for name, trial := range map[string]struct {
		samples  []control.Sample
		aux      int
		from, to int
	}{
		"two positions":           {flipped(1, 1000, 2000), 1, 1500, 2100},
		"back down":               {flipped(2, 2000, 1000), 2, 900, 1500},
		"there and back":          {flipped(2, 1000, 2000, 1000), 2, 1500, 2100},
		"three, to the middle":    {flipped(3, 1000, 2000, 1500), 3, 1250, 1750},
		"three, to the upper end": {flipped(3, 1000, 1500, 2000), 3, 1750, 2100},
		"with some jitter":        {flipped(4, 988, 996, 2004, 2012), 4, 1500, 2100},
	} {
		flip, err := control.FindFlip("arm", trial.samples)
		require.NoError(t, err, name)
		assert.Equal(t, [3]int{trial.aux, trial.from, trial.to}, [3]int{flip.Aux, flip.Range.FromUS, flip.Range.ToUS}, name)
	}
}

func TestWhatIsNoFlipIsRefused(t *testing.T) {
	_, err := control.FindFlip("arm", flipped(1, 1000, 1000))
	require.ErrorIs(t, err, control.ErrNoFlip)
	_, err = control.FindFlip("arm", nil)
	require.ErrorIs(t, err, control.ErrNoFlip)
	both := append(flipped(1, 1000, 2000), flipped(2, 1000, 2000)...)
	_, err = control.FindFlip("arm", both)
	require.ErrorIs(t, err, control.ErrManyFlips)
	assert.Contains(t, err.Error(), "AUX 1 and AUX 2")
	armed := flipped(1, 1000, 2000)
	armed[1].Armed = true
	_, err = control.FindFlip("arm", armed)
	require.ErrorIs(t, err, control.ErrArmed)
	onPack := flipped(1, 1000, 2000)
	onPack[0].Volts = 16.2
	_, err = control.FindFlip("arm", onPack)
	require.ErrorIs(t, err, control.ErrPack)
}

// Law: the position flipped to lies in the range, every other position outside it.
func TestLawsOfAFlip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		first := rapid.IntRange(950, 1200).Draw(t, "first")
		places := []int{first}
		for range rapid.IntRange(1, 2).Draw(t, "more") {
			places = append(places, places[len(places)-1]+rapid.IntRange(250, 450).Draw(t, "further"))
		}
		flip, err := control.FindFlip("level", flipped(rapid.IntRange(1, 4).Draw(t, "aux"), places...))
		if err != nil {
			t.Fatal(err)
		}
		for i, us := range places {
			in := us >= flip.Range.FromUS && us < flip.Range.ToUS
			if in != (i == len(places)-1) {
				t.Fatalf("%v: %d is in %+v: %t", places, us, flip.Range, in)
			}
		}
	})
}
