// Package settext reads the settings text of a flight board, holds it against what the
// board has, and says which of its lines may be loaded.
//
// Method: a flight firmware's grammar (gear.SettingsText, data of a gear pack) gives the
// forms of its lines; each line becomes a key and a value. Two texts are compared by key.
// What a word moves decides what may be done with it: motors and pins never, power, band
// and region only where the limits of the region let them, the rest as the builder likes.
// What nobody has stated is held back.
//
// Source: common practice. The words of a maker are data, none are in here.
package settext

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/gear"
)

// MostBytes is how long a settings text may be: several times what boards tell.
const MostBytes = 1 << 20

// Text is a settings text as it was read.
type Text struct {
	// What it says it is of; empty: it does not say.
	Firmware string           `json:"firmware,omitempty"`
	Version  firmware.Version `json:"version,omitempty"`
	Board    string           `json:"board,omitempty"`
	// Cut: its last line is missing. Mixed: it is more than one text.
	Cut   bool   `json:"cut,omitempty"`
	Mixed bool   `json:"mixed,omitempty"`
	Lines []Line `json:"lines"`
}

// Line is a line that sets something, or is not understood.
type Line struct {
	Number int    `json:"number"` // from 1
	Says   string `json:"says"`   // as it stands
	Key    string `json:"key"`    // what it sets; empty: not understood
	Value  string `json:"value"`
}

// form is a form of a line, compiled.
type form struct {
	like  *regexp.Regexp
	group string
	value string
}

// The open places of a form.
const (
	openName     = "{name}"
	openValue    = "{value}"
	openFirmware = "{firmware}"
	openVersion  = "{version}"
	openBoard    = "{board}"
)

// compiled keeps the forms in use: each sheet of the bench reads its texts by the same
// few. It is emptied where it grows beyond what firmwares have.
var compiled struct {
	sync.Mutex
	forms map[string]*regexp.Regexp
}

// mostForms is far more than the firmwares of one library have.
const mostForms = 1000

// formOf is the compiled form of a text.
func formOf(text string) (*regexp.Regexp, error) {
	compiled.Lock()
	defer compiled.Unlock()
	if like := compiled.forms[text]; like != nil {
		return like, nil
	}
	like, err := compile(text)
	if err != nil {
		return nil, fmt.Errorf("the form %q: %w", text, err)
	}
	if compiled.forms == nil || len(compiled.forms) >= mostForms {
		compiled.forms = map[string]*regexp.Regexp{}
	}
	compiled.forms[text] = like
	return like, nil
}

// formParts tells the open places of a form from its words and spaces.
var formParts = regexp.MustCompile(`\{[a-z]+\}|\s+|[^{\s]+|\{`)

// compile makes a form of its text: what stands in it stands in the line, spaces may be
// more, and what is open is caught by its name.
func compile(text string) (*regexp.Regexp, error) {
	var out strings.Builder
	out.WriteString(`^\s*`)
	for _, part := range formParts.FindAllString(text, -1) {
		switch {
		case part == openValue:
			out.WriteString(`(?P<value>\S.*?)`)
		case slices.Contains([]string{openName, openFirmware, openVersion, openBoard}, part):
			fmt.Fprintf(&out, `(?P<%s>\S+?)`, strings.Trim(part, "{}"))
		case strings.TrimSpace(part) == "":
			out.WriteString(`\s+`)
		default:
			out.WriteString(regexp.QuoteMeta(part))
		}
	}
	out.WriteString(`\s*$`)
	return regexp.Compile(out.String())
}

// caught is what a form has found in a line; false where the line is of another form.
func caught(like *regexp.Regexp, line string) (func(name string) string, bool) {
	m := like.FindStringSubmatch(line)
	return func(name string) string {
		if i := like.SubexpIndex(name); i >= 0 {
			return m[i]
		}
		return ""
	}, m != nil
}

// grammar is a firmware's grammar, ready to read.
type grammar struct {
	*gear.SettingsText
	head  []*regexp.Regexp
	lines []form
}

func grammarOf(t *gear.SettingsText) (g grammar, err error) {
	if t == nil || len(t.Lines) == 0 {
		return g, errors.New("nobody has stated how this flight firmware writes its settings")
	}
	g.SettingsText = t
	for _, h := range t.Head {
		like, err := formOf(h)
		if err != nil {
			return g, err
		}
		g.head = append(g.head, like)
	}
	for _, l := range t.Lines {
		like, err := formOf(l.Form)
		if err != nil {
			return g, err
		}
		g.lines = append(g.lines, form{like, l.Group, l.Value})
	}
	return g, nil
}

// lineEnds brings the ends of lines of all systems to one.
var lineEnds = strings.NewReplacer("\r\n", "\n", "\r", "\n")

// Read reads a settings text by the grammar of its firmware. What it does not understand
// is kept as a line without a key; it fails where the text is none at all.
func Read(t *gear.SettingsText, text string) (Text, error) {
	g, err := grammarOf(t)
	if err != nil {
		return Text{}, err
	}
	switch {
	case len(text) > MostBytes:
		return Text{}, fmt.Errorf("the text is %d bytes long; %d are read", len(text), MostBytes)
	case !utf8.ValidString(text) || strings.ContainsRune(text, 0):
		return Text{}, errors.New("this is no text: it holds bytes that are no letters")
	}
	out := Text{Lines: []Line{}, Cut: g.End != ""}
	ended := false
	for i, line := range strings.Split(lineEnds.Replace(text), "\n") {
		line = strings.TrimSpace(line)
		switch {
		case line == "":
		case g.End != "" && line == strings.TrimSpace(g.End):
			out.Cut, ended = false, true
		case out.takeHead(g, line):
		case g.Remark != "" && strings.HasPrefix(line, g.Remark):
		default:
			out.Mixed = out.Mixed || ended
			key, value := g.sets(line)
			out.Lines = append(out.Lines, Line{Number: i + 1, Says: line, Key: key, Value: value})
		}
	}
	return out, nil
}

// takeHead takes a line that says what the text is of.
func (t *Text) takeHead(g grammar, line string) bool {
	bare := line
	if g.Remark != "" {
		bare = strings.TrimSpace(strings.TrimPrefix(line, g.Remark))
	}
	for _, like := range g.head {
		is, ok := caught(like, bare)
		if !ok {
			continue
		}
		parts := map[string]*string{"firmware": &t.Firmware, "board": &t.Board, "version": (*string)(&t.Version)}
		for name, into := range parts {
			if value := is(name); value != "" {
				t.Mixed = t.Mixed || *into != "" && *into != value
				*into = value
			}
		}
		return true
	}
	return false
}

// sets is what a line sets; empty where no form fits, and where a board would take it for a
// word of the dialogue or a keystroke.
func (g *grammar) sets(line string) (key, value string) {
	if slices.Contains([]string{g.Enter, g.List, g.Save, g.Leave}, line) || strings.ContainsFunc(line, unicode.IsControl) {
		return "", ""
	}
	for _, f := range g.lines {
		if is, ok := caught(f.like, line); ok {
			value = strings.TrimSpace(is("value"))
			if f.value != "" {
				value = f.value
			}
			return strings.TrimSpace(f.group + " " + is("name")), value
		}
	}
	return "", ""
}

// value is what a text sets a key to, by the last line that does; false where none does.
func (t *Text) value(key string) (string, bool) {
	for i := len(t.Lines) - 1; i >= 0; i-- {
		if t.Lines[i].Key == key {
			return t.Lines[i].Value, true
		}
	}
	return "", false
}
