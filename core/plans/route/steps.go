package route

import (
	"fmt"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
)

// Do is what a step does.
type Do string

// The usual cautions at an update (common practice).
const (
	cautionCable = "A data cable: charge-only cables never show the device. Plug it into the device itself, not the " +
		"flight board."
	cautionPack = "Props off. Antennas and a fan on the unit before the pack goes in, short runs: it overheats without " +
		"moving air and gets too hot to touch."
)

// What a step can do.
const (
	Update   Do = "update" // or a rollback
	Mode     Do = "mode"   // switch the goggles to another mode
	Activate Do = "activate"
)

// Step is one thing to do to one device.
type Step struct {
	Device   string           `json:"device"`
	Label    string           `json:"label"`
	Role     string           `json:"role"`
	Do       Do               `json:"do"`
	Says     string           `json:"says"` // "put 1.1 on Visor B"
	From     firmware.Version `json:"from,omitempty"`
	To       firmware.Version `json:"to,omitempty"`   // update
	Mode     string           `json:"mode,omitempty"` // mode: its id
	ModeName string           `json:"modeName,omitempty"`
	Tools    []string         `json:"tools"`
	Power    string           `json:"power,omitempty"`
	Needs    []string         `json:"needs"` // conditions, in words
	Gains    []string         `json:"gains"`
	Loses    []string         `json:"loses"`
	Warns    []string         `json:"warns"`
	Minutes  *int             `json:"minutes,omitempty"` // about how long it takes; absent: not stated
	Menu     string           `json:"menu,omitempty"`    // where in the menu, as far as stated
	Cautions []string         `json:"cautions"`          // where the work can hurt, or fail for a small thing
	OneWay   bool             `json:"oneWay"`
	Back     bool             `json:"back"`
}

// step puts a step of a device's way into words.
func (d *device) step(label string, s firmware.Step) Step {
	step := Step{Device: d.key, Label: label, Role: d.role, From: s.From, To: s.To, OneWay: s.OneWay, Back: s.Back,
		Tools: []string{}, Needs: []string{}, Gains: []string{}, Loses: []string{}, Warns: []string{}, Cautions: []string{}}
	switch {
	case s.Activate:
		step.Cautions = append(step.Cautions, cautionCable)
		step.Do, step.Says = Activate, "activate "+label
		step.Needs = append(step.Needs, "an account and internet")
		step.Tools = append(step.Tools, d.model.Activation.Tools...)
	case s.To.Known():
		step.Do, step.Says = Update, fmt.Sprintf("put %s on %s", s.To, label)
		step.Cautions = append(step.Cautions, cautionCable)
		if d.unread {
			step.Needs = append(step.Needs,
				"its release read first: stop here where it carries this one already, and plan again with what it says")
		}
		d.install(&step)
		step.Minutes = d.model.UpdateMinutes
		if d.guide.Update != "" {
			step.Needs = append(step.Needs, d.guide.Update)
		}
	default:
		step.Do, step.Mode, step.ModeName = Mode, s.Mode, d.modeName(s.Mode)
		step.Says = fmt.Sprintf("switch %s to mode %s", label, step.ModeName)
		step.Menu = d.guide.Menu(s.Mode)
		if warns := d.switchWarns(s.FromMode, s.Mode); warns != "" {
			step.Warns = append(step.Warns, warns)
		}
	}
	return step
}

// install adds what is stated of an update: a rollback goes by the release that
// is on, an update by the one to come.
func (d *device) install(step *Step) {
	release, ok := d.model.Release(step.To)
	by := release
	if step.Back {
		by, _ = d.model.Release(step.From)
	}
	if by != nil && by.Install != nil {
		step.Tools, step.Power = append(step.Tools, by.Install.Tools...), by.Install.Power
		step.Needs = append(step.Needs, by.Install.Needs(d.modeName(by.Install.Mode))...)
		if step.Power == "pack" {
			step.Cautions = append(step.Cautions, cautionPack)
		}
	}
	if !ok {
		return
	}
	if release.Advice != nil {
		step.Warns = append(step.Warns, "best avoided: "+release.Advice.Why)
	}
	step.Gains, step.Loses = d.model.Changes(step.From, step.To)
}

func (d *device) modeName(id string) string {
	if d.modes == nil {
		return id
	}
	if m, ok := d.modes.Mode(id); ok {
		return m.Label()
	}
	return id
}

