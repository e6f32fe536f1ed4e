package fleet

import (
	"maps"
	"reflect"
	"slices"

	"yokeswap/core/measure/unit"
)

// Patch is a small change to a fit: what a builder picks on the screen and
// what a fix proposes are the same thing. A nil part is left as it is; an
// empty one is taken out.
type Patch struct {
	AirUnit     *Slot             `json:"airUnit,omitempty"`
	Goggles     *Slot             `json:"goggles,omitempty"`
	Controller  *Slot             `json:"controller,omitempty"`
	Receiver    *string           `json:"receiver,omitempty"`
	Board       *string           `json:"board,omitempty"`
	Pack        *string           `json:"pack,omitempty"`
	Feed        *Feed             `json:"feed,omitempty"`  // an empty From takes the feed out
	Feeds       []Feed            `json:"feeds,omitempty"` // several at once, in the same way
	Regulator   *PlacedRegulator  `json:"regulator,omitempty"`
	Jumper      *Jumper           `json:"jumper,omitempty"`
	CapacitorUF *unit.Microfarads `json:"capacitorUF,omitempty"` // zero takes it out
	CapacitorV  *unit.Volts       `json:"capacitorV,omitempty"`
	Wiring      *Wiring           `json:"wiring,omitempty"` // all of it
	Parts       []PlacedPart      `json:"parts,omitempty"`  // each in the place of its id; no model takes it out
	// ReceiverCable is all of it; an empty one takes it out.
	ReceiverCable *Cable    `json:"receiverCable,omitempty"`
	Antennas      *Antennas `json:"antennas,omitempty"` // all of it
	Mounting      *Mounting `json:"mounting,omitempty"` // all of it
	// Place is where one part lies.
	Place *Placing `json:"place,omitempty"`
	// Stand is where one antenna stands.
	Stand *StandAt `json:"stand,omitempty"`
	// TiltDeg is how far the camera looks up.
	TiltDeg *unit.Degrees `json:"tiltDeg,omitempty"`
	// LeaveOff is a plate of the frame.
	LeaveOff *LeaveOff `json:"leaveOff,omitempty"`
	// Cut is what the standoffs are cut to.
	Cut *Cut `json:"cut,omitempty"`
	// Hold is how one part is held; no way: by its own screws again.
	Hold   *Hold   `json:"hold,omitempty"`
	Runs   *Runs   `json:"runs,omitempty"`
	OSD    *Layout `json:"osd,omitempty"`    // all of it
	Sticks *Sticks `json:"sticks,omitempty"` // all of it
	// Features are all that are on; none: an empty list.
	Features []string `json:"features,omitzero"`
}

// Jumper sets the solder jumper of a pad to one of its choices.
type Jumper struct {
	Pad    string `json:"pad"`
	Choice string `json:"choice"`
}

// With gives the fit with the patch applied; the fit itself is unchanged.
// Feeds whose end is gone and regulators that feed nothing any more go too.
func (f Fit) With(p Patch) Fit { return f.Clone().Sharing(p) }

// Sharing is With for those who only read what they get: what the patch leaves alone is shared
// with the fit. It is for searches, which look at very many fits that differ little.
func (f Fit) Sharing(p Patch) Fit {
	out := f
	setSlot(&out.AirUnit, p.AirUnit)
	setSlot(&out.Goggles, p.Goggles)
	setSlot(&out.Controller, p.Controller)
	if p.Receiver != nil && *p.Receiver != f.Receiver {
		out.ReceiverCable = nil // the wires of another
	}
	setText(&out.Receiver, p.Receiver)
	if p.Board != nil && *p.Board != f.Board {
		out.Jumpers, out.Features = nil, nil // those of another board
	}
	setText(&out.Board, p.Board)
	setText(&out.Pack, p.Pack)
	if p.CapacitorV != nil {
		out.CapacitorV = clone(p.CapacitorV)
	}
	if p.CapacitorUF != nil {
		out.CapacitorUF = clone(p.CapacitorUF)
		if *p.CapacitorUF == 0 {
			out.CapacitorUF, out.CapacitorV = nil, nil
		}
	}
	out.stateNone(p)
	out.supply(p)
	out.wire(p)
	out.mount(p)
	if p.Antennas != nil {
		out.Antennas = p.Antennas.clone()
	}
	if p.Stand != nil {
		out.stand(*p.Stand)
	}
	out.set(p)
	out.letGo()
	out.prune()
	return out
}

// set sets up the flight board.
func (f *Fit) set(p Patch) {
	if p.Runs != nil {
		if f.Runs != nil && f.Runs.ID != p.Runs.ID {
			f.Features = nil // those of another
		}
		f.Runs = clone(p.Runs)
	}
	if p.OSD != nil {
		f.OSD = p.OSD.clone()
	}
	if p.Sticks != nil {
		f.Sticks = p.Sticks.clone()
	}
	if p.Features != nil {
		f.Features = slices.Clone(p.Features)
	}
}

