package mount

import (
	"fmt"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// Round is what a propeller sweeps, or a duct around one: an upright cylinder.
type Round struct {
	Label      string           `json:"label"`
	Propeller  bool             `json:"propeller"`
	XMM        unit.Millimetres `json:"xMM"`
	YMM        unit.Millimetres `json:"yMM"`
	DiameterMM unit.Millimetres `json:"diameterMM"`
	FromMM     unit.Millimetres `json:"fromMM"`
	ToMM       unit.Millimetres `json:"toMM"`
	Clashes    bool             `json:"clashes"`

	disc space.Disc
}

// Blades lie this far around the height at which they turn, and bend up under load (from
// memory).
const (
	bladesBelow unit.Millimetres = 5
	bladesAbove unit.Millimetres = 10
)

// rounds are what the propellers of the quad sweep and the ducts around them, with what is not
// stated of them.
func (s *seat) rounds() (list []Round, missing []verdict.Missing) {
	if s.frame == nil || s.frame.Without(gear.NoRotors) {
		return nil, nil
	}
	if len(s.frame.Rotors) == 0 {
		missing = append(missing, s.frameValue("rotors", "where its propellers turn"))
	}
	prop, duct := s.Fit.PropMM, s.frame.Duct
	if prop == nil {
		missing = append(missing, verdict.FitValue(s.Case, "propMM", "diameter of the propellers of "+s.Quad.Label()))
	}
	if duct == nil && !s.frame.Without(gear.NoDuct) {
		missing = append(missing, s.frameValue("duct", "ducts around its propellers, or that it has none"))
	}
	if duct != nil && (duct.DiameterMM == nil || duct.FromMM == nil || duct.ToMM == nil) {
		missing = append(missing, s.frameValue("duct", "diameter, lower and upper edge of its ducts"))
		duct = nil
	}
	for i := range s.frame.Rotors {
		r := &s.frame.Rotors[i]
		where := corner(r) // with a space before it; empty for one in the middle
		if duct != nil {
			list = append(list, round("the duct"+where, r, *duct.DiameterMM, *duct.FromMM, *duct.ToMM))
		}
		switch {
		case r.ZMM == nil:
			missing = append(missing, s.frameValue("rotors", "height of its propellers"))
		case prop != nil:
			blades := round("the propeller"+where, r, *prop, *r.ZMM-bladesBelow, *r.ZMM+bladesAbove)
			blades.Propeller = true
			list = append(list, blades)
		}
	}
	return list, once(missing)
}

// corner is where a rotor is in words, such as " front left".
func corner(r *gear.Rotor) string {
	words := ""
	switch {
	case r.XMM > 0:
		words = " front"
	case r.XMM < 0:
		words = " rear"
	}
	switch {
	case r.YMM > 0:
		words += " left"
	case r.YMM < 0:
		words += " right"
	}
	return words
}

func round(label string, r *gear.Rotor, diameter, from, to unit.Millimetres) Round {
	return Round{
		Label: label, XMM: r.XMM, YMM: r.YMM, DiameterMM: diameter, FromMM: from, ToMM: to,
		disc: space.NewDisc(r.XMM, r.YMM, diameter, from, to),
	}
}

// hit is a part that lies in what a propeller sweeps, or in a duct.
type hit struct {
	block *Block
	round *Round
	by    int64
}

func (r *Room) hits() (list []hit) {
	for i := range r.Blocks {
		block := &r.Blocks[i]
		if block.Part == "" {
			continue // the frame is as it is
		}
		for k := range r.Rounds {
			if by := r.Rounds[k].disc.Meets(block.box); by > 0 {
				list = append(list, hit{block, &r.Rounds[k], by})
			}
		}
	}
	return list
}

// struck says what a propeller would strike, and what lies in a duct.
func (r *Room) struck() (findings []verdict.Finding) {
	for _, h := range r.hits() {
		f := verdict.Finding{Code: CodeStruck, Level: verdict.Unfit, Source: verdict.Practice, Subject: h.block.Label,
			Part: h.block.Part,
			Says: fmt.Sprintf("%s lies in what %s sweeps, by %s: it is struck when the motors start.", h.block.Label,
				h.round.Label, space.MM(h.by))}
		if !h.round.Propeller {
			f.Code = CodeRoom
			f.Says = fmt.Sprintf("%s and %s want the same room: %s reaches %s into it.", h.block.Label, h.round.Label,
				h.block.Label, space.MM(h.by))
		}
		findings = append(findings, f)
	}
	return findings
}
