package swap_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
)

// Sums are exact to the hundredth, currencies stay apart, and what is not
// stated is counted, not taken for nothing.
func TestTheBillCountsWhatIsNotStated(t *testing.T) {
	offer := func(price float64, currency string, days *int) *gear.Offer {
		return &gear.Offer{Price: new(price), Currency: currency, Days: days}
	}
	items := []swap.Item{
		{Buy: 3, Stops: true, Offer: offer(0.1, "EUR", new(4))},
		{Buy: 1, Stops: true, Offer: offer(19.99, "EUR", new(9))},
		{Buy: 2, Stops: true, Offer: offer(5, "SEK", nil)},
		{Buy: 1, Stops: true},
		{Buy: 1, Offer: offer(1, "SEK", new(90))}, // may come later
		{Buy: 0, Stops: true, Offer: offer(500, "EUR", new(300))},
	}
	bill := swap.NewBill(items, &fleet.Fleet{})
	assert.Equal(t, []swap.Total{{Currency: "EUR", Amount: 20.29}, {Currency: "SEK", Amount: 11}}, bill.Totals)
	assert.Equal(t, 1, bill.Unpriced)
	require.NotNil(t, bill.Days)
	assert.Equal(t, 9, *bill.Days)
	assert.Equal(t, 2, bill.Undated)
	assert.Nil(t, bill.Together, "two currencies are never added")
	assert.Nil(t, swap.NewBill(nil, &fleet.Fleet{}).Days)

	rated := &fleet.Fleet{Means: &fleet.Means{Currency: "EUR"},
		Rates: []fleet.Rate{{Currency: "EUR", Worth: 11, In: "SEK", Seen: "2026-11-20"}}}
	bill = swap.NewBill(items, rated)
	assert.Equal(t, &swap.Total{Currency: "EUR", Amount: 21.29}, bill.Together, "but at the rate that is stated")
	assert.Equal(t, []string{"1 EUR = 11 SEK on 2026-11-20"}, bill.At)
}

// Planned goggles, controllers, boards and packs nobody owns are on the list, and an
// adapter counts once for each antenna.
func TestWhatIsPlannedAndNotOwnedIsOnTheList(t *testing.T) {
	set := sample.Set()
	set.Boards = append(set.Boards, set.Boards[0])
	set.Boards[1].ID, set.Boards[1].Name = "other-board", "other board"
	set.Adapters = []gear.Adapter{{Entry: gear.Entry{ID: "tail", Name: "tail"}, From: "sma", To: "ufl"}}
	now := fit("first", "old-eyes", "old-hand", "lipo-4", "pack")
	next := now.Clone()
	next.Goggles, next.Controller, next.Board, next.Pack = &fleet.Slot{
		Model: "new-eyes",
	}, &fleet.Slot{
		Model: "new-hand",
	}, "other-board", "lipo-6"
	next.Antennas.Models, next.Antennas.Adapter = []string{"eye", "eye"}, "tail"
	f := &fleet.Fleet{Quads: []fleet.Quad{{ID: "a", Now: now, Next: &next}}}
	buy := map[string]int{}
	for _, i := range swap.Shopping(gear.NewLibrary(set), fleet.NewIndex(f)) {
		buy[i.Label] = i.Buy
	}
	assert.Equal(t, map[string]int{"new-eyes": 1, "new-hand": 1, "other board": 1, "lipo-6": 1, "eye": 2, "tail": 2}, buy)
}

// A capacitor of another rating is another capacitor: it is bought and soldered, and
// what it costs is said.
func TestACapacitorOfAnotherRatingIsBoughtAndSoldered(t *testing.T) {
	now := fit("first", "old-eyes", "old-hand", "lipo-6", "pack")
	now.CapacitorUF, now.CapacitorV = new(unit.Microfarads(470)), new(unit.Volts(16))
	next := now.Clone()
	next.CapacitorV = new(unit.Volts(35))
	c := sample.Case(sample.Set(), kit, next)
	c.Quad.Now = now
	f := fleet.NewIndex(&fleet.Fleet{Kit: kit, Quads: []fleet.Quad{*c.Quad}})

	var bought []string
	for _, i := range swap.Shopping(c.Library, f) {
		bought = append(bought, i.Label)
	}
	assert.Contains(t, bought, "470 µF 35 V low-ESR capacitor")

	var steps []string
	for _, s := range bench.NewSheet(c, swap.Judge(c), "", "").Steps {
		steps = append(steps, s.Title)
	}
	assert.Contains(t, steps, "Solder a 470 µF 35 V low-ESR capacitor across the battery leads")

	c = sample.Case(sample.Set(), kit, now)
	c.Quad.Now = now
	assert.Equal(t, change.Buy, change.Bill(c, fleet.Patch{CapacitorV: new(unit.Volts(35))}).Get)
}

