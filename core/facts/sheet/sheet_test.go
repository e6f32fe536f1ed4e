package sheet_test

import (
	"encoding/json"
	"fmt"
	"math"
	"os/exec"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/sheet"
	"yokeswap/internal/outside"
)

var coax = map[string]string{"u.fl": "ufl", "mmcx": "mmcx", "sma": "sma", "sh 1.0 mm, 6 pins": "sh6"}

// said is what is read as "field=value", what is asked with a question mark behind.
func said(t *testing.T, kind gear.Kind, text string) (list []string) {
	t.Helper()
	r, err := sheet.Read(kind, text, coax)
	require.NoError(t, err)
	for _, f := range r.Found {
		value, err := json.Marshal(f.Value)
		require.NoError(t, err)
		line := f.Field + "=" + string(value)
		if f.Ask {
			line += "?"
		}
		list = append(list, line)
		assert.Contains(t, text, f.Words)
		at := []rune(text)[f.At:]
		assert.True(t, strings.HasPrefix(strings.TrimSpace(string(at)), f.Words), "%q stands at %d", f.Words, f.At)
	}
	return list
}

// Each manner of writing a value, in three languages; what the words leave open is asked.
func TestQuantitiesAndWhatTheyBelongTo(t *testing.T) {
	for text, want := range map[string][]string{
		"Input voltage: 7.4-26.4 V":                          {"input.minV=7.4", "input.maxV=26.4"},
		"Eingangsspannung 7,4 bis 26,4 V":                    {"input.minV=7.4", "input.maxV=26.4"},
		"Tension d'alimentation : 7,4 à 17,6 V":              {"input.minV=7.4", "input.maxV=17.6"},
		"Operating range\t7.4V – 26.4V":                      {"input.minV=7.4", "input.maxV=26.4"},
		"Supply | up to 26.4 V":                              {"input.maxV=26.4"},
		"Powered from 3.7V to 13.2V":                         {"input.minV=3.7", "input.maxV=13.2"},
		"7.4-26.4 V":                                         {"input.minV=7.4?", "input.maxV=26.4?"},
		"Supply voltage: 5 V":                                {"input.maxV=5?"},
		"Input between 7 and 26 V":                           {"input.minV=7", "input.maxV=26"},
		"It inverts in software, 5 and 10 V":                 {"input.maxV=10?"},
		"Input 7 - 26.8 V (absolute limit 36 V)":             {"input.minV=7", "input.maxV=26.8", "input.absoluteMaxV=36"},
		"Supply 5 V to 16 V, surge up to 20 V":               {"input.minV=5", "input.maxV=16", "input.absoluteMaxV=20?"},
		"in: 7 - 26 V":                                       {"input.minV=7", "input.maxV=26"},
		"Input: 2S to 6S":                                    {"input.maxV=25.2?", "input.minV=7?"},
		"Voltage: 26.4 - 7.4 V":                              {"=null?"},
		"Weight: 46 g ± 1":                                   {"massG=46"},
		"Gewicht (g): 46":                                    {"massG=46"},
		"46 g with camera":                                   {"massG=46?"},
		"Mounting holes: 25.5 x 25.5 mm, M2":                 {`mount.patterns=[{"screw":"M2","xMM":25.5,"yMM":25.5}]`},
		"Lochabstand 20x20 mm":                               {`mount.patterns=[{"xMM":20,"yMM":20}]`},
		"25.5 x 25.5 mm":                                     {`mount.patterns=[{"xMM":25.5,"yMM":25.5}]?`},
		"Size 30 x 30 x 15 mm":                               nil,
		"Transmission power: < 33 dBm":                       {"radio.maxMW=1995.3"},
		"Output power 25/200/600/1200 mW":                    {"radio.stepsMW=[25,200,600,1200]", "radio.maxMW=1200"},
		"Sendeleistung: max. 700 mW":                         {"radio.maxMW=700"},
		"< 33 dBm (EIRP)":                                    {"radio.maxMW=1995.3?"},
		"5.725 to 5.850 GHz":                                 {`radio.bands=["5.8"]`},
		"Frequency: 2400-2483 MHz and 5725-5850 MHz":         {`radio.bands=["2.4","5.8"]`},
		"Power consumption: 8 W, max. 12 W":                  {"input.typicalW=8", "input.peakW=12"},
		"Two antennas, U.FL":                                 {"radio.antennas=2", `radio.plug="ufl"`},
		"2 x antenna on MMCX":                                {"radio.antennas=2", `radio.plug="mmcx"`},
		"1: VCC 2: GND 3: RX 4: TX":                          {`plug.pins=["supply","ground","uart-rx","uart-tx"]?`},
		"Pinout: VCC, GND, TX, RX, SBUS, GND":                {`plug.pins=["supply","ground","uart-tx","uart-rx","rc-out","rc-ground"]?`},
		"Camera width 19 mm, coax cable of the camera 12 cm": {"camera.widthMM=19", "camera.cableMM=120"},
		"requires v1.2 or later":                             {"=null?"},
		"The unit is lovely and 🛸 flies well.":               nil,
		"الجهد 7.4-26.4 V":                                   {"input.minV=7.4?", "input.maxV=26.4?"},
		"BEC output: 5V/2A":                                  nil,
		"UART level 3.3 V":                                   nil,
		"Signal: 3.3 V, supply 5 to 9 V":                     {"input.minV=5", "input.maxV=9"},
	} {
		assert.Equal(t, want, said(t, gear.KindAirUnit, text), text)
	}
	for _, c := range []struct {
		kind gear.Kind
		text string
		want []string
	}{
		{gear.KindReceiver, "Pins: 1: GND 2: 5V 3: SBUS", []string{
			`plug.pins=["ground","supply","uart-tx"]?`, "fullDuplex=false?", "inverted=true?",
		}},
		{gear.KindReceiver, "Serial output, not inverted", []string{"inverted=false"}},
		{gear.KindReceiver, "SBUS, inverted", []string{"fullDuplex=false?", "inverted=true"}},
		{gear.KindReceiver, "Pinout: GND, 5V, RX, TX", []string{`plug.pins=["ground","supply","uart-rx","uart-tx"]?`}},
		{gear.KindAirUnit, "Connector SH 1.0 mm, 6 pin", []string{`plug.connector="sh6"`}},
		{gear.KindAirUnit, "Anschluss SH1,0 6-polig", []string{`plug.connector="sh6"`}},
		{gear.KindAirUnit, "Connector SH 1.0 mm", nil},
		{gear.KindRegulator, "Output 1: 5V, 2A", []string{"outV=5", "maxA=2"}},
		{gear.KindGoggles, "Weight 290 g, battery 18 Wh", []string{"massG=290", "batteryWh=18"}},
		{gear.KindBoard, "Mounting holes 20 x 20 mm, M3", []string{`patterns=[{"screw":"M3","xMM":20,"yMM":20}]`}},
		{gear.KindFrame, "Holes: 20 x 20 mm M2, 30.5 x 30.5 mm M3. Camera width 19 mm", []string{
			`bays=[{"id":"at-20x20","name":"place with 20 × 20","patterns":[{"screw":"M2","xMM":20,"yMM":20}]}]`,
			`bays=[{"id":"at-30-5x30-5","name":"place with 30.5 × 30.5",` +
				`"patterns":[{"screw":"M3","xMM":30.5,"yMM":30.5}]}]`,
			"cageMM=19",
		}},
		{gear.KindFrame, "Holes 20x20 and 25.5x25.5 mm, weight 120 g", []string{
			`bays=[{"id":"at-20x20","name":"place with 20 × 20","patterns":[{"xMM":20,"yMM":20}]}]`,
			`bays=[{"id":"at-25-5x25-5","name":"place with 25.5 × 25.5","patterns":[{"xMM":25.5,"yMM":25.5}]}]`,
			"massG=120",
		}},
	} {
		assert.Equal(t, c.want, said(t, c.kind, c.text), c.text)
	}
	for _, c := range []struct {
		kind gear.Kind
		text string
		want []string
	}{
		{gear.KindAirUnit, "Power consumption: 8 watts", []string{"input.typicalW=8"}},
		{gear.KindAirUnit, "Peak power 12 W", []string{"input.peakW=12"}},
		{gear.KindRegulator, "Input 7-30 V, output 9 V / 2 A, efficiency 92 %", []string{"input.minV=7", "input.maxV=30", "outV=9", "maxA=2", "efficiency=0.92"}},
		{gear.KindBoard, "Input: 3S-6S\nBEC: 9V 2A", []string{"input.maxV=25.2?", "input.minV=10.5?", `pads=[{"id":"9v","kind":"regulated","maxA":2,"name":"9 V pad","outV":9}]?`}},
		{gear.KindPack, "4S 1,300 mAh LiPo, 155 g", []string{"cells=4", `chemistry="lipo"`, "capacityMAH=1300", "massG=155"}},
		{gear.KindCapacitor, "470uF 35V low ESR, surge 44 V, 2,4 g", []string{"uf=470", "ratedV=35", "massG=2.4"}},
		{gear.KindCapacitor, "Elko 1000 µF, Spannung 50 V", []string{"uf=1000", "ratedV=50"}},
		{gear.KindCapacitor, "105 °C, 220 to 470 µF", nil},
		{gear.KindRegulator, "Output: 9 V", []string{"outV=9"}},
		{gear.KindRegulator, "Output: 9 V, ripple 30 to 50 mA", []string{"outV=9"}},
		{gear.KindGoggles, "Vier Antennen, eine Brille", []string{"receive.antennas=4"}},
		{gear.KindGoggles, "quatre antennes", []string{"receive.antennas=4"}},
		{gear.KindAirUnit, "Mounting holes 0 x 20 mm", nil},
		{gear.KindAirUnit, "Output power 25/200 mW, weight 20 g", []string{"radio.stepsMW=[25,200]", "radio.maxMW=200", "massG=20"}},
		{gear.KindAirUnit, "OSD canvas: 53 x 20", []string{`osd.grid="53x20"`}},
		{gear.KindAirUnit, "OSD on 1280 x 720", nil},
		{gear.KindAirUnit, "60 x 22 characters", []string{`osd.grid="60x22"`}},
		{gear.KindAirUnit, "A new one must be activated once", []string{"activation.needed=true"}},
		{gear.KindGoggles, "Keine Aktivierung nötig", []string{"activation.needed=false"}},
		{gear.KindController, "activation is not required", []string{"activation.needed=false"}},
		{gear.KindAirUnit, "After activation the light is green", nil},
		{gear.KindBoard, "no activation", nil},
		{gear.KindScrew, "M2x6, stainless", []string{`size="M2"`, "lengthMM=6"}},
		{gear.KindAntenna, "RHCP, 1.6 dBi, MMCX, 4 g", []string{`polarisation="rhcp"`, `bands=[{"band":"5.8","gainDBi":1.6}]?`, `plug="mmcx"`, "massG=4"}},
		{gear.KindAntenna, "5.8 GHz, gain 2 dBi, lead 65 mm, barrel 9.5 mm",
			[]string{`bands=[{"band":"5.8","gainDBi":2}]`, "leadMM=65", "barrelMM=9.5"}},
		{gear.KindAntenna, "2.4 GHz and 5.8 GHz, 2 dBi", []string{`bands=[{"band":"2.4"}]`, `bands=[{"band":"5.8"}]`,
			`bands=[{"band":"5.8","gainDBi":2}]?`}},
		{gear.KindAntenna, "for 5725-5850 MHz", []string{`bands=[{"band":"5.8"}]`}},
		{gear.KindRegulator, "Max. output current: 2 A", []string{"maxA=2"}},
		{gear.KindRegulator, "Quiescent current 5 mA", []string{"maxA=0.005?"}},
		{gear.KindFrame, "Holes 20 x 20 mm and stack 30.5 x 30.5 mm", []string{
			`bays=[{"id":"at-20x20","name":"place with 20 × 20","patterns":[{"xMM":20,"yMM":20}]}]`,
			`stackPatterns=[{"xMM":30.5,"yMM":30.5}]`,
		}},
		{gear.KindConnector, "pitch 1.25 mm", []string{"pitchMM=1.25"}},
		{gear.KindReceiver, "Working voltage 4.5-5.5V, latency 6 ms, weight 1.9g", []string{"input.minV=4.5", "input.maxV=5.5", "latencyMS=6", "massG=1.9"}},
	} {
		assert.ElementsMatch(t, c.want, said(t, c.kind, c.text), c.text)
	}
}

