// Package recording reads what a recorder wrote down in flight: subtitles in the open SubRip
// form whose lines carry names and numbers, or a table in CSV. It asks nothing of how the
// names are called; what they mean is for the reader to say.
//
// Source: SubRip as it is commonly written (number, "00:00:01,000 --> 00:00:02,000", lines,
// an empty line); CSV after RFC 4180, with semicolons, tabs and decimal commas as well.
package recording

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"yokeswap/core/work/prove"
)

// The bounds of a recording.
const (
	LargestBytes = 32 << 20
	mostSamples  = 1_000_000
	mostValues   = 5_000_000 // samples by columns
	mostColumns  = 100
)

// Wrong says what keeps a recording from being read, and where.
type Wrong struct {
	Line int // 0: the file as a whole
	Says string
}

func (w *Wrong) Error() string {
	if w.Line == 0 {
		return w.Says
	}
	return fmt.Sprintf("line %d: %s", w.Line, w.Says)
}

// Read reads a recording. Notes are what was noticed on the way and left out, or parted.
func Read(data []byte) (rec *prove.Recording, notes []string, err error) {
	if len(data) > LargestBytes {
		return nil, nil, &Wrong{Says: fmt.Sprintf("it is larger than %d MiB", LargestBytes>>20)}
	}
	text, err := decode(data)
	if err != nil {
		return nil, nil, err
	}
	b := newBuilder()
	if strings.Contains(text, "-->") {
		err = readSubtitles(b, text)
	} else {
		err = readTable(b, text)
	}
	if err != nil {
		return nil, nil, err
	}
	return b.done()
}

// decode takes a text as UTF-8, as UTF-16 where it begins with its mark, and as Windows-1252
// where it is neither.
func decode(data []byte) (string, error) {
	switch {
	case len(data) >= 2 && (data[0] == 0xff && data[1] == 0xfe || data[0] == 0xfe && data[1] == 0xff):
		text, err := unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewDecoder().Bytes(data)
		if err != nil {
			return "", &Wrong{Says: "it begins as UTF-16 and is none: " + err.Error()}
		}
		data = text
	case slices.Contains(data, 0):
		return "", &Wrong{Says: "it is no text: it holds bytes of zero"}
	case !utf8.Valid(data):
		text, err := charmap.Windows1252.NewDecoder().Bytes(data)
		if err != nil {
			return "", &Wrong{Says: "its letters can be read neither as UTF-8 nor as Windows-1252"}
		}
		data = text
	}
	text := strings.TrimPrefix(string(data), "\ufeff")
	return strings.ReplaceAll(strings.ReplaceAll(text, "\r\n", "\n"), "\r", "\n"), nil
}

// value is a number under a name.
type value struct {
	name, unit string
	number     float64
}

// builder gathers samples into columns and parts.
type builder struct {
	rec     prove.Recording
	at      map[string]int // column by its name in small letters
	part    *prove.Part
	last    float64
	samples int
	notes   []string
}

func newBuilder() *builder { return &builder{at: map[string]int{}} }

// jumpS is a step of the clock after which it is another flight, forward; backward any is.
const jumpS = 120

// add takes one sample. A clock that goes back, or leaps, begins another flight.
func (b *builder) add(line int, timeS float64, values []value) error {
	if b.samples++; b.samples > mostSamples {
		return &Wrong{line, fmt.Sprintf("it has more than %d samples", mostSamples)}
	}
	if b.samples*len(b.rec.Columns) > mostValues {
		return &Wrong{line, fmt.Sprintf("it has more than %d values: fewer columns, or a part of it, can be read",
			mostValues)}
	}
	switch {
	case b.part == nil:
		b.begin(line)
	case timeS < b.last:
		b.another(line, "goes back", b.last-timeS)
	case timeS-b.last > jumpS:
		b.another(line, "leaps", timeS-b.last)
	}
	b.last = timeS
	p := b.part
	p.TimesS = append(p.TimesS, timeS)
	for i := range p.Values {
		p.Values[i] = append(p.Values[i], math.NaN())
	}
	for _, v := range values {
		at, err := b.column(line, v)
		if err != nil {
			return err
		}
		for len(p.Values) <= at {
			p.Values = append(p.Values, nans(len(p.TimesS)))
		}
		p.Values[at][len(p.TimesS)-1] = v.number
	}
	return nil
}

func nans(n int) []float64 {
	list := make([]float64, n)
	for i := range list {
		list[i] = math.NaN()
	}
	return list
}

// another begins another flight, and says why.
func (b *builder) another(line int, does string, byS float64) {
	b.notes = append(b.notes, fmt.Sprintf("At line %d its clock %s by %s: what follows is taken as another flight.", line,
		does, clock(byS)))
	b.begin(line)
}

func (b *builder) begin(line int) {
	b.rec.Parts = append(b.rec.Parts, prove.Part{FromLine: line})
	b.part = &b.rec.Parts[len(b.rec.Parts)-1]
}

func (b *builder) column(line int, v value) (int, error) {
	key := strings.ToLower(v.name)
	if at, ok := b.at[key]; ok {
		return at, nil
	}
	if len(b.rec.Columns) == mostColumns {
		return 0, &Wrong{line, fmt.Sprintf("%q would be column %d: it has more names than anybody reads", v.name,
			mostColumns+1)}
	}
	b.at[key] = len(b.rec.Columns)
	b.rec.Columns = append(b.rec.Columns, prove.RecordedColumn{Name: v.name, Unit: v.unit})
	return b.at[key], nil
}

// done hands the recording out: every column in every part, as long as its times.
func (b *builder) done() (*prove.Recording, []string, error) {
	if len(b.rec.Columns) == 0 {
		return nil, nil, &Wrong{Says: "there is no number under a name in it"}
	}
	for i := range b.rec.Parts {
		p := &b.rec.Parts[i]
		for len(p.Values) < len(b.rec.Columns) {
			p.Values = append(p.Values, nans(len(p.TimesS)))
		}
	}
	b.rec.Guess()
	return &b.rec, b.notes, nil
}

// clock is a time in words, such as 3:20 min.
func clock(s float64) string {
	if s < 60 {
		return fmt.Sprintf("%.3g s", s)
	}
	return fmt.Sprintf("%d:%02d min", int(s)/60, int(s)%60)
}
