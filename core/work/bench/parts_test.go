package bench_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/work/bench"
)

// stepOf finds a step by the beginning of its id.
func stepOf(t *testing.T, s bench.Sheet, id string) bench.Step {
	t.Helper()
	for _, step := range s.Steps {
		if strings.HasPrefix(step.ID, id) {
			return step
		}
	}
	require.Fail(t, "no step "+id, ids(s))
	return bench.Step{}
}

func has(s bench.Sheet, id string) bool {
	for _, step := range s.Steps {
		if strings.HasPrefix(step.ID, id) {
			return true
		}
	}
	return false
}

func part(model string, to ...string) fleet.PlacedPart {
	p := fleet.PlacedPart{ID: model, Model: model}
	for i, place := range to {
		if place != "" {
			p.Wires = append(p.Wires, fleet.Wire{Pin: i + 1, To: place})
		}
	}
	return p
}

// A part that comes is wired, metered and seen to work, in that order and each once; one
// that stays as it is has no step; one that goes comes off first.
func TestAWiredPartHasItsSteps(t *testing.T) {
	set := sample.Set()
	c := sample.Case(set, kit(), ready())
	c.Quad.Now = ready()
	c.Quad.Now.Parts = []fleet.PlacedPart{part("buzzer", "5v", "buzzer"), part("lights", "5v", "ground", "led")}
	c.Fit.Parts = []fleet.PlacedPart{part("buzzer", "5v", "buzzer"), part("gps", "5v", "ground", "tx4", "rx4")}
	s := sheetOf(c, "a", "b")
	at := func(id string) int {
		for i, step := range s.Steps {
			if strings.HasPrefix(step.ID, id) {
				return i
			}
		}
		return -1
	}
	order := []int{at("off"), at("part:gps"), at("meter:gps"), at("works:gps")}
	assert.IsIncreasing(t, order, ids(s))
	assert.Positive(t, order[0])
	assert.Contains(t, stepOf(t, s, "off").Do, "Off 5v: the wire of the lights (supply).")
	wire := stepOf(t, s, "part:gps")
	assert.Contains(t, strings.Join(wire.Do, " "), "UART RX to board TX 4 (crossed: RX goes to TX)")
	assert.Contains(t, wire.Materials, "gps", "it is not on the quad yet")
	assert.NotEmpty(t, wire.Cautions)
	meter := stepOf(t, s, "meter:gps")
	assert.Contains(t, meter.Do, "Pin 1, supply, to the 5v of the board: connected.")
	assert.Contains(t, strings.Join(meter.Do, " "), "supply, to pin 2, ground: open.")
	assert.Equal(t, "yes", meter.Reading.Expected)
	for _, stays := range []string{"part:buzzer", "meter:buzzer", "works:buzzer", "part:lights"} {
		assert.False(t, has(s, stays), stays)
	}
	meterID := meter.ID
	c.Fit.Parts[1].Wires[3].To = "rx1"
	assert.NotEqual(t, meterID, stepOf(t, sheetOf(c, "a", "b"), "meter:gps").ID, "wired otherwise, metered again")
	c.Quad.Now.Parts = c.Fit.Parts
	same := sheetOf(c, "a", "b")
	assert.False(t, has(same, "off"))
	assert.False(t, has(same, "part:"))
}

// Other flight firmware: the settings kept first, flashed with the target read off the
// board, and brought back; another board, or another firmware, has nothing to bring back.
func TestTheFlightBoardIsFlashedWhereThePlanHasIt(t *testing.T) {
	set := sample.Set()
	set.Boards[0].Guides = []gear.Guide{{Language: "en", Button: "under the arm", USB: "on the left", Update: "No receiver meanwhile"}}
	c := sample.Case(set, kit(), ready())
	c.Quad.Now = ready()
	assert.False(t, has(sheetOf(c, "a", "b"), "flash:"), "it is on it already")
	c.Quad.Now.Runs = &fleet.Runs{ID: c.Fit.Runs.ID, Version: "4.3"}
	s := sheetOf(c, "a", "b")
	flash := strings.Join(stepOf(t, s, "flash:").Do, " ")
	assert.Contains(t, flash, "take the file for that target")
	assert.Contains(t, flash, "hold its boot button (under the arm)")
	assert.Contains(t, flash, "Its USB: on the left.")
	assert.Contains(t, flash, "No receiver meanwhile.")
	assert.Equal(t, string(c.Fit.Runs.Version), stepOf(t, s, "flash:").Reading.Expected)
	assert.Contains(t, strings.Join(stepOf(t, s, "keep:").Do, " "), "If its own tool writes its settings as text")
	for i := range set.FlightFirmware {
		set.FlightFirmware[i].Text = &gear.SettingsText{Enter: "!", Prompt: ">", List: "all", Save: "keep", Leave: "go", Refused: "no"}
	}
	c.Library = gear.NewLibrary(set)
	assert.Contains(t, strings.Join(stepOf(t, sheetOf(c, "a", "b"), "keep:").Do, " "), "with its text")
	assert.True(t, has(s, "back:"))
	c.Quad.Now.Runs.ID = "flies-superset"
	s = sheetOf(c, "a", "b")
	assert.True(t, has(s, "keep:"), "the way back is kept all the same")
	assert.False(t, has(s, "back:"), "none of the old settings fit")
	c.Quad.Now.Runs = nil
	assert.False(t, has(sheetOf(c, "a", "b"), "flash:"), "nobody says that it is another")
	c.Quad.Now.Board = "other"
	s = sheetOf(c, "a", "b")
	assert.True(t, has(s, "flash:"), "a new board comes with anything")
	assert.False(t, has(s, "keep:"))
}

// A header is soldered before the cable goes in, which way round it lies is said by pad and
// pin, and each pin is metered through; one that stays has no step.
func TestAHeaderHasItsStep(t *testing.T) {
	set := sample.Set()
	plug := &gear.Plug{PitchMM: new(unit.Millimetres(1)), Pins: set.AirUnits[0].Plug.Pins}
	set.AirUnits[0].Plug = plug
	c := sample.Case(set, kit(), ready())
	c.Fit.Wires, c.Fit.Harness, c.Fit.HarnessTo = nil, "straight", "hd"
	c.Fit.Headers.Header = &fleet.Header{Model: "tack", Turned: true}
	s := sheetOf(c, "a", "b")
	step := stepOf(t, s, "header:")
	says := strings.Join(step.Do, " ")
	assert.Contains(t, says, "Lay it on: pad 1, supply, under pin 6 of the header.")
	assert.Contains(t, says, "pin 1 to pad 6, RC output: connected")
	assert.Contains(t, says, "Tack one pad alone")
	assert.NotNil(t, step.Reading)
	order := ids(s)
	before := func(a, b string) {
		at := func(id string) int {
			return slices.IndexFunc(order, func(o string) bool { return strings.HasPrefix(o, id) })
		}
		assert.Less(t, at(a), at(b))
		assert.NotEqual(t, -1, at(a), a)
	}
	before("header:", "cable:")
	before("header:", "pair:")

	c.Quad.Now = c.Fit.Clone()
	assert.False(t, has(sheetOf(c, "a", "b"), "header:"), "it is on already")
}
