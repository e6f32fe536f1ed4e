package channels

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

func system(n int, from, step, width unit.Megahertz) (list []gear.Channel) {
	for i := range n {
		list = append(list, gear.Channel{ID: fmt.Sprint(i + 1), MHz: from + unit.Megahertz(i)*step, WidthMHz: width})
	}
	return list
}

// A channel that comes with a release is there from it on, and not where the release is not
// known.
func TestChannelsByRelease(t *testing.T) {
	plan := &gear.BandPlan{Channels: []gear.Channel{{ID: "1", MHz: 5700}, {ID: "2", MHz: 5800, Firmware: ">=1.2"}}}
	assert.Len(t, OnPlan("a", plan, "1.2").Channels, 2)
	assert.Len(t, OnPlan("a", plan, "1.1").Channels, 1)
	assert.Len(t, OnPlan("a", plan, "").Channels, 1)
	old, young := OnPlan("a", plan, "1.1"), OnPlan("b", plan, "1.2")
	assert.NotEqual(t, old.key(), young.key(), "pilots of one plan are alike only with the same channels")
	out := Find([]Pilot{young, old})
	assert.Equal(t, []string{"2", "1"}, []string{out.Seats[0].Channel, out.Seats[1].Channel})
}

func crowd(r *rand.Rand, pilots, channels int) (list []Pilot) {
	systems := []struct {
		name string
		of   []gear.Channel
	}{
		{"one", system(min(4, channels), 5660+unit.Megahertz(r.IntN(30)), 37, 20)},
		{"two", system(channels, 5650+unit.Megahertz(r.IntN(40)), 19, 18)},
	}
	for i := range pilots {
		s := systems[r.IntN(2)]
		list = append(list, Pilot{Name: fmt.Sprintf("p%d", i), System: s.name, Channels: s.of})
	}
	return list
}

// naive counts everything anew for a full seating; false where two overlap.
func naive(pilots []Pilot, at []int) (w worth, ok bool) {
	w.spacing = unit.Megahertz(math.Inf(1))
	for i := range pilots {
		if at[i] < 0 {
			continue
		}
		w.seated++
		a := pilots[i].Channels[at[i]]
		for k := range pilots {
			if k == i || at[k] < 0 {
				continue
			}
			b := pilots[k].Channels[at[k]]
			gap := unit.Megahertz(math.Abs(float64(a.MHz-b.MHz))) - (a.WidthMHz+b.WidthMHz)/2
			if gap < 0 {
				return w, false
			}
			w.spacing = min(w.spacing, gap)
			for third := i; third < len(pilots); third++ { // a + third − b, third may be a
				if third == k || at[third] < 0 {
					continue
				}
				c := pilots[third].Channels[at[third]]
				for on := range pilots {
					if on == i || on == k || on == third || at[on] < 0 {
						continue
					}
					victim := pilots[on].Channels[at[on]]
					width := math.Max(float64(a.WidthMHz), math.Max(float64(b.WidthMHz), float64(c.WidthMHz)))
					if math.Abs(float64(a.MHz+c.MHz-b.MHz-victim.MHz)) < (width+float64(victim.WidthMHz))/2 {
						w.products++
					}
				}
			}
		}
	}
	return w, true
}

// Outside check: trying every seating of small crowds gives no better one, and
// the third-order products are those counted anew.
func TestTheSeatingAgreesWithBruteForce(t *testing.T) {
	for seed := range uint64(120) {
		r := rand.New(rand.NewPCG(seed, 11))
		pilots := crowd(r, 1+r.IntN(4), 3+r.IntN(4))
		best, found := worth{}, false
		at := make([]int, len(pilots))
		var try func(i int)
		try = func(i int) {
			if i == len(pilots) {
				if w, ok := naive(pilots, at); ok && (!found || w.beats(best)) {
					best, found = w, true
				}
				return
			}
			for c := -1; c < len(pilots[i].Channels); c++ {
				at[i] = c
				try(i + 1)
			}
		}
		try(0)
		plan := Find(pilots)
		require.False(t, plan.Bounded)
		got := make([]int, len(pilots))
		for i, s := range plan.Seats {
			got[i] = -1
			for c := range pilots[i].Channels {
				if pilots[i].Channels[c].ID == s.Channel {
					got[i] = c
				}
			}
		}
		w, ok := naive(pilots, got)
		require.True(t, ok, "seed %d: two overlap", seed)
		require.Equal(t, best, w, "seed %d", seed)
		require.Len(t, plan.Products, w.products)
	}
}

