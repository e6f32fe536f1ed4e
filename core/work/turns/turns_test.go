package turns_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/turns"
	"yokeswap/internal/builds"
)

// brayer is the demo's quad that takes turns, with one thing changed.
func brayer(t *testing.T, change func(q *fleet.Quad, st *stock.Stock)) (turns.Pair, *stock.Stock) {
	t.Helper()
	st := builds.Demo()
	q, ok := st.Fleet.Quad("brayer")
	require.True(t, ok)
	if change != nil {
		change(q, st)
	}
	s, ok := turns.Of(st, "brayer")
	require.True(t, ok)
	require.Len(t, s.Turns, 1)
	return s.Turns[0], st
}

func of(p turns.Pair, code verdict.Code) []verdict.Finding {
	var list []verdict.Finding
	for _, f := range p.Findings {
		if f.Code == code {
			list = append(list, f)
		}
	}
	return list
}

func titles(w turns.Way, each bool) string {
	var list []string
	for _, step := range w.Steps {
		if step.EachTime == each {
			list = append(list, step.Title)
		}
	}
	return strings.Join(list, "\n")
}

// One cable whose pins the two units want in another order: it is re-pinned at each turn,
// and the unit that meets it as it is for the other one burns.
func TestOneCableForTwoPinOrders(t *testing.T) {
	p, _ := brayer(t, nil)
	assert.Equal(t, "Aldine One Compact", p.Label)
	assert.True(t, p.Flown)
	require.Len(t, of(p, turns.CodeRepin), 1)
	assert.Equal(t, verdict.Caution, of(p, turns.CodeRepin)[0].Level)
	mixed := of(p, turns.CodeMixedUp)
	require.Len(t, mixed, 2, "each of them on the other's cable")
	for _, f := range mixed {
		assert.Equal(t, verdict.Destroys, f.Danger)
		assert.Equal(t, verdict.Caution, f.Level)
	}
	assert.Equal(t, verdict.Fits, of(p, turns.CodeIron)[0].Level, "its soldered ends stay on the board")
	assert.Contains(t, titles(p.There, true), "Re-pin the Two pigtail")
	assert.Contains(t, titles(p.Back, true), "Re-pin the Two pigtail", "and back")
	assert.Contains(t, titles(p.There, true), "Meter 15 pairs of the unit's pins")
}

// three has a unit in turn that is still to be bought, flown with the same goggles and
// controller.
func three(q *fleet.Quad, _ *stock.Stock) {
	q.InTurn[0].Flown = false
	fit := &q.InTurn[0].Fit
	fit.AirUnit = &fleet.Slot{Model: "aldine-three"}
	fit.Goggles = &fleet.Slot{Kit: "visor-c-1", Firmware: "2.2", Mode: "third"}
	fit.Controller = &fleet.Slot{Kit: "grip-2-a", Firmware: "1.1"}
}

// Goggles that are in another mode for each unit are switched at each turn; a release that
// does for both goes on once.
func TestWhatGogglesCarryForEachUnit(t *testing.T) {
	p, _ := brayer(t, three)
	assert.Contains(t, titles(p.There, false), "Put 2.2 on Visor C")
	assert.Contains(t, titles(p.There, true), "Switch Visor C to mode Third")
	assert.Contains(t, titles(p.Back, true), "Switch Visor C to mode Second")
	assert.NotContains(t, titles(p.Back, true)+titles(p.Back, false), "Put 2.0", "the newer release does for the Two as well")
	require.Len(t, of(p, turns.CodeUpdates), 1)
	assert.Equal(t, verdict.Caution, of(p, turns.CodeUpdates)[0].Level)
	assert.NotContains(t, of(p, turns.CodeUpdates)[0].Says, "2.2")
}

// Wires that are soldered to the pads of a unit are stated, and no plug that is mistaken.
func TestSolderedWiresAreStatedAndNoCable(t *testing.T) {
	p, _ := brayer(t, func(q *fleet.Quad, _ *stock.Stock) {
		q.InTurn[0].Fit.Harness, q.InTurn[0].Fit.Moved, q.InTurn[0].Fit.Header = "", nil, nil
	})
	require.Len(t, of(p, turns.CodeIron), 1)
	assert.Equal(t, verdict.Caution, of(p, turns.CodeIron)[0].Level, "the wires are on the pads: each turn takes the iron")
	assert.Empty(t, of(p, turns.CodeMixedUp), "there is no second cable")
}

