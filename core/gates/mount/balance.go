package mount

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Balance is where the parts of a fit that have a place balance, along the quad.
type Balance struct {
	XMM      *unit.Millimetres `json:"xMM,omitempty"` // forward of the origin; absent: no mass is known
	CountedG unit.Grams        `json:"countedG"`
	Left     []string          `json:"left"` // those without a mass
	// PackMM is how far the whole quad's balance moves when the pack is moved by 10 mm;
	// absent: the mass of the pack or of the quad is not known.
	PackMM *unit.Millimetres `json:"packMM,omitempty"`
}

// BalanceOf adds up the masses of the parts that have a place, each at its middle (the law of
// the lever). all is the mass of the whole quad, ready to fly; nil: not known.
func BalanceOf(c fleet.Case, all *unit.Grams) Balance {
	b := Balance{Left: []string{}}
	s := newSeat(c)
	r, _ := s.room()
	var moment float64
	for _, block := range r.Blocks {
		if block.Place == nil {
			continue
		}
		mass := s.massOf(block.Part)
		if mass == nil {
			b.Left = append(b.Left, block.Label)
			continue
		}
		b.CountedG += *mass
		moment += float64(*mass) * float64(block.Min[0]+block.Max[0]) / 2
	}
	if b.CountedG > 0 {
		b.XMM = new(unit.Millimetres(moment / float64(b.CountedG)))
	}
	if pack, ok := c.Pack(); ok && pack.MassG != nil && all != nil && *all > 0 {
		b.PackMM = new(unit.Millimetres(10 * float64(*pack.MassG / *all)))
	}
	return b
}

// massOf is what a part weighs that can have a place; nil: not stated, or not apart.
func (s *seat) massOf(part string) *unit.Grams {
	switch part {
	case fleet.NodeAirUnit:
		return s.airUnit.MassG
	case fleet.NodeCamera:
		return s.camera.MassG
	case fleet.NodePack:
		if p, ok := s.Pack(); ok {
			return p.MassG
		}
	case fleet.NodeBoard:
		if b, ok := s.Board(); ok {
			return b.MassG
		}
	case fleet.NodeReceiver:
		if r, ok := s.PlacedReceiver(); ok {
			return r.MassG
		}
	default:
		if placed, on := s.Fit.Part(part); on {
			if p, ok := gear.Find[*gear.Part](s.Library, placed.Model); ok {
				return p.MassG
			}
		}
	}
	return nil
}
