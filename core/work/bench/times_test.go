package bench_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/internal/sample"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
)

// A step takes the time from the tick before it on the same quad; the middle one of several counts.
// Breaks, and what is noted afterwards, are no time of a step.
func TestMinutesAreLearned(t *testing.T) {
	day := time.Date(2026, 5, 12, 9, 0, 0, 0, time.UTC)
	at := func(quad, step string, minutes float64) bench.Tick {
		return bench.Tick{Quad: quad, Step: step, At: day.Add(time.Duration(minutes * float64(time.Minute)))}
	}
	learned := bench.Learn([]bench.Tick{
		at("a", "props-off", 0),
		at("b", "solder:other:x", 3), // the first on its quad: nobody knows since when
		at("a", "solder:first:1", 10),
		at("a", "check:picture", 12),
		at("a", "check:sticks", 12.05), // noted afterwards
		at("b", "solder:other:y", 33),
		at("a", "solder:second", 112), // after a break
		at("b", "solder:other:z", 53),
	})
	assert.Equal(t, bench.Learned{"solder": 20, "check:picture": 2}, learned)
	assert.Empty(t, bench.Learn(nil))

	s := sheet(sample.Set(), ready())
	s.Time(learned)
	assert.Equal(t, bench.Day{Minutes: 22, Untimed: len(s.Steps) - 2, Learned: 2}, s.Day)
	assert.Equal(t, 2, *stepOf(t, s, "check:picture").TookMinutes)
	set := sample.Set()
	set.AirUnits[0].UpdateMinutes = new(9)
	s = sheet(set, ready())
	s.Time(bench.Learned{"update": 4})
	assert.Equal(t, 13, s.Day.Minutes, "what a device states goes before what was learned of others")
	assert.Nil(t, stepOf(t, s, "update:first").TookMinutes)
}

// Whatever the ticks, what is learned of a kind lies between the shortest and the longest time a step can
// take, and another quad's ticks in between change nothing.
func TestWhatIsLearnedIsAStepsTime(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		now, ticks, own := time.Unix(0, 0), []bench.Tick{}, []bench.Tick{}
		for range rapid.IntRange(0, 40).Draw(t, "ticks") {
			now = now.Add(time.Duration(rapid.IntRange(0, 7200).Draw(t, "seconds")) * time.Second)
			tick := bench.Tick{
				Quad: rapid.SampledFrom([]string{"a", "b"}).Draw(t, "quad"),
				Step: rapid.SampledFrom([]string{"solder:x", "meter:y", "check:z"}).Draw(t, "step"),
				At:   now,
			}
			ticks = append(ticks, tick)
			if tick.Quad == "a" {
				own = append(own, tick)
			} else {
				ticks[len(ticks)-1].Step = "other:" + tick.Step
			}
		}
		all, alone := bench.Learn(ticks), bench.Learn(own)
		delete(all, "other")
		assert.Equal(t, alone, all)
		for sort, minutes := range alone {
			assert.True(t, minutes >= 5.0/60 && minutes <= 60, "%s: %g", sort, minutes)
		}
	})
}

// While goggles take an update, what is built and soldered on the quad can be done, and nothing that
// needs power, the meter or the goggles, that is held, or that builds in a unit which has to be updated first.
func TestWhatCanBeDoneMeanwhile(t *testing.T) {
	at := func(s bench.Sheet) (titles []string, phases map[swap.Phase]bool) {
		update := stepOf(t, s, "update:new-eyes")
		phases = map[swap.Phase]bool{}
		for _, step := range s.Steps {
			if slices.Contains(update.Meanwhile, step.Title) {
				phases[step.Phase] = true
				assert.Empty(t, step.Held, step.Title)
			}
		}
		return update.Meanwhile, phases
	}
	waits := sheet(sample.Set(), ready())
	built := stepOf(t, waits, "fit:").Title
	titles, _ := at(waits)
	assert.NotContains(t, titles, built, "the unit is updated on the bench first")
	assert.Empty(t, stepOf(t, waits, "update:first").Meanwhile, "the unit is what is built in")

	next := ready()
	next.AirUnit.Kit, next.AirUnit.Firmware = "second", ""
	set := sample.Set()
	set.AirUnits[1].Activation.Needed = false
	titles, phases := at(sheetOf(sample.Case(set, kit(), next), "a", "b"))
	assert.Contains(t, titles, stepOf(t, sheetOf(sample.Case(set, kit(), next), "a", "b"), "fit:").Title)
	for phase := range phases {
		assert.Contains(t, []swap.Phase{bench.Build, bench.Feed}, phase)
	}
	next.Pack, next.Feeds = "lipo-6", []fleet.Feed{{To: fleet.NodeAirUnit, From: "board.5v"}}
	burns := sheetOf(sample.Case(set, kit(), next), "a", "b")
	require.NotEmpty(t, stepOf(t, burns, "feed:").Held)
	_, phases = at(burns)
	assert.False(t, phases[bench.Feed], "what is held is not done meanwhile")
}
