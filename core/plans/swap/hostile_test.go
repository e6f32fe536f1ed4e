package swap_test

import (
	"fmt"
	"testing"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// withLongCharts is the demo with goggles and units of 200 releases each, and goggles of 20
// modes, each release of which asks for one.
func withLongCharts(b testing.TB) (*gear.Library, *fleet.Index) {
	st := builds.Demo()
	for i := range st.Sets[0].Goggles {
		g := &st.Sets[0].Goggles[i]
		for n := range 20 {
			g.Modes = append(g.Modes, gear.Mode{ID: fmt.Sprintf("m-%d", n), Firmware: firmware.Any})
		}
		g.Releases = releases(func(n int) *gear.Install { return &gear.Install{Mode: fmt.Sprintf("m-%d", n%20)} })
	}
	for i := range st.Sets[0].AirUnits {
		st.Sets[0].AirUnits[i].Releases = releases(func(int) *gear.Install { return nil })
	}
	for i := range st.Fleet.Kit {
		st.Fleet.Kit[i].Firmware, st.Fleet.Kit[i].Mode = "1.3", "m-0"
	}
	for i := range st.Sets[0].Pairings {
		p := &st.Sets[0].Pairings[i]
		p.AirFirmware, p.GogglesFirmware = ">=1.150", ">=1.160"
	}
	return st.Library(), fleet.NewIndex(st.Fleet)
}

func releases(install func(n int) *gear.Install) (list []gear.Release) {
	for n := range 200 {
		list = append(list, gear.Release{
			Version: firmware.Version(fmt.Sprintf("1.%d", n)),
			From:    firmware.Range(fmt.Sprintf(">=1.%d", max(0, n-3))),
			Install: install(n),
		})
	}
	return list
}

// A small file with long charts does not keep a board waiting.
func BenchmarkBoardLongCharts(b *testing.B) {
	for b.Loop() {
		lib, index := withLongCharts(b)
		swap.NewBoard(lib, index, nil)
	}
	b.ReportMetric(2000, "goal-ms")
}
