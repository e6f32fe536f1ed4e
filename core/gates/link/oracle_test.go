package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/internal/sample"
)

// bruteForce tries every release of the unit with every release and mode of
// the goggles, and gives the fewest updates after which a statement holds.
func bruteForce(set *gear.Set, air, eyes fleet.Kit) (updates int, found bool) {
	lib := gear.NewLibrary(set)
	unit, _ := gear.Find[*gear.AirUnit](lib, air.Model)
	goggles, _ := gear.Find[*gear.Goggles](lib, eyes.Model)
	count := func(d *gear.Device, from, to firmware.Version) (int, bool) {
		steps, ok := d.Chart().Way(firmware.State{Version: from}, firmware.State{Version: to})
		return len(steps), ok
	}
	for _, a := range unit.Releases {
		na, ok := count(&unit.Device, air.Firmware, a.Version)
		if !ok {
			continue
		}
		for _, g := range goggles.Releases {
			ng, ok := count(&goggles.Device, eyes.Firmware, g.Version)
			if !ok {
				continue
			}
			for _, p := range lib.Pairings(air.Model, eyes.Model) {
				if p.Never || !p.AirFirmware.Holds(a.Version) || !p.GogglesFirmware.Holds(g.Version) {
					continue
				}
				if mode, ok := goggles.Mode(p.Mode); p.Mode != "" && (!ok || !mode.Firmware.Holds(g.Version)) {
					continue
				}
				if !found || na+ng < updates {
					updates, found = na+ng, true
				}
			}
		}
	}
	return updates, found
}

// An oracle of another make: over random releases, chains and pairings, the
// gate's answer about a pair of goggles is what trying everything finds.
func TestReachAgreesWithBruteForce(t *testing.T) {
	versions := []firmware.Version{"1.0", "1.0.9", "1.0.10", "1.1", "2.0"}
	ranges := []firmware.Range{"*", "<=1.0.9", ">=1.0.10", ">=1.1", "1.1", ">=1.0.9 <2"}
	chains := []firmware.Range{"1.0", "1.0.9", ">=1.0.9", ">=1.0.10", "*"}
	rapid.Check(t, func(t *rapid.T) {
		releases := func(name string) []gear.Release {
			var list []gear.Release
			for _, v := range rapid.SliceOfNDistinct(rapid.SampledFrom(versions), 3, 5, rapid.ID).Draw(t, name) {
				list = append(list, gear.Release{Version: v, From: rapid.SampledFrom(chains).Draw(t, name+" from")})
			}
			for i := range list {
				for _, r := range list {
					if r.Version.Compare(list[i].Version) < 0 && rapid.IntRange(0, 3).Draw(t, "rollback") == 0 {
						list[i].RollbackTo = append(list[i].RollbackTo, r.Version)
					}
				}
			}
			return list
		}
		set := sample.Set()
		set.AirUnits[0].Releases, set.Goggles[0].Releases = releases("unit"), releases("goggles")
		set.Goggles[0].Modes = []gear.Mode{{ID: "a"}, {ID: "b", Firmware: rapid.SampledFrom(ranges).Draw(t, "mode from")}}
		set.Pairings = nil
		for i := range rapid.IntRange(0, 3).Draw(t, "pairings") {
			p := gear.Pairing{AirUnit: "first", Goggles: "old-eyes", AirFirmware: rapid.SampledFrom(ranges).Draw(t, "air"),
				GogglesFirmware: rapid.SampledFrom(ranges).
					Draw(t, "eyes"),
				Mode: rapid.SampledFrom([]string{"", "a", "b"}).Draw(t, "mode")}
			p.ID = string(rune('p' + i))
			set.Pairings = append(set.Pairings, p)
		}
		air := sample.Own("first", rapid.SampledFrom(set.AirUnits[0].Releases).Draw(t, "carries").Version, "")
		eyes := sample.Own("old-eyes", rapid.SampledFrom(set.Goggles[0].Releases).Draw(t, "worn").Version, "a")
		c := sample.Case(set, []fleet.Kit{air, eyes}, fleet.Fit{
			Nones:   gear.Nones{None: []string{fleet.NoBoard}}, // the picture alone
			AirUnit: &fleet.Slot{Kit: "first"},
			Goggles: &fleet.Slot{Kit: "old-eyes"},
		})
		got := link.ReachOf(c, "old-eyes")

		updates, found := bruteForce(set, air, eyes)
		switch {
		case len(set.Pairings) == 0:
			assert.Equal(t, link.ReachUnknown, got.Reach)
		case !found:
			assert.Equal(t, link.ReachNever, got.Reach)
		case got.Reach == link.ReachNow:
			assert.Zero(t, updates)
		default:
			assert.Equal(t, link.ReachAfter, got.Reach)
			assert.Equal(t, updates, got.Updates)
		}
	})
}

