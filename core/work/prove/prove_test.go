package prove_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/work/prove"
)

// The sign test against the binomial of a statistics library.
func TestTheSignTestAgainstALibrary(t *testing.T) {
	for n := range 120 {
		for k := range n + 1 {
			want := 1.0
			if k > 0 {
				want = distuv.Binomial{N: float64(n), P: 0.5}.Survival(float64(k - 1))
			}
			assert.InDelta(t, want, prove.Chance(k, n), 1e-9, "%d of %d", k, n)
		}
	}
}

// Against the table of critical values of the sign test at one in twenty, one-sided, as it
// stands in textbooks (W. J. Conover, "Practical Nonparametric Statistics", table of the
// binomial with p one half): the fewest better of so many for it to be called found.
func TestTheSignTestAgainstAPublishedTable(t *testing.T) {
	for n, fewest := range map[int]int{5: 5, 6: 6, 7: 7, 8: 7, 9: 8, 10: 9, 11: 9, 12: 10, 13: 10, 14: 11, 15: 12,
		16: 12, 17: 13, 18: 13, 19: 14, 20: 15, 25: 18, 30: 20} {
		assert.LessOrEqual(t, prove.Chance(fewest, n), prove.Sure, "%d of %d", fewest, n)
		assert.Greater(t, prove.Chance(fewest-1, n), prove.Sure, "%d of %d", fewest-1, n)
	}
	assert.Greater(t, prove.Chance(4, 4), prove.Sure, "four spots never do")
}

func TestChanceInWords(t *testing.T) {
	for chance, words := range map[float64]string{7.0 / 64: "one time in nine", 0.5: "every other time", 42.0 / 64: "more often than not", 1: "nearly always",
		1.0 / 32: "one time in 32", 1.0 / 4096: "less than one time in a thousand", 0.34: "one time in three"} {
		assert.Equal(t, words, prove.Often(chance))
	}
	assert.Equal(t, 2, prove.More(5, 6), "six of seven is not yet sure, seven of eight is")
	assert.Equal(t, 0, prove.More(7, 8))
	assert.Equal(t, 5, prove.More(0, 0))
}

const places = 6

func course() *fleet.Course {
	c := &fleet.Course{ID: "mill", Name: "round the mill"}
	for i := range places {
		c.Spots = append(c.Spots, fleet.CourseSpot{ID: fmt.Sprint("s", i), InSight: new(true)})
	}
	return c
}

// flight is one whose rates were read at the spots in order, without a frozen picture; a
// rate below 0 was not read.
func flight(id, unitModel string, rates ...float64) *fleet.TestFlight {
	t := &fleet.TestFlight{ID: id, Quad: "quad", Course: "mill", On: "2026-05-12", Checked: new(true),
		Reader: fleet.BySpotter, PackV: new(unit.Volts(16.7)), PowerMW: new(unit.Milliwatts(25)), Channel: "3",
		Weather: "dry", Settings: []string{"50 Mb/s", "low latency"}, Carried: fleet.Carried{AirUnit: unitModel, AirFirmware: "1.0", Antennas: []string{"round"},
			Goggles: "eyes", GogglesFirmware: "2.0", GogglesAntennas: []string{"round"}, Pack: "lipo-4"}}
	for i, rate := range rates {
		if rate >= 0 {
			t.Reads = append(t.Reads, fleet.SpotReads{Spot: fmt.Sprint("s", i), Passes: []fleet.PassRead{
				{Pass: 1, Lowest: new(unit.MegabitsPerSecond(rate)), Freezes: new(0)}}})
		}
	}
	return t
}

// lib has two units and a pair of goggles of which all is stated that the link budget asks for.
var lib = func() *gear.Library {
	set := sample.Set()
	one, two := set.AirUnits[0], set.AirUnits[0]
	one.ID, one.Name, two.ID, two.Name = "one", "one", "two", "two"
	set.AirUnits = append(set.AirUnits, one, two)
	eyes := set.Goggles[0]
	eyes.ID, eyes.Name = "eyes", "eyes"
	set.Goggles = append(set.Goggles, eyes)
	return gear.NewLibrary(set)
}()