// mount seats what a patch seats: all of it, one part's place, how one part is held.
func (f *Fit) mount(p Patch) {
	if p.Mounting != nil {
		f.Mounting = *p.Mounting
	}
	if p.Place != nil {
		f.setPlace(*p.Place)
	}
	if p.Hold != nil {
		f.setHold(*p.Hold)
	}
	if p.Cut != nil {
		f.StandoffCutMM = p.Cut.MM
	}
	if off := p.LeaveOff; off != nil {
		f.LeftOff = put(f.LeftOff, off.Plate, off.On, func(o string) bool { return o == off.Plate })
		if len(f.LeftOff) == 0 {
			f.LeftOff = nil
		}
	}
	if p.TiltDeg != nil {
		f.TiltDeg = clone(p.TiltDeg)
	}
}

// wire lays the wires of a patch, the air unit's, the receiver's and those of parts.
func (f *Fit) wire(p Patch) {
	if p.Wiring != nil {
		f.Wiring = p.Wiring.clone()
	}
	for _, part := range p.Parts {
		f.setPart(part)
	}
	if p.ReceiverCable != nil {
		f.ReceiverCable = new(p.ReceiverCable.clone())
		if reflect.DeepEqual(*p.ReceiverCable, Cable{}) {
			f.ReceiverCable = nil
		}
	}
	if f.Receiver == "" {
		f.ReceiverCable = nil
	}
}

// supply sets the jumper, places the regulator and lays the feed of a patch.
func (f *Fit) supply(p Patch) {
	if p.Jumper != nil {
		f.Jumpers = maps.Clone(f.Jumpers)
		if f.Jumpers == nil {
			f.Jumpers = map[string]string{}
		}
		f.Jumpers[p.Jumper.Pad] = p.Jumper.Choice
	}
	if p.Regulator != nil {
		f.Regulators = without(f.Regulators, func(r PlacedRegulator) bool { return r.ID == p.Regulator.ID })
		f.Regulators = append(slices.Clip(f.Regulators), *p.Regulator)
		f.setFeed(Feed{To: p.Regulator.ID, From: NodePack})
	}
	if p.Feed != nil {
		f.setFeed(*p.Feed)
	}
	for _, feed := range p.Feeds {
		f.setFeed(feed)
	}
}

// stateNone takes back what was stated to be absent and is put in now, and states
// what a patch takes out.
func (f *Fit) stateNone(p Patch) {
	for _, part := range []struct {
		what      string
		set, puts bool
	}{
		{NoBoard, p.Board != nil, f.Board != ""},
		{NoReceiver, p.Receiver != nil, f.Receiver != ""},
		{NoController, p.Controller != nil, f.Controller != nil},
	} {
		if !part.set {
			continue
		}
		f.None = without(f.None, func(n string) bool { return n == part.what })
		if !part.puts && part.what != NoController {
			f.None = append(slices.Clip(f.None), part.what)
		}
	}
	if len(f.None) == 0 {
		f.None = nil
	}
}

func setSlot(at **Slot, to *Slot) {
	if to == nil {
		return
	}
	*at = clone(to)
	if *to == (Slot{}) {
		*at = nil
	}
}

func setText(at *string, to *string) {
	if to != nil {
		*at = *to
	}
}

// setPart puts a part in, in the place of the one of its id.
func (f *Fit) setPart(p PlacedPart) {
	at := slices.IndexFunc(f.Parts, func(o PlacedPart) bool { return o.ID == p.ID })
	p.Cable = p.Cable.clone()
	switch {
	case p.Model == "":
		f.Parts = without(f.Parts, func(o PlacedPart) bool { return o.ID == p.ID })
	case at < 0:
		f.Parts = append(slices.Clip(f.Parts), p)
	default:
		f.Parts = slices.Clone(f.Parts)
		f.Parts[at] = p
	}
	if len(f.Parts) == 0 {
		f.Parts = nil
	}
}

func (f *Fit) setFeed(feed Feed) {
	f.Feeds = without(f.Feeds, func(g Feed) bool { return g.To == feed.To })
	if feed.From != "" {
		f.Feeds = append(slices.Clip(f.Feeds), feed)
	}
}

// without is a list without some; the list itself, which stays as it is, where there are none.
func without[T any](list []T, gone func(T) bool) []T {
	if !slices.ContainsFunc(list, gone) {
		return list
	}
	return slices.DeleteFunc(slices.Clone(list), gone)
}

func (f *Fit) prune() {
	for {
		before := len(f.Feeds) + len(f.Regulators)
		f.Feeds = without(f.Feeds, func(g Feed) bool { return !f.Has(g.To) })
		f.Regulators = without(f.Regulators, func(r PlacedRegulator) bool {
			return !slices.ContainsFunc(f.Feeds, func(g Feed) bool { return g.From == r.ID })
		})
		if len(f.Feeds)+len(f.Regulators) == before {
			break
		}
	}
	if len(f.Feeds) == 0 {
		f.Feeds = nil
	}
	if len(f.Regulators) == 0 {
		f.Regulators = nil
	}
}

// Has says whether the node that a feed leads to is part of the fit.
func (f *Fit) Has(node string) bool {
	switch node {
	case NodeAirUnit:
		return f.AirUnit != nil
	case NodeReceiver:
		return f.Receiver != ""
	case NodeBoard:
		return f.Board != ""
	}
	if _, ok := f.Load(node); ok {
		return true
	}
	if _, ok := f.Part(node); ok {
		return true
	}
	_, ok := f.Regulator(node)
	return ok
}
