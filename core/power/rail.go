package power

import (
	"slices"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/unit"
	"yokeswap/core/verdict"
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
	knownA   unit.Amps // what is known of the load
	noLoad   []verdict.Missing
	consumes []string // node ids
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

// budget sums the currents on a rail: each consumer at its peak power, at the
// lowest voltage the rail gives.
func (s supply) budget(rail *Rail, consumers []consumer) {
	out := convert(s.sees(rail.origin.input), rail.origin)
	if out.Lowest == nil {
		rail.noLoad = append(rail.noLoad, out.noLowest...)
		return
	}
	for i, node := range rail.consumes {
		watts, missing := s.peakPower(node, consumers, maxDepth)
		rail.noLoad = append(rail.noLoad, missing...)
		peak := watts.Current(*out.Lowest)
		rail.knownA += peak
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

// peakPower is what a node draws at most; a regulator draws what hangs on it,
// divided by its efficiency. Missing values are listed and count as nothing.
func (s supply) peakPower(node string, consumers []consumer, depth int) (unit.Watts, []verdict.Missing) {
	var self *consumer
	for i := range consumers {
		if consumers[i].node == node {
			self = &consumers[i]
		}
	}
	if self == nil || depth == 0 {
		return 0, nil
	}
	if !self.regulator {
		if self.input.PeakW == nil {
			return 0, []verdict.Missing{self.value("peakW", "peak power")}
		}
		return *self.input.PeakW, nil
	}
	var sum unit.Watts
	var missing []verdict.Missing
	for i := range consumers {
		from, _ := s.Fit.FeedOf(consumers[i].node)
		if from != node {
			continue
		}
		watts, lacks := s.peakPower(consumers[i].node, consumers, depth-1)
		sum += watts
		missing = append(missing, lacks...)
	}
	o := s.regulatorOrigin(node)
	if o.converter == nil {
		return sum, append(missing, o.missing...)
	}
	if o.converter.Efficiency == nil {
		return sum, append(missing, verdict.GearValue(o.owner, "efficiency", "efficiency"))
	}
	return unit.Watts(float64(sum) / *o.converter.Efficiency), missing
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
	return verdict.GearValue(c.owner, c.field+field, words)
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
	if receiver, ok := gear.Find[*gear.Receiver](s.Library, s.Fit.Receiver); ok {
		list = append(list, consumer{node: fleet.NodeReceiver, label: receiver.Label(), input: &receiver.Input,
			owner: &receiver.Entry, field: "input."})
	}
	for i := range s.Fit.Loads {
		load := &s.Fit.Loads[i]
		list = append(list, consumer{node: load.ID, label: load.Label(), input: &load.Input,
			quadID: s.Quad.ID, field: s.FitName + ".loads." + load.ID + ".input."})
	}
	return list
}
