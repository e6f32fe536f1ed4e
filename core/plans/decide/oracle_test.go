package decide

import (
	"context"
	"math/rand/v2"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// mostTried is how many fits are tried of a small one.
const mostTried = 400

// everyFit goes through all fits that any changes lead to which any gates propose, in any
// order and whether they better something or not, and gives the best that is whole; false
// where they are too many.
func everyFit(c fleet.Case) (best *Cost, small bool) {
	c = c.With(change.Settle(c, fleet.Patch{})) // as a search begins
	f := newFinder(context.Background(), c, 1, allGates(), newMemory(mostMade))
	start := &node{at: swap.Lazily(c), key: f.numbers.of(c.Fit)}
	seen := map[key]bool{start.key: true}
	for list := []*node{start}; len(list) > 0; list = list[1:] {
		n := list[0]
		shutOne := false
		for i := range swap.Gates {
			v := f.gate(n, i)
			switch standingOf(&v) {
			case shut:
				shutOne = true
			case hangs, warned:
				n.left |= 1 << i
			}
			for _, candidate := range f.candidates(n, i, &v) {
				patch := change.Settle(n.at.Case, candidate.Patch)
				next := &node{at: swap.Lazily(n.at.With(patch))}
				next.key = f.numbers.of(next.at.Fit)
				if !sameDevice(next.at.Fit.AirUnit, c.Fit.AirUnit) || seen[next.key] || !f.bettersAny(n, next) {
					continue
				}
				if seen[next.key] = true; len(seen) > mostTried {
					return nil, false
				}
				list = append(list, next)
			}
		}
		if cost := f.costOf(n); !shutOne && (best == nil || cost.sofar(best) < 0) {
			best = &cost
		}
	}
	return best, true
}

// bettersAny says whether a change betters a gate that is not open.
func (f *finder) bettersAny(n, next *node) bool {
	return slices.ContainsFunc(f.gates, func(i int) bool {
		v, w := f.gate(n, i), f.gate(next, i)
		return standingOf(&v) != open && better(&w, &v)
	})
}

// few is the demo's gear with only some of what could be bought: what is in use and a few
// things more.
func few(sets []*gear.Set, index *fleet.Index, fit *fleet.Fit, draw *rand.Rand) *gear.Library {
	used := map[string]bool{}
	c := fleet.Case{Fit: fit, Fleet: index}
	c.Names(func(id string) { used[id] = true })
	some := make([]*gear.Set, len(sets))
	for i, s := range sets {
		set := *s
		keep := func(id string) bool { return used[id] || draw.IntN(4) == 0 }
		set.AirUnits = kept(set.AirUnits, keep)
		set.Regulators = kept(set.Regulators, keep)
		set.Harnesses = kept(set.Harnesses, keep)
		set.Antennas = kept(set.Antennas, keep)
		set.Receivers = kept(set.Receivers, keep)
		set.Plates = kept(set.Plates, keep)
		set.Standoffs = kept(set.Standoffs, keep)
		set.Headers = kept(set.Headers, keep)
		some[i] = &set
	}
	return gear.NewLibrary(some...)
}

func kept[T any, P interface {
	*T
	gear.Item
}](list []T, keep func(id string) bool) (left []T) {
	for i := range list {
		if keep(P(&list[i]).Head().ID) {
			left = append(left, list[i])
		}
	}
	return left
}

// The best whole plan is that of trying everything, on small fits.
func TestTheBestPlanAgainstEveryFit(t *testing.T) {
	s := builds.Demo()
	lib, index := s.Library(), fleet.NewIndex(s.Fleet)
	maker := builds.New(1616, lib, index)
	draw := rand.New(rand.NewPCG(16, 0))
	compared, whole, most := 0, 0, 40
	if os.Getenv("SOAK") != "" {
		most = 300
	}
	for i := 0; i < 3000 && compared < most; i++ {
		q := index.Quads[draw.IntN(len(index.Quads))]
		fit := q.NextFit()
		for range max(0, draw.IntN(5)-2) {
			put(&fit, group(draw.IntN(int(groups))), maker.Fit())
		}
		q.Next = &fit
		own := *index.Fleet
		own.Kit, own.Spares, own.Quads = nil, nil, []fleet.Quad{q}
		for k := range index.Kit {
			_, taken := index.Holder(index.Kit[k].ID, q.ID)
			if !taken && draw.IntN(2) == 0 {
				own.Kit = append(own.Kit, index.Kit[k])
			}
		}
		alone := fleet.NewIndex(&own)
		c := fleet.NewCase(few(s.Sets, index, &fit, draw), alone, &own.Quads[0])
		best, small := everyFit(c)
		if !small {
			continue
		}
		compared++
		found := For(context.Background(), c, fleet.Patch{})
		require.True(t, found.All)
		all := slices.Concat(found.Plans, found.Hanging)
		if best == nil {
			assert.Empty(t, all, "%d", i)
			continue
		}
		if best.Hides.WorseThan(verdict.Fails) { // nobody flies that before he has found out
			if len(all) > 0 {
				assert.GreaterOrEqual(t, all[0].Cost.sofar(best), 0)
			}
			continue
		}
		whole++
		if assert.NotEmpty(t, all, "%s %d: %+v", q.ID, i, *best) {
			assert.Zero(t, all[0].Cost.sofar(best), "%s %d: %+v against %+v", q.ID, i, all[0].Cost, *best)
		}
	}
	t.Logf("%d fits, %d of them with a whole plan", compared, whole)
	assert.Greater(t, whole, most/8)
}
