// Package stock is everything a builder has put in: the gear packs and the
// fleet. It merges files into them and says beforehand what that changes.
package stock

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// OwnSet is the id of the gear pack that gear entered by hand goes into.
const OwnSet = "own"

// Stock is all gear packs and the fleet.
type Stock struct {
	Sets  []*gear.Set
	Fleet *fleet.Fleet
	// Aside are entries that are there and cannot be read: they are left as they are, and
	// what names them goes on naming them.
	Aside   []Aside
	library *gear.Library // over indexed, where those are still the gear packs
	indexed []*gear.Set
}

// Aside is an entry that cannot be read.
type Aside struct {
	Ref
	Why  string `json:"why"`
	Gear bool   `json:"gear"`
	Body string `json:"body"` // as it stands
}

// SetAside says whether an id is that of an entry that cannot be read.
func (s *Stock) SetAside(id string) bool {
	return slices.ContainsFunc(s.Aside, func(a Aside) bool { return a.ID == id })
}

// Kinds of entries besides the kinds of gear.
const (
	KindKit   = "kit"
	KindSpare = "spare"
	KindQuad  = "quad"
	// KindCourse and KindTestFlight are courses to fly, and the flights along them.
	KindCourse     = "course"
	KindTestFlight = "testFlight"
	KindTask       = "task"
	KindFleet      = "fleet" // title and gear packs of the fleet itself
	KindSet        = "gearPack"
)

// Ref names an entry.
type Ref struct {
	Kind string `json:"kind"`
	ID   string `json:"id"`
}

func (r Ref) String() string { return r.Kind + " " + r.ID }

// New is an empty stock.
func New() *Stock {
	return &Stock{Fleet: &fleet.Fleet{Format: fleet.FileFormat, Version: fleet.FileVersion, Title: "My fleet"}}
}

// Fork is a stock that can be merged into and planned in while this one stays
// as it is. They share the entries themselves, which both leave alone.
func (s *Stock) Fork() *Stock {
	f := *s.Fleet
	f.Kit, f.Spares, f.Quads = slices.Clone(f.Kit), slices.Clone(f.Spares), slices.Clone(f.Quads)
	f.Courses, f.TestFlights, f.Tasks = slices.Clone(f.Courses), slices.Clone(f.TestFlights), slices.Clone(f.Tasks)
	return &Stock{Sets: slices.Clone(s.Sets), Fleet: &f, Aside: s.Aside, library: s.library, indexed: s.indexed}
}

// Library indexes the gear packs. It is made once for the packs as they are: a pack
// that changes is replaced, never written through.
func (s *Stock) Library() *gear.Library {
	if s.library == nil || !slices.Equal(s.indexed, s.Sets) || len(s.library.AllUnread()) != len(s.Aside) {
		unread := make([]gear.Unread, len(s.Aside))
		for i, a := range s.Aside {
			unread[i] = gear.Unread{Kind: a.Kind, ID: a.ID}
		}
		s.library, s.indexed = gear.NewLibrary(s.Sets...).Without(unread...), slices.Clone(s.Sets)
	}
	return s.library
}

// Set looks up a gear pack.
func (s *Stock) Set(id string) (*gear.Set, bool) {
	for _, set := range s.Sets {
		if set.ID == id {
			return set, true
		}
	}
	return nil, false
}

// SetOf is the gear pack an entry stands in.
func (s *Stock) SetOf(id string) (*gear.Set, bool) {
	for _, set := range s.Sets {
		for _, list := range set.Lists() {
			for _, item := range list.Items {
				if item.Head().ID == id {
					return set, true
				}
			}
		}
	}
	return nil, false
}

