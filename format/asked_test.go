package format_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// Whatever a gate can miss has its field: facts are taken out of the demo's gear and of
// builds drawn at random, one after another, and what the gates then ask for is looked up
// in the forms.
func TestWhateverAGateAsksForCanBeEntered(t *testing.T) {
	st := builds.Demo()
	asked := map[string]verdict.Missing{}
	kindOf := func(lib *gear.Library, m verdict.Missing) string {
		if m.Of != "gear" {
			return m.Of
		}
		item, ok := lib.Item(m.ID)
		if !ok {
			return ""
		}
		return string(item.Kind())
	}
	note := func(lib *gear.Library, fleets ...*fleet.Index) {
		for _, f := range fleets {
			for _, j := range swap.JudgeAll(lib, f) {
				for _, gate := range j.Gates {
					for _, finding := range gate.Findings {
						for _, m := range finding.Missing {
							asked[kindOf(lib, m)+" "+m.Field] = m
						}
					}
				}
			}
		}
	}
	fleets := []*fleet.Index{fleet.NewIndex(st.Fleet)}
	for seed := range uint64(40) {
		fleets = append(fleets, builds.Alone(seed, st.Library(), st.Fleet))
	}
	note(st.Library(), fleets...)
	tree := treeOf(t, st.Sets[0])
	without(tree, func() {
		var less gear.Set
		intoGo(t, tree, &less)
		note(gear.NewLibrary(&less), fleets[:2]...)
	})
	for _, f := range fleets[:3] {
		tree := treeOf(t, f.Fleet)
		without(tree["quads"], func() {
			var less fleet.Fleet
			intoGo(t, tree, &less)
			note(st.Library(), fleet.NewIndex(&less))
		})
	}
	for key, m := range asked {
		if m.Of == "fleet" || m.Field == "pairings" {
			continue // the region is picked at the gate; a statement is an entry of its own
		}
		var kind string
		_, err := fmt.Sscan(key, &kind)
		require.NoError(t, err, key)
		_, ok := formFieldAt(form(t, kind), m.Field)
		assert.True(t, ok, "%s: nowhere to enter %q (%s)", kind, m.Field, m.Label)
	}
	t.Logf("%d values are asked for", len(asked))
	assert.Greater(t, len(asked), 80)
}

func treeOf(t *testing.T, v any) (tree map[string]any) {
	text, err := json.Marshal(v)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &tree))
	return tree
}

func intoGo(t *testing.T, tree, into any) {
	text, err := json.Marshal(tree)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, into))
}

// without takes fields of a tree out in turn, each field three times at most.
func without(v any, do func()) { withoutAt(v, "", map[string]int{}, do) }

func withoutAt(v any, path string, done map[string]int, do func()) {
	switch x := v.(type) {
	case map[string]any:
		for _, key := range slices.Sorted(maps.Keys(x)) {
			value, at := x[key], path+"."+key
			if key == "id" || key == "model" && x["id"] != nil {
				continue
			}
			if done[at]++; done[at] <= 2 {
				delete(x, key)
				do()
				x[key] = value
			}
			withoutAt(value, at, done, do)
		}
	case []any:
		for _, one := range x {
			withoutAt(one, path, done, do)
		}
	}
}
