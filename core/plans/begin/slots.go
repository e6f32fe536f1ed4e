package begin

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
)

// slot is a place of a quad that a thing of some kind goes into.
type slot struct {
	name, title string
	kind        gear.Kind
	holds       func(f *fleet.Fit) *fleet.Slot // of a device; nil: of a model
	model       func(f *fleet.Fit) string
	puts        func(c fleet.Case, s *fleet.Slot) fleet.Patch // a slot of a device, or of a model alone
	afterAnalog bool                                          // asked once digital video is planned
}

// The slots, in the order they are asked for (common practice: what it is flown with and
// what is on it, from the picture to what carries it).
var slots = []slot{
	{name: "airUnit", title: "air unit", kind: gear.KindAirUnit, afterAnalog: true,
		holds: func(f *fleet.Fit) *fleet.Slot { return f.AirUnit },
		puts:  func(_ fleet.Case, s *fleet.Slot) fleet.Patch { return fleet.Patch{AirUnit: s} }},
	{name: "camera", title: "camera instead of its own", kind: gear.KindCamera, afterAnalog: true,
		model: func(f *fleet.Fit) string { return f.Camera },
		puts: func(c fleet.Case, s *fleet.Slot) fleet.Patch {
			m := c.Fit.Mounting
			m.Camera = s.Model
			return fleet.Patch{Mounting: &m}
		}},
	{name: "goggles", title: "goggles", kind: gear.KindGoggles, afterAnalog: true,
		holds: func(f *fleet.Fit) *fleet.Slot { return f.Goggles },
		puts:  func(_ fleet.Case, s *fleet.Slot) fleet.Patch { return fleet.Patch{Goggles: s} }},
	{name: "controller", title: "controller", kind: gear.KindController, afterAnalog: true,
		holds: func(f *fleet.Fit) *fleet.Slot { return f.Controller },
		puts:  func(_ fleet.Case, s *fleet.Slot) fleet.Patch { return fleet.Patch{Controller: s} }},
	{name: "receiver", title: "receiver of its own", kind: gear.KindReceiver, afterAnalog: true,
		model: func(f *fleet.Fit) string { return f.Receiver },
		puts:  func(c fleet.Case, s *fleet.Slot) fleet.Patch { return c.Receive(s.Model) }},
	{name: "board", title: "flight board", kind: gear.KindBoard,
		model: func(f *fleet.Fit) string { return f.Board },
		puts:  func(c fleet.Case, s *fleet.Slot) fleet.Patch { return pins.Onto(c, s.Model) }},
	{name: "firmware", title: "flight firmware", kind: gear.KindFlightFirmware,
		model: func(f *fleet.Fit) string {
			if f.Runs == nil {
				return ""
			}
			return f.Runs.ID
		},
		puts: func(_ fleet.Case, s *fleet.Slot) fleet.Patch { return fleet.Patch{Runs: &fleet.Runs{ID: s.Model}} }},
	{name: "pack", title: "flight pack", kind: gear.KindPack,
		model: func(f *fleet.Fit) string { return f.Pack },
		puts:  func(_ fleet.Case, s *fleet.Slot) fleet.Patch { return fleet.Patch{Pack: &s.Model} }},
	{name: "antennas", title: "antennas", kind: gear.KindAntenna, afterAnalog: true,
		model: func(f *fleet.Fit) string {
			if f.Antennas == nil || len(f.Antennas.Models) == 0 {
				return ""
			}
			return f.Antennas.Models[0]
		},
		puts: putAntennas},
	{name: "frame", title: "frame", kind: gear.KindFrame,
		model: func(f *fleet.Fit) string { return f.Frame },
		puts:  putFrame},
}

// putAntennas puts as many of a model on as the air unit has plugs; two where that is not
// said (common practice).
func putAntennas(c fleet.Case, s *fleet.Slot) fleet.Patch {
	a := fleet.Antennas{}
	if c.Fit.Antennas != nil {
		a = *c.Fit.Antennas
	}
	n := 2
	if u, _, ok := c.AirUnit(); ok && u.Radio != nil && u.Radio.Antennas != nil {
		n = *u.Radio.Antennas
	}
	a.Models = nil
	if s.Model != "" {
		a.Models = slices.Repeat([]string{s.Model}, n)
	}
	return fleet.Patch{Antennas: &a}
}

// putFrame puts a frame in; where it has one bay, the unit sits there.
func putFrame(c fleet.Case, s *fleet.Slot) fleet.Patch {
	m := c.Fit.Mounting
	if m.Frame != s.Model {
		m.Frame, m.Bay, m.Plate, m.Screw = s.Model, "", "", ""
	}
	if f, ok := gear.Find[*gear.Frame](c.Library, s.Model); ok && len(f.Bays) == 1 {
		m.Bay = f.Bays[0].ID
	}
	return fleet.Patch{Mounting: &m}
}

