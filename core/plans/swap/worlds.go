package swap

import (
	"fmt"
	"slices"
	"strings"
	"sync"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// A sheet states a range where one number is asked, or another value for a revision or a
// region, and nobody has said which it is. Then a fit is judged in each world there may be,
// and each gate says what it says in the worst of them.
//
// Method: both ends of every range, each revision there is, each region named, in all
// combinations as far as mostWorlds; beyond that each by itself, and all low or all high.
// Source: the worst case at the ends of intervals, as tolerances are commonly analysed.

// mostWorlds is how many combinations are judged.
const mostWorlds = 32

// world is a case as it may be, and what is supposed in it.
type world struct {
	fleet.Case
	supposing []string
	chosen    []*option // an option of an axis, or none
}

// missing is what would settle which world it is.
func (w *world) missing() (list []verdict.Missing) {
	for _, o := range w.chosen {
		if item, _ := w.Library.Item(o.item); o.supposesRevision {
			list = append(list, revisionMissing(w.Case, item.Head()))
		}
	}
	return list
}

// judged is a world a gate was judged in, and what of its gear the gate looked up.
type judged struct {
	chosen []*option
	read   *gear.Reads
	never  []string // what the gate does not read
}

// covers says whether a gate says the same in a world as in the one it was judged in: where
// nothing it looked up there is another.
func (j *judged) covers(w *world) bool {
	return j.holds(w.chosen, j.chosen) && j.holds(j.chosen, w.chosen)
}

// holds says whether what was looked up of some options is among others.
func (j *judged) holds(options, others []*option) bool {
	return !slices.ContainsFunc(options, func(o *option) bool {
		return j.read.Has(o.item) && o.matters(j.never) && !slices.Contains(others, o)
	})
}

// option is one way a value left open may be.
type option struct {
	item             string
	pins             []gear.Pin
	says             []string
	supposesRevision bool
}

// matters says whether a gate that looks up the entry may read any of it.
func (o *option) matters(never []string) bool {
	return slices.ContainsFunc(o.pins, func(p gear.Pin) bool {
		return !slices.ContainsFunc(never, func(path string) bool { return strings.HasPrefix(p.Path, path) })
	})
}

// Worlds remembers the worlds of the fits of one library and fleet by what they leave open. It
// may be used by many at once.
type Worlds struct {
	mu    sync.Mutex
	known map[string][]world
}

// Lazily is a fit to be judged gate by gate, in worlds that are made once for all fits that leave
// the same open.
func (w *Worlds) Lazily(c fleet.Case) *Lazy {
	l := Lazily(c)
	l.known = w
	return l
}

// of are the worlds of a case.
func (w *Worlds) of(c fleet.Case) []world {
	items := c.Library.Open(c.Names)
	if w == nil {
		return worldsOf(c, items)
	}
	var key strings.Builder
	for _, item := range items {
		head := item.Head()
		fmt.Fprint(&key, head.ID, "@", c.Revision(head.ID), " ")
	}
	w.mu.Lock()
	before, known := w.known[key.String()]
	if !known {
		before = worldsOf(c, items)
		if w.known == nil {
			w.known = map[string][]world{}
		}
		w.known[key.String()] = before
	}
	w.mu.Unlock()
	list := make([]world, len(before))
	for i, b := range before {
		list[i] = world{Case: c, supposing: b.supposing, chosen: b.chosen}
		list[i].Library = b.Library
	}
	return list
}

// worldsOf are the cases that what a fit's gear leaves open allows; none where it leaves
// nothing open.
func worldsOf(c fleet.Case, items []gear.Item) (worlds []world) {
	var axes [][]*option
	for _, item := range items {
		axes = append(axes, rangesOf(item)...)
		axes = append(axes, conditionsOf(c, item)...)
	}
	for _, chosen := range combined(axes) {
		w := world{Case: c, chosen: chosen}
		pins := map[string][]gear.Pin{}
		var order []string
		for _, o := range chosen {
			if !slices.Contains(order, o.item) {
				order = append(order, o.item)
			}
			pins[o.item] = append(pins[o.item], o.pins...)
			w.supposing = append(w.supposing, o.says...)
		}
		for _, id := range order {
			item, _ := c.Library.Item(id)
			if other, err := gear.Pinned(item, pins[id]...); err == nil {
				other.Head().Ranges, other.Head().Variants = nil, nil // in this world it is settled
				w.Library = w.Library.With(other)
			}
		}
		worlds = append(worlds, w)
	}
	return worlds
}

// rangesOf are the ends of an entry's ranges.
func rangesOf(item gear.Item) (axes [][]*option) {
	head := item.Head()
	for i := range head.Ranges {
		r := &head.Ranges[i]
		ends := make([]*option, 0, 2)
		for _, end := range []float64{r.Low, r.High} {
			ends = append(ends, &option{item: head.ID, pins: []gear.Pin{{Path: r.Value, Is: end}}})
		}
		words := [2]string{}
		for k := range ends {
			if other, err := gear.Pinned(item, ends[k].pins...); err == nil {
				words[k] = gear.TextAt(other, r.Value)
			}
		}
		for k := range ends {
			ends[k].says = []string{fmt.Sprintf("%s of %s %s, stated as %s to %s", gear.PathWords(r.Value), head.Label(),
				words[k], words[0], words[1])}
		}
		axes = append(axes, ends)
	}
	return axes
}

// conditionsOf are the revisions an entry may be of and the regions it may be set to, where
// they are not stated, in all pairs: a value may hang on both.
func conditionsOf(c fleet.Case, item gear.Item) (axes [][]*option) {
	head := item.Head()
	revisions, regions := []string{c.Revision(head.ID)}, []string{c.Fleet.Region}
	if revisions[0] == "" {
		revisions = append(revisions, head.Revisions()...)
	}
	if regions[0] == "" {
		regions = append(regions, head.Regions()...)
	}
	var list []*option
	for i, revision := range revisions {
		for k, region := range regions {
			o := &option{item: head.ID, pins: head.Under(region, revision)}
			if i > 0 {
				o.says, o.supposesRevision = append(o.says, "revision "+revision+" of "+head.Label()), true
			}
			if k > 0 {
				o.says = append(o.says, head.Label()+" set to "+c.Library.Label(region))
			}
			if i+k > 0 {
				list = append(list, o)
			}
		}
	}
	if len(list) > 0 {
		axes = append(axes, list)
	}
	return axes
}

// revisionMissing is where the revision of a model is stated: on the piece of kit, else in
// the fit.
func revisionMissing(c fleet.Case, head *gear.Entry) verdict.Missing {
	label := "the revision printed on " + head.Label()
	if kit := c.KitOf(head.ID); kit != nil {
		return verdict.Missing{Of: "kit", ID: kit.ID, Field: "revision", Label: label}
	}
	return verdict.FitValue(c, "revisions."+head.ID+".revision", label)
}

// combined are the choices of at most one option of each axis; where there are too many,
// each option by itself, and the first and the last of all together. An axis with ranges
// has no choice but its ends; the library holds what lies between.
func combined(axes [][]*option) (all [][]*option) {
	count := 1
	for _, axis := range axes {
		count *= len(axis) + 1
		if count > mostWorlds {
			break
		}
	}
	if count <= mostWorlds {
		all = [][]*option{nil}
		for _, axis := range axes {
			for _, before := range all {
				for _, o := range axis {
					all = append(all, append(slices.Clone(before), o))
				}
			}
		}
		return all[1:]
	}
	var first, last []*option
	for _, axis := range axes {
		first, last = append(first, axis[0]), append(last, axis[len(axis)-1])
		for _, o := range axis {
			all = append(all, []*option{o})
		}
	}
	return append(all, first, last)
}

// worst takes over what a gate says in another world where that is worse.
func (v *GateVerdict) worst(is GateVerdict, w *world) {
	wasDanger, isDanger := verdict.Greatest(v.Findings), verdict.Greatest(is.Findings)
	if !is.Level.WorseThan(v.Level) && (v.Level.WorseThan(is.Level) || !isDanger.WorseThan(wasDanger)) {
		return
	}
	for k := range is.Findings {
		if f := &is.Findings[k]; f.Level != verdict.Fits && !saidBefore(v.Findings, *f) {
			f.Supposing = w.supposing
			f.Missing = append(slices.Clip(f.Missing), w.missing()...)
		}
	}
	is.in = &w.Case
	if v.danger.WorseThan(is.danger) {
		is.danger = v.danger
	}
	*v = is
}
