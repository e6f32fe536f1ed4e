package web_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"maps"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/plans/route"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/demo"
	"yokeswap/store"
	"yokeswap/web"
)

// client talks to a server with the demo in it.
type client struct {
	t      *testing.T
	server *httptest.Server
}

// demoDatabase is the file a store leaves that has taken the demo in.
var demoDatabase = sync.OnceValue(func() []byte {
	dir, err := os.MkdirTemp("", "")
	if err == nil {
		defer os.RemoveAll(dir)
		var st *store.Store
		if st, err = store.Open(dir); err == nil {
			err = errors.Join(st.Update(store.Deed{}, func(s *stock.Stock) error { return demo.Load(s) }), st.Close())
		}
	}
	text, unread := os.ReadFile(filepath.Join(dir, store.FileName))
	if err = errors.Join(err, unread); err != nil {
		panic(err)
	}
	return text
})

func newClient(t *testing.T, key string) client {
	t.Helper()
	c, _ := withStore(t, key)
	return c
}

// withStore is newClient with the store it is served from.
func withStore(t *testing.T, key string) (client, *store.Store) {
	t.Helper()
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, store.FileName), demoDatabase(), 0o600))
	st, err := store.Open(dir)
	require.NoError(t, err)
	server := httptest.NewServer(web.New(st, web.Options{
		Version: "test",
		Key:     key,
		Log:     slog.New(slog.DiscardHandler),
	}))
	t.Cleanup(func() { server.Close(); st.Close() })
	return client{t, server}, st
}

func (c client) do(method, path, body string, headers ...string) (int, string) {
	c.t.Helper()
	request, err := http.NewRequest(method, c.server.URL+path, strings.NewReader(body))
	require.NoError(c.t, err)
	request.Header.Set("Content-Type", "application/json")
	for i := 0; i < len(headers); i += 2 {
		request.Header.Set(headers[i], headers[i+1])
		if headers[i] == "Host" {
			request.Host = headers[i+1]
		}
	}
	response, err := http.DefaultClient.Do(request)
	require.NoError(c.t, err)
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	require.NoError(c.t, err)
	return response.StatusCode, string(text)
}

func get[T any](c client, path string) (value T) {
	c.t.Helper()
	status, text := c.do("GET", path, "")
	require.Equal(c.t, 200, status, text)
	require.NoError(c.t, json.Unmarshal([]byte(text), &value))
	return value
}

func TestHealth(t *testing.T) {
	assert.Equal(t, web.Health{
		Status:   "ok",
		Version:  "test",
		Database: "ok",
	}, get[web.Health](newClient(t, ""), "/api/health"))
}

// The demo speaks at all five levels at each gate.
func TestTheDemoSpeaksAtAllLevels(t *testing.T) {
	board := get[swap.Board](newClient(t, ""), "/api/board")
	levels := map[verdict.Gate]map[verdict.Level]bool{
		verdict.Link:    {},
		verdict.Power:   {},
		verdict.Pins:    {},
		verdict.Antenna: {},
		verdict.OSD:     {},
		verdict.Control: {},
		verdict.Mount:   {},
	}
	for _, row := range board.Rows {
		for _, g := range row.Gates {
			levels[g.Gate][g.Level] = true
		}
	}
	for gate, seen := range levels {
		assert.Len(t, seen, 5, "%s: %v", gate, seen)
	}
	left := get[swap.Board](newClient(t, ""), "/api/board?left=visor-a-1,visor-b-1,visor-c-1")
	assert.Contains(t, left.Says, "No goggles at the bench")
}

// What the interface's types say is never null, never is: of all that is read, as far as the demo has it.
func TestNothingIsNull(t *testing.T) {
	c := newClient(t, "")
	text, err := os.ReadFile("../ui/openapi.json")
	require.NoError(t, err)
	var api struct {
		Paths map[string]map[string]struct {
			Parameters []struct{ In string }
		}
	}
	require.NoError(t, json.Unmarshal(text, &api))
	ids := map[string][]string{"{quad}": {"damsel", "hopper", "sluice", "whip"}, "{kit}": {"visor-c-1"},
		"{set}": {"harrow-fell"}, "{flight}": {}}
	for _, flight := range get[fleet.Fleet](c, "/api/export/fleet").TestFlights[:2] {
		ids["{flight}"] = append(ids["{flight}"], flight.ID)
	}
	asked := 0
	for path, does := range api.Paths {
		if _, read := does["get"]; !read || path == "/api/events" || path == "/api/backup" {
			continue // the one goes on for ever, the other is an archive
		}
		paths := []string{path}
		for name, list := range ids {
			for k := len(paths) - 1; k >= 0 && strings.Contains(path, name); k-- {
				for _, id := range list {
					paths = append(paths, strings.Replace(paths[k], name, id, 1))
				}
				paths = slices.Delete(paths, k, k+1)
			}
		}
		for _, path := range paths {
			if strings.Contains(path, "{") {
				continue
			}
			status, text := c.do("GET", path, "")
			if status != 200 {
				continue // it has to be asked more
			}
			asked++
			assert.NotContains(t, text, ":null", path)
			assert.NotContains(t, text, "[null", path)
		}
	}
	assert.Greater(t, asked, 60)
}

