package whatif_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/swap"
	"yokeswap/core/plans/whatif"
	"yokeswap/internal/builds"
)

// tried is a model tried on the board of a fleet, with some kit left at home.
func tried(t *testing.T, st *stock.Stock, model string, left ...string) (whatif.TriedColumn, swap.Board) {
	lib, f := st.Library(), fleet.NewIndex(st.Fleet)
	board := swap.NewBoard(lib, f, left)
	columns, err := whatif.Columns(context.Background(), lib, f, board, []string{model})
	require.NoError(t, err)
	return columns[0], board
}

// without is the demo without the pieces of a model.
func without(t *testing.T, model string) *stock.Stock {
	st := builds.Demo()
	st.Fleet.Kit = slices.DeleteFunc(st.Fleet.Kit, func(k fleet.Kit) bool { return k.Model == model })
	return st
}

func TestGogglesNobodyOwns(t *testing.T) {
	st := builds.Demo()
	col, board := tried(t, st, "visor-d")
	require.Len(t, col.Cells, len(board.Rows))
	assert.Equal(t, int64(32_900), *col.Price)
	assert.Empty(t, col.Opens, "what is brought reaches all that they reach")
	assert.Contains(t, col.Says, "links no quad")

	home, _ := tried(t, st, "visor-d", "visor-a-1", "visor-b-1", "visor-c-1")
	assert.NotEmpty(t, home.Opens)
	assert.Contains(t, home.Says, home.Opens[0])
}

// A device tried answers as the same one does that is owned and that nobody has read: on every quad,
// for all goggles and controllers.
func TestTriedIsAsOwnedAndUnread(t *testing.T) {
	checked := 0
	for _, model := range []string{"visor-a", "visor-b", "visor-c", "visor-d"} {
		st := without(t, model)
		col, _ := tried(t, st, model)
		st.Fleet.Kit = append(st.Fleet.Kit, fleet.Kit{ID: "unread", Model: model})
		lib, f := st.Library(), fleet.NewIndex(st.Fleet)
		for i := range f.Quads {
			c := fleet.NewCase(lib, f, &f.Quads[i])
			assert.Equal(t, link.ReachOf(c, "unread").Reach, col.Cells[i].Reach, "%s on %s", model, f.Quads[i].ID)
			checked++
		}
	}
	assert.GreaterOrEqual(t, checked, 36)
}

// Without the one controller that goes through a unit its quad does not fly; trying it opens it.
func TestAControllerNobodyOwns(t *testing.T) {
	st := without(t, "grip-2")
	st.Fleet.Kit = slices.DeleteFunc(st.Fleet.Kit, func(k fleet.Kit) bool { return k.Model == "grip-1" })
	for i := range st.Fleet.Quads {
		if next := st.Fleet.Quads[i].Next; next != nil {
			next.Controller = nil
		}
	}
	col, board := tried(t, st, "grip-2")
	for i := range board.Rows {
		row, cell := board.Rows[i], col.Cells[i]
		if slices.Contains(col.Opens, row.Name) {
			assert.False(t, row.Flies.Links())
			assert.Equal(t, "Grip 2", cell.Controller)
		}
	}
	assert.NotEmpty(t, col.Opens)
}

// A unit is judged on each quad by all gates, and opens no quad it does not go on.
func TestAUnitNobodyOwns(t *testing.T) {
	st := without(t, "pellow-mini")
	for _, model := range []string{"pellow-mini"} {
		col, board := tried(t, st, model)
		lib, f := st.Library(), fleet.NewIndex(st.Fleet)
		for i := range board.Rows {
			c := fleet.NewCase(lib, f, &f.Quads[i])
			c = c.With(fleet.Patch{AirUnit: &fleet.Slot{Model: model}})
			assert.Equal(t, swap.Judge(c).Level, col.Cells[i].Level)
			if slices.Contains(col.Opens, board.Rows[i].Name) {
				assert.NotEqual(t, verdict.Unfit, col.Cells[i].Level)
				assert.NotEqual(t, verdict.Unknown, col.Cells[i].Level)
			}
		}
		assert.Contains(t, col.Says, "of 9 quads")
	}
}

func TestWhatCanBeTried(t *testing.T) {
	st := builds.Demo()
	lib, f := st.Library(), fleet.NewIndex(st.Fleet)
	var names []string
	for _, d := range whatif.Devices(lib, f) {
		names = append(names, d.Model)
		assert.Empty(t, f.PiecesOf(d.Model))
	}
	assert.Equal(t, []string{"visor-d"}, names, "all others are owned")
	board := swap.NewBoard(lib, f, nil)
	for _, model := range []string{"visor-a", "nix", "cowl-r"} {
		_, err := whatif.Columns(context.Background(), lib, f, board, []string{model})
		assert.ErrorContains(t, err, model)
	}
	_, err := whatif.Columns(context.Background(), lib, f, board, strings.Split("abcdefghi", ""))
	assert.ErrorContains(t, err, "at most 8")
	twice, err := whatif.Columns(context.Background(), lib, f, board, []string{"visor-d", "visor-d"})
	require.NoError(t, err)
	assert.Len(t, twice, 1)
}

// A price in another currency is shown by its rate, and not at all without one.
func TestPricesOfWhatIsTried(t *testing.T) {
	st := builds.Demo()
	g, ok := gear.Find[*gear.Goggles](st.Library(), "visor-d")
	require.True(t, ok)
	g.Deals = nil
	g.Offer = &gear.Offer{Price: new(100.0), Currency: "GBP"}
	rate := st.Fleet.Rates[0].Worth
	devices := whatif.Devices(st.Library(), fleet.NewIndex(st.Fleet))
	assert.InDelta(t, 10_000*rate, float64(*devices[0].Price), 1)
	st.Fleet.Rates = nil
	assert.Nil(t, whatif.Devices(st.Library(), fleet.NewIndex(st.Fleet))[0].Price)
}
