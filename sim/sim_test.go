package sim_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/route"
	"yokeswap/internal/builds"
	"yokeswap/sim"
)

func solve(t *testing.T, st *stock.Stock, wants []fleet.Want) route.Plan {
	t.Helper()
	p, err := route.Solve(route.Request{Library: st.Library(), Fleet: fleet.NewIndex(st.Fleet), Wants: wants})
	require.NoError(t, err)
	return p
}

// Wrong ways, and what a builder would see (common practice).
func TestWrongWaysFailAsTheyDoOnTheBench(t *testing.T) {
	good := sim.Setup{Tool: "Aldine Loft", BatteryPct: 80}
	for _, c := range []struct {
		name string
		do   sim.Action
		sees string
		why  string
	}{
		{"a charge-only cable", sim.Action{Do: "update", Device: "visor-b-1", To: "4.4", Setup: sim.Setup{Tool: "Aldine Loft", BatteryPct: 80, ChargeOnly: true}}, "The tool shows no device.", "no data wires"},
		{"the wrong desktop tool", sim.Action{Do: "update", Device: "visor-b-1", To: "4.4", Setup: sim.Setup{Tool: "Aldine Desk", BatteryPct: 80}}, "The tool shows no device.", "only in Aldine Loft"},
		{"the goggles' battery at 30 %", sim.Action{Do: "update", Device: "visor-b-1", To: "4.4", Setup: sim.Setup{Tool: "Aldine Loft", BatteryPct: 30}}, "battery at 30 %", "55 % or more"},
		{"without the flight pack", sim.Action{Do: "update", Device: "one-quern", To: "1.1", Setup: good}, "The tool shows no device.", "flight pack"},
		{"before activation", sim.Action{Do: "update", Device: "three-fantail", To: "3.2", Setup: sim.Setup{Tool: "Aldine Desk"}}, "does not offer", "activated before 3.2"},
		{"activated on a release that cannot be", sim.Action{Do: "activate", Device: "two-quern", Setup: sim.Setup{Tool: "Aldine Desk"}}, "no way to activate", "on 2.3 or later it can"},
		{"offline", sim.Action{Do: "update", Device: "visor-b-1", To: "4.4", Setup: sim.Setup{Tool: "Aldine Loft", BatteryPct: 80, Offline: true}}, "gives up", "internet"},
		{"a link of the chain left out", sim.Action{Do: "update", Device: "visor-b-1", To: "4.6", Setup: sim.Setup{Tool: "Aldine Loft", BatteryPct: 80}}, "does not offer", "other releases come first"},
		{"back through a closed door", sim.Action{Do: "update", Device: "visor-b-1", To: "4.0", Setup: good}, "does not list", "No gear pack has"},
		{"a mode that is not there yet", sim.Action{Do: "mode", Device: "visor-b-1", Mode: "second"}, "does not list that mode", "no mode second"},
		{"before activation", sim.Action{Do: "bind", Device: "visor-c-1", Unit: "two-quern"}, "stays red", "has not been activated"},
		{"in the wrong mode", sim.Action{Do: "bind", Device: "visor-b-1", Unit: "two-brayer"}, "stays red", "do not link"},
		{"the controller before the goggles", sim.Action{Do: "bind", Device: "grip-2-a", Unit: "two-brayer"}, "stays red", "goggles come before the controller"},
		{"a pair that never links", sim.Action{Do: "bind", Device: "visor-a-1", Unit: "two-brayer"}, "stays red", "never links"},
		{"nothing of the kind", sim.Action{Do: "dance", Device: "visor-a-1"}, "Nothing happens", "nothing called"},
		{"no such device", sim.Action{Do: "activate", Device: "nix"}, "Nothing happens", "no device"},
	} {
		t.Run(c.name, func(t *testing.T) {
			st := builds.Demo()
			b := sim.NewBench(st.Library(), st.Fleet)
			before, _ := b.Device("visor-b-1")
			was := before.Firmware
			out := b.Do(c.do)
			assert.False(t, out.Done)
			assert.Contains(t, out.Sees, c.sees)
			assert.Contains(t, out.Why, c.why)
			assert.Equal(t, was, before.Firmware, "what fails changes nothing")
		})
	}
}

