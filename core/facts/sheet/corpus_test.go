package sheet_test

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/sheet"
)

// invented is a sheet with what is to be found in it.
type invented struct {
	name string
	kind gear.Kind
	text string
	want map[string]string
}

// Invented sheets in different manners: tables, prose, lists, decimal commas, three
// languages. What a reader of flesh finds in each stands behind it.
var corpus = []invented{
	{"a table with tabs", gear.KindAirUnit, "Parameter\tValue\nInput voltage\t7.4-26.4 V\nWeight\t46 g ± 1 g\nTransmission power\t< 30 dBm\n" +
		"Frequency\t5.725 to 5.850 GHz\nMounting holes\t25.5 x 25.5 mm, M2\nAntennas: 2\nAntenna connector\tU.FL\n",
		map[string]string{"input.minV": "7.4", "input.maxV": "26.4", "massG": "46", "radio.maxMW": "1000", "radio.bands": `["5.8"]`,
			"mount.patterns": `[{"screw":"M2","xMM":25.5,"yMM":25.5}]`, "radio.antennas": "2", "radio.plug": `"ufl"`}},
	{"prose", gear.KindAirUnit, "This small unit weighs 29 g and is powered with 3.7 to 13.2 V. It transmits with up to 700 mW on 5.8 GHz. " +
		"It has one antenna on MMCX, and its mounting holes are 20 × 20 mm.",
		map[string]string{"massG": "29", "input.minV": "3.7", "input.maxV": "13.2", "radio.maxMW": "700", "radio.bands": `["5.8"]`,
			"radio.antennas": "1", "radio.plug": `"mmcx"`, "mount.patterns": `[{"xMM":20,"yMM":20}]`}},
	{"German, decimal commas", gear.KindAirUnit, "Eingangsspannung: 7,4 V bis 17,6 V\nGewicht: 38,5 g\nSendeleistung: max. 1200 mW\n" +
		"Lochabstand: 25,5 x 25,5 mm, M2\nZwei Antennen\nLeistungsaufnahme: 8,5 W",
		map[string]string{"input.minV": "7.4", "input.maxV": "17.6", "massG": "38.5", "radio.maxMW": "1200",
			"mount.patterns": `[{"screw":"M2","xMM":25.5,"yMM":25.5}]`, "radio.antennas": "2", "input.typicalW": "8.5"}},
	{"French", gear.KindAirUnit, "Tension d'alimentation : 7,4 à 26,4 V\nPoids : 45 g\nPuissance d'émission : 25/200/500 mW\nDeux antennes\nFixation 20 x 20 mm",
		map[string]string{"input.minV": "7.4", "input.maxV": "26.4", "massG": "45", "radio.stepsMW": "[25,200,500]", "radio.maxMW": "500",
			"radio.antennas": "2", "mount.patterns": `[{"xMM":20,"yMM":20}]`}},
	{"a table with bars", gear.KindReceiver, "| Working voltage | 4.5 - 5.5 V |\n| Weight | 1.9 g |\n| Latency | 6 ms |",
		map[string]string{"input.minV": "4.5", "input.maxV": "5.5", "massG": "1.9", "latencyMS": "6"}},
	{"units in brackets", gear.KindAirUnit, "Supply [V]: 7-26\nMass (g): 44\nTransmit power (mW): 800",
		map[string]string{"input.minV": "7", "input.maxV": "26", "massG": "44", "radio.maxMW": "800"}},
	{"a shop's list", gear.KindRegulator, "- Input: 6V-36V\n- Output: 12V 3A\n- Efficiency up to 94%\n- Weight: 5.2g",
		map[string]string{"input.minV": "6", "input.maxV": "36", "outV": "12", "maxA": "3", "efficiency": "0.94", "massG": "5.2"}},
	{"a pack's label", gear.KindPack, "6S1P 1,100mAh Li-HV 120C\n188 g",
		map[string]string{"cells": "6", "parallel": "1", "capacityMAH": "1100", "chemistry": `"lihv"`, "massG": "188"}},
	{"goggles", gear.KindGoggles, "Input: 7-13.4 V. Four antennas, SMA. 5.725-5.850 GHz and 2.400-2.4835 GHz.",
		map[string]string{"input.minV": "7", "input.maxV": "13.4", "receive.antennas": "4", "receive.plug": `"sma"`, "receive.bands": `["5.8","2.4"]`}},
	{"a board", gear.KindBoard, "Input Voltage: 10.5 V - 25.2 V DC\nWeight 9.8g\nBEC output 5V 2.5A", map[string]string{
		"input.minV": "10.5", "input.maxV": "25.2", "massG": "9.8"}},
	{"an antenna", gear.KindAntenna, "Left-hand circular (LHCP). Weight 3.8 g. Connector: MMCX.", map[string]string{
		"polarisation": `"lhcp"`, "massG": "3.8", "plug": `"mmcx"`}},
	{"one cell a line", gear.KindAirUnit, "Operating voltage: 3.7V ~ 26V\nPeak power: 14W\nCamera width: 19mm\nCamera cable: 150 mm\nWeight: 31.5g",
		map[string]string{"input.minV": "3.7", "input.maxV": "26", "input.peakW": "14", "camera.widthMM": "19", "camera.cableMM": "150", "massG": "31.5"}},
}

// At least 95 of 100 values are found, and no wrong one is taken unasked.
func TestTheCorpusOfInventedSheets(t *testing.T) {
	wanted, got := 0, 0
	for _, c := range slices.Concat(corpus, blindCorpus) {
		r, err := sheet.Read(c.kind, c.text, coax)
		require.NoError(t, err)
		found := map[string][]string{}
		for _, f := range r.Found {
			value, err := json.Marshal(f.Value)
			require.NoError(t, err)
			found[f.Field] = append(found[f.Field], string(value))
			if want, is := c.want[f.Field]; !f.Ask && f.Field != "" {
				assert.True(t, is, "%s: %s=%s from %q is taken unasked", c.name, f.Field, value, f.Words)
				assert.Equal(t, want, string(value), "%s: %s", c.name, f.Field)
			}
		}
		for field, want := range c.want {
			wanted++
			if strings.Contains(strings.Join(found[field], " "), want) {
				got++
			} else {
				t.Logf("%s: %s=%s is not found, but %v", c.name, field, want, found[field])
			}
		}
	}
	t.Logf("%d of %d values are found", got, wanted)
	assert.GreaterOrEqual(t, float64(got), 0.95*float64(wanted))
}