// What is stated twice and differently is asked, both times; the same twice is said once.
func TestContradictions(t *testing.T) {
	assert.Equal(t, []string{"massG=46?", "massG=48?"}, said(t, gear.KindAirUnit, "Weight 46 g\nWeight: 48 g"))
	assert.Equal(t, []string{"massG=46"}, said(t, gear.KindAirUnit, "Weight 46 g\nMass: 46 g"))
	r, err := sheet.Read(gear.KindAirUnit, "1: VCC 2: GND 2: TX 3: RX", nil)
	require.NoError(t, err)
	assert.Contains(t, r.Found[0].Note, "pin 2 is named twice")
}

// A pin whose name is not understood is not passed off as an empty one.
func TestAPinThatIsNotUnderstoodIsNamed(t *testing.T) {
	r, err := sheet.Read(gear.KindAirUnit, "1: VCC 2: GND 3: Zorp 4: TX 5: RX", nil)
	require.NoError(t, err)
	require.Len(t, r.Found, 1)
	assert.Contains(t, r.Found[0].Note, "what pin 3 is was not understood")
	r, err = sheet.Read(gear.KindAirUnit, "1: VCC 2: GND 3: TX 4: RX", nil)
	require.NoError(t, err)
	assert.NotContains(t, r.Found[0].Note, "not understood")
}