// Slot is a place of a quad with what is in it and what could be.
type Slot struct {
	Name    string   `json:"name"`
	Title   string   `json:"title"`
	Kind    string   `json:"kind"`
	Device  bool     `json:"device" doc:"somebody owns single pieces of it, each with a release on it"`
	Holds   string   `json:"holds" doc:"what is in it, in words; empty: nothing"`
	Model   string   `json:"model" doc:"the id of the model in it"`
	Kit     string   `json:"kit" doc:"the piece of kit in it; empty: none owned"`
	Open    bool     `json:"open" doc:"nothing is in it, and something is to be"`
	Asks    []string `json:"asks" doc:"what is missing of what is in it, in words"`
	Choices []Choice `json:"choices"`
}

// Choice is something that can be put into a slot.
type Choice struct {
	Key   string `json:"key"`
	Label string `json:"label"`
	Note  string `json:"note"`
	Group string `json:"group" enum:"yours,shelf" doc:"where it lies"`
}

// Groups of choices.
const (
	GroupYours = "yours" // owned, or a model that is described already
	GroupShelf = "shelf" // on the trade shelf, to be copied
)

// mostChoices bounds what is listed for a slot.
const mostChoices = 200

// Slots lists the places of a fit with what could be put in; shelf is what can be copied.
func Slots(c fleet.Case, shelf *gear.Set) []Slot {
	list := make([]Slot, 0, len(slots))
	for _, s := range slots {
		view := Slot{Name: s.name, Title: s.title, Kind: string(s.kind), Device: s.holds != nil, Asks: []string{},
			Choices: []Choice{}}
		view.hold(c, s)
		view.Open = view.Holds == "" && s.wanted(c.Fit)
		if s.holds != nil {
			view.devices(c, s)
		}
		view.models(c, s)
		for _, item := range s.offered(c, shelf) {
			if _, taken := c.Library.Item(item.Head().ID); !taken {
				view.Choices = append(view.Choices, Choice{"shelf:" + item.Head().ID, item.Head().Label(),
					item.Head().Source.String(), GroupShelf})
			}
		}
		view.Choices = view.Choices[:min(len(view.Choices), mostChoices)]
		list = append(list, view)
	}
	return list
}

// wanted says whether something is to be in the slot: nothing of digital video, and no sticks, on
// a quad that carries analog video alone, whose receiver counts once it is to stay; no receiver
// of its own beside sticks that go through the unit (common practice).
func (s slot) wanted(f *fleet.Fit) bool {
	switch {
	case s.afterAnalog && f.Analog != "" && f.AirUnit == nil:
		return false
	case s.kind == gear.KindCamera: // most have their own
		return false
	case s.kind == gear.KindReceiver:
		return f.Controller == nil
	}
	return true
}

// offered are the things of the shelf that could go into the slot: antennas with the plug of the
// unit that is there.
func (s slot) offered(c fleet.Case, shelf *gear.Set) (list []gear.Item) {
	u, _, hasUnit := c.AirUnit()
	if s.kind != gear.KindAntenna || !hasUnit || u.Radio == nil {
		return itemsOf(shelf, s.kind)
	}
	for _, a := range shelfAntennas(c.Library, shelf, &u.Radio.AntennaPort) {
		list = append(list, &a)
	}
	return list
}

// Ask notes at each slot what findings are missing of what is in it.
func Ask(slots []Slot, findings []verdict.Finding) {
	for i := range slots {
		s := &slots[i]
		for _, f := range findings {
			for _, m := range f.Missing {
				of := m.Of == "gear" && m.ID == s.Model || m.Of == "kit" && m.ID == s.Kit
				if of && m.ID != "" && !slices.Contains(s.Asks, m.Label) {
					s.Asks = append(s.Asks, m.Label)
				}
			}
		}
	}
}

func itemsOf(set *gear.Set, kind gear.Kind) []gear.Item {
	row, ok := kind.Row()
	if set == nil || !ok {
		return nil
	}
	for _, list := range set.Lists() {
		if list.Name == row.List {
			return list.Items
		}
	}
	return nil
}

// hold says what is in the slot.
func (v *Slot) hold(c fleet.Case, s slot) {
	if s.holds == nil {
		v.Model = s.model(c.Fit)
	} else if in := s.holds(c.Fit); in != nil {
		v.Model, v.Kit = in.Model, in.Kit
		if piece, ok := c.Fleet.Piece(in.Kit); ok {
			v.Model, v.Holds = piece.Model, piece.Label()
			return
		}
	}
	if v.Model != "" {
		v.Holds = c.Library.Label(v.Model)
	}
}

// devices are the pieces of kit of the slot's kind, with where else each is planned.
func (v *Slot) devices(c fleet.Case, s slot) {
	for i := range c.Fleet.Kit {
		kit := &c.Fleet.Kit[i]
		item, ok := c.Library.Item(kit.Model)
		if !ok || item.Kind() != s.kind {
			continue
		}
		note := "firmware not known"
		if kit.Firmware.Known() {
			note = "on " + string(kit.Firmware)
		}
		if other, taken := c.Fleet.Holder(kit.ID, c.Quad.ID); taken && s.kind == gear.KindAirUnit {
			note += ", planned into " + other.Label()
		}
		v.Choices = append(v.Choices, Choice{"kit:" + kit.ID, kit.Label(), note, GroupYours})
	}
}

