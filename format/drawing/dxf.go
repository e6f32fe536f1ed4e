package drawing

import (
	"bufio"
	"bytes"
	"fmt"
	"math"
	"strconv"
	"strings"
)

// A DXF file in text is pairs of lines, a code and a value; what is drawn stands in the section ENTITIES
// (the open part of the format, as its published reference describes it).

// path is a line of a drawing from one end to another, in millimetres; closed, its last point is not its
// first.
type path struct {
	points [][2]float64
	closed bool
}

// pair is a code with its value, at a line of the file.
type pair struct {
	code  int
	value string
	line  int
}

// pairsOf reads the pairs of a file.
func pairsOf(text []byte) (list []pair, err error) {
	if bytes.HasPrefix(text, []byte("AutoCAD Binary DXF")) {
		return nil, fmt.Errorf("it is a binary DXF file: save it as text (ASCII)")
	}
	lines := bufio.NewScanner(bytes.NewReader(text))
	lines.Buffer(nil, longestLine)
	for n := 1; lines.Scan(); n += 2 {
		code, err := strconv.Atoi(strings.TrimSpace(lines.Text()))
		if err != nil {
			return nil, fmt.Errorf("line %d: expected the code of a DXF pair, a whole number: it is no DXF file, or damaged", n)
		}
		if !lines.Scan() {
			return nil, fmt.Errorf("line %d: the file ends before the value of its last pair: it is cut short", n)
		}
		list = append(list, pair{code, strings.TrimSpace(lines.Text()), n + 1})
	}
	if err := lines.Err(); err != nil {
		return nil, fmt.Errorf("reading it line by line: %w", err)
	}
	return list, nil
}

const longestLine = 64 << 10

// entity is something drawn: its kind and pairs.
type entity struct {
	kind  string
	pairs []pair
}

// unitsMM are how many millimetres the unit of a drawing is, by the value of $INSUNITS.
var unitsMM = map[string]float64{"1": 25.4, "2": 304.8, "4": 1, "5": 10, "6": 1000}

// entitiesOf are what is drawn in a file, and the unit it says it is in; empty: it does not say.
func entitiesOf(pairs []pair) (list []entity, unit string) {
	section, variable := "", ""
	for i, p := range pairs {
		switch {
		case p.code == 2 && i > 0 && pairs[i-1].code == 0 && pairs[i-1].value == "SECTION":
			section = p.value
		case p.code == 9:
			variable = p.value
		case section == "HEADER" && variable == "$INSUNITS" && p.code == 70:
			unit = p.value
		case section != "ENTITIES":
		case p.code == 0:
			if p.value == "ENDSEC" {
				section = ""
				continue
			}
			list = append(list, entity{kind: p.value})
		case len(list) > 0:
			last := &list[len(list)-1]
			last.pairs = append(last.pairs, p)
		}
	}
	return list, unit
}

// number is the value at a code; zero where there is none, as the format has it.
func (e *entity) number(code int) (float64, error) {
	for _, p := range e.pairs {
		if p.code != code {
			continue
		}
		n, err := strconv.ParseFloat(p.value, 64)
		if err != nil || math.IsNaN(n) || math.Abs(n) > farthest {
			return 0, fmt.Errorf("line %d: expected a number up to %g, got %q", p.line, float64(farthest), p.value)
		}
		return n, nil
	}
	return 0, nil
}

// farthest is how far from its origin something may be drawn, in its units.
const farthest = 1e6

// numbers are the values at some codes.
func (e *entity) numbers(codes ...int) (list []float64, err error) {
	for _, code := range codes {
		n, err := e.number(code)
		if err != nil {
			return nil, err
		}
		list = append(list, n)
	}
	return list, nil
}

// vertex is a corner of a polyline, with how much the way to the next is bent: the tangent of a quarter of
// the angle of its arc, to the left above zero.
type vertex struct{ x, y, bulge float64 }

// paths are the lines of a drawing, its arcs as chords that stay within a sagitta; left counts by their
// kind what is none of them.
func paths(list []entity, sagitta float64) (all []path, left map[string]int, err error) {
	left = map[string]int{}
	for i := 0; i < len(list); i++ {
		e := &list[i]
		var p path
		switch e.kind {
		case "LINE":
			p, err = e.line()
		case "ARC", "CIRCLE":
			p, err = e.arc(sagitta)
		case "LWPOLYLINE":
			p, err = e.lightPolyline(sagitta)
		case "POLYLINE":
			last := i + 1
			for last < len(list) && list[last].kind == "VERTEX" {
				last++
			}
			p, err = e.polyline(list[i+1:last], sagitta)
			i = last - 1
		case "SEQEND":
			continue
		default:
			left[e.kind]++
			continue
		}
		if err != nil {
			return nil, nil, fmt.Errorf("a %s: %w", e.kind, err)
		}
		all = append(all, p)
	}
	return all, left, nil
}

