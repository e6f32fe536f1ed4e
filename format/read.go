package format

import (
	"bytes"
	"encoding/json"
	"fmt"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
)

// Document is a file that has been read: a gear pack or a fleet, never both.
type Document struct {
	Set   *gear.Set
	Fleet *fleet.Fleet
}

// Read reads a gear pack or a fleet file, whichever its format field says. On
// any problem it gives nothing but the Problems.
func Read(data []byte) (Document, error) { return read(data, nil) }

// read reads a file; there is the fleet it comes into, nil where it stands alone.
func read(data []byte, there *fleet.Fleet) (Document, error) {
	value, problems := parse(data)
	if value == nil && len(problems) > 0 {
		return Document{}, problems
	}
	object, ok := value.(map[string]any)
	if !ok {
		return Document{}, Problems{{"", "expected a JSON object with a format field"}}
	}
	name, _ := object["format"].(string)
	var doc Document
	var target any
	switch name {
	case gear.SetFormat:
		doc.Set = &gear.Set{}
		target = doc.Set
	case fleet.FileFormat:
		doc.Fleet = &fleet.Fleet{}
		target = doc.Fleet
	default:
		return Document{}, Problems{{"format", `expected "gear-pack" or "fleet"`}}
	}
	if problems = append(problems, validate(name, value)...); len(problems) > 0 {
		return Document{}, problems
	}
	if err := decode(value, target); err != nil {
		return Document{}, Problems{{"", err.Error()}}
	}
	doc.raise()
	if doc.Set != nil {
		problems = checkSet(doc.Set)
	} else {
		problems = checkFleet(doc.Fleet, there)
	}
	if err := problems.orNil(); err != nil {
		return Document{}, err
	}
	return doc, nil
}

// decode fills the Go types from a value the schema has passed. A field the
// types lack would be lost, so it is an error.
func decode(value, target any) error {
	text, err := json.Marshal(value)
	if err != nil {
		return fmt.Errorf("encode the checked file: %w", err)
	}
	dec := json.NewDecoder(bytes.NewReader(text))
	dec.DisallowUnknownFields()
	if err := dec.Decode(target); err != nil {
		return fmt.Errorf("decode the checked file: %w", err)
	}
	return nil
}

// Write gives the file of a gear.Set or a fleet.Fleet: two-space indent, the
// fields in the order of the format, a newline at the end. Reading it back
// gives an equal value, and writing that the same bytes.
func Write(value any) ([]byte, error) {
	var buf bytes.Buffer
	enc := json.NewEncoder(&buf)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	if err := enc.Encode(value); err != nil {
		return nil, fmt.Errorf("write file: %w", err)
	}
	return buf.Bytes(), nil
}

// raise brings a document of an older version to the one written: docs/format/versions.md
// says what older files mean. So far nothing they hold has changed its meaning.
func (d *Document) raise() {
	if d.Set != nil {
		d.Set.Version = gear.SetVersion
	}
	if d.Fleet != nil {
		d.Fleet.Version = fleet.FileVersion
	}
}
