// Package day lays the sheets of two quads over each other: which steps go when, with so many hands,
// one soldering iron and one of each pair of goggles. The steps of a sheet keep their order; what goes
// on by itself frees the hands. The shortest day is found exactly.
package day

import (
	"math"
	"slices"
)

// Chore is a step of a sheet as a day sees it. All lengths are in whole minutes.
type Chore struct {
	ID    string `json:"id"`
	Title string `json:"title"`
	// Minutes it takes; Guessed: nobody has stated or timed it.
	Minutes int  `json:"minutes"`
	Guessed bool `json:"guessed"`
	// Alone: it goes on by itself, without hands.
	Alone bool `json:"alone"`
	// Held says why it must not be done yet; empty: it may.
	Held string `json:"held,omitempty"`

	// takes are the things of which there is one: the iron, a piece of kit.
	takes []string
	// meanwhile are the later steps of its sheet that need not wait for it, by their places.
	meanwhile []int
	// once says that the same step on the other sheet is done with it: a device is updated once.
	once bool
}

// Stint is a step with when it is done, in minutes from the beginning.
type Stint struct {
	Chore
	Quad int `json:"quad"` // the place of its sheet
	From int `json:"from"`
	To   int `json:"to"`
}

// problem are two sheets, and what there is to do them with.
type problem struct {
	sheets [2][]Chore
	hands  int
	things []string       // of which there is one
	shared map[string]int // the steps that are done once, by their id, and their place
	lastOn [2][]int       // the place of the last step of a sheet that takes each thing; -1: none does
}

func newProblem(one, other []Chore, hands int) *problem {
	p := &problem{sheets: [2][]Chore{one, other}, hands: hands, shared: map[string]int{}}
	for _, sheet := range p.sheets {
		for i := range sheet {
			for _, thing := range sheet[i].takes {
				if !slices.Contains(p.things, thing) {
					p.things = append(p.things, thing)
				}
			}
		}
	}
	for sheet, steps := range p.sheets {
		for _, thing := range p.things {
			last := -1
			for at := range steps {
				if slices.Contains(steps[at].takes, thing) {
					last = at
				}
			}
			p.lastOn[sheet] = append(p.lastOn[sheet], last)
		}
	}
	for i := range one {
		s := &one[i]
		if s.once && slices.ContainsFunc(other, func(o Chore) bool { return o.once && o.ID == s.ID }) {
			p.shared[s.ID] = len(p.shared)
		}
	}
	return p
}

// state is a day as far as it is laid out: so many steps of each sheet, and until when what is taken.
type state struct {
	did   [2]int
	ready [2]int // from when on the next step of a sheet can begin
	waits [2]int // and from when on one that has to wait for what goes on by itself
	alone [2]int // the place of that; -1: nothing does
	hands []int  // until when each pair of hands is busy, the first to be free first
	until []int  // and each thing
	ended []int  // when what is done once was done; -1: it is not yet
	ends  int    // when the last of it ends
	last  int    // the sheet that was worked on last; -1: none was
	turns int    // how often another one was taken up

	before *state
	slot   Stint
}

func (p *problem) begin() *state {
	s := &state{alone: [2]int{-1, -1}, hands: make([]int, p.hands), until: make([]int, len(p.things)),
		ended: make([]int, len(p.shared)), last: -1}
	for i := range s.ended {
		s.ended[i] = -1
	}
	return s
}

// with is the day with the next step of a sheet, begun as early as it can be.
func (p *problem) with(s *state, sheet int) *state {
	at := s.did[sheet]
	step := p.sheets[sheet][at]
	n := *s
	n.hands, n.until, n.ended = slices.Clone(s.hands), slices.Clone(s.until), slices.Clone(s.ended)
	n.before, n.did[sheet] = s, at+1
	from := s.ready[sheet]
	if beside := s.alone[sheet]; beside >= 0 && !slices.Contains(p.sheets[sheet][beside].meanwhile, at) {
		from = max(from, s.waits[sheet])
		n.alone[sheet] = -1
	}
	minutes := step.Minutes
	once, shared := p.shared[step.ID]
	if shared = shared && step.once; shared && s.ended[once] >= 0 {
		from, minutes = max(from, s.ended[once]), 0 // it was done with the other quad
		step.takes, step.Alone = nil, true
	}
	if !step.Alone {
		from = max(from, s.hands[0])
	}
	for i, thing := range p.things {
		if slices.Contains(step.takes, thing) {
			from = max(from, s.until[i])
		}
	}
	to := from + minutes
	n.lay(p, step, sheet, at, from, to)
	if shared && s.ended[once] < 0 {
		n.ended[once] = to
	}
	n.forget(p)
	return &n
}

