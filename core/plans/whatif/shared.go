package whatif

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/route"
)

// Goggles and controllers serve many wants, and which of them the one that is bought serves best is not
// only those that fail: old goggles are left to the quad that needs them as they are where others move to
// the new ones. Tried are all wants that fail, and all wants whatever, each bettered one want at a time
// until nothing is better (local search).

// mostRoutes is how many routes are made for a device: half a second.
const mostRoutes = 150

// sharing looks for the wants that are put to goggles or a controller that is bought.
type sharing struct {
	route.Request
	base   *route.Plan
	device Offered
	id     string // its id once it is bought
	left   int    // routes that are still made
	// could is whether wants can be put to the device.
	could []bool
}

// served is a route with some wants put to the device.
type served struct {
	takes []bool
	plan  route.Plan
	score []int
}

// withShared puts wants to goggles or a controller, as it comes from a shop: those with which most are met.
func withShared(r route.Request, base *route.Plan, d Offered) (route.Plan, []bool, error) {
	s := sharing{Request: r, base: base, device: d, left: mostRoutes}
	s.Fleet, s.id = r.Fleet.Owning(d.Model)
	best := served{takes: make([]bool, len(r.Wants)), plan: *base}
	best.score = s.score(&best)
	if err := s.find(); err != nil {
		return best.plan, best.takes, err
	}
	failing := slices.Clone(s.could)
	for i := range failing {
		failing[i] = failing[i] && !base.Links[i].Met
	}
	starts := [][]bool{failing, s.could}
	if slices.Equal(failing, s.could) {
		starts = starts[1:]
	}
	for _, takes := range starts {
		found, err := s.climb(takes)
		if err != nil {
			return best.plan, best.takes, err
		}
		if found.beats(&best) {
			best = found
		}
	}
	return best.plan, best.takes, nil
}

// find finds which wants can be put to the device at all: those that are met with it where nothing else is
// wanted, and of those that are met as they are the ones that make room for one that would be met alone.
func (s *sharing) find() error {
	room := make([]bool, len(s.Wants))
	for i := range s.Wants {
		if s.base.Links[i].Met {
			continue
		}
		met, err := s.alone(i, false)
		if err != nil {
			return err
		}
		room[i] = met
	}
	s.could = make([]bool, len(s.Wants))
	for i := range s.Wants {
		if !s.goes(i) || s.base.Links[i].Met && !s.makesRoom(i, room) {
			continue
		}
		met, err := s.alone(i, true)
		if err != nil {
			return err
		}
		s.could[i] = met
	}
	return nil
}

// alone says whether a want is met where nothing else is wanted, put to the device or as it is.
func (s *sharing) alone(want int, put bool) (bool, error) {
	one := *s
	one.Wants = s.Wants[want : want+1]
	plan, err := one.plan([]bool{put})
	return err == nil && plan.Links[0].Met, err
}

// goes says whether a want may be put to the device: not where a quad flies with one of the same already.
func (s *sharing) goes(want int) bool {
	w := &s.Wants[want]
	if s.device.Kind == gear.KindController {
		return flown(s.Request, w)
	}
	return s.base.Links[want].Met || !flies(s.Request, s.base, w.Quad, s.device.Model)
}

// makesRoom says whether a want of another quad that there could be room for fails with the same goggles, or the
// same controller, and none of its own: that would be no room, but another want in its place.
func (s *sharing) makesRoom(want int, room []bool) bool {
	is := &s.Wants[want]
	for i := range s.Wants {
		if s.Wants[i].Quad == is.Quad && !s.base.Links[i].Met {
			return false
		}
	}
	for i := range s.Wants {
		w := &s.Wants[i]
		if !room[i] || w.Quad == is.Quad {
			continue
		}
		if s.device.Kind == gear.KindGoggles && w.Goggles == is.Goggles {
			return true
		}
		one, flies := controllerOf(s.Request, is)
		if other, also := controllerOf(s.Request, w); s.device.Kind == gear.KindController && flies && also && one == other {
			return true
		}
	}
	return false
}

// climb betters some wants one at a time.
func (s *sharing) climb(takes []bool) (best served, err error) {
	if best, err = s.with(takes); err != nil {
		return best, err
	}
	for better := true; better; {
		better = false
		for i := range takes {
			if !s.could[i] || s.left <= 0 {
				continue
			}
			other := slices.Clone(best.takes)
			other[i] = !other[i]
			next, err := s.with(other)
			if err != nil {
				return best, err
			}
			if next.beats(&best) {
				best, better = next, true
			}
		}
	}
	return best, nil
}

// with is the route with some wants put to the device.
func (s *sharing) with(takes []bool) (served, error) {
	s.left--
	plan, err := s.plan(takes)
	out := served{takes: takes, plan: plan}
	out.score = s.score(&out)
	return out, err
}

// plan is the route with some wants put to the device.
func (s *sharing) plan(takes []bool) (route.Plan, error) {
	r := s.Request
	r.Wants = slices.Clone(r.Wants)
	for i := range r.Wants {
		switch {
		case !takes[i]:
		case s.device.Kind == gear.KindController:
			r.Wants[i].Controller = s.id
		default:
			r.Wants[i].Goggles = s.id
		}
	}
	return route.Bare(r)
}

// score is what counts, the first most: what has to be met, what is met, how little moves that is met
// without it, how little is put to it at all, doors, steps.
func (s *sharing) score(of *served) []int {
	musts, met, moved, put := 0, 0, 0, 0
	for i := range of.plan.Links {
		if of.plan.Links[i].Met {
			met++
			if s.Wants[i].Weight == fleet.Must {
				musts++
			}
		}
		if of.takes[i] {
			put++
			if s.base.Links[i].Met {
				moved++
			}
		}
	}
	return []int{musts, met, -moved, -put, -len(of.plan.Doors), -len(of.plan.Steps)}
}

// beats says whether a route is better than another.
func (a *served) beats(b *served) bool { return slices.Compare(a.score, b.score) > 0 }
