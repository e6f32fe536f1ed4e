package decide

import (
	"cmp"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// prices are what parts cost by the terms of a question, in hundredths of its currency.
type prices struct {
	library *gear.Library
	fleet   *fleet.Fleet
	terms   change.Terms
	dearest map[gear.Kind]int64 // of what has a price, by kind
	part    int64               // of all small parts
	assumed []string            // models counted at another's price
	foreign []string            // models priced in a currency of which no rate is known
}

// small are the kinds of parts by which one counts that is no gear, such as a capacitor of a
// rating none in the library has.
var small = []gear.Kind{gear.KindRegulator, gear.KindHarness, gear.KindHeader, gear.KindAdapter, gear.KindCapacitor,
	gear.KindScrew, gear.KindWasher, gear.KindStandoff, gear.KindBracket}

func newPrices(lib *gear.Library, f *fleet.Fleet, terms change.Terms) *prices {
	p := &prices{library: lib, fleet: f, terms: terms, dearest: map[gear.Kind]int64{}}
	for _, item := range lib.Items() {
		for _, offer := range newOffers(item.Head()) {
			price, ok := f.InCurrency(*offer.Price, offer.Currency, terms.Currency)
			if !ok {
				continue
			}
			p.dearest[item.Kind()] = max(p.dearest[item.Kind()], price)
			if slices.Contains(small, item.Kind()) {
				p.part = max(p.part, price)
			}
		}
	}
	return p
}

// newOffers are the prices of a new one by itself: what a used one or a bundle costs says nothing of
// others of its kind.
func newOffers(e *gear.Entry) (list []gear.Offer) {
	if e.Offer != nil && e.Offer.Price != nil {
		list = append(list, *e.Offer)
	}
	for i := range e.Deals {
		if d := &e.Deals[i]; d.Kind == gear.DealNew && !d.Bundle() && d.Price != nil {
			list = append(list, d.Offer)
		}
	}
	return list
}

// cost is what a line comes to, in hundredths; what is drawn on what is had in common is not in it. Where
// no price is stated each counts as the dearest of its kind, so that leaving a price out never makes a plan
// cheaper than the rest of its kind; false where it has one in another currency of which no rate is known,
// or none of its kind has any.
func (p *prices) cost(l *change.Line) (int64, bool) {
	if l.Times == 0 {
		return 0, true
	}
	if l.Amount != nil {
		return *l.Amount, true
	}
	each, ok := p.assume(l.Model, l.Offer)
	return each * int64(l.Times), ok
}

// each is what one more of a model costs by itself at least, in hundredths; false where that cannot be said,
// or it is not sold by itself.
func (p *prices) each(model string) (least int64, ok bool) {
	deal, least, other := p.single(model)
	if deal != nil {
		return least, true
	}
	return p.assume(model, other)
}

// single is the price one of a model is bought at for least by itself, in hundredths; nil: there is none,
// but another that does not count, nil: nor that.
func (p *prices) single(model string) (deal *gear.Deal, least int64, other *gear.Offer) {
	item, known := p.library.Item(model)
	if !known {
		return nil, 0, nil
	}
	for _, d := range item.Head().Bought() {
		amount, rated := p.fleet.InCurrency(*d.Price, d.Currency, p.terms.Currency)
		switch {
		case !p.terms.Take(&d):
		case !rated || slices.ContainsFunc(d.With, func(w gear.Pieces) bool { return w.Model == model }):
			other = &d.Offer
		case deal == nil || amount < least:
			deal, least = &d, amount
		}
	}
	return deal, least, other
}

// assume is what one of a model counts as that has no price to reckon with; false: it has another, or
// none of its kind has any.
func (p *prices) assume(model string, stated *gear.Offer) (int64, bool) {
	item, ok := p.library.Item(model)
	if !ok {
		return p.part, p.part > 0
	}
	if plate, is := item.(*gear.Plate); is && plate.Printed {
		return 0, true
	}
	if stated != nil && stated.Price != nil {
		return 0, false
	}
	price := p.dearest[item.Kind()]
	if _, device := item.(gear.Linked); !device {
		price = cmp.Or(price, p.part)
	}
	return price, price > 0
}

// note notes of what is bought which has no price that can be reckoned with.
func (p *prices) note(l *change.Line) {
	switch {
	case l.Printed || l.Amount != nil || l.Times+l.Drawn == 0 || l.Drawn > 0 && p.stated(l.Model):
	case l.Offer != nil && l.Offer.Price != nil:
		p.foreign = append(p.foreign, l.Model)
	default:
		p.assumed = append(p.assumed, l.Model)
	}
}

// stated says whether a model has a price that can be reckoned with.
func (p *prices) stated(model string) bool {
	item, ok := p.library.Item(model)
	return ok && slices.ContainsFunc(item.Head().Bought(), func(d gear.Deal) bool {
		_, rated := p.fleet.RateOf(d.Currency, p.terms.Currency)
		return rated && p.terms.Take(&d)
	})
}

// resale is what one of a model brings; zero where nobody has said, or in a currency of which no rate is
// stated: foreign says so.
func (p *prices) resale(model string) (amount int64) {
	if offer, said := p.brings(model); said {
		amount, _ = p.fleet.InCurrency(*offer.Price, offer.Currency, p.terms.Currency)
	}
	return amount
}

// brings is what is said that one of a model brings.
func (p *prices) brings(model string) (offer gear.Offer, said bool) {
	if item, ok := p.library.Item(model); ok {
		return item.Head().Resale()
	}
	return offer, false
}

// soldFor notes of what is sold whether it brings money of which no rate is stated.
func (p *prices) soldFor(model string) {
	if offer, said := p.brings(model); said {
		if _, known := p.fleet.RateOf(offer.Currency, p.terms.Currency); !known {
			p.foreign = append(p.foreign, model)
		}
	}
}