// forget brings to one value what makes no difference any more: times before the next step there can
// be, and things nobody wants again.
func (s *state) forget(p *problem) {
	next := math.MaxInt
	for sheet, steps := range p.sheets {
		if s.did[sheet] < len(steps) {
			next = min(next, s.ready[sheet])
		}
		if s.alone[sheet] < 0 {
			s.waits[sheet] = 0
		}
	}
	for i := range s.hands {
		s.hands[i] = max(s.hands[i], next)
	}
	for i := range s.until {
		wanted := math.MaxInt
		for sheet := range p.sheets {
			if s.did[sheet] <= p.lastOn[sheet][i] {
				wanted = min(wanted, s.ready[sheet])
			}
		}
		s.until[i] = max(s.until[i], wanted)
	}
}

// lay takes what a step takes for as long.
func (s *state) lay(p *problem, step Chore, sheet, at, from, to int) {
	s.slot = Stint{Chore: step, Quad: sheet, From: from, To: to}
	s.ends = max(s.ends, to)
	for i, thing := range p.things {
		if slices.Contains(step.takes, thing) {
			s.until[i] = to
		}
	}
	if step.Alone {
		s.ready[sheet], s.waits[sheet], s.alone[sheet] = from, max(s.waits[sheet], to), at
		return
	}
	s.hands[0] = to
	slices.Sort(s.hands)
	s.ready[sheet] = to
	if p.hands > 1 {
		return // each quad has its own
	}
	if s.last >= 0 && s.last != sheet {
		s.turns++
	}
	s.last = sheet
}

// noLater says whether nothing of a day is later than in another that has come as far: whatever
// follows the other follows it as well, and ends no later.
func (s *state) noLater(o *state) bool {
	if s.ends > o.ends || s.turns > o.turns || s.alone != o.alone {
		return false
	}
	for i := range s.ready {
		if s.ready[i] > o.ready[i] || s.waits[i] > o.waits[i] {
			return false
		}
	}
	for _, pair := range [][2][]int{{s.hands, o.hands}, {s.until, o.until}, {s.ended, o.ended}} {
		for i := range pair[0] {
			if pair[0][i] > pair[1][i] {
				return false
			}
		}
	}
	return true
}

// shortest is the day that ends first, and of those the one in which another quad is taken up least
// often. Any day is one of these orders with each step as early as it can be: of the days that have
// come as far, those are kept that no other is no later than in everything.
func (p *problem) shortest() *state {
	front := map[[3]int][]*state{{0, 0, -1}: {p.begin()}}
	one, other := len(p.sheets[0]), len(p.sheets[1])
	for sum := range one + other {
		for i := max(0, sum-other); i <= min(one, sum); i++ {
			for last := -1; last < 2; last++ {
				for _, s := range front[[3]int{i, sum - i, last}] {
					for sheet := range p.sheets {
						if s.did[sheet] == len(p.sheets[sheet]) {
							continue
						}
						n := p.with(s, sheet)
						key := [3]int{n.did[0], n.did[1], n.last}
						front[key] = keep(front[key], n)
					}
				}
				delete(front, [3]int{i, sum - i, last})
			}
		}
	}
	var best *state
	for last := -1; last < 2; last++ {
		for _, s := range front[[3]int{one, other, last}] {
			if best == nil || s.ends < best.ends || s.ends == best.ends && s.turns < best.turns {
				best = s
			}
		}
	}
	return best
}

// keep puts a day among others that have come as far, without those that it is no later than.
func keep(list []*state, n *state) []*state {
	if slices.ContainsFunc(list, func(s *state) bool { return s.noLater(n) }) {
		return list
	}
	return append(slices.DeleteFunc(list, n.noLater), n)
}

// after is the day with one sheet after the other.
func (p *problem) after(first int) *state {
	s := p.begin()
	for _, sheet := range []int{first, 1 - first} {
		for range p.sheets[sheet] {
			s = p.with(s, sheet)
		}
		s.ready[1-sheet], s.waits[1-sheet] = max(s.ready[1-sheet], s.ends), max(s.waits[1-sheet], s.ends)
	}
	return s
}

// slots are what was laid out, in the order it begins.
func (s *state) slots() (list []Stint) {
	for ; s.before != nil; s = s.before {
		list = append(list, s.slot)
	}
	slices.Reverse(list)
	slices.SortStableFunc(list, func(a, b Stint) int { return a.From - b.From })
	return list
}
