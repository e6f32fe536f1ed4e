package swap

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"reflect"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/mount"
	"yokeswap/core/measure/unit"
)

// Item is a part to have before the bench day.
type Item struct {
	Model string `json:"model,omitempty"`
	Label string `json:"label"`
	Need  int    `json:"need"`
	Have  int    `json:"have"`
	// Boxed are how many of those lacking come with something else on the list.
	Boxed int `json:"boxed,omitempty"`
	// Buy is how often it is bought: less than what is lacking where several come for one price. With
	// is what comes for it each time.
	Buy   int         `json:"buy"`
	With  []string    `json:"with,omitempty"`
	For   []string    `json:"for"` // quads
	MassG *unit.Grams `json:"massG,omitempty"`
	// Offer is what it costs each time and how long it takes to come, at the price the whole list is
	// bought for least; nil: not stated.
	Offer *gear.Offer `json:"offer,omitempty"`
	// Used is what a used one costs, the first that is stated and not bound to its former owner.
	Used *gear.Offer `json:"used,omitempty"`
	// Stops: without it the bench day stops; else it can come later.
	Stops bool   `json:"stops"`
	Note  string `json:"note,omitempty"`
}

// Shopping lists what the plans of a fleet take beyond what each quad carries
// today, against what lies in the drawer, what would stop the bench day first.
func Shopping(lib *gear.Library, f *fleet.Index) []Item {
	return ShoppingBy(lib, f, change.TermsOf(lib, f))
}

// ShoppingBy is the same where it is bought by other terms.
func ShoppingBy(lib *gear.Library, f *fleet.Index, terms change.Terms) []Item {
	l := shoppingList{lib: lib, index: f, terms: terms, items: map[string]*Item{}}
	for i := range f.Quads {
		l.quad(&f.Quads[i])
	}
	l.buy()
	list := []Item{}
	for _, key := range l.order {
		list = append(list, *l.items[key])
	}
	slices.SortStableFunc(list, func(a, b Item) int {
		return cmp.Or(order(a)-order(b), b.days()-a.days(), -cmp.Compare(len(a.For), len(b.For)))
	})
	return list
}

// buy says how what is lacking is bought for least: at which price how many of each, less what
// comes in boxes and bundles. What is bought at two prices is on the list twice.
func (l *shoppingList) buy() {
	lacks := map[string]int{}
	for _, item := range l.items {
		item.Buy = max(0, item.Need-item.Have)
		if item.Buy > 0 && item.Model != "" {
			lacks[item.Model] = item.Buy
		}
	}
	before := ""
	for _, line := range change.Cheapest(l.lib, l.index.Fleet, lacks, l.terms) {
		item := l.items[line.Model]
		if item == nil {
			item = l.besides(&line)
		}
		if line.Model == before {
			item = l.again(item, line.Count)
		}
		before = line.Model
		item.Boxed, item.Buy, item.Offer, item.With = line.Boxed, line.Times, line.Offer, change.InBox(l.lib, line.With)
		if model, ok := l.lib.Item(line.Model); ok {
			item.Used = model.Head().UsedOffer()
		}
	}
}

// besides is an item that nobody needs: it costs less, with what comes for its price, than that does by itself.
func (l *shoppingList) besides(line *change.Line) *Item {
	item := &Item{Model: line.Model, Label: line.Label, For: []string{}, MassG: massOf(l.lib, line.Model)}
	for _, with := range line.With {
		for _, key := range l.order {
			if other := l.items[key]; other.Model == with.Model && other.Need > other.Have {
				item.Stops = item.Stops || other.Stops
				for _, quad := range other.For {
					if !slices.Contains(item.For, quad) {
						item.For = append(item.For, quad)
					}
				}
			}
		}
	}
	item.Note = "bought for what comes with it"
	l.items[line.Model], l.order = item, append(l.order, line.Model)
	return item
}

// again is an item once more, for so many of it that are bought at another price.
func (l *shoppingList) again(item *Item, count int) *Item {
	other := *item
	item.Need -= count
	other.Need, other.Have = count, 0
	key := fmt.Sprint(item.Model, " again ", len(l.order))
	l.items[key], l.order = &other, append(l.order, key)
	return &other
}

