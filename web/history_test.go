package web_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/plans/begin"
	"yokeswap/internal/builds"
	"yokeswap/web"
)

// A history is a random sequence of calls as a screen, a script or a careless hand
// could send them. Whatever they do, three things hold after each: no answer is a fault
// of the program, every view is there, and what is stored can be saved, exported and
// taken in again.
type history struct {
	region string // as it was last chosen
	client
	*rand.Rand
	done []string
}

type stored struct {
	Kind, ID string
	Revision int64
	Entry    json.RawMessage
}

func (h *history) entries() []stored {
	return get[struct{ Entries []stored }](h.client, "/api/shelf").Entries
}

func pick[T any](r *rand.Rand, list []T) (none T) {
	if len(list) == 0 {
		return none
	}
	return list[r.IntN(len(list))]
}

func (h *history) call(method, path, body string) bool {
	h.t.Helper()
	status, text := h.do(method, path, body)
	h.done = append(h.done, fmt.Sprintf("%s %s %s: %d", method, path, body, status))
	if status >= 500 {
		h.fail("answered %d: %s", status, text)
	}
	return status < 300
}

func (h *history) fail(says string, args ...any) {
	h.t.Helper()
	h.t.Fatalf(says+"\nafter:\n%s", append(args, strings.Join(h.done, "\n"))...)
}

// step is one call of any kind.
func (h *history) step() {
	list := h.entries()
	e := pick(h.Rand, list)
	at := fmt.Sprintf("/api/entries/%s/%s?revision=%d", e.Kind, e.ID, e.Revision)
	switch h.IntN(12) {
	case 9:
		h.begins()
	case 10:
		h.fills()
	case 11:
		h.states()
	case 0, 1:
		h.call("DELETE", at, "")
	case 2, 3:
		h.call("PUT", at, h.changed(e, pick(h.Rand, list)))
	case 4:
		if ids := h.quads(); len(ids) > 0 {
			quad := pick(h.Rand, ids)
			v := get[web.QuadView](h.client, "/api/quads/"+quad)
			if p := pick(h.Rand, offered(&v)); p.from != "" {
				patch, _ := json.Marshal(p.patch)
				h.call("POST", "/api/quads/"+quad+"/next", fmt.Sprintf(`{"revision":%d,"patch":%s}`, v.Revision, patch))
			}
		}
	case 5:
		if id := h.idOf("region"); h.call("PUT", "/api/region", fmt.Sprintf(`{"was":%q,"region":%q}`, h.region, id)) {
			h.region = id
		}
	case 6:
		revision := get[web.RouteView](h.client, "/api/route").Revision
		h.call(
			"PUT",
			"/api/route",
			fmt.Sprintf(`{"revision":%d,"goals":{"wants":[{"quad":%q,"goggles":%q,"weight":"must"}]}}`,
				revision, h.idOf("quad"), h.idOf("kit")),
		)
	case 7:
		whole := get[web.RouteView](h.client, "/api/route").Whole
		h.call("POST", "/api/route/read", fmt.Sprintf(`{"device":%q,"do":%q,"firmware":"1.1","mode":"first","revision":%d}`,
			h.idOf("kit"), pick(h.Rand, []string{"update", "mode", "activate"}), whole))
	case 8:
		if quad := pick(h.Rand, h.quads()); quad != "" {
			revision, _ := entryOf(h.client, "quad", quad)
			h.call("POST", "/api/quads/"+quad+"/finish", fmt.Sprintf(`{"revision":%d,"anyway":true}`, revision))
		}
	}
}

// begins makes a quad, of its own or like another, asks whether two link, or takes something
// from the trade shelf.
func (h *history) begins() {
	switch h.IntN(4) {
	case 0:
		h.call("POST", "/api/begin/quad", fmt.Sprintf(`{"name":"Begun %d","analog":%t}`, h.IntN(3), h.IntN(2) == 0))
	case 1:
		h.call("POST", "/api/begin/quad", fmt.Sprintf(`{"name":"Like","analog":false,"like":%q,"ready":%q}`, h.idOf("quad"),
			[]string{"", "scutch-5"}[h.IntN(2)]))
	case 2:
		h.call("POST", "/api/begin/link", fmt.Sprintf(`{"unit":{"name":"Asked %d","release":"1.%d","works":">=1.1"},`+
			`"goggles":{"name":"Asked too","release":"","works":""},"says":%q,"from":"","activated":true}`, h.IntN(2), h.IntN(3),
			pick(h.Rand, []string{"within", "any", "never", "nothing"})))
	case 3:
		h.call("POST", "/api/trade/"+pick(h.Rand, get[[]web.TradeEntry](h.client, "/api/trade")).ID, "null")
	}
}

