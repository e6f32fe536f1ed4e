package format

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// What is read is bounded while it is read, before anything is made of it.
const (
	maxDepth  = 64
	maxList   = 50_000 // entries of a list; the schemas say less of most
	maxFields = 1_000  // of an object
	maxText   = 10_000 // bytes of a text
	maxDigits = 40     // of a number
	maxValues = 50_000 // in one entry
)

// parse turns bytes into a JSON value and reports where they are no JSON, cut
// short, not UTF-8, too large, or carry the same key twice.
func parse(data []byte) (any, Problems) {
	p, problems := newParser(data)
	if problems != nil {
		return nil, problems
	}
	value := p.value("", 0)
	p.end()
	if p.failed != nil {
		return nil, Problems{*p.failed}
	}
	return value, p.problems
}

// CheckJSON says what is wrong with a text as JSON: what no reader agrees on, such as
// the same key twice, and what has no place in a text.
func CheckJSON(data []byte) Problems {
	_, problems := parse(data)
	return problems
}

// newParser begins to read a text that is UTF-8 and not too large.
func newParser(data []byte) (*parser, Problems) {
	if len(data) > MaxBytes {
		return nil, Problems{
			{"", fmt.Sprintf("the file is larger than %d MiB; a gear pack or fleet file is never that large", MaxBytes>>20)},
		}
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	if !utf8.Valid(data) {
		at := 0
		for at < len(data) {
			r, size := utf8.DecodeRune(data[at:])
			if r == utf8.RuneError && size <= 1 {
				break
			}
			at += size
		}
		return nil, Problems{{"", "expected UTF-8 text, found a byte that is none at " + position(data, at)}}
	}
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.UseNumber()
	return &parser{dec: dec, data: data}, nil
}

type parser struct {
	dec      *json.Decoder
	data     []byte
	values   int      // in the entry that is read
	failed   *Problem // the JSON itself is broken, or more than is read
	problems Problems
}

// end is the end of the file: nothing may follow.
func (p *parser) end() {
	if p.failed == nil && p.dec.More() {
		p.fail("expected the end of the file, found more")
	}
	if p.failed == nil {
		if _, err := p.dec.Token(); !errors.Is(err, io.EOF) {
			p.fail("expected the end of the file, found more")
		}
	}
}

func (p *parser) fail(says string) {
	if p.failed == nil {
		p.failed = &Problem{"", says + " at " + position(p.data, int(p.dec.InputOffset()))}
	}
}

func (p *parser) token() json.Token {
	token, err := p.dec.Token()
	var syntax *json.SyntaxError
	switch {
	case err == nil:
		return token
	case errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF):
		p.fail("the file ends too early: is it cut off? It stops")
	case errors.As(err, &syntax):
		if p.failed == nil {
			p.failed = &Problem{"", "not JSON: " + syntax.Error() + " at " + position(p.data, int(syntax.Offset)-1)}
		}
	default:
		p.fail("not JSON: " + err.Error())
	}
	return nil
}

func (p *parser) value(path string, depth int) any {
	return p.valueOf(p.token(), path, depth)
}

// valueOf reads on from a token.
func (p *parser) valueOf(token json.Token, path string, depth int) any {
	if p.values++; p.values > maxValues {
		p.fail("more than " + strconv.Itoa(maxValues) + " values in one entry: this is no gear and no fleet")
	}
	if depth > maxDepth {
		p.fail("nested deeper than " + strconv.Itoa(maxDepth))
	}
	if p.failed != nil {
		return nil
	}
	switch x := token.(type) {
	case json.Delim:
		if x == '{' {
			return p.object(path, depth)
		}
		list := []any{}
		p.list(path, func(at string) { list = append(list, p.value(at, depth+1)) })
		return list
	case json.Number:
		return p.number(path, x.String())
	case string:
		return p.text(path, x)
	}
	return token
}

// list reads the entries of a list whose bracket has been read.
func (p *parser) list(path string, entry func(at string)) {
	for n := 0; p.failed == nil && p.dec.More(); n++ {
		if n == maxList {
			p.fail("more than " + strconv.Itoa(maxList) + " entries in " + orFile(path))
			return
		}
		entry(indexed(path, n))
	}
	p.token()
}

func orFile(path string) string {
	if path == "" {
		return "a list"
	}
	return path
}

func (p *parser) number(path, digits string) any {
	if len(digits) > maxDigits {
		p.problems.add(path, "expected a number of %d digits at most, this has %d", maxDigits, len(digits))
		return 0.0
	}
	x, err := strconv.ParseFloat(digits, 64)
	if err != nil {
		p.problems.add(path, "expected a finite number, got %s", digits)
	}
	return x
}

func (p *parser) text(path, x string) string {
	switch {
	case len(x) > maxText:
		p.problems.add(path, "expected a text of %d bytes at most, this has %d", maxText, len(x))
		return ""
	case strings.ContainsFunc(x, unseen):
		p.problems.add(path, "expected text, found a character that cannot be seen, such as a control code, in %q", Short(x))
	case strings.ContainsRune(x, utf8.RuneError):
		p.problems.add(path, "expected text, found half a character (an unpaired surrogate) in %q", Short(x))
	}
	return x
}

// unseen says whether a character has no place in a text: control codes, and those
// that turn the direction of what follows.
func unseen(r rune) bool {
	return unicode.IsControl(r) && r != '\n' && r != '\r' && r != '\t' || r >= 0x202a && r <= 0x202e ||
		r >= 0x2066 && r <= 0x2069
}

// Short is a text as far as it fits on a line of a message.
func Short(x string) string {
	const most = 60
	if runes := []rune(x); len(runes) > most {
		return string(runes[:most]) + "…"
	}
	return x
}

func (p *parser) object(path string, depth int) map[string]any {
	object := map[string]any{}
	p.fields(path, func(key, at string) {
		if _, twice := object[key]; twice {
			p.problems.add(at, "the field %q stands here twice", key)
		}
		object[key] = p.value(at, depth+1)
	})
	return object
}

// fields reads the fields of an object whose brace has been read.
func (p *parser) fields(path string, field func(key, at string)) {
	for n := 0; p.failed == nil && p.dec.More(); n++ {
		key, ok := p.token().(string)
		switch {
		case !ok:
			p.fail("expected a field name")
			return
		case n == maxFields:
			p.fail("more than " + strconv.Itoa(maxFields) + " fields in one object")
			return
		case len(key) > maxText:
			p.fail("a field name of " + strconv.Itoa(len(key)) + " bytes")
			return
		}
		field(p.text(path, key), join(path, key))
	}
	p.token()
}

func join(path, key string) string {
	if path == "" {
		return key
	}
	return path + "." + key
}

func position(data []byte, offset int) string {
	offset = max(0, min(offset, len(data)))
	line := bytes.Count(data[:offset], []byte("\n")) + 1
	column := offset - bytes.LastIndexByte(data[:offset], '\n')
	return "line " + strconv.Itoa(line) + ", column " + strconv.Itoa(column)
}
