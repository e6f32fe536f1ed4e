package whatif

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/plans/route"
	"yokeswap/internal/builds"
)

// A want of a quad whose sticks go through a receiver of its own is not put to a controller, but where one is
// asked for.
func TestAReceiverTakesNoController(t *testing.T) {
	st := builds.Demo()
	r := route.Request{Library: st.Library(), Fleet: fleet.NewIndex(st.Fleet), Wants: st.Fleet.Wants, Values: st.Fleet.Values}
	base, err := route.Bare(r)
	require.NoError(t, err)
	at := slices.IndexFunc(base.Links, func(l route.Link) bool { return l.Quad == "wallower" && l.Goggles == "visor-b-1" })
	columns, err := OnRoute(r, []string{"grip-1"})
	require.NoError(t, err)
	require.True(t, columns[0].Wants[at].Takes)
	s := sharing{Request: r, base: &base, device: Offered{Kind: gear.KindController}}
	require.True(t, s.goes(at))
	wallower, _ := st.Fleet.Quad("wallower")
	next := wallower.NextFit()
	next.Receiver = "lantern-r2"
	wallower.Next = &next
	assert.False(t, s.goes(at))
	s.Wants[at].Controller = "grip-1-a"
	assert.True(t, s.goes(at), "but where a controller is asked for")
	s.Wants[at].Controller = fleet.SeparateReceiver
	assert.False(t, s.goes(at))
}

// One moves only to make room on the same goggles, and not where a want of its own quad fails.
func TestWhatMakesRoom(t *testing.T) {
	st := builds.Demo()
	r := route.Request{Library: st.Library(), Fleet: fleet.NewIndex(st.Fleet), Wants: st.Fleet.Wants, Values: st.Fleet.Values}
	base, err := route.Bare(r)
	require.NoError(t, err)
	s := sharing{Request: r, base: &base, device: Offered{Kind: gear.KindGoggles}}
	at := func(quad, goggles string) int {
		return slices.IndexFunc(r.Wants, func(w fleet.Want) bool { return w.Quad == quad && w.Goggles == goggles })
	}
	room := make([]bool, len(r.Wants))
	room[at("sluice", "visor-c-1")] = true
	assert.True(t, s.makesRoom(at("rynd", "visor-c-1"), room))
	assert.False(t, s.makesRoom(at("quern", "visor-b-1"), room), "on other goggles")
	assert.False(t, s.makesRoom(at("damsel", "visor-b-1"), room), "another want of it fails")
}

// drawnRoute is a route for some wants of the demo's quads, its devices on releases as they are drawn.
func drawnRoute(seed uint64) route.Request {
	r := rand.New(rand.NewPCG(seed, 3))
	st := builds.Demo()
	lib := st.Library()
	f := *st.Fleet
	f.Kit = slices.Clone(f.Kit)
	var goggles []string
	for i := range f.Kit {
		item, _ := lib.Item(f.Kit[i].Model)
		device, is := item.(gear.Linked)
		if !is {
			continue
		}
		if _, worn := item.(*gear.Goggles); worn {
			goggles = append(goggles, f.Kit[i].ID)
		}
		var on []firmware.Version
		for _, release := range device.AsDevice().Releases {
			on = append(on, release.Version)
		}
		if len(on) > 0 && r.IntN(3) > 0 {
			f.Kit[i].Firmware, f.Kit[i].Mode = on[r.IntN(len(on))], ""
		}
	}
	f.Wants = nil
	for range 5 {
		w := fleet.Want{Quad: f.Quads[r.IntN(len(f.Quads))].ID, Goggles: goggles[r.IntN(len(goggles))], Weight: fleet.Must}
		if r.IntN(2) == 0 {
			w.Weight = fleet.Wish
		}
		if !slices.ContainsFunc(f.Wants, func(o fleet.Want) bool { return o.Quad == w.Quad && o.Goggles == w.Goggles }) {
			f.Wants = append(f.Wants, w)
		}
	}
	return route.Request{Library: lib, Fleet: fleet.NewIndex(&f), Wants: f.Wants, Values: f.Values}
}

