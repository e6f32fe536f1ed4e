// Package inspect looks at a gear pack on its own: what each entry lacks for which gate,
// and what is implausible against its kind.
//
// Method: each entry is tried in a build made of the pack's own gear, one of each kind; what
// a gate then asks of that entry is what it lacks. A value far outside what things of its
// kind have is told, not refused: it may be a new kind of thing, or a slipped decimal point.
//
// Source: common practice for the usual ranges, wide on purpose.
package inspect

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
)

// Remark is something to look at in an entry of a pack.
type Remark struct {
	Kind  string       `json:"kind"`
	Entry string       `json:"entry"`
	Name  string       `json:"name"`
	Gate  verdict.Gate `json:"gate,omitempty"`  // that lacks it; empty: it is implausible
	Field string       `json:"field,omitempty"` // as in the open formats
	Says  string       `json:"says"`
}

// Pack looks at every entry of a pack; the library holds what the pack may refer to.
func Pack(set *gear.Set, lib *gear.Library) []Remark {
	remarks := []Remark{}
	for _, list := range set.Lists() {
		for _, item := range list.Items {
			remarks = append(remarks, lacks(set, lib, item)...)
			remarks = append(remarks, implausible(item)...)
		}
	}
	return remarks
}

// lacks tries an entry in a build and says what of it the gates ask for.
func lacks(set *gear.Set, lib *gear.Library, item gear.Item) (remarks []Remark) {
	fit, kit := build(set, item)
	if fit == nil {
		return nil
	}
	q := fleet.Quad{ID: "tried", Next: fit}
	index := fleet.NewIndex(&fleet.Fleet{Kit: kit, Quads: []fleet.Quad{q}})
	head := item.Head()
	seen := map[string]bool{}
	for _, g := range swap.Judge(fleet.NewCase(lib, index, &q)).Gates {
		for _, f := range g.Findings {
			for _, m := range f.Missing {
				if m.Of == "gear" && m.ID == head.ID && !seen[m.Field] && m.Field != "pairings" {
					seen[m.Field] = true
					remarks = append(remarks, Remark{string(item.Kind()), head.ID, head.Label(), g.Gate, m.Field, m.Label})
				}
			}
		}
	}
	return remarks
}

// build is a fit of one of each kind of a pack, the entry in its place, with the kit it
// takes; nil where the entry has no place in a fit.
func build(set *gear.Set, item gear.Item) (*fleet.Fit, []fleet.Kit) {
	f := &fleet.Fit{}
	var kit []fleet.Kit
	own := func(model string, release *gear.Device) *fleet.Slot {
		k := fleet.Kit{ID: "own-" + model, Model: model}
		if n := len(release.Releases); n > 0 {
			k.Firmware = release.Releases[n-1].Version
		}
		kit = append(kit, k)
		return &fleet.Slot{Kit: k.ID}
	}
	if u := first(item, set.AirUnits); u != nil {
		f.AirUnit = own(u.ID, &u.Device)
	}
	if g := first(item, set.Goggles); g != nil {
		f.Goggles = own(g.ID, &g.Device)
	}
	if c := first(item, set.Controllers); c != nil {
		f.Controller = own(c.ID, &c.Device)
	}
	carry(f, set, item)
	switch item.Kind() {
	case gear.KindReceiver:
		f.Receiver, f.Controller = item.Head().ID, nil
	case gear.KindRegulator:
		f.Regulators = []fleet.PlacedRegulator{{ID: "reg", Model: item.Head().ID}}
		f.Feeds = []fleet.Feed{{To: "reg", From: fleet.NodePack}, {To: fleet.NodeAirUnit, From: "reg"}}
	case gear.KindPart:
		f.Parts = []fleet.PlacedPart{{ID: "part", Model: item.Head().ID}}
	case gear.KindAirUnit, gear.KindGoggles, gear.KindController, gear.KindBoard, gear.KindPack, gear.KindFrame,
		gear.KindAntenna, gear.KindFlightFirmware:
	default:
		return nil, nil
	}
	return f, kit
}

