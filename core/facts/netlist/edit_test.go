package netlist_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/wire"
)

// One pin at a time: a wire is laid, moved with its colour, and taken off; what goes
// through a plug, and what is not there, is refused.
func TestOnePinIsSoldered(t *testing.T) {
	f := fleet.Fit{
		AirUnit:  &fleet.Slot{Model: "second"},
		Board:    "board",
		Receiver: "receiver",
		Wiring:   fleet.Wiring{Wires: []fleet.Wire{{Pin: 3, To: "tx1", Colour: "white"}}},
		Parts:    []fleet.PlacedPart{{ID: "gps", Model: "gps"}},
	}
	c := sample.Case(sample.Set(), nil, f)
	solder := func(node string, pin int, place string) fleet.Case {
		t.Helper()
		patch, err := netlist.Solder(c, node, pin, place)
		require.NoError(t, err)
		return c.With(patch)
	}
	assert.Equal(t, []fleet.Wire{{Pin: 3, To: "tx4", Colour: "white"}}, solder(fleet.NodeAirUnit, 3, "tx4").Fit.Wires)
	assert.Equal(t, []fleet.Wire{{Pin: 2, To: "ground"}, {Pin: 3, To: "tx1", Colour: "white"}},
		solder(fleet.NodeAirUnit, 2, "ground").Fit.Wires, "in the order of the pins")
	assert.Empty(t, solder(fleet.NodeAirUnit, 3, "").Fit.Wires)
	assert.Equal(t, []fleet.Wire{{Pin: 1, To: "5v"}}, solder("gps", 1, "5v").Fit.Parts[0].Wires)
	assert.Equal(t, []fleet.Wire{{Pin: 4, To: "rx1"}}, solder(fleet.NodeReceiver, 4, "rx1").Fit.ReceiverCable.Wires)
	assert.Equal(t, f.Wires, c.Fit.Wires, "the fit itself is as it was")

	// A supply wire says what feeds the air unit: nobody has to say it again.
	fed := func(c fleet.Case) string {
		from, _ := c.Fit.FeedOf(fleet.NodeAirUnit)
		return from
	}
	assert.Empty(t, fed(solder(fleet.NodeAirUnit, 3, "5v")), "a signal")
	assert.Empty(t, fed(solder(fleet.NodeAirUnit, 1, "tx4")), "no power pad")
	assert.Empty(t, fed(solder("gps", 1, "5v")), "another part")
	c = solder(fleet.NodeAirUnit, 1, "5v")
	assert.Equal(t, "board.5v", fed(c))
	assert.Empty(t, fed(solder(fleet.NodeAirUnit, 1, "")), "it comes off its pad")
	c.Fit.Feeds[0].Lead = &fleet.Lead{AWG: new(wire.Gauge(24))}
	assert.Equal(t, c.Fit.Feeds[0].Lead, solder(fleet.NodeAirUnit, 1, "10v").Fit.Feeds[0].Lead, "the same wire, on another pad")
	c.Fit.Feeds[0].From = fleet.NodePack
	assert.Equal(t, fleet.NodePack, fed(solder(fleet.NodeAirUnit, 1, "")), "its feed never was that pad")
	c = sample.Case(sample.Set(), nil, f)

	for _, wrong := range []struct {
		node string
		pin  int
		says string
	}{{"nix", 1, "no part"}, {"gps", 7, "no pin 7"}, {"gps", 0, "no pin 0"}} {
		_, err := netlist.Solder(c, wrong.node, wrong.pin, "5v")
		require.ErrorContains(t, err, wrong.says)
	}
	f.Wires, f.Harness, f.HarnessTo = nil, "straight", "hd"
	_, err := netlist.Solder(sample.Case(sample.Set(), nil, f), fleet.NodeAirUnit, 3, "tx4")
	require.ErrorIs(t, err, netlist.ErrCabled)
}

