// Package sim holds stand-ins for what a builder works with, so that a route
// can be rehearsed before the real devices are touched: an update service with
// the releases of the gear packs, and air units, goggles and controllers that
// behave as builders know them to (common practice), failures included.
//
// The stand-ins know nothing of plans. A rehearsed route that does not end
// where the plan says shows that the plan is wrong.
package sim

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Device is a stand-in for one piece of kit.
type Device struct {
	Kit       string           `json:"kit"`
	Label     string           `json:"label"`
	Role      string           `json:"role"`
	Firmware  firmware.Version `json:"firmware"`
	Mode      string           `json:"mode,omitempty"`
	Activated bool             `json:"activated"`
	Bound     []string         `json:"bound"` // kit ids

	model *gear.Device
	modes *gear.Goggles
}

// Setup is how the bench is laid out for one action.
type Setup struct {
	Tool       string `json:"tool"`
	ChargeOnly bool   `json:"chargeOnly"` // a cable without data wires
	BatteryPct int    `json:"batteryPct"`
	Pack       bool   `json:"pack"` // a flight pack is connected
	Offline    bool   `json:"offline"`
}

// Outcome is what a builder would see, and why.
type Outcome struct {
	Done bool   `json:"done"`
	Sees string `json:"sees"`
	Why  string `json:"why,omitempty"`
}

// Bench is a bench of stand-ins.
type Bench struct {
	Devices []*Device `json:"devices"`
	lib     *gear.Library
}

// NewBench sets out a stand-in for each piece of kit, in the state it is in.
func NewBench(lib *gear.Library, f *fleet.Fleet) *Bench {
	b := &Bench{lib: lib, Devices: []*Device{}}
	for i := range f.Kit {
		k := &f.Kit[i]
		item, _ := lib.Item(k.Model)
		linked, ok := item.(gear.Linked)
		if !ok {
			continue
		}
		d := &Device{Kit: k.ID, Label: k.Label(), Role: string(item.Kind()), Firmware: k.Firmware, Mode: k.Mode,
			Activated: k.Activated != nil && *k.Activated, Bound: []string{}, model: linked.AsDevice()}
		if needed := d.model.ActivationNeeded(); needed == nil || !*needed {
			d.Activated = true
		}
		d.modes, _ = gear.Find[*gear.Goggles](lib, k.Model)
		b.Devices = append(b.Devices, d)
	}
	return b
}

// Device finds a stand-in.
func (b *Bench) Device(kit string) (*Device, bool) {
	for _, d := range b.Devices {
		if d.Kit == kit {
			return d, true
		}
	}
	return nil, false
}

func failed(sees, why string, args ...any) Outcome {
	return Outcome{Sees: sees, Why: fmt.Sprintf(why, args...)}
}

const notSeen = "The tool shows no device."

// connect is what stands between a device and its tool.
func (d *Device) connect(s Setup, in *gear.Install) (Outcome, bool) {
	switch {
	case s.ChargeOnly:
		return failed(notSeen, "The cable only charges: it has no data wires. Take another cable."), false
	case in != nil && in.Power == "pack" && !s.Pack:
		return failed(notSeen, "%s shows only while it runs from a flight pack.", d.Label), false
	case in != nil && len(in.Tools) > 0 && !slices.Contains(in.Tools, s.Tool):
		return failed(notSeen, "For this release %s shows only in %s.", d.Label, strings.Join(in.Tools, " or ")), false
	}
	return Outcome{}, true
}

// ready says whether the tool sees the device and takes an update up: its cable and tool,
// the internet, the battery.
func (d *Device) ready(s Setup, in *gear.Install) (Outcome, bool) {
	if out, ok := d.connect(s, in); !ok {
		return out, false
	}
	if in.Internet && s.Offline {
		return failed("The tool waits, then gives up.", "The release has to be fetched: connect to the internet."), false
	}
	if in.MinBatteryPct != nil && s.BatteryPct < *in.MinBatteryPct {
		return failed(fmt.Sprintf("The tool refuses: battery at %d %%.", s.BatteryPct),
			"%s wants %d %% or more for an update.", d.Label, *in.MinBatteryPct), false
	}
	return Outcome{}, true
}

