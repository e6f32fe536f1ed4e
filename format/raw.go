package format

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"strconv"
	"unicode/utf8"
)

// maxDepth bounds the nesting of a file.
const maxDepth = 64

// parse turns bytes into a JSON value and reports where they are no JSON, cut
// short, not UTF-8, too large, or carry the same key twice.
func parse(data []byte) (any, Problems) {
	if len(data) > MaxBytes {
		return nil, Problems{{"", "the file is larger than 8 MiB; a gear pack or fleet file is never that large"}}
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
	p := parser{dec: dec, data: data}
	value := p.value("", 0)
	if p.failed == nil && dec.More() {
		p.fail("expected the end of the file, found more")
	}
	if p.failed == nil {
		if _, err := dec.Token(); !errors.Is(err, io.EOF) {
			p.fail("expected the end of the file, found more")
		}
	}
	if p.failed != nil {
		return nil, Problems{*p.failed}
	}
	return value, p.problems
}

type parser struct {
	dec      *json.Decoder
	data     []byte
	failed   *Problem // the JSON itself is broken
	problems Problems
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
	token := p.token()
	if p.failed != nil {
		return nil
	}
	if depth > maxDepth {
		p.fail("nested deeper than " + strconv.Itoa(maxDepth))
		return nil
	}
	switch token {
	case json.Delim('{'):
		return p.object(path, depth)
	case json.Delim('['):
		list := []any{}
		for p.failed == nil && p.dec.More() {
			list = append(list, p.value(path+"["+strconv.Itoa(len(list))+"]", depth+1))
		}
		p.token()
		return list
	}
	if number, ok := token.(json.Number); ok {
		x, err := strconv.ParseFloat(number.String(), 64)
		if err != nil {
			p.problems.add(path, "expected a finite number, got %s", number)
		}
		return x
	}
	return token
}

func (p *parser) object(path string, depth int) any {
	object := map[string]any{}
	for p.failed == nil && p.dec.More() {
		key, ok := p.token().(string)
		if !ok {
			p.fail("expected a field name")
			return nil
		}
		at := join(path, key)
		if _, twice := object[key]; twice {
			p.problems.add(at, "the field %q stands here twice", key)
		}
		object[key] = p.value(at, depth+1)
	}
	p.token()
	return object
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