func compare(before, after *fleet.TestFlight) prove.Proof {
	return prove.Compare(lib, &fleet.Fleet{Quads: []fleet.Quad{{ID: "quad"}}}, course(),
		[]*fleet.TestFlight{before}, []*fleet.TestFlight{after})
}

func finding(t *testing.T, c prove.Proof, codes ...verdict.Code) verdict.Finding {
	t.Helper()
	for _, f := range c.Findings {
		for _, code := range codes {
			if f.Code == code {
				return f
			}
		}
	}
	require.Fail(t, "no such finding", "%v in %v", codes, c.Findings)
	return verdict.Finding{}
}

func TestHowSureOneCanBe(t *testing.T) {
	low := flight("before", "one", 10, 10, 10, 10, 10, 10)
	for _, c := range []struct {
		name  string
		after []float64
		code  verdict.Code
		level verdict.Level
		says  string
	}{
		{"five of six", []float64{20, 20, 20, 20, 20, 5}, prove.CodeChance, verdict.Caution,
			"Better at five of six spots. That happens by chance one time in nine: fly two more."},
		{"six of six", []float64{20, 20, 20, 20, 20, 20}, prove.CodeBetter, verdict.Fits,
			"Better at six of six spots. By chance that happens one time in 64."},
		{"none of six", []float64{5, 5, 5, 5, 5, 5}, prove.CodeWorse, verdict.Change,
			"Worse at six of six spots. By chance that happens one time in 64: what flew after is worse here."},
		{"a tie is left out", []float64{20, 20, 20, 20, 20, 10}, prove.CodeBetter, verdict.Fits,
			"Better at five of six spots, the same at one. By chance that happens one time in 32."},
		{"one not read", []float64{20, 20, 20, 20, 20, -1}, prove.CodeUnread, verdict.Unknown,
			"Better at five of five spots; one was not read on both sides, which speaks against it. That happens by " +
				"chance one time in nine: fly two more."},
		{"nothing read", nil, prove.CodeUnread, verdict.Unknown,
			"At no spot was the lowest bit rate read on both sides: nothing can be said."},
	} {
		got := compare(low, flight("after", "two", c.after...))
		f := finding(t, got, prove.CodeBetter, prove.CodeWorse, prove.CodeChance, prove.CodeUnread)
		assert.Equal(t, c.code, f.Code, c.name)
		assert.Equal(t, c.level, f.Level, c.name)
		assert.Equal(t, c.says, f.Says, c.name)
	}
	whole := compare(low, flight("after", "two", 20, 20, 20, 20, 20, 20))
	assert.Equal(t, verdict.Fits, whole.Level, "%v", whole.Findings)
}

// A spot left out on purpose counts for nothing; one that was just not read speaks against.
func TestLeftOutIsNotUnread(t *testing.T) {
	low, high := flight("before", "one", 10, 10, 10, 10, 10, -1), flight("after", "two", 20, 20, 20, 20, 20, -1)
	assert.Equal(t, verdict.Unknown, compare(low, high).Level)
	low.LeftOut = []string{"s5"}
	got := compare(low, high)
	assert.Equal(t, verdict.Fits, got.Level, "%v", got.Findings)
	assert.Equal(t, prove.Left, got.Spots[5].Rate)
}

// The passes of a spot are one pair: their middle counts, and one without a reading leaves
// the spot open.
func TestPassesAreTakenTogether(t *testing.T) {
	low, high := flight("before", "one", 10), flight("after", "two", 9)
	high.Reads[0].Passes = append(high.Reads[0].Passes,
		fleet.PassRead{Pass: 2, Lowest: new(unit.MegabitsPerSecond(12)), Freezes: new(1)},
		fleet.PassRead{Pass: 3, Lowest: new(unit.MegabitsPerSecond(14)), Freezes: new(0)})
	spot := compare(low, high).Spots[0]
	assert.Equal(t, unit.MegabitsPerSecond(12), *spot.After.Lowest)
	assert.Equal(t, prove.Better, spot.Rate)
	assert.Equal(t, prove.Worse, spot.Freezes)
	high.Reads[0].Passes[2].Pass = 4
	assert.Equal(t, prove.Open, compare(low, high).Spots[0].Rate, "the third was not noted")
	high.Reads[0].Passes[2].Pass = 3
	high.Reads[0].Passes[1].Freezes = nil
	assert.Equal(t, prove.Open, compare(low, high).Spots[0].Freezes, "at one pass nobody counted")
	high.Reads[0].Passes[1].Lowest = nil
	assert.Equal(t, prove.Open, compare(low, high).Spots[0].Rate)
}

