package antenna

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
)

// Allowed says whether the air unit of a fit may send with a power on a band where the
// fleet flies: that power with the gain of the antenna that gains most, against the limit
// of the region. Where a value is missing it cannot be told.
func Allowed(c fleet.Case, b gear.Band, mw unit.Milliwatts) verdict.Finding {
	p := newPair(c)
	if !p.hasUnit {
		return verdict.CannotTell(verdict.Antenna, CodeLimit, c.Quad.Label(),
			verdict.FitValue(c, "airUnit", "what sends on "+c.Quad.Label()))
	}
	if p.region == nil {
		return verdict.CannotTell(verdict.Antenna, CodeNoRegion, c.Quad.Label(),
			verdict.Missing{Of: "fleet", Field: "region", Label: "region whose limits hold"})
	}
	most, missing := p.unitGain(b)
	if most == nil && len(missing) == 0 {
		missing = append(missing,
			verdict.FitValue(c, "antennas.models", fmt.Sprintf("antenna of %s for %s", c.Quad.Label(), b)))
	}
	limit := p.region.Limit(b)
	if limit == nil || limit.MaxEIRPMW == nil {
		missing = append(missing, verdict.GearValue(&p.region.Entry, "limits", fmt.Sprintf("limit on %s", b)))
	}
	if len(missing) > 0 {
		return verdict.CannotTell(verdict.Antenna, CodeLimit, p.unit.label, missing...)
	}
	radiated := radio.Milliwatts(radio.DBm(mw) + *most)
	f := verdict.Finding{Gate: verdict.Antenna, Code: CodeLimit, Level: verdict.Fits, Subject: p.unit.label,
		Source: p.region.Source.String()}
	there, allowed := unit.Pair(unit.Milliwatts(tenth(radiated)), *limit.MaxEIRPMW)
	f.Compares = []verdict.Compare{{What: "radiated power", Needed: allowed + " at most", There: there}}
	f.Says = fmt.Sprintf("With %s %s would radiate %s on %s; %s allows %s.", mw, p.unit.label, there, b,
		p.region.Label(), allowed)
	if unit.Over(radiated, *limit.MaxEIRPMW) {
		f.Level = verdict.Unfit
	}
	return f
}
