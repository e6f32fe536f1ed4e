package swap_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/power"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

var kit = []fleet.Kit{
	sample.Own("first", "1.0.6", ""),
	sample.Own("second", "2.0", ""),
	sample.Own("small", "3.0", ""),
	sample.Own("old-eyes", "4.1", "a"),
	sample.Own("new-eyes", "5.0", "b"),
	sample.Own("old-hand", "", ""),
	sample.Own("new-hand", "1.0", ""),
}

func fit(air, goggles, hand, pack, from string) fleet.Fit {
	return fleet.Fit{
		AirUnit:     &fleet.Slot{Kit: air},
		Goggles:     &fleet.Slot{Kit: goggles},
		Controller:  &fleet.Slot{Kit: hand},
		Board:       "board",
		Pack:        pack,
		CapacitorUF: new(unit.Microfarads(470)),
		CapacitorV:  new(unit.Volts(35)),
		PackLead:    sample.Lead(),
		Feeds:       []fleet.Feed{{To: fleet.NodeAirUnit, From: from}},
		Wiring:      fleet.Wiring{Wires: sample.Wired()},
		Antennas:    sample.Pair(),
		Mounting:    sample.Seat(),
		Flight:      sample.Flight(),
	}
}

func TestTheQuadIsAsBadAsItsWorstGate(t *testing.T) {
	j := swap.Judge(sample.Case(sample.Set(), kit, fit("first", "old-eyes", "old-hand", "lipo-6", "pack")))
	assert.Equal(t, verdict.Fits, j.Gate(verdict.Link).Level)
	assert.Equal(t, verdict.Unfit, j.Gate(verdict.Power).Level)
	assert.Equal(t, verdict.Unfit, j.Level)
	assert.Equal(t, verdict.Unknown, j.Gate("proof").Level, "a gate that has not run has judged nothing")
	assert.Equal(t, verdict.Unknown, verdict.Worst(nil))
	assert.Equal(t, verdict.Unknown, verdict.WorstOf())
}

// A law: a fix does exactly what it says. Whatever the fit, applying a fix
// offered gives the verdicts promised with it, and the finding is gone.
func TestEveryFixDoesWhatItSays(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pick := func(name string, of ...string) string { return rapid.SampledFrom(of).Draw(t, name) }
		next := fit(pick("air", "first", "second", "small"), pick("eyes", "old-eyes", "new-eyes"),
			pick("hand", "old-hand", "new-hand"),
			pick("pack", "lipo-4", "lipo-6", "lihv-1", "liion-6", ""),
			pick("from", "pack", "board.10v", "board.5v", "board.cam"))
		if choice := pick("jumper", "", "pack", "10v", "5v"); choice != "" {
			next.Jumpers = map[string]string{"cam": choice}
		}
		owned := slices.Clone(kit)
		if rapid.Bool().Draw(t, "unit not read") {
			owned[0].Firmware = ""
		}
		c := sample.Case(sample.Set(), owned, next)
		for _, g := range swap.JudgeWithFixes(c).Gates {
			for _, f := range g.Findings {
				for _, fix := range f.Fixes {
					after := swap.Judge(c.With(fix.Patch))
					if after.Level != fix.Quad || after.Gate(g.Gate).Level != fix.Gate {
						t.Fatalf("%q promised %s and %s, gives %s and %s", fix.Says, fix.Gate, fix.Quad, after.Gate(g.Gate).Level,
							after.Level)
					}
					for _, still := range after.Gate(g.Gate).Findings {
						if still.Code == f.Code && still.Subject == f.Subject && !f.Level.WorseThan(still.Level) {
							t.Fatalf("%q leaves %s of %s as it was", fix.Says, f.Code, f.Subject)
						}
					}
				}
			}
		}
	})
}

func TestASixCellBurnerIsFedFromThePadFirst(t *testing.T) {
	j := swap.JudgeWithFixes(sample.Case(sample.Set(), kit, fit("first", "old-eyes", "old-hand", "lipo-6", "pack")))
	var fixes []verdict.Fix
	for _, f := range j.Gate(verdict.Power).Findings {
		if f.Level == verdict.Unfit {
			fixes = f.Fixes
		}
	}
	require.NotEmpty(t, fixes)
	assert.Equal(t, "feed the first from the 10v", fixes[0].Says)
	assert.Equal(t, verdict.Fits, fixes[0].Gate)
	assert.Equal(t, "nothing to buy", fixes[0].Costs)
	assert.Contains(t, fixes[len(fixes)-1].Costs, "to buy")
}