// models are those that are described, with how many are in the drawer.
func (v *Slot) models(c fleet.Case, s slot) {
	for _, item := range c.Library.Items() {
		if item.Kind() != s.kind {
			continue
		}
		id, note := item.Head().ID, "described, none of yours"
		switch n := c.Fleet.SpareCount(id, c.Quad.ID); {
		case s.kind == gear.KindFlightFirmware:
			note = "described"
		case n > 0:
			note = fmt.Sprintf("%d in the drawer", n)
		case s.holds != nil:
			note = "another one of it"
		}
		v.Choices = append(v.Choices, Choice{"model:" + id, item.Head().Label(), note, GroupYours})
	}
}

// Take says what goes into a slot: something of Choices by its key, or a new model by its
// name, like another where Like names one. An empty key and name empty the slot.
type Take struct {
	Key  string `json:"key,omitempty"`
	Name string `json:"name,omitempty" maxLength:"200"`
	Like string `json:"like,omitempty" doc:"a model to copy, by its id"`
	// Mine: a device that is put in is owned; else it is still to be bought.
	Mine bool `json:"mine" doc:"a device that is put in is owned, and is a piece of kit from now on"`
}

// Fill puts something into a slot of a quad, today or as planned. Models, kit and copies
// from the shelf that it takes are made with it.
func Fill(st *stock.Stock, shelf *gear.Set, quad string, today bool, name string, take Take) error {
	at := slices.IndexFunc(slots, func(s slot) bool { return s.name == name })
	if at < 0 {
		return fmt.Errorf("a quad has no place called %q", name)
	}
	s := slots[at]
	q, ok := st.Fleet.Quad(quad)
	if !ok {
		return fmt.Errorf("no quad %q", quad)
	}
	sideOf := fleet.NewCase
	if today {
		sideOf = fleet.NowCase
	}
	in, err := s.bring(st, s.offered(sideOf(st.Library(), fleet.NewIndex(st.Fleet), q), shelf), take)
	if err != nil {
		return err
	}
	f := *st.Fleet
	f.Quads = slices.Clone(f.Quads)
	st.Fleet = &f
	c := sideOf(st.Library(), fleet.NewIndex(st.Fleet), q)
	patch := change.SettlePick(c, s.puts(c, in))
	if !today {
		return st.Plan(quad, patch)
	}
	stays := q.Next != nil && s.in(q.Next) == s.in(&q.Now) // the plan keeps what is there
	if err := st.Note(quad, patch); err != nil || !stays {
		return err
	}
	next := fleet.NewCase(st.Library(), fleet.NewIndex(st.Fleet), q)
	return st.Plan(quad, change.SettlePick(next, s.puts(next, in)))
}

// in is what a fit has in the slot.
func (s slot) in(f *fleet.Fit) fleet.Slot {
	if s.holds == nil {
		return fleet.Slot{Model: s.model(f)}
	}
	if in := s.holds(f); in != nil {
		return fleet.Slot{Kit: in.Kit, Model: in.Model}
	}
	return fleet.Slot{}
}

// bring makes what goes into the slot and says what it is.
func (s slot) bring(st *stock.Stock, shelf []gear.Item, take Take) (*fleet.Slot, error) {
	model := ""
	way, id, _ := strings.Cut(take.Key, ":")
	switch {
	case take.Key == "" && take.Name == "":
		return &fleet.Slot{}, nil
	case take.Key == "":
		like, _ := st.Library().Item(take.Like)
		made, err := Model(st, s.kind, take.Name, like)
		if err != nil {
			return nil, err
		}
		model = made
	case way == "kit":
		if piece, ok := st.Fleet.Piece(id); ok && s.holds != nil {
			if item, known := st.Library().Item(piece.Model); known && item.Kind() == s.kind {
				return &fleet.Slot{Kit: id}, nil
			}
		}
		return nil, fmt.Errorf("no %s of that name is owned", s.title)
	case way == "model":
		model = id
	case way == "shelf":
		if err := s.copied(st, shelf, id); err != nil {
			return nil, err
		}
		model = id
	}
	if item, ok := st.Library().Item(model); !ok || item.Kind() != s.kind {
		return nil, fmt.Errorf("%q is no %s", take.Key, s.title)
	}
	if s.holds != nil && take.Mine {
		return &fleet.Slot{Kit: Own(st, model)}, nil
	}
	return &fleet.Slot{Model: model}, nil
}

// copied takes a model from the shelf.
func (s slot) copied(st *stock.Stock, shelf []gear.Item, id string) error {
	for _, item := range shelf {
		if item.Head().ID == id {
			return Copy(st, item)
		}
	}
	return fmt.Errorf("the trade shelf has no %s of that name", s.title)
}

// After is the place of the plan that is to be filled once all places of today are: the air unit
// of a quad that carries analog video and has none planned. Empty: none.
func After(q *fleet.Quad) string {
	if q.Now.Analog != "" && (q.Next == nil || q.Next.AirUnit == nil) {
		return slots[0].name
	}
	return ""
}
