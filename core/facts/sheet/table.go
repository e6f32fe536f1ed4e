package sheet

import (
	"cmp"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// A table of kit, parts and prices, as a builder keeps it in a spreadsheet: copied out of
// it, or saved as CSV. Its columns are known by their headings; each row is held against the
// names of the gear there is. What a row leaves open is asked and not taken.
//
// Source: RFC 4180 for commas, semicolons and tabs in their place (common practice).

// The columns that are read.
const (
	ColumnName     = "name"
	ColumnCount    = "count"
	ColumnPrice    = "price"
	ColumnCurrency = "currency"
	ColumnDays     = "days"
	ColumnFirmware = "firmware"
	ColumnRevision = "revision"
)

// headings are the words a column is known by, in English, German and French.
var headings = map[string]string{
	ColumnName:     "name model part item article artikel teil bezeichnung modell pièce désignation modèle",
	ColumnCount:    "count qty quantity pieces pcs have anzahl menge stück quantité nombre",
	ColumnPrice:    "price cost each preis einzelpreis prix",
	ColumnCurrency: "currency währung devise",
	ColumnDays:     "days delivery lieferzeit tage délai jours",
	ColumnFirmware: "firmware release version",
	ColumnRevision: "revision hardware rev hw",
}

// filler are words of a heading that say no more: "unit price", "delivery days".
var filler = []string{"unit", "delivery"}

// Named is a piece of gear by its name.
type Named struct {
	ID    string `json:"id"`
	Label string `json:"label"`
}

// TableRow is what a row of a table says.
type TableRow struct {
	Line  int     `json:"line"`  // in the text, from 1
	Words string  `json:"words"` // the cell with its name
	Model string  `json:"model" doc:"id of the gear it names; empty: none is known by that name"`
	Among []Named `json:"among" doc:"gear it may name, the likeliest first"`
	Row
	Ask  bool   `json:"ask" doc:"the row leaves it open: never taken unasked"`
	Note string `json:"note,omitempty" doc:"why"`
}

// Row is what is taken of one.
type Row struct {
	Count    *int     `json:"count,omitempty" minimum:"0" maximum:"10000"`
	Price    *float64 `json:"price,omitempty" minimum:"0"`
	Currency string   `json:"currency,omitempty"`
	Days     *int     `json:"days,omitempty" minimum:"0"`
	Firmware string   `json:"firmware,omitempty"`
	Revision string   `json:"revision,omitempty"`
}

// Table is what a table says.
type Table struct {
	Rows []TableRow `json:"rows"`
	// Unread are the headings of columns that are not known, as they stand.
	Unread []string `json:"unread"`

	columns []string // what each column is taken for, in order; empty: not read
}

// mostRows is how many rows of a table are read.
const mostRows = 2000

// ReadTable reads a table; gear is what there is. It fails where the text is none, or no row
// names its columns.
func ReadTable(text string, gear []Named) (Table, error) {
	switch {
	case len(text) > MostText:
		return Table{}, fmt.Errorf("the table has %d bytes, no more than %d are read: paste it in parts", len(text),
			MostText)
	case !utf8.ValidString(text):
		return Table{}, errors.New("this is no text: save the sheet as CSV (UTF-8), or copy its cells")
	}
	cells, lines, err := cellsOf(text)
	if err != nil {
		return Table{}, err
	}
	at := slices.IndexFunc(cells, func(row []string) bool { return slices.Contains(columnsOf(row), ColumnName) })
	if at < 0 {
		return Table{}, errors.New("no row names its columns: the first needs a heading for the name, such as “part” " +
			"or “model”, and for what is to be read, such as “count”, “price”, “currency”, “days”, " +
			"“firmware”")
	}
	t := Table{columns: columnsOf(cells[at]), Rows: []TableRow{}, Unread: []string{}}
	for i, heading := range cells[at] {
		if t.columns[i] == "" && strings.TrimSpace(heading) != "" {
			t.Unread = append(t.Unread, strings.TrimSpace(heading))
		}
	}
	known := newNames(gear)
	currency := currencyIn(strings.Join(cells[at], " "))
	for i, row := range cells[at+1:] {
		if len(t.Rows) == mostRows {
			return t, fmt.Errorf("more than %d rows: paste it in parts", mostRows)
		}
		if r, ok := t.row(row, known, currency); ok {
			r.Line = lines[at+1+i]
			t.Rows = append(t.Rows, r)
		}
	}
	t.twice()
	return t, nil
}

// cellsOf are the cells of each row, and the lines the rows begin on.
func cellsOf(text string) (cells [][]string, lines []int, err error) {
	text = strings.TrimPrefix(text, "\ufeff")
	r := csv.NewReader(strings.NewReader(text))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = Separator(text), -1, true, true
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			return cells, lines, nil
		}
		if err != nil {
			return nil, nil, fmt.Errorf("the table cannot be read: %w", err)
		}
		line, _ := r.FieldPos(0)
		if r.Comma == '|' && len(row) > 1 { // as tables are written in plain text
			row = slices.DeleteFunc(row, func(cell string) bool { return strings.Trim(cell, " -:") == "" })
		}
		cells, lines = append(cells, row), append(lines, line)
	}
}

