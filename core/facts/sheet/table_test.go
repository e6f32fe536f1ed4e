package sheet_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/sheet"
)

var drawer = []sheet.Named{
	{ID: "cowl-r", Label: "Cowl R"},
	{ID: "cowl-l", Label: "Cowl L"},
	{ID: "m2-5", Label: "M2×5"},
	{ID: "visor-b", Label: "Visor B"},
}

func row(t *testing.T, text string) sheet.TableRow {
	table, err := sheet.ReadTable(text, drawer)
	require.NoError(t, err)
	require.Len(t, table.Rows, 1)
	return table.Rows[0]
}

// The manners spreadsheets are saved and copied in.
func TestTablesInTheirManners(t *testing.T) {
	for name, text := range map[string]string{
		"commas":                 "part,count,price\nCowl R,4,€18.90\n",
		"semicolons":             "Teil;Anzahl;Preis (EUR)\nCowl R;4;18,90\n",
		"tabs":                   "Model\tQty\tUnit price\tCurrency\ncowl-r\t4 pcs\t18.90\tEUR\n",
		"bars":                   "| part | count | price |\n|---|---|---|\n| Cowl R | 4 | 18,90 € |\n",
		"a title":                "My drawer,,\npart,count,price\n\"Cowl, R\",x4,\"18,90 EUR\"\n",
		"a mark first":           "\ufeffpart,count,price\r\nCOWL R,4,18.90 eur\r\n",
		"columns we do not read": "where,part,count,colour,price\nbox 3,Cowl R,4,black,€ 18.90\n",
	} {
		r := row(t, text)
		assert.Equal(t, "cowl-r", r.Model, name)
		assert.Equal(t, 4, *r.Count, name)
		assert.InDelta(t, 18.9, *r.Price, 1e-9, name)
		assert.Equal(t, "EUR", r.Currency, name)
		assert.False(t, r.Ask, "%s: %s", name, r.Note)
	}
}

// Which columns are not read is told, and no column is taken for two things.
func TestColumnsThatAreNotRead(t *testing.T) {
	table, err := sheet.ReadTable("where,Part,colour,count,count (old),unit price (EUR)\nbox,Cowl R,black,4,9,18.90\n", drawer)
	require.NoError(t, err)
	assert.Equal(t, []string{"where", "colour", "count (old)"}, table.Unread)
	assert.Equal(t, 4, *table.Rows[0].Count)
	assert.InDelta(t, 18.9, *table.Rows[0].Price, 1e-9)
}

func TestAmounts(t *testing.T) {
	for cell, want := range map[string]float64{"1,250.00 EUR": 1250, "1.250,00 EUR": 1250, "EUR 1250": 1250, "1'250.50 CHF": 1250.5,
		"€ 0,99": 0.99, "1.250 EUR": 1250, "1,250 EUR": 1250, "12,5 €": 12.5, "7.-- EUR": 7} {
		r := row(t, "part\tprice\nCowl R\t"+cell+"\n")
		require.NotNil(t, r.Price, cell)
		assert.InDelta(t, want, *r.Price, 1e-9, cell)
	}
	for _, cell := range []string{"-5 EUR", "free", "5 to 9 EUR", "1.2345 EUR", "99999999 EUR"} {
		r := row(t, "part\tprice\nCowl R\t"+cell+"\n")
		assert.Nil(t, r.Price, cell)
		assert.True(t, r.Ask, cell)
	}
	assert.True(t, row(t, "part\tprice\nCowl R\t$5\n").Ask, "a dollar is of several countries")
	assert.True(t, row(t, "part\tcount\nCowl R\ta few\n").Ask)
}

// What a row leaves open is asked.
func TestWhatARowLeavesOpen(t *testing.T) {
	r := row(t, "part,count\nCowl,2\n")
	assert.Empty(t, r.Model)
	assert.True(t, r.Ask)
	assert.Equal(t, []string{"cowl-r", "cowl-l"}, []string{r.Among[0].ID, r.Among[1].ID})
	assert.Equal(t, "m2-5", row(t, "part,count\nM2x5,2\n").Model)
	assert.Empty(t, row(t, "part,count\nsomething else,2\n").Among)
	table, err := sheet.ReadTable("part,count\nCowl R,2\n,9\ncowl r,3\n", drawer)
	require.NoError(t, err)
	require.Len(t, table.Rows, 2)
	assert.False(t, table.Rows[0].Ask)
	assert.True(t, table.Rows[1].Ask, "named twice")
	assert.Equal(t, 4, table.Rows[1].Line)
	assert.Contains(t, table.Rows[1].Note, "line 2")
	kit := row(t, "model,firmware,revision\nVisor B,v4.1,B\n")
	assert.Equal(t, []string{"4.1", "B"}, []string{kit.Firmware, kit.Revision})
}

func TestWhatIsNoTable(t *testing.T) {
	for name, text := range map[string]string{"empty": "", "prose": "hello there", "no heading for names": "count,price\n1,2\n",
		"no text": "part,count\n\xff\xfe,1", "too long": strings.Repeat("x", sheet.MostText+1)} {
		_, err := sheet.ReadTable(text, drawer)
		assert.Error(t, err, name)
	}
}

func FuzzReadTable(f *testing.F) {
	f.Add("part,count,price\nCowl R,4,€18.90\n")
	f.Add("| part | count |\n|--|--|\n| a | 1 |")
	f.Add("part;price\n\"a;1")
	f.Fuzz(func(t *testing.T, text string) {
		table, err := sheet.ReadTable(text, drawer)
		if err != nil {
			return
		}
		for _, r := range table.Rows {
			assert.NotEmpty(t, r.Words)
			assert.True(t, r.Ask || r.Model != "", "what is not known is asked")
			if r.Price != nil {
				assert.True(t, r.Ask || r.Currency != "")
				assert.GreaterOrEqual(t, *r.Price, 0.0)
			}
		}
	})
}
