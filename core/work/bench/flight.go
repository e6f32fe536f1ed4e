package bench

import (
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/mount"
)

const (
	cautionSight = "Low, over open ground, in sight, with nobody near or below; a spotter beside the pilot where your " +
		"country asks for one."
	cautionPropsOn = "Propellers go on only now, outside, pack unplugged: everybody behind the pilot before it is armed."

	// leastRangeM is how far picture and sticks have to hold on the ground, at the lowest power, before
	// a quad is flown (common practice).
	leastRangeM = 30.0
	// hoverRoom is how far the current at hover may be from what is reckoned with, as a share of it
	// (from memory): the masses are not that exact, and beyond it something drags or is not known.
	hoverRoom = 0.25
)

// firstFlight is what is tried after the frame is closed: range on the ground, a hover, heat in the
// air, the way home.
func (w *writer) firstFlight() {
	if !w.hasAir || !w.hasGoggles {
		return
	}
	w.add(Step{
		ID:    "flight:range",
		Phase: Flight,
		Title: "Walk the range check, on the ground",
		Do: []string{
			"Props off. Someone stays with the quad, the unit on its lowest power with a fan on it, the sticks on the power " +
				"their maker gives for a range check where there is one.",
			"Walk away, ten metres at a time, with your body between you and the quad now and then. Note where picture or " +
				"sticks go first.",
		},
		Cautions: []string{cautionProps, cautionHot, cautionRadio},
		Reading: &Reading{
			Label:    "picture and sticks held as far as",
			Unit:     "m",
			Min:      new(leastRangeM),
			Expected: fmt.Sprintf("%.0f and more, by common practice", leastRangeM),
		},
	})
	w.hover()
	w.heatInTheAir()
	w.returnHome()
}

// hover is the first minute in the air. Where it is known what the quad drew before, and what the swap
// does to its mass, it is reckoned what it may draw now.
func (w *writer) hover() {
	step := Step{
		ID:    "flight:hover",
		Phase: Flight,
		Title: "Hover for a minute",
		Do: []string{
			"Props on, each on its motor and the right way up; a full pack, strapped.",
			"Take off, hover at the height of your eyes for a minute, land, disarm. It stands still, sounds even, and the " +
				"picture holds.",
			"Feel the motors, after it is unplugged: warm, not hot, and all alike.",
		},
		Materials: []string{w.Library.Label(w.Fit.Pack)},
		Cautions:  []string{cautionPropsOn, cautionMaiden, cautionSight},
	}
	if amps, ok := w.hoverAmps(); ok {
		step.Do[1] += " Read the current on screen meanwhile."
		step.Reading = &Reading{
			Label:    "pack current at hover",
			Unit:     "A",
			Min:      new(tenths(amps * (1 - hoverRoom))),
			Max:      new(tenths(amps * (1 + hoverRoom))),
			Expected: fmt.Sprintf("about %.1f by what it weighs, a quarter either way", amps),
		}
	}
	w.add(step)
}

// hoverAmps is what the quad draws at hover after the swap: what it drew before, by momentum theory at
// its new mass, at the voltage of its pack. False where one of these is not known.
func (w *writer) hoverAmps() (float64, bool) {
	weight := mount.Weigh(w.Library, w.Fleet, w.Quad, nil)
	if w.Quad.HoverA == nil || weight.HoverPower == nil {
		return 0, false
	}
	amps := float64(*w.Quad.HoverA) * *weight.HoverPower
	if w.Quad.Now.Pack == w.Fit.Pack {
		return amps, true
	}
	was, known := nominal(fleet.NowCase(w.Library, w.Fleet, w.Quad))
	is, also := nominal(w.Case)
	if !known || !also {
		return 0, false
	}
	return amps * was / is, true
}

// nominal is the voltage of the pack over a discharge, in volts.
func nominal(c fleet.Case) (float64, bool) {
	pack, ok := c.Pack()
	if !ok || pack.Cells == nil || pack.NominalV() == 0 {
		return 0, false
	}
	return pack.NominalV() * float64(*pack.Cells), true
}

func tenths(x float64) float64 { return math.Round(x*10) / 10 }

// heatInTheAir reads the unit's case after a flight, where air moves over it as it will.
func (w *writer) heatInTheAir() {
	w.add(Step{
		ID:    "flight:heat",
		Phase: Flight,
		Title: "Read the unit's case after two minutes in the air",
		Do: []string{
			"Fly gently for two minutes on the power it will be flown at, land, disarm, and read the case before anything else.",
			"Unplug the pack. Where it is too hot, it wants more air, metal under it or less power.",
		},
		Tools:    []string{"thermometer"},
		Cautions: []string{cautionMaiden, cautionSight, cautionRadio},
		Reading: &Reading{
			Label:    "its case after landing",
			Unit:     "°C",
			Max:      new(hottestC),
			Expected: fmt.Sprintf("%.0f at most, by common practice", hottestC),
		},
	})
}

// returnHome tries the way home, where a switch is for it and something on the quad tells it where home is.
func (w *writer) returnHome() {
	s := w.Fit.Sticks
	if s == nil || !w.hasGPS() {
		return
	}
	at := slices.IndexFunc(s.Switches, func(sw fleet.Switch) bool { return sw.Mode == control.ReturnHome })
	if at < 0 {
		return
	}
	came, not := "came back", "anything else"
	w.add(Step{
		ID:    "flight:return-home",
		Phase: Flight,
		Title: "Try the way home",
		Do: []string{
			"Wait for the satellites and the home point before you arm; the board's least distance and height for it are " +
				"known and the way is clear of everything.",
			fmt.Sprintf("Fly out a little farther than that distance, in sight, and flip AUX %d. Flip it back to take over.",
				s.Switches[at].Aux),
		},
		Cautions: []string{cautionMaiden, cautionSight},
		Reading: &Reading{Label: "what it did", Expected: came, Choices: []string{came, not},
			Wrong: "Take over and land. Look at satellites, home point, the compass's turn and the settings of the way home."},
	})
}

// hasGPS says whether something on the quad tells it where it is.
func (w *writer) hasGPS() bool {
	return slices.ContainsFunc(w.Fit.Parts, func(p fleet.PlacedPart) bool {
		part, ok := gear.Find[*gear.Part](w.Library, p.Model)
		return ok && part.Sort == gear.SortGPS
	})
}
