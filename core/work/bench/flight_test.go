package bench_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/control"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
)

// Range, hover, heat and the way home are tried last, each with the limit its reading has to keep
// (common practice).
func TestTheFirstFlightHasReadingsWithLimits(t *testing.T) {
	s := sheet(sample.Set(), ready())
	assert.Equal(t, bench.Flight, s.Steps[len(s.Steps)-1].Phase)
	for id, is := range map[string]struct{ good, bad float64 }{
		"check:failsafe": {0, 1}, "flight:range": {30, 29}, "flight:heat": {80, 81},
	} {
		step := stepOf(t, s, id)
		says, ok := step.Reading.Judge(is.good)
		assert.True(t, ok, says)
		says, ok = step.Reading.Judge(is.bad)
		assert.False(t, ok, says)
		assert.NotEmpty(t, step.Cautions, id)
	}
	for _, step := range s.Steps {
		if step.Phase == bench.Flight && step.ID != "flight:range" {
			assert.Contains(t, step.Cautions, "Low, over open ground, in sight, with nobody near or below; a spotter "+
				"beside the pilot where your country asks for one.", step.ID)
		}
	}
	next := ready()
	next.AirUnit = nil
	assert.NotContains(t, ids(sheet(sample.Set(), next)), "flight:hover", "nothing digital flies")
}

// What may be drawn at hover follows from what was drawn, by momentum theory: 1.21 times the mass takes
// 1.331 times the power; six cells for four take two thirds of the current. What is not known sets no limit.
func TestTheCurrentAtHoverIsReckoned(t *testing.T) {
	at := func(change func(*fleet.Quad, *gear.Set)) *bench.Reading {
		set, next := sample.Set(), ready()
		set.AirUnits[0].MassG, set.AirUnits[0].MassWith = new(unit.Grams(84)), []string{gear.WithCamera}
		now := next.Clone()
		now.AirUnit = nil
		c := sample.Case(set, kit(), next)
		c.Quad.Now, c.Quad.AUWG, c.Quad.HoverA = now, new(unit.Grams(400)), new(unit.Amps(10))
		change(c.Quad, set)
		c = fleet.NewCase(gear.NewLibrary(set), c.Fleet, c.Quad)
		return stepOf(t, sheetOf(c, "a", "b"), "flight:hover").Reading
	}
	heavier := at(func(q *fleet.Quad, _ *gear.Set) { q.Now.Pack = q.Next.Pack })
	require.NotNil(t, heavier)
	assert.InDelta(t, 13.31*0.75, *heavier.Min, 0.06)
	assert.InDelta(t, 13.31*1.25, *heavier.Max, 0.06)

	more := at(func(q *fleet.Quad, set *gear.Set) {
		q.Next.Pack = "lipo-6"
		for i := range set.Packs {
			set.Packs[i].MassG = new(unit.Grams(200))
		}
	})
	require.NotNil(t, more)
	assert.InDelta(t, 13.31*1.25*4/6, *more.Max, 0.06)

	for name, forget := range map[string]func(*fleet.Quad, *gear.Set){
		"its current":     func(q *fleet.Quad, _ *gear.Set) { q.HoverA = nil },
		"its weight":      func(q *fleet.Quad, _ *gear.Set) { q.AUWG = nil },
		"a mass":          func(_ *fleet.Quad, s *gear.Set) { s.AirUnits[0].MassG = nil },
		"cells of a pack": func(q *fleet.Quad, s *gear.Set) { q.Now.Pack, s.Packs[0].Cells = "lipo-6", nil },
	} {
		assert.Nil(t, at(forget), name)
	}
}

