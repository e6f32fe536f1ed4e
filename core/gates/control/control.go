// Package control is the gate that asks whether the sticks reach the flight board
// and do there what the pilot expects: protocol and variant, channel order and
// ends, and a switch for each mode that cannot be thrown by accident.
package control

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
)

// The findings of this gate.
const (
	CodeUnknown  verdict.Code = "control.unknown"
	CodeNoBoard  verdict.Code = "control.no-board"
	CodeNothing  verdict.Code = "control.nothing"
	CodeProtocol verdict.Code = "control.protocol"
	CodeVariant  verdict.Code = "control.variant"
	CodeEnds     verdict.Code = "control.ends"
	CodeNoArm    verdict.Code = "control.no-arm"
	CodeArmIn    verdict.Code = "control.arm-within"
	CodeTwice    verdict.Code = "control.switch-twice"
	CodeMode     verdict.Code = "control.mode"
	CodeArmRange verdict.Code = "control.arm-range"
	CodeNever    verdict.Code = "control.never-on"
	CodeLatency  verdict.Code = "control.latency"
	CodeFits     verdict.Code = "control.fits"
)

// dangers of the findings: what arms by accident, or cannot be disarmed, falls or
// cannot be stopped, and so may what is not known of the switches.
var dangers = map[verdict.Code]verdict.Danger{
	CodeUnknown: verdict.Falls, CodeNothing: verdict.Falls, CodeArmIn: verdict.Falls, CodeArmRange: verdict.Falls,
}

// The modes builders put on switches.
const (
	Arm        = "arm"
	Level      = "level"
	FlipOver   = "flip-over"
	Beeper     = "beeper"
	ReturnHome = "return-home"
)

const (
	// lowEnd and highEnd are what the sticks shall reach (common practice), endSlack
	// how far off is worth a word (from memory).
	lowEnd, highEnd, endSlack = 1000, 2000, 15
	// later is by how many milliseconds hands notice a change (from memory).
	later = 8
	// armFrom and armTo are the usual arming range, in microseconds (common practice).
	armFrom, armTo = 1700, 2100
)

// hands is one fit with the way of the sticks.
type hands struct {
	fleet.Case
	airUnit  *gear.AirUnit
	air      fleet.State
	receiver *gear.Receiver // separate; nil: through the air unit
	runs     *gear.FlightFirmware
	missing  []verdict.Missing
}

// newHands finds the way of the sticks; false where nothing is there to bring them.
func newHands(c fleet.Case) (h *hands, ok bool) {
	h = &hands{Case: c}
	var hasUnit bool
	h.airUnit, h.air, hasUnit = c.AirUnit()
	h.receiver, _ = c.Receiver()
	if r := c.Fit.Runs; r != nil {
		h.runs, _ = gear.Find[*gear.FlightFirmware](c.Library, r.ID)
	}
	if h.runs == nil {
		h.missing = append(h.missing, verdict.FitValue(h.Case, "runs", "flight firmware of "+c.Quad.Label()))
	}
	_, _, flown := c.Controller()
	if h.receiver == nil && (!hasUnit || !flown) {
		return h, false
	}
	if _, known := pins.SticksPort(c); !known {
		h.missing = append(h.missing, verdict.FitValue(h.Case, "ports", "serial port the sticks come in on"))
	}
	h.need()
	return h, true
}

// need names what of the set-up is not said.
func (h *hands) need() {
	s := h.Fit.Sticks
	if s == nil {
		h.missing = append(h.missing, verdict.FitValue(h.Case, "sticks", "channels and switches of "+h.Quad.Label()))
		return
	}
	need := func(there bool, field, label string) {
		if !there {
			h.missing = append(h.missing, verdict.FitValue(h.Case, "sticks."+field, label+" of "+h.Quad.Label()))
		}
	}
	need(s.Order != "", "order", "channel order")
	need(s.MinUS != nil && s.MaxUS != nil, "minUS", "ends of the sticks")
	need(len(s.Switches) > 0, "switches", "switches")
	if h.receiver == nil {
		need(s.Unit != "", "unit", "RC protocol set in the goggles")
		need(s.Board != "", "board", "RC protocol set on the flight board")
	}
	if protocols(h.Case) == nil {
		if h.receiver != nil {
			h.missing = append(h.missing, verdict.GearValue(&h.receiver.Entry, "protocols", "protocols"))
		} else {
			h.missing = append(h.missing, verdict.GearValue(&h.airUnit.Entry, "rcOut.protocol", "protocol of its RC output"))
		}
	}
	if rc := h.airUnit; h.receiver == nil && (rc.RCOut == nil || len(rc.RCOut.Variants) == 0) {
		h.missing = append(h.missing, verdict.GearValue(&rc.Entry, "rcOut.variants", "RC protocols"))
	}
	if h.runs != nil && len(h.runs.Providers) == 0 {
		h.missing = append(h.missing, verdict.GearValue(&h.runs.Entry, "providers", "receiver protocols it reads"))
	}
}

