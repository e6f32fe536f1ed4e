package web_test

import (
	"cmp"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
	"yokeswap/internal/builds"
	"yokeswap/web"
)

// pressed is a patch an answer carries, with what it promises.
type pressed struct {
	from  string
	patch fleet.Patch
	fix   *verdict.Fix // nil: a pick, a feed, a re-pin; it promises to be taken
	gate  verdict.Gate
	of    verdict.Finding
	depth *swap.DepthOption // nil: it promises no level
	today bool              // of what is there today, not of the plan
}

// offered lists every patch in the answer for a quad.
func offered(v *web.QuadView) (list []pressed) {
	for _, g := range v.Judgement.Gates {
		for _, f := range g.Findings {
			for i := range f.Fixes {
				list = append(list, pressed{
					from: "fix of " + string(f.Code), patch: f.Fixes[i].Patch, fix: &f.Fixes[i], gate: g.Gate, of: f,
				})
			}
		}
	}
	for _, p := range v.Places {
		for _, o := range p.Options {
			list = append(list, pressed{from: "pick " + p.Name + " " + o.Key, patch: o.Patch})
		}
	}
	for _, f := range v.Power.Feeds {
		list = append(list, pressed{from: "feed " + f.Says, patch: f.Patch})
	}
	for _, r := range v.Pins.Repins {
		list = append(list, pressed{from: "re-pin " + r.Says, patch: r.Patch})
	}
	for i := range v.Pins.Depths {
		d := &v.Pins.Depths[i]
		list = append(list, pressed{from: "depth " + d.Label + " by " + d.Sticks, patch: d.Patch, depth: d})
	}
	for _, table := range []*pins.Table{&v.Pins.Today, &v.Pins.Table} {
		today := table == &v.Pins.Today
		for _, a := range table.Adds {
			list = append(list, pressed{from: "add " + a.Label, patch: a.Patch, today: today})
		}
		for _, p := range table.Parts {
			for _, way := range p.Joined {
				list = append(list, pressed{from: "joining " + p.Label + " " + way.Label, patch: way.Patch, today: today})
			}
			if p.Takes != nil {
				list = append(list, pressed{from: "take out " + p.Label, patch: *p.Takes, today: today})
			}
		}
	}
	return list
}

// rank puts fixes before picks.
func rank(p pressed) int {
	if p.fix != nil {
		return 0
	}
	return 1
}

// press sends each patch an answer for a quad carries, holds it to its promise, and
// puts the quad back.
func press(t *testing.T, c client, quad string, most int) (count int) {
	before := get[web.QuadView](c, "/api/quads/"+quad)
	revision, entry := entryOf(c, "quad", quad)
	list := offered(&before)
	if len(list) > most {
		rand.New(rand.NewPCG(1, uint64(len(list)))).Shuffle(len(list), func(a, b int) { list[a], list[b] = list[b], list[a] })
		slices.SortStableFunc(list, func(a, b pressed) int { return cmp.Compare(rank(a), rank(b)) })
		list = list[:most]
	}
	for _, p := range list {
		patch, err := json.Marshal(p.patch)
		require.NoError(t, err)
		fit := "next"
		if p.today {
			fit = "now"
		}
		status, text := c.do("POST", "/api/quads/"+quad+"/"+fit, fmt.Sprintf(`{"revision":%d,"patch":%s}`, revision, patch))
		if !assert.Equal(t, 200, status, "%s, %s: %s is refused: %s", quad, p.from, patch, text) {
			continue
		}
		count++
		var after web.QuadView
		require.NoError(t, json.Unmarshal([]byte(text), &after))
		keeps(t, quad, p, &before, &after)
		status, text = c.do("PUT", fmt.Sprintf("/api/entries/quad/%s?revision=%d", quad, after.Revision), string(entry))
		require.Equal(t, 200, status, text)
		var saved web.Saved
		require.NoError(t, json.Unmarshal([]byte(text), &saved))
		revision = saved.Revision
	}
	return count
}

// keeps holds a depth of wiring to its level and a fix to its word: the levels promised, the finding gone, and nothing
// more dangerous anywhere than the worst before.
func keeps(t *testing.T, quad string, p pressed, before, after *web.QuadView) {
	if p.depth != nil {
		worst := verdict.Fits
		for _, gate := range []verdict.Gate{verdict.Link, verdict.Power, verdict.Pins, verdict.OSD, verdict.Control} {
			if is := after.Judgement.Gate(gate).Level; is.WorseThan(worst) {
				worst = is
			}
		}
		assert.Equal(t, p.depth.Level, worst, "%s, %s", quad, p.from)
	}
	if p.fix == nil {
		return
	}
	name := quad + ", " + p.from + ": " + p.fix.Says
	gate := after.Judgement.Gate(p.gate)
	assert.Equal(t, p.fix.Gate, gate.Level, name)
	assert.Equal(t, p.fix.Quad, after.Judgement.Level, name)
	assert.Equal(t, p.fix.Danger, after.Judgement.Danger, name)
	assert.NotEmpty(t, p.fix.Says, name)
	for _, f := range gate.Findings {
		if f.Code == p.of.Code && f.Subject == p.of.Subject && !p.of.Level.WorseThan(f.Level) {
			t.Errorf("%s leaves %s as it was: %s", name, f.Code, f.Says)
		}
	}
	assert.False(t, after.Judgement.Danger.WorseThan(before.Judgement.Danger), "%s: %s, was %s", name,
		after.Judgement.Danger, before.Judgement.Danger)
	for _, g := range before.Judgement.Gates {
		if is := after.Judgement.Gate(g.Gate); g.Gate != p.gate {
			assert.False(t, is.Level.WorseThan(g.Level), "%s: the %s gate is %s, was %s", name, g.Gate, is.Level, g.Level)
		}
	}
}

