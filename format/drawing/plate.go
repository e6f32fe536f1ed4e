package drawing

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Drawn is a plate as it is drawn, its middle across at y 0.
type Drawn struct {
	FromXMM  unit.Millimetres    `json:"fromXMM"` // its rear edge
	ToXMM    unit.Millimetres    `json:"toXMM"`
	YMM      unit.Millimetres    `json:"yMM"`
	Outline  []gear.Corner       `json:"outline"`
	Openings []gear.PlateOpening `json:"openings"`
	Says     []string            `json:"says"` // what was taken for granted or left out, in sentences
}

// Forward is the direction of a drawing that is forward on the quad.
type Forward string

// The directions.
const (
	ForwardRight Forward = "right"
	ForwardUp    Forward = "up"
	ForwardLeft  Forward = "left"
	ForwardDown  Forward = "down"
)

// As an outline is read: ends that are this near meet, holes less wide than that are those of screws, and a
// plate has no more corners than a file takes. Arcs become chords within the first sagitta that leaves no
// more (from memory).
const (
	meetMM      = 0.05
	leastMM     = 4.5
	mostCorners = 400
)

var sagittas = []float64{0.05, 0.1, 0.2, 0.4}

// Plate reads the outline of a plate and its openings from a DXF file in text: the loop that encloses most
// is the outline, those within are openings. rear is where its rear edge comes to lie; nil: its middle at 0.
func Plate(text []byte, forward Forward, rear *unit.Millimetres) (d Drawn, err error) {
	pairs, err := pairsOf(text)
	if err != nil {
		return d, err
	}
	entities, in := entitiesOf(pairs)
	mm, known := unitsMM[in]
	if !known {
		mm = 1
		d.Says = append(d.Says, "The drawing does not say its unit: millimetres are taken.")
	}
	for _, sagitta := range sagittas {
		lines, left, err := paths(entities, sagitta/mm)
		if err != nil {
			return d, err
		}
		closed, err := loops(lines, meetMM/mm, left)
		if err != nil {
			return d, err
		}
		out, says := plateOf(closed, mm, forward)
		if len(out[0]) > mostCorners {
			continue
		}
		if len(left) > 0 {
			says = append(says, "Left out, for it is no line, arc or circle: "+counted(left)+".")
		}
		d.Says = append(d.Says, says...)
		if d = d.lay(out, rear); len(d.Outline) < 3 || d.ToXMM <= d.FromXMM || d.YMM <= 0 {
			return Drawn{}, fmt.Errorf("what is closed in it encloses no area")
		}
		return d, nil
	}
	return d, fmt.Errorf("its outline has more than %d corners: draw it with fewer", mostCorners)
}

// loops joins lines at their ends into closed ones. It fails where an end is left, or nothing is closed.
func loops(lines []path, meet float64, left map[string]int) (closed [][][2]float64, err error) {
	var open []path
	for _, p := range lines {
		switch {
		case p.closed && len(p.points) > 2:
			closed = append(closed, p.points)
		case !p.closed && len(p.points) > 1:
			open = append(open, p)
		}
	}
	near := func(a, b [2]float64) bool { return math.Hypot(a[0]-b[0], a[1]-b[1]) <= meet }
	for len(open) > 0 {
		ring := open[0].points
		open = open[1:]
		for !near(ring[0], ring[len(ring)-1]) || len(ring) < 3 {
			end := ring[len(ring)-1]
			at := slices.IndexFunc(open, func(p path) bool {
				return near(p.points[0], end) || near(p.points[len(p.points)-1], end)
			})
			if at < 0 {
				return nil, fmt.Errorf("a line ends at %.2f, %.2f and none goes on there: close the outline%s", end[0], end[1],
					hint(left))
			}
			next := slices.Clone(open[at].points)
			if !near(next[0], end) {
				slices.Reverse(next)
			}
			ring, open = append(slices.Clone(ring), next[1:]...), slices.Delete(open, at, at+1)
		}
		closed = append(closed, ring[:len(ring)-1])
	}
	if len(closed) == 0 {
		return nil, fmt.Errorf("nothing closed is drawn in it%s", hint(left))
	}
	return closed, nil
}

// hint says what was not read of a drawing.
func hint(left map[string]int) string {
	if len(left) == 0 {
		return ""
	}
	return "; not read were " + counted(left) + ": save curves as lines and arcs"
}

