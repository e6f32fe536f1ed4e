package prove

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/measure/unit"
)

// Foretold is what the link budget says of the two sides on a band.
type Foretold struct {
	Band string `json:"band"`
	// ChangeDB is what the side after gains; absent: that cannot be told.
	ChangeDB *unit.Decibels `json:"changeDB,omitempty"`
	LeftOut  []string       `json:"leftOut"` // of the budget, for want of values
}

// foretell holds the links that flew against each other, as the antenna gate does. It is
// empty where what flew is not stated, or where flights of a side carried different things.
func foretell(lib *gear.Library, f *fleet.Fleet, before, after []*fleet.TestFlight) []Foretold {
	list := []Foretold{}
	was, ok := flown(f, before)
	is, also := flown(f, after)
	if !ok || !also {
		return list
	}
	for _, b := range antenna.Between(caseOf(lib, was), caseOf(lib, is)) {
		list = append(list, Foretold{Band: b.Label, ChangeDB: b.ChangeDB, LeftOut: b.LeftOut})
	}
	return list
}

// aside is a fleet with a quad in it as it flew.
type aside struct {
	fleet *fleet.Fleet
	quad  fleet.Quad
}

func caseOf(lib *gear.Library, a aside) fleet.Case {
	return fleet.NowCase(lib, fleet.NewIndex(a.fleet), &a.quad)
}

// flown is the quad of some flights as it flew: its fit of today with the unit, goggles and
// antennas of those flights. The goggles are a piece of their own, with the antennas that
// were on them that day.
func flown(f *fleet.Fleet, flights []*fleet.TestFlight) (aside, bool) {
	first := flights[0]
	quad, ok := f.Quad(first.Quad)
	if !ok || first.Carried.AirUnit == "" || first.Carried.Goggles == "" {
		return aside{}, false
	}
	for _, t := range flights[1:] {
		if fmt.Sprint(t.Carried) != fmt.Sprint(first.Carried) || t.Quad != first.Quad {
			return aside{}, false
		}
	}
	carried := first.Carried
	a := aside{&fleet.Fleet{Region: f.Region}, *quad}
	a.fleet.Kit = []fleet.Kit{
		{ID: "flown-unit", Model: carried.AirUnit, Firmware: carried.AirFirmware},
		{ID: "flown-goggles", Model: carried.Goggles, Firmware: carried.GogglesFirmware, Antennas: carried.GogglesAntennas},
	}
	fit := a.quad.Now
	fit.AirUnit, fit.Goggles = &fleet.Slot{Kit: "flown-unit"}, &fleet.Slot{Kit: "flown-goggles"}
	if on := fit.Antennas; on == nil || !slices.Equal(on.Models, carried.Antennas) {
		fit.Antennas = &fleet.Antennas{Models: carried.Antennas}
	}
	a.quad.Now, a.quad.Next = fit, nil
	a.fleet.Quads = []fleet.Quad{a.quad}
	return a, true
}
