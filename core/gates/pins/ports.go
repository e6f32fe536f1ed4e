package pins

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// refuses says why a port cannot take a need; empty where it can.
func refuses(u *gear.UART, n *Need) string {
	switch {
	case u.BuiltIn && n.builtIn:
		return ""
	case u.BuiltIn:
		return fmt.Sprintf("UART %d is taken by the receiver on the board", u.ID)
	case n.builtIn:
		return "the receiver is built in on another port"
	case n.TX && !u.TX && n.RX && !u.RX:
		return fmt.Sprintf("UART %d has no pad broken out", u.ID)
	case n.TX && !u.TX:
		return fmt.Sprintf("UART %d has no TX pad", u.ID)
	case n.RX && !u.RX:
		return fmt.Sprintf("UART %d has no RX pad", u.ID)
	case n.Fast && u.Hardware == nil:
		return fmt.Sprintf("nobody has stated whether UART %d is a hardware port", u.ID)
	case n.Fast && !*u.Hardware:
		return fmt.Sprintf("UART %d is soft-serial: too slow", u.ID)
	case n.Inverted && u.Invert == "":
		return fmt.Sprintf("nobody has stated how UART %d takes an inverted signal", u.ID)
	case n.Inverted && u.Invert == gear.InvertNone:
		return fmt.Sprintf("UART %d cannot take an inverted signal", u.ID)
	case n.RX && !n.Inverted && u.Invert == gear.InvertPad:
		return fmt.Sprintf("RX %d is always inverted", u.ID)
	}
	return ""
}

// Assigned is a need with its port.
type Assigned struct {
	Need
	UART  int    `json:"uart"`
	Moves int    `json:"moves"` // wires to move
	Why   string `json:"why"`
}

// Lost is a need no port is left for.
type Lost struct {
	Need
	Why   []string `json:"why"`   // port by port
	Cures []string `json:"cures"` // each tried
}

// PortPlan is the plan for a board's serial ports.
type PortPlan struct {
	Says  string     `json:"says"`
	Ports []Assigned `json:"ports"`
	Lost  []Lost     `json:"lost"`
	Freed []string   `json:"freed"` // by taking the analog transmitter out
	Moves int        `json:"moves"`
}

// assign gives each need a port: the most important ones first in the list are
// kept before any later one, then the fewest wires are moved, then lower ports
// are taken. Exact, by dynamic programming over the ports taken: with p ports
// and n needs it looks at n·2^p·p states; boards have eight ports at most.
func assign(ports []gear.UART, needs []Need) []int {
	type state struct {
		reached     bool
		kept, moves int
		chosen      [mostNeeds]int8
	}
	better := func(a, b *state) bool {
		return !b.reached || a.kept > b.kept || a.kept == b.kept && a.moves < b.moves
	}
	masks := 1 << len(ports)
	states, next := make([]state, masks), make([]state, masks)
	states[0].reached = true
	for i := range needs {
		clear(next)
		for mask := range states {
			s := &states[mask]
			if !s.reached {
				continue
			}
			for p := -1; p < len(ports); p++ {
				after, to := *s, mask
				after.chosen[i] = int8(p)
				if p >= 0 {
					if mask&(1<<p) != 0 || refuses(&ports[p], &needs[i]) != "" {
						continue
					}
					to |= 1 << p
					after.kept |= 1 << (len(needs) - 1 - i)
					after.moves += movesTo(&ports[p], &needs[i])
				}
				if better(&after, &next[to]) {
					next[to] = after
				}
			}
		}
		states, next = next, states
	}
	best := &states[0]
	for mask := range states {
		if states[mask].reached && better(&states[mask], best) {
			best = &states[mask]
		}
	}
	chosen := make([]int, len(needs))
	for i := range chosen {
		chosen[i] = int(best.chosen[i])
	}
	return chosen
}

// mostNeeds bounds the uses of one board: the file format takes no more.
const mostNeeds = 16

// movesTo is what putting a need on a port takes: its wires where they are not
// there yet, and the solder jumper of an inverter.
func movesTo(u *gear.UART, n *Need) int {
	moves := 0
	if n.Now != u.ID {
		moves = n.wires()
	}
	if n.Inverted && u.Invert == gear.InvertJumper && n.Now != u.ID {
		moves++
	}
	return moves
}