func counted(left map[string]int) string {
	var list []string
	for _, kind := range slices.Sorted(maps.Keys(left)) {
		list = append(list, fmt.Sprintf("%d %s", left[kind], kind))
	}
	return strings.Join(list, ", ")
}

// plateOf are the outline of a plate, in millimetres as it lies on the quad, and its openings; says what was
// left out.
func plateOf(closed [][][2]float64, mm float64, forward Forward) (out [][][2]float64, says []string) {
	outer := 0
	for i := range closed {
		if area(closed[i]) > area(closed[outer]) {
			outer = i
		}
	}
	out = [][][2]float64{turned(closed[outer], mm, forward)}
	small, beside := 0, 0
	for i := range closed {
		switch {
		case i == outer:
		case !holds(closed[outer], closed[i]):
			beside++
		case wide(closed[i])*mm < leastMM:
			small++
		default:
			out = append(out, turned(closed[i], mm, forward))
		}
	}
	if small > 0 {
		says = append(says, fmt.Sprintf("Left out: %d holes under %.1f mm, as of screws.", small, leastMM))
	}
	if beside > 0 {
		says = append(says, fmt.Sprintf("Left out: %d closed lines beside the largest; draw one plate in a file.", beside))
	}
	return out, says
}

// area a loop encloses.
func area(loop [][2]float64) (twice float64) {
	for i, c := range loop {
		next := loop[(i+1)%len(loop)]
		twice += c[0]*next[1] - next[0]*c[1]
	}
	return math.Abs(twice) / 2
}

// holds says whether a loop lies within another: its first point does, by the number of sides of the other
// to the right of it.
func holds(outer, loop [][2]float64) (in bool) {
	at := loop[0]
	for i, c := range outer {
		next := outer[(i+1)%len(outer)]
		if (c[1] > at[1]) != (next[1] > at[1]) && at[0] < c[0]+(at[1]-c[1])/(next[1]-c[1])*(next[0]-c[0]) {
			in = !in
		}
	}
	return in
}

// wide is the lesser side of the rectangle around a loop.
func wide(loop [][2]float64) float64 {
	low, high := loop[0], loop[0]
	for _, c := range loop {
		for i := range 2 {
			low[i], high[i] = min(low[i], c[i]), max(high[i], c[i])
		}
	}
	return min(high[0]-low[0], high[1]-low[1])
}

// turned is a loop in millimetres, x forward and y to the left.
func turned(loop [][2]float64, mm float64, forward Forward) [][2]float64 {
	out := make([][2]float64, len(loop))
	for i, c := range loop {
		x, y := c[0]*mm, c[1]*mm
		switch forward {
		case ForwardUp:
			x, y = y, -x
		case ForwardLeft:
			x, y = -x, -y
		case ForwardDown:
			x, y = -y, x
		}
		out[i] = [2]float64{x, y}
	}
	return out
}

// lay puts a plate and its openings where they lie on the quad, to a hundredth of a millimetre.
func (d Drawn) lay(loops [][][2]float64, rear *unit.Millimetres) Drawn {
	low, high := loops[0][0], loops[0][0]
	for _, c := range loops[0] {
		for i := range 2 {
			low[i], high[i] = min(low[i], c[i]), max(high[i], c[i])
		}
	}
	x, y := -(low[0]+high[0])/2, -(low[1]+high[1])/2
	if rear != nil {
		x = float64(*rear) - low[0]
	}
	to := func(mm float64) unit.Millimetres { return unit.Millimetres(math.Round(mm*100) / 100) }
	d.FromXMM, d.ToXMM, d.YMM = to(low[0]+x), to(high[0]+x), to(high[1]-low[1])
	d.Openings = []gear.PlateOpening{}
	for k, loop := range loops {
		var corners []gear.Corner
		for _, c := range loop {
			if corner := (gear.Corner{XMM: to(c[0] + x), YMM: to(c[1] + y)}); len(corners) == 0 ||
				corner != corners[len(corners)-1] && corner != corners[0] {
				corners = append(corners, corner)
			}
		}
		if k == 0 {
			d.Outline = corners
		} else if len(corners) > 2 {
			d.Openings = append(d.Openings, gear.PlateOpening{Corners: corners})
		}
	}
	return d
}
