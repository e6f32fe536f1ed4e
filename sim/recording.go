package sim

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"

	"yokeswap/core/facts/fleet"
)

// Recording is what an invented recorder would have written down of a test flight, as
// subtitles: the quad goes out from spot to spot and back, the bit rate falls behind each as
// it was read there, or as far as it is from the pilot where nothing was read. Ten samples a
// second; the same seed gives the same text.
func Recording(course *fleet.Course, t *fleet.TestFlight, seed uint64) string {
	r := rand.New(rand.NewPCG(seed, 17))
	volts := 16.6
	if t.PackV != nil {
		volts = float64(*t.PackV)
	}
	var out strings.Builder
	n, at := 0, 0.0
	write := func(rate, distance float64) {
		n++
		volts -= 0.0012
		fmt.Fprintf(&out, "%d\n%s --> %s\nrate %.1f Mbit/s | delay %d ms\npack %.2f V | away %.0f m\n\n", n, subtitleTime(at),
			subtitleTime(at+0.1), rate, int(26+200/max(rate, 2)), volts, distance)
		at += 0.1
	}
	near, last := 27.0, 0.0
	for i := range course.Spots {
		spot := &course.Spots[i]
		distance := 60 * float64(i+1)
		if spot.AtM != nil {
			distance = float64(*spot.AtM)
		}
		low := max(near*math.Exp(-distance/500), 3)
		if passes := t.At(spot.ID); len(passes) > 0 && passes[0].Lowest != nil {
			low = float64(*passes[0].Lowest)
		}
		// Eight seconds on the way, four behind it.
		for k := range 80 {
			share := float64(k) / 80
			write(math.Max(low+1, near-(near-low)*share*0.6)+r.Float64()*2, last+(distance-last)*share)
		}
		for k := range 40 {
			rate := low + 0.2 + r.Float64()*1.5
			if k == 20 {
				rate = low
			}
			write(rate, distance)
		}
		last = distance
	}
	return out.String()
}

// subtitleTime is a time as subtitles have it.
func subtitleTime(s float64) string {
	ms := int(math.Round(s * 1000))
	return fmt.Sprintf("%02d:%02d:%02d,%03d", ms/3_600_000, ms/60_000%60, ms/1000%60, ms%1000)
}
