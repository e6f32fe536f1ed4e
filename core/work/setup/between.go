package setup

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"yokeswap/core/facts/gear"
)

// Difference is a setting that two states do not share.
type Difference struct {
	Label string `json:"label"`
	A     string `json:"a"`
	B     string `json:"b"`
}

// usbPort is the number of a board's own USB among its serial ports (the protocol's
// public description, from memory).
const usbPort = 20

func portName(id int) string {
	if id == usbPort {
		return "USB"
	}
	return fmt.Sprintf("UART %d", id+1)
}

// Between compares two snapshots.
func Between(a, b State, runs *gear.FlightFirmware) []Difference {
	w := &comparing{runs: runs}
	list := []Difference{}
	add := func(label, x, y string) {
		if x != y {
			list = append(list, Difference{label, x, y})
		}
	}
	add("flight firmware", a.Variant+" "+string(a.Version), b.Variant+" "+string(b.Version))
	for _, p := range a.Ports {
		if q := b.port(p.ID + 1); q != nil {
			add(portName(p.ID), w.words(p.Functions), w.words(q.Functions))
		}
	}
	for _, name := range slices.Sorted(maps.Keys(runs.Features)) {
		bit := uint32(1) << runs.Features[name]
		add("feature "+name, onOff(a.Features&bit != 0), onOff(b.Features&bit != 0))
	}
	add("receiver protocol", fmt.Sprint(a.Provider), fmt.Sprint(b.Provider))
	add("channel order", a.RXMap, b.RXMap)
	add("canvas", canvasWords(a.Canvas), canvasWords(b.Canvas))
	for _, name := range slices.Sorted(maps.Keys(runs.Modes)) {
		add("mode "+name, strings.Join(a.ranges(runs.Modes[name]), ", "), strings.Join(b.ranges(runs.Modes[name]), ", "))
	}
	for i := range runs.Elements {
		e := &runs.Elements[i]
		if e.Index == nil || *e.Index >= len(a.OSD) || *e.Index >= len(b.OSD) {
			continue
		}
		cell := func(c Cell) string {
			if c.Profiles == 0 {
				return "not shown"
			}
			return fmt.Sprintf("column %d, row %d", c.X+1, c.Y+1)
		}
		add(e.Label(), cell(a.OSD[*e.Index]), cell(b.OSD[*e.Index]))
	}
	return list
}
