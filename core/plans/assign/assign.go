// Package assign chooses one option for each of many places so that they are worth most
// together for the money, and gives the whole trade-off: every choice that no other choice
// beats in both.
//
// Options draw on things there is only so much of: a piece of kit, a part in the drawer. The
// method is dynamic programming over the places with the choices kept that none beats in
// money, worth and what they draw on (multi-criteria labels; Martins 1984), from both ends until
// they meet (`half.go`). Where there are many, what cannot become better than choices that are
// known is dropped too (`known.go`). Money and worth are whole numbers, so that sums are exact.
package assign

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
)

// Option is one thing that can be done at a place.
type Option struct {
	Money int64 // in hundredths; below zero it brings money
	Worth int64
	Uses  []Use
}

// Use is what an option draws on.
type Use struct {
	Thing int // by its place in Problem.Things
	Count int
}

// Thing is what there is only so much of.
type Thing struct {
	Have int
	// Price of each beyond that, in hundredths; below zero: there are no more.
	Price int64
}

// Problem is the places with their options. Each place takes exactly one.
type Problem struct {
	Places [][]Option
	Things []Thing
	// Beat are choices that are had elsewhere: what is no better than they are need not be found. Of
	// each its money and worth count.
	Beat []Choice
	// Grain is how much worth makes a difference where there is much to look at: of choices that come
	// to the same whole grains, the worth rounded up, one is found. What all options together lack to
	// whole grains has to be less than one. Zero: all makes a difference.
	Grain int64
	// Most is the most labels that are kept after a place; zero: all, and the answer is exact. Else
	// it is said what a choice that is missing could be worth at most.
	Most int
}

// Choice is an option for each place.
type Choice struct {
	Money int64
	Worth int64
	Picks []int // by place
	// AtMost is what no choice that costs less than the next of the curve is worth more than: its
	// own worth, where the curve is exact.
	AtMost int64
}

// Curve is all choices that no other beats in money and worth, the cheapest first.
type Curve struct {
	Choices []Choice
	// Exact says that they are all; else some may be missing.
	Exact bool
	// Labels is how many part choices were looked at.
	Labels int
}

// label is a choice for the places so far.
type label struct {
	money, worth int64
	used         []uint8 // by thing, no more than there is where more can be had
	pick         int
	before       *label
}

// Solve works out the whole trade-off. It fails where a place has no option, or all its
// options want what there is not; it ends with the context.
func Solve(ctx context.Context, p Problem) (Curve, error) {
	curve := Curve{Exact: true}
	if at := slices.IndexFunc(p.Places, func(o []Option) bool { return len(o) == 0 }); at >= 0 {
		return curve, fmt.Errorf("place %d: no option", at)
	}
	from := p.reduce()
	fore, back := p.half(), p.turned().half()
	var known *known
	if len(p.Beat) > 0 {
		known = p.known(fore)
		if len(known.hopeful(fore, slices.Clone(fore.labels))) == 0 {
			return curve, nil // nothing here is better
		}
	}
	for fore.taken+back.taken < len(p.Places) {
		h := fore
		if len(back.labels) < len(fore.labels) {
			h = back
		}
		next, err := h.next()
		if stop := ctx.Err(); stop != nil || err != nil && known == nil {
			return curve, cmp.Or(stop, err)
		}
		if err != nil {
			fore.labels = nil // there is nothing beside what is known
			break
		}
		curve.Labels += len(next)
		if known, err = p.learn(ctx, known, fore, h.groups, len(next)); err != nil {
			return curve, err
		}
		h.labels, h.groups = h.unbeaten(known.hopeful(h, next), known.fine())
		if h == fore {
			h.labels = h.unexchanged(h.labels, known.fine())
		}
		if p.Most > 0 && len(h.labels) > p.Most {
			h.labels, curve.Exact = known.some(h, p.Most), false
		}
	}
	front := known.front()
	if err := front.join(ctx, fore, back, known.fine()); err != nil {
		return curve, err
	}
	curve.Choices = front.choices(from)
	if len(curve.Choices) == 0 && len(p.Beat) == 0 {
		return curve, errors.New("no choice draws on no more than there is")
	}
	known.limit(curve.Choices)
	return curve, nil
}

// learn looks for choices where so many ways to draw on things and so many part choices are told apart that
// this spares more than it takes.
func (p *Problem) learn(ctx context.Context, k *known, fore *half, groups, labels int) (*known, error) {
	many := p.Most > 0 && labels > p.Most
	if !many && groups <= easy {
		return k, nil
	}
	if k == nil {
		k = p.known(fore)
	}
	k.grain = grain(p.Grain)
	if !k.searched && (len(p.Beat) == 0 || many || labels > hard) {
		return k, k.search(ctx, p)
	}
	return k, nil
}

// origin is which place of a problem one was that is chosen for, and which of its options those are that
// are left of it.
type origin struct {
	place   int
	options []int
}

