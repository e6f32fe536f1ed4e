package decide

import (
	"context"
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"reflect"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/internal/builds"
)

// drawnDeals gives what some ways take other prices, boxes, bundles and packs.
func drawnDeals(r *rand.Rand, w *Ways) *gear.Library {
	lib := w.library
	models := map[string]bool{}
	for i := range w.Quads {
		for k := range w.Quads[i].Ways {
			for model := range w.Quads[i].Ways[k].needs {
				models[model] = true
			}
		}
	}
	list := slices.Sorted(maps.Keys(models))
	for _, model := range list {
		item, ok := lib.Item(model)
		if !ok {
			continue
		}
		other := reflect.New(reflect.TypeOf(item).Elem())
		other.Elem().Set(reflect.ValueOf(item).Elem())
		drawn := other.Interface().(gear.Item)
		head := drawn.Head()
		each := float64(2 + r.IntN(90))
		switch item.(type) {
		case *gear.Goggles, *gear.Controller:
			each += 300 // nobody buys two for what comes with them
		}
		head.Offer, head.Deals, head.Box = &gear.Offer{Price: &each, Currency: "EUR"}, nil, nil
		pieces := func(model string) gear.Pieces { return gear.Pieces{Model: model, Count: 1 + r.IntN(2)} }
		if r.IntN(6) == 0 {
			head.Box = append(head.Box, pieces(list[r.IntN(len(list))]))
		}
		for k := range r.IntN(3) {
			d := gear.Deal{ID: fmt.Sprint(k), Kind: gear.DealNew, Offer: gear.Offer{Price: new(each * (0.8 + r.Float64())), Currency: "EUR"}}
			switch r.IntN(3) {
			case 0:
				d.Kind = gear.DealUsed
			case 1:
				d.With = append(d.With, pieces(model))
			}
			if r.IntN(2) == 0 {
				d.With = append(d.With, pieces(list[r.IntN(len(list))]))
				*d.Price += 30 // so that it is seldom bought for that alone
			}
			head.Deals = append(head.Deals, d)
		}
		lib = lib.With(drawn)
	}
	return lib
}

// everyChoice is the trade-off by going through all choices, each paid as one list; twice says that in one
// of them goggles or a controller come twice, with something else: they are bought once.
func everyChoice(t *table) (front []Point, twice bool) {
	scenarios, _ := t.scenarios()
	for i := range scenarios {
		s := &scenarios[i]
		if len(s.bought) > 0 {
			continue // that is in the list
		}
		for _, model := range t.shared() {
			s.bought = append(s.bought, purchase{model: model})
		}
		var from func(i int, lacks map[string]int, kits map[string]bool, worth int64)
		from = func(i int, lacks map[string]int, kits map[string]bool, worth int64) {
			if i == len(t.quads) {
				needs := maps.Clone(lacks)
				for model, n := range needs {
					needs[model] = max(0, n-t.spares(model))
				}
				money, times := int64(0), map[string]int{}
				for _, l := range change.Cheapest(t.library, t.index.Fleet, needs, t.prices.terms) {
					cost, _ := t.prices.cost(&l)
					money += cost
					for _, comes := range append([]gear.Pieces{{Model: l.Model}}, l.With...) {
						times[comes.Model] += l.Times
						twice = twice || slices.Contains(t.shared(), comes.Model) && times[comes.Model] > 1
					}
				}
				front = frontOf(append(front, Point{Money: float64(money) / 100, Worth: worth}))
				return
			}
			q := &t.quads[i]
			for k, way := range q.ways {
				if q.buyings[k].of != k || !t.allows(s, q, way) || way.kit != "" && kits[way.kit] {
					continue
				}
				all, taken := maps.Clone(lacks), maps.Clone(kits)
				for model, n := range way.lacks() {
					all[model] += n
				}
				for _, model := range way.shares() {
					all[model] = 1
				}
				taken[way.kit] = true
				from(i+1, all, taken, worth+q.worths[k])
			}
		}
		from(0, map[string]int{}, map[string]bool{}, 0)
	}
	return front, twice
}

// drawnTable is three quads of the demo with some of their ways and drawn prices.
func drawnTable(seed uint64, all *Ways) *table {
	r := rand.New(rand.NewPCG(seed, 16))
	own := *all.index.Fleet
	own.Quads = nil
	ways := Ways{}
	for _, at := range r.Perm(len(all.Quads))[:3] {
		own.Quads = append(own.Quads, all.index.Quads[at])
		q := all.Quads[at]
		q.Ways = slices.Clone(q.Ways)
		for len(q.Ways) > 7 {
			at := 1 + r.IntN(len(q.Ways)-1)
			q.Ways = slices.Delete(q.Ways, at, at+1)
		}
		ways.Quads = append(ways.Quads, q)
	}
	ways.index, ways.library = fleet.NewIndex(&own), all.library
	ways.library = drawnDeals(r, &ways)
	tab := newTable(&ways, Question{Used: seed%2 == 0})
	tab.reach = func(context.Context, *Point) ([]int, error) { return nil, nil }
	return tab
}

