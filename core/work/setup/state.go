// Package setup compares what a plan wants of a flight board with how the board is
// set up, and works out what to change.
package setup

import (
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/gear"
)

// State is how a flight board is set up, as read off it. It is what a snapshot
// keeps.
type State struct {
	Variant string           `json:"variant"` // what the firmware calls itself
	Version firmware.Version `json:"version"`
	Board   string           `json:"board"`
	Name    string           `json:"name,omitempty"` // of the craft, as the board has it
	Armed   bool             `json:"armed"`

	Ports    []Port `json:"ports"`
	Features uint32 `json:"features"`
	Provider int    `json:"provider"` // number of the receiver protocol
	RXMap    string `json:"rxMap"`    // order of the first four channels
	// Modes is the board's list of ranges, slot by slot, without the empty ones at its
	// end.
	Modes []Range `json:"modes"`
	// Canvas is the grid the board draws on; empty: it says none.
	Canvas gear.Grid `json:"canvas,omitempty"`
	// OSD is where each element stands, by its place in the board's list.
	OSD []Cell `json:"osd"`
	// OldPorts: the board has the older list of serial ports, with 16 bits of functions.
	OldPorts bool `json:"oldPorts,omitempty"`
	// Receiver and Map are the receiver's settings and the map of channels, every byte
	// as the board gave it.
	Receiver []byte `json:"receiver,omitempty"`
	Map      []byte `json:"map,omitempty"`
	// Lacks names the optional parts the board does not have.
	Lacks []string `json:"lacks,omitempty"`
}

// The parts a board may lack; arming, failsafe, ports and receiver it may not.
const (
	LacksOSD    = "OSD"
	LacksCanvas = "canvas"
	LacksName   = "craft name"
)

// Without says whether the board lacks a part.
func (s *State) Without(part string) bool { return slices.Contains(s.Lacks, part) }

// Port is a serial port of the board. ID counts from 0: UART 1 is port 0.
type Port struct {
	ID        int    `json:"id"`
	Functions uint32 `json:"functions"`
	// Rest is what else the port's settings hold, kept as it is.
	Rest []byte `json:"rest,omitempty"`
}

// Range is a mode on a range of an auxiliary channel, counted from 0.
type Range struct {
	Mode   int `json:"mode"`
	Aux    int `json:"aux"`
	FromUS int `json:"fromUS"`
	ToUS   int `json:"toUS"`
}

// Cell is where an element stands, and in which profiles it shows, as bits; none:
// it does not show.
type Cell struct {
	X        int   `json:"x"`
	Y        int   `json:"y"`
	Profiles uint8 `json:"profiles"`
	// Rest are the bits of its place that are not understood, kept as they are.
	Rest uint16 `json:"rest,omitempty"`
}

// Clone is a copy that shares nothing with the state.
func (s State) Clone() State {
	s.Ports = slices.Clone(s.Ports)
	for i := range s.Ports {
		s.Ports[i].Rest = slices.Clone(s.Ports[i].Rest)
	}
	s.Modes, s.OSD = slices.Clone(s.Modes), slices.Clone(s.OSD)
	s.Receiver, s.Map, s.Lacks = slices.Clone(s.Receiver), slices.Clone(s.Map), slices.Clone(s.Lacks)
	return s
}

// port finds a port by the number of its UART, counted from 1.
func (s *State) port(uart int) *Port {
	for i := range s.Ports {
		if s.Ports[i].ID == uart-1 {
			return &s.Ports[i]
		}
	}
	return nil
}