// order puts what is to be bought before what is there, and of that what stops
// the day first.
func order(i Item) int {
	switch {
	case i.Buy > 0 && i.Stops:
		return 0
	case i.Buy > 0:
		return 1
	}
	return 2
}

// days is how long the item takes to come; what is not stated sorts behind what
// is.
func (i Item) days() int {
	if i.Offer == nil || i.Offer.Days == nil {
		return -1
	}
	return *i.Offer.Days
}

// Bill is what the shopping comes to, as far as it is stated.
type Bill struct {
	Totals []Total `json:"totals"`
	// Together is their sum in the fleet's currency, where a rate is stated for each other one; At
	// are those rates in words.
	Together *Total   `json:"together,omitempty"`
	At       []string `json:"at,omitempty"`
	Unpriced int      `json:"unpriced"` // items to buy without a price
	// Days is how long the slowest item that would stop the day takes; Undated
	// counts those that do not say.
	Days    *int `json:"days,omitempty"`
	Undated int  `json:"undated"`
}

// Total is a sum in one currency.
type Total struct {
	Currency string  `json:"currency"`
	Amount   float64 `json:"amount"`
}

// NewBill adds up a list, each currency by itself, and together at the rates a fleet states.
func NewBill(items []Item, f *fleet.Fleet) Bill {
	b := Bill{Totals: []Total{}}
	hundredths := map[string]int64{} // whole numbers, so that a long list adds up exactly
	for _, i := range items {
		if i.Buy == 0 {
			continue
		}
		if i.Offer == nil || i.Offer.Price == nil {
			b.Unpriced++
		} else {
			hundredths[i.Offer.Currency] += int64(i.Buy) * int64(math.Round(*i.Offer.Price*100))
		}
		switch {
		case !i.Stops:
		case i.days() < 0:
			b.Undated++
		case b.Days == nil || i.days() > *b.Days:
			b.Days = new(i.days())
		}
	}
	for _, currency := range slices.Sorted(maps.Keys(hundredths)) {
		b.Totals = append(b.Totals, Total{Currency: currency, Amount: float64(hundredths[currency]) / 100})
	}
	b.together(f)
	return b
}

// together adds up the currencies at the rates of a fleet, as far as each is stated.
func (b *Bill) together(f *fleet.Fleet) {
	if f.Means == nil {
		return
	}
	is := f.Means.Currency
	sum, at := int64(0), []string{}
	for _, t := range b.Totals {
		amount, ok := f.InCurrency(t.Amount, t.Currency, is)
		if !ok {
			return
		}
		sum += amount
		if words := f.RateWords(t.Currency, is); words != "" {
			at = append(at, words)
		}
	}
	if len(at) > 0 {
		b.Together, b.At = &Total{Currency: is, Amount: float64(sum) / 100}, at
	}
}

type shoppingList struct {
	lib   *gear.Library
	index *fleet.Index
	terms change.Terms
	items map[string]*Item
	order []string
}

func (l *shoppingList) add(model, label, quad string, n int, stops bool, note string) {
	key := cmp.Or(model, label)
	item := l.items[key]
	if item == nil {
		item = &Item{Model: model, Label: label, For: []string{}, Stops: stops, Note: note}
		if model != "" {
			item.Label = l.lib.Label(model)
			for _, s := range l.index.Spares {
				if s.Model == model {
					item.Have = s.Count
				}
			}
			item.MassG = massOf(l.lib, model)
			if g, ok := l.lib.Item(model); ok {
				item.Offer = g.Head().Offer
			}
		}
		l.items[key] = item
		l.order = append(l.order, key)
	}
	if shared(l.lib, model) {
		n = 1 - item.Need
	}
	item.Need += n
	if !slices.Contains(item.For, quad) {
		item.For = append(item.For, quad)
	}
}

// shared says whether one of a model does for all quads.
func shared(lib *gear.Library, model string) bool {
	_, goggles := gear.Find[*gear.Goggles](lib, model)
	_, controller := gear.Find[*gear.Controller](lib, model)
	return goggles || controller
}

