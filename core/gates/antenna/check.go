package antenna

import (
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
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
	CodeUndated  verdict.Code = "antenna.limit-undated"
	CodeNoRegion verdict.Code = "antenna.no-region"
	CodeTuned    verdict.Code = "antenna.tuned-beside"
	CodeAngled   verdict.Code = "antenna.right-angle"
	CodeDeaf     verdict.Code = "antenna.no-partner"
	CodeStands   verdict.Code = "antenna.stands"
	CodeSecured  verdict.Code = "antenna.secured"
	CodeLook     verdict.Code = "antenna.look-at-plug"
	CodeFits     verdict.Code = "antenna.fits"
)

// dangers of the findings: what goes over a limit breaks the law, a sender without
// its antenna can die.
var dangers = map[verdict.Code]verdict.Danger{
	CodeNoBand:   verdict.Destroys,
	CodeLimit:    verdict.Unlawful,
	CodeUndated:  verdict.Unlawful,
	CodeNoRegion: verdict.Unlawful,
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
	case !p.hasGoggles:
		missing = append(missing, verdict.FitValue(p.Case, "goggles", "goggles to fly "+c.Quad.Label()+" with"))
	default:
		missing = append(append(missing, p.unit.missing...), p.gogglesSide.missing...)
	}
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Antenna, CodeUnknown, c.Quad.Label(), missing...))
	} else {
		findings = append(findings, p.checkEnd(&p.unit)...)
		findings = append(findings, p.checkEnd(&p.gogglesSide)...)
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
	return verdict.Complete(verdict.Antenna, c.Quad.Label(), findings, dangers)
}

func (p *pair) fits() verdict.Finding {
	a, b := p.unit.antennas[0], p.gogglesSide.antennas[0]
	return verdict.Finding{Code: CodeFits, Level: verdict.Fits, Source: verdict.Practice,
		Says: fmt.Sprintf("%s antennas on %s meet %s ones on %s, on %s.", verdict.Capital(handWords(a.Polarisation)),
			p.unit.label, handWords(b.Polarisation), p.gogglesSide.label, gear.BandWords(p.bands()))}
}

// adder notes a finding about an end.
type adder = func(code verdict.Code, level verdict.Level, says string, args ...any)

// checkEnd holds each antenna of an end against its port.
func (p *pair) checkEnd(e *end) (findings []verdict.Finding) {
	used := p.used(e)
	add := func(code verdict.Code, level verdict.Level, says string, args ...any) {
		f := verdict.Finding{
			Code:    code,
			Level:   level,
			Subject: e.label,
			Source:  verdict.Practice,
			Says:    fmt.Sprintf(says, args...),
		}
		if !slices.ContainsFunc(findings, func(g verdict.Finding) bool { return g.Says == f.Says }) {
			findings = append(findings, f)
		}
	}
	for _, a := range e.antennas {
		e.checkBands(a, used, add)
		for _, f := range append(p.checkPlug(e, a, add), p.checkTuned(a)...) {
			if !slices.ContainsFunc(findings, func(g verdict.Finding) bool { return g.Says == f.Says }) {
				findings = append(findings, f)
			}
		}
	}
	if n := len(e.antennas); n != *e.port.Antennas {
		level := verdict.Caution
		if n > *e.port.Antennas {
			level = verdict.Unfit
		}
		add(CodeCount, level, "%s takes %s, planned: %d.", e.label, change.Count(*e.port.Antennas, "antenna"), n)
	}
	for _, a := range e.antennas[min(1, len(e.antennas)):] {
		if first := e.antennas[0]; a.Polarisation != first.Polarisation {
			add(CodeMixed, verdict.Caution, "%s carries %s and %s antennas: one of them always hears less.", e.label,
				handWords(first.Polarisation), handWords(a.Polarisation))
		}
	}
	return findings
}

// checkBands holds the bands an antenna is made for against those the link uses.
func (e *end) checkBands(a *gear.Antenna, used []gear.Band, add adder) {
	var common []gear.Band
	for _, b := range used {
		if a.On(b) != nil {
			common = append(common, b)
		}
	}
	switch {
	case len(common) == 0:
		add(CodeNoBand, verdict.Unfit,
			"%s on %s is not made for %s, which this link uses: no picture, and a sender into the wrong antenna can die.",
			a.Label(), e.label, gear.BandWords(used))
	case len(common) < len(used):
		add(CodeOneBand, verdict.Caution,
			"%s works on %s alone; this link uses %s: the other band is thrown away and the picture gets choppy.", a.Label(),
			gear.BandWords(common), gear.BandWords(used))
	case len(a.Bands) > len(used):
		add(CodeHalfGain, verdict.Caution,
			"%s on %s is made for more bands than this link uses, %s: about half its gain is given up.", a.Label(), e.label,
			gear.BandWords(used))
	}
}

