package decide

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// put takes one group of another fit over.
func put(f *fleet.Fit, g group, from fleet.Fit) {
	switch g {
	case unitSlot:
		f.AirUnit = from.AirUnit
	case gogglesSlot:
		f.Goggles = from.Goggles
	case controllerSlot:
		f.Controller = from.Controller
	case receiver:
		f.Receiver, f.ReceiverCable = from.Receiver, from.ReceiverCable
	case board:
		f.Board = from.Board
	case pack:
		f.Pack, f.PackLead = from.Pack, from.PackLead
	case regulators:
		f.Regulators, f.Loads = from.Regulators, from.Loads
	case feeds:
		f.Feeds, f.Jumpers = from.Feeds, from.Jumpers
		f.CapacitorUF, f.CapacitorV = from.CapacitorUF, from.CapacitorV
	case parts:
		f.Parts = from.Parts
	case cable:
		f.Harness, f.HarnessTo, f.BranchTo, f.Beside = from.Harness, from.HarnessTo, from.BranchTo, from.Beside
		f.Headers = from.Headers
	case solder:
		f.Wires, f.Moved, f.Depth = from.Wires, from.Moved, from.Depth
	case ports:
		f.Ports = from.Ports
	case antennas:
		f.Antennas = from.Antennas
	case mounting:
		f.Mounting = from.Mounting
	case runs:
		f.Runs = from.Runs
	case layout:
		f.OSD = from.OSD
	case sticks:
		f.Sticks = from.Sticks
	case rest:
		f.Analog, f.Nones, f.Revisions, f.UpsideDown = from.Analog, from.Nones, from.Revisions, from.UpsideDown
	}
}

// What a gate is said to be blind to changes nothing of what it says or proposes: each group of
// one build is put into another.
func TestAGateIsBlindToWhatItIsSaidToBe(t *testing.T) {
	s := builds.Demo()
	lib := s.Library()
	say := func(c fleet.Case, k int) string {
		text, err := json.Marshal([]any{swap.Gates[k].Check(c), swap.Gates[k].Candidates(c)})
		require.NoError(t, err)
		return string(text)
	}
	index := fleet.NewIndex(s.Fleet)
	maker := builds.New(16, lib, index)
	changed := map[group]int{}
	for i := range 400 {
		a := fleet.Quad{ID: "a", Now: maker.Fit()}
		if i%2 == 0 {
			a = index.Quads[i/2%len(index.Quads)]
		}
		from := maker.Fit()
		for k, gate := range swap.Gates {
			c := fleet.NewCase(lib, index, &a)
			was := say(c, k)
			for _, g := range blind[gate.Name] {
				fit := c.Fit.Clone()
				put(&fit, g, from)
				if !assert.ObjectsAreEqual(values(&fit)[g], values(c.Fit)[g]) {
					changed[g]++
				}
				assert.True(t, was == say(c.Carrying(&fit), k), "%s looks at group %d", gate.Name, g)
			}
		}
	}
	for _, gate := range swap.Gates {
		for _, g := range blind[gate.Name] {
			assert.Greater(t, changed[g], 50, "group %d was hardly ever another", g)
		}
	}
}
