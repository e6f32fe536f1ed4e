package web_test

import (
	"encoding/json"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/web"
)

// An answer that takes longer than a body may take to arrive is answered all the same, and
// leaves its connection fit for what is asked next.
func TestALongAnswerLeavesTheConnectionWell(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	http.DefaultClient.CloseIdleConnections()
	order := func(faults string) (ports web.BoardPorts) {
		_, text := c.do("POST", "/api/quads/quern/board/stand-in", `{"faults":`+faults+`}`)
		require.NoError(t, json.Unmarshal([]byte(text), &ports))
		return ports
	}
	body := `{"address":"` + order(`{"slowMS":300}`).StandIn + `"}`
	status, text := c.do("POST", "/api/quads/quern/board/text/keep", body)
	assert.Equal(t, 200, status, "%.200s", text)
	order(`{}`)
	status, text = c.do("POST", "/api/quads/quern/board/read", body)
	assert.Equal(t, 200, status, "%.200s", text)
}
