package decide_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/decide"
	"yokeswap/internal/builds"
)

// readyFor is a ready-made quad in the place of one of the demo, with one value of it changed.
func readyFor(t *testing.T, quad, id string, change func(*gear.ReadyQuad)) decide.Candidate {
	t.Helper()
	st := builds.Demo()
	for i := range st.Sets[0].ReadyQuads {
		if made := &st.Sets[0].ReadyQuads[i]; made.ID == id && change != nil {
			change(made)
		}
	}
	x := fleet.NewIndex(st.Fleet)
	q, ok := x.Quad(quad)
	require.True(t, ok)
	return decide.ReadyOn(fleet.NewCase(st.Library(), x, q), id)
}

// A quad bought whole stands beside the units: what it costs, weighs and flies with, against today's.
func TestBuyingAQuadReadyMade(t *testing.T) {
	st := builds.Demo()
	x := fleet.NewIndex(st.Fleet)
	quern, _ := x.Quad("whip")
	all := decide.Candidates(context.Background(), fleet.NewCase(st.Library(), x, quern), nil)
	seen, made := map[int]bool{}, 0
	for i := range all {
		seen[all[i].Ranks["price"]] = true
		if all[i].Origin == decide.ReadyMade {
			made++
		}
	}
	assert.Len(t, seen, len(all), "each has a place of its own")
	assert.Equal(t, 2, made)

	one := readyFor(t, "quern", "scutch-5", nil)
	require.NotNil(t, one.Ready)
	assert.InDelta(t, 389, *one.Ready.Price, 0)
	assert.InDelta(t, 260, *one.Ready.Used, 0)
	assert.Equal(t, "EUR", one.Ready.Currency)
	assert.Empty(t, one.Found.Plans)
	// 398 g and its pack of 6 cells, against what Quern weighs today.
	require.NotNil(t, one.Outcome.MassG)
	lib := st.Library()
	pack, _ := gear.Find[*gear.Pack](lib, "tallow-6s")
	quern, _ = x.Quad("quern")
	assert.InDelta(t, float64(398+*pack.MassG-*quern.AUWG), float64(*one.Outcome.MassG), 1e-9)
	// 1,200 mAh less a fifth at 5.6 A are 10.3 minutes.
	assert.InDelta(t, 1.2*0.8/5.6*60, *one.Outcome.HoverMin, 0.01)
	assert.NotEmpty(t, one.Outcome.Goggles)
	assert.Equal(t, verdict.Change, one.Level, "releases have to be put on first")
	assert.Contains(t, one.Ready.Says[len(one.Ready.Says)-1], "as its builder made it")
}

// Taking a value away makes a ready-made quad no better in any way it is judged by.
func TestAReadyMadeQuadLessStatedIsNoBetter(t *testing.T) {
	less := map[string]func(*gear.ReadyQuad){
		"air unit": func(r *gear.ReadyQuad) { r.AirUnit = "" },
		"board":    func(r *gear.ReadyQuad) { r.Board = "" },
		"antennas": func(r *gear.ReadyQuad) { r.Antennas = nil },
		"pack":     func(r *gear.ReadyQuad) { r.Pack = "" },
		"mass":     func(r *gear.ReadyQuad) { r.MassG = nil },
		"current":  func(r *gear.ReadyQuad) { r.HoverA = nil },
		"frame":    func(r *gear.ReadyQuad) { r.Frame = "" },
		"price":    func(r *gear.ReadyQuad) { r.Offer, r.Deals = nil, nil },
	}
	for _, id := range []string{"scutch-5", "scutch-3-cap"} {
		for _, quad := range []string{"quern", "damsel", "whip", "sluice"} {
			whole := readyFor(t, quad, id, nil)
			for what, change := range less {
				one := readyFor(t, quad, id, change)
				if one.Level != whole.Level && whole.Level != verdict.Unknown {
					assert.Contains(t, []verdict.Level{verdict.Unknown, verdict.Unfit}, one.Level, "%s for %s without its %s", id, quad, what)
				}
				if whole.Level == verdict.Unknown {
					assert.Contains(t, []verdict.Level{verdict.Unknown, verdict.Unfit}, one.Level, "%s for %s without its %s", id, quad, what)
				}
				if whole.Level == verdict.Unfit {
					continue // it was not to be had
				}
				whole.Key, one.Key = "a", "b"
				two := []decide.Candidate{whole, one}
				decide.Ranked(two)
				for side, at := range two[0].Ranks {
					assert.Less(t, at, two[1].Ranks[side], "%s for %s without its %s, by %s", id, quad, what, side)
				}
			}
		}
	}
}

// What could be bought whole stands beside the ways of a quad in a choice, priced and weighed as they are, and
// says that it is no part of it.
func TestWhatIsBoughtWholeBesideAChoice(t *testing.T) {
	lib, index := demoFleet(t)
	ways, err := decide.WaysOf(context.Background(), lib, index)
	require.NoError(t, err)
	beside := func(q decide.Question, quad string) (list []decide.OtherWay) {
		weighed, err := ways.Weigh(context.Background(), q)
		require.NoError(t, err)
		for _, plan := range weighed.Within(40000).Quads {
			for _, o := range plan.Others {
				if plan.Quad == quad && o.Origin == decide.ReadyMade {
					assert.Contains(t, o.Label, "bought whole")
					o.More += plan.Price
					list = append(list, o)
				}
			}
		}
		return list
	}
	asNew, used := beside(decide.Question{}, "hopper"), beside(decide.Question{Used: true}, "hopper")
	require.Len(t, asNew, 2)
	require.Len(t, used, 2)
	for _, o := range slices.Concat(asNew, used) {
		price := map[string]float64{"Scutch 3, ready built, bought whole": 279, "Scutch 5, ready built, bought whole": 389}[o.Label]
		if slices.Contains(used, o) && price == 389 {
			price = 260
		}
		assert.InDelta(t, price, o.More, 0.001, "beyond what is done with Hopper in the choice")
		if o.Worth > 0 {
			assert.Contains(t, o.Says, "hangs on what is not known")
		} else {
			assert.Equal(t, "worth no more", o.Says)
		}
	}
	assert.Empty(t, beside(decide.Question{OneGoggles: true}, "sluice"), "it is planned with other goggles")
	for _, o := range beside(decide.Question{}, "damsel") {
		assert.NotContains(t, o.Label, "Scutch 5", "its sticks do not go through that")
	}
}