// entryOf is an entry as the shelf has it, with its revision.
func entryOf(c client, kind, id string) (int64, json.RawMessage) {
	for _, e := range get[struct {
		Entries []struct {
			Kind, ID string
			Revision int64
			Entry    json.RawMessage
		}
	}](c, "/api/shelf").Entries {
		if e.Kind == kind && e.ID == id {
			return e.Revision, e.Entry
		}
	}
	return 0, nil
}

// A promise: every fix, pick, feed and re-pin offered for the demo is accepted when
// it is pressed, and does what it says.
func TestEveryPatchOfTheDemoIsAsGoodAsItsWord(t *testing.T) {
	var count atomic.Int64
	t.Run("quads", func(t *testing.T) {
		for _, quad := range []string{
			"rynd", "quern", "damsel", "wallower", "fantail", "hopper",
			"brayer", "sluice", "whip",
		} {
			t.Run(quad, func(t *testing.T) {
				t.Parallel()
				count.Add(int64(press(t, newClient(t, ""), quad, 1000)))
			})
		}
	})
	t.Logf("%d patches pressed", count.Load())
	assert.Greater(t, count.Load(), int64(500))
}

// The same for builds nobody has thought of: 60 of them here, and as many as
// SOAK says in the longer run.
func TestEveryPatchOfAnyBuildIsAsGoodAsItsWord(t *testing.T) {
	lib, index := demoLibrary(t)
	n, most := 60, 4
	if soak, err := strconv.Atoi(os.Getenv("SOAK")); err == nil {
		n, most = soak, 40
	}
	var count atomic.Int64
	t.Run("builds", func(t *testing.T) {
		const programs = 4 // each presses its share
		for first := range programs {
			t.Run(fmt.Sprint(first), func(t *testing.T) {
				t.Parallel()
				c := newClient(t, "")
				alone(c)
				for seed := first; seed < n && !t.Failed(); seed += programs {
					q := builds.New(uint64(seed), lib, index).Quad("build")
					body, err := format.Write(q)
					require.NoError(t, err)
					revision, _ := entryOf(c, "quad", "build")
					status, text := c.do("PUT", fmt.Sprintf("/api/entries/quad/build?revision=%d", revision), string(body))
					require.Equal(t, 200, status, "seed %d: %s\n%s", seed, text, body)
					count.Add(int64(press(t, c, "build", most)))
					if t.Failed() {
						t.Errorf("seed %d", seed)
					}
				}
			})
		}
	})
	t.Logf("%d patches of %d builds pressed", count.Load(), n)
}

// alone takes the demo's quads out: they have a claim on every piece of kit, and a link
// gate that says so offers nothing else.
func alone(c client) {
	view := get[web.RouteView](c, "/api/route")
	status, text := c.do("PUT", "/api/route", fmt.Sprintf(`{"revision":%d,"goals":{}}`, view.Revision))
	require.Equal(c.t, 200, status, text)
	for _, q := range view.Quads {
		revision, _ := entryOf(c, "quad", q.ID)
		status, text := c.do("DELETE", fmt.Sprintf("/api/entries/quad/%s?revision=%d", q.ID, revision), "")
		require.Less(c.t, status, 300, text)
	}
}

func demoLibrary(t *testing.T) (*gear.Library, *fleet.Index) {
	st := builds.Demo()
	return st.Library(), fleet.NewIndex(st.Fleet)
}

// A capacitor that lies in the drawer and does is offered where one is needed, with nothing to buy, and is
// taken in one press.
func TestTheCapacitorInTheDrawerIsTakenInOnePress(t *testing.T) {
	c := newClient(t, "")
	put := func(kind, id, body string, revision int64) {
		status, text := c.do("PUT", fmt.Sprintf("/api/entries/%s/%s?revision=%d", kind, id, revision), body)
		require.Equal(t, 200, status, text)
	}
	put("capacitor", "big", `{"id":"big","name":"Big","source":{"kind":"measured"},"uf":1000,"ratedV":50}`, 0)
	put("spare", "big", `{"model":"big","count":1}`, 0)
	revision, entry := entryOf(c, "quad", "damsel")
	var quad fleet.Quad
	require.NoError(t, json.Unmarshal(entry, &quad))
	next := quad.NextFit()
	next.CapacitorUF, next.CapacitorV = nil, nil
	quad.Next = &next
	body, err := json.Marshal(quad)
	require.NoError(t, err)
	put("quad", "damsel", string(body), revision)

	view := get[web.QuadView](c, "/api/quads/damsel")
	list := offered(&view)
	at := slices.IndexFunc(list, func(p pressed) bool { return p.patch.CapacitorUF != nil && *p.patch.CapacitorUF == 1000 })
	require.GreaterOrEqual(t, at, 0)
	patch, err := json.Marshal(list[at].patch)
	require.NoError(t, err)
	revision, _ = entryOf(c, "quad", "damsel")
	status, text := c.do("POST", "/api/quads/damsel/next", fmt.Sprintf(`{"revision":%d,"patch":%s}`, revision, patch))
	require.Equal(t, 200, status, text)
	var after web.QuadView
	require.NoError(t, json.Unmarshal([]byte(text), &after))
	keeps(t, "damsel", list[at], &view, &after)
	for _, item := range get[web.ShoppingView](c, "/api/shopping").Items {
		if item.Model == "big" {
			assert.Equal(t, []int{1, 1, 0}, []int{item.Need, item.Have, item.Buy})
			return
		}
	}
	t.Error("it is not on the list of parts to have ready")
}
