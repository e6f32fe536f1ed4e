package link

import (
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Picture shows the statements about a pair as bars over the releases of each
// device, with what is there and what is planned.
type Picture struct {
	Lanes []Lane `json:"lanes"`
	Bars  []Bar  `json:"bars"`
	Never string `json:"never,omitempty"` // why the pair never links
}

// Lane is a device with its releases in order.
type Lane struct {
	Role     string        `json:"role"` // "airUnit", "goggles", "controller"
	Label    string        `json:"label"`
	Releases []ReleaseMark `json:"releases"`
	Current  string        `json:"current,omitempty"` // absent: not known
	Target   string        `json:"target,omitempty"`
	Mode     string        `json:"mode,omitempty"`
	ToMode   string        `json:"toMode,omitempty"`
}

// ReleaseMark is one release on a lane.
type ReleaseMark struct {
	Version string `json:"version"`
	OneWay  bool   `json:"oneWay,omitempty"`
	Avoid   string `json:"avoid,omitempty"`
	Listed  bool   `json:"listed"` // false: on the device, but not in its gear; placed by order
}

// Bar is one statement: which releases of each lane it covers.
type Bar struct {
	Pairing  string              `json:"pairing"`
	Mode     string              `json:"mode,omitempty"`
	Covers   map[string][]string `json:"covers"` // lane role to versions
	Ranges   map[string]string   `json:"ranges"` // lane role to the range in words
	Features []string            `json:"features"`
	Holds    bool                `json:"holds"`
}

// Draw makes the picture of one fit. It is empty where the fit lacks an air
// unit or goggles.
func Draw(c fleet.Case) Picture {
	t, hasAir, hasGoggles := newSystem(c)
	pic := Picture{Lanes: []Lane{}, Bars: []Bar{}}
	if hasAir {
		pic.Lanes = append(pic.Lanes, lane("airUnit", &t.airUnit.Device, t.air))
	}
	if hasGoggles {
		l := lane("goggles", &t.goggles.Device, t.gogglesState)
		l.Mode, l.ToMode = t.modeOrNone(t.gogglesState.Mode), t.modeOrNone(t.gogglesState.ToMode)
		pic.Lanes = append(pic.Lanes, l)
	}
	withHand := t.controller != nil && !t.separate
	if withHand {
		pic.Lanes = append(pic.Lanes, lane("controller", &t.controller.Device, t.controllerState))
	}
	if !hasAir || !hasGoggles {
		return pic
	}
	list, never := t.statements()
	if never != nil {
		pic.Never = "never links, whatever the firmware"
		if never.Note != "" {
			pic.Never += ". " + never.Note
		}
	}
	for _, p := range list {
		pic.Bars = append(pic.Bars, t.bar(p, pic.Lanes))
	}
	return pic
}

// bar is what a statement covers of each lane.
func (t *system) bar(p *gear.Pairing, lanes []Lane) Bar {
	bar := Bar{
		Pairing:  p.ID,
		Mode:     t.modeOrNone(p.Mode),
		Covers:   map[string][]string{},
		Ranges:   map[string]string{},
		Features: append([]string{}, p.Features...),
		Holds:    t.video(p) == yes && t.sticks(p) == yes,
	}
	for _, l := range lanes {
		r, stated := p.AirFirmware, true
		switch l.Role {
		case "goggles":
			r = p.GogglesFirmware
		case "controller":
			r, stated = controllerRange(p, t.controller.ID)
		}
		bar.Covers[l.Role] = []string{}
		if !stated {
			bar.Ranges[l.Role] = "not with this controller"
			continue
		}
		bar.Ranges[l.Role] = r.String()
		for _, m := range l.Releases {
			if r.Holds(firmware.Version(m.Version)) {
				bar.Covers[l.Role] = append(bar.Covers[l.Role], m.Version)
			}
		}
	}
	return bar
}

func controllerRange(p *gear.Pairing, id string) (firmware.Range, bool) {
	for _, c := range p.Controllers {
		if c.ID == id {
			return c.Firmware, true
		}
	}
	return "", false
}

func (t *system) modeOrNone(id string) string {
	if id == "" {
		return ""
	}
	return t.modeLabel(id)
}

func lane(role string, d *gear.Device, s fleet.State) Lane {
	l := Lane{Role: role, Label: s.Label, Releases: []ReleaseMark{}, Current: string(s.Read), Target: string(s.Target)}
	for _, r := range d.Releases {
		mark := ReleaseMark{Version: string(r.Version), OneWay: r.OneWay, Listed: true}
		if r.Advice != nil {
			mark.Avoid = r.Advice.Why
		}
		l.Releases = append(l.Releases, mark)
	}
	for _, v := range []firmware.Version{s.Read, s.Target} {
		if _, listed := d.Release(v); v.Known() && !listed &&
			!slices.ContainsFunc(l.Releases, func(m ReleaseMark) bool { return m.Version == string(v) }) {
			l.Releases = append(l.Releases, ReleaseMark{Version: string(v)})
		}
	}
	slices.SortStableFunc(l.Releases, func(a, b ReleaseMark) int {
		return firmware.Version(a.Version).Compare(firmware.Version(b.Version))
	})
	return l
}
