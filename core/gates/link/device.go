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

// checkDevice judges what is planned for one device: whether the release can
// be put on, what cannot be undone, and activation.
func (t *system) checkDevice(d *gear.Device, s fleet.State) []verdict.Finding {
	var findings []verdict.Finding
	if s.Updating() {
		findings = append(findings, t.checkUpdate(d, s)...)
	}
	if r, ok := d.Release(s.Target); ok && r.Advice != nil {
		findings = append(findings, verdict.Finding{
			Code:    CodeAdvice,
			Level:   verdict.Caution,
			Subject: s.Label,
			Says:    fmt.Sprintf("Release %s of %s is best avoided: %s", r.Version, d.Label(), r.Advice.Why),
			Source:  d.Source.String(),
		})
	}
	return append(findings, t.checkActivation(d, s)...)
}

// checkActivation judges whether a device that has to be activated is, or can be.
func (t *system) checkActivation(d *gear.Device, s fleet.State) (findings []verdict.Finding) {
	switch needed := d.ActivationNeeded(); {
	case s.Activated != nil && *s.Activated: // done once, it never is again
		return t.checkLock(d, s)
	case needed == nil:
		findings = append(findings, verdict.CannotTell(verdict.Link, CodeActivation, s.Label, verdict.Missing{
			Of: "gear", ID: d.ID, Field: "activation", Label: "whether " + d.Label() + " needs activating"}))
	case !*needed:
	case s.Activated == nil:
		findings = append(findings, verdict.CannotTell(verdict.Link, CodeActivation, s.Label, verdict.Missing{
			Of: "kit", ID: s.KitID, Field: "activated", Label: "whether " + s.Label + " has been activated"}))
	case !*s.Activated && !t.wakes(d, s):
		if !s.Current.Known() && s.Owned() {
			findings = append(findings,
				verdict.CannotTell(verdict.Link, CodeActivation, s.Label, t.slotValue(s, t.slotOf(s), "firmware")))
			break
		}
		findings = append(findings, verdict.Finding{
			Code:    CodeActivation,
			Level:   verdict.Unfit,
			Subject: s.Label,
			Source:  d.Source.String(),
			Says: fmt.Sprintf("%s must be activated once before it links; that works on %s, and no permitted steps lead over "+
				"such a release to %s.",
				s.Label, d.Activation.Firmware, orUnknown(string(s.Target))),
		})
	case !*s.Activated:
		says := fmt.Sprintf("%s must be activated once, with an account and internet, before it links.", s.Label)
		if len(d.Activation.Tools) > 0 {
			says = fmt.Sprintf("%s must be activated once in %s, with an account and internet, before it links.", s.Label,
				orList(d.Activation.Tools))
		}
		findings = append(findings, verdict.Finding{
			Code:    CodeActivation,
			Level:   verdict.Caution,
			Subject: s.Label,
			Says:    says,
			Source:  d.Source.String(),
		})
	}
	return findings
}

// checkLock judges whether a device that has been activated may be bound to the account of
// somebody who had it before.
func (t *system) checkLock(d *gear.Device, s fleet.State) []verdict.Finding {
	switch {
	case s.Locked != nil && *s.Locked:
		return []verdict.Finding{{
			Code:    CodeLocked,
			Level:   verdict.Unfit,
			Subject: s.Label,
			Source:  d.Source.String(),
			Says: fmt.Sprintf("%s is bound to its former owner's account: it takes no other release and cannot be activated "+
				"anew until that account lets it go. Ask them to release it; nothing here goes round that.", s.Label),
		}}
	case s.Locked == nil && d.Locks():
		return []verdict.Finding{verdict.CannotTell(verdict.Link, CodeLocked, s.Label, verdict.Missing{
			Of: "kit", ID: s.KitID, Field: "locked", Label: "whether " + s.Label + " is bound to a former owner's account"})}
	}
	return nil
}

// wakes says whether a device can be activated on its way to what is planned for it.
// One still to be bought comes on a release nobody knows: that is not held against it.
func (t *system) wakes(d *gear.Device, s fleet.State) bool {
	if d.Activation.Firmware.IsAny() || !s.Owned() {
		return true
	}
	_, ok := t.Library.Chart(d.ID).Way(s.Stands(), firmware.State{Version: s.Target, Activated: true})
	return ok
}

