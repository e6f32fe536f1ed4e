package decide_test

import (
	"context"
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/decide"
)

// fleetWith is a fleet with its ways.
type fleetWith struct {
	lib   *gear.Library
	index *fleet.Index
	ways  *decide.Ways
}

func (f *fleetWith) weigh(t *testing.T, q decide.Question) *decide.Weighed {
	weighed, err := f.ways.Weigh(context.Background(), q)
	require.NoError(t, err)
	return weighed
}

func newFleetWith(t *testing.T, lib *gear.Library, f *fleet.Fleet) *fleetWith {
	index := fleet.NewIndex(f)
	ways, err := decide.WaysOf(context.Background(), lib, index)
	require.NoError(t, err)
	return &fleetWith{lib, index, &ways}
}

var wornOnce = map[float64]*fleetWith{}

// worn is the demo's fleet with what its goggles bring, and without fits in turn.
func worn(t *testing.T, brings float64) *fleetWith {
	if wornOnce[brings] == nil {
		lib, index := demoFleet(t)
		for _, g := range gear.All[*gear.Goggles](lib) {
			other := *g
			other.Deals = slices.DeleteFunc(slices.Clone(g.Deals), func(d gear.Deal) bool { return d.Kind == gear.DealResale })
			if brings > 0 {
				other.Deals = append(other.Deals, gear.Deal{ID: "resale", Kind: gear.DealResale,
					Offer: gear.Offer{Price: &brings, Currency: "EUR"}})
			}
			lib = lib.With(&other)
		}
		own := *index.Fleet
		own.Quads = slices.Clone(own.Quads)
		for i := range own.Quads {
			own.Quads[i].InTurn = nil
		}
		wornOnce[brings] = newFleetWith(t, lib, &own)
	}
	return wornOnce[brings]
}

// Goggles that are sold are flown with by nobody, whoever flew with them alone is grounded, and what
// they bring is on the bill; what a quad is worth to visitors does not count them.
func TestGogglesThatAreSold(t *testing.T) {
	f := worn(t, 40)
	lib, index, w := f.lib, f.index, f.weigh(t, decide.Question{Used: true, Sell: true})
	sold, grounded := 0, 0
	for _, p := range w.Within(0).Points {
		plan := w.Within(int64(math.Round(p.Money * 100)))
		var worth int64
		for _, q := range plan.Quads {
			worth += q.Worth
			if q.Grounded {
				grounded++
			}
			for _, d := range plan.Devices {
				quad, _ := index.Quad(q.Quad)
				if planned := quad.NextFit(); d.Sold && planned.Goggles != nil && planned.Goggles.Kit == d.Kit {
					whole := slices.ContainsFunc(q.Others, func(o decide.OtherWay) bool { return o.Origin == decide.ReadyMade })
					assert.False(t, whole, "what is bought whole would be flown with %s", d.Label)
				}
				g := q.Way.Fit().Goggles
				if d.Sold && g != nil && g.Kit == d.Kit {
					flies := decide.LinkOpen(fleet.NowCase(lib, index, quad))
					assert.True(t, q.Leave && q.Grounded == flies, "%s flies with %s", q.Name, d.Label)
				}
			}
		}
		assert.Equal(t, p.Worth, worth)
		require.NotEmpty(t, plan.Devices)
		gone := 0
		for _, d := range plan.Devices {
			onBill := slices.ContainsFunc(plan.Bill, func(l decide.BillLine) bool { return l.Sold && l.Label == d.Label })
			assert.Equal(t, d.Sold, onBill, d.Label)
			assert.NotNil(t, d.Quads, "a list, also where it is empty")
			if d.Sold {
				assert.Empty(t, d.Quads)
				kit, _ := index.Piece(d.Kit)
				if _, goggles := gear.Find[*gear.Goggles](lib, kit.Model); goggles {
					gone++
					assert.InDelta(t, 40, *d.Brings, 0)
				}
			}
		}
		sold += gone
		for _, q := range plan.Quads {
			for _, r := range q.Rows {
				if r.Criterion == decide.Visitors {
					assert.Contains(t, r.Says, map[int]string{0: "of 3", 1: "of 2", 2: "of 1", 3: "of 0"}[gone])
				}
			}
		}
	}
	assert.Greater(t, sold, 5)
	assert.Positive(t, grounded)
}