// carry puts the first board, pack, frame, antennas and flight firmware of a pack into a
// fit, the entry in its place.
func carry(f *fleet.Fit, set *gear.Set, item gear.Item) {
	if b := first(item, set.Boards); b != nil {
		f.Board = b.ID
		if len(b.Pads) > 0 {
			f.Feeds = []fleet.Feed{{To: fleet.NodeAirUnit, From: fleet.PadNode(b.Pads[0].ID)}}
		}
	}
	if p := first(item, set.Packs); p != nil {
		f.Pack = p.ID
	}
	if frame := first(item, set.Frames); frame != nil {
		f.Frame = frame.ID
		if len(frame.Bays) > 0 {
			f.Bay = frame.Bays[0].ID
		}
	}
	if a := first(item, set.Antennas); a != nil {
		f.Antennas = &fleet.Antennas{Models: []string{a.ID, a.ID}}
	}
	if r := first(item, set.FlightFirmware); r != nil {
		f.Runs = &fleet.Runs{ID: r.ID}
	}
}

// first is the entry itself where it is of that type, else the first of the list; nil where
// there is none.
func first[T any, P interface {
	*T
	gear.Item
}](item gear.Item, list []T) P {
	if is, ok := item.(P); ok {
		return is
	}
	if len(list) == 0 {
		return nil
	}
	return &list[0]
}

// usual is the range a value of a kind lies in.
type usual struct {
	field     string
	low, high float64
	unit      string
	value     func(gear.Item) (float64, bool)
}

func of[T gear.Item, Q ~float64](value func(T) *Q) func(gear.Item) (float64, bool) {
	return func(item gear.Item) (float64, bool) {
		if is, ok := item.(T); ok {
			if v := value(is); v != nil {
				return float64(*v), true
			}
		}
		return 0, false
	}
}

// ranges are what things of a kind usually have (common practice, wide on purpose).
var ranges = []usual{
	{"massG", 1, 200, "g", of(func(u *gear.AirUnit) *unit.Grams { return u.MassG })},
	{"input.maxV", 3, 60, "V", of(func(u *gear.AirUnit) *unit.Volts { return u.Input.MaxV })},
	{"input.peakW", 0.5, 40, "W", of(func(u *gear.AirUnit) *unit.Watts { return u.Input.PeakW })},
	{"massG", 0.2, 60, "g", of(func(r *gear.Receiver) *unit.Grams { return r.MassG })},
	{"input.maxV", 3, 30, "V", of(func(r *gear.Receiver) *unit.Volts { return r.Input.MaxV })},
	{"massG", 1, 150, "g", of(func(b *gear.Board) *unit.Grams { return b.MassG })},
	{"input.maxV", 3, 60, "V", of(func(b *gear.Board) *unit.Volts { return b.Input.MaxV })},
	{"massG", 3, 3000, "g", of(func(p *gear.Pack) *unit.Grams { return p.MassG })},
	{"milliohmPerCell", 0.3, 80, "mΩ", of(func(p *gear.Pack) *unit.Milliohms { return p.MilliohmPerCell })},
	{"outV", 1, 30, "V", of(func(r *gear.Regulator) *unit.Volts { return r.OutV })},
	{"maxA", 0.1, 30, "A", of(func(r *gear.Regulator) *unit.Amps { return r.MaxA })},
	{"massG", 0.3, 150, "g", of(func(a *gear.Antenna) *unit.Grams { return a.MassG })},
	{"radio.maxMW", 5, 5000, "mW", of(func(u *gear.AirUnit) *unit.Milliwatts {
		if u.Radio == nil {
			return nil
		}
		return u.Radio.MaxMW
	})},
	{"pitchMM", 0.4, 6, "mm", of(func(c *gear.Connector) *unit.Millimetres { return c.PitchMM })},
}

func implausible(item gear.Item) (remarks []Remark) {
	head := item.Head()
	for _, u := range ranges {
		if v, stated := u.value(item); stated && (v < u.low || v > u.high) {
			remarks = append(remarks, Remark{Kind: string(item.Kind()), Entry: head.ID, Name: head.Label(), Field: u.field,
				Says: fmt.Sprintf("%g %s: things of its kind have %g to %g %s", v, u.unit, u.low, u.high, u.unit)})
		}
	}
	return slices.Clip(remarks)
}
