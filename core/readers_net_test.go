package core_test

import (
	"encoding/json"
	"maps"
	"os"
	"reflect"
	"runtime/debug"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/internal/builds"
)

// knownReaders is where each field was noticed the last time: READERS=1 writes what it found this time. It is
// tried first and believed in nothing: what it does not find again is looked for everywhere.
const knownReaders = "testdata/readers.json"

func TestEveryFieldHasAReader(t *testing.T) {
	withoutRace(t)
	defer debug.SetGCPercent(debug.SetGCPercent(800))
	n := net{T: t, field: map[string]string{}, unread: map[string]int{}, read: map[string]bool{}, sure: map[[2]int]bool{}}
	fields(reflect.TypeFor[gear.Set](), "pack", n.ask)
	fields(reflect.TypeFor[fleet.Fleet](), "fleet", n.ask)
	n.corpora = []corpus{newCorpus(t, func(st *stock.Stock) {
		for seed := range 6 {
			st.Fleet.Quads = append(st.Fleet.Quads, builds.Alone(uint64(seed), st.Library(), st.Fleet).Quads[0])
		}
	}), newCorpus(t, whatTheDemoLacks), newCorpus(t, func(st *stock.Stock) {
		whatTheDemoLacks(st)
		st.Fleet.KeepWayBack = true
	}), newCorpus(t, whatIsRare), newCorpus(t, whatIsDecided)}
	var known []reading
	if text, err := os.ReadFile(knownReaders); err == nil {
		require.NoError(t, json.Unmarshal(text, &known))
	}
	if n.known = known; known != nil {
		n.everywhere()
	}
	n.known = nil
	n.everywhere()
	for _, field := range slices.Sorted(maps.Keys(n.unread)) {
		t.Errorf("%s is read by nothing (%d values tried)", field, n.unread[field])
	}
	if os.Getenv("READERS") != "" {
		slices.SortFunc(n.found, func(a, b reading) int { return strings.Compare(a.Path, b.Path) })
		text, err := json.MarshalIndent(n.found, "", " ")
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(knownReaders, append(text, '\n'), 0o600))
	}
}

// reading is a value that was noticed: in which corpus and file, the path of its field, at which of
// the places with that path, which other value it was, and the part of the program that noticed.
type reading struct {
	Path         string
	Corpus, File int
	Place, Value int
	Part         int
}

// net holds which fields are still without a reader.
type net struct {
	*testing.T
	corpora []corpus
	field   map[string]string // which it is, by where it stands
	unread  map[string]int    // values there are
	read    map[string]bool   // by where it stands
	known   []reading         // what alone is tried; nil: everything
	found   []reading
	asked   []int // the parts that are asked
	tries   int
	sure    map[[2]int]bool // corpus and dear part that says the same of the same
}

func (n *net) ask(path, field string) {
	n.field[path] = field
	if !slices.Contains(oneValue, field) {
		n.unread[field] = 0
	}
}

// everywhere looks through all corpora: for what is known alone, or for all that is left. The dear parts
// are left to what the others do not notice.
func (n *net) everywhere() {
	var cheap []int
	for i := range parts[:len(parts)-dear] {
		cheap = append(cheap, i)
	}
	asked := [][]int{cheap}
	for i := len(parts) - dear; i < len(parts); i++ {
		asked = append(asked, []int{i})
	}
	n.tries = manyTries
	for _, n.asked = range asked {
		for i := range n.corpora {
			if len(n.unread) > 0 {
				n.look(i)
			}
		}
		if n.known != nil {
			return
		}
		n.tries = fewTries
	}
}

// readsInside says whether a field inside the one at a path has a reader there.
func (n *net) readsInside(path string) bool {
	for at := range n.read {
		if strings.HasPrefix(at, path+".") || strings.HasPrefix(at, path+"[]") {
			return true
		}
	}
	return false
}

// fleetFile is the file of a corpus that is its fleet; the others are its gear packs.
const fleetFile = -1

func (n *net) look(i int) {
	c := n.corpora[i]
	lib, index := gear.NewLibrary(c.Sets...), fleet.NewIndex(c.Fleet)
	for file, set := range c.Sets {
		n.walk(reading{Corpus: i, File: file}, "pack", set, func(text []byte, quad int) (world, bool) {
			var other gear.Set
			if json.Unmarshal(text, &other) != nil {
				return world{}, false
			}
			sets := slices.Clone(c.Sets)
			sets[file] = &other
			return world{sets, gear.NewLibrary(sets...), index, quad}, true
		})
	}
	n.walk(reading{Corpus: i, File: fleetFile}, "fleet", c.Fleet, func(text []byte, quad int) (world, bool) {
		var other fleet.Fleet
		if json.Unmarshal(text, &other) != nil {
			return world{}, false
		}
		return world{c.Sets, lib, fleet.NewIndex(&other), quad}, true
	})
}

