package decide

import (
	"cmp"
	"slices"
)

// Of pieces of kit that are alike, it is chosen how many are wanted, and only then who gets which:
// told apart in the choice, five of them would be as good as five kinds.

// asOne says that pieces that are alike are counted together; a test tells them apart.
var asOne = true

// pool is what a piece of kit is told by in a choice, and how many pieces there are of it. One that
// a quad carries in turn stands for no other.
func (t *table) pool(id string) (name string, pieces int) {
	kit, ok := t.index.Piece(id)
	if _, inTurn := t.index.InTurnOn(id, ""); !ok || inTurn || !asOne {
		return id, 1
	}
	for i := range t.index.Kit {
		other := &t.index.Kit[i]
		if _, inTurn := t.index.InTurnOn(other.ID, ""); !inTurn && other.Alike() == kit.Alike() {
			pieces++
		}
	}
	return kit.Alike(), pieces
}

// together has the first of ways that differ in the piece alone stand for the others. What moves least
// among them counts for all.
func (t *table) together(row *quadTable) {
	type likes struct{ alike, basket int }
	first := map[likes]int{}
	for k, way := range row.ways {
		stands := k
		if _, inTurn := t.index.InTurnOn(way.kit, ""); way.alike > 0 && !inTurn && asOne {
			by := likes{way.alike, row.buyings[k].basket}
			at, known := first[by]
			if !known {
				at, first[by] = k, k
			}
			stands = at
			row.options[at].Worth = max(row.options[at].Worth, row.options[k].Worth)
		}
		row.stands = append(row.stands, stands)
	}
}

// giveOut has each quad take a piece of its own where one of some alike was chosen for it: what lies
// in the drawer first. Where that cannot be, it gives the quads whose ways cannot be had together.
func (t *table) giveOut(picks []int) (apart []int) {
	holder := map[string]int{} // place by piece
	var asks []int
	for i, pick := range picks {
		q := &t.quads[i]
		switch way := q.ways[pick]; {
		case way.kit == "":
		case way.alike > 0 && len(q.like(pick)) > 1:
			asks = append(asks, i)
		default:
			holder[way.kit] = i
		}
	}
	for _, i := range asks {
		if !t.give(i, picks, holder, map[string]bool{}) {
			pool, _ := t.pool(t.quads[i].ways[picks[i]].kit)
			for k, pick := range picks {
				if name, _ := t.pool(t.quads[k].ways[pick].kit); name == pool {
					apart = append(apart, k)
				}
			}
			return apart
		}
	}
	return nil
}

// give gives a quad one of the pieces that are alike, and whoever has it another (augmenting paths;
// Berge 1957).
func (t *table) give(i int, picks []int, holder map[string]int, asked map[string]bool) bool {
	q := &t.quads[i]
	for _, k := range q.like(picks[i]) {
		kit := q.ways[k].kit
		if asked[kit] {
			continue
		}
		asked[kit] = true
		has, taken := holder[kit]
		if taken && !t.give(has, picks, holder, asked) {
			continue
		}
		holder[kit], picks[i] = i, k
		return true
	}
	return false
}

// like are the ways that one stands for, those that move least first.
func (q *quadTable) like(pick int) (list []int) {
	for k := range q.ways {
		if q.stands[k] == q.stands[pick] {
			list = append(list, k)
		}
	}
	slices.SortStableFunc(list, func(a, b int) int { return cmp.Compare(q.ways[a].moved(), q.ways[b].moved()) })
	return list
}