// Separator is what stands most often between the cells of a table, by the first line that has
// any of them: a tab, a semicolon, a bar or a comma.
func Separator(text string) rune {
	for line := range strings.Lines(text) {
		best, most := ',', 0
		for _, s := range []rune{'\t', ';', '|', ','} {
			if n := strings.Count(line, string(s)); n > most {
				best, most = s, n
			}
		}
		if most > 0 {
			return best
		}
	}
	return ','
}

// columnsOf says what the columns of a heading are; the first of two alike counts.
func columnsOf(row []string) []string {
	columns := make([]string, len(row))
	for i, cell := range row {
		words := strings.Fields(strings.ToLower(bracket.ReplaceAllString(cell, "")))
		if len(words) > 1 {
			words = slices.DeleteFunc(words, func(w string) bool { return slices.Contains(filler, w) })
		}
		for column, known := range headings {
			if len(words) == 1 && slices.Contains(strings.Fields(known), words[0]) && !slices.Contains(columns[:i], column) {
				columns[i] = column
			}
		}
	}
	return columns
}

var bracket = regexp.MustCompile(`[\(\[][^\)\]]*[\)\]]`)

// row reads one row; false where it names nothing.
func (t *Table) row(cells []string, known names, currency string) (r TableRow, ok bool) {
	r.Among, r.Currency = []Named{}, currency
	for i, column := range t.columns {
		if i < len(cells) && strings.TrimSpace(cells[i]) != "" {
			r.cell(column, strings.TrimSpace(cells[i]))
		}
	}
	if r.Words == "" {
		return r, false
	}
	if r.Price == nil {
		r.Currency = ""
	} else if r.Currency == "" {
		r.doubt("in which currency the price is, nothing says")
	}
	switch r.Model, r.Among = known.find(r.Words); {
	case r.Model != "":
	case len(r.Among) == 0:
		r.doubt("no gear is called that")
	default:
		r.doubt("no gear is called just that: say which it is")
	}
	return r, true
}

// doubt leaves a row to be asked about.
func (r *TableRow) doubt(format string, args ...any) {
	r.Ask = true
	r.Note = strings.TrimPrefix(r.Note+"; "+fmt.Sprintf(format, args...), "; ")
}

// cell reads one cell of a row.
func (r *TableRow) cell(column, cell string) {
	switch column {
	case ColumnName:
		r.Words = cell
	case ColumnCount:
		if r.Count = wholeIn(cell); r.Count == nil {
			r.doubt("“%s” is no count", cell)
		}
	case ColumnDays:
		if r.Days = wholeIn(cell); r.Days == nil {
			r.doubt("“%s” is no number of days", cell)
		}
	case ColumnPrice:
		r.Currency = cmp.Or(currencyIn(cell), r.Currency)
		if r.Price = priceIn(cell); r.Price == nil {
			r.doubt("“%s” is no price", cell)
		}
	case ColumnCurrency:
		if r.Currency = currencyIn(cell); r.Currency == "" {
			r.doubt("“%s” is no currency: three letters, such as EUR", cell)
		}
	case ColumnFirmware:
		r.Firmware = strings.TrimPrefix(strings.ToLower(cell), "v")
	case ColumnRevision:
		r.Revision = cell
	}
}

// twice asks about rows that name the same thing.
func (t *Table) twice() {
	seen := map[string]int{}
	for i := range t.Rows {
		r := &t.Rows[i]
		if first, was := seen[r.Model]; r.Model != "" && was {
			r.doubt("line %d names it too", t.Rows[first].Line)
		} else if r.Model != "" {
			seen[r.Model] = i
		}
	}
}

var digits = regexp.MustCompile(`^[x×]?\s*(\d{1,5})\s*(?:x|×|pcs?\.?|pieces?|stück|stk\.?|days?|tage?|jours?|d)?$`)

// wholeIn is the whole number of a cell: "4", "4 pcs", "x4"; nil where it is none.
func wholeIn(cell string) *int {
	m := digits.FindStringSubmatch(strings.ToLower(cell))
	if m == nil {
		return nil
	}
	n, err := strconv.Atoi(m[1])
	if err != nil {
		return nil
	}
	return &n
}

// signs of one currency alone; a dollar and a crown are of several.
var currencySigns = map[string]string{"€": "EUR", "£": "GBP", "zł": "PLN"}

