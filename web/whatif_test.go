package web_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/gates/link"
	"yokeswap/web"
)

// What nobody owns is tried on the board, beside what is brought, and refused where it is owned.
func TestWhatElseWouldOpen(t *testing.T) {
	c := newClient(t, "")
	offered := get[web.WhatIf](c, "/api/whatif")
	require.Len(t, offered.Devices, 1)
	assert.Empty(t, offered.Columns)
	model := offered.Devices[0].Model

	board := get[web.BoardPage](c, "/api/board?left=visor-c-1")
	col := get[web.WhatIf](c, "/api/whatif?left=visor-c-1&try="+model).Columns[0]
	require.Len(t, col.Cells, len(board.Rows))
	for i, row := range board.Rows {
		assert.Equal(t, row.Quad, col.Cells[i].Quad)
	}
	assert.Equal(t, []string{"Rynd", "Fantail"}, col.Opens)
	assert.Empty(t, get[web.WhatIf](c, "/api/whatif?try="+model).Columns[0].Opens, "Visor C reaches those")

	// A swap that is left out is tried as the quad is now.
	now := get[web.WhatIf](c, "/api/whatif?left=swap:rynd,visor-c-1&try="+model).Columns[0]
	assert.Equal(t, link.ReachUnknown, now.Cells[0].Reach, "there is no unit on Rynd")

	status, text := c.do(http.MethodGet, "/api/whatif?try=visor-a", "")
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "visor-a")
	assert.Contains(t, text, "owned")

	m := get[link.Map](c, "/api/links")
	for _, g := range m.Goggles {
		assert.Equal(t, g.ID == model, g.Offer != nil, g.ID)
	}
}

// On the route what fails is put to what could be bought, and refused where there is no such thing.
func TestWhatTheRouteWouldMeetWithMore(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	offered := get[web.RouteWhatIf](c, "/api/route/whatif")
	require.Greater(t, len(offered.Devices), 5)
	assert.Equal(t, "visor-d", offered.Devices[0].Model, "what nobody owns comes first")
	tried := get[web.RouteWhatIf](c, "/api/route/whatif?try=aldine-two,visor-a").Columns
	require.Len(t, tried, 2)
	assert.Equal(t, []string{"Wallower with Visor C", "Sluice with Visor C", "Wallower with Visor B"}, tried[0].Opens)
	assert.Equal(t, 2, tried[0].Count)
	assert.Equal(t, int64(15_900), *tried[0].Price)
	assert.Equal(t, []string{"Damsel with it"}, tried[1].Opens)
	route := get[web.RouteView](c, "/api/route")
	assert.Len(t, tried[0].Wants, len(route.Plan.Links))

	status, text := c.do(http.MethodGet, "/api/route/whatif?try=tallow-4s", "")
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "tallow-4s is no device that could be tried")
	status, text = c.do(http.MethodGet, "/api/route/whatif?try=a,b,c,d,e,f,g,h,i", "")
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "at most 8")
}
