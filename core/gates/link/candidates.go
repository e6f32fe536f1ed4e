package link

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// Candidates lists the plans that make a statement hold, and the other
// goggles, air units and controllers that could be used instead, and separate
// receivers for the sticks.
func Candidates(c fleet.Case) []verdict.Candidate {
	t, hasAir, hasGoggles := newSystem(c)
	var list []verdict.Candidate
	if hasAir && hasGoggles {
		list = append(list, t.firmwareCandidates()...)
	}
	tried := map[string]bool{} // of pieces alike one stands for all
	for i := range c.Fleet.Kit {
		kit := &c.Fleet.Kit[i]
		cand, ok := t.swapTo(kit.Model, &fleet.Slot{Kit: kit.ID})
		if !ok || t.uses(kit.ID) {
			continue
		}
		if _, taken := c.Fleet.Holder(kit.ID, c.Quad.ID); taken {
			continue
		}
		flying, flies := c.Fleet.Flier(kit.ID, c.Quad.ID)
		alike := kit.Alike()
		if flies {
			alike += " flying"
		}
		if tried[alike] {
			continue
		}
		tried[alike] = true
		if flies {
			cand.Costs = "from " + flying.Label() + ", once that is swapped"
		}
		list = append(list, t.withPlan(cand)...)
	}
	for _, item := range c.Library.Items() {
		id := item.Head().ID
		if c.Fleet.OwnsModel(id) || id == t.air.ModelID {
			continue
		}
		if _, isUnit := item.(*gear.AirUnit); !isUnit {
			continue
		}
		cand, _ := t.swapTo(id, &fleet.Slot{Model: id})
		list = append(list, t.withPlan(cand)...)
	}
	if !t.separate && c.Fit.Board != "" {
		list = append(list, t.receiverCandidates()...)
	}
	return list
}

// receiverCandidates are the separate receivers on each regulated pad.
func (t *system) receiverCandidates() []verdict.Candidate {
	board, ok := t.Board()
	if !ok {
		return nil
	}
	var list []verdict.Candidate
	for _, r := range t.Receivers() {
		if r.ID == board.BuiltIn {
			list = append(list, t.withPlan(verdict.Candidate{Effort: verdict.Setting, Patch: t.Receive(r.ID)})...)
			continue
		}
		for i := range board.Pads {
			pad := &board.Pads[i]
			if pad.Kind != gear.PadRegulated {
				continue
			}
			cand := verdict.Candidate{Effort: verdict.Part,
				Patch: fleet.Patch{Receiver: new(r.ID), Feed: &fleet.Feed{To: fleet.NodeReceiver, From: fleet.PadNode(pad.ID)}}}
			list = append(list, t.withPlan(cand)...)
		}
	}
	return list
}

// firmwareCandidates are the plans for the devices at hand.
func (t *system) firmwareCandidates() []verdict.Candidate {
	statements, _ := t.statements()
	var list []verdict.Candidate
	for _, withSticks := range []bool{true, false} {
		plans, _ := t.plans(statements, withSticks)
		for _, m := range plans {
			if words := t.describe(m); words != "" {
				list = append(list, verdict.Candidate{Patch: t.patch(m)})
			}
		}
	}
	return list
}

// swapTo is the change that puts another device into its slot.
func (t *system) swapTo(model string, slot *fleet.Slot) (verdict.Candidate, bool) {
	item, _ := t.Library.Item(model)
	switch item.(type) {
	case *gear.AirUnit:
		return verdict.Candidate{Effort: verdict.Part, Patch: fleet.Patch{AirUnit: slot}}, true
	case *gear.Goggles:
		return verdict.Candidate{Effort: verdict.Other, Patch: fleet.Patch{Goggles: slot}}, true
	case *gear.Controller:
		return verdict.Candidate{Effort: verdict.Other, Patch: fleet.Patch{Controller: slot}},
			!t.separate && t.Fit.Board != ""
	}
	return verdict.Candidate{}, false
}

func (t *system) uses(kitID string) bool {
	return kitID == t.air.KitID || kitID == t.gogglesState.KitID || kitID == t.controllerState.KitID
}

// withPlan adds to a candidate the firmware plan it would need, if it needs
// one and there is one.
func (t *system) withPlan(cand verdict.Candidate) []verdict.Candidate {
	after, hasAir, hasGoggles := newSystem(t.With(cand.Patch))
	if !hasAir || !hasGoggles {
		return []verdict.Candidate{cand}
	}
	statements, never := after.statements()
	if never != nil {
		return nil
	}
	plans, _ := after.plans(statements, true)
	if len(plans) == 0 {
		plans, _ = after.plans(statements, false)
	}
	if len(plans) == 0 {
		return []verdict.Candidate{cand}
	}
	if words := after.describe(plans[0]); words != "" {
		patch := after.patch(plans[0])
		patch.Receiver, patch.Feed = cand.Patch.Receiver, cand.Patch.Feed
		cand.Patch = patch
	}
	return []verdict.Candidate{cand}
}
