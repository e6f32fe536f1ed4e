package decide

import (
	"slices"

	"yokeswap/core/facts/verdict"
)

// Forbid is a gate that cannot be opened, with what stands against it.
type Forbid struct {
	Gate     verdict.Gate      `json:"gate"`
	Title    string            `json:"title"`
	Findings []verdict.Finding `json:"findings"`
}

// mostForbidding is how many gates are looked for that forbid a plan together.
const mostForbidding = 3

// forbids is a smallest set of gates that cannot all be opened, with what stands against each
// where it came nearest to being open: of all sets of one gate, then of two, the first for
// which there is no plan though the others are left aside. Nil where that could not be shown.
func (f *finder) forbids() []Forbid {
	f.made = 0
	var some []int
	for _, d := range f.dead {
		if !slices.Contains(some, d.gate) {
			some = append(some, d.gate)
		}
	}
	slices.Sort(some)
	for size := 1; size <= mostForbidding; size++ {
		for _, set := range choose(f.gates, size) {
			if !slices.ContainsFunc(set, func(i int) bool { return slices.Contains(some, i) }) {
				continue
			}
			if list := f.without(set); list != nil {
				return list
			}
		}
	}
	return nil
}

// without is what stands against a set of gates; nil where they can all be opened.
func (f *finder) without(set []int) (list []Forbid) {
	g := *f
	defer func() { f.made = g.made }()
	g.gates, g.plans, g.dead, g.nodes, g.cut, g.most = set, nil, nil, 0, false, 1
	g.seen = map[visited]Cost{}
	g.start()
	if len(g.plans) > 0 || g.cut || len(g.dead) == 0 {
		return nil
	}
	for _, i := range set {
		nearest := -1
		for k := range g.dead {
			if g.dead[k].gate == i && (nearest < 0 || better(&g.dead[k].verdict, &g.dead[nearest].verdict)) {
				nearest = k
			}
		}
		if nearest < 0 {
			continue
		}
		v := &g.dead[nearest].verdict
		forbid := Forbid{Gate: v.Gate, Title: v.Title}
		for _, finding := range v.Findings {
			if finding.Level == verdict.Unfit || finding.Level == verdict.Change {
				forbid.Findings = append(forbid.Findings, finding)
			}
		}
		list = append(list, forbid)
	}
	return list
}

// choose are all choices of a number of things from a list, in its order.
func choose(list []int, n int) (all [][]int) {
	if n == 0 {
		return [][]int{nil}
	}
	for i := range list {
		for _, rest := range choose(list[i+1:], n-1) {
			all = append(all, append([]int{list[i]}, rest...))
		}
	}
	return all
}
