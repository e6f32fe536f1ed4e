// Package fleet describes what is owned and flown: kit, spares and quads, each
// quad with the fit it has now and the fit it shall have next. It is plain
// data in the shape of the open fleet file (see docs/format).
package fleet

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/measure/unit"
)

// Fleet is a whole fleet.
type Fleet struct {
	Format    string   `json:"format"` // "fleet"
	Version   int      `json:"version"`
	Title     string   `json:"title"`
	GearPacks []string `json:"gearPacks,omitempty"` // ids of the gear packs it refers to
	Region    string   `json:"region,omitempty"`    // whose limits hold
	// Language is the one guides are read in, two letters; absent: English where there is one.
	Language string  `json:"language,omitempty"`
	Kit      []Kit   `json:"kit,omitempty"`
	Spares   []Spare `json:"spares,omitempty"`
	Quads    []Quad  `json:"quads,omitempty"`
	// Courses are flown to hold flights against each other, TestFlights are those.
	Courses     []Course     `json:"courses,omitempty"`
	TestFlights []TestFlight `json:"testFlights,omitempty"`
	Tasks       []Task       `json:"tasks,omitempty"`
	Goals
	// Means are what there is to spend, Rates what currencies are worth in others.
	Means *Means `json:"means,omitempty"`
	Rates []Rate `json:"rates,omitempty"`
	// Scenarios are plans kept beside the one there is.
	Scenarios []Scenario `json:"scenarios,omitempty"`
	Taken     []Taken    `json:"taken,omitempty"`
}

// Taken is one step of the route carried out, with what was read off the device
// afterwards. The first of a device holds what it carried before the route, and
// so where the way back leads.
type Taken struct {
	Kit      string           `json:"kit"`
	Do       string           `json:"do"` // "update", "mode" or "activate"
	From     firmware.Version `json:"from,omitempty"`
	FromMode string           `json:"fromMode,omitempty"`
	Planned  firmware.Version `json:"planned,omitempty"`
	Read     firmware.Version `json:"read,omitempty"` // update; absent: it shows none
	Mode     string           `json:"mode,omitempty"`
	// NotOffered: the tool did not offer the planned release; nothing was done.
	NotOffered bool   `json:"notOffered,omitempty"`
	At         string `json:"at"` // RFC 3339
}

// Goals are what the route for the fleet shall bring together.
type Goals struct {
	Wants  []Want   `json:"wants,omitempty"`
	Values []string `json:"values,omitempty"` // features that matter, in the words of the pairings
	// KeepWayBack: no step that cannot be undone.
	KeepWayBack bool   `json:"keepWayBack,omitempty"`
	By          string `json:"by,omitempty"` // yyyy-mm-dd
}

// Weight says how much a want counts.
type Weight string

// The weights.
const (
	Must Weight = "must"
	Wish Weight = "wish"
)

// Want says that a quad, as it shall be next, shall link with a pair of
// goggles.
type Want struct {
	Quad string `json:"quad"`
	// Turn is the fit the quad carries in turn that is meant; absent: its next fit.
	Turn    string `json:"turn,omitempty"`
	Goggles string `json:"goggles"` // kit id
	// Controller is the kit id of the controller that shall reach the quad, or
	// SeparateReceiver; empty: as the quad's next fit has it.
	Controller string `json:"controller,omitempty"`
	Weight     Weight `json:"weight"`
}

// SeparateReceiver in a want: a receiver of its own takes the sticks.
const SeparateReceiver = "separate"

// FileFormat and FileVersion mark a fleet file this program reads and writes.
const (
	FileFormat  = "fleet"
	FileVersion = 20
)

