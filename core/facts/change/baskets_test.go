package change_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// drawnShop is a shop with four models, some without a price, some in bundles, boxes and packs.
func drawnShop(r *rand.Rand) *gear.Library {
	set := &gear.Set{ID: "own"}
	models := []string{"a", "b", "c", "d"}
	with := func() (list []gear.Pieces) {
		for _, m := range models {
			if r.IntN(3) == 0 {
				list = append(list, gear.Pieces{Model: m, Count: 1 + r.IntN(2)})
			}
		}
		return list
	}
	for _, m := range models {
		cable := gear.Harness{}
		cable.ID = m
		if r.IntN(5) > 0 {
			cable.Offer = new(price(float64(5+r.IntN(20)), "EUR"))
		}
		if r.IntN(3) == 0 {
			for _, p := range with() {
				if p.Model != m {
					cable.Box = append(cable.Box, p)
				}
			}
		}
		for k := range r.IntN(3) {
			deal := gear.Deal{ID: fmt.Sprint(k), Kind: gear.DealNew, Offer: price(float64(8+r.IntN(25)), "EUR"), With: with()}
			if r.IntN(3) == 0 {
				deal.Kind = gear.DealUsed
			}
			cable.Deals = append(cable.Deals, deal)
		}
		set.Add(&cable)
	}
	return gear.NewLibrary(set)
}

// way is one of all ways to buy a list.
type way struct {
	unpriced int
	amount   int64
	draws    [4]int
}

func (w *way) beats(o *way) bool {
	for k := range w.draws {
		if w.draws[k] > o.draws[k] {
			return false
		}
	}
	return w.unpriced < o.unpriced || w.unpriced == o.unpriced && w.amount <= o.amount
}

// everyWay are the ways to buy a list that no other beats, by going through all numbers of all prices.
func everyWay(lib *gear.Library, lacks map[string]int, used bool, shared []string) (best []way) {
	type deal struct {
		model  string
		amount int64 // below zero: none is stated
		brings [4]int
	}
	at := func(m string) int { return int(m[0] - 'a') }
	var deals []deal
	for m := range lacks {
		item, _ := lib.Item(m)
		bought := slices.DeleteFunc(item.Head().Bought(), func(d gear.Deal) bool { return d.Kind == gear.DealUsed && !used })
		if len(bought) == 0 {
			bought = []gear.Deal{{With: item.Head().Box}}
		}
		for _, d := range bought {
			one := deal{model: m, amount: -1}
			if d.Price != nil {
				one.amount = int64(*d.Price * 100)
			}
			asked := false
			one.brings[at(m)] = 1
			for _, p := range d.With {
				one.brings[at(p.Model)] += p.Count
				asked = asked || lacks[p.Model] > 0 || slices.Contains(shared, p.Model)
			}
			if one.amount >= 0 && asked || !slices.Contains(shared, m) {
				deals = append(deals, one)
			}
		}
	}
	var from func(at int, w way, have [4]int)
	from = func(k int, w way, have [4]int) {
		if k < len(deals) {
			for times := range 4 {
				next, is := w, have
				for i := range is {
					is[i] += times * deals[k].brings[i]
				}
				if deals[k].amount < 0 {
					next.unpriced += times
				} else {
					next.amount += int64(times) * deals[k].amount
				}
				from(k+1, next, is)
			}
			return
		}
		for i, n := range have {
			m := string(rune('a' + i))
			left := n - lacks[m]
			switch {
			case slices.Contains(shared, m):
				w.draws[i] = -left
			case left < 0:
				return
			}
		}
		if !slices.ContainsFunc(best, func(b way) bool { return b.beats(&w) }) {
			best = append(slices.DeleteFunc(best, func(b way) bool { return w.beats(&b) }), w)
		}
	}
	from(0, way{}, [4]int{})
	return best
}

// The ways to buy a list are those of going through all numbers of all prices. Some of what going
// through all finds buys more than is wanted to leave it to others: that is theirs to buy.
func TestBasketsAgainstEveryWay(t *testing.T) {
	several := 0
	for seed := range uint64(400) {
		r := rand.New(rand.NewPCG(seed, 5))
		lib := drawnShop(r)
		lacks := map[string]int{}
		for _, m := range []string{"a", "b", "c", "d"} {
			if n := r.IntN(4); n > 0 && len(lacks) < 2 {
				lacks[m] = n
			}
		}
		var shared []string
		if r.IntN(2) == 0 {
			shared = append(shared, string(rune('a'+r.IntN(4))))
		}
		used := r.IntN(2) == 0
		is := change.Baskets(lib, &fleet.Fleet{}, lacks, change.Terms{Currency: "EUR", Used: used},
			func(m string) bool { return slices.Contains(shared, m) })
		every := everyWay(lib, lacks, used, shared)
		if len(is) > 1 {
			several++
		}
		for _, b := range is {
			w := wayOf(t, &b, lacks)
			covered := slices.ContainsFunc(every, func(e way) bool { return e.beats(&w) })
			assert.True(t, covered, "seed %d: %+v is cheaper than any of %+v", seed, w, every)
		}
		for _, e := range every {
			found := slices.ContainsFunc(is, func(b change.Basket) bool { w := wayOf(t, &b, lacks); return w.beats(&e) })
			more := slices.ContainsFunc(e.draws[:], func(n int) bool { return n < 0 })
			assert.True(t, found || more, "seed %d: %+v was not found for %v of %v shared: %+v", seed, e, lacks, shared, is)
		}
	}
	assert.Greater(t, several, 20)
}

// wayOf is a basket in numbers, its lines held against what is lacking.
func wayOf(t *testing.T, b *change.Basket, lacks map[string]int) (w way) {
	counts := map[string]int{}
	for _, l := range b.Lines {
		counts[l.Model] += l.Count
		assert.LessOrEqual(t, l.Boxed+l.Drawn, l.Count)
		if l.Drawn > 0 {
			continue
		}
		if l.Amount == nil {
			w.unpriced += l.Times
		} else {
			w.amount += *l.Amount
		}
	}
	assert.Equal(t, lacks, counts)
	drawn := map[string]int{}
	for _, l := range b.Lines {
		drawn[l.Model] += l.Drawn
	}
	for m, n := range drawn {
		assert.Equal(t, n, max(0, b.Draws[m]), "nothing is drawn that comes besides")
	}
	for m, n := range b.Draws {
		w.draws[m[0]-'a'] = n
	}
	return w
}
