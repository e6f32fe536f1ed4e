package core_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/demo"
	"yokeswap/format"
	"yokeswap/internal/builds"
)

// Nothing stops a view: whatever a fleet states or leaves out, all the program says and
// draws of it can be said and drawn, and written as JSON.

// drawn is a stock with facts of its gear left out, and a fleet of two builds with the
// halves of one exchanged and facts left out.
func drawn(st *stock.Stock, seed uint64) (*stock.Stock, *fleet.Index) {
	f := drawnFleet(st, seed)
	if f == nil {
		return st, nil
	}
	r := rand.New(rand.NewPCG(seed, 9))
	text, err := json.Marshal(st.Sets[0])
	if err != nil {
		return st, nil
	}
	var set map[string]any
	if json.Unmarshal(text, &set) != nil {
		return st, nil
	}
	for _, kind := range gear.Kinds {
		entries, _ := set[kind.List].([]any)
		for _, entry := range entries {
			entry := entry.(map[string]any)
			if r.IntN(4) == 0 {
				keys := slices.DeleteFunc(slices.Sorted(maps.Keys(entry)), func(k string) bool { return k == "id" })
				delete(entry, keys[r.IntN(len(keys))])
			}
		}
	}
	less := st.Fork()
	if text, err = json.Marshal(set); err != nil {
		return st, nil
	}
	var cut gear.Set
	if json.Unmarshal(text, &cut) != nil || format.CheckStock(&stock.Stock{Sets: []*gear.Set{&cut}, Fleet: f.Fleet}) != nil {
		return st, f // no file that is taken: the fleet alone
	}
	less.Sets = []*gear.Set{&cut}
	return less, f
}

// drawnFleet is the fleet alone; nil where no file would say it.
func drawnFleet(st *stock.Stock, seed uint64) *fleet.Index {
	r := rand.New(rand.NewPCG(seed, 7))
	f := *st.Fleet
	first := builds.Alone(seed, st.Library(), st.Fleet).Quads[0]
	other := builds.Alone(seed+1_000_003, st.Library(), st.Fleet).Quads[0]
	first.ID, other.ID = "first", "other"
	if r.IntN(2) == 0 {
		first.Next, other.Next = other.Next, first.Next
	}
	f.Quads = []fleet.Quad{first, other}
	f.Wants = []fleet.Want{{Quad: "first", Goggles: "visor-c-1", Weight: fleet.Must}}
	f.Taken = nil
	text, err := json.Marshal(&f)
	if err != nil {
		return nil
	}
	var whole any
	if json.Unmarshal(text, &whole) != nil {
		return nil
	}
	for range r.IntN(4) {
		cutOut(r, whole.(map[string]any))
	}
	if text, err = json.Marshal(whole); err != nil {
		return nil
	}
	doc, err := format.Read(text)
	if err != nil || format.CheckStock(&stock.Stock{Sets: st.Sets, Fleet: doc.Fleet}) != nil {
		return nil // no file that is taken
	}
	return fleet.NewIndex(doc.Fleet)
}

// cutOut takes a value out, somewhere inside.
func cutOut(r *rand.Rand, from map[string]any) {
	var found []func()
	var walk func(v any)
	walk = func(v any) {
		switch x := v.(type) {
		case map[string]any:
			for key, inside := range x {
				found = append(found, func() { delete(x, key) })
				walk(inside)
			}
		case []any:
			for _, inside := range x {
				walk(inside)
			}
		}
	}
	walk(from["quads"])
	if len(found) > 0 {
		found[r.IntN(len(found))]()
	}
}

// viewed drives everything over a fleet.
func viewed(t *testing.T, st *stock.Stock, f *fleet.Index) {
	w := world{st.Library(), f, everyQuad}
	for i := range parts {
		text, err := json.Marshal(parts[i](w))
		require.NoError(t, err)
		if strings.Contains(string(text), `"stopped"`) {
			file, _ := format.Write(f.Fleet)
			t.Fatalf("part %d stops: %s", i, file)
		}
	}
}

func demoStock(t testing.TB) *stock.Stock {
	st := stock.New()
	require.NoError(t, demo.Load(st))
	return st
}

func TestNothingStopsAView(t *testing.T) {
	if raced {
		t.Skip("runs without the race detector")
	}
	st := demoStock(t)
	n, taken, cut := 150, 0, 0
	if soak, err := strconv.Atoi(os.Getenv("SOAK")); err == nil {
		n = soak
	}
	for seed := range n {
		if less, f := drawn(st, uint64(seed)); f != nil {
			taken++
			if less != st {
				cut++
			}
			t.Run(fmt.Sprint(seed), func(t *testing.T) { viewed(t, less, f) })
		}
	}
	if taken < n/4 {
		t.Errorf("only %d of %d fleets could stand in a file", taken, n)
	}
	if cut < taken/4 {
		t.Errorf("only %d of %d fleets stand over gear that lacks something", cut, taken)
	}
}

func FuzzViews(f *testing.F) {
	for seed := range uint64(8) {
		f.Add(seed)
	}
	st := demoStock(f)
	f.Fuzz(func(t *testing.T, seed uint64) {
		if less, fleet := drawn(st, seed); fleet != nil {
			viewed(t, less, fleet)
		}
	})
}
