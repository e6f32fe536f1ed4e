package antenna_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// caseOf is the first generation with the pair of antennas on the quad and those
// given on the goggles.
func caseOf(set *gear.Set, quad *fleet.Antennas, eyes ...string) fleet.Case {
	goggles := sample.Own("new-eyes", "5.2", "b")
	goggles.Antennas = eyes
	return sample.Case(set, []fleet.Kit{goggles, sample.Own("first", "1.1", "")},
		fleet.Fit{AirUnit: &fleet.Slot{Kit: "first"}, Goggles: &fleet.Slot{Kit: "new-eyes"}, Antennas: quad})
}

func codes(findings []verdict.Finding) (list []verdict.Code) {
	for _, f := range findings {
		list = append(list, f.Code)
	}
	return list
}

// The trade's cases (common practice): same hand to same hand, linear to circular
// loses 3 dB, opposite hands most of the signal, a directional antenna loses what
// is behind, 60° apart and 40 mm from carbon.
func TestTheTradesCases(t *testing.T) {
	band := func(set *gear.Set, i int, bands ...gear.Band) {
		set.Antennas[i].Bands = nil
		for _, b := range bands {
			set.Antennas[i].Bands = append(set.Antennas[i].Bands, gear.AntennaBand{Band: b, GainDBi: new(unit.Decibels(2))})
		}
	}
	for _, c := range []struct {
		name   string
		change func(*gear.Set, *fleet.Antennas, *[]string)
		code   verdict.Code
		level  verdict.Level
	}{
		{"as it should be", func(*gear.Set, *fleet.Antennas, *[]string) {}, antenna.CodeFits, verdict.Fits},
		{
			"opposite hands",
			func(_ *gear.Set, _ *fleet.Antennas, eyes *[]string) { *eyes = []string{"left", "left"} },
			antenna.CodeHands,
			verdict.Unfit,
		},
		{
			"linear to circular",
			func(_ *gear.Set, _ *fleet.Antennas, eyes *[]string) { *eyes = []string{"stick", "stick"} },
			antenna.CodeLinear,
			verdict.Caution,
		},
		{
			"mixed hands on the goggles",
			func(_ *gear.Set, _ *fleet.Antennas, eyes *[]string) { *eyes = []string{"eye", "left"} },
			antenna.CodeMixed,
			verdict.Caution,
		},
		{
			"directional goggles",
			func(_ *gear.Set, _ *fleet.Antennas, eyes *[]string) { *eyes = []string{"wide", "wide"} },
			antenna.CodeBehind,
			verdict.Caution,
		},
		{
			"one round, one directional",
			func(_ *gear.Set, _ *fleet.Antennas, eyes *[]string) { *eyes = []string{"eye", "wide"} },
			antenna.CodeFits,
			verdict.Fits,
		},
		{
			"another band",
			func(s *gear.Set, _ *fleet.Antennas, _ *[]string) { band(s, 0, "2.4") },
			antenna.CodeNoBand,
			verdict.Unfit,
		},
		{"one band of two", func(s *gear.Set, _ *fleet.Antennas, _ *[]string) {
			s.AirUnits[0].Radio.Bands, s.Goggles[1].Receive.Bands = []gear.Band{"2.4", "5.8"}, []gear.Band{"2.4", "5.8"}
			s.Regions[0].Limits = append(s.Regions[0].Limits, gear.PowerLimit{
				Band:      "2.4",
				MaxEIRPMW: new(unit.Milliwatts(1000)),
			})
		}, antenna.CodeOneBand, verdict.Caution},
		{
			"two bands for one",
			func(s *gear.Set, _ *fleet.Antennas, _ *[]string) { band(s, 0, "2.4", "5.8") },
			antenna.CodeHalfGain,
			verdict.Caution,
		},
		{"no common band", func(s *gear.Set, _ *fleet.Antennas, _ *[]string) {
			s.Goggles[1].Receive.Bands = []gear.Band{"2.4"}
			band(s, 1, "2.4")
		}, antenna.CodeNoBand, verdict.Unfit},
		{
			"one antenna left off",
			func(_ *gear.Set, q *fleet.Antennas, _ *[]string) { q.Models = q.Models[:1] },
			antenna.CodeCount,
			verdict.Caution,
		},
		{
			"one too many",
			func(_ *gear.Set, q *fleet.Antennas, _ *[]string) { q.Models = append(q.Models, "round") },
			antenna.CodeCount,
			verdict.Unfit,
		},
		{
			"the wrong plug",
			func(_ *gear.Set, q *fleet.Antennas, _ *[]string) { q.Models = []string{"eye", "eye"} },
			antenna.CodePlug,
			verdict.Unfit,
		},
		{"a barrel too short", func(s *gear.Set, _ *fleet.Antennas, _ *[]string) {
			s.Goggles[1].Receive.LipMM, s.Antennas[1].BarrelMM = new(unit.Millimetres(6)), new(unit.Millimetres(5))
		}, antenna.CodeBarrel, verdict.Unfit},
		{
			"side by side",
			func(_ *gear.Set, q *fleet.Antennas, _ *[]string) { q.AngleDeg = new(unit.Degrees(10)) },
			antenna.CodeAngle,
			verdict.Caution,
		},
		{
			"against carbon",
			func(_ *gear.Set, q *fleet.Antennas, _ *[]string) { q.CarbonMM = new(unit.Millimetres(10)) },
			antenna.CodeCarbon,
			verdict.Caution,
		},
		{
			"distance from carbon not said",
			func(_ *gear.Set, q *fleet.Antennas, _ *[]string) { q.CarbonMM = nil },
			antenna.CodeUnknown,
			verdict.Unknown,
		},
		{
			"polarisation not stated",
			func(s *gear.Set, _ *fleet.Antennas, _ *[]string) { s.Antennas[0].Polarisation = "" },
			antenna.CodeUnknown,
			verdict.Unknown,
		},
		{
			"nothing on the goggles",
			func(_ *gear.Set, _ *fleet.Antennas, eyes *[]string) { *eyes = nil },
			antenna.CodeUnknown,
			verdict.Unknown,
		},
		{"over the region's limit", func(s *gear.Set, _ *fleet.Antennas, _ *[]string) {
			s.Regions[0].Limits[0].MaxEIRPMW = new(unit.Milliwatts(100))
		}, antenna.CodeLimit, verdict.Caution},
	} {
		t.Run(c.name, func(t *testing.T) {
			set, quad, eyes := sample.Set(), sample.Pair(), []string{"eye", "eye"}
			c.change(set, quad, &eyes)
			findings := antenna.Check(caseOf(set, quad, eyes...))
			assert.Contains(t, codes(findings), c.code)
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
		})
	}
}

