package web_test

import (
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/sheet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/ask"
	"yokeswap/core/plans/begin"
	"yokeswap/core/plans/swap"
	"yokeswap/demo"
	"yokeswap/store"
	"yokeswap/web"
)

// emptyClient talks to a server with nothing in it.
func emptyClient(t *testing.T) client {
	t.Helper()
	st, err := store.Open(t.TempDir())
	require.NoError(t, err)
	server := httptest.NewServer(web.New(st, web.Options{Version: "test", Log: slog.New(slog.DiscardHandler)}))
	t.Cleanup(func() { server.Close(); st.Close() })
	return client{t, server}
}

func sent[T any](c client, path string, body any) (value T) {
	c.t.Helper()
	text, err := json.Marshal(body)
	require.NoError(c.t, err)
	status, got := c.do("POST", path, string(text))
	require.Equal(c.t, 200, status, got)
	require.NoError(c.t, json.Unmarshal([]byte(got), &value))
	return value
}

// The link question comes to its verdict from an empty folder, and one press takes it back.
func TestTheLinkQuestionFromAnEmptyFolder(t *testing.T) {
	c := emptyClient(t)
	begun := sent[web.Begun](c, "/api/begin/link", begin.LinkQuestion{
		Unit:    begin.Carries{Name: "Own unit", Release: "1.0", Works: ">=1.2"},
		Goggles: begin.Carries{Name: "Own eyes", Release: "2.1"},
		Says:    begin.SaysWithin, Activated: true})
	pair := get[web.PairView](c, "/api/quads/"+begun.Quad+"/pair")
	assert.Equal(t, verdict.Change, pair.Level)
	assert.Equal(t, "Own unit with Own eyes", pair.Name)
	status, text := c.do("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, begun.Change))
	require.Equal(t, 200, status, text)
	assert.Empty(t, get[web.Shelf](c, "/api/shelf").Entries)

	for says, body := range map[string]string{
		"the release on":  `{"unit":{"name":"U","release":"newest","works":""},"goggles":{"name":"G","release":"","works":""},"says":"any","from":"","activated":true}`,
		"control code":    `{"unit":{"name":"U\u0007","release":"1","works":""},"goggles":{"name":"G","release":"1","works":""},"says":"any","from":"","activated":true}`,
		"expected length": `{"unit":{"name":"","release":"1","works":""},"goggles":{"name":"G","release":"1","works":""},"says":"any","from":"","activated":true}`,
	} {
		status, text := c.do("POST", "/api/begin/link", body)
		assert.Equal(t, 422, status, text)
		assert.Contains(t, text, says)
	}
	assert.Empty(t, get[web.Shelf](c, "/api/shelf").Entries, "nothing was changed")
}

// A quad is filled slot by slot from an empty folder: what is new by its name, what is
// copied from the shelf, what is like another; no id is typed anywhere.
func TestAQuadIsFilledFromAnEmptyFolder(t *testing.T) {
	c := emptyClient(t)
	quad := sent[web.Begun](c, "/api/begin/quad", map[string]any{"name": "First", "analog": true}).Quad
	at := "/api/quads/" + quad + "/slots"
	view := get[web.SlotsView](c, at)
	fill := func(slot string, today bool, take begin.Take) web.SlotsView {
		view = sent[web.SlotsView](c, at+"/"+slot, map[string]any{"revision": view.Revision, "today": today, "take": take})
		return view
	}
	holds := func(slot string) (string, begin.Slot) {
		for _, s := range view.Slots {
			if s.Name == slot {
				return s.Holds, s
			}
		}
		return "", begin.Slot{}
	}
	for _, s := range view.Slots {
		shelf := 0
		for _, choice := range s.Choices {
			if choice.Group == begin.GroupShelf {
				shelf++
			}
		}
		if s.Name == "pack" || s.Name == "board" || s.Name == "antennas" {
			assert.NotZero(t, shelf, "the trade shelf has a %s", s.Title)
		}
	}
	fill("pack", true, begin.Take{Key: "shelf:trade-lipo-4s"})
	fill("board", true, begin.Take{Key: "shelf:trade-board-f7"})
	fill("airUnit", false, begin.Take{Name: "Bought unit"})
	fill("goggles", false, begin.Take{Name: "My goggles", Mine: true})
	fill("antennas", false, begin.Take{Key: "shelf:trade-round-rhcp"})
	for slot, is := range map[string]string{"airUnit": "Bought unit", "goggles": "My goggles", "pack": "4-cell LiPo pack",
		"board": "Board that inverts in software, six ports, 5 and 9 V", "antennas": "Circular all-round, right-hand"} {
		got, _ := holds(slot)
		assert.Equal(t, is, got, slot)
	}
	_, unit := holds("airUnit")
	assert.Empty(t, unit.Kit, "still to be bought")
	_, eyes := holds("goggles")
	assert.Equal(t, "my-goggles-1", eyes.Kit, "a piece of kit was made by itself")
	fill("airUnit", false, begin.Take{Name: "Bought unit, mark two", Like: unit.Model, Mine: true})
	got, _ := holds("airUnit")
	assert.Equal(t, "Bought unit, mark two", got)
	fill("goggles", false, begin.Take{})
	got, _ = holds("goggles")
	assert.Empty(t, got)

	for body, want := range map[string]int{
		`{"revision":0,"today":false,"take":{"name":"x","mine":false}}`:                                     409,
		fmt.Sprintf(`{"revision":%d,"today":false,"take":{"key":"model:nix","mine":false}}`, view.Revision): 422,
		fmt.Sprintf(`{"revision":%d,"today":false,"take":{"key":"shelf:nix","mine":false}}`, view.Revision): 422,
		fmt.Sprintf(`{"revision":%d,"today":false,"take":{"key":"kit:nix","mine":false}}`, view.Revision):   422,
		fmt.Sprintf(`{"revision":%d,"today":false,"take":{"name":"a\u0000b","mine":false}}`, view.Revision): 422,
	} {
		status, text := c.do("POST", at+"/airUnit", body)
		assert.Equal(t, want, status, text)
	}
	status, _ := c.do("POST", at+"/nix", fmt.Sprintf(`{"revision":%d,"today":false,"take":{"mine":false}}`, view.Revision))
	assert.Equal(t, 422, status)
}

// The demo is looked round in a place of its own: what is done there touches nothing of
// one's own, and the other way round.
func TestTheDemoHasAPlaceOfItsOwn(t *testing.T) {
	own, err := store.Open(t.TempDir())
	require.NoError(t, err)
	beside, err := store.Open(t.TempDir())
	require.NoError(t, err)
	opened := 0
	server := httptest.NewServer(web.New(own, web.Options{Version: "test", Log: slog.New(slog.DiscardHandler),
		Demo: func() (*store.Store, error) {
			opened++
			return beside, beside.Update(store.Deed{}, func(s *stock.Stock) error { return demo.Load(s) })
		}}))
	t.Cleanup(func() { server.Close(); own.Close(); beside.Close() })
	c := client{t, server}
	assert.Empty(t, get[swap.Board](c, "/api/board").Rows)
	assert.Zero(t, opened, "it is opened when it is asked for")
	assert.Len(t, get[swap.Board](c, "/demo/api/board").Rows, 9)
	sent[web.Begun](c, "/demo/api/begin/quad", map[string]any{"name": "In the demo", "analog": false})
	sent[web.Begun](c, "/api/begin/quad", map[string]any{"name": "My own", "analog": false})
	assert.Len(t, get[swap.Board](c, "/demo/api/board").Rows, 10)
	assert.Len(t, get[swap.Board](c, "/api/board").Rows, 1)
	assert.Equal(t, 1, opened)
	status, _ := emptyClient(t).do("GET", "/demo/api/board", "")
	assert.Equal(t, 404, status)
}

// The demo's place is behind the same door, and takes no more than one's own.
func TestTheDemosPlaceIsHeldToTheSame(t *testing.T) {
	own, err := store.Open(t.TempDir())
	require.NoError(t, err)
	server := httptest.NewServer(web.New(own, web.Options{Version: "test", Key: web.NewKey(),
		Log: slog.New(slog.DiscardHandler), Demo: func() (*store.Store, error) { return own, nil }}))
	t.Cleanup(func() { server.Close(); own.Close() })
	c := client{t, server}
	for _, path := range []string{"/api/board", "/demo/api/board"} {
		status, _ := c.do("GET", path, "")
		assert.Equal(t, 401, status, path)
	}
	open := httptest.NewServer(web.New(own, web.Options{Version: "test", Log: slog.New(slog.DiscardHandler),
		Demo: func() (*store.Store, error) { return own, nil }}))
	t.Cleanup(open.Close)
	c.server = open
	for _, path := range []string{"/api/begin/quad", "/demo/api/begin/quad"} {
		status, _ := c.do("POST", path, `{"name":"x","analog":false}`, "Content-Type", "text/plain")
		assert.Equal(t, 415, status, path)
		status, _ = c.do("POST", path, `{"name":"x","analog":false}`, "Origin", "http://elsewhere.example")
		assert.Equal(t, 403, status, path)
	}
}

// A sheet is read for a kind, and nothing is changed by reading.
func TestASheetIsReadOverHTTP(t *testing.T) {
	c := emptyClient(t)
	read := func(kind, text string) (reading sheet.Reading) {
		status, got := c.do("POST", "/api/read/"+kind, text, "Content-Type", "text/plain")
		require.Equal(t, 200, status, got)
		require.NoError(t, json.Unmarshal([]byte(got), &reading))
		return reading
	}
	reading := read("airUnit", "Input voltage 7.4-26.4 V\nU.FL")
	require.Len(t, reading.Found, 3)
	assert.Equal(t, "input.minV", reading.Found[0].Field)
	assert.Equal(t, "trade-ufl", reading.Found[2].Value, "the trade shelf has it")
	assert.Empty(t, reading.Found[2].With)
	assert.Equal(t, []string{"plug.pins"}, read("airUnit", "Connector SH 1.0 mm, 6 pins").Found[0].With,
		"a plug is not stated without its pins")
	status, text := c.do("PUT", "/api/entries/connector/own-ufl?revision=0", `{"id":"own-ufl","name":"U.FL","source":{"kind":"measured"}}`)
	require.Equal(t, 200, status, text)
	assert.Equal(t, "own-ufl", read("airUnit", "U.FL").Found[0].Value, "one's own comes first")
	assert.Empty(t, read("airUnit", strings.Repeat("nothing to see here. ", 2000)).Found, "a long page is read")
	for _, wrong := range []struct{ kind, text, says string }{
		{"wing", "7 V", "no kind of gear"},
		{"airUnit", strings.Repeat("x", sheet.MostText+1), "no more than"},
		{"airUnit", "\xff\xfe", "no text"},
	} {
		status, text := c.do("POST", "/api/read/"+wrong.kind, wrong.text, "Content-Type", "text/plain")
		assert.Equal(t, 422, status)
		assert.Contains(t, text, wrong.says)
	}
	status, _ = c.do("POST", "/api/read/airUnit", "7 V", "Content-Type", "text/plain", "Origin", "http://elsewhere.example")
	assert.Equal(t, 403, status)
}

// What is asked next is answered and asked no more; what the trade shelf has is copied with
// what it names; a statement about the pair is noted from the quad.
func TestWhatMattersIsAskedUntilItIsSaid(t *testing.T) {
	c := emptyClient(t)
	quad := sent[web.Begun](c, "/api/begin/quad", map[string]any{"name": "First", "analog": false}).Quad
	view := get[web.SlotsView](c, "/api/quads/"+quad+"/slots")
	for slot, take := range map[string]begin.Take{"airUnit": {Name: "Unit", Mine: true}, "goggles": {Name: "Eyes", Mine: true}} {
		view = sent[web.SlotsView](c, "/api/quads/"+quad+"/slots/"+slot, map[string]any{"revision": view.Revision, "today": false, "take": take})
	}
	asks := func(field string) bool {
		report := get[web.AskView](c, "/api/quads/"+quad+"/ask")
		return slices.ContainsFunc(report.Next, func(q ask.Question) bool { return q.Field == field })
	}
	assert.True(t, asks("pairings"))
	view = sent[web.SlotsView](c, "/api/quads/"+quad+"/slots/antennas", map[string]any{"revision": view.Revision,
		"today": false, "take": begin.Take{Key: "shelf:trade-round-rhcp"}})
	for i, e := range get[web.Shelf](c, "/api/shelf").Entries {
		if e.Kind == "airUnit" || e.Kind == "goggles" {
			port := map[string]string{"airUnit": "radio", "goggles": "receive"}[e.Kind]
			body := fmt.Sprintf(`{"id":%q,"name":%q,"source":{"kind":"measured"},%q:{"bands":["5.8"],"antennas":2}}`, e.ID, e.Name, port)
			status, text := c.do("PUT", fmt.Sprintf("/api/entries/%s/%s?revision=%d", e.Kind, e.ID, e.Revision), body)
			require.Equal(t, 200, status, "%d %s", i, text)
		}
	}
	assert.True(t, asks("region"))
	sent[web.Begun](c, "/api/quads/"+quad+"/statement", begin.Said{Says: begin.SaysWithin, Unit: ">=1.0", From: "a sheet"})
	assert.False(t, asks("pairings"))
	regions := get[[]web.TradeEntry](c, "/api/trade?kind=region")
	require.NotEmpty(t, regions)
	sent[web.Saved](c, "/api/trade/"+regions[0].ID, nil)
	status, text := c.do("PUT", "/api/region", fmt.Sprintf(`{"was":"","region":%q}`, regions[0].ID))
	require.Equal(t, 200, status, text)
	assert.False(t, asks("region"))
	sent[web.Saved](c, "/api/trade/trade-header-sh-6", nil)
	var kinds []string
	for _, e := range get[web.Shelf](c, "/api/shelf").Entries {
		kinds = append(kinds, e.Kind+" "+e.ID)
	}
	assert.Contains(t, kinds, "header trade-header-sh-6")
	assert.Contains(t, kinds, "connector trade-sh-6", "what it names comes with it")
	status, _ = c.do("POST", "/api/trade/nix", "null")
	assert.Equal(t, 404, status)
	status, text = c.do("POST", "/api/quads/"+quad+"/statement", `{"says":"within","unit":">>","goggles":"","from":""}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "the releases of Unit")
}

// The map says what links with what, and a statement entered there is on it.
func TestTheMapOfLinksIsEnteredOnIt(t *testing.T) {
	c := newClient(t, "")
	open := get[link.Map](c, "/api/links").Cells[0]
	at := "/api/links/" + open.Unit + "/" + open.Goggles
	is := func() link.Cell {
		for _, x := range get[link.Map](c, "/api/links").Cells {
			if x.Unit == open.Unit && x.Goggles == open.Goggles {
				return x
			}
		}
		return link.Cell{}
	}
	sent[web.Saved](c, at, map[string]any{"says": "nothing", "unit": "", "goggles": "", "from": "", "instead": true})
	assert.Equal(t, link.StatedNobody, is().Stated)
	sent[web.Saved](c, at, map[string]any{"says": "within", "unit": ">=1.0", "goggles": "", "from": "tried", "instead": false})
	assert.Equal(t, link.StatedSome, is().Stated)
	sent[web.Saved](c, at, map[string]any{"says": "never", "unit": "", "goggles": "", "from": "", "instead": true})
	assert.Equal(t, link.StatedNever, is().Stated)
	assert.Len(t, is().Statements, 1)
	sent[web.Saved](c, at, map[string]any{"says": "nothing", "unit": "", "goggles": "", "from": "", "instead": true})
	assert.Equal(t, link.StatedNobody, is().Stated)
	for path, want := range map[string]int{"/api/links/nix/" + open.Goggles: 404, "/api/links/" + open.Goggles + "/" + open.Goggles: 404} {
		status, _ := c.do("POST", path, `{"says":"any","unit":"","goggles":"","from":"","instead":false}`)
		assert.Equal(t, want, status)
	}
	status, text := c.do("POST", at, `{"says":"within","unit":"x","goggles":"","from":"","instead":false}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "nothing was changed")
}
