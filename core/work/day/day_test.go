package day

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// On 2,000 random small days with one pair of hands or two, no assignment of beginnings to the steps,
// minute by minute, keeps the rules and ends before the day that is found; and the day found keeps them.
func TestNoSmallDayIsShorter(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	shorter := 0
	for n := range 2000 {
		one, other, hands := sheet(r, 1+r.IntN(3)), sheet(r, 1+r.IntN(2)), 1+r.IntN(2)
		p := newProblem(one, other, hands)
		best := p.shortest()
		var from [2][]int
		slots := best.slots()
		for quad := range from {
			from[quad] = make([]int, len(p.sheets[quad]))
		}
		at := [2]int{}
		for _, sheet := range []int{0, 1} {
			for s := best; s.before != nil; s = s.before {
				if s.slot.Quad == sheet {
					at[sheet]++
					from[sheet][len(from[sheet])-at[sheet]] = s.slot.From
				}
			}
		}
		ends, keeps := p.ends(from)
		require.True(t, keeps, "%d: %+v breaks a rule of %+v", n, slots, p.sheets)
		require.Equal(t, ends, best.ends, n)
		least := p.tried(min(p.after(0).ends, p.after(1).ends))
		require.Equal(t, least, best.ends, "%d hands %d: %+v", n, hands, p.sheets)
		if best.ends < min(p.after(0).ends, p.after(1).ends) {
			shorter++
		}
	}
	assert.Greater(t, shorter, 200, "many are shorter than one after the other")
}

// On 300 random days of up to seven steps each, of all orders there are none ends earlier, and with one
// pair of hands none that ends as early takes up another quad less often.
func TestOfTheShortestTheSteadiest(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	for n := range 300 {
		p := newProblem(sheet(r, 1+r.IntN(7)), sheet(r, 1+r.IntN(7)), 1+r.IntN(2))
		least := [2]int{math.MaxInt, 0}
		var all func(s *state)
		all = func(s *state) {
			done := true
			for sheet := range p.sheets {
				if s.did[sheet] < len(p.sheets[sheet]) {
					done = false
					all(p.with(s, sheet))
				}
			}
			if is := [2]int{s.ends, s.turns}; done && slices.Compare(is[:], least[:]) < 0 {
				least = is
			}
		}
		all(p.begin())
		best := p.shortest()
		require.Equal(t, least, [2]int{best.ends, best.turns}, n)
	}
}

// sheet draws a few steps, of a minute at the least: in none another could be begun and ended within one.
func sheet(r *rand.Rand, n int) (list []Chore) {
	for i := range n {
		s := Chore{ID: fmt.Sprint("step", i, r.Int()), Minutes: 1 + r.IntN(2), Alone: r.IntN(3) == 0}
		for _, thing := range []string{"iron", "goggles"} {
			if r.IntN(3) == 0 {
				s.takes = append(s.takes, thing)
			}
		}
		if s.Alone && r.IntN(2) == 0 {
			for later := i + 1; later < n; later++ {
				s.meanwhile = append(s.meanwhile, later)
			}
		}
		if r.IntN(4) == 0 {
			s.ID, s.once, s.Alone, s.takes, s.meanwhile, s.Minutes = "update", true, r.IntN(2) == 0, []string{"goggles"}, nil, 2
			if slices.ContainsFunc(list, func(o Chore) bool { return o.once }) {
				s.ID, s.once = fmt.Sprint("step", i, r.Int()), false
			}
		}
		list = append(list, s)
	}
	for i := range list { // what goes on by itself is beside steps at hand alone
		list[i].meanwhile = slices.DeleteFunc(list[i].meanwhile, func(later int) bool { return list[later].Alone })
	}
	return list
}

// tried is the end of the best day there is, found by trying each beginning of each step.
func (p *problem) tried(within int) int {
	least := within
	var from [2][]int
	for sheet := range from {
		from[sheet] = make([]int, len(p.sheets[sheet]))
	}
	var try func(sheet, at int)
	try = func(sheet, at int) {
		if at == len(p.sheets[sheet]) {
			if sheet == 0 {
				try(1, 0)
			} else if ends, keeps := p.ends(from); keeps {
				least = min(least, ends)
			}
			return
		}
		begin := 0
		if at > 0 {
			begin = from[sheet][at-1]
		}
		for m := begin; m <= least; m++ {
			from[sheet][at] = m
			try(sheet, at+1)
		}
	}
	try(0, 0)
	return least
}

// ends is when a day of such beginnings ends, and whether it keeps the rules: each step of a sheet
// after those it waits for, no more at hand than there are hands, each thing at one step at a time, and
// what is done once done by whichever begins first, and done before the other goes on.
func (p *problem) ends(from [2][]int) (ends int, keeps bool) {
	type span struct {
		from, to int
		hands    bool
		takes    []string
	}
	var spans []span
	until := [2][]int{make([]int, len(from[0])), make([]int, len(from[1]))}
	second := p.second(from)
	if second == nil {
		return 0, false
	}
	for sheet, steps := range p.sheets {
		for i, s := range steps {
			minutes, alone, takes := s.Minutes, s.Alone, s.takes
			if second[[2]int{sheet, i}] {
				minutes, alone, takes = 0, true, nil
			}
			until[sheet][i] = from[sheet][i] + minutes
			ends = max(ends, until[sheet][i])
			spans = append(spans, span{from[sheet][i], until[sheet][i], !alone, takes})
			for before := range i {
				done := until[sheet][before]
				beside := steps[before].Alone && slices.Contains(steps[before].meanwhile, i) && !second[[2]int{sheet, before}]
				if beside {
					done = from[sheet][before]
				}
				if from[sheet][i] < done {
					return 0, false
				}
			}
		}
	}
	for minute := range ends {
		hands, taken := 0, map[string]int{}
		for _, s := range spans {
			if s.from <= minute && minute < s.to {
				if s.hands {
					hands++
				}
				for _, thing := range s.takes {
					taken[thing]++
				}
			}
		}
		if hands > p.hands || taken["iron"] > 1 || taken["goggles"] > 1 {
			return 0, false
		}
	}
	return ends, true
}

// second are the steps that are done with the other quad's; nil where one begins before that is done.
func (p *problem) second(from [2][]int) map[[2]int]bool {
	second := map[[2]int]bool{}
	for i, one := range p.sheets[0] {
		for k, other := range p.sheets[1] {
			if !one.once || !other.once || one.ID != other.ID {
				continue
			}
			switch {
			case from[1][k] >= from[0][i]+one.Minutes:
				second[[2]int{1, k}] = true
			case from[0][i] >= from[1][k]+other.Minutes:
				second[[2]int{0, i}] = true
			default:
				return nil
			}
		}
	}
	return second
}
