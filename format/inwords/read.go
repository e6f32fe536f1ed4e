package inwords

import (
	"fmt"
	"strings"

	"yokeswap/core/facts/sheet"
	"yokeswap/format"
)

// Read finds the values that stand behind labels of a form. What it returns stands at bytes of
// the text.
func Read(form format.Form, text string, names Names) (found []sheet.Found) {
	r := reader{names: names, lines: linesOf(text)}
	fields := flat(fieldsOf(form))
	for i := 0; i < len(r.lines); {
		value, next := r.value(fields, i)
		if value != nil && value.field.Path != "name" { // the heading says it
			from, last := r.lines[i].start, r.lines[next-1]
			words := strings.TrimSpace(text[from : last.start+len(last.text)])
			found = append(found, value.found(from+strings.Index(text[from:], words), words))
		}
		i = next
	}
	return found
}

// flat are fields that stand on a sheet by themselves: those of an outline one by one.
func flat(fields []format.Field) (list []format.Field) {
	for _, f := range fields {
		if f.Type == format.FieldOutline {
			list = append(list, f.Fields...)
		} else {
			list = append(list, f)
		}
	}
	return list
}

// line is one line of a text: what stands in it, how far in, and whether behind a dash.
type line struct {
	start  int // its first byte
	text   string
	indent int
	dash   bool
	words  string
}

func linesOf(text string) (lines []line) {
	start := 0
	for whole := range strings.Lines(text) {
		bare := strings.TrimRight(whole, "\r\n")
		words := strings.TrimLeft(bare, " \t")
		l := line{start: start, text: bare, indent: len(bare) - len(words), words: strings.TrimSpace(words)}
		for _, mark := range []string{"- ", "– ", "• ", "* "} {
			if behind, is := strings.CutPrefix(words+" ", mark); is {
				l.dash, l.words = true, strings.TrimSpace(behind)
			}
		}
		lines = append(lines, l)
		start += len(whole)
	}
	return lines
}

type reader struct {
	names Names
	lines []line
}

// value is what is read behind one label.
type value struct {
	field *format.Field
	is    any
	notes []string // why it is asked
	asIs  bool     // nothing of it was understood
	ours  bool     // a label of its entries stands in it
}

// value reads the value whose label stands in a line, and says which line comes after it; nil
// where the line has no label of the fields, or what is behind it is not understood.
func (r *reader) value(fields []format.Field, i int) (*value, int) {
	l := r.lines[i]
	f, words := labelled(fields, l.words)
	switch {
	case f == nil:
		return nil, i + 1
	case !holdsList(f):
		is, note, ok := r.parsed(f, words)
		if !ok {
			return nil, i + 1
		}
		v := &value{field: f, is: is}
		v.asks(note)
		v.asIs = is == nil
		return v, i + 1
	case words != "":
		return nil, i + 1 // "hole patterns: 20 x 20 mm": the grammar has it
	}
	return r.list(f, i)
}

func (v *value) asks(note string) {
	if note != "" {
		v.notes = append(v.notes, note)
	}
}

// list reads the entries below the label of a list: those behind dashes, no less far in than it.
func (r *reader) list(f *format.Field, i int) (*value, int) {
	v := &value{field: f}
	depth := r.lines[i].indent
	var items []map[string]any
	next := i + 1
	for next < len(r.lines) && r.lines[next].dash && r.lines[next].indent >= depth {
		dash := r.lines[next].indent
		item := map[string]any{}
		r.item(f, v, item, r.lines[next].words)
		for next++; next < len(r.lines) && r.lines[next].indent > dash && r.lines[next].words != ""; {
			inner, after := r.value(itemFields(f), next)
			switch {
			case inner == nil:
				v.asks("“" + r.lines[next].words + "” was not understood, and is left out")
			case !inner.asIs:
				v.ours = true
				Put(item, inner.field.Path, inner.is)
				fallthrough
			default:
				v.notes = append(v.notes, inner.notes...)
			}
			next = after
		}
		if lacks := lacking(f, item); lacks != "" {
			v.asks("one has no " + lacks + ", and is left out")
			continue
		}
		items = append(items, item)
	}
	switch {
	case !v.ours: // a heading, or a list in other words: the grammar has it
		return nil, i + 1
	case len(items) == 0:
		v.asIs = true
	default:
		v.is = made(f, items)
	}
	return v, next
}

