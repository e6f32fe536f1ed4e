package gear

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strconv"
	"strings"
	"sync"
)

// keys are the fields by which an entry of a list is found.
var keys = []string{"id", "to", "uart", "mode", "band", "from", "model", "part"}

// SetAt puts a value at a path of an entry: fields with dots, an entry of a list by its id,
// what it leads to, its number; one that is not there is made. Whatever lies on the way is
// copied, so that an entry copied alone shares nothing that is changed.
func SetAt(entry any, path string, value any) error {
	text, err := json.Marshal(value)
	if err != nil {
		return err
	}
	v := reflect.ValueOf(entry).Elem()
	for _, step := range steps(path) {
		for v.Kind() == reflect.Pointer {
			own := reflect.New(v.Type().Elem())
			if !v.IsNil() {
				own.Elem().Set(v.Elem())
			}
			v.Set(own)
			v = own.Elem()
		}
		switch v.Kind() {
		case reflect.Struct:
			field, ok := fieldOf(v, step)
			if !ok {
				return fmt.Errorf("%s has no %q", v.Type(), step)
			}
			v = field
		case reflect.Slice:
			v = elementOf(v, step)
		case reflect.Map:
			return setKey(v, step, text)
		default:
			return fmt.Errorf("nothing lies below %s at %q", v.Type(), step)
		}
	}
	v.SetZero()
	return json.Unmarshal(text, v.Addr().Interface())
}

// steps are the steps of a path.
func steps(path string) []string { return strings.Split(dotted.Replace(path), ".") }

var dotted = strings.NewReplacer("[", ".", "]", "")

// fieldOf is a field of a struct by its name in a file.
func fieldOf(v reflect.Value, name string) (reflect.Value, bool) {
	index, there := fieldsOf(v.Type())[name]
	if !there {
		return reflect.Value{}, false
	}
	return v.FieldByIndex(index), true
}

// fieldsByName are the fields of the structs met so far, by their names in a file.
var fieldsByName sync.Map // of map[string][]int by reflect.Type

func fieldsOf(t reflect.Type) map[string][]int {
	if known, ok := fieldsByName.Load(t); ok {
		return known.(map[string][]int)
	}
	fields := map[string][]int{}
	for _, f := range reflect.VisibleFields(t) {
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		if _, before := fields[name]; name != "" && !before {
			fields[name] = f.Index
		}
	}
	fieldsByName.Store(t, fields)
	return fields
}

// elementOf is the entry of a list that a step names, made where it is not there.
func elementOf(list reflect.Value, step string) reflect.Value {
	own := reflect.AppendSlice(reflect.MakeSlice(list.Type(), 0, list.Len()+1), list)
	list.Set(own)
	if there := listed(list, step); there.IsValid() {
		return there
	}
	element := reflect.New(list.Type().Elem()).Elem()
	for _, key := range keys {
		if element.Kind() != reflect.Struct {
			break
		}
		if is, ok := fieldOf(element, key); ok {
			if json.Unmarshal([]byte(strconv.Quote(step)), is.Addr().Interface()) != nil {
				_ = json.Unmarshal([]byte(step), is.Addr().Interface())
			}
			break
		}
	}
	list.Set(reflect.Append(own, element))
	return list.Index(list.Len() - 1)
}

// listed is the entry of a list that a step names; none where it is not there.
func listed(list reflect.Value, step string) reflect.Value {
	for i := range list.Len() {
		element := list.Index(i)
		for _, key := range keys {
			if element.Kind() != reflect.Struct {
				break
			}
			if is, ok := fieldOf(element, key); ok {
				if fmt.Sprint(is.Interface()) == step {
					return element
				}
				break
			}
		}
	}
	if n, err := strconv.Atoi(step); err == nil && n < list.Len() && list.Type().Elem().Kind() != reflect.Struct {
		return list.Index(n)
	}
	return reflect.Value{}
}

func setKey(m reflect.Value, key string, text []byte) error {
	value := reflect.New(m.Type().Elem())
	if err := json.Unmarshal(text, value.Interface()); err != nil {
		return err
	}
	grown := reflect.MakeMap(m.Type())
	for _, k := range m.MapKeys() {
		grown.SetMapIndex(k, m.MapIndex(k))
	}
	grown.SetMapIndex(reflect.ValueOf(key).Convert(m.Type().Key()), value.Elem())
	m.Set(grown)
	return nil
}
