package pins

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
)

// What may meet at a re-pin (common practice): grounds meet grounds, an empty slot takes
// anything, and a supply or a signal that nobody asked for meets nothing.
func TestWhatMayMeetAtARepin(t *testing.T) {
	unit := []string{gear.PinSupply, gear.PinGround, gear.PinUARTRX, gear.PinRCGround, gear.PinRCOut, ""}
	board := []string{"10v", gear.PinGround, "tx1", ""}
	l := &loom{run: &netlist.Run{Plug: &gear.Plug{Pins: unit}, Into: &gear.Plug{Pins: board}}}
	harmless := map[[2]string]bool{
		{gear.PinGround, gear.PinGround}:   true,
		{gear.PinRCGround, gear.PinGround}: true,
	}
	for pin, function := range unit {
		for slot, terminal := range board {
			want := function != "" && terminal != "" && !harmless[[2]string{function, terminal}]
			assert.Equal(t, want, l.harmful(pin+1, slot+1), "%q on %q", function, terminal)
		}
	}
}
