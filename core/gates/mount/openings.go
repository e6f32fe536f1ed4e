package mount

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// Opening is where something of a part comes out, or is pressed or put in.
type Opening struct {
	What string    `json:"what"`
	Side gear.Side `json:"side"` // of the quad, as the part lies
	// Before is what lies before all of that side; empty: it is reached.
	Before string `json:"before,omitempty"`

	reach unit.Millimetres // what has to be free before it
}

// reaches are what has to be free before a side for what is there. USB has its plug, which the sheet
// states to be kept free.
var reaches = map[string]unit.Millimetres{
	"bind": 5,  // for the tip of a tool (common practice)
	"card": 15, // its length: microSD, SD Association, Physical Layer Specification
}

// cameraLeadWords name where the camera's lead comes out.
const cameraLeadWords = "the camera lead"

// openings are where things of the parts of a room come out, with what lies before them. Plates of
// the frame do not count: they have openings, and what can be reached of a bay says so.
func (s *seat) openings(r *Room) {
	for i := range r.Blocks {
		b := &r.Blocks[i]
		b.Openings = s.openingsOf(b.Part, b.Place)
		for k := range b.Openings {
			o := &b.Openings[k]
			o.Before = before(b, r.Blocks, o.Side, o.reach)
		}
	}
}

// openingsOf are where things of a part come out as it lies; none where that is not stated.
func (s *seat) openingsOf(part string, place *fleet.Spot) (list []Opening) {
	if place == nil {
		return nil
	}
	switch board, there := s.Board(); {
	case part == fleet.NodeAirUnit && s.hasUnit:
		for _, a := range accessWords {
			if side, stated := s.mount.Access[a.key]; stated {
				list = append(list, Opening{What: a.words, Side: turned(side, place.Quarters), reach: reaches[a.key]})
			}
		}
		if side, stated := s.mount.Access[atCamera]; stated {
			list = append(list, Opening{What: cameraLeadWords, Side: turned(side, place.Quarters)})
		}
	case part == fleet.NodeBoard && there && board.USBSide != "":
		list = append(list, Opening{What: boardUSBWords, Side: turned(board.USBSide, place.Quarters)})
	}
	return list
}

// unreached counts what of a part cannot be reached where it lies: it comes out on a side that is
// not open there, or something lies before it.
func (s *seat) unreached(b *Block, others []Block) (n int) {
	var open []gear.Side
	switch {
	case s.frame == nil:
	case b.Part == fleet.NodeAirUnit && s.bay != nil:
		open = s.bay.Open
	case b.Part == fleet.NodeBoard:
		open = s.frame.BoardOpen
	}
	for _, o := range s.openingsOf(b.Part, b.Place) {
		if o.What == cameraLeadWords {
			continue // nobody reaches for it
		}
		if open != nil && !slices.Contains(open, o.Side) || before(b, others, o.Side, o.reach) != "" {
			n++
		}
	}
	return n
}

// before is what lies before all of a side of a block, within a reach.
func before(b *Block, blocks []Block, side gear.Side, reach unit.Millimetres) string {
	to := sides[side]
	room := b.box.Beside(to.axis, to.way*space.Micro(reach))
	var others []space.Box
	label := ""
	for i := range blocks {
		o := &blocks[i]
		if _, in := room.Meets(o.box); in == 0 || o.Part == b.Part || o.Part == "" && !o.Post {
			continue
		}
		if others = append(others, o.box); label == "" {
			label = o.Label
		}
	}
	if label == "" || !room.Covered(to.axis, others) {
		return ""
	}
	return label
}

// checkOpenings asks whether what is reached at a side of the unit has anything before it.
func (s *seat) checkOpenings(r *Room) (findings []verdict.Finding) {
	s.openings(r)
	for i := range r.Blocks {
		for _, o := range r.Blocks[i].Openings {
			if o.Before == "" {
				continue
			}
			findings = append(findings, verdict.Finding{Code: CodeAccess, Level: verdict.Caution, Source: verdict.Practice,
				Subject: r.Blocks[i].Label, Part: r.Blocks[i].Part,
				Says: fmt.Sprintf("%s lies before the whole %s side of %s, where %s is: it cannot be reached. Bind, and put the "+
					"card in, before; or turn one of the two.", o.Before, o.Side, r.Blocks[i].Label, o.What)})
		}
	}
	return findings
}
