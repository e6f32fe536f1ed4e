package swap_test

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/channels"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/mount"
	"yokeswap/core/gates/osd"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
	"yokeswap/core/plans/begin"
	"yokeswap/core/plans/route"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/diagnose"
	"yokeswap/core/work/setup"
	"yokeswap/internal/builds"
)

// What is drawn and listed stands in testdata too: of the demo's quads as JSON, of builds
// drawn at random as a check sum, so that a change of the code that should change nothing
// can be seen to change nothing. SAID=1 writes it anew.

// drawn are the parts of a quad's page, by name.
var drawn = []struct {
	name string
	of   func(c fleet.Case) any
}{
	{"supply", func(c fleet.Case) any { return []any{power.Trace(c), power.Feeds(c)} }},
	{"link", func(c fleet.Case) any { return link.Draw(c) }},
	{"wiring", func(c fleet.Case) any {
		ports, known := pins.Ports(c)
		return []any{
			pins.Draw(c),
			pins.Compare(c.Library, c.Fleet, c.Quad),
			pins.Headers(c),
			pins.Soldering(c),
			pins.Continuity(c),
			ports,
			known,
			pins.DrawParts(c),
			pins.TakeOff(c.Library, c.Fleet, c.Quad),
		}
	}},
	{"re-pinning", func(c fleet.Case) any { return pins.Repins(c) }},
	{"antennas", func(c fleet.Case) any { return []any{antenna.Draw(c), antenna.Compare(c.Library, c.Fleet, c.Quad)} }},
	{"seat", func(c fleet.Case) any {
		return []any{mount.Draw(c), mount.Weigh(c.Library, c.Fleet, c.Quad, nil), mount.RoomOf(c), mount.BalanceOf(c, c.Quad.AUWG)}
	}},
	{"osd", func(c fleet.Case) any { return osd.Draw(c) }},
	{"control", func(c fleet.Case) any { return control.Draw(c) }},
	{"settings", func(c fleet.Case) any { return setup.PlanOf(c) }},
	{"picks", func(c fleet.Case) any { return []any{swap.Places(c), swap.FromAnalog(c.Library, c.Fleet, c.Quad)} }},
	{"sheet", func(c fleet.Case) any { return bench.NewSheet(c, swap.Judge(c), "a", "b") }},
}

// listed is what else is told of a quad, too long to stand in testdata word for word.
var listed = []struct {
	name string
	of   func(c fleet.Case) any
}{
	{"slots", func(c fleet.Case) any {
		now := fleet.NowCase(c.Library, c.Fleet, c.Quad)
		return []any{begin.Slots(c, nil), begin.Slots(now, nil), swap.Depths(c), swap.Depths(now)}
	}},
	{"told", func(c fleet.Case) any {
		now := fleet.NowCase(c.Library, c.Fleet, c.Quad)
		next, _ := setup.Of(c)
		today, _ := setup.Of(now)
		return []any{setup.Tells(now, next), setup.Tells(c, today), setup.Compare(c, today)}
	}},
}

// Faults are told of every symptom, for a build as it is judged.
func faults(c fleet.Case) any {
	j := swap.Judge(c)
	list := []diagnose.Diagnosis{}
	for _, symptom := range diagnose.Symptoms(c) {
		found, _ := diagnose.Find(symptom.ID, c, &j, nil, nil)
		list = append(list, found)
	}
	return list
}

// sum is a check sum of what is said or drawn, short enough for a line.
func sum(name string, v any) string {
	raw, err := json.Marshal(v)
	if err != nil {
		raw = []byte(err.Error())
	}
	return fmt.Sprintf(" %s %x", name, sha256.Sum256(raw))[:len(name)+10]
}

// The routes of the demo's fleet for goals drawn at random: the plan, why what cannot be
// had cannot, the way back from half way, the record.
func TestWhatIsPlannedForRandomGoals(t *testing.T) {
	st := builds.Demo()
	lines := make([]string, 80)
	var wait sync.WaitGroup
	for seed := range lines {
		wait.Go(func() {
			draw := rand.New(rand.NewPCG(uint64(seed), 7))
			f := fleet.NewIndex(st.Fleet)
			request := route.Request{Library: st.Library(), Fleet: f, Values: f.Values, KeepWayBack: draw.IntN(3) == 0}
			for _, q := range f.Quads {
				for _, goggles := range []string{"visor-a-1", "visor-b-1", "visor-c-1"} {
					if draw.IntN(3) == 0 {
						want := fleet.Want{Quad: q.ID, Goggles: goggles, Weight: fleet.Wish}
						if draw.IntN(3) == 0 {
							want.Weight = fleet.Must
						}
						if draw.IntN(4) == 0 {
							want.Controller = fleet.SeparateReceiver
						}
						request.Wants = append(request.Wants, want)
					}
				}
			}
			plan, err := route.Solve(request)
			lines[seed] = fmt.Sprintf("goals %d", seed) + sum("plan", []any{plan, err})
			for want := range request.Wants {
				why, err := route.Why(request, want)
				lines[seed] += sum("why", []any{why, err})
			}
			after, homes, err := route.After(request, plan.Steps[:len(plan.Steps)/2])
			if err == nil {
				back, err := route.WayBack(after, homes)
				lines[seed] += sum("back", []any{back, err})
			}
		})
	}
	wait.Wait()
	approved(t, "routes.txt", strings.Join(lines, "\n")+"\n")
}

