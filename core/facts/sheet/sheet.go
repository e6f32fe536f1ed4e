// Package sheet reads values out of the text of a manual, a shop page or a table.
//
// Method: a grammar over text, no network and no guessing. Quantities are found with their
// units ("7.4-26.4 V", "2S to 6S", "46 g ± 1", "25.5 x 25.5 mm, M2", "< 33 dBm") and pin
// orders ("1: VCC 2: GND 3: RX"); what each belongs to is said by the words before it, else
// by those after it, in English, German and French. What the words do not settle is found
// all the same and has to be asked; what contradicts itself too. Each value keeps the words
// it came from and where they stand.
//
// Source: units of the SI and common practice; powers in dBm as ten times the logarithm of
// milliwatts. Conversions are held against GNU Units.
package sheet

import (
	"cmp"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"unicode/utf8"

	"yokeswap/core/facts/gear"
)

// MostText is how many bytes of text are read.
const MostText = 200_000

// mostFound bounds what is told of one text: nobody reads more.
const mostFound = 200

// Found is a value with the words it came from.
type Found struct {
	Words string `json:"words" doc:"as they stand in the text"`
	At    int    `json:"at" doc:"where they begin, in characters"`
	Field string `json:"field" doc:"of the entry, as in the open formats; empty: it has none there"`
	Value any    `json:"value"`
	Shows string `json:"shows" doc:"the value in words"`
	Joins bool   `json:"joins" doc:"a further one beside what its field holds already"`
	Ask   bool   `json:"ask" doc:"the words leave it open: never taken unasked"`
	Note  string `json:"note,omitempty" doc:"why it is asked"`
	// With are fields without which the entry cannot state it, as a plug without its pins.
	With []string `json:"with,omitempty"`
}

// Reading is what a text says of a thing of some kind.
type Reading struct {
	// Name is what its heading calls the thing; empty: it has none.
	Name  string  `json:"name,omitempty"`
	Found []Found `json:"found"`
}

// Read finds what a text says of a thing of a kind; connectors are those that can be named,
// their ids by what people call them. What was read behind labels already, at bytes of the text,
// is told beside it, and its words are not read again. It fails where the text is longer than
// MostText, or is no text.
func Read(kind gear.Kind, text string, connectors map[string]string, labelled ...Found) (Reading, error) {
	switch {
	case len(text) > MostText:
		return Reading{}, fmt.Errorf("the text has %d bytes, no more than %d are read: paste the part with the values",
			len(text), MostText)
	case !utf8.ValidString(text):
		return Reading{}, fmt.Errorf("this is no text")
	}
	plain := []byte(text)
	r := reader{kind: kind, connectors: connectors}
	for _, f := range labelled {
		r.add(f)
		blank(plain, f.At, f.At+len(f.Words))
	}
	r.text = string(plain)
	start := 0
	for line := range strings.Lines(r.text) {
		r.line(line, start)
		start += len(line)
	}
	r.bands()
	r.pinRows()
	r.contradictions()
	slices.SortStableFunc(r.found, func(a, b Found) int { return cmp.Compare(a.At, b.At) })
	name := heading(text, func(from, to int) bool {
		return slices.ContainsFunc(r.found, func(f Found) bool { return f.At >= from && f.At < to })
	})
	r.found = r.found[:min(len(r.found), mostFound)]
	for i := range r.found { // from bytes to characters, as the text is shown
		r.found[i].At = utf8.RuneCountInString(text[:r.found[i].At])
	}
	return Reading{Name: name, Found: append([]Found{}, r.found...)}, nil
}

// blank takes a part out of a text, byte for byte; its lines stay.
func blank(text []byte, from, to int) {
	for i := from; i < to; i++ {
		if text[i] != '\n' && text[i] != '\r' {
			text[i] = ' '
		}
	}
}

// reader reads one text.
type reader struct {
	kind       gear.Kind
	text       string
	connectors map[string]string
	found      []Found
	tuned      []Found // the bands an antenna is for
	gains      []Found // what it gains, in dBi, wherever that is
}

// add notes a value, once for the same words.
func (r *reader) add(f Found) {
	for _, have := range r.found {
		if have.At == f.At && have.Field == f.Field && reflect.DeepEqual(have.Value, f.Value) {
			return
		}
	}
	f.Words = strings.TrimSpace(f.Words)
	f.Joins = f.Joins || joining[f.Field]
	r.found = append(r.found, f)
}

// joining are fields that hold several values: two of them are no contradiction.
var joining = map[string]bool{
	"mount.patterns": true,
	"patterns":       true,
	"stackPatterns":  true,
	"bays":           true,
	"pads":           true,
	"bands":          true,
}

// contradictions marks what is stated twice and differently; the same twice is said once.
func (r *reader) contradictions() {
	first := map[string]int{}
	var keep []Found
	for _, f := range r.found {
		at, twice := first[f.Field]
		switch {
		case f.Field == "" || f.Joins || !twice:
			first[f.Field] = len(keep)
			keep = append(keep, f)
		case reflect.DeepEqual(keep[at].Value, f.Value):
			if keep[at].Ask && !f.Ask {
				keep[at] = f
			}
		default:
			note := "it is stated twice, and differently"
			keep[at].Ask, keep[at].Note = true, note
			f.Ask, f.Note = true, note
			keep = append(keep, f)
		}
	}
	r.found = keep
}
