package pins

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Goal is a connection the harness shall make, by slots.
type Goal struct {
	Pin  int `json:"pin"`  // at the unit's end
	Slot int `json:"slot"` // at the board's end
}

// Repin is a plan to make a harness fit by moving crimps.
type Repin struct {
	Goals []Goal            `json:"goals"`
	Moves []fleet.CrimpMove `json:"moves"` // from the slots the cable came with
	Steps []string          `json:"steps"` // in the order to take them
	Says  string            `json:"says"`
	Patch fleet.Patch       `json:"patch"`
}

// Ends says which ends of a harness may be changed.
type Ends struct{ Unit, Board bool }

// repin finds the fewest crimps to move so that a harness makes the goals and
// nothing that harms; false where it has too few wires. The cost of a wire that
// serves a goal is the ends of it that sit elsewhere. A wire left over costs a
// crimp for each end whose slot a goal needs, or one where it would join what
// must not be joined.
func repin(
	wires []gear.HarnessWire, goals []Goal, ends Ends, harmful func(pin, slot int) bool,
) ([]fleet.CrimpMove, bool) {
	r := repinning{wires: wires, goals: goals, ends: ends, harmful: harmful}
	chosen, ok := r.cheapest()
	if !ok {
		return nil, false
	}
	var moves []fleet.CrimpMove
	for i, w := range wires {
		to := Goal{w.From, w.To}
		if g := chosen[i]; g > 0 {
			to = goals[g-1]
		} else {
			_, unit, board := r.leaveOut(w)
			if unit {
				to.Pin = 0
			}
			if board {
				to.Slot = 0
			}
		}
		if to.Pin != w.From {
			moves = append(moves, fleet.CrimpMove{End: fleet.UnitEnd, From: w.From, To: to.Pin})
		}
		if to.Slot != w.To {
			moves = append(moves, fleet.CrimpMove{End: fleet.BoardEnd, From: w.To, To: to.Slot})
		}
	}
	return moves, true
}

// repinning is one question: which wire of a harness serves which goal.
type repinning struct {
	wires   []gear.HarnessWire
	goals   []Goal
	ends    Ends
	harmful func(pin, slot int) bool
}

// never is a cost nothing is worth.
const never = 1 << 20

// serve is how many crimps it takes for a wire to serve a goal.
func (r *repinning) serve(w gear.HarnessWire, g Goal) (crimps int) {
	for _, end := range []struct{ moves, may bool }{{w.From != g.Pin, r.ends.Unit}, {w.To != g.Slot, r.ends.Board}} {
		switch {
		case end.moves && !end.may:
			return never
		case end.moves:
			crimps++
		}
	}
	return crimps
}

// leaveOut is how many crimps it takes to leave a wire over, and at which of its ends.
func (r *repinning) leaveOut(w gear.HarnessWire) (crimps int, unit, board bool) {
	unit = w.From != 0 && slices.ContainsFunc(r.goals, func(g Goal) bool { return g.Pin == w.From })
	board = w.To != 0 && slices.ContainsFunc(r.goals, func(g Goal) bool { return g.Slot == w.To })
	if unit && !r.ends.Unit || board && !r.ends.Board {
		return never, unit, board
	}
	if !unit && !board && w.From != 0 && w.To != 0 && r.harmful(w.From, w.To) {
		unit, board = r.ends.Unit, !r.ends.Unit
	}
	for _, moves := range []bool{unit, board} {
		if moves {
			crimps++
		}
	}
	return crimps, unit, board
}

// repinned is the cheapest way found to serve some of the goals.
type repinned struct {
	cost   int
	chosen [64]int8 // goal of each wire, from 1; 0: left over
}

// cheapest chooses a goal for each wire. Exact, by dynamic programming over the goals
// served: with w wires and g goals it looks at w·2^g·g states.
func (r *repinning) cheapest() (chosen [64]int8, ok bool) {
	masks := 1 << len(r.goals)
	states, next := make([]repinned, masks), make([]repinned, masks)
	for m := range states {
		states[m].cost = never
	}
	states[0].cost = 0
	for i, w := range r.wires {
		for m := range next {
			next[m].cost = never
		}
		over, _, _ := r.leaveOut(w)
		for m := range states {
			from := &states[m]
			if from.cost >= never {
				continue
			}
			next[m].take(from, over, i, 0)
			for g := range r.goals {
				if m&(1<<g) == 0 {
					next[m|1<<g].take(from, r.serve(w, r.goals[g]), i, int8(g+1))
				}
			}
		}
		states, next = next, states
	}
	best := &states[masks-1]
	return best.chosen, best.cost < never
}

// take keeps a way where it is cheaper: from another, with a goal for one more wire.
func (s *repinned) take(from *repinned, crimps, wire int, goal int8) {
	if cost := from.cost + crimps; cost < s.cost {
		chosen := from.chosen
		chosen[wire] = goal
		s.cost, s.chosen = cost, chosen
	}
}