func post(c client, quad string, revision int64, patch string) (int, string) {
	body, _ := json.Marshal(map[string]any{"revision": revision, "patch": json.RawMessage(patch)})
	return c.do("POST", "/api/quads/"+quad+"/next", string(body))
}

func TestAFixPressedGivesWhatItSaid(t *testing.T) {
	c := newClient(t, "")
	view := get[web.QuadView](c, "/api/quads/wallower")
	power := view.Judgement.Gate(verdict.Power)
	require.Equal(t, verdict.Unfit, power.Level)
	for _, f := range power.Findings {
		if len(f.Fixes) == 0 {
			continue
		}
		patch, err := json.Marshal(f.Fixes[0].Patch)
		require.NoError(t, err)
		status, text := post(c, "wallower", view.Revision, string(patch))
		require.Equal(t, 200, status, text)
		after := get[web.QuadView](c, "/api/quads/wallower").Judgement
		assert.Equal(t, f.Fixes[0].Gate, after.Gate(verdict.Power).Level)
		assert.Equal(t, f.Fixes[0].Quad, after.Level)
		return
	}
	t.Fatal("no fix was offered")
}

func TestAStalePlanAnswersWithWhatIsThere(t *testing.T) {
	c := newClient(t, "")
	revision := get[web.QuadView](c, "/api/quads/quern").Revision
	status, text := post(c, "quern", revision, `{"pack":"tallow-6s"}`)
	require.Equal(t, 200, status, text)
	status, text = post(c, "quern", revision, `{"pack":"tallow-3s"}`)
	require.Equal(t, 409, status)
	var conflict web.Conflict
	require.NoError(t, json.Unmarshal([]byte(text), &conflict))
	assert.Equal(t, []stock.FieldChange{{
		Path:   "next.pack",
		Before: "tallow-6s",
		After:  "tallow-3s",
	}}, conflict.Differences)
	status, text = post(c, "quern", conflict.Revision, `{"pack":"tallow-3s"}`)
	assert.Equal(t, 200, status, text)
}

func TestAPatchBringsInNothingAFileCouldNot(t *testing.T) {
	c := newClient(t, "")
	revision := get[web.QuadView](c, "/api/quads/quern").Revision
	for patch, says := range map[string]string{
		`{"pack":"nix"}`:                       `next.pack`,
		`{"airUnit":{"kit":"visor-a-1"}}`:      `next.airUnit.kit`,
		`{"airUnit":{"kit":"a","model":"b"}}`:  `next.airUnit`,
		`{"feed":{"to":"airUnit","from":"x"}}`: `next.feeds[0].from`,
		`{"capacitorUF":-3}`:                   `next.capacitorUF`,
		`{"surprise":1}`:                       `surprise`,
	} {
		status, text := post(c, "quern", revision, patch)
		assert.Equal(t, 422, status, patch)
		assert.Contains(t, text, says, patch)
	}
	assert.Equal(t, revision, get[web.QuadView](c, "/api/quads/quern").Revision, "nothing changed")
	status, _ := post(c, "nix", 0, `{}`)
	assert.Equal(t, 404, status)
	status, text := c.do("POST", "/api/quads/quern/next", "not json")
	assert.Equal(t, 422, status, text)
}

