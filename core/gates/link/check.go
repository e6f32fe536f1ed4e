package link

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// The findings of this gate.
const (
	CodeNoAirUnit    verdict.Code = "link.no-air-unit"
	CodeNoGoggles    verdict.Code = "link.no-goggles"
	CodeNoStatement  verdict.Code = "link.no-statement"
	CodeAtOdds       verdict.Code = "link.statements-at-odds"
	CodeNever        verdict.Code = "link.never"
	CodeLinks        verdict.Code = "link.links"
	CodeVersion      verdict.Code = "link.version-unknown"
	CodeUpdate       verdict.Code = "link.update"
	CodeOutOfReach   verdict.Code = "link.out-of-reach"
	CodeController   verdict.Code = "link.controller"
	CodeSeparate     verdict.Code = "link.separate-receiver"
	CodeNoSticks     verdict.Code = "link.no-sticks"
	CodeNoWay        verdict.Code = "link.no-way"
	CodeOneWay       verdict.Code = "link.one-way"
	CodeAdvice       verdict.Code = "link.advice"
	CodeNoMode       verdict.Code = "link.no-mode"
	CodeModeSwitch   verdict.Code = "link.mode-switch"
	CodeActivation   verdict.Code = "link.activation"
	CodeLocked       verdict.Code = "link.locked"
	CodeFeaturesLost verdict.Code = "link.features-lost"
	CodeLowPower     verdict.Code = "link.low-power"
	CodeUpsideDown   verdict.Code = "link.upside-down"
	CodeTaken        verdict.Code = "link.taken"
)

// Check judges the link of one fit.
func Check(c fleet.Case) []verdict.Finding {
	t, hasAir, hasGoggles := newSystem(c)
	findings := make([]verdict.Finding, 0, 3)
	if !hasAir {
		findings = append(findings, verdict.CannotTell(verdict.Link, CodeNoAirUnit, c.Quad.Label(),
			verdict.FitValue(t.Case, "airUnit", "digital air unit of "+c.Quad.Label())))
	}
	if !hasGoggles {
		findings = append(findings, verdict.CannotTell(verdict.Link, CodeNoGoggles, c.Quad.Label(),
			verdict.FitValue(t.Case, "goggles", "goggles to fly "+c.Quad.Label()+" with")))
	}
	if hasAir && hasGoggles {
		findings = append(findings, t.checkPair()...)
	}
	if hasAir {
		findings = append(findings, t.checkDevice(&t.airUnit.Device, t.air)...)
		findings = append(findings, t.checkTaken()...)
		findings = append(findings, t.checkFullPower()...)
	}
	if hasGoggles {
		findings = append(findings, t.checkDevice(&t.goggles.Device, t.gogglesState)...)
		findings = append(findings, t.checkMode()...)
	}
	if t.controller != nil && !t.separate {
		findings = append(findings, t.checkDevice(&t.controller.Device, t.controllerState)...)
	}
	return verdict.Complete(verdict.Link, c.Quad.Label(), findings, nil)
}

// besidePair are the findings that are not about whether the two devices link: how the
// sticks come, and at which power it sends.
var besidePair = []verdict.Code{CodeController, CodeSeparate, CodeNoSticks, CodeLowPower, CodeUpsideDown}

// OfPair are the findings that answer whether an air unit and goggles link, whatever else
// is on the quad.
func OfPair(findings []verdict.Finding) []verdict.Finding {
	return slices.DeleteFunc(slices.Clone(findings), func(f verdict.Finding) bool {
		return slices.Contains(besidePair, f.Code)
	})
}

// checkPair judges the picture and the sticks of a pair of models.
func (t *system) checkPair() []verdict.Finding {
	list, never := t.statements()
	pair := t.air.Label + " with " + t.gogglesState.Label
	if never != nil {
		f := verdict.Finding{Code: CodeNever, Level: verdict.Unfit, Subject: pair, Source: never.Source.String(),
			Says: fmt.Sprintf("%s never links with %s, whatever the firmware.", t.airUnit.Label(), t.goggles.Label())}
		if never.Note != "" {
			f.Says += " " + never.Note
		}
		if odds := t.Library.Contradiction(t.airUnit.ID, t.goggles.ID); odds != "" {
			f.Says += " But " + odds + "."
		}
		return []verdict.Finding{f}
	}
	if odds := t.Library.Contradiction(t.airUnit.ID, t.goggles.ID); odds != "" {
		return []verdict.Finding{verdict.CannotTell(verdict.Link, CodeAtOdds, pair, verdict.Missing{
			Of:    "gear",
			ID:    t.airUnit.ID,
			Field: "pairings",
			Label: fmt.Sprintf("how %s links with %s: %s", t.airUnit.Label(), t.goggles.Label(), odds),
		})}
	}
	if len(list) == 0 {
		return []verdict.Finding{t.noStatement(pair)}
	}
	p, video := t.holding(list)
	if p == nil {
		p = t.nearest(list)
	}
	findings := append(make([]verdict.Finding, 0, 3), t.checkVideo(p, video, list, pair))
	if sticks, needed := t.checkSticks(p, video, list); needed {
		findings = append(findings, sticks)
	}
	if video == yes {
		return append(findings, t.checkFeatures(p)...)
	}
	if plans, _ := t.plans(list, false); len(plans) > 0 { // what is lost is told before the update
		return append(findings, t.checkFeatures(plans[0].pairing)...)
	}
	return findings
}