// goalSets lists the ways the unit's plug can be joined with the board's: on each
// port whose pair is on the plug, the sticks on each other RX, the grounds on
// each ground. Only what the fit needs is a goal.
func (l *loom) goalSets() (sets [][]Goal) {
	var supply []int
	if from, ok := l.Fit.FeedOf(fleet.NodeAirUnit); ok {
		if pad, onBoard := fleet.PadOf(from); onBoard {
			supply = l.slots(pad)
		}
	}
	_, _, flown := l.Controller()
	needsRC := flown && l.Fit.Receiver == "" && l.unitPin(gear.PinRCOut) > 0
	for i := range l.board.UARTs {
		u := &l.board.UARTs[i]
		tx, rx := l.slots(u.TXPad()), l.slots(u.RXPad())
		if u.BuiltIn || u.Hardware == nil || !*u.Hardware || u.Invert == gear.InvertPad || len(tx) == 0 || len(rx) == 0 ||
			l.unitPin(gear.PinUARTRX) == 0 || l.unitPin(gear.PinUARTTX) == 0 {
			continue
		}
		base := []Goal{{l.unitPin(gear.PinUARTRX), tx[0]}, {l.unitPin(gear.PinUARTTX), rx[0]}}
		rcs := []int{0}
		if needsRC {
			rcs = l.stickSlots(u.ID)
		}
		for _, rc := range rcs {
			var more []Goal
			if rc > 0 {
				more = append(more, Goal{l.unitPin(gear.PinRCOut), rc})
			}
			if len(supply) > 0 {
				more = append(more, Goal{l.unitPin(gear.PinSupply), supply[0]})
			}
			sets = append(sets, l.withGrounds(base, more, needsRC)...)
		}
	}
	return sets
}

// slots are those of the board's plug that carry something, from 1.
func (l *loom) slots(function string) (list []int) {
	for i, pin := range l.run.Into.Pins {
		if pin == function {
			list = append(list, i+1)
		}
	}
	return list
}

// unitPin is the pin of the unit's plug that carries something, from 1; 0: none.
func (l *loom) unitPin(function string) int { return slices.Index(l.run.Plug.Pins, function) + 1 }

// stickSlots are those where the sticks can come in beside a port: the RX of every other
// hardware port that takes an inverted signal.
func (l *loom) stickSlots(beside int) (list []int) {
	for i := range l.board.UARTs {
		u := &l.board.UARTs[i]
		pad := u.RXPad()
		if u.Invert == gear.InvertSecond {
			pad = u.InvertedPad()
		}
		hardware := u.Hardware != nil && *u.Hardware && !u.BuiltIn
		if at := l.slots(pad); u.ID != beside && hardware && len(at) > 0 && u.Invert != gear.InvertNone && u.Invert != "" {
			list = append(list, at[0])
		}
	}
	return list
}

// withGrounds are some goals, the unit's ground and more of them, each way the grounds can
// lie.
func (l *loom) withGrounds(set, more []Goal, needsRC bool) (sets [][]Goal) {
	grounds := l.slots(gear.PinGround)
	for _, first := range grounds {
		with := slices.Concat(set, []Goal{{l.unitPin(gear.PinGround), first}}, more)
		others := slices.DeleteFunc(slices.Clone(grounds), func(g int) bool { return g == first })
		if !needsRC || l.unitPin(gear.PinRCGround) == 0 || len(others) == 0 {
			sets = append(sets, with)
			continue
		}
		for _, second := range others {
			sets = append(sets, append(slices.Clone(with), Goal{l.unitPin(gear.PinRCGround), second}))
		}
	}
	return sets
}

// harmful says whether a wire between two slots joins what must not be joined.
// Grounds may meet, and a supply what feeds it.
func (l *loom) harmful(pin, slot int) bool {
	function, terminal := l.run.Plug.Pin(pin), l.run.Into.Pin(slot)
	if function == "" || terminal == "" {
		return false
	}
	ground := function == gear.PinGround || function == gear.PinRCGround
	if ground || terminal == gear.PinGround {
		return ground != (terminal == gear.PinGround)
	}
	return true // a supply or a signal nobody asked for
}

