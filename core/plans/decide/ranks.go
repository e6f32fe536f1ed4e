package decide

import (
	"cmp"
	"slices"

	"yokeswap/core/facts/verdict"
)

// sides are what candidates are sorted by: how much the less the better; false: not known.
var sides = map[string]func(*Candidate) (float64, bool){
	"gate":    func(*Candidate) (float64, bool) { return 0, true },
	"mass":    func(c *Candidate) (float64, bool) { return number(c.Outcome.MassG, 1) },
	"hover":   func(c *Candidate) (float64, bool) { return number(c.Outcome.FlightTime, -1) },
	"front":   func(c *Candidate) (float64, bool) { return band(c, func(b *Band) *float64 { return b.Front }) },
	"behind":  func(c *Candidate) (float64, bool) { return band(c, func(b *Band) *float64 { return b.Behind }) },
	"bitrate": func(c *Candidate) (float64, bool) { return number(c.Outcome.BitrateMbps, -1) },
	"lag":     func(c *Candidate) (float64, bool) { return number(c.Outcome.SticksLagMS, 1) },
	"bench": func(c *Candidate) (float64, bool) {
		if c.Outcome.Bench == nil {
			return 0, false
		}
		return float64(c.Outcome.Bench.Minutes), true
	},
	"price": func(c *Candidate) (float64, bool) {
		if c.Ready != nil {
			return number(c.Ready.least(), 1)
		}
		best := c.Found.Best()
		if best == nil || best.Cost.Unpriced > 0 {
			return 0, false
		}
		return best.Cost.Price, true
	},
}

func number[T ~float64](is *T, sign float64) (float64, bool) {
	if is == nil {
		return 0, false
	}
	return sign * float64(*is), true
}

// band is the first band of which a share is known.
func band(c *Candidate, of func(*Band) *float64) (float64, bool) {
	for i := range c.Outcome.Bands {
		if share := of(&c.Outcome.Bands[i]); share != nil {
			return -*share, true
		}
	}
	return 0, false
}

// rank numbers candidates by each side: what has a plan first, that hangs on nothing before what
// does, what is not known last; leaving the quad before all.
func rank(list []Candidate) {
	order := make([]*Candidate, len(list))
	for i := range list {
		order[i], list[i].Ranks = &list[i], map[string]int{}
	}
	for side, of := range sides {
		slices.SortStableFunc(order, func(a, b *Candidate) int {
			x, knownX := of(a)
			y, knownY := of(b)
			if a.Key == leaveKey || b.Key == leaveKey {
				return whether(b.Key == leaveKey) - whether(a.Key == leaveKey)
			}
			bySide := cmp.Or(whether(!knownX)-whether(!knownY), cmp.Compare(x, y))
			hasX, hasY := a.stands(), b.stands()
			hangs := whether(a.hangs()) - whether(b.hangs())
			return cmp.Or(whether(!hasX)-whether(!hasY), bySide, hangs, a.Level.Rank()-b.Level.Rank(),
				cmp.Compare(a.Key, b.Key))
		})
		for at, c := range order {
			c.Ranks[side] = at
		}
	}
}

// stands says whether something can be had of a candidate: a plan, or a quad bought whole that links.
func (c *Candidate) stands() bool {
	return c.Found.Best() != nil || c.Ready != nil && !c.Level.WorseThan(verdict.Unknown)
}

// hangs says whether it hangs on what is not known.
func (c *Candidate) hangs() bool {
	if c.Ready != nil {
		return c.Level == verdict.Unknown
	}
	return len(c.Found.Plans) == 0
}

func whether(is bool) int {
	if is {
		return 1
	}
	return 0
}
