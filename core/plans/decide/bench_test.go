package decide_test

import (
	"context"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

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

// The goals are 60 s for the fleet cold and 3 s for other weights or another quad: of 30 quads, three of
// each of the demo's with kit of their own and three without a unit, goggles and controllers for all.
func BenchmarkFleetOf30(b *testing.B) {
	s := builds.Demo()
	thirty := threeTimes(b, s.Library(), s.Fleet)
	for _, q := range thirty.Quads[:3] {
		q.ID, q.Now = "bare-"+q.ID, q.Now.Clone()
		q.Now.AirUnit = nil
		thirty.Quads = append(thirty.Quads, q)
	}
	index := fleet.NewIndex(thirty)
	var ways decide.Ways
	b.Run("cold", func(b *testing.B) {
		for b.Loop() {
			var err error
			ways, err = decide.WaysOf(context.Background(), s.Library(), index)
			require.NoError(b, err)
			weighed(b, &ways, decide.Question{})
		}
	})
	for _, quad := range []string{"damsel-0", "whip-0"} { // one with many ways, one with few
		b.Run("one quad changed, "+quad, func(b *testing.B) {
			f := *index.Fleet
			f.Quads = slices.Clone(f.Quads)
			q, _ := f.Quad(quad)
			q.FullA = nil
			for b.Loop() {
				after, err := ways.After(context.Background(), s.Library(), fleet.NewIndex(&f))
				require.NoError(b, err)
				weighed(b, &after, decide.Question{})
			}
		})
	}
	other := map[fleet.Purpose]decide.Weights{fleet.Fun: {decide.Picture: 2, decide.Range: 3, decide.Grams: 1}}
	for name, q := range map[string]decide.Question{
		"other weights": {Weights: other}, "used": {Used: true}, "used and sold": {Used: true, Sell: true},
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				weighed(b, &ways, q)
			}
		})
	}
}

// weighed weighs a fleet, all of it.
func weighed(b *testing.B, ways *decide.Ways, q decide.Question) {
	found, err := ways.Weigh(context.Background(), q)
	require.NoError(b, err)
	require.True(b, found.Within(40000).Exact)
}

// threeTimes is a fleet with three of each of its quads, and of all kit that is not worn or held.
func threeTimes(b *testing.B, lib *gear.Library, f *fleet.Fleet) *fleet.Fleet {
	out := *f
	out.Kit, out.Quads, out.Wants, out.Scenarios, out.Tasks, out.TestFlights = nil, nil, nil, nil, nil, nil
	own := map[string]bool{}
	for _, k := range f.Kit {
		if _, unit := gear.Find[*gear.AirUnit](lib, k.Model); unit {
			own[k.ID] = true
			continue
		}
		out.Kit = append(out.Kit, k)
	}
	for i := range 3 {
		named := func(id string) string {
			if own[id] {
				return fmt.Sprint(id, "-", i)
			}
			return id
		}
		for _, k := range f.Kit {
			if own[k.ID] {
				k.ID = named(k.ID)
				out.Kit = append(out.Kit, k)
			}
		}
		for _, q := range f.Quads {
			like := q
			like.ID, like.Now = fmt.Sprint(q.ID, "-", i), q.Now.Clone()
			if unit := like.Now.AirUnit; unit != nil {
				unit.Kit = named(unit.Kit)
			}
			like.Next, like.InTurn = nil, nil
			out.Quads = append(out.Quads, like)
		}
	}
	return &out
}