func TestImportIsPreviewedAndNeverOverwritesSilently(t *testing.T) {
	c := newClient(t, "")
	text, err := demo.Files.ReadFile(demo.Names[0])
	require.NoError(t, err)
	changed := string(bytes.Replace(text, []byte(`"maxV": 17.8`), []byte(`"maxV": 18.4`), 1))
	preview := func(query string) (int, web.Import, string) {
		status, text := c.do("POST", "/api/import?"+query, changed)
		var out web.Import
		_ = json.Unmarshal([]byte(text), &out)
		return status, out, text
	}
	status, out, _ := preview("")
	require.Equal(t, 200, status)
	require.Len(t, out.Difference.Changed, 1)
	assert.False(t, out.Applied)
	base := out.Base

	status, _, says := preview("apply=true&base=" + itoa(base))
	assert.Equal(t, 409, status, says)
	status, out, says = preview("apply=true&replace=true&base=" + itoa(base))
	require.Equal(t, 200, status, says)
	assert.True(t, out.Applied)
	status, _, says = preview("apply=true&replace=true&base=" + itoa(base))
	assert.Equal(t, 409, status, "the state it was previewed against is gone: %s", says)

	_, exported := c.do("GET", "/api/export/gear/harrow-fell", "")
	assert.Equal(t, changed, exported, "the export of an import is equal to it")
	_, exported = c.do("GET", "/api/export/fleet", "")
	want, err := demo.Files.ReadFile(demo.Names[1])
	require.NoError(t, err)
	assert.Equal(t, string(want), exported)

	status, says = c.do("POST", "/api/import", `{"format":"fleet","version":1,"title":"t","kit":[{"id":"a"}]}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, says, `"location":"kit[0].model"`)
	status, says = c.do("POST", "/api/import", "")
	assert.GreaterOrEqual(t, status, 400, says)
}

func itoa(n int64) string { text, _ := json.Marshal(n); return string(text) }

func TestEntriesByHand(t *testing.T) {
	c := newClient(t, "")
	put := func(revision, body string) (int, string) {
		return c.do("PUT", "/api/entries/airUnit/mine?revision="+revision, body)
	}
	status, text := put("0", `{"id":"mine","source":{"kind":"measured"},"input":{"minV":9,"maxV":5}}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "ends are swapped")
	status, text = put("0", `{"id":"mine","source":{"kind":"measured"},"input":{"maxV":5}}`)
	require.Equal(t, 200, status, text)
	status, text = put("0", `{"id":"mine","source":{"kind":"measured"},"input":{"maxV":6}}`)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, `"path":"input.maxV"`)

	status, text = c.do("DELETE", "/api/entries/goggles/visor-c?revision=1", "")
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "still named by")
	var saved web.Saved
	_, text = c.do("GET", "/api/shelf", "")
	require.Contains(t, text, `"id":"mine"`)
	status, text = c.do("DELETE", "/api/entries/airUnit/mine?revision=2", "")
	require.Equal(t, 200, status, text)
	require.NoError(t, json.Unmarshal([]byte(text), &saved))
	status, text = c.do("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, saved.Change))
	assert.Equal(t, 200, status, "what was taken out can be put back: %s", text)
	status, text = c.do("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, saved.Change))
	assert.Equal(t, 409, status, "once: %s", text)
	status, _ = c.do("POST", "/api/undo", `{"change":99999}`)
	assert.Equal(t, 404, status)
}

func TestTheRouteFollowsWhatIsWanted(t *testing.T) {
	c := newClient(t, "")
	view := get[web.RouteView](c, "/api/route")
	assert.Len(t, view.Plan.Links, 13)
	put := func(revision int64, goals string) (int, string) {
		return c.do("PUT", "/api/route", `{"revision":`+itoa(revision)+`,"goals":`+goals+`}`)
	}
	status, text := put(view.Revision, `{"wants":[{"quad":"damsel","goggles":"visor-c-1","weight":"must"}]}`)
	require.Equal(t, 200, status, text)
	after := get[web.RouteView](c, "/api/route")
	assert.True(t, after.Plan.Links[0].Met)
	assert.Equal(t, "1 of 1 wanted links work, after 4 steps on 3 devices, 1 of which cannot be brought back.",
		after.Plan.Says)

	status, text = put(view.Revision, `{"keepWayBack":true}`)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "keepWayBack")
	for goals, says := range map[string]string{
		`{"wants":[{"quad":"nix","goggles":"visor-c-1","weight":"must"}]}`:                                                            "wants[0].quad",
		`{"wants":[{"quad":"damsel","goggles":"grip-1-a","weight":"must"}]}`:                                                          "expected goggles",
		`{"wants":[{"quad":"damsel","goggles":"visor-c-1","weight":"dearly"}]}`:                                                       "wants[0].weight",
		`{"wants":[{"quad":"damsel","goggles":"visor-c-1","weight":"must"},{"quad":"damsel","goggles":"visor-c-1","weight":"wish"}]}`: "wanted already",
	} {
		status, text = put(after.Revision, goals)
		assert.Equal(t, 422, status, goals)
		assert.Contains(t, text, says, goals)
	}
	_, text = c.do("GET", "/api/route", "")
	assert.NotContains(t, text, ":null")
}

