package power_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/power"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// worstOf is the worst level of a code.
func worstOf(findings []verdict.Finding, code verdict.Code) verdict.Level {
	worst := verdict.Fits
	for _, f := range findings {
		if f.Code == code && f.Level.WorseThan(worst) {
			worst = f.Level
		}
	}
	return worst
}

// The current of a wired part is held against its own wire and the contacts of its cable,
// as the air unit's is: 12 W at 5 V are 2.4 A, and a wire of 28 AWG carries 1.4.
func TestAPartsWireCarriesItsCurrent(t *testing.T) {
	for _, c := range []struct {
		name  string
		watts unit.Watts
		gauge wire.Gauge
		level verdict.Level
	}{
		{"little through a thin wire", 0.4, 28, verdict.Fits},
		{"much through a thin wire", 12, 28, verdict.Unfit},
		{"much through a thick one", 12, 20, verdict.Fits},
	} {
		set := sample.Set()
		set.Boards[0].Pads[2].MaxA = new(unit.Amps(5))
		set.Parts[3].Input.PeakW = &c.watts
		next := fit("second", "lipo-4", "board.10v")
		next.Parts = []fleet.PlacedPart{{ID: "lights", Model: "lights", Cable: fleet.Cable{Wires: []fleet.Wire{
			{Pin: 1, To: "5v", AWG: &c.gauge, MM: new(unit.Millimetres(100))}, {Pin: 2, To: "ground"}, {Pin: 3, To: "led"},
		}}}}
		findings := power.Check(sample.Case(set, nil, next))
		assert.Equal(t, c.level, worstOf(findings, power.CodeWire), c.name)
	}
}

func TestAPartsContactsCarryItsCurrent(t *testing.T) {
	for watts, level := range map[unit.Watts]verdict.Level{0.4: verdict.Fits, 25: verdict.Unfit} {
		set := sample.Set()
		set.Parts[3].Input.PeakW, set.Parts[3].Input.MaxV = &watts, new(unit.Volts(12))
		set.Parts[3].Plug = &gear.Plug{Connector: "sh-6", Pins: []string{gear.PinSupply, gear.PinGround, gear.PinLED}}
		set.Connectors[2].MaxA = new(unit.Amps(2))
		set.Harnesses[0].Wires[0].AWG, set.Harnesses[0].Wires[0].LengthMM = new(wire.Gauge(18)), new(unit.Millimetres(80))
		next := fit("second", "lipo-4", "pack")
		next.Parts = []fleet.PlacedPart{{ID: "lights", Model: "lights", Cable: fleet.Cable{
			Harness: "straight", HarnessTo: "hd",
		}}}
		findings := power.Check(sample.Case(set, nil, next))
		assert.Equal(t, level, worstOf(findings, power.CodeContact), watts)
	}
}
