package sheet

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

// mostHeading is how long a name at the head of a text may be, in characters.
const mostHeading = 60

// The words that stand over a sheet and name no thing, and those that stand before its name
// (common practice; English, German, French).
var (
	titles = about{"specification*", "specs", "technical*", "data", "parameter*", "features", "manual", "overview",
		"description", "instructions", "datenblatt", "technische*", "daten", "anleitung", "handbuch", "merkmale",
		"caractéristique*", "fiche", "notice", "manuel", "données"}
	nameWords = []string{"product name", "product", "model", "name", "item", "title", "produkt", "modell", "artikel",
		"produit", "modèle", "nom"}
)

// heading is the name a text gives what it is about: its first line, where that is no sentence, no
// title of a list and holds no value, and more follows; or what the line says after "Model:".
// Empty: none is to be seen.
func heading(text string, holdsValue func(from, to int) bool) string {
	start := 0
	for line := range strings.Lines(text) {
		from := start
		start += len(line)
		bare := strings.Trim(strings.TrimSpace(line), "#*_-=~•\"'“”„ \t")
		if bare == "" {
			continue
		}
		name, named := afterNameWord(bare)
		switch {
		case utf8.RuneCountInString(name) > mostHeading || !strings.ContainsFunc(name, unicode.IsLetter):
			return ""
		case named:
			return name
		case strings.ContainsAny(name, ":=|;\t") || strings.HasSuffix(name, ".") || titles.in(strings.ToLower(name)):
			return ""
		case holdsValue(from, start) || strings.TrimSpace(text[start:]) == "":
			return ""
		}
		return name
	}
	return ""
}

// afterNameWord is what a line says after a word for a name and a colon; the line itself where it
// does not begin so.
func afterNameWord(line string) (string, bool) {
	before, after, colon := strings.Cut(line, ":")
	for _, word := range nameWords {
		if colon && strings.EqualFold(strings.TrimSpace(before), word) {
			return strings.TrimSpace(after), true
		}
	}
	return line, false
}
