package decide

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/internal/builds"
)

// Where a way of one quad and one of another cannot be had together, what is found is the best of all
// choices without the one and of all without the other.
func TestWhatCannotBeHadTogetherIsParted(t *testing.T) {
	st := builds.Demo()
	index := fleet.NewIndex(st.Fleet)
	own := *index.Fleet
	own.Quads = nil
	for _, id := range []string{"damsel", "wallower", "fantail", "brayer"} {
		q, _ := index.Quad(id)
		own.Quads = append(own.Quads, *q)
	}
	ctx := context.Background()
	ways, err := WaysOf(ctx, st.Library(), fleet.NewIndex(&own))
	require.NoError(t, err)
	found := func(q Question, change func(*table)) []Point {
		tab := newTable(&ways, q)
		tab.reach = func(context.Context, *Point) ([]int, error) { return nil, nil }
		change(tab)
		front, err := tab.front(ctx, &Weighed{})
		require.NoError(t, err)
		return front
	}
	without := func(quad, way int) func(*table) {
		return func(tab *table) {
			q := &tab.quads[quad]
			for k, stands := range q.stands {
				if stands == way {
					q.stands[k] = -1 // it is nobody's choice
				}
			}
		}
	}
	said := func(list []Point) (points [][2]float64) {
		for _, p := range list {
			points = append(points, [2]float64{p.Money, float64(p.Worth)})
		}
		return points
	}
	parted, differ := 0, 0
	for _, school := range Schools {
		q := school.Question(nil)
		free := found(q, func(*table) {})
		best := free[len(free)-1]
		var a, b int
		both := found(q, func(tab *table) {
			stands := func(p *Point, quad int) int { return tab.quads[quad].stands[p.picks[quad]] }
			a, b = stands(&best, 0), stands(&best, 1)
			tab.reach = func(_ context.Context, p *Point) ([]int, error) {
				if stands(p, 0) == a && stands(p, 1) == b {
					parted++
					return []int{0, 1}, nil
				}
				return nil, nil
			}
		})
		want := frontOf(slices.Concat(found(q, without(0, a)), found(q, without(1, b))))
		assert.Equal(t, said(want), said(both), school.ID)
		if !assert.ObjectsAreEqual(said(free), said(both)) {
			differ++
		}
	}
	assert.GreaterOrEqual(t, parted, len(Schools))
	assert.Positive(t, differ)
}
