package mount

import (
	"math"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// energy is what a fit's pack holds in watt-hours; false where it is not stated.
func energy(c fleet.Case) (wattHours float64, ok bool) {
	pack, found := c.Pack()
	if !found {
		return 0, false
	}
	return pack.Energy()
}

// HoverMinutes is how long a pack lasts at hover on a current, with what is left in it; nil where one of
// the two is not stated.
func HoverMinutes(pack *gear.Pack, current *unit.Amps) *float64 {
	wattHours, known := pack.Energy()
	if !known || current == nil || *current <= 0 {
		return nil
	}
	watts := float64(*current) * float64(*pack.Cells) * pack.NominalV()
	return new(wattHours * (1 - gear.LeftInPack) / watts * 60)
}

// hover compares hover power and time after the swap with today's: power goes with
// the weight to the power of 1.5 (momentum theory of a hovering rotor), time with the
// energy of the pack and against the power. Minutes need the current at hover.
func (w *Weight) hover(now, next fleet.Case, after unit.Grams) {
	wattHours, known := energy(now)
	minutes := 0.0
	if pack, there := now.Pack(); there {
		if w.HoverMinNow = HoverMinutes(pack, now.Quad.HoverA); w.HoverMinNow != nil {
			minutes = *w.HoverMinNow
		}
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