func TestAnAdapterJoinsTwoPlugs(t *testing.T) {
	set := sample.Set()
	quad := sample.Pair()
	quad.Models = []string{"eye", "eye"}
	set.Adapters = []gear.Adapter{{
		Entry:  gear.Entry{ID: "tail", Name: "pigtail"},
		From:   "sma",
		To:     "ufl",
		LossDB: new(unit.Decibels(0.6)),
	}}
	c := caseOf(set, quad, "eye", "eye")
	assert.Equal(t, verdict.Change, verdict.Worst(antenna.Check(c)))
	quad.Adapter = "tail"
	findings := antenna.Check(caseOf(set, quad, "eye", "eye"))
	assert.Contains(t, codes(findings), antenna.CodeAdapter)
	assert.Equal(t, verdict.Caution, verdict.Worst(findings))
	var says []string
	c = caseOf(set, sample.Pair(), "eye", "eye")
	for _, cand := range antenna.Candidates(c) {
		says = append(says, change.Words(c, cand.Patch))
	}
	assert.Contains(t, says, "put 2 × eye on first through the pigtail")
}

func TestMatingsRunOut(t *testing.T) {
	for made, level := range map[int]verdict.Level{
		3:  verdict.Fits,
		27: verdict.Caution,
		29: verdict.Caution,
		30: verdict.Unfit,
	} {
		c := caseOf(sample.Set(), sample.Pair(), "eye", "eye")
		for i := range c.Fleet.Kit {
			if c.Fleet.Kit[i].ID == "first" {
				c.Fleet.Kit[i].Matings = &made
			}
		}
		assert.Equal(t, level, verdict.Worst(antenna.Check(c)), "%d of about 30 (common practice)", made)
	}
}