// Update puts a release on a device.
func (b *Bench) Update(kit string, to firmware.Version, s Setup) Outcome {
	d, ok := b.Device(kit)
	if !ok {
		return failed("Nothing happens.", "There is no device %q on the bench.", kit)
	}
	offered, listed := d.model.Release(to)
	back := d.Firmware.Known() && to.Compare(d.Firmware) < 0
	how := offered
	if back { // a rollback is offered by the release that is on
		how, _ = d.model.Release(d.Firmware)
	}
	if !listed {
		return failed("The tool does not list that release.", "No gear pack has a release %s of %s.", to, d.model.Label())
	}
	in := &gear.Install{}
	if how != nil && how.Install != nil {
		in = how.Install
	}
	if out, ok := d.ready(s, in); !ok {
		return out
	}
	if d.Firmware.Known() && to.Compare(d.Firmware) == 0 {
		return Outcome{Done: true, Sees: fmt.Sprintf("%s is on %s already.", d.Label, to)}
	}
	const notOffered = "The tool does not offer that release."
	switch {
	case !back && !offered.From.Holds(d.Firmware):
		return failed(notOffered, "%s does not install over %s: other releases come first.", to, orNotRead(d.Firmware))
	case in.Activated && !d.Activated:
		return failed(notOffered, "%s has to be activated before %s goes on.", d.Label, to)
	case !back && in.Mode != "" && in.Mode != d.Mode:
		return failed(notOffered, "%s has to be in mode %s for %s.", d.Label, d.modeName(in.Mode), to)
	}
	chart := b.lib.Chart(d.model.ID)
	steps, ok := chart.Way(firmware.State{
		Version:   d.Firmware,
		Mode:      d.Mode,
		Activated: true,
	}, firmware.State{Version: to})
	if !ok || len(steps) != 1 {
		if back {
			return failed(notOffered, "%s cannot be put back on %s from %s.", d.Label, to, d.Firmware)
		}
		return failed(notOffered, "%s does not install over %s: other releases come first.", to, orNotRead(d.Firmware))
	}
	d.Firmware = to
	d.Mode = chart.KeptMode(d.Mode, to)
	return Outcome{Done: true, Sees: fmt.Sprintf("%s restarts and says %s.", d.Label, to)}
}

func (d *Device) modeName(id string) string {
	if d.modes != nil {
		if m, ok := d.modes.Mode(id); ok {
			return m.Label()
		}
	}
	return id
}

func orNotRead(v firmware.Version) string {
	if v.Known() {
		return string(v)
	}
	return "a release nobody has read"
}

// Activate activates a device with an account.
func (b *Bench) Activate(kit string, s Setup) Outcome {
	d, ok := b.Device(kit)
	if !ok {
		return failed("Nothing happens.", "There is no device %q on the bench.", kit)
	}
	if d.Activated {
		return Outcome{Done: true, Sees: d.Label + " is activated already."}
	}
	if out, ok := d.connect(s, &gear.Install{Tools: d.model.Activation.Tools}); !ok {
		return out
	}
	if on := d.model.Activation.Firmware; !on.Holds(d.Firmware) {
		return failed("The tool shows the device, but no way to activate it.",
			"On %s it cannot be activated; on %s it can.", orNotRead(d.Firmware), on)
	}
	if s.Offline {
		return failed("The tool asks for an account and waits.", "Activation needs an account and internet.")
	}
	d.Activated = true
	return Outcome{Done: true, Sees: d.Label + " is activated."}
}

