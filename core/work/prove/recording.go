package prove

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
)

// Recording is what a recorder wrote down in flight: numbers under names, over time. One
// file can hold several flights; each is a part of its own.
type Recording struct {
	Columns []RecordedColumn
	Parts   []Part
}

// RecordedColumn is one of the numbers.
type RecordedColumn struct {
	Name string `json:"name"` // as the recorder calls it
	Unit string `json:"unit,omitempty"`
	// Guess is what it probably is, by its name and unit; empty: it cannot be told.
	Guess Measure `json:"guess,omitempty"`
}

// Measure is what a column tells of a flight.
type Measure string

// The measures, each in its usual unit: Mbit/s, ms, V, m.
const (
	BitRate  Measure = "bit-rate"
	Delay    Measure = "delay"
	Voltage  Measure = "voltage"
	Distance Measure = "distance"
)

// Measures are all of them, in the order they are shown.
var Measures = []Measure{BitRate, Delay, Voltage, Distance}

// Part is one flight of a recording.
type Part struct {
	FromLine int // of the file
	TimesS   []float64
	// Values are by column, then by sample; NaN where a sample does not say it.
	Values [][]float64
}

// Signature says which recorder it is by what it calls its columns.
func (r *Recording) Signature() string {
	names := make([]string, len(r.Columns))
	for i, c := range r.Columns {
		names[i] = strings.ToLower(c.Name)
	}
	return strings.Join(names, "|")
}

// guesses are words and units that tell a measure, the surest first (common practice).
var guesses = []struct {
	measure Measure
	units   []string
	words   []string
}{
	{BitRate, []string{"mbit/s", "mbps", "mb/s", "kbit/s", "kbps"}, []string{"bitrate", "bit rate", "rate", "débit",
		"datenrate", "br"}},
	{Delay, []string{"ms"}, []string{"delay", "latency", "latenz", "verzögerung", "lat"}},
	{Voltage, []string{"v", "mv"}, []string{"volt", "pack", "batt", "akku", "spannung", "tension"}},
	{Distance, []string{"m", "km"}, []string{"dist", "away", "entfernung", "range", "home"}},
}

// Guess tells what a column probably is: its unit and a word of its name together, else its
// word, else its unit. Of two columns the better match, then the first one, is the measure.
func (r *Recording) Guess() {
	for _, g := range guesses {
		best, at := 0, -1
		for i := range r.Columns {
			c := &r.Columns[i]
			if c.Guess != "" {
				continue
			}
			name := strings.ToLower(c.Name)
			score := 0
			if slices.Contains(g.units, strings.ToLower(c.Unit)) {
				score++
			}
			if slices.ContainsFunc(g.words, func(w string) bool { return strings.Contains(name, w) }) {
				score += 2
			}
			if score > best {
				best, at = score, i
			}
		}
		if at >= 0 {
			r.Columns[at].Guess = g.measure
		}
	}
}

// Means says which column tells a measure, by the column's name.
type Means map[Measure]string

// Guessed is what the columns probably mean.
func (r *Recording) Guessed() Means {
	means := Means{}
	for _, c := range r.Columns {
		if c.Guess != "" {
			means[c.Guess] = c.Name
		}
	}
	return means
}

// Telling is the column that tells a measure, and what its numbers are multiplied by; false
// where none is said to.
func (r *Recording) Telling(means Means, m Measure) (at int, scale float64, ok bool) {
	at = slices.IndexFunc(r.Columns, func(c RecordedColumn) bool { return c.Name != "" && c.Name == means[m] })
	if at < 0 {
		return 0, 1, false
	}
	return at, Scale(m, r.Columns[at].Unit), true
}

// Check says what is wrong with what columns are said to mean; nil where nothing is.
func (m Means) Check(r *Recording) error {
	for measure, name := range m {
		if _, _, ok := r.Telling(m, measure); !ok || !slices.Contains(Measures, measure) {
			return fmt.Errorf("%q is no column of it that tells %s", name, measure)
		}
	}
	return nil
}

// SpotMark is where in a recording a spot was passed.
type SpotMark struct {
	Spot  string  `json:"spot"`
	Pass  int     `json:"pass" minimum:"1" maximum:"100"`
	Part  int     `json:"part" minimum:"0"`
	FromS float64 `json:"fromS"`
	ToS   float64 `json:"toS"`
	// Lowest is the lowest bit rate there; absent: no column tells it.
	Lowest *float64 `json:"lowestMbps,omitempty"`
}

// Read reads the lowest bit rate off where the spot was passed.
func (m *SpotMark) Read(course *fleet.Course, r *Recording, means Means) error {
	if _, there := course.Spot(m.Spot); !there {
		return fmt.Errorf("%q is no spot of %s", m.Spot, course.Label())
	}
	if m.Part < 0 || m.Part >= len(r.Parts) || m.ToS < m.FromS {
		return fmt.Errorf("from %g s to %g s of flight %d is no stretch of it", m.FromS, m.ToS, m.Part+1)
	}
	m.Lowest = nil
	if at, scale, ok := r.Telling(means, BitRate); ok {
		if low, said := r.Parts[m.Part].Lowest(at, m.FromS, m.ToS); said {
			m.Lowest = new(low.Value * scale)
		}
	}
	return nil
}

