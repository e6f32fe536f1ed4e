package pins

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
)

// Outside check: trying every assignment of ports gives the same functions kept
// and the same wires moved.
func TestPortsAgreeWithBruteForce(t *testing.T) {
	for seed := range uint64(400) {
		r := rand.New(rand.NewPCG(seed, 5))
		ports, needs := randomPorts(r, 1+r.IntN(5), 1+r.IntN(5))
		bestKept, bestMoves := -1, 0
		var try func(i, kept, moves int, taken map[int]bool)
		try = func(i, kept, moves int, taken map[int]bool) {
			if i == len(needs) {
				if kept > bestKept || kept == bestKept && moves < bestMoves {
					bestKept, bestMoves = kept, moves
				}
				return
			}
			try(i+1, kept, moves, taken)
			for p := range ports {
				if !taken[p] && refuses(&ports[p], &needs[i]) == "" {
					taken[p] = true
					try(i+1, kept|1<<(len(needs)-1-i), moves+movesTo(&ports[p], &needs[i]), taken)
					delete(taken, p)
				}
			}
		}
		try(0, 0, 0, map[int]bool{})
		kept, moves, used := 0, 0, map[int]bool{}
		for i, p := range assign(ports, needs) {
			if p < 0 {
				continue
			}
			require.False(t, used[p], "a port has one use")
			require.Empty(t, refuses(&ports[p], &needs[i]))
			used[p] = true
			kept |= 1 << (len(needs) - 1 - i)
			moves += movesTo(&ports[p], &needs[i])
		}
		require.Equal(t, [2]int{bestKept, bestMoves}, [2]int{kept, moves}, "seed %d", seed)
	}
}

func randomPorts(r *rand.Rand, ports, needs int) (list []gear.UART, wanted []Need) {
	for i := range ports {
		list = append(list, gear.UART{ID: i + 1, TX: r.IntN(4) > 0, RX: r.IntN(5) > 0, Hardware: new(r.IntN(4) > 0),
			Invert: []gear.Invert{gear.InvertNone, gear.InvertPad, gear.InvertJumper, gear.InvertSoftware}[r.IntN(4)]})
	}
	for range needs {
		wanted = append(wanted, Need{
			TX:       r.IntN(2) == 0,
			RX:       r.IntN(4) > 0,
			Inverted: r.IntN(3) == 0,
			Fast:     r.IntN(2) == 0,
			Now:      r.IntN(ports + 1),
		})
	}
	return list, wanted
}

func BenchmarkPorts8x8(b *testing.B) {
	ports, needs := randomPorts(rand.New(rand.NewPCG(1, 1)), 8, 8)
	for b.Loop() {
		assign(ports, needs)
	}
	b.ReportMetric(1, "goal-ms")
}

// Outside check: trying every slot for every crimp on small plugs finds no plan
// with fewer moves, and finds one just where ours does.
func TestRepinsAgreeWithBruteForce(t *testing.T) {
	found := 0
	for seed := range uint64(250) {
		r := rand.New(rand.NewPCG(seed, 9))
		n := 2 + r.IntN(2)
		perm := r.Perm(n)
		var wires []gear.HarnessWire
		for i := range n {
			if r.IntN(5) > 0 {
				wires = append(wires, gear.HarnessWire{From: i + 1, To: perm[i] + 1})
			}
		}
		var goals []Goal
		pinsOf, slotsOf := r.Perm(n), r.Perm(n)
		for k := range 1 + r.IntN(n) {
			goals = append(goals, Goal{pinsOf[k] + 1, slotsOf[k] + 1})
		}
		bad := map[Goal]bool{}
		for a := 1; a <= n; a++ {
			for b := 1; b <= n; b++ {
				bad[Goal{a, b}] = r.IntN(2) == 0
			}
		}
		ends := []Ends{{true, true}, {true, false}, {false, true}}[r.IntN(3)]
		harmful := func(pin, slot int) bool { return bad[Goal{pin, slot}] }
		moves, ok := repin(wires, goals, ends, harmful)
		best := bruteRepin(wires, goals, ends, harmful, n)
		require.Equal(t, best >= 0, ok, "seed %d: %v to %v", seed, wires, goals)
		if !ok {
			continue
		}
		found++
		require.Len(t, moves, best, "seed %d: %v to %v: %v", seed, wires, goals, moves)
		require.True(t, serves((&fleet.Wiring{Moved: moves}).Wired(&gear.Harness{Wires: wires}), goals, harmful),
			"seed %d: %v", seed, moves)
	}
	require.Greater(t, found, 100)
}

// serves says whether wires make all goals, share no slot, and join nothing that
// harms beside.
func serves(wires []gear.HarnessWire, goals []Goal, harmful func(int, int) bool) bool {
	froms, tos := map[int]bool{}, map[int]bool{}
	made := map[Goal]bool{}
	for _, w := range wires {
		if w.From > 0 && froms[w.From] || w.To > 0 && tos[w.To] {
			return false
		}
		froms[w.From], tos[w.To] = true, true
		if w.From == 0 || w.To == 0 {
			continue
		}
		g := Goal{w.From, w.To}
		if slices.Contains(goals, g) {
			made[g] = true
		} else if harmful(w.From, w.To) {
			return false
		}
	}
	return len(made) == len(goals)
}

