package gear

import (
	"fmt"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/measure/unit"
)

// Device is what air units, goggles and controllers share: releases and
// activation.
type Device struct {
	Entry
	Family     string      `json:"family,omitempty"`
	Activation *Activation `json:"activation,omitempty"`
	Releases   []Release   `json:"releases,omitempty"`
	// UpdateMinutes is about how long putting a release on takes.
	UpdateMinutes *int    `json:"updateMinutes,omitempty"`
	Guides        []Guide `json:"guides,omitempty"`
}

// Activation says whether a new device must be activated once, with an
// account and internet, and in which desktop tools that can be done.
type Activation struct {
	Needed   bool           `json:"needed"`
	Tools    []string       `json:"tools,omitempty"`
	Firmware firmware.Range `json:"firmware,omitempty"` // releases it can be activated on
	Power    string         `json:"power,omitempty"`    // what it must run from: "usb", "pack" or "either"
	// Locks says whether it is bound to the account it was activated with until that account lets
	// it go; absent: it is not.
	Locks *bool `json:"locks,omitempty"`
}

// Release is one firmware a device can carry, and how it gets there.
type Release struct {
	Version    firmware.Version   `json:"version"`
	From       firmware.Range     `json:"from,omitempty"`       // releases it installs over
	OneWay     bool               `json:"oneWay,omitempty"`     // what was there before cannot be put back
	RollbackTo []firmware.Version `json:"rollbackTo,omitempty"` // older releases that can replace it
	Gains      []string           `json:"gains,omitempty"`      // what the device can do from here on
	Loses      []string           `json:"loses,omitempty"`      // and what it no longer can
	Advice     *Advice            `json:"advice,omitempty"`
	Install    *Install           `json:"install,omitempty"`
	Note       string             `json:"note,omitempty"`
}

// Advice is a word of caution about a release.
type Advice struct {
	Kind string `json:"kind"` // "avoid"
	Why  string `json:"why"`
}

// Install says under which conditions a release goes on.
type Install struct {
	Tools         []string `json:"tools,omitempty"` // desktop tools or phone app, as the builder knows them
	Power         string   `json:"power,omitempty"` // "usb", "pack" or "either"
	MinBatteryPct *int     `json:"minBatteryPct,omitempty"`
	Internet      bool     `json:"internet,omitempty"`
	Mode          string   `json:"mode,omitempty"`      // goggles: the mode they must be in
	Activated     bool     `json:"activated,omitempty"` // only on a device that has been activated
}

// Needs lists an install's conditions in words; mode is the name of the mode.
func (in *Install) Needs(mode string) []string {
	var needs []string
	if in.Activated {
		needs = append(needs, "it has to be activated")
	}
	if in.Mode != "" {
		needs = append(needs, "in mode "+mode)
	}
	switch in.Power {
	case "pack":
		needs = append(needs, "shows only while it runs from a flight pack")
	case "usb":
		needs = append(needs, "runs from USB alone: leave the pack off")
	case "either":
		needs = append(needs, "USB alone will do; leave the pack off")
	}
	if in.MinBatteryPct != nil {
		needs = append(needs, fmt.Sprintf("battery at %d %% or more", *in.MinBatteryPct))
	}
	if in.Internet {
		needs = append(needs, "steady internet")
	}
	return needs
}

// Changes lists what the device can do after going from one release to another,
// and what it no longer can; the releases passed on the way count. Over a
// release nobody knows only the new release's own count.
func (d *Device) Changes(from, to firmware.Version) (gains, loses []string) {
	gains, loses = []string{}, []string{}
	up := !from.Known() || from.Compare(to) < 0
	low, high := from, to
	if !up {
		low, high = to, from
	}
	has := map[string]int{} // gained less lost
	var order []string
	for _, r := range d.Releases {
		passed := r.Version.Compare(low) > 0 && r.Version.Compare(high) <= 0
		if !low.Known() {
			passed = r.Version.Compare(high) == 0
		}
		if !passed {
			continue
		}
		for _, f := range r.Gains {
			has[f]++
			order = append(order, f)
		}
		for _, f := range r.Loses {
			has[f]--
			order = append(order, f)
		}
	}
	for _, f := range order {
		switch n := has[f]; {
		case n > 0:
			gains = append(gains, f)
		case n < 0:
			loses = append(loses, f)
		}
		has[f] = 0
	}
	if !up {
		return loses, gains
	}
	return gains, loses
}

// Chart is the device's releases as the way finder wants them.
func (d *Device) Chart() *firmware.Chart { return d.chart(nil) }

// Chart is the goggles' releases and modes as the way finder wants them.
func (g *Goggles) Chart() *firmware.Chart {
	modes := make([]firmware.Mode, len(g.Modes))
	for i, m := range g.Modes {
		modes[i] = firmware.Mode{ID: m.ID, On: m.Firmware}
	}
	return g.chart(modes)
}

func (d *Device) chart(modes []firmware.Mode) *firmware.Chart {
	moves := make([]firmware.Move, len(d.Releases))
	for i, r := range d.Releases {
		moves[i] = firmware.Move{Version: r.Version, From: r.From, OneWay: r.OneWay, RollbackTo: r.RollbackTo}
		if r.Install != nil {
			moves[i].Mode, moves[i].Activated = r.Install.Mode, r.Install.Activated
		}
	}
	var activation *firmware.Range
	if needed := d.ActivationNeeded(); needed != nil && *needed {
		activation = &d.Activation.Firmware
	}
	return firmware.NewChart(moves, modes, activation)
}

// Offers says whether a version is one of the device's releases, or its gear
// states none to hold it against.
func (d *Device) Offers(v firmware.Version) bool {
	_, listed := d.Release(v)
	return listed || len(d.Releases) == 0
}