// noStatement is the finding where nothing is stated of a pair, or that nobody has tried it.
func (t *system) noStatement(pair string) verdict.Finding {
	missing := verdict.Missing{
		Of:    "gear",
		ID:    t.airUnit.ID,
		Field: "pairings",
		Label: fmt.Sprintf("whether %s links with %s: no statement about this pair", t.airUnit.Label(), t.goggles.Label()),
	}
	untested, stated := t.Library.Untested(t.airUnit.ID, t.goggles.ID)
	if !stated {
		return verdict.CannotTell(verdict.Link, CodeNoStatement, pair, missing)
	}
	missing.ID, missing.Field = untested.ID, "untested"
	missing.Label = fmt.Sprintf("whether %s links with %s: it is stated that nobody has tried it", t.airUnit.Label(),
		t.goggles.Label())
	f := verdict.CannotTell(verdict.Link, CodeNoStatement, pair, missing)
	f.Source = untested.Source.String()
	return f
}

// nearest is the statement the fewest updates lead to, else the first.
func (t *system) nearest(list []*gear.Pairing) *gear.Pairing {
	for _, withSticks := range []bool{true, false} {
		if plans, _ := t.plans(list, withSticks); len(plans) > 0 {
			return plans[0].pairing
		}
	}
	return list[0]
}

func (t *system) checkVideo(p *gear.Pairing, video answer, list []*gear.Pairing, pair string) verdict.Finding {
	f := verdict.Finding{Subject: pair, Source: p.Source.String(), Compares: t.compare(p)}
	switch video {
	case yes:
		f.Code, f.Level = CodeLinks, verdict.Fits
		f.Says = t.air.Label + " " + on(t.air.Target) + " links with " +
			t.gogglesState.Label + " " + on(t.gogglesState.Target)
		if p.Mode != "" {
			f.Says += " in mode " + t.modeLabel(p.Mode)
		}
		f.Says += "." + t.stop(p)
		if p.Note != "" {
			f.Says += " " + p.Note
		}
	case unsure:
		missing := t.lacking(p)
		f = verdict.CannotTell(verdict.Link, CodeVersion, pair, missing...)
		f.Compares = t.compare(p)
		if plans, _ := t.plans(list, false); len(plans) > 0 && len(plans[0].reads) > 0 {
			f = t.readFirst(p, plans[0], pair, missing)
		}
	default:
		plans, unread := t.plans(list, false)
		if len(plans) == 0 && unread {
			f = verdict.CannotTell(verdict.Link, CodeVersion, pair, t.unread()...)
			f.Compares = t.compare(p)
			break
		}
		f.Code, f.Level = CodeOutOfReach, verdict.Unfit
		f.Says = fmt.Sprintf("%s %s does not link with %s %s, and no release within reach changes that.",
			t.air.Label, on(t.air.Target), t.gogglesState.Label, on(t.gogglesState.Target))
		if len(plans) > 0 && len(plans[0].reads) > 0 {
			f = t.readFirst(p, plans[0], pair, nil)
		} else if len(plans) > 0 {
			f.Code, f.Level = CodeUpdate, verdict.Change
			f.Says = fmt.Sprintf("%s %s does not link with %s %s; it does after %s.",
				t.air.Label, on(t.air.Target), t.gogglesState.Label, on(t.gogglesState.Target), t.describe(plans[0])) +
				t.stop(plans[0].pairing)
		}
	}
	return f
}

