package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/mount"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// A swap that crosses a line of the region says so, up or down; the quad on the same frame that
// weighs most like it stands beside.
func TestLinesAndSistersOfAWeight(t *testing.T) {
	set := sample.Set()
	set.Regions[0].MassClasses = []gear.MassClass{{FromG: 900, Name: "heavy"}, {FromG: 250, Name: "marked"}}
	k := caseOf(set, "first", sample.Seat())
	k.Fleet.Region = "home"
	k.Quad.AUWG = new(unit.Grams(240))
	other := func(id, frame string, all unit.Grams) fleet.Quad {
		q := fleet.Quad{ID: id, Name: id, AUWG: &all}
		q.Now.Frame = frame
		return q
	}
	k.Fleet.Quads = append(k.Fleet.Quads, other("far", k.Fit.Frame, 500), other("near", k.Fit.Frame, 265),
		other("another", "lath", 260))
	w := mount.Weigh(k.Library, k.Fleet, k.Quad, new(unit.Grams(261)))
	assert.Contains(t, w.Class, "from none of its classes to “marked”, from 250 g: other rules hold then")
	require.NotNil(t, w.Sister)
	assert.Equal(t, mount.Sister{Label: "near", AUWG: 265, MoreG: -4}, *w.Sister)
	assert.Empty(t, mount.Weigh(k.Library, k.Fleet, k.Quad, new(unit.Grams(249))).Class)
	k.Quad.AUWG = new(unit.Grams(905))
	assert.Contains(t, mount.Weigh(k.Library, k.Fleet, k.Quad, new(unit.Grams(899.9))).Class,
		"from “heavy”, from 900 g to “marked”, from 250 g")
	k.Fleet.Region = ""
	assert.Empty(t, mount.Weigh(k.Library, k.Fleet, k.Quad, new(unit.Grams(100))).Class)
}

// What a sheet states as a range is counted with its middle, and the change says how far it may be
// off.
func TestMassesStatedAsARange(t *testing.T) {
	set := sample.Set()
	set.AirUnits[0].MassG = nil
	set.AirUnits[0].Ranges = []gear.Range{{Value: "massG", Low: 28, High: 33}}
	k := caseOf(set, "first", sample.Seat())
	k.Quad.Now.AirUnit = nil
	w := mount.Weigh(k.Library, k.Fleet, k.Quad, nil)
	for _, p := range w.Parts {
		if p.Label == "first" {
			assert.InDelta(t, 30.5, float64(*p.MassG), 1e-9)
			assert.InDelta(t, 2.5, float64(p.OffG), 1e-9)
		}
	}
	assert.InDelta(t, 2.5, float64(w.OffG), 1e-9)
}
