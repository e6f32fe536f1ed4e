package settext

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// State is how a setting of a text stands to the board.
type State string

// The states.
const (
	Same    State = "same"
	Differs State = "differs"
	New     State = "new"     // the board does not list it
	Left    State = "left"    // only on the board: it stays as it is
	Unclear State = "unclear" // the line is not understood
)

// Setting is one setting, as a text has it and as the board has it.
type Setting struct {
	Line   int    `json:"line"` // of the text, from 1; 0: it has none
	Says   string `json:"says"` // the line as it stands
	Key    string `json:"key"`
	Label  string `json:"label"` // in plain words, as far as they are stated
	Sets   string `json:"sets"`  // what it moves, in words
	Wanted string `json:"wanted"`
	Found  string `json:"found"`
	State  State  `json:"state"`
	// Held says why it is not loaded; empty: it may be, where it differs.
	Held string `json:"held,omitempty"`
	// Loads: loading the text whole changes it.
	Loads bool `json:"loads"`
	// Again: it is read and looked at again after loading.
	Again bool `json:"again,omitempty"`
}

// Compared holds a text against what a board tells.
type Compared struct {
	Says string    `json:"says"`
	Rows []Setting `json:"rows"`
	// Refused says why nothing of the text may be loaded; empty: it may.
	Refused string `json:"refused,omitempty"`
}

// comparing is a comparison under way.
type comparing struct {
	fleet.Case
	grammar     *gear.SettingsText
	board, text Text
}

// Compare holds a text against what the board tells in its own, both read by the grammar
// of its flight firmware, for a quad as it flies and as it is planned.
func Compare(c fleet.Case, t *gear.SettingsText, board, text Text) Compared {
	w := comparing{Case: c, grammar: t, board: board, text: text}
	out := Compared{Rows: []Setting{}, Refused: w.refused()}
	seen := map[string]bool{}
	for i := range text.Lines {
		line := &text.Lines[i]
		if line.Key != "" && seen[line.Key] && !w.twice(line.Key) {
			continue // said again, the same
		}
		seen[line.Key] = true
		out.Rows = append(out.Rows, w.row(line))
	}
	for i := range board.Lines {
		line := &board.Lines[i]
		if line.Key == "" || seen[line.Key] {
			continue
		}
		seen[line.Key] = true
		row := w.known(line.Key)
		row.Found, row.State = w.words(line.Key, line.Value), Left
		out.Rows = append(out.Rows, row)
	}
	out.Says = says(&out)
	return out
}

// refused says why a text may not be loaded at all: it is of something else, does not say
// of what, or is not whole.
func (w *comparing) refused() string {
	switch {
	case w.grammar.End == "":
		return "Nobody has stated how a whole text ends: whether this one is whole cannot be told. Nothing of it is loaded."
	case w.text.Mixed:
		return "It is more than one text: it goes on after its end, or names two boards. Nothing of it is loaded."
	case w.text.Cut:
		return fmt.Sprintf("It is cut: its last line, %q, is missing. Nothing of it is loaded.", w.grammar.End)
	case w.board.Cut || w.board.Mixed:
		return "What the board told is not whole: read it again. Nothing is loaded."
	}
	for _, part := range []struct{ what, text, board string }{
		{"flight firmware", w.text.Firmware, w.board.Firmware},
		{"release", string(w.text.Version), string(w.board.Version)},
		{"board", w.text.Board, w.board.Board},
	} {
		switch {
		case part.text == "":
			return fmt.Sprintf("The text does not say which %s it is of. Nothing of it is loaded.", part.what)
		case part.board == "":
			return fmt.Sprintf("The board's own text does not say which %s it is of. Nothing is loaded.", part.what)
		case part.text != part.board:
			return fmt.Sprintf("The text is of another %s, %s; the board says %s. Nothing of it is loaded.", part.what,
				part.text, part.board)
		}
	}
	return ""
}

// known is a row with what is known of its word.
func (w *comparing) known(key string) Setting {
	row := Setting{Key: key, Label: key, Sets: "not stated"}
	if word, ok := w.grammar.Word(key); ok {
		row.Label = cmp.Or(word.Label, key)
		row.Sets = cmp.Or(setsWords[word.Sets], row.Sets)
		row.Again = word.Sets == gear.SetsArming || word.Sets == gear.SetsFailsafe
	}
	return row
}

// setsWords are what settings move, in words.
var setsWords = map[gear.SettingKind]string{
	gear.SetsMotors:   "motors",
	gear.SetsPins:     "pins",
	gear.SetsPower:    "transmit power",
	gear.SetsBand:     "band",
	gear.SetsRegion:   "region",
	gear.SetsArming:   "arming",
	gear.SetsFailsafe: "failsafe",
	gear.SetsPorts:    "serial ports",
	gear.SetsReceiver: "receiver",
	gear.SetsOSD:      "OSD",
	gear.SetsFlight:   "how it flies",
	gear.SetsOther:    "other",
}

// words is a value in plain words, as far as they are stated.
func (w *comparing) words(key, value string) string {
	word, _ := w.grammar.Word(key)
	is, ok := word.Value(value)
	switch {
	case ok && is.Label != "":
		return is.Label + " (" + value + ")"
	case ok && is.MW != nil:
		return is.MW.String() + " (" + value + ")"
	}
	return value
}

// row is what a line asks for.
func (w *comparing) row(line *Line) Setting {
	if line.Key == "" {
		return Setting{Line: line.Number, Says: line.Says, Label: line.Says, Sets: "not stated", State: Unclear,
			Held: "no form of line that is stated fits it"}
	}
	row := w.known(line.Key)
	row.Line, row.Says = line.Number, line.Says
	row.Wanted = w.words(line.Key, line.Value)
	found, there := w.board.value(line.Key)
	switch {
	case !there:
		row.State = New
	case found == line.Value:
		row.State, row.Found = Same, w.words(line.Key, found)
		return row
	default:
		row.State, row.Found = Differs, w.words(line.Key, found)
	}
	row.Held = w.held(line)
	row.Loads = row.Held == ""
	return row
}

// twice says whether the text sets a key to more than one value.
func (w *comparing) twice(key string) bool {
	first := slices.IndexFunc(w.text.Lines, func(l Line) bool { return l.Key == key })
	return slices.ContainsFunc(w.text.Lines, func(l Line) bool {
		return l.Key == key && l.Value != w.text.Lines[first].Value
	})
}

// says is the comparison in a sentence.
func says(c *Compared) string {
	if c.Refused != "" {
		return c.Refused
	}
	loads, held, same := 0, 0, 0
	for i := range c.Rows {
		switch row := &c.Rows[i]; {
		case row.Loads:
			loads++
		case row.Held != "":
			held++
		case row.State == Same:
			same++
		}
	}
	parts := []string{counted(loads, "setting", "settings") + " can be loaded"}
	if loads == 0 {
		parts[0] = "Nothing in it is to be loaded"
	}
	if held > 0 {
		parts = append(parts, fmt.Sprintf("%d held back", held))
	}
	return strings.Join(append(parts, fmt.Sprintf("%d already so", same)), ", ") + "."
}

func counted(n int, one, more string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, more)
}