// Against today: 6 dB more on the goggles is twice the range in free space, and
// what is not known is left out and said.
func TestTheBudgetAgainstToday(t *testing.T) {
	set := sample.Set()
	set.Antennas = append(set.Antennas, gear.Antenna{
		Entry:        gear.Entry{ID: "six"},
		Bands:        []gear.AntennaBand{{Band: "5.8", GainDBi: new(unit.Decibels(7.5206))}},
		Polarisation: "rhcp",
		Plug:         "ufl",
	})
	c := caseOf(set, sample.Pair(), "eye", "eye")
	c.Quad.Now = c.Quad.Next.Clone()
	c.Quad.Next.Antennas.Models = []string{"six", "six"}
	budgets := antenna.Compare(c.Library, c.Fleet, c.Quad)
	require.Len(t, budgets, 1)
	// 500 mW and 7.5 dBi would radiate 2.8 W: the region's 1 W takes most of it back.
	assert.InDelta(t, 1.51, float64(*budgets[0].ChangeDB), 0.01)
	set.Regions[0].Limits = nil
	budgets = antenna.Compare(gear.NewLibrary(set), c.Fleet, c.Quad)
	assert.InDelta(t, 2, *budgets[0].Factor, 0.001)
	assert.Empty(t, budgets[0].LeftOut)
	set.AirUnits[0].Radio.MaxMW = nil
	budgets = antenna.Compare(gear.NewLibrary(set), c.Fleet, c.Quad)
	assert.Equal(t, []string{"transmit power"}, budgets[0].LeftOut)
	assert.Contains(t, budgets[0].Says, "left out: transmit power")
	c.Quad.Now.Antennas.Models = []string{"round", "round"}
	set.Antennas[0].Bands[0].Band = "2.4"
	budgets = antenna.Compare(gear.NewLibrary(set), c.Fleet, c.Quad)
	assert.Contains(t, budgets[0].Says, "5.8 GHz is new")
	set.Antennas[0].Bands = nil
	assert.Empty(t, antenna.Compare(gear.NewLibrary(set), c.Fleet, c.Quad))
}

// Each antenna hears for itself: the best set is the best one by one.
func TestTheBestSetOfWhatIsOwned(t *testing.T) {
	c := caseOf(sample.Set(), sample.Pair(), "stick", "left")
	f := *c.Fleet.Fleet
	f.Spares = []fleet.Spare{{Model: "eye", Count: 1}, {Model: "wide", Count: 1}}
	sets := antenna.Sets(c.Library, fleet.NewIndex(&f))
	require.Len(t, sets, 1)
	assert.Equal(t, []string{"wide", "eye"}, sets[0].Best, "8 and 2 dB of the same hand beat 2 dB less 3 and less 20")
	assert.Greater(t, float64(sets[0].BetterDB), 10.0)
	require.NotNil(t, sets[0].Buy, "a second one would do better still")
	assert.Equal(t, "wide", sets[0].Buy.Label)
	assert.Nil(t, sets[0].Thrift, "nothing has a price")
}

// Goggles with nothing screwed on have nothing to be better than, and no number is made of it.
func TestTheBestSetForGogglesWithoutAntennas(t *testing.T) {
	c := caseOf(sample.Set(), sample.Pair(), "stick", "left")
	f := *c.Fleet.Fleet
	f.Kit = slices.Clone(f.Kit)
	for i := range f.Kit {
		f.Kit[i].Antennas = nil
	}
	f.Spares = []fleet.Spare{{Model: "eye", Count: 1}, {Model: "wide", Count: 1}}
	for _, set := range antenna.Sets(c.Library, fleet.NewIndex(&f)) {
		assert.Equal(t, []string{"wide", "eye"}, set.Best)
		assert.Zero(t, float64(set.BetterDB))
	}
}

