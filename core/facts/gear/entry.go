// Package gear describes models: what a maker's sheet says of an air unit, a
// pair of goggles, a flight board, a flight pack and so on, and which of them
// link. It is plain data in the shape of the open gear pack format (see
// docs/format); everything a maker decides lives here as values, never in
// code.
//
// Every value may be missing. A pointer that is nil, an empty string and an
// absent list mean "not stated", which a gate answers with unknown.
package gear

import "slices"

// SourceKind says what a value rests on.
type SourceKind string

// The kinds of source.
const (
	Maker SourceKind = "maker" // the maker's sheet
	// Published is a standard, a rule or a data sheet's common value that anybody can look up.
	Published SourceKind = "published"
	Measured  SourceKind = "measured" // measured by the person who entered it
	Practice  SourceKind = "practice" // common practice
	Invented  SourceKind = "invented" // made up, as for a demo or an exercise
)

var sourceWords = map[SourceKind]string{
	Maker:     "maker's sheet",
	Published: "published",
	Measured:  "measured",
	Practice:  "common practice",
	Invented:  "invented",
}

// Source says where a value comes from.
type Source struct {
	Kind SourceKind `json:"kind"`
	Text string     `json:"text,omitempty"`
	Date string     `json:"date,omitempty"` // yyyy-mm-dd
}

// String says the source in words: "maker's sheet, rev B, 2026-03-01".
func (s Source) String() string {
	words := sourceWords[s.Kind]
	if words == "" {
		words = "source not stated"
	}
	if s.Text != "" {
		words += ", " + s.Text
	}
	if s.Date != "" {
		words += ", " + s.Date
	}
	return words
}

// Kind names a kind of gear. A kind is also the name of its list in a gear
// pack, in the singular.
type Kind string

// The kinds of gear.
const (
	KindAirUnit        Kind = "airUnit"
	KindGoggles        Kind = "goggles"
	KindController     Kind = "controller"
	KindReceiver       Kind = "receiver"
	KindBoard          Kind = "board"
	KindPart           Kind = "part"
	KindRegulator      Kind = "regulator"
	KindPack           Kind = "pack"
	KindConnector      Kind = "connector"
	KindHarness        Kind = "harness"
	KindAntenna        Kind = "antenna"
	KindAdapter        Kind = "adapter"
	KindRegion         Kind = "region"
	KindBandPlan       Kind = "bandPlan"
	KindFrame          Kind = "frame"
	KindPlate          Kind = "plate"
	KindReadyQuad      Kind = "readyQuad"
	KindCamera         Kind = "camera"
	KindCapacitor      Kind = "capacitor"
	KindBracket        Kind = "bracket"
	KindScrew          Kind = "screw"
	KindWasher         Kind = "washer"
	KindStandoff       Kind = "standoff"
	KindFlightFirmware Kind = "flightFirmware"
	KindPairing        Kind = "pairing"
)

// Entry is what every piece of gear has. Ids are unique over the whole
// library, whatever the kind.
type Entry struct {
	ID     string `json:"id"`
	Name   string `json:"name,omitempty"`
	Source Source `json:"source"`
	// ValueSources overrides Source for single values, keyed by the value's
	// path in the entry ("input.maxV").
	ValueSources map[string]Source `json:"valueSources,omitempty"`
	Offer        *Offer            `json:"offer,omitempty"`
	// Box is what comes with a new one; Deals are its other prices.
	Box   []Pieces `json:"box,omitempty"`
	Deals []Deal   `json:"deals,omitempty"`
	// Ranges are the values of which the sheet states both ends, Variants those that are
	// otherwise on a revision of the hardware or set to a region.
	Ranges   []Range   `json:"ranges,omitempty"`
	Variants []Variant `json:"variants,omitempty"`
}

// Offer is what one costs and how long it takes to come, as its owner last saw
// it.
type Offer struct {
	Price    *float64 `json:"price,omitempty"`    // of one, up to two decimals
	Currency string   `json:"currency,omitempty"` // three letters of ISO 4217
	Days     *int     `json:"days,omitempty"`     // from order to doorstep
	Seen     string   `json:"seen,omitempty"`     // when that was so, yyyy-mm-dd
}

// Nones lists what something is stated to have none of: that is known, and no longer
// unknown as what is not stated.
type Nones struct {
	None []string `json:"none,omitempty"`
}

// Without says whether it is stated that there is none of something.
func (n *Nones) Without(field string) bool { return slices.Contains(n.None, field) }

// Head gives access to the part all entries share.
func (e *Entry) Head() *Entry { return e }

// Label is the name, or the id where no name is given.
func (e *Entry) Label() string {
	if e.Name != "" {
		return e.Name
	}
	return e.ID
}

// SourceOf is the source of one value of the entry.
func (e *Entry) SourceOf(path string) Source {
	if s, ok := e.ValueSources[path]; ok {
		return s
	}
	return e.Source
}

// Item is any piece of gear.
type Item interface {
	Head() *Entry
	Kind() Kind
}
