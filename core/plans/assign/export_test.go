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
	whole := make([][]int, len(p.Places))
	for at, options := range p.Places {
		for i := range options {
			whole[at] = append(whole[at], i)
		}
	}
	return picked(l, nil, whole), nil
}
