package decide

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/swap"
)

// Fit is what a way puts on its quad.
func (w *Way) Fit() *fleet.Fit { return &w.fit }

// LinkOpen says whether the link of a fit stands open.
func LinkOpen(c fleet.Case) bool {
	v := swap.Lazily(c).Gate(0)
	return standingOf(&v) < hangs
}

// Share is how much of a criterion an outcome has, by itself.
func Share(c Criterion, o *Outcome) float64 {
	var s scale
	s.take(o)
	share, _ := s.share(c, o)
	return share
}
