package route

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
)

// request is a fleet over the sample gear: quad i carries a unit of the model
// given, flown with a separate receiver unless a controller is named.
func request(units map[string]firmware.Version, wants ...fleet.Want) Request {
	f := &fleet.Fleet{Kit: []fleet.Kit{
		sample.Own("old-eyes", "4.1", "a"),
		sample.Own("new-eyes", "5.0", "b"),
		sample.Own("old-hand", "", ""),
		sample.Own("new-hand", "1.0", ""),
	}}
	for _, name := range slices.Sorted(func(yield func(string) bool) {
		for k := range units {
			if !yield(k) {
				return
			}
		}
	}) {
		model, _, _ := strings.Cut(name, ":")
		f.Kit = append(f.Kit, fleet.Kit{ID: "unit-" + name, Model: model, Firmware: units[name], Activated: new(true)})
		f.Quads = append(f.Quads, fleet.Quad{
			ID:  name,
			Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: "unit-" + name}, Board: "board", Receiver: "receiver"},
		})
	}
	return Request{Library: gear.NewLibrary(sample.Set()), Fleet: fleet.NewIndex(f), Wants: wants}
}

func must(quad, goggles string) fleet.Want {
	return fleet.Want{Quad: quad, Goggles: goggles, Weight: fleet.Must}
}
func wish(quad, goggles string) fleet.Want {
	return fleet.Want{Quad: quad, Goggles: goggles, Weight: fleet.Wish}
}

func solved(t *testing.T, r Request) Plan {
	t.Helper()
	p, err := Solve(r)
	require.NoError(t, err)
	return p
}

func moves(p Plan) (list []string) {
	for _, s := range p.Steps {
		list = append(list, s.Device+" "+string(s.To)+s.Mode)
	}
	return list
}

// One unit cannot serve two goggles at once: up to 1.0.6 with the old ones,
// from 1.1 with the new (common practice).
func TestOneUnitCannotServeTwoGoggles(t *testing.T) {
	p := solved(t,
		request(map[string]firmware.Version{"first": "1.0.6"}, must("first", "old-eyes"), wish("first", "new-eyes")))
	assert.True(t, p.Links[0].Met)
	assert.False(t, p.Links[1].Met)
	assert.Empty(t, p.Steps, "the must holds today")
	c := p.Links[1].Conflict
	assert.Equal(t, []int{1, 0}, c.Wants)
	assert.Contains(t, c.Facts[0], "unit-first on 1.1 or later and new-eyes on 5.2 or later")
	assert.Contains(t, c.Facts[1], "unit-first on 1.0.6 or earlier")
	var says []string
	for _, w := range c.Ways {
		says = append(says, w.Says)
	}
	assert.Contains(t, says, "give up first with old-eyes")
	assert.Contains(t, says, "fit second to first", "the middle generation works with both")
	assert.NotContains(t, says, "fit small to first", "never links with the old goggles")
}

func TestTheMiddleGenerationWorksWithBoth(t *testing.T) {
	p := solved(t,
		request(map[string]firmware.Version{"second": "2.0"}, must("second", "old-eyes"), must("second", "new-eyes")))
	assert.True(t, p.Links[0].Met && p.Links[1].Met)
	assert.Equal(t, []string{
		"unit-second 2.3", "old-eyes 4.4", "old-eyes 4.6", "old-eyes b",
	}, moves(p), "the unit first: it flies with the new goggles while the old ones go through their chain")
	assert.Equal(t, [][]string{
		{},
		{"new-eyes"},
		{"new-eyes"},
		{"old-eyes", "new-eyes"},
		{"old-eyes", "new-eyes"},
	}, through(p.Lanes[0], p.Steps))
}

