package stock

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
)

// mostInTurn is how many fits a quad may carry in turn beside the one it has now.
const mostInTurn = 8

// changed gives a quad of a fleet that is this stock's alone.
func (s *Stock) changed(quadID string) (*fleet.Quad, error) {
	f := *s.Fleet
	f.Spares, f.Quads = slices.Clone(f.Spares), slices.Clone(f.Quads)
	q, ok := f.Quad(quadID)
	if !ok {
		return nil, fmt.Errorf("no quad %q", quadID)
	}
	q.InTurn = slices.Clone(q.InTurn)
	s.Fleet = &f
	return q, nil
}

// KeepInTurn makes what is planned for a quad a fit it carries in turn with the one it
// has now: when the swap is finished, that one is kept ready instead of being taken apart.
func (s *Stock) KeepInTurn(quadID string) error {
	q, err := s.changed(quadID)
	switch {
	case err != nil:
		return err
	case q.Next == nil:
		return fmt.Errorf("nothing is planned for %s: plan the other unit first", q.Label())
	case q.NextTurn != "":
		return fmt.Errorf("what is planned for %s is one of its fits in turn already", q.Label())
	case len(q.InTurn) >= mostInTurn:
		return fmt.Errorf("%s has %d fits in turn, and takes no more", q.Label(), mostInTurn)
	}
	id := ""
	for n := 1; ; n++ {
		id = fmt.Sprintf("turn-%d", n)
		if _, there := q.TurnFit(id); !there {
			break
		}
	}
	q.InTurn = append(q.InTurn, fleet.TurnFit{ID: id, Fit: q.Next.Clone()})
	q.NextTurn = id
	s.noteFlown(q)
	return nil
}

// noteFlown notes in the fit now on which release and in which mode its goggles and its
// controller are, so that it can be brought back as it flies today.
func (s *Stock) noteFlown(q *fleet.Quad) {
	q.Now = q.Now.Clone()
	for _, slot := range []*fleet.Slot{q.Now.Goggles, q.Now.Controller} {
		if slot == nil {
			continue
		}
		if kit, ok := s.Fleet.Piece(slot.Kit); ok {
			slot.Firmware, slot.Mode = kit.Firmware, kit.Mode
		}
	}
}

// forgetFlown is the fit now as it is, whatever its devices carry.
func forgetFlown(q *fleet.Quad) {
	q.Now = q.Now.Clone()
	for _, slot := range []*fleet.Slot{q.Now.Goggles, q.Now.Controller} {
		if slot != nil {
			slot.Firmware, slot.Mode = "", ""
		}
	}
}

// PlanTurn plans to turn a quad to one of its fits. A swap that is planned is not lost for it.
func (s *Stock) PlanTurn(quadID, turn string) error {
	q, err := s.changed(quadID)
	if err != nil {
		return err
	}
	t, ok := q.TurnFit(turn)
	switch {
	case !ok:
		return fmt.Errorf("%s has no fit %q in turn", q.Label(), turn)
	case q.Next != nil && q.NextTurn == "":
		return fmt.Errorf("a swap is planned for %s: finish it, keep it in turn or drop it first", q.Label())
	}
	q.Next, q.NextTurn = new(t.Fit.Clone()), turn
	s.noteFlown(q)
	return nil
}

// DropPlan leaves a quad as it is: nothing is planned any more. A fit in turn stays one.
func (s *Stock) DropPlan(quadID string) error {
	q, err := s.changed(quadID)
	if err != nil {
		return err
	}
	if q.NextTurn != "" {
		forgetFlown(q)
	}
	q.Next, q.NextTurn = nil, ""
	return nil
}

// LeaveTurn takes a fit out of those a quad carries in turn. What lies ready with it goes
// into the drawer; a plan to turn to it stays, as a plan like any other.
func (s *Stock) LeaveTurn(quadID, turn string) error {
	q, err := s.changed(quadID)
	if err != nil {
		return err
	}
	t, ok := q.TurnFit(turn)
	if !ok {
		return fmt.Errorf("%s has no fit %q in turn", q.Label(), turn)
	}
	each(s.withoutHeaders(counted(t.Ready)), s.Fleet.AddSpare)
	drop(&s.Fleet.Wants, func(w fleet.Want) bool { return w.Quad == quadID && w.Turn == turn })
	q.InTurn = slices.DeleteFunc(q.InTurn, func(o fleet.TurnFit) bool { return o.ID == turn })
	if q.NextTurn == turn {
		forgetFlown(q)
		q.NextTurn = ""
	}
	return nil
}
