package stock

import (
	"encoding/json"
	"fmt"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/sheet"
)

// TakenRow is a row of a table of kit, parts and prices, with the gear it is of.
type TakenRow struct {
	Model string `json:"model"`
	sheet.Row
}

// TakeRow takes a row of a table in: how many there are of a thing, what one costs and how
// long it takes to come, and what a device carries. Counts are all there are, or with more
// what has come beside them. It gives what was changed.
func (s *Stock) TakeRow(row TakenRow, more bool) (changed []Ref, err error) {
	item, ok := s.Library().Item(row.Model)
	if !ok {
		return nil, fmt.Errorf("there is no gear %q", row.Model)
	}
	if row.Price != nil || row.Days != nil {
		ref, err := s.offer(item, row.Row)
		if err != nil {
			return nil, err
		}
		changed = append(changed, ref)
	}
	var of []Ref
	if _, device := item.(gear.Linked); device {
		of, err = s.takeKit(item, row.Row, more)
	} else if row.Count != nil {
		of, err = s.takeSpares(item, *row.Count, more)
	}
	return append(changed, of...), err
}

// offer notes what one costs and how long it takes to come.
func (s *Stock) offer(item gear.Item, row sheet.Row) (Ref, error) {
	ref := Ref{Kind: string(item.Kind()), ID: item.Head().ID}
	set, _ := s.SetOf(ref.ID)
	var stated gear.Item
	for _, list := range set.Lists() {
		for _, in := range list.Items {
			if in.Head().ID == ref.ID {
				stated = in
			}
		}
	}
	other, err := gear.Pinned(stated)
	if err != nil {
		return ref, err
	}
	offer := gear.Offer{}
	if was := stated.Head().Offer; was != nil {
		offer = *was
	}
	if row.Price != nil {
		offer.Price, offer.Currency = row.Price, row.Currency
	}
	if row.Days != nil {
		offer.Days = row.Days
	}
	other.Head().Offer = &offer
	return ref, s.putOf(ref, set.ID, other)
}

// takeSpares sets how many of a part lie in the drawer, or adds to them.
func (s *Stock) takeSpares(item gear.Item, count int, more bool) ([]Ref, error) {
	ref := Ref{Kind: KindSpare, ID: item.Head().ID}
	spare := fleet.Spare{Model: ref.ID}
	for _, there := range s.Fleet.Spares {
		if there.Model == ref.ID {
			spare = there
		}
	}
	if !more {
		spare.Count = 0
	}
	spare.Count += count
	return []Ref{ref}, s.putOf(ref, "", spare)
}

// takeKit makes pieces of kit of what has come, and notes what the only piece of a model
// carries. Pieces that are there and not in the table are not taken out: which of them is
// gone, a number does not say.
func (s *Stock) takeKit(item gear.Item, row sheet.Row, more bool) (changed []Ref, err error) {
	model := item.Head()
	var have []fleet.Kit
	for _, kit := range s.Fleet.Kit {
		if kit.Model == model.ID {
			have = append(have, kit)
		}
	}
	come := 0
	switch {
	case row.Count != nil && more:
		come = *row.Count
	case row.Count != nil && *row.Count < len(have):
		return nil, fmt.Errorf("%d of %s are there, the table has %d: take out the one that is gone by hand", len(have),
			model.Label(), *row.Count)
	case row.Count != nil:
		come = *row.Count - len(have)
	}
	note := func(kit fleet.Kit) error {
		if row.Firmware != "" {
			carries, err := firmware.Parse(row.Firmware)
			if err != nil {
				return fmt.Errorf("%s: %w", model.Label(), err)
			}
			kit.Firmware = carries
		}
		if row.Revision != "" {
			kit.Revision = row.Revision
		}
		ref := Ref{Kind: KindKit, ID: kit.ID}
		changed = append(changed, ref)
		return s.putOf(ref, "", kit)
	}
	if come == 0 && len(have) == 1 && (row.Firmware != "" || row.Revision != "") {
		return changed, note(have[0])
	}
	for range come {
		f := s.Fork().Fleet
		id := f.Own(model.ID)
		come := fleet.Kit{ID: id, Model: model.ID}
		if item.Kind() == gear.KindGoggles {
			come.Antennas = s.Library().BoxedAntennas(model.ID)
		}
		if err := note(come); err != nil {
			return changed, err
		}
	}
	return changed, nil
}

// putOf puts an entry in the place of the one that is there.
func (s *Stock) putOf(ref Ref, pack string, entry any) error {
	text, err := json.Marshal(entry)
	if err != nil {
		return err
	}
	return s.Put(ref, pack, text)
}
