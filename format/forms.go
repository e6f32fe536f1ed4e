package format

import (
	"cmp"
	"slices"
	"strings"
	"sync"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/swap"
)

// A form is made from the schema of an entry: its labels, units, hints, choices and
// groups are annotations there ("title", and the keywords with "x-"), so that a value
// the format holds always has its field.

// Form is what can be entered of a kind.
type Form struct {
	Kind   string  `json:"kind"`
	Word   string  `json:"word"`  // one of them
	Words  string  `json:"words"` // several
	Groups []Group `json:"groups"`
}

// Group is fields that belong together.
type Group struct {
	Title  string  `json:"title"`
	Gate   string  `json:"gate,omitempty"` // the title of the gate that asks for them
	Folded bool    `json:"folded"`         // asked for last
	Fields []Field `json:"fields"`
}

// The types of fields.
const (
	FieldText    = "text"
	FieldNumber  = "number"
	FieldYesNo   = "yesno"
	FieldPick    = "pick"    // one of Options
	FieldChoices = "choices" // any of Options
	FieldRef     = "ref"     // the id of an entry of Kinds
	FieldRefs    = "refs"    // several
	FieldWithin  = "within"  // one of what stands at Picks
	FieldSome    = "some"    // any of it
	FieldWords   = "words"   // several texts
	FieldList    = "list"    // entries of Fields
	FieldMap     = "map"     // Fields by a key
	FieldPins    = "pins"
	FieldWires   = "wires"
	FieldOutline = "outline"
)

// Field is one value of an entry.
type Field struct {
	Type string `json:"type" enum:"text,number,yesno,pick,choices,ref,refs,within,some,words,list,map,pins,wires,outline"`

	Path     string   `json:"path"` // below the entry, or below the entry of its list
	Label    string   `json:"label"`
	Unit     string   `json:"unit,omitempty"`
	Hint     string   `json:"hint,omitempty"`
	About    string   `json:"about,omitempty"`   // what it is, in a sentence
	Measure  string   `json:"measure,omitempty"` // how who has it in hand finds it out
	Required bool     `json:"required"`
	Confirm  bool     `json:"confirm,omitempty"` // from common practice it counts once it is held against one's own
	Made     bool     `json:"made,omitempty"`    // an id: it is made, and nobody is asked for it
	Rare     bool     `json:"rare"`              // asked for only where it has a value
	Whole    bool     `json:"whole"`             // a whole number
	Numbers  bool     `json:"numbers"`           // words that are numbers
	Flag     bool     `json:"flag,omitempty"`    // a yes or no that is no where nothing is stated
	Options  []Choice `json:"options,omitempty"`
	Usual    []Usual  `json:"usual,omitempty"`  // values many have, to pick and hold against one's own
	Kinds    []string `json:"kinds,omitempty"`  // of the entries that can be named
	Models   []string `json:"models,omitempty"` // kinds of model, where kit is named
	Picks    []Pick   `json:"picks,omitempty"`  // where what can be picked stands; of a text, others may be typed
	Makes    string   `json:"makes,omitempty"`  // the field of a list's entries that their ids are made from
	Taken    []string `json:"taken,omitempty"`  // ids that none of them has
	Keys     []string `json:"keys,omitempty"`   // usual keys of a map
	OnlyIf   *OnlyIf  `json:"onlyIf,omitempty"`
	Fields   []Field  `json:"fields,omitempty"`
	Drawn    bool     `json:"drawn,omitempty"` // a list of corners, entered as what they are drawn from

	// Pattern is what its text has to look like; empty: anything.
	Pattern string `json:"-"`
	// With are the fields that have to be stated where it is, by their paths.
	With []string `json:"-"`

	of string // names a value of its entry: a "number", or "any"
}

// Choice is a value to choose.
type Choice struct {
	Value string `json:"value"`
	Name  string `json:"name"`
}

// OnlyIf says beside which value of its group a field is asked for; Is empty: any.
type OnlyIf struct {
	Path string `json:"path"`
	Is   string `json:"is,omitempty"`
}

