package sim

import (
	"fmt"
	"slices"

	"yokeswap/core/firmware"
	"yokeswap/core/link/route"
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
	if s.To.Known() {
		return Action{Do: "update", Device: s.Device, To: s.To, Setup: RightSetup(s)}
	}
	return Action{Do: "activate", Device: s.Device, Setup: RightSetup(s)}
}

// Compare says where the bench is not as the plan promised. It is empty once
// every step of the plan has been carried out.
func (b *Bench) Compare(p route.Plan) []string {
	off := []string{}
	last := map[string]firmware.Version{}
	var order []string
	for _, s := range p.Steps {
		if !slices.Contains(order, s.Device) {
			order = append(order, s.Device)
		}
		if s.To.Known() {
			last[s.Device] = s.To
		}
	}
	for _, kit := range order {
		d, ok := b.Device(kit)
		if !ok {
			continue // not owned yet: nothing to rehearse on
		}
		if to, ok := last[kit]; ok && d.Firmware.Compare(to) != 0 {
			off = append(off, fmt.Sprintf("%s is on %s; the plan ends on %s", d.Label, orNotRead(d.Firmware), to))
		}
		if activates := slices.ContainsFunc(p.Steps, func(s route.Step) bool { return s.Device == kit && !s.To.Known() }); activates && !d.Activated {
			off = append(off, d.Label+" is not activated yet")
		}
	}
	return off
}