// What goggles bring makes nothing dearer, and nothing is had for it that could not be had without: where
// nobody counts visitors and nobody is grounded, for as much more as they bring.
func TestWhatGogglesBringIsAllTheyAdd(t *testing.T) {
	weights := map[fleet.Purpose]decide.Weights{}
	for _, p := range decide.Purposes {
		weights[p.ID] = decide.Weights{decide.Picture: 3, decide.Records: 2, decide.Flies: 2, decide.Latency: 1}
	}
	q := decide.Question{Used: true, Sell: true, Weights: weights}
	with, without := worn(t, 40).weigh(t, q), worn(t, 0).weigh(t, q)
	for _, p := range without.Within(0).Points {
		plan := with.Within(int64(math.Round(p.Money * 100)))
		require.GreaterOrEqual(t, plan.Chosen, 0)
		assert.GreaterOrEqual(t, plan.Points[plan.Chosen].Worth, p.Worth)
	}
	held := 0
	for _, p := range with.Within(0).Points {
		plan := with.Within(int64(math.Round(p.Money * 100)))
		if slices.ContainsFunc(plan.Quads, func(q decide.QuadPlan) bool { return q.Grounded }) {
			continue
		}
		more := 0.0
		for _, d := range plan.Devices {
			if d.Sold {
				more += *d.Brings
			}
		}
		least := without.Within(int64(math.Round((p.Money + more) * 100)))
		require.GreaterOrEqual(t, least.Chosen, 0)
		assert.GreaterOrEqual(t, least.Points[least.Chosen].Worth, p.Worth)
		held++
	}
	assert.Greater(t, held, 3)
}

// Where goggles nobody flies with are kept, it is said what the choice would be worth less without them: as much
// as the quads count them for.
func TestGogglesThatAreKeptForVisitors(t *testing.T) {
	f := worn(t, 40)
	weights := map[fleet.Purpose]decide.Weights{}
	for _, p := range decide.Purposes {
		weights[p.ID] = decide.Weights{decide.Visitors: 1}
	}
	said := 0
	for _, q := range []decide.Question{{OneGoggles: true, Weights: weights}, {OneGoggles: true, Sell: true, Used: true, Weights: weights}} {
		w := f.weigh(t, q)
		for _, p := range w.Within(0).Points {
			plan := w.Within(int64(math.Round(p.Money * 100)))
			for _, d := range plan.Devices {
				if d.Sold || len(d.Quads) > 0 || d.Brings == nil {
					continue
				}
				var less int64
				left := 0
				for _, other := range plan.Devices {
					kit, _ := f.index.Piece(other.Kit)
					if kit == nil {
						continue
					}
					if _, goggles := gear.Find[*gear.Goggles](f.lib, kit.Model); goggles && !other.Sold {
						left++
					}
				}
				kit, _ := f.index.Piece(d.Kit)
				_, goggles := gear.Find[*gear.Goggles](f.lib, kit.Model)
				for _, q := range plan.Quads {
					if len(q.Rows) == 0 || !goggles {
						continue
					}
					var links, of int
					_, err := fmt.Sscanf(q.Rows[0].Says, "%d of %d goggles", &links, &of)
					if err != nil {
						continue
					}
					require.Equal(t, left, of)
					counted := links
					if slices.Contains(decide.LinkedWith(&q.Way), d.Label) {
						counted--
					}
					share := 0.0
					if of > 1 {
						share = float64(counted) / float64(of-1)
					}
					less += q.Worth - int64(math.Round(share*float64(q.Weight*1000)))
				}
				if less > 0 {
					said++
					assert.Contains(t, d.Says, fmt.Sprintf("worth %d less to visitors", less))
				} else {
					assert.NotContains(t, d.Says, "visitors", "%s, %d", d.Label, less)
				}
			}
		}
	}
	assert.Positive(t, said)
}

