package control_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/control"
	"yokeswap/internal/builds"
)

// layouts of a quad of the demo with nothing said of its sticks, among the quads that are named.
func layouts(t *testing.T, quad string, today bool, among ...string) []control.Layout {
	t.Helper()
	st := builds.Demo()
	q, ok := st.Fleet.Quad(quad)
	require.True(t, ok)
	bare := *q
	bare.Now.Sticks = nil
	if q.Next != nil {
		next := *q.Next
		next.Sticks = nil
		bare.Next = &next
	}
	f := *st.Fleet
	f.Quads = []fleet.Quad{bare}
	for _, id := range among {
		other, ok := st.Fleet.Quad(id)
		require.True(t, ok)
		f.Quads = append(f.Quads, *other)
	}
	if today {
		return control.Layouts(fleet.NowCase(st.Library(), fleet.NewIndex(&f), &f.Quads[0]))
	}
	c := fleet.NewCase(st.Library(), fleet.NewIndex(&f), &f.Quads[0])
	list := control.Layouts(c)
	for _, l := range list {
		for _, found := range control.Check(c.With(fleet.Patch{Sticks: &l.Sticks})) {
			assert.NotEqual(t, verdict.Unfit, found.Level, found.Says)
		}
	}
	return list
}

// Sticks are proposed as hands know them, then as is usual; none that arms by another switch, and
// nothing is said of how they are set up today.
func TestHowSticksCouldBeSetUp(t *testing.T) {
	list := layouts(t, "sluice", false)
	require.Len(t, list, 1)
	assert.Equal(t, "AETR, 1000 to 2000 µs; arm on AUX 1, 1700 to 2100; level on AUX 2, 1700 to 2100", list[0].Label)
	list = layouts(t, "sluice", false, "rynd", "damsel", "hopper", "whip")
	require.Len(t, list, 2)
	assert.Equal(t, "as on Rynd, Damsel", list[0].Note, "Hopper arms by the switch of another mode, of Whip nothing is said")
	assert.Contains(t, list[0].Label, "flip over on AUX 4")
	assert.Empty(t, layouts(t, "sluice", true, "rynd"))
}

// What is on the quad today comes first: hands know it.
func TestTodaysSwitchesComeFirst(t *testing.T) {
	st := builds.Demo()
	q, ok := st.Fleet.Quad("damsel")
	require.True(t, ok)
	bare, next := *q, *q.Next
	next.Sticks = nil
	bare.Next = &next
	f := *st.Fleet
	f.Quads = append([]fleet.Quad{bare}, f.Quads...)
	list := control.Layouts(fleet.NewCase(st.Library(), fleet.NewIndex(&f), &f.Quads[0]))
	require.NotEmpty(t, list)
	assert.Contains(t, list[0].Note, "as on Damsel today")
}
