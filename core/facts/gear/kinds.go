package gear

import "slices"

// KindRow is a row of the register of kinds: all that is to be known of a kind of gear
// besides its type and its schema.
type KindRow struct {
	Kind  Kind
	List  string // its list in a gear pack
	Word  string // one of them, as a builder says it
	Words string // several

	in lister
}

// Kinds is the register, in the order of the lists in a gear pack.
var Kinds = []KindRow{
	{KindAirUnit, "airUnits", "air unit", "air units", list[AirUnit](func(s *Set) *[]AirUnit { return &s.AirUnits })},
	{KindGoggles, "goggles", "goggles", "goggles", list[Goggles](func(s *Set) *[]Goggles { return &s.Goggles })},
	{KindController, "controllers", "controller", "controllers",
		list[Controller](func(s *Set) *[]Controller { return &s.Controllers })},
	{KindReceiver, "receivers", "receiver", "receivers", list[Receiver](func(s *Set) *[]Receiver { return &s.Receivers })},
	{KindPart, "parts", "wired part", "wired parts", list[Part](func(s *Set) *[]Part { return &s.Parts })},
	{KindBoard, "boards", "flight board", "flight boards", list[Board](func(s *Set) *[]Board { return &s.Boards })},
	{KindRegulator, "regulators", "regulator", "regulators",
		list[Regulator](func(s *Set) *[]Regulator { return &s.Regulators })},
	{KindPack, "packs", "flight pack", "flight packs", list[Pack](func(s *Set) *[]Pack { return &s.Packs })},
	{KindBracket, "brackets", "bracket, cage or clip", "brackets",
		list[Bracket](func(s *Set) *[]Bracket { return &s.Brackets })},
	{KindCapacitor, "capacitors", "capacitor", "capacitors",
		list[Capacitor](func(s *Set) *[]Capacitor { return &s.Capacitors })},
	{KindConnector, "connectors", "connector", "connectors",
		list[Connector](func(s *Set) *[]Connector { return &s.Connectors })},
	{KindHarness, "harnesses", "harness", "harnesses", list[Harness](func(s *Set) *[]Harness { return &s.Harnesses })},
	{KindHeader, "headers", "header", "headers", list[Header](func(s *Set) *[]Header { return &s.Headers })},
	{KindAntenna, "antennas", "antenna", "antennas", list[Antenna](func(s *Set) *[]Antenna { return &s.Antennas })},
	{KindAdapter, "adapters", "adapter", "adapters", list[Adapter](func(s *Set) *[]Adapter { return &s.Adapters })},
	{KindRegion, "regions", "region", "regions", list[Region](func(s *Set) *[]Region { return &s.Regions })},
	{
		KindBandPlan,
		"bandPlans",
		"band plan",
		"band plans",
		list[BandPlan](func(s *Set) *[]BandPlan { return &s.BandPlans }),
	},
	{KindFrame, "frames", "frame", "frames", list[Frame](func(s *Set) *[]Frame { return &s.Frames })},
	{KindCamera, "cameras", "camera", "cameras",
		list[CameraModel](func(s *Set) *[]CameraModel { return &s.Cameras })},
	{KindReadyQuad, "readyQuads", "ready-made quad", "ready-made quads",
		list[ReadyQuad](func(s *Set) *[]ReadyQuad { return &s.ReadyQuads })},
	{KindPlate, "plates", "adapter plate", "adapter plates", list[Plate](func(s *Set) *[]Plate { return &s.Plates })},
	{KindScrew, "screws", "screw", "screws", list[Screw](func(s *Set) *[]Screw { return &s.Screws })},
	{KindWasher, "washers", "washer", "washers", list[Washer](func(s *Set) *[]Washer { return &s.Washers })},
	{KindStandoff, "standoffs", "standoff", "standoffs", list[Standoff](func(s *Set) *[]Standoff { return &s.Standoffs })},
	{KindFlightFirmware, "flightFirmware", "flight firmware", "flight firmware",
		list[FlightFirmware](func(s *Set) *[]FlightFirmware { return &s.FlightFirmware })},
	{KindPairing, "pairings", "pairing", "pairings", list[Pairing](func(s *Set) *[]Pairing { return &s.Pairings })},
}

