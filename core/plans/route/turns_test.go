package route_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/route"
	"yokeswap/internal/builds"
)

// turning is the demo with a quad that carries the first unit of its plan in turn: what
// it flies today, while the plan puts another on.
func turning(t *testing.T) (*gear.Library, *fleet.Fleet) {
	st := builds.Demo()
	q, ok := st.Fleet.Quad("quern")
	require.True(t, ok)
	q.InTurn = []fleet.TurnFit{{ID: "old", Flown: true, Fit: q.Now.Clone()}}
	return st.Library(), st.Fleet
}

func TestAFitInTurnCanBeWanted(t *testing.T) {
	lib, f := turning(t)
	old := f.Quads[slices.IndexFunc(f.Quads, func(q fleet.Quad) bool { return q.ID == "quern" })].Now
	worn := old.Goggles.Kit
	wants := []fleet.Want{{Quad: "quern", Turn: "old", Goggles: worn, Weight: fleet.Must}}
	plan, err := route.Solve(route.Request{Library: lib, Fleet: fleet.NewIndex(f), Wants: wants})
	require.NoError(t, err)
	require.Len(t, plan.Links, 1)
	link := plan.Links[0]
	assert.True(t, link.Met, link.Says)
	assert.Equal(t, "quern/old", link.Quad)
	assert.Contains(t, link.QuadName, "in turn")
	require.Len(t, plan.Lanes, 1)
	assert.False(t, plan.Lanes[0].Bench, "its unit lies ready: no swap stands before")
	wants[0].Turn = "none"
	_, err = route.Solve(route.Request{Library: lib, Fleet: fleet.NewIndex(f), Wants: wants})
	assert.ErrorContains(t, err, "wants[0].turn")
	assert.Empty(t, f.Quads[0].InTurn, "the fleet itself is left as it is")
}

// What a plan takes from a fit in turn that nobody has asked for is said, and nothing else:
// for every link that may be wanted, and every unit with every pair of goggles in turn.
func TestAFitInTurnThatLosesItsLinkIsNamed(t *testing.T) {
	st := builds.Demo()
	lib, lost := st.Library(), 0
	var units, eyes []*fleet.Kit
	for i := range st.Fleet.Kit {
		kit := &st.Fleet.Kit[i]
		if _, is := gear.Find[*gear.AirUnit](lib, kit.Model); is {
			units = append(units, kit)
		} else if _, is := gear.Find[*gear.Goggles](lib, kit.Model); is {
			eyes = append(eyes, kit)
		}
	}
	q := &st.Fleet.Quads[1]
	index := fleet.NewIndex(st.Fleet)
	for _, wanted := range []string{"quern", "fantail", "damsel", "wallower"} {
		for _, with := range eyes {
			for _, unit := range units {
				for _, worn := range eyes {
					q.InTurn = []fleet.TurnFit{{ID: "old", Fit: fleet.Fit{
						AirUnit: &fleet.Slot{Kit: unit.ID}, Goggles: &fleet.Slot{Kit: worn.ID}}}}
					plan, err := route.Solve(route.Request{Library: lib, Fleet: index,
						Wants: []fleet.Want{{Quad: wanted, Goggles: with.ID, Weight: fleet.Must}}})
					require.NoError(t, err)
					loses := linksOn(lib, plan, unit, worn, false) && !linksOn(lib, plan, unit, worn, true)
					said := slices.ContainsFunc(plan.Notes, func(n string) bool {
						return strings.HasPrefix(n, q.Label()+" in turn")
					})
					assert.Equal(t, loses, said, "%s with %s: %v", unit.ID, worn.ID, plan.Notes)
					if !loses {
						continue
					}
					lost++
					asked, err := route.Solve(route.Request{Library: lib, Fleet: index, Wants: []fleet.Want{
						{Quad: wanted, Goggles: with.ID, Weight: fleet.Must},
						{Quad: q.ID, Turn: "old", Goggles: worn.ID, Controller: fleet.SeparateReceiver, Weight: fleet.Wish},
					}})
					require.NoError(t, err)
					assert.False(t, slices.ContainsFunc(asked.Notes, func(n string) bool {
						return strings.HasPrefix(n, q.Label()+" in turn")
					}), "what is wanted by itself is told at its link: %v", asked.Notes)
				}
			}
		}
	}
	assert.Positive(t, lost)
}

// linksOn says whether two pieces link on what they carry, or on what a plan puts on.
func linksOn(lib *gear.Library, plan route.Plan, unit, worn *fleet.Kit, planned bool) bool {
	on := func(kit *fleet.Kit) firmware.Version {
		for _, d := range plan.Devices {
			if planned && d.Device == kit.ID && d.To.Known() {
				return d.To
			}
		}
		return kit.Firmware
	}
	return slices.ContainsFunc(lib.Pairings(unit.Model, worn.Model), func(p *gear.Pairing) bool {
		return !p.Never && p.AirFirmware.Holds(on(unit)) && p.GogglesFirmware.Holds(on(worn))
	})
}
