package stock

import (
	"cmp"
	"fmt"
	"maps"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Done is what was found when a swap was done.
type Done struct {
	WeighedG *unit.Grams // all-up; nil: nobody weighed it
	FlownOn  string      // the day of a first flight that went as it should, yyyy-mm-dd; empty: none did
}

// Finish ends a swap: what was planned is what the quad flies now. Parts that went
// in leave the drawer, as far as they lay there; those that came out go into it. A
// device that was still to be bought becomes kit. Two fits that take turns change places,
// and what comes off lies ready with its fit. A weight that was measured goes before the
// one it had, and a first flight before an earlier one.
func (s *Stock) Finish(quadID string, done Done) error {
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
	now.Features = nil // they are set with the swap, and nobody has read them since
	q.InTurn = slices.Clone(q.InTurn)
	each(q.Takes(s.parts), func(model string) { f.TakeSpare(model) })
	off := s.comesOff(q, &now)
	takeReady(q, fleet.Beyond(s.parts(&now), s.parts(&q.Now)))
	if t, ok := q.TurnFit(q.NextTurn); ok {
		each(s.withoutHeaders(counted(t.Ready)), f.AddSpare) // it is another fit from now on
		t.Ready = spares(off)
	} else {
		each(s.withoutHeaders(off), f.AddSpare)
	}
	newUnit := now.AirUnit != nil && now.AirUnit.Kit == ""
	s.own(&f, now.AirUnit)
	for _, slot := range []*fleet.Slot{now.Goggles, now.Controller} {
		if model, kit := s.own(&f, slot); kit != "" {
			f.FlyWith(model, kit)
		}
	}
	if now.AirUnit != nil {
		now.Analog = ""
		if kit, ok := f.Piece(now.AirUnit.Kit); ok && newUnit {
			kit.Matings = new(1) // its antennas went on once
		}
	}
	if t, ok := q.TurnFit(q.NextTurn); ok {
		t.Flown, t.Fit = true, q.Now
		f.Wants = turned(f.Wants, q.ID, t.ID)
	}
	q.Now, q.Next, q.NextTurn = now, nil, ""
	q.AUWG = cmp.Or(done.WeighedG, q.AUWG)
	if done.FlownOn != "" {
		q.FlownIn = &fleet.FlownIn{On: done.FlownOn, Carried: f.Carries(q)}
	}
	lookAgain(&f, q)
	s.Fleet = &f
	return nil
}

// comesOff are the parts a quad no longer carries, as they are used again: standoffs that were cut
// are none of their model any more.
func (s *Stock) comesOff(q *fleet.Quad, now *fleet.Fit) map[string]int {
	off := fleet.Beyond(s.parts(&q.Now), s.parts(now))
	if q.Now.StandoffCutMM != nil {
		delete(off, q.Now.Standoff)
	}
	return off
}

// own makes a device that was still to be bought kit, with the antennas from its box; it gives the
// model and the kit, empty where it was owned.
func (s *Stock) own(f *fleet.Fleet, slot *fleet.Slot) (model, kit string) {
	if slot == nil {
		return "", ""
	}
	if slot.Kit == "" && slot.Model != "" {
		model, kit = slot.Model, f.Own(slot.Model)
		slot.Kit, slot.Model = kit, ""
		if _, goggles := gear.Find[*gear.Goggles](s.Library(), model); goggles {
			piece, _ := f.Piece(kit)
			piece.Antennas = s.Library().BoxedAntennas(model)
		}
	}
	slot.Firmware, slot.Mode = "", "" // what the kit says it is on
	return model, kit
}

// turned are the wants once a quad has changed places with a fit in turn: where something was
// wanted of that fit by itself, each goes on to be wanted of the fit it was wanted of; else
// they are the quad's, whatever it carries.
func turned(wants []fleet.Want, quad, turn string) []fleet.Want {
	if !slices.ContainsFunc(wants, func(w fleet.Want) bool { return w.Quad == quad && w.Turn == turn }) {
		return wants
	}
	wants = slices.Clone(wants)
	for i := range wants {
		switch w := &wants[i]; {
		case w.Quad != quad:
		case w.Turn == turn:
			w.Turn = ""
		case w.Turn == "":
			w.Turn = turn
		}
	}
	return wants
}

// each does something with every single part, in an order that is always the same.
func each(parts map[string]int, do func(model string)) {
	for _, model := range slices.Sorted(maps.Keys(parts)) {
		for range parts[model] {
			do(model)
		}
	}
}

// takeReady takes parts out of what lies ready with the fits in turn, that of the fit
// which comes back first.
func takeReady(q *fleet.Quad, need map[string]int) {
	take := func(t *fleet.TurnFit) {
		left := counted(t.Ready)
		for model, n := range left {
			used := min(n, need[model])
			left[model] -= used
			need[model] -= used
		}
		t.Ready = spares(left)
	}
	if t, ok := q.TurnFit(q.NextTurn); ok {
		take(t)
	}
	for i := range q.InTurn {
		take(&q.InTurn[i])
	}
}

// counted is a list of loose parts by model; spares lists them again.
func counted(list []fleet.Spare) map[string]int {
	parts := map[string]int{}
	for _, s := range list {
		parts[s.Model] += s.Count
	}
	return parts
}

func spares(parts map[string]int) (list []fleet.Spare) {
	for _, model := range slices.Sorted(maps.Keys(parts)) {
		if parts[model] > 0 {
			list = append(list, fleet.Spare{Model: model, Count: parts[model]})
		}
	}
	return list
}

// withoutHeaders leaves headers out: they stay on their pads, or are not used again.
func (s *Stock) withoutHeaders(parts map[string]int) map[string]int {
	for model := range parts {
		if _, soldered := s.Entry(Ref{Kind: string(gear.KindHeader), ID: model}).(*gear.Header); soldered {
			delete(parts, model)
		}
	}
	return parts
}

// parts counts the loose parts of a fit with the standoffs that it has in place of its
// frame's own, and without a receiver that is built into its board.
func (s *Stock) parts(f *fleet.Fit) map[string]int {
	parts := f.Loose()
	if b, ok := s.Entry(Ref{Kind: string(gear.KindBoard), ID: f.Board}).(*gear.Board); ok && b.BuiltIn == f.Receiver {
		delete(parts, f.Receiver)
	}
	if f.Standoff == "" {
		return parts
	}
	frame, ok := s.Entry(Ref{Kind: string(gear.KindFrame), ID: f.Frame}).(*gear.Frame)
	if !ok {
		frame = &gear.Frame{}
	}
	parts[f.Standoff] += frame.StandoffCount()
	return parts
}