func TestTheBoardAnswersToWhatIsBrought(t *testing.T) {
	now := fit("first", "old-eyes", "old-hand", "lipo-4", "board.10v")
	f := &fleet.Fleet{Title: "Two", Region: "home", Kit: kit, Quads: []fleet.Quad{
		{ID: "a", FullA: new(unit.Amps(50)), Now: now},
		{ID: "b", FullA: new(unit.Amps(50)), Now: fit("small", "old-eyes", "old-hand", "lipo-4", "board.10v")},
	}}
	lib, index := gear.NewLibrary(sample.Set()), fleet.NewIndex(f)
	b := swap.NewBoard(lib, index, nil)
	assert.Equal(t, link.ReachNow, b.Rows[0].Flies)
	assert.Equal(t, "With old-eyes and new-eyes at the bench, of 2 quads: 1 flies now, 1 cannot be told yet.", b.Says)

	b = swap.NewBoard(lib, index, []string{"new-eyes"})
	assert.Equal(t, link.ReachNever, b.Rows[1].Flies, "the small unit never links with the old goggles")
	b = swap.NewBoard(lib, index, []string{"old-eyes"})
	assert.Equal(t, link.ReachAfter, b.Rows[0].Flies)
	b = swap.NewBoard(lib, index, []string{"old-hand"})
	assert.Contains(t, b.Rows[0].Needs, "old-hand")
	b = swap.NewBoard(lib, index, []string{"old-eyes", "new-eyes"})
	assert.Equal(t, "No goggles at the bench: none of 2 quads fly.", b.Says)
	f.Quads[0].Next = new(fit("second", "new-eyes", "new-hand", "lipo-6", "pack"))
	index = fleet.NewIndex(f)
	b = swap.NewBoard(lib, index, nil)
	assert.True(t, b.Rows[0].Planned)
	assert.Equal(t, "second", b.Rows[0].Next)
	b = swap.NewBoard(lib, index, []string{swap.LeaveSwap("a")})
	assert.Equal(t, "first", b.Rows[0].Next, "with its swap left out it is judged as it is")
	assert.True(t, b.Rows[0].Planned && b.Rows[0].Stays)
	assert.Equal(t, "No quads yet.", swap.NewBoard(lib, fleet.NewIndex(&fleet.Fleet{}), nil).Says)
}

func TestPlacesCarryThePatchThatPicksThem(t *testing.T) {
	c := sample.Case(sample.Set(), kit, fit("first", "old-eyes", "old-hand", "lipo-4", "pack"))
	for _, place := range swap.Places(c) {
		chosen := 0
		for _, option := range place.Options {
			if option.Chosen {
				chosen++
			}
			for _, again := range swap.Places(c.With(option.Patch)) {
				if again.Name != place.Name {
					continue
				}
				for _, o := range again.Options {
					assert.Equal(t, o.Key == option.Key, o.Chosen, "picked %s at %s", option.Key, place.Name)
				}
			}
		}
		assert.Equal(t, 1, chosen, place.Name)
	}
}

// bigFleet is a fleet of n quads over the sample gear, each with an air unit
// of its own.
func bigFleet(n int) (*gear.Library, *fleet.Index) {
	f := &fleet.Fleet{Kit: slices.Clone(kit)}
	for i := range n {
		id := fmt.Sprintf("unit-%d", i)
		f.Kit = append(f.Kit, fleet.Kit{
			ID:        id,
			Model:     []string{"first", "second"}[i%2],
			Firmware:  []firmware.Version{"1.0.6", "2.3"}[i%2],
			Activated: new(true),
		})
		f.Quads = append(f.Quads, fleet.Quad{ID: fmt.Sprintf("quad-%d", i), FullA: new(unit.Amps(50)),
			Now: fit(id, []string{"old-eyes", "new-eyes"}[i/2%2], []string{"old-hand", "new-hand"}[i%2],
				[]string{"lipo-4", "lipo-6"}[i/4%2], []string{"board.10v", "pack"}[i/8%2])})
	}
	return gear.NewLibrary(sample.Set()), fleet.NewIndex(f)
}

