package store

import (
	"encoding/json"
	"errors"
	"fmt"

	"gorm.io/gorm"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/stock"
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
		if item == nil || !ok {
			return fmt.Errorf("gear %q is of an unknown kind %q or gear pack %q", r.ID, r.Kind, r.Set)
		}
		if err := json.Unmarshal([]byte(r.Body), item); err != nil {
			return fmt.Errorf("gear %q: %w", r.ID, err)
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
			return fmt.Errorf("fleet: %w", err)
		}
	}
	var rows []entryRow
	if err := tx.Order("position, id").Find(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		var err error
		switch r.Kind {
		case stock.KindKit:
			err = appendDecoded(&s.Fleet.Kit, r.Body)
		case stock.KindSpare:
			err = appendDecoded(&s.Fleet.Spares, r.Body)
		case stock.KindQuad:
			err = appendDecoded(&s.Fleet.Quads, r.Body)
		default:
			err = fmt.Errorf("unknown kind")
		}
		if err != nil {
			return fmt.Errorf("%s %q: %w", r.Kind, r.ID, err)
		}
		s.kept[stock.Ref{Kind: r.Kind, ID: r.ID}] = kept{r.Revision, r.Position, r.Life}
	}
	return nil
}

func appendDecoded[T any](list *[]T, body string) error {
	entry, err := decoded[T](body)
	if err != nil {
		return err
	}
	*list = append(*list, entry)
	return nil
}