// Old goggles that are left as they are for one quad, where another moves to new ones that the first cannot
// fly with, are what a second pair is bought for.
func TestAnotherMakesRoom(t *testing.T) {
	set := sample.Set()
	set.Pairings = slices.DeleteFunc(set.Pairings, func(p gear.Pairing) bool {
		return p.AirUnit == "first" && p.Goggles == "new-eyes"
	})
	for i := range set.Pairings {
		if p := &set.Pairings[i]; p.AirUnit == "first" {
			p.GogglesFirmware = "4.1"
		}
	}
	quad := func(unit string) fleet.Quad {
		return fleet.Quad{ID: unit, Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: unit}, Goggles: &fleet.Slot{Kit: "old-eyes"},
			Receiver: "receiver"}}
	}
	f := &fleet.Fleet{Kit: []fleet.Kit{sample.Own("first", "1.0.6", ""), sample.Own("second", "2.3", ""),
		sample.Own("old-eyes", "4.1", "a")}, Quads: []fleet.Quad{quad("first"), quad("second")}}
	f.Wants = []fleet.Want{{Quad: "first", Goggles: "old-eyes", Weight: fleet.Wish},
		{Quad: "second", Goggles: "old-eyes", Weight: fleet.Must}}
	r := route.Request{Library: gear.NewLibrary(set), Fleet: fleet.NewIndex(f), Wants: f.Wants}
	columns, err := OnRoute(r, []string{"new-eyes"})
	require.NoError(t, err)
	is := columns[0]
	assert.Equal(t, []bool{false, true}, []bool{is.Wants[0].Takes, is.Wants[1].Takes})
	assert.True(t, is.Wants[0].Met)
	assert.True(t, is.Wants[1].Met)
	assert.Equal(t, []string{"second"}, is.Moves)
	assert.Contains(t, is.Says, "New-eyes meets the want that fails: first with old-eyes; second would fly with it too, "+
		"to make room.")
}

// Which wants are put to what is bought is the best of all that could be, of drawn routes.
func TestWhatIsSharedAgainstAllThatCouldBe(t *testing.T) {
	opens := 0
	for seed := range uint64(60) {
		r := drawnRoute(seed)
		base, err := route.Bare(r)
		require.NoError(t, err)
		for _, d := range ForRoute(r.Library, r.Fleet) {
			if d.Kind == gear.KindAirUnit {
				continue
			}
			is, err := tryOnRoute(r, &base, d)
			require.NoError(t, err)
			if len(is.Opens) > 0 {
				opens++
			}
			if len(is.Moves) > 0 {
				assert.NotEmpty(t, is.Opens, "%d %s: nothing moves for nothing", seed, d.Name)
			}
			s := sharing{Request: r, base: &base, device: d}
			s.Fleet, s.id = r.Fleet.Owning(d.Model)
			best := served{takes: make([]bool, len(r.Wants)), plan: base}
			best.score = s.score(&best)
			room := make([]bool, len(r.Wants)) // any want that fails
			for i := range room {
				room[i] = !base.Links[i].Met
			}
			for set := range 1 << len(r.Wants) {
				takes, goes := make([]bool, len(r.Wants)), true
				for i := range takes {
					takes[i] = set&(1<<i) != 0
					goes = goes && (!takes[i] || s.goes(i) && (!base.Links[i].Met || s.makesRoom(i, room)))
				}
				if !goes {
					continue
				}
				one, err := s.with(takes)
				require.NoError(t, err)
				if one.beats(&best) {
					best = one
				}
			}
			found := served{plan: route.Plan{Links: make([]route.Link, len(is.Wants))}, takes: make([]bool, len(is.Wants))}
			for i := range is.Wants {
				found.plan.Links[i].Met, found.takes[i] = is.Wants[i].Met, is.Wants[i].Takes
			}
			assert.Equal(t, best.score[:4], s.score(&found)[:4], "%d %s: %v, best %v", seed, d.Name, is.Says, best.takes)
		}
	}
	assert.Greater(t, opens, 50)
}
