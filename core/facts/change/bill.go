package change

import (
	"maps"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Get says how what a change takes is come by.
type Get int

// The ways, best first.
const (
	Have  Get = iota // owned, or nothing is needed
	Print            // printed
	Buy              // bought or ordered
)

// String says it in words.
func (g Get) String() string { return [...]string{"nothing to buy", "to print", "to buy"}[g] }

// Cost is what a patch takes beyond what the plan before it took.
type Cost struct {
	Get   Get
	Price float64 // of what is to be bought, as far as it is stated
	// Currency is that of the price; empty where it is of several.
	Currency string
	// Grams is the mass of the regulators that come; nil where one's is not stated.
	Grams *unit.Grams
}

// Words says a cost: "to buy, +6.4 g".
func (k Cost) Words() string {
	words := []string{k.Get.String()}
	if k.Grams != nil && *k.Grams > 0 {
		words = append(words, Grams(*k.Grams))
	}
	return strings.Join(words, ", ")
}

// Bill reckons what a patch costs: the parts its fit takes beyond those of the fit
// before, less what the quad carries today and what lies in the drawer.
func Bill(c fleet.Case, p fleet.Patch) Cost {
	after := c.With(p)
	was, is := bought(c), bought(after)
	var cost Cost
	for _, model := range slices.Sorted(maps.Keys(is)) {
		n := is[model] - was[model]
		if n <= 0 {
			continue
		}
		if plate, ok := gear.Find[*gear.Plate](c.Library, model); ok && plate.Printed {
			cost.Get = max(cost.Get, Print)
			continue
		}
		cost.Get = Buy
		if item, ok := c.Library.Item(model); ok {
			if offer := item.Head().Offer; offer != nil && offer.Price != nil {
				cost.add(*offer.Price*float64(n), offer.Currency)
			}
		}
	}
	cost.Grams = comes(c, after)
	return cost
}

// add adds a price; a sum in two currencies has none.
func (k *Cost) add(price float64, currency string) {
	if k.Price == 0 {
		k.Currency = currency
	} else if k.Currency != currency {
		k.Currency = ""
	}
	k.Price += price
}

// taken counts everything a fit takes by model.
func taken(c fleet.Case, f *fleet.Fit) map[string]int {
	parts := f.Loose()
	if c.Fit = f; c.BuiltIn() {
		delete(parts, f.Receiver)
	}
	if f.Pack != "" {
		parts[f.Pack]++
	}
	for _, slot := range []*fleet.Slot{f.AirUnit, f.Goggles, f.Controller} {
		if slot != nil && slot.Kit == "" && slot.Model != "" {
			parts[slot.Model]++
		}
	}
	if frame, ok := gear.Find[*gear.Frame](c.Library, f.Frame); ok && f.Standoff != "" {
		parts[f.Standoff] += frame.StandoffCount()
	}
	if k, ok := c.Capacitor(); ok {
		parts[k.ID]++
	} else if words := Capacitor(f); words != "" {
		parts[words]++ // no gear is of its rating
	}
	return parts
}

// Needs counts what a fit takes beyond what is on the quad today, whatever lies in the drawer.
func Needs(c fleet.Case) map[string]int {
	now := taken(c, &c.Quad.Now)
	needs := map[string]int{}
	for model, n := range taken(c, c.Fit) {
		if n -= now[model]; n > 0 {
			needs[model] = n
		}
	}
	return needs
}

// lacking counts what a fit takes that is neither on the quad today nor in the drawer.
func lacking(c fleet.Case) map[string]int {
	lacks := map[string]int{}
	for model, n := range Needs(c) {
		if n -= c.Fleet.SpareCount(model, c.Quad.ID); n > 0 {
			lacks[model] = n
		}
	}
	return lacks
}

// bought counts what a fit takes that is neither on the quad today nor in the drawer, nor comes in the
// box of what else is bought. What comes in a bundle is paid with it.
func bought(c fleet.Case) map[string]int {
	lacks := lacking(c)
	left := maps.Clone(lacks)
	for model, n := range lacks {
		if item, ok := c.Library.Item(model); ok {
			for _, p := range item.Head().Box {
				left[p.Model] -= p.Count * n
			}
		}
	}
	maps.DeleteFunc(left, func(_ string, n int) bool { return n <= 0 })
	return left
}

// Lines are what a plan takes beyond what is there, by model, as it is bought for least.
func Lines(c fleet.Case, terms Terms) []Line {
	return Cheapest(c.Library, c.Fleet.Fleet, lacking(c), terms)
}

// comes is the mass of the regulators a patch brings.
func comes(before, after fleet.Case) *unit.Grams {
	had := map[string]int{}
	for _, r := range before.Fit.Regulators {
		had[r.Model]++
	}
	var sum unit.Grams
	for _, r := range after.Fit.Regulators {
		if had[r.Model]--; had[r.Model] >= 0 {
			continue
		}
		model, ok := gear.Find[*gear.Regulator](after.Library, r.Model)
		if !ok || model.MassG == nil {
			return nil
		}
		sum += *model.MassG
	}
	return &sum
}
