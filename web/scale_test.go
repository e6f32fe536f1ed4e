package web_test

import (
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/stock"
	"yokeswap/demo"
	"yokeswap/format"
	"yokeswap/internal/builds"
	"yokeswap/store"
	"yokeswap/web"
)

func grown(t testing.TB, quads int) (*store.Store, http.Handler) {
	st, err := store.Open(t.TempDir())
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error {
		if err := demo.Load(s); err != nil {
			return err
		}
		builds.Grow(s, quads)
		return format.CheckStock(s)
	}))
	return st, web.New(st, web.Options{Log: slog.New(slog.DiscardHandler)})
}

// A fleet of 2,000 quads (10,000 in the longer run) goes in, is judged, routed, written
// out, and what is written out is taken in again and is the same.
func TestAFleetOfThousandsGoesRound(t *testing.T) {
	quads := 2000
	if os.Getenv("SOAK") != "" {
		quads = 10_000
	}
	_, handler := grown(t, quads)
	server := httptest.NewServer(handler)
	defer server.Close()
	c := client{t, server}
	board := get[web.BoardPage](c, "/api/board?count=10")
	assert.Len(t, board.Rows, 10)
	assert.Equal(t, quads, board.Of)
	route := get[web.RouteView](c, "/api/route")
	assert.Len(t, route.Plan.Links, quads-9)
	status, text := c.do("GET", "/api/export/fleet", "")
	require.Equal(t, 200, status)
	status, answer := c.do("POST", "/api/import", text)
	require.Equal(t, 200, status, answer)
	var in web.Import
	require.NoError(t, json.Unmarshal([]byte(answer), &in))
	assert.Empty(t, in.Difference.New)
	assert.Empty(t, in.Difference.Changed)
	assert.Greater(t, in.Difference.Same, quads*19/10)
}

func BenchmarkStart1000(b *testing.B) {
	st, _ := grown(b, 1000)
	dir := st.Dir()
	for b.Loop() {
		again, err := store.Open(dir)
		require.NoError(b, err)
		_, err = again.Snapshot()
		require.NoError(b, err)
		require.NoError(b, again.Close())
	}
	b.ReportMetric(250, "goal-ms")
}

func BenchmarkPick1000(b *testing.B) {
	_, handler := grown(b, 1000)
	server := httptest.NewServer(handler)
	defer server.Close()
	for n := 0; b.Loop(); n++ {
		quad := fmt.Sprintf("quad-%d", 100+n%500)
		b.StopTimer()
		request, _ := http.NewRequest("GET", server.URL+"/api/quads/"+quad, nil)
		response, err := http.DefaultClient.Do(request)
		require.NoError(b, err)
		var v web.QuadView
		require.NoError(b, json.NewDecoder(response.Body).Decode(&v))
		response.Body.Close()
		b.StartTimer()
		post := fmt.Sprintf(`{"revision":%d,"patch":{"pack":%q}}`, v.Revision, []string{"tallow-4s", "tallow-6s"}[n%2])
		require.Equal(b, 200, posted(b, server.URL+"/api/quads/"+quad+"/next", post))
	}
	b.ReportMetric(60, "goal-ms")
}

func posted(b *testing.B, url, body string) int {
	response, err := http.Post(url, "application/json", strings.NewReader(body))
	require.NoError(b, err)
	defer response.Body.Close()
	_, err = io.Copy(io.Discard, response.Body)
	require.NoError(b, err)
	return response.StatusCode
}
