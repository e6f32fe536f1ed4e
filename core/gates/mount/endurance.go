package mount

import (
	"math"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// leftInPack is the share of a pack's charge a hover leaves in it (common practice:
// a fifth).
const leftInPack = 0.2

// nominalV is the voltage of a cell over a discharge, in volts (common practice).
var nominalV = map[gear.Chemistry]float64{gear.LiPo: 3.7, gear.LiHV: 3.8, gear.LiIon: 3.6, gear.LiFePO: 3.2}

// energy is what a fit's pack holds in watt-hours; false where it is not stated.
func energy(c fleet.Case) (wattHours float64, ok bool) {
	pack, found := c.Pack()
	if !found || pack.Cells == nil || pack.CapacityMAH <= 0 || nominalV[pack.Chemistry] == 0 {
		return 0, false
	}
	return float64(pack.CapacityMAH) / 1000 * float64(*pack.Cells) * nominalV[pack.Chemistry], true
}

// hover compares hover power and time after the swap with today's: power goes with
// the weight to the power of 1.5 (momentum theory of a hovering rotor), time with the
// energy of the pack and against the power. Minutes need the current at hover.
func (w *Weight) hover(now, next fleet.Case, after unit.Grams) {
	wattHours, known := energy(now)
	current := now.Quad.HoverA
	minutes := 0.0
	if known && current != nil && *current > 0 {
		pack, _ := now.Pack()
		watts := float64(*current) * float64(*pack.Cells) * nominalV[pack.Chemistry]
		minutes = wattHours * (1 - leftInPack) / watts * 60
		w.HoverMinNow = &minutes
	}
	if w.BeforeG == nil || after <= 0 {
		return
	}
	power := math.Pow(float64(after / *w.BeforeG), 1.5)
	w.HoverPower = &power
	more := 1.0
	if now.Fit.Pack != next.Fit.Pack {
		other, otherKnown := energy(next)
		if !known || !otherKnown {
			return
		}
		more = other / wattHours
	}
	w.FlightTime = new(more / power)
	if w.HoverMinNow != nil {
		w.HoverMinNext = new(minutes * *w.FlightTime)
	}
}
