package power

import (
	"fmt"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// checkGoggles holds the pack that goggles are fed from against their window: from full
// charge to where it is landed, at rest, for they draw little (common practice). Goggles
// that are stated to be fed from no pack run from what they came with.
func (s supply) checkGoggles() []verdict.Finding {
	goggles, state, ok := s.Goggles()
	if !ok || !state.Owned() {
		return nil
	}
	kit, ok := s.Fleet.Piece(state.KitID)
	if !ok || kit.Pack == "" {
		return nil
	}
	pack, ok := gear.Find[*gear.Pack](s.Library, kit.Pack)
	if !ok {
		return nil
	}
	var missing []verdict.Missing
	need := func(stated bool, e *gear.Entry, field, words string) {
		if !stated {
			missing = append(missing, verdict.GearValue(e, field, words))
		}
	}
	chemistry, known := chemistries[pack.Chemistry]
	need(known, &pack.Entry, "chemistry", "chemistry")
	need(pack.Cells != nil, &pack.Entry, "cells", "cells in series")
	need(goggles.Input.MinV != nil, &goggles.Entry, "input.minV", "lowest input voltage")
	need(goggles.Input.MaxV != nil, &goggles.Entry, "input.maxV", "highest input voltage")
	// what burns is said even where the rest is not known
	burns := known && pack.Cells != nil && goggles.Input.MaxV != nil &&
		unit.Over(unit.Volts(*pack.Cells)*chemistry.full, *goggles.Input.MaxV)
	if len(missing) > 0 && !burns {
		return []verdict.Finding{verdict.CannotTell(verdict.Power, CodeGoggles, state.Label, missing...)}
	}
	cells := unit.Volts(*pack.Cells)
	return []verdict.Finding{fedGoggles(goggles, state.Label, pack.Label(), cells*chemistry.full, cells*chemistry.lowest,
		burns)}
}

// fedGoggles is what goggles see from a pack, held against their window; its lower end is
// asked only where they do not burn.
func fedGoggles(
	goggles *gear.Goggles, label, pack string, full, lowest unit.Volts, burns bool,
) verdict.Finding {
	f := verdict.Finding{Code: CodeGoggles, Level: verdict.Fits, Subject: label,
		Source: goggles.SourceOf("input.maxV").String()}
	high := verdict.Compare{What: "at full charge", Needed: goggles.Input.MaxV.String() + " at most", There: full.String()}
	if burns {
		f.Level, f.Danger, f.Compares = verdict.Unfit, verdict.Destroys, []verdict.Compare{high}
		f.Says = fmt.Sprintf("%s would see %s from the %s; its window ends at %s. It burns.", label, full, pack,
			goggles.Input.MaxV)
		return f
	}
	low := verdict.Compare{
		What:   "when it is landed",
		Needed: goggles.Input.MinV.String() + " at least",
		There:  lowest.String(),
	}
	if unit.Over(*goggles.Input.MinV, lowest) {
		f.Level, f.Danger, f.Compares = verdict.Unfit, verdict.Falls, []verdict.Compare{low}
		f.Says = fmt.Sprintf("%s would see only %s from the %s at the end; its window begins at %s. It goes dark while "+
			"you fly.", label, lowest, pack, goggles.Input.MinV)
		return f
	}
	f.Compares = []verdict.Compare{high, low}
	f.Says = fmt.Sprintf("%s sees %s to %s from the %s, within %s to %s.", label, lowest, full, pack, goggles.Input.MinV,
		goggles.Input.MaxV)
	return f
}