func massOf(lib *gear.Library, id string) *unit.Grams {
	item, _ := lib.Item(id)
	switch g := item.(type) {
	case *gear.AirUnit:
		return g.MassG
	case *gear.Antenna:
		return g.MassG
	case *gear.Regulator:
		return g.MassG
	case *gear.Receiver:
		return g.MassG
	case *gear.Header:
		return g.MassG
	case *gear.Plate:
		return g.MassG
	case *gear.CameraModel:
		return g.MassG
	case *gear.Adapter:
		return g.MassG
	case *gear.Board:
		return g.MassG
	case *gear.Pack:
		return g.MassG
	case *gear.Bracket:
		return g.MassG
	case *gear.ReadyQuad:
		return g.MassG
	case *gear.Capacitor:
		return g.MassG
	case *gear.Standoff:
		return g.MassG
	}
	return nil
}

// quad adds what one quad's plan takes beyond what is on it and what lies ready for it.
func (l *shoppingList) quad(q *fleet.Quad) {
	if len(q.InTurn) == 0 {
		l.beyond(q)
		return
	}
	alone := shoppingList{lib: l.lib, index: l.index, items: map[string]*Item{}}
	alone.beyond(q)
	ready := q.Ready()
	for _, key := range alone.order {
		if item := alone.items[key]; item.Need > ready[item.Model] {
			l.add(item.Model, item.Label, q.Label(), item.Need-ready[item.Model], item.Stops, item.Note)
		}
	}
}

// beyond adds what a quad's plan takes beyond what is on it.
func (l *shoppingList) beyond(q *fleet.Quad) {
	c := fleet.NewCase(l.lib, l.index, q)
	now, next := &q.Now, c.Fit
	if s := next.AirUnit; s != nil && s.Kit == "" && s.Model != "" {
		l.add(s.Model, "", q.Label(), 1, true, "")
	}
	for _, s := range []*fleet.Slot{next.Goggles, next.Controller} { // one does for all quads
		if s != nil && s.Kit == "" && s.Model != "" {
			l.add(s.Model, "", q.Label(), 1, true, "")
		}
	}
	for _, part := range [][2]string{{next.Board, now.Board}, {next.Pack, now.Pack}} {
		if part[0] != "" && part[1] != "" && part[0] != part[1] {
			l.add(part[0], "", q.Label(), 1, true, "")
		}
	}
	if next.Receiver != "" && next.Receiver != now.Receiver && !c.BuiltIn() {
		l.add(next.Receiver, "", q.Label(), 1, true, "")
	}
	l.wiredParts(q, now, next)
	l.headers(q, now.Headers, next.Headers)
	for _, r := range next.Regulators {
		if _, fitted := now.Regulator(r.ID); !fitted {
			l.add(r.Model, "", q.Label(), 1, true, "")
		}
	}
	l.cables(q, now.Cable(), next.Cable(), "often comes with the unit")
	for _, part := range [][2]string{{next.Plate, now.Plate}, {next.Camera, now.Camera}} {
		if part[0] != "" && part[0] != part[1] {
			l.add(part[0], "", q.Label(), 1, true, "")
		}
	}
	if capacitor := change.Capacitor(next); capacitor != "" && capacitor != change.Capacitor(now) {
		model := ""
		if k, ok := c.Capacitor(); ok {
			model = k.ID
		}
		l.add(model, capacitor, q.Label(), 1, true, "")
	}
	l.antennas(q, now, next)
	l.screws(q, c)
}

// wiredParts are those beside the air unit, and the cables of all but it.
func (l *shoppingList) wiredParts(q *fleet.Quad, now, next *fleet.Fit) {
	had := fleet.Cable{}
	if now.ReceiverCable != nil {
		had = *now.ReceiverCable
	}
	if c := next.ReceiverCable; c != nil {
		l.cables(q, had, *c, "often comes with the receiver")
		l.headers(q, had.Headers, c.Headers)
	}
	for i := range next.Parts {
		p := &next.Parts[i]
		was, there := now.Part(p.ID)
		if !there {
			was = &fleet.PlacedPart{}
		}
		if p.Model != was.Model {
			l.add(p.Model, "", q.Label(), 1, true, "")
		}
		l.cables(q, was.Cable, p.Cable, "often comes with the part")
		l.headers(q, was.Headers, p.Headers)
	}
}