func TestMustsComeBeforeWishesAndWishesBeforeDoors(t *testing.T) {
	p := solved(t,
		request(map[string]firmware.Version{"first": "1.0.6"}, wish("first", "old-eyes"), must("first", "new-eyes")))
	assert.False(t, p.Links[0].Met)
	assert.True(t, p.Links[1].Met)
	assert.Contains(t, p.Says, "2 of which cannot be brought back")
	assert.True(t, slices.ContainsFunc(p.Steps, func(s Step) bool { return s.OneWay }))
	assert.Equal(t, []string{
		"new-eyes: nothing known leads back from 5.2 to 5.0",
		"unit-first: nothing known leads back from 1.1 to 1.0.6",
	}, slices.Sorted(slices.Values(p.Doors)))

	r := request(map[string]firmware.Version{"first": "1.0.6"}, must("first", "new-eyes"))
	r.KeepWayBack = true
	p = solved(t, r)
	assert.False(t, p.Links[0].Met, "no step that cannot be undone")
	assert.Equal(t, []int{0}, p.Links[0].Conflict.Wants, "it stands in its own way")
}

func TestValuedFeaturesAreKeptWhereNothingIsLostByIt(t *testing.T) {
	set := sample.Set()
	set.Pairings[3].AirFirmware = ">=2.0"
	set.Pairings[3].Features = []string{"recording"}
	second := set.Pairings[3]
	second.ID, second.AirFirmware, second.Features = "newer", ">=2.3", []string{"canvas"}
	set.Pairings = append(set.Pairings, second)
	set.Pairings[3].AirFirmware = "<2.3"
	r := request(map[string]firmware.Version{"second": "2.0"}, must("second", "new-eyes"))
	r.Library = gear.NewLibrary(set)
	assert.Empty(t, solved(t, r).Steps)
	r.Values = []string{"canvas"}
	p := solved(t, r)
	assert.Equal(t, []string{"unit-second 2.3"}, moves(p))
	assert.Equal(t, []string{"recording"}, p.Links[0].Lost)
	assert.Equal(t, []string{"canvas"}, p.Links[0].Gained)
}

func TestControllerGenerations(t *testing.T) {
	r := request(map[string]firmware.Version{"second": "2.3"}, must("second", "old-eyes"))
	r.Fleet.Quads[0].Now.Receiver = ""
	r.Fleet.Quads[0].Now.Controller = &fleet.Slot{Kit: "old-hand"}
	p := solved(t, r)
	assert.False(t, p.Links[0].Met, "the old controller does not go through the second generation")
	require.NotEmpty(t, p.Links[0].Conflict.Ways)
	assert.Equal(t, Way{
		Says:  "fly second with new-hand",
		Costs: "nothing to buy",
	}, p.Links[0].Conflict.Ways[0], "what is owned comes first")
	assert.Contains(t, p.Links[0].Conflict.Ways, Way{
		Says:  "fit a separate receiver to second, the receiver",
		Costs: "to buy",
		Buys:  true,
	})
	assert.Equal(t, "The wanted link cannot be had with what is here: look at what stands in its way.", p.Says)
	r.Wants[0].Controller = fleet.SeparateReceiver
	assert.True(t, solved(t, r).Links[0].Met, "asked for, it is taken as there")
	r.Wants[0].Controller = "new-hand"
	assert.Contains(t, moves(solved(t, r)), "new-hand 1.1", "another controller asked for")
	r.Wants[0].Controller = "nix"
	_, err := Solve(r)
	assert.ErrorContains(t, err, "wants[0].controller")
	r.Wants[0].Controller = ""
	r.Fleet.Quads[0].Now.Controller.Kit = "new-hand"
	assert.Contains(t, moves(solved(t, r)), "new-hand 1.1", "its controller has to come along")
}

func TestASwappedQuadIsHeldAgainstWhatItCarriesToday(t *testing.T) {
	set := sample.Set()
	set.Pairings[0].Features = []string{"picture flip", "recording"}
	set.Pairings[2].Features = []string{"recording", "canvas OSD"}
	r := request(map[string]firmware.Version{"first": "1.0.6", "second": "2.0"}, must("first", "old-eyes"))
	r.Library = gear.NewLibrary(set)
	r.Fleet.Quads[1].Now.AirUnit = nil
	r.Fleet.Quads[0].Next = new(r.Fleet.Quads[0].Now.With(fleet.Patch{AirUnit: &fleet.Slot{Kit: "unit-second"}}))
	r.Fleet = fleet.NewIndex(r.Fleet.Fleet)
	l := solved(t, r).Links[0]
	assert.True(t, l.Before && l.Met)
	assert.Equal(t, []string{"picture flip"}, l.Lost)
	assert.Equal(t, []string{"canvas OSD"}, l.Gained)
}

