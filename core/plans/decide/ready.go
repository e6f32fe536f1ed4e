package decide

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/plans/swap"
)

// Ready is a quad bought whole, in the place of the one that is asked about.
type Ready struct {
	ID string `json:"id"` // of its entry
	// Price is what a new one costs, Used a used one, both in Currency; absent: no price is stated, or no
	// rate for its currency.
	Price    *float64 `json:"price,omitempty"`
	Used     *float64 `json:"used,omitempty"`
	Currency string   `json:"currency"`
	Says     []string `json:"says"`
}

// readyGates are what is asked of a quad bought whole: what hangs on the goggles, sticks and region of who
// buys it. All else is as its builder made it.
var readyGates = []verdict.Gate{verdict.Link, verdict.Antenna}

// BoughtWhole are the quads that can be bought whole instead of changing this one.
func BoughtWhole(c fleet.Case) (list []Candidate) {
	for _, made := range gear.All[*gear.ReadyQuad](c.Library) {
		list = append(list, ready(c, made))
	}
	return list
}

// ready is one of them, flown as the quad is flown.
func ready(c fleet.Case, made *gear.ReadyQuad) Candidate {
	one := Candidate{
		Key: "ready:" + made.ID, Label: made.Label(), Origin: ReadyMade, With: []Company{},
		Found: Found{Plans: []Plan{}, Hanging: []Plan{}, All: true},
		Ready: offerOf(c, made),
	}
	if parts := partsOf(c, made); len(parts) > 0 {
		one.Ready.Says = append(one.Ready.Says, "In it: "+change.And(parts)+".")
	}
	planned := c.Quad.NextFit()
	at := c.Carrying(fleet.ReadyMade(made, &planned))
	gates := swap.Lazily(at)
	one.Level = verdict.Caution // nobody has looked at the rest
	for i := range swap.Gates {
		if !slices.Contains(readyGates, swap.Gates[i].Name) {
			continue
		}
		findings := slices.DeleteFunc(slices.Clone(gates.Gate(i).Findings), ofItsBuilder)
		for k := range findings {
			if f := &findings[k]; f.Level != verdict.Fits {
				one.Level = verdict.WorstOf(one.Level, f.Level)
				one.Ready.Says = append(one.Ready.Says, f.Says)
			}
		}
	}
	if made.Board == "" { // a fit without one is flown by nobody, and asks for no sticks
		one.Level = verdict.WorstOf(one.Level, verdict.Unknown)
		one.Ready.Says = append(one.Ready.Says, "unknown: flight board of "+made.Label()+".")
	}
	one.Ready.Says = append(one.Ready.Says, "How it is wired, held and set is as its builder made it: nobody has looked "+
		"at that here. Take it in as a quad of your own and see, before its first pack.")
	one.Outcome = outcomeOf(at)
	one.Outcome.weighs(c, made)
	return one
}

// partsOf are the names of what is stated to be in it.
func partsOf(c fleet.Case, made *gear.ReadyQuad) (list []string) {
	parts := append([]string{made.AirUnit, made.Board, made.Receiver, made.Frame, made.Pack}, made.Antennas...)
	for _, model := range parts {
		if item, known := c.Library.Item(model); known && !slices.Contains(list, item.Head().Label()) {
			list = append(list, item.Head().Label())
		}
	}
	return list
}

// ofItsBuilder says whether a finding asks for nothing but how antennas stand.
func ofItsBuilder(f verdict.Finding) bool {
	return len(f.Missing) > 0 && !slices.ContainsFunc(f.Missing, func(m verdict.Missing) bool {
		return !strings.HasSuffix(m.Field, "antennas.angleDeg") && !strings.HasSuffix(m.Field, "antennas.carbonMM")
	})
}

// weighs is its mass and hover time, as stated, against today's.
func (o *Outcome) weighs(c fleet.Case, made *gear.ReadyQuad) {
	o.MassG, o.AllG, o.HoverMin, o.FlightTime = nil, nil, nil, nil
	pack, there := gear.Find[*gear.Pack](c.Library, made.Pack)
	if !there {
		return
	}
	if made.MassG != nil && pack.MassG != nil {
		o.AllG = new(*made.MassG + *pack.MassG)
		if o.BeforeG != nil {
			o.MassG = new(*o.AllG - *o.BeforeG)
		}
	}
	o.HoverMin = mount.HoverMinutes(pack, made.HoverA)
	if today, flies := fleet.NowCase(c.Library, c.Fleet, c.Quad).Pack(); flies && o.HoverMin != nil {
		if now := mount.HoverMinutes(today, c.Quad.HoverA); now != nil {
			o.FlightTime = new(*o.HoverMin / *now)
		}
	}
}

// offerOf is what it costs.
func offerOf(c fleet.Case, made *gear.ReadyQuad) *Ready {
	r := &Ready{ID: made.ID, Currency: change.TermsOf(c.Library, c.Fleet).Currency, Says: []string{}}
	for _, deal := range made.Bought() {
		amount, ok := c.Fleet.InCurrency(*deal.Price, deal.Currency, r.Currency)
		if !ok || deal.Bundle() {
			continue
		}
		of := &r.Price
		if deal.Kind == gear.DealUsed {
			of = &r.Used
		}
		if price := float64(amount) / 100; *of == nil || price < **of {
			*of = &price
		}
	}
	return r
}

// least is the least it costs, used or new; nil: no price is stated.
func (r *Ready) least() *float64 {
	if r.Price == nil || r.Used != nil && *r.Used < *r.Price {
		return r.Used
	}
	return r.Price
}

// whole are the quads that could be bought whole in the place of one, held against what becomes of it in a
// choice.
func (t *table) whole(p *Point, at int, left float64) (list []OtherWay) {
	q, pick := &t.quads[at], p.picks[at]
	is, _ := t.worth(p.scenario, q, pick)
	as := &Way{fit: q.quad.NextFit()}
	if p.scenario.gives(as) || p.scenario.only != "" && t.gogglesModel(as) != p.scenario.only {
		return nil // what it would be flown with is sold, or not of the one kind
	}
	spared, ok := t.instead(p, at, 0)
	if !ok { // what it carries today has gone to others
		spared = -q.buyings[pick].alone
	}
	for i := range q.ready {
		one := &q.ready[i]
		price := one.Ready.Price
		if t.question.Used {
			price = one.Ready.least()
		}
		rate, known := t.index.RateOf(one.Ready.Currency, t.prices.terms.Currency)
		if price == nil || !known {
			continue
		}
		outcome := one.Outcome.without(p.scenario.sold)
		would, _ := t.scale.worth(&outcome, q.purpose.Weights, q.weight)
		other := OtherWay{Label: one.Label + ", bought whole", Origin: ReadyMade, Worth: would - is,
			More: *price*rate + float64(spared)/100}
		other.Says = one.tips(&other, left, t.prices.terms.Currency)
		list = append(list, other)
	}
	return list
}

// tips says what a quad bought whole would bring. It is no part of a choice, which is among what can be
// done with the quads there are.
func (c *Candidate) tips(o *OtherWay, left float64, currency string) (says string) {
	switch {
	case o.Worth <= 0:
		return "worth no more"
	case o.More > left:
		says = fmt.Sprintf("worth more, for %.2f %s more where %.2f are left", o.More, currency, max(0, left))
	default:
		says = "worth more, and there is the money for it"
	}
	if c.hangs() {
		says += "; it hangs on what is not known"
	}
	return says
}
