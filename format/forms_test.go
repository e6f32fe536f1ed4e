package format_test

import (
	"encoding"
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
)

func form(t *testing.T, kind string) format.Form {
	for _, f := range format.Forms() {
		if f.Kind == kind {
			return f
		}
	}
	t.Fatalf("no form for %s", kind)
	return format.Form{}
}

// leaves are the paths of all single values an entry can hold, as its Go type has them;
// entries of lists stand at 0, those of maps at a key.
func leaves(of reflect.Type, path string, add func(path string, of reflect.Type)) {
	stated := of
	for of.Kind() == reflect.Pointer {
		of = of.Elem()
	}
	for _, written := range []reflect.Type{reflect.TypeFor[json.Marshaler](), reflect.TypeFor[encoding.TextMarshaler]()} {
		if of.Implements(written) || reflect.PointerTo(of).Implements(written) {
			add(path, stated)
			return
		}
	}
	switch of.Kind() {
	case reflect.Slice:
		leaves(of.Elem(), path+".0", add)
	case reflect.Map:
		leaves(of.Elem(), path+".normal", add)
	case reflect.Struct:
		for i := range of.NumField() {
			field := of.Field(i)
			name, _, _ := strings.Cut(field.Tag.Get("json"), ",")
			switch {
			case name == "-" || !field.IsExported():
			case name == "" && field.Anonymous:
				leaves(field.Type, path, add)
			default:
				leaves(field.Type, strings.TrimPrefix(path+"."+name, "."), add)
			}
		}
	default:
		add(path, stated)
	}
}

// holdsNone are the kinds without single values that could be stated as a range, or hang on
// a condition: the format refuses both there.
var holdsNone = map[string][]string{
	"ranges":   {"harness", "region", "bandPlan", "flightFirmware", "pairing"},
	"variants": {"region", "bandPlan"},
}

// Whatever an entry can hold can be entered.
func TestEveryValueHasItsField(t *testing.T) {
	types := map[string]reflect.Type{
		stock.KindQuad: reflect.TypeFor[fleet.Quad](), stock.KindKit: reflect.TypeFor[fleet.Kit](), stock.KindSpare: reflect.TypeFor[fleet.Spare](),
	}
	for _, row := range gear.Kinds {
		types[string(row.Kind)] = reflect.TypeOf(gear.New(row.Kind)).Elem()
	}
	for kind, of := range types {
		f := form(t, kind)
		count := 0
		leaves(of, "", func(path string, of reflect.Type) {
			if path == "id" {
				return // made from the name
			}
			if list, _, below := strings.Cut(path, "."); below && holdsNone[list] != nil &&
				slices.Contains(holdsNone[list], kind) {
				return
			}
			count++
			field, ok := formFieldAt(f, path)
			assert.True(t, ok, "%s: %s has no field", kind, path)
			assert.NotEmpty(t, field.Label, "%s: %s", kind, path)
			if field.Type == format.FieldYesNo && !strings.HasSuffix(path, "activation.needed") { // that is stated with the rest
				assert.Equal(t, of.Kind() == reflect.Bool && !field.Required, field.Flag, "%s: %s is no where it is not stated", kind, path)
			}
		})
		assert.Positive(t, count)
	}
}

// What is wrong in a field would be seen by nobody: labels within a group differ, a
// choice has options, a reference has kinds.
func TestFieldsAreWhole(t *testing.T) {
	var check func(where string, fields []format.Field)
	check = func(where string, fields []format.Field) {
		seen := map[string]string{}
		for _, f := range fields {
			at := where + " " + f.Path
			assert.Empty(t, seen[f.Label], "%s is called %q as well", at, f.Label)
			seen[f.Label] = f.Path
			switch f.Type {
			case format.FieldPick, format.FieldChoices:
				assert.NotEmpty(t, f.Options, at)
			case format.FieldRef, format.FieldRefs:
				assert.NotEmpty(t, f.Kinds, at)
			case format.FieldWithin, format.FieldSome:
				assert.NotEmpty(t, f.Picks, at)
			case format.FieldList, format.FieldMap:
				require.NotEmpty(t, f.Fields, at)
				check(at, f.Fields)
			}
		}
	}
	for _, form := range format.Forms() {
		require.NotEmpty(t, form.Groups, form.Kind)
		for _, g := range form.Groups {
			check(form.Kind+", "+g.Title+":", g.Fields)
		}
	}
}

