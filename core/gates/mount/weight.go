package mount

import (
	"cmp"
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Part is a part that comes or leaves, with its mass; absent: not known.
type Part struct {
	Label string      `json:"label"`
	Comes bool        `json:"comes"`
	MassG *unit.Grams `json:"massG,omitempty"`
	// OffG is how far that may be off to either side, where its sheet states a range.
	OffG unit.Grams `json:"offG,omitempty"`
	// Rests says what its mass rests on: "weighed", "its sheet" or "guessed"; empty: stated of the
	// quad itself, or not known.
	Rests string `json:"rests,omitempty"`
}

// guessed is a mass from common practice: nobody has weighed that one.
const guessed = "guessed"

// rests are the sources of a mass in a word; a mass of another source is as its sheet has it.
var rests = map[gear.SourceKind]string{gear.Measured: "weighed", gear.Practice: guessed}

// weighed is a part with the mass its sheet states.
func weighed(e *gear.Entry, mass *unit.Grams) Part {
	p := Part{Label: e.Label(), MassG: mass, OffG: unit.Grams(e.EitherWay("massG"))}
	if mass != nil {
		p.Rests = cmp.Or(rests[e.SourceOf("massG").Kind], "its sheet")
	}
	return p
}

// Weight is what a swap does to the weight, hover and flight time.
type Weight struct {
	Parts   []Part      `json:"parts"`
	ChangeG *unit.Grams `json:"changeG,omitempty"` // absent: a mass is not known
	OffG    unit.Grams  `json:"offG,omitempty"`    // how far that may be off to either side
	BeforeG *unit.Grams `json:"beforeG,omitempty"`
	AfterG  *unit.Grams `json:"afterG,omitempty"`
	// HoverPower and FlightTime are shares of today's; the minutes are those of a hover
	// that leaves a fifth of the charge in the pack.
	HoverPower   *float64 `json:"hoverPower,omitempty"`
	FlightTime   *float64 `json:"flightTime,omitempty"`
	HoverMinNow  *float64 `json:"hoverMinNow,omitempty"`
	HoverMinNext *float64 `json:"hoverMinNext,omitempty"`
	Unknown      []string `json:"unknown"` // parts whose mass is not known
	// GuessedG is how much of what comes and leaves is a guess, weighed by nobody.
	GuessedG unit.Grams `json:"guessedG,omitempty"`
	// LeftOut are things that come or go and have no mass of their own here.
	LeftOut []string `json:"leftOut"`
	// MeasuredG is what the scale said after the swap; ErrorG how far what was
	// added up is off.
	MeasuredG *unit.Grams `json:"measuredG,omitempty"`
	ErrorG    *unit.Grams `json:"errorG,omitempty"`
	// Class says which line of the region the swap crosses; empty: none, or none is known.
	Class string `json:"class,omitempty"`
	// Sister is another quad on the same frame to hold it against; absent: there is none.
	Sister *Sister `json:"sister,omitempty"`
}

// Sister is a quad on the same frame that has been weighed.
type Sister struct {
	Label string     `json:"label"`
	AUWG  unit.Grams `json:"auwG"`
	// MoreG is what this quad weighs more after the swap.
	MoreG unit.Grams `json:"moreG"`
}

// AllG is what the quad weighs after the swap: measured, else added up; nil: not known.
func (w *Weight) AllG() *unit.Grams {
	if w.MeasuredG != nil {
		return w.MeasuredG
	}
	return w.AfterG
}

// Weigh adds up every part that leaves and comes. A weight measured after the
// swap goes before what was added up.
func Weigh(lib *gear.Library, f *fleet.Index, q *fleet.Quad, measured *unit.Grams) Weight {
	w := addUp(lib, f, q)
	var after unit.Grams
	if w.AfterG != nil {
		after = *w.AfterG
	}
	if measured != nil {
		w.MeasuredG = measured
		if w.AfterG != nil {
			w.ErrorG = new(*measured - *w.AfterG)
		}
		after = *measured
	}
	w.hover(fleet.NowCase(lib, f, q), fleet.NewCase(lib, f, q), after)
	w.beside(lib, f, q)
	return w
}

// beside holds what it weighs after the swap against the lines of the region, and against the
// quad on the same frame that weighs most like it.
func (w *Weight) beside(lib *gear.Library, f *fleet.Index, q *fleet.Quad) {
	all := w.AllG()
	if all == nil {
		return
	}
	if region, ok := gear.Find[*gear.Region](lib, f.Region); ok && w.BeforeG != nil {
		w.Class = crosses(region, *w.BeforeG, *all)
	}
	frame := fleet.NewCase(lib, f, q).Fit.Frame
	for i := range f.Quads {
		other := &f.Quads[i]
		if other.ID == q.ID || other.AUWG == nil || frame == "" || other.Now.Frame != frame {
			continue
		}
		more := *all - *other.AUWG
		if w.Sister == nil || max(more, -more) < max(w.Sister.MoreG, -w.Sister.MoreG) {
			w.Sister = &Sister{Label: other.Label(), AUWG: *other.AUWG, MoreG: more}
		}
	}
}

// crosses says which line of a region lies between two masses.
func crosses(region *gear.Region, before, after unit.Grams) string {
	was, is := region.ClassOf(before), region.ClassOf(after)
	name := func(c *gear.MassClass) string {
		if c == nil {
			return "none of its classes"
		}
		return "“" + c.Name + "”, from " + c.FromG.String()
	}
	if was == is {
		return ""
	}
	return fmt.Sprintf("In %s the swap takes it from %s to %s: other rules hold then. Read them where the authority "+
		"states them, before it flies.", region.Label(), name(was), name(is))
}

func addUp(lib *gear.Library, f *fleet.Index, q *fleet.Quad) Weight {
	before, after := fleet.NowCase(lib, f, q), fleet.NewCase(lib, f, q)
	w := Weight{
		Parts:   []Part{},
		Unknown: []string{},
		LeftOut: leftOut(before, after),
		BeforeG: q.AUWG,
	}
	now, next := masses(before), masses(after)
	left := append([]Part{}, next...)
	for _, p := range now {
		if i := indexOf(left, p.Label); i >= 0 {
			left = append(left[:i], left[i+1:]...)
			continue
		}
		w.Parts = append(w.Parts, p)
	}
	for _, p := range left {
		p.Comes = true
		w.Parts = append(w.Parts, p)
	}
	var change unit.Grams
	for _, p := range w.Parts {
		w.OffG += p.OffG
		if p.Rests == guessed {
			w.GuessedG += *p.MassG
		}
		switch {
		case p.MassG == nil:
			w.Unknown = append(w.Unknown, p.Label)
		case p.Comes:
			change += *p.MassG
		default:
			change -= *p.MassG
		}
	}
	if len(w.Unknown) > 0 {
		return w
	}
	w.ChangeG = &change
	if q.AUWG != nil && *q.AUWG+change > 0 {
		w.AfterG = new(*q.AUWG + change)
	}
	return w
}

// leftOut names what a swap brings or takes and nobody weighs one by one.
func leftOut(before, after fleet.Case) []string {
	list := []string{}
	now, next := before.Fit, after.Fit
	if change.Capacitor(now) != change.Capacitor(next) && !(capacitorWeighed(before) && capacitorWeighed(after)) {
		list = append(list, "the capacitor")
	}
	if now.Harness != next.Harness || len(now.Wires) != len(next.Wires) {
		list = append(list, "wires and solder")
	}
	if now.Screw != next.Screw || now.Washer != next.Washer || now.Plate != next.Plate {
		list = append(list, "screws and washers")
	}
	if len(now.LeftOff) != len(next.LeftOff) {
		list = append(list, "plates of the frame left off")
	}
	if unweighed(now) != unweighed(next) {
		list = append(list, "tape and ties without a mass of their own")
	}
	if len(now.Loads) != len(next.Loads) {
		list = append(list, "other loads")
	}
	return list
}

// capacitorWeighed says that there is no capacitor, or that it is stated what it weighs.
func capacitorWeighed(c fleet.Case) bool {
	k, ok := c.Capacitor()
	return c.Fit.CapacitorUF == nil || ok && k.MassG != nil
}

// unweighed counts the ties, tape and the like of a fit that have no mass of their own.
func unweighed(f *fleet.Fit) (n int) {
	for i := range f.Holdings {
		if h := &f.Holdings[i]; h.MassG == nil && !h.Formed() && h.Wants() != "" {
			n++
		}
	}
	return n
}

func indexOf(list []Part, label string) int {
	for i := range list {
		if list[i].Label == label {
			return i
		}
	}
	return -1
}

// masses lists the parts of a fit that have a mass of their own.
func masses(c fleet.Case) (list []Part) {
	add := func(label string, mass *unit.Grams) { list = append(list, Part{Label: label, MassG: mass}) }
	video := false // camera and transmitter are weighed as parts
	for i := range c.Fit.Parts {
		if p, ok := gear.Find[*gear.Part](c.Library, c.Fit.Parts[i].Model); ok {
			list = append(list, weighed(&p.Entry, p.MassG))
			video = video || p.Sort == gear.SortCamera || p.Sort == gear.SortTransmitter
		}
	}
	if u, _, ok := c.AirUnit(); ok {
		list = append(list, weighed(&u.Entry, u.MassG))
		list = append(list, cameraMass(c, u)...)
		if slices.Contains(u.MassWith, gear.WithAntennas) {
			add("less the antennas "+u.Label()+" comes with", nil)
		}
	} else if c.Fit.Analog != "" && !video {
		add(c.Fit.Analog+" camera and transmitter", c.Fit.AnalogG)
	}
	list = append(list, airframe(c)...)
	list = append(list, antennaMasses(c)...)
	for _, h := range c.HeldParts() {
		if h.MassG != nil || h.Formed() {
			add(h.Wants()+" of "+h.Label, h.MassG)
		}
	}
	if c.Fit.ActionG != nil {
		add("action camera", c.Fit.ActionG)
	}
	return list
}

// cameraMass is the camera where it is weighed apart. One in the place of the unit's own
// counts for itself; what the own one weighs within the unit's mass is then not known.
func cameraMass(c fleet.Case, u *gear.AirUnit) []Part {
	on := c.Camera()
	switch {
	case on.Model != nil:
		list := []Part{weighed(&on.Model.Entry, on.MassG)}
		if u.Camera == nil || u.Camera.MassG == nil {
			list = append(list, Part{Label: "less the own camera of " + u.Label()})
		}
		return list
	case on.Camera != nil && on.MassG != nil && !slices.Contains(u.MassWith, gear.WithCamera):
		return []Part{{Label: "camera of " + u.Label(), MassG: on.MassG}}
	}
	return nil
}

// airframe is what carries the rest and what joins it: receiver, board, frame, pack, plate,
// standoffs, capacitor, regulators, headers.
func airframe(c fleet.Case) (list []Part) {
	if r, ok := c.PlacedReceiver(); ok {
		list = append(list, weighed(&r.Entry, r.MassG))
	}
	if b, ok := c.Board(); ok {
		list = append(list, weighed(&b.Entry, b.MassG))
	}
	if frame, ok := c.Frame(); ok {
		list = append(list, weighed(&frame.Entry, frame.MassG))
	}
	if p, ok := c.Pack(); ok {
		list = append(list, weighed(&p.Entry, p.MassG))
	}
	if p, ok := c.Plate(); ok {
		list = append(list, weighed(&p.Entry, p.MassG))
	}
	if c.Fit.StandoffCutMM != nil {
		list = append(list, Part{Label: "standoffs as they are cut", MassG: posts(c)})
	} else if _, other := c.Standoff(); other {
		list = append(list, Part{Label: "other standoffs", MassG: posts(c)})
	}
	if k, ok := c.Capacitor(); ok && k.MassG != nil {
		list = append(list, weighed(&k.Entry, k.MassG))
	}
	for _, r := range c.Fit.Regulators {
		if model, ok := gear.Find[*gear.Regulator](c.Library, r.Model); ok {
			list = append(list, weighed(&model.Entry, model.MassG))
		}
	}
	for _, h := range c.Fit.HeaderModels() {
		if model, ok := gear.Find[*gear.Header](c.Library, h); ok {
			list = append(list, weighed(&model.Entry, model.MassG))
		}
	}
	return list
}

// antennaMasses are the unit's antennas and the adapters between.
func antennaMasses(c fleet.Case) (list []Part) {
	a := c.Fit.Antennas
	if a == nil {
		return nil
	}
	for _, id := range a.Models {
		if model, ok := gear.Find[*gear.Antenna](c.Library, id); ok {
			list = append(list, weighed(&model.Entry, model.MassG))
		}
	}
	if adapter, ok := gear.Find[*gear.Adapter](c.Library, a.Adapter); ok {
		for range a.Models {
			list = append(list, weighed(&adapter.Entry, adapter.MassG))
		}
	}
	return list
}

// posts is what other standoffs, or cut ones, weigh beyond the frame's own, as if of one stock: a
// standoff weighs with its length. Of the frame's own the mass of each is not stated: nil.
func posts(c fleet.Case) *unit.Grams {
	on, other := c.Standoff()
	by, known := c.RaisedMM()
	if frame, there := c.Frame(); there && other && known && on.MassG != nil && on.LengthMM != nil {
		return new(*on.MassG * unit.Grams(float64(frame.StandoffCount())*float64(by / *on.LengthMM)))
	}
	return nil
}
