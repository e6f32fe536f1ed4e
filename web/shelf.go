package web

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/format"
	"yokeswap/store"
)

// ShelfEntry is one entry on the shelf.
type ShelfEntry struct {
	Kind     string `json:"kind"`
	ID       string `json:"id"`
	Name     string `json:"name"`
	Set      string `json:"set,omitempty" doc:"gear: the gear pack it stands in"`
	Source   string `json:"source,omitempty"`
	Model    string `json:"model,omitempty" doc:"kit and spares: the name of the model; quads: what they are flown for"`
	Revision int64  `json:"revision"`
	Entry    any    `json:"entry" doc:"as it stands in the open formats"`
}

// ShelfSet is one gear pack.
type ShelfSet struct {
	ID      string `json:"id"`
	Title   string `json:"title"`
	License string `json:"license"`
	Count   int    `json:"count"`
	Hash    string `json:"hash" doc:"short hash of what it says"`
}

// Shelf is everything that has been put in.
type Shelf struct {
	Title    string       `json:"title"`
	Revision int64        `json:"revision"`
	Sets     []ShelfSet   `json:"sets"`
	Entries  []ShelfEntry `json:"entries"`
	Of       int          `json:"of" doc:"how many entries there are of what was asked for"`
	Aside    []SetAside   `json:"aside" doc:"entries that cannot be read, left as they are"`
}

// SetAside is an entry that cannot be read.
type SetAside struct {
	Kind string `json:"kind"`
	ID   string `json:"id"`
	Why  string `json:"why"`
}

// Saved is the answer to a change of one entry.
type Saved struct {
	Kind     string `json:"kind"`
	ID       string `json:"id"`
	Revision int64  `json:"revision"`
	Change   int64  `json:"change" doc:"to take it back with"`
}

func (s *server) registerShelf(api huma.API) {
	huma.Get(api, "/api/shelf", s.shelf, holds[Shelf](api))
	// The body is read by format, which names every problem by its path.
	huma.Put(api, "/api/entries/{kind}/{id}", s.saveEntry, func(o *huma.Operation) { o.SkipValidateBody = true })
	huma.Delete(api, "/api/entries/{kind}/{id}", s.removeEntry)
}

// shelf is everything that has been put in, or what is asked for of it.
func (s *server) shelf(ctx context.Context, in *struct {
	Kind  string `query:"kind" doc:"entries of this kind alone"`
	Find  string `query:"find" doc:"entries whose id, name, model or source hold these letters"`
	From  int    `query:"from" minimum:"0" doc:"the first entry of those"`
	Count int    `query:"count" minimum:"0" maximum:"20000" doc:"how many; absent: all"`
}) (*ready[Shelf], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	question := fmt.Sprintf("shelf %s %q from %d count %d", in.Kind, in.Find, in.From, in.Count)
	return answered(ctx, s.answers, snap, question, func(context.Context) (*Shelf, error) {
		all := shelf(snap)
		find := strings.ToLower(in.Find)
		all.Entries = slices.DeleteFunc(all.Entries, func(e ShelfEntry) bool {
			return in.Kind != "" && e.Kind != in.Kind ||
				find != "" && !strings.Contains(strings.ToLower(e.ID+" "+e.Name+" "+e.Model+" "+e.Source), find)
		})
		all.Of = len(all.Entries)
		from := min(in.From, all.Of)
		all.Entries = all.Entries[from:min(from+cmp.Or(in.Count, all.Of), all.Of)]
		return &all, nil
	})
}

func shelf(snap *store.Snapshot) Shelf {
	out := Shelf{
		Title:    snap.Fleet.Title,
		Revision: snap.Revision,
		Sets:     []ShelfSet{},
		Entries:  []ShelfEntry{},
		Aside:    []SetAside{},
	}
	for _, a := range snap.Aside {
		out.Aside = append(out.Aside, SetAside{a.Kind, a.ID, a.Why})
	}
	add := func(e ShelfEntry) {
		e.Revision = snap.RevisionOf(stock.Ref{Kind: e.Kind, ID: e.ID})
		out.Entries = append(out.Entries, e)
	}
	for _, set := range snap.Sets {
		count := 0
		for _, list := range set.Lists() {
			for _, item := range list.Items {
				head := item.Head()
				add(ShelfEntry{
					Kind:   string(item.Kind()),
					ID:     head.ID,
					Name:   name(snap.Library, item),
					Set:    set.ID,
					Source: head.Source.String(),
					Entry:  item,
				})
				count++
			}
		}
		out.Sets = append(out.Sets, ShelfSet{ID: set.ID, Title: set.Title, License: set.License, Count: count,
			Hash: hashes.of(set)})
	}
	shelfOfFleet(snap, add)
	return out
}

