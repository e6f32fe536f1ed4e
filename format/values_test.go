package format_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/format"
	"yokeswap/internal/builds"
)

// What a missing value could be follows from its field; what has too many forms, and an
// object of several values, has none.
func TestWhatAMissingValueCouldBe(t *testing.T) {
	st := builds.Demo()
	x := fleet.NewIndex(st.Fleet)
	q, _ := x.Quad("wallower")
	c := fleet.NewCase(st.Library(), x, q)
	for _, w := range []struct {
		m    verdict.Missing
		path string
		of   []any
	}{
		{verdict.Missing{Of: "gear", ID: "aldine-one", Field: "input.maxV"}, "input.maxV", []any{3.0, 7.0, 17.0, 27.0}},
		{verdict.Missing{Of: "gear", ID: "aldine-one", Field: "activation"}, "activation.needed", []any{true, false}},
		{verdict.Missing{Of: "gear", ID: "bramble-f7", Field: "uarts.4.hardware"}, "uarts.4.hardware", []any{true, false}},
		{verdict.Missing{Of: "gear", ID: "tallow-4s", Field: "chemistry"}, "chemistry", []any{"lipo", "lihv", "liion", "lifepo"}},
		{verdict.Missing{Of: "gear", ID: "tallow-4s", Field: "cells"}, "cells", []any{1, 4, 100}},
		{verdict.Missing{Of: "gear", ID: "aldine-one", Field: "radio.bands"}, "radio.bands", []any{[]any{"5.8"}, []any{"2.4"}}},
		{verdict.Missing{Of: "gear", ID: "aldine-one", Field: "plug"}, "plug.connector", nil},
		{verdict.Missing{Of: "quad", ID: "wallower", Field: "next.sticks"}, "next.sticks.unit", nil},
		{verdict.Missing{Of: "quad", ID: "wallower", Field: "next.bay"}, "next.bay", nil},
		{verdict.Missing{Of: "gear", ID: "nix", Field: "input.maxV"}, "input.maxV", nil},
		{verdict.Missing{Of: "fleet", Field: "region"}, "region", nil},
	} {
		v := format.ValuesOf(c, w.m)
		assert.Equal(t, w.path, v.Path, w.m.Field)
		assert.Equal(t, w.of, v.Of, w.m.Field)
	}
	feeds := format.ValuesOf(c, verdict.Missing{Of: "quad", ID: "wallower", Field: "next.feeds.airUnit"})
	assert.Equal(t, "next.feeds.airUnit.from", feeds.Path)
	assert.Contains(t, feeds.Of, "pack")
	board, _ := gear.Find[*gear.Board](c.Library, c.Fit.Board)
	assert.Len(t, feeds.Of, 1+len(board.Pads))
	kit := format.ValuesOf(c, verdict.Missing{Of: "kit", ID: "one-wallower", Field: "firmware"})
	assert.Contains(t, kit.Of, "1.0.6")
}
