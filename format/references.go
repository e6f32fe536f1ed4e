package format

import (
	"fmt"
	"reflect"
	"slices"
	"strings"
	"sync"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// Who names whom is said in the schemas alone: a field with "x-names" holds the id of
// an entry of one of those kinds, "gear" standing for any. What is checked to point
// somewhere, and what may not be taken out, follows from that.

// namesKey is the keyword of the schemas.
const namesKey = "x-names"

// pastKey is the keyword of a field that names what was there then: it may be gone since, and is not kept
// from going.
const pastKey = "x-past"

// kindGear stands for any kind of gear.
const kindGear = "gear"

// reference is a field that names an entry: the way to it, with [] for the entries of
// a list, and the kinds it may name.
type reference struct {
	steps []string
	kinds []string
}

// references are the fields that name entries, by the list of a file they stand in;
// "" for those of the file itself.
var references = sync.OnceValue(func() map[string][]reference {
	all := map[string][]reference{}
	for _, name := range []string{gear.SetFormat, fleet.FileFormat} {
		schema := schemaText(name)
		for list, is := range member(schema, "properties") {
			found := named(schema, is, nil)
			if items := member(is.(map[string]any), "items"); items != nil && listHolds(list) {
				all[list] = named(schema, items, nil)
				continue
			}
			for _, r := range found {
				all[""] = append(all[""], reference{append([]string{list}, r.steps...), r.kinds})
			}
		}
	}
	return all
})

// listHolds says whether a list of a file holds entries.
func listHolds(list string) bool {
	for _, of := range listOf {
		if of == list {
			return true
		}
	}
	return false
}

func member(object map[string]any, name string) map[string]any {
	is, _ := object[name].(map[string]any)
	return is
}

// named finds the fields below a part of a schema that name entries.
func named(schema map[string]any, part any, steps []string) (found []reference) {
	is, ok := part.(map[string]any)
	if !ok {
		return nil
	}
	if kinds, names := is[namesKey].(string); names {
		if is[pastKey] == true {
			return nil
		}
		return []reference{{slices.Clone(steps), strings.Fields(kinds)}}
	}
	if target, refers := is["$ref"].(string); refers {
		found = append(found, named(schema, member(schema, "$defs")[strings.TrimPrefix(target, "#/$defs/")], steps)...)
	}
	for name, inner := range member(is, "properties") {
		found = append(found, named(schema, inner, append(steps, name))...)
	}
	for _, list := range []string{"items", "additionalProperties"} {
		if inner := member(is, list); inner != nil {
			found = append(found, named(schema, inner, append(steps, "[]"))...)
		}
	}
	return found
}

// each visits what a reference names in an entry.
func (r reference) each(entry any, path string, visit func(path, id string)) {
	eachAt(reflect.ValueOf(entry), r.steps, path, visit)
}

func eachAt(v reflect.Value, steps []string, path string, visit func(path, id string)) {
	for v.Kind() == reflect.Pointer || v.Kind() == reflect.Interface {
		if v.IsNil() {
			return
		}
		v = v.Elem()
	}
	switch {
	case len(steps) == 0:
		if id := v.String(); id != "" && id != fleet.SeparateReceiver {
			visit(path, id)
		}
	case steps[0] == "[]" && v.Kind() == reflect.Map:
		for _, key := range v.MapKeys() {
			eachAt(v.MapIndex(key), steps[1:], join(path, key.String()), visit)
		}
	case steps[0] == "[]":
		for i := range v.Len() {
			eachAt(v.Index(i), steps[1:], indexed(path, i), visit)
		}
	default:
		if at, ok := fieldsOf(v.Type())[steps[0]]; ok {
			eachAt(v.FieldByIndex(at), steps[1:], join(path, steps[0]), visit)
		}
	}
}

var fieldTables sync.Map // reflect.Type to map[string][]int

// fieldsOf finds the fields of a struct by their names in a file.
func fieldsOf(t reflect.Type) map[string][]int {
	if table, ok := fieldTables.Load(t); ok {
		return table.(map[string][]int)
	}
	table := map[string][]int{}
	for _, f := range reflect.VisibleFields(t) {
		if name, _, _ := strings.Cut(f.Tag.Get("json"), ","); name != "" && name != "-" {
			table[name] = f.Index
		}
	}
	fieldTables.Store(t, table)
	return table
}

// eachEntry visits the entries of a gear pack or fleet with the list they stand in and
// their path; what stands in the file itself comes under the list "".
func (d Document) eachEntry(visit func(list, path string, entry any)) {
	if d.Set != nil {
		for _, list := range d.Set.Lists() {
			for i, item := range list.Items {
				visit(list.Name, indexed(list.Name, i), item)
			}
		}
	}
	if f := d.Fleet; f != nil {
		visit("", "", f)
		for i := range f.Kit {
			visit("kit", indexed("kit", i), &f.Kit[i])
		}
		for i := range f.Spares {
			visit("spares", indexed("spares", i), &f.Spares[i])
		}
		for i := range f.Quads {
			visit("quads", indexed("quads", i), &f.Quads[i])
		}
		for i := range f.Courses {
			visit("courses", indexed("courses", i), &f.Courses[i])
		}
		for i := range f.TestFlights {
			visit("testFlights", indexed("testFlights", i), &f.TestFlights[i])
		}
		for i := range f.Tasks {
			visit("tasks", indexed("tasks", i), &f.Tasks[i])
		}
	}
}

// names visits every entry that a document names.
func (d Document) names(visit func(r reference, path, id string)) {
	d.eachEntry(func(list, path string, entry any) {
		for _, r := range references()[list] {
			r.each(entry, path, func(at, id string) { visit(r, at, id) })
		}
	})
}

// checkGear finds gear that a document names and the library does not have, or has as
// another kind.
func (d Document) checkGear(st *stock.Stock) (ps Problems) {
	lib := st.Library()
	d.names(func(r reference, path, id string) {
		if r.ofFleet() {
			return
		}
		switch item, ok := lib.Item(id); {
		case !ok && st.SetAside(id):
		case !ok:
			ps.add(path, "expected the id of %s in the library, %q is none; import its gear pack first", r.words(), id)
		case r.kinds[0] != kindGear && !slices.Contains(r.kinds, string(item.Kind())):
			ps.add(path, "expected the id of %s, %q is %s", r.words(), id, withArticle(string(item.Kind())))
		}
	})
	return ps
}

// checkFleetNames finds kit, quads and courses that a fleet names and does not have; there is
// what it comes into, nil where it stands alone.
func (d Document) checkFleetNames(there *stock.Stock) (ps Problems) {
	known := map[stock.Ref]bool{}
	fleets := []*fleet.Fleet{d.Fleet}
	if there != nil {
		fleets = append(fleets, there.Fleet)
		for _, a := range there.Aside {
			known[a.Ref] = true
		}
	}
	for _, f := range fleets {
		for i := range f.Kit {
			known[stock.Ref{Kind: stock.KindKit, ID: f.Kit[i].ID}] = true
		}
		for i := range f.Quads {
			known[stock.Ref{Kind: stock.KindQuad, ID: f.Quads[i].ID}] = true
		}
		for i := range f.Courses {
			known[stock.Ref{Kind: stock.KindCourse, ID: f.Courses[i].ID}] = true
		}
	}
	d.names(func(r reference, path, id string) {
		if r.ofFleet() && !known[stock.Ref{Kind: r.kinds[0], ID: id}] {
			ps.add(path, "expected the id of %s in this fleet, %q is none", r.words(), id)
		}
	})
	return ps
}

// ofFleet says whether a reference names an entry of the fleet, and no gear.
func (r reference) ofFleet() bool {
	return ofFleet(r.kinds[0])
}

// ofFleet says whether entries of a kind stand in a fleet.
func ofFleet(kind string) bool {
	return slices.ContainsFunc(fleetKinds, func(row fleetKind) bool { return row.kind == kind })
}

func (r reference) words() string {
	words := make([]string, len(r.kinds))
	for i, kind := range r.kinds {
		words[i] = withArticle(kind)
	}
	last := len(words) - 1
	if last == 0 {
		return words[0]
	}
	return strings.Join(words[:last], ", ") + " or " + words[last]
}

// WordOf is what one entry of a kind is called.
func WordOf(kind string) string {
	if row, ok := gear.Kind(kind).Row(); ok {
		return row.Word
	}
	for _, row := range fleetKinds {
		if row.kind == kind {
			return row.word
		}
	}
	return kind
}

func withArticle(kind string) string {
	word := WordOf(kind)
	switch {
	case kind == kindGear || kind == string(gear.KindGoggles) || kind == string(gear.KindFlightFirmware):
		return word
	case strings.ContainsRune("aeiou", rune(word[0])):
		return "an " + word
	}
	return "a " + word
}

// Referrers lists what names an entry and would be left behind without it, in words.
// What goes with an entry is no referrer: the steps of the route taken with a piece of
// kit, what is wanted of a quad.
func Referrers(st *stock.Stock, ref stock.Ref) (list []string) {
	if ref.Kind == stock.KindSpare {
		return nil
	}
	isGear := !ofFleet(ref.Kind)
	rest := st.Fork()
	rest.Remove(ref)
	docs := []Document{{Fleet: rest.Fleet}}
	for _, set := range rest.Sets {
		docs = append(docs, Document{Set: set})
	}
	for _, doc := range docs {
		doc.eachEntry(func(in, path string, entry any) {
			for _, r := range references()[in] {
				if !slices.Contains(r.kinds, ref.Kind) && !(r.kinds[0] == kindGear && isGear) {
					continue
				}
				r.each(entry, "", func(at, id string) {
					if id == ref.ID {
						list = append(list, fmt.Sprintf("%s at %s", entryWords(entry), strings.TrimPrefix(at, ".")))
					}
				})
			}
		})
	}
	return list
}

func entryWords(entry any) string {
	switch e := entry.(type) {
	case *fleet.Quad:
		return "the quad " + e.Label()
	case *fleet.Kit:
		return "the piece of kit " + e.Label()
	case *fleet.Spare:
		return "the drawer"
	case *fleet.Course:
		return "the course " + e.Label()
	case *fleet.TestFlight:
		return "the test flight " + e.Label()
	case *fleet.Task:
		return "the task " + e.Label()
	case gear.Item:
		return "the " + strings.TrimPrefix(
			strings.TrimPrefix(withArticle(string(e.Kind())), "an "),
			"a ",
		) + " " + e.Head().
			Label()
	}
	return "the fleet"
}

// WithNamed is an entry of a gear pack with the entries of that pack it names, and those
// they name; the entry first, none where it is not there.
func WithNamed(set *gear.Set, id string) (items []gear.Item) {
	byID := map[string]gear.Item{}
	listed := map[string]string{}
	for _, list := range set.Lists() {
		for _, item := range list.Items {
			byID[item.Head().ID], listed[item.Head().ID] = item, list.Name
		}
	}
	wanted := []string{id}
	for n := 0; n < len(wanted); n++ {
		item, ok := byID[wanted[n]]
		if !ok {
			continue
		}
		items = append(items, item)
		for _, r := range references()[listed[wanted[n]]] {
			r.each(item, "", func(_, named string) {
				if !slices.Contains(wanted, named) {
					wanted = append(wanted, named)
				}
			})
		}
	}
	return items
}
