package route

import (
	"math/bits"
	"slices"

	"yokeswap/core/firmware"
	"yokeswap/core/fleet"
	"yokeswap/core/gear"
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
	version firmware.Version
	masks   []uint64 // by the device's own list of pairs
	cost    cost
	avoid   bool
}

// device is anything with firmware in the problem.
type device struct {
	key     string // kit id, or quad id for a unit not owned
	label   string
	role    string // "airUnit", "goggles", "controller"
	model   *gear.Device
	current firmware.Version
	toBuy   bool // not owned: it will come on one of its releases, nobody knows which
	choices []choice
}

// reachable lists the releases a device can be brought to, staying first.
func reachable(d *device, keepWayBack bool) []choice {
	if d.toBuy {
		return reachableNew(d, keepWayBack)
	}
	list := []choice{{version: d.current}}
	moves := d.model.Moves()
	for _, r := range d.model.Releases {
		if d.current.Known() && r.Version.Compare(d.current) == 0 {
			list[0].avoid = r.Advice != nil
			continue
		}
		steps, ok := firmware.Path(moves, d.current, r.Version)
		if !ok {
			continue
		}
		c := choice{version: r.Version, cost: cost{touched: 1, steps: len(steps)}, avoid: r.Advice != nil}
		for _, s := range steps {
			if s.OneWay {
				c.cost.doors++
			}
		}
		if keepWayBack && c.cost.doors > 0 {
			continue
		}
		list = append(list, c)
	}
	return list
}

// reachableNew lists the releases a device still to be bought can be brought to
// whichever of its releases it comes on; the steps are the most it can take.
func reachableNew(d *device, keepWayBack bool) []choice {
	list := []choice{{}}
	moves := d.model.Moves()
	for _, r := range d.model.Releases {
		c := choice{version: r.Version, cost: cost{touched: 1}, avoid: r.Advice != nil}
		always := true
		for _, from := range d.model.Releases {
			steps, ok := firmware.Path(moves, from.Version, r.Version)
			always = always && ok
			doors := 0
			for _, s := range steps {
				if s.OneWay {
					doors++
				}
			}
			c.cost.steps, c.cost.doors = max(c.cost.steps, len(steps)), max(c.cost.doors, doors)
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