// What else was not alike is named, each thing by itself.
func TestWhatElseMayBeTheReason(t *testing.T) {
	high := []float64{20, 20, 20, 20, 20, 20}
	for name, c := range map[string]struct {
		change func(t *fleet.TestFlight)
		says   string
		code   verdict.Code
	}{
		"pack": {func(t *fleet.TestFlight) { t.PackV = new(unit.Volts(15.2)) },
			"Not alike, and perhaps the reason: pack at take-off (16.7 V, then 15.2 V).", prove.CodeAlike},
		"what was set": {func(t *fleet.TestFlight) { t.Settings = []string{"low latency", "25 Mb/s"} },
			"Not alike, and perhaps the reason: what was set (50 Mb/s, low latency, then 25 Mb/s, low latency).", prove.CodeAlike},
		"the same set, in another order": {func(t *fleet.TestFlight) { t.Settings, t.Weather = []string{"low latency", "50 Mb/s"}, "wet" },
			"Not alike, and perhaps the reason: weather (dry, then wet).", prove.CodeAlike},
		"power": {func(t *fleet.TestFlight) { t.PowerMW = nil }, "Not stated on both sides: transmit power.", prove.CodeAlike},
		"two things": {func(t *fleet.TestFlight) { t.Carried.GogglesAntennas = []string{"patch"} },
			"More than one thing differs, and the flights cannot say which of them did it: air unit (one, then two) and " +
				"their antennas (round, then patch).", prove.CodeTried},
		"another quad": {func(t *fleet.TestFlight) { t.Quad = "other" },
			"More than one thing differs, and the flights cannot say which of them did it: quad (quad, then other) and air " +
				"unit (one, then two).", prove.CodeTried},
		"a release": {func(t *fleet.TestFlight) { t.Carried.AirUnit, t.Carried.AirFirmware, t.Weather = "one", "3.1", "wet" },
			"Held against each other: its firmware (1.0, then 3.1); all else that flew was the same.", prove.CodeTried},
		"nothing": {func(t *fleet.TestFlight) { t.Carried.AirUnit = "one" },
			"The same flew on both sides: what differs is what the day does.", prove.CodeTried},
		"its firmware goes with it": {func(t *fleet.TestFlight) { t.Carried.AirFirmware = "3.1"; t.Checked = new(false) },
			"Held against each other: air unit (one, then two); all else that flew was the same.", prove.CodeTried},
		"frozen": {func(t *fleet.TestFlight) { t.Reads[2].Passes[0].Freezes = new(3) },
			"The picture froze more often at one of six spots.", prove.CodeFreezes},
		"unchecked": {func(t *fleet.TestFlight) { t.Checked = nil },
			"Whether failsafe and range were tried on the ground before 2026-05-12 is not stated: fly spots only after that.",
			prove.CodeCheck},
	} {
		after := flight("after", "two", high...)
		c.change(after)
		got := compare(flight("before", "one", 10, 10, 10, 10, 10, 10), after)
		assert.Equal(t, verdict.Caution, got.Level, name)
		assert.Equal(t, c.says, finding(t, got, c.code).Says, name)
	}
}