func TestNobodyFliesOnWhatIsNotActivated(t *testing.T) {
	r := request(map[string]firmware.Version{"second": "2.3"}, must("second", "new-eyes"))
	set := sample.Set()
	set.AirUnits[1].Activation.Needed = true
	r.Library = gear.NewLibrary(set)
	for i := range r.Fleet.Kit {
		r.Fleet.Kit[i].Activated = new(r.Fleet.Kit[i].ID != "unit-second")
	}
	p := solved(t, r)
	require.Equal(t, []string{"unit-second "}, moves(p))
	assert.Equal(t, [][]string{{}, {"new-eyes"}}, through(p.Lanes[0], p.Steps))
}

// What is not activated keeps no other goggles from flying.
func TestOnlyWhatIsNotActivatedStaysDark(t *testing.T) {
	r := request(map[string]firmware.Version{"second": "2.3"}, must("second", "old-eyes"), must("second", "new-eyes"))
	set := sample.Set()
	set.Goggles[0].Activation.Needed = true
	r.Library = gear.NewLibrary(set)
	for i := range r.Fleet.Kit {
		r.Fleet.Kit[i].Activated = new(r.Fleet.Kit[i].ID != "old-eyes")
		if r.Fleet.Kit[i].ID == "old-eyes" {
			r.Fleet.Kit[i].Firmware, r.Fleet.Kit[i].Mode = "4.6", "b"
		}
	}
	p := solved(t, r)
	assert.Equal(t, [][]string{{"new-eyes"}, {"old-eyes", "new-eyes"}}, through(p.Lanes[0], p.Steps))
}

// A statement whose mode the goggles do not have yet keeps no other statement from holding.
func TestAStatementOfAModeStillToCome(t *testing.T) {
	set := sample.Set()
	other := set.Pairings[2] // the second generation with the old goggles, in mode b from 4.6 on
	set.Pairings[2].GogglesFirmware = "*"
	other.ID, other.Mode, other.GogglesFirmware = "as-it-comes", "", "<4.6"
	set.Pairings = append(set.Pairings, other)
	r := request(map[string]firmware.Version{"second": "2.3"}, must("second", "old-eyes"), must("second", "new-eyes"))
	r.Library = gear.NewLibrary(set)
	p := solved(t, r)
	assert.Empty(t, p.Steps)
	assert.Equal(t, [][]string{{"old-eyes", "new-eyes"}}, through(p.Lanes[0], p.Steps), "with both from the first moment on")
}

func TestWhatNoFirmwareDecides(t *testing.T) {
	r := request(map[string]firmware.Version{"small": "3.0"}, must("small", "old-eyes"), must("small", "new-eyes"))
	p := solved(t, r)
	assert.Contains(t, p.Links[0].Says, "never links")
	assert.Contains(t, p.Links[1].Says, "unknown: no statement")
	r.Fleet.Quads[0].Now.AirUnit = nil
	assert.Contains(t, solved(t, r).Links[0].Says, "unknown: no air unit")
	for _, bad := range []fleet.Want{must("nix", "old-eyes"), must("small", "nix"), must("small", "old-hand")} {
		_, err := Solve(request(map[string]firmware.Version{"small": "3.0"}, bad))
		assert.ErrorContains(t, err, "wants[0]")
	}
	assert.Equal(t, "Nothing is wanted yet.", solved(t, request(nil)).Says)
}

// dark counts, over the states a plan goes through, the must-fly quads that
// could fly before or can after and cannot then.
func dark(p Plan, wants []fleet.Want) (n int) {
	for _, l := range p.Lanes {
		isMust := slices.ContainsFunc(wants, func(w fleet.Want) bool { return w.Quad == l.Quad && w.Weight == fleet.Must })
		if !isMust || len(l.Flies(0)) == 0 && len(l.Flies(len(p.Steps))) == 0 {
			continue
		}
		for _, f := range through(l, p.Steps) {
			if len(f) == 0 {
				n++
			}
		}
	}
	return n
}

