package format

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/ask"
)

// ValuesOf says what a missing value could be: what its field takes, for numbers what
// is usual for its unit. What has too many forms to be tried, as a list of pins, has none.
func ValuesOf(c fleet.Case, m verdict.Missing) ask.Values {
	kind, model := m.Of, ""
	switch m.Of {
	case "gear":
		item, ok := c.Library.Item(m.ID)
		if !ok {
			return ask.Values{Path: m.Field}
		}
		kind, model = string(item.Kind()), m.ID
	case stock.KindKit:
		if piece, ok := c.Fleet.Piece(m.ID); ok {
			model = piece.Model
		}
	}
	at := slices.IndexFunc(Forms(), func(f Form) bool { return f.Kind == kind })
	if at < 0 {
		return ask.Values{Path: m.Field}
	}
	field, path, ok := Forms()[at].Locate(m.Field)
	if !ok {
		return ask.Values{Path: m.Field}
	}
	return ask.Values{Path: path, Of: valuesOf(c, m, field, path, kind, model)}
}

// valuesOf are the values to try for a field of an entry; none where one of them alone
// settles nothing.
func valuesOf(c fleet.Case, m verdict.Missing, field Field, path, kind, model string) (list []any) {
	switch {
	case strings.HasPrefix(path, m.Field+".") && !strings.Contains(m.Field, "feeds.") && m.Field != "activation":
		return nil // an object of several values. Of an activation the first says whether there is one.
	case strings.Contains(m.Field, "feeds."):
		return sources(c)
	case field.Type == FieldYesNo:
		return []any{true, false}
	case field.Type == FieldPick:
		for _, o := range field.Options {
			list = append(list, o.Value)
		}
	case field.Type == FieldChoices:
		for _, o := range field.Options {
			list = append(list, []any{o.Value})
		}
	case strings.HasSuffix(path, "bands") && field.Type == FieldWords:
		return []any{[]any{"5.8"}, []any{"2.4"}}
	case field.Type == FieldNumber:
		return numbers(field)
	case field.Type == FieldRef:
		for _, item := range c.Library.Items() {
			if slices.Contains(field.Kinds, string(item.Kind())) {
				list = append(list, item.Head().ID)
			}
		}
	case strings.HasSuffix(field.Path, "firmware") && kind == stock.KindKit:
		item, _ := c.Library.Item(model)
		if d, linked := item.(gear.Linked); linked {
			for _, r := range d.AsDevice().Releases {
				list = append(list, string(r.Version))
			}
		}
	}
	return list
}

// sources are what a part can be fed from: the pack, and the pads of the board.
func sources(c fleet.Case) []any {
	list := []any{fleet.NodePack}
	if b, ok := c.Board(); ok {
		for i := range b.Pads {
			list = append(list, fleet.PadNode(b.Pads[i].ID))
		}
	}
	return list
}

// usual are values that parts have, by unit: small and large enough for either answer
// (common practice).
var usual = map[string][]any{
	"V":   {3.0, 7.0, 17.0, 27.0},
	"A":   {0.5, 2.0, 20.0},
	"W":   {0.5, 4.0, 12.0},
	"mm":  {1.0, 3.0, 20.0, 40.0},
	"g":   {1.0, 30.0},
	"mW":  {25.0, 200.0, 1200.0},
	"dBi": {2.0, 8.0},
	"dBm": {-100.0, -80.0},
	"µF":  {5.0, 470.0},
	"ms":  {5.0, 40.0},
	"MHz": {2400.0, 5800.0},
	"°":   {60.0, 360.0},
	"mΩ":  {2.0, 20.0},
	"AWG": {12.0, 30.0},
	"µs":  {1000.0, 2000.0},
}

// numbers are what is usual for the unit of a field.
func numbers(field Field) []any {
	list := slices.Clone(usual[field.Unit])
	if list == nil {
		list = []any{1.0, 4.0, 100.0}
	}
	if field.Whole {
		for i := range list {
			list[i] = int(list[i].(float64))
		}
	}
	return list
}

// Locate finds the field of a form at which a value can be entered, from its path as gates
// name it: fields with dots, an entry of a list by its id or number. A path that names an
// object leads to its first field, one that names an entry of a list to the first that is
// not its name. The path comes back as far as that field.
func (f Form) Locate(path string) (Field, string, bool) {
	for _, group := range f.Groups {
		if field, at, ok := locate(group.Fields, path); ok {
			return field, at, true
		}
	}
	return Field{}, path, false
}

func locate(fields []Field, path string) (Field, string, bool) {
	for _, field := range fields {
		rest, below := strings.CutPrefix(path, field.Path+".")
		switch {
		case field.Path == path || strings.HasPrefix(field.Path, path+"."):
			return field, field.Path, true
		case !below:
		case field.Type == FieldList || field.Type == FieldMap:
			key, inside, deeper := strings.Cut(rest, ".")
			base := fmt.Sprintf("%s.%s.", field.Path, key)
			if field.Type == FieldMap {
				return field, path, true
			}
			if !deeper {
				if at := slices.IndexFunc(field.Fields, func(f Field) bool { return !f.Required || f.Path == "from" }); at >= 0 {
					return field.Fields[at], base + field.Fields[at].Path, true
				}
				return field, path, true
			}
			if found, at, ok := locate(field.Fields, inside); ok {
				return found, base + at, true
			}
		case field.Type == FieldPins || field.Type == FieldWires || field.Type == FieldOutline || field.Type == FieldRefs ||
			field.Type == FieldWords || field.Type == FieldSome || field.Type == FieldChoices:
			return field, path, true
		}
	}
	return Field{}, path, false
}