// How long steps took on one quad is told on the sheet of another.
func TestTheSheetSaysHowLongStepsTook(t *testing.T) {
	c, st := withStore(t, "")
	sheet := get[bench.Run](c, "/api/quads/wallower/bench")
	assert.Equal(t, bench.Day{Untimed: len(sheet.Steps)}, sheet.Day)
	at := time.Date(2026, 5, 12, 9, 0, 0, 0, time.UTC)
	for i, tick := range []bench.Record{
		{Step: "props-off", Done: true}, {Step: "check:picture", Done: true}, {Step: "check:sticks"},
		{Step: "check:failsafe", Done: true},
	} {
		tick.At = at.Add(time.Duration(i) * 4 * time.Minute)
		keep := func([]bench.Record) (bench.Record, error) { return tick, nil }
		require.NoError(t, st.Confirm(store.Deed{}, "quern", keep))
	}
	sheet = get[bench.Run](c, "/api/quads/wallower/bench")
	assert.Equal(t, bench.Day{Minutes: 12, Learned: 2, Untimed: len(sheet.Steps) - 2}, sheet.Day)
	step, ok := sheet.Step("check:failsafe")
	require.True(t, ok)
	assert.Equal(t, 8, *step.TookMinutes, "the tick between was taken back")
}

func TestBenchOverHTTP(t *testing.T) {
	c := newClient(t, "")
	tick := func(body string) (int, string) { return c.do("POST", "/api/quads/brayer/bench", body) }
	status, text := tick(`{"step":"props-off","done":true}`)
	require.Equal(t, 200, status, text)
	assert.Equal(t, 1, get[bench.Run](c, "/api/quads/brayer/bench").Done)
	status, text = tick(`{"step":"meter-short:pack","done":true}`)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "needs its reading")
	status, _ = tick(`{"step":"meter-short:pack","done":true,"value":2}`)
	require.Equal(t, 200, status)
	status, text = tick(`{"step":"bind:goggles:visor-c-1:Two of Brayer","done":true}`)
	assert.Equal(t, 409, status, "a reading out of limits stops the run")
	assert.Contains(t, text, "Stopped at")
	matings := func(id string) any {
		entries := get[web.Shelf](c, "/api/shelf").Entries
		at := slices.IndexFunc(entries, func(e web.ShelfEntry) bool { return e.Kind == "kit" && e.ID == id })
		return entries[at].Entry.(map[string]any)["matings"]
	}
	for _, done := range []struct{ now, want float64 }{{1, 1}, {1, 1}, {0, 0}} {
		status, text = c.do("POST", "/api/quads/quern/bench", fmt.Sprintf(`{"step":"fit:new Two","done":%t}`, done.now == 1))
		require.Equal(t, 200, status, text)
		assert.Equal(t, done.want, matings("two-quern"), "each tick of the step counts one mating")
	}
	status, text = c.do("POST", "/api/quads/wallower/bench", `{"step":"power-up:pack:tallow-6s","done":true}`)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "It burns")
}

func TestOnlyThisMachineAndThisPageAreAnswered(t *testing.T) {
	c := newClient(t, "")
	status, _ := c.do("GET", "/api/health", "", "Host", "pages.example")
	assert.Equal(t, 421, status, "another name that points here")
	status, _ = c.do("POST", "/api/quads/quern/next", "{}", "Origin", "http://pages.example")
	assert.Equal(t, 403, status, "another site's page")
	status, _ = c.do("POST", "/api/quads/quern/next", "{}", "Sec-Fetch-Site", "cross-site")
	assert.Equal(t, 403, status)
	status, text := c.do("POST", "/api/quads/quern/next", strings.Repeat(" ", 9<<20))
	assert.Equal(t, 413, status, text)

	response, err := http.Get(c.server.URL + "/")
	require.NoError(t, err)
	defer response.Body.Close()
	csp := response.Header.Get("Content-Security-Policy")
	assert.Contains(t, csp, "default-src 'none'")
	assert.NotContains(t, csp, "unsafe")
}

// A panic is a problem document on the screen and one line in the log, without a trace.
func TestAPanicIsAProblem(t *testing.T) {
	var lines bytes.Buffer
	handler := web.Recovered(
		slog.New(slog.NewTextHandler(&lines, nil)),
	)(
		http.HandlerFunc(func(http.ResponseWriter, *http.Request) {
			var none *web.RouteView
			_ = none.Title
		}),
	)
	answer := httptest.NewRecorder()
	handler.ServeHTTP(answer, httptest.NewRequest("GET", "/api/board", nil))
	assert.Equal(t, 500, answer.Code)
	assert.Equal(t, "application/problem+json", answer.Header().Get("Content-Type"))
	assert.Contains(t, answer.Body.String(), "fault of the program")
	assert.NotContains(t, answer.Body.String(), "nil pointer")
	assert.Equal(t, 1, strings.Count(lines.String(), "\n"), lines.String())
	assert.Contains(t, lines.String(), "at=web_test.go:")
}

func TestLoopback(t *testing.T) {
	for address, want := range map[string]bool{
		"127.0.0.1:8740": true,
		"[::1]:1":        true,
		"localhost:80":   true,
		"127.9.9.9:1":    true,
		"0.0.0.0:8740":   false,
		":8740":          false,
		"192.0.2.7:80":   false,
		"example.org:80": false,
		"nonsense":       false,
	} {
		assert.Equal(t, want, web.IsLoopback(address), address)
	}
}