func BenchmarkJudge1000Quads(b *testing.B) {
	st := builds.Demo()
	for i := 0; len(st.Fleet.Quads) < 1000; i++ { // the demo's own mix, over and over
		q := st.Fleet.Quads[i]
		q.ID = fmt.Sprintf("%s-%d", q.ID, i)
		st.Fleet.Quads = append(st.Fleet.Quads, q)
	}
	lib, index := st.Library(), fleet.NewIndex(st.Fleet)
	levels := map[verdict.Level]int{}
	for b.Loop() {
		clear(levels)
		for _, j := range swap.JudgeAll(lib, index) {
			for _, g := range j.Gates {
				levels[g.Level]++
			}
		}
	}
	b.ReportMetric(100, "goal-ms/op")
	b.ReportMetric(float64(b.Elapsed().Milliseconds())/float64(b.N), "ms/op")
	if len(levels) < 5 {
		b.Fatalf("the fleet should be mixed, got %v", levels)
	}
}

// What a fit with everything wired takes: its netlist and every finding of every gate.
func BenchmarkOneQuad(b *testing.B) {
	st := builds.Demo()
	lib, index := st.Library(), fleet.NewIndex(st.Fleet)
	for i := range index.Quads {
		q := &index.Quads[i]
		b.Run(q.ID, func(b *testing.B) {
			for b.Loop() {
				c := fleet.NewCase(lib, index, q)
				nets, _ := netlist.Whole(c)
				if len(nets) == 0 || len(swap.Judge(c).Gates) < 7 {
					b.Fatal("nothing to measure")
				}
			}
			b.ReportMetric(0.4, "goal-ms/op")
		})
	}
}

func BenchmarkFixes(b *testing.B) {
	lib, index := bigFleet(16)
	for b.Loop() {
		for i := range index.Quads {
			swap.JudgeWithFixes(fleet.NewCase(lib, index, &index.Quads[i]))
		}
	}
}

func BenchmarkBoard200Quads(b *testing.B) {
	lib, index := bigFleet(200)
	for b.Loop() {
		swap.NewBoard(lib, index, nil)
	}
}

func TestACapacitorNobodyOwnsIsNotFree(t *testing.T) {
	set, next := sample.Set(), fit("first", "old-eyes", "old-hand", "lipo-4", "pack")
	set.AirUnits[0].Input.AbsoluteMaxV, next.CapacitorUF, next.PackLead = new(unit.Volts(23)), nil, sample.Lead()
	j := swap.JudgeWithFixes(sample.Case(set, kit, next))
	for _, f := range j.Gate(verdict.Power).Findings {
		for _, fix := range f.Fixes {
			if fix.Patch.CapacitorUF != nil {
				assert.NotEqual(t, "nothing to buy", fix.Costs)
				return
			}
		}
	}
	t.Fatal("the capacitor was not offered")
}

func TestFindingsComeWorstFirst(t *testing.T) {
	for _, g := range swap.JudgeWithFixes(sample.Case(sample.Set(), kit,
		fit("first", "new-eyes", "new-hand", "lipo-6", "pack"))).Gates {
		for i := range g.Findings[1:] {
			assert.False(t, g.Findings[i+1].Level.WorseThan(g.Findings[i].Level))
		}
		assert.Equal(t, g.Level, g.Findings[0].Level)
	}
}

// A law: whatever is picked is what is then chosen, and one option of a place is
// chosen at most.
func TestWhatIsPickedIsChosen(t *testing.T) {
	set := sample.Set()
	set.Harnesses = append(set.Harnesses, gear.Harness{
		Entry: gear.Entry{ID: "tail", Name: "tail"},
		From:  "sh-6",
		Wires: sample.Wires(0, 0, 0, 0, 0, 0),
	})
	set.Frames[0].Bays = append(set.Frames[0].Bays, gear.Bay{ID: "top", Patterns: []gear.Holes{{XMM: 25.5, YMM: 25.5}}})
	set.Antennas = append(set.Antennas, gear.Antenna{Entry: gear.Entry{ID: "other"}, Plug: "ufl"})
	c := sample.Case(set, kit, fit("second", "new-eyes", "new-hand", "lipo-4", "board.10v"))
	picked := 0
	for _, place := range swap.Places(c) {
		for _, option := range place.Options {
			after := swap.Places(c.With(option.Patch))
			at := slices.IndexFunc(after, func(p swap.Place) bool { return p.Name == place.Name })
			var chosen []string
			for _, o := range after[at].Options {
				if o.Chosen {
					chosen = append(chosen, o.Key)
				}
			}
			assert.Equal(t, []string{option.Key}, chosen, "%s: %s", place.Name, option.Label)
			picked++
		}
	}
	assert.Greater(t, picked, 25)
}

