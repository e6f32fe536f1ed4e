package decide

import (
	"maps"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/gear"
)

// secondHand are what is to be found out, before they are paid, of the used devices a quad takes in a choice,
// however they come to it: by themselves, with something else, or with what was bought for others. Bought
// is how many of each it has bought beside what is had in common.
func (t *table) secondHand(p *Point, at int, bought map[string]int) (list []string) {
	way := t.quads[at].ways[p.picks[at]]
	for _, model := range slices.Sorted(maps.Keys(way.needs)) {
		item, _ := t.library.Item(model)
		device, is := item.(gear.Linked)
		if !is {
			continue
		}
		for _, d := range t.usedDeals(p, at, model, bought[model] > 0) {
			for _, asks := range asksOf(t.library, device, d) {
				if !slices.Contains(list, asks) {
					list = append(list, asks)
				}
			}
		}
	}
	return list
}

// usedDeals are the prices of used things by which a model may come to a quad in a choice; single says that
// it is bought by itself beside what is had in common.
func (t *table) usedDeals(p *Point, at int, model string, single bool) (list []*gear.Deal) {
	own := &t.quads[at].buyings[p.picks[at]]
	drawn := own.draws[model] > 0
	inCommon := drawn || slices.Contains(t.quads[at].ways[p.picks[at]].shares(), model)
	for i, pick := range p.picks {
		b := &t.quads[i].buyings[pick]
		for k := range b.lines {
			l := &b.lines[k]
			left := i == at || drawn && b.draws[model] < 0
			comes := l.Model == model || slices.ContainsFunc(l.With, func(p gear.Pieces) bool { return p.Model == model })
			if left && l.Times > 0 && l.Used && comes {
				list = append(list, t.dealOf(l))
			}
		}
	}
	for k := range p.scenario.bought {
		b := &p.scenario.bought[k]
		if inCommon && b.deal.Kind == gear.DealUsed && (b.model == model || b.brings(model) > 0) {
			list = append(list, &b.deal)
		}
	}
	if deal, _, _ := t.prices.single(model); single && deal != nil && deal.Kind == gear.DealUsed {
		list = append(list, deal)
	}
	return list
}

// dealOf is the price a line is bought at.
func (t *table) dealOf(l *change.Line) *gear.Deal {
	item, _ := t.library.Item(l.Model)
	deals := item.Head().Deals
	return &deals[slices.IndexFunc(deals, func(d gear.Deal) bool { return d.ID == l.Deal })]
}

// asksOf are what is to be found out of a used device.
func asksOf(lib *gear.Library, device gear.Linked, d *gear.Deal) []string {
	label := device.Head().Label()
	list := []string{"which release the used " + label + " carries"}
	if device.AsDevice().Locks() && d.Locked == nil {
		list = append(list, "whether its former owner lets the used "+label+" go from their account")
	}
	if _, goggles := device.(*gear.Goggles); goggles && len(lib.BoxedAntennas(device.Head().ID)) > 0 {
		list = append(list, "whether the used "+label+" comes with its antennas")
	}
	return list
}
