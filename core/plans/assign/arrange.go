package assign

import "math"

// arranged is an order of the places in which what is drawn on by places on both sides of a cut tells few
// choices apart: from the end on, each time the place that leaves least open (greedy elimination; Bertele and
// Brioschi 1972). What only few places draw on is forgotten soon so.
func (p *Problem) arranged() []int {
	draws, left := make([][]bool, len(p.Places)), make([]int, len(p.Things))
	for at, options := range p.Places {
		draws[at] = make([]bool, len(p.Things))
		for i := range options {
			for _, u := range options[i].Uses {
				if !draws[at][u.Thing] {
					draws[at][u.Thing] = true
					left[u.Thing]++
				}
			}
		}
	}
	order, taken, open := make([]int, len(p.Places)), make([]bool, len(p.Places)), make([]bool, len(p.Things))
	for n := len(order) - 1; n >= 0; n-- {
		best, least := -1, math.Inf(1)
		for at := range p.Places {
			if apart := p.apart(draws[at], open, left); !taken[at] && apart < least {
				best, least = at, apart
			}
		}
		order[n], taken[best] = best, true
		for t, draws := range draws[best] {
			if draws {
				open[t], left[t] = true, left[t]-1
			}
		}
	}
	return order
}

// apart is in how many ways, as a logarithm, places on both sides can draw on things at most where one more
// is taken: open are the things that are drawn on, left by how many places each still is.
func (p *Problem) apart(draws, open []bool, left []int) (ways float64) {
	for t := range p.Things {
		rest := left[t]
		if draws[t] {
			rest--
		}
		if rest > 0 && (open[t] || draws[t]) {
			ways += math.Log(float64(p.Things[t].Have + 1))
		}
	}
	return ways
}
