package swap

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/mount"
	"yokeswap/core/gates/osd"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
)

// Gate is a row of the register of gates: all that judging, the yoke board, the bench
// sheet and the screen know of one.
type Gate struct {
	Name     verdict.Gate
	Title    string // as it is written
	Question string // what it asks
	Remedy   string // what a quad needs where it is shut for good; empty: it opens by settings
	Check    func(fleet.Case) []verdict.Finding
	// Candidates are changes worth trying; whether they help is found by judging again.
	Candidates func(fleet.Case) []verdict.Candidate
	Draw       func(fleet.Case) any // what its picture shows
	Needs      []verdict.Gate       // gates it asks for what they find; a test holds it against the imports
	Holds      *Hold                // nil: nothing on the bench waits for it
	// Never are the beginnings of the paths of values of gear that it does not read. It is not asked
	// again for what those may be; a test asks it all the same.
	Never []string
}

// What gear wants of its supply, and what it weighs.
const ofSupply, ofMass = "input.", "massG"

// Phase groups the steps of a bench day.
type Phase string

// The phases, in bench order.
const (
	PhasePrepare  Phase = "prepare"
	PhaseFirmware Phase = "firmware"
	PhaseBuild    Phase = "build"
	PhaseFeed     Phase = "feed"
	PhaseMeter    Phase = "meter"
	PhasePower    Phase = "power"
	PhaseBind     Phase = "bind"
	PhaseCheck    Phase = "check"
	PhaseFlight   Phase = "first flight"
)

// Hold says which phases of the bench day wait while a gate is as bad as a level, or
// worse: where a wrong start destroys, already a change that the plan does not hold yet
// or a value that is missing (common practice).
type Hold struct {
	From   verdict.Level
	Phases []Phase
	// Always: also where nothing on the quad itself is changed. Else a quad that stays
	// as it is flies already, and nothing is spoiled.
	Always bool
}

// Gates is the register, in bench order.
var Gates = []Gate{
	{
		Name:       verdict.Link,
		Title:      "link",
		Question:   "Do air unit, goggles and controller talk to each other?",
		Check:      link.Check,
		Candidates: link.Candidates,
		Draw:       drawn(link.Draw),
		Holds:      &Hold{From: verdict.Change, Phases: []Phase{PhaseBind, PhaseFlight}, Always: true},
		Never:      []string{ofSupply, ofMass},
	},
	{
		Name:       verdict.Power,
		Title:      "power",
		Question:   "Does every part see a voltage it can live with?",
		Remedy:     "another feed",
		Check:      power.Check,
		Candidates: power.Candidates,
		Draw:       drawn(power.Trace),
		Holds:      &Hold{From: verdict.Change, Phases: []Phase{PhaseFeed, PhaseMeter, PhasePower, PhaseFlight}},
		Never:      []string{ofMass},
	},
	{
		Name:       verdict.Pins,
		Title:      "pins",
		Question:   "Does every wire end where it belongs?",
		Remedy:     "other wiring",
		Check:      pins.Check,
		Candidates: pins.Candidates,
		Draw:       drawn(pins.Draw),
		Needs:      []verdict.Gate{verdict.Power},
		Holds:      &Hold{From: verdict.Change, Phases: []Phase{PhasePower, PhaseBind, PhaseCheck, PhaseFlight}},
		Never:      []string{ofMass},
	},
	{
		Name:       verdict.Mount,
		Title:      "mount",
		Question:   "Does it really go into the frame?",
		Remedy:     "another seat",
		Check:      mount.Check,
		Candidates: mount.Candidates,
		Draw:       drawn(mount.Draw),
		Holds:      &Hold{From: verdict.Unfit, Phases: []Phase{PhaseBuild, PhaseFlight}},
		Never:      []string{ofSupply, ofMass},
	},
	{
		Name:       verdict.Antenna,
		Title:      "antenna",
		Question:   "Do the antennas at both ends hear each other?",
		Remedy:     "other antennas",
		Check:      antenna.Check,
		Candidates: antenna.Candidates,
		Draw:       drawn(antenna.Draw),
		Holds:      &Hold{From: verdict.Unfit, Phases: []Phase{PhasePower, PhaseBind, PhaseFlight}},
		Never:      []string{ofSupply, ofMass},
	},
	{
		Name:       verdict.OSD,
		Title:      "OSD",
		Question:   "Does the data of the flight board show in the goggles?",
		Check:      osd.Check,
		Candidates: osd.Candidates,
		Draw:       drawn(osd.Draw),
		Needs:      []verdict.Gate{verdict.Pins},
		Never:      []string{ofSupply, ofMass},
	},
	{
		Name:       verdict.Control,
		Title:      "control",
		Question:   "Do the sticks arrive, and do the switches what you expect?",
		Check:      control.Check,
		Candidates: control.Candidates,
		Draw:       drawn(control.Draw),
		Needs:      []verdict.Gate{verdict.Pins},
		Holds:      &Hold{From: verdict.Change, Phases: []Phase{PhaseFlight}},
		Never:      []string{ofSupply, ofMass},
	},
}

// drawn is a picture of whatever type.
func drawn[T any](draw func(fleet.Case) T) func(fleet.Case) any {
	return func(c fleet.Case) any { return draw(c) }
}
