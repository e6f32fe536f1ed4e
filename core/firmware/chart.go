package firmware

import (
	"slices"
	"sync"
)

// Move is one release a device offers, as the way finder needs it.
type Move struct {
	Version    Version
	From       Range     // releases it may be installed over
	OneWay     bool      // no way back to what was there before
	RollbackTo []Version // older releases it may be replaced by
	Mode       string    // the mode the device must be in; empty: any
	Activated  bool      // goes only on a device that has been activated
	Withheld   bool      // not offered at present: nothing puts it on
}

// Mode is a mode of a device and the releases that have it.
type Mode struct {
	ID string
	On Range
}

// State is where a device stands.
type State struct {
	Version   Version // empty: not known
	Mode      string  // empty: not known, or it has none
	Activated bool
}

// Step is one permitted step of a device: an update or a rollback (To is set),
// a switch to a mode (Mode is set), or its activation.
type Step struct {
	From     Version
	To       Version
	Mode     string
	FromMode string
	Activate bool
	OneWay   bool // nothing puts back what was there before
	Back     bool // a rollback to an older release
}

// Chart is all moves of a device model. Its moves are not changed after
// NewChart, so it may be shared between goroutines; ways found are kept.
type Chart struct {
	moves      []Move
	modes      []Mode
	activation *Range   // releases it can be activated on; nil: no activation needed
	back       [][]bool // whether moves lead from one release to another, modes and activation apart
	plain      bool     // no move depends on a mode or on activation
	rolledTo   []Version
	found      sync.Map // trip to way
}

type trip struct{ from, goal State }

type way struct {
	steps []Step
	ok    bool
}

// NewChart charts a device's releases, modes and activation. A nil activation
// means none is needed.
func NewChart(moves []Move, modes []Mode, activation *Range) *Chart {
	c := &Chart{moves: moves, modes: modes, activation: activation, plain: true}
	c.back = make([][]bool, len(moves))
	for i := range moves {
		c.plain = c.plain && moves[i].Mode == "" && !moves[i].Activated
		c.rolledTo = append(c.rolledTo, moves[i].RollbackTo...)
		c.back[i] = make([]bool, len(moves))
		for k := range moves {
			c.back[i][k] = c.installs(k, i) || c.rollsBack(i, k)
		}
	}
	for via := range moves { // Warshall's transitive closure
		for i := range moves {
			for k := range moves {
				c.back[i][k] = c.back[i][k] || c.back[i][via] && c.back[via][k]
			}
		}
	}
	return c
}

// Without is the chart while some of its releases are not offered.
func (c *Chart) Without(list []Version) *Chart {
	if len(list) == 0 {
		return c
	}
	moves := slices.Clone(c.moves)
	for i := range moves {
		moves[i].Withheld = moves[i].Withheld || holds(list, moves[i].Version)
	}
	return NewChart(moves, c.modes, c.activation)
}

func holds(list []Version, v Version) bool {
	return slices.ContainsFunc(list, func(w Version) bool { return w.Compare(v) == 0 })
}

// unlisted is the place of a release that is not known, or not among those the
// device offers.
const unlisted = -1

func (c *Chart) place(v Version) int {
	if !v.Known() {
		return unlisted
	}
	return slices.IndexFunc(c.moves, func(m Move) bool { return m.Version.Compare(v) == 0 })
}

// installs says whether a release goes over the one at a place. Over a release
// nobody knows only the newest goes, and only if it goes over everything: any
// other could turn out to be a downgrade.
func (c *Chart) installs(release, over int) bool {
	m := &c.moves[release]
	if m.Withheld {
		return false
	}
	if over != unlisted {
		return m.Version.Compare(c.moves[over].Version) > 0 && m.From.Holds(c.moves[over].Version)
	}
	newest := !slices.ContainsFunc(c.moves, func(o Move) bool { return !o.Withheld && o.Version.Compare(m.Version) > 0 })
	return newest && m.From.IsAny()
}

func (c *Chart) rollsBack(from, to int) bool {
	return from != unlisted && !c.moves[to].Withheld && slices.ContainsFunc(c.moves[from].RollbackTo, func(v Version) bool { return v.Compare(c.moves[to].Version) == 0 })
}

// door says whether nothing leads back from a release just installed.
func (c *Chart) door(release, over int) bool {
	return c.moves[release].OneWay || over == unlisted || !c.back[release][over]
}

// has says whether the release at a place has a mode.
func (c *Chart) has(mode Mode, at int) bool {
	if at == unlisted {
		return mode.On.IsAny()
	}
	return mode.On.Holds(c.moves[at].Version)
}

// keepsMode is the mode after an update: gone where the release has none such.
func (c *Chart) keepsMode(mode string, at int) string {
	for _, m := range c.modes {
		if m.ID == mode && !c.has(m, at) {
			return ""
		}
	}
	return mode
}

// KeptMode is the mode a device is in after an update to a release: none where
// the release has no such mode.
func (c *Chart) KeptMode(mode string, on Version) string { return c.keepsMode(mode, c.place(on)) }

func (c *Chart) activates(at int) bool {
	return c.activation != nil && (c.activation.IsAny() || at != unlisted && c.activation.Holds(c.moves[at].Version))
}

