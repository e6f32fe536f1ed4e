// Package ask says which missing value is worth asking for next.
//
// Method: a value matters where two answers to it give some gate another level, whatever
// the other missing values turn out to be. All completions cannot be gone through, so each
// value is tried in the fit as it stands, in the best completion and in some drawn at
// random, all other values filled in; the answers are those a field can take, and for numbers
// what is usual for their unit. Asked first is what decides most gates, the
// greatest danger before the rest. What cannot be tried, as a list of pins, is asked where
// a gate waits for it.
//
// Source: common practice; held against brute force over all completions of small fits.
package ask

import (
	"cmp"
	"math/rand/v2"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
)

// Values are what a missing value could be: at a path of its entry, as in the open formats.
// Where there are none, it cannot be tried.
type Values struct {
	Path string
	Of   []any
}

// Question is a missing value, with what asking for it brings.
type Question struct {
	verdict.Missing
	Gates []verdict.Gate `json:"gates" doc:"those that are unknown for want of it"`
	// Decides is how many levels turned on it, over all that was tried.
	Decides int  `json:"decides"`
	Tried   bool `json:"tried" doc:"its values were tried; else it is asked because a gate waits for it"`

	danger verdict.Danger
	values Values
}

// Report is what to ask of a quad.
type Report struct {
	Next  []Question `json:"next" doc:"what matters, what decides most first"`
	Later []Question `json:"later" doc:"what may matter once its gate has what cannot be tried"`
	Moot  []Question `json:"moot" doc:"missing, and no answer that was tried changes any level"`
	Level string     `json:"level"`
}

// Bounds of what is tried.
const (
	drawn      = 2 // completions at random, beside the fit as it stands and the best completion
	mostValues = 4 // answers tried for one value
	rounds     = 4 // an answer may lead to further values that are missing
	sweeps     = 2 // over all of a completion, once it is whole
)

// Next orders what is missing to judge a fit. The values say what each could be.
func Next(c fleet.Case, values func(fleet.Case, verdict.Missing) Values) Report {
	a := asking{values: values, chance: rand.New(rand.NewPCG(1, 2))}
	j := swap.Judge(c)
	questions := a.missing(c, j)
	worlds := []fleet.Case{c, a.completed(c, a.best)}
	for range drawn {
		worlds = append(worlds, a.completed(c, a.any))
	}
	report := Report{Next: []Question{}, Later: []Question{}, Moot: []Question{}, Level: string(j.Level)}
	waits := map[verdict.Gate]bool{} // for what cannot be tried
	for i := range questions {
		q := &questions[i]
		if q.Tried = len(q.values.Of) > 1; !q.Tried {
			q.Decides = len(q.Gates)
			for _, gate := range q.Gates {
				waits[gate] = true
			}
		}
		for _, world := range worlds {
			q.Decides += q.decides(world, swap.Gates)
		}
	}
	for i := range questions {
		if q := &questions[i]; q.Tried && q.Decides == 0 {
			q.Decides = q.besideAnother(worlds[1], questions)
		}
	}
	for i := range questions {
		q := &questions[i]
		switch {
		case q.Decides > 0:
			report.Next = append(report.Next, *q)
		case slices.ContainsFunc(q.Gates, func(g verdict.Gate) bool { return waits[g] }):
			report.Later = append(report.Later, *q)
		default:
			report.Moot = append(report.Moot, *q)
		}
	}
	slices.SortStableFunc(report.Next, func(a, b Question) int {
		return cmp.Or(cmp.Compare(b.Decides, a.Decides), cmp.Compare(b.danger.Rank(), a.danger.Rank()))
	})
	return report
}

// asking is one search for what to ask.
type asking struct {
	values func(fleet.Case, verdict.Missing) Values
	chance *rand.Rand
}

