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
	all, tipped := allWays(t), 0
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
				if !o.Tips {
					continue
				}
				q := &tab.quads[at]
				k := slices.IndexFunc(q.ways, func(w *Way) bool { return w.Label == o.Label })
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
}
