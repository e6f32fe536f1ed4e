package prove

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// Condition is one thing that flew or that it was flown under, on both sides.
type Condition struct {
	What   string `json:"what"`
	Before string `json:"before"` // empty: not stated
	After  string `json:"after"`
	// Tried is what a swap changes, and may be what is held against each other.
	Tried bool `json:"tried"`
	Alike bool `json:"alike"`
	// Goes with: it is another because what it belongs to is.
	With  bool `json:"with"`
	field string
}

// Stated says whether it is on both sides.
func (c *Condition) Stated() bool { return c.Before != "" && c.After != "" }

// condition is a row of what is held against each other.
type condition struct {
	what, field string
	tried       bool
	under       string // what it belongs to: the field of another row
	of          func(at book, t *fleet.TestFlight) string
}

// book is where names are looked up.
type book struct {
	*gear.Library
	fleet *fleet.Fleet
}

// quad is the name of a flight's quad.
func (b book) quad(t *fleet.TestFlight) string {
	if q, ok := b.fleet.Quad(t.Quad); ok {
		return q.Label()
	}
	return t.Quad
}

func (b book) named(ids ...string) string {
	var list []string
	for _, id := range ids {
		if id != "" {
			list = append(list, b.Label(id))
		}
	}
	return strings.Join(list, ", ")
}

// own is what a flight says of itself, without asking the library.
func own(of func(t *fleet.TestFlight) string) func(book, *fleet.TestFlight) string {
	return func(_ book, t *fleet.TestFlight) string { return of(t) }
}

// labels are the models a flight names, as people say them.
func labels(of func(c *fleet.Carried) []string) func(book, *fleet.TestFlight) string {
	return func(at book, t *fleet.TestFlight) string { return at.named(of(&t.Carried)...) }
}

var (
	ofUnit = condition{"air unit", "carried.airUnit", true, "",
		labels(func(c *fleet.Carried) []string { return []string{c.AirUnit} })}
	ofItsFirmware = condition{"its firmware", "carried.airFirmware", true, "carried.airUnit",
		own(func(t *fleet.TestFlight) string { return string(t.Carried.AirFirmware) })}
	ofItsAntennas = condition{"its antennas", "carried.antennas", true, "",
		labels(func(c *fleet.Carried) []string { return c.Antennas })}
)

var allConditions = []condition{
	{"quad", "quad", true, "", book.quad},
	ofUnit,
	ofItsFirmware,
	ofItsAntennas,
	{"goggles", "carried.goggles", true, "", labels(func(c *fleet.Carried) []string { return []string{c.Goggles} })},
	{"their firmware", "carried.gogglesFirmware", true, "carried.goggles",
		own(func(t *fleet.TestFlight) string { return string(t.Carried.GogglesFirmware) })},
	{"their antennas", "carried.gogglesAntennas", true, "",
		labels(func(c *fleet.Carried) []string { return c.GogglesAntennas })},
	{"flight pack", "carried.pack", false, "", labels(func(c *fleet.Carried) []string { return []string{c.Pack} })},
	{"pack at take-off", "packV", false, "", own(func(t *fleet.TestFlight) string { return printed(t.PackV) })},
	{"transmit power", "powerMW", false, "", own(func(t *fleet.TestFlight) string { return printed(t.PowerMW) })},
	{"channel", "channel", false, "", own(func(t *fleet.TestFlight) string { return t.Channel })},
	{"what was set", "settings", false, "", own(settings)},
	{"weather", "weather", false, "", own(func(t *fleet.TestFlight) string { return t.Weather })},
	{"who read the numbers", "reader", false, "", own(func(t *fleet.TestFlight) string { return readers[t.Reader] })},
}

// settings are what was set, in one order.
func settings(t *fleet.TestFlight) string {
	return strings.Join(slices.Sorted(slices.Values(t.Settings)), ", ")
}

var readers = map[fleet.Reader]string{fleet.BySpotter: "a spotter", fleet.AfterLanding: "read after landing"}

func printed[Q fmt.Stringer](v *Q) string {
	if v == nil {
		return ""
	}
	return (*v).String()
}

// conditions holds what flew, and how, on both sides. Where the flights of one side differ
// among themselves both are said, and where one of them does not say it, it is not stated.
func conditions(rows []condition, names book, before, after []*fleet.TestFlight) (list []Condition) {
	of := func(flights []*fleet.TestFlight, row condition) string {
		var values []string
		for _, t := range flights {
			value := row.of(names, t)
			if value == "" {
				return ""
			}
			if !slices.Contains(values, value) {
				values = append(values, value)
			}
		}
		return strings.Join(values, "; ")
	}
	for _, row := range rows {
		c := Condition{What: row.what, Before: of(before, row), After: of(after, row), Tried: row.tried, field: row.field}
		c.Alike = c.Stated() && (c.Before == c.After || row.field == "packV" && asFull(slices.Concat(before, after)))
		if row.under != "" {
			at := slices.IndexFunc(list, func(o Condition) bool { return o.field == row.under })
			c.With = c.Stated() && list[at].Stated() && !list[at].Alike
		}
		list = append(list, c)
	}
	return list
}

// asFullV is how far packs that come off the charger are apart, as a share of their voltage: 0.05 V a
// cell (from memory).
const asFullV = 0.05 / 4.2

// asFull says whether packs were as full at take-off as one is from one charge to the next.
func asFull(flights []*fleet.TestFlight) bool {
	low, high := *flights[0].PackV, *flights[0].PackV
	for _, t := range flights {
		low, high = min(low, *t.PackV), max(high, *t.PackV)
	}
	return !unit.Over(high-low, high*asFullV)
}

// lacking are the values of conditions that flights do not state.
func lacking(names book, of []Condition, flights []*fleet.TestFlight) (list []verdict.Missing) {
	for _, c := range of {
		at := slices.IndexFunc(allConditions, func(row condition) bool { return row.field == c.field })
		for _, t := range flights {
			if allConditions[at].of(names, t) == "" {
				list = append(list, lacks(c.field, c.What, t)...)
			}
		}
	}
	return list
}

// lacks are the values of a field that flights do not state.
func lacks(field, what string, flights ...*fleet.TestFlight) (list []verdict.Missing) {
	for _, t := range flights {
		list = append(list, verdict.Missing{Of: "testFlight", ID: t.ID, Field: field, Label: what + " of " + t.Label()})
	}
	return list
}