// A law: a firmware that is not known is never judged better than the best
// that any release would be.
func TestNotKnowingNeverHelps(t *testing.T) {
	for _, pair := range [][2]string{{"first", "old-eyes"}, {"first", "new-eyes"}, {"second", "old-eyes"}, {"second", "new-eyes"}, {"small", "old-eyes"}} {
		set := sample.Set()
		judge := func(v firmware.Version) verdict.Level {
			owned := kit()
			for i := range owned {
				if owned[i].ID == pair[0] {
					owned[i].Firmware = v
				}
			}
			next := fit(pair[0], pair[1], "")
			next.Receiver = "receiver"
			return verdict.Worst(link.Check(sample.Case(set, owned, next)))
		}
		best := verdict.Unfit
		unit, _ := gear.Find[*gear.AirUnit](gear.NewLibrary(set), pair[0])
		for _, r := range unit.Releases {
			if level := judge(r.Version); best.WorseThan(level) {
				best = level
			}
		}
		assert.False(t, best.WorseThan(judge("")), "%v", pair)
	}
}

func TestThePictureShowsWhatOverlaps(t *testing.T) {
	next := fit("first", "new-eyes", "old-hand")
	next.AirUnit.Firmware, next.Goggles.Firmware = "1.1", "5.2"
	pic := link.Draw(sample.Case(sample.Set(), kit(), next))
	assert.Len(t, pic.Lanes, 3)
	assert.Equal(t, "1.0.6", pic.Lanes[0].Current)
	assert.Equal(t, "1.1", pic.Lanes[0].Target)
	assert.Len(t, pic.Bars, 1)
	assert.Equal(t, []string{"1.1"}, pic.Bars[0].Covers["airUnit"])
	assert.Equal(t, []string{"5.2"}, pic.Bars[0].Covers["goggles"])
	assert.True(t, pic.Bars[0].Holds)

	owned := kit()
	owned[0].Firmware = "1.0.7" // on the device, but not among its releases
	lane := link.Draw(sample.Case(sample.Set(), owned, fit("first", "old-eyes", "old-hand"))).Lanes[0]
	assert.Equal(t, link.ReleaseMark{Version: "1.0.7"}, lane.Releases[2], "placed by order, and marked as not listed")

	assert.NotEmpty(t, link.Draw(sample.Case(sample.Set(), kit(), fit("small", "old-eyes", ""))).Never)
	assert.Empty(t, link.Draw(sample.Case(sample.Set(), kit(), fleet.Fit{})).Lanes)
}

func TestWhatTheNewLinkLosesIsSaid(t *testing.T) {
	set := sample.Set()
	set.Pairings[0].Features = []string{"picture flip", "recording"}
	set.Pairings[3].Features = []string{"recording", "canvas OSD"}
	now := fit("first", "old-eyes", "old-hand")
	next := fit("second", "new-eyes", "new-hand")
	next.AirUnit.Firmware = "2.3"
	f := &fleet.Fleet{Kit: kit(), Quads: []fleet.Quad{{ID: "q", Now: now, Next: &next}}}
	lost := byCode(link.Check(fleet.NewCase(gear.NewLibrary(set), fleet.NewIndex(f), &f.Quads[0])), link.CodeFeaturesLost)
	assert.Equal(t, "Lost against now: picture flip. Gained: canvas OSD.", lost.Says)
}
