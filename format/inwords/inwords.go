// Package inwords writes a piece of gear as a sheet in plain words, every value under the label
// its form has, and reads such a sheet back. A line is "label: value unit"; a list has its entries
// below its label, each behind a dash, with what belongs to one further in or behind semicolons:
//
//	mass: 46 g
//	power pads:
//	- name: 9 V pad; carries: regulated; output voltage: 9 V
//	- name: battery pad; carries: pack
//
// A sheet of somebody else that uses these labels is read as well; whatever lines are not
// understood are left to the grammar of quantities (core/facts/sheet).
package inwords

import (
	"cmp"
	"strings"

	"yokeswap/format"
)

// Names are what entries are called, by their kind and id.
type Names map[string]map[string]string

// Put notes the name of an entry.
func (n Names) Put(kind, id, name string) {
	if n[kind] == nil {
		n[kind] = map[string]string{}
	}
	n[kind][id] = name
}

// name is what an entry of some kinds is called; its id where nobody knows.
func (n Names) name(kinds []string, id string) string {
	for _, kind := range kinds {
		if name := n[kind][id]; name != "" && len(n.called(kinds, name)) == 1 {
			return name
		}
	}
	return id
}

// called are the ids of the entries of some kinds with a name; the one with that id, if any.
func (n Names) called(kinds []string, name string) (ids []string) {
	for _, kind := range kinds {
		if _, is := n[kind][name]; is {
			return []string{name}
		}
		for id, is := range n[kind] {
			if strings.EqualFold(is, name) {
				ids = append(ids, id)
			}
		}
	}
	return ids
}

// fieldsOf are the fields of a form in their order.
func fieldsOf(form format.Form) (fields []format.Field) {
	for _, group := range form.Groups {
		fields = append(fields, group.Fields...)
	}
	return fields
}

// labelOf is what a field is called on a sheet.
func labelOf(f *format.Field) string { return cmp.Or(f.Label, f.Path) }

// holdsList says whether the value of a field stands below its label, an entry a line.
func holdsList(f *format.Field) bool {
	switch f.Type {
	case format.FieldList, format.FieldMap, format.FieldWires:
		return true
	}
	return false
}

// The empty slot of a row of pins, and the words for yes and no.
const nothingThere = "–"

var yes, no = []string{"yes", "ja", "oui", "true"}, []string{"no", "nein", "non", "false"}

// at is the value at a path below a map; nil: none.
func at(entry map[string]any, path string) any {
	var value any = entry
	for key := range strings.SplitSeq(path, ".") {
		inner, _ := value.(map[string]any)
		value = inner[key]
	}
	return value
}

// Put sets the value at a path below a map, as an entry is read from JSON.
func Put(entry map[string]any, path string, value any) {
	head, rest, below := strings.Cut(path, ".")
	if !below {
		entry[head] = value
		return
	}
	inner, ok := entry[head].(map[string]any)
	if !ok {
		inner = map[string]any{}
		entry[head] = inner
	}
	Put(inner, rest, value)
}
