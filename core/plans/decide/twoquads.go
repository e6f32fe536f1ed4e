package decide

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/mount"
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
	var weights [2]*float64
	var judged [2]swap.Judgement
	for i, c := range cases {
		judged[i] = swap.Judge(c)
		a.Sides = append(a.Sides, Side{Quad: c.Quad.ID, Name: c.Quad.Label(), Flies: swap.Describe(c), Use: c.Quad.Use,
			Purpose: c.Quad.Purpose, Level: judged[i].Level})
		outcomes[i] = outcomeOf(c)
		q := *c.Quad
		q.Next = c.Fit
		w := mount.Weigh(c.Library, c.Fleet, &q, nil)
		weights[i] = numberOf(w.AllG())
	}
	of := func(value func(*Outcome) *float64) [2]*float64 {
		return [2]*float64{value(&outcomes[0]), value(&outcomes[1])}
	}
	a.gates(judged)
	a.add("mass", "weighs", "%.0f g", less, weights)
	a.add("hover", "hovers for", "%.1f min", more, of(func(o *Outcome) *float64 { return o.HoverMin }))
	a.add("lag", "sticks late by", "%.0f ms", less, of(func(o *Outcome) *float64 { return o.SticksLagMS }))
	a.add("bitrate", "bit rate, at most", "%.0f Mb/s", more,
		of(func(o *Outcome) *float64 { return numberOf(o.BitrateMbps) }))
	a.add("range", "range as stated, at most", "%.1f km", more,
		of(func(o *Outcome) *float64 { return numberOf(o.RangeKM) }))
	a.links(cases)
	a.records(outcomes)
	a.features(cases)
	a.list("goggles", "flies with, of what is owned", outcomes, func(o *Outcome) []string { return o.Goggles })
	a.list("unsure", "not known with", outcomes, func(o *Outcome) []string { return o.Unsure })
	a.sticks(cases)
	return a
}

const notKnown = "not known"

// What more of a value is.
const (
	less = -1 // the smaller value is better
	more = 1
)

func numberOf[T ~float64](v *T) *float64 {
	if v == nil {
		return nil
	}
	return new(float64(*v))
}

// add holds a number of each side, which is compared as it is shown.
func (a *Against) add(id, title, format string, way int, values [2]*float64) {
	m := Measure{ID: id, Title: title, Words: []string{notKnown, notKnown}}
	for i, v := range values {
		if v != nil {
			m.Words[i] = fmt.Sprintf(format, *v)
		}
	}
	if values[0] != nil && values[1] != nil && m.Words[0] != m.Words[1] {
		m.Better = betterSide(way * cmp.Compare(*values[0], *values[1]))
	}
	a.put(m)
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
