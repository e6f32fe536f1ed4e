package gear_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

func TestARangeIsHeldByItsMiddle(t *testing.T) {
	u := gear.AirUnit{Device: gear.Device{Entry: gear.Entry{ID: "u", Ranges: []gear.Range{
		{Value: "input.peakW", Low: 8, High: 12},
		{Value: "benchSecondsNoAir", Low: 10, High: 21}}}}}
	lib := gear.NewLibrary(&gear.Set{AirUnits: []gear.AirUnit{u}})
	held, ok := gear.Find[*gear.AirUnit](lib, "u")
	require.True(t, ok)
	assert.Equal(t, unit.Watts(10), *held.Input.PeakW)
	assert.Equal(t, 15, *held.BenchSecondsNoAir, "a whole number")
	stated := lib.Items()[0].(*gear.AirUnit)
	assert.Nil(t, stated.Input.PeakW, "the entry itself states no one number")
	assert.Equal(t, "10.0 W", gear.TextAt(held, "input.peakW"))
	assert.Empty(t, gear.TextAt(held, "input.minV"))
	for path, words := range map[string]string{"input.peakW": "input peak", "fromMHz": "from", "sends.gainDBi": "sends gain",
		"batteryWh": "battery", "beamDeg": "beam", "radio.bandPlan": "radio band plan"} {
		assert.Equal(t, words, gear.PathWords(path))
	}
	assert.Equal(t, "bench seconds no air", gear.PathWords("benchSecondsNoAir"))
}

func TestWhatHangsOnAConditionIsSettledByIt(t *testing.T) {
	u := gear.AirUnit{
		Device: gear.Device{Entry: gear.Entry{ID: "u", Variants: []gear.Variant{
			{Value: "radio.maxMW", Region: "shire", Number: new(25.0)},
			{Value: "radio.bandPlan", Region: "shire", Text: "narrow"},
			{Value: "input.maxV", Revision: "B", Number: new(17.6)},
			{Value: "massG", Revision: "B", Region: "shire", Number: new(40.0)},
		}}},
		Input: gear.Input{MaxV: new(unit.Volts(26))}, Radio: &gear.Radio{MaxMW: new(unit.Milliwatts(1000)), BandPlan: "wide"},
	}
	lib := gear.NewLibrary(&gear.Set{AirUnits: []gear.AirUnit{u}})
	at := func(region, revision string) *gear.AirUnit {
		found, _ := gear.Find[*gear.AirUnit](lib.Under(region, func(string) string { return revision }), "u")
		return found
	}
	plain, shire, both := at("", "A"), at("shire", "A"), at("shire", "B")
	assert.Equal(t, []any{unit.Milliwatts(1000), "wide", unit.Volts(26)},
		[]any{*plain.Radio.MaxMW, plain.Radio.BandPlan, *plain.Input.MaxV})
	assert.Equal(t, []any{unit.Milliwatts(25), "narrow", unit.Volts(26)},
		[]any{*shire.Radio.MaxMW, shire.Radio.BandPlan, *shire.Input.MaxV})
	assert.Equal(t, []any{unit.Volts(17.6), unit.Grams(40)}, []any{*both.Input.MaxV, *both.MassG})
	assert.Nil(t, at("", "B").MassG, "both conditions must hold")
	again := lib.Under("shire", func(string) string { return "B" }).Under("", func(string) string { return "" })
	found, _ := gear.Find[*gear.AirUnit](again, "u")
	assert.Equal(t, unit.Volts(26), *found.Input.MaxV, "what was settled for another fit is let go")
	assert.Equal(t, []string{"B"}, u.Revisions())
	assert.Equal(t, []string{"shire"}, u.Regions())
}

func TestBandsByNameAndByTheirEnds(t *testing.T) {
	assert.Equal(t, "5725 to 5850 MHz", gear.Band("5725-5850").String())
	assert.Equal(t, "5.8 GHz", gear.Band("5.8").String())
	assert.True(t, gear.Band("5725-5850").Meets("5.8"))
	assert.False(t, gear.Band("5725-5850").Meets("2.4"))
	assert.False(t, gear.Band("5100-5200").Meets("5200-5300"), "they only touch")
	assert.Equal(t, "5.8 GHz and 2400 to 2483 MHz", gear.BandWords([]gear.Band{"5.8", "2400-2483"}))
	assert.Equal(t, "2.4 and 5.8 GHz", gear.BandWords([]gear.Band{"2.4", "5.8"}))
	r := gear.Region{Limits: []gear.PowerLimit{
		{Band: "5.8", MaxEIRPMW: new(unit.Milliwatts(25))},
		{Band: "5150-5350", MaxEIRPMW: new(unit.Milliwatts(200))},
		{Band: "5150-5250", MaxEIRPMW: new(unit.Milliwatts(100))}}}
	assert.Equal(t, unit.Milliwatts(25), *r.Limit("5725-5850").MaxEIRPMW)
	assert.Equal(t, unit.Milliwatts(100), *r.Limit("5160-5240").MaxEIRPMW, "the least of those it lies in")
	assert.Equal(t, unit.Milliwatts(200), *r.Limit("5200-5300").MaxEIRPMW)
	assert.Nil(t, r.Limit("5300-5400"), "part of it lies outside what is stated")
	r.Limits = append(r.Limits, gear.PowerLimit{Band: "5000-6000", MaxEIRPMW: new(unit.Milliwatts(10))})
	assert.Equal(t, unit.Milliwatts(10), *r.Limit("5.8").MaxEIRPMW, "a stricter one over all of it holds too")
	r.Limits[0].MaxEIRPMW = nil
	assert.Nil(t, r.Limit("5725-5850").MaxEIRPMW, "one that states no power leaves it open, whatever others say")
}