// Row is the row of a kind; false where there is no such kind.
func (k Kind) Row() (KindRow, bool) {
	at := slices.IndexFunc(Kinds, func(r KindRow) bool { return r.Kind == k })
	if at < 0 {
		return KindRow{}, false
	}
	return Kinds[at], true
}

// Thing says whether entries of a kind are things that are had and bought, not statements
// or rules about them.
func (k Kind) Thing() bool {
	switch k {
	case KindConnector, KindRegion, KindBandPlan, KindFlightFirmware, KindPairing:
		return false
	}
	return true
}

// New makes an empty entry of a kind; nil where there is no such kind.
func New(kind Kind) Item {
	row, ok := kind.Row()
	if !ok {
		return nil
	}
	return row.in.new()
}

// List is one of a set's lists, by the name it has in the file.
type List struct {
	Name  string
	Items []Item
}

// Lists gives the set's entries, list by list, in the order of the file. The
// items point into the set.
func (s *Set) Lists() []List {
	lists := make([]List, len(Kinds))
	for i, row := range Kinds {
		lists[i] = List{row.List, row.in.items(s)}
	}
	return lists
}

// Add appends a copy of the item to the list of its kind.
func (s *Set) Add(item Item) {
	if row, ok := item.Kind().Row(); ok {
		row.in.add(s, item)
	}
}

// Put puts entries of one kind in, each in the place of the one with its id or at the
// end; each is told with the one it replaces, nil where there was none. The list is
// replaced, never written through: it may be shared.
func (s *Set) Put(kind Kind, list []Item, each func(before, after Item)) {
	if row, ok := kind.Row(); ok && len(list) > 0 {
		row.in.put(s, list, each)
	}
}

// Drop takes an entry out; false where there is none of its id.
func (s *Set) Drop(id string) bool {
	return slices.ContainsFunc(Kinds, func(row KindRow) bool { return row.in.drop(s, id) })
}

// lister reaches the list of a kind in a set.
type lister interface {
	new() Item
	items(*Set) []Item
	add(*Set, Item)
	put(s *Set, list []Item, each func(before, after Item))
	drop(s *Set, id string) bool
}

// itemOf says that a pointer to an entry is an item.
type itemOf[T any] interface {
	*T
	Item
}

// typed is the list of one type.
type typed[T any, P itemOf[T]] struct{ of func(*Set) *[]T }

func list[T any, P itemOf[T]](of func(*Set) *[]T) lister { return typed[T, P]{of} }

func (t typed[T, P]) new() Item { return P(new(T)) }

func (t typed[T, P]) items(s *Set) []Item {
	list := *t.of(s)
	out := make([]Item, len(list))
	for i := range list {
		out[i] = P(&list[i])
	}
	return out
}

func (t typed[T, P]) add(s *Set, item Item) {
	list := t.of(s)
	*list = append(*list, *item.(P))
}

func (t typed[T, P]) put(s *Set, in []Item, each func(before, after Item)) {
	list := t.of(s)
	out := slices.Clone(*list)
	at := make(map[string]int, len(out))
	for i := range out {
		at[P(&out[i]).Head().ID] = i
	}
	for _, item := range in {
		k, there := at[item.Head().ID]
		if !there {
			at[item.Head().ID] = len(out)
			out = append(out, *item.(P))
			each(nil, item)
			continue
		}
		before := out[k]
		out[k] = *item.(P)
		each(P(&before), item)
	}
	*list = out
}

func (t typed[T, P]) drop(s *Set, id string) bool {
	list := t.of(s)
	less := slices.DeleteFunc(slices.Clone(*list), func(g T) bool { return P(&g).Head().ID == id })
	if len(less) == len(*list) {
		return false
	}
	if len(less) == 0 {
		less = nil
	}
	*list = less
	return true
}
