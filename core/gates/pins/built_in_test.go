package pins_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
	"yokeswap/core/internal/sample"
)

// onBoard is the sample's gear with its receiver built into the board, on a port or on
// none (0).
func onBoard(port int) *gear.Set {
	set := sample.Set()
	set.Boards[0].BuiltIn = "receiver"
	if u, ok := set.Boards[0].UART(port); ok {
		u.BuiltIn = true
	}
	return set
}

// flown is a build wired for picture and data, its sticks through the sample's receiver.
func flown(to ...string) fleet.Fit {
	f := soldered(to...)
	f.Controller, f.Receiver, f.Depth = nil, "receiver", fleet.PictureAndData
	return f
}

// A receiver on the board takes its port and nothing else: no wires, no feed, no pad.
// What is put on its port beside it stays silent (common practice).
func TestAReceiverOnTheBoard(t *testing.T) {
	for _, c := range []struct {
		name  string
		port  int
		fit   fleet.Fit
		code  verdict.Code
		level verdict.Level
	}{
		{"on a port of its own", 2, flown("10v", "ground", "tx1", "rx1"), pins.CodeFits, verdict.Fits},
		{"on a bus of the processor", 0, flown("10v", "ground", "tx1", "rx1"), pins.CodeFits, verdict.Fits},
		{"MSP on its port", 1, flown("10v", "ground", "tx1", "rx1"), pins.CodePort, verdict.Unfit},
		{"the RC output on its port, though it is not flown", 3, soldered("10v", "ground", "tx1", "rx1", "ground", "rx3"),
			pins.CodeDrivers, verdict.Unfit},
	} {
		t.Run(c.name, func(t *testing.T) {
			findings := pins.Check(caseOf(onBoard(c.port), c.fit))
			assert.Contains(t, codes(findings), c.code, "%+v", findings)
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
		})
	}
	noted := flown("10v", "ground", "tx1", "rx1")
	noted.ReceiverCable = &fleet.Cable{Wires: []fleet.Wire{{Pin: 1, To: "5v"}}}
	findings := pins.Check(caseOf(onBoard(2), noted))
	assert.Equal(t, verdict.Caution, verdict.Worst(findings), "%+v", findings)
	gps := flown("10v", "ground", "tx1", "rx1")
	gps.Parts = []fleet.PlacedPart{placed("gps", "5v", "ground", "tx4", "rx4", "sda", "scl")}
	assert.Equal(t, verdict.Unfit, verdict.Worst(pins.Check(caseOf(onBoard(4), gps))), "a GPS on its port")
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(onBoard(0), gps))))
}

func TestTheReceiverOnTheBoardIsFedAndPlannedByIt(t *testing.T) {
	c := caseOf(onBoard(2), flown("10v", "ground", "tx1", "rx1"))
	for _, node := range power.Trace(c).Nodes {
		assert.NotEqual(t, fleet.NodeReceiver, node.ID, "it hangs on the board's own supply")
	}
	port, known := pins.SticksPort(c)
	assert.True(t, known)
	assert.Equal(t, 2, port)
	plan, ok := pins.Ports(c)
	require.True(t, ok)
	assert.Empty(t, plan.Lost)
	for _, a := range plan.Ports {
		assert.Equal(t, a.Use == fleet.UseReceiver, a.UART == 2, "%+v", a)
	}
	assert.Contains(t, pins.Uses(c), fleet.Port{UART: 2, Use: fleet.UseReceiver})

	bus := caseOf(onBoard(0), flown("10v", "ground", "tx1", "rx1"))
	port, known = pins.SticksPort(bus)
	assert.True(t, known, "the sticks need no port")
	assert.Zero(t, port)
	assert.NotContains(t, control.Draw(bus).Way[1].Label, "UART")
}

// Picked on the swap screen it takes its wires and its feed off; another board takes it
// along.
func TestPickingAndLosingTheReceiverOnTheBoard(t *testing.T) {
	f := flown("10v", "ground", "tx1", "rx1")
	f.Feeds = append(f.Feeds, fleet.Feed{To: fleet.NodeReceiver, From: "board.5v"})
	f.ReceiverCable = &fleet.Cable{Wires: []fleet.Wire{{Pin: 1, To: "5v"}}}
	set := onBoard(2)
	other := set.Boards[0]
	other.ID, other.BuiltIn = "other", ""
	set.Boards = append(set.Boards, other)
	c := caseOf(set, f)
	picked := c.With(c.Receive("receiver"))
	assert.Nil(t, picked.Fit.ReceiverCable)
	_, fed := picked.Fit.FeedOf(fleet.NodeReceiver)
	assert.False(t, fed)
	assert.Empty(t, c.With(pins.Onto(c, "other")).Fit.Receiver, "it stays on the board it is on")
	assert.NotEmpty(t, c.Receivers())
	onOther := c.With(fleet.Patch{Board: new("other")})
	for _, r := range onOther.Receivers() {
		assert.NotEqual(t, "receiver", r.ID, "it can be had on its board alone")
	}
}
