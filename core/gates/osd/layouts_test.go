package osd_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/osd"
	"yokeswap/internal/builds"
)

// A plan that says nothing of its OSD is offered what is on other quads, on the grid the goggles
// show, and what is usual; each is sound. Of today nothing is proposed: it is read off the board.
func TestWhereElementsCouldStand(t *testing.T) {
	st := builds.Demo()
	quern, ok := st.Fleet.Quad("quern")
	require.True(t, ok)
	bare := *quern
	bare.Now.OSD = nil
	next := *quern.Next
	next.OSD = nil
	bare.Next = &next
	f := *st.Fleet
	f.Quads = []fleet.Quad{bare}
	c := fleet.NewCase(st.Library(), fleet.NewIndex(&f), &f.Quads[0])
	list := osd.Layouts(c)
	require.Len(t, list, 1)
	assert.Equal(t, "as is usual", list[0].Note)
	assert.Contains(t, list[0].Label, "warnings")
	for _, other := range st.Fleet.Quads {
		if other.ID != "quern" {
			f.Quads = append(f.Quads, other)
		}
	}
	c = fleet.NewCase(st.Library(), fleet.NewIndex(&f), &f.Quads[0])
	list = osd.Layouts(c)
	require.Greater(t, len(list), 1)
	assert.Contains(t, list[0].Note, "as on ")
	for _, l := range list {
		for _, found := range osd.Check(c.With(fleet.Patch{OSD: &l.Layout})) {
			assert.NotContains(t, []verdict.Level{verdict.Unfit, verdict.Unknown}, found.Level, found.Says)
			assert.NotEqual(t, osd.CodeOverlap, found.Code, found.Says)
		}
	}
	assert.Empty(t, osd.Layouts(fleet.NowCase(st.Library(), fleet.NewIndex(&f), &f.Quads[0])))
}
