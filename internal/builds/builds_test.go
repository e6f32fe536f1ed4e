package builds_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
	"yokeswap/internal/builds"
)

func quads(st *stock.Stock, n int) (list []fleet.Quad) {
	for seed := range n {
		list = append(list, builds.Alone(uint64(seed), st.Library(), st.Fleet).Quads[0])
	}
	return list
}

// A build is one a file could hold: the formats take each, so that what the nets find
// is found in something a builder can enter.
func TestEveryBuildCouldStandInAFile(t *testing.T) {
	st := builds.Demo()
	for _, q := range quads(st, 200) {
		text, err := format.Write(&q)
		require.NoError(t, err)
		entered := builds.Demo()
		assert.NoError(t, format.TakeEntry(entered, stock.Ref{Kind: stock.KindQuad, ID: q.ID}, text), q.ID)
	}
}

// The same seed makes the same build.
func TestASeedDecides(t *testing.T) {
	st := builds.Demo()
	assert.Equal(t, quads(st, 20), quads(st, 20))
}

// The builds reach the corners: every gate at every level it has, and most of what
// the gates can say. A generator that gets tame would leave the nets with nothing to
// catch.
func TestTheBuildsReachTheCorners(t *testing.T) {
	st := builds.Demo()
	levels := map[verdict.Gate]map[verdict.Level]int{}
	codes := map[verdict.Code]int{}
	for seed := range 400 {
		alone := builds.Alone(uint64(seed), st.Library(), st.Fleet)
		for _, g := range swap.JudgeAll(st.Library(), alone)[0].Gates {
			if levels[g.Gate] == nil {
				levels[g.Gate] = map[verdict.Level]int{}
			}
			levels[g.Gate][g.Level]++
			for _, finding := range g.Findings {
				codes[finding.Code]++
			}
		}
	}
	for gate, seen := range levels {
		assert.Positive(t, seen[verdict.Unfit], "%s never shut", gate)
		assert.Positive(t, seen[verdict.Unknown], "%s never unknown", gate)
		assert.GreaterOrEqual(t, len(seen), 4, "%s: %v", gate, seen)
	}
	assert.Greater(t, len(codes), 80, "kinds of findings")
}

// What is two, none, swapped and exactly at its limit comes up.
func TestTheBuildsHoldWhatGoesWrong(t *testing.T) {
	st := builds.Demo()
	seen := map[string]int{}
	note := func(what string, is bool) {
		if is {
			seen[what]++
		}
	}
	for _, q := range quads(st, 200) {
		f := q.NextFit()
		note("no board, stated", f.Without(fleet.NoBoard))
		note("no board, not stated", f.Board == "" && !f.Without(fleet.NoBoard))
		note("a cable with wires beside it", f.Harness != "" && len(f.Wires) > 0)
		note("crimps moved", len(f.Moved) > 0)
		note("two regulators", len(f.Regulators) > 1)
		note("a part on a regulator", len(f.Regulators) > 0)
		note("picture alone", f.Depth == fleet.PictureOnly)
		note("a capacitor without rating", f.CapacitorUF != nil && f.CapacitorV == nil)
		note("an inverter's jumper", hasInverter(f))
		twice := map[int]bool{}
		for _, p := range f.Ports {
			note("two uses on one port", twice[p.UART])
			twice[p.UART] = true
		}
	}
	for _, what := range []string{
		"no board, stated",
		"no board, not stated",
		"a cable with wires beside it",
		"a part on a regulator",
		"picture alone",
		"a capacitor without rating",
		"an inverter's jumper",
		"two uses on one port",
	} {
		assert.Positive(t, seen[what], what)
	}
}

func hasInverter(f fleet.Fit) bool {
	for pad := range f.Jumpers {
		if _, sends, serial := gear.SerialPin(pad); serial && !sends {
			return true
		}
	}
	return false
}