// Scale is what a column's numbers are multiplied by to be in the unit of a measure.
func Scale(measure Measure, unit string) float64 {
	switch u := strings.ToLower(unit); {
	case measure == BitRate && (u == "kbit/s" || u == "kbps"):
		return 0.001
	case measure == Voltage && u == "mv":
		return 0.001
	case measure == Distance && u == "km":
		return 1000
	case measure == Delay && u == "s":
		return 1000
	}
	return 1
}

// Passage is a stretch of a recording.
type Passage struct {
	FromS float64 `json:"fromS"`
	ToS   float64 `json:"toS"`
	// Value is its lowest, AtS when.
	Value float64 `json:"value"`
	AtS   float64 `json:"atS"`
}

// Lowest is the lowest value of a column from one time to another, both inclusive; false
// where no sample in between says it.
func (p *Part) Lowest(column int, fromS, toS float64) (Passage, bool) {
	low := Passage{FromS: fromS, ToS: toS, Value: math.Inf(1)}
	at, _ := slices.BinarySearch(p.TimesS, fromS)
	for ; at < len(p.TimesS) && p.TimesS[at] <= toS; at++ {
		if v := p.Values[column][at]; v < low.Value {
			low.Value, low.AtS = v, p.TimesS[at]
		}
	}
	return low, !math.IsInf(low.Value, 1)
}

// Worst are the passages of a length in which a column is lowest on the whole, the worst
// first, none of which overlaps another.
func (p *Part) Worst(column int, lengthS float64, most int) []Passage {
	type window struct {
		from, to int
		mean     float64
	}
	var all []window
	sum, count, to := 0.0, 0, 0
	for from := range p.TimesS {
		for ; to < len(p.TimesS) && p.TimesS[to]-p.TimesS[from] <= lengthS; to++ {
			if v := p.Values[column][to]; !math.IsNaN(v) {
				sum, count = sum+v, count+1
			}
		}
		if count > 0 && p.TimesS[to-1]-p.TimesS[from] >= lengthS*0.8 {
			all = append(all, window{from, to - 1, sum / float64(count)})
		}
		if v := p.Values[column][from]; !math.IsNaN(v) {
			sum, count = sum-v, count-1
		}
	}
	slices.SortStableFunc(all, func(a, b window) int { return cmp.Compare(a.mean, b.mean) })
	list := []Passage{}
	for _, w := range all {
		if len(list) == most {
			break
		}
		from, end := p.TimesS[w.from], p.TimesS[w.to]
		if slices.ContainsFunc(list, func(o Passage) bool { return from <= o.ToS && end >= o.FromS }) {
			continue
		}
		if low, ok := p.Lowest(column, from, end); ok {
			list = append(list, low)
		}
	}
	return list
}

// RecordingGap is a stretch in which nothing was recorded.
type RecordingGap struct {
	FromS float64 `json:"fromS"`
	ToS   float64 `json:"toS"`
}

// gapFactor is how many usual steps without a sample are a gap (common practice).
const gapFactor = 5

// Gaps are where samples are missing: more than five of the usual steps, and a second.
func (p *Part) Gaps() []RecordingGap {
	list := []RecordingGap{}
	if len(p.TimesS) < 3 {
		return list
	}
	steps := make([]float64, len(p.TimesS)-1)
	for i := range steps {
		steps[i] = p.TimesS[i+1] - p.TimesS[i]
	}
	usual := slices.Clone(steps)
	slices.Sort(usual)
	least := max(gapFactor*usual[len(usual)/2], 1)
	for i, step := range steps {
		if step > least {
			list = append(list, RecordingGap{p.TimesS[i], p.TimesS[i+1]})
		}
	}
	return list
}

// Drawn is a point of a curve: the lowest and the highest of the samples it stands for.
type DrawnPoint struct {
	X   float64 `json:"x"`
	Low float64 `json:"low"`
	Top float64 `json:"top"`
}

// Curve is a column over time in no more than so many points, with nothing lost of its
// lowest and highest.
func (p *Part) Curve(column, most int, scale float64) []DrawnPoint {
	if len(p.TimesS) == 0 {
		return []DrawnPoint{}
	}
	return curve(p.TimesS, p.Values[column], most, scale)
}

// CurveOver is a column over another one, as bit rate over distance.
func (p *Part) CurveOver(over, column, most int, overScale, scale float64) []DrawnPoint {
	xs := make([]float64, len(p.TimesS))
	for i, x := range p.Values[over] {
		xs[i] = x * overScale
	}
	return curve(xs, p.Values[column], most, scale)
}

func curve(xs, ys []float64, most int, scale float64) []DrawnPoint {
	low, top := math.Inf(1), math.Inf(-1)
	for _, x := range xs {
		low, top = min(low, nanTo(x, low)), max(top, nanTo(x, top))
	}
	points := make([]DrawnPoint, most)
	said := make([]bool, most)
	width := max(top-low, 1e-9)
	for i, x := range xs {
		y := ys[i] * scale
		if math.IsNaN(x) || math.IsNaN(y) {
			continue
		}
		at := min(int((x-low)/width*float64(most)), most-1)
		if !said[at] {
			said[at] = true
			points[at] = DrawnPoint{low + (float64(at)+0.5)*width/float64(most), y, y}
		}
		points[at].Low, points[at].Top = min(points[at].Low, y), max(points[at].Top, y)
	}
	list := []DrawnPoint{}
	for i := range points {
		if said[i] {
			list = append(list, points[i])
		}
	}
	return list
}

func nanTo(x, instead float64) float64 {
	if math.IsNaN(x) {
		return instead
	}
	return x
}
