package web_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/web"
)

// What is open stands on one list: noted by hand, raised by a finished swap, and a stop-gap
// that is there until it is done; done goes off, and can be taken back.
func TestWhatIsStillToBeDone(t *testing.T) {
	c := newClient(t, "")
	open := func(says string) int {
		n := 0
		for _, o := range get[web.TasksView](c, "/api/tasks").Open {
			if strings.Contains(o.Says, says) {
				n++
			}
		}
		return n
	}
	require.Equal(t, 1, open("Print the antenna holder of Brayer"))
	late := get[web.TasksView](c, "/api/tasks").Open[0]
	assert.True(t, late.Late, "2026-06-30 is past: it stands first")
	status, text := c.do("POST", "/api/tasks/brayer-holder/done", `{"done":true}`)
	require.Equal(t, http.StatusOK, status, text)
	assert.Zero(t, open("Print the antenna holder of Brayer"))
	status, text = c.do("POST", "/api/tasks/brayer-holder/done", `{"done":false}`)
	require.Equal(t, http.StatusOK, status, text)
	assert.Equal(t, 1, open("Print the antenna holder of Brayer"))
	status, _ = c.do("POST", "/api/tasks/nothing/done", `{"done":true}`)
	assert.Equal(t, http.StatusNotFound, status)

	assert.Zero(t, open("screws, plugs and antenna holders of Hopper"))
	revision := get[web.QuadView](c, "/api/quads/hopper").Revision
	status, text = c.do("POST", "/api/quads/hopper/finish", fmt.Sprintf(`{"revision":%d,"anyway":true}`, revision))
	require.Equal(t, http.StatusOK, status, text)
	assert.Equal(t, 1, open("screws, plugs and antenna holders of Hopper"), "a finished swap is looked at again")

	hold := []fleet.Hold{{Part: fleet.NodeCamera, Way: fleet.HeldByTies, Awaits: "the cage", Due: "2026-12-24"}}
	quad := get[web.QuadView](c, "/api/quads/brayer")
	mounting := fmt.Sprintf(`{"revision":%d,"patch":{"mounting":{"holdings":[{"part":"camera","way":"ties",`+
		`"awaits":%q,"due":%q}]}}}`, quad.Revision, hold[0].Awaits, hold[0].Due)
	status, text = c.do("POST", "/api/quads/brayer/now", mounting)
	require.Equal(t, http.StatusOK, status, text)
	assert.Equal(t, 1, open("as a stop-gap, until this comes: the cage"))
	status, text = c.do("GET", "/api/tasks.ics", "")
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, text, "DUE;VALUE=DATE:20261224")
	assert.Contains(t, text, "BEGIN:VTODO")
}