// fills puts something into a place of a quad, or empties it.
func (h *history) fills() {
	quad := pick(h.Rand, h.quads())
	if quad == "" {
		return
	}
	today := h.IntN(2) == 0
	v := get[web.SlotsView](h.client, fmt.Sprintf("/api/quads/%s/slots?today=%t", quad, today))
	slot := pick(h.Rand, v.Slots)
	take := begin.Take{Mine: h.IntN(2) == 0}
	switch choice := pick(h.Rand, slot.Choices); h.IntN(4) {
	case 0:
		take.Name, take.Like = "Filled", slot.Model
	case 1: // emptied
	default:
		take.Key = choice.Key
	}
	body, err := json.Marshal(map[string]any{"revision": v.Revision, "today": today, "take": take})
	require.NoError(h.t, err)
	h.call("POST", "/api/quads/"+quad+"/slots/"+slot.Name, string(body))
}

// states says something of a pair of models, or takes a change back.
func (h *history) states() {
	if changes := get[web.Changes](h.client, "/api/changes?count=5").Changes; h.IntN(2) == 0 && len(changes) > 0 {
		h.call("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, pick(h.Rand, changes).ID))
		return
	}
	h.call("POST", "/api/links/"+h.idOf("airUnit")+"/"+h.idOf("goggles"), fmt.Sprintf(
		`{"says":%q,"unit":"1.%d","goggles":"","from":"somebody","instead":%t}`,
		pick(h.Rand, []string{"within", "any", "never", "nothing"}), h.IntN(3), h.IntN(2) == 0))
}

func (h *history) idOf(kind string) string {
	var ids []string
	for _, e := range h.entries() {
		if e.Kind == kind {
			ids = append(ids, e.ID)
		}
	}
	return pick(h.Rand, ids)
}

func (h *history) quads() (ids []string) {
	for _, e := range h.entries() {
		if e.Kind == "quad" {
			ids = append(ids, e.ID)
		}
	}
	return ids
}

// changed is an entry with a field taken out, or taken from another.
func (h *history) changed(e, other stored) string {
	var is, has map[string]any
	require.NoError(h.t, json.Unmarshal(e.Entry, &is))
	require.NoError(h.t, json.Unmarshal(other.Entry, &has))
	from, to := has, is
	for range h.IntN(3) { // on the way in
		key := keyOf(h.Rand, to)
		inside, ok := to[key].(map[string]any)
		if !ok {
			break
		}
		to = inside
		if from, ok = from[key].(map[string]any); !ok {
			from = map[string]any{}
		}
	}
	if key := keyOf(h.Rand, to); h.IntN(2) == 0 {
		delete(to, key)
	} else if key = keyOf(h.Rand, from); key != "id" && key != "" {
		to[key] = from[key]
	}
	text, err := json.Marshal(is)
	require.NoError(h.t, err)
	return string(text)
}

func keyOf(r *rand.Rand, object map[string]any) string {
	return pick(r, slices.Sorted(maps.Keys(object)))
}

// holds asks for everything that was promised to hold.
func (h *history) holds(all bool) {
	h.t.Helper()
	list := h.entries()
	for range 3 {
		h.saves(pick(h.Rand, list))
	}
	files := []string{"/api/export/fleet"}
	for _, set := range get[web.Shelf](h.client, "/api/shelf").Sets {
		files = append(files, "/api/export/gear/"+set.ID)
	}
	for _, file := range files {
		_, text := h.do("GET", file, "")
		status, answer := h.do("POST", "/api/import", text)
		if status != 200 {
			h.fail("%s is not taken in again: %d %s", file, status, answer)
		}
		var in web.Import
		require.NoError(h.t, json.Unmarshal([]byte(answer), &in))
		if len(in.Difference.New)+len(in.Difference.Changed) > 0 {
			h.fail("%s taken in again is another: %s", file, answer)
		}
	}
	views := []string{
		"/api/board",
		"/api/route",
		"/api/route/back",
		"/api/shopping",
		"/api/links",
		"/api/changes",
		"/api/together?quads=" + strings.Join(h.quads(), ","),
	}
	for _, quad := range h.quads() {
		if all || h.IntN(4) == 0 {
			at := "/api/quads/" + quad
			views = append(views, at, at+"/bench", at+"/log", at+"/wiring.csv", at+"/fault",
				at+"/slots", at+"/slots?today=true", at+"/ask", at+"/ask?today=true", at+"/pair")
		}
	}
	for _, view := range views {
		if status, text := h.do("GET", view, ""); status >= 500 {
			h.fail("%s answers %d %s", view, status, text)
		}
	}
	if all {
		for _, e := range h.entries() {
			h.saves(e)
		}
	}
}

// saves holds that an entry is accepted as it is stored.
func (h *history) saves(e stored) {
	h.t.Helper()
	revision, entry := entryOf(h.client, e.Kind, e.ID)
	if status, text := h.do("PUT", fmt.Sprintf("/api/entries/%s/%s?revision=%d", e.Kind, e.ID, revision), string(entry)); status != 200 {
		h.fail("%s %s cannot be saved as it is: %d %s\n%s", e.Kind, e.ID, status, text, entry)
	}
}

func TestWhateverIsCalledTheStockStaysSound(t *testing.T) {
	lib, index := demoLibrary(t)
	histories, calls := 6, 30
	if soak, err := strconv.Atoi(os.Getenv("SOAK")); err == nil {
		histories, calls = soak, 100
	}
	for seed := range histories {
		t.Run(fmt.Sprint(seed), func(t *testing.T) {
			t.Parallel()
			h := history{client: newClient(t, ""), region: "harrow-shire", Rand: rand.New(rand.NewPCG(uint64(seed), 11))}
			for n := range 2 {
				body, err := json.Marshal(builds.New(uint64(seed*2+n), lib, index).Quad(fmt.Sprintf("build-%d", n)))
				require.NoError(t, err)
				h.call("PUT", fmt.Sprintf("/api/entries/quad/build-%d?revision=0", n), string(body))
			}
			for n := range calls {
				h.step()
				if n%5 == 4 {
					h.holds(false)
				}
			}
			h.holds(true)
			t.Log(strings.Join(h.done, "\n"))
		})
	}
}

// What was changed is listed in sentences, the newest first, a page at a time, and each can
// be taken back; taking back is a change itself, and can be taken back too.
func TestWhatWasChangedIsListedInSentences(t *testing.T) {
	c := emptyClient(t)
	quad := sent[web.Begun](c, "/api/begin/quad", map[string]any{"name": "Old faithful", "analog": true}).Quad
	view := get[web.SlotsView](c, "/api/quads/"+quad+"/slots")
	sent[web.SlotsView](c, "/api/quads/"+quad+"/slots/pack", map[string]any{"revision": view.Revision, "today": true,
		"take": map[string]any{"key": "shelf:trade-lipo-4s", "mine": false}})
	page := get[web.Changes](c, "/api/changes")
	require.Len(t, page.Changes, 2)
	assert.Contains(t, page.Changes[0].Says, "put something in:")
	assert.Contains(t, page.Changes[0].Says, "quad Old faithful")
	assert.Contains(t, page.Changes[0].Says, "flight pack 4-cell LiPo pack (new)")
	assert.Contains(t, page.Changes[0].Details, "now.pack: not stated → trade-lipo-4s")
	assert.Equal(t, "began: quad Old faithful (new)", page.Changes[1].Says)
	status, text := c.do("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, page.Changes[1].ID))
	assert.Equal(t, 409, status, "it was changed again since: %s", text)
	status, _ = c.do("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, page.Changes[0].ID))
	require.Equal(t, 200, status)
	again := get[web.Changes](c, "/api/changes?count=1")
	require.Len(t, again.Changes, 1)
	assert.Contains(t, again.Changes[0].Says, "took back:")
	older := get[web.Changes](c, fmt.Sprintf("/api/changes?count=50&before=%d", again.Before))
	assert.Len(t, older.Changes, 2)
	status, _ = c.do("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, again.Changes[0].ID))
	require.Equal(t, 200, status)
	for _, s := range get[web.SlotsView](c, "/api/quads/"+quad+"/slots?today=true").Slots {
		if s.Name == "pack" {
			assert.Equal(t, "4-cell LiPo pack", s.Holds, "what was taken back is there again")
		}
	}
}
