package web_test

import (
	"compress/gzip"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/store"
	"yokeswap/web"
)

// What no two readers agree on is refused in every body, and never echoed at length.
func TestBodiesThatReadInTwoWaysAreRefused(t *testing.T) {
	c := newClient(t, "")
	for name, body := range map[string]string{
		"the same key twice":    `{"says":"a","says":"b"}`,
		"half a character":      `{"says":"\ud800"}`,
		"a NUL":                 `{"says":"a\u0000b"}`,
		"an escape code":        `{"says":"\u001b[31mred"}`,
		"a direction turned":    `{"says":"\u202egnp.exe"}`,
		"a number of megabytes": `{"says":"a","n":` + strings.Repeat("7", 7<<20) + `}`,
		"not whole":             `{"says":"a"`,
		"two of them":           `{"says":"a"}{"says":"b"}`,
	} {
		status, text := c.do("POST", "/api/quads/quern/log", body)
		assert.Equal(t, 422, status, "%s: %s", name, text)
		assert.Less(t, len(text), 2000, name)
		status, text = c.do("PUT", "/api/entries/quad/quern?revision=1", body)
		assert.Equal(t, 422, status, "%s: %s", name, text)
		assert.Less(t, len(text), 2000, name)
	}
	status, text := c.do("POST", "/api/quads/quern/log", `{"says":"two\nlines, ümläuts and a 🪛"}`)
	assert.Equal(t, 200, status, text)
	status, _ = c.do("GET", "/api/quads/nobody/log", "")
	assert.Equal(t, 404, status)
}

func TestWhatRouteCannotHoldIsNotTakenIn(t *testing.T) {
	c := newClient(t, "")
	var list []string
	for n := range 65 {
		list = append(
			list,
			fmt.Sprintf(`{"id":"p-%d","source":{"kind":"measured"},"airUnit":"aldine-two","goggles":"visor-c"}`, n),
		)
	}
	pack := `{"format":"gear-pack","version":2,"id":"many","title":"Many","pairings":[` + strings.Join(list, ",") + `]}`
	status, text := c.do("POST", "/api/import", pack)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "more than 64 are not taken")
}

// Answers are packed for those who can unpack them, and say how long they hold.
func TestAnswersArePackedAndSayHowLongTheyHold(t *testing.T) {
	c := newClient(t, "")
	request, err := http.NewRequest("GET", c.server.URL+"/api/shelf", nil)
	require.NoError(t, err)
	request.Header.Set("Accept-Encoding", "gzip")
	response, err := http.DefaultTransport.RoundTrip(request)
	require.NoError(t, err)
	defer response.Body.Close()
	assert.Equal(t, "gzip", response.Header.Get("Content-Encoding"))
	assert.Equal(t, "no-store", response.Header.Get("Cache-Control"))
	plain, err := gzip.NewReader(response.Body)
	require.NoError(t, err)
	text, err := io.ReadAll(plain)
	require.NoError(t, err)
	assert.Contains(t, string(text), `"visor-c"`)
}

func TestFoldersAreNotListed(t *testing.T) {
	st, err := store.Open(t.TempDir())
	require.NoError(t, err)
	files := fstest.MapFS{"index.html": {Data: []byte("<p>Yoke Swap")}, "assets/app-1.js": {Data: []byte("1")}}
	server := httptest.NewServer(web.New(st, web.Options{Interface: files, Log: slog.New(slog.DiscardHandler)}))
	t.Cleanup(func() { server.Close(); st.Close() })
	c := client{t, server}
	for path, want := range map[string]int{
		"/": 200, "/assets/app-1.js": 200, "/assets": 404, "/assets/": 404, "/assets/none.js": 404, "/api/none": 404,
	} {
		status, text := c.do("GET", path, "")
		assert.Equal(t, want, status, path)
		assert.NotContains(t, text, "app-1.js", path)
	}
}
