package format

import (
	"bytes"
	"cmp"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// Document is a file that has been read: a gear pack or a fleet, never both.
type Document struct {
	Set   *gear.Set
	Fleet *fleet.Fleet
}

// Read reads a gear pack or a fleet file, whichever its format field says. On
// any problem it gives nothing but the Problems.
func Read(data []byte) (Document, error) { return read(data, nil, nil) }

// ReadTelling is Read where somebody waits: tell is told how many bytes have been read,
// now and then, and ends it with an error.
func ReadTelling(data []byte, tell func(done int) error) (Document, error) {
	return read(data, nil, tell)
}

// read reads a file; there is what it comes into, nil where it stands alone.
//
// A list of entries is read entry by entry, each checked and decoded before the next,
// so that what a file takes to be read is bounded by its largest entry, and reading
// ends when there are more problems than anybody reads.
func read(data []byte, there *stock.Stock, tell func(done int) error) (Document, error) {
	p, problems := newParser(data)
	if problems != nil {
		return Document{}, problems
	}
	if p.token() != json.Delim('{') {
		if p.failed != nil {
			return Document{}, Problems{*p.failed}
		}
		return Document{}, Problems{{"", "expected a JSON object with a format field"}}
	}
	r := reader{parser: p, tell: tell, head: map[string]any{}, set: &gear.Set{}, fleet: &fleet.Fleet{}}
	p.fields("", r.field)
	p.end()
	if r.ended != nil {
		return Document{}, r.ended
	}
	if p.failed != nil {
		return Document{}, Problems{*p.failed}
	}
	doc, err := r.document()
	if err != nil {
		return Document{}, err
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

// reader fills a document while its file is read.
type reader struct {
	*parser
	head     map[string]any // all but the lists of entries
	set      *gear.Set
	fleet    *fleet.Fleet
	releases int // of all devices so far
	tell     func(done int) error
	ended    error // what tell ended it with
}

// maxReleases are the releases of all devices in a gear pack: each has a few dozen.
const maxReleases = 50_000

// field reads a field of the file itself.
func (r *reader) field(key, at string) {
	if _, twice := r.head[key]; twice {
		r.problems.add(at, "the field %q stands here twice", key)
	}
	r.values = 0
	format, add := r.taker(key)
	token := r.token()
	if add == nil || token != json.Delim('[') {
		r.head[key] = r.valueOf(token, at, 1)
		return
	}
	r.head[key] = []any{} // stands for the list where the file itself is checked
	n, most := 0, mostEntries(format, key)
	r.list(at, func(at string) {
		if n++; n > most {
			r.fail(fmt.Sprintf("more than %d entries in %s", most, key))
			return
		}
		if r.tell != nil && n%64 == 1 {
			if r.ended = r.tell(int(r.dec.InputOffset())); r.ended != nil {
				r.fail("it was stopped")
				return
			}
		}
		r.values = 0
		value := r.value(at, 2)
		if r.failed != nil {
			return
		}
		found := validateEntry(format, key, value)
		for _, p := range found {
			r.problems.add(below(at, p.Path), "%s", p.Says)
		}
		if len(r.problems) == mostProblems {
			r.failed = &Problem{"", "wrong throughout, such as " + r.problems[0].String()}
		}
		if len(found) == 0 && len(r.problems) == 0 {
			if err := add(value); err != nil {
				r.problems.add(at, "%s", err)
			}
		}
	})
}

// below is a path within an entry.
func below(at, path string) string {
	if path == "" || strings.HasPrefix(path, "[") {
		return at + path
	}
	return at + "." + path
}

// taker finds the format a list of entries belongs to, and what takes an entry of it;
// nil where the field is no such list.
func (r *reader) taker(list string) (format string, add func(value any) error) {
	switch list {
	case "kit":
		return fleet.FileFormat, func(v any) error { return appendTo(&r.fleet.Kit, v) }
	case "spares":
		return fleet.FileFormat, func(v any) error { return appendTo(&r.fleet.Spares, v) }
	case "quads":
		return fleet.FileFormat, func(v any) error { return appendTo(&r.fleet.Quads, v) }
	}
	for _, row := range gear.Kinds {
		if row.List == list {
			return gear.SetFormat, func(v any) error {
				item := gear.New(row.Kind)
				if err := decode(v, item); err != nil {
					return err
				}
				if device, ok := item.(gear.Linked); ok {
					if r.releases += len(device.AsDevice().Releases); r.releases > maxReleases {
						r.fail(fmt.Sprintf("more than %d releases in one gear pack", maxReleases))
					}
				}
				r.set.Add(item)
				return nil
			}
		}
	}
	return "", nil
}

func appendTo[T any](list *[]T, value any) error {
	var entry T
	if err := decode(value, &entry); err != nil {
		return err
	}
	*list = append(*list, entry)
	return nil
}

// document checks the file itself and puts it together with its entries.
func (r *reader) document() (Document, error) {
	name, _ := r.head["format"].(string)
	var doc Document
	var target any
	switch name {
	case gear.SetFormat:
		doc.Set, target = r.set, r.set
	case fleet.FileFormat:
		doc.Fleet, target = r.fleet, r.fleet
	default:
		return Document{}, Problems{{"format", `expected "gear-pack" or "fleet"`}}
	}
	problems := append(r.problems, validate(name, r.head)...)
	if len(problems) > 0 {
		slices.SortStableFunc(problems, func(a, b Problem) int { return cmp.Compare(a.Path, b.Path) })
		return Document{}, problems
	}
	for key := range r.head {
		if _, add := r.taker(key); add != nil {
			delete(r.head, key) // its entries are there already
		}
	}
	if err := decode(r.head, target); err != nil {
		return Document{}, Problems{{"", err.Error()}}
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

// Hash is a short hash of what a document says, the same however it is spaced and whatever
// order its fields stand in: the first 12 digits of SHA-256 over it as it is written.
func Hash(d Document) (string, error) {
	var value any = d.Fleet
	if d.Set != nil {
		value = d.Set
	}
	text, err := Write(value)
	if err != nil {
		return "", err
	}
	return fmt.Sprintf("%x", sha256.Sum256(text))[:12], nil
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
