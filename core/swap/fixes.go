package swap

import (
	"cmp"
	"slices"
	"strings"

	"yokeswap/core/fleet"
	"yokeswap/core/verdict"
)

// mostFixes is how many fixes a finding offers at most, the best first.
const mostFixes = 4

// JudgeWithFixes judges a fit and gives each finding that does not simply fit
// the changes that have been tried and found to resolve it; the worst finding
// of each gate comes first.
//
// A change counts as a fix of a finding when, judged again with it, the gate
// no longer says that finding about that part, the gate's verdict is better
// than before or as good with one finding fewer of that level, and no other
// gate is worse than it was.
func JudgeWithFixes(c fleet.Case) Judgement {
	j := Judge(c)
	for i, g := range gates {
		before := j.Gates[i]
		if before.Level == verdict.Fits {
			continue
		}
		tried := make([][]trial, len(before.Findings))
		for _, candidate := range g.candidates(c) {
			after := Judge(c.With(candidate.Patch))
			if othersWorse(j, after, i) {
				continue
			}
			for k := range before.Findings {
				f := &before.Findings[k]
				if worthIt(f.Level, candidate) && resolves(*f, before, after.Gates[i]) {
					tried[k] = append(tried[k], trial{candidate, verdict.Fix{Says: candidate.Says, Costs: costs(candidate), Patch: candidate.Patch,
						Gate: after.Gates[i].Level, Quad: after.Level}})
				}
			}
		}
		for k := range before.Findings {
			before.Findings[k].Fixes = best(tried[k])
		}
	}
	for _, g := range j.Gates {
		slices.SortStableFunc(g.Findings, func(a, b verdict.Finding) int { return b.Level.Rank() - a.Level.Rank() })
	}
	return j
}

func costs(c verdict.Candidate) string {
	says := c.Costs
	if says == "" && c.Owned {
		says = "nothing to buy"
	}
	if c.Gains != "" {
		says += ", " + c.Gains
	}
	return says
}

func othersWorse(before, after Judgement, except int) bool {
	for i := range before.Gates {
		if i != except && after.Gates[i].Level.WorseThan(before.Gates[i].Level) {
			return true
		}
	}
	return false
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
	fix       verdict.Fix
}

// worthIt keeps changed parts from being offered against a mere caution.
func worthIt(level verdict.Level, c verdict.Candidate) bool {
	return level != verdict.Fits && (level != verdict.Caution || c.Effort < verdict.Part)
}

// best keeps the fixes after which the gate is open (fits or caution) and
// which need nothing bought and the least effort, then those with the better
// verdicts. Two fixes that say the same are one.
func best(trials []trial) []verdict.Fix {
	slices.SortStableFunc(trials, func(a, b trial) int {
		return cmp.Or(
			max(1, a.fix.Gate.Rank())-max(1, b.fix.Gate.Rank()),
			toBuy(a.fix)-toBuy(b.fix),
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

func toBuy(f verdict.Fix) int {
	if strings.HasPrefix(f.Costs, "to buy") {
		return 1
	}
	return 0
}
