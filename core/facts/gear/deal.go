package gear

import "slices"

// DealKind says what is dealt in.
type DealKind string

// The kinds of deals.
const (
	DealNew    DealKind = "new"    // as a shop sells it, otherwise than the entry's own offer
	DealUsed   DealKind = "used"   // from a former owner
	DealResale DealKind = "resale" // what one gets for one of one's own
)

// Deal is one more price of a thing: of a used one, of several things together, of what a used
// one brings.
type Deal struct {
	ID   string   `json:"id"`
	Kind DealKind `json:"kind"`
	Offer
	// Locked says whether a used one is still bound to its former owner's account; absent: nobody
	// has said.
	Locked *bool `json:"locked,omitempty"`
	// With is what comes for the same price beside one of this: a bundle.
	With []Pieces `json:"with,omitempty"`
}

// Pieces are a number of a model.
type Pieces struct {
	Model string `json:"model"`
	Count int    `json:"count"`
}

// Bundle says whether several things come for one price.
func (d *Deal) Bundle() bool { return len(d.With) > 0 }

// Bought are the ways to buy one, the entry's own offer first, under the id "". What has no
// price is not among them.
func (e *Entry) Bought() (list []Deal) {
	if o := e.Offer; o != nil && o.Price != nil {
		list = append(list, Deal{Kind: DealNew, Offer: *o, With: e.Box})
	}
	for _, d := range e.Deals {
		if d.Kind == DealResale || d.Price == nil {
			continue
		}
		if d.Kind == DealNew { // a new one comes in its box
			d.With = slices.Concat(e.Box, d.With)
		}
		list = append(list, d)
	}
	return list
}

// brings are the other models that can be bought with one for one price.
func (e *Entry) brings() (models []string) {
	for _, d := range e.Bought() {
		for _, p := range d.With {
			if p.Model != e.ID && !slices.Contains(models, p.Model) {
				models = append(models, p.Model)
			}
		}
	}
	return models
}

// Resale is what one brings; false where nobody has said.
func (e *Entry) Resale() (Offer, bool) {
	for _, d := range e.Deals {
		if d.Kind == DealResale && d.Price != nil {
			return d.Offer, true
		}
	}
	return Offer{}, false
}

// UsedOffer is what a used one costs, the first that is stated and not bound to its former owner; nil:
// none is.
func (e *Entry) UsedOffer() *Offer {
	for i := range e.Deals {
		d := &e.Deals[i]
		if d.Kind == DealUsed && d.Price != nil && (d.Locked == nil || !*d.Locked) {
			return &d.Offer
		}
	}
	return nil
}

// BoxedAntennas are the antennas that come with a new one of a model, by model, one for each.
func (l *Library) BoxedAntennas(model string) (list []string) {
	item, ok := l.Item(model)
	if !ok {
		return nil
	}
	for _, p := range item.Head().Box {
		if _, is := Find[*Antenna](l, p.Model); is {
			list = append(list, slices.Repeat([]string{p.Model}, p.Count)...)
		}
	}
	return list
}
