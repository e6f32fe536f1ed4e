package inwords

import (
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"yokeswap/format"
)

// Write is the sheet of an entry: its name, the word for what it is, and its values in the groups
// of its form. It fails where the entry cannot be written as JSON.
func Write(form format.Form, item any, names Names) (string, error) {
	raw, err := json.Marshal(item)
	if err != nil {
		return "", fmt.Errorf("write the values of a sheet: %w", err)
	}
	entry := map[string]any{}
	if err := json.Unmarshal(raw, &entry); err != nil {
		return "", fmt.Errorf("write the values of a sheet: %w", err)
	}
	w := writer{names: names}
	if name, _ := entry["name"].(string); name != "" {
		w.line("", "name: "+name)
	}
	w.line("", "("+form.Word+")")
	for _, group := range form.Groups {
		before := w.text.Len()
		w.line("", "")
		w.line("", strings.ToUpper(group.Title[:1])+group.Title[1:])
		head := w.text.Len()
		for i := range group.Fields {
			if group.Fields[i].Path != "name" {
				w.field("", &group.Fields[i], entry)
			}
		}
		if w.text.Len() == head {
			w.truncate(before)
		}
	}
	return w.text.String(), nil
}

type writer struct {
	names Names
	text  strings.Builder
}

func (w *writer) line(indent, words string) { w.text.WriteString(indent + words + "\n") }

func (w *writer) truncate(to int) {
	text := w.text.String()[:to]
	w.text.Reset()
	w.text.WriteString(text)
}

// field writes a value under its label, where the entry has it.
func (w *writer) field(indent string, f *format.Field, entry map[string]any) {
	value := at(entry, f.Path)
	if value == nil {
		return
	}
	if f.Type == format.FieldOutline {
		for i := range f.Fields {
			w.field(indent, &f.Fields[i], entry)
		}
		return
	}
	if !holdsList(f) {
		w.line(indent, labelOf(f)+": "+w.words(f, value, entry))
		return
	}
	w.line(indent, labelOf(f)+":")
	for _, item := range itemsOf(f, value) {
		w.item(indent, f.Fields, item)
	}
}

// itemsOf are the entries of a list; those of a map have their key at the field "key".
func itemsOf(f *format.Field, value any) (items []map[string]any) {
	switch value := value.(type) {
	case []any:
		for _, one := range value {
			item, _ := one.(map[string]any)
			items = append(items, item)
		}
	case map[string]any:
		for _, key := range sortedKeys(value) {
			items = append(items, map[string]any{keyPath: key, "value": value[key]})
		}
	}
	return items
}

// keyPath is where the key of an entry of a map stands.
const keyPath = "key"

func sortedKeys(of map[string]any) (keys []string) {
	for key := range of {
		keys = append(keys, key)
	}
	slices.Sort(keys)
	return keys
}

// item writes an entry of a list: on one line where nothing in it is a list.
func (w *writer) item(indent string, fields []format.Field, item map[string]any) {
	var parts []string
	if key, ok := item[keyPath].(string); ok {
		parts = append(parts, keyLabel+": "+quoted(key))
	}
	short := true
	for i := range fields {
		f := &fields[i]
		value := at(item, f.Path)
		switch {
		case value == nil:
		case holdsList(f):
			short = false
		default:
			parts = append(parts, labelOf(f)+": "+w.words(f, value, item))
		}
	}
	w.line(indent, "- "+strings.Join(parts, "; "))
	if short {
		return
	}
	for i := range fields {
		if holdsList(&fields[i]) {
			w.field(indent+"  ", &fields[i], item)
		}
	}
}

// keyLabel is what the key of an entry of a map is called.
const keyLabel = "of"

// words is a value as it stands behind its label.
func (w *writer) words(f *format.Field, value any, entry map[string]any) string {
	switch value := value.(type) {
	case bool:
		if value {
			return yes[0]
		}
		return no[0]
	case float64:
		return strings.TrimSpace(number(value) + " " + unitOf(f))
	case string:
		switch f.Type {
		case format.FieldPick:
			return nameOf(f.Options, value)
		case format.FieldRef:
			return quoted(w.names.name(f.Kinds, value))
		}
		return quoted(value)
	case []any:
		words := make([]string, len(value))
		for i, one := range value {
			words[i] = w.one(f, one)
		}
		return strings.Join(words, ", ")
	}
	text, _ := json.Marshal(value) //nolint:errcheck // it came out of JSON
	return string(text)
}

// one is one of several values behind a label.
func (w *writer) one(f *format.Field, value any) string {
	text, isText := value.(string)
	switch {
	case !isText:
		return fmt.Sprint(value)
	case text == "":
		return nothingThere
	case f.Type == format.FieldChoices:
		return quoted(nameOf(f.Options, text))
	case f.Type == format.FieldRefs:
		return quoted(w.names.name(f.Kinds, text))
	}
	return quoted(text)
}

func number(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }

// unitOf is the unit behind a number; a part of one has none.
func unitOf(f *format.Field) string {
	if f.Unit == partOfOne {
		return ""
	}
	return f.Unit
}

const partOfOne = "0 to 1"

func nameOf(options []format.Choice, value string) string {
	for _, o := range options {
		if o.Value == value {
			return quoted(o.Name)
		}
	}
	return quoted(value)
}

// quoted is a text as it stands in a sheet: in quotes where it would be read as something else.
func quoted(text string) string {
	plain := strings.TrimSpace(text) == text && text != "" && text != nothingThere && text[0] != '"' &&
		!strings.ContainsAny(text, ",;\n\r\t|")
	if plain {
		return text
	}
	return strconv.Quote(text)
}
