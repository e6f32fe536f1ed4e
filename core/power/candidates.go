package power

import (
	"fmt"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/verdict"
)

// Candidates lists the feeds every part of the fit could hang on instead
// (the pack, each pad, each regulator owned or in the library), the usual
// capacitor, and the packs owned with as many cells.
func Candidates(c fleet.Case) []verdict.Candidate {
	s := newSupply(c)
	var list []verdict.Candidate
	for _, part := range s.consumers() {
		if part.regulator || part.node == fleet.NodeBoard {
			continue
		}
		list = append(list, s.feeds(part)...)
	}
	for _, p := range Trace(c).Plugins {
		if p.Cure != nil {
			list = append(list, verdict.Candidate{Says: fmt.Sprintf("solder a %s 35 V low-ESR capacitor across the battery leads", p.Cure),
				Costs: "the capacitor", Effort: verdict.Wire, Patch: fleet.Patch{CapacitorUF: p.Cure}})
		}
	}
	current, _ := gear.Find[*gear.Pack](c.Library, c.Fit.Pack)
	for _, pack := range gear.All[*gear.Pack](c.Library) {
		// Another cell count would change how the whole quad flies.
		sameCells := current != nil && current.Cells != nil && pack.Cells != nil && *current.Cells == *pack.Cells
		if pack.ID != c.Fit.Pack && sameCells && c.Fleet.SpareCount(pack.ID, c.Quad.ID) > 0 {
			list = append(list, verdict.Candidate{Says: "fly it on the " + pack.Label(), Owned: true, Effort: verdict.Other,
				Patch: fleet.Patch{Pack: new(pack.ID)}})
		}
	}
	return list
}

func (s supply) feeds(part consumer) []verdict.Candidate {
	current, _ := s.Fit.FeedOf(part.node)
	var list []verdict.Candidate
	if cure, ok := s.cureByJumper(part); ok {
		list = append(list, verdict.Candidate{Says: fmt.Sprintf("set the solder jumper of pad %s to %s", cure.Pad, cure.Choice), Owned: true, Effort: verdict.Wire,
			Patch: fleet.Patch{Jumper: &cure}})
	}
	feed := func(from, words string) {
		if from != current {
			list = append(list, verdict.Candidate{Says: "feed the " + part.label + " from " + words, Owned: true, Effort: verdict.Wire,
				Patch: fleet.Patch{Feed: &fleet.Feed{To: part.node, From: from}}})
		}
	}
	if s.board != nil {
		for i := range s.board.Pads {
			pad := &s.board.Pads[i]
			feed(fleet.PadNode(pad.ID), "the "+pad.Label())
		}
	}
	feed(fleet.NodePack, "the pack, direct")
	for _, placed := range s.Fit.Regulators {
		feed(placed.ID, "the "+s.Library.Label(placed.Model)+" already fitted")
	}
	for _, model := range gear.All[*gear.Regulator](s.Library) {
		owned := s.Fleet.SpareCount(model.ID, s.Quad.ID) > 0
		cand := verdict.Candidate{Says: "feed the " + part.label + " through " + model.Label(), Owned: owned, Effort: verdict.Part,
			Patch: fleet.Patch{
				Regulator: &fleet.PlacedRegulator{ID: part.node + "-regulator", Model: model.ID},
				Feed:      &fleet.Feed{To: part.node, From: part.node + "-regulator"},
			}}
		if placed, ok := s.Fit.Regulator(part.node + "-regulator"); ok && placed.Model == model.ID {
			continue
		}
		if !owned {
			cand.Costs = "to buy"
		}
		if model.MassG != nil {
			if cand.Costs != "" {
				cand.Costs += ", "
			}
			cand.Costs += "+" + model.MassG.String()
		}
		list = append(list, cand)
	}
	return list
}
