package setup

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Worn is what a pilot wears and holds, and how long the goggles run.
type Worn struct {
	// MassG is of the goggles with what is screwed on; absent: a mass is not known, that of
	// what Unweighed names.
	MassG     *unit.Grams `json:"massG,omitempty"`
	Unweighed []string    `json:"unweighed"`
	// RunsMin is how many minutes they run from RunsFrom, at their typical power; absent:
	// not known. A fifth of a pack's charge stays in it.
	RunsMin  *float64 `json:"runsMin,omitempty"`
	RunsFrom string   `json:"runsFrom,omitempty"`
	// Held are the controllers of the quads flown with them.
	Held []Held `json:"held"`
}

// Held is a controller in the hand.
type Held struct {
	Label string      `json:"label"`
	MassG *unit.Grams `json:"massG,omitempty"` // absent: not known
}

// wornOf is what a piece of goggles weighs on the head, and how long it runs.
func wornOf(lib *gear.Library, kit *fleet.Kit, goggles *gear.Goggles) Worn {
	w := Worn{Unweighed: []string{}, Held: []Held{}}
	var sum unit.Grams
	weigh := func(label string, mass *unit.Grams) {
		if mass == nil {
			w.Unweighed = append(w.Unweighed, label)
			return
		}
		sum += *mass
	}
	weigh(goggles.Label(), goggles.MassG)
	for _, id := range kit.Antennas {
		if a, ok := gear.Find[*gear.Antenna](lib, id); ok {
			weigh(a.Label(), a.MassG)
			if adapter, on := gear.Find[*gear.Adapter](lib, kit.Adapter); on {
				weigh(adapter.Label(), adapter.MassG)
			}
		}
	}
	if len(w.Unweighed) == 0 {
		w.MassG = &sum
	}
	if watts := goggles.Input.TypicalW; watts != nil && *watts > 0 {
		if wh, from, known := energyOf(lib, kit, goggles); known {
			w.RunsMin, w.RunsFrom = new(wh/float64(*watts)*60), from
		}
	}
	return w
}

// hold adds the controller of a quad.
func (w *Worn) hold(c fleet.Case) {
	controller, state, ok := c.Controller()
	if ok && !slices.ContainsFunc(w.Held, func(h Held) bool { return h.Label == state.Label }) {
		w.Held = append(w.Held, Held{state.Label, controller.MassG})
	}
}

// energyOf is the energy goggles run on, in watt-hours: of the pack they are fed from, else
// of the battery in them.
func energyOf(lib *gear.Library, kit *fleet.Kit, goggles *gear.Goggles) (wh float64, from string, known bool) {
	if pack, ok := gear.Find[*gear.Pack](lib, kit.Pack); ok {
		wh, known = pack.Energy()
		return wh * (1 - gear.LeftInPack), pack.Label(), known
	}
	if goggles.BatteryWh == nil {
		return 0, "", false
	}
	return *goggles.BatteryWh, "the battery in them", true
}