func TestTheAPIDescribesItself(t *testing.T) {
	c := newClient(t, "")
	doc := get[map[string]any](c, "/openapi.json")
	assert.Equal(t, "3.1.0", doc["openapi"])
	assert.Contains(t, doc["paths"], "/api/board")
}

func TestTheRealRouteIsWalkedByWhatIsRead(t *testing.T) {
	c := newClient(t, "")
	take := func(device, do string, whole int64, more map[string]any) (int, string) {
		body := map[string]any{"device": device, "do": do, "revision": whole}
		maps.Copy(body, more)
		text, _ := json.Marshal(body)
		return c.do("POST", "/api/route/read", string(text))
	}
	read := func(device, version string, whole int64) (int, string) {
		return take(device, "update", whole, map[string]any{"firmware": version})
	}
	preview := get[web.BackView](c, "/api/route/back")
	assert.False(t, preview.Began)
	require.NotEmpty(t, preview.Back.Steps)
	was := get[fleet.Fleet](c, "/api/export/fleet").Kit
	view := get[web.RouteView](c, "/api/route")
	stale := view.Whole
	for range 20 {
		if len(view.Plan.Steps) == 0 {
			break
		}
		step := view.Plan.Steps[0]
		more := map[string]any{}
		switch step.Do {
		case route.Update:
			more["firmware"], more["planned"] = step.To, step.To
		case route.Mode:
			more["mode"] = step.Mode
		}
		status, text := take(step.Device, string(step.Do), view.Whole, more)
		require.Equal(t, 200, status, text)
		view = get[web.RouteView](c, "/api/route")
	}
	assert.Empty(t, view.Plan.Steps, "step by step the route comes to its end")
	require.NotEmpty(t, view.Taken)
	for _, step := range view.Taken {
		assert.True(t, step.AsPlan, step.Says)
	}
	back := get[web.BackView](c, "/api/route/back")
	assert.True(t, back.Began)
	assert.Equal(t, preview.Back.Doors, back.Back.Doors, "the doors are those named before the first step")
	for _, step := range back.Back.Steps {
		more := map[string]any{"firmware": step.To, "mode": step.Mode}
		status, text := take(step.Device, string(step.Do), get[web.RouteView](c, "/api/route").Whole, more)
		require.Equal(t, 200, status, text)
	}
	assert.Empty(t, get[web.BackView](c, "/api/route/back").Back.Steps)
	shut := strings.Join(back.Back.Doors, "\n")
	for i, kit := range get[fleet.Fleet](c, "/api/export/fleet").Kit {
		if !strings.Contains(shut, kit.Label()+":") {
			assert.Equal(t, was[i].Firmware, kit.Firmware, kit.ID)
			assert.Equal(t, was[i].Mode, kit.Mode, kit.ID)
		}
	}
	view = get[web.RouteView](c, "/api/route")
	status, _ := read("visor-c-1", "2.0", stale)
	assert.Equal(t, 409, status)
	status, _ = read("visor-c-1", "2.0", view.Whole)
	require.Equal(t, 200, status, "reality differs: it is planned again from there")
	view = get[web.RouteView](c, "/api/route")
	require.NotEmpty(t, view.Plan.Steps)
	first := view.Plan.Steps[0]
	status, text := take(first.Device, string(first.Do), view.Whole, map[string]any{
		"planned":    first.To,
		"notOffered": true,
	})
	require.Equal(t, 200, status, text)
	view = get[web.RouteView](c, "/api/route")
	for _, step := range view.Plan.Steps {
		assert.False(t, step.Device == first.Device && step.To == first.To, "what is not offered is planned round")
	}
	assert.Contains(t, view.Taken[len(view.Taken)-1].Says, "was not offered")
	status, text = c.do("POST", "/api/route/offered",
		fmt.Sprintf(`{"device":%q,"release":%q,"revision":%d}`, first.Device, first.To, view.Whole))
	require.Equal(t, 200, status, text)
	view = get[web.RouteView](c, "/api/route")
	assert.Equal(t, first, view.Plan.Steps[0], "offered after all, it is planned again")
	status, text = read("visor-c-1", "v9", view.Whole)
	assert.Equal(t, 422, status, text)
	status, _ = read("nix", "1.0", view.Whole)
	assert.Equal(t, 404, status)
	status, _ = c.do("POST", "/api/route/close", fmt.Sprintf(`{"revision":%d}`, view.Whole))
	assert.Equal(t, 200, status)
	assert.Empty(t, get[web.RouteView](c, "/api/route").Taken)
}

