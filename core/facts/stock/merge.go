package stock

import (
	"encoding/json"
	"fmt"
	"maps"
	"reflect"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Difference says what taking a file in would do.
type Difference struct {
	New     []Ref    `json:"new"`
	Same    int      `json:"same"` // entries that are there already, alike
	Changed []Change `json:"changed"`
	// Against is what other gear packs that are there state otherwise.
	Against []Against `json:"against"`
}

// Change is an entry that is there already, otherwise.
type Change struct {
	Ref
	Fields []FieldChange `json:"fields"`
}

// FieldChange is one value that differs; empty means it is not there.
type FieldChange struct {
	Path   string `json:"path"`
	Before string `json:"before"`
	After  string `json:"after"`
}

// MergeSet takes a gear pack in: entries whose id is new are added, those that
// are there already are replaced. Nothing is taken out. It is an error when an
// id stands in another gear pack.
func (s *Stock) MergeSet(in *gear.Set) (Difference, error) { return s.MergeSetOver(in, nil) }

// MergeSetOver is MergeSet where it has been said who wins where the pack contradicts another
// one: by the id of the file's entry, WinsThere or WinsFile.
func (s *Stock) MergeSetOver(in *gear.Set, wins map[string]string) (Difference, error) {
	d := newDifference()
	at := slices.IndexFunc(s.Sets, func(set *gear.Set) bool { return set.ID == in.ID })
	if at < 0 {
		s.Sets = append(
			s.Sets,
			&gear.Set{Format: in.Format, Version: in.Version, ID: in.ID, Title: in.Title, License: in.License},
		)
		at = len(s.Sets) - 1
	}
	set := *s.Sets[at] // lists are replaced below, never written through
	s.Sets[at] = &set
	d.compare(Ref{KindSet, in.ID}, []string{set.Title, set.License}, []string{in.Title, in.License})
	set.Title, set.License = in.Title, in.License

	in, err := s.against(in, wins, &d)
	if err != nil {
		return d, err
	}
	for i, list := range in.Lists() {
		kind := gear.Kinds[i].Kind
		set.Put(
			kind,
			list.Items,
			func(before, after gear.Item) { d.taken(Ref{string(kind), after.Head().ID}, before, after) },
		)
	}
	return d, s.idsOnce(&set)
}

// idsOnce finds an id that came to stand twice in a set under two kinds.
func (s *Stock) idsOnce(set *gear.Set) error {
	seen := map[string]string{}
	for _, list := range set.Lists() {
		for _, item := range list.Items {
			id := item.Head().ID
			if other, twice := seen[id]; twice {
				return fmt.Errorf("the id %q stands already in %s of this gear pack; ids are unique", id, other)
			}
			seen[id] = list.Name
		}
	}
	return nil
}

// taken notes what taking an entry of gear in does.
func (d *Difference) taken(ref Ref, before, after gear.Item) {
	if before == nil {
		d.New = append(d.New, ref)
		return
	}
	d.compare(ref, before, after)
}

// MergeFleet takes a fleet file in, like MergeSet.
func (s *Stock) MergeFleet(in *fleet.Fleet) Difference {
	d := newDifference()
	out := *s.Fleet
	packs := slices.Clone(out.GearPacks)
	for _, id := range in.GearPacks {
		if !slices.Contains(packs, id) {
			packs = append(packs, id)
		}
	}
	before := Head(&out)
	out.Title, out.GearPacks = in.Title, packs
	out.Goals = in.Goals
	if in.Language != "" {
		out.Language = in.Language
	}
	if in.Region != "" {
		out.Region = in.Region
	}
	if in.Means != nil {
		out.Means = in.Means
	}
	out.Rates = over(out.Rates, in.Rates, fleet.Rate.Pair)
	out.Scenarios = over(out.Scenarios, in.Scenarios, func(s fleet.Scenario) string { return s.ID })
	if len(in.Taken) > 0 {
		out.Taken = in.Taken
	}
	fresh := reflect.DeepEqual(before, Head(New().Fleet)) // nothing of it has been chosen yet
	if !fresh || len(out.Kit)+len(out.Spares)+len(out.Quads) > 0 {
		d.compare(Ref{KindFleet, "fleet"}, before, Head(&out))
	}
	merge(&d, KindKit, &out.Kit, in.Kit, func(k *fleet.Kit) string { return k.ID })
	merge(&d, KindSpare, &out.Spares, in.Spares, func(p *fleet.Spare) string { return p.Model })
	merge(&d, KindQuad, &out.Quads, in.Quads, func(q *fleet.Quad) string { return q.ID })
	merge(&d, KindCourse, &out.Courses, in.Courses, func(w *fleet.Course) string { return w.ID })
	merge(&d, KindTestFlight, &out.TestFlights, in.TestFlights, func(t *fleet.TestFlight) string { return t.ID })
	merge(&d, KindTask, &out.Tasks, in.Tasks, func(t *fleet.Task) string { return t.ID })
	s.Fleet = &out
	return d
}

// over is a list with those of another in the place of its own of the same key, or behind them.
func over[T any](list, in []T, key func(T) string) []T {
	list = slices.Clone(list)
	for _, one := range in {
		at := slices.IndexFunc(list, func(o T) bool { return key(o) == key(one) })
		if at < 0 {
			list = append(list, one)
		} else {
			list[at] = one
		}
	}
	return list
}

// Head is the fleet without its entries: its title, its goals
// and what of the route has been taken.
func Head(f *fleet.Fleet) fleet.Fleet {
	head := *f
	head.Format, head.Version = fleet.FileFormat, fleet.FileVersion
	WithEntries(&head, &fleet.Fleet{})
	return head
}

// WithEntries gives the head of a fleet the entries of another.
func WithEntries(head, of *fleet.Fleet) {
	head.Kit, head.Spares, head.Quads = of.Kit, of.Spares, of.Quads
	head.Courses, head.TestFlights, head.Tasks = of.Courses, of.TestFlights, of.Tasks
}

func newDifference() Difference {
	return Difference{New: []Ref{}, Changed: []Change{}, Against: []Against{}}
}

func merge[T any](d *Difference, kind string, list *[]T, in []T, id func(*T) string) {
	out := slices.Clone(*list)
	at := map[string]int{}
	for i := range out {
		at[id(&out[i])] = i
	}
	for i := range in {
		ref := Ref{kind, id(&in[i])}
		k, there := at[ref.ID]
		if !there {
			d.New = append(d.New, ref)
			at[ref.ID] = len(out)
			out = append(out, in[i])
			continue
		}
		d.compare(ref, out[k], in[i])
		out[k] = in[i]
	}
	*list = out
}

func (d *Difference) compare(ref Ref, before, after any) {
	if reflect.DeepEqual(before, after) {
		d.Same++
		return
	}
	fields := Compare(before, after)
	if len(fields) == 0 {
		d.Same++
		return
	}
	d.Changed = append(d.Changed, Change{Ref: ref, Fields: fields})
}

// Compare lists the values in which two entries differ.
func Compare(before, after any) []FieldChange {
	var fields []FieldChange
	diff(&fields, "", tree(before), tree(after))
	return fields
}

// tree is a value as JSON sees it.
func tree(v any) any {
	text, err := json.Marshal(v)
	if err != nil {
		return err.Error()
	}
	var out any
	if err := json.Unmarshal(text, &out); err != nil {
		return err.Error()
	}
	return out
}

func diff(fields *[]FieldChange, path string, before, after any) {
	if reflect.DeepEqual(before, after) {
		return
	}
	a, isA := before.(map[string]any)
	b, isB := after.(map[string]any)
	if isA && isB {
		keys := slices.Sorted(maps.Keys(a))
		for _, k := range slices.Sorted(maps.Keys(b)) {
			if _, both := a[k]; !both {
				keys = append(keys, k)
			}
		}
		for _, k := range keys {
			at := k
			if path != "" {
				at = path + "." + k
			}
			diff(fields, at, a[k], b[k])
		}
		return
	}
	la, isLA := before.([]any)
	lb, isLB := after.([]any)
	if isLA && isLB && len(la) == len(lb) {
		for i := range la {
			diff(fields, fmt.Sprintf("%s[%d]", path, i), la[i], lb[i])
		}
		return
	}
	*fields = append(*fields, FieldChange{Path: path, Before: show(before), After: show(after)})
}

func show(v any) string {
	if v == nil {
		return ""
	}
	if text, ok := v.(string); ok {
		return text
	}
	text, err := json.Marshal(v)
	if err != nil {
		return err.Error()
	}
	return string(text)
}