// A unit that hangs on the pack has no supply wire on the board: what is soldered comes off,
// a crimp of a cable is pulled at the board, and what was moved there is forgotten.
func TestTheSupplyWireComesOffTheBoard(t *testing.T) {
	f := fleet.Fit{AirUnit: &fleet.Slot{Model: "second"}, Board: "board", Wiring: fleet.Wiring{
		Wires: []fleet.Wire{{Pin: 1, To: "10v"}, {Pin: 2, To: "ground"}},
	}}
	off := netlist.OffItsPad(sample.Case(sample.Set(), nil, f))
	require.NotNil(t, off)
	assert.Equal(t, []fleet.Wire{{Pin: 2, To: "ground"}}, off.Wires)
	assert.Len(t, f.Wires, 2, "the fit itself is as it was")
	f.Wiring = *off
	assert.Nil(t, netlist.OffItsPad(sample.Case(sample.Set(), nil, f)), "nothing is there to take off")

	for _, moved := range [][]fleet.CrimpMove{nil, {
		{End: fleet.BoardEnd, From: 1, To: 2}, {End: fleet.BoardEnd, From: 2, To: 1},
	}} {
		f.Wiring = fleet.Wiring{Harness: "straight", HarnessTo: "hd", Moved: moved}
		c := sample.Case(sample.Set(), nil, f)
		off = netlist.OffItsPad(c)
		require.NotNil(t, off)
		run, _ := netlist.AirUnit(c.With(fleet.Patch{Wiring: off}))
		assert.Nil(t, run.LiveOf(gear.PinSupply), "%+v", off.Moved)
		assert.NotNil(t, run.LiveOf(gear.PinUARTTX))
	}
}

// Fed from another pad, a soldered supply wire goes there as it is; one that goes through a
// plug stays where it is, and one that is there already is left alone.
func TestTheSupplyWireGoesAlongWithTheFeed(t *testing.T) {
	f := fleet.Fit{AirUnit: &fleet.Slot{Model: "second"}, Board: "board", Wiring: fleet.Wiring{
		Wires: []fleet.Wire{{Pin: 1, To: "10v", Colour: "red"}, {Pin: 2, To: "ground"}},
	}}
	c := sample.Case(sample.Set(), nil, f)
	moved := netlist.Resupplied(c, fleet.PadNode("5v"))
	require.NotNil(t, moved)
	assert.Equal(t, []fleet.Wire{{Pin: 1, To: "5v", Colour: "red"}, {Pin: 2, To: "ground"}}, moved.Wires)
	assert.Nil(t, netlist.Resupplied(c, fleet.PadNode("10v")))
	assert.Equal(t, []fleet.Wire{{Pin: 2, To: "ground"}}, netlist.Resupplied(c, fleet.NodePack).Wires)
	assert.Equal(t, "10v", f.Wires[0].To, "the fit itself is as it was")
	f.Wiring = fleet.Wiring{Harness: "straight", HarnessTo: "hd"}
	assert.Nil(t, netlist.Resupplied(sample.Case(sample.Set(), nil, f), fleet.PadNode("5v")))
}

// Two supplies at one pin are two where both are known to give: the plan's from the pack and
// a pad's; a jumper pad of which nobody says what it carries is none that is known.
func TestTwoSuppliesAreTwoThatAreKnown(t *testing.T) {
	set := sample.Set()
	board := &set.Boards[0]
	board.Pads = append(board.Pads, gear.Pad{ID: "cam", Kind: gear.PadJumper, Choices: []string{"pack", "10v"}})
	on := func(jumpers map[string]string) fleet.Case {
		f := fleet.Fit{Board: "board"}
		f.Jumpers = jumpers
		return sample.Case(set, nil, f)
	}
	assert.True(t, netlist.TwoSources(on(nil), board, fleet.NodePack, "10v"))
	assert.False(t, netlist.TwoSources(on(nil), board, fleet.PadNode("10v"), "10v"), "one and the same")
	assert.False(t, netlist.TwoSources(on(nil), board, fleet.NodePack, "cam"), "nobody says what it carries")
	assert.True(t, netlist.TwoSources(on(map[string]string{"cam": "10v"}), board, fleet.NodePack, "cam"))
	assert.False(t, netlist.TwoSources(on(nil), board, fleet.NodePack, gear.PinGround))
}