// readFirst is the change that begins with reading what a device carries.
func (t *system) readFirst(p *gear.Pairing, m plan, pair string, missing []verdict.Missing) verdict.Finding {
	return verdict.Finding{
		Code:     CodeUpdate,
		Level:    verdict.Change,
		Subject:  pair,
		Source:   p.Source.String(),
		Compares: t.compare(p),
		Missing:  missing,
		Says: fmt.Sprintf("Nobody has read what %s carries; whichever of its releases that is, %s links with %s after %s.",
			strings.Join(m.reads, " and "), t.air.Label, t.gogglesState.Label, t.describe(m)) + t.stop(m.pairing),
	}
}

// stop says where not to go on: a newer release of a device that this statement does
// not take. Never the newest on a new unit for the oldest goggles (common practice).
func (t *system) stop(p *gear.Pairing) string {
	var says []string
	for _, end := range []struct {
		device *gear.Device
		label  string
		in     firmware.Range
	}{{&t.airUnit.Device, t.air.Label, p.AirFirmware}, {&t.goggles.Device, t.gogglesState.Label, p.GogglesFirmware}} {
		var last, beyond firmware.Version
		for _, r := range end.device.Releases {
			switch {
			case end.in.Holds(r.Version) && r.Version.Compare(last) > 0:
				last = r.Version
			case !end.in.Holds(r.Version) && (beyond == "" || r.Version.Compare(beyond) < 0):
				beyond = r.Version
			}
		}
		if last.Known() && beyond.Known() && beyond.Compare(last) > 0 {
			says = append(says, fmt.Sprintf(" Stop at %s on %s: %s no longer links here.", last, end.label, beyond))
		}
	}
	return strings.Join(says, "")
}

// lacking names the versions and the mode that must be known to judge a
// statement.
func (t *system) lacking(p *gear.Pairing) []verdict.Missing {
	var missing []verdict.Missing
	if lies(p.AirFirmware, t.air.Target) == unsure {
		missing = append(missing, t.slotValue(t.air, "airUnit", "firmware"))
	}
	if lies(p.GogglesFirmware, t.gogglesState.Target) == unsure {
		missing = append(missing, t.slotValue(t.gogglesState, "goggles", "firmware"))
	}
	if t.mode(p) == unsure {
		missing = append(missing, t.slotValue(t.gogglesState, "goggles", "mode"))
	}
	return missing
}

// unread names the devices whose firmware nobody has read.
func (t *system) unread() []verdict.Missing {
	var missing []verdict.Missing
	if !t.air.Current.Known() {
		missing = append(missing, t.slotValue(t.air, "airUnit", "firmware"))
	}
	if !t.gogglesState.Current.Known() {
		missing = append(missing, t.slotValue(t.gogglesState, "goggles", "firmware"))
	}
	if t.controller != nil && !t.separate && !t.controllerState.Current.Known() {
		missing = append(missing, t.slotValue(t.controllerState, "controller", "firmware"))
	}
	return missing
}

// checkSticks judges how the sticks reach the flight board; not needed where
// there is no flight board.
func (t *system) checkSticks(p *gear.Pairing, video answer, list []*gear.Pairing) (verdict.Finding, bool) {
	switch {
	case t.Fit.Without(fleet.NoBoard) && !t.separate:
		return verdict.Finding{Code: CodeNoSticks, Level: verdict.Fits, Subject: t.Quad.Label(), Source: "this fit",
			Says: t.Quad.Label() + " has no flight board and carries no sticks."}, true
	case t.separate:
		return verdict.Finding{
			Code:    CodeSeparate,
			Level:   verdict.Fits,
			Subject: t.Library.Label(t.Fit.Receiver),
			Source:  "common practice",
			Says: fmt.Sprintf("The sticks go through the %s; the air unit's RC wires stay unused.",
				t.Library.Label(t.Fit.Receiver)),
		}, true
	case t.controller == nil:
		return verdict.CannotTell(verdict.Link, CodeController, t.Quad.Label(),
			verdict.FitValue(t.Case, "controller", "controller, or a separate receiver, of "+t.Quad.Label())), true
	}
	return t.checkController(p, video, list), true
}

