package store

import (
	"encoding/json"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"time"

	fastjson "github.com/go-json-experiment/json"
	jsonv1 "github.com/go-json-experiment/json/v1"
	"gorm.io/gorm"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// save writes what differs between the snapshot and the stock after a change,
// raises the revision of every entry written, and gives the snapshot after it.
func save(tx *gorm.DB, before *Snapshot, after *stock.Stock, deed Deed, lives map[string]int64) (*Snapshot, error) {
	w := writer{
		tx:       tx,
		revision: before.Revision + 1,
		before:   before,
		kept:     maps.Clone(before.kept),
		deed:     deed,
		lives:    lives,
		at:       time.Now().UTC(),
	}
	if err := w.gear(after.Sets); err != nil {
		return nil, err
	}
	if err := w.fleet(after.Fleet); err != nil {
		return nil, err
	}
	if len(w.events) > 0 {
		if err := tx.CreateInBatches(w.events, 100).Error; err != nil {
			return nil, fmt.Errorf("history: %w", err)
		}
	}
	if err := tx.Save(&counterRow{ID: 1, Revision: w.revision}).Error; err != nil {
		return nil, err
	}
	next := &Snapshot{Stock: *after, Revision: w.revision, kept: w.kept}
	next.Aside = slices.DeleteFunc(slices.Clone(next.Aside), func(a stock.Aside) bool {
		_, mended := w.kept[a.Ref] // something that can be read was put in its place
		return mended
	})
	next.index()
	return next, nil
}

// writer brings a change into the database.
type writer struct {
	tx       *gorm.DB
	revision int64 // what is written gets
	before   *Snapshot
	kept     map[stock.Ref]kept
	deed     Deed
	lives    map[string]int64 // of quads that come back
	at       time.Time
	events   []eventRow
}

// event notes that an entry was written or taken out; an empty body: it was, or is, not
// there.
func (w *writer) event(e entry, before, after string, life int64) {
	row := eventRow{
		At:     w.at,
		Change: w.revision,
		Who:    w.deed.Who,
		Does:   w.deed.Does,
		Kind:   e.ref.Kind,
		Entry:  e.ref.ID,
		Pack:   e.set,
		Before: squeezed(before),
		After:  squeezed(after),
	}
	if e.ref.Kind == stock.KindQuad {
		row.Quad, row.Life = e.ref.ID, life
	}
	if e.quad != "" {
		row.Quad, row.Life = e.quad, w.kept[stock.Ref{Kind: stock.KindQuad, ID: e.quad}].life
	}
	w.events = append(w.events, row)
}

// entry is one entry on its way into the database.
type entry struct {
	ref  stock.Ref
	set  string // gear only
	quad string // test flights and tasks only: whose
}

func (w *writer) gear(sets []*gear.Set) error {
	there := map[string]bool{}
	for i, set := range sets {
		there[set.ID] = true
		old, had := w.before.Set(set.ID)
		if had && old == set {
			continue
		}
		if !had || old.Title != set.Title || old.License != set.License {
			w.kept[stock.Ref{Kind: stock.KindSet, ID: set.ID}] = kept{revision: w.revision, position: i}
			row := setRow{ID: set.ID, Position: i, Revision: w.revision, Title: set.Title, License: set.License}
			if err := w.tx.Save(&row).Error; err != nil {
				return fmt.Errorf("gear pack %q: %w", set.ID, err)
			}
		}
		if !had {
			old = &gear.Set{}
		}
		was := old.Lists()
		for n, list := range set.Lists() {
			refOf := func(item gear.Item) entry {
				return entry{ref: stock.Ref{Kind: string(item.Kind()), ID: item.Head().ID}, set: set.ID}
			}
			if err := writeList(w, was[n].Items, list.Items, refOf, nil); err != nil {
				return err
			}
		}
	}
	for _, set := range w.before.Sets {
		if there[set.ID] {
			continue
		}
		for _, list := range set.Lists() {
			for _, item := range list.Items {
				gone := entry{ref: stock.Ref{Kind: string(item.Kind()), ID: item.Head().ID}, set: set.ID}
				if err := w.drop(gone, item); err != nil {
					return err
				}
			}
		}
		delete(w.kept, stock.Ref{Kind: stock.KindSet, ID: set.ID})
		if err := w.tx.Delete(&setRow{ID: set.ID}).Error; err != nil {
			return fmt.Errorf("gear pack %q: %w", set.ID, err)
		}
	}
	return nil
}

func (w *writer) fleet(f *fleet.Fleet) error {
	if err := w.head(f); err != nil {
		return err
	}
	was := w.before.Fleet
	kit := func(k fleet.Kit) entry { return entryOf(stock.KindKit, k.ID) }
	spare := func(s fleet.Spare) entry { return entryOf(stock.KindSpare, s.Model) }
	quad := func(q fleet.Quad) entry { return entryOf(stock.KindQuad, q.ID) }
	if err := keepList(w, was.Kit, &f.Kit, kit); err != nil {
		return err
	}
	if err := keepList(w, was.Spares, &f.Spares, spare); err != nil {
		return err
	}
	if err := keepList(w, was.Quads, &f.Quads, quad); err != nil {
		return err
	}
	course := func(c fleet.Course) entry { return entryOf(stock.KindCourse, c.ID) }
	if err := keepList(w, was.Courses, &f.Courses, course); err != nil {
		return err
	}
	flight := func(t fleet.TestFlight) entry {
		return entry{ref: stock.Ref{Kind: stock.KindTestFlight, ID: t.ID}, quad: t.Quad}
	}
	if err := keepList(w, was.TestFlights, &f.TestFlights, flight); err != nil {
		return err
	}
	return keepList(w, was.Tasks, &f.Tasks, func(t fleet.Task) entry {
		return entry{ref: stock.Ref{Kind: stock.KindTask, ID: t.ID}, quad: t.Quad}
	})
}

func entryOf(kind, id string) entry { return entry{ref: stock.Ref{Kind: kind, ID: id}} }

// head writes the fleet's own title and goals.
func (w *writer) head(f *fleet.Fleet) error {
	was, is := stock.Head(w.before.Fleet), stock.Head(f)
	if reflect.DeepEqual(was, is) {
		return nil
	}
	old, err := json.Marshal(was)
	if err != nil {
		return fmt.Errorf("encode the fleet: %w", err)
	}
	body, err := json.Marshal(is)
	if err != nil {
		return fmt.Errorf("encode the fleet: %w", err)
	}
	if _, stored := w.kept[FleetHead]; stored && string(old) == string(body) {
		return nil
	}
	w.kept[FleetHead] = kept{revision: w.revision}
	w.event(entry{ref: FleetHead}, string(old), string(body), 0)
	return w.tx.Save(&fleetRow{ID: 1, Revision: w.revision, Body: string(body)}).Error
}

// keepList writes what differs in a list of the fleet; where nothing does it stays the very
// list it was, so that what was found from it still holds.
func keepList[T any](w *writer, was []T, is *[]T, of func(T) entry) error {
	before := len(w.events)
	if err := writeList(w, was, *is, of, decoded[T]); err != nil {
		return err
	}
	if len(w.events) == before && len(was) == len(*is) {
		*is = was
	}
	return nil
}

// writeList writes the entries of a list that differ and takes out those that are
// gone. What is written is read back into the list by decode, where there is one, so
// that it is what the database will give.
//
// A position is written only where the order asks for it: those behind an entry that
// was taken out stay where they are.
func writeList[T any](w *writer, was, is []T, of func(T) entry, decode func(string) (T, error)) error {
	if len(was) == len(is) && (len(is) == 0 || &was[0] == &is[0]) {
		return nil
	}
	old := map[stock.Ref]int{}
	for i := range was {
		old[of(was[i]).ref] = i
	}
	last := -1
	for i := range is {
		if i%100 == 0 {
			if err := w.deed.told(i, len(is)); err != nil {
				return err
			}
		}
		e := of(is[i])
		at, there := old[e.ref]
		delete(old, e.ref)
		place := w.kept[e.ref]
		inOrder := there && place.position > last
		if inOrder {
			last = place.position
		} else {
			last++
		}
		if inOrder && reflect.DeepEqual(was[at], is[i]) {
			continue
		}
		var before *T
		if there {
			before = &was[at]
		}
		body, err := write(w, e, before, &is[i], kept{w.revision, last, w.lifeOf(e.ref, place, there)}, inOrder)
		if err == nil && body != "" && decode != nil {
			is[i], err = decode(body)
		}
		if err != nil {
			return fmt.Errorf("%s: %w", e.ref, err)
		}
	}
	for _, at := range slices.Sorted(maps.Values(old)) {
		if err := w.drop(of(was[at]), was[at]); err != nil {
			return err
		}
	}
	return nil
}

// write writes an entry that differs from what it was, nil: it was not there; the body is
// empty where it says the same and stands in its order.
func write[T any](w *writer, e entry, was, is *T, now kept, inOrder bool) (body string, err error) {
	text, err := json.Marshal(is)
	if err != nil {
		return "", fmt.Errorf("encode: %w", err)
	}
	before := []byte(nil)
	if was != nil {
		if before, err = json.Marshal(was); err != nil {
			return "", fmt.Errorf("encode: %w", err)
		}
	}
	if moved := string(before) == string(text); !moved {
		w.event(e, string(before), string(text), now.life)
	} else if now.revision = w.kept[e.ref].revision; inOrder {
		return "", nil
	}
	w.kept[e.ref] = now
	return string(text), w.tx.Save(e.row(now, string(text))).Error
}

// lifeOf is the life a quad has, or begins.
func (w *writer) lifeOf(ref stock.Ref, has kept, there bool) int64 {
	back, comesBack := w.lives[ref.ID]
	switch {
	case ref.Kind != stock.KindQuad:
		return 0
	case there:
		return has.life
	case comesBack:
		return back
	}
	return w.revision
}

func (w *writer) drop(e entry, was any) error {
	body, err := json.Marshal(was)
	if err != nil {
		return fmt.Errorf("encode %s: %w", e.ref, err)
	}
	w.event(e, string(body), "", w.kept[e.ref].life)
	delete(w.kept, e.ref)
	if err := w.tx.Delete(e.row(kept{}, "")).Error; err != nil {
		return fmt.Errorf("%s: %w", e.ref, err)
	}
	return nil
}

func (e entry) row(k kept, body string) any {
	if gear.New(gear.Kind(e.ref.Kind)) != nil {
		return &gearRow{ID: e.ref.ID, Set: e.set, Kind: e.ref.Kind, Position: k.position, Revision: k.revision, Body: body}
	}
	return &entryRow{Kind: e.ref.Kind, ID: e.ref.ID, Position: k.position, Revision: k.revision, Body: body, Life: k.life}
}

func decoded[T any](body string) (out T, err error) {
	err = fastjson.Unmarshal([]byte(body), &out, jsonv1.DefaultOptionsV1())
	return out, err
}
