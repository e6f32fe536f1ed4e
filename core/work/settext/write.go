package settext

import (
	"fmt"
	"strings"

	"yokeswap/core/facts/gear"
)

// Write writes a text by the grammar of its firmware, as a board tells it: what it is of,
// a line for each setting, its last line. A setting that no form of line can say is an
// error.
func Write(t *gear.SettingsText, of Text) (string, error) {
	g, err := grammarOf(t)
	if err != nil {
		return "", err
	}
	var out strings.Builder
	fill := strings.NewReplacer(openFirmware, of.Firmware, openVersion, string(of.Version), openBoard, of.Board)
	for _, head := range t.Head {
		out.WriteString(strings.TrimSpace(t.Remark+" "+fill.Replace(head)) + "\n")
	}
	for _, line := range of.Lines {
		says, ok := g.line(line.Key, line.Value)
		if !ok {
			return "", fmt.Errorf("no form of line says that %s is %q", line.Key, line.Value)
		}
		out.WriteString(says + "\n")
	}
	if t.End != "" {
		out.WriteString(t.End + "\n")
	}
	return out.String(), nil
}

// line says a setting in the first form that reads back as it; false where none does.
func (g *grammar) line(key, value string) (string, bool) {
	for _, l := range g.Lines {
		name, of := strings.CutPrefix(key, l.Group)
		if !of {
			continue
		}
		says := strings.NewReplacer(openName, strings.TrimSpace(name), openValue, value).Replace(l.Form)
		if k, v := g.sets(says); k == key && v == value {
			return says, true
		}
	}
	return "", false
}

// Factory are the settings a release comes with, as far as they are stated.
func Factory(t *gear.SettingsText) (lines []Line) {
	for i := range t.Words {
		if w := &t.Words[i]; w.Factory != "" {
			lines = append(lines, Line{Key: w.Name, Value: w.Factory})
		}
	}
	return lines
}
