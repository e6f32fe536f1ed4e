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
