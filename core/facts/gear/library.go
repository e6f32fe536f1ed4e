package gear

import (
	"fmt"
	"maps"
	"slices"

	"yokeswap/core/facts/firmware"
)

// Set is a gear pack: models and the statements about how they link, with a
// license, so that builders can hand them on.
type Set struct {
	Format         string           `json:"format"` // "gear-pack"
	Version        int              `json:"version"`
	ID             string           `json:"id"`
	Title          string           `json:"title"`
	License        string           `json:"license,omitempty"`
	AirUnits       []AirUnit        `json:"airUnits,omitempty"`
	Goggles        []Goggles        `json:"goggles,omitempty"`
	Controllers    []Controller     `json:"controllers,omitempty"`
	Receivers      []Receiver       `json:"receivers,omitempty"`
	Parts          []Part           `json:"parts,omitempty"`
	Boards         []Board          `json:"boards,omitempty"`
	Regulators     []Regulator      `json:"regulators,omitempty"`
	Packs          []Pack           `json:"packs,omitempty"`
	Brackets       []Bracket        `json:"brackets,omitempty"`
	Capacitors     []Capacitor      `json:"capacitors,omitempty"`
	Connectors     []Connector      `json:"connectors,omitempty"`
	Harnesses      []Harness        `json:"harnesses,omitempty"`
	Headers        []Header         `json:"headers,omitempty"`
	Antennas       []Antenna        `json:"antennas,omitempty"`
	Adapters       []Adapter        `json:"adapters,omitempty"`
	Regions        []Region         `json:"regions,omitempty"`
	BandPlans      []BandPlan       `json:"bandPlans,omitempty"`
	Frames         []Frame          `json:"frames,omitempty"`
	Cameras        []CameraModel    `json:"cameras,omitempty"`
	Plates         []Plate          `json:"plates,omitempty"`
	ReadyQuads     []ReadyQuad      `json:"readyQuads,omitempty"`
	Screws         []Screw          `json:"screws,omitempty"`
	Washers        []Washer         `json:"washers,omitempty"`
	Standoffs      []Standoff       `json:"standoffs,omitempty"`
	FlightFirmware []FlightFirmware `json:"flightFirmware,omitempty"`
	Pairings       []Pairing        `json:"pairings,omitempty"`
}

// SetFormat and SetVersion mark a gear pack this program reads and writes.
const (
	SetFormat  = "gear-pack"
	SetVersion = 20
)

// Library finds gear by id over any number of gear packs. It is not changed
// after NewLibrary, so it may be shared between goroutines.
type Library struct {
	byID     map[string]Item
	ordered  []Item
	pairings map[pairKey][]*Pairing
	untested map[pairKey]*Pairing // what is stated to be tried by nobody
	charts   map[string]*firmware.Chart
	atOdds   map[pairKey]string

	controllers []string
	bringing    map[string][]string // what can be bought with a model for one price, in library order
	open        []string            // what states ranges, or values under a condition
	openAt      map[string]int      // where each of them is in open
	renamed     bool                // the name of one is left open
	stated      map[string]Item     // as it is under no condition
	// leads are the ids of gear that leads to what is left open: that itself, and what
	// names it, near or far.
	leads  map[string][]string
	unread []Unread
	// settled remembers Under; shared by all who judge on this library.
	settled *settled
	reads   *Reads // nil: nobody watches
}

// Unread is an entry, of gear or of a fleet, that is stored and cannot be read.
type Unread struct{ Kind, ID string }

// Without notes entries that cannot be read. It is called before the library is shared.
func (l *Library) Without(unread ...Unread) *Library {
	l.unread, l.settled = unread, &settled{}
	return l
}

// AllUnread are the entries that cannot be read.
func (l *Library) AllUnread() []Unread { return l.unread }

type pairKey struct{ airUnit, goggles string }

// NewLibrary indexes the sets. Where an id occurs twice the first one stands;
// the format package refuses such files before they come here.
func NewLibrary(sets ...*Set) *Library {
	lib := &Library{
		byID:     map[string]Item{},
		pairings: map[pairKey][]*Pairing{},
		untested: map[pairKey]*Pairing{},
		charts:   map[string]*firmware.Chart{},
		atOdds:   map[pairKey]string{},
		stated:   map[string]Item{},
		leads:    map[string][]string{},
		openAt:   map[string]int{},
		settled:  &settled{},
	}
	for _, set := range sets {
		for _, list := range set.Lists() {
			for _, item := range list.Items {
				id := item.Head().ID
				if _, taken := lib.byID[id]; taken {
					continue
				}
				if leavesOpen(item) {
					lib.openAt[id] = len(lib.open)
					lib.renamed = lib.renamed || item.Head().renamed()
					lib.open = append(lib.open, id)
				}
				stated := item
				if item = closed(item); leavesOpen(item) {
					lib.stated[id] = item
				}
				lib.byID[id] = item
				lib.ordered = append(lib.ordered, stated)
				if p, ok := item.(*Pairing); ok {
					lib.state(p)
				}
				if item.Kind() == KindController {
					lib.controllers = append(lib.controllers, id)
				}
				if d, ok := item.(Linked); ok {
					lib.charts[id] = d.Chart()
				}
			}
		}
	}
	lib.lead()
	lib.bring()
	return lib
}

