package assign

import (
	"math"
	"slices"
)

// arranged is an order of the places in which what is drawn on by places on both sides of a cut tells few
// choices apart: from the end on, each time the place that leaves least open (greedy elimination; Bertele and
// Brioschi 1972). What only few places draw on is forgotten soon so.
func (p *Problem) arranged() []int {
	draws, left := p.draws()
	order, taken, open := make([]int, len(p.Places)), make([]bool, len(p.Places)), make([]bool, len(p.Things))
	for n := len(order) - 1; n >= 0; n-- {
		best, least := -1, math.Inf(1)
		for at := range p.Places {
			if taken[at] {
				continue
			}
			more := 0.0 // ways in which places on both sides can draw on things, as a logarithm
			for _, t := range draws[at] {
				ways := math.Log(float64(p.Things[t].Have + 1))
				switch {
				case open[t] && left[t] == 1: // by this place alone
					more -= ways
				case !open[t] && left[t] > 1:
					more += ways
				}
			}
			if more < least {
				best, least = at, more
			}
		}
		order[n], taken[best] = best, true
		for _, t := range draws[best] {
			open[t], left[t] = true, left[t]-1
		}
	}
	return order
}

// draws are the things each place may draw on, and by how many places each thing may be drawn on.
func (p *Problem) draws() (things [][]int, places []int) {
	things, places = make([][]int, len(p.Places)), make([]int, len(p.Things))
	for at, options := range p.Places {
		for i := range options {
			for _, u := range options[i].Uses {
				if !slices.Contains(things[at], u.Thing) {
					things[at] = append(things[at], u.Thing)
					places[u.Thing]++
				}
			}
		}
	}
	return things, places
}