// Two that look one way leave the back unheard: where one is there that hears all round,
// it takes the second port (common practice).
func TestASetHearsAllRound(t *testing.T) {
	c := caseOf(sample.Set(), sample.Pair(), "stick", "left")
	f := *c.Fleet.Fleet
	best := func(spares ...fleet.Spare) []string {
		f.Spares = spares
		return antenna.Sets(c.Library, fleet.NewIndex(&f))[0].Best
	}
	assert.Equal(
		t,
		[]string{"wide", "stick"},
		best(fleet.Spare{Model: "wide", Count: 2}),
		"what is on them hears all round",
	)
	assert.Equal(
		t,
		[]string{"wide", "eye"},
		best(fleet.Spare{Model: "wide", Count: 2}, fleet.Spare{Model: "eye", Count: 1}),
	)
}

// If money is no matter the best, else the most decibels for its price.
func TestWhatToBuy(t *testing.T) {
	set := sample.Set()
	price := func(id string, price float64, currency string) {
		for i := range set.Antennas {
			if set.Antennas[i].ID == id {
				set.Antennas[i].Offer = &gear.Offer{Price: &price, Currency: currency}
			}
		}
	}
	price("wide", 60, "EUR")
	price("eye", 10, "EUR")
	buy := func() antenna.Set {
		c := caseOf(set, sample.Pair(), "stick", "stick")
		return antenna.Sets(c.Library, c.Fleet)[0]
	}
	assert.Equal(t, "wide", buy().Buy.Label, "9 dB more")
	assert.InDelta(t, 120, *buy().Buy.Price, 1e-9, "two of them")
	assert.Equal(t, "eye", buy().Thrift.Label, "3 dB for 20 against 9 for 120")
	price("eye", 10, "SEK")
	assert.Equal(t, "wide", buy().Thrift.Label, "no rate of exchange is known here")
}

// A pattern that is stated says how far it reaches behind; a beam width alone does
// not, and one antenna that hears all round is enough.
func TestTheRangeBehind(t *testing.T) {
	set := sample.Set()
	budget := func(next ...string) antenna.Budget {
		c := caseOf(set, sample.Pair(), "eye", "eye")
		other := sample.Own("new-eyes", "5.2", "b")
		other.ID, other.Antennas = "others", next
		f := *c.Fleet.Fleet
		f.Kit = append(f.Kit, other)
		c.Quad.Now = c.Quad.Next.Clone()
		c.Quad.Next.Goggles = &fleet.Slot{Kit: "others"}
		return antenna.Compare(c.Library, fleet.NewIndex(&f), c.Quad)[0]
	}
	lost := budget("wide", "wide")
	assert.Nil(t, lost.BehindFactor)
	assert.Contains(t, lost.Says, "about 2.0 of today's range in free space (+6.0 dB) in front, picture lost behind")
	mixed := budget("wide", "eye")
	require.NotNil(t, mixed.BehindFactor, "the round one hears behind")
	assert.InDelta(t, 1, *mixed.BehindFactor, 1e-9)
	for i := range set.Antennas {
		if set.Antennas[i].ID == "wide" {
			set.Antennas[i].Pattern = []gear.PatternPoint{{OffDeg: 0, DB: 0}, {OffDeg: 170, DB: -16}, {OffDeg: 180, DB: -20}}
		}
	}
	stated := budget("wide", "wide")
	require.NotNil(t, stated.BehindFactor)
	assert.InDelta(t, 0.2, *stated.BehindFactor, 0.001, "8 dB less 20 against 2: 14 dB less")
	c := caseOf(set, sample.Pair(), "wide", "eye")
	drawn := antenna.Draw(c).Ends[1].Antennas
	assert.Equal(t, "as stated", drawn[0].PatternFrom)
	assert.InDelta(t, -16, float64(drawn[0].Pattern[17]), 1e-9)
	assert.InDelta(t, -160.0/17, float64(drawn[0].Pattern[10]), 1e-9, "straight between two points")
	assert.Equal(t, "all round", drawn[1].PatternFrom)
}

