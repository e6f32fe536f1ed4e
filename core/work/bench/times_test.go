package bench_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

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
// needs power, the meter or the goggles.
func TestWhatCanBeDoneMeanwhile(t *testing.T) {
	s := sheet(sample.Set(), ready())
	at := map[string]bench.Step{}
	for _, step := range s.Steps {
		at[step.Title] = step
	}
	update := stepOf(t, s, "update:new-eyes")
	assert.NotEmpty(t, update.Meanwhile)
	for _, title := range update.Meanwhile {
		assert.Contains(t, []swap.Phase{bench.Build, bench.Feed}, at[title].Phase, title)
	}
	assert.Empty(t, stepOf(t, s, "update:first").Meanwhile, "the unit is what is built in")
}
