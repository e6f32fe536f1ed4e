package swap_test

import (
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/stock"
	"yokeswap/core/swap"
	"yokeswap/core/verdict"
	"yokeswap/demo"
	"yokeswap/internal/builds"
)

// The law: missing is never better. Taking away any one stated fact never yields
// fits, caution or change where it was worse; unfit may become unknown, and then the
// gate names something that is missing.
//
// Facts are taken out of the entries as they stand in a file. Left alone are ids,
// names, sources and offers, which no verdict rests on; entries of lists; what the
// schema asks for; and the choices docs/format/versions.md lists with their default.

// noFact says whether a path names no fact of a gear entry or a fit.
func noFact(path string) bool {
	last := path[strings.LastIndex(path, ".")+1:]
	switch last {
	case "id", "name", "source", "valueSources", "offer", "note", "text", "family", "why", "use", "title", "format", "version", "license", "kind", "plate", "screw", "washer", "lead", "packLead", "depth", "harness", "tiltDeg", "loads", "regulators", "ports", "switches", "elements", "jumpers", "receiver", "kit", "model", "to", "from", "uart", "mode", "never", "shows", "solidXMM", "solidYMM", "xMM", "yMM", "aux", "fromUS", "toUS", "pin", "x", "y", "band", "mhz", "widthMHz", "grid", "needed", "keeps", "entry":
		return true
	}
	if strings.HasSuffix(path, "goggles.firmware") || strings.HasSuffix(path, "airUnit.firmware") ||
		strings.HasSuffix(path, "controller.firmware") {
		return true // a plan; left out, the device stays as it is
	}
	if !strings.Contains(path[1:], ".") && !strings.Contains(path, "[") {
		switch path[1:] {
		case "fullA", "auwG", "hoverA":
		default:
			return true // a whole list of a file
		}
	}
	if strings.HasSuffix(path, ".antennas") || strings.HasSuffix(path, ".antennas.models") {
		return true // the antenna gate asks for them, the mount gate only about their leads
	}
	return strings.Contains(path, ".jumpers.") || strings.Contains(path, ".valueSources.") ||
		strings.Contains(path, ".offer.") || strings.Contains(path, ".source.")
}

// facts lists the paths of all fields of a JSON value.
func facts(v any, path string, add func(path string, holder map[string]any, key string)) {
	switch x := v.(type) {
	case map[string]any:
		keys := make([]string, 0, len(x))
		for k := range x {
			keys = append(keys, k)
		}
		slices.Sort(keys)
		for _, k := range keys {
			at := path + "." + k
			if !noFact(at) {
				add(at, x, k)
			}
			facts(x[k], at, add)
		}
	case []any:
		for i := range x {
			facts(x[i], fmt.Sprintf("%s[%d]", path, i), add)
		}
	}
}

func anyOf(t *testing.T, v any) (out any) {
	text, err := json.Marshal(v)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &out))
	return out
}

// better says how a verdict got better than it may have by losing a fact; empty where
// it did not.
func better(before, after swap.Judgement) string {
	for i, was := range before.Gates {
		is := after.Gates[i]
		switch {
		case !was.Level.WorseThan(is.Level):
		case is.Level != verdict.Unknown:
			return fmt.Sprintf("the %s gate was %s (%s), is %s", was.Gate, was.Level, worst(was), is.Level)
		case !slices.ContainsFunc(is.Findings, func(f verdict.Finding) bool { return len(f.Missing) > 0 }):
			return fmt.Sprintf("the %s gate is unknown and names nothing", is.Gate)
		}
	}
	return ""
}

func worst(g swap.GateVerdict) string {
	for _, f := range g.Findings {
		if f.Level == g.Level {
			return string(f.Code) + ": " + f.Says
		}
	}
	return ""
}

func demoStock(t *testing.T) *stock.Stock {
	st := &stock.Stock{Fleet: &fleet.Fleet{}}
	require.NoError(t, demo.Load(st))
	return st
}

