package fleet

import "slices"

// TurnFit is a fit that a quad carries in turn with the one it has now: two units that
// share a plug, kept ready for the day one of them is wanted (common practice).
type TurnFit struct {
	ID string `json:"id"`
	// Flown: it has been on the quad, its headers are on their pads and it has been bound.
	Flown bool `json:"flown,omitempty"`
	// Ready is what lies ready with it, neither in the drawer nor on the quad.
	Ready []Spare `json:"ready,omitempty"`
	Fit   Fit     `json:"fit"`
}

// TurnFit is one of the fits the quad carries in turn.
func (q *Quad) TurnFit(id string) (*TurnFit, bool) {
	at := slices.IndexFunc(q.InTurn, func(t TurnFit) bool { return t.ID == id })
	if id == "" || at < 0 {
		return nil, false
	}
	return &q.InTurn[at], true
}

// BackTo is the fit that the plan brings back, as it was when it came off; false where
// the plan is a new one.
func (q *Quad) BackTo() (*Fit, bool) {
	t, ok := q.TurnFit(q.NextTurn)
	if !ok || !t.Flown || q.Next == nil {
		return nil, false
	}
	return &t.Fit, true
}

// Ready is what lies ready with all the fits a quad carries in turn, by model.
func (q *Quad) Ready() map[string]int {
	ready := map[string]int{}
	for i := range q.InTurn {
		for _, part := range q.InTurn[i].Ready {
			ready[part.Model] += part.Count
		}
	}
	return ready
}

// InTurnOn is a quad, other than the one given, on which a unit takes turns with another.
func (f *Fleet) InTurnOn(kitID, except string) (*Quad, bool) {
	for i := range f.Quads {
		q := &f.Quads[i]
		if q.ID != except && slices.ContainsFunc(q.InTurn, func(t TurnFit) bool {
			return t.Fit.AirUnit != nil && t.Fit.AirUnit.Kit == kitID
		}) {
			return q, true
		}
	}
	return nil, false
}

// Takes is how many parts of each model the plan takes out of the drawer: what it has
// beyond what is on the quad and what lies ready for it. How the parts of a fit are
// counted is the caller's.
func (q *Quad) Takes(count func(*Fit) map[string]int) map[string]int {
	need := Beyond(count(q.plan()), count(&q.Now))
	if len(q.InTurn) == 0 {
		return need
	}
	return Beyond(need, q.Ready())
}

// Beyond is what one count of parts has more of than another.
func Beyond(parts, than map[string]int) map[string]int {
	more := map[string]int{}
	for model, n := range parts {
		if n -= than[model]; n > 0 {
			more[model] = n
		}
	}
	return more
}

// MovesOver says whether an antenna, or an adapter of one, is on both fits: with one set
// of them it changes from one unit to the other at each turn.
func MovesOver(a, b *Fit) bool {
	if a.Antennas == nil || b.Antennas == nil {
		return false
	}
	return slices.ContainsFunc(a.Antennas.Models, func(model string) bool {
		return slices.Contains(b.Antennas.Models, model)
	}) || a.Antennas.Adapter != "" && a.Antennas.Adapter == b.Antennas.Adapter
}