// Ports plans the serial ports of the board of a fit; false where it has none or
// a value is missing.
func Ports(c fleet.Case) (PortPlan, bool) {
	l, _ := newLoom(c)
	if l.board == nil || len(l.board.UARTs) == 0 {
		return PortPlan{}, false
	}
	needs, missing := l.needs()
	if len(missing) > 0 {
		return PortPlan{}, false
	}
	return l.portPlan(needs), true
}

func (l *loom) portPlan(needs []Need) PortPlan {
	ports := l.board.UARTs
	plan := PortPlan{Ports: []Assigned{}, Lost: []Lost{}, Freed: l.freed()}
	for i, p := range assign(ports, needs) {
		n := needs[i]
		if p < 0 {
			plan.Lost = append(plan.Lost, l.lost(needs, i))
			continue
		}
		a := Assigned{Need: n, UART: ports[p].ID, Moves: movesTo(&ports[p], &n)}
		a.Why = why(&ports[p], &n)
		plan.Moves += a.Moves
		plan.Ports = append(plan.Ports, a)
	}
	plan.Says = plan.sentence()
	return plan
}

func why(u *gear.UART, n *Need) string {
	if n.builtIn {
		return "it is built into the board, on this port"
	}
	says := "it stays where it is"
	if n.Now != u.ID {
		switch {
		case n.TX && n.RX:
			says = "both pads are broken out"
		case n.RX:
			says = "only its RX is needed"
		default:
			says = "only its TX is needed"
		}
		if n.Now != 0 {
			says += fmt.Sprintf(", moved from UART %d", n.Now)
		}
	}
	if n.Inverted {
		says += map[gear.Invert]string{
			gear.InvertPad:      "; its pad has an inverter",
			gear.InvertJumper:   "; its solder jumper is set to inverted",
			gear.InvertSecond:   "; its second pad has an inverter",
			gear.InvertSoftware: "; the processor inverts the signal",
		}[u.Invert]
	}
	return says
}

// lost says why a need has no port and what would give it one: each way is tried.
func (l *loom) lost(needs []Need, at int) Lost {
	ports := l.board.UARTs
	lost := Lost{Need: needs[at], Why: []string{}, Cures: []string{}}
	for p := range ports {
		if says := refuses(&ports[p], &needs[at]); says != "" {
			lost.Why = append(lost.Why, says)
		} else {
			lost.Why = append(lost.Why, fmt.Sprintf("UART %d is taken by a more important use", ports[p].ID))
		}
	}
	complete := func(ports []gear.UART, needs []Need) bool {
		return !slices.Contains(assign(ports, needs), -1)
	}
	for i := range needs {
		if i != at && complete(ports, slices.Delete(slices.Clone(needs), i, i+1)) {
			lost.Cures = append(lost.Cures, "do without "+change.Use(needs[i].Use))
		}
	}
	full := gear.UART{ID: 99, TX: true, RX: true, Hardware: new(true), Invert: gear.InvertSoftware}
	if complete(append(slices.Clone(ports), full), needs) {
		lost.Cures = append(lost.Cures, "a board with one more hardware port, both pads broken out")
	}
	return lost
}

// freed lists the ports an analog transmitter's control wire gives back.
func (l *loom) freed() []string {
	freed := []string{}
	if l.airUnit == nil {
		return freed
	}
	for _, p := range append(slices.Clone(l.Quad.Now.Ports), l.Fit.Ports...) {
		says := fmt.Sprintf("UART %d, once the control wire of the analog transmitter is off", p.UART)
		if u, ok := l.board.UART(p.UART); p.Use == fleet.UseVTXControl && ok {
			if !u.RX {
				says += "; only its TX pad is broken out, so it cannot carry MSP"
			}
			if !slices.Contains(freed, says) {
				freed = append(freed, says)
			}
		}
	}
	return freed
}

func (p *PortPlan) sentence() string {
	if len(p.Lost) > 0 {
		return fmt.Sprintf("%s finds no port on this board.", verdict.Capital(change.Use(p.Lost[0].Use)))
	}
	switch p.Moves {
	case 0:
		return "Every use has its port, and nothing is moved."
	case 1:
		return "Every use has its port; one wire or jumper is set."
	}
	return fmt.Sprintf("Every use has its port; %d wires or jumpers are set.", p.Moves)
}