// quadsOf is the demo's fleet, with builds beside it.
func quadsOf(st *stock.Stock, more int) *fleet.Fleet {
	f := *st.Fleet
	f.Quads = slices.Clone(f.Quads)
	for seed := range more {
		f.Quads = append(f.Quads,
			builds.New(uint64(seed), st.Library(), fleet.NewIndex(st.Fleet)).Quad(fmt.Sprintf("build-%d", seed)))
	}
	return &f
}

func howMany(usual int) int {
	if soak, err := strconv.Atoi(os.Getenv("SOAK")); err == nil {
		return soak
	}
	return usual
}

func TestMissingGearIsNeverBetter(t *testing.T) {
	if raced {
		t.Skip("runs without the race detector")
	}
	st := demoStock(t)
	f := quadsOf(st, howMany(30))
	index := fleet.NewIndex(f)
	before := swap.JudgeAll(st.Library(), index)
	seen := map[string]bool{}
	checked := 0
	for at, set := range st.Sets {
		tree := anyOf(t, set).(map[string]any)
		facts(tree, "", func(path string, holder map[string]any, key string) {
			value := holder[key]
			delete(holder, key)
			defer func() { holder[key] = value }()
			text, err := json.Marshal(tree)
			require.NoError(t, err)
			var less gear.Set
			require.NoError(t, json.Unmarshal(text, &less))
			sets := slices.Clone(st.Sets)
			sets[at] = &less
			after := swap.JudgeAll(gear.NewLibrary(sets...), index)
			checked++
			for i := range after {
				if how := better(before[i], after[i]); how != "" && !seen[key] {
					seen[key] = true
					t.Errorf("%s without %s (%v): %s", f.Quads[i].ID, path, value, how)
				}
			}
		})
	}
	t.Logf("%d facts of gear taken away", checked)
}

func TestMissingOfAFleetIsNeverBetter(t *testing.T) {
	if raced {
		t.Skip("runs without the race detector")
	}
	st := demoStock(t)
	f := quadsOf(st, howMany(200))
	lib := st.Library()
	index := fleet.NewIndex(f)
	before := swap.JudgeAll(lib, index)
	var mu sync.Mutex
	seen := map[string]bool{}
	checked := 0
	for i := range f.Quads {
		tree := anyOf(t, f.Quads[i]).(map[string]any)
		facts(tree, "", func(path string, holder map[string]any, key string) {
			if path == ".now" || path == ".next" || strings.HasPrefix(path, ".now.") {
				return
			}
			value := holder[key]
			delete(holder, key)
			defer func() { holder[key] = value }()
			text, err := json.Marshal(tree)
			require.NoError(t, err)
			var less fleet.Quad
			require.NoError(t, json.Unmarshal(text, &less))
			after := swap.Judge(fleet.NewCase(lib, index, &less))
			mu.Lock()
			defer mu.Unlock()
			checked++
			if how := better(before[i], after); how != "" && !seen[path] {
				seen[path] = true
				t.Errorf("%s without %s (%v): %s", f.Quads[i].ID, path, value, how)
			}
		})
	}
	for k := range f.Kit {
		for _, field := range []string{"firmware", "mode", "activated", "antennas", "adapter", "matings"} {
			tree := anyOf(t, f.Kit[k]).(map[string]any)
			if _, stated := tree[field]; !stated {
				continue
			}
			delete(tree, field)
			text, err := json.Marshal(tree)
			require.NoError(t, err)
			less := *f
			less.Kit = slices.Clone(f.Kit)
			less.Kit[k] = fleet.Kit{}
			require.NoError(t, json.Unmarshal(text, &less.Kit[k]))
			after := swap.JudgeAll(lib, fleet.NewIndex(&less))
			checked++
			for i := range after {
				if how := better(before[i], after[i]); how != "" && !seen["kit."+field] {
					seen["kit."+field] = true
					t.Errorf("%s without %s of %s: %s", f.Quads[i].ID, field, f.Kit[k].ID, how)
				}
			}
		}
	}
	t.Logf("%d facts of fleets taken away", checked)
}