// checkTuned holds the frequencies an antenna is tuned for against the channels of the
// unit; not asked for where either is not stated: the band is.
func (p *pair) checkTuned(a *gear.Antenna) []verdict.Finding {
	if p.airUnit.Radio == nil {
		return nil
	}
	plan, ok := gear.Find[*gear.BandPlan](p.Library, p.airUnit.Radio.BandPlan)
	if !ok {
		return nil
	}
	all := plan.Channels
	if p.air.Target.Known() { // else it may have each of them
		all = plan.On(p.air.Target)
	}
	beside := 0
	for _, channel := range all {
		link := func(b gear.Band) bool { return b.Holds(channel.MHz) && a.On(b) != nil }
		if slices.ContainsFunc(p.used(&p.unit), link) && !a.Tuned(channel.MHz) {
			beside++
		}
	}
	if beside == 0 {
		return nil
	}
	return []verdict.Finding{{Code: CodeTuned, Level: verdict.Caution, Subject: a.Label(), Source: a.Source.String(),
		Says: fmt.Sprintf("%s is tuned beside %d of %d channels of %s: less is heard there.", a.Label(), beside,
			len(all), p.unit.label)}}
}

// checkPlug follows the plug of an antenna to its port.
func (p *pair) checkPlug(e *end, a *gear.Antenna, add adder) []verdict.Finding {
	if a.Plug == "" || e.port.Plug == "" {
		missing := verdict.GearValue(e.owner, e.field+".plug", "plug of the antenna port")
		if a.Plug == "" {
			missing = verdict.GearValue(&a.Entry, "plug", "plug")
		}
		return []verdict.Finding{verdict.CannotTell(verdict.Antenna, CodeUnknown, e.label, missing)}
	}
	if a.SourceOf("plug").Kind == gear.Practice {
		add(CodeLook, verdict.Caution, "%s is sold with several plugs, and nobody has looked at this one: see that it "+
			"goes onto %s and makes contact before anything sends, and say so at its plug.", a.Label(), e.label)
	}
	switch {
	case a.Onto(e.port):
		return p.checkBarrel(e, a.BarrelMM, a.RightAngle, a, add)
	case e.adapter != nil && e.adapter.Joins(a, e.port):
		loss := "a loss not stated"
		if e.adapter.LossDB != nil {
			loss = e.adapter.LossDB.String()
		}
		add(CodeAdapter, verdict.Caution, "%s goes onto %s through the %s: %s lost, and one more thing to shake loose.",
			a.Label(), e.label, e.adapter.Label(), loss)
		return p.checkBarrel(e, e.adapter.BarrelMM, e.adapter.RightAngle, a, add)
	case p.adapterFor(a, e.port) != nil:
		own, takes := p.plugsOf(a, e.port)
		add(CodePlug, verdict.Change, "The plug of %s is %s, %s takes %s: the %s joins them.", a.Label(), own, e.label, takes,
			p.adapterFor(a, e.port).Label())
	default:
		own, takes := p.plugsOf(a, e.port)
		add(CodePlug, verdict.Unfit, "The plug of %s is %s, %s takes %s.", a.Label(), own, e.label, takes)
	}
	return nil
}

// plugsOf are the plug of an antenna and the one a port takes, as they are read; their sexes
// where the connector is the same and they do not go together.
func (p *pair) plugsOf(a *gear.Antenna, port *gear.AntennaPort) (own, takes string) {
	own, takes = p.Library.Label(a.Plug), p.Library.Label(port.Plug)
	if a.Plug == port.Plug {
		own, takes = own+", "+string(a.Sex()), takes+", "+string(port.Sex().Other())
	}
	return own, takes
}

// checkBarrel asks whether a plug, of an antenna or of the adapter on it, reaches past the lip
// of its case. Goggles have one; of an air unit it is asked only where a lip is stated.
func (p *pair) checkBarrel(
	e *end, barrel *unit.Millimetres, angled *bool, a *gear.Antenna, add adder,
) []verdict.Finding {
	if e.port.LipMM == nil && e == &p.unit {
		return nil
	}
	if e.port.LipMM != nil && *e.port.LipMM == 0 { // no lip: any barrel reaches
		return nil
	}
	var missing []verdict.Missing
	if e.port.LipMM == nil {
		missing = append(missing, verdict.GearValue(e.owner, e.field+".lipMM", "lip around the antenna plug"))
	}
	of := &a.Entry
	if !a.Onto(e.port) {
		of = &e.adapter.Entry
	}
	if barrel == nil {
		missing = append(missing, verdict.GearValue(of, "barrelMM", "length of the barrel"))
	}
	if len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Antenna, CodeBarrel, e.label, missing...)}
	}
	if !unit.Over(*barrel, *e.port.LipMM) {
		add(CodeBarrel, verdict.Unfit, "The barrel of %s is %s, the plug of %s lies %s behind its lip: it does not reach.",
			of.Label(), barrel, e.label, e.port.LipMM)
	}
	if angled != nil && *angled && len(e.antennas) > 1 {
		add(CodeAngled, verdict.Caution, "%s has a right-angled plug: see that it clears the case and its neighbour on %s.",
			of.Label(), e.label)
	}
	return nil
}

