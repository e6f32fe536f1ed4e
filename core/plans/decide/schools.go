package decide

import (
	"maps"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
)

// School is a row of the register of schools: practitioners differ in what is worth having, and
// each way of seeing it is a set of weights that can be read and changed.
type School struct {
	ID    string `json:"id"`
	Title string `json:"title"`
	Why   string `json:"why"`
	// Weights by purpose; absent: as the register of purposes has them.
	Weights    map[fleet.Purpose]Weights `json:"weights,omitempty"`
	Used       bool                      `json:"used"`
	Sell       bool                      `json:"sell"`
	OneGoggles bool                      `json:"oneGoggles"`
}

// Schools is the register; the first is what is asked where nothing else is. Source: common
// practice.
var Schools = []School{
	{
		ID:    "purpose",
		Title: "each by what it is flown for",
		Why:   "what counts differs from quad to quad, and nothing else is held against it",
	},
	{
		ID:    "film-newest",
		Title: "the newest only where it films",
		Why:   "a picture nobody keeps is good enough as it is; what is spent goes into the recording",
		Weights: everywhere(Weights{AsItIs: 5}, map[fleet.Purpose]Weights{
			fleet.Films: {Records: 5, Picture: 5, Range: 1},
		}),
	},
	{
		ID:    "used-middle",
		Title: "all to the used middle generation",
		Why: "what is two generations old costs little to replace when it crashes, and one kind of everything shares " +
			"spares; the oldest is sold while it still brings something",
		Weights: everywhere(Weights{Middle: 5, Flies: 3, Picture: 1, Visitors: 1}, nil),
		Used:    true,
		Sell:    true,
	},
	{
		ID:      "when-it-crashes",
		Title:   "replace what crashes, when it crashes",
		Why:     "what flies stays; only what does not fly today gets something, and that for little",
		Weights: everywhere(Weights{AsItIs: 4, Flies: 5}, nil),
		Used:    true,
	},
	{
		ID:         "one-goggles",
		Title:      "never two kinds of goggles",
		Why:        "one pair on the face, one set of antennas, one way to update; what it cannot fly is not flown",
		Used:       true,
		Sell:       true,
		OneGoggles: true,
	},
}

// everywhere is the same for all purposes but some.
func everywhere(all Weights, but map[fleet.Purpose]Weights) map[fleet.Purpose]Weights {
	weights := map[fleet.Purpose]Weights{}
	for _, p := range Purposes {
		switch own, is := but[p.ID]; {
		case is:
			weights[p.ID] = own
		case p.ID == fleet.NoPurpose:
			weights[p.ID] = Weights{}
		default:
			weights[p.ID] = all
		}
	}
	return weights
}

// SchoolOf is the school of an id, the first where none is named; false where there is none of it.
func SchoolOf(id string) (School, bool) {
	if id == "" {
		return Schools[0], true
	}
	at := slices.IndexFunc(Schools, func(s School) bool { return s.ID == id })
	if at < 0 {
		return School{}, false
	}
	return Schools[at], true
}

// WeightsOf are the weights of a purpose in a school.
func (s *School) WeightsOf(p Purpose) Weights {
	if w, ok := s.Weights[p.ID]; ok {
		return w
	}
	return p.Weights
}

// Question is what a school asks, with the weights that are changed over its own.
func (s *School) Question(changed map[fleet.Purpose]Weights) Question {
	q := Question{Used: s.Used, Sell: s.Sell, OneGoggles: s.OneGoggles, Weights: maps.Clone(s.Weights)}
	if q.Weights == nil {
		q.Weights = map[fleet.Purpose]Weights{}
	}
	maps.Copy(q.Weights, changed)
	return q
}

// SchoolPlan is what a school makes of a fleet within a budget.
type SchoolPlan struct {
	School School  `json:"school"`
	Found  bool    `json:"found"` // a choice within the budget
	Money  float64 `json:"money"`
	// Changed, Flies, Buys and Sells count quads something is done to, quads that fly digital
	// afterwards, things to buy, and those that are sold.
	Changed int `json:"changed"`
	Flies   int `json:"flies"`
	Buys    int `json:"buys"`
	Sells   int `json:"sells"`
	OneWay  int `json:"oneWay"` // steps without a way back
	// Lost are the functions quads lose that they have today, each with the quad.
	Lost  []string     `json:"lost"`
	Quads []SchoolQuad `json:"quads"`
}

// SchoolQuad is what becomes of a quad in a school.
type SchoolQuad struct {
	Quad  string `json:"quad"`
	Name  string `json:"name"`
	Label string `json:"label"`
	Leave bool   `json:"leave"`
	Flies bool   `json:"flies"`
}

// Of is what a school makes of a fleet, told in short.
func (s *School) Of(plan *FleetPlan) SchoolPlan {
	out := SchoolPlan{School: *s, Lost: []string{}, Quads: []SchoolQuad{}}
	if plan.Chosen < 0 {
		return out
	}
	out.Found, out.Money = true, plan.Points[plan.Chosen].Money
	for i := range plan.Quads {
		q := &plan.Quads[i]
		o := &q.Way.outcome
		row := SchoolQuad{Quad: q.Quad, Name: q.Name, Label: q.Way.Label, Leave: q.Leave}
		row.Flies = !q.Grounded && o.flies != nil && *o.flies
		out.Quads = append(out.Quads, row)
		if q.Grounded {
			out.Lost = append(out.Lost, q.Name+": it is not flown any more")
		}
		if row.Flies {
			out.Flies++
		}
		if row.Leave {
			continue
		}
		out.Changed++
		if o.OneWay != nil {
			out.OneWay += *o.OneWay
		}
		for _, lost := range o.Lost {
			out.Lost = append(out.Lost, q.Name+": "+lost)
		}
	}
	for _, l := range plan.Bill {
		if l.Sold {
			out.Sells++
		} else {
			out.Buys += l.Buy
		}
	}
	slices.SortFunc(out.Quads, func(a, b SchoolQuad) int { return strings.Compare(a.Name, b.Name) })
	return out
}
