package decide

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/swap"
)

// Against is two quads held against each other, measure by measure.
type Against struct {
	Sides    []Side    `json:"sides"` // the two, in the order asked
	Measures []Measure `json:"measures"`
}

// Side is one of two quads.
type Side struct {
	Quad    string        `json:"quad"`
	Name    string        `json:"name"`
	Flies   string        `json:"flies"`
	Use     string        `json:"use,omitempty"`
	Purpose fleet.Purpose `json:"purpose,omitempty"`
	Level   verdict.Level `json:"level"` // its worst gate
}

// Measure is one thing two quads are held against each other by.
type Measure struct {
	ID    string   `json:"id"`
	Title string   `json:"title"`
	Words []string `json:"words"` // of each side
	// Better is the side that has more of it, 1 or 2; 0: neither, or that cannot be told. What
	// is not stated of one side never makes the other better, nor itself.
	Better int `json:"better"`
	// Same: both sides say the same.
	Same bool `json:"same"`
}

// HoldAgainst holds two fits of two quads against each other: what each gives, and where one has
// more of it than the other. It weighs nothing: what counts is what the quads are flown for.
func HoldAgainst(one, other fleet.Case) Against {
	cases := [2]fleet.Case{one, other}
	a := Against{Sides: []Side{}, Measures: []Measure{}}
	var outcomes [2]Outcome
	var judged [2]swap.Judgement
	for i, c := range cases {
		judged[i], outcomes[i] = swap.Judge(c), outcomeOf(c)
		a.Sides = append(a.Sides, Side{Quad: c.Quad.ID, Name: c.Quad.Label(), Flies: swap.Describe(c), Use: c.Quad.Use,
			Purpose: c.Quad.Purpose, Level: judged[i].Level})
	}
	a.gates(judged)
	for _, n := range compared {
		a.number(n, outcomes)
	}
	a.links(cases)
	a.records(outcomes)
	a.features(cases)
	a.list("goggles", "flies with, of what is owned", outcomes, func(o *Outcome) []string { return o.Goggles })
	a.list("unsure", "not known with", outcomes, func(o *Outcome) []string { return o.Unsure })
	a.sticks(cases)
	return a
}

const notKnown = "not known"

// numbered is what is compared as a number: how much the less the better; false: not known.
type numbered struct {
	id, title, format string
	of                func(*Outcome) (float64, bool)
}

var compared = []numbered{
	{"mass", "weighs", "%.0f g", func(o *Outcome) (float64, bool) { return number(o.AllG, 1) }},
	{"hover", "hovers for", "%.1f min", func(o *Outcome) (float64, bool) { return number(o.HoverMin, -1) }},
	{"lag", "sticks late by", "%.0f ms", func(o *Outcome) (float64, bool) { return number(o.SticksLagMS, 1) }},
	{"bitrate", "bit rate, at most", "%.0f Mb/s", func(o *Outcome) (float64, bool) { return number(o.BitrateMbps, -1) }},
	{"range", "range as stated, at most", "%.1f km", func(o *Outcome) (float64, bool) { return number(o.RangeKM, -1) }},
}

// betterSide is the side that has more: above 0 the first.
func betterSide(compared int) int {
	switch {
	case compared > 0:
		return 1
	case compared < 0:
		return 2
	}
	return 0
}

// number holds a number of each side, which is compared as it is shown.
func (a *Against) number(n numbered, outcomes [2]Outcome) {
	m := Measure{ID: n.id, Title: n.title, Words: []string{notKnown, notKnown}}
	one, known := n.of(&outcomes[0])
	other, also := n.of(&outcomes[1])
	if known {
		m.Words[0] = fmt.Sprintf(n.format, math.Abs(one))
	}
	if also {
		m.Words[1] = fmt.Sprintf(n.format, math.Abs(other))
	}
	if known && also && m.Words[0] != m.Words[1] {
		m.Better = betterSide(cmp.Compare(other, one))
	}
	a.put(m)
}

func (a *Against) put(m Measure) {
	m.Same = m.Words[0] == m.Words[1]
	a.Measures = append(a.Measures, m)
}