// What the link budget had foretold is held against what was flown; where it cannot tell, or
// leaves something out for want of a value, that is no agreement.
func TestWhatTheLinkBudgetForetold(t *testing.T) {
	low := []float64{10, 10, 10, 10, 10, 10}
	wide := func(t *fleet.TestFlight) *fleet.TestFlight {
		t.Carried.AirUnit, t.Carried.GogglesAntennas = "one", []string{"wide"} // 6.5 dB more in front
		return t
	}
	for name, c := range map[string]struct {
		after *fleet.TestFlight
		level verdict.Level
		says  string
	}{
		"alike":     {flight("after", "two", low...), verdict.Fits, "no difference from the antennas and the power"},
		"agrees":    {wide(flight("after", "one", 20, 20, 20, 20, 20, 20)), verdict.Fits, "the flights lean the same way"},
		"disagrees": {wide(flight("after", "one", 5, 5, 5, 5, 5, 5)), verdict.Caution, "the flights lean the other way"},
	} {
		f := finding(t, compare(flight("before", "one", low...), c.after), prove.CodeForetold)
		assert.Equal(t, c.level, f.Level, "%s: %s", name, f.Says)
		if name != "alike" {
			assert.Contains(t, f.Says, "+6.5 dB")
			assert.Contains(t, f.Says, c.says)
		}
	}
	for _, unsay := range []func(c *fleet.Carried){
		func(c *fleet.Carried) { c.Goggles = "" }, func(c *fleet.Carried) { c.AirUnit = "" },
	} {
		unsaid := flight("after", "two", low...)
		unsay(&unsaid.Carried)
		f := finding(t, compare(flight("before", "one", low...), unsaid), prove.CodeForetold)
		assert.Equal(t, verdict.Caution, f.Level)
		assert.Contains(t, f.Says, "foretells nothing")
	}
	other := flight("other", "two", low...)
	other.Quad = "quad-2"
	mixed := prove.Compare(lib, &fleet.Fleet{Quads: []fleet.Quad{{ID: "quad"}, {ID: "quad-2"}}}, course(),
		[]*fleet.TestFlight{flight("before", "one", low...)}, []*fleet.TestFlight{flight("after", "two", low...), other})
	assert.Empty(t, mixed.Foretold, "two quads on one side")
}

// Packs off the charger are alike, at 4.2 V a cell within 0.05 (from memory): 0.15 V of 16.7, not 0.3.
func TestPacksAsFullAreAlike(t *testing.T) {
	for volts, alike := range map[unit.Volts]bool{16.7: true, 16.55: true, 16.85: true, 16.4: false, 17: false} {
		after := flight("after", "two", 20, 20, 20, 20, 20, 20)
		after.PackV = &volts
		got := compare(flight("before", "one", 10, 10, 10, 10, 10, 10), after)
		for _, c := range got.Alike {
			if c.What == "pack at take-off" {
				assert.Equal(t, alike, c.Alike, "%s", volts)
			}
		}
		assert.NotEmpty(t, got.Alike)
	}
}

// A spot that cannot be seen, or of which nobody says so, is for local rules to allow.
func TestSpotsOutOfSight(t *testing.T) {
	at := course()
	at.Spots[1].InSight, at.Spots[2].InSight = new(false), nil
	low := flight("before", "one", 10, 10, 10, 10, 10, 10)
	got := prove.Compare(lib, &fleet.Fleet{Quads: []fleet.Quad{{ID: "quad"}}}, at, []*fleet.TestFlight{low},
		[]*fleet.TestFlight{flight("after", "two", 20, 20, 20, 20, 20, 20)})
	f := finding(t, got, prove.CodeSight)
	assert.Equal(t, verdict.Caution, f.Level)
	assert.Equal(t, "Out of sight from where the pilot stands: s1. Whether the quad is in sight is not stated for s2. "+
		"Local rules say whether it may be flown there, and with whom beside the pilot.", f.Says)
}

