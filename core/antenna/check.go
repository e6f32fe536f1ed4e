package antenna

import (
	"fmt"
	"slices"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/radio"
	"yokeswap/core/unit"
	"yokeswap/core/verdict"
)

// The findings of this gate.
const (
	CodeUnknown  verdict.Code = "antenna.unknown"
	CodeNoBand   verdict.Code = "antenna.no-band"
	CodeOneBand  verdict.Code = "antenna.one-band"
	CodeHalfGain verdict.Code = "antenna.half-gain"
	CodeCount    verdict.Code = "antenna.count"
	CodePlug     verdict.Code = "antenna.plug"
	CodeAdapter  verdict.Code = "antenna.adapter"
	CodeBarrel   verdict.Code = "antenna.barrel"
	CodeHands    verdict.Code = "antenna.opposite-hands"
	CodeLinear   verdict.Code = "antenna.linear"
	CodeMixed    verdict.Code = "antenna.mixed"
	CodeBehind   verdict.Code = "antenna.behind"
	CodeAngle    verdict.Code = "antenna.angle"
	CodeCarbon   verdict.Code = "antenna.carbon"
	CodeControl  verdict.Code = "antenna.control"
	CodeMatings  verdict.Code = "antenna.matings"
	CodeLimit    verdict.Code = "antenna.limit"
	CodeNoRegion verdict.Code = "antenna.no-region"
	CodeFits     verdict.Code = "antenna.fits"
)

// dangers of the findings: what goes over a limit breaks the law, a sender without
// its antenna can die.
var dangers = map[verdict.Code]verdict.Danger{
	CodeNoBand: verdict.Destroys, CodeLimit: verdict.Unlawful, CodeNoRegion: verdict.Unlawful,
}

// The placing builders aim at (common practice): two antennas about 60° apart,
// about 40 mm from carbon; how far off counts is from memory.
const (
	goodAngle  unit.Degrees     = 60
	angleSlack unit.Degrees     = 20
	carbonRoom unit.Millimetres = 40
	// controlRoom keeps the video away from a control antenna on a near or harmonic
	// band (common practice; the distance is from memory).
	controlRoom unit.Millimetres = 40
	allRound    unit.Degrees     = 180 // a beam narrower than this loses what is behind
)

// Check judges the antennas of one fit.
func Check(c fleet.Case) []verdict.Finding {
	p := newPair(c)
	findings := make([]verdict.Finding, 0, 4)
	var missing []verdict.Missing
	switch {
	case !p.hasUnit:
		missing = append(missing, verdict.FitValue(p.Case, "airUnit", "digital air unit of "+c.Quad.Label()))
	case !p.hasEyes:
		missing = append(missing, verdict.FitValue(p.Case, "goggles", "goggles to fly "+c.Quad.Label()+" with"))
	default:
		missing = append(append(missing, p.unit.missing...), p.eyes.missing...)
	}
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Antenna, CodeUnknown, c.Quad.Label(), missing...))
	} else {
		findings = append(findings, p.checkEnd(&p.unit)...)
		findings = append(findings, p.checkEnd(&p.eyes)...)
		findings = append(findings, p.checkAcross()...)
	}
	if p.hasUnit && len(p.unit.antennas) > 0 {
		findings = append(findings, p.checkPlacing()...)
		findings = append(findings, p.checkMatings()...)
		findings = append(findings, p.checkPower()...)
	}
	if len(findings) == 0 {
		findings = append(findings, p.fits())
	}
	return verdict.Said(verdict.Antenna, c.Quad.Label(), findings, dangers)
}

func (p *pair) fits() verdict.Finding {
	a, b := p.unit.antennas[0], p.eyes.antennas[0]
	return verdict.Finding{Code: CodeFits, Level: verdict.Fits, Source: verdict.Practice,
		Says: fmt.Sprintf("%s antennas on %s meet %s ones on %s, on %s.", verdict.Capital(handWords(a.Polarisation)), p.unit.label, handWords(b.Polarisation), p.eyes.label, names(p.bands()))}
}

