package swap_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
)

func depthsOf(c fleet.Case) map[string]swap.DepthOption {
	by := map[string]swap.DepthOption{}
	for _, o := range swap.Depths(c) {
		by[o.Label+" by "+o.Sticks] = o
	}
	return by
}

// The depths of wiring side by side: two, four and six wires of the unit, and a receiver
// brings its own four (common practice); ports, grams, lag and price as the sheets have
// them.
func TestDepthsSideBySide(t *testing.T) {
	set := sample.Set()
	set.Boards[0].UARTs[3].Hardware = new(true)
	set.Receivers[0].RangeKM = new(unit.Kilometres(14))
	for i := range set.Pairings { // on the release it carries, the second generation with the new goggles reaches so far
		if p := &set.Pairings[i]; p.AirUnit == "second" && p.Goggles == "new-eyes" {
			p.AirFirmware, p.Limits = "", &gear.Limits{RangeKM: new(unit.Kilometres(9))}
		}
	}
	set.Receivers[0].MassG, set.Receivers[0].Offer = new(unit.Grams(2)), &gear.Offer{Price: new(18.0), Currency: "EUR"}
	f := fit("second", "new-eyes", "new-hand", "lipo-4", "board.10v")
	f.Wires = append([]fleet.Wire{{Pin: 1, To: "10v"}}, f.Wires...)
	c := sample.Case(set, kit, f)
	by := depthsOf(c)
	picture, data := by["picture alone by receiver"], by["picture and data by receiver"]
	sticks := by["picture, data and sticks by new-hand"]
	assert.Equal(t, []int{6, 8, 6}, []int{picture.Wires, data.Wires, sticks.Wires})
	assert.True(t, sticks.Chosen)
	assert.False(t, data.Chosen)
	assert.Equal(t, []int{1, 3}, sticks.UARTs)
	assert.Len(t, picture.UARTs, 1, "the receiver's")
	assert.Len(t, data.UARTs, 2)
	assert.InDelta(t, 6, *data.LagMS, 0, "the receiver's own")
	assert.InDelta(t, 14, float64(*data.RangeKM), 0, "as its sheet has it")
	assert.InDelta(t, 9, float64(*sticks.RangeKM), 0, "no further than the picture")
	require.NotNil(t, data.Price)
	assert.InDelta(t, 18, *data.Price, 0)
	assert.Equal(t, "EUR", data.Currency)
	assert.Nil(t, sticks.Price)
	require.NotNil(t, data.Patch.Feed, "a receiver that comes is fed")
	assert.Equal(t, fleet.Feed{To: fleet.NodeReceiver, From: "board.5v"}, *data.Patch.Feed)
	fed := c
	fed.Fit = new(c.Fit.Clone())
	fed.Fit.Receiver = "receiver"
	fed.Fit.Feeds = append(fed.Fit.Feeds, fleet.Feed{To: fleet.NodeReceiver, From: "pack"})
	assert.Nil(t, depthsOf(fed)["picture alone by receiver"].Patch.Feed, "one that is fed stays as it is")
	assert.Contains(t, by, "picture, data and sticks by old-hand", "each controller owned")
	assert.Equal(t, verdict.Unfit, by["picture, data and sticks by old-hand"].Level)
	assert.NotEmpty(t, by["picture, data and sticks by old-hand"].Adds)
	for name, o := range by {
		after := c.With(o.Patch)
		if !o.Chosen {
			assert.Equal(t, o.Level, levelWithin(after), name)
		}
		for _, wire := range pins.Draw(after).Wires {
			if o.Label == "picture alone" {
				assert.NotContains(t, wire.Function, "UART", name)
			}
		}
	}
	assert.Empty(t, swap.Depths(sample.Case(set, kit, fleet.Fit{Board: "board"})))
}

// levelWithin is the worst of the gates that wiring and sticks touch.
func levelWithin(c fleet.Case) verdict.Level {
	j := swap.Judge(c)
	worst := verdict.Fits
	for _, gate := range []verdict.Gate{verdict.Link, verdict.Power, verdict.Pins, verdict.OSD, verdict.Control} {
		if is := j.Gate(gate).Level; is.WorseThan(worst) {
			worst = is
		}
	}
	return worst
}

// In a cable the crimps that are not wanted are pulled, and go back in.
func TestADepthInACablePullsCrimps(t *testing.T) {
	f := fit("second", "new-eyes", "new-hand", "lipo-4", "board.10v")
	f.Wires, f.Harness, f.HarnessTo = nil, "straight", "hd"
	c := sample.Case(sample.Set(), kit, f)
	picture, ok := pins.AtDepth(c, fleet.PictureOnly)
	require.True(t, ok)
	assert.Len(t, picture.Moved, 4)
	assert.Equal(t, fleet.PictureOnly, pins.DepthOf(c.With(fleet.Patch{Wiring: &picture})))
	back, ok := pins.AtDepth(c.With(fleet.Patch{Wiring: &picture}), fleet.WithSticks)
	require.True(t, ok)
	assert.Empty(t, back.Moved)
	assert.Equal(t, fleet.WithSticks, pins.DepthOf(c.With(fleet.Patch{Wiring: &back})))
	data, _ := pins.AtDepth(c, fleet.PictureAndData)
	assert.Equal(t, fleet.PictureAndData, pins.DepthOf(c.With(fleet.Patch{Wiring: &data})))
}
