package antenna

import (
	"fmt"

	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

const (
	// harmonics is how far up multiples of a control link are looked for; those
	// above are weak (from memory).
	harmonics = 5
	// near is how close two bands may lie before they deafen each other, as a share
	// of the frequency (from memory).
	near = 0.05
)

// clash says, in words, that the link of a separate receiver lies near a band of
// the video or has a harmonic in it. It is empty where there is none, and missing
// names what it takes to tell.
func (p *pair) clash() (says string, missing []verdict.Missing) {
	r, ok := p.Receiver()
	if !ok || p.unit.port == nil {
		return "", nil
	}
	if r.FromMHz == nil || r.ToMHz == nil {
		return "", []verdict.Missing{verdict.GearValue(&r.Entry, "fromMHz", "frequencies of its radio")}
	}
	for _, band := range p.unit.port.Bands {
		low, high, ok := band.Ends()
		if !ok {
			continue
		}
		for n := 1; n <= harmonics; n++ {
			from, to := *r.FromMHz*unit.Megahertz(n), *r.ToMHz*unit.Megahertz(n)
			if n == 1 {
				from, to = from*(1-near), to*(1+near)
			}
			switch {
			case to < low || from > high:
			case n == 1:
				return fmt.Sprintf("%s works at %s to %s, near %s of the video", r.Label(), r.FromMHz, r.ToMHz, band), nil
			default:
				return fmt.Sprintf(
					"%s works at %s to %s, and %d times that falls into %s of the video",
					r.Label(),
					r.FromMHz,
					r.ToMHz,
					n,
					band,
				), nil
			}
		}
	}
	return "", nil
}
