// Package fabricate draws parts that a builder makes: adapter plates, side plates for a
// camera, antenna holders, brackets. Each is drawn from its dimensions alone, which a quad
// offers as far as they are stated.
//
// Source: clearance holes by ISO 273, medium series; what a hole wants around it is common
// practice.
package fabricate

import (
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/measure/plane"
	"yokeswap/core/measure/solid"
	"yokeswap/core/measure/unit"
)

// Param is one dimension of a part.
type Param struct {
	ID    string   `json:"id"`
	Label string   `json:"label"`
	Unit  string   `json:"unit"`
	Value *float64 `json:"value,omitempty" doc:"absent: it has to be entered"`
	Least float64  `json:"least"`
	Most  float64  `json:"most"`
	Whole bool     `json:"whole,omitempty"`
}

// Offer is a part that can be made, with its dimensions as far as a quad states them.
type Offer struct {
	Part   string  `json:"part"`
	Title  string  `json:"title"`
	About  string  `json:"about"`
	Params []Param `json:"params"`
}

// Made is a part as it is drawn: its bodies for a printer, its flat pieces for a drill or a
// cutter.
type Made struct {
	Title  string
	Bodies []solid.Body
	Sheets []Sheet
	Notes  []string
}

// plasticGPerCM3 is what usual plastics of printers weigh (common practice; from memory).
const plasticGPerCM3 = 1.25

// VolumeMM3 is the volume of all bodies in cubic millimetres.
func (m *Made) VolumeMM3() (sum float64) {
	for _, b := range m.Bodies {
		sum += b.VolumeMM3()
	}
	return sum
}

// MassG is about what it weighs, printed full of a usual plastic.
func (m *Made) MassG() unit.Grams { return unit.Grams(m.VolumeMM3() / 1000 * plasticGPerCM3) }

// Sheet is one flat piece.
type Sheet struct {
	Name    string
	ThickMM unit.Millimetres
	Shape   plane.Shape
	Drills  []Drill
}

// Drill is a round hole of a sheet.
type Drill struct{ XMM, YMM, DiameterMM unit.Millimetres }

// Problem is what is wrong with a dimension; without one, with the part.
type Problem struct {
	Param string `json:"param,omitempty"`
	Says  string `json:"says"`
}

// part is one kind of part.
type part struct {
	id, title, about string
	params           []Param
	offer            func(c fleet.Case, v values) // what a quad states of it
	draw             func(v values) (Made, []Problem)
}

// values are the dimensions of a part by their ids.
type values map[string]float64

func (v values) mm(id string) unit.Millimetres { return unit.Millimetres(v[id]) }

func mm(id, label string, least, most float64) Param {
	return Param{ID: id, Label: label, Unit: "mm", Least: least, Most: most}
}

// usual gives a dimension the value it has where nothing else is said.
func usual(p Param, value float64) Param {
	p.Value = &value
	return p
}

// The dimensions that every part has.
var (
	playMM = usual(mm("playMM", "what the printer adds to each hole", 0, 1), 0.2)
	wallMM = usual(mm("leastWallMM", "least wall of the printer", 0.2, 5), 0.8)
)

// Offers are the parts that can be made for a quad.
func Offers(c fleet.Case) []Offer {
	list := make([]Offer, 0, len(parts))
	for i := range parts {
		p := &parts[i]
		o := Offer{Part: p.id, Title: p.title, About: p.about, Params: slices.Clone(p.params)}
		stated := values{}
		p.offer(c, stated)
		for k := range o.Params {
			if value, ok := stated[o.Params[k].ID]; ok {
				o.Params[k].Value = &value
			}
		}
		list = append(list, o)
	}
	return list
}

