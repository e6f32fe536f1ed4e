package swap_test

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/channels"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/mount"
	"yokeswap/core/gates/osd"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
	"yokeswap/core/plans/route"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
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
		}
	}},
	{"re-pinning", func(c fleet.Case) any { return pins.Repins(c) }},
	{"antennas", func(c fleet.Case) any { return []any{antenna.Draw(c), antenna.Compare(c.Library, c.Fleet, c.Quad)} }},
	{"seat", func(c fleet.Case) any { return []any{mount.Draw(c), mount.Weigh(c.Library, c.Fleet, c.Quad, nil)} }},
	{"osd", func(c fleet.Case) any { return osd.Draw(c) }},
	{"control", func(c fleet.Case) any { return control.Draw(c) }},
	{"settings", func(c fleet.Case) any { return setup.PlanOf(c) }},
	{"picks", func(c fleet.Case) any { return []any{swap.Places(c), swap.FromAnalog(c.Library, c.Fleet, c.Quad)} }},
	{"sheet", func(c fleet.Case) any { return bench.NewSheet(c, swap.Judge(c), "a", "b") }},
}

func TestWhatIsDrawnOfTheDemo(t *testing.T) {
	st := demoStock(t)
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
	var pilots []channels.Pilot
	for i := range f.Quads {
		if pilot, ok := channels.Of(fleet.NewCase(st.Library(), f, &f.Quads[i])); ok {
			pilots = append(pilots, pilot)
		}
	}
	line("channels", channels.Find(pilots))
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
	st := demoStock(t)
	lines := make([]string, 80)
	var wait sync.WaitGroup
	for seed := range lines {
		wait.Go(func() {
			f := builds.Alone(uint64(seed), st.Library(), st.Fleet)
			c := fleet.NewCase(st.Library(), f, &f.Quads[0])
			lines[seed] = fmt.Sprintf("build %d", seed)
			for _, part := range drawn {
				raw, err := json.Marshal(part.of(c))
				if err != nil {
					raw = []byte(err.Error())
				}
				lines[seed] += fmt.Sprintf(" %s %x", part.name, sha256.Sum256(raw))[:len(part.name)+10]
			}
		})
	}
	wait.Wait()
	approved(t, "sums.txt", strings.Join(lines, "\n")+"\n")
}
