// Package tasks lists what is still to be done: what somebody has noted, stop-gaps with what
// they wait for, what a gate asks to be looked at again on a quad as it flies today, what has
// to be proven again, and what is to be sold.
//
// Source: common practice.
package tasks

import (
	"cmp"
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/mount"
	"yokeswap/core/gates/power"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/prove"
)

// Open is one thing that is still to be done.
type Open struct {
	// Task is the id of what somebody has noted; empty: it follows from what is there, and
	// goes when that is otherwise.
	Task string       `json:"task,omitempty"`
	Key  string       `json:"key"` // tells it from the others
	Quad string       `json:"quad,omitempty"`
	Name string       `json:"name,omitempty"` // of the quad
	Says string       `json:"says"`
	Gate verdict.Gate `json:"gate,omitempty"`
	Due  string       `json:"due,omitempty"` // yyyy-mm-dd
	// Late: the day is past.
	Late  bool   `json:"late"`
	After string `json:"after,omitempty"` // after what it is due, in words
}

// again are the findings of a quad as it flies that leave something to be done: a stop-gap, a
// release that is best avoided, a capacitor with little room.
var again = map[verdict.Code]bool{
	link.CodeAdvice:     true,
	power.CodeCapacitor: true,
	mount.CodeStopGap:   true,
}

// List is what is still to be done on a day (yyyy-mm-dd): what is late first, then by day,
// then what has none.
func List(lib *gear.Library, f *fleet.Index, today string) []Open {
	list := []Open{}
	for i := range f.Tasks {
		t := &f.Tasks[i]
		if t.Done != "" {
			continue
		}
		one := Open{Task: t.ID, Key: "task:" + t.ID, Quad: t.Quad, Says: t.Label(), Gate: verdict.Gate(t.Gate), Due: t.Due,
			After: t.After}
		if q, ok := f.Quad(t.Quad); ok {
			one.Name = q.Label()
		}
		list = append(list, one)
	}
	for i := range f.Quads {
		list = append(list, ofQuad(lib, f, &f.Quads[i])...)
	}
	for _, s := range prove.Standings(lib, f.Fleet) {
		if s.Finding.Level == verdict.Change {
			key := string(s.Finding.Code) + ":" + s.Quad
			list = append(list, Open{Key: key, Quad: s.Quad, Name: s.Name, Says: s.Finding.Says})
		}
	}
	list = append(list, sales(lib, f)...)
	for i := range list {
		list[i].Late = list[i].Due != "" && list[i].Due < today
	}
	slices.SortStableFunc(list, func(a, b Open) int { return cmp.Compare(dueOr(a.Due), dueOr(b.Due)) })
	return list
}

// dueOr puts what has no day behind all days.
func dueOr(day string) string { return cmp.Or(day, "9999-12-31") }

// ofQuad is what its gates say of a quad as it flies today.
func ofQuad(lib *gear.Library, f *fleet.Index, q *fleet.Quad) (list []Open) {
	as := *q
	as.Next = nil
	c := fleet.NewCase(lib, f.Planning(&as), &as)
	for _, g := range swap.Judge(c).Gates {
		for _, finding := range g.Findings {
			if !again[finding.Code] || finding.Level == verdict.Fits {
				continue
			}
			list = append(list, Open{Key: string(finding.Code) + ":" + q.ID + ":" + finding.Subject,
				Quad: q.ID, Name: q.Label(), Gate: finding.Gate, Says: finding.Says, Due: dueOf(c, finding)})
		}
	}
	return append(list, crashed(q)...)
}

// sales are what is to be sold and nobody flies with any more.
func sales(lib *gear.Library, f *fleet.Index) (list []Open) {
	for i := range f.Kit {
		kit := &f.Kit[i]
		flies := slices.ContainsFunc(f.Quads, func(q fleet.Quad) bool {
			return q.Now.FliesWith(kit.ID) || q.WillFlyWith(kit.ID)
		})
		if !kit.Sell || flies {
			continue
		}
		says := "Sell " + kit.Label() + ": nobody flies with it any more"
		if item, ok := lib.Item(kit.Model); ok {
			if offer, stated := item.Head().Resale(); stated {
				says += fmt.Sprintf(", and it brings about %.2f %s", *offer.Price, offer.Currency)
			}
			if device, is := item.(gear.Linked); is && device.AsDevice().Locks() {
				says += ". It is bound to an account: let it go from there first, or who buys it cannot fly with it"
			}
		}
		list = append(list, Open{Key: "sell:" + kit.ID, Says: says + ". Once it is gone, take it off the shelf."})
	}
	return list
}

// crashed are the crashes after which nobody has looked the quad over.
func crashed(q *fleet.Quad) (list []Open) {
	for i, o := range q.Outings {
		if o.Crash && !o.Looked {
			list = append(list, Open{Key: fmt.Sprintf("crash:%s:%d", q.ID, i), Quad: q.ID, Name: q.Label(), Due: o.On,
				Says: "Look it over after the crash of " + o.On + " before it flies again: props and their nuts, arms, antennas " +
					"and their plugs, the seats of unit and camera, wires at the pads, the pack. A swollen or dented pack goes to " +
					"where such packs are taken, and is not charged again."})
		}
	}
	return list
}

// dueOf is the day by which what a stop-gap waits for is to come; empty: there is none.
func dueOf(c fleet.Case, f verdict.Finding) string {
	for _, h := range c.HeldParts() {
		if f.Code == mount.CodeStopGap && h.Label == f.Subject {
			return h.Due
		}
	}
	return ""
}
