package osd

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A box lies within another up to its edges, and not one column or row beyond.
func TestABoxWithinABox(t *testing.T) {
	around := box{x: 2, y: 3, w: 10, h: 5}
	for _, c := range []struct {
		name string
		box  box
		want bool
	}{
		{"the same", around, true},
		{"inside", box{4, 4, 2, 2}, true},
		{"at the right lower corner", box{11, 7, 1, 1}, true},
		{"a column to the left", box{1, 3, 2, 2}, false},
		{"a row above", box{2, 2, 2, 2}, false},
		{"a column beyond", box{11, 4, 2, 1}, false},
		{"a row beyond", box{4, 7, 1, 2}, false},
	} {
		assert.Equal(t, c.want, around.holds(c.box), c.name)
	}
}
