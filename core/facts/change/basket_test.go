package change_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

func price(amount float64, currency string) gear.Offer {
	return gear.Offer{Price: &amount, Currency: currency}
}

func shop() *gear.Library {
	set := &gear.Set{ID: "own"}
	unit := gear.AirUnit{}
	unit.ID, unit.Offer = "unit", new(price(100, "EUR"))
	unit.Box = []gear.Pieces{{Model: "cable", Count: 1}, {Model: "screw", Count: 4}}
	unit.Deals = []gear.Deal{
		{ID: "used", Kind: gear.DealUsed, Offer: price(97, "EUR")},
		{ID: "resale", Kind: gear.DealResale, Offer: price(70, "EUR")},
	}
	eyes := gear.Goggles{}
	eyes.ID, eyes.Offer = "eyes", new(price(300, "EUR"))
	eyes.Deals = []gear.Deal{{
		ID:    "bundle",
		Kind:  gear.DealNew,
		Offer: price(380, "EUR"),
		With:  []gear.Pieces{{Model: "unit", Count: 1}},
	}}
	cable := gear.Harness{}
	cable.ID, cable.Offer = "cable", new(price(5, "EUR"))
	screw := gear.Screw{}
	screw.ID, screw.Offer = "screw", new(price(0.5, "GBP"))
	set.Add(&unit)
	set.Add(&eyes)
	set.Add(&cable)
	set.Add(&screw)
	return gear.NewLibrary(set)
}

// A basket is bought for least: what is in a box is not bought again, a used one comes without
// its box, a bundle counts where its content is wanted. What no rate is known for has no amount.
func TestABasket(t *testing.T) {
	pounds := &fleet.Fleet{Rates: []fleet.Rate{{Currency: "GBP", Worth: 1.2, In: "EUR"}}}
	type lacks map[string]int
	for _, c := range []struct {
		name     string
		fleet    *fleet.Fleet
		lacks    lacks
		used     bool
		amount   int64 // in hundredths
		unpriced int
		deal     string // of the unit
	}{
		{"a unit", &fleet.Fleet{}, lacks{"unit": 1}, false, 10000, 0, ""},
		{"used for less", &fleet.Fleet{}, lacks{"unit": 1}, true, 9700, 0, "used"},
		{"new where the cable in its box is wanted", &fleet.Fleet{}, lacks{"unit": 1, "cable": 1}, true, 10000, 0, ""},
		{"one more cable than comes", &fleet.Fleet{}, lacks{"unit": 1, "cable": 2}, false, 10500, 0, ""},
		{"the bundle", &fleet.Fleet{}, lacks{"unit": 1, "eyes": 1}, false, 38000, 0, ""},
		{"the bundle, a second unit and the cable in its box", &fleet.Fleet{}, lacks{"unit": 2, "eyes": 1, "cable": 1}, false,
			48000, 0, ""},
		{"no bundle for the goggles alone", &fleet.Fleet{}, lacks{"eyes": 1}, false, 30000, 0, ""},
		{"another currency", &fleet.Fleet{}, lacks{"screw": 2, "cable": 1}, false, 500, 2, ""},
		{"with its rate", pounds, lacks{"screw": 2, "cable": 1}, false, 620, 0, ""},
		{"screws in the box", &fleet.Fleet{}, lacks{"screw": 4, "unit": 1}, false, 10000, 0, ""},
	} {
		t.Run(c.name, func(t *testing.T) {
			amount, unpriced, deal := int64(0), 0, ""
			for _, l := range change.Cheapest(shop(), c.fleet, c.lacks, change.Terms{Currency: "EUR", Used: c.used}) {
				if l.Amount == nil {
					unpriced += l.Times
				} else {
					amount += *l.Amount
				}
				if l.Model == "unit" {
					deal = l.Deal
				}
			}
			assert.Equal(t, c.amount, amount)
			assert.Equal(t, c.unpriced, unpriced)
			assert.Equal(t, c.deal, deal)
		})
	}
}

