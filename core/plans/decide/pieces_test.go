package decide_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/decide"
)

// Counting alike pieces together gives what telling them apart gives: on a fleet with three more of
// the units it has, of which some fly and some lie there.
func TestAlikePiecesCountedTogether(t *testing.T) {
	lib, index := demoFleet(t)
	own := *index.Fleet
	own.Quads = nil
	for _, id := range []string{"fantail", "hopper", "brayer", "whip", "damsel"} {
		q, _ := index.Quad(id)
		own.Quads = append(own.Quads, *q)
	}
	for i, id := range []string{own.Quads[0].Now.AirUnit.Kit, own.Quads[4].Now.AirUnit.Kit} {
		kit, ok := index.Piece(id)
		require.True(t, ok)
		for n := range 2 - i {
			more := *kit
			more.ID, more.Name = fmt.Sprint("more-", i, n), fmt.Sprint("more ", i, n)
			own.Kit = append(own.Kit, more)
		}
	}
	x := fleet.NewIndex(&own)
	ways, err := decide.WaysOf(context.Background(), lib, x)
	require.NoError(t, err)
	points := func(q decide.Question) (list [][2]float64) {
		weighed, err := ways.Weigh(context.Background(), q)
		require.NoError(t, err)
		for _, p := range weighed.Within(0).Points {
			plan := weighed.Within(int64(p.Money*100 + 0.5))
			keepsItsWord(t, fmt.Sprint(p.Money), lib, x, &plan, int64(p.Money*100+0.5))
			list = append(list, [2]float64{p.Money, float64(p.Worth)})
		}
		return list
	}
	for _, school := range decide.Schools {
		t.Run(school.ID, func(t *testing.T) {
			together := points(school.Question(nil))
			require.NotEmpty(t, together)
			decide.TellApart(t)
			assert.Equal(t, points(school.Question(nil)), together)
		})
	}
}
