package route

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
)

// Goggles offered as a way out do what is said, where they are had: the failed want is met with them, and
// all that was met still is.
func TestGogglesToBuyAreAWayOut(t *testing.T) {
	set := sample.Set()
	for i := range set.Pairings {
		p := &set.Pairings[i]
		switch {
		case p.Goggles == "old-eyes" && p.AirUnit == "first": // one pair cannot be on both
			p.GogglesFirmware = "<4.4"
		case p.Goggles == "old-eyes" && p.AirUnit == "second":
			p.GogglesFirmware = ">=4.6"
		}
	}
	set.Goggles[0].Offer = &gear.Offer{Price: new(120.0), Currency: "EUR"}
	r := request(map[string]firmware.Version{"first": "1.0.6", "second": "2.3"}, must("first", "old-eyes"), wish("second", "old-eyes"))
	r.Library = gear.NewLibrary(set)
	p := solved(t, r)
	require.False(t, p.Links[1].Met)
	assert.Contains(t, p.Links[1].Conflict.Ways,
		Way{Says: "fly second with a second old-eyes", Costs: "to buy for 120.00 EUR", Buys: true})
	f := *r.Fleet.Fleet
	f.Kit = append(slices.Clone(f.Kit), fleet.Kit{ID: "bought", Model: "old-eyes"})
	with := r
	with.Fleet, with.Wants = fleet.NewIndex(&f), slices.Clone(r.Wants)
	with.Wants[1].Goggles = "bought"
	after := solved(t, with)
	assert.True(t, after.Links[0].Met && after.Links[1].Met)

	f.Kit = slices.DeleteFunc(f.Kit, func(k fleet.Kit) bool { return k.ID == "bought" || k.Model == "new-eyes" })
	r.Fleet = fleet.NewIndex(&f)
	var says []string
	for _, way := range solved(t, r).Links[1].Conflict.Ways {
		says = append(says, way.Says)
	}
	assert.Contains(t, says, "fly second with a new-eyes", "nobody owns those any more")
}