// checkController judges whether the controller's sticks go through the air unit.
func (t *system) checkController(p *gear.Pairing, video answer, list []*gear.Pairing) verdict.Finding {
	f := verdict.Finding{
		Code:     CodeController,
		Source:   p.Source.String(),
		Subject:  t.controllerState.Label + " with " + t.air.Label,
		Compares: t.compareSticks(p),
	}
	sticks := t.sticks(p)
	if sticks == yes && video == yes {
		f.Level = verdict.Fits
		f.Says = t.controllerState.Label + " " + on(t.controllerState.Target) + " reaches the flight board through " +
			t.air.Label + "."
		return f
	}
	plans, unread := t.plans(list, true)
	switch {
	case p.Controllers == nil:
		return verdict.CannotTell(verdict.Link, CodeController, f.Subject, verdict.Missing{
			Of:    "gear",
			ID:    p.ID,
			Field: "controllers",
			Label: fmt.Sprintf("which controllers go through %s with %s", t.airUnit.Label(), t.goggles.Label()),
		})
	case sticks == unsure:
		return verdict.CannotTell(verdict.Link, CodeController, f.Subject,
			t.slotValue(t.controllerState, "controller", "firmware"))
	case len(plans) > 0:
		f.Level = verdict.Change
		f.Says = fmt.Sprintf("%s does not reach the flight board through %s as planned; it does after %s.",
			t.controllerState.Label, t.air.Label, t.describe(plans[0]))
	case video == unsure:
		return verdict.CannotTell(verdict.Link, CodeController, f.Subject, t.lacking(p)...)
	case unread:
		return verdict.CannotTell(verdict.Link, CodeController, f.Subject, t.unread()...)
	default:
		f.Level = verdict.Unfit
		f.Says = fmt.Sprintf("%s does not go through %s with %s on any firmware within reach.",
			t.controllerState.Label, t.air.Label, t.gogglesState.Label)
	}
	return f
}

// compareSticks puts what a statement needs of the controller beside what is
// there; nothing where it does not name this controller.
func (t *system) compareSticks(p *gear.Pairing) []verdict.Compare {
	for _, c := range p.Controllers {
		if c.ID == t.controller.ID {
			return []verdict.Compare{{
				What:   t.controllerState.Label + " firmware",
				Needed: c.Firmware.String(),
				There:  orUnknown(string(t.controllerState.Target)),
			}}
		}
	}
	return nil
}

// compare puts what a statement needs beside what is there.
func (t *system) compare(p *gear.Pairing) []verdict.Compare {
	list := []verdict.Compare{
		{What: t.air.Label + " firmware", Needed: p.AirFirmware.String(), There: orUnknown(string(t.air.Target))},
		{
			What:   t.gogglesState.Label + " firmware",
			Needed: p.GogglesFirmware.String(),
			There:  orUnknown(string(t.gogglesState.Target)),
		},
	}
	if p.Mode != "" {
		there := orUnknown(t.gogglesState.ToMode)
		if t.gogglesState.ToMode != "" {
			there = t.modeLabel(t.gogglesState.ToMode)
		}
		list = append(list, verdict.Compare{
			What:   t.gogglesState.Label + " mode",
			Needed: t.modeLabel(p.Mode),
			There:  there,
		})
	}
	return append(list, t.compareLimits(p)...)
}

// compareLimits puts the limits of a statement beside those of today's link.
func (t *system) compareLimits(p *gear.Pairing) (list []verdict.Compare) {
	today := gear.Limits{}
	if was, _ := t.today(); was != nil && was.Limits != nil {
		today = *was.Limits
	}
	if p.Limits == nil {
		return nil
	}
	if is := p.Limits.BitrateMbps; is != nil {
		c := verdict.Compare{What: "bit rate", There: is.String() + " at most"}
		if was := today.BitrateMbps; was != nil {
			c.Needed, c.Margin = was.String()+" today", fmt.Sprintf("%+.3g Mb/s", float64(unit.Less(*is, *was)))
		}
		list = append(list, c)
	}
	if is := p.Limits.RangeKM; is != nil {
		c := verdict.Compare{What: "range", There: is.String() + " at most"}
		if was := today.RangeKM; was != nil {
			c.Needed, c.Margin = was.String()+" today", fmt.Sprintf("%+.3g km", float64(unit.Less(*is, *was)))
		}
		list = append(list, c)
	}
	return list
}

func (t *system) modeLabel(id string) string {
	if mode, ok := t.goggles.Mode(id); ok {
		return mode.Label()
	}
	return id
}

// slotOf is the place of a fit that a device goes into.
func (t *system) slotOf(s fleet.State) string {
	switch s.ModelID {
	case t.air.ModelID:
		return "airUnit"
	case t.gogglesState.ModelID:
		return "goggles"
	}
	return "controller"
}

// slotValue names a value of a device (see verdict.DeviceValue).
func (t *system) slotValue(s fleet.State, slot, field string) verdict.Missing {
	label := field + " of " + s.Label
	if field == "firmware" {
		label = carried(s)
	}
	return verdict.DeviceValue(t.Case, s, slot, field, label)
}