// protocols lists what the sticks can come as: from a separate receiver, or from the
// air unit.
func protocols(c fleet.Case) []string {
	if r, ok := c.Receiver(); ok {
		return r.Protocols
	}
	if unit, _, ok := c.AirUnit(); ok && unit.RCOut != nil && unit.RCOut.Protocol != "" {
		return []string{unit.RCOut.Protocol}
	}
	return nil
}

// Protocol is what a flight board is to read the sticks as, the first that its
// firmware can; false where there is none.
func Protocol(c fleet.Case, runs *gear.FlightFirmware) (string, bool) {
	for _, p := range protocols(c) {
		if _, reads := runs.Providers[p]; reads {
			return p, true
		}
	}
	return "", false
}

// Check judges the way of the sticks.
func Check(c fleet.Case) []verdict.Finding {
	return verdict.Complete(verdict.Control, c.Quad.Label(), check(c), dangers)
}

func check(c fleet.Case) []verdict.Finding {
	if c.Fit.Board == "" && !c.Fit.Without(fleet.NoBoard) {
		return []verdict.Finding{verdict.CannotTell(verdict.Control, CodeUnknown, c.Quad.Label(),
			verdict.FitValue(c, "board", "flight board of "+c.Quad.Label()+", or that it has none"))}
	}
	if c.Fit.Board == "" && (c.Fit.AirUnit != nil || c.Fit.Receiver != "") {
		return []verdict.Finding{{
			Code:  CodeNoBoard,
			Level: verdict.Caution,
			Says:  "There is no flight board: nothing takes the sticks, and nothing arms.",
		}}
	}
	h, ok := newHands(c)
	if !ok {
		return []verdict.Finding{verdict.CannotTell(verdict.Control, CodeNothing, c.Quad.Label(),
			verdict.FitValue(h.Case, "controller", "controller or separate receiver of "+c.Quad.Label()))}
	}
	if len(h.missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Control, CodeUnknown, c.Quad.Label(), h.missing...)}
	}
	var findings []verdict.Finding
	findings = append(findings, h.checkProtocol()...)
	findings = append(findings, h.checkEnds()...)
	findings = append(findings, h.checkSwitches()...)
	findings = append(findings, h.checkLatency()...)
	if len(findings) == 0 {
		protocol, _ := Protocol(h.Case, h.runs)
		findings = append(findings, verdict.Finding{Code: CodeFits, Level: verdict.Fits,
			Says: fmt.Sprintf("The sticks come in on %s as %s, order %s, with %d switches.", way(c),
				strings.ToUpper(protocol), h.Fit.Sticks.Order, len(h.Fit.Sticks.Switches))})
	}
	return findings
}

// way is where the sticks come in, in words.
func way(c fleet.Case) string {
	port, _ := pins.SticksPort(c)
	if port == 0 {
		return "the board's own receiver"
	}
	return fmt.Sprintf("UART %d", port)
}

func (h *hands) checkProtocol() (findings []verdict.Finding) {
	if _, ok := Protocol(h.Case, h.runs); !ok {
		findings = append(findings, verdict.Finding{Code: CodeProtocol, Level: verdict.Unfit, Source: h.runs.Source.String(),
			Says: fmt.Sprintf("%s reads none of %s.", h.runs.Label(), strings.Join(protocols(h.Case), ", "))})
	}
	s := h.Fit.Sticks
	if h.receiver != nil {
		return findings
	}
	if s.Unit != s.Board {
		findings = append(findings, verdict.Finding{Code: CodeVariant, Level: verdict.Change, Subject: h.airUnit.Label(),
			Compares: []verdict.Compare{{
				What:   "RC protocol",
				Needed: string(s.Unit) + " in the goggles",
				There:  string(s.Board) + " on the board",
			}},
			Says: fmt.Sprintf(
				"The goggles are set to %s, the flight board to %s: the sticks do nothing until both are the same.",
				s.Unit,
				s.Board,
			)})
	}
	if !slices.Contains(h.airUnit.RCOut.Variants, string(s.Unit)) {
		findings = append(findings, verdict.Finding{
			Code:    CodeVariant,
			Level:   verdict.Unfit,
			Subject: h.airUnit.Label(),
			Source:  h.airUnit.Source.String(),
			Says:    fmt.Sprintf("%s has no %s protocol.", h.airUnit.Label(), s.Unit),
		})
	}
	return findings
}