func TestRightWays(t *testing.T) {
	st := builds.Demo()
	b := sim.NewBench(st.Library(), st.Fleet)
	assert.True(t, b.Do(sim.Action{Do: "bind", Device: "visor-c-1", Unit: "two-brayer"}).Done)
	assert.True(t, b.Do(sim.Action{Do: "bind", Device: "grip-2-a", Unit: "two-brayer"}).Done)
	assert.False(
		t,
		b.Do(sim.Action{Do: "bind", Device: "grip-1-a", Unit: "two-brayer"}).Done,
		"the other generation's controller",
	)
	up := b.Do(
		sim.Action{Do: "update", Device: "visor-c-1", To: "2.2", Setup: sim.Setup{Tool: "Aldine Pocket", BatteryPct: 60}},
	)
	require.True(t, up.Done, up.Why)
	lost := b.Do(sim.Action{Do: "mode", Device: "visor-c-1", Mode: "first"})
	require.True(t, lost.Done)
	assert.Contains(t, lost.Why, "lost its bindings")
	assert.True(
		t,
		b.Do(
			sim.Action{Do: "update", Device: "visor-c-1", To: "2.0", Setup: sim.Setup{Tool: "Aldine Desk", BatteryPct: 60}},
		).Done,
		"a rollback that is allowed",
	)
	eyes, _ := b.Device("visor-c-1")
	assert.Empty(t, eyes.Mode, "that release has no mode first")
}

// A law: a route rehearsed step by step ends in exactly the state the plan
// promised, and every link it promised binds in the mode it named.
func TestARehearsedRouteEndsWhereThePlanSays(t *testing.T) {
	for seed := range uint64(150) {
		r := rand.New(rand.NewPCG(seed, 3))
		st := builds.Demo()
		var wants []fleet.Want
		for i := range st.Fleet.Quads {
			for _, g := range []string{"visor-a-1", "visor-b-1", "visor-c-1"} {
				if r.IntN(3) == 0 {
					wants = append(
						wants,
						fleet.Want{Quad: st.Fleet.Quads[i].ID, Goggles: g, Weight: []fleet.Weight{fleet.Must, fleet.Wish}[r.IntN(2)]},
					)
				}
			}
		}
		p := solve(t, st, wants)
		b := sim.NewBench(st.Library(), st.Fleet)
		if len(p.Steps) > 0 {
			require.NotEmpty(t, b.Compare(p.Steps), "seed %d: nothing has been done yet", seed)
		}
		for _, s := range p.Steps {
			out := b.Do(sim.ActionOf(s))
			require.True(t, out.Done, "seed %d: %s %s: %s", seed, s.Label, s.To, out.Why)
		}
		require.Empty(t, b.Compare(p.Steps), "seed %d", seed)
		for i, l := range p.Links {
			quad, _ := st.Fleet.Quad(wants[i].Quad)
			fit := quad.NextFit()
			if !l.Met || fit.AirUnit == nil {
				continue
			}
			unit, _ := b.Device(fit.AirUnit.Kit)
			eyes, _ := b.Device(l.Goggles)
			if !unit.Activated || !eyes.Activated {
				continue
			}
			goggles, _ := gear.Find[*gear.Goggles](
				st.Library(),
				map[string]string{"visor-a-1": "visor-a", "visor-b-1": "visor-b", "visor-c-1": "visor-c"}[l.Goggles],
			)
			for _, m := range goggles.Modes {
				if m.Label() == l.Mode {
					require.True(t, b.Do(sim.Action{Do: "mode", Device: l.Goggles, Mode: m.ID}).Done)
				}
			}
			out := b.Do(sim.Action{Do: "bind", Device: l.Goggles, Unit: fit.AirUnit.Kit})
			require.True(t, out.Done, "seed %d: %s with %s: %s", seed, l.QuadName, l.GogglesName, out.Why)
		}
	}
}

// Common practice: the next release of a chain goes on in its own mode only.
func TestAnUpdateInTheWrongMode(t *testing.T) {
	st := builds.Demo()
	b := sim.NewBench(st.Library(), st.Fleet)
	good := sim.Setup{Tool: "Aldine Loft", BatteryPct: 80}
	require.True(t, b.Do(sim.Action{Do: "update", Device: "visor-b-1", To: "4.4", Setup: good}).Done)
	out := b.Do(sim.Action{Do: "update", Device: "visor-b-1", To: "4.6", Setup: good})
	assert.False(t, out.Done)
	assert.Contains(t, out.Why, "in mode Second for 4.6")
	require.True(t, b.Do(sim.Action{Do: "mode", Device: "visor-b-1", Mode: "second"}).Done)
	assert.True(t, b.Do(sim.Action{Do: "update", Device: "visor-b-1", To: "4.6", Setup: good}).Done)
}

// A law: leaving any one step out of a route leaves the bench elsewhere.
func TestEveryStepOfARouteIsNeeded(t *testing.T) {
	st := builds.Demo()
	p := solve(t, st, st.Fleet.Wants)
	require.NotEmpty(t, p.Steps)
	for skip := range p.Steps {
		b := sim.NewBench(st.Library(), st.Fleet)
		for i, s := range p.Steps {
			if i != skip {
				b.Do(sim.ActionOf(s))
			}
		}
		assert.NotEmpty(t, b.Compare(p.Steps), "without %s %s", p.Steps[skip].Label, p.Steps[skip].To)
	}
}
