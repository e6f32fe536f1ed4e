package format_test

import (
	"encoding"
	"encoding/json"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
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
func leaves(of reflect.Type, path string, add func(path string)) {
	for of.Kind() == reflect.Pointer {
		of = of.Elem()
	}
	for _, written := range []reflect.Type{reflect.TypeFor[json.Marshaler](), reflect.TypeFor[encoding.TextMarshaler]()} {
		if of.Implements(written) || reflect.PointerTo(of).Implements(written) {
			add(path)
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
		add(path)
	}
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
		leaves(of, "", func(path string) {
			if path == "id" {
				return // made from the name
			}
			count++
			field, ok := f.FieldAt(path)
			assert.True(t, ok, "%s: %s has no field", kind, path)
			assert.NotEmpty(t, field.Label, "%s: %s", kind, path)
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
			case format.FieldWithin:
				assert.NotEmpty(t, f.List, at)
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
