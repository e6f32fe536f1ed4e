package whatif_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/route"
	"yokeswap/core/plans/whatif"
	"yokeswap/internal/builds"
)

func routeOf(st *stock.Stock) route.Request {
	return route.Request{Library: st.Library(), Fleet: fleet.NewIndex(st.Fleet), Wants: st.Fleet.Wants, Values: st.Fleet.Values}
}

func onRoute(t *testing.T, st *stock.Stock, model string) whatif.TriedOnRoute {
	t.Helper()
	columns, err := whatif.OnRoute(routeOf(st), []string{model})
	require.NoError(t, err)
	return columns[0]
}

// On the demo's route a second pair of the goggles most fly with meets no more, its units decide; units of
// the newest generation do, one for each quad; what is bought is on the price.
func TestWhatARouteWouldMeetWithMore(t *testing.T) {
	st := builds.Demo()
	base, err := route.Bare(routeOf(st))
	require.NoError(t, err)
	opened := 0
	for _, d := range whatif.ForRoute(st.Library(), fleet.NewIndex(st.Fleet)) {
		col := onRoute(t, st, d.Model)
		require.Len(t, col.Wants, len(base.Links), d.Name)
		for i, w := range col.Wants {
			if base.Links[i].Met && w.Takes && col.Count == 1 && d.Kind != "airUnit" {
				t.Errorf("%s: a want that is met is put to it, and makes no room", d.Name)
			}
			if !base.Links[i].Met && w.Met {
				opened++
			}
		}
		if len(col.Opens) == 0 {
			assert.Contains(t, col.Says, "none of the 4 wants that fail", d.Name)
		} else {
			assert.Contains(t, col.Says, col.Opens[0], d.Name)
			assert.Positive(t, col.Count, d.Name)
		}
		assert.NotContains(t, col.Says, "  ")
	}
	assert.Positive(t, opened)
}

// What is said of a device is what the route is once it is bought, and flown as was said.
func TestTriedOnTheRouteIsAsBought(t *testing.T) {
	for _, model := range []string{"visor-a", "visor-b", "visor-c", "visor-d"} {
		st := builds.Demo()
		base, err := route.Bare(routeOf(st))
		require.NoError(t, err)
		col := onRoute(t, st, model)
		st.Fleet.Kit = slices.Clone(st.Fleet.Kit)
		// Damsel flies with Visor B already: another would give it nothing.
		again := slices.IndexFunc(base.Links, func(l route.Link) bool { return l.Quad == "damsel" && !l.Met })
		assert.Equal(t, model == "visor-a", col.Wants[again].Takes, model)
		bought := st.Fleet.Own(model)
		st.Fleet.Wants = slices.Clone(st.Fleet.Wants)
		for i := range st.Fleet.Wants {
			if base.Links[i].Met {
				require.False(t, col.Wants[i].Takes)
			}
			if col.Wants[i].Takes {
				st.Fleet.Wants[i].Goggles = bought
			}
		}
		after, err := route.Bare(routeOf(st))
		require.NoError(t, err)
		for i := range after.Links {
			assert.Equal(t, after.Links[i].Met, col.Wants[i].Met, "%s: %s", model, after.Links[i].QuadName)
		}
		assert.Len(t, after.Steps, col.Steps, model)
	}
}

// Units go onto the quads alone that gain by them, and none is lost.
func TestUnitsTriedOnTheRouteLoseNothing(t *testing.T) {
	st := builds.Demo()
	base, err := route.Bare(routeOf(st))
	require.NoError(t, err)
	gained := 0
	for _, model := range []string{"aldine-one", "aldine-one-compact", "aldine-two", "aldine-three"} {
		col := onRoute(t, st, model)
		assert.Empty(t, col.Loses, model)
		quads := map[string]bool{}
		for i, w := range col.Wants {
			if w.Takes {
				quads[base.Links[i].Quad] = true
			}
		}
		assert.Len(t, quads, col.Count, model)
		gained += len(col.Opens)
	}
	assert.Positive(t, gained)
}

func TestWhatCannotBeTriedOnARoute(t *testing.T) {
	st := builds.Demo()
	_, err := whatif.OnRoute(routeOf(st), []string{"nothing-of-the-kind"})
	assert.ErrorContains(t, err, "is in no gear pack")
	_, err = whatif.OnRoute(routeOf(st), []string{"a", "b", "c", "d", "e", "f", "g", "h", "i"})
	assert.ErrorContains(t, err, "at most 8")
	st.Fleet.Wants = st.Fleet.Wants[:1]
	assert.Contains(t, onRoute(t, st, "visor-d").Says, "meets nothing more: every want is met")
	st.Fleet.Wants = nil
	assert.Contains(t, onRoute(t, st, "visor-d").Says, "every want is met")
}

// Of the ways out of what a route cannot meet, those with something to buy say for how much: a controller
// nobody owns too.
func TestWaysOutThatAreBought(t *testing.T) {
	st := builds.Demo()
	st.Fleet.Kit = slices.DeleteFunc(st.Fleet.Kit, func(k fleet.Kit) bool { return k.Model == "grip-1" })
	for i := range st.Sets[0].Controllers {
		if c := &st.Sets[0].Controllers[i]; c.ID == "grip-1" {
			c.Offer = &gear.Offer{Price: new(89.0), Currency: "EUR"}
			c.Deals = []gear.Deal{{ID: "used", Kind: gear.DealUsed, Offer: gear.Offer{Price: new(55.0), Currency: "EUR"}}}
		}
	}
	for i := range st.Fleet.Quads { // what flew with it flies with the other
		q := &st.Fleet.Quads[i]
		for _, fit := range []*fleet.Fit{&q.Now, q.Next} {
			if fit != nil && fit.Controller != nil && fit.Controller.Kit == "grip-1-a" {
				fit.Controller = &fleet.Slot{Kit: "grip-2-a"}
			}
		}
	}
	plan, err := route.Solve(routeOf(st))
	require.NoError(t, err)
	found := false
	for _, l := range plan.Links {
		if l.Conflict == nil {
			continue
		}
		for _, w := range l.Conflict.Ways {
			if w.Says == "fly "+l.QuadName+" with a Grip 1" {
				found = true
				assert.True(t, w.Buys)
				assert.Equal(t, "to buy for 89.00 EUR, used for 55.00 EUR", w.Costs)
			}
		}
	}
	assert.True(t, found)
}