// What a swap from analog takes out and frees: the control wire's port, pads and
// rail current.
func TestFromAnalog(t *testing.T) {
	c := sample.Case(sample.Set(), kit, fit("second", "new-eyes", "new-hand", "lipo-4", "pack"))
	assert.Empty(t, swap.FromAnalog(c.Library, c.Fleet, c.Quad), "digital today")
	c.Quad.Now = fleet.Fit{
		Analog: "analog",
		Board:  "board",
		Pack:   "lipo-4",
		Feeds:  []fleet.Feed{{To: "tx", From: "board.10v"}},
		Loads: []fleet.Load{{
			ID:    "tx",
			Name:  "transmitter",
			Input: gear.Input{MinV: new(unit.Volts(7)), MaxV: new(unit.Volts(26)), PeakW: new(unit.Watts(5))},
		}},
		Wiring: fleet.Wiring{Ports: []fleet.Port{{UART: 2, Use: fleet.UseVTXControl}}},
	}
	says := strings.Join(swap.FromAnalog(c.Library, c.Fleet, c.Quad), " ")
	for _, want := range []string{
		"UART 2 is free, but only its TX pad is broken out",
		"transmitter. The 10v is free",
		"Freed on the 10v: 0.51 A",
		"OSD feature stays on",
	} {
		assert.Contains(t, says, want)
	}
}

// A rail whose load next is not stated says nothing; the others still do.
func TestFreedCurrentOfTheOtherRails(t *testing.T) {
	set := sample.Set()
	for i := range set.AirUnits {
		set.AirUnits[i].Input.PeakW, set.AirUnits[i].Input.TypicalW = nil, nil
	}
	c := sample.Case(set, kit, fit("second", "new-eyes", "new-hand", "lipo-4", "board.10v"))
	load := func(id string) fleet.Load {
		return fleet.Load{ID: id, Name: id,
			Input: gear.Input{MinV: new(unit.Volts(4)), MaxV: new(unit.Volts(26)), PeakW: new(unit.Watts(4))}}
	}
	c.Quad.Now = fleet.Fit{Analog: "analog", Board: "board", Pack: "lipo-4", Loads: []fleet.Load{load("tx"), load("lamp")},
		Feeds: []fleet.Feed{{To: "tx", From: "board.10v"}, {To: "lamp", From: "board.5v"}}}
	says := strings.Join(swap.FromAnalog(c.Library, c.Fleet, c.Quad), " ")
	assert.NotContains(t, says, "Freed on the 10v")
	assert.Contains(t, says, "Freed on the 5v")
}

// The parts a fleet needs: what two quads share is added up, what is on a quad
// already is not bought.
func TestShoppingAddsUp(t *testing.T) {
	set := sample.Set()
	next := fit("second", "new-eyes", "new-hand", "lipo-4", "pack")
	next.Receiver, next.CapacitorUF, next.Plate, next.Screw = "receiver", new(unit.Microfarads(470)), "plate-20-25", "m2-5"
	now := next.Clone()
	now.AirUnit, now.Receiver, now.CapacitorUF, now.Mounting = nil, "", nil, fleet.Mounting{Frame: "frame", Bay: "rear"}
	now.Antennas.Models = now.Antennas.Models[:1]
	other := next.Clone()
	other.AirUnit = &fleet.Slot{Model: "small"}
	f := &fleet.Fleet{Kit: kit, Spares: []fleet.Spare{{Model: "receiver", Count: 1}, {Model: "m2-5", Count: 6}},
		Quads: []fleet.Quad{{ID: "a", Now: now, Next: &next}, {ID: "b", Now: now, Next: &other}}}
	items := map[string]swap.Item{}
	list := swap.Shopping(gear.NewLibrary(set), fleet.NewIndex(f))
	for _, i := range list {
		items[i.Label] = i
	}
	assert.Equal(t, 1, items["receiver"].Buy, "two wanted, one in the drawer")
	assert.Equal(t, []string{"a", "b"}, items["receiver"].For)
	assert.Equal(t, 2, items["plate-20-25"].Buy)
	assert.Equal(t, 2, items["470 µF 35 V low-ESR capacitor"].Buy)
	assert.Equal(t, 2, items["round"].Buy, "one more for each")
	assert.Equal(t, 1, items["small"].Buy, "a unit nobody owns")
	assert.NotContains(t, items, "second", "owned")
	for i := range list[1:] {
		assert.False(t, list[i].Buy == 0 && list[i+1].Buy > 0, "what is to be bought comes first")
	}
	assert.Empty(t,
		swap.Shopping(gear.NewLibrary(set), fleet.NewIndex(&fleet.Fleet{Quads: []fleet.Quad{{ID: "a", Now: now}}})))
}