// reduce leaves out the options that another of their place beats whatever is chosen elsewhere, and puts
// the places into the order in which they are chosen for.
func (p *Problem) reduce() []origin {
	places, from := make([][]Option, len(p.Places)), make([]origin, len(p.Places))
	for at, options := range p.Places {
		var left []int
		for i := range options {
			beaten := slices.ContainsFunc(left, func(k int) bool { return options[k].beats(&options[i]) })
			if beaten {
				continue
			}
			left = slices.DeleteFunc(left, func(k int) bool { return options[i].beats(&options[k]) })
			left = append(left, i)
		}
		for _, i := range left {
			places[at] = append(places[at], options[i])
		}
		from[at] = origin{at, left}
	}
	p.Places = places
	order := p.arranged()
	p.Places = ordered(places, order)
	return ordered(from, order)
}

// ordered are things in an order, by their places.
func ordered[T any](list []T, order []int) (out []T) {
	for _, at := range order {
		out = append(out, list[at])
	}
	return out
}

// beats says whether an option is as worthy as another, for no more money and drawing on no more.
func (o *Option) beats(other *Option) bool {
	return o.Money <= other.Money && o.Worth >= other.Worth && !slices.ContainsFunc(o.Uses, func(u Use) bool {
		return !slices.ContainsFunc(other.Uses, func(v Use) bool { return v.Thing == u.Thing && v.Count >= u.Count })
	})
}

// with is a label with one option more; nil where there is not enough of something.
func (p *Problem) with(l *label, o *Option, pick int) *label {
	out := &label{money: l.money + o.Money, worth: l.worth + o.Worth, pick: pick, before: l, used: l.used}
	if len(o.Uses) > 0 {
		out.used = slices.Clone(l.used)
	}
	for _, u := range o.Uses {
		t := &p.Things[u.Thing]
		free := t.Have - int(out.used[u.Thing])
		beyond := max(0, u.Count-free)
		if beyond > 0 && t.Price < 0 {
			return nil
		}
		out.money += int64(beyond) * t.Price
		out.used[u.Thing] += uint8(u.Count - beyond)
	}
	return out
}

// forget drops what no place from one on draws on: it tells choices apart for nothing.
func (p *Problem) forget(labels []*label, at int) {
	later := p.later(at)
	for _, l := range labels {
		used := slices.Clone(l.used)
		for t := range used {
			if !later[t] {
				used[t] = 0
			}
		}
		l.used = used
	}
}

// unbeaten are the labels that none beats: as worthy, and as cheap with what it has drawn on
// more paid for, by whole grains, and how many ways to draw on things they tell apart. What has no price must not be
// drawn on more.
func (p *Problem) unbeaten(labels []*label, g grain) (left []*label, drawn int) {
	slices.SortStableFunc(labels, func(a, b *label) int {
		return cmp.Or(cmp.Compare(a.money, b.money), cmp.Compare(b.worth, a.worth), slices.Compare(a.used, b.used))
	})
	var order []string // what is drawn on, each once
	for _, l := range labels {
		order = append(order, string(l.used))
	}
	slices.Sort(order)
	order = slices.Compact(order)
	groups := make(map[string]int, len(order))
	for i, used := range order {
		groups[used] = i
	}
	kept, rivals := make([][]*label, len(order)), make([][]rival, len(order))
	packed := p.pack(order)
	for _, l := range labels {
		k := groups[string(l.used)]
		if own := kept[k]; len(own) > 0 && g.of(own[len(own)-1].worth) >= g.of(l.worth) {
			continue // in its own group the last kept is the worthiest and no dearer
		}
		if rivals[k] == nil {
			rivals[k] = p.rivals(order, packed, k)
		}
		if !slices.ContainsFunc(rivals[k], func(r rival) bool { return beats(kept[r.group], l, r.pays, g) }) {
			kept[k] = append(kept[k], l)
		}
	}
	return slices.Concat(kept...), len(order)
}

// rival is a group of labels that may beat another's, and what that costs it.
type rival struct {
	group int
	pays  int64
}

// rivals are the groups that may beat one: never none, so that they are worked out once.
func (p *Problem) rivals(order []string, packed *packed, of int) []rival {
	list := make([]rival, 0, 16)
	for i, used := range order {
		if i != of && packed.within(i, of) {
			list = append(list, rival{i, p.toPay(used, order[of])})
		}
	}
	return list
}

// toPay is what it costs at most, whatever is chosen later, to have drawn on one and not on another.
func (p *Problem) toPay(one, other string) (money int64) {
	for t := range len(one) {
		if more := int64(one[t]) - int64(other[t]); more > 0 && p.Things[t].Price > 0 {
			money += more * p.Things[t].Price
		}
	}
	return money
}

// beats says whether one of some labels, the cheapest first, is as worthy and as cheap with
// what it pays beside.
func beats(group []*label, l *label, pays int64, g grain) bool {
	at, found := slices.BinarySearchFunc(group, l.money-pays, func(g *label, money int64) int {
		return cmp.Compare(g.money, money)
	})
	if found {
		at++
	}
	return at > 0 && g.of(group[at-1].worth) >= g.of(l.worth)
}

// Within is the worthiest choice that costs no more than a budget; nil where none does.
func (c *Curve) Within(money int64) *Choice {
	var best *Choice
	for i := range c.Choices {
		if c.Choices[i].Money <= money {
			best = &c.Choices[i]
		}
	}
	return best
}