func (h *hands) checkEnds() []verdict.Finding {
	s := h.Fit.Sticks
	if off := max(abs(*s.MinUS-lowEnd), abs(*s.MaxUS-highEnd)); off > endSlack {
		return []verdict.Finding{{Code: CodeEnds, Level: verdict.Caution,
			Compares: []verdict.Compare{{
				What:   "ends of the sticks",
				Needed: fmt.Sprintf("%d to %d µs", lowEnd, highEnd),
				There:  fmt.Sprintf("%d to %d µs", *s.MinUS, *s.MaxUS),
			}},
			Says: fmt.Sprintf("The sticks go from %d to %d µs: calibrate the controller and set its end points to %d and %d, "+
				"or it may not arm and not reach full throttle.",
				*s.MinUS, *s.MaxUS, lowEnd, highEnd)}}
	}
	return nil
}

func abs(n int) int { return max(n, -n) }

// modeWords names a mode.
func modeWords(mode string) string {
	return strings.ReplaceAll(mode, "-", " ")
}

func overlap(a, b fleet.Switch) bool {
	return a.Aux == b.Aux && a.FromUS < b.ToUS && b.FromUS < a.ToUS
}

// checkSwitches looks for a mode on nothing, one on another's range, and arming
// where another switch throws it.
func (h *hands) checkSwitches() (findings []verdict.Finding) {
	add := func(code verdict.Code, level verdict.Level, says string, args ...any) {
		findings = append(findings, verdict.Finding{Code: code, Level: level, Says: fmt.Sprintf(says, args...)})
	}
	switches := h.Fit.Sticks.Switches
	if !slices.ContainsFunc(switches, func(s fleet.Switch) bool { return s.Mode == Arm }) {
		add(CodeNoArm, verdict.Change, "No switch arms it: it never spins up.")
	}
	for i, s := range switches {
		if _, known := h.runs.Modes[s.Mode]; !known {
			add(CodeMode, verdict.Unfit, "%s has no mode %s.", h.runs.Label(), modeWords(s.Mode))
		}
		if code, level, says := h.checkRange(s); code != "" {
			add(code, level, "%s", says)
		}
		for _, o := range switches[:i] {
			switch {
			case !overlap(s, o) || s.Mode == o.Mode || h.alwaysOn(s) || h.alwaysOn(o):
			case s.Mode == Arm || o.Mode == Arm:
				other := s.Mode
				if s.Mode == Arm {
					other = o.Mode
				}
				add(CodeArmIn, verdict.Unfit, "Arming lies within the range of %s on AUX %d: switching that arms the quad.",
					modeWords(other), s.Aux)
			default:
				add(CodeTwice, verdict.Caution, "%s and %s lie on the same range of AUX %d: one switch throws both.",
					verdict.Capital(modeWords(o.Mode)), modeWords(s.Mode), s.Aux)
			}
		}
	}
	return findings
}

// BoardSteps is the nearest end of a range a board can hold: they go in steps of 25 µs
// from 900 to 2100 (the protocol's public description, from memory).
func BoardSteps(us int) int { return min(max((us-900+12)/25, 0), 48)*25 + 900 }

// alwaysOn says whether a mode is on wherever its channel goes.
func (h *hands) alwaysOn(s fleet.Switch) bool {
	return BoardSteps(s.FromUS) <= *h.Fit.Sticks.MinUS && BoardSteps(s.ToUS) > *h.Fit.Sticks.MaxUS
}

// checkRange judges a range as the board holds it: it is on from its beginning to just
// before its end. One for arming that is never reached, never left, or that vanishes
// in the board's steps is no way to arm or, worse, none to disarm.
func (h *hands) checkRange(s fleet.Switch) (code verdict.Code, level verdict.Level, says string) {
	from, to := BoardSteps(s.FromUS), BoardSteps(s.ToUS)
	low, high := *h.Fit.Sticks.MinUS, *h.Fit.Sticks.MaxUS
	code, level = CodeNever, verdict.Caution
	if s.Mode == Arm {
		code, level = CodeArmRange, verdict.Unfit
	}
	name := verdict.Capital(modeWords(s.Mode))
	switch {
	case from >= to:
		return code, level, fmt.Sprintf("%s on AUX %d from %d to %d µs vanishes in the board's steps of 25 µs: it is "+
			"never on.",
			name, s.Aux, s.FromUS, s.ToUS)
	case from > high || to <= low:
		return code, level, fmt.Sprintf("%s on AUX %d from %d to %d µs is never reached: the channel goes from %d to "+
			"%d µs.",
			name, s.Aux, from, to, low, high)
	case s.Mode == Arm && h.alwaysOn(s):
		return code, level, fmt.Sprintf("Arming on AUX %d from %d to %d µs is never left: the quad cannot be disarmed.",
			s.Aux, from, to)
	}
	return "", "", ""
}

