package decide_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/decide"
	"yokeswap/core/plans/swap"
)

// drawnFleet is a fleet of some quads of the demo, flown for something else each, with some of its
// kit and other prices.
func drawnFleet(seed uint64, lib *gear.Library, index *fleet.Index) (*gear.Library, *fleet.Index) {
	r := rand.New(rand.NewPCG(seed, 20))
	own := *index.Fleet
	own.Quads, own.Kit, own.Wants = nil, nil, nil
	carried := map[string]bool{}
	for _, at := range r.Perm(len(index.Quads))[:5] {
		q := index.Quads[at]
		q.Next = nil
		q.Purpose = decide.Purposes[r.IntN(len(decide.Purposes))].ID
		q.Weight = new(1 + r.IntN(4))
		own.Quads = append(own.Quads, q)
		for _, s := range []*fleet.Slot{q.Now.AirUnit, q.Now.Goggles, q.Now.Controller} {
			if s != nil {
				carried[s.Kit] = true
			}
		}
	}
	for _, k := range index.Kit {
		if carried[k.ID] || r.IntN(2) == 0 {
			own.Kit = append(own.Kit, k)
		}
	}
	for _, u := range gear.All[*gear.AirUnit](lib) {
		other := *u
		other.Deals = nil
		for _, d := range u.Deals {
			if d.Price != nil {
				d.Price = new(*d.Price * (0.6 + 0.8*r.Float64()))
			}
			other.Deals = append(other.Deals, d)
		}
		lib = lib.With(&other)
	}
	return lib, fleet.NewIndex(&own)
}

// Every school gives another plan of most of 20 drawn fleets, and each keeps what it says: four of
// them in each run.
func TestSchoolsOnDrawnFleets(t *testing.T) {
	demo, index := demoFleet(t)
	fleets := uint64(4)
	if os.Getenv("SOAK") != "" {
		fleets = 20
	}
	allDiffer := uint64(0)
	for seed := range fleets {
		lib, own := drawnFleet(seed, demo, index)
		ways, err := decide.WaysOf(context.Background(), lib, own)
		require.NoError(t, err)
		budget := int64(10000 + 10000*(seed%5))
		var told []string
		for i := range decide.Schools {
			weighed, err := ways.Weigh(context.Background(), decide.Schools[i].Question(nil))
			require.NoError(t, err)
			plan := weighed.Within(budget)
			told = append(told, toldOf(&plan))
			keepsItsWord(t, fmt.Sprint("fleet ", seed, ", ", decide.Schools[i].ID), lib, own, &plan, budget)
		}
		slices.Sort(told)
		if len(slices.Compact(slices.Clone(told))) == len(told) {
			allDiffer++
		}
		t.Logf("fleet %d:\n  %s", seed, strings.Join(told, "\n  "))
	}
	assert.Greater(t, allDiffer, fleets*2/3)
}

// toldOf is what becomes of each quad, in a line.
func toldOf(plan *decide.FleetPlan) string {
	var words []string
	for _, q := range plan.Quads {
		if !q.Leave || q.Grounded {
			words = append(words, q.Quad+": "+q.Way.Label)
		}
	}
	for _, l := range plan.Bill {
		if l.Sold {
			words = append(words, "sold: "+l.Model)
		}
	}
	return strings.Join(words, "; ")
}

// keepsItsWord holds a plan against judging what it makes: no unit is on two quads, each stands as it
// is said, nothing that hides burning, falling or breaking the law is chosen, and the money does.
func keepsItsWord(t *testing.T, of string, lib *gear.Library, index *fleet.Index, plan *decide.FleetPlan, budget int64) {
	carried := map[string]bool{}
	if plan.Chosen >= 0 {
		assert.LessOrEqual(t, plan.Points[plan.Chosen].Money*100, float64(budget)+0.5, of)
	}
	for _, q := range plan.Quads {
		if kit := q.Way.Kit(); kit != "" {
			assert.False(t, carried[kit], "%s: %s is on two quads", of, kit)
			carried[kit] = true
		}
		if q.Leave {
			continue
		}
		quad, _ := index.Quad(q.Quad)
		alone := *index.Fleet
		alone.Quads = []fleet.Quad{*quad}
		c := fleet.NewCase(lib, fleet.NewIndex(&alone), quad)
		for _, p := range q.Way.Patches {
			c = c.With(p)
		}
		j := swap.Judge(c)
		assert.Equal(t, q.Way.Level, j.Level, "%s: %s", of, q.Quad)
		for _, g := range j.Gates {
			for _, f := range g.Findings {
				dangerous := f.Danger.WorseThan(verdict.Fails) && f.Level.WorseThan(verdict.Caution)
				assert.False(t, dangerous, "%s: %s: %s", of, q.Quad, f.Says)
			}
		}
	}
}
