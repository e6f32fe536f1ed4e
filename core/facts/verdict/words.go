package verdict

import (
	"strings"

	"yokeswap/core/facts/gear"
)

// GearValue names a value that is missing on the sheet of a piece of gear.
func GearValue(e *gear.Entry, field, words string) Missing {
	return Missing{Of: "gear", ID: e.ID, Field: field, Label: words + " of " + e.Label()}
}

// Capital begins a sentence with what would stand inside one.
func Capital(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:]
}
