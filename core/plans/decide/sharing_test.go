package decide

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// A law: a fit that shares with another what a patch leaves alone is the same as one that shares
// nothing, whatever is made of either afterwards.
func TestWhatIsSharedStaysAsItIs(t *testing.T) {
	s := builds.Demo()
	index := fleet.NewIndex(s.Fleet)
	maker := builds.New(62, s.Library(), index)
	for i := range 150 {
		q := fleet.Quad{ID: "a", Now: maker.Fit()}
		if i < len(index.Quads) {
			q = index.Quads[i]
		}
		c := fleet.NewCase(s.Library(), index, &q)
		var shared, apart []fleet.Case
		from := c
		for k := range swap.Gates {
			for _, candidate := range swap.Gates[k].Candidates(from) {
				p := change.Settle(from, candidate.Patch)
				shared, apart = append(shared, from.Sharing(p)), append(apart, from.With(p))
			}
			if len(shared) > 0 {
				from = shared[len(shared)/2] // and on from one of them
			}
		}
		for k := range shared {
			if !assert.Equal(t, *apart[k].Fit, *shared[k].Fit) {
				return
			}
		}
	}
}
