package verdict

import "yokeswap/core/facts/fleet"

// Practice is the source of what builders do and nobody has published.
const Practice = "common practice"

// FitValue names a value that the fit under judgement does not state.
func FitValue(c fleet.Case, field, label string) Missing {
	return Missing{Of: "quad", ID: c.Quad.ID, Field: c.FitName + "." + field, Label: label}
}

// DeviceValue names a value of a device: on the kit where it is owned, else in the plan of the fit, by the
// slot it goes into.
func DeviceValue(c fleet.Case, s fleet.State, slot, field, label string) Missing {
	if s.Owned() {
		return Missing{Of: "kit", ID: s.KitID, Field: field, Label: label}
	}
	return FitValue(c, slot+"."+field, label+" (not owned yet)")
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
