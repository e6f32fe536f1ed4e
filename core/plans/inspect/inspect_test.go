package inspect_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/inspect"
)

func remarks(set *gear.Set) map[string]verdict.Gate {
	found := map[string]verdict.Gate{}
	for _, r := range inspect.Pack(set, gear.NewLibrary(set)) {
		found[r.Entry+" "+r.Field] = r.Gate
	}
	return found
}

// What an entry lacks is told with the gate that asks for it; an entry that says all lacks
// nothing.
func TestWhatAnEntryLacks(t *testing.T) {
	set := sample.Set()
	whole := remarks(set)
	assert.NotContains(t, whole, "first input.maxV")
	set.AirUnits[0].Input.MaxV = nil
	set.Boards[0].UARTs = nil
	set.Packs[0].Chemistry = ""
	set.Antennas[0].Bands = nil
	set.Frames[0].Bays[0].Patterns = nil
	lacking := remarks(set)
	for entry, gate := range map[string]verdict.Gate{
		"first input.maxV": verdict.Power, "board uarts": verdict.Pins, set.Packs[0].ID + " chemistry": verdict.Power,
		set.Antennas[0].ID + " bands": verdict.Antenna,
	} {
		assert.Equal(t, gate, lacking[entry], entry)
		assert.NotContains(t, whole, entry)
	}
}

// A slipped decimal point is told, and no gate is named for it.
func TestWhatIsImplausible(t *testing.T) {
	set := sample.Set()
	set.AirUnits[0].MassG = new(unit.Grams(4600))
	set.Packs[0].MilliohmPerCell = new(unit.Milliohms(0.01))
	set.Packs[1].MilliohmPerCell = new(unit.Milliohms(0.35))
	defer func() {
		assert.NotContains(t, remarks(set), set.Packs[1].ID+" milliohmPerCell", "little, and possible")
	}()
	found := remarks(set)
	assert.Contains(t, found, "first massG")
	assert.Empty(t, found["first massG"])
	assert.Contains(t, found, set.Packs[0].ID+" milliohmPerCell")
	assert.NotContains(t, remarks(sample.Set()), "first massG")
}
