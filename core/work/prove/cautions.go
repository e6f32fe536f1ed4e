package prove

import "yokeswap/core/facts/fleet"

// Cautions are what has to be seen to before spots are flown (common practice): local rules
// and the failsafe come first, and who flies reads nothing.
func Cautions(t *fleet.TestFlight) []string {
	list := []string{
		"Who flies does not read: a spotter does, or the recording after landing.",
		"Keep the quad in sight as your local rules ask, clear of people, and within the power your region allows.",
	}
	if t.Checked == nil || !*t.Checked {
		list = append(list, "First, on the ground: failsafe tried with propellers off, then the range walked.")
	}
	return list
}