func TestASetOfAntennasMatesMaleIntoFemale(t *testing.T) {
	for name, c := range map[string]struct {
		antenna, port gear.Sex
		goes          bool
	}{
		"as usual":              {"", "", true},
		"stated as usual":       {gear.Male, gear.Female, true},
		"both turned":           {gear.Female, gear.Male, true},
		"two male":              {gear.Male, gear.Male, false},
		"two female":            {gear.Female, gear.Female, false},
		"a female on the usual": {gear.Female, "", false},
		"the usual on a male":   {"", gear.Male, false},
	} {
		a, p := gear.Antenna{Plug: "sma", PlugSex: c.antenna}, gear.AntennaPort{Plug: "sma", PlugSex: c.port}
		assert.Equal(t, c.goes, a.Onto(&p), name)
		joins := gear.Adapter{From: "sma", To: "sma", FromSex: c.antenna.Other(), ToSex: c.port.Other()}
		assert.True(t, joins.Joins(&a, &p), "an adapter made for %s", name)
	}
}

func TestWhatAContactCarriesOnItsWire(t *testing.T) {
	c := gear.Connector{ByGauge: []gear.GaugeAmps{{AWG: 26, MaxA: 2.2}, {AWG: 28, MaxA: 2}, {AWG: 32, MaxA: 1}}}
	carries := func(g wire.Gauge) unit.Amps { return *c.Carries(&g) }
	assert.Equal(t, unit.Amps(2), carries(28))
	assert.Equal(t, unit.Amps(1), carries(30), "the next thinner counts")
	assert.Equal(t, unit.Amps(2.2), carries(20))
	assert.Equal(t, unit.Amps(1), *c.Carries(nil), "not stated: the least")
	thin := wire.Gauge(34)
	assert.Nil(t, c.Carries(&thin), "thinner than any that is rated")
}

// A window in cells is one of lithium polymer (common practice).
func TestAWindowInCells(t *testing.T) {
	in := gear.Input{FromCells: new(2), ToCells: new(6)}
	lib := gear.NewLibrary(&gear.Set{
		AirUnits: []gear.AirUnit{{Device: gear.Device{Entry: gear.Entry{ID: "u"}}, Input: in}},
		Boards: []gear.Board{{Entry: gear.Entry{ID: "b"}, Pads: []gear.Pad{
			{ID: "9v", Kind: gear.PadRegulated, Converter: gear.Converter{Input: in}}}}},
	})
	u, _ := gear.Find[*gear.AirUnit](lib, "u")
	b, _ := gear.Find[*gear.Board](lib, "b")
	for _, held := range []gear.Input{u.Input, b.Pads[0].Input} {
		assert.InDelta(t, 7, float64(*held.MinV), 1e-9)
		assert.InDelta(t, 25.2, float64(*held.MaxV), 1e-9)
	}
	assert.False(t, lib.LeavesOpen(), "that leaves nothing open")
}

// Settled once more, a library is what the one it was settled from would be, and is remembered:
// not made anew for each fit.
func TestALibraryIsSettledOnce(t *testing.T) {
	maxV := unit.Volts(20)
	u := gear.AirUnit{Device: gear.Device{Entry: gear.Entry{ID: "one", Variants: []gear.Variant{
		{Value: "input.maxV", Region: "here", Number: new(float64(17))},
	}}}, Input: gear.Input{MaxV: &maxV}}
	lib := gear.NewLibrary(&gear.Set{AirUnits: []gear.AirUnit{u}})
	none := func(string) string { return "" }
	here := lib.Under("here", none)
	assert.Same(t, here, lib.Under("here", none))
	assert.Same(t, here, here.Under("here", none))
	assert.Same(t, lib, lib.Under("there", none))
	assert.Same(t, lib.Under("there", none), here.Under("there", none))
	found, _ := gear.Find[*gear.AirUnit](here, "one")
	assert.InDelta(t, 17, float64(*found.Input.MaxV), 1e-9)
	renamed := *found
	renamed.Name = "other"
	assert.NotSame(t, here, here.With(&renamed).Under("here", none), "another entry, another library")
}