func (t *system) checkUpdate(d *gear.Device, s fleet.State) []verdict.Finding {
	if _, listed := d.Release(s.Target); listed && !s.Owned() {
		return t.checkFromAny(d, s)
	}
	steps, ok := t.Library.Chart(d.ID).Way(s.Stands(), firmware.State{Version: s.Target})
	if !ok {
		if _, listed := d.Release(s.Target); !listed {
			return []verdict.Finding{verdict.CannotTell(verdict.Link, CodeNoWay, s.Label, verdict.Missing{Of: "gear", ID: d.ID,
				Field: "releases", Label: fmt.Sprintf("how release %s gets onto %s", s.Target, d.Label())})}
		}
		if !s.Current.Known() {
			return []verdict.Finding{verdict.CannotTell(verdict.Link, CodeNoWay, s.Label, verdict.Missing{Of: "kit", ID: s.KitID,
				Field: "firmware", Label: fmt.Sprintf("%s, to know whether %s goes on it", carried(s), s.Target)})}
		}
		return []verdict.Finding{{Code: CodeNoWay, Level: verdict.Unfit, Subject: s.Label, Source: d.Source.String(),
			Says: fmt.Sprintf("Release %s cannot be put on %s: no permitted steps lead there from %s.", s.Target, s.Label,
				s.Current),
			Compares: []verdict.Compare{{What: s.Label + " firmware", Needed: string(s.Target), There: string(s.Current)}}}}
	}
	return oneWays(d, s, steps)
}

// oneWays says which steps cannot be undone.
func oneWays(d *gear.Device, s fleet.State, steps []firmware.Step) (findings []verdict.Finding) {
	for _, step := range steps {
		if step.OneWay {
			findings = append(findings, verdict.Finding{
				Code:    CodeOneWay,
				Level:   verdict.Caution,
				Subject: s.Label,
				Source:  d.Source.String(),
				Says: fmt.Sprintf("Updating %s from %s to %s is a one-way door: nothing known puts the old release back.",
					s.Label, orUnknown(string(step.From)), step.To),
			})
		}
	}
	return findings
}

// checkFromAny judges an update of a device that is still to be bought: it comes on any of the
// releases its gear lists, or on a newer one. Where one of them is a dead end, that is for whoever
// has the piece in hand.
func (t *system) checkFromAny(d *gear.Device, s fleet.State) []verdict.Finding {
	var stuck []string
	var doors []firmware.Step
	for i := range d.Releases {
		from := firmware.State{Version: d.Releases[i].Version, Mode: s.Mode}
		steps, ok := t.Library.Chart(d.ID).Way(from, firmware.State{Version: s.Target})
		if !ok {
			stuck = append(stuck, string(from.Version))
		}
		for _, step := range steps {
			if step.OneWay && !slices.Contains(doors, step) {
				doors = append(doors, step)
			}
		}
	}
	if len(stuck) > 0 {
		m := t.slotValue(s, t.slotOf(s), "kit")
		m.Label = fmt.Sprintf("the piece of %s itself, once it is there: nothing known puts %s on one that carries %s",
			d.Label(), s.Target, orList(stuck))
		return []verdict.Finding{verdict.CannotTell(verdict.Link, CodeNoWay, s.Label, m)}
	}
	steps, ok := t.Library.Chart(d.ID).Way(s.Stands(), firmware.State{Version: s.Target})
	if ok {
		return oneWays(d, s, steps)
	}
	return append(oneWays(d, s, doors), verdict.Finding{
		Code:    CodeNoWay,
		Level:   verdict.Caution,
		Subject: s.Label,
		Source:  d.Source.String(),
		Says: fmt.Sprintf("%s comes on a release nobody knows. %s goes on each that is listed; one that is newer "+
			"may not let it: ask before buying, or look before anything is soldered.", s.Label, s.Target),
	})
}

