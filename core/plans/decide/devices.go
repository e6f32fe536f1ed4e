package decide

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// DevicePlan is what becomes of goggles or a controller: those that are owned, and those that are bought.
type DevicePlan struct {
	Kit    string   `json:"kit,omitempty"` // absent: it is bought
	Label  string   `json:"label"`
	Quads  []string `json:"quads"`            // that fly with it afterwards
	Brings *float64 `json:"brings,omitempty"` // what it is sold for, or could be; absent: that is not stated
	Sold   bool     `json:"sold"`
	Says   string   `json:"says"` // what is done with it
}

// devices are what becomes of all goggles and controllers in a choice: the owned ones first.
func (t *table) devices(p *Point) []DevicePlan {
	list := []DevicePlan{}
	for i := range t.index.Kit {
		kit := &t.index.Kit[i]
		if !t.forAll(kit) {
			continue
		}
		d := DevicePlan{Kit: kit.ID, Label: kit.Label(), Sold: slices.Contains(p.scenario.sold, kit.ID),
			Quads: append(t.flownWith(p, func(way *Way) bool { return way.fit.FliesWith(kit.ID) }), t.inTurnWith(kit.ID)...)}
		if brings := t.prices.resale(kit.Model); brings > 0 {
			d.Brings = new(float64(brings) / 100)
		}
		d.Says = t.becomes(&d, kit, p)
		list = append(list, d)
	}
	for _, model := range t.shared() {
		if p.scenario.has(model) {
			list = append(list, DevicePlan{Label: t.library.Label(model), Says: "It is bought.",
				Quads: t.flownWith(p, func(way *Way) bool { return slices.Contains(way.shares(), model) })})
		}
	}
	return list
}

// becomes says what is done with goggles or a controller in a choice.
func (t *table) becomes(d *DevicePlan, kit *fleet.Kit, p *Point) string {
	const idle = "Nobody flies with it in this choice"
	currency, state := t.prices.terms.Currency, p.scenario.goggles[kit.ID]
	switch {
	case d.Sold:
		return fmt.Sprintf("It is sold for %.2f %s.", *d.Brings, currency)
	case len(d.Quads) > 0 && updated(kit, &state):
		return "It is brought" + stateWords(&state) + "."
	case len(d.Quads) > 0:
		return "It stays as it is."
	case d.Brings == nil:
		if offer, said := t.prices.brings(kit.Model); said {
			return fmt.Sprintf("%s; what it would bring is stated in %s, of which no rate is.", idle, offer.Currency)
		}
		return idle + "; what it would bring is not stated."
	}
	says := fmt.Sprintf("%s; sold it would bring %.2f %s", idle, *d.Brings, currency)
	if lost := t.lost(p, kit.ID); lost > 0 {
		says += fmt.Sprintf(", and the choice would be worth %d less to visitors", lost)
	}
	return says + "."
}

// lost is how much less a choice is worth without goggles nobody flies with.
func (t *table) lost(p *Point, kit string) (points int64) {
	without := *p.scenario
	without.sold = append(slices.Clip(without.sold), kit)
	for i, pick := range p.picks {
		q := &t.quads[i]
		if t.grounded(p.scenario, q, q.ways[pick]) {
			continue
		}
		is, _ := t.worth(p.scenario, q, pick)
		would, _ := t.worth(&without, q, pick)
		points += is - would
	}
	return points
}

// updated says whether goggles are wanted otherwise than they are.
func updated(kit *fleet.Kit, is *fleet.Slot) bool {
	return is.Firmware.Known() && is.Firmware != kit.Firmware || is.Mode != "" && is.Mode != kit.Mode
}

// flownWith are the quads that fly in a choice and whose way is as is asked.
func (t *table) flownWith(p *Point, is func(*Way) bool) []string {
	list := []string{}
	for i, pick := range p.picks {
		q := &t.quads[i]
		way := q.ways[pick]
		if is(way) && (pick > 0 || q.flies) && !t.grounded(p.scenario, q, way) {
			list = append(list, q.quad.Label())
		}
	}
	return list
}

// forAll says whether a piece of kit serves all quads: goggles, or a controller.
func (t *table) forAll(kit *fleet.Kit) bool {
	_, goggles := gear.Find[*gear.Goggles](t.library, kit.Model)
	_, controller := gear.Find[*gear.Controller](t.library, kit.Model)
	return goggles || controller
}

// forSale are the goggles and controllers that bring something where nobody flies with them any more:
// none that a fit is flown with which a quad carries in turn.
func (t *table) forSale() (list []*fleet.Kit) {
	for i := range t.index.Kit {
		kit := &t.index.Kit[i]
		if t.question.Sell && t.forAll(kit) && t.prices.resale(kit.Model) > 0 && len(t.inTurnWith(kit.ID)) == 0 {
			list = append(list, kit)
		}
	}
	return list
}

// inTurnWith are the quads that carry in turn what is flown with goggles or a controller.
func (t *table) inTurnWith(kit string) (list []string) {
	for i := range t.index.Quads {
		q := &t.index.Quads[i]
		if slices.ContainsFunc(q.InTurn, func(turn fleet.TurnFit) bool { return turn.Fit.FliesWith(kit) }) {
			list = append(list, q.Label()+", in turn")
		}
	}
	return list
}

// worth is what a way of a quad is worth in a scenario, with its sum: goggles that are sold count
// for nobody.
func (t *table) worth(s *scenario, q *quadTable, way int) (int64, []WorthRow) {
	if len(s.sold) == 0 {
		return q.worths[way], q.rows[way]
	}
	outcome := q.ways[way].outcome.without(s.sold)
	return t.scale.worth(&outcome, q.purpose.Weights, q.weight)
}

// without is an outcome without some goggles.
func (o *Outcome) without(sold []string) Outcome {
	out := *o
	if len(sold) > 0 {
		out.sort(sold)
	}
	return out
}