// Four channels in the usual digital default (common practice): a fifth pilot of
// the same system stays on the ground, and it is said what is free.
func TestAFifthPilotStaysOnTheGround(t *testing.T) {
	digital := system(4, 5660, 37, 20)
	var pilots []Pilot
	for i := range 5 {
		pilots = append(pilots, Pilot{Name: fmt.Sprint(i), System: "digital", Channels: digital})
	}
	plan := Find(pilots)
	seated := 0
	for _, s := range plan.Seats {
		if s.Channel != "" {
			seated++
		}
	}
	assert.Equal(t, 4, seated)
	assert.Empty(t, plan.Free)
	plan = Find(pilots[:3])
	assert.Len(t, plan.Free, 1)
	assert.InDelta(t, 17, float64(*plan.Spacing), 1e-9)
	assert.Empty(t, Find(nil).Seats)
	// 2·5697 − 5660 = 5734: evenly spaced channels land on each other.
	assert.NotEmpty(t, Find(pilots[:4]).Products)
}

// A channel that only touches another lies over nobody: it is free.
func TestAChannelThatTouchesIsFree(t *testing.T) {
	of := []gear.Channel{{ID: "1", MHz: 5660, WidthMHz: 20}, {ID: "2", MHz: 5680, WidthMHz: 20}, {ID: "3", MHz: 5699, WidthMHz: 20}}
	plan := Find([]Pilot{{Name: "a", System: "s", Channels: of[:1]}, {Name: "b", System: "t", Channels: of[1:]}})
	var free []string
	for _, f := range plan.Free {
		free = append(free, f.System+f.Channel)
	}
	assert.NotContains(t, free, "s1", "a sits on it")
	alone := Find([]Pilot{{Name: "a", System: "s", Channels: of}})
	assert.Len(t, alone.Free, 2, "%+v", alone.Free)
}

func BenchmarkTwelvePilots(b *testing.B) {
	pilots := crowd(rand.New(rand.NewPCG(2, 2)), 12, 16)
	for b.Loop() {
		Find(pilots)
	}
	b.ReportMetric(50, "goal-ms")
}

// A product has the width of its sources, three signals make one too, and how much of a
// channel it covers is said; two band plans of one name stay two.
func TestThirdOrderProducts(t *testing.T) {
	one := func(name string, mhz, width unit.Megahertz) Pilot {
		return Pilot{Name: name, System: name, Channels: []gear.Channel{{ID: "1", MHz: mhz, WidthMHz: width}}}
	}
	// 5700 + 5760 − 5730 is 5730 itself; 2·5730 − 5700 = 5760; 5700 + 5800 − 5730 = 5770.
	plan := Find([]Pilot{one("a", 5700, 10), one("b", 5730, 10), one("c", 5800, 10), one("d", 5770, 10)})
	assert.Contains(t, plan.Products, Product{"a", "c", "b", "d", 5770, 10})
	beside := Find([]Pilot{one("a", 5660, 20), one("b", 5700, 20), one("c", 5755, 20)}) // 2·5700 − 5660 = 5740
	assert.Contains(t, beside.Products, Product{"b", "b", "a", "c", 5740, 5})

	same := []Pilot{
		{Name: "x", System: "Four", Plan: "left", Channels: system(1, 5660, 40, 20)},
		{Name: "y", System: "Four", Plan: "right", Channels: system(1, 5800, 40, 20)},
	}
	seated := 0
	for _, s := range Find(same).Seats {
		if s.Channel != "" {
			seated++
		}
	}
	assert.Equal(t, 2, seated, "each on its own channels")
}

// Who has no air unit, or one whose channels are not stated, is no pilot with a channel.
func TestWhoHasNoChannelsIsNoPilot(t *testing.T) {
	set := sample.Set()
	set.AirUnits[0].Radio = nil
	set.AirUnits[1].Radio.BandPlan = "nix"
	for _, fit := range []fleet.Fit{{}, {AirUnit: &fleet.Slot{Model: "first"}}, {AirUnit: &fleet.Slot{Model: "second"}}} {
		_, ok := Of(sample.Case(set, nil, fit))
		assert.False(t, ok, "%+v", fit.AirUnit)
	}
}
