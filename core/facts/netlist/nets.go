package netlist

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Pin is an end of a wire: a pin of a part, or a place of the flight board.
type Pin struct {
	Node     string // of the part; "board" for the flight board
	N        int    // of the part, from 1; 0 on the board
	Name     string // its function, or the board's terminal
	Electric gear.Electric
}

// Net is what is joined: at least two pins.
type Net struct {
	Pins []Pin
}

// boardNode is the flight board among the ends of wires.
const boardNode = fleet.NodeBoard

// joint is two pins that a wire or a lead joins.
type joint struct{ a, b Pin }

// joints are those of the wires of runs.
func joints(c fleet.Case, board *gear.Board, runs []*Run) (list []joint) {
	for _, r := range runs {
		var ground *Pin
		for i := range r.Conns {
			w := &r.Conns[i]
			if !w.Live() {
				continue
			}
			a := Pin{r.Node, w.Pin, w.Function, gear.PinDoes(w.Function)}
			list = append(list, joint{a, boardPin(c.Fit, board, w.Terminal)})
			if a.Electric == gear.Grounded {
				if ground != nil {
					list = append(list, joint{a, *ground})
				}
				ground = &a
			}
		}
	}
	return list
}

// Nets joins the pins of all runs of a fit along their wires. A power pad counts as what
// its jumper leads to, so that two pads of the pack's voltage are one place; a part's
// grounds are one. A wire that ends nowhere joins nothing.
func Nets(c fleet.Case, runs []*Run) []Net {
	board, ok := c.Board()
	if !ok {
		return nil
	}
	return components(joints(c, board, runs))
}

// components are the nets of joints, in the order of their first pin.
//
// Method: union and find.
func components(list []joint) []Net {
	most := 2 * len(list)
	pins, parent, at := make([]Pin, 0, most), make([]int, 0, most), make(map[Pin]int, most)
	place := func(p Pin) int {
		if i, known := at[p]; known {
			return i
		}
		at[p] = len(pins)
		pins, parent = append(pins, p), append(parent, len(parent))
		return at[p]
	}
	root := func(i int) int {
		for parent[i] != i {
			parent[i] = parent[parent[i]]
			i = parent[i]
		}
		return i
	}
	for _, j := range list {
		a, b := place(j.a), place(j.b)
		parent[root(a)] = root(b)
	}
	groups := make([]int, len(pins)) // the place of a root's net, counted from 1
	var nets []Net
	for i := range pins {
		r := root(i)
		if groups[r] == 0 {
			nets = append(nets, Net{})
			groups[r] = len(nets)
		}
		net := &nets[groups[r]-1]
		net.Pins = append(net.Pins, pins[i])
	}
	return nets
}

// boardPin is a place of the board, a jumper followed to what it chooses.
func boardPin(f *fleet.Fit, b *gear.Board, terminal string) Pin {
	does := b.TerminalDoes(terminal)
	for range len(b.Pads) + 1 {
		pad, ok := b.Pad(terminal)
		if !ok {
			break
		}
		if pad.Kind == gear.PadPack {
			return packPin
		}
		choice := pad.Leads(f.Jumpers)
		if choice == "" {
			break
		}
		if choice == fleet.NodePack {
			return packPin
		}
		terminal = choice
	}
	return Pin{Node: boardNode, Name: terminal, Electric: does}
}

// Clash is what two pins on one net do to each other.
type Clash int

// What they do, the worst last.
const (
	Fine     Clash = iota
	Silent         // a signal is held to ground, or power is asked of a signal: nothing works
	Fighting       // two drive one line: neither is heard
	Burning        // power on a signal: that destroys the part
	Joined         // two supplies against each other
	Shorted        // supply and ground
)

// clashes is the table of rules, by what the two pins do (common practice, in the manner
// of the rule checks of circuit editors).
var clashes = map[[2]gear.Electric]Clash{
	{gear.Grounded, gear.Takes}:   Shorted,
	{gear.Grounded, gear.Gives}:   Shorted,
	{gear.Grounded, gear.Drives}:  Silent,
	{gear.Grounded, gear.Listens}: Silent,
	{gear.Grounded, gear.Shares}:  Silent,
	{gear.Takes, gear.Drives}:     Silent,
	{gear.Takes, gear.Listens}:    Silent,
	{gear.Takes, gear.Shares}:     Silent,
	{gear.Gives, gear.Gives}:      Joined,
	{gear.Gives, gear.Drives}:     Burning,
	{gear.Gives, gear.Listens}:    Burning,
	{gear.Gives, gear.Shares}:     Burning,
	{gear.Drives, gear.Drives}:    Fighting,
}

// Clashing is what two pins do to each other when they are joined, whichever comes first.
func Clashing(a, b gear.Electric) Clash { return clashing[a][b] }

// clashing is the table both ways round.
var clashing = func() (table [gear.Shares + 1][gear.Shares + 1]Clash) {
	for pair, clash := range clashes {
		table[pair[0]][pair[1]], table[pair[1]][pair[0]] = clash, clash
	}
	return table
}()

// Direct is the worst that a single wire of the net does where it ends.
func (n *Net) Direct(runs []*Run, c fleet.Case) (worst Clash) {
	board, ok := c.Board()
	if !ok {
		return Fine
	}
	for _, r := range runs {
		for i := range r.Conns {
			w := &r.Conns[i]
			to := boardPin(c.Fit, board, w.Terminal)
			if w.Live() && slices.Contains(n.Pins, to) {
				worst = max(worst, Clashing(gear.PinDoes(w.Function), to.Electric))
			}
		}
	}
	return worst
}

// Meeting is two pins on one net that no single wire joins.
type Meeting struct {
	A, B  Pin
	Clash Clash
}

// Meetings are the clashes of a net between pins that no single wire joins: what a look
// at each wire alone does not see. The worst comes first.
func (n *Net) Meetings(runs []*Run, c fleet.Case) (list []Meeting) {
	board, ok := c.Board()
	if !ok {
		return nil
	}
	wired := func(a, b Pin) bool {
		return slices.ContainsFunc(runs, func(r *Run) bool {
			return r.Node == a.Node && slices.ContainsFunc(r.Conns, func(w Conn) bool {
				return w.Pin == a.N && w.Live() && boardPin(c.Fit, board, w.Terminal) == b
			})
		})
	}
	for i, a := range n.Pins {
		for _, b := range n.Pins[i+1:] {
			clash := Clashing(a.Electric, b.Electric)
			if clash == Fine || wired(a, b) || wired(b, a) {
				continue
			}
			list = append(list, Meeting{a, b, clash})
		}
	}
	slices.SortStableFunc(list, func(a, b Meeting) int { return int(b.Clash) - int(a.Clash) })
	return list
}
