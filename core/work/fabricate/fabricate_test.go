package fabricate_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/work/fabricate"
)

func says(problems []fabricate.Problem) (list []string) {
	for _, p := range problems {
		list = append(list, p.Param+": "+p.Says)
	}
	return list
}

// What a quad states is offered as the dimensions of what can be made for it; what it does
// not is left to be entered.
func TestAQuadOffersItsDimensions(t *testing.T) {
	c := sample.Case(sample.Set(), nil, fleet.Fit{AirUnit: &fleet.Slot{Model: "second"}, Mounting: sample.Seat(),
		Antennas: &fleet.Antennas{AngleDeg: new(unit.Degrees(60)), CarbonMM: new(unit.Millimetres(40))}})
	value := func(part, param string) *float64 {
		for _, o := range fabricate.Offers(c) {
			for _, p := range o.Params {
				if o.Part == part && p.ID == param {
					return p.Value
				}
			}
		}
		require.Fail(t, part+" "+param)
		return nil
	}
	set := sample.Set()
	bay, second := set.Frames[0].Bays[0], set.AirUnits[1]
	assert.InDelta(t, float64(bay.Patterns[0].XMM), *value("adapter-plate", "fromXMM"), 0)
	assert.InDelta(t, float64(second.Mount.Patterns[0].XMM), *value("adapter-plate", "toXMM"), 0)
	assert.InDelta(t, 60, *value("antenna-holder", "angleDeg"), 0)
	assert.InDelta(t, 40, *value("antenna-holder", "reachMM"), 0)
	assert.Nil(t, value("unit-bracket", "unitXMM"), "nobody has stated how large the unit is")
	empty := sample.Case(&gear.Set{}, nil, fleet.Fit{})
	for _, o := range fabricate.Offers(empty) {
		assert.NotEmpty(t, o.Params, o.Part)
	}
}

// What cannot be drawn is named before anything is drawn.
func TestWhatCannotBeDrawn(t *testing.T) {
	plate := map[string]float64{"fromXMM": 20, "fromYMM": 20, "toXMM": 25.5, "toYMM": 25.5}
	with := func(key string, value float64) map[string]float64 {
		v := map[string]float64{key: value}
		for k, x := range plate {
			if k != key {
				v[k] = x
			}
		}
		return v
	}
	_, problems := fabricate.Draw("adapter-plate", plate)
	assert.Empty(t, problems)
	for _, c := range []struct {
		part string
		v    map[string]float64
		want string
	}{
		{"adapter-plate", with("fromXMM", 0), "fromXMM: holes of the frame, across: expected 5 to 60 mm, got 0"},
		{"adapter-plate", with("thickMM", -2), "thickMM: thickness: expected 0.8 to 10 mm, got -2"},
		{"adapter-plate", with("toScrewMM", 2.2), "toScrewMM: ISO 273 has no hole for a screw of 2.2 mm: expected 1.6, 2, 2.5, 3 or 4"},
		{"adapter-plate", with("toXMM", 20.5), "leastWallMM: the plate is"},
		{"adapter-plate", with("wideMM", 3), `wideMM: Adapter plate has no dimension "wideMM"`},
		{"adapter-plate", map[string]float64{"fromXMM": 20, "fromYMM": 20, "toXMM": 20, "toYMM": 20}, ": the plate: holes run into one another"},
		{"unit-bracket", map[string]float64{"fromXMM": 20, "fromYMM": 20}, "unitXMM: the unit, across has to be entered"},
		{"unit-bracket", map[string]float64{"fromXMM": 20, "fromYMM": 20, "unitXMM": 20, "unitYMM": 20}, "unitXMM: the wall stands over a hole"},
		{"camera-plate", map[string]float64{"cameraMM": 20, "heightMM": 12, "perSide": 1.5}, "perSide: screws of the camera on each side: expected a whole number, got 1.5"},
		{"antenna-holder", map[string]float64{"armMM": 5, "tieMM": 6, "reachMM": 15}, "leastWallMM: the holder is"},
		{"spoon", nil, `: there is no part "spoon" to make`},
	} {
		_, problems := fabricate.Draw(c.part, c.v)
		if assert.NotEmpty(t, problems, c.want) {
			assert.Contains(t, says(problems)[0], c.want)
		}
	}
}

// Whatever is drawn without a problem is one piece with its walls as thick as asked for.
func TestWhateverIsDrawnHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := map[string]float64{}
		part := rapid.SampledFrom([]string{"adapter-plate", "camera-plate", "antenna-holder", "unit-bracket"}).Draw(t, "part")
		for _, o := range fabricate.Offers(sample.Case(sample.Set(), nil, fleet.Fit{})) {
			for _, p := range o.Params {
				if o.Part != part || p.Value != nil && rapid.Bool().Draw(t, "usual") {
					continue
				}
				v[p.ID] = rapid.Float64Range(p.Least, p.Most).Draw(t, p.ID)
				if p.Whole {
					v[p.ID] = float64(int(v[p.ID]))
				}
			}
		}
		for _, screw := range []string{"fromScrewMM", "toScrewMM", "screwMM", "footScrewMM"} {
			if _, there := v[screw]; there {
				v[screw] = rapid.SampledFrom([]float64{1.6, 2, 2.5, 3, 4}).Draw(t, screw)
			}
		}
		made, problems := fabricate.Draw(part, v)
		if len(problems) > 0 {
			return
		}
		for _, s := range made.Sheets {
			require.NoError(t, s.Shape.Check())
			require.Len(t, s.Shape.Areas(), 1)
		}
		for _, b := range made.Bodies {
			require.Positive(t, b.VolumeMM3())
		}
	})
}

func BenchmarkDraw(b *testing.B) {
	v := map[string]float64{"fromXMM": 20, "fromYMM": 20, "toXMM": 25.5, "toYMM": 25.5}
	for b.Loop() {
		made, _ := fabricate.Draw("adapter-plate", v)
		for _, body := range made.Bodies {
			body.Triangles()
		}
	}
}
