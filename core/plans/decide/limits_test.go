package decide

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is said of a point is the most that is said of any scenario of less money than the next.
func TestTheLimitOfAPointIsTheGreatestOfAllScenarios(t *testing.T) {
	w := Weighed{limits: []limit{
		{steps: []atMost{{0, 10}, {50, 40}}},
		{steps: []atMost{{20, 25}, {60, 30}}},
	}}
	front := []Point{{Money: 0, Worth: 8}, {Money: 20, Worth: 20}, {Money: 50, Worth: 38}, {Money: 70, Worth: 45}}
	w.limit(front)
	for i, most := range []int64{10, 25, 40, 45} {
		require.NotNil(t, front[i].AtMost)
		assert.Equal(t, most, *front[i].AtMost, "point %d", i)
	}
	for _, w := range []Weighed{{exact: true}, {unlimited: true}} {
		front := []Point{{Worth: 8}}
		w.limit(front)
		assert.Nil(t, front[0].AtMost)
	}
}