// Common practice: video antennas keep away from a control antenna on a near or
// harmonic band.
func TestTheControlAntenna(t *testing.T) {
	for _, c := range []struct {
		name     string
		from, to unit.Megahertz
		apart    *unit.Millimetres
		level    verdict.Level
		says     string
	}{
		{"another band", 2400, 2480, nil, verdict.Fits, ""},
		{"the same band, close", 5700, 5800, new(unit.Millimetres(20)), verdict.Caution, "near 5.8 GHz of the video"},
		{"just beside it, close", 5500, 5550, new(unit.Millimetres(20)), verdict.Caution, "near 5.8 GHz of the video"},
		{"three times it, close", 1910, 1930, new(unit.Millimetres(20)), verdict.Caution, "3 times that falls into 5.8 GHz"},
		{"three times it, apart", 1910, 1930, new(unit.Millimetres(60)), verdict.Fits, ""},
		{"the same band, distance not said", 5700, 5800, nil, verdict.Unknown, "antenna of the sticks"},
		{"six times it", 950, 970, new(unit.Millimetres(20)), verdict.Fits, ""},
		{"frequencies not stated", 0, 0, new(unit.Millimetres(20)), verdict.Unknown, "frequencies of its radio"},
	} {
		t.Run(c.name, func(t *testing.T) {
			set, quad := sample.Set(), sample.Pair()
			set.Receivers[0].FromMHz, set.Receivers[0].ToMHz = nil, nil
			if c.from > 0 {
				set.Receivers[0].FromMHz, set.Receivers[0].ToMHz = &c.from, &c.to
			}
			quad.ControlMM = c.apart
			given := caseOf(set, quad, "eye", "eye")
			given.Fit.Receiver = "receiver"
			findings := antenna.Check(given)
			assert.Equal(t, c.level, verdict.Worst(findings))
			assert.Contains(t, findings[0].Says, c.says)
		})
	}
}

func BenchmarkSets(b *testing.B) {
	set := sample.Set()
	f := &fleet.Fleet{Region: "home"}
	for i := range 200 {
		a := set.Antennas[i%5]
		a.ID = fmt.Sprintf("a-%d", i)
		set.Antennas = append(set.Antennas, a)
		f.Spares = append(f.Spares, fleet.Spare{Model: a.ID, Count: 1})
	}
	for i := range 10 {
		k := sample.Own("new-eyes", "5.2", "b")
		k.ID = fmt.Sprintf("eyes-%d", i)
		f.Kit = append(f.Kit, k)
		f.Quads = append(f.Quads, fleet.Quad{
			ID:  fmt.Sprintf("q-%d", i),
			Now: fleet.Fit{AirUnit: &fleet.Slot{Model: "first"}, Goggles: &fleet.Slot{Kit: k.ID}, Antennas: sample.Pair()},
		})
	}
	lib, index := gear.NewLibrary(set), fleet.NewIndex(f)
	for b.Loop() {
		antenna.Sets(lib, index)
	}
	b.ReportMetric(20, "goal-ms")
}

// What can be screwed onto goggles: what lies in the drawer, and what sits on other
// goggles with the same plug.
func TestThePortsOfGoggles(t *testing.T) {
	c := caseOf(sample.Set(), sample.Pair(), "eye")
	f := *c.Fleet.Fleet
	f.Spares = []fleet.Spare{{Model: "wide", Count: 2}, {Model: "round", Count: 4}}
	other := sample.Own("old-eyes", "4.1", "a")
	other.Antennas = []string{"left", "left"}
	f.Kit = append(f.Kit, other)
	c.Fleet = fleet.NewIndex(&f)
	pic := antenna.Draw(c)
	assert.Equal(t, "new-eyes", pic.Goggles)
	require.Len(t, pic.Ports, 2, "the second is free")
	assert.Equal(t, "eye", pic.Ports[0].On)
	assert.Empty(t, pic.Ports[1].On)
	assert.Equal(t, []antenna.Choice{
		{Model: "wide", Label: "wide, 2 in the drawer"},
		{Model: "left", From: "old-eyes", Label: "left off old-eyes, in exchange"},
	}, pic.Ports[0].Choices)
	c.Fit.Antennas.Placed, c.Fit.Antennas.Why = "clear", "on the arms"
	assert.Contains(t, antenna.Draw(c).Placed, "a crash takes them first; on the arms")
}

