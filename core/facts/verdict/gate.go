package verdict

import "yokeswap/core/facts/fleet"

// Practice is the source of what builders do and nobody has published.
const Practice = "common practice"

// FitValue names a value that the fit under judgement does not state.
func FitValue(c fleet.Case, field, label string) Missing {
	return Missing{Of: "quad", ID: c.Quad.ID, Field: c.FitName + "." + field, Label: label}
}

// Complete completes what a gate has found: its name, and where a finding does not say
// so itself, what it is about, that it is common practice, and the danger of its code.
func Complete(by Gate, about string, findings []Finding, dangers map[Code]Danger) []Finding {
	for i := range findings {
		f := &findings[i]
		f.Gate = by
		if f.Subject == "" {
			f.Subject = about
		}
		if f.Source == "" {
			f.Source = Practice
		}
	}
	return Rated(findings, dangers)
}
