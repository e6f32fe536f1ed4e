package decide

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// put takes one group of another fit over.
func put(f *fleet.Fit, g group, from fleet.Fit) {
	to, other := reflect.ValueOf(f).Elem(), reflect.ValueOf(&from).Elem()
	for _, at := range indices[g] {
		to.FieldByIndex(at).Set(other.FieldByIndex(at))
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
				if !assert.ObjectsAreEqual(g.values(&fit), g.values(c.Fit)) {
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

// Each field of a fit is in one group, else two fits that differ in it are taken for one.
func TestEachFieldOfAFitIsInAGroup(t *testing.T) {
	in := map[string]int{}
	for _, list := range indices {
		for _, at := range list {
			in[fmt.Sprint(at)]++
		}
	}
	for _, field := range reflect.VisibleFields(reflect.TypeFor[fleet.Fit]()) {
		times := 0 // it, or what it is embedded in
		for k := range field.Index {
			times += in[fmt.Sprint(field.Index[:k+1])]
		}
		if !field.Anonymous || times > 0 { // else its fields are each in one
			assert.Equal(t, 1, times, field.Name)
		}
	}
}

// A patch changes no group but those its fields are said to touch: what the gates propose for the
// demo's quads and for random ones is put in, and what a builder could pick of another random one.
func TestAPatchTouchesWhatItIsSaidTo(t *testing.T) {
	s := builds.Demo()
	index := fleet.NewIndex(s.Fleet)
	maker := builds.New(61, s.Library(), index)
	patches := reflect.TypeFor[fleet.Patch]()
	for i := range patches.NumField() {
		assert.Contains(t, touches, patches.Field(i).Name)
	}
	tried := 0
	for i := range 300 {
		q := fleet.Quad{ID: "a", Now: maker.Fit()}
		if i < len(index.Quads) {
			q = index.Quads[i]
			q.Now = q.Now.Clone()
		}
		stated(&q.Now)
		c := fleet.NewCase(s.Library(), index, &q).With(fleet.Patch{}) // as a search begins
		list := pickedOf(maker.Fit())
		for k := range swap.Gates {
			for _, candidate := range swap.Gates[k].Candidates(c) {
				list = append(list, candidate.Patch)
			}
		}
		for _, part := range c.Fit.Parts {
			list = append(list, fleet.Patch{Parts: []fleet.PlacedPart{{ID: part.ID}}})
		}
		for _, patch := range list {
			after, said := change.Settled(c, patch), touched(&patch)
			for g := range groups {
				is, was := reflect.ValueOf(after.Fit).Elem(), reflect.ValueOf(c.Fit).Elem()
				if !g.same(is, was) {
					assert.Contains(t, said, g, "%d: %+v", g, patch)
				}
			}
			tried++
		}
	}
	assert.Greater(t, tried, 5000)
}

// pickedOf are patches that each take something of a fit, and some that take something out.
func pickedOf(f fleet.Fit) []fleet.Patch {
	list := []fleet.Patch{
		{AirUnit: f.AirUnit}, {AirUnit: &fleet.Slot{}}, {Goggles: f.Goggles}, {Goggles: &fleet.Slot{}},
		{Controller: f.Controller}, {Controller: &fleet.Slot{}}, {Receiver: &f.Receiver}, {Receiver: new("")},
		{Board: &f.Board}, {Board: new("")}, {Pack: &f.Pack}, {Pack: new("")}, {Feeds: f.Feeds},
		{CapacitorUF: f.CapacitorUF}, {CapacitorV: f.CapacitorV}, {Wiring: &f.Wiring}, {Wiring: &fleet.Wiring{}},
		{Parts: f.Parts}, {ReceiverCable: f.ReceiverCable}, {ReceiverCable: &fleet.Cable{}}, {Antennas: f.Antennas},
		{Mounting: &f.Mounting}, {Mounting: &fleet.Mounting{}}, {Runs: f.Runs}, {OSD: f.OSD}, {Sticks: f.Sticks},
		{Features: f.Features},
	}
	for _, r := range f.Regulators {
		list = append(list, fleet.Patch{Regulator: &r})
	}
	return list
}

// stated states of a fit what goes with a part, a board or a controller.
func stated(f *fleet.Fit) {
	for _, part := range f.Parts {
		if _, held := f.HoldingOf(part.ID); !held {
			f.Holdings = append(f.Holdings, fleet.Hold{Part: part.ID, Way: fleet.HeldByTape})
		}
	}
	if f.Controller == nil && !slices.Contains(f.None, fleet.NoController) {
		f.None = append(f.None, fleet.NoController)
	}
	if f.Board != "" && f.Features == nil {
		f.Features = []string{}
	}
}
