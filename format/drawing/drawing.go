// Package drawing writes the flat pieces of a part at 1:1: SVG and DXF, and a template to
// print on paper.
//
// Source: SVG 1.1 with its size in millimetres; DXF as release 12 has it (AC1009), whose
// entities every program for cutters reads. No kept library of the registries writes DXF.
package drawing

import (
	"fmt"
	"html"
	"math"
	"strconv"
	"strings"

	"yokeswap/core/measure/plane"
	"yokeswap/core/work/fabricate"
)

// Gaps of a drawing, in millimetres.
const (
	marginMM  = 5.0
	betweenMM = 8.0
	rulerMM   = 50.0
	centreMM  = 2.0 // a centre line goes so far over the edge of its hole
)

// placed is a sheet where it lies on the drawing, its lower left corner at x, 0.
type placed struct {
	*fabricate.Sheet
	dx, dy float64
}

// laid puts the sheets of a part side by side, and says how large the drawing is.
func laid(sheets []fabricate.Sheet) (list []placed, width, height float64) {
	x := marginMM
	for i := range sheets {
		minX, minY, maxX, maxY := sheets[i].Shape.Box()
		list = append(list, placed{&sheets[i], x - float64(minX), marginMM - float64(minY)})
		x += float64(maxX-minX) + betweenMM
		height = max(height, float64(maxY-minY))
	}
	return list, x - betweenMM + marginMM, height + 2*marginMM
}

func short(x float64) string { return strconv.FormatFloat(math.Round(x*1000)/1000, 'f', -1, 64) }

// wholePixels is a length in millimetres, made up to whole pixels of a browser, of which 96 are an inch (CSS
// Values and Units): it rounds the size of a picture to those, which would draw it out.
func wholePixels(mm float64) string {
	const perMM = 96 / 25.4
	return strconv.FormatFloat(math.Ceil(mm*perMM-1e-9)/perMM, 'f', 5, 64)
}

// SVG is a part's flat pieces at 1:1, holes with their centre lines; with a ruler of 50 mm
// where it is a template, to check the scale of the print.
func SVG(m *fabricate.Made, template bool) string {
	list, width, height := laid(m.Sheets)
	below := 0.0
	if template {
		width, below = max(width, rulerMM+2*marginMM), 14
	}
	var out strings.Builder
	wide, high := wholePixels(width), wholePixels(height+below)
	fmt.Fprintf(&out, `<svg xmlns="http://www.w3.org/2000/svg" width="%[1]smm" height="%[2]smm" `+
		`viewBox="0 0 %[1]s %[2]s">`, wide, high)
	fmt.Fprintf(&out, "\n<title>%s</title>\n", html.EscapeString(m.Title))
	for _, s := range list {
		// y points up in a drawing, down on a screen
		at := func(p plane.Point) string {
			return short(plane.MM(p.X)+s.dx) + " " + short(height-plane.MM(p.Y)-s.dy)
		}
		fmt.Fprintf(&out, `<g fill="none" stroke="black" stroke-width="0.1"><desc>%s, %s thick</desc>`,
			html.EscapeString(s.Name), s.ThickMM)
		for _, ring := range outlines(s.Sheet) {
			out.WriteString(`<path d="M`)
			for i, p := range ring {
				if i > 0 {
					out.WriteString(" L")
				}
				out.WriteString(at(p))
			}
			out.WriteString(`Z"/>`)
		}
		for _, d := range s.Drills {
			x, y, r := float64(d.XMM)+s.dx, height-float64(d.YMM)-s.dy, float64(d.DiameterMM)/2
			fmt.Fprintf(&out, `<circle cx="%s" cy="%s" r="%s"/>`, short(x), short(y), short(r))
			fmt.Fprintf(&out, `<path stroke-dasharray="1.5 0.4 0.4 0.4" d="M%s %sh%sM%s %sv%s"/>`, short(x-r-centreMM), short(y),
				short(2*(r+centreMM)), short(x), short(y-r-centreMM), short(2*(r+centreMM)))
		}
		out.WriteString("</g>\n")
	}
	if template {
		ruler(&out, height+4)
	}
	out.WriteString("</svg>\n")
	return out.String()
}

// ruler is 50 mm with a mark each millimetre, to lay one's own beside.
func ruler(out *strings.Builder, y float64) {
	fmt.Fprintf(out, `<g id="ruler" fill="none" stroke="black" stroke-width="0.15"><path d="M%s %sh%s`,
		short(marginMM), short(y), short(rulerMM))
	for i := 0; i <= rulerMM; i++ {
		long := 2.0
		if i%10 == 0 {
			long = 4
		}
		fmt.Fprintf(out, "M%s %sv%s", short(marginMM+float64(i)), short(y), short(long))
	}
	fmt.Fprintf(out, `"/></g><text x="%s" y="%s" font-size="3" font-family="sans-serif">`, short(marginMM), short(y+8))
	out.WriteString("50 mm: measure it before you drill</text>")
	out.WriteString("\n")
}

// outlines are the rings of a sheet that are no round holes of their own.
func outlines(s *fabricate.Sheet) (list []plane.Ring) {
	for _, a := range s.Shape.Areas() {
		list = append(list, a.Outer)
		for _, hole := range a.Holes {
			if !drilled(s.Drills, hole) {
				list = append(list, hole)
			}
		}
	}
	return list
}

// drilled says whether a ring is one of the round holes: all of it lies on its circle.
func drilled(drills []fabricate.Drill, ring plane.Ring) bool {
	for _, d := range drills {
		on := true
		for _, p := range ring {
			off := math.Hypot(plane.MM(p.X)-float64(d.XMM), plane.MM(p.Y)-float64(d.YMM)) - float64(d.DiameterMM)/2
			on = on && math.Abs(off) < 0.015 // its sides lie inside the circle by less
		}
		if on {
			return true
		}
	}
	return false
}

// DXF is a part's flat pieces at 1:1 in millimetres: lines that end where the next begins on
// the layer CUT, round holes on the layer DRILL. Plain lines are what every reader knows.
func DXF(m *fabricate.Made) string {
	list, _, _ := laid(m.Sheets)
	var out strings.Builder
	pair := func(code int, value string) { fmt.Fprintf(&out, "%3d\r\n%s\r\n", code, value) }
	pair(0, "SECTION")
	pair(2, "HEADER")
	pair(9, "$ACADVER")
	pair(1, "AC1009")
	pair(9, "$INSUNITS")
	pair(70, "4")
	pair(0, "ENDSEC")
	pair(0, "SECTION")
	pair(2, "ENTITIES")
	for _, s := range list {
		for _, ring := range outlines(s.Sheet) {
			for i, p := range ring {
				q := ring[(i+1)%len(ring)]
				pair(0, "LINE")
				pair(8, "CUT")
				pair(10, short(plane.MM(p.X)+s.dx))
				pair(20, short(plane.MM(p.Y)+s.dy))
				pair(11, short(plane.MM(q.X)+s.dx))
				pair(21, short(plane.MM(q.Y)+s.dy))
			}
		}
		for _, d := range s.Drills {
			pair(0, "CIRCLE")
			pair(8, "DRILL")
			pair(10, short(float64(d.XMM)+s.dx))
			pair(20, short(float64(d.YMM)+s.dy))
			pair(40, short(float64(d.DiameterMM)/2))
		}
	}
	pair(0, "ENDSEC")
	pair(0, "EOF")
	return out.String()
}
