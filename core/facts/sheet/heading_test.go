package sheet_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/sheet"
)

// A page begins with the name of what it is about, or with something else.
func TestTheNameAtTheHead(t *testing.T) {
	for text, name := range map[string]string{
		"Fenland Sixpence\nInput: 7.4 - 26.4 V\nWeight 46 g":                               "Fenland Sixpence",
		"\n\n## Fenland Sixpence ##\n\n* Weight 46 g\n":                                    "Fenland Sixpence",
		"Model: Fenland 6 (rev B)\nWeight: 46 g":                                           "Fenland 6 (rev B)",
		"Produkt: Fenland\nGewicht 46 g":                                                   "Fenland",
		"Specifications\nWeight: 46 g":                                                     "",
		"Technische Daten\nGewicht: 46 g":                                                  "",
		"Weight: 46 g\nInput: 5 V":                                                         "",
		"Input 7.4-26.4 V. Weight 290 g":                                                   "",
		"Fenland Sixpence":                                                                 "",
		"Fenland 7.4-26.4 V\nWeight 46 g":                                                  "",
		"This is the smallest unit we have made.\nWeight: 46 g":                            "",
		"VCC | GND | RX | TX\nWeight: 46 g":                                                "",
		"12345\nWeight 46 g":                                                               "",
		"A line that goes on about what it is for as long as a sentence does\nWeight 46 g": "",
		"": "",
	} {
		reading, err := sheet.Read(gear.KindAirUnit, text, nil)
		require.NoError(t, err)
		assert.Equal(t, name, reading.Name, text)
	}
}
