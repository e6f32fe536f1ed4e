package swap

import (
	"cmp"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
)

// mostFixes is how many fixes a finding offers at most, the best first.
const mostFixes = 4

// JudgeWithFixes judges a fit and gives each finding that does not simply fit
// the changes that have been tried and found to resolve it; the worst finding
// of each gate comes first.
//
// A change counts as a fix of a finding when, judged again with it, the gate
// no longer says that finding about that part, the gate's verdict is better
// than before or as good with one finding fewer of that level, no other gate is
// worse than it was, no gate threatens anything more dangerous than it did, and
// nothing it brings is more dangerous than what it mends.
// A change that leads from unfit into the unknown is offered only where nothing
// else is left, and says what is not known then.
func JudgeWithFixes(c fleet.Case) Judgement {
	j := Judge(c)
	for i, g := range Gates {
		before := j.Gates[i]
		if before.Level == verdict.Fits {
			continue
		}
		tried := make([][]trial, len(before.Findings))
		at := c
		if before.in != nil {
			at = *before.in // where it is worst
		}
		for _, candidate := range g.Candidates(at) {
			candidate.Patch = change.Settle(c, candidate.Patch)
			after := Judge(c.With(candidate.Patch))
			if worse(&j, &after, i) {
				continue
			}
			brings := brought(&j, &after)
			var t *trial
			for k := range before.Findings {
				f := &before.Findings[k]
				if !worthIt(f.Level, candidate) || !resolves(*f, before, after.Gates[i]) || trades(*f, brings) {
					continue
				}
				if t == nil {
					t = new(newTrial(c, candidate, &j, &after, i))
				}
				if t.fix.Says != "" {
					tried[k] = append(tried[k], *t)
				}
			}
		}
		for k := range before.Findings {
			before.Findings[k].Fixes = best(tried[k], before.Findings[k].Level)
		}
	}
	for _, g := range j.Gates {
		slices.SortStableFunc(g.Findings, func(a, b verdict.Finding) int {
			return cmp.Or(b.Level.Rank()-a.Level.Rank(), b.Danger.Rank()-a.Danger.Rank())
		})
	}
	return j
}

// worse says whether a change makes anything worse: the level of another gate, or
// the greatest danger any gate speaks of.
func worse(before, after *Judgement, own int) bool {
	for i := range before.Gates {
		was, is := &before.Gates[i], &after.Gates[i]
		if i != own && is.Level.WorseThan(was.Level) {
			return true
		}
		if verdict.Greatest(is.Findings).WorseThan(verdict.Greatest(was.Findings)) {
			return true
		}
	}
	return false
}

// brought are the findings there are after a change and were not before.
func brought(before, after *Judgement) (list []verdict.Finding) {
	for i := range after.Gates {
		for _, f := range after.Gates[i].Findings {
			if f.Level != verdict.Fits && !saidBefore(before.Gates[i].Findings, f) {
				list = append(list, f)
			}
		}
	}
	return list
}

// trades says whether mending a finding brings a danger that is greater than its own,
// or destroys something else instead.
func trades(f verdict.Finding, brings []verdict.Finding) bool {
	return slices.ContainsFunc(brings, func(g verdict.Finding) bool {
		return g.Danger.WorseThan(f.Danger) || g.Danger == verdict.Destroys && g.Level == verdict.Unfit
	})
}

func resolves(f verdict.Finding, before, after GateVerdict) bool {
	for _, g := range after.Findings {
		if g.Code == f.Code && g.Subject == f.Subject && !f.Level.WorseThan(g.Level) {
			return false
		}
	}
	if after.Level != before.Level {
		return before.Level.WorseThan(after.Level)
	}
	return count(after.Findings, before.Level) < count(before.Findings, before.Level)
}

func count(findings []verdict.Finding, level verdict.Level) int {
	n := 0
	for _, f := range findings {
		if f.Level == level {
			n++
		}
	}
	return n
}

// trial is a candidate that helped, with its outcome.
type trial struct {
	candidate verdict.Candidate
	cost      change.Cost
	doors     int
	fix       verdict.Fix
}

func newTrial(c fleet.Case, candidate verdict.Candidate, before, after *Judgement, gate int) trial {
	t := trial{candidate: candidate, cost: change.Bill(c, candidate.Patch)}
	t.fix = verdict.Fix{Says: change.Words(c, candidate.Patch), Patch: candidate.Patch,
		Gate: after.Gates[gate].Level, Quad: after.Level, Danger: after.Danger}
	t.fix.Costs = t.cost.Words()
	for _, more := range []string{candidate.Costs, candidate.Gains} {
		if more != "" {
			t.fix.Costs += ", " + more
		}
	}
	for i := range after.Gates {
		for _, f := range after.Gates[i].Findings {
			if f.Code == link.CodeOneWay {
				t.doors++
			}
			if f.Level == verdict.Fits || saidBefore(before.Gates[i].Findings, f) {
				continue
			}
			said := slices.Contains(t.fix.Warns, f.Says)
			if !said && (f.Code == link.CodeOneWay || f.Level != verdict.Caution || i == gate) {
				t.fix.Warns = append(t.fix.Warns, f.Says)
			}
		}
	}
	return t
}

func saidBefore(findings []verdict.Finding, f verdict.Finding) bool {
	return slices.ContainsFunc(findings, func(g verdict.Finding) bool {
		return g.Code == f.Code && g.Subject == f.Subject && !f.Level.WorseThan(g.Level)
	})
}

// worthIt keeps changed parts from being offered against a mere caution.
func worthIt(level verdict.Level, c verdict.Candidate) bool {
	return level != verdict.Fits && (level != verdict.Caution || c.Effort < verdict.Part)
}

// best orders the fixes of a finding: the danger that is left, one-way doors, whether
// the gate is open afterwards, what is to be bought and for how much, the effort, then
// the better verdicts. Two fixes that say the same are one. What leads from unfit into
// the unknown comes only where nothing else does.
func best(trials []trial, level verdict.Level) []verdict.Fix {
	known := slices.DeleteFunc(slices.Clone(trials), func(t trial) bool {
		return level == verdict.Unfit && t.fix.Gate == verdict.Unknown
	})
	if len(known) > 0 {
		trials = known
	}
	slices.SortStableFunc(trials, func(a, b trial) int {
		return cmp.Or(
			max(1, a.fix.Danger.Rank())-max(1, b.fix.Danger.Rank()),
			a.doors-b.doors,
			max(1, a.fix.Gate.Rank())-max(1, b.fix.Gate.Rank()),
			int(a.cost.Get-b.cost.Get),
			cmp.Compare(a.cost.Price, b.cost.Price),
			int(a.candidate.Effort-b.candidate.Effort),
			a.fix.Gate.Rank()-b.fix.Gate.Rank(),
			a.fix.Quad.Rank()-b.fix.Quad.Rank())
	})
	var fixes []verdict.Fix
	for _, t := range trials {
		same := func(f verdict.Fix) bool { return f.Says == t.fix.Says }
		if len(fixes) < mostFixes && !slices.ContainsFunc(fixes, same) {
			fixes = append(fixes, t.fix)
		}
	}
	return fixes
}