// checkEnd holds each antenna of an end against its port.
func (p *pair) checkEnd(e *end) (findings []verdict.Finding) {
	add := func(code verdict.Code, level verdict.Level, says string, args ...any) {
		f := verdict.Finding{Code: code, Level: level, Subject: e.label, Source: verdict.Practice, Says: fmt.Sprintf(says, args...)}
		if !slices.ContainsFunc(findings, func(g verdict.Finding) bool { return g.Says == f.Says }) {
			findings = append(findings, f)
		}
	}
	for _, a := range e.antennas {
		var common []gear.Band
		for _, b := range e.port.Bands {
			if a.On(b) != nil {
				common = append(common, b)
			}
		}
		switch {
		case len(common) == 0:
			add(CodeNoBand, verdict.Unfit, "%s is not made for %s of %s: no picture, and a sender into the wrong antenna can die.", a.Label(), names(e.port.Bands), e.label)
		case len(common) < len(e.port.Bands):
			add(CodeOneBand, verdict.Caution, "%s works on %s alone; %s uses %s: the other band is thrown away and the picture gets choppy.", a.Label(), names(common), e.label, names(e.port.Bands))
		case len(a.Bands) > len(e.port.Bands):
			add(CodeHalfGain, verdict.Caution, "%s is made for more bands than %s uses: about half its gain is given up.", a.Label(), e.label)
		}
		p.checkPlug(e, a, add)
	}
	if n := len(e.antennas); n != *e.port.Antennas {
		level := verdict.Caution
		if n > *e.port.Antennas {
			level = verdict.Unfit
		}
		add(CodeCount, level, "%s takes %d antennas, %d are planned.", e.label, *e.port.Antennas, n)
	}
	for _, a := range e.antennas[1:] {
		if first := e.antennas[0]; a.Polarisation != first.Polarisation {
			add(CodeMixed, verdict.Caution, "%s carries %s and %s antennas: one of them always hears less.", e.label, handWords(first.Polarisation), handWords(a.Polarisation))
		}
	}
	return findings
}

// checkPlug follows the plug of an antenna to its port.
func (p *pair) checkPlug(e *end, a *gear.Antenna, add func(verdict.Code, verdict.Level, string, ...any)) {
	if a.Plug == "" || e.port.Plug == "" {
		of, field := "the port of "+e.label, "plug"
		if a.Plug == "" {
			of = a.Label()
		}
		add(CodeUnknown, verdict.Unknown, "unknown: %s of %s", field, of)
		return
	}
	switch {
	case a.Plug == e.port.Plug:
		if a.BarrelMM != nil && e.port.LipMM != nil && *a.BarrelMM <= *e.port.LipMM {
			add(CodeBarrel, verdict.Unfit, "The barrel of %s is %s, the plug of %s lies %s behind its lip: it does not reach.", a.Label(), a.BarrelMM, e.label, e.port.LipMM)
		}
	case e.adapter != nil && e.adapter.From == a.Plug && e.adapter.To == e.port.Plug:
		loss := "a loss not stated"
		if e.adapter.LossDB != nil {
			loss = e.adapter.LossDB.String()
		}
		add(CodeAdapter, verdict.Caution, "%s goes onto %s through the %s: %s lost, and one more thing to shake loose.", a.Label(), e.label, e.adapter.Label(), loss)
	case e.adapter == nil && p.adapterFor(a.Plug, e.port.Plug) != nil:
		add(CodePlug, verdict.Change, "%s has a %s, %s takes a %s: the %s joins them.", a.Label(), p.Library.Label(a.Plug), e.label, p.Library.Label(e.port.Plug), p.adapterFor(a.Plug, e.port.Plug).Label())
	default:
		add(CodePlug, verdict.Unfit, "%s has a %s, %s takes a %s.", a.Label(), p.Library.Label(a.Plug), e.label, p.Library.Label(e.port.Plug))
	}
}

// adapterFor finds an adapter in the library; nil where there is none.
func (p *pair) adapterFor(from, to string) *gear.Adapter {
	for _, a := range gear.All[*gear.Adapter](p.Library) {
		if a.From == from && a.To == to {
			return a
		}
	}
	return nil
}

// checkAcross holds the two ends against each other.
func (p *pair) checkAcross() (findings []verdict.Finding) {
	bands := p.bands()
	if len(bands) == 0 {
		return []verdict.Finding{{Code: CodeNoBand, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("%s works on %s, %s on %s: no band is common.", p.unit.label, names(p.unit.port.Bands), p.eyes.label, names(p.eyes.port.Bands))}}
	}
	a, b := p.unit.antennas[0], p.eyes.antennas[0]
	loss := radio.PolarisationLoss(a.Polarisation, b.Polarisation)
	switch {
	case loss > 10:
		findings = append(findings, verdict.Finding{Code: CodeHands, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("%s on %s is %s, %s on %s is %s: opposite hands lose %s and more.", a.Label(), p.unit.label, handWords(a.Polarisation), b.Label(), p.eyes.label, handWords(b.Polarisation), loss)})
	case loss > 0:
		findings = append(findings, verdict.Finding{Code: CodeLinear, Level: verdict.Caution, Source: verdict.Practice,
			Says: fmt.Sprintf("%s meets %s: it works however they lie, and loses %s.", verdict.Capital(handWords(a.Polarisation)), handWords(b.Polarisation), loss)})
	}
	if p.eyes.directed() {
		findings = append(findings, verdict.Finding{Code: CodeBehind, Level: verdict.Caution, Source: verdict.Practice, Subject: p.eyes.label,
			Says: fmt.Sprintf("Every antenna on %s looks %s wide: further in front, the picture is lost behind.", p.eyes.label, p.eyes.antennas[0].BeamDeg)})
	}
	return findings
}

