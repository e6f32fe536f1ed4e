package pins_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/pins"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// withPlaces is the sample board with some pads placed, and a unit soldered to it.
func withPlaces(pads ...gear.PadPlace) fleet.Case {
	set := sample.Set()
	for i := range set.Boards {
		set.Boards[i].Outline = &gear.Outline{
			XMM:  new(unit.Millimetres(30)),
			YMM:  new(unit.Millimetres(20)),
			Pads: pads,
		}
	}
	return sample.Case(set, nil, fleet.Fit{
		AirUnit: &fleet.Slot{Model: "second"},
		Board:   "board",
		Feeds:   []fleet.Feed{{To: fleet.NodeAirUnit, From: "board.10v"}},
		Wiring: fleet.Wiring{Wires: []fleet.Wire{
			{Pin: 1, To: "10v"}, {Pin: 2, To: "ground"}, {Pin: 3, To: "tx1"}, {Pin: 4, To: "rx1"},
		}},
	})
}

func pad(at string, x, y float64) gear.PadPlace {
	return gear.PadPlace{At: at, XMM: unit.Millimetres(x), YMM: unit.Millimetres(y)}
}

// Of several grounds a wire goes to the free one nearest to the part's other pads; a place
// that is not placed is named.
func TestWiresGoToThePadsThatLieTogether(t *testing.T) {
	assert.Nil(t, pins.DrawOutline(withPlaces()), "nothing is placed")
	pic := pins.DrawOutline(withPlaces(pad("ground", 2, 2), pad("ground", 28, 12), pad("10v", 28, 8), pad("rx1", 28, 10)))
	require.NotNil(t, pic)
	to := map[string]int{}
	for _, w := range pic.Wires {
		to[pic.Pieces[w.Piece].Pads[w.Pad].Words] = w.To
	}
	assert.Len(t, pic.Wires, 3)
	for words, at := range to {
		switch {
		case strings.HasSuffix(words, "ground"):
			assert.Equal(t, 1, at, "the ground beside the others, not the first of the list")
		case strings.HasSuffix(words, "supply"):
			assert.Equal(t, 2, at)
		}
	}
	assert.Equal(t, []string{"TX 1"}, pic.Unplaced)
	assert.False(t, pic.Pieces[1].Placed, "nobody has placed the unit's pads: they stand in a row")
	assert.Len(t, pic.Pieces[1].Pads, 6)
}

// A pin with two wires goes to two pads.
func TestTwoWiresOfOnePin(t *testing.T) {
	c := withPlaces(pad("ground", 2, 2), pad("10v", 28, 8), pad("5v", 28, 10), pad("tx1", 28, 12), pad("rx1", 28, 14))
	c.Fit.Wires = append(c.Fit.Wires, fleet.Wire{Pin: 1, To: "5v"})
	to := map[string]bool{}
	for _, w := range pins.DrawOutline(c).Wires {
		if w.Pad == 0 {
			to[pins.DrawOutline(c).Pieces[0].Pads[w.To].Words] = true
		}
	}
	assert.Len(t, to, 2, "%v", to)
}

// What solder may bridge to stands beside the wire: pads on the same side, near it, of
// another name.
func TestWhatLiesBesideAPadIsSaid(t *testing.T) {
	under := pad("5v", 28, 9)
	under.Back = true
	tx := pad("tx1", 10, 10)
	tx.Printed, tx.Back = "T1", true
	c := withPlaces(pad("ground", 28, 12), pad("ground", 28, 13), pad("10v", 28, 8), pad("rx1", 28, 9.5), under, tx)
	beside := map[string][]string{}
	for _, line := range pins.Soldering(c).Wires {
		beside[line.Wire] = line.Beside
		if line.Wire == pins.PinWords(gear.PinUARTRX) {
			assert.Equal(t, "printed T1, underneath", line.Printed)
			assert.Empty(t, line.Beside)
		}
	}
	require.Len(t, beside[pins.PinWords(gear.PinSupply)], 1, "what lies underneath is not beside it")
	assert.Contains(t, beside[pins.PinWords(gear.PinSupply)][0], "RX 1, 1.5 mm")
	assert.Empty(t, beside[pins.PinWords(gear.PinGround)], "two grounds may touch, and the rest is too far off")
}
