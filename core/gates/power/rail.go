package power

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// Rail is a converter with everything that hangs on it.
type Rail struct {
	ID       string        `json:"id"`
	Label    string        `json:"label"`
	LoadA    *unit.Amps    `json:"loadA,omitempty"` // all consumers at their peak; nil: not known
	MaxA     *unit.Amps    `json:"maxA,omitempty"`
	TypicalA *unit.Amps    `json:"typicalA,omitempty"` // nil: not known of each
	HeatW    *unit.Watts   `json:"heatW,omitempty"`    // what the converter turns to heat at peak
	Carries  []Load        `json:"carries"`
	Level    verdict.Level `json:"level"`
	origin   origin
	knownA   unit.Amps // what is known of the load, at worst
	leastA   unit.Amps // and at least
	starved  bool      // on a low pack it gives nothing: no current can be reckoned
	noLoad   []verdict.Missing
	noBottom []verdict.Missing // what would pin down the voltage it is reckoned at
	consumes []string          // node ids
}

// Load is one consumer on a rail.
type Load struct {
	Label    string     `json:"label"`
	PeakA    *unit.Amps `json:"peakA,omitempty"` // at the lowest the rail gives; absent: not known
	TypicalA *unit.Amps `json:"typicalA,omitempty"`
}

// rails lists the converters in use in the order of the consumers they feed.
func (s supply) rails(consumers []consumer) []*Rail {
	var rails []*Rail
	byNode := map[string]*Rail{}
	for _, c := range consumers {
		from, ok := s.Fit.FeedOf(c.node)
		if !ok {
			continue
		}
		o := s.originOf(from)
		if o.converter == nil || len(o.missing) > 0 {
			continue
		}
		rail := byNode[o.node]
		if rail == nil {
			rail = &Rail{ID: o.node, Label: o.rail, MaxA: o.converter.MaxA, origin: o}
			byNode[o.node] = rail
			rails = append(rails, rail)
		}
		rail.Carries = append(rail.Carries, Load{Label: c.label})
		rail.consumes = append(rail.consumes, c.node)
	}
	for _, rail := range rails {
		s.budget(rail, consumers)
	}
	return rails
}

// drawnFrom is the current a part of constant power draws from a rail: what it sees is less
// by the drop in its lead, where that is stated.
func (s supply) drawnFrom(node string, rail unit.Volts, watts unit.Watts) unit.Amps {
	if lead := s.leadOf(node); lead != nil {
		if resistance, stated := lead.Resistance(); stated {
			if end := atEnd(rail, resistance, watts); end > 0 {
				rail = end
			}
		}
	}
	return watts.Current(rail)
}

// budget sums the currents on a rail: each consumer at its peak power, at the
// lowest voltage the rail gives.
func (s supply) budget(rail *Rail, consumers []consumer) {
	out := convert(s.sees(rail.origin.input), rail.origin)
	if out.Lowest == nil {
		rail.noLoad = append(rail.noLoad, out.noLowest...)
		return
	}
	rail.noBottom = out.noLowest
	if rail.starved = *out.Lowest <= 0; rail.starved {
		return
	}
	for i, node := range rail.consumes {
		watts, missing := s.peakPower(node, consumers, maxDepth)
		rail.noLoad = append(rail.noLoad, missing...)
		peak := s.drawnFrom(node, *out.Lowest, watts)
		rail.knownA += peak
		rail.leastA += s.drawnFrom(node, *out.bottom(), watts)
		if len(missing) == 0 {
			rail.Carries[i].PeakA = &peak
		}
	}
	if len(rail.noLoad) > 0 {
		return
	}
	rail.LoadA = &rail.knownA
	if e := rail.origin.converter.Efficiency; e != nil {
		peak := float64(rail.knownA) * float64(*out.Lowest)
		rail.HeatW = new(unit.Watts(peak / *e - peak))
	}
	var typical unit.Amps
	known := true
	for i, node := range rail.consumes {
		at := slices.IndexFunc(consumers, func(c consumer) bool { return c.node == node })
		if consumers[at].regulator || consumers[at].input.TypicalW == nil || out.Nominal == nil {
			known = false
			continue
		}
		rail.Carries[i].TypicalA = new(consumers[at].input.TypicalW.Current(*out.Nominal))
		typical += *rail.Carries[i].TypicalA
	}
	if known {
		rail.TypicalA = &typical
	}
}