// Entry finds an entry; nil where there is none.
func (s *Stock) Entry(ref Ref) any {
	switch ref.Kind {
	case KindKit:
		for i := range s.Fleet.Kit {
			if s.Fleet.Kit[i].ID == ref.ID {
				return &s.Fleet.Kit[i]
			}
		}
	case KindSpare:
		for i := range s.Fleet.Spares {
			if s.Fleet.Spares[i].Model == ref.ID {
				return &s.Fleet.Spares[i]
			}
		}
	case KindQuad:
		if q, ok := s.Fleet.Quad(ref.ID); ok {
			return q
		}
	case KindCourse:
		if w, ok := s.Fleet.Course(ref.ID); ok {
			return w
		}
	case KindTestFlight:
		if t, ok := s.Fleet.TestFlight(ref.ID); ok {
			return t
		}
	case KindTask:
		if t, ok := s.Fleet.Task(ref.ID); ok {
			return t
		}
	case KindFleet:
		return new(Head(s.Fleet))
	default:
		for _, set := range s.Sets {
			for _, list := range set.Lists() {
				for _, item := range list.Items {
					if item.Head().ID == ref.ID && string(item.Kind()) == ref.Kind {
						return item
					}
				}
			}
		}
	}
	return nil
}

// Remove takes an entry out; false where there is none. What still refers to
// it is for the caller to check.
func (s *Stock) Remove(ref Ref) bool {
	switch ref.Kind {
	case KindKit:
		drop(&s.Fleet.Taken, func(t fleet.Taken) bool { return t.Kit == ref.ID })
		s.sellsNo(ref.ID)
		return drop(&s.Fleet.Kit, func(k fleet.Kit) bool { return k.ID == ref.ID })
	case KindSpare:
		return drop(&s.Fleet.Spares, func(p fleet.Spare) bool { return p.Model == ref.ID })
	case KindQuad:
		drop(&s.Fleet.Wants, func(w fleet.Want) bool { return w.Quad == ref.ID })
		s.dropOf(ref.ID)
		drop(&s.Fleet.TestFlights, func(t fleet.TestFlight) bool { return t.Quad == ref.ID })
		drop(&s.Fleet.Tasks, func(t fleet.Task) bool { return t.Quad == ref.ID })
		return drop(&s.Fleet.Quads, func(q fleet.Quad) bool { return q.ID == ref.ID })
	case KindCourse:
		return drop(&s.Fleet.Courses, func(w fleet.Course) bool { return w.ID == ref.ID })
	case KindTestFlight:
		return drop(&s.Fleet.TestFlights, func(t fleet.TestFlight) bool { return t.ID == ref.ID })
	case KindTask:
		return drop(&s.Fleet.Tasks, func(t fleet.Task) bool { return t.ID == ref.ID })
	}
	set, ok := s.SetOf(ref.ID)
	if !ok {
		return false
	}
	less := *set
	s.Sets[slices.Index(s.Sets, set)] = &less
	return less.Drop(ref.ID)
}

// dropTurnsGone lets go what was wanted of fits that a quad no longer carries in turn.
func (s *Stock) dropTurnsGone(quad string) {
	q, ok := s.Fleet.Quad(quad)
	drop(&s.Fleet.Wants, func(w fleet.Want) bool {
		if w.Quad != quad || w.Turn == "" || !ok {
			return false
		}
		_, kept := q.TurnFit(w.Turn)
		return !kept
	})
}

// Put puts an entry in, or in the place of the one that is there, from its JSON. Gear
// goes into a gear pack, which is made where it is missing. Nothing is checked.
func (s *Stock) Put(ref Ref, pack string, body []byte) error {
	switch ref.Kind {
	case KindKit:
		return put(&s.Fleet.Kit, body, func(k *fleet.Kit) bool { return k.ID == ref.ID })
	case KindSpare:
		return put(&s.Fleet.Spares, body, func(p *fleet.Spare) bool { return p.Model == ref.ID })
	case KindQuad:
		if err := put(&s.Fleet.Quads, body, func(q *fleet.Quad) bool { return q.ID == ref.ID }); err != nil {
			return err
		}
		s.dropTurnsGone(ref.ID)
		return nil
	case KindCourse:
		return put(&s.Fleet.Courses, body, func(w *fleet.Course) bool { return w.ID == ref.ID })
	case KindTestFlight:
		return put(&s.Fleet.TestFlights, body, func(t *fleet.TestFlight) bool { return t.ID == ref.ID })
	case KindTask:
		return put(&s.Fleet.Tasks, body, func(t *fleet.Task) bool { return t.ID == ref.ID })
	case KindFleet:
		head := fleet.Fleet{}
		if err := json.Unmarshal(body, &head); err != nil {
			return err
		}
		WithEntries(&head, s.Fleet)
		s.Fleet = &head
		return nil
	}
	item := gear.New(gear.Kind(ref.Kind))
	if item == nil {
		return fmt.Errorf("%q is no kind of entry", ref.Kind)
	}
	if err := json.Unmarshal(body, item); err != nil {
		return err
	}
	in := &gear.Set{ID: pack, Title: pack}
	if there, ok := s.Set(pack); ok {
		in.Title, in.License = there.Title, there.License
	}
	in.Add(item)
	_, err := s.MergeSet(in)
	return err
}

