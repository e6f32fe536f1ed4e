package web_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/web"
)

// manyKit is a fleet file of so many pieces of kit.
func manyKit(n int) string {
	kit := make([]string, n)
	for i := range kit {
		kit[i] = fmt.Sprintf(`{"id":"spare-visor-%d","model":"visor-a"}`, i)
	}
	return `{"format":"fleet","version":1,"title":"Many","kit":[` + strings.Join(kit, ",") + `]}`
}

// A file taken in is a job with a name: while it is worked on it says how far it is, and
// its answer can be had again where the first did not arrive.
func TestAFileIsTakenInAsAJob(t *testing.T) {
	c := newClient(t, "")
	file := manyKit(6000)
	var preview web.Import
	status, text := c.do("POST", "/api/import?job=look-at-it", file)
	require.Equal(t, 200, status, text)
	require.NoError(t, json.Unmarshal([]byte(text), &preview))
	require.Len(t, preview.Difference.New, 6000)

	answered := make(chan string)
	go func() {
		_, text := c.do("POST", fmt.Sprintf("/api/import?apply=true&replace=true&base=%d&job=take-it", preview.Base), file)
		answered <- text
	}()
	said := map[string]bool{}
	counted := false
	var answer string
	for answer == "" {
		select {
		case answer = <-answered:
		case <-time.After(2 * time.Millisecond):
			for _, job := range get[[]web.Job](c, "/api/jobs") {
				if job.ID == "take-it" {
					said[job.Says] = true
					counted = counted || job.Of > 0 && job.Done <= job.Of
				}
			}
		}
	}
	assert.True(t, said["writing"], "%v", said)
	assert.True(t, counted, "it counts")
	job := get[web.Job](c, "/api/jobs/take-it")
	assert.True(t, job.Ended)
	again, err := json.Marshal(job.Answer)
	require.NoError(t, err)
	assert.JSONEq(t, strings.ReplaceAll(answer, `"$schema"`, `"schema"`), string(again))
	status, _ = c.do("GET", "/api/jobs/no-such-job", "")
	assert.Equal(t, 404, status)
	assert.Empty(t, get[[]web.Job](c, "/api/jobs"), "nothing is under way")
}

// A job that is stopped has changed nothing, and says so; one whose line is cut goes on.
func TestAJobIsStoppedOrGoesOn(t *testing.T) {
	c := newClient(t, "")
	file := manyKit(9000)
	base := get[web.Shelf](c, "/api/shelf").Revision
	path := fmt.Sprintf("/api/import?apply=true&replace=true&base=%d&job=", base)
	status := make(chan int)
	go func() {
		s, text := c.do("POST", path+"stopped", file)
		assert.Contains(t, text, "Nothing was changed")
		status <- s
	}()
	eventually(t, func() bool { s, _ := c.do("DELETE", "/api/jobs/stopped", ""); return s == 204 })
	assert.Equal(t, 409, <-status)
	assert.Equal(t, base, get[web.Shelf](c, "/api/shelf").Revision)
	s, text := c.do("GET", "/api/jobs/stopped", "")
	assert.Equal(t, 409, s, text)

	request, err := http.NewRequest("POST", c.server.URL+path+"cut", strings.NewReader(file))
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/json")
	short := http.Client{Transport: &http.Transport{}, Timeout: 150 * time.Millisecond}
	if _, err = short.Do(request); err == nil {
		t.Skip("this machine took the file in before its line could be cut")
	}
	eventually(t, func() bool {
		status, text := c.do("GET", "/api/jobs/cut", "")
		var job web.Job
		return status == 200 && json.Unmarshal([]byte(text), &job) == nil && job.Ended && job.Answer != nil
	})
	assert.Equal(t, base+1, get[web.Shelf](c, "/api/shelf").Revision, "it was taken in all the same")
}

func eventually(t *testing.T, holds func() bool) {
	t.Helper()
	for began := time.Now(); !holds(); time.Sleep(2 * time.Millisecond) {
		if time.Since(began) > 20*time.Second {
			t.Fatal("it never came to that")
		}
	}
}

// A view nobody waits for any more is not worked on to its end.
func TestAViewEndsWithItsRequest(t *testing.T) {
	_, handler := grown(t, 3000)
	server := httptest.NewServer(handler)
	defer server.Close()
	c := client{t, server}
	short := http.Client{Transport: &http.Transport{}, Timeout: 120 * time.Millisecond}
	_, err := short.Get(server.URL + "/api/board")
	if err == nil {
		t.Skip("this machine judges faster than it can be left")
	}
	eventually(t, func() bool { return len(get[[]web.Job](c, "/api/jobs")) == 0 })
	assert.Equal(t, 3000, get[web.BoardPage](c, "/api/board?count=1").Of, "who asks again is answered")
}