// Forms are the forms of all kinds of entries, those of the fleet first.
var Forms = sync.OnceValue(func() []Form {
	var forms []Form
	ofFleet, ofGear := schemaText(fleet.FileFormat), schemaText(gear.SetFormat)
	for _, row := range fleetKinds {
		forms = append(forms, formOf(ofFleet, row.kind, row.list, row.word, row.words))
	}
	for _, row := range gear.Kinds {
		forms = append(forms, formOf(ofGear, string(row.Kind), row.List, row.Word, row.Words))
	}
	return forms
})

// FormOf is the form of a kind; false where there is no such kind.
func FormOf(kind string) (Form, bool) {
	for _, form := range Forms() {
		if form.Kind == kind {
			return form, true
		}
	}
	return Form{}, false
}

// With are the fields that have to be stated where the one at a path is.
func (f *Form) With(path string) []string {
	for _, group := range f.Groups {
		for i := range group.Fields {
			if group.Fields[i].Path == path {
				return group.Fields[i].With
			}
		}
	}
	return nil
}

func formOf(schema map[string]any, kind, list, word, words string) Form {
	b := formBuilder{schema: schema}
	entry := b.resolved(member(member(member(schema, "properties"), list), "items"))
	b.entry(entry, "", "", false)
	b.offerValues()
	form := Form{Kind: kind, Word: word, Words: words}
	for _, folded := range []bool{false, true} { // what is asked for last stands last
		for _, group := range b.groups {
			if len(group.Fields) > 0 && group.Folded == folded {
				form.Groups = append(form.Groups, *group)
			}
		}
	}
	return form
}

// formBuilder walks the schema of an entry.
type formBuilder struct {
	schema map[string]any
	groups []*Group
}

// valuesKey is the keyword of a field that names another value of its entry: a "number", or
// "any".
const valuesKey = "x-values"

// offerValues gives the fields that name a value of their entry the values there are.
func (b *formBuilder) offerValues() {
	offered := map[string][]Choice{}
	for _, group := range b.groups {
		for _, f := range group.Fields {
			if noCondition(f.Path) {
				continue
			}
			choice := Choice{f.Path, cmp.Or(f.Label, f.Path)}
			switch f.Type {
			case FieldNumber:
				offered["number"] = append(offered["number"], choice)
				fallthrough
			case FieldText, FieldPick, FieldRef:
				offered["any"] = append(offered["any"], choice)
			}
		}
	}
	for _, group := range b.groups {
		group.Fields = slices.DeleteFunc(group.Fields, func(f Field) bool {
			if len(f.Fields) == 0 || f.Fields[0].of == "" {
				return false
			}
			value := &f.Fields[0]
			value.Type, value.Options = FieldPick, offered[value.of]
			return len(value.Options) == 0 // a kind without such values
		})
	}
}

// noCondition says whether a value is what an entry is called and where it is from: that
// hangs on nothing.
func noCondition(path string) bool {
	head, _, _ := strings.Cut(path, ".")
	return slices.Contains([]string{"name", "source", "offer", "family"}, head)
}

// entry puts the fields of an object into their groups. A field that has none holds
// fits, each with groups of its own.
func (b *formBuilder) entry(object map[string]any, path, of string, planned bool) {
	groups := map[string]*Group{}
	for _, known := range b.schema["x-groups"].([]any) {
		known := known.(map[string]any)
		group := &Group{Title: of + text(known, "title"), Gate: gateTitle(text(known, "gate")),
			Folded: planned || known["last"] == true}
		groups[text(known, "title")] = group
		b.groups = append(b.groups, group)
	}
	for _, name := range propertiesOf(object) {
		part := b.resolved(member(member(object, "properties"), name))
		if name == "id" && of == "" {
			continue // made from the name
		}
		if group := groups[text(part, "x-group")]; group != nil {
			group.Fields = append(group.Fields, b.fields(part, place{
				path:     path + name,
				planned:  planned,
				required: requires(object, name),
			})...)
			continue
		}
		b.entry(part, path+name+".", name+": ", name == "next")
	}
}

