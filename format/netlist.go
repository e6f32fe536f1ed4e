package format

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"html"
	"strconv"
	"strings"
	"unicode"

	"yokeswap/core/gates/pins"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
	"yokeswap/core/plans/swap"
)

// netlistColumns head the netlist; docs/format/wiring.md says what they hold.
var netlistColumns = []string{"from", "from_pin", "from_function", "to", "to_pin", "to_function", "colour", "awg",
	"length_mm", "level", "note", "part", "place"}

// Netlist writes the wires of pictures as CSV.
func Netlist(parts []pins.PartPicture) ([]byte, error) {
	rows := [][]string{netlistColumns}
	for i := range parts {
		p := &parts[i].Picture
		for _, w := range p.Wires {
			row := []string{
				p.Unit.Label,
				number(w.Pin + 1),
				w.Function,
				p.Board.Label,
				"",
				w.Terminal,
				w.Colour,
				gauge(w.AWG),
				length(w.LengthMM),
				string(w.Level),
				w.Says,
				parts[i].Node,
				w.Place,
			}
			if w.Spot >= 0 && w.Spot < len(p.Board.Pins) {
				row[4] = number(p.Board.Pins[w.Spot].N)
			}
			rows = append(rows, row)
		}
	}
	return table(rows)
}

// SolderingList writes what has to be soldered as CSV.
func SolderingList(l pins.List) ([]byte, error) {
	rows := [][]string{{"wire", "from", "to", "colour", "awg", "length_mm", "note"}}
	for _, w := range l.Wires {
		rows = append(rows, []string{w.Wire, w.From, w.To, w.Colour, gauge(w.AWG), length(w.LengthMM), w.Note})
	}
	for _, j := range l.Jumpers {
		rows = append(rows, []string{"solder jumper", j, "", "", "", "", ""})
	}
	return table(rows)
}

// ShoppingList writes the parts to have before the bench day as CSV.
func ShoppingList(items []swap.Item) ([]byte, error) {
	rows := [][]string{{"part", "need", "have", "buy", "for", "mass_g", "price", "currency", "lead_days",
		"stops_the_day", "note"}}
	for _, i := range items {
		mass, price, currency, days := "", "", "", ""
		if i.MassG != nil {
			mass = strconv.FormatFloat(float64(*i.MassG), 'f', -1, 64)
		}
		if o := i.Offer; o != nil {
			currency = o.Currency
			if o.Price != nil {
				price = strconv.FormatFloat(*o.Price, 'f', 2, 64)
			}
			if o.Days != nil {
				days = strconv.Itoa(*o.Days)
			}
		}
		rows = append(rows, []string{
			i.Label,
			strconv.Itoa(i.Need),
			strconv.Itoa(i.Have),
			strconv.Itoa(i.Buy),
			strings.Join(i.For, ", "),
			mass,
			price,
			currency,
			days,
			strconv.FormatBool(i.Stops && i.Buy > 0),
			i.Note,
		})
	}
	return table(rows)
}

// blank is what a spreadsheet passes over at the beginning of a cell.
func blank(r rune) bool { return unicode.IsSpace(r) || unicode.IsControl(r) }

func table(rows [][]string) ([]byte, error) {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	for _, row := range rows {
		for i, cell := range row { // a cell a spreadsheet would take for a formula is made text
			if first := strings.TrimLeftFunc(cell, blank); first != "" && strings.ContainsRune("=+-@", rune(first[0])) {
				row[i] = "'" + cell
			}
		}
		if err := w.Write(row); err != nil {
			return nil, fmt.Errorf("writing CSV: %w", err)
		}
	}
	w.Flush()
	return out.Bytes(), w.Error()
}

func number(n int) string {
	if n <= 0 {
		return ""
	}
	return strconv.Itoa(n)
}

func gauge(g *wire.Gauge) string {
	if g == nil {
		return ""
	}
	return strconv.Itoa(int(*g))
}

func length(mm *unit.Millimetres) string {
	if mm == nil {
		return ""
	}
	return strconv.FormatFloat(float64(*mm), 'f', -1, 64)
}

// Drawing writes a picture as SVG: the unit's pins on the left, the board's on
// the right, each wire in its own colour with its name.
func Drawing(p pins.Picture) []byte {
	const row, top, left, right, width = 34, 64, 190, 560, 750
	rows := max(len(p.Unit.Pins), len(p.Board.Pins))
	var out bytes.Buffer
	fmt.Fprintf(
		&out,
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" font-family="sans-serif" font-size="14">`,
		width,
		top+row*rows+20,
	)
	fmt.Fprintf(&out, `<rect width="100%%" height="100%%" fill="#fff"/>`)
	heading := func(x int, anchor string, f pins.Face) {
		fmt.Fprintf(
			&out,
			`<text x="%d" y="22" text-anchor="%s" font-weight="bold">%s</text>`+
				`<text x="%d" y="42" text-anchor="%s" fill="#555">%s</text>`,
			x,
			anchor,
			html.EscapeString(f.Label),
			x,
			anchor,
			html.EscapeString(f.Kind),
		)
	}
	heading(left, "end", p.Unit)
	heading(right, "start", p.Board)
	spot := func(x, i int, anchor string, s pins.Spot) {
		y := top + row*i
		fmt.Fprintf(&out, `<rect x="%d" y="%d" width="16" height="16" fill="#fff" stroke="#333"/>`, x-8, y-8)
		text, dx := s.Words, 16
		if anchor == "end" {
			dx = -16
		}
		if s.N > 0 {
			text = fmt.Sprintf("%d %s", s.N, s.Words)
		}
		fmt.Fprintf(&out, `<text x="%d" y="%d" text-anchor="%s">%s</text>`, x+dx, y+5, anchor, html.EscapeString(text))
	}
	for i, s := range p.Unit.Pins {
		spot(left, i, "end", s)
	}
	for i, s := range p.Board.Pins {
		spot(right, i, "start", s)
	}
	for _, w := range p.Wires {
		if w.Pin < 0 || w.Spot < 0 {
			continue
		}
		y1, y2 := top+row*w.Pin, top+row*w.Spot
		path := fmt.Sprintf("M %d %d C %d %d %d %d %d %d", left+8, y1, left+130, y1, right-130, y2, right-8, y2)
		fmt.Fprintf(
			&out,
			`<path d="%s" fill="none" stroke="#333" stroke-width="6"/><path d="%s" fill="none" stroke="%s" stroke-width="4"/>`,
			path,
			path,
			w.Paint,
		)
		label := w.Colour
		if w.Says != "" {
			label += " – " + w.Says
		}
		fmt.Fprintf(&out, `<text x="%d" y="%d" font-size="12" fill="#333">%s</text>`, left+16, y1-8, html.EscapeString(label))
	}
	out.WriteString("</svg>\n")
	return out.Bytes()
}
