package decide

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// A way is only cut off where nothing it may become is better than the best plan there is: one that hides
// less is gone on with, whatever it warns of and however much it hangs on.
func TestWhatMayStillBeTheBestIsGoneOnWith(t *testing.T) {
	best := Cost{Hides: verdict.Falls, Open: 1, Price: 100}
	for _, c := range []struct {
		name   string
		is     Cost
		beaten bool
	}{
		{"hides less, and warns", Cost{Warns: verdict.Destroys}, false},
		{"hides less, and hangs on more", Cost{Hides: verdict.Fails, Open: 4}, false},
		{"hangs on less, and warns", Cost{Hides: verdict.Falls, Warns: verdict.Destroys}, false},
		{"hides more", Cost{Hides: verdict.Destroys, Open: 1}, true},
		{"warns of more", Cost{Hides: verdict.Falls, Open: 1, Warns: verdict.Destroys}, true},
		{"hangs on one more", Cost{Hides: verdict.Falls, Open: 2}, false},
		{"hangs on two more", Cost{Hides: verdict.Falls, Open: 3}, true},
		{"costs more", Cost{Hides: verdict.Falls, Open: 1, Price: 200}, false},
	} {
		f := &finder{most: MostPlans, plans: []Plan{{Cost: best}}}
		assert.Equal(t, c.beaten, f.beaten(&c.is), c.name)
	}
	full := &finder{most: 1, plans: []Plan{{Cost: best}}}
	assert.True(t, full.beaten(&Cost{Hides: verdict.Falls, Open: 1, Price: 200}), "no place is left for it")
}

// What comes with a device that is bought is there too.
func TestWhatAPurchaseBrings(t *testing.T) {
	s := scenario{bought: []purchase{{model: "eyes", with: []gear.Pieces{{Model: "hand", Count: 1}, {Model: "stub", Count: 2}}}}}
	assert.True(t, s.has("eyes"))
	assert.True(t, s.has("hand"))
	assert.False(t, s.has("other"))
	assert.Equal(t, 2, s.comes("stub"))
}

// A price that is bound to its former owner's account is none: what has no other counts at another's price, and
// that is said. What is carried in turn and sold is said to be flown with.
func TestWhatIsBoundHasNoPrice(t *testing.T) {
	set := &gear.Set{ID: "own"}
	unit := gear.AirUnit{}
	unit.ID = "unit"
	unit.Deals = []gear.Deal{{ID: "used", Kind: gear.DealUsed, Offer: gear.Offer{Price: new(50.0), Currency: "EUR"}, Locked: new(true)}}
	set.Add(&unit)
	f := &fleet.Fleet{Kit: []fleet.Kit{{ID: "one", Model: "unit", Sell: true}},
		Quads: []fleet.Quad{{ID: "q", InTurn: []fleet.TurnFit{{Fit: fleet.Fit{AirUnit: &fleet.Slot{Kit: "one"}}}}}}}
	lib := gear.NewLibrary(set)
	p := newPrices(lib, f, change.Terms{Currency: "EUR", Used: true})
	assert.False(t, p.stated("unit"))
	set.AirUnits[0].Deals[0].Locked = nil
	assert.True(t, newPrices(gear.NewLibrary(set), f, change.Terms{Currency: "EUR", Used: true}).stated("unit"))
	assert.Equal(t, []string{"q"}, Sales(lib, fleet.NewIndex(f))[0].Flies)
}

// What has no price may come with what a later change takes: a fit is not given up for it beside a plan that
// has it so.
func TestWhatHasNoPriceMayComeWithSomethingElse(t *testing.T) {
	set := &gear.Set{ID: "own"}
	for _, id := range []string{"stub", "stray"} {
		cable := gear.Harness{}
		cable.ID = id
		set.Add(&cable)
	}
	boxed := gear.Harness{}
	boxed.ID, boxed.Offer = "boxed", &gear.Offer{Price: new(20.0), Currency: "EUR"}
	boxed.Box = []gear.Pieces{{Model: "stub", Count: 1}}
	set.Add(&boxed)
	lib := gear.NewLibrary(set)
	f := finder{most: 1, plans: []Plan{{Cost: Cost{Price: 30}}}}
	for model, beaten := range map[string]bool{"stub": false, "stray": true} {
		c := Cost{}
		c.money(lib, change.Cheapest(lib, &fleet.Fleet{}, map[string]int{model: 1}, change.Terms{Currency: "EUR"}))
		assert.Equal(t, 1, c.Unpriced, model)
		assert.Equal(t, beaten, f.beaten(&c), model)
	}
	c := Cost{}
	c.money(lib, change.Cheapest(lib, &fleet.Fleet{}, map[string]int{"stub": 1, "boxed": 1}, change.Terms{Currency: "EUR"}))
	assert.Equal(t, [2]float64{0, 20}, [2]float64{float64(c.Unpriced), c.Price})
}