// A law: every step of a plan is permitted from where the device stands, and
// the plan ends where its links say.
func TestEveryPlanCanBeWalked(t *testing.T) {
	for seed := range uint64(200) {
		r := instance(5000+seed, 1+int(seed%7), 1+int(seed%4))
		p := solved(t, r)
		stands := map[string]firmware.State{}
		for _, kit := range r.Fleet.Kit {
			stands[kit.ID] = firmware.State{Version: kit.Firmware, Mode: kit.Mode, Activated: *kit.Activated}
		}
		chartOf := func(id string) *firmware.Chart {
			kit, _ := r.Fleet.Piece(id)
			return r.Library.Chart(kit.Model)
		}
		for _, s := range p.Steps {
			from := stands[s.Device]
			require.Equal(t, from.Version, s.From, "seed %d: %s", seed, s.Device)
			to := from
			switch s.Do {
			case Update:
				to.Version, to.Mode = s.To, chartOf(s.Device).KeptMode(from.Mode, s.To)
			case Mode:
				to.Mode = s.Mode
			case Activate:
				to.Activated = true
			}
			path, ok := chartOf(s.Device).Way(from, to)
			require.True(t, ok)
			require.Len(t, path, 1, "one permitted step at a time")
			require.False(t, r.KeepWayBack && s.OneWay)
			stands[s.Device] = to
		}
		at := map[string]firmware.Version{}
		for id, s := range stands {
			at[id] = s.Version
			if _, ok := chartOf(id).Way(s, firmware.State{Activated: true}); !ok {
				at[id] = dead
			}
		}
		for i, w := range r.Wants {
			list, air, eyes, hand := pairingsOf(r, w)
			if p.Links[i].Met {
				for _, id := range []string{air, eyes, hand} {
					if id != "" {
						way, _ := chartOf(id).Way(stands[id], firmware.State{Activated: true})
						require.Empty(t, way, "seed %d: %s still sleeps", seed, id)
					}
				}
			}
			works := slices.ContainsFunc(list, func(x *gear.Pairing) bool { return holds(r, x, eyes, hand, at, air) })
			require.Equal(t, works, p.Links[i].Met, "seed %d, want %d", seed, i)
		}
		for _, lane := range p.Lanes {
			require.NotEmpty(t, lane.Turns, "seed %d", seed)
			require.Zero(t, lane.Turns[0].After, "seed %d", seed)
		}
	}
}

// A law: each conflict set cannot be met together, and can with any one of it
// left out.
func TestConflictsAreMinimal(t *testing.T) {
	found := 0
	for seed := range uint64(600) {
		r := instance(9000+seed, 2+int(seed%4), 2)
		r.KeepWayBack = false
		for i, l := range solved(t, r).Links {
			if l.Met || l.Conflict == nil || len(l.Conflict.Facts) == 0 || len(l.Conflict.Wants) == 1 {
				continue
			}
			found++
			set := l.Conflict.Wants
			require.Equal(t, i, set[0])
			require.False(t, feasible(r, set), "seed %d: %v can be met together", seed, set)
			for k := range set {
				require.True(t, feasible(r, slices.Delete(slices.Clone(set), k, k+1)), "seed %d: %v is not minimal", seed, set)
			}
		}
	}
	assert.Greater(t, found, 20, "the random fleets should hold conflicts")
}

