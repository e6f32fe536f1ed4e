package format

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"math/big"
	"slices"
	"strconv"
	"strings"
	"sync"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/santhosh-tekuri/jsonschema/v6/kind"
	"golang.org/x/text/language"
	"golang.org/x/text/message"

	formatdocs "yokeswap/docs/format"
)

// schemas compiles the published schemas once.
var schemas = sync.OnceValue(func() map[string]*jsonschema.Schema {
	compiled := map[string]*jsonschema.Schema{}
	compiler := jsonschema.NewCompiler()
	for _, name := range []string{"gear-pack", "fleet"} {
		file := name + ".schema.json"
		text, err := formatdocs.Files.ReadFile(file)
		if err != nil {
			panic(err) // embedded: cannot be missing
		}
		doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
		if err != nil {
			panic(err)
		}
		if err := compiler.AddResource(file, doc); err != nil {
			panic(err)
		}
		compiled[name] = compiler.MustCompile(file)
		for list := range member(doc.(map[string]any), "properties") {
			if listHolds(list) {
				compiled[name+"/"+list] = compiler.MustCompile(file + "#/properties/" + list + "/items")
			}
		}
	}
	return compiled
})

// orderKey holds the names of an object's properties in the order of the schema.
const orderKey = "x-order"

// schemaText reads a published schema, the order of its properties kept.
func schemaText(name string) map[string]any {
	text, err := formatdocs.Files.ReadFile(name + ".schema.json")
	if err != nil {
		panic(err) // embedded: cannot be missing
	}
	schema, _, err := inOrder(json.NewDecoder(bytes.NewReader(text)))
	if err != nil {
		panic(err)
	}
	return schema.(map[string]any)
}

// inOrder decodes a value, and gives the keys of an object in their order.
func inOrder(dec *json.Decoder) (value any, keys []string, err error) {
	token, err := dec.Token()
	if err != nil {
		return nil, nil, err
	}
	switch token {
	case json.Delim('{'):
		object := map[string]any{}
		for dec.More() {
			key, err := dec.Token()
			if err != nil {
				return nil, nil, err
			}
			name := key.(string)
			below, order, err := inOrder(dec)
			if err != nil {
				return nil, nil, err
			}
			object[name], keys = below, append(keys, name)
			if name == "properties" {
				object[orderKey] = order
			}
		}
		_, err = dec.Token()
		return object, keys, err
	case json.Delim('['):
		list := []any{}
		for dec.More() {
			one, _, err := inOrder(dec)
			if err != nil {
				return nil, nil, err
			}
			list = append(list, one)
		}
		_, err = dec.Token()
		return list, nil, err
	}
	return token, nil, nil
}

// validateEntry checks an entry of a list against the published schema of its format.
func validateEntry(name, list string, value any) Problems { return validate(name+"/"+list, value) }

// validate checks a value against the published schema of its format.
func validate(name string, value any) Problems {
	err := schemas()[name].Validate(value)
	if err == nil {
		return nil
	}
	invalid, ok := err.(*jsonschema.ValidationError)
	if !ok {
		return Problems{{"", err.Error()}}
	}
	var problems Problems
	collect(invalid, value, &problems)
	slices.SortStableFunc(problems, func(a, b Problem) int { return cmp.Compare(a.Path, b.Path) })
	return slices.CompactFunc(problems, func(a, b Problem) bool { return a == b })
}

var english = message.NewPrinter(language.English)

// collect walks to the leaves of a validation error: they say what is wrong.
func collect(e *jsonschema.ValidationError, root any, problems *Problems) {
	path := instancePath(root, e.InstanceLocation)
	switch k := e.ErrorKind.(type) {
	case *kind.OneOf:
		problems.add(path, "expected either kit (a piece owned) or model (one not owned yet)")
		return
	case *kind.AdditionalProperties:
		for _, name := range k.Properties {
			problems.add(join(path, name), "unknown field; expected one of the fields in the schema")
		}
		return
	case *kind.Required:
		for _, name := range k.Missing {
			problems.add(join(path, name), "expected this field, it is missing")
		}
		return
	case *kind.Minimum:
		problems.add(path, "expected %s or more, found %s", plain(k.Want), plain(k.Got))
		return
	case *kind.Maximum:
		problems.add(path, "expected %s or less, found %s", plain(k.Want), plain(k.Got))
		return
	case *kind.ExclusiveMinimum:
		problems.add(path, "expected more than %s, found %s", plain(k.Want), plain(k.Got))
		return
	case *kind.Pattern:
		problems.add(path, "expected %s, got %q", patternWords(k.Want), k.Got)
		return
	}
	if len(e.Causes) == 0 {
		problems.add(path, "%s", strings.ReplaceAll(e.ErrorKind.LocalizedString(english), "got", "found"))
	}
	for _, cause := range e.Causes {
		collect(cause, root, problems)
	}
}

// plain writes a number as people do.
func plain(r *big.Rat) string {
	f, _ := r.Float64()
	return strconv.FormatFloat(f, 'g', 6, 64)
}

func patternWords(pattern string) string {
	switch {
	case strings.Contains(pattern, "a-z"):
		return "an id of lower-case letters, digits and hyphens"
	case strings.HasPrefix(pattern, "^[0-9]{4}"):
		return "a date as yyyy-mm-dd"
	case strings.HasPrefix(pattern, "^[0-9]"):
		return "a dotted version such as 1.0.6"
	}
	return fmt.Sprintf("text matching %s", pattern)
}

// instancePath writes a location as airUnits[0].input.maxV.
func instancePath(root any, location []string) string {
	path, at := "", root
	for _, step := range location {
		if list, ok := at.([]any); ok {
			path += "[" + step + "]"
			at = nil
			if i, err := strconv.Atoi(step); err == nil && i < len(list) {
				at = list[i]
			}
			continue
		}
		path = join(path, step)
		if object, ok := at.(map[string]any); ok {
			at = object[step]
		}
	}
	return path
}

// mostEntries is how many entries the published schema lets a list of a file have.
func mostEntries(name, list string) int {
	if most, stated := listBounds()[name+"/"+list]; stated {
		return most
	}
	return maxList
}

var listBounds = sync.OnceValue(func() map[string]int {
	bounds := map[string]int{}
	for _, name := range []string{"gear-pack", "fleet"} {
		for list, is := range member(schemaText(name), "properties") {
			if most, stated := is.(map[string]any)["maxItems"].(float64); stated {
				bounds[name+"/"+list] = int(most)
			}
		}
	}
	return bounds
})