// A sheet ticked to its end is a first flight, on the day of its last tick; one step of it short, or
// without the failsafe tried, it is none.
func TestASheetToItsEndIsAFirstFlight(t *testing.T) {
	s := sheet(sample.Set(), ready())
	records := func(less string) (list []bench.Record) {
		for i, step := range s.Steps {
			if step.ID == less {
				continue
			}
			at := time.Date(2026, 5, 12, 10, i, 0, 0, time.UTC)
			if step.ID == "flight:heat" {
				at = at.AddDate(0, 0, 2)
			}
			var value *float64
			switch r := step.Reading; {
			case step.ID == bench.WeighStep:
				value = new(431.0)
			case r != nil && len(r.Choices) > 0:
				value = new(float64(slices.Index(r.Choices, r.Expected)))
			case r != nil && r.Max != nil:
				value = r.Max
			case r != nil:
				value = r.Min
			}
			run := bench.NewRun(s, list)
			record, err := run.Confirm(step.ID, true, value, at)
			require.NoError(t, err, step.ID)
			list = append(list, record)
		}
		return list
	}
	outcome := func(less string) bench.Outcome {
		run := bench.NewRun(s, records(less))
		return run.Outcome()
	}
	assert.Equal(t, "2026-05-14", outcome("").FlownOn)
	local := time.Local
	defer func() { time.Local = local }()
	for hours, day := range map[int]string{-23: "2026-05-13", 23: "2026-05-15"} {
		time.Local = time.FixedZone("far off", hours*3600)
		assert.Equal(t, day, outcome("").FlownOn, "the day where it was flown")
	}
	time.Local = local
	assert.InDelta(t, 431, float64(*outcome("").WeighedG), 1e-9)
	for _, less := range []string{"flight:range", "flight:hover", "flight:heat", bench.FailsafeStep} {
		assert.Empty(t, outcome(less).FlownOn, less)
	}
	assert.NotEmpty(t, outcome("props-off").FlownOn, "what else is left is another matter")
	assert.Nil(t, outcome(bench.WeighStep).WeighedG)
	flown := records("")
	next := ready()
	next.Antennas = &fleet.Antennas{Models: []string{"stick", "stick"}}
	other := bench.NewRun(sheet(sample.Set(), next), flown)
	for _, st := range other.States {
		tried := st.ID == bench.FailsafeStep || st.Phase == bench.Flight
		if tried || st.ID == "props-off" {
			assert.Equal(t, tried, st.State != bench.Done, "%s: it was tried with other antennas", st.ID)
		}
	}
	assert.Empty(t, other.Outcome().FlownOn)
	assert.Equal(t, 12, int(bench.Learn([]bench.Tick{{Quad: "q", Step: "props-off"},
		{Quad: "q", Step: "check:failsafe@1k2", At: time.Time{}.Add(12 * time.Minute)}})["check:failsafe"]))
	next = ready()
	next.Board = ""
	s = sheet(sample.Set(), next)
	for i := range s.Steps {
		s.Steps[i].Held = "" // let it be flown all the same
	}
	assert.Empty(t, outcome("").FlownOn, "without a board nobody has tried its failsafe")
}

// The way home is tried where a switch is for it and something tells the quad where it is.
func TestTheWayHomeIsTried(t *testing.T) {
	next := ready()
	next.Sticks.Switches = append(next.Sticks.Switches, fleet.Switch{Mode: control.ReturnHome, Aux: 4, FromUS: 1700, ToUS: 2100})
	assert.NotContains(t, ids(sheet(sample.Set(), next)), "flight:return-home", "nothing tells it where it is")
	next.Parts = []fleet.PlacedPart{{ID: "gps", Model: "gps"}}
	step := stepOf(t, sheet(sample.Set(), next), "flight:return-home")
	assert.Contains(t, step.Do[1], "AUX 4")
	_, ok := step.Reading.Judge(1)
	assert.False(t, ok)
	next.Sticks.Switches = next.Sticks.Switches[:len(next.Sticks.Switches)-1]
	assert.NotContains(t, ids(sheet(sample.Set(), next)), "flight:return-home", "no switch is for it")
}

// Nothing flies over a gate that forbids it, whichever it is: all but that of what is seen in the goggles.
func TestAGateThatForbidsHoldsTheFirstFlight(t *testing.T) {
	for _, gate := range swap.Gates {
		holds := gate.Holds != nil && slices.Contains(gate.Holds.Phases, bench.Flight)
		assert.Equal(t, gate.Name != verdict.OSD, holds, gate.Name)
	}
	next := ready()
	next.Sticks.Switches = nil
	c := sample.Case(sample.Set(), kit(), next)
	s := sheetOf(c, "a", "b")
	require.True(t, slices.ContainsFunc(s.Holds, func(h bench.Holding) bool { return h.Gate == verdict.Control }), "%v", s.Holds)
	for _, step := range s.Steps {
		assert.Equal(t, step.Phase == bench.Flight, step.Held != "", step.ID)
	}
}