// currencies that are known by their letters (ISO 4217); others are asked for.
var currencies = strings.Fields("EUR GBP PLN CHF USD CZK SEK NOK DKK AUD CAD NZD JPY CNY INR BRL ZAR")

var currencySign = regexp.MustCompile(`€|£|zł|\b[A-Za-z]{3}\b`)

// currencyIn is the currency that a cell names; empty where it names none, or one of several.
func currencyIn(cell string) string {
	for _, sign := range currencySign.FindAllString(cell, -1) {
		if c := cmp.Or(currencySigns[sign], strings.ToUpper(sign)); slices.Contains(currencies, c) {
			return c
		}
	}
	return ""
}

var amount = regexp.MustCompile(`\d[\d.,' \x{00a0}]*`)

// priceIn is the amount of a cell, with a decimal point or comma and marks between
// thousands; nil where it holds none, or more than one.
func priceIn(cell string) *float64 {
	found := amount.FindAllString(cell, -1)
	if len(found) != 1 || strings.Contains(cell, "-"+found[0]) {
		return nil
	}
	text := strings.NewReplacer("'", "", " ", "", "\u00a0", "").Replace(found[0])
	text = strings.TrimRight(text, ".,")
	last := strings.LastIndexAny(text, ".,")
	if last >= 0 && len(text)-last-1 == 3 && strings.Count(text, text[last:last+1]) >= 1 &&
		!strings.ContainsAny(text[:last], otherMark(text[last])) {
		last = -1 // a mark between thousands
	}
	whole := text
	part := ""
	if last >= 0 {
		whole, part = text[:last], text[last+1:]
	}
	whole = strings.NewReplacer(".", "", ",", "").Replace(whole)
	value, err := strconv.ParseFloat(whole+"."+cmp.Or(part, "0"), 64)
	if err != nil || value > 1e6 || len(part) > 2 {
		return nil
	}
	return &value
}

func otherMark(mark byte) string {
	if mark == '.' {
		return ","
	}
	return "."
}

// names find gear by what it is called.
type names struct {
	all   []Named
	plain []string // their labels and ids, as they are compared
	ids   []string
}

func newNames(gear []Named) names {
	n := names{all: gear}
	for _, g := range gear {
		n.plain = append(n.plain, plainName(g.Label))
		n.ids = append(n.ids, plainName(g.ID))
	}
	return n
}

// plainName is a name without marks, spaces and capitals.
func plainName(name string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) {
			return unicode.ToLower(r)
		}
		if r == '×' {
			return 'x'
		}
		return -1
	}, name)
}

// mostAmong is how many pieces of gear a name may mean that are told.
const mostAmong = 5

// find is the gear of a name; where no one alone is called that, what it may mean: names that
// hold it or lie in it, or share most of their pairs of letters.
func (n *names) find(words string) (model string, among []Named) {
	name := plainName(words)
	type match struct {
		at    int
		share float64
	}
	var exact []int
	var near []match
	for i := range n.all {
		if n.plain[i] == name || n.ids[i] == name {
			exact = append(exact, i)
			continue
		}
		share := max(alike(name, n.plain[i]), alike(name, n.ids[i]))
		within := strings.Contains(n.plain[i], name) || len(n.plain[i]) > 3 && strings.Contains(name, n.plain[i])
		if name != "" && within {
			share = max(share, 0.9)
		}
		if share >= leastAlike {
			near = append(near, match{i, share})
		}
	}
	if len(exact) == 1 {
		return n.all[exact[0]].ID, []Named{n.all[exact[0]]}
	}
	slices.SortStableFunc(near, func(a, b match) int { return cmp.Compare(b.share, a.share) })
	among = []Named{}
	for _, i := range exact {
		among = append(among, n.all[i])
	}
	for _, m := range near {
		among = append(among, n.all[m.at])
	}
	return "", among[:min(len(among), mostAmong)]
}

// leastAlike is how much of two names must agree for one to be told as the other.
const leastAlike = 0.5

// alike is the share of pairs of letters that two names have in common (the coefficient of
// Sørensen and Dice).
func alike(a, b string) float64 {
	x, y := pairsOf(a), pairsOf(b)
	if len(x) == 0 || len(y) == 0 {
		return 0
	}
	both := 0
	left := slices.Clone(y)
	for _, p := range x {
		if i := slices.Index(left, p); i >= 0 {
			both++
			left = slices.Delete(left, i, i+1)
		}
	}
	return 2 * float64(both) / float64(len(x)+len(y))
}

func pairsOf(name string) (pairs []string) {
	runes := []rune(name)
	for i := 1; i < len(runes); i++ {
		pairs = append(pairs, string(runes[i-1:i+1]))
	}
	return pairs
}