// No fix brings anything more dangerous than what it mends, nor burns another part
// instead; over the demo and builds.
func TestNoFixTradesASmallDangerForAGreatOne(t *testing.T) {
	withoutRace(t)
	st := builds.Demo()
	pressed := 0
	for _, f := range fleetsOf(st, howMany(100)) {
		for i := range f.Quads {
			c := fleet.NewCase(st.Library(), f, &f.Quads[i])
			before := swap.JudgeWithFixes(c)
			said := unfit(before)
			for _, g := range before.Gates {
				for _, mended := range g.Findings {
					for _, fix := range mended.Fixes {
						pressed++
						for key, is := range unfit(swap.Judge(c.With(fix.Patch))) {
							if _, was := said[key]; !was {
								assert.False(t, is.Danger.WorseThan(mended.Danger) || is.Danger == verdict.Destroys,
									"%s: %s brings %s (%s) for %s (%s)", c.Quad.ID, fix.Says, is.Says, is.Danger, mended.Says, mended.Danger)
							}
						}
					}
				}
			}
		}
	}
	assert.Greater(t, pressed, 100)
}

// unfit is what shuts a gate, by what it is about.
func unfit(j swap.Judgement) map[string]verdict.Finding {
	list := map[string]verdict.Finding{}
	for _, g := range j.Gates {
		for _, f := range g.Findings {
			if f.Level == verdict.Unfit {
				list[string(f.Code)+" "+f.Subject] = f
			}
		}
	}
	return list
}

// A capacitor rated too low is a fix of its own: another one of the same size.
func TestACapacitorRatedTooLowIsExchanged(t *testing.T) {
	next := fit("second", "new-eyes", "new-hand", "lipo-6", "pack")
	next.CapacitorUF, next.CapacitorV = new(unit.Microfarads(470)), new(unit.Volts(16))
	c := sample.Case(sample.Set(), kit, next)
	for _, g := range swap.JudgeWithFixes(c).Gates {
		for _, f := range g.Findings {
			if f.Code != power.CodeCapacitor {
				continue
			}
			require.NotEmpty(t, f.Fixes)
			assert.Equal(t, "solder a 470 µF 35 V low-ESR capacitor across the battery leads", f.Fixes[0].Says)
			for _, after := range power.Check(c.With(f.Fixes[0].Patch)) {
				assert.NotEqual(t, power.CodeCapacitor, after.Code)
			}
			return
		}
	}
	t.Error("the capacitor is not spoken of")
}

// The port that is offered for the sticks listens, and carries what brings them: the separate
// receiver, else the air unit.
func TestThePortForTheSticksIsThatOfWhatBringsThem(t *testing.T) {
	set := sample.Set()
	ask := func(receiver string) (uses []fleet.Use) {
		f := fit("first", "old-eyes", "old-hand", "lipo-4", "pack")
		f.Receiver, f.Ports = receiver, nil
		c := sample.Case(set, kit, f)
		for _, o := range swap.Picks(c, verdict.FitValue(c, "ports", "port")) {
			port := o.Patch.Wiring.Ports[len(o.Patch.Wiring.Ports)-1]
			board, _ := c.Board()
			u, _ := board.UART(port.UART)
			assert.True(t, u.RX)
			uses = append(uses, port.Use)
		}
		return uses
	}
	through, own := ask(""), ask(set.Receivers[0].ID)
	assert.NotEmpty(t, through)
	assert.NotContains(t, through, fleet.UseReceiver)
	assert.NotEmpty(t, own)
	assert.NotContains(t, own, fleet.UseRC)
}