// Four wants of one pair of goggles, each of which shuts out another of its releases: only
// together do they stand in each other's way, and what has nothing to do with it is left out.
func TestAConflictOfFourLeavesOutWhatHasNothingToDoWithIt(t *testing.T) {
	set := &gear.Set{Goggles: []gear.Goggles{
		{Device: gear.Device{Entry: gear.Entry{ID: "eyes"}}},
		{Device: gear.Device{Entry: gear.Entry{ID: "other"}, Releases: []gear.Release{{Version: "1.0"}}}},
	}}
	eyes := &set.Goggles[0]
	for _, v := range []firmware.Version{"1.0", "2.0", "3.0", "4.0"} {
		eyes.Releases = append(eyes.Releases, gear.Release{Version: v, From: "*"})
	}
	f := &fleet.Fleet{Kit: []fleet.Kit{
		{ID: "eyes", Model: "eyes", Firmware: "1.0", Activated: new(true)},
		{ID: "other", Model: "other", Firmware: "1.0", Activated: new(true)},
	}}
	var wants []fleet.Want
	add := func(quad, goggles string, weight fleet.Weight, ranges ...firmware.Range) {
		set.AirUnits = append(set.AirUnits, gear.AirUnit{Device: gear.Device{Entry: gear.Entry{ID: quad},
			Releases: []gear.Release{{Version: "1.0"}}}})
		for i, with := range ranges {
			set.Pairings = append(set.Pairings, gear.Pairing{Entry: gear.Entry{ID: quad + string(rune('a'+i))}, AirUnit: quad,
				Goggles: goggles, GogglesFirmware: with})
		}
		f.Kit = append(f.Kit, fleet.Kit{ID: "unit-" + quad, Model: quad, Firmware: "1.0", Activated: new(true)})
		f.Quads = append(f.Quads, fleet.Quad{ID: quad,
			Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: "unit-" + quad}, Board: "board", Receiver: "receiver"}})
		wants = append(wants, fleet.Want{Quad: quad, Goggles: goggles, Weight: weight})
	}
	add("beside", "other", fleet.Must, "*")
	add("not-first", "eyes", fleet.Must, ">=2.0")
	add("not-second", "eyes", fleet.Must, "<2.0", ">=3.0")
	add("not-third", "eyes", fleet.Must, "<3.0", ">=4.0")
	add("between", "other", fleet.Must, "*")
	add("not-fourth", "eyes", fleet.Wish, "<4.0")
	r := Request{Library: gear.NewLibrary(set), Fleet: fleet.NewIndex(f), Wants: wants}
	last := solved(t, r).Links[5]
	require.False(t, last.Met)
	require.NotNil(t, last.Conflict)
	assert.Equal(t, []int{5, 1, 2, 3}, last.Conflict.Wants)
}

// Against every order of the same steps on small fleets: no other leaves
// must-fly quads dark at fewer steps, when each unit is updated in one go.
func TestNoOrderStrandsLess(t *testing.T) {
	compared := 0
	for seed := range uint64(300) {
		r := instance(20000+seed, 1+int(seed%3), 1+int(seed%2))
		p := solved(t, r)
		if n := len(p.Steps); n < 2 || n > 6 {
			continue
		}
		compared++
		problem, err := prepare(r)
		require.NoError(t, err)
		w := newWriter(r, problem, problem.solve(DefaultBudget))
		w.links()
		best := -1
		permute(p.Steps, func(order []Step) {
			if n := dark(Plan{Steps: order, Lanes: w.lanes(order)}, r.Wants); best < 0 || n < best {
				best = n
			}
		})
		assert.LessOrEqual(t, dark(p, r.Wants), best, "seed %d: %v", seed, moves(p))
	}
	assert.Greater(t, compared, 30)
}

// permute gives every order that keeps each device's own steps in order.
func permute(steps []Step, visit func([]Step)) {
	var order []Step
	used := make([]bool, len(steps))
	var try func()
	try = func() {
		if len(order) == len(steps) {
			visit(order)
			return
		}
		for i, s := range steps {
			if used[i] || slices.ContainsFunc(steps[:i], func(o Step) bool {
				return o.Device == s.Device && !used[slices.Index(stepKeys(steps), o.Device+string(o.To))]
			}) {
				continue
			}
			used[i] = true
			order = append(order, s)
			try()
			order = order[:len(order)-1]
			used[i] = false
		}
	}
	try()
}

func stepKeys(steps []Step) (keys []string) {
	for _, s := range steps {
		keys = append(keys, s.Device+string(s.To))
	}
	return keys
}

// Statements that contradict each other for the same releases: a never outweighs
// whatever else is said of the pair.
func TestANeverOutweighsOtherStatements(t *testing.T) {
	set := sample.Set()
	never := gear.Pairing{Entry: gear.Entry{ID: "no"}, AirUnit: "first", Goggles: "old-eyes", Never: true}
	set.Pairings = append(set.Pairings, never)
	r := request(map[string]firmware.Version{"first": "1.0.6"}, must("first", "old-eyes"))
	r.Library = gear.NewLibrary(set)
	p := solved(t, r)
	assert.False(t, p.Links[0].Met)
	assert.Contains(t, p.Links[0].Says, "never links")
	assert.Contains(t, p.Links[0].Says, "contradict each other: one says they never link")
}