// lacking is what an entry of a list cannot be without, and has not; its id is made.
func lacking(f *format.Field, item map[string]any) string {
	for i := range f.Fields {
		if inner := &f.Fields[i]; inner.Required && inner.Path != "id" && at(item, inner.Path) == nil {
			return labelOf(inner)
		}
	}
	return ""
}

// itemFields are the fields of an entry of a list; a map's has its key first.
func itemFields(f *format.Field) []format.Field {
	if f.Type != format.FieldMap {
		return f.Fields
	}
	return append([]format.Field{{Path: keyPath, Label: keyLabel, Type: format.FieldText}}, f.Fields...)
}

// item reads what stands behind a dash: values behind their labels, between semicolons.
func (r *reader) item(f *format.Field, v *value, item map[string]any, words string) {
	fields := itemFields(f)
	for _, part := range parts(fields, words) {
		inner, behind := labelled(fields, part)
		if inner == nil {
			v.asks("“" + part + "” was not understood, and is left out")
			continue
		}
		v.ours = true
		is, note, ok := r.parsed(inner, behind)
		if !ok {
			v.asks(fmt.Sprintf("“%s” is no value for %s, and is left out", behind, labelOf(inner)))
			continue
		}
		v.asks(note)
		if is != nil {
			Put(item, inner.Path, is)
		}
	}
}

// parts are the pieces of a line between semicolons outside quotes, before which a label stands.
func parts(fields []format.Field, words string) (list []string) {
	start, inQuotes := 0, false
	for i := 0; i <= len(words); i++ {
		switch {
		case i == len(words):
		case words[i] == '\\' && inQuotes:
			i++
			continue
		case words[i] == '"':
			inQuotes = !inQuotes
			continue
		case words[i] != ';' || inQuotes:
			continue
		}
		if i < len(words) {
			if f, _ := labelled(fields, strings.TrimSpace(words[i+1:])); f == nil {
				continue
			}
		}
		if part := strings.TrimSpace(words[start:min(i, len(words))]); part != "" {
			list = append(list, part)
		}
		start = i + 1
	}
	return list
}

// labelled is the field whose label a line begins with, and what stands behind it. Between them
// is a colon, an equals sign, a bar or a tab; a unit in brackets belongs to the label.
func labelled(fields []format.Field, words string) (*format.Field, string) {
	words = strings.Trim(words, "| \t")
	cut := strings.IndexAny(words, ":=|\t")
	if cut <= 0 {
		return nil, ""
	}
	label, behind := strings.TrimSpace(words[:cut]), strings.TrimSpace(words[cut+1:])
	for i := range fields {
		f := &fields[i]
		switch {
		case strings.EqualFold(label, labelOf(f)):
			return f, behind
		case f.Unit != "" && (strings.EqualFold(label, labelOf(f)+" ("+f.Unit+")") ||
			strings.EqualFold(label, labelOf(f)+" ["+f.Unit+"]")):
			return f, behind
		}
	}
	return nil, ""
}

// made is the value of a list of what was read: a map by its keys, a list with the ids its
// entries need.
func made(f *format.Field, items []map[string]any) any {
	if f.Type == format.FieldMap {
		is := map[string]any{}
		for _, item := range items {
			if key, ok := item[keyPath].(string); ok {
				is[key] = item["value"]
			}
		}
		return is
	}
	list := make([]any, len(items))
	for i, item := range items {
		list[i] = item
	}
	giveIDs(f, items)
	return list
}
