package decide

import (
	"cmp"
	"math"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/mount"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
)

// Cost is what a plan asks for, in the order in which plans are held against each other.
type Cost struct {
	// Hides is the greatest danger that an unknown left open may hide, Open how many gates
	// hang on one.
	Hides verdict.Danger `json:"hides,omitempty"`
	Open  int            `json:"open,omitempty"`
	// Warns is the greatest of the first three dangers that is warned of and not mended.
	Warns verdict.Danger `json:"warns,omitempty"`
	Doors int            `json:"doors,omitempty"` // steps that cannot be undone
	// Unpriced counts parts to buy without a price, or in a currency of which no rate is known.
	Unpriced int     `json:"unpriced,omitempty"`
	Price    float64 `json:"price"` // of what is to be bought, as far as it is stated
	Currency string  `json:"currency,omitempty"`
	Prints   int     `json:"prints,omitempty"` // parts to print
	// MassG is what the quad weighs more afterwards; absent: a mass is not known.
	MassG    *unit.Grams `json:"massG,omitempty"`
	Work     int         `json:"work"` // the efforts of its changes: a setting 1 up to a part 4
	Cautions int         `json:"cautions"`

	mayCome int // of those without a price with something else
}

// compare orders plans: what unknowns hide, what is warned of, doors that close, money, grams,
// work, inconvenience. What is not known is never better than what is.
func (a *Cost) compare(b *Cost) int {
	return cmp.Or(a.sofar(b), a.Prints-b.Prints, compareMass(a.MassG, b.MassG), a.Work-b.Work, a.Cautions-b.Cautions)
}

// least is what a fit costs at least after further changes: what has no price may come with what they take.
func (a Cost) least() *Cost {
	a.Unpriced -= a.mayCome
	return &a
}

// sofar orders by what further changes can only add to, beside what comes with what they take (see least).
func (a *Cost) sofar(b *Cost) int {
	return cmp.Or(
		a.Hides.Rank()-b.Hides.Rank(),
		a.Open-b.Open,
		a.Warns.Rank()-b.Warns.Rank(),
		a.Doors-b.Doors,
		a.Unpriced-b.Unpriced,
		cmp.Compare(math.Round(a.Price*100), math.Round(b.Price*100)))
}

func compareMass(a, b *unit.Grams) int {
	switch {
	case a == nil && b == nil:
		return 0
	case a == nil:
		return 1
	case b == nil:
		return -1
	}
	return unit.Compare(*a, *b)
}

// money adds up what a plan takes; what has no price, or none that can be reckoned in the
// currency of the others, is counted.
func (a *Cost) money(lib *gear.Library, lines []change.Line) {
	hundredths := int64(0)
	for i := range lines {
		switch l := &lines[i]; {
		case l.Printed:
			a.Prints += l.Times
		case l.Amount == nil:
			a.Unpriced += l.Times
			if len(lib.Bringing(l.Model)) > 0 {
				a.mayCome += l.Times
			}
		default:
			hundredths += *l.Amount
		}
	}
	a.Price = float64(hundredths) / 100
}

// doorsOf counts the one-way doors a link speaks of.
func doorsOf(v *swap.GateVerdict) (n int) {
	for i := range v.Findings {
		if v.Findings[i].Code == link.CodeOneWay {
			n++
		}
	}
	return n
}

// massOf is what a plan weighs beyond today.
func massOf(c fleet.Case) *unit.Grams {
	q := *c.Quad
	q.Next = c.Fit
	return mount.Weigh(c.Library, c.Fleet, &q, nil).ChangeG
}