// checkPlacing judges how the quad's antennas are placed.
func (p *pair) checkPlacing() (findings []verdict.Finding) {
	a := p.Fit.Antennas
	caution := func(code verdict.Code, says string, args ...any) {
		findings = append(findings, verdict.Finding{Code: code, Level: verdict.Caution, Subject: p.Quad.Label(), Source: verdict.Practice, Says: fmt.Sprintf(says, args...)})
	}
	var missing []verdict.Missing
	if len(a.Models) > 1 {
		switch {
		case a.AngleDeg == nil:
			missing = append(missing, verdict.FitValue(p.Case, "antennas.angleDeg", "angle between the antennas of "+p.Quad.Label()))
		case *a.AngleDeg < goodAngle-angleSlack || *a.AngleDeg > goodAngle+2*angleSlack:
			caution(CodeAngle, "The antennas stand %s apart; about %s lets one hear what the other loses.", a.AngleDeg, goodAngle)
		}
	}
	switch {
	case a.CarbonMM == nil:
		missing = append(missing, verdict.FitValue(p.Case, "antennas.carbonMM", "distance of the antennas of "+p.Quad.Label()+" from carbon"))
	case *a.CarbonMM < carbonRoom:
		caution(CodeCarbon, "The antennas are %s from carbon, %.1f of a wavelength at 5.8 GHz; %s is the usual room.", a.CarbonMM, float64(*a.CarbonMM/radio.Wavelength(5800)), carbonRoom)
	}
	clash, more := p.clash()
	missing = append(missing, more...)
	switch {
	case clash == "":
	case a.ControlMM == nil:
		missing = append(missing, verdict.FitValue(p.Case, "antennas.controlMM", "distance of the antennas of "+p.Quad.Label()+" from the antenna of the sticks"))
	case *a.ControlMM < controlRoom:
		caution(CodeControl, "%s, and the video antennas are %s from its antenna: keep %s between them.", clash, a.ControlMM, controlRoom)
	}
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Antenna, CodeUnknown, p.Quad.Label(), missing...))
	}
	return findings
}

// fewMatings is how many left are worth a word (from memory).
const fewMatings = 5

// checkMatings counts the matings of the unit's antenna plugs against what they
// survive: a swap takes one. The bench counts them as they are made.
func (p *pair) checkMatings() []verdict.Finding {
	kit, owned := p.Fleet.Piece(p.air.KitID)
	if !owned || kit.Matings == nil || p.unit.port == nil {
		return nil
	}
	connector, ok := gear.Find[*gear.Connector](p.Library, p.unit.port.Plug)
	if !ok || connector.Matings == nil {
		return nil
	}
	left := *connector.Matings - *kit.Matings
	f := verdict.Finding{Code: CodeMatings, Level: verdict.Caution, Subject: p.unit.label, Source: connector.Source.String()}
	switch {
	case left <= 0:
		f.Level, f.Says = verdict.Unfit, fmt.Sprintf("The antenna plugs of %s have been on and off %d times; a %s survives about %d. Change the plug or the unit.", p.unit.label, *kit.Matings, connector.Label(), *connector.Matings)
	case left == 1:
		f.Says = fmt.Sprintf("The antenna plugs of %s have about one mating left, and a swap takes it: leave them on, or have a new plug ready.", p.unit.label)
	case left <= fewMatings:
		f.Says = fmt.Sprintf("The antenna plugs of %s have about %d matings left, and every swap takes one: leave them on where you can, and glue or clip them.", p.unit.label, left)
	default:
		return nil
	}
	return []verdict.Finding{f}
}

// checkPower holds the unit's power against the region's limit. It never says how
// to go beyond it.
func (p *pair) checkPower() (findings []verdict.Finding) {
	r := p.airUnit.Radio
	if p.region == nil {
		return []verdict.Finding{{Code: CodeNoRegion, Level: verdict.Caution, Source: "local rules",
			Says: "No region is chosen: keep to the bands and the power your country allows; some powers need a licence."}}
	}
	if r == nil || r.MaxMW == nil {
		return nil
	}
	for _, b := range r.Bands {
		limit, best := p.region.Limit(b), p.unit.best(b)
		if limit == nil || limit.MaxEIRPMW == nil || best == nil || best.On(b).GainDBi == nil {
			continue
		}
		eirp := radio.Milliwatts(radio.DBm(*r.MaxMW) + *best.On(b).GainDBi)
		if eirp <= *limit.MaxEIRPMW*1.0001 {
			continue
		}
		most := radio.Milliwatts(radio.DBm(*limit.MaxEIRPMW) - *best.On(b).GainDBi)
		findings = append(findings, verdict.Finding{Code: CodeLimit, Level: verdict.Caution, Subject: p.unit.label, Source: p.region.Source.String(),
			Says:     fmt.Sprintf("%s could radiate %.0f mW with %s on %s GHz; %s allows %s. Set it to %.0f mW or less.", p.unit.label, float64(eirp), best.Label(), b, p.region.Label(), limit.MaxEIRPMW, float64(most)),
			Compares: []verdict.Compare{{What: "radiated power", Needed: limit.MaxEIRPMW.String() + " at most", There: fmt.Sprintf("%.0f mW", float64(eirp))}}})
	}
	return findings
}
