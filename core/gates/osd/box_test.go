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

// Halves are rounded the same way on both sides of nought, so that what moves up by a row
// moves as what moves down does.
func TestHalvesAreRoundedDown(t *testing.T) {
	for n, want := range map[int]int{0: 0, 1: 1, 2: 1, 3: 2, -1: 0, -2: -1, -3: -1} {
		assert.Equal(t, want, half(n), n)
	}
	for _, c := range [][3]int{{7, 2, 3}, {-7, 2, -4}, {6, 2, 3}, {-6, 2, -3}, {0, 2, 0}, {1, 2, 0}, {-1, 2, -1}} {
		assert.Equal(t, c[2], floorDiv(c[0], c[1]), c)
	}
}
