package format_test

import (
	"encoding/csv"
	"encoding/xml"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/gates/pins"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
)

// A name a spreadsheet would take for a formula, or a picture for markup, stays a
// name.
func TestExportsHoldNames(t *testing.T) {
	pic := pins.Picture{Unit: pins.Face{Label: `=cmd|"x"`, Pins: []pins.Spot{{N: 1, Words: "supply", Used: true}}},
		Board: pins.Face{Label: "<script>", Kind: "solder pads", Pins: []pins.Spot{{Words: "10 V & more", Used: true}}},
		Wires: []pins.Line{
			{Pin: 0, Spot: 0, Colour: "red", Function: "supply", Terminal: "-10v"},
			{Pin: -1, Spot: -1},
			{Pin: 0, Spot: 9},
		}}
	text, err := format.Netlist([]pins.PartPicture{{Node: "airUnit", Picture: pic}})
	require.NoError(t, err)
	rows, err := csv.NewReader(strings.NewReader(string(text))).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, `'=cmd|"x"`, rows[1][0])
	assert.Equal(t, "'-10v", rows[1][5])
	svg := string(format.Drawing(pic))
	assert.NotContains(t, svg, "<script>")
	decoder := xml.NewDecoder(strings.NewReader(svg))
	var broken error
	for broken == nil {
		_, broken = decoder.Token()
	}
	assert.Equal(t, io.EOF, broken)
	text, err = format.ShoppingList([]swap.Item{{Label: "@part", Need: 2, Buy: 2, For: []string{"a", "b"}, Stops: true}})
	require.NoError(t, err)
	assert.Contains(t, string(text), "'@part,2,0,0,2,\"a, b\",,,,,true,")
	text, err = format.SolderingList(
		pins.List{Wires: []pins.Solder{{Wire: "ground", From: "a", To: "b"}}, Jumpers: []string{"cam: on 5v"}},
	)
	require.NoError(t, err)
	assert.Equal(t, 3, strings.Count(string(text), "\n"))
}

// A cell that a spreadsheet would take for a formula is made text, whatever stands before.
func TestNoCellIsAFormula(t *testing.T) {
	for _, label := range []string{"=1+1", "+1", "-1", "@x", "\r=1+1", "\n=1+1", " \t=1+1", "\u00a0=1+1"} {
		text, err := format.ShoppingList([]swap.Item{{Label: label}})
		require.NoError(t, err)
		rows, err := csv.NewReader(strings.NewReader(string(text))).ReadAll()
		require.NoError(t, err)
		assert.Equal(t, byte('\''), rows[1][0][0], "%q", label)
	}
}
