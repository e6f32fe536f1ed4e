package power

import (
	"cmp"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// FeedOption is one way to feed the air unit, judged with everything else on its
// rail.
type FeedOption struct {
	Says   string        `json:"says"`
	Chosen bool          `json:"chosen"`
	Level  verdict.Level `json:"level"`
	Why    string        `json:"why"` // the worst finding of it, in words
	Costs  string        `json:"costs,omitempty"`
	Owned  bool          `json:"owned"`
	Wires  int           `json:"wires"`           // to lay or move
	AddsG  *unit.Grams   `json:"addsG,omitempty"` // in its costs, where it is stated
	HeatW  *unit.Watts   `json:"heatW,omitempty"` // its converter's, at peak
	Patch  fleet.Patch   `json:"patch"`
}

// Feeds ranks every way to feed the air unit: the ones that work first, then by
// what they cost: parts to buy, wires to lay, weight and heat. It is empty
// without an air unit.
func Feeds(c fleet.Case) []FeedOption {
	s := newSupply(c)
	list := []FeedOption{}
	consumers := s.consumers()
	at := slices.IndexFunc(consumers, func(p consumer) bool { return p.node == fleet.NodeAirUnit })
	if at < 0 {
		return list
	}
	part := consumers[at]
	if from, fed := c.Fit.FeedOf(fleet.NodeAirUnit); fed {
		o := s.originOf(from)
		now := verdict.Candidate{Patch: fleet.Patch{Feed: &fleet.Feed{
			To:   fleet.NodeAirUnit,
			From: from,
			Lead: s.ownLead(part.node),
		}}}
		option := s.option(now, true)
		option.Says = "as planned: from " + o.label
		list = append(list, option)
	}
	for _, cand := range s.feeds(part) {
		list = append(list, s.option(cand, false))
	}
	slices.SortStableFunc(list, func(a, b FeedOption) int {
		return cmp.Or(rank(a.Level)-rank(b.Level), -cmp.Compare(flag(a.Owned), flag(b.Owned)), a.Wires-b.Wires,
			cmp.Compare(grams(a.AddsG), grams(b.AddsG)), cmp.Compare(watts(a.HeatW), watts(b.HeatW)))
	})
	return list
}

// option judges one way with all that hangs on the pack.
func (s supply) option(cand verdict.Candidate, chosen bool) FeedOption {
	after := s.Case
	if !chosen {
		after = s.With(cand.Patch)
	}
	path := Trace(after)
	cand.Patch = change.Settle(s.Case, cand.Patch)
	cost := change.Bill(s.Case, cand.Patch)
	o := FeedOption{
		Says:   change.Words(s.Case, cand.Patch),
		Chosen: chosen,
		Level:  verdict.Fits,
		Costs:  cost.Words(),
		Owned:  cost.Get == change.Have,
		Patch:  cand.Patch,
	}
	from, _ := after.Fit.FeedOf(fleet.NodeAirUnit)
	way := newSupply(after).originOf(from)
	concerned := map[string]bool{}
	for _, n := range path.Nodes {
		if n.ID == fleet.NodeAirUnit || n.ID == way.node {
			concerned[n.Label] = true
		}
	}
	for _, r := range path.Rails {
		if r.ID == way.node {
			concerned[r.Label] = true
			o.HeatW = r.HeatW
		}
	}
	for _, f := range path.findings {
		if concerned[f.Subject] && (o.Why == "" || f.Level.WorseThan(o.Level)) {
			o.Level, o.Why = f.Level, f.Says
		}
	}
	if !chosen {
		o.Wires = 2 // supply and ground
	}
	if cand.Patch.Jumper != nil {
		o.Wires = 0 // solder on a jumper, no wire
	}
	if p := cand.Patch.Regulator; p != nil {
		o.Wires = 4 // in and out
		if model, ok := gear.Find[*gear.Regulator](s.Library, p.Model); ok {
			o.AddsG = model.MassG
		}
	}
	return o
}

// rank orders the levels from best to worst.
func rank(l verdict.Level) int {
	return slices.Index([]verdict.Level{verdict.Fits, verdict.Caution, verdict.Change, verdict.Unknown, verdict.Unfit}, l)
}

func flag(b bool) int {
	if b {
		return 1
	}
	return 0
}

func grams(g *unit.Grams) unit.Grams {
	if g == nil {
		return 0
	}
	return *g
}

func watts(w *unit.Watts) unit.Watts {
	if w == nil {
		return 0
	}
	return *w
}
