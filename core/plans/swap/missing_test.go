package swap_test

import (
	"encoding/json"
	"fmt"
	"os"
	"runtime/debug"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// The law: missing is never better. Taking away any one stated fact never yields
// fits, caution or change where it was worse; unfit may become unknown, and then the
// gate names something that is missing.
//
// Facts are taken out of the entries as they stand in a file. Left alone are ids,
// names, sources and offers, which no verdict rests on; entries of lists; what the
// schema asks for; and the choices docs/format/versions.md lists with their default.

var noFacts = slices.Concat(
	[]string{ // names, and where a value is from
		"id", "name", "source", "valueSources", "offer", "deals", "box", "note", "text", "family", "why", "use", "purpose", "weight", "title", "format",
		"version", "license", "kind", "shows", "entry",
	},
	[]string{ // choices with a default: docs/format/versions.md
		"plate", "screw", "washer", "lead", "packLead", "depth", "harness", "tiltDeg", "softMM", "jumpers", "receiver",
		"receiverCable", "header", "boardHeader", "turned", "branchTo",
		"mode", "airFirmware", "gogglesFirmware", "to", "from", "capacitorUF", "advice", "avoid", "width", "height",
		"head", "plugSex", "fromSex", "toSex", "limits", "bitrateMbps", "rangeKM", "boardTurnDeg",
		"awaits", "due", "locks", "standoffCutMM",
	},
	[]string{ // what an entry of a list is; without it the entry is another, or none
		"kit", "model", "uart", "pin", "x", "y", "xMM", "yMM", "solidXMM", "solidYMM", "aux", "fromUS", "toUS", "band",
		"mhz", "widthMHz", "grid", "never", "untested", "needed", "keeps",
	},
	[]string{"loads", "regulators", "ports", "switches", "elements", "parts", "beside", "moved", "variants", "holdings", "places", "keepFree",
		"stands", "leftOff"}, // whole lists
)

// noFact says whether a path names no fact of a gear entry or a fit.
func noFact(path string) bool {
	if slices.Contains(noFacts, path[strings.LastIndex(path, ".")+1:]) {
		return true
	}
	if strings.HasPrefix(path, ".pairings") &&
		(strings.HasSuffix(path, "].airUnit") || strings.HasSuffix(path, "].goggles")) {
		return true // the schema asks for them
	}
	if strings.Contains(path, ".speaksAs[") && !strings.HasSuffix(path, ".canvas") {
		return true // the schema asks for them
	}
	if strings.Contains(path, ".places[") || strings.Contains(path, ".stands[") || strings.Contains(path, ".outlets[") {
		return true // the schema asks for them; a quarter turn left out is none
	}
	if strings.Contains(path, ".holdings[") && (strings.HasSuffix(path, ".part") || strings.HasSuffix(path, ".way")) {
		return true // the schema asks for them
	}
	if strings.Contains(path, ".modes[") ||
		strings.Contains(path, ".controllers[") && strings.HasPrefix(path, ".pairings") {
		return true // a mode is there, and a controller goes, on every release where none is stated
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
	if strings.HasSuffix(path, ".now.camera") || strings.HasSuffix(path, ".next.camera") || path == ".camera" {
		return true // a choice; left out, the unit has its own
	}
	if strings.Contains(path, ".moved[") {
		return true // a crimp that is not moved sits where it was put
	}
	if strings.Contains(path, ".beside[") {
		return true // a further cable that goes into no plug is soldered, as the wires say
	}
	if strings.Contains(path, ".access.") {
		return true // an entry of a list: what is not named is not there
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

// fleetsOf are the demo's fleet, and builds each in a fleet of its own.
func fleetsOf(st *stock.Stock, builtToo int) []*fleet.Index {
	list := []*fleet.Index{fleet.NewIndex(st.Fleet)}
	for seed := range builtToo {
		list = append(list, builds.Alone(uint64(seed), st.Library(), st.Fleet))
	}
	return list
}

// judged are the verdicts over all quads of some fleets.
func judged(lib *gear.Library, fleets []*fleet.Index) []swap.Judgement {
	lists := make([][]swap.Judgement, len(fleets))
	var wait sync.WaitGroup
	for i := range fleets {
		wait.Go(func() { lists[i] = swap.JudgeAll(lib, fleets[i]) })
	}
	wait.Wait()
	return slices.Concat(lists...)
}

func howMany(usual int) int {
	if soak, err := strconv.Atoi(os.Getenv("SOAK")); err == nil {
		return soak
	}
	if testing.Short() {
		return usual / 10
	}
	return usual
}

func TestMissingGearIsNeverBetter(t *testing.T) {
	withoutRace(t)
	defer debug.SetGCPercent(debug.SetGCPercent(800))
	st := builds.Demo()
	fleets := fleetsOf(st, howMany(5))
	before := judged(st.Library(), fleets)
	seen := map[string]bool{}
	checked, stated := 0, 0
	for at, set := range st.Sets {
		tree := anyOf(t, set).(map[string]any)
		facts(tree, "", func(path string, holder map[string]any, key string) {
			if stated++; testing.Short() && stated%10 != 0 {
				return
			}
			value := holder[key]
			delete(holder, key)
			defer func() { holder[key] = value }()
			text, err := json.Marshal(tree)
			require.NoError(t, err)
			var less gear.Set
			require.NoError(t, json.Unmarshal(text, &less))
			sets := slices.Clone(st.Sets)
			sets[at] = &less
			after := judged(gear.NewLibrary(sets...), fleets)
			checked++
			for i := range after {
				if how := better(before[i], after[i]); how != "" && !seen[key] {
					seen[key] = true
					t.Errorf("quad %d without %s (%v): %s", i, path, value, how)
				}
			}
		})
	}
	t.Logf("%d facts of gear taken away", checked)
}

// The same for a whole entry that is stored and cannot be read: whatever rests on it is
// unknown, and never better.
func TestAnEntryThatCannotBeReadIsNeverBetter(t *testing.T) {
	withoutRace(t)
	st := builds.Demo()
	fleets := fleetsOf(st, howMany(10))
	before := judged(st.Library(), fleets)
	tried := func(ref stock.Ref, lib *gear.Library, fleets []*fleet.Index) {
		for i, after := range judged(lib.Without(gear.Unread{Kind: ref.Kind, ID: ref.ID}), fleets) {
			if how := better(before[i], after); how != "" {
				t.Errorf("quad %d, %s cannot be read: %s", i, ref, how)
				return
			}
		}
	}
	for _, list := range st.Sets[0].Lists() {
		for _, item := range list.Items {
			ref := stock.Ref{Kind: string(item.Kind()), ID: item.Head().ID}
			less := st.Fork()
			less.Remove(ref)
			tried(ref, gear.NewLibrary(less.Sets...), fleets)
		}
	}
	for _, kit := range st.Fleet.Kit {
		var less []*fleet.Index
		for _, f := range fleets {
			own := *f.Fleet
			own.Kit = slices.DeleteFunc(slices.Clone(own.Kit), func(k fleet.Kit) bool { return k.ID == kit.ID })
			less = append(less, fleet.NewIndex(&own))
		}
		tried(stock.Ref{Kind: stock.KindKit, ID: kit.ID}, gear.NewLibrary(st.Sets...), less)
	}
}

func TestMissingOfAFleetIsNeverBetter(t *testing.T) {
	withoutRace(t)
	st := builds.Demo()
	lib := st.Library()
	law := lawOfFleets{T: t, lib: lib, seen: map[string]bool{}}
	for _, f := range fleetsOf(st, howMany(200)) {
		before := swap.JudgeAll(lib, f)
		for i := range f.Quads {
			law.quad(f, &f.Quads[i], before[i])
		}
	}
	fleets := fleetsOf(st, howMany(30))
	before := judged(lib, fleets)
	for k := range st.Fleet.Kit {
		law.kit(fleets, k, before)
	}
	t.Logf("%d facts of fleets taken away", law.checked)
}

// lawOfFleets takes facts of quads and kit away, each in turn.
type lawOfFleets struct {
	*testing.T
	lib     *gear.Library
	seen    map[string]bool // what has been said of a field is not said again
	checked int
}

func (l *lawOfFleets) quad(f *fleet.Index, q *fleet.Quad, before swap.Judgement) {
	tree := anyOf(l.T, q).(map[string]any)
	facts(tree, "", func(path string, holder map[string]any, key string) {
		if path == ".now" || path == ".next" || strings.HasPrefix(path, ".now.") {
			return
		}
		value := holder[key]
		delete(holder, key)
		defer func() { holder[key] = value }()
		var less fleet.Quad
		l.read(tree, &less)
		l.checked++
		if how := better(before, swap.Judge(fleet.NewCase(l.lib, f, &less))); how != "" && !l.seen[path] {
			l.seen[path] = true
			l.Errorf("%s without %s (%v): %s", q.ID, path, value, how)
		}
	})
}

func (l *lawOfFleets) kit(fleets []*fleet.Index, k int, before []swap.Judgement) {
	for _, field := range []string{"firmware", "mode", "activated", "antennas", "adapter", "matings"} {
		tree := anyOf(l.T, fleets[0].Kit[k]).(map[string]any)
		if _, stated := tree[field]; !stated {
			continue
		}
		delete(tree, field)
		var less []*fleet.Index
		for _, f := range fleets {
			own := *f.Fleet
			own.Kit = slices.Clone(f.Kit)
			own.Kit[k] = fleet.Kit{}
			l.read(tree, &own.Kit[k])
			less = append(less, fleet.NewIndex(&own))
		}
		l.checked++
		for i, after := range judged(l.lib, less) {
			if how := better(before[i], after); how != "" && !l.seen["kit."+field] {
				l.seen["kit."+field] = true
				l.Errorf("quad %d without %s of %s: %s", i, field, fleets[0].Kit[k].ID, how)
			}
		}
	}
}

func (l *lawOfFleets) read(tree, into any) {
	text, err := json.Marshal(tree)
	require.NoError(l.T, err)
	require.NoError(l.T, json.Unmarshal(text, into))
}

// An unknown says what is missing: a builder who reads it knows what to look up.
func TestEveryUnknownNamesWhatIsMissing(t *testing.T) {
	st := builds.Demo()
	for _, j := range judged(st.Library(), fleetsOf(st, 200)) {
		for _, gate := range j.Gates {
			for _, f := range gate.Findings {
				if f.Level == verdict.Unknown && len(f.Missing) == 0 {
					t.Errorf("%s, %s: %s", f.Code, f.Subject, f.Says)
				}
			}
		}
	}
}

// allFound is what all gates find of a fit.
func allFound(c fleet.Case) (list []verdict.Finding) {
	for _, gate := range swap.Gates {
		list = append(list, gate.Check(c)...)
	}
	return list
}

// Whatever device is planned, owned or to be bought, on whatever release: what is asked for is of
// something that is there.
func TestWhatIsAskedForIsOfSomethingThatIsThere(t *testing.T) {
	st := builds.Demo()
	lib := st.Library()
	asked := 0
	for _, q := range st.Fleet.Quads {
		for _, item := range lib.Items() {
			device, ok := item.(gear.Linked)
			if !ok {
				continue
			}
			id := item.Head().ID
			releases := []firmware.Version{""}
			for _, r := range device.AsDevice().Releases {
				releases = append(releases, r.Version)
			}
			for _, release := range releases {
				fit, slot := q.NextFit().Clone(), &fleet.Slot{Model: id, Firmware: release}
				switch item.Kind() {
				case gear.KindAirUnit:
					fit.AirUnit = slot
				case gear.KindGoggles:
					fit.Goggles = slot
				default:
					fit.Controller = slot
				}
				q.Next = &fit
				for _, f := range allFound(fleet.NewCase(lib, fleet.NewIndex(st.Fleet), &q)) {
					for _, m := range f.Missing {
						asked++
						require.True(t, m.ID != "" || m.Of == "fleet", "%s, %s on %s: %+v", q.ID, id, release, m)
						require.NotContains(t, m.Field, "..", "%+v", m)
					}
				}
			}
		}
	}
	require.Greater(t, asked, 100)
}