// adapterFor finds an adapter in the library; nil where there is none.
func (p *pair) adapterFor(antenna *gear.Antenna, port *gear.AntennaPort) *gear.Adapter {
	for _, a := range gear.All[*gear.Adapter](p.Library) {
		if a.Joins(antenna, port) {
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
			Says: fmt.Sprintf("%s works on %s, %s on %s: no band is common.", p.unit.label, gear.BandWords(p.unit.port.Bands),
				p.gogglesSide.label, gear.BandWords(p.gogglesSide.port.Bands))}}
	}
	findings = append(findings, p.checkHands()...)
	if p.gogglesSide.directed() {
		findings = append(findings, verdict.Finding{
			Code:    CodeBehind,
			Level:   verdict.Caution,
			Source:  verdict.Practice,
			Subject: p.gogglesSide.label,
			Says: fmt.Sprintf("Every antenna on %s looks %s wide: further in front, the picture is lost behind.",
				p.gogglesSide.label, p.gogglesSide.antennas[0].BeamDeg),
		})
	}
	return findings
}

// checkHands holds the polarisation of every antenna of one end against every one of
// the other: the best pair makes the link, and one that finds no partner hears nothing.
func (p *pair) checkHands() (findings []verdict.Finding) {
	const deaf = 10
	least := func(a *gear.Antenna, others []*gear.Antenna) (loss unit.Decibels, partner *gear.Antenna) {
		for i, o := range others {
			if l := radio.PolarisationLoss(a.Polarisation, o.Polarisation); i == 0 || l < loss {
				loss, partner = l, o
			}
		}
		return loss, partner
	}
	best, a := unit.Decibels(math.Inf(1)), (*gear.Antenna)(nil)
	var b *gear.Antenna
	for _, own := range p.unit.antennas {
		if loss, partner := least(own, p.gogglesSide.antennas); partner != nil && loss < best {
			best, a, b = loss, own, partner
		}
	}
	if a == nil {
		return nil
	}
	switch {
	case best > deaf:
		return []verdict.Finding{{Code: CodeHands, Level: verdict.Unfit, Source: verdict.Practice,
			Says: fmt.Sprintf("%s on %s is %s, %s on %s is %s: opposite hands lose %s and more.", a.Label(), p.unit.label,
				handWords(a.Polarisation), b.Label(), p.gogglesSide.label, handWords(b.Polarisation), best)}}
	case best > 0:
		findings = append(findings, verdict.Finding{Code: CodeLinear, Level: verdict.Caution, Source: verdict.Practice,
			Says: fmt.Sprintf("%s meets %s: it works however they lie, and loses %s.",
				verdict.Capital(handWords(a.Polarisation)), handWords(b.Polarisation), best)})
	}
	for _, end := range [][2]*end{{&p.unit, &p.gogglesSide}, {&p.gogglesSide, &p.unit}} {
		for _, x := range end[0].antennas {
			if loss, _ := least(x, end[1].antennas); loss > deaf {
				findings = append(findings, verdict.Finding{
					Code:    CodeDeaf,
					Level:   verdict.Caution,
					Subject: end[0].label,
					Source:  verdict.Practice,
					Says: fmt.Sprintf("%s on %s is %s and meets none of its hand on %s: that antenna hears next to nothing.",
						x.Label(), end[0].label, handWords(x.Polarisation), end[1].label),
				})
				break
			}
		}
	}
	return findings
}

