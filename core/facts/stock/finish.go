package stock

import (
	"fmt"
	"maps"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Finish ends a swap: what was planned is what the quad flies now. Parts that went
// in leave the drawer, as far as they lay there; those that came out go into it. A
// device that was still to be bought becomes kit. A weight that was measured goes
// before the one it had.
func (s *Stock) Finish(quadID string, measured *unit.Grams) error {
	f := *s.Fleet
	f.Kit, f.Spares, f.Quads = slices.Clone(f.Kit), slices.Clone(f.Spares), slices.Clone(f.Quads)
	q, ok := f.Quad(quadID)
	if !ok {
		return fmt.Errorf("no quad %q", quadID)
	}
	if q.Next == nil {
		return fmt.Errorf("nothing is planned for %s", q.Label())
	}
	now := q.Next.Clone()
	before, after := q.Now.Loose(), now.Loose()
	s.settle(before, &q.Now)
	s.settle(after, &now)
	for _, model := range slices.Sorted(maps.Keys(after)) {
		for range after[model] - before[model] {
			f.TakeSpare(model)
		}
	}
	for _, model := range slices.Sorted(maps.Keys(before)) {
		if _, soldered := s.Entry(Ref{Kind: string(gear.KindHeader), ID: model}).(*gear.Header); soldered {
			continue // it stays on its pads, or is not used again
		}
		for range before[model] - after[model] {
			f.AddSpare(model)
		}
	}
	newUnit := now.AirUnit != nil && now.AirUnit.Kit == ""
	for _, slot := range []*fleet.Slot{now.AirUnit, now.Goggles, now.Controller} {
		if slot == nil {
			continue
		}
		if slot.Kit == "" && slot.Model != "" {
			slot.Kit, slot.Model = f.Own(slot.Model), ""
		}
		slot.Firmware, slot.Mode = "", "" // what the kit says it is on
	}
	if now.AirUnit != nil {
		now.Analog = ""
		if kit, ok := f.Piece(now.AirUnit.Kit); ok && newUnit {
			kit.Matings = new(1) // its antennas went on once
		}
	}
	q.Now, q.Next = now, nil
	if measured != nil {
		q.AUWG = measured
	}
	s.Fleet = &f
	return nil
}

// settle counts the standoffs that a fit has in place of its frame's own, and leaves out
// a receiver that is built into its board.
func (s *Stock) settle(parts map[string]int, f *fleet.Fit) {
	if b, ok := s.Entry(Ref{Kind: string(gear.KindBoard), ID: f.Board}).(*gear.Board); ok && b.BuiltIn == f.Receiver {
		delete(parts, f.Receiver)
	}
	if f.Standoff == "" {
		return
	}
	frame, ok := s.Entry(Ref{Kind: string(gear.KindFrame), ID: f.Frame}).(*gear.Frame)
	if !ok {
		frame = &gear.Frame{}
	}
	parts[f.Standoff] += frame.StandoffCount()
}
