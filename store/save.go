package store

import (
	"encoding/json"
	"fmt"

	"gorm.io/gorm"

	"yokeswap/core/gear"
	"yokeswap/core/stock"
)

// row is an entry on its way into the database.
type row struct {
	ref      stock.Ref
	set      string // gear only
	position int
	body     string
}

// rowsOf lists the entries of a stock in order.
func rowsOf(s *stock.Stock) ([]row, error) {
	var rows []row
	var failed error
	add := func(kind, id, set string, position int, entry any) {
		body, err := json.Marshal(entry)
		if err != nil && failed == nil {
			failed = fmt.Errorf("encode %s %q: %w", kind, id, err)
		}
		rows = append(rows, row{stock.Ref{Kind: kind, ID: id}, set, position, string(body)})
	}
	for _, set := range s.Sets {
		for _, list := range set.Lists() {
			for i, item := range list.Items {
				add(string(item.Kind()), item.Head().ID, set.ID, i, item)
			}
		}
	}
	for i := range s.Fleet.Kit {
		add(stock.KindKit, s.Fleet.Kit[i].ID, "", i, &s.Fleet.Kit[i])
	}
	for i := range s.Fleet.Spares {
		add(stock.KindSpare, s.Fleet.Spares[i].Model, "", i, &s.Fleet.Spares[i])
	}
	for i := range s.Fleet.Quads {
		add(stock.KindQuad, s.Fleet.Quads[i].ID, "", i, &s.Fleet.Quads[i])
	}
	return rows, failed
}

// save writes what differs between the snapshot and the stock after a change,
// and raises the revision of every entry written.
func save(tx *gorm.DB, before *Snapshot, after *stock.Stock) error {
	revision := before.Revision + 1
	if err := saveHeads(tx, before, after, revision); err != nil {
		return err
	}
	had, err := rowsOf(&before.Stock)
	if err != nil {
		return err
	}
	was := map[stock.Ref]row{}
	for _, r := range had {
		was[r.ref] = r
	}
	has, err := rowsOf(after)
	if err != nil {
		return err
	}
	for _, r := range has {
		old, there := was[r.ref]
		delete(was, r.ref)
		if there && old == r {
			continue
		}
		rev := revision
		if there && old.body == r.body { // only its place in the list moved
			rev = before.Revisions[r.ref]
		}
		if err := tx.Save(r.model(rev)).Error; err != nil {
			return fmt.Errorf("%s: %w", r.ref, err)
		}
	}
	for _, gone := range was {
		if err := tx.Delete(gone.model(0)).Error; err != nil {
			return fmt.Errorf("%s: %w", gone.ref, err)
		}
	}
	return tx.Save(&counterRow{ID: 1, Revision: revision}).Error
}

func (r row) model(revision int64) any {
	if newItem(r.ref.Kind) != nil {
		return &gearRow{ID: r.ref.ID, Set: r.set, Kind: r.ref.Kind, Position: r.position, Revision: revision, Body: r.body}
	}
	return &entryRow{Kind: r.ref.Kind, ID: r.ref.ID, Position: r.position, Revision: revision, Body: r.body}
}

// saveHeads writes the gear packs' own titles and the fleet's.
func saveHeads(tx *gorm.DB, before *Snapshot, after *stock.Stock, revision int64) error {
	for i, set := range after.Sets {
		old, there := before.Set(set.ID)
		if there && sameHead(old, set) {
			continue
		}
		if err := tx.Save(&setRow{ID: set.ID, Position: i, Revision: revision, Title: set.Title, License: set.License}).Error; err != nil {
			return fmt.Errorf("gear pack %q: %w", set.ID, err)
		}
	}
	was, err := json.Marshal(stock.Head(before.Fleet))
	if err != nil {
		return fmt.Errorf("encode the fleet: %w", err)
	}
	is, err := json.Marshal(stock.Head(after.Fleet))
	if err != nil {
		return fmt.Errorf("encode the fleet: %w", err)
	}
	if string(was) == string(is) {
		return nil
	}
	return tx.Save(&fleetRow{ID: 1, Revision: revision, Body: string(is)}).Error
}

func sameHead(a, b *gear.Set) bool { return a.Title == b.Title && a.License == b.License }
