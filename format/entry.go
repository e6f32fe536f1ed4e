package format

import (
	"encoding/json"
	"fmt"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

type fleetKind struct{ kind, list, word, words string }

// fleetKinds are the kinds of entries of a fleet: their lists and words.
var fleetKinds = []fleetKind{
	{stock.KindQuad, "quads", "quad", "quads"},
	{stock.KindKit, "kit", "piece of kit", "kit"},
	{stock.KindSpare, "spares", "spare", "spares"},
	{stock.KindCourse, "courses", "course", "courses"},
	{stock.KindTask, "tasks", "task", "tasks"},
	{stock.KindTestFlight, "testFlights", "test flight", "test flights"},
}

// listOf names the list of a kind in its file.
var listOf = func() map[string]string {
	lists := map[string]string{}
	for _, row := range gear.Kinds {
		lists[string(row.Kind)] = row.List
	}
	for _, row := range fleetKinds {
		lists[row.kind] = row.list
	}
	return lists
}()

// ReadEntry reads a single entry of a kind, as it would stand in its list in a
// file, for the given gear pack or the fleet of what it comes into. Paths in Problems start at
// the entry.
func ReadEntry(kind string, data []byte, set *gear.Set, there *stock.Stock) (Document, error) {
	list, ok := listOf[kind]
	if !ok {
		return Document{}, Problems{{"", fmt.Sprintf("%q is no kind of entry", kind)}}
	}
	value, problems := parse(data)
	if len(problems) > 0 {
		return Document{}, problems
	}
	file := map[string]any{
		"format":  fleet.FileFormat,
		"version": fleet.FileVersion,
		"title":   "one entry",
		list:      []any{value},
	}
	if set != nil {
		file["format"], file["version"], file["id"], file["title"] = gear.SetFormat, gear.SetVersion, set.ID, set.Title
		if set.License != "" {
			file["license"] = set.License
		}
	}
	text, err := json.Marshal(file)
	if err != nil {
		return Document{}, fmt.Errorf("wrap the entry: %w", err)
	}
	doc, err := read(text, there, nil)
	if ps, ok := err.(Problems); ok {
		return doc, ps.below(list + "[0]")
	}
	return doc, err
}

// below cuts a leading path off the problems.
func (ps Problems) below(prefix string) Problems {
	out := make(Problems, len(ps))
	for i, p := range ps {
		out[i] = Problem{strings.TrimPrefix(strings.TrimPrefix(p.Path, prefix), "."), p.Says}
	}
	return out
}
