//go:build !race

// It takes long with the race detector, so it is run without.

package route

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// long is a fleet whose devices have 200 releases each, one after the other, goggles with
// 20 modes of which each release asks for one, and 40 statements that all differ.
func long() Request {
	releases := func(install func(n int) *gear.Install) (list []gear.Release) {
		for n := range 200 {
			r := gear.Release{Version: firmware.Version(fmt.Sprintf("1.%d", n)), Install: install(n)}
			if n > 0 {
				r.From = firmware.Range(fmt.Sprintf(">=1.%d", max(0, n-3)))
			}
			list = append(list, r)
		}
		return list
	}
	unit := gear.AirUnit{Device: gear.Device{Entry: gear.Entry{ID: "u"},
		Releases: releases(func(int) *gear.Install { return nil })}}
	goggles := gear.Goggles{Device: gear.Device{Entry: gear.Entry{ID: "g"}, Releases: releases(func(n int) *gear.Install {
		return &gear.Install{Mode: fmt.Sprintf("m-%d", n%20)}
	})}}
	set := &gear.Set{}
	for n := range 20 {
		goggles.Modes = append(goggles.Modes, gear.Mode{ID: fmt.Sprintf("m-%d", n)})
	}
	for n := range 40 {
		holds := firmware.Range(fmt.Sprintf(">=1.%d", 150+n))
		set.Pairings = append(set.Pairings, gear.Pairing{
			Entry:           gear.Entry{ID: fmt.Sprintf("p-%d", n)},
			AirUnit:         "u",
			Goggles:         "g",
			AirFirmware:     holds,
			GogglesFirmware: holds,
			Mode:            fmt.Sprintf("m-%d", n%20),
			Controllers:     []gear.ControllerRange{},
		})
	}
	set.AirUnits, set.Goggles = []gear.AirUnit{unit}, []gear.Goggles{goggles}
	f := &fleet.Fleet{}
	for k := range 4 {
		f.Kit = append(f.Kit, fleet.Kit{
			ID:       fmt.Sprintf("g-%d", k),
			Model:    "g",
			Firmware: firmware.Version(fmt.Sprintf("1.%d", k)),
			Mode:     "m-1",
		})
	}
	for n := range 20 {
		kit := fleet.Kit{ID: fmt.Sprintf("u-%d", n), Model: "u", Firmware: firmware.Version(fmt.Sprintf("1.%d", n%7))}
		f.Kit = append(f.Kit, kit)
		f.Quads = append(f.Quads, fleet.Quad{ID: fmt.Sprintf("q-%d", n), Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: kit.ID}}})
		for k := range 4 {
			f.Wants = append(f.Wants, fleet.Want{Quad: f.Quads[n].ID, Goggles: f.Kit[k].ID, Weight: fleet.Must})
		}
	}
	return Request{Library: gear.NewLibrary(set), Fleet: fleet.NewIndex(f), Wants: f.Wants}
}

// A small file with long charts comes to an end: the work is bounded, not only the nodes,
// and it is said that it was.
func TestLongChartsComeToAnEnd(t *testing.T) {
	if testing.Short() {
		t.Skip("short: takes seconds")
	}
	r := long()
	p, err := Solve(r)
	require.NoError(t, err)
	assert.Len(t, p.Links, 80)
	assert.True(t, p.Bounded || p.OrderBounded || p.Links[0].Met, "%s", p.Says)
	steps, err := Steps(r)
	require.NoError(t, err)
	assert.Equal(t, p.Steps, steps)
}

func BenchmarkLongCharts(b *testing.B) {
	r := long()
	for b.Loop() {
		if _, err := Solve(r); err != nil {
			b.Fatal(err)
		}
	}
	b.ReportMetric(5000, "goal-ms")
}