// allWays are those of the demo; a test tells apart pieces that are alike, since it leaves some out, and all
// ways to buy.
func allWays(t *testing.T) *Ways {
	TellApart(t)
	mostBuyings = 1000
	t.Cleanup(func() { mostBuyings = 12 })
	st := builds.Demo()
	all, err := WaysOf(context.Background(), st.Library(), fleet.NewIndex(st.Fleet))
	require.NoError(t, err)
	return &all
}

// What boxes, bundles and packs leave over serves other quads: the trade-off is that of going through all
// choices, each paid as one list; and the bill adds up to it.
func TestTheFleetIsBoughtAsOneList(t *testing.T) {
	all, fleets := allWays(t), uint64(16)
	if os.Getenv("SOAK") != "" {
		fleets = 150
	}
	shared, compared := 0, uint64(0)
	for seed := range fleets {
		tab := drawnTable(seed, all)
		if tab.simpler {
			continue // not all ways to buy it are gone through
		}
		found, err := tab.front(context.Background(), &Weighed{})
		require.NoError(t, err)
		for _, is := range tab.leftOver {
			if is {
				shared++
			}
		}
		every, twice := everyChoice(tab)
		brief := func(front []Point) (list []string) {
			for _, p := range front {
				list = append(list, fmt.Sprintf("%d for %.2f", p.Worth, p.Money))
			}
			return list
		}
		if !twice {
			compared++
			require.Equal(t, brief(every), brief(found), "seed %d", seed)
		}
		for i := range found {
			sum := 0.0
			for _, l := range tab.bill(&found[i]) {
				sum += l.Amount
			}
			assert.InDelta(t, found[i].Money, sum, 0.005, "seed %d: the bill", seed)
			sum = 0
			for _, q := range tab.told(&found[i], 0) {
				sum += q.Price
			}
			for _, b := range found[i].scenario.bought {
				sum += float64(b.amount) / 100
			}
			assert.InDelta(t, found[i].Money, sum, 0.005, "seed %d: quad by quad", seed)
		}
	}
	assert.Greater(t, shared, int(fleets)/2)
	assert.Greater(t, compared, fleets*3/4)
}

// In order each thing is bought as it is in the end: what comes with something else is not bought by
// itself before, so that all days together pay what the choice costs.
func TestAnOrderPaysWhatTheChoiceCosts(t *testing.T) {
	all, waits, joined := allWays(t), 0, 0
	for seed := range uint64(60) {
		tab := drawnTable(seed, all)
		found, err := tab.front(context.Background(), &Weighed{})
		require.NoError(t, err)
		for i := range found {
			s := newSequencer(tab, &found[i], Purse{Now: found[i].Money}, Calendar{From: time.Unix(0, 0)})
			order, exact := s.best(context.Background())
			require.True(t, exact)
			if s.joined {
				joined++
			}
			for k := range s.jobs {
				if s.early(1 << k) {
					waits++
				}
			}
			stages, short := s.stages(order)
			assert.Zero(t, short)
			sum := 0.0
			for _, stage := range stages {
				assert.GreaterOrEqual(t, stage.Amount, 0.0)
				sum += stage.Amount
			}
			assert.InDelta(t, found[i].Money, sum, 0.01, "seed %d", seed)
		}
	}
	assert.Positive(t, waits)
	assert.Positive(t, joined)
}

// Of one that is bought used by itself, beside what is had in common, it is asked as well.
func TestOneMoreBoughtUsedIsAskedFor(t *testing.T) {
	st := builds.Demo()
	ways, err := WaysOf(context.Background(), st.Library(), fleet.NewIndex(&fleet.Fleet{Quads: st.Fleet.Quads[:1]}))
	require.NoError(t, err)
	for _, used := range []bool{true, false} {
		tab := newTable(&ways, Question{Used: used})
		p := Point{picks: []int{0}, scenario: &scenario{}}
		assert.Empty(t, tab.usedDeals(&p, 0, "aldine-two", false))
		assert.Equal(t, used, len(tab.usedDeals(&p, 0, "aldine-two", true)) == 1)
	}
}
