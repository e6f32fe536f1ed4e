package mount

import (
	"fmt"

	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// restsWithin is how far a part may lie off the plate that it is stuck or tied to: a thick pad lies between
// (from memory).
const restsWithin unit.Millimetres = 5

// checkRests asks whether a part that is stuck or tied to a plate has the plate there: over an opening, or past
// its edge, it holds on less than it looks. It says a caution alone: what is loosely held is one at best
// anyway, so that nothing is better for a plate that nobody has drawn.
func (s *seat) checkRests(r *Room) (findings []verdict.Finding) {
	for i := range r.Blocks {
		part := &r.Blocks[i]
		hold, held := s.HoldingOf(part.Part)
		if part.Part == "" || !held || !ways[hold.Way].loose {
			continue
		}
		if plate := r.open(part); plate != nil {
			findings = append(findings, verdict.Finding{Code: CodeOpen, Level: verdict.Caution, Source: verdict.Practice,
				Subject: part.Label, Part: part.Part,
				Says: fmt.Sprintf("Less than half of a corner of %s lies on %s, which is open or ends there: held by %s it lets "+
					"go there first. Move it onto the plate, or put a floor under it.", part.Label, plate.Label, hold.Words())})
		}
	}
	return findings
}

// open is the plate a part lies against that is not there under one of its corners; nil: none, or another
// that it lies against is there.
func (r *Room) open(part *Block) (open *Block) {
	for i := range r.Blocks {
		plate := &r.Blocks[i]
		switch {
		case plate.slab == nil || !part.touches(plate):
		case len(plate.Outlines) == 0 || lies(plate.slab, part.box):
			return nil
		case open == nil:
			open = plate
		}
	}
	return open
}

// touches says whether a part lies on a plate or under it, seen from above over the least block around it.
func (b *Block) touches(plate *Block) bool {
	over := func(axis int) bool {
		return b.box.Max[axis] > plate.box.Min[axis] && b.box.Min[axis] < plate.box.Max[axis]
	}
	near := func(apart int64) bool { return apart >= 0 && apart <= space.Micro(restsWithin) }
	return over(space.X) && over(space.Y) &&
		(near(b.box.Min[space.Z]-plate.box.Max[space.Z]) || near(plate.box.Min[space.Z]-b.box.Max[space.Z]))
}
