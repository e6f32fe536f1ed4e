package change

import (
	"fmt"
	"maps"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Terms say in what currency is reckoned, and whether used ones are bought.
type Terms struct {
	Currency string
	Used     bool
}

// Take says whether a price is one things are bought at: a used one only where those are, and never one that
// is bound to its former owner's account.
func (t Terms) Take(d *gear.Deal) bool {
	return d.Kind != gear.DealUsed || t.Used && (d.Locked == nil || !*d.Locked)
}

// TermsOf are the terms the bills of a fleet are made by: new things, in the currency it states,
// else the one most prices are in.
func TermsOf(lib *gear.Library, f *fleet.Index) Terms {
	if f.Means != nil && f.Means.Currency != "" {
		return Terms{Currency: f.Means.Currency}
	}
	return Terms{Currency: mostUsedCurrency(lib)}
}

// mostUsedCurrency is the currency most prices of a library are in; empty: there are none.
func mostUsedCurrency(lib *gear.Library) (best string) {
	counts := map[string]int{}
	for _, item := range lib.Items() {
		for _, d := range item.Head().Bought() {
			counts[d.Currency]++
		}
	}
	for _, c := range slices.Sorted(maps.Keys(counts)) {
		if counts[c] > counts[best] {
			best = c
		}
	}
	return best
}

// Line is parts of a model that a plan takes and that are neither on the quad today nor in
// the drawer. Where some are bought at one price and some at another, each has a line.
type Line struct {
	Model   string `json:"model"`
	Label   string `json:"label"`
	Count   int    `json:"count"` // with those in a box
	Printed bool   `json:"printed,omitempty"`
	// Boxed are how many of them come with something else of the list.
	Boxed int `json:"boxed,omitempty"`
	// Drawn are how many are taken of what is shared, see Baskets.
	Drawn int `json:"-"`
	// Times is how often it is bought; less than what is lacking where several come for one price.
	Times int `json:"times"`
	// Offer is what it costs; absent: not stated. Used says that it is that of a used one, Deal
	// which of its prices it is, empty for its own.
	Offer *gear.Offer `json:"offer,omitempty"`
	Used  bool        `json:"used,omitempty"`
	Deal  string      `json:"deal,omitempty"`
	// With is what comes for the same price, each time.
	With []gear.Pieces `json:"with,omitempty"`
	// Amount is what all to be bought come to in the currency of the bill, in hundredths; absent:
	// no price is stated, or no rate for its currency.
	Amount *int64 `json:"amount,omitempty"`
}

// Basket is a way to buy a list. Draws is what it takes of each model that is shared; below zero it
// leaves some.
type Basket struct {
	Lines []Line
	Draws map[string]int
}

// mostSteps is how many steps are gone on the ways to buy a list.
const mostSteps = 30_000

// Cheapest finds the cheapest way to buy a number of each of some models: at which price how many of
// each, with what comes in boxes and bundles taken off. What has no price, or none in a currency a rate
// is known for, is on the list without an amount; fewer of those are better than any price.
func Cheapest(lib *gear.Library, f *fleet.Fleet, lacks map[string]int, terms Terms) []Line {
	list, _ := Baskets(lib, f, lacks, terms, func(string) bool { return false })
	return list[0].Lines
}

// Price is what lines come to together, in hundredths; nil: of one no price is stated.
func Price(lines []Line) *int64 {
	sum := int64(0)
	for i := range lines {
		if lines[i].Amount == nil {
			return nil
		}
		sum += *lines[i].Amount
	}
	return &sum
}

// Baskets are the ways to buy a list of which none beats another, the cheapest first. What is lacking of
// a model that is shared with other lists may be drawn instead of bought, and what comes of it beyond
// what is lacking is left to them: a way that draws less, or leaves more, is kept beside a cheaper one. Where
// there are so many that not all were gone through, all is false.
func Baskets(lib *gear.Library, f *fleet.Fleet, lacks map[string]int, terms Terms,
	shared func(model string) bool,
) (list []Basket, all bool) {
	s := shopper{terms: terms, fleet: f, lib: lib, shared: shared, steps: mostSteps}
	for _, model := range slices.Sorted(maps.Keys(lacks)) {
		s.wants = append(s.wants, want{model: model, count: lacks[model]})
	}
	for i := range s.wants {
		s.offers(&s.wants[i])
	}
	s.besides(lacks)
	for i := range s.wants {
		for _, later := range s.wants[i+1:] {
			s.wants[i].comes = s.wants[i].comes || later.brings(s.wants[i].model)
		}
	}
	s.buyAll()
	return s.baskets(), !s.cut
}

// InBox is what comes for one price, in words.
func InBox(lib *gear.Library, with []gear.Pieces) (list []string) {
	for _, p := range with {
		if p.Count > 0 {
			list = append(list, fmt.Sprintf("%d × %s", p.Count, lib.Label(p.Model)))
		}
	}
	return list
}

// Comes is how many of each model may come where a number of one is bought, with those themselves.
func Comes(lib *gear.Library, model string, count int, terms Terms) map[string]int {
	comes := map[string]int{}
	for _, l := range dealsOf(lib, &fleet.Fleet{}, model, terms) {
		times := (count + l.pieces() - 1) / l.pieces()
		comes[model] = max(comes[model], times*l.pieces())
		for _, p := range l.With {
			comes[p.Model] = max(comes[p.Model], times*l.brings(p.Model))
		}
	}
	return comes
}

// Besides are the prices, with something that is lacking, of models that are not: those that are less than
// what comes for it costs by itself, as far as it is lacking or shared. What has no price is not bought for by
// that of something else.
func Besides(lib *gear.Library, f *fleet.Fleet, lacks map[string]int, terms Terms,
	shared func(model string) bool,
) (list []Line) {
	spares := func(model string, count int) int64 {
		if !shared(model) {
			count = min(count, lacks[model])
		}
		return int64(count) * leastOf(lib, f, model, terms)
	}
	var bundles []string
	for _, model := range slices.Sorted(maps.Keys(lacks)) {
		for _, id := range lib.Bringing(model) {
			if _, listed := lacks[id]; !listed && !slices.Contains(bundles, id) {
				bundles = append(bundles, id)
			}
		}
	}
	for _, id := range bundles {
		for _, l := range dealsOf(lib, f, id, terms) {
			worth := int64(0)
			for _, p := range l.With {
				worth += spares(p.Model, p.Count)
			}
			if l.Amount != nil && *l.Amount < worth {
				list = append(list, l)
			}
		}
	}
	return list
}

// leastOf is what a model is bought at for least, in hundredths; zero where no price is stated.
func leastOf(lib *gear.Library, f *fleet.Fleet, model string, terms Terms) (least int64) {
	for _, l := range dealsOf(lib, f, model, terms) {
		if l.Amount != nil && (least == 0 || *l.Amount < least) {
			least = *l.Amount
		}
	}
	return least
}

// dealsOf are the prices one of a model is bought at; one without a price where there is none.
func dealsOf(lib *gear.Library, f *fleet.Fleet, model string, terms Terms) (list []Line) {
	line := Line{Model: model, Label: model}
	item, ok := lib.Item(model)
	if !ok {
		return []Line{line}
	}
	head := item.Head()
	line.Label, line.Offer, line.With = head.Label(), head.Offer, head.Box
	if plate, ok := item.(*gear.Plate); ok {
		line.Printed = plate.Printed
	}
	for _, d := range head.Bought() {
		if !terms.Take(&d) {
			continue
		}
		one := line
		one.Offer, one.Used, one.Deal, one.With = new(d.Offer), d.Kind == gear.DealUsed, d.ID, d.With
		if amount, ok := f.InCurrency(*d.Price, d.Currency, terms.Currency); ok {
			one.Amount = &amount
		}
		list = append(list, one)
	}
	if len(list) == 0 {
		return []Line{line}
	}
	return list
}
