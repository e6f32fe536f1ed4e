package pins_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/pins"
	"yokeswap/core/internal/sample"
)

// What is on its place today is not soldered again, and what comes with another cable is,
// also where it ends on the same pads: what comes off and what goes on say the same.
func TestWhatStaysIsNotSolderedAgain(t *testing.T) {
	tails := func(id string, colours ...string) gear.Harness {
		h := gear.Harness{Entry: gear.Entry{ID: id}, From: "sh-6"}
		for i, colour := range colours {
			h.Wires = append(h.Wires, gear.HarnessWire{From: i + 1, Colour: colour})
		}
		return h
	}
	set := sample.Set()
	for i := range set.AirUnits {
		set.AirUnits[i].Plug.Connector = "sh-6"
	}
	set.Harnesses = append(set.Harnesses, tails("tails", "red", "black", "white", "grey"),
		tails("others", "red", "black", "white", "grey"), tails("plain", "", "", "", ""))
	wired := func(unit, harness string) fleet.Fit {
		return fleet.Fit{AirUnit: &fleet.Slot{Model: unit}, Board: "board", Wiring: fleet.Wiring{
			Harness: harness,
			Wires:   []fleet.Wire{{Pin: 1, To: "10v"}, {Pin: 2, To: "ground"}, {Pin: 3, To: "tx1"}, {Pin: 4, To: "rx1"}},
		}}
	}
	for _, c := range []struct {
		name      string
		now, next fleet.Fit
		solder    int
	}{
		{"nothing changes", wired("first", "tails"), wired("first", "tails"), 0},
		{"another unit on the same cable", wired("first", "tails"), wired("second", "tails"), 0},
		{"another cable on the same pads", wired("first", "tails"), wired("first", "others"), 4},
		{"another unit and cable", wired("first", "tails"), wired("second", "others"), 4},
		{"single wires instead of the cable", wired("first", "tails"), wired("first", ""), 4},
		{"a cable instead of single wires", wired("first", ""), wired("first", "tails"), 4},
		{"the same single wires", wired("first", ""), wired("first", ""), 0},
		{"another unit on single wires", wired("first", ""), wired("second", ""), 4},
		{"a cable whose colours nobody states", wired("first", "plain"), wired("second", "plain"), 4},
	} {
		t.Run(c.name, func(t *testing.T) {
			on := sample.Case(set, nil, c.next)
			on.Quad.Now, on.Quad.Next = c.now, &c.next
			assert.Len(t, pins.Soldering(on).Wires, c.solder)
			assert.Len(t, pins.TakeOff(on.Library, on.Fleet, on.Quad).Wires, c.solder, "what comes off")
		})
	}
}
