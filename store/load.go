package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"runtime"
	"sync"

	"gorm.io/gorm"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

func load(tx *gorm.DB) (*Snapshot, error) {
	snap := &Snapshot{Stock: *stock.New(), kept: map[stock.Ref]kept{}}
	var counter counterRow
	if err := tx.First(&counter, 1).Error; err != nil {
		return nil, err
	}
	snap.Revision = counter.Revision
	if err := snap.loadGear(tx); err != nil {
		return nil, err
	}
	if err := snap.loadFleet(tx); err != nil {
		return nil, err
	}
	snap.index()
	return snap, nil
}

// index makes the entries of a snapshot found by their ids.
func (s *Snapshot) index() {
	s.Library = s.Stock.Library()
	s.Index = fleet.NewIndex(s.Fleet)
}

func (s *Snapshot) loadGear(tx *gorm.DB) error {
	var sets []setRow
	if err := tx.Order("position, id").Find(&sets).Error; err != nil {
		return err
	}
	for _, r := range sets {
		s.Sets = append(s.Sets, &gear.Set{
			Format:  gear.SetFormat,
			Version: gear.SetVersion,
			ID:      r.ID,
			Title:   r.Title,
			License: r.License,
		})
		s.kept[stock.Ref{Kind: stock.KindSet, ID: r.ID}] = kept{revision: r.Revision, position: r.Position}
	}
	var rows []gearRow
	if err := tx.Order("position, id").Find(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		item := gear.New(gear.Kind(r.Kind))
		set, ok := s.Set(r.Set)
		ref := stock.Ref{Kind: r.Kind, ID: r.ID}
		if item == nil || !ok {
			s.putAside(ref, true, r.Body, fmt.Errorf("of an unknown kind %q or gear pack %q", r.Kind, r.Set))
			continue
		}
		if err := json.Unmarshal([]byte(r.Body), item); err != nil {
			s.putAside(ref, true, r.Body, err)
			continue
		}
		set.Add(item)
		s.kept[stock.Ref{Kind: r.Kind, ID: r.ID}] = kept{revision: r.Revision, position: r.Position}
	}
	return nil
}

func (s *Snapshot) loadFleet(tx *gorm.DB) error {
	var head fleetRow
	switch err := tx.First(&head, 1).Error; {
	case errors.Is(err, gorm.ErrRecordNotFound):
	case err != nil:
		return err
	default:
		s.kept[FleetHead] = kept{revision: head.Revision}
		if err := json.Unmarshal([]byte(head.Body), s.Fleet); err != nil {
			s.putAside(FleetHead, false, head.Body, err)
			s.Fleet = stock.New().Fleet
		}
	}
	var rows []entryRow
	if err := tx.Order("position, id").Find(&rows).Error; err != nil {
		return err
	}
	byKind := map[string][]entryRow{}
	for _, r := range rows {
		switch r.Kind {
		case stock.KindKit, stock.KindSpare, stock.KindQuad, stock.KindCourse, stock.KindTestFlight, stock.KindTask:
			byKind[r.Kind] = append(byKind[r.Kind], r)
		default:
			s.putAside(stock.Ref{Kind: r.Kind, ID: r.ID}, false, r.Body, errors.New("unknown kind"))
		}
	}
	s.Fleet.Kit = entriesOf[fleet.Kit](s, byKind[stock.KindKit])
	s.Fleet.Spares = entriesOf[fleet.Spare](s, byKind[stock.KindSpare])
	s.Fleet.Courses = entriesOf[fleet.Course](s, byKind[stock.KindCourse])
	s.Fleet.Tasks = entriesOf[fleet.Task](s, byKind[stock.KindTask])
	s.Fleet.TestFlights = entriesOf[fleet.TestFlight](s, byKind[stock.KindTestFlight])
	s.Fleet.Quads = entriesOf[fleet.Quad](s, byKind[stock.KindQuad])
	return nil
}

// entriesOf reads rows on all processors; what cannot be read is put aside.
func entriesOf[T any](s *Snapshot, rows []entryRow) []T {
	read, wrong := make([]T, len(rows)), make([]error, len(rows))
	workers := runtime.GOMAXPROCS(0)
	var wait sync.WaitGroup
	for w := range workers {
		wait.Go(func() {
			for i := w; i < len(rows); i += workers {
				read[i], wrong[i] = decoded[T](rows[i].Body)
			}
		})
	}
	wait.Wait()
	var list []T
	for i, r := range rows {
		ref := stock.Ref{Kind: r.Kind, ID: r.ID}
		if wrong[i] != nil {
			s.putAside(ref, false, r.Body, wrong[i])
			continue
		}
		list = append(list, read[i])
		s.kept[ref] = kept{r.Revision, r.Position, r.Life}
	}
	return list
}

// putAside leaves out an entry that cannot be read; the rest goes on.
func (s *Snapshot) putAside(ref stock.Ref, gear bool, body string, why error) {
	s.Aside = append(s.Aside, stock.Aside{Ref: ref, Why: why.Error(), Gear: gear, Body: body})
}