// Statements about the same releases that name different controllers: nobody
// knows which is true.
func TestStatementsAtOddsAreUnknown(t *testing.T) {
	set := sample.Set()
	other := set.Pairings[2]
	other.ID, other.AirFirmware, other.Controllers = "other", " >=2.0.0", nil
	set.Pairings = append(set.Pairings, other)
	r := request(map[string]firmware.Version{"second": "2.3"}, must("second", "old-eyes"))
	r.Library = gear.NewLibrary(set)
	assert.True(t, solved(t, r).Links[0].Met, "one that is silent on controllers contradicts nothing")
	set.Pairings[5].Controllers = []gear.ControllerRange{{ID: "old-hand"}}
	r.Library = gear.NewLibrary(set)
	l := solved(t, r).Links[0]
	assert.False(t, l.Met)
	assert.Contains(t, l.Says,
		"unknown: second-old-eyes (measured) and other (measured) contradict each other: they name "+
			"different controllers")
}

// A mode chain (common practice): the new mode comes with an update, and the
// next update goes on in that mode only. It ends in the mode the links need.
func TestAChainThroughModesIsPartOfTheRoute(t *testing.T) {
	set := sample.Set()
	eyes := &set.Goggles[0]
	eyes.Modes[1].Firmware = ">=4.4"
	eyes.Releases[2].Install = &gear.Install{Mode: "b", Tools: []string{"Desk"}}
	r := request(map[string]firmware.Version{"second": "2.3"}, must("second", "old-eyes"))
	r.Library = gear.NewLibrary(set)
	p := solved(t, r)
	assert.Equal(t, []string{"old-eyes 4.4", "old-eyes b", "old-eyes 4.6"}, moves(p))
	assert.Equal(t, []string{"a to b loses the bindings: every quad flown with it is bound again"}, p.Steps[1].Warns)
	assert.Equal(t, []string{"in mode b"}, p.Steps[2].Needs)
	assert.Equal(t, []ModeUse{{Mode: "b", Quads: []string{"second"}, id: "b", musts: 1}}, p.Devices[0].Uses)
	assert.Equal(t, "b", p.Devices[0].Mode)
	assert.Equal(t, []string{"old-eyes: nothing known leads back from 4.6 to 4.1"}, p.Doors)
	eyes.Releases[1].RollbackTo, eyes.Releases[2].RollbackTo = []firmware.Version{"4.1"}, []firmware.Version{"4.4"}
	r.Library = gear.NewLibrary(set)
	p = solved(t, r)
	assert.Empty(t, p.Doors)
	after, homes, err := After(r, p.Steps)
	require.NoError(t, err)
	b, err := WayBack(after, homes)
	require.NoError(t, err)
	var back []string
	for _, s := range b.Steps {
		back = append(back, s.Says)
	}
	assert.Equal(t, []string{"put 4.4 on old-eyes", "put 4.1 on old-eyes", "switch old-eyes to mode a"}, back)
	assert.Equal(t, [][]string{{"old-eyes"}, {}, {}, {}}, through(b.Lanes[0], b.Steps))
}

// A release the gear does not list is one nobody has read, and that is said.
func TestAReleaseNotListedIsUnknown(t *testing.T) {
	r := request(map[string]firmware.Version{"first": "1.0.3"}, must("first", "old-eyes"))
	p := solved(t, r)
	assert.False(t, p.Links[0].Met, "by its number it would lie in the range")
	assert.Equal(
		t,
		[]string{
			"unit-first carries 1.0.3, which is not among the releases its gear lists: it counts as one nobody has read.",
		},
		p.Notes,
	)
}

