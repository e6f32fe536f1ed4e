//go:build !race

// The library's explanation has a data race of its own (explain.UnsatSubset),
// so it is run without the race detector.

package route

import (
	"fmt"
	"strings"
	"testing"

	"github.com/crillab/gophersat/explain"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// dimacs writes "all these wants at once" as clauses: a variable a release of a
// device, a variable a statement of a want. The wants' own clauses come first.
func dimacs(r Request, wants []int) (text string, own []string) {
	vars := map[string]int{}
	v := func(name string) int {
		if vars[name] == 0 {
			vars[name] = len(vars) + 1
		}
		return vars[name]
	}
	var clauses [][]int
	devices := map[string]bool{}
	for _, i := range wants {
		list, air, eyes, hand := pairingsOf(r, r.Wants[i])
		var some []int
		var rest [][]int
		for k, p := range list {
			use := v(fmt.Sprintf("use-%d-%d", i, k))
			some = append(some, use)
			for _, id := range []string{air, eyes, hand} {
				if id == "" {
					continue
				}
				devices[id] = true
				clause := []int{-use}
				for _, o := range options(r, id) {
					if oneHolds(r, p, id, o.version, air, eyes, hand) {
						clause = append(clause, v(id+"@"+string(o.version)))
					}
				}
				rest = append(rest, clause)
			}
		}
		clauses = append(clauses, rest...)
		clauses = append([][]int{some}, clauses...)
		own = append(own, clauseText(some))
	}
	for id := range devices {
		list := options(r, id)
		for a := range list {
			for b := range a {
				clauses = append(clauses, []int{-v(id + "@" + string(list[a].version)), -v(id + "@" + string(list[b].version))})
			}
		}
	}
	var out strings.Builder
	fmt.Fprintf(&out, "p cnf %d %d\n", len(vars), len(clauses))
	for _, c := range clauses {
		out.WriteString(clauseText(c) + "\n")
	}
	return out.String(), own
}

func clauseText(c []int) string {
	var out strings.Builder
	for _, l := range c {
		fmt.Fprintf(&out, "%d ", l)
	}
	return out.String() + "0"
}

// Outside check: the explanation facility of github.com/crillab/gophersat finds
// each reported conflict unsatisfiable, and needs the clause of every want in
// it for that: none can be spared.
func TestConflictsAgreeWithTheExplanationOfALibrary(t *testing.T) {
	checked := 0
	for seed := range uint64(400) {
		r := instance(9000+seed, 2+int(seed%4), 2)
		r.KeepWayBack = false
		for _, l := range solved(t, r).Links {
			if l.Met || l.Conflict == nil || len(l.Conflict.Wants) < 2 {
				continue
			}
			checked++
			text, own := dimacs(r, l.Conflict.Wants)
			problem, err := explain.ParseCNF(strings.NewReader(text))
			require.NoError(t, err)
			core, err := problem.MUS()
			require.NoError(t, err, "seed %d: satisfiable after all", seed)
			needed := map[string]bool{}
			for line := range strings.Lines(core.CNF()) {
				needed[strings.TrimSpace(line)] = true
			}
			for _, clause := range own {
				assert.True(t, needed[clause], "seed %d: want %q can be spared in\n%s", seed, clause, core.CNF())
			}
		}
	}
	assert.Greater(t, checked, 10)
}