// eachField goes over all fields of a form, those of lists and maps with the path of these before.
func eachField(fields []format.Field, do func(path string, f format.Field)) {
	for _, f := range fields {
		do(f.Path, f)
		eachField(f.Fields, func(path string, in format.Field) { do(f.Path+"[]."+path, in) })
	}
}

// Ids are made: no field asks for one, other than a fit in turn's, by which it is called. What
// holds the id of something else is picked from where that stands.
func TestNoIDIsTyped(t *testing.T) {
	made := 0
	for _, form := range format.Forms() {
		for _, group := range form.Groups {
			eachField(group.Fields, func(path string, f format.Field) {
				if f.Makes != "" {
					made++
				}
				if f.Pattern == "^[a-z0-9][a-z0-9-]{0,63}$" && f.Type == format.FieldText && !f.Made && path != "inTurn[].id" {
					assert.NotEmpty(t, f.Picks, "%s: %s is typed", form.Kind, path)
				}
			})
		}
	}
	assert.Greater(t, made, 30)
}

// What is picked stands where its field says: in a list or a map that the entry named there, or
// this one, can hold.
func TestWhatIsPickedStandsSomewhere(t *testing.T) {
	holds := func(kind, list string) bool {
		found := false
		for _, group := range form(t, kind).Groups {
			eachField(group.Fields, func(path string, f format.Field) {
				at := strings.ReplaceAll(path, "[]", "")
				found = found || (f.Type == format.FieldList || f.Type == format.FieldMap) &&
					(at == list || strings.HasSuffix(at, "."+list))
			})
		}
		return found
	}
	// models are the kinds of entry a field of a form names; kit leads on to its model.
	models := func(kind, field string) (kinds []string) {
		for _, group := range form(t, kind).Groups {
			eachField(group.Fields, func(path string, f format.Field) {
				if path == field || strings.HasSuffix(path, "."+field) {
					kinds = append(append(kinds, f.Kinds...), f.Models...)
				}
			})
		}
		return kinds
	}
	picked := 0
	check := func(kind, path string, p format.Pick) {
		switch {
		case p.Choice != nil:
			assert.NotEmpty(t, p.Choice.Name, path)
		case p.Kind != "":
			assert.True(t, holds(p.Kind, p.List), "%s: %s: no %s has %s", kind, path, p.Kind, p.List)
		case path == "releases[].install.mode" && kind != "goggles": // only they have modes
		case p.From == "":
			assert.True(t, holds(kind, p.List), "%s: %s: it has no %s", kind, path, p.List)
		default:
			for _, from := range strings.Split(p.From, "|") {
				assert.True(t, slices.ContainsFunc(models(kind, from), func(m string) bool {
					return m != stock.KindKit && holds(m, p.List)
				}), "%s: %s: nothing that %s names has %s", kind, path, from, p.List)
			}
		}
	}
	for _, f := range format.Forms() {
		for _, group := range f.Groups {
			eachField(group.Fields, func(path string, field format.Field) {
				for _, p := range field.Picks {
					picked++
					check(f.Kind, path, p)
				}
			})
		}
	}
	assert.Greater(t, picked, 60)
}

// A group says which gate asks for it, by the gate's title; what is planned is asked for in
// what shall be only; the drawer offers what lies in drawers; the modes of switches are those
// of the flight firmware.
func TestFormsSayWhatTheyAreFor(t *testing.T) {
	gates := map[string]bool{}
	for _, g := range form(t, stock.KindQuad).Groups {
		gates[g.Gate] = true
	}
	for _, row := range swap.Gates {
		assert.True(t, gates[row.Title], row.Title)
	}
	at := func(kind, path string) format.Field {
		field, ok := formFieldAt(form(t, kind), path)
		require.True(t, ok, path)
		return field
	}
	assert.True(t, at(stock.KindQuad, "now.airUnit.firmware").Rare)
	assert.False(t, at(stock.KindQuad, "next.airUnit.firmware").Rare)
	for _, lies := range []string{"screw", "camera", "header", "part", "capacitor"} {
		assert.Contains(t, at(stock.KindSpare, "model").Kinds, lies)
	}
	assert.NotContains(t, at(stock.KindSpare, "model").Kinds, "goggles")
	mode := at(stock.KindQuad, "now.sticks.switches[0].mode")
	assert.Equal(t, format.FieldWithin, mode.Type)
	assert.Equal(t, []format.Pick{{From: "runs.id", List: "modes"}}, mode.Picks)
}

