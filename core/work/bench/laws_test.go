package bench_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/internal/sample"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
)

// Laws of a sheet, whatever the fit: steps have ids of their own, something to
// do, and come in the order of the phases; its tools and materials are those of
// its steps; done step by step with readings that hold, it comes to its end or
// says what holds it.
func TestLawsOfASheet(t *testing.T) {
	order := []swap.Phase{
		bench.Prepare,
		bench.Firmware,
		bench.Build,
		bench.Feed,
		bench.Meter,
		bench.Power,
		bench.Bind,
		bench.Check,
		bench.Flight,
	}
	rapid.Check(t, func(t *rapid.T) {
		pick := func(name string, of ...string) string { return rapid.SampledFrom(of).Draw(t, name) }
		slot := func(id string) *fleet.Slot {
			if id == "" {
				return nil
			}
			return &fleet.Slot{Kit: id}
		}
		next := fleet.Fit{
			AirUnit:    slot(pick("air", "", "first", "second")),
			Goggles:    slot(pick("eyes", "", "old-eyes", "new-eyes")),
			Controller: slot(pick("hand", "", "old-hand")),
			Receiver: pick(
				"receiver",
				"",
				"receiver",
			),
			Board: pick("board", "", "board"),
			Pack:  pick("pack", "", "lipo-4", "lipo-6"),
		}
		if next.AirUnit != nil {
			next.AirUnit.Firmware = map[string]firmware.Version{"first": "1.1"}[next.AirUnit.Kit]
			next.Feeds = []fleet.Feed{{To: "airUnit", From: pick("from", "pack", "board.10v")}}
			if rapid.Bool().Draw(t, "wired") {
				next.Wires = sample.Wired()
			}
		}
		s := sheetOf(sample.Case(sample.Set(), kit(), next), "a", "b")
		for _, step := range s.Steps {
			first := map[byte]bool{} // an answer is given by its first letter
			if step.Reading != nil {
				for _, answer := range step.Reading.Choices {
					assert.False(t, first[answer[0]], "%s: %v", step.ID, step.Reading.Choices)
					first[answer[0]] = true
				}
			}
		}
		ids, last := map[string]bool{}, 0
		for _, step := range s.Steps {
			require.False(t, ids[step.ID], step.ID)
			ids[step.ID] = true
			require.NotEmpty(t, step.Do, step.ID)
			at := slices.Index(order, step.Phase)
			require.GreaterOrEqual(t, at, last, "%s comes too late", step.ID)
			last = at
			for _, tool := range step.Tools {
				require.Contains(t, s.Tools, tool)
			}
		}
		var records []bench.Record
		for range len(s.Steps) {
			run := bench.NewRun(s, records)
			if run.Next == "" {
				break
			}
			step, _ := s.Step(run.Next)
			var value *float64
			if step.Reading != nil {
				value = new(1.0)
				if len(step.Reading.Choices) > 0 {
					value = new(float64(slices.Index(step.Reading.Choices, step.Reading.Expected)))
				}
				if step.Reading.Min != nil {
					value = new(*step.Reading.Min + 0.5)
				}
			}
			record, err := run.Confirm(step.ID, true, value, time.Unix(0, 0))
			require.NoError(t, err)
			require.True(t, record.Done)
			records = append(records, record)
		}
		run := bench.NewRun(s, records)
		require.Empty(t, run.Next)
		if len(s.Holds) == 0 {
			require.Equal(t, len(s.Steps), run.Done)
		}
		for _, st := range run.States {
			require.NotEqual(t, bench.Todo, st.State, "%s is neither done nor held", st.ID)
		}
	})
}
