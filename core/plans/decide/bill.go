package decide

import (
	"cmp"
	"maps"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// BillLine is one line of what a choice costs.
type BillLine struct {
	Model  string `json:"model"`
	Kit    string `json:"kit,omitempty"` // that is sold
	Label  string `json:"label"`
	Count  int    `json:"count"`            // that are needed, or sold
	Drawer int    `json:"drawer,omitempty"` // of them lie in the drawer
	Boxed  int    `json:"boxed,omitempty"`  // of them come with something else
	Buy    int    `json:"buy"`              // fewer than that where several come for one price
	Used   bool   `json:"used,omitempty"`
	Sold   bool   `json:"sold,omitempty"`
	// Amount is what they come to, below zero where they bring money.
	Amount float64 `json:"amount"`
	// Assumed says that no price is stated: the dearest of its kind counts.
	Assumed bool     `json:"assumed,omitempty"`
	Days    *int     `json:"days,omitempty"` // until they are there; absent: not stated
	For     []string `json:"for"`            // quads
	With    []string `json:"with,omitempty"` // what comes for the same price, each with its number

	key   string // tells it from other lines
	drawn int    // on what is had in common
}

// bill is what a choice costs, line by line; the lines add up to its money.
func (t *table) bill(p *Point) []BillLine {
	lines := map[string]*BillLine{}
	for i, pick := range p.picks {
		t.takes(lines, &t.quads[i], pick)
	}
	keys := slices.Sorted(maps.Keys(lines))
	for _, key := range keys {
		t.priced(lines[key], p)
	}
	list := []BillLine{}
	for _, bought := range p.scenario.bought {
		list = append(list, t.device(p, &bought))
	}
	for _, key := range keys {
		list = append(list, *lines[key])
	}
	slices.SortStableFunc(list, func(a, b BillLine) int { return cmp.Compare(b.Amount, a.Amount) })
	if t.question.Sell {
		list = append(list, t.sales(p)...)
	}
	return list
}

// takes adds what a way of a quad takes.
func (t *table) takes(lines map[string]*BillLine, q *quadTable, pick int) {
	for k := range q.buyings[pick].lines {
		l := &q.buyings[pick].lines[k]
		key := l.Model + " " + l.Deal
		if l.Drawn > 0 {
			key = l.Model // what is had in common serves all
		}
		line := lines[key]
		if line == nil {
			line = &BillLine{Model: l.Model, Label: l.Label, Used: l.Used, For: []string{},
				With: change.InBox(t.library, l.With), key: key}
			lines[key] = line
		}
		if l.Offer != nil {
			line.Days = l.Offer.Days
		}
		line.Count += l.Count
		line.Boxed += l.Boxed
		line.Buy += l.Times
		line.drawn += l.Drawn
		line.Assumed = line.Assumed || l.Amount == nil && !l.Printed && (l.Drawn == 0 || !t.prices.stated(l.Model))
		if !slices.Contains(line.For, q.quad.Label()) {
			line.For = append(line.For, q.quad.Label())
		}
		cost, _ := t.prices.cost(l)
		line.Amount += float64(cost) / 100
	}
}

// priced takes off what is had in common.
func (t *table) priced(line *BillLine, p *Point) {
	if line.drawn > 0 {
		comes := min(line.drawn, p.scenario.comes(line.Model)+t.leaves(p.picks, line.Model))
		line.Boxed += comes
		line.Drawer = min(line.drawn-comes, t.spares(line.Model))
		line.Buy += line.drawn - comes - line.Drawer
		price, _ := t.prices.each(line.Model)
		line.Amount += float64(price*int64(line.drawn-comes-line.Drawer)) / 100
	}
	line.Assumed = line.Assumed && line.Buy > 0
}

// device is the line of goggles or a controller that is bought.
func (t *table) device(p *Point, bought *purchase) BillLine {
	line := BillLine{Model: bought.model, Label: t.library.Label(bought.model), Count: 1, Buy: 1, key: bought.model,
		Used: bought.deal.Kind == gear.DealUsed, Amount: float64(bought.amount) / 100, Assumed: bought.deal.Price == nil,
		Days: bought.deal.Days, For: []string{}}
	for i, pick := range p.picks {
		if q := &t.quads[i]; bought.serves(q.ways[pick], q.buyings[pick].draws) {
			line.For = append(line.For, t.quads[i].quad.Label())
		}
	}
	line.With = change.InBox(t.library, bought.with)
	return line
}

// idle are the air units that no quad carries in a choice.
func (t *table) idle(p *Point) (list []*fleet.Kit) {
	flown := map[string]bool{}
	for i, pick := range p.picks {
		flown[t.quads[i].ways[pick].kit] = true
	}
	for i := range t.index.Kit {
		kit := &t.index.Kit[i]
		if _, unit := gear.Find[*gear.AirUnit](t.library, kit.Model); unit && !flown[kit.ID] {
			list = append(list, kit)
		}
	}
	return list
}

// sales are the lines of what is left over and brings something.
func (t *table) sales(p *Point) (list []BillLine) {
	left := t.idle(p)
	for _, id := range p.scenario.sold {
		if kit, ok := t.index.Piece(id); ok {
			left = append(left, kit)
		}
	}
	for _, kit := range left {
		if brings := t.sale(kit); brings > 0 {
			list = append(list, BillLine{Model: kit.Model, Kit: kit.ID, Label: kit.Label(), Count: 1, Sold: true, Used: true,
				Amount: -float64(brings) / 100, For: []string{}})
		}
	}
	return list
}
