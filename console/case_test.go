package console_test

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// caseOf is a quad of which nothing is known but its name.
func caseOf() fleet.Case {
	f := &fleet.Fleet{Quads: []fleet.Quad{{ID: "hen", Name: "Hen"}}}
	return fleet.NewCase(gear.NewLibrary(), fleet.NewIndex(f), &f.Quads[0])
}