// Two pairs of goggles that nobody owns yet are two.
func TestGogglesOfTwoModelsAreNotShared(t *testing.T) {
	p, _ := brayer(t, func(q *fleet.Quad, _ *stock.Stock) {
		q.Now.Goggles, q.InTurn[0].Fit.Goggles = &fleet.Slot{Model: "visor-c"}, &fleet.Slot{Model: "visor-b"}
	})
	assert.Empty(t, of(p, turns.CodeBinding))
}

// A unit that is new has to be updated and activated once; that is not asked for again.
func TestWhatIsDoneOnceIsNotDoneAtEachTurn(t *testing.T) {
	p, _ := brayer(t, three)
	once, each := titles(p.There, false), titles(p.There, true)
	assert.Contains(t, once, "Activate")
	assert.NotContains(t, each, "Activate")
	assert.Contains(t, each, "Put the Aldine Three into the frame")
}

func TestWhetherGogglesStayBoundIsAFact(t *testing.T) {
	for _, c := range []struct {
		to   *int
		says verdict.Level
	}{{new(3), verdict.Fits}, {new(2), verdict.Fits}, {new(1), verdict.Caution}, {nil, verdict.Unknown}} {
		p, _ := brayer(t, func(q *fleet.Quad, st *stock.Stock) {
			three(q, st)
			g, ok := gear.Find[*gear.Goggles](st.Library(), "visor-c")
			require.True(t, ok)
			g.BoundTo = c.to
		})
		found := of(p, turns.CodeBinding)
		require.Len(t, found, 2, "the goggles and the controller")
		goggles := found[slices.IndexFunc(found, func(f verdict.Finding) bool { return f.Subject == "Visor C" })]
		assert.Equal(t, c.says, goggles.Level)
		if c.to == nil {
			assert.Equal(t, "boundTo", goggles.Missing[0].Field)
		}
	}
	apart, _ := brayer(t, nil)
	assert.Empty(t, of(apart, turns.CodeBinding), "each has its own goggles and its own controller")
}

// What nobody has stated is unknown at a turn too, and never better than what is stated.
func TestAtATurnMissingIsNeverBetter(t *testing.T) {
	whole, _ := brayer(t, nil)
	fields := map[string]string{
		"no cable now":     "now.harness",
		"no cable in turn": "inTurn.turn-1.fit.harness",
		"no antennas now":  "now.antennas.models",
		"no antennas then": "inTurn.turn-1.fit.antennas.models",
	}
	for name, tear := range map[string]func(q *fleet.Quad, st *stock.Stock){
		"no cable now":       func(q *fleet.Quad, _ *stock.Stock) { q.Now.Wiring.Harness = "" },
		"no cable in turn":   func(q *fleet.Quad, _ *stock.Stock) { q.InTurn[0].Fit.Harness = "" },
		"no antennas now":    func(q *fleet.Quad, _ *stock.Stock) { q.Now.Antennas = nil },
		"no antennas then":   func(q *fleet.Quad, _ *stock.Stock) { q.InTurn[0].Fit.Antennas = nil },
		"no flight firmware": func(q *fleet.Quad, _ *stock.Stock) { q.Now.Runs, q.InTurn[0].Fit.Runs = nil, nil },
	} {
		t.Run(name, func(t *testing.T) {
			torn, _ := brayer(t, tear)
			assert.False(t, whole.Level.WorseThan(torn.Level), "%s, and whole it is %s", torn.Level, whole.Level)
			asked := map[string]bool{}
			for _, f := range torn.Findings {
				for _, m := range f.Missing {
					asked[m.Field] = true
				}
			}
			if want := fields[name]; want != "" {
				assert.True(t, asked[want], "%s is asked for where it stands, %v", want, asked)
			}
			worst := func(p turns.Pair) verdict.Level { return verdict.Worst(p.Findings) }
			assert.Equal(t, verdict.Unknown, worst(torn))
		})
	}
}