// The sides of a proof: each flight once, all along one course, at least one on each.
func TestTheSidesOfAProof(t *testing.T) {
	f := &fleet.Fleet{Courses: []fleet.Course{*course(), {ID: "other"}},
		TestFlights: []fleet.TestFlight{*flight("a", "one"), *flight("b", "two"), *flight("c", "two")}}
	f.TestFlights[2].Course = "other"
	at, was, is, err := prove.Sides(f, []string{"a"}, []string{"b"})
	require.NoError(t, err)
	assert.Equal(t, "mill a b", at.ID+" "+was[0].ID+" "+is[0].ID)
	for says, ids := range map[string][2][]string{
		"stands twice":                  {{"a"}, {"a"}},
		"along two courses":             {{"a"}, {"c"}},
		"a flight before and one after": {{"a"}, nil},
		`there is no test flight "d"`:   {{"d"}, {"a"}},
	} {
		_, _, _, err := prove.Sides(f, ids[0], ids[1])
		assert.ErrorContains(t, err, says)
	}
}

// drawn is a random flight: readings there and not there, conditions stated and not.
func drawn(r *rand.Rand, id, model string) *fleet.TestFlight {
	rates := make([]float64, places)
	for i := range rates {
		rates[i] = float64(r.IntN(6)) - 1
	}
	t := flight(id, model, rates...)
	for i := range t.Reads {
		if r.IntN(4) == 0 {
			t.Reads[i].Passes[0].Freezes = new(r.IntN(3))
		}
	}
	if r.IntN(3) == 0 {
		t.Weather = "windy"
	}
	return t
}

// away are the flight without one of the things it states, each in turn.
func away(t *fleet.TestFlight) (list []*fleet.TestFlight) {
	without := func(change func(t *fleet.TestFlight)) {
		less := *t
		less.Reads = nil
		for _, r := range t.Reads {
			r.Passes = append([]fleet.PassRead{}, r.Passes...)
			less.Reads = append(less.Reads, r)
		}
		change(&less)
		list = append(list, &less)
	}
	for i := range t.Reads {
		without(func(t *fleet.TestFlight) { t.Reads = append(t.Reads[:i], t.Reads[i+1:]...) })
		without(func(t *fleet.TestFlight) { t.Reads[i].Passes[0].Lowest = nil })
		without(func(t *fleet.TestFlight) { t.Reads[i].Passes[0].Freezes = nil })
	}
	without(func(t *fleet.TestFlight) { t.LeftOut = nil })
	without(func(t *fleet.TestFlight) { t.PackV = nil })
	without(func(t *fleet.TestFlight) { t.PowerMW = nil })
	without(func(t *fleet.TestFlight) { t.Weather = "" })
	without(func(t *fleet.TestFlight) { t.Settings = nil })
	without(func(t *fleet.TestFlight) { t.Channel = "" })
	without(func(t *fleet.TestFlight) { t.Reader = "" })
	without(func(t *fleet.TestFlight) { t.Checked = nil })
	without(func(t *fleet.TestFlight) { t.Carried.AirUnit = "" })
	without(func(t *fleet.TestFlight) { t.Carried.AirFirmware = "" })
	without(func(t *fleet.TestFlight) { t.Carried.GogglesAntennas = nil })
	without(func(t *fleet.TestFlight) { t.Carried.Pack = "" })
	return list
}

// Missing is never better: whatever is taken away from what was noted, nothing is surer and
// no verdict better.
func TestWhatIsNotNotedMakesNothingSurer(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 9))
	for range 150 {
		before, after := drawn(r, "before", "one"), drawn(r, "after", "two")
		whole := compare(before, after)
		for i, less := range away(after) {
			got := compare(before, less)
			require.False(t, whole.Level.WorseThan(got.Level), "%d: %s to %s\n%v\n%v", i, whole.Level, got.Level,
				whole.Findings, got.Findings)
		}
		for i, less := range away(before) {
			got := compare(less, after)
			require.False(t, whole.Level.WorseThan(got.Level), "%d: %s to %s", i, whole.Level, got.Level)
		}
	}
}

// Which side is called before changes no more than the words: what was better is worse.
func TestBothWaysRound(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 1))
	for range 200 {
		a, b := drawn(r, "before", "one"), drawn(r, "after", "two")
		there, back := compare(a, b), compare(b, a)
		assert.Equal(t, there.Rate.Better, back.Rate.Worse)
		assert.Equal(t, there.Freezes.Worse, back.Freezes.Better)
		assert.Equal(t, there.Rate.Chance, back.Rate.Chance)
	}
}