// checkMode judges the mode planned for the goggles.
func (t *system) checkMode() []verdict.Finding {
	s := t.gogglesState
	if s.ToMode == "" || len(t.goggles.Modes) == 0 {
		return nil // a pairing that needs a mode says so itself
	}
	mode, ok := t.goggles.Mode(s.ToMode)
	if !ok {
		return []verdict.Finding{{Code: CodeNoMode, Level: verdict.Unfit, Subject: s.Label, Source: t.goggles.Source.String(),
			Says: fmt.Sprintf("%s has no mode %s.", t.goggles.Label(), s.ToMode)}}
	}
	switch lies(mode.Firmware, s.Target) {
	case no:
		return []verdict.Finding{{Code: CodeNoMode, Level: verdict.Unfit, Subject: s.Label, Source: t.goggles.Source.String(),
			Says: fmt.Sprintf("%s %s has no mode %s; it comes with %s.", s.Label, on(s.Target), mode.Label(), mode.Firmware),
			Compares: []verdict.Compare{{What: "firmware for mode " + mode.Label(), Needed: mode.Firmware.String(),
				There: string(s.Target)}}}}
	case unsure:
		return []verdict.Finding{verdict.CannotTell(verdict.Link, CodeNoMode, s.Label, t.slotValue(s, "goggles", "firmware"))}
	}
	if s.Mode == "" || s.Mode == s.ToMode {
		return nil
	}
	from := t.modeLabel(s.Mode)
	f := verdict.Finding{Code: CodeModeSwitch, Subject: s.Label, Source: t.goggles.Source.String()}
	switch keeps := t.goggles.SwitchKeeps(s.Mode, s.ToMode); {
	case keeps == nil:
		return []verdict.Finding{verdict.CannotTell(verdict.Link, CodeModeSwitch, s.Label, verdict.Missing{
			Of:    "gear",
			ID:    t.goggles.ID,
			Field: "modeSwitch",
			Label: fmt.Sprintf("whether %s keeps its bindings from mode %s to %s", t.goggles.Label(), from, mode.Label()),
		})}
	case *keeps:
		f.Level, f.Says = verdict.Fits, fmt.Sprintf("Switching %s from mode %s to %s keeps its bindings.", s.Label, from,
			mode.Label())
	default:
		f.Level, f.Says = verdict.Caution, fmt.Sprintf("Switching %s from mode %s to %s loses its bindings: every quad "+
			"flown with it must be bound again.",
			s.Label, from, mode.Label())
	}
	return []verdict.Finding{f}
}

// checkTaken says when another quad's plan holds the same air unit.
func (t *system) checkTaken() []verdict.Finding {
	if !t.air.Owned() {
		return nil
	}
	other, taken := t.Fleet.Holder(t.air.KitID, t.Quad.ID)
	if !taken {
		return nil
	}
	return []verdict.Finding{{
		Code:    CodeTaken,
		Level:   verdict.Unfit,
		Subject: t.air.Label,
		Source:  "the plans of this fleet",
		Says:    fmt.Sprintf("%s is planned into %s too; it cannot be in both.", t.air.Label, other.Label()),
	}}
}

// checkFullPower warns of a craft that never reaches full transmit power.
func (t *system) checkFullPower() []verdict.Finding {
	if t.Fit.Board != "" {
		return nil
	}
	r := t.airUnit.Radio
	if r == nil || r.FullPowerOnlyArmed == nil {
		return []verdict.Finding{verdict.CannotTell(verdict.Link, CodeLowPower, t.air.Label,
			verdict.GearValue(&t.airUnit.Entry, "radio.fullPowerOnlyArmed",
				"whether "+t.airUnit.Label()+" reaches full power without a flight board"))}
	}
	if !*r.FullPowerOnlyArmed {
		return nil
	}
	return []verdict.Finding{{Code: CodeLowPower, Level: verdict.Caution, Subject: t.air.Label,
		Source: t.airUnit.SourceOf("radio.fullPowerOnlyArmed").String(),
		Says: fmt.Sprintf("%s reaches full power only with a flight board connected and armed; without one it stays at "+
			"low power.",
			t.air.Label)}}
}

// today is the statement that holds for what the quad flies with today, whatever the
// goggles; nil where it has no link, or where what is missing keeps it from being known.
func (t *system) today() (*gear.Pairing, []verdict.Missing) {
	if t.FitName == fleet.FitNow {
		return nil, nil
	}
	before, hasAir, hasGoggles := newSystem(fleet.NowCase(t.Library, t.Fleet, t.Quad))
	if !hasAir || !hasGoggles {
		return nil, nil
	}
	list, _ := before.statements()
	p, video := before.holding(list)
	switch {
	case p == nil || video == no:
		return nil, nil
	case video == unsure:
		return nil, before.lacking(p)
	}
	return p, nil
}