func put[T any](list *[]T, body []byte, is func(*T) bool) error {
	var entry T
	if err := json.Unmarshal(body, &entry); err != nil {
		return err
	}
	*list = slices.Clone(*list)
	for i := range *list {
		if is(&(*list)[i]) {
			(*list)[i] = entry
			return nil
		}
	}
	*list = append(*list, entry)
	return nil
}

func drop[T any](list *[]T, gone func(T) bool) bool {
	before := len(*list)
	*list = slices.DeleteFunc(slices.Clone(*list), gone)
	if len(*list) == 0 {
		*list = nil
	}
	return len(*list) < before
}

// Want sets what the route shall bring together.
func (s *Stock) Want(goals fleet.Goals) {
	f := *s.Fleet
	f.Goals = goals
	s.Fleet = &f
}

// SetRegion says whose radio limits hold.
func (s *Stock) SetRegion(id string) {
	f := *s.Fleet
	f.Region = id
	s.Fleet = &f
}

// SetLanguage says in which language guides are read.
func (s *Stock) SetLanguage(language string) {
	f := *s.Fleet
	f.Language = language
	s.Fleet = &f
}

// SetMeans says what there is to spend, and what currencies are worth in others.
func (s *Stock) SetMeans(means *fleet.Means, rates []fleet.Rate) {
	f := *s.Fleet
	f.Means, f.Rates = means, rates
	if len(rates) == 0 {
		f.Rates = nil
	}
	s.Fleet = &f
}

// Take records a step of the route and what was read after it: the kit's state
// follows, whatever had been planned.
func (s *Stock) Take(t fleet.Taken) error {
	f := *s.Fleet
	f.Kit = slices.Clone(f.Kit)
	kit, ok := f.Piece(t.Kit)
	if !ok {
		return fmt.Errorf("no piece of kit %q", t.Kit)
	}
	t.From, t.FromMode = kit.Firmware, kit.Mode
	switch {
	case t.NotOffered:
	case t.Do == "update":
		kit.Firmware = t.Read
		if t.Read.Known() {
			kit.Mode = s.Library().Chart(kit.Model).KeptMode(kit.Mode, t.Read)
		}
	case t.Do == "mode":
		kit.Mode = t.Mode
	default:
		kit.Activated = new(true)
	}
	f.Taken = append(slices.Clone(f.Taken), t)
	s.Fleet = &f
	return nil
}

// Mate adds to the count of a kit's antenna plugs going on. A count that is not
// stated stays so: from then on is not from the start.
func (s *Stock) Mate(kitID string, by int) {
	f := *s.Fleet
	f.Kit = slices.Clone(f.Kit)
	if kit, ok := f.Piece(kitID); ok && kit.Matings != nil {
		kit.Matings = new(max(0, *kit.Matings+by))
		s.Fleet = &f
	}
}