// SwitchMode puts goggles into another mode; some lose their bindings by it.
func (b *Bench) SwitchMode(kit, mode string) Outcome {
	d, ok := b.Device(kit)
	if !ok || d.modes == nil {
		return failed("Nothing happens.", "There are no goggles %q on the bench.", kit)
	}
	m, ok := d.modes.Mode(mode)
	if !ok || !m.Firmware.Holds(d.Firmware) {
		return failed("The menu does not list that mode.", "%s on %s has no mode %s.", d.Label, orNotRead(d.Firmware), mode)
	}
	if d.Mode == mode {
		return Outcome{Done: true, Sees: d.Label + " is in that mode already."}
	}
	keeps := d.modes.SwitchKeeps(d.Mode, mode)
	d.Mode = mode
	if keeps != nil && !*keeps && len(d.Bound) > 0 {
		d.Bound = []string{}
		return Outcome{
			Done: true,
			Sees: fmt.Sprintf("%s restarts in mode %s.", d.Label, m.Label()),
			Why:  "It has lost its bindings: every quad flown with it must be bound again.",
		}
	}
	return Outcome{Done: true, Sees: fmt.Sprintf("%s restarts in mode %s.", d.Label, m.Label())}
}

// Bind binds goggles, or a controller, to an air unit.
func (b *Bench) Bind(kit, unit string) Outcome {
	d, ok := b.Device(kit)
	u, isThere := b.Device(unit)
	if !ok || !isThere || u.Role != string(gear.KindAirUnit) {
		return failed("Nothing happens.", "Binding takes goggles or a controller, and an air unit.")
	}
	const red = "The unit's light stays red."
	for _, x := range []*Device{d, u} {
		if !x.Activated {
			return failed(red, "%s has not been activated.", x.Label)
		}
	}
	if d.modes != nil {
		return b.bindGoggles(d, u, red)
	}
	var eyes *Device
	for _, g := range b.Devices {
		if g.modes != nil && slices.Contains(g.Bound, unit) {
			eyes = g
		}
	}
	if eyes == nil {
		return failed(red, "No goggles are bound to %s yet: goggles come before the controller.", u.Label)
	}
	for _, p := range b.lib.Pairings(u.model.ID, eyes.model.ID) {
		if !b.pictures(p, u, eyes) {
			continue
		}
		for _, hand := range p.Controllers {
			if hand.ID == d.model.ID && hand.Firmware.Holds(d.Firmware) {
				d.Bound = append(d.Bound, unit)
				return Outcome{Done: true, Sees: "The unit's light turns green; the sticks move."}
			}
		}
	}
	return failed(red, "%s on %s does not go through %s on %s with %s.",
		d.Label, orNotRead(d.Firmware), u.Label, orNotRead(u.Firmware), eyes.Label)
}

func (b *Bench) bindGoggles(d, u *Device, red string) Outcome {
	list := b.lib.Pairings(u.model.ID, d.model.ID)
	inAnotherMode := ""
	for _, p := range list {
		if b.pictures(p, u, d) {
			d.Bound = append(d.Bound, u.Kit)
			return Outcome{Done: true, Sees: "The picture appears; the unit's light turns green."}
		}
		if !p.Never && p.AirFirmware.Holds(u.Firmware) && p.GogglesFirmware.Holds(d.Firmware) {
			inAnotherMode = p.Mode
		}
	}
	switch {
	case len(list) == 0:
		return failed(red, "Nobody has stated that %s links with %s.", u.model.Label(), d.model.Label())
	case list[0].Never:
		return failed(red, "%s never links with %s, whatever the firmware.", u.model.Label(), d.model.Label())
	case inAnotherMode != "":
		return failed(red, "%s is in the wrong mode: it has to be in %s.", d.Label, d.modeName(inAnotherMode))
	}
	return failed(red, "%s on %s and %s on %s do not link: no statement holds.",
		u.Label, orNotRead(u.Firmware), d.Label, orNotRead(d.Firmware))
}

// pictures says whether a statement holds for a unit and goggles as they are.
func (b *Bench) pictures(p *gear.Pairing, u, d *Device) bool {
	return !p.Never && p.AirFirmware.Holds(u.Firmware) && p.GogglesFirmware.Holds(d.Firmware) &&
		(p.Mode == "" || p.Mode == d.Mode)
}
