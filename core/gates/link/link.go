// Package link is the gate that asks whether air unit, goggles and controller
// talk to each other on the firmware they will carry.
//
// Which versions link is data: the pairings of the gear packs. A statement
// that holds for the versions at hand means the pair links. Statements of
// which none holds mean it does not, and the ones that can be reached by
// updates are the change. No statement about the pair at all is unknown.
package link

import (
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// answer is a yes, a no, or not known for want of a value.
type answer int

const (
	no answer = iota
	unsure
	yes
)

func and(a, b answer) answer { return min(a, b) }

// lies asks whether a version that may be unknown lies in a range.
func lies(r firmware.Range, v firmware.Version) answer {
	switch {
	case r.Holds(v):
		return yes
	case !v.Known():
		return unsure
	}
	return no
}

// system is what has to talk: the air unit, the goggles, and the controller
// where it goes through the air unit.
type system struct {
	fleet.Case
	airUnit         *gear.AirUnit
	air             fleet.State
	goggles         *gear.Goggles
	gogglesState    fleet.State
	controller      *gear.Controller
	controllerState fleet.State
	// separate: a receiver on the quad takes the sticks.
	separate bool

	// found keeps the plans, without and with the sticks, once they are made.
	found [2]*planned
}

// planned is what plans gives.
type planned struct {
	plans  []plan
	unread bool
}

func newSystem(c fleet.Case) (t system, hasAir, hasGoggles bool) {
	t.Case = c
	t.airUnit, t.air, hasAir = c.AirUnit()
	t.goggles, t.gogglesState, hasGoggles = c.Goggles()
	t.controller, t.controllerState, _ = c.Controller()
	t.separate = c.Fit.Receiver != ""
	return t, hasAir, hasGoggles
}

// Holding is the statement that holds for the picture of a fit, with the sticks where one
// does; false where none does, or that cannot be told.
func Holding(c fleet.Case) (*gear.Pairing, bool) {
	t, hasAir, hasGoggles := newSystem(c)
	if !hasAir || !hasGoggles {
		return nil, false
	}
	p, video := t.holding(c.Library.Pairings(t.airUnit.ID, t.goggles.ID))
	return p, video == yes
}

// video asks whether a statement holds for the picture.
func (t *system) video(p *gear.Pairing) answer {
	return and(and(lies(p.AirFirmware, t.air.Target), lies(p.GogglesFirmware, t.gogglesState.Target)), t.mode(p))
}

func (t *system) mode(p *gear.Pairing) answer {
	switch {
	case p.Mode == "" || p.Mode == t.gogglesState.ToMode:
		return yes
	case t.gogglesState.ToMode == "":
		return unsure
	}
	return no
}

// sticks asks whether a statement holds for the controller too.
func (t *system) sticks(p *gear.Pairing) answer {
	switch {
	case t.separate:
		return yes
	case t.controller == nil || p.Controllers == nil:
		return unsure
	}
	for _, c := range p.Controllers {
		if c.ID == t.controller.ID {
			return lies(c.Firmware, t.controllerState.Target)
		}
	}
	return no
}

// statements about the pair of models that allow a link, and whether one of
// them says never.
func (t *system) statements() (list []*gear.Pairing, never *gear.Pairing) {
	for _, p := range t.Library.Pairings(t.airUnit.ID, t.goggles.ID) {
		if p.Never {
			return nil, p
		}
		list = append(list, p)
	}
	return list, nil
}

// holding is the statement that holds for the picture, one that holds for the
// sticks as well if there is any.
func (t *system) holding(list []*gear.Pairing) (*gear.Pairing, answer) {
	var best *gear.Pairing
	bestSticks, bestVideo := no, no
	for _, p := range list {
		v, s := t.video(p), t.sticks(p)
		if v > bestVideo || v == yes && v == bestVideo && s > bestSticks {
			best, bestVideo, bestSticks = p, v, s
		}
	}
	return best, bestVideo
}

// plan is one way to make a statement hold: what each device has to carry.
type plan struct {
	pairing         *gear.Pairing
	air             firmware.Version
	gogglesState    firmware.Version
	mode            string
	controllerState firmware.Version
	updates         int
	oneWay          int
	avoided         int // releases its maker or practice advises against
	controller      bool
	reads           []string // devices whose release has to be read first, by name
	unsure          bool     // not a way yet: hangs on a firmware nobody has read
}

// plans lists the ways to make the statements hold with the devices at hand,
// fewest updates first, then fewest one-way doors and ill-advised releases.
// Unread says that a further statement might be reached, if only the firmware
// of some device were known.
func (t *system) plans(list []*gear.Pairing, withSticks bool) (plans []plan, unread bool) {
	which := 0
	if withSticks && !t.separate {
		which = 1
	}
	if t.found[which] == nil {
		plans, unread = t.makePlans(list, withSticks)
		t.found[which] = &planned{plans, unread}
	}
	return t.found[which].plans, t.found[which].unread
}

func (t *system) makePlans(list []*gear.Pairing, withSticks bool) (plans []plan, unread bool) {
	for _, p := range list {
		made, ok := t.plan(p, withSticks)
		if ok {
			plans = append(plans, made)
		}
		unread = unread || !ok && made.unsure
	}
	slices.SortStableFunc(plans, func(a, b plan) int {
		for _, d := range []int{a.updates - b.updates, a.oneWay - b.oneWay, a.avoided - b.avoided} {
			if d != 0 {
				return d
			}
		}
		return 0
	})
	return plans, unread
}

func (t *system) plan(p *gear.Pairing, withSticks bool) (plan, bool) {
	made := plan{pairing: p, mode: t.gogglesState.ToMode}
	gogglesRange := []firmware.Range{p.GogglesFirmware}
	if p.Mode != "" {
		made.mode = p.Mode
		mode, ok := t.goggles.Mode(p.Mode)
		if !ok {
			return made, false
		}
		gogglesRange = append(gogglesRange, mode.Firmware)
	}
	var ok bool
	if made.air, ok = t.reach(&made, &t.airUnit.Device, t.air, p.AirFirmware); !ok {
		return made, false
	}
	if made.gogglesState, ok = t.reach(&made, &t.goggles.Device, t.gogglesState, gogglesRange...); !ok {
		return made, false
	}
	if !withSticks || t.separate {
		return made, true
	}
	if t.controller == nil {
		return made, false
	}
	for _, c := range p.Controllers {
		if c.ID == t.controller.ID {
			made.controller = true
			made.controllerState, ok = t.reach(&made, &t.controller.Device, t.controllerState, c.Firmware)
			return made, ok
		}
	}
	return made, false
}

// reach finds the release within the ranges that takes the fewest updates
// from what the device carries, and adds its cost to the plan.
func (t *system) reach(m *plan, d *gear.Device, s fleet.State, ranges ...firmware.Range) (firmware.Version, bool) {
	within := func(v firmware.Version) bool {
		for _, r := range ranges {
			if !r.Holds(v) {
				return false
			}
		}
		return true
	}
	if within(s.Target) && (s.Target.Known() || slices.ContainsFunc(ranges, func(r firmware.Range) bool {
		return r.IsAny()
	}) || len(d.Releases) == 0) {
		return s.Target, t.planned(m, d, s)
	}
	if !s.Current.Known() && len(d.Releases) > 0 {
		if v, ok := t.reachUnread(m, d, within); ok {
			m.reads = append(m.reads, s.Label)
			return v, true
		}
		m.unsure = true
		return "", false
	}
	best, cost := t.cheapest(d, s, within)
	if best == "" {
		m.unsure = !s.Current.Known()
		return "", false
	}
	m.updates += cost[0]
	m.oneWay += cost[1]
	m.avoided += cost[2]
	return best, true
}

// cheapest is the release within bounds that takes the fewest updates from where a device
// stands, then the fewest one-way doors, then none advised against, then the newest; with
// the three. Empty: none can be reached.
func (t *system) cheapest(
	d *gear.Device, s fleet.State, within func(firmware.Version) bool,
) (best firmware.Version, cost [3]int) {
	chart := t.Library.Chart(d.ID)
	for _, r := range d.Releases {
		if !within(r.Version) {
			continue
		}
		steps, ok := chart.Way(s.Stands(), firmware.State{Version: r.Version})
		if !ok {
			continue
		}
		c := [3]int{firmware.Updates(steps), firmware.Doors(steps), 0}
		if r.Advice != nil {
			c[2]++
		}
		order := slices.Compare(c[:], cost[:])
		if best == "" || order < 0 || order == 0 && r.Version.Compare(best) > 0 {
			best, cost = r.Version, c
		}
	}
	return best, cost
}

// reachUnread finds the release that a device nobody has read, or that is still to be
// bought, can be brought to from whichever of its releases it carries: of several the
// one that takes the fewest updates at worst, and none that is advised against where
// another does.
func (t *system) reachUnread(
	m *plan, d *gear.Device, within func(firmware.Version) bool,
) (best firmware.Version, ok bool) {
	chart := t.Library.Chart(d.ID)
	var cost [3]int
	for _, r := range d.Releases {
		if !within(r.Version) {
			continue
		}
		c, always := [3]int{}, true
		if r.Advice != nil {
			c[2]++
		}
		for _, from := range d.Releases {
			if from.Version.Compare(r.Version) == 0 {
				continue
			}
			steps, way := chart.Way(firmware.State{Version: from.Version}, firmware.State{Version: r.Version})
			always = always && way
			c[0], c[1] = max(c[0], firmware.Updates(steps)), max(c[1], firmware.Doors(steps))
		}
		order := slices.Compare(c[:], cost[:])
		if always && (!ok || order < 0 || order == 0 && r.Version.Compare(best) > 0) {
			best, cost, ok = r.Version, c, true
		}
	}
	m.updates, m.oneWay, m.avoided = m.updates+cost[0], m.oneWay+cost[1], m.avoided+cost[2]
	return best, ok
}

// planned adds what is planned for a device already; false where no permitted
// steps lead there.
func (t *system) planned(m *plan, d *gear.Device, s fleet.State) bool {
	if !s.Updating() {
		return true
	}
	steps, ok := t.Library.Chart(d.ID).Way(s.Stands(), firmware.State{Version: s.Target})
	m.updates += firmware.Updates(steps)
	m.unsure = !ok && !s.Current.Known()
	return ok
}

// patch is the change to the fit that carries out the plan.
func (t *system) patch(m plan) fleet.Patch {
	patch := fleet.Patch{
		AirUnit: t.air.Slot(m.air, ""),
		Goggles: t.gogglesState.Slot(m.gogglesState, m.mode),
	}
	if m.controller {
		patch.Controller = t.controllerState.Slot(m.controllerState, "")
	}
	return patch
}