// switchWarns says what becomes of the bindings; empty where they are kept.
func (d *device) switchWarns(from, to string) string {
	switch keeps := d.modes.SwitchKeeps(from, to); {
	case keeps == nil:
		return fmt.Sprintf("nothing says whether %s to %s keeps the bindings", d.orNoMode(from), d.modeName(to))
	case !*keeps:
		return fmt.Sprintf("%s to %s loses the bindings: every quad flown with it is bound again", d.orNoMode(from),
			d.modeName(to))
	}
	return ""
}

func (d *device) orNoMode(id string) string {
	if id == "" {
		return "whatever mode it is in"
	}
	return d.modeName(id)
}

// Target is what becomes of a device.
type Target struct {
	Device string           `json:"device"`
	Label  string           `json:"label"`
	Role   string           `json:"role"`
	From   firmware.Version `json:"from,omitempty"`
	To     firmware.Version `json:"to,omitempty"`
	Mode   string           `json:"mode,omitempty"` // the mode goggles end in
	Uses   []ModeUse        `json:"uses"`           // goggles: which quads in which mode
	Warns  []string         `json:"warns"`          // what switching between those modes costs
}

// ModeUse is a mode and the quads it is needed for.
type ModeUse struct {
	Mode  string   `json:"mode"`
	Quads []string `json:"quads"`

	id    string
	musts int
}

// targets says what becomes of each device, and which mode goggles end in: the
// one their updates leave them in where a wanted link needs it, else the one
// most must-links need, then most links.
func (w *writer) targets(links []Link) []Target {
	list := []Target{}
	add := func(d *device, key, label string) {
		t := Target{
			Device: key,
			Label:  label,
			Role:   d.role,
			From:   d.stands.Version,
			To:     w.at[key],
			Uses:   []ModeUse{},
			Warns:  []string{},
		}
		if !t.To.Known() {
			t.To = t.From // nothing asks for another release
		}
		if d.modes != nil {
			w.modePlan(&t, d, links)
		}
		list = append(list, t)
	}
	for _, d := range w.shared {
		add(&d.device, d.key, d.label)
	}
	for _, g := range w.groups {
		for _, m := range g.members {
			add(&g.unit, m.key, m.label)
		}
	}
	return list
}

func (w *writer) modePlan(t *Target, d *device, links []Link) {
	for _, l := range links {
		if l.Goggles != d.key || l.has == nil || l.has.Mode == "" {
			continue
		}
		at := -1
		for i := range t.Uses {
			if t.Uses[i].id == l.has.Mode {
				at = i
			}
		}
		if at < 0 {
			at = len(t.Uses)
			t.Uses = append(t.Uses, ModeUse{Mode: d.modeName(l.has.Mode), id: l.has.Mode})
		}
		t.Uses[at].Quads = append(t.Uses[at].Quads, l.QuadName)
		if l.Weight == fleet.Must {
			t.Uses[at].musts++
		}
	}
	t.Mode = w.ends(d, w.chainOf(d).steps).Mode
	var best *ModeUse
	for i := range t.Uses {
		u := &t.Uses[i]
		if u.id == t.Mode {
			best = u
			break
		}
		if best == nil || u.musts > best.musts || u.musts == best.musts && len(u.Quads) > len(best.Quads) {
			best = u
		}
	}
	if best != nil {
		t.Mode = best.id
	}
	w.rests[d.key] = t.Mode
	t.Mode = d.modeName(t.Mode)
	for _, a := range t.Uses {
		for _, b := range t.Uses {
			if a.id == b.id {
				continue
			}
			if warns := d.switchWarns(a.id, b.id); warns != "" {
				t.Warns = append(t.Warns, warns)
			}
		}
	}
}

// notes says what of the kit is not what it seems.
func (w *writer) notes() []string {
	notes := []string{}
	for _, t := range w.everyDevice() {
		if t.stands.Version.Known() && !t.current.Known() {
			notes = append(notes,
				fmt.Sprintf("%s carries %s, which is not among the releases its gear lists: it counts as one nobody has read.",
					t.label, t.stands.Version))
		}
	}
	return notes
}

// everyDevice lists the devices with their own names, shared ones first.
func (w *writer) everyDevice() []*device {
	var list []*device
	for _, d := range w.shared {
		list = append(list, &d.device)
	}
	for _, g := range w.groups {
		for _, m := range g.members {
			d := g.unit
			d.key, d.label = m.key, m.label
			list = append(list, &d)
		}
	}
	return list
}
