package decide

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
)

// Who gets which of some pieces that are alike: each another, whoever has one moves on to another where
// that makes room, and quads that cannot all have one are named.
func TestGivingOutAlikePieces(t *testing.T) {
	f := &fleet.Fleet{Kit: []fleet.Kit{{ID: "a", Model: "m"}, {ID: "b", Model: "m"}, {ID: "c", Model: "other"}}}
	quad := func(kits ...string) quadTable {
		q := quadTable{ways: []*Way{{Key: leaveKey}}}
		for _, kit := range kits {
			q.ways = append(q.ways, &Way{kit: kit, alike: 1, Origin: Owned})
		}
		q.stands = []int{0, 1, 1}[:len(q.ways)]
		return q
	}
	own := func(kit string) quadTable {
		return quadTable{ways: []*Way{{Key: leaveKey, kit: kit}}, stands: []int{0}}
	}
	for _, c := range []struct {
		name        string
		quads       []quadTable
		picks, want []int
		apart       []int
	}{
		{"each another", []quadTable{quad("a", "b"), quad("a", "b")}, []int{1, 1}, []int{2, 1}, nil},
		{"whoever has it moves on", []quadTable{quad("a", "b"), quad("a")}, []int{1, 1}, []int{2, 1}, nil},
		{"what stays on its quad stays", []quadTable{own("a"), quad("a", "b")}, []int{0, 1}, []int{0, 2}, nil},
		{"one too many", []quadTable{own("a"), quad("a", "b"), own("c"), own("b")}, []int{0, 1, 0, 0}, nil, []int{0, 1, 3}},
	} {
		tab := &table{Ways: &Ways{index: fleet.NewIndex(f)}, quads: c.quads}
		apart := tab.giveOut(c.picks)
		assert.Equal(t, c.apart, apart, c.name)
		if c.want != nil {
			assert.Equal(t, c.want, c.picks, c.name)
		}
	}
}