func TestTheRouteIsRehearsed(t *testing.T) {
	c := newClient(t, "")
	rehearse := func(actions string) (r web.Rehearsal) {
		status, text := c.do("POST", "/api/rehearsal", `{"actions":`+actions+`}`)
		require.Equal(t, 200, status, text)
		assert.NotContains(t, text, ":null")
		require.NoError(t, json.Unmarshal([]byte(text), &r))
		return r
	}
	r := rehearse(`[]`)
	require.NotEmpty(t, r.Plan)
	assert.NotEmpty(t, r.Off)
	var actions []any
	for _, p := range r.Plan {
		actions = append(actions, p.Action)
	}
	text, err := json.Marshal(actions)
	require.NoError(t, err)
	r = rehearse(string(text))
	assert.Empty(t, r.Off, "done right, the bench is as the route promises")
	for _, p := range r.Plan {
		assert.True(t, p.Done)
	}
	body := `{"back":true,"actions":` + string(text) + `}`
	status, answer := c.do("POST", "/api/rehearsal", body)
	require.Equal(t, 200, status, answer)
	require.NoError(t, json.Unmarshal([]byte(answer), &r))
	require.NotEmpty(t, r.Back)
	require.NotEmpty(t, r.Astray)
	for _, p := range r.Back {
		actions = append(actions, p.Action)
	}
	text, err = json.Marshal(actions)
	require.NoError(t, err)
	_, answer = c.do("POST", "/api/rehearsal", `{"back":true,"actions":`+string(text)+`}`)
	r = web.Rehearsal{}
	require.NoError(t, json.Unmarshal([]byte(answer), &r))
	assert.Empty(t, r.Astray, "the way back ends where it began")
	assert.NotEmpty(t, r.Off)
	r = rehearse(
		`[{"do":"update","device":"visor-b-1","to":"4.4","setup":{"tool":"Aldine Loft","chargeOnly":true,"batteryPct":90,"pack":false,"offline":false}}]`,
	)
	assert.False(t, r.Outcomes[0].Done)
	assert.Contains(t, r.Outcomes[0].Why, "no data wires")
}

// A firmware step of a quad's own sheet is ticked with what was read: the kit
// follows, and the step leaves the sheet.
func TestASheetsFirmwareStepIsTickedWithWhatWasRead(t *testing.T) {
	c := newClient(t, "")
	find := func() (bench.Step, bool) {
		for _, st := range get[bench.Run](c, "/api/quads/quern/bench").States {
			if st.Reads != nil {
				return st.Step, true
			}
		}
		return bench.Step{}, false
	}
	firmware := func(kit string) string {
		for _, k := range get[fleet.Fleet](c, "/api/export/fleet").Kit {
			if k.ID == kit {
				return string(k.Firmware)
			}
		}
		return ""
	}
	seen := 0
	for range 12 {
		step, ok := find()
		if !ok {
			break
		}
		seen++
		body, _ := json.Marshal(map[string]any{"step": step.ID, "done": true, "read": step.Reads.Release})
		status, text := c.do("POST", "/api/quads/quern/bench", string(body))
		require.Equal(t, 200, status, text)
		if step.Reads.Do == "update" {
			assert.Equal(t, string(step.Reads.Release), firmware(step.Reads.Kit))
		}
	}
	assert.Greater(t, seen, 1)
	_, left := find()
	assert.False(t, left, "every device is where the plan has it")
}

// The wiring can be taken along as a picture and as tables.
func TestTheWiringIsExported(t *testing.T) {
	c := newClient(t, "")
	status, text := c.do("GET", "/api/quads/wallower/wiring.csv", "")
	require.Equal(t, 200, status)
	rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	require.NoError(t, err)
	assert.Len(t, rows, 13, "a heading, six wires of the unit and six of the GPS")
	assert.Equal(t, []string{
		"Aldine One", "3", "UART RX", "Bramble F7", "", "TX 4",
		"white", "28", "150", "fits", "", "airUnit", "tx4",
	}, rows[3])
	status, text = c.do("GET", "/api/quads/wallower/soldering.csv", "")
	require.Equal(t, 200, status)
	assert.Contains(t, text, "crossed: RX goes to TX")
	status, text = c.do("GET", "/api/quads/quern/wiring.svg", "")
	require.Equal(t, 200, status)
	decoder := xml.NewDecoder(strings.NewReader(text))
	for err = nil; err == nil; {
		_, err = decoder.Token()
	}
	assert.Equal(t, io.EOF, err, "well-formed")
	assert.Contains(t, text, "UART TX")
	status, _ = c.do("GET", "/api/quads/nix/wiring.svg", "")
	assert.Equal(t, 404, status)
}

