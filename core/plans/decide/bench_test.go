package decide_test

import (
	"context"
	"testing"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/decide"
	"yokeswap/internal/builds"
)

// The goal is 150 ms a quad and unit.
func BenchmarkWholePlans(b *testing.B) {
	s := builds.Demo()
	lib, index := s.Library(), fleet.NewIndex(s.Fleet)
	for i := range index.Quads {
		q := &index.Quads[i]
		for _, u := range gear.All[*gear.AirUnit](lib) {
			b.Run(q.ID+"/"+u.ID, func(b *testing.B) {
				c := fleet.NewCase(lib, index, q)
				for b.Loop() {
					decide.For(context.Background(), c, fleet.Patch{AirUnit: &fleet.Slot{Model: u.ID}})
				}
			})
		}
	}
}

// The goal is 1 s for 12 candidates.
func BenchmarkCandidates(b *testing.B) {
	s := builds.Demo()
	lib, index := s.Library(), fleet.NewIndex(s.Fleet)
	for i := range index.Quads {
		b.Run(index.Quads[i].ID, func(b *testing.B) {
			for b.Loop() {
				b.ReportMetric(float64(len(decide.Candidates(context.Background(), fleet.NewCase(lib, index, &index.Quads[i]), nil))), "candidates")
			}
		})
	}
}
