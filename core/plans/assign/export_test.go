package assign

import (
	"context"
	"testing"
)

// Hard has bounds worked out at once, whatever there is to look at.
func Hard(t *testing.T) {
	was := easy
	easy = -1
	t.Cleanup(func() { easy = was })
}

// Any is some choice, by its picks.
func Any(p Problem) ([]int, error) {
	l, err := p.any(context.Background())
	if err != nil {
		return nil, err
	}
	picks := make([]int, len(p.Places))
	for at := len(picks) - 1; at >= 0; at, l = at-1, l.before {
		picks[at] = l.pick
	}
	return picks, nil
}
