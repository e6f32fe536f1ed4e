package builds

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// Grow fills a stock's fleet up to so many quads: its own over and over with air units of
// their own and, every other one, a build drawn at random; each is wanted with one pair of
// goggles.
func Grow(s *stock.Stock, quads int) {
	f := *s.Fleet
	index, lib := fleet.NewIndex(s.Fleet), s.Library()
	shown := len(f.Quads)
	f.Wants, f.Scenarios = nil, nil
	var goggles []string
	for _, k := range f.Kit {
		if _, is := gear.Find[*gear.Goggles](lib, k.Model); is {
			goggles = append(goggles, k.ID)
		}
	}
	for n := len(f.Quads); n < quads; n++ {
		q := f.Quads[n%shown]
		if n%2 == 1 {
			q = New(uint64(n), lib, index).Quad("")
		}
		q.ID, q.Name = fmt.Sprintf("quad-%d", n), fmt.Sprintf("Quad %d", n)
		q.Now = q.Now.Clone()
		next := q.NextFit()
		q.Next = &next
		for _, fit := range []*fleet.Fit{&q.Now, q.Next} {
			if fit.AirUnit == nil || fit.AirUnit.Kit == "" {
				continue
			}
			kit, _ := index.Piece(fit.AirUnit.Kit)
			own := *kit
			own.ID = fmt.Sprintf("%s-%d", kit.ID, n)
			if !slices.ContainsFunc(f.Kit[max(0, len(f.Kit)-2):], func(k fleet.Kit) bool { return k.ID == own.ID }) {
				f.Kit = append(f.Kit, own)
			}
			slot := *fit.AirUnit
			slot.Kit = own.ID
			fit.AirUnit = &slot
		}
		f.Quads = append(f.Quads, q)
		f.Wants = append(f.Wants, fleet.Want{Quad: q.ID, Goggles: goggles[n%len(goggles)], Weight: fleet.Must})
	}
	s.Fleet = &f
}
