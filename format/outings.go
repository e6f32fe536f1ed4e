package format

import (
	"time"

	"yokeswap/core/facts/fleet"
)

// checkOutings checks what a quad has flown: days of the calendar, and a look after a crash alone.
func checkOutings(ps *Problems, path string, q *fleet.Quad) {
	for i, o := range q.Outings {
		at := path + "." + indexed("outings", i)
		if _, err := time.Parse(time.DateOnly, o.On); err != nil {
			ps.add(at+".on", "%s is no day of the calendar", o.On)
		}
		if o.Looked && !o.Crash {
			ps.add(at+".looked", "looked over after a crash, and there was none")
		}
	}
}