// lag is how late the sticks come, in milliseconds; false where it is not stated.
func (h *hands) lag() (float64, bool) {
	switch {
	case h.receiver != nil:
		if h.receiver.LatencyMS != nil {
			return *h.receiver.LatencyMS, true
		}
	case h.airUnit != nil && h.airUnit.RCOut != nil && h.Fit.Sticks != nil:
		ms, ok := h.airUnit.RCOut.LatencyMS[string(h.Fit.Sticks.Unit)]
		return ms, ok
	}
	return 0, false
}

// sameWay says whether the sticks come as they come today.
func (h *hands) sameWay(before *hands) bool {
	if h.receiver != nil || before.receiver != nil {
		return h.receiver == before.receiver
	}
	return h.airUnit == before.airUnit && h.Fit.Sticks != nil && before.Fit.Sticks != nil &&
		h.Fit.Sticks.Unit == before.Fit.Sticks.Unit
}

// noLag names the latency that is not stated.
func (h *hands) noLag() verdict.Missing {
	switch {
	case h.receiver != nil:
		return verdict.GearValue(&h.receiver.Entry, "latencyMS", "how late the sticks come through the receiver")
	case h.Fit.Sticks == nil || h.Fit.Sticks.Unit == "":
		return verdict.FitValue(h.Case, "sticks.unit", "RC protocol of "+h.Quad.Label())
	}
	return verdict.GearValue(&h.airUnit.Entry, "rcOut.latencyMS", "how late the sticks come through the RC output")
}

// checkLatency says what changes for the pilot's hands, where both ends are stated.
func (h *hands) checkLatency() []verdict.Finding {
	before, ok := newHands(fleet.NowCase(h.Library, h.Fleet, h.Quad))
	if !ok {
		return nil
	}
	if h.sameWay(before) {
		return nil
	}
	was, known := before.lag()
	is, also := h.lag()
	if !known || !also {
		var missing []verdict.Missing
		for _, end := range []struct {
			*hands
			known bool
		}{{before, known}, {h, also}} {
			if !end.known {
				missing = append(missing, end.noLag())
			}
		}
		return []verdict.Finding{verdict.CannotTell(verdict.Control, CodeLatency, h.Quad.Label(), missing...)}
	}
	if is-was < later {
		return nil
	}
	return []verdict.Finding{{Code: CodeLatency, Level: verdict.Caution,
		Compares: []verdict.Compare{{
			What:   "latency of the sticks",
			Needed: fmt.Sprintf("%.0f ms today", was),
			There:  fmt.Sprintf("%.0f ms", is),
			Margin: fmt.Sprintf("%+.0f ms", is-was),
		}},
		Says: fmt.Sprintf("The sticks come %.0f ms later than today: the first packs want care, near nobody.",
			math.Round(is-was))}}
}

// Candidates proposes both ends alike, another variant, and a switch to arm with; where nothing is
// said of the sticks, a whole set-up.
func Candidates(c fleet.Case) (list []verdict.Candidate) {
	h, ok := newHands(c)
	if l := Layouts(c); len(l) > 0 {
		list = append(list, verdict.Candidate{Effort: verdict.Setting, Patch: fleet.Patch{Sticks: &l[0].Sticks}})
	}
	if !ok || len(h.missing) > 0 {
		return list
	}
	propose := func(change func(*fleet.Sticks)) {
		next := *c.Fit.Sticks
		next.Switches = slices.Clone(next.Switches)
		change(&next)
		list = append(list, verdict.Candidate{Effort: verdict.Setting, Patch: fleet.Patch{Sticks: &next}})
	}
	if h.receiver == nil {
		for _, v := range []fleet.Variant{fleet.Normal, fleet.Fast, fleet.LowLatency} {
			if slices.Contains(h.airUnit.RCOut.Variants, string(v)) {
				propose(func(s *fleet.Sticks) { s.Unit, s.Board = v, v })
			}
		}
	}
	propose(func(s *fleet.Sticks) { s.MinUS, s.MaxUS = new(lowEnd), new(highEnd) })
	if aux, ok := h.freeAux(); ok {
		propose(func(s *fleet.Sticks) {
			s.Switches = slices.DeleteFunc(s.Switches, func(w fleet.Switch) bool { return w.Mode == Arm })
			s.Switches = append([]fleet.Switch{{Mode: Arm, Aux: aux, FromUS: armFrom, ToUS: armTo}}, s.Switches...)
		})
	}
	return list
}

// freeAux is the lowest auxiliary channel no mode but arming is on.
func (h *hands) freeAux() (int, bool) {
	const channels = 12 // of the usual sixteen, four are the sticks
	for aux := 1; aux <= channels; aux++ {
		if !slices.ContainsFunc(h.Fit.Sticks.Switches, func(s fleet.Switch) bool { return s.Aux == aux && s.Mode != Arm }) {
			return aux, true
		}
	}
	return 0, false
}