func TestWhatIsDrawnOfTheDemo(t *testing.T) {
	st := builds.Demo()
	f := fleet.NewIndex(st.Fleet)
	var text strings.Builder
	line := func(name string, v any) {
		raw, err := json.MarshalIndent(v, "", " ")
		require.NoError(t, err)
		// A release right behind the word would read as the name of a model.
		plain := strings.ReplaceAll(string(raw), `"goggles": "`, `"goggles": "on `)
		fmt.Fprintf(&text, "# %s\n%s\n", name, plain)
	}
	for i := range f.Quads {
		c := fleet.NewCase(st.Library(), f, &f.Quads[i])
		for _, part := range drawn {
			line(c.Quad.ID+" "+part.name, part.of(c))
		}
	}
	line("antenna sets", antenna.Sets(st.Library(), f))
	line("channels", channels.Find(pilotsOf(st.Library(), f)))
	request := route.Request{Library: st.Library(), Fleet: f, Wants: f.Wants, Values: f.Values, KeepWayBack: f.KeepWayBack}
	plan, err := route.Solve(request)
	require.NoError(t, err)
	line("route", plan)
	request.KeepWayBack = true
	plan, err = route.Solve(request)
	require.NoError(t, err)
	line("route with a way back", plan)
	approved(t, "drawn.txt", text.String())
}

func TestWhatIsDrawnOfRandomBuilds(t *testing.T) {
	withoutRace(t)
	st := builds.Demo()
	lines := make([]string, 240)
	var wait sync.WaitGroup
	for seed := range lines {
		wait.Go(func() {
			f := builds.Alone(uint64(seed), st.Library(), st.Fleet)
			lines[seed] = fmt.Sprintf("build %d", seed) + sums(fleet.NewCase(st.Library(), f, &f.Quads[0]))
		})
	}
	wait.Wait()
	approved(t, "sums.txt", strings.Join(lines, "\n")+"\n")
}

// The same of fleets that lack facts, so that what is said of what is missing is seen too.
func TestWhatIsDrawnWhereFactsAreMissing(t *testing.T) {
	withoutRace(t)
	st := builds.Demo()
	lines := make([]string, 240)
	var wait sync.WaitGroup
	for seed := range lines {
		wait.Go(func() {
			less, f := builds.Torn(uint64(seed), st)
			if f == nil {
				return // it could stand in no file
			}
			lib := less.Library()
			lines[seed] = fmt.Sprintf("torn %d", seed) + sums(fleet.NewCase(lib, f, &f.Quads[0])) +
				sum("the other", sums(fleet.NewCase(lib, f, &f.Quads[1]))) + sum("sets", antenna.Sets(lib, f)) +
				sum("channels", channels.Find(pilotsOf(lib, f)))
		})
	}
	wait.Wait()
	lines = slices.DeleteFunc(lines, func(line string) bool { return line == "" })
	require.Greater(t, len(lines), 75)
	approved(t, "torn.txt", strings.Join(lines, "\n")+"\n")
}

// sums are those of all that is said and drawn of a quad.
func sums(c fleet.Case) (line string) {
	for _, part := range slices.Concat(drawn, listed) {
		line += sum(part.name, part.of(c))
	}
	return line + sum("said", swap.JudgeWithFixes(c).Gates) + sum("faults", faults(c)) +
		sum("board", swap.NewBoard(c.Library, c.Fleet, nil).Rows) + sum("shopping", swap.Shopping(c.Library, c.Fleet))
}

func pilotsOf(lib *gear.Library, f *fleet.Index) (pilots []channels.Pilot) {
	for i := range f.Quads {
		if pilot, ok := channels.Of(fleet.NewCase(lib, f, &f.Quads[i])); ok {
			pilots = append(pilots, pilot)
		}
	}
	return pilots
}
