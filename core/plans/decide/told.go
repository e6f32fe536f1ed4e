package decide

import (
	"context"
	"fmt"
	"maps"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
)

// Told is what a scenario comes to.
type Told struct {
	Quads   []ToldQuad `json:"quads"` // in the fleet's order
	Bill    swap.Bill  `json:"bill"`  // of all that is to be bought
	Sales   []ToldSale `json:"sales"`
	Changed int        `json:"changed"`
	Flies   int        `json:"flies"` // quads whose link stands
}

// ToldQuad is what becomes of a quad in a scenario.
type ToldQuad struct {
	Quad  string        `json:"quad"`
	Name  string        `json:"name"`
	Label string        `json:"label"` // what it carries
	Leave bool          `json:"leave"`
	Level verdict.Level `json:"level"`
	Flies bool          `json:"flies"`
}

// ToldSale is a piece of kit that is sold.
type ToldSale struct {
	Kit    string   `json:"kit"`
	Label  string   `json:"label"`
	Brings *float64 `json:"brings,omitempty"` // in Currency; absent: not stated, or in a currency of which no rate is
	// Currency is that of the bill.
	Currency string `json:"currency"`
	// Flies are the quads that are planned to fly with it all the same, or carry in turn what does.
	Flies []string `json:"flies,omitempty"`
}

// Sales are the pieces of kit that are to be sold.
func Sales(lib *gear.Library, f *fleet.Index) []ToldSale {
	list := []ToldSale{}
	prices := newPrices(lib, f.Fleet, change.TermsOf(lib, f))
	for i := range f.Kit {
		kit := &f.Kit[i]
		if !kit.Sell {
			continue
		}
		sale := ToldSale{Kit: kit.ID, Label: kit.Label(), Currency: prices.terms.Currency}
		if amount := prices.resale(kit.Model); amount > 0 {
			sale.Brings = new(float64(amount) / 100)
		}
		for k := range f.Quads {
			if f.Quads[k].WillFlyWith(kit.ID) {
				sale.Flies = append(sale.Flies, f.Quads[k].Label())
			}
		}
		list = append(list, sale)
	}
	return list
}

// Tell says what a scenario comes to. It ends with the context.
func Tell(ctx context.Context, lib *gear.Library, f *fleet.Fleet, s *fleet.Scenario) Told {
	index := fleet.NewIndex(f.Under(s))
	terms := change.TermsOf(lib, index)
	terms.Used = s.Used
	items := swap.ShoppingBy(lib, index, terms)
	out := Told{
		Quads: make([]ToldQuad, len(index.Quads)),
		Bill:  swap.NewBill(items, index.Fleet),
		Sales: Sales(lib, index),
	}
	swap.Each(ctx, len(index.Quads), func(i int) {
		q := &index.Quads[i]
		c := fleet.NewCase(lib, index, q)
		j := swap.Judge(c)
		link := j.Gate(verdict.Link)
		out.Quads[i] = ToldQuad{
			Quad:  q.ID,
			Name:  q.Label(),
			Label: swap.Describe(c),
			Leave: q.Next == nil,
			Level: j.Level,
			Flies: c.Fit.AirUnit != nil && standingOf(&link) < hangs,
		}
	})
	for _, q := range out.Quads {
		if q.Flies {
			out.Flies++
		}
		if !q.Leave {
			out.Changed++
		}
	}
	return out
}

// ToldDifference is how a quad, or a piece of kit, differs between two scenarios.
type ToldDifference struct {
	Quad string   `json:"quad,omitempty"`
	Kit  string   `json:"kit,omitempty"`
	Name string   `json:"name"`
	Is   []string `json:"is"`   // what the first has and the other has not, in words
	Than []string `json:"than"` // and the other way round
}

// Differ lists what two scenarios have otherwise: of each quad what is on it in one and not in the
// other, and how it stands; of each piece of kit whether it is sold.
func Differ(ctx context.Context, lib *gear.Library, f *fleet.Fleet, a, b *fleet.Scenario) (list []ToldDifference) {
	list = []ToldDifference{}
	is, than := Tell(ctx, lib, f, a), Tell(ctx, lib, f, b)
	one, other := fleet.NewIndex(f.Under(a)), fleet.NewIndex(f.Under(b))
	for i := range one.Quads {
		d := ToldDifference{Quad: one.Quads[i].ID, Name: one.Quads[i].Label()}
		x := carries(fleet.NewCase(lib, one, &one.Quads[i]), &is.Quads[i])
		y := carries(fleet.NewCase(lib, other, &other.Quads[i]), &than.Quads[i])
		d.Is, d.Than = without(x, y), without(y, x)
		if len(d.Is)+len(d.Than) > 0 {
			list = append(list, d)
		}
	}
	for i := range one.Kit {
		x, y := &one.Kit[i], &other.Kit[i]
		d := ToldDifference{Kit: x.ID, Name: x.Label(), Is: []string{}, Than: []string{}}
		switch {
		case x.Sell == y.Sell:
			continue
		case x.Sell:
			d.Is = append(d.Is, "it is sold")
		default:
			d.Than = append(d.Than, "it is sold")
		}
		list = append(list, d)
	}
	return list
}

// carries says what is on a quad, thing by thing, and how it stands.
func carries(c fleet.Case, told *ToldQuad) []string {
	words := []string{"it stands: " + string(told.Level)}
	add := func(is fleet.State, ok bool, before string) {
		if ok {
			words = append(words, before+is.Label+stateWords(is.Slot(is.Target, is.ToMode)))
		}
	}
	_, unit, ok := c.AirUnit()
	add(unit, ok, "")
	_, goggles, ok := c.Goggles()
	add(goggles, ok, "flown with ")
	_, controller, ok := c.Controller()
	add(controller, ok, "sticks from ")
	if c.Fit.AirUnit == nil && c.Fit.Analog != "" {
		words = append(words, "analog: "+c.Fit.Analog)
	}
	parts := c.Fit.Loose()
	for _, model := range slices.Sorted(maps.Keys(parts)) {
		words = append(words, fmt.Sprintf("%d × %s", parts[model], c.Library.Label(model)))
	}
	if from, ok := c.Fit.FeedOf(fleet.NodeAirUnit); ok {
		words = append(words, "the unit fed from "+change.Source(c, from))
	}
	if c.Fit.Bay != "" {
		words = append(words, "in the "+c.Fit.Bay+" bay")
	}
	return words
}

// without is a list less what another has.
func without(list, than []string) []string {
	out := []string{}
	for _, words := range list {
		if !slices.Contains(than, words) {
			out = append(out, words)
		}
	}
	return out
}
