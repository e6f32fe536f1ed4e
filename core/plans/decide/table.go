package decide

import (
	"cmp"
	"context"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/assign"
)

// table is the ways of all quads with their price and worth.
type table struct {
	*Ways
	question Question
	prices   *prices
	things   []assign.Thing
	of       map[string]int  // thing by kit id or model
	models   []string        // of the things; empty: a piece of kit
	bundled  map[string]bool // comes with goggles or controllers
	leftOver map[string]bool // one quad's way may leave it over that another's takes
	quads    []quadTable
	scale    scale
	// simpler says that not all ways to buy what is taken are told apart.
	simpler bool
	sold    int64 // what all units together would bring, in hundredths
	// moves is how many moves are worth one point: more than there can be, so that of what is worth
	// the same the one with the fewest is chosen.
	moves int64
	// reach is which quads' ways cannot be had together in a choice: those no firmware route brings about.
	// A test says others.
	reach func(context.Context, *Point) (places []int, err error)
}

type quadTable struct {
	*QuadWays
	quad    *fleet.Quad
	purpose Purpose
	weight  int
	// ways are what can be done with it, each as often as there are ways to buy what it takes.
	ways    []*Way
	options []assign.Option // their worth in moves
	buyings []buying        // how what each way takes is bought
	worths  []int64         // in points
	rows    [][]WorthRow
	out     []Out
	stands  []int         // for each way, the one that stands for it in the choice: itself, or one alike
	holds   map[held]bool // noted once
}

func newTable(w *Ways, q Question) *table {
	terms := change.TermsOf(w.library, w.index)
	terms.Currency, terms.Used = cmp.Or(q.Currency, terms.Currency), q.Used
	t := &table{Ways: w, question: q, prices: newPrices(w.library, w.index.Fleet, terms), of: map[string]int{},
		bundled: map[string]bool{}, moves: int64(2*len(w.Quads) + 1)}
	t.reach = t.conflict
	t.bundles()
	if q.Sell {
		for i := range w.index.Kit {
			kit := &w.index.Kit[i]
			t.prices.soldFor(kit.Model)
			if !t.forAll(kit) {
				t.sold += t.sale(kit)
			}
		}
	}
	t.scale = newScale(w)
	t.leftOver = t.leavings()
	for i := range w.Quads {
		t.quads = append(t.quads, t.row(&w.Quads[i], &t.scale))
	}
	t.level()
	t.hold()
	return t
}

func newScale(w *Ways) (s scale) {
	for i := range w.Quads {
		for k := range w.Quads[i].Ways {
			s.take(&w.Quads[i].Ways[k].outcome)
		}
		for k := range w.Quads[i].ready {
			s.take(&w.Quads[i].ready[k].Outcome)
		}
	}
	return s
}

// bundles notes what comes in bundles with goggles and controllers: there may be more of it than
// lies in the drawer.
func (t *table) bundles() {
	for _, model := range t.shared() {
		item, _ := t.library.Item(model)
		deals := item.Head().Bought()
		if len(deals) == 0 {
			t.prices.assumed = append(t.prices.assumed, model)
		}
		for _, d := range deals {
			if _, known := t.index.RateOf(d.Currency, t.prices.terms.Currency); !known {
				t.prices.foreign = append(t.prices.foreign, model)
			}
		}
		for _, p := range t.purchases(model) {
			for _, with := range p.with {
				t.bundled[with.Model] = true
			}
		}
	}
}

// row is a quad with its ways, priced and weighed.
func (t *table) row(w *QuadWays, s *scale) quadTable {
	quad, _ := t.index.Quad(w.Quad)
	row := quadTable{QuadWays: w, quad: quad, purpose: PurposeOf(quad), weight: 1, out: slices.Clone(w.Out)}
	if quad.Weight != nil {
		row.weight = *quad.Weight
	}
	if changed, ok := t.question.Weights[row.purpose.ID]; ok {
		row.purpose.Weights = changed
	}
	for k := range w.Ways {
		first := len(row.ways)
		for n, basket := range t.baskets(&w.Ways[k]) {
			way := w.Ways[k]
			bought, ok := t.buying(&way, &basket)
			if !ok {
				continue
			}
			worth, rows := s.worth(&way.outcome, row.purpose.Weights, row.weight)
			bought.option.Worth = worth*t.moves - way.moved()
			bought.of, bought.basket = first, n
			row.ways, row.buyings, row.options = append(row.ways, &way), append(row.buyings, bought),
				append(row.options, bought.option)
			row.worths, row.rows = append(row.worths, worth), append(row.rows, rows)
		}
		if len(row.ways) == first {
			row.out = append(row.out, Out{Label: w.Ways[k].Label, Gates: []string{}, Says: "a part of it is priced in another " +
				"currency of which no rate is stated, or nothing of its kind has a price: state one in " + t.prices.terms.Currency})
		}
	}
	t.together(&row)
	return row
}

// sale is what a piece of kit brings where it is left over, in hundredths; nothing where a quad carries it
// in turn.
func (t *table) sale(kit *fleet.Kit) int64 {
	if _, inTurn := t.index.InTurnOn(kit.ID, ""); inTurn {
		return 0
	}
	return t.prices.resale(kit.Model)
}

// moved is how many moves a way makes: one for what is done, one more for a unit from another quad.
func (w *Way) moved() int64 {
	switch {
	case w.Key == leaveKey:
		return 0
	case w.Origin == Elsewhere:
		return 2
	}
	return 1
}

// shares are the goggles and the controller to buy that a way is flown with, by model.
func (w *Way) shares() (list []string) {
	for _, s := range []*fleet.Slot{w.fit.Goggles, w.fit.Controller} {
		if toBuy(s) {
			list = append(list, s.Model)
		}
	}
	return list
}

// labels are models by name, each once.
func (t *table) labels(models []string) []string {
	list := []string{}
	for _, m := range models {
		if label := t.library.Label(m); !slices.Contains(list, label) {
			list = append(list, label)
		}
	}
	slices.Sort(list)
	return list
}
