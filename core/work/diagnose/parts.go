package diagnose

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
)

// partPrefix stands before the id of a part in the symptom that it does not work.
const partPrefix = "part:"

// ofPart is the symptom that a wired part does not work, with what is behind it: power
// first, then its lines, then what it shares them with (common practice). Only what its
// pins can have is asked.
func ofPart(q fleet.Case, placed *fleet.PlacedPart) symptom {
	label := q.Library.Label(placed.Model)
	s := symptom{id: partPrefix + placed.ID, label: fmt.Sprintf("the %s does not work", label)}
	part, _ := gear.Find[*gear.Part](q.Library, placed.Model)
	add := func(c cause) {
		c.part = placed.ID
		s.causes = append(s.causes, c)
	}
	add(cause{
		id:       "part-power",
		label:    "it has no power, or the wrong one",
		test:     fmt.Sprintf("Meter the voltage at the supply pin of the %s, pack through a smoke stopper.", label),
		question: "Is it outside its window, or nothing at all?",
		fix:      "Feed it from where the power gate says.",
		caution:  "A short across a pack burns at once: smoke stopper first.",
		findings: []verdict.Code{power.CodeUnder, power.CodeOver, power.CodeDropout, power.CodeJumper, pins.CodeShort,
			pins.CodeDanger, pins.CodeNoGround, pins.CodeOtherFeed},
	})
	if serial(part) {
		for _, c := range lines {
			add(c)
		}
	}
	add(cause{
		id:       "part-loose",
		label:    "a wire is off, or on the wrong pad",
		test:     "Pack off. Pull gently at each of its wires, and meter pin by pin to the board.",
		question: "Is one open, or on another pad than the picture has it?",
		fix:      "Solder it where the picture of its wires has it, and meter again.",
		caution:  pack,
		findings: []verdict.Code{pins.CodeOpen, pins.CodeDead, pins.CodeNoPin, pins.CodeMotor},
	})
	add(cause{
		id:       "part-setup",
		label:    "the flight board does not know of it",
		test:     "Read the flight board: the function of its port, and its feature.",
		question: "Is either off?",
		fix:      "Switch it on, and save.",
		caution:  props,
	})
	return s
}

// serial says whether a part has a serial line.
func serial(p *gear.Part) bool {
	if p == nil || p.Plug == nil {
		return false
	}
	for _, function := range p.Plug.Pins {
		switch function {
		case gear.PinUARTRX, gear.PinUARTTX, gear.PinTelemetry, gear.PinControl:
			return true
		}
	}
	return false
}

// lines are what is behind a serial line that says nothing.
var lines = []cause{
	{
		id:       "part-crossed",
		label:    "its lines are not crossed, or on two ports",
		test:     "Follow its wires to the board's pads, with the meter on continuity.",
		question: "Does its TX end on a TX, or do its lines end on two ports?",
		fix:      "Cross them onto one port: its RX to the board's TX, its TX to the board's RX.",
		caution:  pack,
		findings: []verdict.Code{pins.CodeSwapped, pins.CodeTwoPorts, pins.CodeHalf},
	},
	{
		id:       "part-shared",
		label:    "another part talks on the same line",
		test:     "Look what else is soldered to that pad of the board.",
		question: "Is there another wire that sends?",
		fix:      "Give each its own port: the pins gate says which.",
		caution:  pack,
		findings: []verdict.Code{pins.CodeDrivers, pins.CodePort},
	},
	{
		id:       "part-inverted",
		label:    "its signal is inverted and the port's is not, or the other way round",
		test:     "Hold its sheet against the board's: inverted or not.",
		question: "Do the two differ?",
		fix:      "Another port, or the inverter's jumper set: the pins gate says which.",
		findings: []verdict.Code{pins.CodeInverted, pins.CodeJumper},
	},
}