// A capacitor is found among the gear by its rating, what lies in the drawer first: it is bought
// at its price, weighed, and not bought where one is at hand.
func TestACapacitorIsFoundByItsRating(t *testing.T) {
	set := sample.Set()
	rated := func(id string, v unit.Volts) gear.Capacitor {
		return gear.Capacitor{Entry: gear.Entry{ID: id, Name: id, Offer: &gear.Offer{Price: new(1.5), Currency: "EUR"}},
			UF: new(unit.Microfarads(470)), RatedV: &v, MassG: new(unit.Grams(2.4))}
	}
	set.Capacitors = []gear.Capacitor{rated("low", 16), rated("high", 35), rated("other high", 35)}
	now := fit("first", "old-eyes", "old-hand", "lipo-4", "pack")
	now.CapacitorUF, now.CapacitorV = new(unit.Microfarads(470)), new(unit.Volts(16))
	next := now.Clone()
	next.CapacitorV = new(unit.Volts(35))
	item := func(spares ...fleet.Spare) swap.Item {
		quad := fleet.Quad{ID: "a", Now: now, Next: &next}
		list := swap.Shopping(gear.NewLibrary(set), fleet.NewIndex(&fleet.Fleet{Kit: kit, Quads: []fleet.Quad{quad}, Spares: spares}))
		require.Len(t, list, 1)
		return list[0]
	}
	bought := item()
	assert.Equal(t, "high", bought.Model)
	assert.InDelta(t, 1.5, *bought.Offer.Price, 1e-9)
	assert.InDelta(t, 2.4, float64(*bought.MassG), 1e-9)
	assert.Zero(t, item(fleet.Spare{Model: "other high", Count: 1}).Buy)
	assert.Equal(t, 1, item(fleet.Spare{Model: "low", Count: 1}).Buy, "one rated too low is another")

	c := sample.Case(set, kit, now)
	c.Quad.Now = now
	cost := change.Bill(c, fleet.Patch{CapacitorV: new(unit.Volts(35))})
	assert.InDelta(t, 1.5, cost.Price, 1e-9)
	next.CapacitorV = nil
	assert.Empty(t, item().Model, "which one is not stated")
}

// Longer standoffs and washers that come with the plan are bought, as many as there are of
// them, and what is there already is not; one part to buy stands before what is owned.
func TestWhatHoldsTheUnitIsBought(t *testing.T) {
	set := sample.Set()
	set.Standoffs = []gear.Standoff{{Entry: gear.Entry{ID: "post-a", Name: "post a"}}, {Entry: gear.Entry{ID: "post-b", Name: "post b"}}}
	set.Washers = []gear.Washer{{Entry: gear.Entry{ID: "ring", Name: "ring"}}}
	now := fit("first", "old-eyes", "old-hand", "lipo-4", "pack")
	now.Standoff = "post-a"
	next := now.Clone()
	next.AirUnit, next.Standoff, next.Washer, next.Pack = &fleet.Slot{Kit: "second"}, "post-b", "ring", "lipo-6"
	f := &fleet.Fleet{Kit: kit, Quads: []fleet.Quad{{ID: "a", Now: now, Next: &next}},
		Spares: []fleet.Spare{{Model: "ring", Count: 40}}}
	list := swap.Shopping(gear.NewLibrary(set), fleet.NewIndex(f))
	buy, bought := map[string]int{}, []bool{}
	for _, i := range list {
		buy[i.Label] = i.Buy
		bought = append(bought, i.Buy > 0)
	}
	frame := set.Frames[0]
	assert.Equal(t, frame.StandoffCount(), buy["post b"])
	assert.NotContains(t, buy, "post a")
	assert.Zero(t, buy["ring"], "they are in the drawer")
	assert.Equal(t, 1, buy["lipo-6"])
	for i := 1; i < len(bought); i++ {
		assert.False(t, bought[i] && !bought[i-1], "%+v", list)
	}
	next.Standoff = "post-a"
	for _, i := range swap.Shopping(gear.NewLibrary(set), fleet.NewIndex(f)) {
		assert.NotEqual(t, "post a", i.Label, "it is on the quad")
	}
}

// What holds a part is bought with its screws, and what a stop-gap waits for is on the list
// without stopping the day; the sheet says how it is put on, once.
func TestWhatHoldsAPartIsBoughtAndPutOn(t *testing.T) {
	now := fit("first", "old-eyes", "old-hand", "lipo-4", "pack")
	next := now.Clone()
	next.Holdings = []fleet.Hold{
		{Part: fleet.NodeAirUnit, Way: fleet.HeldByBracket, Screws: new(2), Screw: "m2-4", MassG: new(unit.Grams(3))},
		{Part: fleet.NodeCamera, Way: fleet.HeldByTape, Second: fleet.HeldByTies, Awaits: "the cage"},
	}
	f := &fleet.Fleet{Kit: kit, Quads: []fleet.Quad{{ID: "a", Now: now, Next: &next}}}
	lib := gear.NewLibrary(sample.Set())
	need, stops := map[string]int{}, map[string]bool{}
	for _, i := range swap.Shopping(lib, fleet.NewIndex(f)) {
		need[i.Label], stops[i.Label] = i.Need, i.Stops
	}
	unitName := lib.Label("first")
	assert.Equal(t, map[string]int{
		"bracket for " + unitName:                         1,
		lib.Label("m2-4"):                                 2,
		"double-sided tape and cable ties for the camera": 1,
		"the cage": 1,
	}, need)
	assert.False(t, stops["the cage"])
	c := fleet.NewCase(lib, fleet.NewIndex(f), &f.Quads[0])
	sheet := bench.NewSheet(c, swap.Judge(c), "", "")
	steps := 0
	for _, s := range sheet.Steps {
		if strings.HasPrefix(s.ID, "hold:") {
			steps++
		}
	}
	assert.Equal(t, 2, steps)
}
