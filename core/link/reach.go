package link

import (
	"yokeswap/core/fleet"
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

// GogglesReach is the answer for one pair of goggles.
type GogglesReach struct {
	Goggles string `json:"goggles"` // kit id
	Reach   Reach  `json:"reach"`
	Updates int    `json:"updates"` // firmware updates the nearest plan takes
	Swap    bool   `json:"swap"`    // the air unit has still to go in
	Says    string `json:"says"`
}

// ReachOf answers for one pair of goggles owned, whatever goggles the fit is
// planned with. Only the picture is asked after, and each quad for itself:
// two quads may need the goggles on different releases.
func ReachOf(c fleet.Case, gogglesKit string) GogglesReach {
	r := GogglesReach{Goggles: gogglesKit, Reach: ReachUnknown, Says: "no air unit chosen"}
	slot := &fleet.Slot{Kit: gogglesKit}
	if c.Fit.Goggles != nil && c.Fit.Goggles.Kit == gogglesKit {
		slot = c.Fit.Goggles
	}
	c = c.With(fleet.Patch{Goggles: slot})
	t, hasAir, hasGoggles := newTrio(c)
	if !hasAir || !hasGoggles {
		return r
	}
	r.Swap = c.Quad.Now.AirUnit == nil || c.Quad.Now.AirUnit.Kit != t.air.KitID || !t.air.Owned()
	list, never := t.statements()
	if never != nil {
		r.Reach, r.Says = ReachNever, "never links, whatever the firmware"
		return r
	}
	if len(list) == 0 {
		r.Says = "no statement about this pair"
		return r
	}
	p, video := t.holding(list)
	switch plans, unread := t.plans(list, false); {
	case video == yes && (t.air.Updating() || t.eyes.Updating() || t.eyes.ToMode != t.eyes.Mode):
		if len(plans) == 0 {
			r.Reach, r.Says = ReachNever, "no permitted steps lead to what is planned"
			break
		}
		r.Reach, r.Updates, r.Says = ReachAfter, plans[0].updates, "links as planned"
	case video == yes:
		r.Reach, r.Says = ReachNow, "links "+on(t.air.Target)+" and "+on(t.eyes.Target)
	case video == unsure:
		r.Says = "unknown: " + t.lacking(p)[0].Label
	case len(plans) > 0:
		r.Reach, r.Updates = ReachAfter, plans[0].updates
		r.Says = "links after " + t.describe(plans[0])
	case unread:
		r.Says = "unknown: " + t.unread()[0].Label
	default:
		r.Reach, r.Says = ReachNever, "no release within reach links them"
	}
	return r
}