func TestWhatIsNoSheet(t *testing.T) {
	_, err := sheet.Read(gear.KindAirUnit, strings.Repeat("x", sheet.MostText), nil)
	require.NoError(t, err, "as much as is read")
	_, err = sheet.Read(gear.KindAirUnit, strings.Repeat("x", sheet.MostText+1), nil)
	assert.ErrorContains(t, err, "no more than")
	_, err = sheet.Read(gear.KindAirUnit, "\xff\xfe", nil)
	assert.ErrorContains(t, err, "no text")
}

// Conversions held against GNU Units on 200 expressions.
func TestConversionsAgreeWithGNUUnits(t *testing.T) {
	program := outside.Program(t, "units")
	var from []string
	var ours []float64
	for i := range 50 {
		x := float64(i)*0.7 + 0.3
		for _, c := range []struct{ text, expression, unit, field string }{
			{"Camera width %g cm", "%g cm", "mm", "camera.widthMM"},
			{"transmit power %g W", "%g W", "mW", "radio.maxMW"},
			{"weight %g grams", "%g g", "g", "massG"},
			{"transmit power < %g dBm", "10^(%g/10) mW", "mW", "radio.maxMW"},
		} {
			r, err := sheet.Read(gear.KindAirUnit, fmt.Sprintf(c.text, x), nil)
			require.NoError(t, err)
			require.Len(t, r.Found, 1, c.text, x)
			require.Equal(t, c.field, r.Found[0].Field)
			from = append(from, fmt.Sprintf(c.expression, x), c.unit)
			ours = append(ours, r.Found[0].Value.(float64))
		}
	}
	for i, value := range outsideUnits(t, program, from) {
		assert.InDelta(t, value, ours[i], math.Max(0.051, value*1e-9), from[2*i])
	}
}

