package mount

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// Seat is a place found for a part, and why others were not.
type Seat struct {
	Place *fleet.Spot `json:"place,omitempty"` // absent: there is none
	Says  string      `json:"says"`
	Tried int         `json:"tried"` // places and turns
	Free  int         `json:"free"`  // of them without anything in the way
}

// stepMM is how far the places tried are apart.
const stepMM unit.Millimetres = 2

// beyondReach is how much worse a place is that the camera's lead does not reach than a plug without
// room.
const beyondReach = 100

// try is one place and turn.
type try struct {
	spot  fleet.Spot
	plate string
	under bool
	short int // what is to stay free and does not, and what cannot be reached
}

// FindSeat tries all places on and under the plates, in each turn, and takes the one with
// most of what is to stay free: on a plate rather than under it, low, near the middle line and
// near where it lies now.
func FindSeat(c fleet.Case, part string) Seat {
	s := newSeat(c)
	bodies := s.bodies()
	at := slices.IndexFunc(bodies, func(b body) bool { return b.node == part })
	if at < 0 {
		return Seat{Says: "There is no such part on the quad."}
	}
	b := bodies[at]
	size, lacks := b.size()
	_, free := b.block(fleet.Spot{}, size)
	r, others := s.room()
	if len(s.Fit.Places) == 0 && !s.stands() { // then the room does not ask for the frame
		_, others = s.frameBlocks()
		_, more := s.rounds()
		others = append(others, more...)
	}
	_, _, _, _, holes := s.onHoles(part)
	if lacks = slices.Concat(lacks, holes, free, others); len(lacks) > 0 {
		return Seat{Says: verdict.CannotTell(verdict.Mount, CodeRoom, b.label, once(lacks)...).Says}
	}
	r.Blocks = slices.DeleteFunc(slices.Clone(r.Blocks), func(o Block) bool { return o.Part == part })
	now, _ := s.Fit.PlaceOf(part)
	seat, inTheWay := Seat{}, map[string]int{}
	var best *try
	for t := range s.seats(&b, size) {
		seat.Tried++
		block, _ := b.block(t.spot, size)
		if meets := r.meets(&block); meets != "" {
			inTheWay[meets]++
			continue
		}
		if t.short = cramped(&block, r.Blocks) + s.unreached(&block, r.Blocks); s.outOfCable(&r, &block) {
			t.short += beyondReach
		}
		if t.short == 0 {
			seat.Free++
		}
		if best == nil || t.better(best, now) {
			best = &t
		}
	}
	seat.say(&b, best, inTheWay)
	return seat
}

// meets is the first thing of a room that a block lies in; empty: it is free.
func (r *Room) meets(block *Block) string {
	for i := range r.Blocks {
		if _, by := block.meets(&r.Blocks[i]); by != 0 {
			return r.Blocks[i].Label
		}
	}
	for i := range r.Rounds {
		if r.Rounds[i].disc.Meets(block.box) > 0 {
			return r.Rounds[i].Label
		}
	}
	for i := range r.Rods {
		if block.struckBy(r.Rods[i].rod) > 0 {
			return r.Rods[i].Label
		}
	}
	return ""
}

// seats are the places to try: held by screws a part lies on its holes, or nowhere.
func (s *seat) seats(b *body, size [3]unit.Millimetres) func(yield func(try) bool) {
	return func(yield func(try) bool) {
		tried := map[fleet.Spot]bool{}
		for t := range s.tries(b, size) {
			if onto := s.snap(b.node, t.spot); onto != nil {
				if tried[*onto] {
					continue
				}
				tried[*onto], t.spot = true, *onto
			}
			if !yield(t) {
				return
			}
		}
	}
}

// once is what is missing, each value once.
func once(list []verdict.Missing) (out []verdict.Missing) {
	for _, m := range list {
		if !slices.Contains(out, m) {
			out = append(out, m)
		}
	}
	return out
}

// cramped counts what is to stay free and does not: beside a block, and beside the others.
func cramped(block *Block, others []Block) (n int) {
	for i := range others {
		for k := range block.Free {
			if block.Free[k].short(&others[i]) > 0 {
				n++
			}
		}
		for k := range others[i].Free {
			if others[i].Free[k].short(block) > 0 {
				n++
			}
		}
	}
	return n
}