// cables are those a part has next and has not today.
func (l *shoppingList) cables(q *fleet.Quad, had, has fleet.Cable, note string) {
	left := had.Harnesses()
	for _, model := range has.Harnesses() {
		if at := slices.Index(left, model); at >= 0 {
			left = slices.Delete(left, at, at+1)
			continue
		}
		l.add(model, "", q.Label(), 1, true, note)
	}
}

// headers are those that come onto the pads of a part and of the board.
func (l *shoppingList) headers(q *fleet.Quad, had, has fleet.Headers) {
	for _, pair := range [][2]*fleet.Header{{had.Header, has.Header}, {had.BoardHeader, has.BoardHeader}} {
		if was, is := pair[0], pair[1]; is != nil && (was == nil || was.Model != is.Model) {
			l.add(is.Model, "", q.Label(), 1, true, "")
		}
	}
}

func (l *shoppingList) antennas(q *fleet.Quad, now, next *fleet.Fit) {
	if next.Antennas == nil {
		return
	}
	on := map[string]int{}
	if now.Antennas != nil {
		for _, m := range now.Antennas.Models {
			on[m]++
		}
		on[now.Antennas.Adapter] += len(now.Antennas.Models)
	}
	for _, m := range append(slices.Clone(next.Antennas.Models),
		slices.Repeat([]string{next.Antennas.Adapter}, len(next.Antennas.Models))...) {
		if on[m]--; m != "" && on[m] < 0 {
			l.add(m, "", q.Label(), 1, true, "")
		}
	}
}

func (l *shoppingList) screws(q *fleet.Quad, c fleet.Case) {
	if sameUnit(q.Now, *c.Fit) && reflect.DeepEqual(q.Now.Mounting, c.Fit.Mounting) {
		return
	}
	if w := c.Fit.Washer; w != "" && w != q.Now.Washer {
		l.add(w, "", q.Label(), fleet.UnitScrews, true, "")
	}
	if on := c.Fit.Standoff; on != "" && on != q.Now.Standoff {
		l.add(on, "", q.Label(), mount.StandoffCount(c), true, "")
	}
	l.holdings(q, c)
	for _, f := range mount.Fixings(c) {
		l.add(f.Model, f.Label, q.Label(), f.Count, true, f.Note)
	}
	plan := mount.Draw(c).Screw
	if plan == nil {
		return
	}
	model := c.Fit.Screw
	if model == "" {
		model = plan.Use
	}
	if model != "" {
		l.add(model, "", q.Label(), fleet.UnitScrews, true, "")
		return
	}
	l.add("", fmt.Sprintf("%s screw, %s to %s", plan.Size, plan.LeastMM, plan.MostMM), q.Label(), fleet.UnitScrews, true,
		"none in the library is as long")
}

// holdings are what holds parts in another way than their own screws, with its screws, and
// what a stop-gap waits for.
func (l *shoppingList) holdings(q *fleet.Quad, c fleet.Case) {
	for _, h := range c.HeldParts() {
		if was, had := q.Now.HoldingOf(h.Part); had && reflect.DeepEqual(was, h.Stated) {
			continue
		}
		if h.Bracket != "" {
			l.add(h.Bracket, "", q.Label(), 1, true, "")
		}
		if what := h.Beside(); what != "" {
			l.add("", what+" for "+h.Label, q.Label(), 1, true, "")
		}
		switch n := h.Screws; {
		case n == nil || *n == 0:
		case h.Screw != "":
			l.add(h.Screw, "", q.Label(), *n, true, "")
		default:
			l.add("", "screw for what holds "+h.Label, q.Label(), *n, true, "which one is not stated")
		}
		if h.Awaits != "" {
			l.add("", h.Awaits, q.Label(), 1, false, "awaited: until then a stop-gap holds "+h.Label)
		}
	}
}
