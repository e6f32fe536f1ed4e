package format

import (
	"time"

	"yokeswap/core/facts/fleet"
)

// checkHoldings checks how parts of a fit are held: each part once, and one that is there or
// can be; a second way that is another; a day only beside what comes on it.
func checkHoldings(ps *Problems, path string, f *fleet.Fit) {
	held := map[string]string{}
	for i, h := range f.Holdings {
		at := path + "." + indexed("holdings", i)
		once(ps, held, at+".part", h.Part)
		if !f.CanHold(h.Part) {
			ps.add(at+".part", "expected airUnit, camera, antennas, receiver, or the id of a part of this fit, %q is none",
				h.Part)
		}
		if h.Second == h.Way {
			ps.add(at+".second", "expected another way than the first, got %q twice", h.Way)
		}
		if h.Due == "" {
			continue
		}
		if _, err := time.Parse(time.DateOnly, h.Due); err != nil {
			ps.add(at+".due", "%s is no day of the calendar", h.Due)
		}
		if h.Awaits == "" {
			ps.add(at+".due", "nothing is awaited: state what comes on that day")
		}
	}
}
