package builds

import (
	"encoding/json"
	"maps"
	"math/rand/v2"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/format"
)

// Torn is a stock with facts of its gear left out, and a fleet of two builds with the
// halves of one exchanged and facts left out: what somebody has who has only begun to
// enter things. No fleet where no file would say it; the stock itself where no file would
// say its gear.
func Torn(seed uint64, st *stock.Stock) (*stock.Stock, *fleet.Index) {
	f := tornFleet(seed, st)
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
	less.Sets = []*gear.Set{&cut}
	if json.Unmarshal(text, &cut) != nil || format.CheckStock(&stock.Stock{Sets: less.Sets, Fleet: f.Fleet}) != nil {
		return st, f
	}
	return less, f
}

// tornFleet is the fleet alone; nil where no file would say it.
func tornFleet(seed uint64, st *stock.Stock) *fleet.Index {
	r := rand.New(rand.NewPCG(seed, 7))
	f := *st.Fleet
	first := Alone(seed, st.Library(), st.Fleet).Quads[0]
	other := Alone(seed+1_000_003, st.Library(), st.Fleet).Quads[0]
	first.ID, other.ID = "first", "other"
	if r.IntN(2) == 0 {
		first.Next, other.Next = other.Next, first.Next
	}
	f.Quads = []fleet.Quad{first, other}
	f.Wants = []fleet.Want{{Quad: "first", Goggles: "visor-c-1", Weight: fleet.Must}}
	f.Scenarios = nil
	f.Taken = nil
	f.Courses, f.TestFlights, f.Tasks = nil, nil, nil
	text, err := json.Marshal(&f)
	if err != nil {
		return nil
	}
	var whole map[string]any
	if json.Unmarshal(text, &whole) != nil {
		return nil
	}
	for range r.IntN(4) {
		cutOut(r, whole["quads"])
	}
	if text, err = json.Marshal(whole); err != nil {
		return nil
	}
	doc, err := format.Read(text)
	if err != nil || format.CheckStock(&stock.Stock{Sets: st.Sets, Fleet: doc.Fleet}) != nil {
		return nil
	}
	return fleet.NewIndex(doc.Fleet)
}

// cutOut takes a value out, somewhere inside.
func cutOut(r *rand.Rand, from any) {
	var found []func()
	var walk func(v any)
	walk = func(v any) {
		switch x := v.(type) {
		case map[string]any:
			for _, key := range slices.Sorted(maps.Keys(x)) {
				found = append(found, func() { delete(x, key) })
				walk(x[key])
			}
		case []any:
			for _, inside := range x {
				walk(inside)
			}
		}
	}
	walk(from)
	if len(found) > 0 {
		found[r.IntN(len(found))]()
	}
}