// A port that waits for telemetry nobody sends is freed in one press.
func TestAPortThatWaitsForNothingIsFreed(t *testing.T) {
	c := newClient(t, "")
	revision, entry := entryOf(c, "quad", "wallower")
	var quad fleet.Quad
	require.NoError(t, json.Unmarshal(entry, &quad))
	quad.Next.Ports = append(quad.Next.Ports, fleet.Port{UART: 6, Use: fleet.UseTelemetry})
	body, err := json.Marshal(quad)
	require.NoError(t, err)
	status, text := c.do("PUT", fmt.Sprintf("/api/entries/quad/wallower?revision=%d", revision), string(body))
	require.Equal(t, 200, status, text)
	view := get[web.QuadView](c, "/api/quads/wallower")
	gate := view.Judgement.Gate(verdict.Pins)
	at := slices.IndexFunc(gate.Findings, func(f verdict.Finding) bool { return f.Code == pins.CodeWaiting })
	require.GreaterOrEqual(t, at, 0, "%+v", gate.Findings)
	assert.Equal(t, verdict.Caution, gate.Level)
	require.NotEmpty(t, gate.Findings[at].Fixes)
	patch, err := json.Marshal(gate.Findings[at].Fixes[0].Patch)
	require.NoError(t, err)
	status, text = c.do("POST", "/api/quads/wallower/next", fmt.Sprintf(`{"revision":%d,"patch":%s}`, view.Revision, patch))
	require.Equal(t, 200, status, text)
	view = get[web.QuadView](c, "/api/quads/wallower")
	assert.Equal(t, verdict.Fits, view.Judgement.Gate(verdict.Pins).Level)
}

// Pressed, a re-pin plan makes the pins gate fit; the demo's six-cell quad gets
// its feed, ports, soldering list, pairs and peak.
func TestTheDemosWiringStory(t *testing.T) {
	c := newClient(t, "")
	quern := get[web.QuadView](c, "/api/quads/quern")
	require.NotEmpty(t, quern.Pins.Repins)
	patch, err := json.Marshal(quern.Pins.Repins[0].Patch)
	require.NoError(t, err)
	status, text := c.do("POST", "/api/quads/quern/next", fmt.Sprintf(`{"revision":%d,"patch":%s}`, quern.Revision, patch))
	require.Equal(t, 200, status, text)
	quern = get[web.QuadView](c, "/api/quads/quern")
	assert.Equal(t, verdict.Fits, quern.Judgement.Gate(verdict.Pins).Level)
	assert.Empty(t, quern.Pins.Repins)

	wallower := get[web.QuadView](c, "/api/quads/wallower")
	assert.Len(t, wallower.Pins.Pairs, 15)
	assert.NotEmpty(t, wallower.Pins.Soldering.Wires)
	assert.Len(t, wallower.Pins.Ports.Ports, 3)
	assert.NotEmpty(t, wallower.Pins.Taken)
	best := wallower.Power.Feeds[0]
	assert.Equal(t, verdict.Fits, best.Level, best.Why)
	patch, err = json.Marshal(best.Patch)
	require.NoError(t, err)
	status, text = c.do("POST", "/api/quads/wallower/next",
		fmt.Sprintf(`{"revision":%d,"patch":%s}`, wallower.Revision, patch))
	require.Equal(t, 200, status, text)
	wallower = get[web.QuadView](c, "/api/quads/wallower")
	assert.Equal(t, verdict.Fits, wallower.Judgement.Gate(verdict.Power).Level)
	assert.Equal(t, verdict.Fits, wallower.Judgement.Gate(verdict.Pins).Level, "the supply wire goes where the feed says")
}

// The region is chosen once for the fleet, and its limits hold from then on.
func TestTheRegionIsChosen(t *testing.T) {
	c := newClient(t, "")
	quern := get[web.QuadView](c, "/api/quads/quern")
	assert.Equal(t, "harrow-shire", quern.Antenna.Region)
	status, text := c.do("PUT", "/api/region", `{"was":"harrow-shire","region":"nix"}`)
	assert.Equal(t, 422, status, text)
	status, text = c.do("PUT", "/api/region", `{"was":"elsewhere","region":""}`)
	assert.Equal(t, 409, status, "someone else has chosen meanwhile: %s", text)
	status, text = c.do("PUT", "/api/region", `{"was":"harrow-shire","region":""}`)
	require.Equal(t, 200, status, text)
	quern = get[web.QuadView](c, "/api/quads/quern")
	assert.Equal(t, verdict.Unknown, quern.Judgement.Gate(verdict.Antenna).Level, "whose limits hold is not known")
	says := ""
	for _, f := range quern.Judgement.Gate(verdict.Antenna).Findings {
		says += f.Says
	}
	assert.Contains(t, says, "region whose limits hold")
}