// formFieldAt is the field of a form at which a value can be entered, from its path as gates
// name it: fields with dots, an entry of a list by its id or number, one of a map by its
// key. A path that names an object leads to its first field.
func formFieldAt(f format.Form, path string) (format.Field, bool) {
	for _, group := range f.Groups {
		if field, ok := fieldAt(group.Fields, path); ok {
			return field, true
		}
	}
	return format.Field{}, false
}

func fieldAt(fields []format.Field, path string) (format.Field, bool) {
	path = strings.NewReplacer("[", ".", "]", "").Replace(path)
	for _, field := range fields {
		rest, below := strings.CutPrefix(path, field.Path+".")
		switch {
		case field.Path == path || strings.HasPrefix(field.Path, path+"."):
			return field, true
		case !below:
		case field.Type == format.FieldList || field.Type == format.FieldMap:
			_, inside, deeper := strings.Cut(rest, ".")
			if !deeper {
				return field, true
			}
			if field.Type == format.FieldMap {
				inside = "value." + inside
			}
			if found, ok := fieldAt(field.Fields, inside); ok {
				return found, true
			}
		case field.Type == format.FieldPins || field.Type == format.FieldWires || field.Type == format.FieldOutline || field.Type == format.FieldRefs || field.Type == format.FieldWords || field.Type == format.FieldSome || field.Type == format.FieldChoices:
			return field, true
		}
	}
	return format.Field{}, false
}

// A value that is offered as usual is one its field takes: an entry that states it and
// nothing else wrong has no fault there.
func TestUsualValuesAreTaken(t *testing.T) {
	offered := map[string]int{}
	var look func(kind string, fields []format.Field)
	look = func(kind string, fields []format.Field) {
		for _, f := range fields {
			look(kind, f.Fields)
			for _, u := range f.Usual {
				offered[kind+" "+f.Path]++
				assert.Equal(t, f.Type == format.FieldPins, f.Confirm, "an order counts once it is held against a drawing")
				assert.NotEmpty(t, u.Name)
				switch f.Type {
				case format.FieldPins:
					for _, pin := range u.Value.([]any) {
						assert.Contains(t, f.Keys, pin, "%s %s", kind, f.Path)
					}
				case format.FieldList:
					for key := range u.Value.(map[string]any) {
						assert.True(t, slices.ContainsFunc(f.Fields, func(in format.Field) bool { return in.Path == key }), key)
					}
				default:
					assert.Equal(t, format.FieldNumber, f.Type, "%s %s: nothing offers it", kind, f.Path)
				}
			}
		}
	}
	for _, form := range format.Forms() {
		for _, group := range form.Groups {
			look(form.Kind, group.Fields)
		}
	}
	for _, at := range []string{"airUnit plug.pins", "receiver plug.pins", "airUnit mount.patterns", "board patterns",
		"frame stackPatterns", "quad now.capacitorUF", "quad next.packLead.awg"} {
		assert.NotZero(t, offered[at], at)
	}
	pins := form(t, "airUnit")
	for _, group := range pins.Groups {
		for _, f := range group.Fields {
			if f.Path != "plug.pins" {
				continue
			}
			for _, u := range f.Usual {
				body := fmt.Sprintf(`{"id":"u","source":{"kind":"measured"},"plug":{"pins":%s}}`, jsonOf(t, u.Value))
				_, err := format.ReadEntry("airUnit", []byte(body), &gear.Set{ID: "own"}, stock.New())
				assert.NoError(t, err, u.Name)
			}
		}
	}
	lead, _ := format.FormOf("quad")
	assert.Contains(t, jsonOf(t, lead), `24 AWG, 3.50 A for long in free air`)
}

func jsonOf(t *testing.T, v any) string {
	text, err := json.Marshal(v)
	require.NoError(t, err)
	return string(text)
}
