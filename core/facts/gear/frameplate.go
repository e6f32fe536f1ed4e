package gear

import (
	"cmp"

	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// FramePlate is a plate of a frame: the frame of reference has x forward, y to the left and z up. Without
// an outline it is a block.
type FramePlate struct {
	ID      string            `json:"id"`
	Name    string            `json:"name,omitempty"`
	FromXMM unit.Millimetres  `json:"fromXMM"`       // its rear edge
	ToXMM   unit.Millimetres  `json:"toXMM"`         // its front edge
	YMM     *unit.Millimetres `json:"yMM,omitempty"` // how wide it is, its middle at y 0
	ZMM     *unit.Millimetres `json:"zMM,omitempty"` // its underside
	ThickMM *unit.Millimetres `json:"thickMM,omitempty"`
	// Outline are its corners in order, seen from above, within its edges.
	Outline []Corner `json:"outline,omitempty"`
	// Openings are cut out of it; without an outline they do not count.
	Openings []PlateOpening `json:"openings,omitempty"`
}

// Corner is a corner of an outline.
type Corner struct {
	XMM unit.Millimetres `json:"xMM"` // forward of the origin
	YMM unit.Millimetres `json:"yMM"` // to the left of the middle
}

// PlateOpening is an opening of a plate.
type PlateOpening struct {
	Corners []Corner `json:"corners"` // in order
}

// Slab is the plate where it lies; false where its width, height or thickness is not stated.
func (p *FramePlate) Slab() (space.Slab, bool) {
	if p.YMM == nil || p.ZMM == nil || p.ThickMM == nil {
		return space.Slab{}, false
	}
	if len(p.Outline) == 0 {
		at := [3]unit.Millimetres{(p.FromXMM + p.ToXMM) / 2, 0, *p.ZMM}
		return space.Standing(at, [3]unit.Millimetres{p.ToXMM - p.FromXMM, *p.YMM, *p.ThickMM}, 0).Whole(), true
	}
	rings := [][][2]int64{ringOf(p.Outline)}
	for i := range p.Openings {
		rings = append(rings, ringOf(p.Openings[i].Corners))
	}
	return space.NewSlab(rings, space.Micro(*p.ZMM), space.Micro(*p.ZMM+*p.ThickMM)), true
}

func ringOf(corners []Corner) (ring [][2]int64) {
	for _, c := range corners {
		ring = append(ring, [2]int64{space.Micro(c.XMM), space.Micro(c.YMM)})
	}
	return ring
}

// Label is the plate's name, or its id.
func (p *FramePlate) Label() string { return cmp.Or(p.Name, p.ID) }