// gateTitle is how the register calls a gate; empty where no gate has that name.
func gateTitle(gate string) string {
	for _, row := range swap.Gates {
		if string(row.Name) == gate {
			return row.Title
		}
	}
	return ""
}

// place is where a part of the schema stands in its entry.
type place struct {
	path, label string
	models      string // kinds of model that kit may be of
	required    bool
	planned     bool     // of what shall be, not of what is
	with        []string // fields that are stated where it is
	onlyIf      *OnlyIf
}

// fields are the fields of a part: one, or those of the object it is.
func (b *formBuilder) fields(part map[string]any, at place) []Field {
	if models := text(part, "x-kinds"); models != "" {
		at.models = models
	}
	label := text(part, "title")
	if at.label != "" && label != "" {
		label = at.label + ", " + label
	}
	label = cmp.Or(label, at.label)
	if only, ok := part["x-if"].(map[string]any); ok {
		at.onlyIf = onlyIf(only, at.path)
	}
	properties := member(part, "properties")
	if properties != nil && text(part, "x-editor") == "" {
		var fields []Field
		for _, name := range propertiesOf(part) {
			below := place{
				path:    at.path + "." + name,
				label:   label,
				models:  at.models,
				planned: at.planned,
				onlyIf:  at.onlyIf,
			}
			below.required = at.required && requires(part, name)
			below.with = slices.Clone(at.with)
			for _, other := range textsOf(part["required"]) {
				if other != name {
					below.with = append(below.with, at.path+"."+other)
				}
			}
			fields = append(fields, b.fields(b.resolved(member(properties, name)), below)...)
		}
		return fields
	}
	f := Field{Path: at.path, Label: label, Unit: text(part, "x-unit"), Hint: text(part, "x-hint"),
		About: text(part, "description"), Measure: text(part, "x-measure"), Required: at.required || part["x-needed"] == true,
		Confirm: part["x-confirm"] == true, Made: part["x-made"] != nil,
		Rare: part["x-planned"] == true && !at.planned, OnlyIf: at.onlyIf, of: text(part, valuesKey),
		Pattern: text(part, "pattern"), With: at.with}
	b.typed(&f, part, at)
	f.Usual = append(usualOf(part), usualOf(b.resolved(member(part, "items")))...)
	return []Field{f}
}

// typed says how a value is entered.
func (b *formBuilder) typed(f *Field, part map[string]any, at place) {
	items := b.resolved(member(part, "items"))
	names := strings.Fields(text(part, namesKey))
	switch {
	case text(part, "x-editor") != "":
		f.Type, f.Keys, f.Picks = text(part, "x-editor"), textsOf(part["x-keys"]), picksOf(part)
		b.below(f, part, items, at)
	case len(names) > 0:
		f.Type = FieldRef
		b.named(f, names, at)
	case picked(part) && part["x-typed"] != true && part["type"] != "object":
		f.Type, f.Picks = FieldWithin, picksOf(part)
	case part["enum"] != nil:
		f.Type, f.Options = FieldPick, options(part["enum"], part)
	case part["type"] == "boolean":
		f.Type, f.Flag = FieldYesNo, part["x-flag"] == true
	case part["type"] == "number" || part["type"] == "integer":
		f.Type, f.Whole = FieldNumber, part["type"] == "integer"
	case part["type"] == "array" && items["properties"] != nil:
		f.Type, f.Fields, f.Drawn = FieldList, b.inside(items), part["x-drawn"] == true
		id := b.resolved(member(member(items, "properties"), "id"))
		f.Makes, f.Taken = text(id, "x-made"), textsOf(id["x-taken"])
	case part["type"] == "array" && items["enum"] != nil:
		f.Type, f.Options = FieldChoices, options(items["enum"], part)
	case part["type"] == "array" && text(items, namesKey) != "":
		f.Type = FieldRefs
		b.named(f, strings.Fields(text(items, namesKey)), at)
	case part["type"] == "array" && picked(items) && items["x-typed"] != true:
		f.Type, f.Picks = FieldSome, picksOf(items)
	case part["type"] == "array":
		f.Picks = picksOf(items)
		f.Type, f.Numbers = FieldWords, items["type"] == "number" || items["type"] == "integer"
	case part["type"] == "object":
		f.Type, f.Keys = FieldMap, textsOf(part["x-keys"])
		if f.Keys == nil {
			f.Keys = textsOf(member(part, "propertyNames")["enum"])
		}
		f.Picks = picksOf(part)
		value := b.resolved(member(part, "additionalProperties"))
		f.Fields = b.fields(value, place{path: "value", label: cmp.Or(text(value, "title"), "value")})
		for i := range f.Fields {
			if words := part["x-words"]; words != nil && f.Fields[i].Type == FieldPick {
				f.Fields[i].Options = options(value["enum"], part)
			}
		}
	default:
		f.Type, f.Picks = FieldText, picksOf(part)
	}
}

