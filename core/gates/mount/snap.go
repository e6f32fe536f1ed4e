package mount

import (
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// offHoles is how far a part may lie from the holes that hold it: screws have as much play (from
// memory).
const offHoles unit.Millimetres = 0.5

// onHoles is where a part lies that is held by screws in holes of the frame: the middle of its
// patterns. held is false for a part that no holes of the frame hold; missing is what it cannot
// be told without.
func (s *seat) onHoles(part string) (x, y *unit.Millimetres, of string, held bool, missing []verdict.Missing) {
	switch {
	case s.frame == nil:
		return nil, nil, "", false, nil
	case part == fleet.NodeAirUnit && s.bay != nil && s.Fit.OwnHoles():
		x, y, of = s.bay.AtXMM, s.bay.AtYMM, "the holes of the "+s.bay.Label()
		if x == nil || y == nil {
			missing = append(missing, s.frameValue("bays."+s.bay.ID+".atXMM", "where the middle of its "+s.bay.Label()+" is"))
		}
	case part == fleet.NodeBoard && len(s.frame.StackPatterns) > 0:
		x, y, of = s.frame.StackAtXMM, s.frame.StackAtYMM, "the holes of the stack"
		if x == nil || y == nil {
			missing = append(missing, s.frameValue("stackAtXMM", "where the middle of its stack is"))
		}
		if _, other := s.Fit.HoldingOf(part); other {
			return nil, nil, "", false, nil
		}
	default:
		return nil, nil, "", false, nil
	}
	return x, y, of, true, missing
}

// snap is where a part of a room lies on the holes that hold it; nil where none do, or it is not
// known where they are.
func (s *seat) snap(part string, place fleet.Spot) *fleet.Spot {
	x, y, _, held, missing := s.onHoles(part)
	if !held || len(missing) > 0 {
		return nil
	}
	place.Part, place.XMM, place.YMM = part, *x, *y
	if s.crosswise(place) {
		place.Quarters = (place.Quarters + 1) % 4
	}
	return &place
}

// crosswise says whether a part that goes onto its holes in some turn does not as it lies: its
// pattern is longer one way than the other.
func (s *seat) crosswise(place fleet.Spot) bool {
	meets := func(own, under []gear.Holes, quarters int) bool {
		return slices.ContainsFunc(own, func(h gear.Holes) bool {
			return slices.ContainsFunc(under, h.Turned(quarters).Over)
		})
	}
	lies := func(quarters int) bool {
		board, there := s.Board()
		switch {
		case place.Part == fleet.NodeBoard:
			return there && meets(board.Patterns, s.frame.StackPatterns, quarters)
		case s.plate == nil:
			return meets(s.mount.Patterns, s.bay.Patterns, quarters)
		}
		from, to := []gear.Holes{s.plate.From}, []gear.Holes{s.plate.To}
		return meets(from, s.bay.Patterns, 0) && meets(s.mount.Patterns, to, quarters) ||
			meets(from, s.bay.Patterns, 1) && meets(s.mount.Patterns, to, quarters+1)
	}
	return !lies(place.Quarters) && lies(place.Quarters+1)
}

// checkOnHoles asks whether what has a place and is held by screws lies over their holes.
func (s *seat) checkOnHoles() (findings []verdict.Finding) {
	for _, place := range s.Fit.Places {
		x, y, of, held, missing := s.onHoles(place.Part)
		label, there := s.PartLabel(place.Part)
		if !held || !there {
			continue
		}
		if len(missing) > 0 {
			findings = append(findings, verdict.CannotTell(verdict.Mount, CodeOffHoles, s.Quad.Label(), missing...))
			continue
		}
		if s.crosswise(place) {
			findings = append(findings, verdict.Finding{Code: CodeOffHoles, Level: verdict.Unfit, Source: verdict.Practice,
				Subject: label, Part: place.Part,
				Says: fmt.Sprintf("%s lies crosswise on %s: they meet when it is turned by a quarter.", label, of)})
			continue
		}
		dx, dy := unit.Less(place.XMM, *x), unit.Less(place.YMM, *y)
		off := unit.Millimetres(math.Hypot(float64(dx), float64(dy)))
		if !unit.Over(off, offHoles) {
			continue
		}
		findings = append(findings, verdict.Finding{Code: CodeOffHoles, Level: verdict.Unfit, Source: verdict.Practice,
			Subject: label, Part: place.Part,
			Compares: []verdict.Compare{{
				What:   "middle of its holes",
				Needed: of,
				There:  fmt.Sprintf("%.1f mm off", float64(off)),
			}},
			Says: fmt.Sprintf("%s lies %.1f mm off %s: its screws do not meet them. Put it onto its holes, or hold it "+
				"otherwise.", label, float64(off), of)})
	}
	return findings
}