// Way finds the steps that bring a device from a state to a goal: a version, a
// mode (empty: any will do) and activation (false: either will do). A goal
// version that is not known means the one it carries. It takes the way with the
// fewest one-way steps, then the fewest steps, then with activation as late as
// can be; among equals the one listed first. It answers false where no way
// exists. The steps are shared: they must not be changed.
//
// A version the device does not offer is treated as one nobody has read. The
// search is Dijkstra's over release, mode and activation.
func (c *Chart) Way(from, goal State) ([]Step, bool) {
	if c.activation == nil {
		from.Activated, goal.Activated = true, false
	}
	start := c.place(from.Version)
	target := c.place(goal.Version)
	stays := !goal.Version.Known() || from.Version.Known() && goal.Version.Compare(from.Version) == 0
	switch {
	case stays:
		target = start
	case target == unlisted:
		return nil, false
	}
	if stays && (goal.Mode == "" || goal.Mode == from.Mode) && (from.Activated || !goal.Activated) {
		return nil, true
	}
	if step, ok := c.direct(from, goal, start, target); ok {
		return []Step{step}, true
	}
	key := trip{from, goal}
	if w, ok := c.found.Load(key); ok {
		return w.(way).steps, w.(way).ok
	}
	steps, ok := c.search(from, goal, start, target)
	c.found.Store(key, way{steps, ok})
	return steps, ok
}

// direct is the way of most devices: one update, where nothing can be better.
func (c *Chart) direct(from, goal State, start, target int) (Step, bool) {
	if !c.plain || goal.Mode != "" || goal.Activated && !from.Activated || start == unlisted || target == start || !c.installs(target, start) {
		return Step{}, false
	}
	m := &c.moves[target]
	if m.OneWay && holds(c.rolledTo, m.Version) {
		return Step{}, false // perhaps it can be rolled back to, round the door
	}
	return Step{From: from.Version, To: m.Version, OneWay: c.door(target, start)}, true
}

// node is a place in the search.
type node struct {
	at        int
	mode      string
	activated bool
}

// visit is a node with the cheapest way to it so far.
type visit struct {
	node
	cost   [3]int // one-way steps, steps, steps after activation
	step   Step   // that led here
	before int    // place of the visit before
	closed bool
}

func (c *Chart) search(from, goal State, start, target int) ([]Step, bool) {
	visits := []visit{{node: node{start, from.Mode, from.Activated}, before: -1}}
	for {
		at := -1
		for i := range visits {
			if !visits[i].closed && (at < 0 || slices.Compare(visits[i].cost[:], visits[at].cost[:]) < 0) {
				at = i
			}
		}
		if at < 0 {
			return nil, false
		}
		here := visits[at]
		if here.at == target && (goal.Mode == "" || goal.Mode == here.mode) && (here.activated || !goal.Activated) {
			return walked(visits, at), true
		}
		visits[at].closed = true
		c.leave(here.node, from, goal, func(to node, step Step) {
			cost := here.cost
			if step.OneWay {
				cost[0]++
			}
			cost[1]++
			if here.activated && !from.Activated {
				cost[2]++
			}
			next := visit{node: to, cost: cost, step: step, before: at}
			i := slices.IndexFunc(visits, func(v visit) bool { return v.node == to })
			if i < 0 {
				visits = append(visits, next)
			} else if !visits[i].closed && slices.Compare(cost[:], visits[i].cost[:]) < 0 {
				visits[i] = next
			}
		})
	}
}

// leave lists the steps that lead on from a node.
func (c *Chart) leave(here node, from, goal State, visit func(node, Step)) {
	version := from.Version
	if here.at != unlisted {
		version = c.moves[here.at].Version
	}
	for i := range c.moves {
		m := &c.moves[i]
		if (m.Mode != "" && m.Mode != here.mode) || m.Activated && !here.activated || !c.installs(i, here.at) {
			continue
		}
		visit(node{i, c.keepsMode(here.mode, i), here.activated}, Step{From: version, To: m.Version, OneWay: c.door(i, here.at)})
	}
	for i := range c.moves {
		if c.rollsBack(here.at, i) {
			visit(node{i, c.keepsMode(here.mode, i), here.activated}, Step{From: version, To: c.moves[i].Version, Back: true})
		}
	}
	if !c.plain || goal.Mode != "" {
		for _, mode := range c.modes {
			if mode.ID != here.mode && c.has(mode, here.at) {
				visit(node{here.at, mode.ID, here.activated}, Step{From: version, FromMode: here.mode, Mode: mode.ID})
			}
		}
	}
	if !here.activated && (!c.plain || goal.Activated) && c.activates(here.at) {
		visit(node{here.at, here.mode, true}, Step{From: version, Activate: true})
	}
}

// Doors counts the one-way steps of a way.
func Doors(steps []Step) (n int) {
	for _, s := range steps {
		if s.OneWay {
			n++
		}
	}
	return n
}

// Updates counts the updates and rollbacks of a way.
func Updates(steps []Step) (n int) {
	for _, s := range steps {
		if s.To.Known() {
			n++
		}
	}
	return n
}

func walked(visits []visit, at int) []Step {
	var steps []Step
	for ; visits[at].before >= 0; at = visits[at].before {
		steps = append(steps, visits[at].step)
	}
	slices.Reverse(steps)
	return steps
}