// OnUSB says which parts live with only USB plugged in.
type OnUSB struct {
	Alive   []string `json:"alive"`
	Dead    []string `json:"dead"`
	Unknown []string `json:"unknown"` // the board's sheet does not say
}

// onUSB follows each feed to the pad it comes from.
func (s supply) onUSB(consumers []consumer) OnUSB {
	usb := OnUSB{Alive: []string{}, Dead: []string{}, Unknown: []string{}}
	for _, c := range consumers {
		from, ok := s.Fit.FeedOf(c.node)
		if !ok || c.node == fleet.NodeBoard {
			continue
		}
		o := s.originOf(from)
		pad, isPad := fleet.PadOf(o.node)
		switch {
		case len(o.missing) > 0:
			usb.Unknown = append(usb.Unknown, c.label)
		case !isPad: // the pack, or a regulator on it
			usb.Dead = append(usb.Dead, c.label)
		default:
			found, _ := s.board.Pad(pad)
			switch alive := found.AliveOnUSB; {
			case alive == nil:
				usb.Unknown = append(usb.Unknown, c.label)
			case *alive:
				usb.Alive = append(usb.Alive, c.label)
			default:
				usb.Dead = append(usb.Dead, c.label)
			}
		}
	}
	return usb
}

// peakPower is what a node draws at most. A regulator draws what hangs on it,
// divided by its efficiency; a board its own peak, what hangs on its pack pads, and
// what its regulated pads deliver, divided by theirs. Missing values are listed and
// count as nothing.
func (s supply) peakPower(node string, consumers []consumer, depth int) (unit.Watts, []verdict.Missing) {
	at := slices.IndexFunc(consumers, func(c consumer) bool { return c.node == node })
	if at < 0 || depth == 0 {
		return 0, nil
	}
	self := consumers[at]
	var sum unit.Watts
	var missing []verdict.Missing
	if !self.regulator {
		if self.input.PeakW == nil {
			missing = append(missing, self.value("peakW", "peak power"))
		} else {
			sum = *self.input.PeakW
		}
		if node != fleet.NodeBoard {
			return sum, missing
		}
	}
	for i := range consumers {
		from, fed := s.Fit.FeedOf(consumers[i].node)
		if !fed || !s.hangsOn(from, node) {
			continue
		}
		watts, lacks := s.peakPower(consumers[i].node, consumers, depth-1)
		missing = append(missing, lacks...)
		o := s.originOf(from)
		missing = append(missing, o.missing...)
		sum += unit.Watts(float64(watts) / efficiency(o))
	}
	return sum, missing
}

// hangsOn says whether a feed comes from a node: from a regulator itself, from any
// pad of the board.
func (s supply) hangsOn(from, node string) bool {
	if _, isPad := fleet.PadOf(from); isPad {
		return node == fleet.NodeBoard
	}
	return from == node
}

// efficiency is the share of its input that what a feed comes from hands on: all of
// it without a converter. Where a converter does not say, it counts as the worst.
func efficiency(o origin) float64 {
	switch {
	case o.converter == nil:
		return 1
	case o.converter.Efficiency == nil:
		return WorstEfficiency
	}
	return *o.converter.Efficiency
}

// padConsumer is the regulated pad behind a rail as a part with a window of its own.
func (s supply) padConsumer(r *Rail) (consumer, bool) {
	id, isPad := fleet.PadOf(r.ID)
	if !isPad || s.board == nil {
		return consumer{}, false
	}
	pad, ok := s.board.Pad(id)
	if !ok {
		return consumer{}, false
	}
	input := pad.Input
	if input.CeramicUF == nil {
		input.CeramicUF = s.board.Input.CeramicUF
	}
	return consumer{
		node:  r.ID,
		label: r.Label,
		input: &input,
		owner: &s.board.Entry,
		field: "pads." + id + ".input.",
	}, true
}

