package power

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// cell is what one cell of a chemistry does, in volts.
type cell struct {
	full    unit.Volts // charged
	nominal unit.Volts
	lowest  unit.Volts // where flying stops
	floor   unit.Volts // the lowest under load to which it is ever flown
	atRest  bool       // lowest is read at rest: under load it dips further
}

// chemistries holds the cell voltages. Full charge is what chargers are set
// to (common practice: 4.20 V, 4.35 V for high-voltage types, 3.65 V for iron
// phosphate). Polymer packs are landed at 3.5 V a cell at rest and dip lower
// under load, never below 3.0 V, where they are ruined; cylindrical lithium-ion
// cells are flown down to 3.0 V a cell under load (common practice). Nominal
// voltages and the 2.8 V of iron phosphate are from memory.
var chemistries = map[gear.Chemistry]cell{
	gear.LiPo:   {full: 4.20, nominal: 3.7, lowest: 3.5, floor: 3.0, atRest: true},
	gear.LiHV:   {full: 4.35, nominal: 3.8, lowest: 3.5, floor: 3.0, atRest: true},
	gear.LiIon:  {full: 4.20, nominal: 3.6, lowest: 3.0, floor: 3.0},
	gear.LiFePO: {full: 3.65, nominal: 3.2, lowest: 2.8, floor: 2.8},
}

// packSource stands behind the source of a window that a voltage is held
// against.
const packSource = "; cell voltages: common practice"

// Envelope is the voltage at one point of a quad, from full charge to the
// lowest under load. An end that cannot be bounded is nil. Where values are
// missing that would pin an end down, Full and Lowest are the worst it can be,
// fullLeast and lowestMost the best, and the values it lacks are listed.
type Envelope struct {
	Full    *unit.Volts `json:"full,omitempty"`
	Nominal *unit.Volts `json:"nominal,omitempty"`
	Lowest  *unit.Volts `json:"lowest,omitempty"`

	fullLeast, lowestMost *unit.Volts // nil: as Full and Lowest
	noFull, noLowest      []verdict.Missing
}

// top is the least the full voltage can be; nil where it is not known at all.
func (e *Envelope) top() *unit.Volts {
	if e.fullLeast != nil {
		return e.fullLeast
	}
	return e.Full
}

// bottom is the most the lowest voltage can be; nil where it is not known at all.
func (e *Envelope) bottom() *unit.Volts {
	if e.lowestMost != nil {
		return e.lowestMost
	}
	return e.Lowest
}

// unknownEnvelope lacks everything for the same reason.
func unknownEnvelope(missing ...verdict.Missing) Envelope {
	return Envelope{noFull: missing, noLowest: missing}
}

// packEnvelope is the pack's voltage from full charge down to the lowest
// under load: cells in series times the cell voltage, less the current at
// full throttle through the cell resistance (Ohm's law) for chemistries whose
// landing voltage is read at rest.
func packEnvelope(pack *gear.Pack, quad *fleet.Quad) Envelope {
	return envelopeBehind(pack, quad, nil)
}

// envelopeBehind is the pack's voltage at the end of its leads: the current at
// full throttle drops in them too. Hardly anybody measures that current or the
// resistance of cells: without them the lowest is the lowest to which the
// chemistry is ever flown. A sag beyond that is taken for a slip of the pen.
// Chemistries whose lowest is read under load, on the board's own meter, have
// the drop in it already.
func envelopeBehind(pack *gear.Pack, quad *fleet.Quad, lead *leadAt) Envelope {
	c, known := chemistries[pack.Chemistry]
	if !known {
		return unknownEnvelope(verdict.GearValue(&pack.Entry, "chemistry", "chemistry"))
	}
	if pack.Cells == nil {
		return unknownEnvelope(verdict.GearValue(&pack.Entry, "cells", "cells in series"))
	}
	cells := unit.Volts(*pack.Cells)
	volts := &[3]unit.Volts{cells * c.full, cells * c.nominal, cells * c.lowest}
	e := Envelope{Full: &volts[0], Nominal: &volts[1], Lowest: &volts[2]}
	if !c.atRest {
		return e
	}
	fullA := verdict.Missing{Of: "quad", ID: quad.ID, Field: "fullA", Label: "current at full throttle of " + quad.Label()}
	if lead != nil {
		e.noLowest = append(e.noLowest, lead.missing()...)
	}
	if pack.MilliohmPerCell == nil {
		e.noLowest = append(e.noLowest, verdict.GearValue(&pack.Entry, "milliohmPerCell", "resistance per cell"))
	}
	if quad.FullA == nil {
		e.noLowest = append(e.noLowest, fullA)
	}
	floor := cells * c.floor
	if len(e.noLowest) == 0 {
		sagged := volts[2] - packResistance(pack).Drop(*quad.FullA)
		if lead != nil {
			resistance, _ := lead.Resistance()
			sagged -= resistance.Drop(*quad.FullA)
		}
		if !unit.Over(floor, sagged) {
			volts[2] = sagged
			return e
		}
		fullA.Label += fmt.Sprintf(": with the resistance stated it would sag to %s, below the %s to which such a pack is "+
			"ever flown",
			sagged, floor)
		e.noLowest = append(e.noLowest, fullA)
	}
	e.lowestMost, e.Lowest = &volts[2], &floor
	return e
}

// packResistance is the resistance of all cells of a pack of which it is known.
func packResistance(pack *gear.Pack) unit.Milliohms {
	parallel := 1
	if pack.Parallel != nil {
		parallel = *pack.Parallel
	}
	return *pack.MilliohmPerCell * unit.Milliohms(*pack.Cells) / unit.Milliohms(parallel)
}