// In order, all that is sold is sold once, and goggles not before the last quad that flies with them is
// changed.
func TestWhenGogglesAreSold(t *testing.T) {
	f := worn(t, 40)
	lib, index := f.lib, f.index
	flownWith := func(id string) (label string) {
		quad, _ := index.Quad(id)
		if g := quad.Now.Goggles; g != nil && decide.LinkOpen(fleet.NowCase(lib, index, quad)) {
			kit, _ := index.Piece(g.Kit)
			label = kit.Label()
		}
		return label
	}
	later := 0
	for _, q := range []decide.Question{{Used: true, Sell: true}, {Used: true, Sell: true, OneGoggles: true}} {
		w := f.weigh(t, q)
		for _, p := range w.Within(0).Points {
			budget := int64(math.Round(p.Money * 100))
			plan := w.Within(budget)
			o := w.Order(context.Background(), budget, decide.Purse{Now: 1000}, decide.Calendar{From: firstDay, Every: 7})
			sold, ahead := slices.Clone(o.Sells), []string{}
			for _, stage := range o.Stages {
				sold = append(sold, stage.Sells...)
				for _, quad := range stage.Quads {
					ahead = append(ahead, flownWith(quad.Quad))
				}
			}
			var onBill []string
			for _, l := range plan.Bill {
				if l.Sold {
					onBill = append(onBill, l.Label)
				}
			}
			assert.ElementsMatch(t, onBill, sold)
			for _, label := range o.Sells {
				assert.NotContains(t, ahead, label)
			}
			for _, stage := range o.Stages {
				ahead = ahead[len(stage.Quads):]
				for _, label := range stage.Sells {
					assert.NotContains(t, ahead, label)
					if slices.ContainsFunc(plan.Devices, func(d decide.DevicePlan) bool { return d.Label == label }) {
						later++
					}
				}
			}
		}
	}
	assert.Positive(t, later)
}

// What goggles bring in a currency of which no rate is stated is never added: it is said.
func TestGogglesThatBringForeignMoney(t *testing.T) {
	f := worn(t, 0)
	oldest, _ := gear.Find[*gear.Goggles](f.lib, "visor-a")
	other := *oldest
	other.Deals = append(other.Deals, gear.Deal{ID: "resale", Kind: gear.DealResale,
		Offer: gear.Offer{Price: new(60.0), Currency: "SEK"}})
	whip, _ := f.index.Quad("whip")
	own := *f.index.Fleet
	own.Quads = []fleet.Quad{*whip}
	one := newFleetWith(t, f.lib.With(&other), &own)
	plan := one.weigh(t, decide.Question{Sell: true}).Within(0)
	require.NotEmpty(t, plan.Devices)
	assert.False(t, plan.Devices[0].Sold)
	assert.Equal(t, "Nobody flies with it in this choice; what it would bring is stated in SEK, of which no rate is.",
		plan.Devices[0].Says)
	assert.Contains(t, plan.Foreign, other.Label())
	asked := one.weigh(t, decide.Question{}).Within(0)
	assert.NotContains(t, asked.Foreign, other.Label(), "nothing is sold")
}

// Of two pairs that are called the same one is sold, and the other still counts.
func TestOneOfTwoPairs(t *testing.T) {
	f := worn(t, 40)
	lib, own := f.lib, *f.index.Fleet
	whip, _ := f.index.Quad("whip")
	own.Quads = []fleet.Quad{*whip}
	twin, _ := f.index.Piece("visor-b-1")
	again := *twin
	again.ID = "visor-b-2"
	own.Quads[0].InTurn = []fleet.TurnFit{{ID: "turn", Fit: fleet.Fit{Goggles: &fleet.Slot{Kit: again.ID}}}} // kept for that
	own.Kit = append(slices.Clone(own.Kit), again)
	weights := map[fleet.Purpose]decide.Weights{whip.Purpose: {decide.Visitors: 1, decide.Flies: 1}}
	pairs := newFleetWith(t, lib, &own)
	w := pairs.weigh(t, decide.Question{Sell: true, Weights: weights})
	one := 0
	for _, p := range w.Within(0).Points {
		plan := w.Within(int64(math.Round(p.Money * 100)))
		left, twins := 0, 0
		for _, d := range plan.Devices {
			kit, _ := pairs.index.Piece(d.Kit)
			if _, goggles := gear.Find[*gear.Goggles](lib, kit.Model); goggles && !d.Sold {
				left++
			}
			if kit.Model == twin.Model && d.Sold {
				twins++
			}
		}
		if twins == 1 {
			one++
		}
		for _, r := range plan.Quads[0].Rows {
			if r.Criterion == decide.Visitors {
				assert.Contains(t, r.Says, fmt.Sprintf("of %d goggles", left))
			}
		}
	}
	assert.Positive(t, one)
}