// Nothing unknown passes for good: a quad whose sticks go nobody knows how is
// not said to link, and what nobody has said to be activated is seen to.
func TestWhatIsNotKnownIsNotTakenForGood(t *testing.T) {
	r := request(map[string]firmware.Version{"second": "2.3"}, must("second", "new-eyes"))
	r.Fleet.Quads[0].Now.Receiver = ""
	l := solved(t, r).Links[0]
	assert.False(t, l.Met)
	assert.Contains(t, l.Says, "unknown: controller, or a separate receiver")

	unsaid := sample.Set()
	for i := range unsaid.Pairings {
		unsaid.Pairings[i].Controllers = nil
	}
	r.Library = gear.NewLibrary(unsaid)
	r.Fleet.Quads[0].Now.Controller = &fleet.Slot{Kit: "new-hand"}
	l = solved(t, r).Links[0]
	assert.False(t, l.Met)
	assert.Contains(t, l.Says, "unknown: which controllers go through second with new-eyes")

	r = request(map[string]firmware.Version{
		"second": "2.3",
		"small":  "3.0",
	}, must("second", "new-eyes"), wish("small", "old-eyes"))
	set := sample.Set()
	set.AirUnits[1].Activation.Needed, set.AirUnits[2].Activation.Needed = true, true
	r.Library = gear.NewLibrary(set)
	for i := range r.Fleet.Kit {
		r.Fleet.Kit[i].Activated = nil
	}
	p := solved(t, r)
	assert.Equal(t, []string{"unit-second "}, moves(p), "only what takes part in a link that works")
	assert.Equal(t, [][]string{{}, {"new-eyes"}}, through(p.Lanes[0], p.Steps))
}

// A door that is shut says so, and opening it is a way out.
func TestAShutDoorCanBeOpened(t *testing.T) {
	r := request(map[string]firmware.Version{"first": "1.0.6"}, must("first", "new-eyes"))
	r.KeepWayBack = true
	p := solved(t, r)
	require.False(t, p.Links[0].Met)
	require.NotEmpty(t, p.Links[0].Conflict.Ways)
	assert.Contains(t, p.Links[0].Conflict.Ways[0].Says, "one-way doors are shut")
	assert.Contains(t, p.Links[0].Conflict.Facts[0], "now unit-first carries 1.0.6", "what is carried now is named")
}

// A unit nobody has read is unknown on the route, or read first.
func TestAUnreadUnitOnTheRoute(t *testing.T) {
	p := solved(t, request(map[string]firmware.Version{"first": ""}, must("first", "old-eyes")))
	assert.False(t, p.Links[0].Met)
	assert.Contains(t, p.Links[0].Says, "unknown: nobody has read")
	p = solved(t, request(map[string]firmware.Version{"first": ""}, must("first", "new-eyes")))
	require.True(t, p.Links[0].Met, "whatever it carries, 1.1 goes on")
	read := false
	for _, s := range p.Steps {
		for _, need := range s.Needs {
			read = read || strings.Contains(need, "its release read first")
		}
	}
	assert.True(t, read)
}

// through is what a quad flies with before the first step and after each.
func through(l Lane, steps []Step) (list [][]string) {
	for after := range len(steps) + 1 {
		list = append(list, l.Flies(after))
	}
	return list
}

// Whatever the plan leaves unexplained is explained when it is asked for, in the same
// words.
func TestAskedForItIsExplainedTheSame(t *testing.T) {
	compared := 0
	for seed := range uint64(40) {
		r := instance(seed, 4, 2)
		for i, l := range solved(t, r).Links {
			conflict, err := Why(r, i)
			require.NoError(t, err)
			assert.Equal(t, l.Conflict, conflict, "seed %d, want %d", seed, i)
			if conflict != nil {
				compared++
			}
		}
	}
	assert.Greater(t, compared, 20)
	r := instance(11, 300, 3)
	p := solved(t, r)
	steps, err := Steps(r)
	require.NoError(t, err)
	assert.Equal(t, p.Steps, steps, "the steps alone are the same")
	explained, silent := 0, 0
	for i, l := range p.Links {
		switch {
		case l.Conflict != nil:
			explained++
		case !l.Met:
			if silent++; silent == 1 {
				conflict, err := Why(r, i)
				require.NoError(t, err)
				assert.NotNil(t, conflict)
			}
		}
	}
	assert.Equal(t, MostExplained, explained)
	assert.Positive(t, silent)
	_, err = Why(r, len(p.Links))
	assert.ErrorContains(t, err, "wants[")
}