// A link is judged by the band it uses: dual-band goggles flown with a single-band
// unit want that band's antennas, and dual-band ones there give up gain.
func TestTheBandOfTheLinkCounts(t *testing.T) {
	set := sample.Set()
	set.Goggles[1].Receive.Bands = []gear.Band{"2.4", "5.8"}
	assert.Equal(t, verdict.Fits, verdict.Worst(antenna.Check(caseOf(set, sample.Pair(), "eye", "eye"))))
	set.Antennas[1].Bands = append(set.Antennas[1].Bands, gear.AntennaBand{Band: "2.4", GainDBi: new(unit.Decibels(2))})
	findings := antenna.Check(caseOf(set, sample.Pair(), "eye", "eye"))
	assert.Equal(t, []verdict.Code{antenna.CodeHalfGain}, codes(findings))
	assert.Contains(t, findings[0].Says, "this link uses, 5.8 GHz")
}

// Every antenna counts for polarisation: the best pair makes the link, whichever
// stands first, and one without a partner is named.
func TestEveryAntennaCountsForPolarisation(t *testing.T) {
	for _, eyes := range [][]string{{"left", "eye"}, {"eye", "left"}} {
		list := codes(antenna.Check(caseOf(sample.Set(), sample.Pair(), eyes...)))
		assert.NotContains(t, list, antenna.CodeHands)
		assert.Contains(t, list, antenna.CodeDeaf)
	}
}

// What transmits is judged by the region's limit, and what is missing for that is
// asked for; no setting is named that the unit does not have.
func TestTheLegalGate(t *testing.T) {
	judge := func(change func(*gear.Set)) verdict.Finding {
		set := sample.Set()
		change(set)
		for _, f := range antenna.Check(caseOf(set, sample.Pair(), "eye", "eye")) {
			if f.Code == antenna.CodeLimit {
				return f
			}
		}
		return verdict.Finding{Level: verdict.Fits}
	}
	assert.Equal(t, verdict.Fits, judge(func(*gear.Set) {}).Level)
	for name, remove := range map[string]func(*gear.Set){
		"power": func(s *gear.Set) { s.AirUnits[0].Radio.MaxMW = nil },
		"gain":  func(s *gear.Set) { s.Antennas[0].Bands[0].GainDBi = nil },
		"limit": func(s *gear.Set) { s.Regions[0].Limits = nil },
	} {
		f := judge(remove)
		assert.Equal(t, verdict.Unknown, f.Level, name)
		assert.Equal(t, verdict.Unlawful, f.Danger, name)
	}
	limit := func(s *gear.Set, mw unit.Milliwatts) { s.Regions[0].Limits[0].MaxEIRPMW = &mw }
	f := judge(func(s *gear.Set) { limit(s, 300); s.AirUnits[0].Radio.StepsMW = []unit.Milliwatts{20, 200, 500} })
	assert.Equal(t, verdict.Caution, f.Level)
	assert.Contains(t, f.Says, "Its setting of 200 mW stays within it")
	f = judge(func(s *gear.Set) { limit(s, 200); s.AirUnits[0].Radio.StepsMW = []unit.Milliwatts{250, 500} })
	assert.Equal(t, verdict.Unfit, f.Level)
	assert.NotContains(t, f.Says, "set that")
	f = judge(func(s *gear.Set) { limit(s, 100); s.AirUnits[0].Radio.BenchMW = nil })
	assert.Equal(t, verdict.Unknown, f.Level)
	f = judge(func(s *gear.Set) {
		s.Goggles[1].Sends = &gear.Sender{Band: "5.8", MaxMW: new(unit.Milliwatts(900)), GainDBi: new(unit.Decibels(2))}
	})
	assert.Equal(t, verdict.Unfit, f.Level, "goggles that send are judged too")
	f = judge(func(s *gear.Set) { s.Goggles[1].Sends = &gear.Sender{Band: "5.8", MaxMW: new(unit.Milliwatts(100))} })
	assert.Equal(t, verdict.Unknown, f.Level)
}