// Kit is one owned device that carries firmware: this pair of goggles, this
// air unit, this controller.
type Kit struct {
	ID        string           `json:"id"`
	Name      string           `json:"name,omitempty"`
	Model     string           `json:"model"`
	Firmware  firmware.Version `json:"firmware,omitempty"`
	Mode      string           `json:"mode,omitempty"` // goggles
	Activated *bool            `json:"activated,omitempty"`
	// Locked says whether it is bound to the account of a former owner.
	Locked   *bool    `json:"locked,omitempty"`
	Antennas []string `json:"antennas,omitempty"` // goggles: models screwed on
	Adapter  string   `json:"adapter,omitempty"`  // between them and the goggles
	Matings  *int     `json:"matings,omitempty"`  // air unit: how often its antenna plugs have been on and off
	// Pack is what goggles are fed from; absent: what they came with.
	Pack string `json:"pack,omitempty"`
	// Revision of the hardware, as it is printed on it.
	Revision string `json:"revision,omitempty"`
	// Sell says that it is to be sold once nobody flies with it.
	Sell bool   `json:"sell,omitempty"`
	Note string `json:"note,omitempty"`
}

// Spare is a number of loose parts of a model, such as regulators in a drawer.
type Spare struct {
	Model string `json:"model"`
	Count int    `json:"count"`
	Note  string `json:"note,omitempty"`
}

// Quad is one craft with two fits, now and next.
type Quad struct {
	ID   string `json:"id"`
	Name string `json:"name,omitempty"`
	Use  string `json:"use,omitempty"`
	// Purpose is what counts for it; empty: not stated. Weight is how much it counts beside the
	// other quads; absent: once.
	Purpose Purpose `json:"purpose,omitempty"`
	Weight  *int    `json:"weight,omitempty"`
	// FullA is the pack current at full throttle: it sets how far the pack sags.
	FullA *unit.Amps `json:"fullA,omitempty"`
	// AUWG is its weight as it flies today; HoverA the pack current at hover.
	AUWG *unit.Grams `json:"auwG,omitempty"`
	// FlownIn is the first flight after its last swap; absent: none is noted.
	FlownIn *FlownIn   `json:"flownIn,omitempty"`
	HoverA  *unit.Amps `json:"hoverA,omitempty"`
	Now     Fit        `json:"now"`
	Next    *Fit       `json:"next,omitempty"` // absent: as now
	// InTurn are further fits it carries in turn with the one now; NextTurn is which of
	// them is planned: when that swap is finished, the two change places.
	InTurn   []TurnFit `json:"inTurn,omitempty"`
	NextTurn string    `json:"nextTurn,omitempty"`
	Outings  []Outing  `json:"outings,omitempty"` // as they were noted
	Note     string    `json:"note,omitempty"`
}

// Purpose is what a quad is flown for, as far as it decides what is worth having on it.
type Purpose string

// The purposes.
const (
	Films     Purpose = "films"    // by itself
	Carries   Purpose = "carries"  // an action camera
	Inspects  Purpose = "inspects" // what is far or small
	Races     Purpose = "races"
	Trains    Purpose = "trains"
	Fun       Purpose = "fun"
	NoPurpose Purpose = "none"
)

// Label is the quad's name, or its id.
func (q *Quad) Label() string { return orID(q.Name, q.ID) }

// Label is the kit's name, or its id.
func (k *Kit) Label() string { return orID(k.Name, k.ID) }

func orID(name, id string) string {
	if name != "" {
		return name
	}
	return id
}

// NextFit is the planned fit; it starts as a copy of the fit now.
func (q *Quad) NextFit() Fit {
	if q.Next == nil {
		return q.Now.Clone()
	}
	return *q.Next
}

// Quad looks up a quad by its id.
func (f *Fleet) Quad(id string) (*Quad, bool) {
	for i := range f.Quads {
		if f.Quads[i].ID == id {
			return &f.Quads[i], true
		}
	}
	return nil, false
}