// Repins finds the fewest moved crimps that make the harness of a fit right:
// from either end, and from both. It is empty where there is no plug at both
// ends or the wiring is right as it is.
func Repins(c fleet.Case) []Repin {
	list := []Repin{}
	l, ok := newLoom(c)
	if !ok || l.run.Harness == nil || l.run.Into == nil || l.run.Plug == nil {
		return list
	}
	sets := l.goalSets()
	for _, goals := range sets {
		now := c.Fit.Wired(l.run.Harness)
		if moves, ok := repin(now, goals, Ends{Unit: true, Board: true}, l.harmful); ok && len(moves) == 0 {
			return list
		}
	}
	for _, way := range []struct {
		ends  Ends
		words string
	}{
		{Ends{Unit: true}, "at the unit's end alone"},
		{Ends{Board: true}, "at the board's end alone"},
		{Ends{Unit: true, Board: true}, "at both ends"},
	} {
		var best *Repin
		for _, goals := range sets {
			moves, ok := repin(l.run.Harness.Wires, goals, way.ends, l.harmful)
			if ok && (best == nil || len(moves) < len(best.Moves)) {
				best = &Repin{Goals: goals, Moves: moves}
			}
		}
		if best == nil || len(best.Moves) == 0 || slices.ContainsFunc(list, func(r Repin) bool {
			return len(r.Moves) <= len(best.Moves) && slices.Equal(r.Moves, best.Moves)
		}) {
			continue
		}
		best.Steps = l.stepsOf(best.Moves)
		best.Says = fmt.Sprintf("%s moved, %s", change.Count(len(best.Moves), "crimp"), way.words)
		wiring := c.Fit.Wiring
		wiring.Moved = best.Moves
		best.Patch = fleet.Patch{Wiring: &wiring}
		list = append(list, *best)
	}
	slices.SortStableFunc(list, func(a, b Repin) int { return len(a.Moves) - len(b.Moves) })
	return list
}

// PlannedMoves are the steps of the crimps that a plan moves in a cable, from where they
// are: a cable that is on the quad, or that comes back to it, has some moved already.
func PlannedMoves(c fleet.Case) []string {
	l, ok := newLoom(c)
	if !ok || l.run.Harness == nil || l.run.Plug == nil {
		return nil
	}
	if l.run.Into == nil {
		l.run.Into = &gear.Plug{}
	}
	had, has := fleet.Cable{}, c.Fit.Cable()
	if back, comesBack := c.Quad.BackTo(); comesBack && back.Harness == has.Harness {
		had = back.Cable()
	}
	if now := c.Quad.Now.Cable(); now.Harness == has.Harness {
		had = now
	}
	moves := movesFrom(l.run.Harness, &had, &has)
	if len(moves) == 0 {
		return nil
	}
	return l.order(moves, had.Wired(l.run.Harness), has.Wired(l.run.Harness))
}

// stepsOf are the steps of moves in the cable as it was made.
func (l *loom) stepsOf(moves []fleet.CrimpMove) []string {
	return l.order(moves, l.run.Harness.Wires, (&fleet.Cable{Moved: moves}).Wired(l.run.Harness))
}

// order writes the moves so that nothing is ever joined that harms: with both
// ends unplugged every crimp to be moved comes out first, the supply before the
// others; then signals go in, then grounds, and the supply last. The wires are told by
// where their crimps were and are.
func (l *loom) order(moves []fleet.CrimpMove, was, is []gear.HarnessWire) []string {
	words := func(m fleet.CrimpMove) string { return wireWords(m, was, is) }
	rank := func(m fleet.CrimpMove) int {
		function := l.run.Plug.Pin(m.To)
		if m.End == fleet.BoardEnd {
			function = l.run.Into.Pin(m.To)
			if l.power(function) {
				function = gear.PinSupply
			}
		}
		switch function {
		case gear.PinSupply:
			return 2
		case gear.PinGround, gear.PinRCGround:
			return 1
		}
		return 0
	}
	sorted := slices.Clone(moves)
	slices.SortStableFunc(sorted, func(a, b fleet.CrimpMove) int { return rank(a) - rank(b) })
	steps := []string{"Unplug both ends, pack off."}
	for _, m := range slices.Backward(sorted) {
		if m.From == 0 {
			steps = append(steps, fmt.Sprintf("Take the insulation off %s at the %s's end.", words(m), m.End))
			continue
		}
		steps = append(steps,
			fmt.Sprintf("Lift the latch and draw %s out of slot %d at the %s's end.", words(m), m.From, m.End))
	}
	for _, m := range sorted {
		if m.To == 0 {
			steps = append(steps, fmt.Sprintf("Insulate %s and leave it out at the %s's end.", words(m), m.End))
			continue
		}
		steps = append(steps, fmt.Sprintf("Push %s into slot %d at the %s's end until it clicks.", words(m), m.To, m.End))
	}
	return append(steps, "Check each wire by position and function against the picture, then meter it before power.")
}

// wireWords names the wire whose crimp is moved, by its colour.
func wireWords(m fleet.CrimpMove, was, is []gear.HarnessWire) string {
	for i, w := range was {
		from, to := w.From, is[i].From
		if m.End == fleet.BoardEnd {
			from, to = w.To, is[i].To
		}
		if from == m.From && to == m.To && w.Colour != "" {
			return "the " + strings.ToLower(w.Colour) + " wire"
		}
	}
	return "the wire"
}