func TestASetOfAntennasForTwoUnitsMovesOver(t *testing.T) {
	own, _ := brayer(t, nil)
	assert.Equal(t, verdict.Fits, of(own, turns.CodeMoves)[0].Level)
	cowls := func(q *fleet.Quad, _ *stock.Stock) { q.InTurn[0].Fit.Antennas.Models = q.Now.Antennas.Models }
	shared, _ := brayer(t, cowls)
	assert.Equal(t, verdict.Caution, of(shared, turns.CodeMoves)[0].Level)
	for count, level := range map[int]verdict.Level{10: verdict.Caution, 27: verdict.Caution, 28: verdict.Unfit} {
		worn, _ := brayer(t, func(q *fleet.Quad, st *stock.Stock) {
			cowls(q, st)
			kit, ok := st.Fleet.Piece("compact-brayer")
			require.True(t, ok)
			kit.Matings = &count
		})
		assert.Equal(t, level, of(worn, turns.CodeMoves)[0].Level, "%d matings", count)
	}
}

// The other unit wants other goggles' firmware through a one-way door: what flies today is lost.
func TestATurnThatClosesTheWayBack(t *testing.T) {
	closed := func(st *stock.Stock) turns.Pair {
		s, ok := turns.Of(st, "quern")
		require.True(t, ok)
		require.Len(t, s.Turns, 1)
		return s.Turns[0]
	}
	for name, c := range map[string]struct {
		links string // the releases of the goggles on which today's unit links
		burns bool   // it is unfit today for another reason
		level verdict.Level
	}{
		"it links on the newer release too": {">=4.1", false, verdict.Fits},
		"it links on the old release alone": {"4.1", false, verdict.Unfit},
		"what is amiss today hides nothing": {"4.1", true, verdict.Unfit},
		"what is amiss today stays amiss":   {">=4.1", true, verdict.Fits},
	} {
		t.Run(name, func(t *testing.T) {
			st := builds.Demo()
			for i := range st.Sets[0].Pairings {
				if p := &st.Sets[0].Pairings[i]; p.ID == "aldine-one-on-visor-b-first" {
					p.GogglesFirmware = firmware.Range(c.links)
				}
			}
			q, _ := st.Fleet.Quad("quern")
			if c.burns {
				q.Now.Pack, q.Now.Feeds = "tallow-6s", []fleet.Feed{{To: fleet.NodeAirUnit, From: fleet.NodePack}}
			}
			q.Next.Goggles = &fleet.Slot{Kit: "visor-b-1", Firmware: "4.6", Mode: "second"}
			require.NoError(t, st.KeepInTurn("quern"))
			back := of(closed(st), turns.CodeWayBack)
			require.Len(t, back, 1)
			assert.Equal(t, c.level, back[0].Level, "%s", back[0].Says)
		})
	}
}

// What lies ready with a fit that comes back is not bought again, and its header is not
// soldered again.
func TestAFitThatComesBackIsComplete(t *testing.T) {
	planned := func(change func(q *fleet.Quad)) (bought int, sheet string) {
		st := builds.Demo()
		q, _ := st.Fleet.Quad("brayer")
		fit := &q.InTurn[0].Fit
		fit.Antennas.Models = []string{"cowl-dual", "cowl-dual"}
		q.InTurn[0].Ready[0].Count = 2
		change(q)
		for i := range st.Fleet.Quads { // nobody else buys anything
			st.Fleet.Quads[i].Next = nil
		}
		require.NoError(t, turns.Plan(st, "brayer", "turn-1"))
		q, _ = st.Fleet.Quad("brayer")
		index := fleet.NewIndex(st.Fleet)
		for _, item := range swap.Shopping(st.Library(), index) {
			if item.Model == "cowl-dual" && slices.Contains(item.For, "Brayer") {
				bought = item.Need
			}
		}
		c := fleet.NewCase(st.Library(), index, q)
		for _, step := range bench.NewSheet(c, swap.Judge(c), "", "").Steps {
			sheet += step.Title + " " + step.Mates + "\n"
		}
		return bought, sheet
	}
	bought, sheet := planned(func(*fleet.Quad) {})
	assert.Zero(t, bought)
	assert.NotContains(t, sheet, "Solder the Tack")
	assert.NotContains(t, sheet, "compact-brayer", "its antennas are on it: no plug goes on")

	bought, _ = planned(func(q *fleet.Quad) { q.InTurn[0].Ready[0].Count = 1 })
	assert.Equal(t, 1, bought, "one of the two does not lie ready")
	bought, sheet = planned(func(q *fleet.Quad) { q.InTurn[0].Flown, q.InTurn[0].Ready = false, nil })
	assert.Equal(t, 2, bought)
	assert.Contains(t, sheet, "Solder the Tack")
	assert.Contains(t, sheet, "compact-brayer", "its antennas go on")
}