// checkPlacing judges how the quad's antennas are placed.
func (p *pair) checkPlacing() (findings []verdict.Finding) {
	a := p.Fit.Antennas
	caution := func(code verdict.Code, says string, args ...any) {
		findings = append(findings, verdict.Finding{
			Code:    code,
			Level:   verdict.Caution,
			Subject: p.Quad.Label(),
			Source:  verdict.Practice,
			Says:    fmt.Sprintf(says, args...),
		})
	}
	stand, missing := p.standing()
	if len(a.Models) > 1 {
		switch {
		case stand.angle == nil && len(a.Stands) == 0:
			missing = append(missing,
				verdict.FitValue(p.Case, "antennas.angleDeg", "angle between the antennas of "+p.Quad.Label()))
		case stand.angle == nil:
		case *stand.angle < goodAngle-angleSlack || *stand.angle > goodAngle+2*angleSlack:
			caution(CodeAngle, "The antennas stand %s apart; about %s lets one hear what the other loses.", stand.angle,
				goodAngle)
		}
	}
	switch {
	case stand.carbon == nil && len(a.Stands) == 0:
		missing = append(missing,
			verdict.FitValue(p.Case, "antennas.carbonMM", "distance of the antennas of "+p.Quad.Label()+" from carbon"))
	case stand.carbon == nil:
	case *stand.carbon < carbonRoom:
		caution(CodeCarbon, "The antennas are %s from carbon, %.1f of a wavelength at 5.8 GHz; %s is the usual room.%s",
			stand.carbon, float64(*stand.carbon/radio.Wavelength(5800)), carbonRoom, stand.drawn())
	}
	for _, says := range stand.otherwise(a) {
		caution(CodeStands, "%s", says)
	}
	if says := secured(a); says != "" {
		caution(CodeSecured, "%s", says)
	}
	missing = append(missing, p.checkControl(a, caution)...)
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Antenna, CodeUnknown, p.Quad.Label(), missing...))
	}
	return findings
}

// checkControl keeps the video away from the antenna of the sticks where they disturb each other.
func (p *pair) checkControl(
	a *fleet.Antennas, caution func(code verdict.Code, says string, args ...any),
) (missing []verdict.Missing) {
	clash, missing := p.clash()
	switch {
	case clash == "":
	case a.ControlMM == nil:
		missing = append(missing,
			verdict.FitValue(p.Case, "antennas.controlMM",
				"distance of the antennas of "+p.Quad.Label()+" from the antenna of the sticks"))
	case *a.ControlMM < controlRoom:
		caution(CodeControl, "%s, and the video antennas are %s from its antenna: keep %s between them.", clash, a.ControlMM,
			controlRoom)
	}
	return missing
}

// fewMatings is how many left are worth a word (from memory).
const fewMatings = 5

// unplugs says whether the plan takes the unit's antennas off or puts some on.
func (p *pair) unplugs() bool {
	now, next := &p.Quad.Now, p.Fit
	if p.FitName == fleet.FitNow {
		return false
	}
	if back, returns := p.Quad.BackTo(); returns && back.AirUnit != nil && back.AirUnit.Kit == p.air.KitID &&
		!fleet.MovesOver(now, next) {
		return false // it comes back with its antennas on
	}
	same := now.AirUnit != nil && now.AirUnit.Kit == p.air.KitID && now.Antennas != nil && next.Antennas != nil &&
		slices.Equal(now.Antennas.Models, next.Antennas.Models) && now.Antennas.Adapter == next.Antennas.Adapter
	return !same
}

// MatingsLeft is how often the antenna plugs of the air unit can still go on; false where
// that is not counted.
func MatingsLeft(c fleet.Case) (int, bool) {
	_, _, left, counted := matings(c)
	return left, counted
}

func matings(c fleet.Case) (kit *fleet.Kit, plug *gear.Connector, left int, counted bool) {
	unit, state, ok := c.AirUnit()
	if !ok || unit.Radio == nil {
		return nil, nil, 0, false
	}
	kit, owned := c.Fleet.Piece(state.KitID)
	plug, known := gear.Find[*gear.Connector](c.Library, unit.Radio.Plug)
	if !owned || kit.Matings == nil || !known || plug.Matings == nil {
		return nil, nil, 0, false
	}
	return kit, plug, *plug.Matings - *kit.Matings, true
}

// checkMatings counts the matings of the unit's antenna plugs against what they
// survive: a swap takes one. The bench counts them as they are made.
func (p *pair) checkMatings() []verdict.Finding {
	kit, connector, left, counted := matings(p.Case)
	if !counted || !p.unplugs() {
		return nil // nobody counts, or nothing is taken off
	}
	f := verdict.Finding{
		Code:    CodeMatings,
		Level:   verdict.Caution,
		Subject: p.unit.label,
		Source:  connector.Source.String(),
	}
	switch {
	case left <= 0:
		f.Level, f.Says = verdict.Unfit, fmt.Sprintf("The antenna plugs of %s have been on and off %d times; a %s "+
			"survives about %d. Change the plug or the unit.",
			p.unit.label, *kit.Matings, connector.Label(), *connector.Matings)
	case left == 1:
		f.Says = fmt.Sprintf("The antenna plugs of %s have about one mating left, and a swap takes it: leave them on, or "+
			"have a new plug ready.",
			p.unit.label)
	case left <= fewMatings:
		f.Says = fmt.Sprintf("The antenna plugs of %s have about %d matings left, and every swap takes one: leave them on "+
			"where you can, and glue or clip them.",
			p.unit.label, left)
	default:
		return nil
	}
	return []verdict.Finding{f}
}
