package trade_test

import (
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
	"yokeswap/format"
	"yokeswap/trade"
)

// The shelf is canonical, and every entry says what it rests on.
func TestTheShelfIsCanonicalAndSourced(t *testing.T) {
	text, err := os.ReadFile("trade.gear.json")
	require.NoError(t, err)
	written, err := format.Write(trade.Shelf())
	require.NoError(t, err)
	assert.Equal(t, string(written), string(text))
	for _, list := range trade.Shelf().Lists() {
		for _, item := range list.Items {
			source := item.Head().Source
			assert.Contains(t, []gear.SourceKind{gear.Published, gear.Practice}, source.Kind, item.Head().ID)
			assert.NotEmpty(t, source.Text, item.Head().ID)
		}
	}
}

// Held against the published tables: ISO 4762 preferred lengths (of the sizes the program
// knows, up to 30 mm) and ISO 7089 nominal thicknesses, in mm.
func TestScrewsAndWashersAreThoseOfTheStandards(t *testing.T) {
	lengths := map[string][]int{
		"M1.6": {2, 3, 4, 5, 6, 8, 10, 12, 16},
		"M2":   {3, 4, 5, 6, 8, 10, 12, 16, 20},
		"M2.5": {4, 5, 6, 8, 10, 12, 16, 20, 25},
		"M3":   {5, 6, 8, 10, 12, 16, 20, 25, 30},
	}
	for _, s := range trade.Shelf().Screws {
		assert.Contains(t, lengths[s.Size], int(*s.LengthMM), s.ID)
		assert.Equal(t, fmt.Sprintf("%s×%d", s.Size, int(*s.LengthMM)), s.Name)
	}
	thick := map[string]float64{"M1.6": 0.3, "M2": 0.3, "M2.5": 0.5, "M3": 0.5}
	for _, w := range trade.Shelf().Washers {
		assert.InDelta(t, thick[w.Size], float64(*w.ThickMM), 1e-9, w.ID)
	}
}

// Held against IEC 60063: the preferred values of the series E6.
func TestCapacitorsAreOfTheSeriesE6(t *testing.T) {
	e6 := []float64{1, 1.5, 2.2, 3.3, 4.7, 6.8}
	for _, k := range trade.Shelf().Capacitors {
		step := float64(*k.UF)
		for step >= 10 {
			step /= 10
		}
		assert.Contains(t, e6, step, k.ID)
		assert.Contains(t, []unit.Volts{25, 35, 50}, *k.RatedV, k.ID)
	}
	assert.Len(t, trade.Shelf().Capacitors, 15)
}

// What could burn something stands on one's own sheet, and never on the shelf alone.
func TestTheShelfStatesNothingThatCouldBurn(t *testing.T) {
	for _, r := range trade.Shelf().Regulators {
		assert.Equal(t, gear.Input{}, r.Input, r.ID)
	}
	for _, b := range trade.Shelf().Boards {
		assert.Equal(t, gear.Input{}, b.Input, b.ID)
		assert.Empty(t, b.Plugs, "the order of pins is on its drawing: %s", b.ID)
	}
	for _, p := range trade.Shelf().Packs {
		assert.NotNil(t, p.Cells, p.ID)
		assert.NotEmpty(t, p.Chemistry, p.ID)
		assert.Nil(t, p.MilliohmPerCell, p.ID)
	}
	for _, r := range trade.Shelf().Regions {
		assert.Empty(t, r.Source.Date, "whoever takes it dates it: %s", r.ID)
	}
}
