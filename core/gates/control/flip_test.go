package control_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/control"
	"yokeswap/core/internal/sample"
)

// flipped are samples of one auxiliary channel that stands at some places in turn, the
// others still.
func flipped(aux int, places ...int) (samples []control.Sample) {
	for _, us := range places {
		channels := []int{1500, 1500, 1000, 1500, 1000, 1000, 1000, 1000}
		channels[3+aux] = us
		one := control.Sample{Channels: channels, Held: true}
		samples = append(samples, one, one)
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
		"just far enough":         {flipped(1, 1000, 1200), 1, 1100, 2100},
		"with some jitter":        {flipped(4, 988, 996, 2004, 2012), 4, 1500, 2100},
	} {
		flip, err := control.FindFlip("arm", trial.samples)
		require.NoError(t, err, name)
		assert.Equal(t, [3]int{trial.aux, trial.from, trial.to}, [3]int{flip.Aux, flip.Range.FromUS, flip.Range.ToUS}, name)
	}
}

// Where a switch stood is the middle of what was read there, the lower of two.
func TestThePositionsOfAJitteringSwitch(t *testing.T) {
	flip, err := control.FindFlip("arm", flipped(4, 988, 996, 2004, 2012))
	require.NoError(t, err)
	assert.Equal(t, []int{988, 2004}, flip.Positions)
	flip, err = control.FindFlip("arm", flipped(4, 980, 990, 1001, 2000))
	require.NoError(t, err)
	assert.Equal(t, []int{990, 2000}, flip.Positions)
}

func TestWhatIsNoFlipIsRefused(t *testing.T) {
	_, err := control.FindFlip("arm", flipped(1, 1000, 1000))
	require.ErrorIs(t, err, control.ErrNoFlip)
	_, err = control.FindFlip("arm", nil)
	require.ErrorIs(t, err, control.ErrNoFlip)
	_, err = control.FindFlip("arm", flipped(1, 1000, 1199))
	require.ErrorIs(t, err, control.ErrNoFlip, "that is jitter")
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
	free := flipped(1, 1000, 2000)
	free[3].Held = false
	_, err = control.FindFlip("arm", free)
	require.ErrorIs(t, err, control.ErrNotHeld)
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

// Only what the range itself brings is held against it, whatever else is wrong with the
// sticks; what is not stated is said and not called good.
func TestARangeIsNotRefusedForAnothersFault(t *testing.T) {
	asItIs := func(*fleet.Fit) {}
	for name, trial := range map[string]struct {
		change  func(*fleet.Fit)
		put     fleet.Switch
		codes   []verdict.Code
		refused bool
	}{
		"a good one":             {asItIs, fleet.Switch{Mode: "level", Aux: 5, FromUS: 1700, ToUS: 2100}, nil, false},
		"armed wherever it goes": {asItIs, fleet.Switch{Mode: "arm", Aux: 5, FromUS: 900, ToUS: 2100}, []verdict.Code{control.CodeArmRange}, true},
		"a mode it has not":      {asItIs, fleet.Switch{Mode: "hover-tea", Aux: 5, FromUS: 1700, ToUS: 2100}, []verdict.Code{control.CodeMode}, true},
		"another's mode that it has not": {
			func(f *fleet.Fit) {
				f.Sticks.Switches = append(f.Sticks.Switches, fleet.Switch{Mode: "hover-tea", Aux: 6, FromUS: 1700, ToUS: 2100})
			},
			fleet.Switch{Mode: "level", Aux: 5, FromUS: 1700, ToUS: 2100}, nil, false,
		},
		"a protocol the unit has not, and this the only switch": {
			func(f *fleet.Fit) {
				f.Sticks.Unit, f.Sticks.Board = fleet.LowLatency, fleet.LowLatency
				f.Sticks.Switches = f.Sticks.Switches[:1]
			},
			fleet.Switch{Mode: "arm", Aux: 5, FromUS: 1700, ToUS: 2100}, nil, false,
		},
		"its old range within another's": {
			func(f *fleet.Fit) {
				f.Sticks.Switches = append(f.Sticks.Switches, fleet.Switch{Mode: "level", Aux: 1, FromUS: 1500, ToUS: 2000})
			},
			fleet.Switch{Mode: "level", Aux: 1, FromUS: 1400, ToUS: 2000}, []verdict.Code{control.CodeArmIn}, true,
		},
		"an order not stated": {
			func(f *fleet.Fit) { f.Sticks.Order = "" },
			fleet.Switch{Mode: "level", Aux: 5, FromUS: 1700, ToUS: 2100}, []verdict.Code{control.CodeUnknown}, false,
		},
	} {
		put, ok := control.Put(caseOf(sample.Set(), trial.change), trial.put)
		require.True(t, ok, name)
		assert.Equal(t, trial.codes, codes(put.Findings), name)
		assert.Equal(t, trial.refused, put.Refused, name)
		assert.Contains(t, put.Patch.Sticks.Switches, trial.put, name)
	}
	set := sample.Set()
	set.FlightFirmware[0].Modes = map[string]int{"level": 1, "arm": 0}
	assert.Equal(t, []string{"arm", "level"}, control.Modes(caseOf(set, asItIs)))
	assert.Empty(t, control.Modes(caseOf(set, func(f *fleet.Fit) { f.Runs = nil })))
	_, ok := control.Put(caseOf(sample.Set(), func(f *fleet.Fit) { f.Sticks = nil }), fleet.Switch{Mode: "arm"})
	assert.False(t, ok, "there is nothing to put it into")
}