// below are the fields of what has an editor of its own, for who enters it without: those of
// each wire, or of the outline itself.
func (b *formBuilder) below(f *Field, part, items map[string]any, at place) {
	switch f.Type {
	case FieldWires:
		f.Fields = b.inside(items)
	case FieldOutline:
		for _, name := range propertiesOf(part) {
			inner := b.resolved(member(member(part, "properties"), name))
			f.Fields = append(f.Fields, b.fields(inner, place{path: at.path + "." + name, label: f.Label})...)
		}
	}
}

// inside are the fields of the entries of a list.
func (b *formBuilder) inside(object map[string]any) (fields []Field) {
	for _, name := range propertiesOf(object) {
		fields = append(fields, b.fields(b.resolved(member(member(object, "properties"), name)), place{
			path:     name,
			required: requires(object, name),
		})...)
	}
	return fields
}

// named says which entries a field can name. Kit is narrowed to models of some kinds,
// and so is gear where any can be named.
func (b *formBuilder) named(f *Field, kinds []string, at place) {
	f.Kinds = kinds
	if at.models == "" {
		return
	}
	if slices.Contains(kinds, "kit") {
		f.Models = strings.Fields(at.models)
		return
	}
	f.Kinds = strings.Fields(at.models)
}

// resolved is a part with what it refers to; what it says itself comes first.
func (b *formBuilder) resolved(part map[string]any) map[string]any {
	target, refers := part["$ref"].(string)
	if !refers {
		return part
	}
	whole := map[string]any{}
	definition := member(member(b.schema, "$defs"), strings.TrimPrefix(target, "#/$defs/"))
	for _, from := range []map[string]any{b.resolved(definition), part} {
		for key, value := range from {
			if key != "$ref" {
				whole[key] = value
			}
		}
	}
	return whole
}

// propertiesOf are the fields of an object in the order of the schema.
func propertiesOf(object map[string]any) []string {
	order, _ := object[orderKey].([]string)
	return order
}

func text(part map[string]any, key string) string {
	is, _ := part[key].(string)
	return is
}

func textsOf(list any) (out []string) {
	of, _ := list.([]any)
	for _, one := range of {
		if is, ok := one.(string); ok {
			out = append(out, is)
		}
	}
	return out
}

func options(values any, annotated map[string]any) (list []Choice) {
	words := member(annotated, "x-words")
	for _, value := range textsOf(values) {
		list = append(list, Choice{value, cmp.Or(text(words, value), strings.ReplaceAll(value, "-", " "))})
	}
	return list
}

func requires(object map[string]any, name string) bool {
	return slices.Contains(textsOf(object["required"]), name)
}

func onlyIf(only map[string]any, path string) *OnlyIf {
	for name, is := range only {
		value, _ := is.(string)
		return &OnlyIf{Path: path[:strings.LastIndex(path, ".")+1] + name, Is: value}
	}
	return nil
}