// better says whether a place is to be preferred.
func (t *try) better(o *try, now fleet.Spot) bool {
	under := map[bool]int{true: 1}
	return cmp.Or(
		cmp.Compare(t.short, o.short),
		cmp.Compare(under[t.under], under[o.under]),
		cmp.Compare(t.spot.ZMM, o.spot.ZMM),
		cmp.Compare(max(t.spot.YMM, -t.spot.YMM), max(o.spot.YMM, -o.spot.YMM)),
		cmp.Compare(t.away(now), o.away(now)),
		cmp.Compare(t.spot.Quarters, o.spot.Quarters),
	) < 0
}

func (t *try) away(now fleet.Spot) unit.Millimetres {
	return max(t.spot.XMM-now.XMM, now.XMM-t.spot.XMM)
}

// tries are the places on and under each plate of the frame where a part lies wholly on it.
func (s *seat) tries(b *body, size [3]unit.Millimetres) func(yield func(try) bool) {
	return func(yield func(try) bool) {
		for _, plate := range s.PlatesOn() {
			slab, _ := plate.Slab() // known: a seat is not looked for where it is not
			for quarters := range 4 {
				if !s.triesOn(&plate, &slab, b.node, size, quarters, yield) {
					return
				}
			}
		}
	}
}

// triesOn are the places on and under one plate in one turn, from the middle line outwards.
func (s *seat) triesOn(
	p *gear.FramePlate, slab *space.Slab, node string, size [3]unit.Millimetres, quarters int, yield func(try) bool,
) bool {
	halfX, halfY := size[space.X]/2, size[space.Y]/2
	if quarters%2 != 0 {
		halfX, halfY = halfY, halfX
	}
	for x := p.FromXMM + halfX; x <= p.ToXMM-halfX; x += stepMM {
		for y := unit.Millimetres(0); y <= *p.YMM/2-halfY; y += stepMM {
			for _, side := range []unit.Millimetres{1, -1} {
				spot := fleet.Spot{Part: node, XMM: x, YMM: side * y, ZMM: *p.ZMM + *p.ThickMM, Quarters: quarters}
				if len(p.Outline) > 0 && !lies(slab, space.Standing([3]unit.Millimetres{x, side * y, 0}, size, quarters)) {
					continue
				}
				on := try{spot: spot, plate: p.Label()}
				under := on
				under.under, under.spot.ZMM = true, *p.ZMM-size[space.Z]
				if !yield(on) || !yield(under) {
					return false
				}
				if y == 0 {
					break
				}
			}
		}
	}
	return true
}

// lies says whether a part lies on a plate with openings: of each quarter of it at least half (from
// memory).
func lies(slab *space.Slab, part space.Box) bool {
	for quarter := range 4 {
		corner := part
		for axis := range 2 {
			if middle := (part.Min[axis] + part.Max[axis]) / 2; quarter>>axis&1 == 0 {
				corner.Max[axis] = middle
			} else {
				corner.Min[axis] = middle
			}
		}
		if slab.Carries(corner) < 0.5 {
			return false
		}
	}
	return true
}

// say puts a place found into words.
func (s *Seat) say(b *body, best *try, inTheWay map[string]int) {
	labels := slices.SortedFunc(maps.Keys(inTheWay), func(a, b string) int {
		return cmp.Or(cmp.Compare(inTheWay[b], inTheWay[a]), cmp.Compare(a, b))
	})
	why := ""
	if len(labels) > 0 {
		why = " Elsewhere most is in the way: " + strings.Join(labels[:min(3, len(labels))], ", ") + "."
	}
	switch {
	case s.Tried == 0:
		s.Says = b.label + " lies on no plate: it is larger, or hangs over."
		return
	case best == nil:
		s.Says = fmt.Sprintf("None of %d places and turns is free.%s", s.Tried, why)
		return
	}
	where := "On the "
	if best.under {
		where = "Under the "
	}
	s.Place = &best.spot
	s.Says = fmt.Sprintf("%s%s, %s: ", where, best.plate, best.spot.Words())
	if best.short == 0 {
		s.Says += fmt.Sprintf("one of %d free places of %d tried.", s.Free, s.Tried)
	} else {
		s.Says += fmt.Sprintf("nothing lies there, but a plug has no room or something is not reached. No place of %d is "+
			"better.", s.Tried)
	}
	s.Says += why
}