// Release looks up a release by its version.
func (d *Device) Release(v firmware.Version) (*Release, bool) {
	for i := range d.Releases {
		if v.Known() && d.Releases[i].Version.Compare(v) == 0 {
			return &d.Releases[i], true
		}
	}
	return nil, false
}

// ActivationNeeded is nil where the gear does not say.
func (d *Device) ActivationNeeded() *bool {
	if d.Activation == nil {
		return nil
	}
	return &d.Activation.Needed
}

// Locks says whether the device is bound to the account it was activated with.
func (d *Device) Locks() bool {
	return d.Activation != nil && d.Activation.Locks != nil && *d.Activation.Locks
}

// AsDevice gives access to the part all devices share.
func (d *Device) AsDevice() *Device { return d }

// Linked is a piece of gear that carries firmware.
type Linked interface {
	Item
	AsDevice() *Device
	Chart() *firmware.Chart
}

// AirUnit is the video transmitter on the quad, with its camera.
type AirUnit struct {
	Device
	Nones
	Input  Input      `json:"input,omitzero"`
	Plug   *Plug      `json:"plug,omitempty"`
	RCOut  *RCOut     `json:"rcOut,omitempty"`
	Radio  *Radio     `json:"radio,omitempty"`
	Mount  *UnitMount `json:"mount,omitempty"`
	Camera *Camera    `json:"camera,omitempty"`
	OSD    *UnitOSD   `json:"osd,omitempty"`
	// BenchSecondsNoAir is how long it may run without moving air.
	BenchSecondsNoAir *int        `json:"benchSecondsNoAir,omitempty"`
	MassG             *unit.Grams `json:"massG,omitempty"`
	// MassWith is what its mass includes beside it; absent: not stated.
	MassWith []string `json:"massWith,omitempty"`
	Outline  *Outline `json:"outline,omitempty"` // where its pads lie
	// KeepFree is what has to stay free beside it; absent: nothing is asked for.
	KeepFree []KeepFree `json:"keepFree,omitempty"`
}

// What the mass of an air unit may include.
const (
	WithCamera   = "camera"
	WithAntennas = "antennas" // those it comes with
)

// Radio is what the link gate needs of the transmitter.
type Radio struct {
	AntennaPort
	Outlets  []Outlet         `json:"outlets,omitempty"`  // of its antennas, in their order
	BandPlan string           `json:"bandPlan,omitempty"` // its channels
	MaxMW    *unit.Milliwatts `json:"maxMW,omitempty"`
	// BenchMW is the lowest power setting, for the bench.
	BenchMW *unit.Milliwatts `json:"benchMW,omitempty"`
	// StepsMW are the power settings there are; absent: not stated.
	StepsMW []unit.Milliwatts `json:"stepsMW,omitempty"`
	// FullPowerOnlyArmed: full power is reached only with a flight board
	// connected and armed.
	FullPowerOnlyArmed *bool `json:"fullPowerOnlyArmed,omitempty"`
}

// Goggles is what the pilot wears. It links in a mode.
type Goggles struct {
	Device
	Input      Input        `json:"input,omitzero"` // what they may be fed with
	Modes      []Mode       `json:"modes,omitempty"`
	ModeSwitch []ModeSwitch `json:"modeSwitch,omitempty"`
	Receive    *AntennaPort `json:"receive,omitempty"`
	Sends      *Sender      `json:"sends,omitempty"` // absent: not stated, and not judged
	// Canvas says from which firmware on they show a canvas; absent: not stated.
	Canvas firmware.Range `json:"canvas,omitempty"`
	// BatteryWh is the energy of a battery built in; absent: not stated.
	BatteryWh *float64    `json:"batteryWh,omitempty"`
	MassG     *unit.Grams `json:"massG,omitempty"` // with what is built in
	// BoundTo is how many air units they stay bound to at once; absent: not stated.
	BoundTo *int `json:"boundTo,omitempty"`
}

// Mode is a way of linking that belongs to a generation of air units; it is
// there from some release of the goggles on.
type Mode struct {
	ID       string         `json:"id"`
	Name     string         `json:"name,omitempty"`
	Firmware firmware.Range `json:"firmware,omitempty"`
}

// ModeSwitch says whether bindings survive a change of mode.
type ModeSwitch struct {
	From  string `json:"from"`
	To    string `json:"to"`
	Keeps bool   `json:"keeps"`
}

// Mode looks up a mode by its id.
func (g *Goggles) Mode(id string) (*Mode, bool) {
	for i := range g.Modes {
		if g.Modes[i].ID == id {
			return &g.Modes[i], true
		}
	}
	return nil, false
}

// Label is the mode's name, or its id.
func (m *Mode) Label() string {
	if m.Name != "" {
		return m.Name
	}
	return m.ID
}

// SwitchKeeps says whether bindings survive the switch; nil where the gear
// does not say.
func (g *Goggles) SwitchKeeps(from, to string) *bool {
	for i := range g.ModeSwitch {
		if s := &g.ModeSwitch[i]; s.From == from && s.To == to {
			return &s.Keeps
		}
	}
	return nil
}

// Controller is the pilot's radio.
type Controller struct {
	Device
	Sends *Sender     `json:"sends,omitempty"` // absent: not stated, and not judged
	MassG *unit.Grams `json:"massG,omitempty"`
	// BoundTo is how many air units it stays bound to at once; absent: not stated.
	BoundTo *int `json:"boundTo,omitempty"`
}

// Kind of an air unit.
func (*AirUnit) Kind() Kind { return KindAirUnit }

// Kind of goggles.
func (*Goggles) Kind() Kind { return KindGoggles }

// Kind of a controller.
func (*Controller) Kind() Kind { return KindController }