// consumer is a part with an input window.
type consumer struct {
	node      string
	label     string
	input     *gear.Input
	owner     *gear.Entry // nil: a load stated in the fit itself
	quadID    string
	field     string // path of the input on its sheet, with a dot behind
	regulator bool
}

func (c consumer) value(field, words string) verdict.Missing {
	if c.owner == nil {
		return verdict.Missing{Of: "quad", ID: c.quadID, Field: c.field + field, Label: words + " of " + c.label}
	}
	return ofPad(verdict.GearValue(c.owner, c.field+field, words), c.owner, c.label, c.field)
}

// ofPad says of a value of a board's pad which pad it is.
func ofPad(m verdict.Missing, board *gear.Entry, pad, field string) verdict.Missing {
	if strings.HasPrefix(field, "pads.") {
		m.Label = strings.TrimSuffix(m.Label, board.Label()) + pad + " of " + board.Label()
	}
	return m
}

// source says where the value of the window comes from.
func (c consumer) source(field string) string {
	if c.owner == nil {
		return "as stated with the quad"
	}
	return c.owner.SourceOf(c.field + field).String()
}

// consumers lists everything in the fit that has an input window: the board,
// regulators in use, then the parts they feed.
func (s supply) consumers() []consumer {
	var list []consumer
	if s.board != nil {
		list = append(list, consumer{node: fleet.NodeBoard, label: s.board.Label(), input: &s.board.Input,
			owner: &s.board.Entry, field: "input."})
	}
	for _, placed := range s.Fit.Regulators {
		if model, ok := gear.Find[*gear.Regulator](s.Library, placed.Model); ok {
			list = append(list, consumer{node: placed.ID, label: model.Label(), input: &model.Input,
				owner: &model.Entry, field: "input.", regulator: true})
		}
	}
	if unit, _, ok := s.AirUnit(); ok {
		list = append(list, consumer{node: fleet.NodeAirUnit, label: unit.Label(), input: &unit.Input,
			owner: &unit.Entry, field: "input."})
	}
	if receiver, ok := s.PlacedReceiver(); ok {
		list = append(list, consumer{node: fleet.NodeReceiver, label: receiver.Label(), input: &receiver.Input,
			owner: &receiver.Entry, field: "input."})
	}
	for i := range s.Fit.Parts {
		placed := &s.Fit.Parts[i]
		if part, ok := gear.Find[*gear.Part](s.Library, placed.Model); ok {
			list = append(list, consumer{node: placed.ID, label: part.Label(), input: &part.Input,
				owner: &part.Entry, field: "input."})
		}
	}
	for i := range s.Fit.Loads {
		load := &s.Fit.Loads[i]
		list = append(list, consumer{node: load.ID, label: load.Label(), input: new(load.Input.InVolts()),
			quadID: s.Quad.ID, field: s.FitName + ".loads." + load.ID + ".input."})
	}
	return list
}