// gates names the worst gates of each side. What is not known is no better than what is shut.
func (a *Against) gates(judged [2]swap.Judgement) {
	m := Measure{ID: "gate", Title: "worst gates", Words: make([]string, 2)}
	for i, j := range judged {
		var names []string
		for _, g := range j.Gates {
			if g.Level == j.Level {
				names = append(names, g.Title)
			}
		}
		m.Words[i] = strings.Join(names, ", ")
		if j.Level == verdict.Fits {
			m.Words[i] = "every gate is open"
		}
	}
	levels := [2]verdict.Level{judged[0].Level, judged[1].Level}
	if !slices.Contains(levels[:], verdict.Unknown) {
		m.Better = betterSide(cmp.Compare(levels[1].Rank(), levels[0].Rank()))
	}
	a.put(m)
}

// links holds the ranges in free space against each other, band by band; the first side's is 1.
func (a *Against) links(cases [2]fleet.Case) {
	budgets := antenna.Between(cases[0], cases[1])
	for _, b := range budgets {
		for _, way := range []struct {
			id, title string
			factor    *float64
		}{{"front", "range ahead on ", b.Factor}, {"behind", "range behind on ", b.BehindFactor}} {
			m := Measure{ID: way.id + ":" + string(b.Band), Title: way.title + b.Label + ", of the other's",
				Words: []string{notKnown, notKnown}}
			if way.factor != nil {
				m.Words = []string{"1.00 ×", fmt.Sprintf("%.2f ×", *way.factor)}
			}
			switch {
			case way.factor == nil:
			case len(b.LeftOut) > 0:
				m.Words[1] += ", without " + strings.Join(b.LeftOut, ", ")
			case m.Words[0] != m.Words[1]:
				m.Better = betterSide(cmp.Compare(1, *way.factor))
			}
			a.put(m)
		}
	}
	if len(budgets) == 0 {
		a.put(Measure{ID: "front", Title: "range of one against the other's", Words: []string{notKnown, notKnown}})
	}
}

// records says whose recording takes the place of an action camera.
func (a *Against) records(outcomes [2]Outcome) {
	m := Measure{ID: "records", Title: "records in place of an action camera", Words: make([]string, 2)}
	does := [2]int{}
	for i := range outcomes {
		switch r := outcomes[i].Records; {
		case r == nil:
			m.Words[i], does[i] = notKnown, -1
		case *r:
			m.Words[i], does[i] = "yes", 1
		default:
			m.Words[i] = "no"
		}
	}
	if does[0] >= 0 && does[1] >= 0 {
		m.Better = betterSide(does[0] - does[1])
	}
	a.put(m)
}

// features are what one link gives and the other does not.
func (a *Against) features(cases [2]fleet.Case) {
	m := Measure{ID: "features", Title: "gives what the other does not", Words: []string{notKnown, notKnown}}
	one, known := link.Holding(cases[0])
	other, also := link.Holding(cases[1])
	if known && also && len(one.Features) > 0 && len(other.Features) > 0 {
		m.Words = []string{listed(one.Beyond(other)), listed(other.Beyond(one))}
	}
	a.put(m)
}

// list holds a list of each side; which is better, nobody can say of names.
func (a *Against) list(id, title string, outcomes [2]Outcome, of func(*Outcome) []string) {
	a.put(Measure{ID: id, Title: title, Words: []string{listed(of(&outcomes[0])), listed(of(&outcomes[1]))}})
}

// sticks is the way of the sticks from the hand to the flight board.
func (a *Against) sticks(cases [2]fleet.Case) {
	m := Measure{ID: "sticks", Title: "sticks through", Words: make([]string, 2)}
	for i, c := range cases {
		var way []string
		for _, hop := range control.Draw(c).Way {
			way = append(way, hop.Label)
		}
		m.Words[i] = cmp.Or(strings.Join(way, ", "), notKnown)
	}
	a.put(m)
}

func listed(words []string) string { return cmp.Or(strings.Join(words, ", "), "none") }