// What to buy before the bench day follows the plans.
func TestTheShoppingListFollowsThePlans(t *testing.T) {
	c := newClient(t, "")
	buy := func() map[string]int {
		list := map[string]int{}
		for _, i := range get[web.ShoppingView](c, "/api/shopping").Items {
			assert.Equal(t, max(0, i.Need-i.Have), i.Buy, i.Label)
			list[i.Label] = i.Buy
		}
		return list
	}
	before := buy()
	assert.Equal(t, 4, before["M2×8"])
	hopper := get[web.QuadView](c, "/api/quads/hopper")
	status, text := c.do("POST", "/api/quads/hopper/next",
		fmt.Sprintf(`{"revision":%d,"patch":{"mounting":{"frame":"hackle-duct","bay":"rear","screw":"m2-4"}}}`,
			hopper.Revision))
	require.Equal(t, 200, status, text)
	after := buy()
	assert.Zero(t, after["M2×8"])
	assert.Zero(t, after["M2×4"], "there are 20 in the box")
	bill := get[web.ShoppingView](c, "/api/shopping").Bill
	require.Len(t, bill.Totals, 2)
	assert.Equal(t, "EUR", bill.Totals[0].Currency)
	assert.Positive(t, bill.Totals[0].Amount)
	assert.Equal(t, []string{"1 GBP = 1.17 EUR on 2026-11-24"}, bill.At)
	assert.InDelta(t, bill.Totals[0].Amount+1.17*bill.Totals[1].Amount, bill.Together.Amount, 0.01)
	status, text = c.do("GET", "/api/shopping.csv", "")
	require.Equal(t, 200, status)
	rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	require.NoError(t, err)
	assert.Len(t, rows, len(after)+1)
}

// Who can fly together: the demo's quads and guests on their systems' channels.
func TestWhoCanFlyTogether(t *testing.T) {
	c := newClient(t, "")
	v := get[web.TogetherView](c, "/api/together?quads=quern,brayer,whip,sluice&guests=fell-analog,fell-analog")
	require.Len(t, v.Plan.Seats, 6)
	taken := map[string]bool{}
	for _, seat := range v.Plan.Seats {
		key := seat.System + seat.Channel
		assert.False(t, seat.Channel != "" && taken[key], key)
		taken[key] = true
	}
	assert.Empty(t, get[web.TogetherView](c, "/api/together").Plan.Seats)
	status, _ := c.do("GET", "/api/together?quads=nix", "")
	assert.Equal(t, 404, status)
	status, _ = c.do("GET", "/api/together?guests=nix", "")
	assert.Equal(t, 404, status)
	status, _ = c.do("GET", "/api/together?guests="+strings.Repeat("fell-analog,", 17), "")
	assert.Equal(t, 422, status)
}

// What the scale says at the bench goes before what was added up.
func TestAMeasuredWeightReplacesTheEstimate(t *testing.T) {
	c := newClient(t, "")
	before := get[web.QuadView](c, "/api/quads/brayer").Mount.Weight
	assert.Nil(t, before.MeasuredG)
	status, text := c.do("POST", "/api/quads/brayer/bench", `{"step":"check:close","done":true,"value":251}`)
	require.Equal(t, 200, status, text)
	after := get[web.QuadView](c, "/api/quads/brayer").Mount.Weight
	require.NotNil(t, after.MeasuredG)
	assert.InDelta(t, 251, float64(*after.MeasuredG), 1e-9)
	assert.Greater(t, *after.HoverPower, 1.0, "246 g before")
}

// A preview says what the file does to the verdicts on the quads that are there, and the
// hash of what it says, however it is spaced.
func TestAPreviewSaysWhichVerdictsTurn(t *testing.T) {
	c := newClient(t, "")
	pack, err := demo.Files.ReadFile("harrow-fell.gear.json")
	require.NoError(t, err)
	preview := func(text string) web.Import {
		status, got := c.do("POST", "/api/import", text)
		require.Equal(t, 200, status, got)
		var out web.Import
		require.NoError(t, json.Unmarshal([]byte(got), &out))
		return out
	}
	same := preview(string(pack))
	assert.Empty(t, same.Turns)
	assert.Len(t, same.Hash, 12)
	var spaced any
	require.NoError(t, json.Unmarshal(pack, &spaced))
	tight, err := json.Marshal(spaced)
	require.NoError(t, err)
	assert.Equal(t, same.Hash, preview(string(tight)).Hash)
	other := preview(strings.Replace(string(pack), `"chemistry": "lipo"`, `"chemistry": "lifepo"`, -1))
	require.NotEqual(t, same.Hash, other.Hash)
	require.NotEmpty(t, other.Turns)
	assert.NotEqual(t, other.Turns[0].Was, other.Turns[0].Is)
	for _, set := range get[web.Shelf](c, "/api/shelf").Sets {
		assert.Equal(t, same.Hash, set.Hash)
	}
}