func outsideUnits(t *testing.T, program string, pairs []string) (values []float64) {
	t.Helper()
	for i := 0; i < len(pairs); i += 2 {
		out, err := exec.Command(program, "-t", pairs[i], pairs[i+1]).Output()
		require.NoError(t, err, pairs[i])
		value, err := strconv.ParseFloat(strings.TrimSpace(string(out)), 64)
		require.NoError(t, err, string(out))
		values = append(values, value)
	}
	return values
}

func FuzzRead(f *testing.F) {
	f.Add("Input 7.4-26.4 V, 46 g ± 1\n1: VCC 2: GND", uint8(0))
	f.Add("25.5 x 25.5 mm, M2 – 5,8 GHz", uint8(1))
	kinds := []gear.Kind{gear.KindAirUnit, gear.KindGoggles, gear.KindBoard, gear.KindPack, gear.KindAntenna, gear.KindRegulator, gear.KindScrew}
	f.Fuzz(func(t *testing.T, text string, n uint8) {
		r, err := sheet.Read(kinds[int(n)%len(kinds)], text, coax)
		if err != nil {
			return
		}
		runes := []rune(text)
		for _, found := range r.Found {
			if found.At > len(runes) || !strings.Contains(text, found.Words) {
				t.Fatalf("%+v does not stand in %q", found, text)
			}
		}
	})
}

// A pasted page of 10 kB: the goal is 10 ms.
func BenchmarkRead(b *testing.B) {
	page := strings.Repeat("Input voltage: 7.4-26.4 V | Weight: 46 g ± 1 | < 33 dBm | 5.725 to 5.850 GHz | mounting 25.5 x 25.5 mm, M2\n", 95)
	b.SetBytes(int64(len(page)))
	for b.Loop() {
		if _, err := sheet.Read(gear.KindAirUnit, page, nil); err != nil {
			b.Fatal(err)
		}
	}
}

// The ends of a band count as in it, and a subject within another word is none.
func TestEdgesOfWordsAndBands(t *testing.T) {
	field := func(kind gear.Kind, text, path string) any {
		r, err := sheet.Read(kind, text, nil)
		require.NoError(t, err)
		for _, f := range r.Found {
			if f.Field == path {
				return f.Value
			}
		}
		return nil
	}
	for text, band := range map[string]any{"Frequency 5150-5850 MHz": []string{"5.8"}, "Frequency 5149-5850 MHz": nil,
		"Frequency 2390-2500 MHz": []string{"2.4"}} {
		assert.EqualValues(t, fmt.Sprint(band), fmt.Sprint(field(gear.KindAirUnit, text, "radio.bands")), text)
	}
	assert.NotNil(t, field(gear.KindReceiver, "Weight 12 g", "massG"))
	for _, text := range []string{"typical 8 W, peak 12.5 watt", "peak 12.5 W, typical 8 W", "Power: 8 W (typ.), 12.5 W (max.)"} {
		assert.EqualValues(t, 8, field(gear.KindAirUnit, text, "input.typicalW"), text)
		assert.EqualValues(t, 12.5, field(gear.KindAirUnit, text, "input.peakW"), text)
	}
}
