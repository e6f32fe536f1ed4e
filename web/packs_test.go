package web_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/decide"
	"yokeswap/core/plans/swap"
	"yokeswap/web"
)

// priced gives an entry another price and other deals over HTTP.
func priced(t *testing.T, c client, kind, id string, price float64, deals ...gear.Deal) {
	revision, text := entryOf(c, kind, id)
	var entry map[string]any
	require.NoError(t, json.Unmarshal(text, &entry))
	entry["offer"] = gear.Offer{Price: &price, Currency: "EUR"}
	entry["deals"] = append([]gear.Deal{}, deals...)
	body, err := json.Marshal(entry)
	require.NoError(t, err)
	status, answer := c.do("PUT", fmt.Sprintf("/api/entries/%s/%s?revision=%d", kind, id, revision), string(body))
	require.Equal(t, 200, status, answer)
}

func pack(price float64, with ...gear.Pieces) gear.Deal {
	return gear.Deal{ID: "pack", Kind: gear.DealNew, Offer: gear.Offer{Price: &price, Currency: "EUR"}, With: with}
}

// Screws that come by the bag are bought by the bag where that is cheaper, and the list says what comes
// for the price.
func TestScrewsByTheBag(t *testing.T) {
	c := newClient(t, "")
	is := func() (list []swap.Item) {
		for _, i := range get[web.ShoppingView](c, "/api/shopping").Items {
			if i.Label == "M2×8" && i.Buy > 0 {
				list = append(list, i)
			}
		}
		return list
	}
	priced(t, c, "screw", "m2-8", 0.5)
	list := is()
	require.Len(t, list, 1)
	assert.Equal(t, 4, list[0].Buy)
	priced(t, c, "screw", "m2-8", 0.5, pack(1.5, gear.Pieces{Model: "m2-8", Count: 9}))
	list = is()
	require.Len(t, list, 1)
	assert.Equal(t, 1, list[0].Buy)
	assert.InDelta(t, 1.5, *list[0].Offer.Price, 1e-9)
	assert.Equal(t, []string{"9 × M2×8"}, list[0].With)
	priced(t, c, "screw", "m2-8", 0.5, pack(1.1, gear.Pieces{Model: "m2-8", Count: 2}))
	list = is()
	require.Len(t, list, 2, "three in a bag and one")
	assert.Equal(t, []int{4}, []int{list[0].Need + list[1].Need - list[0].Have})
	assert.Equal(t, 1, list[1].Buy)
}

// What nobody needs is bought where what comes with it costs more by itself, and the list says so; where it
// costs less it is not.
func TestWhatIsBoughtForWhatComesWithIt(t *testing.T) {
	c := newClient(t, "")
	priced(t, c, "screw", "m2-8", 0.5)
	is := func(price float64) (view web.ShoppingView, besides *swap.Item) {
		priced(t, c, "screw", "m3-8", 1, pack(price, gear.Pieces{Model: "m2-8", Count: 20}))
		view = get[web.ShoppingView](c, "/api/shopping")
		at := slices.IndexFunc(view.Items, func(i swap.Item) bool { return i.Model == "m3-8" })
		if at >= 0 {
			besides = &view.Items[at]
		}
		return view, besides
	}
	dear, besides := is(2.5)
	require.Nil(t, besides, "four of them cost 2.00")
	cheap, besides := is(1.5)
	require.NotNil(t, besides)
	assert.Equal(t, [3]int{0, 0, 1}, [3]int{besides.Need, besides.Have, besides.Buy})
	assert.Equal(t, "bought for what comes with it", besides.Note)
	assert.Equal(t, []string{"20 × M2×8"}, besides.With)
	at := slices.IndexFunc(cheap.Items, func(i swap.Item) bool { return i.Model == "m2-8" })
	assert.Equal(t, 0, cheap.Items[at].Buy)
	assert.Equal(t, 4, cheap.Items[at].Boxed)
	assert.Equal(t, cheap.Items[at].For, besides.For)
	assert.Equal(t, cheap.Items[at].Stops, besides.Stops)
	euros := func(v *web.ShoppingView) float64 {
		i := slices.IndexFunc(v.Bill.Totals, func(t swap.Total) bool { return t.Currency == "EUR" })
		return v.Bill.Totals[i].Amount
	}
	assert.InDelta(t, 0.5, euros(&dear)-euros(&cheap), 1e-9)
}

