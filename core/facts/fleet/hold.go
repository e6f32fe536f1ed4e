package fleet

import (
	"cmp"
	"slices"

	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Hold is how a part is held where it sits, where that is not by screws in its own holes,
// or not by them alone.
type Hold struct {
	// Part is what is held: airUnit, receiver, camera, antennas, or the id of a part.
	Part string `json:"part"`
	Way  Way    `json:"way"`
	// Bracket is the model of the bracket, cage or clip; what it states need not be stated here.
	Bracket string `json:"bracket,omitempty"`
	// Second is another way beside it, which holds where the first lets go.
	Second Way `json:"second,omitempty"`
	// ThickMM is what lies under the part: the tape, the floor of a bracket.
	ThickMM *unit.Millimetres `json:"thickMM,omitempty"`
	// InsideMM is the clear width of what holds the camera.
	InsideMM *unit.Millimetres `json:"insideMM,omitempty"`
	MassG    *unit.Grams       `json:"massG,omitempty"`
	// NearProps: what comes loose there reaches a propeller.
	NearProps *bool `json:"nearProps,omitempty"`
	// Screws are how many of its own hold a bracket, a cage or a clip; zero: it clamps.
	Screws *int `json:"screws,omitempty"`
	// Screw is their model.
	Screw string `json:"screw,omitempty"`
	// SoftensC is where what it is made of softens, in degrees Celsius.
	SoftensC *float64 `json:"softensC,omitempty"`
	// Awaits says in words what it is a stop-gap for; empty: it is meant to stay.
	Awaits string `json:"awaits,omitempty"`
	// Due is the day that is expected, as 2026-11-30.
	Due string `json:"due,omitempty"`

	label string // of its bracket
}

// HoldingOf is how a part is held, with what its bracket states; false where nothing says that it is
// held in another way than by its own screws.
func (c Case) HoldingOf(part string) (*Hold, bool) {
	h, ok := c.Fit.HoldingOf(part)
	if !ok {
		return nil, false
	}
	return c.whole(h), true
}

// Bracket is the model of what holds a part.
func (c Case) Bracket(h *Hold) (*gear.Bracket, bool) {
	return gear.Find[*gear.Bracket](c.Library, h.Bracket)
}

// whole is a holding with what its bracket states and it does not.
func (c Case) whole(stated *Hold) *Hold {
	of, there := c.Bracket(stated)
	if !there {
		return stated
	}
	h := *stated
	h.label = of.Label()
	if of.Way != "" {
		h.Way = Way(of.Way)
	}
	h.ThickMM, h.InsideMM = cmp.Or(h.ThickMM, of.ThickMM), cmp.Or(h.InsideMM, of.InsideMM)
	h.MassG, h.Screws, h.SoftensC = cmp.Or(h.MassG, of.MassG), cmp.Or(h.Screws, of.Screws), cmp.Or(h.SoftensC, of.SoftensC)
	return &h
}

// Way is a way of holding a part.
type Way string

// The ways.
const (
	HeldByScrews  Way = "screws"  // in its own holes
	HeldByBracket Way = "bracket" // printed, cut or bent, around the part or under it
	HeldByCage    Way = "cage"    // side plates or a cage for a camera
	HeldByClip    Way = "clip"    // on a standoff
	HeldBySoft    Way = "soft"    // a pad of foam or gel that sticks
	HeldByTape    Way = "tape"
	HeldByStrap   Way = "strap"
	HeldByTies    Way = "ties"
)

// The parts that can be held and are none of the wired ones.
const (
	NodeCamera   = "camera"
	NodeAntennas = "antennas"
)

// holdable are the parts that a fit can hold without an id of their own.
var holdable = []string{NodeAirUnit, NodeCamera, NodeAntennas, NodeReceiver}

// setHold holds a part in another way; no way: by its own screws again.
func (f *Fit) setHold(h Hold) {
	f.Holdings = put(f.Holdings, h, h.Way == "", func(o Hold) bool { return o.Part == h.Part })
}

// put is a list with an item in the place of the one that is the same, else at its end; or
// without it.
func put[T any](list []T, item T, out bool, same func(T) bool) []T {
	list = slices.Clone(list)
	at := slices.IndexFunc(list, same)
	switch {
	case out && at >= 0:
		return slices.Delete(list, at, at+1)
	case at >= 0:
		list[at] = item
	case !out:
		list = append(list, item)
	}
	return list
}

// Holdable is a part of a fit that can be held in one way or another.
type Holdable struct {
	Part  string `json:"part"`
	Label string `json:"label"`
	Words string `json:"words"`          // what holds it, after "held by"
	Hold  *Hold  `json:"hold,omitempty"` // absent: nothing else is stated
}

// Holdables are the parts of a fit that can be held in one way or another.
func (c Case) Holdables() []Holdable {
	list := []Holdable{}
	parts := slices.Clone(holdable)
	for i := range c.Fit.Parts {
		parts = append(parts, c.Fit.Parts[i].ID)
	}
	for _, part := range parts {
		label, there := c.PartLabel(part)
		if !there {
			continue
		}
		is := Holdable{Part: part, Label: label, Words: "not stated"}
		if part == NodeAirUnit || part == NodeCamera {
			is.Words = ways[HeldByScrews].by
		}
		if h, ok := c.Fit.HoldingOf(part); ok {
			is.Hold, is.Words = h, c.whole(h).Words()
		}
		list = append(list, is)
	}
	return list
}

// CanHold says whether a fit can hold a part of that name: one of those without an id of
// their own, or a part it carries.
func (f *Fit) CanHold(part string) bool {
	_, on := f.Part(part)
	return on || slices.Contains(holdable, part)
}

// letGo takes out the holdings and places of parts that the fit no longer carries.
func (f *Fit) letGo() {
	f.Holdings = without(f.Holdings, func(h Hold) bool { return !f.CanHold(h.Part) })
	if len(f.Holdings) == 0 {
		f.Holdings = nil
	}
	f.Places = without(f.Places, func(p Spot) bool { return !f.CanLie(p.Part) })
	if len(f.Places) == 0 {
		f.Places = nil
	}
}

// HoldingOf is how a part of the fit is held; false where nothing says that it is held in
// another way than by its own screws.
func (m *Mounting) HoldingOf(part string) (*Hold, bool) {
	i := slices.IndexFunc(m.Holdings, func(h Hold) bool { return h.Part == part })
	if i < 0 {
		return nil, false
	}
	return &m.Holdings[i], true
}

// OwnHoles says whether the air unit is held by screws in its own holes.
func (m *Mounting) OwnHoles() bool {
	h, ok := m.HoldingOf(NodeAirUnit)
	return !ok || h.Way == HeldByScrews
}

// ways are the ways in words: after "held by", and what has to be there for them.
var ways = map[Way]struct{ by, wants string }{
	HeldByScrews:  {"its screws", ""},
	HeldByBracket: {"a bracket", "bracket"},
	HeldByCage:    {"a cage of its own", "cage"},
	HeldByClip:    {"a clip on a standoff", "clip"},
	HeldBySoft:    {"a soft pad", "soft pad"},
	HeldByTape:    {"tape", "double-sided tape"},
	HeldByStrap:   {"a strap", "strap"},
	HeldByTies:    {"ties", "cable ties"},
}

// Words are the ways of a holding, after "held by".
func (h *Hold) Words() string {
	first := ways[h.Way].by
	if h.label != "" {
		first = "the " + h.label
	}
	if h.Second == "" {
		return first
	}
	return first + " and " + ways[h.Second].by
}

// Beside is what has to be at hand for a holding beside its bracket; empty: nothing.
func (h *Hold) Beside() string {
	if h.label == "" {
		return h.Wants()
	}
	return ways[h.Second].wants
}

// Wants is what has to be at hand for a holding; empty: nothing.
func (h *Hold) Wants() string {
	first, second := cmp.Or(h.label, ways[h.Way].wants), ways[h.Second].wants
	if first != "" && second != "" && first != second {
		return first + " and " + second
	}
	return cmp.Or(first, second)
}

// Formed says whether the first way has a mass of its own that counts: tape and ties have
// next to none.
func (h *Hold) Formed() bool {
	return h.Way == HeldByBracket || h.Way == HeldByCage || h.Way == HeldByClip
}

// Held is a part of a fit with how it is held, where that is not by its own screws alone.
type Held struct {
	*Hold         // with what its bracket states
	Stated *Hold  // as the fit has it
	Label  string // of the part
}

// HeldParts are the parts of a fit that are held in another way than by their own screws.
// What is said of a part that the fit does not carry is left out.
func (c Case) HeldParts() (list []Held) {
	for i := range c.Fit.Holdings {
		h := &c.Fit.Holdings[i]
		if label, there := c.PartLabel(h.Part); there {
			list = append(list, Held{c.whole(h), h, label})
		}
	}
	return list
}

// PartLabel is a part that can be held or lie somewhere, in words; false where the fit does not carry it.
func (c Case) PartLabel(part string) (string, bool) {
	unit, _, hasUnit := c.AirUnit()
	switch part {
	case NodeBoard:
		if b, ok := c.Board(); ok {
			return b.Label(), true
		}
	case NodeAirUnit:
		if hasUnit {
			return unit.Label(), true
		}
	case NodePack:
		if p, ok := c.Pack(); ok {
			return p.Label(), true
		}
	case NodeCamera:
		return "the camera", hasUnit || c.Fit.Analog != ""
	case NodeAntennas:
		return "the antennas", c.Fit.Antennas != nil
	case NodeReceiver:
		if r, ok := c.PlacedReceiver(); ok {
			return r.Label(), true
		}
	default:
		if placed, on := c.Fit.Part(part); on {
			return c.Library.Label(placed.Model), true
		}
	}
	return "", false
}
