// Package channels finds channels for pilots who fly at the same time: nobody
// over anybody else, as few third-order products on anyone as can be, then as far
// apart as can be.
//
// Pilots of one system are alike, so their channels are tried in ascending order
// only. The search is depth first over the pilots, the ones with the fewest
// channels first; a branch is left when what it has already, which only gets
// worse, cannot beat the best found. It is exact until Budget nodes have been
// looked at, and says when they have.
package channels

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Pilot is somebody who wants to fly, with the channels of the system flown.
type Pilot struct {
	Name   string `json:"name"`
	System string `json:"system"` // by name
	// Plan is the id of the system's band plan: two of the same name stay two. Empty:
	// the name tells them apart.
	Plan     string         `json:"plan,omitempty"`
	Channels []gear.Channel `json:"channels"`
}

// Of is a quad's next fit as a pilot; false where the channels of its air unit are not
// stated.
func Of(c fleet.Case) (Pilot, bool) {
	unit, state, ok := c.AirUnit()
	if !ok || unit.Radio == nil {
		return Pilot{}, false
	}
	plan, ok := gear.Find[*gear.BandPlan](c.Library, unit.Radio.BandPlan)
	if !ok {
		return Pilot{}, false
	}
	return OnPlan(c.Quad.Label(), plan, state.Target), true
}

// OnPlan is somebody who flies on a band plan, with an air unit on a release.
func OnPlan(name string, plan *gear.BandPlan, release firmware.Version) Pilot {
	return Pilot{Name: name, System: plan.Label(), Plan: plan.ID, Channels: plan.On(release)}
}

// key tells systems apart: pilots of one plan on releases that have other channels are not
// alike.
func (p *Pilot) key() string {
	ids := make([]string, len(p.Channels))
	for i := range p.Channels {
		ids[i] = p.Channels[i].ID
	}
	return cmp.Or(p.Plan, p.System) + " " + strings.Join(ids, " ")
}

// Seat is a pilot with a channel; Channel is empty where none is left.
type Seat struct {
	Pilot   string         `json:"pilot"`
	System  string         `json:"system"`
	Channel string         `json:"channel,omitempty"`
	MHz     unit.Megahertz `json:"mhz,omitempty"`
	Width   unit.Megahertz `json:"width,omitempty"`
}

// Product is a third-order product that lands on somebody: 2·a − b, or a + b − c of
// three signals. It is as wide as the widest of its sources.
type Product struct {
	A   string         `json:"a"`
	B   string         `json:"b"`          // the other one added; as A: a counts twice
	C   string         `json:"c"`          // the one taken off
	On  string         `json:"on"`         // who it lands on
	MHz unit.Megahertz `json:"mhz"`        // its middle
	By  unit.Megahertz `json:"overlapMHz"` // how much of the channel it covers
}

// Plan is who flies on what.
type Plan struct {
	Seats    []Seat          `json:"seats"` // in the order asked
	Spacing  *unit.Megahertz `json:"spacing,omitempty"`
	Products []Product       `json:"products"`
	// Free are the systems, and the channels of theirs, one more pilot could take.
	Free    []Free `json:"free"`
	Bounded bool   `json:"bounded"` // the search was cut off
}

// Free is a channel left.
type Free struct {
	System  string         `json:"system"`
	Channel string         `json:"channel"`
	MHz     unit.Megahertz `json:"mhz"`
}

// Budget is the most nodes looked at.
const Budget = 150_000

// worth of a plan so far: more seated, then fewer products, then wider apart.
type worth struct {
	seated, products int
	spacing          unit.Megahertz
}

func (a worth) beats(b worth) bool {
	return cmp.Or(cmp.Compare(a.seated, b.seated), cmp.Compare(b.products, a.products),
		cmp.Compare(a.spacing, b.spacing)) > 0
}

type search struct {
	pilots []Pilot
	order  []int
	now    []int // channel of each pilot; -1: none
	best   []int
	top    worth
	found  bool
	nodes  int
	others []gear.Channel // used again and again by productsWith
}

// Find seats the pilots.
func Find(pilots []Pilot) Plan {
	s := &search{pilots: pilots, now: make([]int, len(pilots))}
	for i := range pilots {
		s.order = append(s.order, i)
		s.now[i] = -1
	}
	slices.SortStableFunc(s.order, func(a, b int) int {
		return cmp.Or(cmp.Compare(len(pilots[a].Channels), len(pilots[b].Channels)),
			cmp.Compare(pilots[a].key(), pilots[b].key()))
	})
	s.descend(0, worth{spacing: unit.Megahertz(math.Inf(1))})
	return s.plan()
}

func (s *search) channel(pilot int) *gear.Channel {
	if c := s.now[pilot]; c >= 0 {
		return &s.pilots[pilot].Channels[c]
	}
	return nil
}

