package route

import (
	"math/bits"
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// score is a value in the order of the goals. The parts that shall be large
// count up in high, the ones that shall be small count down in low, 21 bits
// each: enough for two million of any.
type score struct{ high, low int64 }

const part = 21

func (s score) add(t score) score { return score{s.high + t.high, s.low + t.low} }

func (s score) times(n int) score { return score{s.high * int64(n), s.low * int64(n)} }

func (s score) less(t score) bool { return s.high < t.high || s.high == t.high && s.low < t.low }

func met(weight fleet.Weight, features int) score {
	s := score{high: int64(features)}
	if weight == fleet.Must {
		s.high += 1 << (2 * part)
	} else {
		s.high += 1 << part
	}
	return s
}

// cost of bringing a device to a release.
type cost struct {
	doors, touched, steps int
}

func (c cost) score() score {
	return score{low: -(int64(c.doors)<<(2*part) + int64(c.touched)<<part + int64(c.steps))}
}

// statement is one pairing with its place in the masks of its pair of models.
type statement struct {
	*gear.Pairing
	bit      uint64
	features int // valued ones
}

// pair is a pair of models with its statements, at most 64.
type pair struct {
	air, goggles string
	statements   []statement
}

// most is the most valued features any statement in the mask gives.
func (p *pair) most(mask uint64) int {
	most := 0
	for m := mask; m != 0; m &= m - 1 {
		most = max(most, p.statements[bits.TrailingZeros64(m)].features)
	}
	return most
}

// choice is one release of a device, standing for all that hold the same
// statements.
type choice struct {
	version     firmware.Version
	masks       []uint64 // by the device's own list of pairs
	cost        cost
	avoid       bool
	unactivated bool // it cannot be activated there: nothing links with it
}

// device is anything with firmware in the problem.
type device struct {
	key     string // kit id, or quad id for a unit not owned
	label   string
	role    string // "airUnit", "goggles", "controller"
	model   *gear.Device
	guide   gear.Guide    // how it is handled
	modes   *gear.Goggles // of goggles, else nil
	chart   *firmware.Chart
	current firmware.Version // empty: not known
	stands  firmware.State
	wakes   bool // it has still to be activated, or nobody has said that it is
	// notOffered are releases its tool does not offer at present.
	notOffered []firmware.Version
	toBuy      bool // not owned: it will come on one of its releases, nobody knows which
	unread     bool // owned, and nobody has read what it carries
	choices    []choice
}

func (r *Request) device(model *gear.Device, s fleet.State, role string) device {
	d := device{
		key:        s.KitID,
		label:      s.Label,
		role:       role,
		model:      model,
		guide:      gear.GuideIn(model.Guides, r.Fleet.Language),
		current:    s.Current,
		stands:     s.Stands(),
		toBuy:      !s.Owned(),
		notOffered: r.NotOffered[s.KitID],
	}
	d.unread = s.Owned() && !s.Current.Known() && len(model.Releases) > 0
	d.chart = r.Library.Chart(model.ID).Without(d.notOffered)
	d.modes, _ = gear.Find[*gear.Goggles](r.Library, model.ID)
	needed := model.ActivationNeeded()
	d.wakes = needed != nil && *needed && !d.stands.Activated
	return d
}

// way finds the steps that bring a device from a state to a release, awake.
func (d *device) way(from firmware.State, to firmware.Version) ([]firmware.Step, bool) {
	return d.chart.Way(from, firmware.State{Version: to, Activated: d.wakes})
}

// reachable lists the releases a device can be brought to, staying first.
func reachable(d *device, keepWayBack bool) []choice {
	if d.toBuy || d.unread {
		return reachableNew(d, keepWayBack)
	}
	_, awakes := d.way(d.stands, "")
	list := []choice{{version: d.current, unactivated: !awakes}}
	for _, r := range d.model.Releases {
		if d.current.Known() && r.Version.Compare(d.current) == 0 {
			list[0].avoid = r.Advice != nil
			if awakes {
				continue
			}
		}
		steps, ok := d.way(d.stands, r.Version)
		if !ok || firmware.Updates(steps) == 0 {
			continue
		}
		c := choice{version: r.Version, cost: costOf(steps), avoid: r.Advice != nil}
		if keepWayBack && c.cost.doors > 0 {
			continue
		}
		list = append(list, c)
	}
	return list
}

// costOf a way; activation is no choice, so it costs nothing.
func costOf(steps []firmware.Step) cost {
	c := cost{touched: 1, steps: len(steps), doors: firmware.Doors(steps)}
	for _, s := range steps {
		if s.Activate {
			c.steps--
		}
	}
	return c
}

// reachableNew lists the releases that a device still to be bought, or one nobody has
// read, can be brought to whichever of its releases it comes on; the steps are the most it can take.
func reachableNew(d *device, keepWayBack bool) []choice {
	list := []choice{{}}
	for _, r := range d.model.Releases {
		c := choice{version: r.Version, cost: cost{touched: 1}, avoid: r.Advice != nil}
		always := true
		for _, from := range d.model.Releases {
			steps, ok := d.way(firmware.State{Version: from.Version}, r.Version)
			always = always && ok
			if one := costOf(steps); ok {
				c.cost.steps, c.cost.doors = max(c.cost.steps, one.steps), max(c.cost.doors, one.doors)
			}
		}
		if always && (!keepWayBack || c.cost.doors == 0) {
			list = append(list, c)
		}
	}
	return list
}

// prune keeps, of choices that hold the same statements, the best, and drops
// every choice that another one beats: it holds no statement more and costs no
// less. What remains is ordered by cost.
func prune(list []choice) []choice {
	better := func(a, b choice) int {
		switch x, y := a.cost.score(), b.cost.score(); {
		case y.less(x):
			return -1
		case x.less(y):
			return 1
		case a.avoid != b.avoid:
			if a.avoid {
				return 1
			}
			return -1
		}
		return b.version.Compare(a.version)
	}
	slices.SortStableFunc(list, better)
	var kept []choice
	for _, c := range list {
		if !slices.ContainsFunc(kept, func(k choice) bool { return covers(k.masks, c.masks) }) {
			kept = append(kept, c)
		}
	}
	return kept
}

func covers(a, b []uint64) bool {
	for i := range a {
		if b[i]&^a[i] != 0 {
			return false
		}
	}
	return true
}