// What is locked to a former owner is never bought.
func TestALockedOneIsNotBought(t *testing.T) {
	lib := shop()
	unit, ok := gear.Find[*gear.AirUnit](lib, "unit")
	require.True(t, ok)
	unit.Deals[0].Locked = new(true)
	lines := change.Cheapest(lib, &fleet.Fleet{}, map[string]int{"unit": 1}, change.Terms{Currency: "EUR", Used: true})
	assert.False(t, lines[0].Used)
}

// More never costs less, and terms that allow more never make it dearer.
func TestMoreNeverCostsLess(t *testing.T) {
	lib := shop()
	rates := &fleet.Fleet{Rates: []fleet.Rate{{Currency: "EUR", Worth: 0.8, In: "GBP"}}}
	cost := func(lacks map[string]int, used bool) (sum int64) {
		for _, l := range change.Cheapest(lib, rates, lacks, change.Terms{Currency: "EUR", Used: used}) {
			require.NotNil(t, l.Amount, l.Model)
			sum += *l.Amount
		}
		return sum
	}
	rapid.Check(t, func(rt *rapid.T) {
		lacks := rapid.MapOf(rapid.SampledFrom([]string{"unit", "eyes", "cable", "screw"}), rapid.IntRange(1, 6)).Draw(rt, "lacks")
		more := map[string]int{rapid.SampledFrom([]string{"unit", "eyes", "cable", "screw"}).Draw(rt, "more"): 1}
		for model, n := range lacks {
			more[model] += n
		}
		used := rapid.Bool().Draw(rt, "used")
		require.LessOrEqual(rt, cost(lacks, used), cost(more, used))
		require.LessOrEqual(rt, cost(lacks, true), cost(lacks, false))
	})
}

// What comes in a box is nothing to buy, whichever of the two is planned first.
func TestWhatComesInABoxIsNotBilled(t *testing.T) {
	lib := shop()
	next := fleet.Fit{AirUnit: &fleet.Slot{Model: "unit"}}
	f := &fleet.Fleet{Quads: []fleet.Quad{{ID: "q", Next: &next}}}
	f.Means = &fleet.Means{Currency: "EUR"}
	c := fleet.NewCase(lib, fleet.NewIndex(f), &f.Quads[0])
	wired := fleet.Patch{Wiring: &fleet.Wiring{Harness: "cable"}}
	assert.Equal(t, change.Have, change.Bill(c, wired).Get, "it is in the unit's box")
	unit := fleet.Patch{AirUnit: &fleet.Slot{Model: "unit"}}
	bare := next
	bare.AirUnit = nil
	bare.Harness = "cable"
	f.Quads[0].Next = &bare
	c = fleet.NewCase(lib, fleet.NewIndex(f), &f.Quads[0])
	cost := change.Bill(c, unit)
	assert.Equal(t, change.Buy, cost.Get)
	assert.InDelta(t, 100, cost.Price, 1e-9)
	lines := change.Lines(c.With(unit), change.TermsOf(lib, c.Fleet))
	sum := int64(0)
	for _, l := range lines {
		sum += *l.Amount
	}
	assert.Equal(t, int64(10000), sum)
}

// What comes in a bundle is paid with the bundle: a change that takes it is no change for nothing.
func TestABundleIsNotForNothing(t *testing.T) {
	lib := shop()
	next := fleet.Fit{Goggles: &fleet.Slot{Model: "eyes"}}
	f := &fleet.Fleet{Means: &fleet.Means{Currency: "EUR"}, Quads: []fleet.Quad{{ID: "q", Next: &next}}}
	c := fleet.NewCase(lib, fleet.NewIndex(f), &f.Quads[0])
	assert.Equal(t, change.Buy, change.Bill(c, fleet.Patch{AirUnit: &fleet.Slot{Model: "unit"}}).Get)
}