// With is the library with an entry as it might be, to ask what that would do. The library
// itself is not changed.
func (l *Library) With(item Item) *Library {
	other := l.put(item)
	if id := item.Head().ID; slices.Contains(l.open, id) {
		other.stated = maps.Clone(l.stated)
		other.stated[id] = item
	}
	return other
}

// put is the library with another entry in the place of the one of its id.
func (l *Library) put(item Item) *Library {
	l.readAll()
	id := item.Head().ID
	other := *l.unwatched()
	other.settled = &settled{}
	other.byID = maps.Clone(l.byID)
	other.byID[id] = item
	other.ordered = slices.Clone(l.ordered)
	for i := range other.ordered {
		if other.ordered[i].Head().ID == id {
			other.ordered[i] = item
		}
	}
	if p, ok := item.(*Pairing); ok {
		other.pairings = maps.Clone(l.pairings)
		list := slices.DeleteFunc(
			slices.Clone(l.pairings[pairKey{p.AirUnit, p.Goggles}]),
			func(o *Pairing) bool { return o.ID == id },
		)
		if p.Untested {
			other.untested = maps.Clone(l.untested)
			other.untested[pairKey{p.AirUnit, p.Goggles}] = p
		} else {
			list = append(list, p)
		}
		other.pairings[pairKey{p.AirUnit, p.Goggles}] = list
	}
	if was, had := l.byID[id]; len(item.Head().brings()) > 0 || had && len(was.Head().brings()) > 0 {
		other.bring()
	}
	if d, ok := item.(Linked); ok {
		other.charts = maps.Clone(l.charts)
		other.charts[id] = d.Chart()
	}
	return &other
}

// Item finds any piece of gear.
func (l *Library) Item(id string) (Item, bool) {
	l.read(id)
	item, ok := l.byID[id]
	return item, ok
}

// Find finds gear of one type; false where the id is unknown or names gear of
// another kind.
func Find[T Item](l *Library, id string) (T, bool) {
	l.read(id)
	item, ok := l.byID[id].(T)
	return item, ok
}

// All gives the gear of one type in library order.
func All[T Item](l *Library) []T {
	var out []T
	for _, item := range l.ordered {
		if _, ok := item.(T); ok {
			l.read(item.Head().ID)
			out = append(out, l.byID[item.Head().ID].(T))
		}
	}
	return out
}

// Controllers are the ids of all controllers.
func (l *Library) Controllers() []string { return l.controllers }

// Bringing are the ids of what can be bought with a model for one price, beside itself.
func (l *Library) Bringing(model string) []string { return l.bringing[model] }

// bring notes what can be bought with what.
func (l *Library) bring() {
	l.bringing = map[string][]string{}
	for _, item := range l.ordered {
		for _, model := range item.Head().brings() {
			l.bringing[model] = append(l.bringing[model], item.Head().ID)
		}
	}
}

// Items gives everything in library order, as it is stated.
func (l *Library) Items() []Item {
	l.readAll()
	return l.ordered
}

// Pairings gives the statements about a pair of models.
func (l *Library) Pairings(airUnit, goggles string) []*Pairing {
	list := l.pairings[pairKey{airUnit, goggles}]
	for _, p := range list {
		l.read(p.ID)
	}
	return list
}

// Untested is the statement that nobody has tried two models with each other; false where
// none is made.
func (l *Library) Untested(airUnit, goggles string) (*Pairing, bool) {
	p, ok := l.untested[pairKey{airUnit, goggles}]
	if ok {
		l.read(p.ID)
	}
	return p, ok
}

// MostPairings is how many statements about one pair of models are taken: a plan of a
// route holds them in the bits of a word.
const MostPairings = 64

// PairingCounts counts the statements about each pair of models, air unit first.
func (l *Library) PairingCounts() map[[2]string]int {
	l.readAll()
	counts := make(map[[2]string]int, len(l.pairings))
	for key, list := range l.pairings {
		counts[[2]string{key.airUnit, key.goggles}] = len(list)
	}
	return counts
}

// state takes a statement in: what nobody has tried is none that links.
func (l *Library) state(p *Pairing) {
	key := pairKey{p.AirUnit, p.Goggles}
	if p.Untested {
		l.untested[key] = p
		return
	}
	l.note(key, p)
	l.pairings[key] = append(l.pairings[key], p)
}

// note keeps that a further statement about a pair contradicts an earlier one.
func (l *Library) note(key pairKey, p *Pairing) {
	for _, other := range l.pairings[key] {
		if how := other.Contradicts(p); how != "" && l.atOdds[key] == "" {
			l.atOdds[key] = fmt.Sprintf("%s (%s) and %s (%s) contradict each other: %s", other.ID, other.Source, p.ID, p.Source,
				how)
		}
	}
}

// Contradiction says which two statements about a pair of models contradict
// each other, and how; empty where none do.
func (l *Library) Contradiction(airUnit, goggles string) string {
	return l.atOdds[pairKey{airUnit, goggles}]
}

// Chart gives the chart of a device model; one without moves where the id names
// no device.
func (l *Library) Chart(id string) *firmware.Chart {
	l.read(id)
	if c, ok := l.charts[id]; ok {
		return c
	}
	return firmware.NewChart(nil, nil, nil)
}

// Label is the name of the gear with this id, or the id itself.
func (l *Library) Label(id string) string {
	if l.renamed {
		l.read(id)
	}
	if item, ok := l.byID[id]; ok {
		return item.Head().Label()
	}
	return id
}
