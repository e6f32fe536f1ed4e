package swap_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// Laws of fixes, over the demo and builds drawn at random: the finding is gone, its gate
// is no worse, no other gate is worse, and of two that leave the same danger behind, open
// as few doors and let the gate stand alike, the one with less to buy comes first.
func TestLawsOfFixes(t *testing.T) {
	withoutRace(t)
	st := builds.Demo()
	tried := 0
	for _, f := range fleetsOf(st, howMany(60)) {
		for i := range f.Quads {
			c := fleet.NewCase(st.Library(), f, &f.Quads[i])
			before := swap.JudgeWithFixes(c)
			for _, gate := range before.Gates {
				for _, finding := range gate.Findings {
					var last *verdict.Fix
					for k := range finding.Fixes {
						fix := &finding.Fixes[k]
						after := swap.Judge(c.With(fix.Patch))
						tried++
						for g, was := range before.Gates {
							is := after.Gates[g]
							if was.Gate != gate.Gate {
								assert.False(t, is.Level.WorseThan(was.Level), "%s: %s makes the %s gate worse", c.Quad.ID, fix.Says, was.Gate)
							}
						}
						assert.Equal(t, after.Level, fix.Quad, fix.Says)
						assert.Equal(t, after.Gate(gate.Gate).Level, fix.Gate, fix.Says)
						assert.False(t, fix.Gate.WorseThan(gate.Level), "%s: %s", c.Quad.ID, fix.Says)
						if last != nil && last.Danger == fix.Danger && last.Gate == fix.Gate && doors(last) == doors(fix) {
							assert.LessOrEqual(t, change.Bill(c, last.Patch).Get, change.Bill(c, fix.Patch).Get,
								"%s: %q stands before %q", c.Quad.ID, last.Says, fix.Says)
						}
						last = fix
					}
				}
			}
		}
	}
	assert.Greater(t, tried, 50)
}

// doors counts the one-way doors a fix warns of.
func doors(fix *verdict.Fix) (n int) {
	for _, warning := range fix.Warns {
		if strings.Contains(warning, "one-way door") {
			n++
		}
	}
	return n
}

// The bill's order: what is to be bought and stops the day, what is to be bought, what is
// there; of the first, what takes longest to come.
func TestTheOrderOfTheBill(t *testing.T) {
	st := builds.Demo()
	rank := func(i swap.Item) int {
		switch {
		case i.Buy > 0 && i.Stops:
			return 0
		case i.Buy > 0:
			return 1
		}
		return 2
	}
	list := swap.Shopping(st.Library(), fleet.NewIndex(st.Fleet))
	for i := 1; i < len(list); i++ {
		a, b := list[i-1], list[i]
		assert.LessOrEqual(t, rank(a), rank(b), "%s before %s", a.Label, b.Label)
		if rank(a) == rank(b) && a.Offer != nil && b.Offer != nil && a.Offer.Days != nil && b.Offer.Days != nil {
			assert.GreaterOrEqual(t, *a.Offer.Days, *b.Offer.Days, "%s before %s", a.Label, b.Label)
		}
	}
	assert.Equal(t, 0, rank(list[0]))
}

// A quad flies now only where it stays as it is and no gate wants a change first.
func TestWhoFliesNow(t *testing.T) {
	st := builds.Demo()
	f := fleet.NewIndex(st.Fleet)
	flies := 0
	board := swap.NewBoard(st.Library(), f, nil)
	for _, row := range board.Rows {
		if row.Flies == link.ReachNow && row.Stays && row.Needs == "" && row.Level != verdict.Unknown &&
			row.Level != verdict.Unfit &&
			row.Level != verdict.Change {
			flies++
		}
	}
	assert.Equal(t, 2, flies)
	assert.Contains(t, board.Says, "2 fly now")
}
