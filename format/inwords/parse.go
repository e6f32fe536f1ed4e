package inwords

import (
	"cmp"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/sheet"
	"yokeswap/core/plans/begin"
	"yokeswap/format"
)

var numberAndUnit = regexp.MustCompile(`^([-+]?\d+(?:[.,]\d+)?(?:[eE][-+]?\d+)?)\s*(.*)$`)

// parsed is the value of a field as its words say it; ok is false where they are none of it. A
// note says why it is asked; with a note and no value there is nothing to take.
func (r *reader) parsed(f *format.Field, words string) (is any, note string, ok bool) {
	switch f.Type {
	case format.FieldNumber:
		is, ok = numberOf(f, words)
		return is, "", ok
	case format.FieldYesNo:
		lower := strings.ToLower(words)
		return slices.Contains(yes, lower), "", slices.Contains(yes, lower) || slices.Contains(no, lower)
	case format.FieldPick:
		is, ok = optionOf(f.Options, unquoted(words))
		return is, "", ok
	case format.FieldRef:
		is, note = r.named(f.Kinds, unquoted(words))
		return is, note, words != ""
	case format.FieldChoices, format.FieldSome, format.FieldRefs, format.FieldWords, format.FieldPins:
		return r.several(f, words)
	}
	text := unquoted(words)
	return text, "", text != "" && (f.Pattern == "" || regexp.MustCompile(f.Pattern).MatchString(text))
}

func numberOf(f *format.Field, words string) (float64, bool) {
	m := numberAndUnit.FindStringSubmatch(words)
	if m == nil || m[2] != "" && m[2] != f.Unit {
		return 0, false
	}
	x, err := strconv.ParseFloat(strings.Replace(m[1], ",", ".", 1), 64)
	return x, err == nil && !math.IsInf(x, 0) && (!f.Whole || x == math.Trunc(x))
}

func optionOf(options []format.Choice, words string) (any, bool) {
	for _, o := range options {
		if strings.EqualFold(words, o.Name) || words == o.Value {
			return o.Value, true
		}
	}
	return nil, false
}

// named is the id of the entry with a name; a note where there is none, or more than one.
func (r *reader) named(kinds []string, name string) (any, string) {
	switch ids := r.names.called(kinds, name); len(ids) {
	case 1:
		return ids[0], ""
	case 0:
		return nil, "nothing called “" + name + "” is on your shelf"
	default:
		return nil, fmt.Sprintf("%d things on your shelf are called “%s”", len(ids), name)
	}
}

// several are values between commas. The order of pins is always asked.
func (r *reader) several(f *format.Field, words string) (is any, note string, ok bool) {
	list := []any{}
	for _, one := range between(words) {
		value := any(unquoted(one))
		switch {
		case f.Type == format.FieldPins && one == nothingThere:
			value = ""
		case f.Type == format.FieldChoices:
			if value, ok = optionOf(f.Options, unquoted(one)); !ok {
				return nil, "", false
			}
		case f.Type == format.FieldRefs:
			if value, note = r.named(f.Kinds, unquoted(one)); note != "" {
				return nil, note, true
			}
		case f.Numbers:
			if value, ok = numberOf(f, one); !ok {
				return nil, "", false
			}
		}
		list = append(list, value)
	}
	if f.Type == format.FieldPins {
		note = sheet.AgainstDrawing
	}
	return list, note, len(list) > 0
}

// between are the pieces between commas outside quotes; semicolons where there are any.
func between(words string) (list []string) {
	start, inQuotes := 0, false
	add := func(end int) {
		if part := strings.TrimSpace(words[start:end]); part != "" {
			list = append(list, part)
		}
		start = end + 1
	}
	for i := 0; i < len(words); i++ {
		switch {
		case words[i] == '\\' && inQuotes:
			i++
		case words[i] == '"':
			inQuotes = !inQuotes
		case (words[i] == ',' || words[i] == ';') && !inQuotes:
			add(i)
		}
	}
	add(len(words))
	return list
}

func unquoted(text string) string {
	if plain, err := strconv.Unquote(text); err == nil && strings.HasPrefix(text, `"`) {
		return plain
	}
	return text
}

// found is the value with the words it was read from, which stand at a byte of the text.
func (v *value) found(at int, words string) sheet.Found {
	f := sheet.Found{Words: words, At: at, Field: v.field.Path, Value: v.is, Shows: shows(v.field, v.is)}
	if v.asIs {
		f.Field, f.Shows = "", ""
	}
	f.Note = strings.Join(slices.Compact(v.notes), "; ")
	f.Ask = f.Note != ""
	f.Joins = v.field.Type == format.FieldList && hasID(v.field)
	return f
}

// shows is a value in words: its label and what it is, of a list how many there are.
func shows(f *format.Field, is any) string {
	label := labelOf(f)
	switch is := is.(type) {
	case []any:
		if !holdsList(f) {
			w := writer{}
			return label + ": " + w.words(f, is, nil)
		}
		return fmt.Sprintf("%s: %d", label, len(is))
	case map[string]any:
		return fmt.Sprintf("%s: %d", label, len(is))
	}
	w := writer{names: Names{}}
	return label + ": " + w.words(f, is, nil)
}

// hasID says whether the entries of a list have an id.
func hasID(f *format.Field) bool {
	return slices.ContainsFunc(f.Fields, func(f format.Field) bool { return f.Path == "id" })
}

// giveIDs makes the ids of entries that need one and have none, of their names or their place.
func giveIDs(f *format.Field, items []map[string]any) {
	at := slices.IndexFunc(f.Fields, func(f format.Field) bool { return f.Path == "id" && f.Type == format.FieldText })
	if at < 0 || !f.Fields[at].Required {
		return
	}
	taken := map[any]bool{}
	for _, item := range items {
		taken[item["id"]] = true
	}
	for i, item := range items {
		if _, has := item["id"]; has {
			continue
		}
		name, _ := item["name"].(string)
		id := begin.ID(cmp.Or(name, strconv.Itoa(i+1)), func(id string) bool { return taken[id] })
		item["id"], taken[id] = id, true
	}
}
