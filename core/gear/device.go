package gear

import (
	"yokeswap/core/firmware"
	"yokeswap/core/unit"
)

// Device is what air units, goggles and controllers share: releases and
// activation.
type Device struct {
	Entry
	Family     string      `json:"family,omitempty"`
	Activation *Activation `json:"activation,omitempty"`
	Releases   []Release   `json:"releases,omitempty"`
}

// Activation says whether a new device must be activated once, with an
// account and internet, and in which desktop tools that can be done.
type Activation struct {
	Needed bool     `json:"needed"`
	Tools  []string `json:"tools,omitempty"`
}

// Release is one firmware a device can carry, and how it gets there.
type Release struct {
	Version    firmware.Version   `json:"version"`
	From       firmware.Range     `json:"from,omitempty"`       // releases it installs over
	OneWay     bool               `json:"oneWay,omitempty"`     // what was there before cannot be put back
	RollbackTo []firmware.Version `json:"rollbackTo,omitempty"` // older releases that can replace it
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
}

// Moves is the device's releases as the way finder wants them.
func (d *Device) Moves() []firmware.Move {
	moves := make([]firmware.Move, len(d.Releases))
	for i, r := range d.Releases {
		moves[i] = firmware.Move{Version: r.Version, From: r.From, OneWay: r.OneWay, RollbackTo: r.RollbackTo}
	}
	return moves
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

// AsDevice gives access to the part all devices share.
func (d *Device) AsDevice() *Device { return d }

// Linked is a piece of gear that carries firmware.
type Linked interface {
	Item
	AsDevice() *Device
}

// AirUnit is the video transmitter on the quad, with its camera.
type AirUnit struct {
	Device
	Input Input  `json:"input,omitzero"`
	Radio *Radio `json:"radio,omitempty"`
	// BenchSecondsNoAir is how long it may run without moving air.
	BenchSecondsNoAir *int        `json:"benchSecondsNoAir,omitempty"`
	MassG             *unit.Grams `json:"massG,omitempty"`
}

// Radio is what the link gate needs of the transmitter.
type Radio struct {
	MaxMW *unit.Milliwatts `json:"maxMW,omitempty"`
	// BenchMW is the lowest power setting, for the bench.
	BenchMW *unit.Milliwatts `json:"benchMW,omitempty"`
	// FullPowerOnlyArmed: full power is reached only with a flight board
	// connected and armed.
	FullPowerOnlyArmed *bool `json:"fullPowerOnlyArmed,omitempty"`
}

// Goggles is what the pilot wears. It links in a mode.
type Goggles struct {
	Device
	Modes      []Mode       `json:"modes,omitempty"`
	ModeSwitch []ModeSwitch `json:"modeSwitch,omitempty"`
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
}

// Kind of an air unit.
func (*AirUnit) Kind() Kind { return KindAirUnit }

// Kind of goggles.
func (*Goggles) Kind() Kind { return KindGoggles }

// Kind of a controller.
func (*Controller) Kind() Kind { return KindController }
