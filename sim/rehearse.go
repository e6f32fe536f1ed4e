package sim

import (
	"fmt"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/plans/route"
)

// Action is one thing done at the rehearsal.
type Action struct {
	Do     string           `json:"do"` // "update", "activate", "mode" or "bind"
	Device string           `json:"device"`
	To     firmware.Version `json:"to,omitempty"`   // update
	Mode   string           `json:"mode,omitempty"` // mode
	Unit   string           `json:"unit,omitempty"` // bind
	Setup  Setup            `json:"setup"`
}

// Do carries out an action.
func (b *Bench) Do(a Action) Outcome {
	switch a.Do {
	case "update":
		return b.Update(a.Device, a.To, a.Setup)
	case "activate":
		return b.Activate(a.Device, a.Setup)
	case "mode":
		return b.SwitchMode(a.Device, a.Mode)
	case "bind":
		return b.Bind(a.Device, a.Unit)
	}
	return failed("Nothing happens.", "There is nothing called %q to do.", a.Do)
}

// RightSetup is the bench laid out as the step asks for.
func RightSetup(s route.Step) Setup {
	setup := Setup{BatteryPct: 100, Pack: s.Power == "pack"}
	if len(s.Tools) > 0 {
		setup.Tool = s.Tools[0]
	}
	return setup
}

// ActionOf is the action of a route's step, done right.
func ActionOf(s route.Step) Action {
	return Action{Do: string(s.Do), Device: s.Device, To: s.To, Mode: s.Mode, Setup: RightSetup(s)}
}

// Compare says where the bench is not as the steps promise: each device of
// theirs on the last release, in the last mode, activated. It is empty once
// every step has been carried out.
func (b *Bench) Compare(steps []route.Step) []string {
	off := []string{}
	last := map[[2]string]route.Step{}
	var order [][2]string
	for _, s := range steps {
		key := [2]string{s.Device, string(s.Do)}
		if _, seen := last[key]; !seen {
			order = append(order, key)
		}
		last[key] = s
	}
	for _, key := range order {
		s := last[key]
		d, ok := b.Device(s.Device)
		if !ok {
			continue // not owned yet: nothing to rehearse on
		}
		switch {
		case s.Do == route.Update && d.Firmware.Compare(s.To) != 0:
			off = append(off, fmt.Sprintf("%s is on %s; the route ends on %s", d.Label, orNotRead(d.Firmware), s.To))
		case s.Do == route.Mode && d.Mode != s.Mode:
			off = append(off, fmt.Sprintf("%s is in mode %s; the route ends in %s", d.Label, d.modeName(d.Mode), s.ModeName))
		case s.Do == route.Activate && !d.Activated:
			off = append(off, d.Label+" is not activated yet")
		}
	}
	return off
}