func (e *entity) line() (p path, err error) {
	n, err := e.numbers(10, 20, 11, 21)
	if err != nil {
		return p, err
	}
	return path{points: [][2]float64{{n[0], n[1]}, {n[2], n[3]}}}, nil
}

// arc is an arc, to the left from one angle to another, or a circle.
func (e *entity) arc(sagitta float64) (p path, err error) {
	n, err := e.numbers(10, 20, 40, 50, 51)
	if err != nil {
		return p, err
	}
	from, turn := n[3]*math.Pi/180, math.Mod((n[4]-n[3])*math.Pi/180, 2*math.Pi)
	if turn <= 0 {
		turn += 2 * math.Pi
	}
	if p.closed = e.kind == "CIRCLE"; p.closed {
		from, turn = 0, 2*math.Pi
	}
	steps := chords(n[2], turn, sagitta)
	last := steps
	if p.closed {
		last--
	}
	for i := range last + 1 {
		sin, cos := math.Sincos(from + turn*float64(i)/float64(steps))
		p.points = append(p.points, [2]float64{n[0] + n[2]*cos, n[1] + n[2]*sin})
	}
	return p, nil
}

// chords are how many an arc is drawn with.
func chords(radius, turn, sagitta float64) int {
	radius = math.Abs(radius)
	if radius <= sagitta {
		return 4
	}
	step := 2 * math.Acos(1-sagitta/radius)
	return max(2, min(mostChords, int(math.Ceil(math.Abs(turn)/step))))
}

const mostChords = 720

// lightPolyline is a polyline whose corners are pairs of its own.
func (e *entity) lightPolyline(sagitta float64) (p path, err error) {
	var corners []vertex
	for _, pair := range e.pairs {
		if pair.code != 10 && pair.code != 20 && pair.code != 42 || pair.code != 10 && len(corners) == 0 {
			continue
		}
		one := entity{pairs: e.pairs[:0:0]}
		one.pairs = append(one.pairs, pair)
		n, err := one.number(pair.code)
		if err != nil {
			return p, err
		}
		switch pair.code {
		case 10:
			corners = append(corners, vertex{x: n})
		case 20:
			corners[len(corners)-1].y = n
		case 42:
			corners[len(corners)-1].bulge = n
		}
	}
	return e.bent(corners, sagitta)
}

// polyline is one whose corners are entities that follow it.
func (e *entity) polyline(vertices []entity, sagitta float64) (p path, err error) {
	corners := make([]vertex, 0, len(vertices))
	for i := range vertices {
		n, err := vertices[i].numbers(10, 20, 42)
		if err != nil {
			return p, err
		}
		corners = append(corners, vertex{n[0], n[1], n[2]})
	}
	return e.bent(corners, sagitta)
}

// bent is the line along corners of a polyline; its flag says whether it is closed.
func (e *entity) bent(corners []vertex, sagitta float64) (p path, err error) {
	flags, err := e.number(70)
	if err != nil {
		return p, err
	}
	p.closed = int(flags)&1 != 0
	for i, c := range corners {
		p.points = append(p.points, [2]float64{c.x, c.y})
		if c.bulge == 0 || i == len(corners)-1 && !p.closed {
			continue
		}
		next := corners[(i+1)%len(corners)]
		p.points = append(p.points, c.between(next, sagitta)...)
	}
	return p, nil
}

// between are the points of an arc from one corner to the next, without its ends.
func (v vertex) between(to vertex, sagitta float64) (points [][2]float64) {
	turn := 4 * math.Atan(v.bulge)
	half := math.Hypot(to.x-v.x, to.y-v.y) / 2
	radius := half / math.Sin(turn/2)
	if half == 0 || math.IsInf(radius, 0) {
		return nil
	}
	// The middle lies to the left of the way where it turns to the left by less than half.
	way := math.Atan2(to.y-v.y, to.x-v.x)
	off := radius * math.Cos(turn/2)
	x, y := (v.x+to.x)/2-off*math.Sin(way), (v.y+to.y)/2+off*math.Cos(way)
	from := math.Atan2(v.y-y, v.x-x)
	steps := chords(radius, turn, sagitta)
	for i := 1; i < steps; i++ {
		sin, cos := math.Sincos(from + turn*float64(i)/float64(steps))
		points = append(points, [2]float64{x + math.Abs(radius)*cos, y + math.Abs(radius)*sin})
	}
	return points
}
