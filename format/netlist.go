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
	rows := [][]string{{"wire", "from", "to", "colour", "awg", "length_mm", "note", "printed", "beside"}}
	for _, w := range l.Wires {
		rows = append(rows, []string{w.Wire, w.From, w.To, w.Colour, gauge(w.AWG), length(w.LengthMM), w.Note,
			w.Printed, strings.Join(w.Beside, "; ")})
	}
	for _, j := range l.Jumpers {
		rows = append(rows, []string{"solder jumper", j, "", "", "", "", "", "", ""})
	}
	return table(rows)
}

// ShoppingList writes the parts to have before the bench day as CSV.
func ShoppingList(items []swap.Item) ([]byte, error) {
	rows := [][]string{{"part", "need", "have", "in_a_box", "buy", "for", "mass_g", "price", "currency", "lead_days",
		"stops_the_day", "note", "comes_with"}}
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
			strconv.Itoa(i.Boxed),
			strconv.Itoa(i.Buy),
			strings.Join(i.For, ", "),
			mass,
			price,
			currency,
			days,
			strconv.FormatBool(i.Stops && i.Buy > 0),
			i.Note,
			strings.Join(i.With, ", "),
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

// The measures of a drawing, in units of its view box.
const (
	drawnRow   = 34
	drawnTop   = 64
	drawnLeft  = 190
	drawnRight = 560
	drawnWidth = 750
)

// Drawing writes a picture as SVG: the unit's pins on the left, the board's on
// the right, each wire in its own colour with its name.
func Drawing(p pins.Picture) []byte {
	rows := max(len(p.Unit.Pins), len(p.Board.Pins))
	var d drawing
	d.add(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" font-family="sans-serif" font-size="14">`,
		drawnWidth, drawnTop+drawnRow*rows+20)
	d.add(`<rect width="100%%" height="100%%" fill="#fff"/>`)
	d.face(drawnLeft, "end", p.Unit)
	d.face(drawnRight, "start", p.Board)
	for i := range p.Wires {
		d.wire(&p.Wires[i])
	}
	d.add("</svg>\n")
	return d.Bytes()
}

// drawing is an SVG picture that is written.
type drawing struct{ bytes.Buffer }

func (d *drawing) add(text string, args ...any) { fmt.Fprintf(d, text, args...) }

// face draws one side: what it is called and its pins, one below the other.
func (d *drawing) face(x int, anchor string, f pins.Face) {
	d.add(`<text x="%d" y="22" text-anchor="%s" font-weight="bold">%s</text>`, x, anchor, html.EscapeString(f.Label))
	d.add(`<text x="%d" y="42" text-anchor="%s" fill="#555">%s</text>`, x, anchor, html.EscapeString(f.Kind))
	dx := 16
	if anchor == "end" {
		dx = -16
	}
	for i, s := range f.Pins {
		y, text := drawnTop+drawnRow*i, s.Words
		if s.N > 0 {
			text = fmt.Sprintf("%d %s", s.N, s.Words)
		}
		d.add(`<rect x="%d" y="%d" width="16" height="16" fill="#fff" stroke="#333"/>`, x-8, y-8)
		d.add(`<text x="%d" y="%d" text-anchor="%s">%s</text>`, x+dx, y+5, anchor, html.EscapeString(text))
	}
}

// wire draws a wire between two pins; one that ends on neither is not drawn.
func (d *drawing) wire(w *pins.Line) {
	if w.Pin < 0 || w.Spot < 0 {
		return
	}
	from, to := drawnTop+drawnRow*w.Pin, drawnTop+drawnRow*w.Spot
	path := fmt.Sprintf("M %d %d C %d %d %d %d %d %d",
		drawnLeft+8, from, drawnLeft+130, from, drawnRight-130, to, drawnRight-8, to)
	d.add(`<path d="%s" fill="none" stroke="#333" stroke-width="6"/>`, path)
	d.add(`<path d="%s" fill="none" stroke="%s" stroke-width="4"/>`, path, w.Paint)
	label := w.Colour
	if w.Says != "" {
		label += " – " + w.Says
	}
	d.add(`<text x="%d" y="%d" font-size="12" fill="#333">%s</text>`, drawnLeft+16, from-8, html.EscapeString(label))
}
