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

	"yokeswap/core/gear"
	"yokeswap/core/unit"
)

// Pilot is somebody who wants to fly, with the channels of the system flown.
type Pilot struct {
	Name     string         `json:"name"`
	System   string         `json:"system"`
	Channels []gear.Channel `json:"channels"`
}

// Seat is a pilot with a channel; Channel is empty where none is left.
type Seat struct {
	Pilot   string         `json:"pilot"`
	System  string         `json:"system"`
	Channel string         `json:"channel,omitempty"`
	MHz     unit.Megahertz `json:"mhz,omitempty"`
	Width   unit.Megahertz `json:"width,omitempty"`
}

// Product is a third-order product 2·a − b that lands on somebody.
type Product struct {
	A   string         `json:"a"`
	B   string         `json:"b"`
	On  string         `json:"on"`
	MHz unit.Megahertz `json:"mhz"`
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
	return cmp.Or(cmp.Compare(a.seated, b.seated), cmp.Compare(b.products, a.products), cmp.Compare(a.spacing, b.spacing)) > 0
}

type search struct {
	pilots []Pilot
	order  []int
	now    []int // channel of each pilot; -1: none
	best   []int
	top    worth
	found  bool
	nodes  int
}

// Find seats the pilots.
func Find(pilots []Pilot) Plan {
	s := &search{pilots: pilots, now: make([]int, len(pilots))}
	for i := range pilots {
		s.order = append(s.order, i)
		s.now[i] = -1
	}
	slices.SortStableFunc(s.order, func(a, b int) int {
		return cmp.Or(cmp.Compare(len(pilots[a].Channels), len(pilots[b].Channels)), cmp.Compare(pilots[a].System, pilots[b].System))
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
	if depth > 0 && s.pilots[s.order[depth-1]].System == s.pilots[pilot].System {
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

// productsWith counts the third-order products a pilot has part in.
func (s *search) productsWith(pilot int) (n int) {
	for a := range s.pilots {
		for b := range s.pilots {
			for on := range s.pilots {
				if (a == pilot || b == pilot || on == pilot) && s.lands(a, b, on) {
					n++
				}
			}
		}
	}
	return n
}

// lands says whether 2·a − b falls into somebody's channel.
func (s *search) lands(a, b, on int) bool {
	ca, cb, co := s.channel(a), s.channel(b), s.channel(on)
	return a != b && on != a && on != b && ca != nil && cb != nil && co != nil && apart(2*ca.MHz-cb.MHz, co.MHz) < co.WidthMHz/2
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
	for a := range s.pilots {
		for b := range s.pilots {
			for on := range s.pilots {
				if s.lands(a, b, on) {
					plan.Products = append(plan.Products, Product{s.pilots[a].Name, s.pilots[b].Name, s.pilots[on].Name, 2*s.channel(a).MHz - s.channel(b).MHz})
				}
			}
		}
	}
	plan.Free = s.free()
	return plan
}

// free lists the channels one more pilot of a system present could take without
// lying over anybody.
func (s *search) free() []Free {
	list := []Free{}
	seen := map[string]bool{}
	for _, p := range s.pilots {
		if seen[p.System] {
			continue
		}
		seen[p.System] = true
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
