package osd

import (
	"cmp"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Sizes gives the cells an element takes: at least one each way.
type Sizes func(id string) (width, height int)

// Convert brings a layout onto another grid and keeps what the eye expects: what
// stands at an edge stays there, what is centred stays centred, what stands
// together stays together, and nothing overlaps or falls off. What finds no room
// is given back as dropped.
//
// Elements that touch and hang on the same edges make a group, which moves as one
// box. With G columns before and G' after, a box of width w at x goes to
// x·(G'−w)/(G−w): 0 stays 0, the right edge stays the right edge, and the middle
// stays the middle. Onto a larger grid this keeps disjoint boxes disjoint and in
// order: where a box A ends before B begins, xA/(G−wA) ≤ xB/(G−wB), so B moves at
// least as far as A. Onto a smaller grid two may come to lie on each other; then
// what matters less takes the nearest free place. A sound layout on the grid it
// already has comes back as it is.
func Convert(l fleet.Layout, to gear.Grid, sizes Sizes) (out fleet.Layout, dropped []fleet.Placed) {
	columns, rows, ok := l.Grid.Size()
	toColumns, toRows, also := to.Size()
	if !ok || !also {
		return l, nil
	}
	out = fleet.Layout{Grid: to, Elements: []fleet.Placed{}}
	boxes := make([]box, len(l.Elements))
	for i, e := range l.Elements {
		w, h := sizes(e.ID)
		boxes[i] = box{x: clamp(e.X, 0, columns-w), y: clamp(e.Y, 0, rows-h), w: w, h: h}
	}
	spots := make([]box, len(boxes))
	for _, group := range groups(l.Elements, boxes, columns, rows) {
		around := bounds(boxes, group)
		if around.w > toColumns || around.h > toRows { // it fits only in pieces
			for _, i := range group {
				spots[i] = moved(boxes[i], boxes[i], columns, rows, toColumns, toRows)
			}
			continue
		}
		for _, i := range group {
			spots[i] = moved(boxes[i], around, columns, rows, toColumns, toRows)
		}
	}
	taken := newCells(toColumns, toRows)
	placed := map[int]box{}
	for _, i := range byMatter(l.Elements, boxes) {
		spot, ok := taken.nearest(spots[i], l.Elements[i].ProfileBits())
		if !ok {
			dropped = append(dropped, l.Elements[i])
			continue
		}
		taken.take(spot, l.Elements[i].ProfileBits())
		placed[i] = spot
	}
	for i, e := range l.Elements {
		if spot, ok := placed[i]; ok {
			e.X, e.Y = spot.x, spot.y
			out.Elements = append(out.Elements, e)
		}
	}
	return out, dropped
}

// box is a rectangle of cells.
type box struct{ x, y, w, h int }

func clamp(x, low, high int) int { return max(low, min(x, high)) }

func (b box) overlaps(o box) bool {
	return b.x < o.x+o.w && o.x < b.x+b.w && b.y < o.y+o.h && o.y < b.y+b.h
}

// touches says whether two boxes stand together: side by side with at most one
// free cell between, or straight under each other.
func (b box) touches(o box) bool {
	sameRows, sameColumns := b.y < o.y+o.h && o.y < b.y+b.h, b.x < o.x+o.w && o.x < b.x+b.w
	return sameRows && b.x <= o.x+o.w+1 && o.x <= b.x+b.w+1 || sameColumns && b.y <= o.y+o.h && o.y <= b.y+b.h
}

// hold is the edge something hangs on along one axis.
type hold int

const (
	low hold = iota
	lowMiddle
	middle // exactly, to half a cell
	highMiddle
	high
)

// holdOf is where a length hangs in a room: in the lower or upper third of its
// play, in between, or exactly in the middle.
func holdOf(at, length, room int) hold {
	slack := room - length
	switch {
	case at*2-slack <= 1 && slack-at*2 <= 1:
		return middle
	case at*3 < slack:
		return low
	case at*3 > slack*2:
		return high
	case at*2 < slack:
		return lowMiddle
	}
	return highMiddle
}

// groups joins elements that touch, share a profile and hang on the same edges.
// Where the boxes around two groups overlap, the larger falls apart, so that all
// boxes are disjoint where the elements were.
func groups(elements []fleet.Placed, boxes []box, columns, rows int) [][]int {
	n := len(boxes)
	group := make([]int, n)
	for i := range group {
		group[i] = i
	}
	alike := func(i, k int) bool {
		return boxes[i].touches(boxes[k]) && elements[i].ProfileBits()&elements[k].ProfileBits() != 0 &&
			holdOf(boxes[i].x, boxes[i].w, columns) == holdOf(boxes[k].x, boxes[k].w, columns) &&
			holdOf(boxes[i].y, boxes[i].h, rows) == holdOf(boxes[k].y, boxes[k].h, rows)
	}
	for i := range n {
		for k := range i {
			if group[i] != group[k] && alike(i, k) {
				from, to := group[i], group[k]
				for m := range group {
					if group[m] == from {
						group[m] = to
					}
				}
			}
		}
	}
	var list [][]int
	at := map[int]int{}
	for i := range n {
		if _, ok := at[group[i]]; !ok {
			at[group[i]] = len(list)
			list = append(list, nil)
		}
		list[at[group[i]]] = append(list[at[group[i]]], i)
	}
	for {
		apart := overlapping(list, elements, boxes)
		if apart < 0 {
			return list
		}
		members := list[apart]
		list = slices.Delete(list, apart, apart+1)
		for _, i := range members {
			list = append(list, []int{i})
		}
	}
}

// overlapping finds a group of several elements whose box overlaps that of another
// shown with it, the larger of the two; -1 where none does.
func overlapping(list [][]int, elements []fleet.Placed, boxes []box) int {
	for i := range list {
		for k := range i {
			if all(elements, list[i])&all(elements, list[k]) == 0 || !bounds(boxes, list[i]).overlaps(bounds(boxes, list[k])) {
				continue
			}
			larger := i
			if len(list[k]) > len(list[i]) {
				larger = k
			}
			if len(list[larger]) > 1 {
				return larger
			}
		}
	}
	return -1
}

// all is the set of profiles any of some elements is shown in.
func all(elements []fleet.Placed, members []int) (set uint8) {
	for _, i := range members {
		set |= elements[i].ProfileBits()
	}
	return set
}

func bounds(boxes []box, members []int) box {
	b := boxes[members[0]]
	right, bottom := b.x+b.w, b.y+b.h
	for _, i := range members[1:] {
		o := boxes[i]
		right, bottom = max(right, o.x+o.w), max(bottom, o.y+o.h)
		b.x, b.y = min(b.x, o.x), min(b.y, o.y)
	}
	return box{b.x, b.y, right - b.x, bottom - b.y}
}

// moved is where a box goes as part of a group.
func moved(b, group box, columns, rows, toColumns, toRows int) box {
	b.x += shift(group.x, group.w, columns, toColumns)
	b.y += shift(group.y, group.h, rows, toRows)
	return b
}

// shift is by how much a length at a place moves when its room changes.
func shift(at, length, room, to int) int {
	slack, play := room-length, to-length
	if slack <= 0 || holdOf(at, length, room) == middle {
		return half(to - room)
	}
	// Rounded to the nearest, halves up, in whole numbers.
	return floorDiv(2*at*play+slack, 2*slack) - at
}

func half(n int) int { return floorDiv(n+1, 2) }

func floorDiv(a, b int) int {
	q := a / b
	if a%b != 0 && (a < 0) != (b < 0) {
		q--
	}
	return q
}

// byMatter orders elements by what matters most, then as they are read.
func byMatter(elements []fleet.Placed, boxes []box) []int {
	order := make([]int, len(elements))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		return cmp.Or(rank(elements[a].ID)-rank(elements[b].ID), boxes[a].y-boxes[b].y, boxes[a].x-boxes[b].x)
	})
	return order
}

