package mount

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
)

// checkHeat says what the unit's heat does where it lies; not asked for where nobody has said
// where that is.
func (s *seat) checkHeat() []verdict.Finding {
	if _, placed := s.Fit.PlaceOf(fleet.NodeAirUnit); !placed {
		return nil
	}
	var missing []verdict.Missing
	switch {
	case s.Fit.Air == "":
		missing = append(missing, verdict.FitValue(s.Case, "air", "air that moves over "+s.airUnit.Label()+" in flight"))
	case s.Fit.Air != fleet.AirOpen && s.Fit.MetalUnder == nil:
		missing = append(missing, verdict.FitValue(s.Case, "metalUnder",
			"metal under "+s.airUnit.Label()+" that leads its heat away"))
	}
	if len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeHot, s.Quad.Label(), missing...)}
	}
	if s.Fit.Air == fleet.AirOpen {
		return nil
	}
	f := verdict.Finding{Code: CodeHot, Level: verdict.Caution, Source: verdict.Practice, Subject: s.airUnit.Label(),
		Part: fleet.NodeAirUnit}
	heat := map[fleet.Air]string{
		fleet.AirSlots:  "Only what comes through openings cools %s in flight",
		fleet.AirClosed: "No moving air reaches %s in flight",
	}[s.Fit.Air]
	metal := "no metal leads its heat away"
	if *s.Fit.MetalUnder {
		metal = "the metal under it takes some of its heat"
	}
	f.Says = fmt.Sprintf(heat+", and %s: it lowers its power or switches off when it is hot. Try it on the bench, with a "+
		"hand near the plug, before it flies; land, then unplug it soon.", s.airUnit.Label(), metal)
	return []verdict.Finding{f}
}
