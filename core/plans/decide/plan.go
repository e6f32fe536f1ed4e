// Package decide finds what could be done: whole plans for a quad, after which every gate is
// open, each with what it costs, and the facts that forbid one where there is none.
package decide

import (
	"context"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
)

// Plan is a set of changes after which every gate of a quad is open.
type Plan struct {
	Steps []Step `json:"steps"`
	Cost  Cost   `json:"cost"`
	// Buys is what it takes beyond what is on the quad today and in the drawer.
	Buys  []change.Line `json:"buys"`
	Level verdict.Level `json:"level"`
	Gates []GateLevel   `json:"gates"`
	// FindOut are the values it hangs on; none: it hangs on nothing.
	FindOut []verdict.Missing `json:"findOut,omitempty"`
	Warns   []string          `json:"warns,omitempty"` // what it is said to beware of, the worst first
	// Beware says which of the first three dangers may hide behind what is not known; empty: none.
	Beware string    `json:"beware,omitempty"`
	Fit    fleet.Fit `json:"-"`

	kind kind
}

// Step is one change of a plan.
type Step struct {
	Gate  verdict.Gate `json:"gate,omitempty"` // that asks for it; absent: the goal itself
	Says  string       `json:"says"`
	Patch fleet.Patch  `json:"patch"`
}

// GateLevel is how a gate stands after a plan.
type GateLevel struct {
	Gate  verdict.Gate  `json:"gate"`
	Title string        `json:"title"`
	Level verdict.Level `json:"level"`
}

// Found is what was found for a quad.
type Found struct {
	// Plans are those that hang on nothing, the best first, each of another kind than those
	// before; Hanging those that hang on a value nobody has stated.
	Plans   []Plan `json:"plans"`
	Hanging []Plan `json:"hanging"`
	// Forbids are the facts that leave no plan; absent where there is one.
	Forbids []Forbid `json:"forbids,omitempty"`
	// Tried is how many fits were looked at; All whether those were all that could matter.
	Tried int  `json:"tried"`
	All   bool `json:"all"`
}

// dead is where a way ended.
type dead struct {
	gate    int
	verdict swap.GateVerdict
}

// MostPlans is how many plans of different kinds are kept.
const MostPlans = 4

// For finds whole plans for a quad and the unit, or whatever else is wanted, of a patch.
func For(ctx context.Context, c fleet.Case, goal fleet.Patch) Found {
	return forGoal(ctx, c, goal, newMemory(mostMade), MostPlans, true)
}

// forGoal finds so many whole plans; why says whether what forbids one is to be shown.
func forGoal(ctx context.Context, c fleet.Case, goal fleet.Patch, m *memory, most int, why bool) Found {
	goal = change.Settle(c, goal)
	return from(newFinder(ctx, c.With(goal), most, allGates(), m), c, goal, why)
}

func from(f *finder, c fleet.Case, goal fleet.Patch, why bool) Found {
	f.start()
	out := Found{Plans: []Plan{}, Hanging: []Plan{}, Tried: f.nodes, All: !f.cut}
	for i := range f.plans {
		p := &f.plans[i]
		f.finish(p, c, goal)
		if p.Cost.Open > 0 {
			out.Hanging = append(out.Hanging, *p)
		} else {
			out.Plans = append(out.Plans, *p)
		}
	}
	if why && len(f.plans) == 0 && !f.cut {
		out.Forbids = f.forbids()
	}
	return out
}

func allGates() []int {
	list := make([]int, len(swap.Gates))
	for i := range list {
		list[i] = i
	}
	return list
}

func (f *finder) start() {
	n := &node{at: f.worlds.Lazily(f.from), key: f.numbers.of(f.from.Fit)}
	n.cost = f.costOf(n)
	f.ahead.put(n)
	for {
		n := f.ahead.next(len(f.plans) == 0)
		if n == nil {
			return
		}
		if !f.cheaperSeen(n) && !f.beaten(&n.cost) {
			f.visit(n)
		}
	}
}

// keep keeps a whole plan where it is among the best of its kind.
func (f *finder) keep(n *node) {
	n.cost.MassG = massOf(n.at.Case)
	for i := range swap.Gates {
		v := f.gate(n, i)
		for k := range v.Findings {
			if v.Findings[k].Level == verdict.Caution {
				n.cost.Cautions++
			}
		}
	}
	p := Plan{Cost: n.cost, Fit: *n.at.Fit, kind: kindOf(n.at.Case, n.cost.Open > 0)}
	for _, s := range n.steps {
		p.Steps = append(p.Steps, Step{Patch: s.Patch})
	}
	same := slices.IndexFunc(f.plans, func(o Plan) bool { return o.kind == p.kind })
	if same >= 0 {
		if f.plans[same].Cost.compare(&p.Cost) <= 0 {
			return
		}
		f.plans = slices.Delete(f.plans, same, same+1)
	}
	at, _ := slices.BinarySearchFunc(f.plans, p, func(a, b Plan) int { return a.Cost.compare(&b.Cost) })
	f.plans = slices.Insert(f.plans, at, p)
	if len(f.plans) > f.most {
		f.plans = f.plans[:f.most]
	}
}

// hidden are the first three dangers in words, where an unknown may hide them.
var hidden = map[verdict.Danger]string{
	verdict.Destroys: "something burns",
	verdict.Falls:    "it falls, or cannot be stopped",
	verdict.Unlawful: "it breaks the law",
}

// finish says what a plan does, step by step, and how the gates stand after it.
func (f *finder) finish(p *Plan, before fleet.Case, goal fleet.Patch) {
	says := []Step{}
	if words := change.Words(before, goal); words != "" {
		says = append(says, Step{Says: words, Patch: goal})
	}
	at := f.from
	for i := range p.Steps {
		patch := p.Steps[i].Patch
		says = append(says, Step{Gate: f.asksFor(at, patch), Says: change.Words(at, patch), Patch: patch})
		at = at.With(patch)
	}
	p.Steps, p.Buys = says, change.Lines(at, f.terms)
	if what := hidden[p.Cost.Hides]; what != "" {
		p.Beware = "What is not known may hide that " + what + ": find it out before anything is powered or flown."
	}
	j := swap.Judge(at)
	p.Level = j.Level
	var findings []verdict.Finding
	for _, g := range j.Gates {
		p.Gates = append(p.Gates, GateLevel{g.Gate, g.Title, g.Level})
		findings = append(findings, g.Findings...)
	}
	slices.SortStableFunc(findings, func(a, b verdict.Finding) int { return b.Danger.Rank() - a.Danger.Rank() })
	for i := range findings {
		p.FindOut = append(p.FindOut, findings[i].Missing...)
		if findings[i].Level == verdict.Caution {
			p.Warns = append(p.Warns, findings[i].Says)
		}
	}
}

// asksFor is the first gate that a change betters.
func (f *finder) asksFor(at fleet.Case, p fleet.Patch) verdict.Gate {
	n := &node{at: f.worlds.Lazily(at), key: f.numbers.of(at.Fit)}
	after := &node{at: f.worlds.Lazily(at.With(p))}
	after.key = f.numbers.near(after.at.Fit, n, touched(&p))
	for i := range swap.Gates {
		v, w := f.gate(n, i), f.gate(after, i)
		if better(&w, &v) {
			return swap.Gates[i].Name
		}
	}
	return ""
}