func bruteRepin(wires []gear.HarnessWire, goals []Goal, ends Ends, harmful func(int, int) bool, n int) int {
	best := -1
	at := slices.Clone(wires)
	var try func(i, cost int)
	try = func(i, cost int) {
		if best >= 0 && cost >= best {
			return
		}
		if i == len(wires) {
			if serves(at, goals, harmful) {
				best = cost
			}
			return
		}
		for from := range n + 1 {
			for to := range n + 1 {
				c := 0
				if from != wires[i].From {
					c++
				}
				if to != wires[i].To {
					c++
				}
				if from != wires[i].From && !ends.Unit || to != wires[i].To && !ends.Board {
					continue
				}
				at[i].From, at[i].To = from, to
				try(i+1, cost+c)
			}
		}
	}
	try(0, 0)
	return best
}

// A law: the re-pin plan of any cable makes the gate fit, and at no step of it is
// the supply joined with anything but the supply.
func TestARepinnedCableFits(t *testing.T) {
	begins := make([]int, 6)
	for seed := range uint64(120) {
		r := rand.New(rand.NewPCG(seed, 3))
		to := r.Perm(6)
		for i := range to {
			to[i]++
		}
		set := sample.Set()
		set.Harnesses = append(set.Harnesses, gear.Harness{
			Entry: gear.Entry{ID: "mixed"},
			From:  "sh-6",
			To:    "sh-6",
			Wires: sample.Wires(to...),
		})
		into := set.Boards[0].Plugs[0].Pins // whatever pin the plug of the board begins with
		first := int(seed) % len(into)
		set.Boards[0].Plugs[0].Pins = slices.Concat(into[first:], into[:first])
		f := fleet.Fit{
			AirUnit:    &fleet.Slot{Model: "second"},
			Controller: &fleet.Slot{Kit: "new-hand"},
			Board:      "board",
			Feeds:      []fleet.Feed{{To: fleet.NodeAirUnit, From: "board.10v"}},
			Wiring:     fleet.Wiring{Harness: "mixed", HarnessTo: "hd"},
		}
		c := sample.Case(set, []fleet.Kit{sample.Own("new-hand", "1.1", "")}, f)
		plans := Repins(c)
		begins[first] += len(plans)
		for _, plan := range plans {
			after := c.With(plan.Patch)
			findings := Check(after)
			require.Equal(t, CodeFits, findings[0].Code, "seed %d %v: %v", seed, to, findings[0].Says)
			l, _ := newLoom(c)
			walkSteps(t, l, plan.Moves)
		}
	}
	for first, planned := range begins {
		require.Greater(t, planned, 10, "a plug that begins %d pins on", first)
	}
}

// walkSteps takes the moves one crimp at a time in the order planned and looks
// that supply never meets a signal on the way.
func walkSteps(t *testing.T, l *loom, moves []fleet.CrimpMove) {
	t.Helper()
	out := slices.Clone(l.run.Harness.Wires)
	for i := range out { // every crimp to be moved is out before one goes in
		for _, m := range moves {
			if m.End == fleet.UnitEnd && l.run.Harness.Wires[i].From == m.From {
				out[i].From = 0
			}
			if m.End == fleet.BoardEnd && l.run.Harness.Wires[i].To == m.From {
				out[i].To = 0
			}
		}
	}
	steps := l.stepsOf(moves)
	require.Len(t, steps, 2+2*len(moves), fmt.Sprint(steps))
	for _, w := range out {
		function, terminal := l.run.Plug.Pin(w.From), l.run.Into.Pin(w.To)
		if function == "" || terminal == "" {
			continue
		}
		require.Equal(t, function == gear.PinSupply, l.power(terminal), "%s on %s with %v out", terminal, function, moves)
	}
}

// Outside check: the pitch and the order of the pads of the SH and GH classes in
// Debian's kicad-footprints: pads 1, 2, 3 … in a row, 1.0 and 1.25 mm apart. The
// demo's connectors say the same.
func TestPitchesAgreeWithFootprints(t *testing.T) {
	const library = "/usr/share/kicad/footprints"
	if _, err := os.Stat(library); err != nil {
		if os.Getenv("CI") != "" {
			t.Fatal("kicad-footprints is missing")
		}
		t.Skip("kicad-footprints is not installed: this check against it is left out")
	}
	text, err := os.ReadFile("../../../demo/harrow-fell.gear.json")
	require.NoError(t, err)
	var set gear.Set
	require.NoError(t, json.Unmarshal(text, &set))
	pad := regexp.MustCompile(`\(pad "?(\d+)"? smd \w+ \(at (-?[\d.]+) (-?[\d.]+)`)
	for class, id := range map[string]string{"_SH_SM06B-": "sh-6", "_SH_SM04B-": "sh-4", "_GH_SM06B-": "gh-6"} {
		files, err := filepath.Glob(library + "/*/*" + class + "*.kicad_mod")
		require.NoError(t, err)
		require.NotEmpty(t, files, class)
		connector, ok := gear.Find[*gear.Connector](gear.NewLibrary(&set), id)
		require.True(t, ok, id)
		footprint, err := os.ReadFile(files[0])
		require.NoError(t, err)
		var at []float64
		for i, found := range pad.FindAllStringSubmatch(string(footprint), *connector.Pins) {
			require.Equal(t, strconv.Itoa(i+1), found[1], "%s lists its pads in order", files[0])
			x, err := strconv.ParseFloat(found[2], 64)
			require.NoError(t, err)
			at = append(at, x)
		}
		require.Len(t, at, *connector.Pins)
		for i := range at[1:] {
			require.InDelta(t, float64(*connector.PitchMM), at[i+1]-at[i], 1e-9, "%s, pin %d", class, i+2)
		}
	}
}
