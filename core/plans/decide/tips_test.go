package decide

import (
	"context"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is said to tip a choice does: what is not taken, for so much less, is the one.
func TestWhatWouldTipItDoes(t *testing.T) {
	all, tipped, whole, taken := allWays(t), 0, 0, 0
	for seed := range uint64(30) {
		tab := drawnTable(seed, all)
		front, err := tab.front(context.Background(), &Weighed{})
		require.NoError(t, err)
		p := &front[len(front)/2]
		budget := int64(math.Round(p.Money*100)) + int64(seed*37)
		if i := len(front)/2 + 1; i < len(front) {
			budget = min(budget, int64(math.Round(front[i].Money*100))-1)
		}
		left := float64(budget)/100 - p.Money
		for at := range tab.quads {
			for _, o := range tab.others(p, at, left) {
				q := &tab.quads[at]
				k := slices.IndexFunc(q.ways, func(w *Way) bool { return w.Label == o.Label })
				if k < 0 {
					whole += spares(t, tab, p, at, &o)
					continue
				}
				if _, had := tab.instead(p, at, k); !had {
					taken++
					assert.False(t, o.Tips, o.Label)
					assert.NotContains(t, o.Says, "by itself", o.Label)
				}
				if !o.Tips {
					continue
				}
				less := int64(math.Round((o.More-left)*100)) + 1
				other := drawnTable(seed, all)
				for i := range other.quads[at].options {
					if other.quads[at].buyings[i].of == q.buyings[k].of {
						other.quads[at].options[i].Money -= less
					}
				}
				would, err := other.front(context.Background(), &Weighed{})
				require.NoError(t, err)
				best := 0
				for i := range would {
					if would[i].Money*100 <= float64(budget)+0.5 {
						best = i
					}
				}
				tipped++
				assert.Equal(t, q.buyings[k].of, q.buyings[would[best].picks[at]].of,
					"seed %d: %s on %s, %.2f more with %.2f left", seed, o.Label, q.quad.ID, o.More, left)
			}
		}
	}
	assert.Greater(t, tipped, 20)
	assert.Positive(t, whole)
	assert.Positive(t, taken)
}

// spares holds what a quad bought whole costs more against what is spared where the quad in whose place it comes
// is left as it is: one where something is.
func spares(t *testing.T, tab *table, p *Point, at int, o *OtherWay) int {
	q, picks := &tab.quads[at], slices.Clone(p.picks)
	made := slices.IndexFunc(q.ready, func(c Candidate) bool { return c.Label+", bought whole" == o.Label })
	require.GreaterOrEqual(t, made, 0, o.Label)
	price := *q.ready[made].Ready.Price
	if tab.question.Used {
		price = *q.ready[made].Ready.least()
	}
	is, _ := tab.paid(p.scenario, picks)
	picks[at] = 0
	left, ok := tab.paid(p.scenario, picks)
	if !ok || left == is {
		return 0
	}
	assert.InDelta(t, price-float64(is-left)/100, o.More, 0.005, o.Label)
	return 1
}
