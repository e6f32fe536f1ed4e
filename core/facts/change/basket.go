package change

import (
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
// the drawer.
type Line struct {
	Model   string `json:"model"`
	Label   string `json:"label"`
	Count   int    `json:"count"` // with those in a box
	Printed bool   `json:"printed,omitempty"`
	// Boxed are how many of them come with something else of the list.
	Boxed int `json:"boxed,omitempty"`
	// Offer is what one costs; absent: not stated. Used says that it is that of a used one, Deal
	// which of its prices it is, empty for its own.
	Offer *gear.Offer `json:"offer,omitempty"`
	Used  bool        `json:"used,omitempty"`
	Deal  string      `json:"deal,omitempty"`
	// Amount is what all to be bought come to in the currency of the bill, in hundredths; absent:
	// no price is stated, or no rate for its currency.
	Amount *int64 `json:"amount,omitempty"`

	with []gear.Pieces
}

// Buy is how many of them are to be bought.
func (l *Line) Buy() int { return l.Count - l.Boxed }

// mostBaskets is how many ways to buy a list are gone through.
const mostBaskets = 4096

// Basket finds the cheapest way to buy a number of each of some models: one price of each, with
// what comes in the boxes taken off. What has no price, or none in a currency a rate is known
// for, is on the list without an amount; fewer of those are better than any price. All of a
// model are bought at one price.
func Basket(lib *gear.Library, f *fleet.Fleet, lacks map[string]int, terms Terms) []Line {
	lines := make([]Line, 0, len(lacks))
	var deals [][]Line // what each line may be
	ways := 1
	for _, model := range slices.Sorted(maps.Keys(lacks)) {
		choices := dealsOf(lib, f, model, lacks[model], terms)
		if ways*len(choices) > mostBaskets {
			choices = choices[:1]
		}
		ways *= len(choices)
		deals = append(deals, choices)
		lines = append(lines, choices[0])
	}
	best := slices.Clone(lines)
	boxed(best)
	for range ways - 1 {
		next(lines, deals)
		tried := slices.Clone(lines)
		boxed(tried)
		if cheaper(tried, best) {
			best = tried
		}
	}
	return best
}

// next goes on to the next choice of deals, as an odometer does.
func next(lines []Line, deals [][]Line) {
	for i := range deals {
		at := slices.IndexFunc(deals[i], func(l Line) bool { return l.Deal == lines[i].Deal })
		if at+1 < len(deals[i]) {
			lines[i] = deals[i][at+1]
			return
		}
		lines[i] = deals[i][0]
	}
}

// boxed takes off what comes in the boxes of what is bought. What is content of another comes
// after it, so that no two are each other's.
func boxed(lines []Line) {
	done := make([]bool, len(lines))
	for range lines {
		at := slices.Index(done, false)
		for i := range lines {
			if !done[i] && !contained(lines, done, lines[i].Model) {
				at = i
				break
			}
		}
		done[at] = true
		from := &lines[at]
		for _, p := range from.with {
			if to := find(lines, p.Model); to >= 0 && !done[to] {
				lines[to].Boxed = min(lines[to].Count, lines[to].Boxed+p.Count*from.Buy())
			}
		}
	}
	for i := range lines {
		l := &lines[i]
		if l.Amount != nil && l.Count > 0 {
			l.Amount = new(*l.Amount / int64(l.Count) * int64(l.Buy()))
		}
	}
}

// find is the place of a model in a list; below zero: it is not there.
func find(lines []Line, model string) int {
	return slices.IndexFunc(lines, func(l Line) bool { return l.Model == model })
}

// contained says whether a model comes with something of a list that has not been gone through.
func contained(lines []Line, done []bool, model string) bool {
	for i := range lines {
		l := &lines[i]
		if !done[i] && l.Model != model && l.Buy() > 0 &&
			slices.ContainsFunc(l.with, func(p gear.Pieces) bool { return p.Model == model }) {
			return true
		}
	}
	return false
}

// cheaper holds two ways to buy a list against each other.
func cheaper(a, b []Line) bool {
	sum := func(lines []Line) (unpriced int, amount int64) {
		for i := range lines {
			switch l := &lines[i]; {
			case l.Printed:
			case l.Amount == nil:
				unpriced += l.Buy()
			default:
				amount += *l.Amount
			}
		}
		return unpriced, amount
	}
	ua, ma := sum(a)
	ub, mb := sum(b)
	return ua < ub || ua == ub && ma < mb
}

// dealsOf are the ways to buy a number of a model; one without a price where there is none.
func dealsOf(lib *gear.Library, f *fleet.Fleet, model string, count int, terms Terms) (list []Line) {
	line := Line{Model: model, Label: model, Count: count}
	item, ok := lib.Item(model)
	if !ok {
		return []Line{line}
	}
	head := item.Head()
	line.Label, line.Offer, line.with = head.Label(), head.Offer, head.Box
	if plate, ok := item.(*gear.Plate); ok {
		line.Printed = plate.Printed
	}
	for _, d := range head.Bought() {
		used := d.Kind == gear.DealUsed
		if used && (!terms.Used || d.Locked != nil && *d.Locked) {
			continue
		}
		one := line
		one.Offer, one.Used, one.Deal, one.with = new(d.Offer), used, d.ID, d.With
		if amount, ok := f.InCurrency(*d.Price, d.Currency, terms.Currency); ok {
			one.Amount = new(amount * int64(count))
		}
		list = append(list, one)
	}
	if len(list) == 0 {
		return []Line{line}
	}
	return list
}