// cells says which cells of a grid are taken, profile by profile; a row is a word
// of bits, so a grid has at most 64 columns here.
type cells struct {
	columns, rows int
	taken         [3][]uint64
}

// everyProfile is all three, as bits.
const everyProfile = 7

func newCells(columns, rows int) *cells {
	c := &cells{columns: min(columns, 64), rows: rows}
	for p := range c.taken {
		c.taken[p] = make([]uint64, rows)
	}
	return c
}

func (b box) bits() uint64 {
	if b.w >= 64 {
		return ^uint64(0)
	}
	return (1<<b.w - 1) << b.x
}

func (c *cells) free(b box, profiles uint8) bool {
	if b.x < 0 || b.y < 0 || b.x+b.w > c.columns || b.y+b.h > c.rows {
		return false
	}
	bits := b.bits()
	for p := range c.taken {
		if profiles&(1<<p) == 0 {
			continue
		}
		for y := b.y; y < b.y+b.h; y++ {
			if c.taken[p][y]&bits != 0 {
				return false
			}
		}
	}
	return true
}

func (c *cells) take(b box, profiles uint8) {
	bits := b.bits()
	for p := range c.taken {
		for y := b.y; profiles&(1<<p) != 0 && y < min(b.y+b.h, c.rows); y++ {
			c.taken[p][y] |= bits
		}
	}
}

// nearest is the free place nearest to a box; a row counts twice a column, as its
// cells are about twice as high as wide. It is false where no place is free.
func (c *cells) nearest(b box, profiles uint8) (best box, ok bool) {
	if c.free(b, profiles) {
		return b, true
	}
	least := -1
	for y := 0; y+b.h <= c.rows; y++ {
		for x := 0; x+b.w <= c.columns; x++ {
			far := abs(x-b.x) + 2*abs(y-b.y)
			if least >= 0 && far >= least {
				continue
			}
			if spot := (box{x, y, b.w, b.h}); c.free(spot, profiles) {
				best, least, ok = spot, far, true
			}
		}
	}
	return best, ok
}

func abs(n int) int { return max(n, -n) }