// shelfOfFleet are the entries of the fleet: kit, loose parts, quads, courses and flights.
func shelfOfFleet(snap *store.Snapshot, add func(ShelfEntry)) {
	for i := range snap.Fleet.Kit {
		k := &snap.Fleet.Kit[i]
		add(ShelfEntry{Kind: stock.KindKit, ID: k.ID, Name: k.Label(), Model: kitWords(snap.Library, k), Entry: k})
	}
	for i := range snap.Fleet.Spares {
		p := &snap.Fleet.Spares[i]
		add(ShelfEntry{
			Kind:  stock.KindSpare,
			ID:    p.Model,
			Name:  fmt.Sprintf("%d × %s", p.Count, snap.Library.Label(p.Model)),
			Model: snap.Library.Label(p.Model),
			Entry: p,
		})
	}
	for i := range snap.Fleet.Quads {
		q := &snap.Fleet.Quads[i]
		add(ShelfEntry{Kind: stock.KindQuad, ID: q.ID, Name: q.Label(), Model: q.Use, Entry: q})
	}
	for i := range snap.Fleet.Courses {
		c := &snap.Fleet.Courses[i]
		add(ShelfEntry{Kind: stock.KindCourse, ID: c.ID, Name: c.Label(), Entry: c})
	}
	for i := range snap.Fleet.TestFlights {
		t := &snap.Fleet.TestFlights[i]
		flown := ShelfEntry{Kind: stock.KindTestFlight, ID: t.ID, Name: t.Label(), Entry: t}
		if q, ok := snap.Fleet.Quad(t.Quad); ok {
			flown.Model = q.Label()
		}
		add(flown)
	}
	for i := range snap.Fleet.Tasks {
		t := &snap.Fleet.Tasks[i]
		add(ShelfEntry{Kind: stock.KindTask, ID: t.ID, Name: t.Label(), Entry: t})
	}
}

// hashes keeps the short hash of each gear pack for as long as the pack stays as it is: sets
// are replaced, never written through.
var hashes packHashes

type packHashes struct {
	mu   sync.Mutex
	kept map[string]packHash
}

type packHash struct {
	set  *gear.Set
	hash string
}

// mostHashes bounds what is kept; beyond it all is made anew.
const mostHashes = 200

func (h *packHashes) of(set *gear.Set) string {
	h.mu.Lock()
	defer h.mu.Unlock()
	if k, ok := h.kept[set.ID]; ok && k.set == set {
		return k.hash
	}
	hash, err := format.Hash(format.Document{Set: set})
	if err != nil {
		return "" // what is kept can be written
	}
	if h.kept == nil || len(h.kept) >= mostHashes {
		h.kept = map[string]packHash{}
	}
	h.kept[set.ID] = packHash{set, hash}
	return hash
}

func kitWords(lib *gear.Library, k *fleet.Kit) string {
	if !k.Firmware.Known() {
		return lib.Label(k.Model) + ", firmware not known"
	}
	return lib.Label(k.Model) + " on " + string(k.Firmware)
}

func name(lib *gear.Library, item gear.Item) string {
	if p, ok := item.(*gear.Pairing); ok && p.Name == "" {
		return lib.Label(p.AirUnit) + " with " + lib.Label(p.Goggles)
	}
	return item.Head().Label()
}

// saveEntry adds or replaces one entry. The revision is the one that was read,
// zero for a new entry. Gear that is new goes into the gear pack "own".
func (s *server) saveEntry(ctx context.Context, in *struct {
	Kind     string `path:"kind"`
	ID       string `path:"id"`
	Revision int64  `query:"revision"`
	RawBody  []byte `contentType:"application/json"`
}) (*answer[Saved], error) {
	ref := stock.Ref{Kind: in.Kind, ID: in.ID}
	take := func(st *stock.Stock) error { return format.TakeEntry(st, ref, in.RawBody) }
	change, err := s.change(ctx, "saved", take, store.Expect{Ref: ref, Revision: in.Revision})
	if conflict, ok := problem(err).(*Conflict); ok {
		s.describe(conflict, ref, take)
		return nil, conflict
	}
	if err != nil {
		return nil, problem(err)
	}
	return s.saved(ref, change)
}

// removeEntry takes one entry out, unless something still refers to it.
func (s *server) removeEntry(ctx context.Context, in *struct {
	Kind     string `path:"kind"`
	ID       string `path:"id"`
	Revision int64  `query:"revision"`
}) (*answer[Saved], error) {
	ref := stock.Ref{Kind: in.Kind, ID: in.ID}
	change, err := s.change(ctx, "took out", func(st *stock.Stock) error {
		if st.Entry(ref) == nil {
			return notFound(in.Kind, in.ID)
		}
		if users := format.Referrers(st, ref); len(users) > 0 {
			return huma.Error409Conflict(fmt.Sprintf("it is still named by %s", strings.Join(users[:min(3, len(users))], ", ")))
		}
		st.Remove(ref)
		return nil
	}, store.Expect{Ref: ref, Revision: in.Revision})
	if err != nil {
		return nil, problem(err)
	}
	return s.saved(ref, change)
}

func (s *server) saved(ref stock.Ref, change int64) (*answer[Saved], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	return reply(Saved{Kind: ref.Kind, ID: ref.ID, Revision: snap.RevisionOf(ref), Change: change}), nil
}

// registerForms serves what can be entered of each kind, made from the published schemas.
func (s *server) registerForms(api huma.API) {
	huma.Get(api, "/api/forms", func(_ context.Context, _ *struct{}) (*answer[[]format.Form], error) {
		return reply(format.Forms()), nil
	})
}
