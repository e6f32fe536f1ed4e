package power

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// Candidates lists the feeds every part of the fit could hang on instead
// (the pack, each pad whose voltage is known, each regulator owned or in the
// library), the usual capacitor, and the packs owned with as many cells.
func Candidates(c fleet.Case) []verdict.Candidate {
	s := newSupply(c)
	var list []verdict.Candidate
	for _, part := range s.consumers() {
		if part.regulator || part.node == fleet.NodeBoard {
			continue
		}
		list = append(list, s.feeds(part)...)
	}
	pack, _ := c.Pack()
	list = append(list, s.capacitors(pack)...)
	for _, other := range gear.All[*gear.Pack](c.Library) {
		// Another cell count would change how the whole quad flies.
		sameCells := pack != nil && pack.Cells != nil && other.Cells != nil && *pack.Cells == *other.Cells
		if other.ID != c.Fit.Pack && sameCells && c.Fleet.SpareCount(other.ID, c.Quad.ID) > 0 {
			list = append(list, verdict.Candidate{Effort: verdict.Other, Patch: fleet.Patch{Pack: new(other.ID)}})
		}
	}
	return list
}

// capacitors are the electrolytics that would bring a peak down, those in the drawer among
// them, and the right rating for the one there is.
func (s supply) capacitors(pack *gear.Pack) (list []verdict.Candidate) {
	if pack == nil {
		return nil
	}
	full := packEnvelope(pack, s.Quad).Full
	if full == nil {
		return nil
	}
	rating := ratingFor(*full)
	solder := func(uf *unit.Microfarads, rated *unit.Volts) {
		list = append(list, verdict.Candidate{
			Effort: verdict.Wire,
			Patch:  fleet.Patch{CapacitorUF: uf, CapacitorV: rated},
		})
	}
	for _, p := range Trace(s.Case).Plugins {
		if p.Cure == nil {
			continue
		}
		solder(p.Cure, &rating)
		for _, k := range gear.All[*gear.Capacitor](s.Library) {
			does := k.UF != nil && *k.UF >= *p.Cure && *k.UF <= slices.Max(capacitors) && k.RatedV != nil && *k.RatedV >= rating
			if does && s.Fleet.SpareCount(k.ID, s.Quad.ID) > 0 {
				solder(k.UF, k.RatedV)
			}
		}
	}
	if there := s.Fit.CapacitorUF; there != nil && (s.Fit.CapacitorV == nil || *s.Fit.CapacitorV < rating) {
		solder(there, &rating)
	}
	return list
}

func (s supply) feeds(part consumer) []verdict.Candidate {
	current, _ := s.Fit.FeedOf(part.node)
	var list []verdict.Candidate
	if pad, choice, ok := s.jumperOf(part.node); ok {
		for _, other := range pad.Choices {
			if other != choice {
				list = append(list, verdict.Candidate{
					Effort: verdict.Wire,
					Patch:  fleet.Patch{Jumper: &fleet.Jumper{Pad: pad.ID, Choice: other}},
				})
			}
		}
	}
	feed := func(from string) {
		if from == current || len(s.originOf(from).missing) > 0 {
			return
		}
		if patch, ok := s.feedFrom(part.node, from); ok {
			list = append(list, verdict.Candidate{Effort: verdict.Wire, Patch: patch})
		}
	}
	if s.board != nil {
		for i := range s.board.Pads {
			if pad := &s.board.Pads[i]; pad.Kind != gear.PadRegulated || pad.OutV != nil {
				feed(fleet.PadNode(pad.ID))
			}
		}
	}
	feed(fleet.NodePack)
	for _, placed := range s.Fit.Regulators {
		feed(placed.ID)
	}
	id := s.Fit.RegulatorFor(part.node)
	for _, model := range gear.All[*gear.Regulator](s.Library) {
		if placed, ok := s.Fit.Regulator(id); ok && placed.Model == model.ID {
			continue
		}
		if patch, ok := s.feedFrom(part.node, id); ok {
			patch.Regulator = &fleet.PlacedRegulator{ID: id, Model: model.ID}
			list = append(list, verdict.Candidate{Effort: verdict.Part, Patch: patch})
		}
	}
	return list
}

// feedFrom feeds a part from another source, and moves its supply wire along where the
// plan states its wires; false where a part's goes through a plug. The air unit's
// goes along where it is soldered, and comes off the board where the unit is fed from
// elsewhere: two supplies must not meet at its pin.
func (s supply) feedFrom(node, from string) (fleet.Patch, bool) {
	lead := s.ownLead(node)
	c := s.Case
	c.Fit = s.plan
	if node != fleet.NodeAirUnit && s.wired(node) {
		return netlist.Refeed(c, node, from, lead)
	}
	patch := fleet.Patch{Feed: &fleet.Feed{To: node, From: from, Lead: lead}}
	if node == fleet.NodeAirUnit {
		patch.Wiring = netlist.Resupplied(c, from)
	}
	return patch, true
}

// wired says whether the plan states the wires of a part beside the air unit.
func (s supply) wired(node string) bool {
	if part, ok := s.Fit.Part(node); ok {
		return part.Said()
	}
	cable := s.Fit.ReceiverCable
	return node == fleet.NodeReceiver && cable != nil && cable.Said()
}

// ownLead is the lead a part has already: it goes along to another feed.
func (s supply) ownLead(node string) *fleet.Lead {
	if lead := s.leadOf(node); lead != nil {
		return new(*lead.Lead)
	}
	return nil
}