// Barrel and lip are both asked for at goggles; matings count only where something is
// unplugged; an antenna tuned beside the channels is said.
func TestBarrelsMatingsAndTuning(t *testing.T) {
	for name, remove := range map[string]func(*gear.Set){
		"barrel": func(s *gear.Set) { s.Antennas[1].BarrelMM = nil },
		"lip":    func(s *gear.Set) { s.Goggles[1].Receive.LipMM = nil },
		"plug":   func(s *gear.Set) { s.Antennas[1].Plug = "" },
	} {
		set := sample.Set()
		remove(set)
		findings := antenna.Check(caseOf(set, sample.Pair(), "eye", "eye"))
		assert.Equal(t, verdict.Unknown, verdict.Worst(findings), name)
		assert.NotEmpty(t, findings[0].Missing, name)
	}
	flat := sample.Set()
	flat.Antennas[1].BarrelMM, flat.Goggles[1].Receive.LipMM = nil, new(unit.Millimetres(0))
	assert.NotContains(t, codes(antenna.Check(caseOf(flat, sample.Pair(), "eye", "eye"))), antenna.CodeBarrel,
		"without a lip any barrel reaches")
	c := caseOf(sample.Set(), sample.Pair(), "eye", "eye")
	kit, _ := c.Fleet.Piece("first")
	kit.Matings = new(30)
	assert.Contains(t, codes(antenna.Check(c)), antenna.CodeMatings)
	c.Quad.Now = c.Quad.Next.Clone()
	assert.NotContains(t, codes(antenna.Check(c)), antenna.CodeMatings, "nothing is unplugged")

	set := sample.Set()
	set.BandPlans = []gear.BandPlan{{
		Entry:    gear.Entry{ID: "plan"},
		Channels: []gear.Channel{{ID: "1", MHz: 5660, WidthMHz: 20}, {ID: "2", MHz: 5800, WidthMHz: 20}},
	}}
	set.AirUnits[0].Radio.BandPlan = "plan"
	set.Antennas[0].Bands[0].FromMHz, set.Antennas[0].Bands[0].ToMHz = new(unit.Megahertz(5700)), new(unit.Megahertz(5900))
	findings := antenna.Check(caseOf(set, sample.Pair(), "eye", "eye"))
	assert.Contains(t, codes(findings), antenna.CodeTuned)
	assert.Contains(t, findings[0].Says, "beside 1 of 2 channels")
}

// Limits without a document and its date are no ground for a fit.
func TestLimitsWithoutADatedDocumentAreACautionAtMost(t *testing.T) {
	for _, source := range []gear.Source{{Kind: gear.Published}, {Kind: gear.Published, Text: "a rule"},
		{Kind: gear.Published, Date: "2026-01-05"}} {
		set := sample.Set()
		set.Regions[0].Source = source
		found := false
		for _, f := range antenna.Check(caseOf(set, sample.Pair(), "eye", "eye")) {
			if f.Code == antenna.CodeUndated {
				found = true
				assert.Equal(t, verdict.Caution, f.Level)
				assert.Equal(t, verdict.Unlawful, f.Danger)
			}
		}
		assert.True(t, found, "%+v", source)
	}
}

// A plug that was taken to be the usual one is a caution until somebody has looked at it; one
// looked at is none, on whichever sheet.
func TestAPlugNobodyHasLookedAt(t *testing.T) {
	usual := gear.Source{Kind: gear.Practice, Text: "picked as one that goes on"}
	looked := gear.Source{Kind: gear.Measured, Text: "looked at one's own"}
	for _, c := range []struct {
		sheet gear.Source
		plug  *gear.Source
		looks bool
	}{
		{looked, nil, false}, {looked, &usual, true}, {usual, nil, true}, {usual, &looked, false},
	} {
		set := sample.Set()
		plan := caseOf(set, sample.Pair(), "right", "right")
		for i := range set.Antennas {
			set.Antennas[i].Source = c.sheet
			if c.plug != nil {
				set.Antennas[i].ValueSources = map[string]gear.Source{"plug": *c.plug}
			}
		}
		findings := antenna.Check(plan)
		at := slices.IndexFunc(findings, func(f verdict.Finding) bool { return f.Code == antenna.CodeLook })
		assert.Equal(t, c.looks, at >= 0, c)
		if at >= 0 {
			assert.Equal(t, verdict.Caution, findings[at].Level)
			assert.Contains(t, findings[at].Says, "nobody has looked at this one")
		}
	}
}
