package store

import (
	"encoding/json"
	"fmt"
	"maps"
	"reflect"

	"gorm.io/gorm"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/stock"
)

// save writes what differs between the snapshot and the stock after a change,
// raises the revision of every entry written, and gives the snapshot after it.
func save(tx *gorm.DB, before *Snapshot, after *stock.Stock) (*Snapshot, error) {
	w := writer{tx: tx, revision: before.Revision + 1, before: before, kept: maps.Clone(before.kept)}
	if err := w.gear(after.Sets); err != nil {
		return nil, err
	}
	if err := w.fleet(after.Fleet); err != nil {
		return nil, err
	}
	if err := tx.Save(&counterRow{ID: 1, Revision: w.revision}).Error; err != nil {
		return nil, err
	}
	next := &Snapshot{Stock: *after, Revision: w.revision, kept: w.kept}
	next.index()
	return next, nil
}

// writer brings a change into the database.
type writer struct {
	tx       *gorm.DB
	revision int64 // what is written gets
	before   *Snapshot
	kept     map[stock.Ref]kept
}

// entry is one entry on its way into the database.
type entry struct {
	ref stock.Ref
	set string // gear only
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
			w.kept[stock.Ref{Kind: stock.KindSet, ID: set.ID}] = kept{w.revision, i}
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
				return entry{stock.Ref{Kind: string(item.Kind()), ID: item.Head().ID}, set.ID}
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
				if err := w.drop(stock.Ref{Kind: string(item.Kind()), ID: item.Head().ID}); err != nil {
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
	of := func(kind, id string) entry { return entry{ref: stock.Ref{Kind: kind, ID: id}} }
	if err := writeList(w, was.Kit, f.Kit, func(k fleet.Kit) entry { return of(stock.KindKit, k.ID) }, decoded[fleet.Kit]); err != nil {
		return err
	}
	if err := writeList(w, was.Spares, f.Spares, func(s fleet.Spare) entry { return of(stock.KindSpare, s.Model) }, decoded[fleet.Spare]); err != nil {
		return err
	}
	return writeList(w, was.Quads, f.Quads, func(q fleet.Quad) entry { return of(stock.KindQuad, q.ID) }, decoded[fleet.Quad])
}

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
	return w.tx.Save(&fleetRow{ID: 1, Revision: w.revision, Body: string(body)}).Error
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
		body, err := json.Marshal(is[i])
		if err != nil {
			return fmt.Errorf("encode %s: %w", e.ref, err)
		}
		revision := w.revision
		if there {
			before, err := json.Marshal(was[at])
			if err != nil {
				return fmt.Errorf("encode %s: %w", e.ref, err)
			}
			if string(before) == string(body) { // only its place in the list moved
				revision = place.revision
				if inOrder {
					continue
				}
			}
		}
		w.kept[e.ref] = kept{revision, last}
		if err := w.tx.Save(e.row(kept{revision, last}, string(body))).Error; err != nil {
			return fmt.Errorf("%s: %w", e.ref, err)
		}
		if decode == nil {
			continue
		}
		if is[i], err = decode(string(body)); err != nil {
			return fmt.Errorf("%s: %w", e.ref, err)
		}
	}
	for ref := range old {
		if err := w.drop(ref); err != nil {
			return err
		}
	}
	return nil
}

func (w *writer) drop(ref stock.Ref) error {
	delete(w.kept, ref)
	if err := w.tx.Delete(entry{ref: ref}.row(kept{}, "")).Error; err != nil {
		return fmt.Errorf("%s: %w", ref, err)
	}
	return nil
}

func (e entry) row(k kept, body string) any {
	if gear.New(gear.Kind(e.ref.Kind)) != nil {
		return &gearRow{ID: e.ref.ID, Set: e.set, Kind: e.ref.Kind, Position: k.position, Revision: k.revision, Body: body}
	}
	return &entryRow{Kind: e.ref.Kind, ID: e.ref.ID, Position: k.position, Revision: k.revision, Body: body}
}

func decoded[T any](body string) (out T, err error) {
	err = json.Unmarshal([]byte(body), &out)
	return out, err
}