// ChangeAntenna puts an antenna of a model onto a port of goggles, counted from 0. It comes
// from the drawer, where the one it replaces goes; or from other goggles, which
// get that one in exchange. An empty model takes the antenna off.
func (s *Stock) ChangeAntenna(kitID string, port int, model, from string) error {
	f := *s.Fleet
	f.Kit, f.Spares = slices.Clone(f.Kit), slices.Clone(f.Spares)
	kit, ok := f.Piece(kitID)
	if !ok || port < 0 || port > len(kit.Antennas) {
		return fmt.Errorf("%s has no antenna port %d", kitID, port+1)
	}
	old := ""
	if port < len(kit.Antennas) {
		old = kit.Antennas[port]
	}
	switch other, has := f.Piece(from); {
	case model == "" || from == "":
		if model != "" && !f.TakeSpare(model) {
			return fmt.Errorf("no %s lies in the drawer", model)
		}
		if old != "" {
			f.AddSpare(old)
		}
	case !has || from == kitID || !slices.Contains(other.Antennas, model):
		return fmt.Errorf("%s carries no %s", from, model)
	default:
		other.Antennas = replaced(other.Antennas, slices.Index(other.Antennas, model), old)
	}
	kit.Antennas = replaced(kit.Antennas, port, model)
	s.Fleet = &f
	return nil
}

// replaced is a list with one place taken by another value; empty takes it out, a
// place behind the end puts it on.
func replaced(list []string, at int, by string) []string {
	out := slices.Clone(list)
	switch {
	case by == "" && at < len(out):
		return slices.Delete(out, at, at+1)
	case by == "":
		return out
	case at == len(out):
		return append(out, by)
	}
	out[at] = by
	return out
}

// Offered takes back that a release was not offered.
func (s *Stock) Offered(kitID string, release firmware.Version) {
	f := *s.Fleet
	drop(&f.Taken, func(t fleet.Taken) bool {
		return t.NotOffered && t.Kit == kitID && t.Planned.Compare(release) == 0
	})
	s.Fleet = &f
}

// CloseRoute forgets the steps taken, and with them the way back.
func (s *Stock) CloseRoute() {
	f := *s.Fleet
	f.Taken = nil
	s.Fleet = &f
}

// Plan applies a patch to a quad's next fit.
func (s *Stock) Plan(quadID string, p fleet.Patch) error {
	q, ok := s.Fleet.Quad(quadID)
	if !ok {
		return fmt.Errorf("no quad %q", quadID)
	}
	before := q.NextFit()
	if err := goes(&before, p); err != nil {
		return err
	}
	q.Next = new(q.NextFit().With(p))
	return nil
}

// PlanFit plans a fit for a quad as a whole.
func (s *Stock) PlanFit(quadID string, next fleet.Fit) error {
	q, ok := s.Fleet.Quad(quadID)
	if !ok {
		return fmt.Errorf("no quad %q", quadID)
	}
	next = next.Clone()
	q.Next, q.NextTurn = &next, ""
	return nil
}

// Leave drops what is planned for a quad: it stays as it flies.
func (s *Stock) Leave(quadID string) error {
	q, ok := s.Fleet.Quad(quadID)
	if !ok {
		return fmt.Errorf("no quad %q", quadID)
	}
	q.Next, q.NextTurn = nil, ""
	return nil
}

// goes says what of a patch would do nothing, and so was not meant.
func goes(f *fleet.Fit, p fleet.Patch) error {
	if p.Stand != nil {
		if why := f.NoStand(*p.Stand); why != "" {
			return fmt.Errorf("the antenna is not put there: %s", why)
		}
	}
	return nil
}

// Note applies a patch to what a quad is said to carry today.
func (s *Stock) Note(quadID string, p fleet.Patch) error {
	q, ok := s.Fleet.Quad(quadID)
	if !ok {
		return fmt.Errorf("no quad %q", quadID)
	}
	if err := goes(&q.Now, p); err != nil {
		return err
	}
	q.Now = q.Now.With(p)
	if n := q.Next; n != nil && n.Board == q.Now.Board && reflect.DeepEqual(n.Runs, q.Now.Runs) {
		n.Features = slices.Clone(q.Now.Features) // a plan starts from what is on today
	}
	return nil
}