// Alike is the same for pieces of kit of which one stands for the other.
func (k *Kit) Alike() string {
	activated, locked := "?", "?"
	if k.Activated != nil {
		activated = strconv.FormatBool(*k.Activated)
	}
	if k.Locked != nil {
		locked = strconv.FormatBool(*k.Locked)
	}
	own := []string{k.Model, string(k.Firmware), k.Mode, activated, locked, k.Adapter, k.Revision}
	return strings.Join(append(own, k.Antennas...), " ")
}

// plan is NextFit without the copy, for reading only.
func (q *Quad) plan() *Fit {
	if q.Next != nil {
		return q.Next
	}
	return &q.Now
}

// Piece looks up a piece of kit by its id; an Index does so faster.
func (f *Fleet) Piece(id string) (*Kit, bool) {
	for i := range f.Kit {
		if f.Kit[i].ID == id {
			return &f.Kit[i], true
		}
	}
	return nil, false
}

// FliesWith says whether a piece of kit is the unit, the goggles or the controller of a fit.
func (f *Fit) FliesWith(kit string) bool {
	return slices.ContainsFunc([]*Slot{f.AirUnit, f.Goggles, f.Controller}, func(s *Slot) bool {
		return s != nil && s.Kit == kit
	})
}

// WillFlyWith says whether a quad is planned to fly with a piece of kit, or carries in turn what does.
func (q *Quad) WillFlyWith(kit string) bool {
	next := q.NextFit()
	return next.FliesWith(kit) || slices.ContainsFunc(q.InTurn, func(t TurnFit) bool { return t.Fit.FliesWith(kit) })
}

// TakeSpare takes one part of a model out of the drawer; false where none lies
// there.
func (f *Fleet) TakeSpare(model string) bool {
	i := slices.IndexFunc(f.Spares, func(p Spare) bool { return p.Model == model && p.Count > 0 })
	if i >= 0 {
		f.Spares[i].Count--
	}
	return i >= 0
}

// Own makes a new device of a model a piece of kit, and gives its id.
func (f *Fleet) Own(model string) string {
	id := model + "-1"
	for n := 2; ; n++ {
		if _, taken := f.Piece(id); !taken {
			break
		}
		id = fmt.Sprintf("%s-%d", model, n)
	}
	f.Kit = append(f.Kit, Kit{ID: id, Model: model})
	return id
}

// FlyWith gives the plans and scenarios that wait for goggles or a controller of a model the piece
// that has come: one was bought for all quads.
func (f *Fleet) FlyWith(model, kit string) {
	for i := range f.Quads {
		q := &f.Quads[i]
		q.Next = q.Next.flownWith(model, kit)
		q.InTurn = slices.Clone(q.InTurn)
		for k := range q.InTurn {
			q.InTurn[k].Fit = *q.InTurn[k].Fit.flownWith(model, kit)
		}
	}
	f.Scenarios = slices.Clone(f.Scenarios)
	for i := range f.Scenarios {
		s := &f.Scenarios[i]
		s.Quads = slices.Clone(s.Quads)
		for k := range s.Quads {
			s.Quads[k].Next = s.Quads[k].Next.flownWith(model, kit)
		}
	}
}

// flownWith is a fit with a piece in the place of goggles or a controller of a model that were to be
// bought; itself where there are none.
func (f *Fit) flownWith(model, kit string) *Fit {
	if f == nil {
		return nil
	}
	with := f.Clone()
	changed := false
	for _, slot := range []*Slot{with.Goggles, with.Controller} {
		if slot != nil && slot.Kit == "" && slot.Model == model {
			slot.Kit, slot.Model, changed = kit, "", true
		}
	}
	if !changed {
		return f
	}
	return &with
}

// AddSpare puts one part of a model into the drawer.
func (f *Fleet) AddSpare(model string) {
	i := slices.IndexFunc(f.Spares, func(p Spare) bool { return p.Model == model })
	if i < 0 {
		f.Spares = append(f.Spares, Spare{Model: model})
		i = len(f.Spares) - 1
	}
	f.Spares[i].Count++
}