func (s *search) descend(depth int, w worth) {
	s.nodes++
	most := w
	most.seated += len(s.order) - depth
	if s.found && (s.nodes > Budget || !most.beats(s.top)) {
		return
	}
	if depth == len(s.order) {
		s.found, s.top, s.best = true, w, slices.Clone(s.now)
		return
	}
	pilot := s.order[depth]
	from := 0
	if depth > 0 && s.pilots[s.order[depth-1]].key() == s.pilots[pilot].key() {
		if before := s.now[s.order[depth-1]]; before >= 0 {
			from = before + 1
		} else {
			from = len(s.pilots[pilot].Channels) // one of them is left out already
		}
	}
	type branch struct {
		channel int
		w       worth
	}
	var branches []branch
	for c := from; c < len(s.pilots[pilot].Channels); c++ {
		if after, ok := s.with(pilot, c, w); ok {
			branches = append(branches, branch{c, after})
		}
	}
	slices.SortStableFunc(branches, func(a, b branch) int {
		switch {
		case a.w.beats(b.w):
			return -1
		case b.w.beats(a.w):
			return 1
		}
		return 0
	})
	for _, b := range branches {
		s.now[pilot] = b.channel
		s.descend(depth+1, b.w)
	}
	s.now[pilot] = -1
	s.descend(depth+1, w)
}

// with is the worth once a pilot takes a channel; false where it lies over
// somebody else's.
func (s *search) with(pilot, channel int, w worth) (worth, bool) {
	c := &s.pilots[pilot].Channels[channel]
	for other := range s.pilots {
		o := s.channel(other)
		if o == nil {
			continue
		}
		gap := apart(c.MHz, o.MHz) - (c.WidthMHz+o.WidthMHz)/2
		if gap < 0 {
			return w, false
		}
		w.spacing = min(w.spacing, gap)
	}
	s.now[pilot] = channel
	w.seated++
	w.products += s.productsWith(pilot)
	s.now[pilot] = -1
	return w, true
}

func apart(a, b unit.Megahertz) unit.Megahertz { return unit.Megahertz(math.Abs(float64(a - b))) }

// productsWith counts the third-order products a pilot has part in, as a source or as
// the one they land on.
func (s *search) productsWith(pilot int) (n int) {
	others := s.others[:0]
	for i := range s.pilots {
		if i != pilot && s.now[i] >= 0 {
			others = append(others, *s.channel(i))
		}
	}
	s.others = others
	own := *s.channel(pilot)
	count := func(a, b, c, on *gear.Channel) {
		if _, by := covers(a, b, c, on); lands(by) {
			n++
		}
	}
	for i := range others {
		for k := range others {
			if k == i {
				continue
			}
			count(&own, &own, &others[i], &others[k])       // 2·own − i on k
			count(&others[i], &others[i], &own, &others[k]) // 2·i − own on k
			count(&others[i], &others[i], &others[k], &own) // 2·i − k on own
			for m := range others {
				if m == i || m == k {
					continue
				}
				count(&own, &others[i], &others[k], &others[m]) // own + i − k on m
				if i < k {
					count(&others[i], &others[k], &own, &others[m]) // i + k − own on m
					count(&others[i], &others[k], &others[m], &own) // i + k − m on own
				}
			}
		}
	}
	return n
}

// each calls do for every product a + b − c of seated pilots and every other pilot it
// could land on; a and b may be the same one.
func (s *search) each(do func(a, b, c, on int)) {
	var seated []int
	for i := range s.pilots {
		if s.now[i] >= 0 {
			seated = append(seated, i)
		}
	}
	for i, a := range seated {
		for _, b := range seated[i:] {
			for _, c := range seated {
				if c == a || c == b {
					continue
				}
				for _, on := range seated {
					if on != a && on != b && on != c {
						do(a, b, c, on)
					}
				}
			}
		}
	}
}

// covers says where a product a + b − c lies, and by how much it covers a channel: not
// above zero where it does not.
func covers(a, b, c, on *gear.Channel) (mhz, by unit.Megahertz) {
	mhz = a.MHz + b.MHz - c.MHz
	width := max(a.WidthMHz, b.WidthMHz, c.WidthMHz)
	return mhz, min((width+on.WidthMHz)/2-apart(mhz, on.MHz), width, on.WidthMHz)
}

func (s *search) plan() Plan {
	plan := Plan{Seats: []Seat{}, Products: []Product{}, Free: []Free{}, Bounded: s.nodes > Budget}
	copy(s.now, s.best)
	for i, p := range s.pilots {
		seat := Seat{Pilot: p.Name, System: p.System}
		if c := s.channel(i); c != nil {
			seat.Channel, seat.MHz, seat.Width = c.ID, c.MHz, c.WidthMHz
		}
		plan.Seats = append(plan.Seats, seat)
	}
	if !math.IsInf(float64(s.top.spacing), 1) {
		plan.Spacing = &s.top.spacing
	}
	s.each(func(a, b, c, on int) {
		if mhz, by := covers(s.channel(a), s.channel(b), s.channel(c), s.channel(on)); lands(by) {
			plan.Products = append(plan.Products, Product{
				s.pilots[a].Name, s.pilots[b].Name, s.pilots[c].Name, s.pilots[on].Name, mhz, by,
			})
		}
	})
	plan.Free = s.free()
	return plan
}

// free lists the channels one more pilot of a system present could take without
// lying over anybody.
func (s *search) free() []Free {
	list := []Free{}
	seen := map[string]bool{}
	for _, p := range s.pilots {
		if seen[p.key()] {
			continue
		}
		seen[p.key()] = true
		for _, c := range p.Channels {
			clear := true
			for other := range s.pilots {
				if o := s.channel(other); o != nil && apart(c.MHz, o.MHz) < (c.WidthMHz+o.WidthMHz)/2 {
					clear = false
				}
			}
			if clear {
				list = append(list, Free{p.System, c.ID, c.MHz})
			}
		}
	}
	return list
}

// lands says whether a cover is more than nothing, to half a kilohertz.
func lands(by unit.Megahertz) bool { return by >= 0.0005 }