// Draw makes a part from its dimensions; one that is left out has its usual value, where it
// has one. Problems name what keeps it from being drawn, all dimensions at once.
func Draw(id string, given map[string]float64) (Made, []Problem) {
	at := slices.IndexFunc(parts, func(p part) bool { return p.id == id })
	if at < 0 {
		return Made{}, []Problem{{Says: fmt.Sprintf("there is no part %q to make", id)}}
	}
	p := &parts[at]
	v := values{}
	var problems []Problem
	for _, d := range p.params {
		value, ok := given[d.ID]
		if !ok && d.Value == nil {
			problems = append(problems, Problem{d.ID, d.Label + " has to be entered"})
			continue
		}
		if !ok {
			value = *d.Value
		}
		if says := d.wrong(value); says != "" {
			problems = append(problems, Problem{d.ID, says})
		}
		v[d.ID] = value
	}
	for key := range given {
		if !slices.ContainsFunc(p.params, func(d Param) bool { return d.ID == key }) {
			problems = append(problems, Problem{key, fmt.Sprintf("%s has no dimension %q", p.title, key)})
		}
	}
	if len(problems) > 0 {
		return Made{}, problems
	}
	made, problems := p.draw(v)
	made.Title = p.title
	return made, append(problems, made.thin(v.mm("leastWallMM"))...)
}

func (d *Param) wrong(value float64) string {
	switch {
	case math.IsNaN(value) || math.IsInf(value, 0) || value < d.Least || value > d.Most:
		return fmt.Sprintf("%s: expected %g to %g %s, got %g", d.Label, d.Least, d.Most, d.Unit, value)
	case d.Whole && value != math.Trunc(value):
		return fmt.Sprintf("%s: expected a whole number, got %g", d.Label, value)
	}
	return ""
}

// thin names the pieces of which a wall is thinner than the printer's least.
func (m *Made) thin(least unit.Millimetres) (problems []Problem) {
	for _, s := range m.Sheets {
		if wall := s.Shape.LeastWall(); unit.Over(least, wall) {
			problems = append(problems, Problem{"leastWallMM", fmt.Sprintf(
				"%s is %.2f mm at its thinnest, the printer's least wall is %s: move or turn the holes, or make it larger",
				s.Name, float64(wall), least)})
		}
		if unit.Over(least, s.ThickMM) {
			problems = append(problems, Problem{"leastWallMM",
				fmt.Sprintf("%s is %s thick, the printer's least wall is %s", s.Name, s.ThickMM, least)})
		}
	}
	return problems
}

// clearance are the holes that let a screw through, by its diameter: ISO 273, medium series.
var clearance = map[float64]float64{1.6: 1.8, 2: 2.4, 2.5: 2.9, 3: 3.4, 4: 4.5}

// through is the hole for a screw; what the printer adds comes on top.
func (v values) through(screw string) (unit.Millimetres, []Problem) {
	hole, ok := clearance[v[screw]]
	if !ok {
		return 0, []Problem{{screw, fmt.Sprintf("ISO 273 has no hole for a screw of %g mm: expected 1.6, 2, 2.5, 3 or 4",
			v[screw])}}
	}
	return unit.Millimetres(hole) + v.mm("playMM"), nil
}

// pierced is a shape with round holes.
func pierced(name string, thick unit.Millimetres, shape plane.Shape, drills []Drill) (Sheet, []Problem) {
	holes := make([]plane.Shape, len(drills))
	for i, d := range drills {
		holes[i] = plane.Disc(d.XMM, d.YMM, d.DiameterMM)
	}
	cut, err := plane.Cut(shape, holes...)
	if err != nil {
		return Sheet{}, []Problem{{Says: fmt.Sprintf("%s cannot be drawn: %s", name, err)}}
	}
	s := Sheet{Name: name, ThickMM: thick, Shape: cut, Drills: drills}
	areas := cut.Areas()
	if len(areas) != 1 || len(areas[0].Holes) != len(drills) {
		return s, []Problem{{Says: name + ": holes run into one another or over the edge; move or turn them, or make it " +
			"larger"}}
	}
	return s, nil
}

// corners are the holes of a pattern around the middle, turned to the left.
func corners(x, y, diameter unit.Millimetres, by unit.Degrees) (list []Drill) {
	sin, cos := math.Sincos(float64(by) * math.Pi / 180)
	for _, c := range [][2]float64{{1, 1}, {-1, 1}, {-1, -1}, {1, -1}} {
		px, py := c[0]*float64(x)/2, c[1]*float64(y)/2
		list = append(list, Drill{unit.Millimetres(px*cos - py*sin), unit.Millimetres(px*sin + py*cos), diameter})
	}
	return list
}