// walk tries other values for every field of a file that has no reader yet.
func (n *net) walk(in reading, name string, file any, with func(text []byte, quad int) (world, bool)) {
	whole := tree(n.T, file)
	var list []string
	at := map[string][]place{}
	places(whole, name, everyQuad, func(path string, p place) {
		if _, known := n.field[path]; known {
			if at[path] == nil {
				list = append(list, path)
			}
			at[path] = append(at[path], p)
		}
	})
	n.unchanged(in, n.asked, whole, with)
	slices.Reverse(list) // what is inside first: who reads that reads what it is in
	for _, in.Path = range list {
		field := n.field[in.Path]
		if _, open := n.unread[field]; !open {
			continue
		}
		if n.readsInside(in.Path) {
			delete(n.unread, field)
			continue
		}
		noticed := func(p place) (int, bool) {
			text, err := json.Marshal(whole)
			require.NoError(n.T, err)
			w, ok := with(text, p.quad)
			if !ok {
				return 0, false
			}
			return differs(n.T, n.corpora[in.Corpus].says, w, n.asked)
		}
		found := false
		if n.known == nil {
			n.unread[field] += len(at[in.Path])
			in.Place, in.Value, in.Part, found = tried(at[in.Path], n.tries, noticed)
		} else {
			in, found = n.again(in, at[in.Path], noticed)
			if sure := [2]int{in.Corpus, in.Part}; found && in.Part >= len(parts)-dear && !n.sure[sure] {
				n.unchanged(in, []int{in.Part}, whole, with)
				n.sure[sure] = true
			}
		}
		if found {
			delete(n.unread, field)
			n.read[in.Path] = true
			n.found = append(n.found, in)
		}
	}
}

// unchanged sees that a file with nothing changed says what it said: else everything would be noticed.
func (n *net) unchanged(in reading, asked []int, whole any, with func(text []byte, quad int) (world, bool)) {
	text, err := json.Marshal(whole)
	require.NoError(n.T, err)
	w, ok := with(text, everyQuad)
	require.True(n.T, ok)
	part, yes := differs(n.T, n.corpora[in.Corpus].says, w, asked)
	require.False(n.T, yes, "corpus %d, file %d: part %d says something else of the same", in.Corpus, in.File, part)
}

// again tries what was noticed at a path the last time.
func (n *net) again(in reading, at []place, noticed func(p place) (int, bool)) (was reading, found bool) {
	k := slices.IndexFunc(n.known, func(r reading) bool {
		return r.Path == in.Path && r.Corpus == in.Corpus && r.File == in.File
	})
	if k < 0 || n.known[k].Place >= len(at) {
		return in, false
	}
	was = n.known[k]
	p := at[was.Place]
	list := others(p.value, seenAt(at))
	if was.Value >= len(list) {
		return in, false
	}
	asked := n.asked
	n.asked = []int{was.Part}
	p.set(list[was.Value])
	_, found = noticed(p)
	p.set(p.value)
	n.asked = asked
	return was, found
}

// oneValue are fields that can only have one value yet.
var oneValue = []string{"gear.Advice.kind"}

// How many values of a field are tried at most, where cheap parts are asked and where dear ones are.
const (
	manyTries = 50
	fewTries  = 12
)

// seenAt are the first values a field has.
func seenAt(at []place) (seen []any) {
	for _, p := range at {
		if !slices.ContainsFunc(seen, func(v any) bool { return reflect.DeepEqual(v, p.value) }) {
			seen = append(seen, p.value)
		}
	}
	return seen[:min(len(seen), 8)]
}

// tried says whether another value at any of the places is noticed, where, which and by what. Each
// place gets its first other value before any gets its second.
func tried(at []place, tries int, noticed func(p place) (int, bool)) (where, value, part int, found bool) {
	seen := seenAt(at)
	count := 0
	for n, more := 0, true; more; n++ {
		more = false
		for i, p := range at {
			list := others(p.value, seen)
			if n >= len(list) {
				continue
			}
			more = true
			p.set(list[n])
			part, found := noticed(p)
			p.set(p.value)
			if count++; found || count == tries {
				return i, n, part, found
			}
		}
	}
	return 0, 0, 0, false
}
