package settext

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Aftermath is how a board reads after lines were loaded.
type Aftermath struct {
	// NotTaken are the settings that do not read back as they were sent; Beside those that
	// changed and were not sent.
	NotTaken []Setting `json:"notTaken"`
	Beside   []Setting `json:"beside"`
	// Again are arming and failsafe as they are now: to be looked at before it is flown.
	Again []Setting `json:"again"`
}

// After holds what a board tells after lines were loaded against what it told before.
func After(c fleet.Case, t *gear.SettingsText, before, after Text, sent []Line) Aftermath {
	w := comparing{Case: c, grammar: t, board: before, text: after}
	out := Aftermath{NotTaken: []Setting{}, Beside: []Setting{}, Again: []Setting{}}
	for i := range sent {
		if is, _ := after.value(sent[i].Key); is != sent[i].Value {
			row := w.known(sent[i].Key)
			row.Wanted, row.Found = w.words(sent[i].Key, sent[i].Value), w.words(sent[i].Key, is)
			row.State = Differs
			out.NotTaken = append(out.NotTaken, row)
		}
	}
	seen := map[string]bool{}
	for _, line := range slices.Concat(after.Lines, before.Lines) {
		if line.Key == "" || seen[line.Key] {
			continue
		}
		seen[line.Key] = true
		was, _ := before.value(line.Key)
		is, _ := after.value(line.Key)
		row := w.known(line.Key)
		row.Wanted, row.Found, row.State = w.words(line.Key, was), w.words(line.Key, is), Same
		if was != is {
			row.State = Differs
		}
		if row.State == Differs && !slices.ContainsFunc(sent, func(s Line) bool { return s.Key == line.Key }) {
			out.Beside = append(out.Beside, row)
		}
		if row.Again {
			out.Again = append(out.Again, row)
		}
	}
	return out
}

// Picked are the lines to send: all that a comparison lets load, or those of some numbers.
// It is false where one of them may not be loaded.
func (c *Compared) Picked(text Text, numbers []int) (lines []Line, ok bool) {
	ok = c.Refused == ""
	for i := range c.Rows {
		row := &c.Rows[i]
		asked := len(numbers) == 0 || slices.Contains(numbers, row.Line)
		switch {
		case row.Line == 0 || !asked:
		case row.Loads:
			at := slices.IndexFunc(text.Lines, func(l Line) bool { return l.Number == row.Line })
			lines = append(lines, text.Lines[at])
		case len(numbers) > 0:
			ok = false
		}
	}
	if len(numbers) > 0 && len(lines) != len(numbers) {
		ok = false
	}
	return lines, ok && len(lines) > 0
}