// judgeRail compares the peak current of everything on a rail with its rating.
func judgeRail(r *Rail) verdict.Finding {
	f := verdict.Finding{Gate: verdict.Power, Subject: r.Label}
	if r.origin.owner != nil {
		f.Source = r.origin.owner.SourceOf(r.origin.field + "maxA").String()
	}
	if r.MaxA != nil {
		there, needed := unit.Pair(r.knownA, *r.MaxA)
		f.Compares = []verdict.Compare{{What: "peak current", Needed: needed + " at most",
			There: there, Margin: signed(float64(unit.Less(*r.MaxA, r.knownA)), 2) + " A"}}
	}
	missing := r.noLoad
	if r.MaxA == nil {
		missing = append(missing, verdict.GearValue(r.origin.owner, r.origin.field+"maxA", "current rating of "+r.Label))
	}
	switch {
	case r.starved && len(r.noBottom) > 0:
		f = verdict.CannotTell(verdict.Power, CodeUnknown, r.Label, r.noBottom...)
		f.Danger = verdict.Falls
	case r.starved:
		f.Code, f.Level, f.Danger, f.Compares = CodeDropout, verdict.Unfit, verdict.Falls, nil
		f.Says = verdict.Capital(r.Label) + " gives nothing on a low pack: its input is no higher than its dropout."
	case r.MaxA != nil && len(missing) == 0 && r.shortPeak():
		f.Code, f.Level = CodeRailPeak, verdict.Caution
		f.Says = fmt.Sprintf("%s carries %s at peak: over the %s it gives for long, and no more than the %s it gives for "+
			"%g s. A peak that lasts longer switches it off or burns it.", verdict.Capital(r.Label), r.knownA, r.MaxA,
			r.origin.converter.PeakA, *r.origin.converter.PeakS)
	case r.MaxA != nil && unit.Over(r.leastA, *r.MaxA):
		f.Code, f.Level = CodeRailOver, verdict.Unfit
		there, needed := unit.Pair(r.leastA, *r.MaxA)
		f.Says = fmt.Sprintf("%s carries %s at peak but is rated for %s.", verdict.Capital(r.Label), there, needed)
	case r.MaxA != nil && unit.Over(r.knownA, *r.MaxA):
		missing = append(missing, r.noBottom...)
		fallthrough
	case len(missing) > 0:
		f = verdict.CannotTell(verdict.Power, CodeUnknown, r.Label, missing...)
		f.Danger = verdict.Falls
	case unit.Over(r.knownA, *r.MaxA*(1-railReserve)):
		f.Code, f.Level = CodeRailTight, verdict.Caution
		f.Says = fmt.Sprintf("%s carries %s of %s at peak: little in reserve.", verdict.Capital(r.Label), r.knownA, r.MaxA)
	default:
		f.Code, f.Level = CodeRailFits, verdict.Fits
		f.Says = verdict.Capital(r.Label) + " carries " + r.knownA.String() + " of " + r.MaxA.String() + " at peak."
	}
	return f
}

// shortPeak says whether a peak over the rating is within what the rail gives for a stated
// time, while what is drawn for long is within the rating.
func (r *Rail) shortPeak() bool {
	c := r.origin.converter
	return unit.Over(r.knownA, *r.MaxA) && c.PeakA != nil && c.PeakS != nil && *c.PeakS >= leastPeakS &&
		!unit.Over(r.knownA, *c.PeakA) && r.TypicalA != nil && !unit.Over(*r.TypicalA, *r.MaxA)
}

// leastPeakS is the shortest time that helps: a unit sends at its peak for seconds, not
// for the milliseconds of an inrush (from memory).
const leastPeakS = 1.0

// judgeDropout warns of a step-down whose input comes too close to its output
// on a low pack: its output then follows the pack down.
func (s supply) judgeDropout(r *Rail) (verdict.Finding, bool) {
	c, in := r.origin.converter, s.sees(r.origin.input)
	if r.starved || c.Topology != gear.StepDown || c.DropoutV == nil || c.OutV == nil || in.Lowest == nil {
		return verdict.Finding{}, false // what is missing is said at the parts it feeds
	}
	needed := *c.OutV + *c.DropoutV
	if !unit.Over(needed, *in.Lowest) {
		return verdict.Finding{}, false
	}
	there, want := unit.Pair(*in.Lowest, needed)
	return verdict.Finding{Gate: verdict.Power, Code: CodeDropout, Level: verdict.Caution, Subject: r.Label,
		Says: fmt.Sprintf("%s needs %s in to hold %s; the pack falls to %s, and the output follows it down.",
			verdict.Capital(r.Label), want, c.OutV, there),
		Compares: []verdict.Compare{{What: "input, lowest under load", Needed: want + " at least",
			There: there, Margin: margin(unit.Less(*in.Lowest, needed))}},
		Source: r.origin.owner.SourceOf(r.origin.field + "dropoutV").String(),
	}, true
}
