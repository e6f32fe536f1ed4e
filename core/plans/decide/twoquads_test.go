package decide_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/decide"
)

func measure(t *testing.T, a decide.Against, id string) decide.Measure {
	for _, m := range a.Measures {
		if m.ID == id {
			return m
		}
	}
	require.Fail(t, "no such measure", id)
	return decide.Measure{}
}

// flown is two quads of the demo as they fly, changed.
func flown(t *testing.T, one, other string, change func(one, other *fleet.Quad)) (a, b fleet.Case) {
	lib, index := demoFleet(t)
	f := *index.Fleet
	f.Quads = append([]fleet.Quad{}, f.Quads...)
	again := fleet.NewIndex(&f)
	p, ok := again.Quad(one)
	require.True(t, ok)
	q, ok := again.Quad(other)
	require.True(t, ok)
	change(p, q)
	return fleet.NowCase(lib, again, p), fleet.NowCase(lib, again, q)
}

// The lighter, the longer hovering, the earlier and the further is the better by that measure
// alone (common practice), whichever is asked first.
func TestTwoQuadsAgainstEachOther(t *testing.T) {
	one, other := flown(t, "quern", "fantail", func(p, q *fleet.Quad) {
		p.AUWG, q.AUWG = new(unit.Grams(612)), new(unit.Grams(612.4))
	})
	there, back := decide.HoldAgainst(one, other), decide.HoldAgainst(other, one)
	mass := measure(t, there, "mass")
	assert.Equal(t, []string{"612 g", "612 g"}, mass.Words)
	assert.Zero(t, mass.Better, "what reads the same is the same")
	assert.True(t, mass.Same)
	*other.Quad.AUWG = 700
	assert.Equal(t, 1, measure(t, decide.HoldAgainst(one, other), "mass").Better)
	rate := measure(t, there, "bitrate")
	assert.Equal(t, []string{"41 Mb/s", "52 Mb/s"}, rate.Words)
	assert.Equal(t, 2, rate.Better)
	require.Len(t, back.Measures, len(there.Measures))
	for i, m := range there.Measures {
		assert.Equal(t, []int{0, 2, 1}[m.Better], back.Measures[i].Better, "%s the other way round", m.ID)
	}
	assert.Equal(t, "Quern", there.Sides[0].Name)
	assert.Equal(t, there.Sides[0], back.Sides[1])
}

// What is taken away of one quad makes neither better by what it was said of, over all pairs of
// the demo.
func TestWhatIsNotStatedIsNeverBetter(t *testing.T) {
	_, index := demoFleet(t)
	better := map[string]int{}
	for i := range index.Quads {
		for k := range index.Quads {
			if i == k {
				continue
			}
			one, other := flown(t, index.Quads[i].ID, index.Quads[k].ID, func(_, _ *fleet.Quad) {})
			full := decide.HoldAgainst(one, other)
			for _, m := range full.Measures {
				if m.Better > 0 {
					better[m.ID]++
					assert.NotContains(t, m.Words, "not known", "%s of %s and %s", m.ID, full.Sides[0].Name, full.Sides[1].Name)
				}
			}
			one, other = flown(t, index.Quads[i].ID, index.Quads[k].ID, func(p, _ *fleet.Quad) {
				p.AUWG, p.HoverA = nil, nil
				p.Now.Goggles = nil
			})
			for _, m := range decide.HoldAgainst(one, other).Measures {
				switch m.ID {
				case "mass", "hover", "bitrate", "range":
					assert.Zero(t, m.Better, fmt.Sprint(m))
				case "gate":
					assert.NotEqual(t, 1, m.Better, "nothing is opened by it")
				}
			}
		}
	}
	for _, id := range []string{"gate", "mass", "hover", "lag", "bitrate", "range", "records"} {
		assert.NotZero(t, better[id], id)
	}
}

// A link of which a term is not stated is held against the other without it, and neither is the
// better for it.
func TestARangeWithATermLeftOut(t *testing.T) {
	one, other := flown(t, "quern", "fantail", func(_, _ *fleet.Quad) {})
	full := measure(t, decide.HoldAgainst(one, other), "front:5.8")
	assert.Equal(t, 1, full.Better)
	unit, _, ok := other.AirUnit()
	require.True(t, ok)
	less := *unit
	less.Radio = new(*unit.Radio)
	less.Radio.MaxMW = nil
	other.Library = other.Library.With(&less)
	without := measure(t, decide.HoldAgainst(one, other), "front:5.8")
	assert.Zero(t, without.Better)
	assert.Contains(t, without.Words[1], ", without transmit power")
	camera := *unit.Camera
	camera.RecordsOwn = nil
	less.Camera = &camera
	other.Library = other.Library.With(&less)
	records := measure(t, decide.HoldAgainst(one, other), "records")
	assert.Equal(t, []string{"yes", "not known"}, records.Words)
	assert.Zero(t, records.Better)
	features := measure(t, decide.HoldAgainst(one, other), "features")
	assert.Equal(t, []string{"picture flip, built-in OSD layout", "canvas OSD, automatic recording"}, features.Words)
	assert.Contains(t, measure(t, decide.HoldAgainst(one, other), "sticks").Words[1], "Lantern R2")
}

// The range of one against the other is the other's against it turned round.
func TestTheRangeOfTwoQuadsTurnedRound(t *testing.T) {
	one, other := flown(t, "quern", "brayer", func(_, _ *fleet.Quad) {})
	var there, back float64
	_, err := fmt.Sscanf(measure(t, decide.HoldAgainst(one, other), "front:"+"5.8").Words[1], "%f", &there)
	require.NoError(t, err)
	_, err = fmt.Sscanf(measure(t, decide.HoldAgainst(other, one), "front:"+"5.8").Words[1], "%f", &back)
	require.NoError(t, err)
	assert.InDelta(t, 1, there*back, 0.02)
	assert.NotEqual(t, verdict.Unknown, decide.HoldAgainst(one, other).Sides[0].Level)
}
