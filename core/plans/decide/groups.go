package decide

import (
	"encoding/json"
	"reflect"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
)

// A fit falls into groups that are changed together. What a gate says hangs on some of them
// alone, so that it is asked once for all fits that are the same in those.

// group is one of them.
type group int

const (
	unitSlot group = iota
	gogglesSlot
	controllerSlot
	receiver
	board
	pack
	regulators
	feeds
	parts
	cable
	solder
	ports
	antennas
	mounting
	runs
	layout
	sticks
	rest
	groups
)

// values are the groups of a fit.
func values(f *fleet.Fit) [groups]any {
	return [groups]any{
		unitSlot:       f.AirUnit,
		gogglesSlot:    f.Goggles,
		controllerSlot: f.Controller,
		receiver:       [2]any{f.Receiver, f.ReceiverCable},
		board:          f.Board,
		pack:           [2]any{f.Pack, f.PackLead},
		regulators:     [2]any{f.Regulators, f.Loads},
		feeds:          [4]any{f.Feeds, f.Jumpers, f.CapacitorUF, f.CapacitorV},
		parts:          f.Parts,
		cable:          [5]any{f.Harness, f.HarnessTo, f.BranchTo, f.Beside, f.Headers},
		solder:         [3]any{f.Wires, f.Moved, f.Depth},
		ports:          f.Ports,
		antennas:       f.Antennas,
		mounting:       f.Mounting,
		runs:           f.Runs,
		layout:         f.OSD,
		sticks:         f.Sticks,
		rest:           [4]any{f.Analog, f.None, f.Revisions, f.UpsideDown},
	}
}

// key is a fit by the numbers of its groups.
type key [groups]int16

// numbers gives each value of a group a number, by how it is written in the open formats.
type numbers struct {
	seen [groups][]any
	at   [groups]map[string]int16
}

// of are the numbers of a fit that differs little from another.
func (n *numbers) of(f *fleet.Fit, near key) (k key) {
	for g, v := range values(f) {
		if at := int(near[g]); at < len(n.seen[g]) && reflect.DeepEqual(n.seen[g][at], v) {
			k[g] = near[g]
			continue
		}
		text, err := json.Marshal(v)
		if err != nil {
			panic(err) // plain data
		}
		number, known := n.at[g][string(text)]
		if !known {
			number = int16(len(n.seen[g]))
			if n.at[g] == nil {
				n.at[g] = map[string]int16{}
			}
			n.at[g][string(text)] = number
			n.seen[g] = append(n.seen[g], v)
		}
		k[g] = number
	}
	return k
}

// blind are the groups a gate does not look at, neither when it checks nor when it proposes. A
// test changes each and asks the gate again.
var blind = map[verdict.Gate][]group{
	verdict.Link:    {regulators, feeds, parts, cable, solder, ports, antennas, layout, sticks},
	verdict.Power:   {antennas, mounting, layout, sticks, runs},
	verdict.Pins:    {antennas, mounting, layout},
	verdict.Mount:   {gogglesSlot, controllerSlot, runs, layout, sticks, feeds, cable, solder, ports},
	verdict.Antenna: {regulators, feeds, parts, cable, solder, ports, pack, runs, layout, sticks},
	verdict.OSD:     {antennas, mounting, pack, parts},
	verdict.Control: {antennas, mounting, layout, pack, parts},
}

// seenBy is a fit as far as a gate looks at it.
func (k key) seenBy(gate verdict.Gate) key {
	for _, g := range blind[gate] {
		k[g] = 0
	}
	return k
}
