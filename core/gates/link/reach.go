package link

import (
	"cmp"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Reach says whether a quad's next fit links with a pair of goggles.
type Reach string

// The answers.
const (
	ReachNow     Reach = "now"     // on the firmware and mode all devices carry today
	ReachAfter   Reach = "after"   // after updates or a change of mode
	ReachNever   Reach = "never"   // no firmware within reach links them
	ReachUnknown Reach = "unknown" // a version or a statement is missing
)

// reachOrder is which answer is better, the best first.
var reachOrder = []Reach{ReachNow, ReachAfter, ReachUnknown, ReachNever}

// Better says whether an answer is better than another.
func (r Reach) Better(than Reach) bool {
	return slices.Index(reachOrder, r) < slices.Index(reachOrder, than)
}

// Links says whether they link, now or after updates.
func (r Reach) Links() bool { return r == ReachNow || r == ReachAfter }

// GogglesReach is the answer for one pair of goggles.
type GogglesReach struct {
	Goggles string `json:"goggles"` // kit id
	Reach   Reach  `json:"reach"`
	Updates int    `json:"updates,omitempty"` // firmware updates the nearest plan takes
	Swap    bool   `json:"swap,omitempty"`    // the air unit has still to go in
	// Controller is what the sticks go through, by name: a controller owned or the
	// separate receiver; empty where none is needed, or none owned goes.
	Controller string `json:"controller,omitempty"`
	// NoSticks: the picture links, but no controller owned goes through it.
	NoSticks bool   `json:"noSticks,omitempty"`
	Says     string `json:"says"`
}

// ReachOf answers for one pair of goggles owned, whatever goggles the fit is
// planned with, the sticks along with the picture: a quad whose controller is lost
// on the way does not fly. Where the quad's own controller does not go along, the
// others owned are tried. Each quad is asked for itself: two quads may need the
// goggles on different releases.
func ReachOf(c fleet.Case, gogglesKit string) GogglesReach {
	slot := &fleet.Slot{Kit: gogglesKit}
	if c.Fit.Goggles != nil && c.Fit.Goggles.Kit == gogglesKit {
		slot = c.Fit.Goggles
	}
	return reachBy(c.Flown(slot, nil), gogglesKit)
}

// ReachIfBought answers for goggles of a model as they come from a shop; their model stands for them.
func ReachIfBought(c fleet.Case, model string) GogglesReach {
	return reachBy(c.Flown(&fleet.Slot{Model: model}, nil), model)
}

// ReachHolding answers for goggles owned with one controller alone, of a model as it comes from a shop.
func ReachHolding(c fleet.Case, gogglesKit, controllerModel string) GogglesReach {
	t, hasAir, hasGoggles := newSystem(c.Flown(&fleet.Slot{Kit: gogglesKit}, &fleet.Slot{Model: controllerModel}))
	if !hasAir || !hasGoggles {
		return noUnit(gogglesKit)
	}
	return t.reachWith()
}

func noUnit(goggles string) GogglesReach {
	return GogglesReach{Goggles: goggles, Reach: ReachUnknown, Says: "no air unit chosen"}
}

// reachBy answers for the goggles of a case, whatever it is flown with.
func reachBy(c fleet.Case, goggles string) GogglesReach {
	t, hasAir, hasGoggles := newSystem(c)
	if !hasAir || !hasGoggles {
		return noUnit(goggles)
	}
	best := t.reachWith()
	if best.Reach.Links() || t.separate || !t.needsSticks() {
		return best
	}
	picture := t.reachPicture()
	if !picture.Reach.Links() {
		return picture
	}
	for _, kit := range c.Fleet.PiecesOf(c.Library.Controllers()...) {
		if kit.ID == t.controllerState.KitID {
			continue
		}
		other, _, _ := newSystem(c.Flown(nil, &fleet.Slot{Kit: kit.ID}))
		r := other.reachWith()
		if r.Reach.Links() && (!best.Reach.Links() ||
			r.Updates < best.Updates) {
			best = r
		}
	}
	if best.Reach == ReachNever {
		best.NoSticks = true
		best.Says = "the picture links, but no controller owned goes through it: a separate receiver would take the sticks"
	}
	return best
}

// needsSticks says whether the sticks have to reach a flight board: they do where nobody
// has said that there is none.
func (t *system) needsSticks() bool {
	return !t.Fit.Without(fleet.NoBoard) && !t.Fit.Without(fleet.NoController)
}

// reachPicture answers for the picture alone.
func (t *system) reachPicture() GogglesReach { return t.reachAs(false) }

// reachWith answers for the picture and the sticks, as the fit has them.
func (t *system) reachWith() GogglesReach {
	r := t.reachAs(t.needsSticks() && !t.separate)
	if r.Reach.Links() {
		switch {
		case t.separate:
			r.Controller = t.Library.Label(t.Fit.Receiver)
		case t.controller != nil && t.needsSticks():
			r.Controller = t.controllerState.Label
			r.Says += ", with " + t.controllerState.Label
		}
	}
	return r
}

func (t *system) reachAs(withSticks bool) GogglesReach {
	r := GogglesReach{Goggles: cmp.Or(t.gogglesState.KitID, t.gogglesState.ModelID), Reach: ReachUnknown}
	r.Swap = t.Quad.Now.AirUnit == nil || t.Quad.Now.AirUnit.Kit != t.air.KitID || !t.air.Owned()
	list, never := t.statements()
	if never != nil {
		r.Reach, r.Says = ReachNever, "never links, whatever the firmware"
		return r
	}
	if len(list) == 0 {
		r.Says = "no statement about this pair"
		return r
	}
	if withSticks && t.controller == nil {
		r.Says = "unknown: controller, or a separate receiver, of " + t.Quad.Label()
		return r
	}
	t.reachOver(&r, list, withSticks)
	return r
}

// reachOver answers over the statements there are of the pair.
func (t *system) reachOver(r *GogglesReach, list []*gear.Pairing, withSticks bool) {
	p, video := t.holding(list)
	holds := video
	if withSticks && p != nil {
		holds = and(video, t.sticks(p))
	}
	planned := t.air.Updating() || t.gogglesState.Updating() || t.gogglesState.ToMode != t.gogglesState.Mode ||
		withSticks && t.controllerState.Updating()
	switch plans, unread := t.plans(list, withSticks); {
	case holds == yes && planned:
		if len(plans) == 0 {
			r.Reach, r.Says = ReachNever, "no permitted steps lead to what is planned"
			break
		}
		r.Reach, r.Updates, r.Says = ReachAfter, plans[0].updates, "links as planned"
	case holds == yes:
		r.Reach, r.Says = ReachNow, "links "+on(t.air.Target)+" and "+on(t.gogglesState.Target)
	case len(plans) > 0:
		r.Reach, r.Updates = ReachAfter, plans[0].updates
		r.Says = "links after " + t.describe(plans[0])
	case video == unsure:
		r.Says = "unknown: " + t.lacking(p)[0].Label
	case withSticks && holds == unsure:
		r.Says = "unknown: which controllers go through " + t.air.Label
		if p.Controllers != nil {
			r.Says = "unknown: " + carried(t.controllerState)
		}
	case unread:
		r.Says = "unknown: " + t.unread()[0].Label
	case withSticks && video == yes:
		r.Reach, r.Says = ReachNever, t.controllerState.Label+" does not go through it"
	default:
		r.Reach, r.Says = ReachNever, "no release within reach links them"
	}
}