// checkFeatures compares what the link gives now and next: features, limits, and
// whether the picture of a camera that sits upside down can be turned. What would have
// to be known to tell is named.
func (t *system) checkFeatures(next *gear.Pairing) (findings []verdict.Finding) {
	subject := t.air.Label + " with " + t.gogglesState.Label
	if t.Fit.UpsideDown != nil && *t.Fit.UpsideDown {
		findings = append(findings, t.checkFlip(next, subject)...)
	}
	p, missing := t.today()
	var lost []string
	if p != nil && p != next {
		switch {
		case p.Features == nil:
			missing = append(missing, verdict.GearValue(&p.Entry, "features", "what the link of today gives: features"))
		case next.Features == nil && len(p.Features) > 0:
			missing = append(missing, verdict.GearValue(&next.Entry, "features", "what this link gives: features"))
		default:
			lost = p.Beyond(next)
		}
		lost = append(lost, lostLimits(p.Limits, next.Limits)...)
	}
	if p != nil {
		recording, unstated := t.lostRecording()
		lost, missing = append(lost, recording...), append(missing, unstated...)
	}
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Link, CodeFeaturesLost, subject, missing...))
	}
	if len(lost) == 0 {
		return findings
	}
	says := "Lost against now: " + strings.Join(lost, ", ") + "."
	if gained := next.Beyond(p); len(gained) > 0 {
		says += " Gained: " + strings.Join(gained, ", ") + "."
	}
	return append(findings, verdict.Finding{Code: CodeFeaturesLost, Level: verdict.Caution, Subject: subject,
		Says: says, Source: next.Source.String()})
}

// lostRecording is a recording of today's air unit that replaces an action camera, and
// that the next one does not make.
func (t *system) lostRecording() (lost []string, missing []verdict.Missing) {
	now := fleet.NowCase(t.Library, t.Fleet, t.Quad)
	before, _, ok := now.AirUnit()
	if !ok || before.ID == t.airUnit.ID && now.Fit.Camera == t.Fit.Camera {
		return nil, nil
	}
	was, is := records(now, before), records(t.Case, t.airUnit)
	ask := func(c fleet.Case) []verdict.Missing {
		on := c.Camera()
		return []verdict.Missing{
			verdict.GearValue(on.Of, on.Field("records"), "whether its recording replaces an action camera"),
		}
	}
	switch {
	case was == no || is == yes:
		return nil, nil
	case was == unsure:
		return nil, ask(now)
	case is == unsure:
		return nil, ask(t.Case)
	}
	return []string{"a recording that replaces an action camera"}, nil
}

// Records says whether the recording of a fit replaces an action camera; nil: not known. Without
// a digital air unit there is none.
func Records(c fleet.Case) *bool {
	u, _, ok := c.AirUnit()
	if !ok {
		return new(false)
	}
	switch records(c, u) {
	case yes:
		return new(true)
	case no:
		return new(false)
	}
	return nil
}

func records(c fleet.Case, u *gear.AirUnit) answer {
	on := c.Camera()
	switch {
	case on.Model == nil && u.Without("camera"):
		return no
	case on.Camera == nil || on.RecordsOwn == nil:
		return unsure
	case *on.RecordsOwn:
		return yes
	}
	return no
}

// lostLimits says which limits are tighter than before.
func lostLimits(was, is *gear.Limits) (lost []string) {
	if was == nil || is == nil {
		return nil
	}
	if was.BitrateMbps != nil && is.BitrateMbps != nil && unit.Over(*was.BitrateMbps, *is.BitrateMbps) {
		lost = append(lost, fmt.Sprintf("bit rate (%s at most, today %s)", is.BitrateMbps, was.BitrateMbps))
	}
	if was.RangeKM != nil && is.RangeKM != nil && unit.Over(*was.RangeKM, *is.RangeKM) {
		lost = append(lost, fmt.Sprintf("range (%s at most, today %s)", is.RangeKM, was.RangeKM))
	}
	return lost
}

// checkFlip asks whether a link can turn the picture of a camera that sits upside down.
func (t *system) checkFlip(p *gear.Pairing, subject string) []verdict.Finding {
	switch {
	case p.Gives(gear.FeatureFlip):
		return nil
	case len(p.Features) == 0:
		return []verdict.Finding{verdict.CannotTell(verdict.Link, CodeUpsideDown, subject,
			verdict.GearValue(&p.Entry, "features", "whether the picture can be flipped: features"))}
	}
	return []verdict.Finding{{Code: CodeUpsideDown, Level: verdict.Change, Subject: subject, Source: p.Source.String(),
		Says: "The camera sits upside down, and this link cannot flip the picture: remount the camera the right way up."}}
}
