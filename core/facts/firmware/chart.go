package firmware

import (
	"slices"
	"sync"
	"sync/atomic"
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
// NewChart, so it may be shared between goroutines; what is found is kept. Nothing is
// worked out before it is asked for: a library has many devices, a quad has three.
type Chart struct {
	moves      []Move
	modes      []Mode
	activation *Range // releases it can be activated on; nil: no activation needed
	plain      bool   // no move depends on a mode or on activation
	rolledTo   []Version
	laid       sync.Once
	over       [][]bool                 // whether a release goes over another, by their places
	rolls      [][]bool                 // whether a release may be replaced by an older one
	newest     int                      // the newest release offered; unlisted: none
	back       []atomic.Pointer[[]bool] // by release: to which moves lead from it, modes and activation apart
	trees      sync.Map                 // origin to *tree
	places     sync.Map                 // version to its place
}

// NewChart charts a device's releases, modes and activation. A nil activation
// means none is needed.
func NewChart(moves []Move, modes []Mode, activation *Range) *Chart {
	c := &Chart{moves: moves, modes: modes, activation: activation, plain: true, newest: unlisted}
	for i := range moves {
		c.plain = c.plain && moves[i].Mode == "" && !moves[i].Activated
		c.rolledTo = append(c.rolledTo, moves[i].RollbackTo...)
	}
	return c
}

// lay works out once which release goes over which.
func (c *Chart) lay() {
	c.laid.Do(func() {
		n := len(c.moves)
		c.over, c.rolls, c.back = table(n), table(n), make([]atomic.Pointer[[]bool], n)
		for i := range c.moves {
			m := &c.moves[i]
			if m.Withheld {
				continue
			}
			if c.newest == unlisted || m.Version.Compare(c.moves[c.newest].Version) > 0 {
				c.newest = i
			}
			for k := range c.moves {
				o := &c.moves[k]
				c.over[i][k] = m.Version.Compare(o.Version) > 0 && m.From.Holds(o.Version)
				c.rolls[k][i] = holds(o.RollbackTo, m.Version)
			}
		}
	})
}

func table(n int) [][]bool {
	rows, cells := make([][]bool, n), make([]bool, n*n)
	for i := range rows {
		rows[i] = cells[i*n : (i+1)*n]
	}
	return rows
}

// leadsBack says to which releases moves lead from one.
func (c *Chart) leadsBack(from int) []bool {
	if row := c.back[from].Load(); row != nil {
		return *row
	}
	row := make([]bool, len(c.moves))
	for open := []int{from}; len(open) > 0; {
		at := open[0]
		open = open[1:]
		for to := range c.moves {
			if !row[to] && (c.over[to][at] || c.rolls[at][to]) {
				row[to] = true
				open = append(open, to)
			}
		}
	}
	c.back[from].Store(&row)
	return row
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
	if at, known := c.places.Load(v); known {
		return at.(int)
	}
	at := slices.IndexFunc(c.moves, func(m Move) bool { return m.Version.Compare(v) == 0 })
	c.places.Store(v, at)
	return at
}

// installs says whether a release goes over the one at a place. Over a release
// nobody knows only the newest goes, and only if it goes over everything: any
// other could turn out to be a downgrade.
func (c *Chart) installs(release, over int) bool {
	c.lay()
	if over != unlisted {
		return c.over[release][over]
	}
	m := &c.moves[release]
	return c.newest != unlisted && !m.Withheld && m.From.IsAny() && m.Version.Compare(c.moves[c.newest].Version) == 0
}

func (c *Chart) rollsBack(from, to int) bool { return from != unlisted && c.rolls[from][to] }

// door says whether nothing leads back from a release just installed.
func (c *Chart) door(release, over int) bool {
	return c.moves[release].OneWay || over == unlisted || !c.leadsBack(release)[over]
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
	return c.tree(origin{from, goal.Mode, goal.Activated}).to(target)
}

// direct is the way of most devices: one update, where nothing can be better.
func (c *Chart) direct(from, goal State, start, target int) (Step, bool) {
	if !c.plain || goal.Mode != "" || goal.Activated && !from.Activated || start == unlisted || target == start ||
		!c.installs(target, start) {
		return Step{}, false
	}
	m := &c.moves[target]
	if m.OneWay && holds(c.rolledTo, m.Version) {
		return Step{}, false // perhaps it can be rolled back to, round the door
	}
	return Step{From: from.Version, To: m.Version, OneWay: c.door(target, start)}, true
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