// completed is a world with everything that can be tried filled in, and what that leads to.
func (a *asking) completed(c fleet.Case, pick func(fleet.Case, *Question) any) fleet.Case {
	filled := map[verdict.Missing]bool{}
	var all []Question
	for range rounds {
		more := false
		for _, q := range a.missing(c, swap.Judge(c)) {
			key := verdict.Missing{Of: q.Of, ID: q.ID, Field: q.Field}
			if len(q.values.Of) == 0 || filled[key] {
				continue
			}
			c, filled[key], more = q.answered(c, pick(c, &q)), true, true
			all = append(all, q)
		}
		if !more {
			break
		}
	}
	for range sweeps { // what was best alone may not be so beside the rest
		for i := range all {
			c = all[i].answered(c, pick(c, &all[i]))
		}
	}
	return c
}

// any is an answer at random.
func (a *asking) any(_ fleet.Case, q *Question) any {
	return q.values.Of[a.chance.IntN(len(q.values.Of))]
}

// best is the answer after which a fit has the least trouble.
func (a *asking) best(c fleet.Case, q *Question) (best any) {
	least := -1
	for _, value := range q.values.Of[:min(len(q.values.Of), mostValues)] {
		if sum := trouble(q.answered(c, value)); least < 0 || sum < least {
			least, best = sum, value
		}
	}
	return best
}

// trouble is less the better a fit is: all findings count, so that mending one shows beside
// another that stays.
func trouble(c fleet.Case) (sum int) {
	for _, g := range swap.Gates {
		for _, f := range g.Check(c) {
			sum += 1 << (2 * f.Level.Rank())
		}
	}
	return sum
}

// missing are the values that findings name, each once, in the order of the gates.
func (a *asking) missing(c fleet.Case, j swap.Judgement) (list []Question) {
	at := map[verdict.Missing]int{}
	for _, g := range j.Gates {
		for _, f := range g.Findings {
			for _, m := range f.Missing {
				key := verdict.Missing{Of: m.Of, ID: m.ID, Field: m.Field}
				n, seen := at[key]
				if !seen {
					n = len(list)
					at[key] = n
					list = append(list, Question{Missing: m, values: a.values(c, m)})
				}
				if f.Danger.WorseThan(list[n].danger) {
					list[n].danger = f.Danger
				}
				if !slices.Contains(list[n].Gates, g.Gate) {
					list[n].Gates = append(list[n].Gates, g.Gate)
				}
			}
		}
	}
	return list
}

// besideAnother counts the gates whose level turns on the value in the best completion once
// another value of the same gate is otherwise: a feed matters where the window is narrow.
func (q *Question) besideAnother(best fleet.Case, all []Question) int {
	gates := slices.DeleteFunc(slices.Clone(swap.Gates), func(row swap.Gate) bool {
		return !slices.Contains(q.Gates, row.Name)
	})
	for i := range all {
		other := &all[i]
		shares := slices.ContainsFunc(other.Gates, func(g verdict.Gate) bool { return slices.Contains(q.Gates, g) })
		if other.Missing == q.Missing || !shares {
			continue
		}
		for _, value := range other.values.Of[:min(len(other.values.Of), mostValues)] {
			if n := q.decides(other.answered(best, value), gates); n > 0 {
				return n
			}
		}
	}
	return 0
}

// decides counts the gates whose level turns on the value in a world.
func (q *Question) decides(world fleet.Case, gates []swap.Gate) int {
	if len(q.values.Of) < 2 {
		return 0
	}
	var first []verdict.Level
	turned := map[int]bool{}
	for _, value := range q.values.Of[:min(len(q.values.Of), mostValues)] {
		levels := levelsOf(q.answered(world, value), gates)
		if first == nil {
			first = levels
			continue
		}
		for i := range levels {
			if levels[i] != first[i] {
				turned[i] = true
			}
		}
	}
	return len(turned)
}

func levelsOf(c fleet.Case, gates []swap.Gate) []verdict.Level {
	levels := make([]verdict.Level, len(gates))
	for i, g := range gates {
		levels[i] = verdict.Worst(g.Check(c))
	}
	return levels
}