// Two units for one price serve two quads, and goggles come with a unit whose bundle they are stated in:
// what is paid for once is on the bill once.
func TestBundlesServeTheWholeFleet(t *testing.T) {
	c := newClient(t, "")
	sum := func(d *web.FleetDecision) (sum float64) {
		for _, l := range d.Bill {
			sum += l.Amount
		}
		return sum
	}
	priced(t, c, "airUnit", "aldine-two", 150, pack(20, gear.Pieces{Model: "aldine-two", Count: 1}))
	d := get[web.FleetDecision](c, "/api/decide?budget=80")
	takes, pays := 0, 0.0
	for _, q := range d.Quads {
		if q.Way.Key == "model:aldine-two" {
			takes++
		}
	}
	for _, l := range d.Bill {
		if l.Model == "aldine-two" {
			pays += l.Amount
		}
	}
	require.GreaterOrEqual(t, takes, 2)
	assert.InDelta(t, 20*float64((takes+1)/2), pays, 1e-9)
	assert.InDelta(t, d.Points[d.Chosen].Money, sum(&d), 0.005)

	priced(t, c, "goggles", "visor-d", 900)
	before := get[web.FleetDecision](c, "/api/decide?budget=900")
	priced(t, c, "airUnit", "aldine-three", 150, pack(200, gear.Pieces{Model: "visor-d", Count: 1}))
	d = get[web.FleetDecision](c, "/api/decide?budget=900")
	assert.Greater(t, d.Points[d.Chosen].Worth, before.Points[before.Chosen].Worth)
	at := slices.IndexFunc(d.Bill, func(l decide.BillLine) bool { return l.Model == "visor-d" })
	require.GreaterOrEqual(t, at, 0, "%+v", d.Bill)
	assert.InDelta(t, 200, d.Bill[at].Amount, 1e-9)
	assert.Contains(t, d.Bill[at].With, "1 × Aldine Three")
	assert.InDelta(t, d.Points[d.Chosen].Money, sum(&d), 0.005)
}

// Of used units that come two for one price, or with something else, it is asked before they are paid what
// they carry and whether they are let go: on each quad that takes one, however it comes to it; of a new one
// nothing is asked, whatever used ones would cost.
func TestWhatComesWithSomethingUsedIsAskedFor(t *testing.T) {
	c := newClient(t, "")
	asks := []string{
		"which release the used Aldine Two carries",
		"whether its former owner lets the used Aldine Two go from their account",
	}
	used := func(price float64, with ...gear.Pieces) gear.Deal {
		d := pack(price, with...)
		d.ID, d.Kind = "used", gear.DealUsed
		return d
	}
	asked := func() (takes, asked int) {
		d := get[web.FleetDecision](c, "/api/decide?budget=80&used=yes")
		for _, q := range d.Quads {
			if !strings.HasPrefix(q.Way.Key, "model:aldine-two") {
				continue
			}
			takes++
			if slices.Contains(q.Way.FindOut, asks[0]) && slices.Contains(q.Way.FindOut, asks[1]) {
				asked++
			}
		}
		return takes, asked
	}
	two := gear.Pieces{Model: "aldine-two", Count: 1}
	priced(t, c, "airUnit", "aldine-one-compact", 900)
	priced(t, c, "airUnit", "aldine-two", 150, used(20, two))
	takes, are := asked()
	require.GreaterOrEqual(t, takes, 2)
	assert.Equal(t, takes, are, "two for one price")

	priced(t, c, "airUnit", "aldine-two", 150)
	priced(t, c, "screw", "m3-8", 1, used(20, two))
	takes, are = asked()
	require.Positive(t, takes)
	assert.Equal(t, takes, are, "with a screw that nobody needs")
	var buys []string
	for _, stage := range get[web.OrderView](c, "/api/decide/order?budget=80&used=yes").Stages {
		buys = append(buys, stage.Buys...)
	}
	assert.Contains(t, buys, "1 × M3×8 (used, with 1 × Aldine Two)")

	priced(t, c, "screw", "m3-8", 1, pack(20, two))
	priced(t, c, "airUnit", "aldine-two", 150, used(60))
	takes, are = asked()
	require.Positive(t, takes)
	assert.Zero(t, are, "they come new with a screw")

	priced(t, c, "screw", "m3-8", 1)
	priced(t, c, "airUnit", "aldine-two", 15)
	priced(t, c, "goggles", "visor-d", 900, used(20, two))
	takes, are = asked()
	require.Positive(t, takes)
	assert.Equal(t, takes, are, "with used goggles")

	priced(t, c, "airUnit", "aldine-two", 150, used(100))
	priced(t, c, "goggles", "visor-d", 900, pack(20, two))
	takes, are = asked()
	require.Positive(t, takes)
	assert.Zero(t, are, "with new goggles, whatever a used one would cost")
}
