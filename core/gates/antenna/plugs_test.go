package antenna_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// Two plugs of one kind go together where one is male and the other female; an adapter on
// goggles has to reach past their lip, as a plug does (common practice).
func TestSexesAndAdaptersOnGoggles(t *testing.T) {
	through := func(barrel *unit.Millimetres) func(*gear.Set, *fleet.Kit) {
		return func(s *gear.Set, kit *fleet.Kit) {
			s.Adapters = []gear.Adapter{{Entry: gear.Entry{ID: "ring"}, From: "sma", To: "ufl",
				LossDB: new(unit.Decibels(0.3)), BarrelMM: barrel}}
			for i := range s.Goggles {
				if r := s.Goggles[i].Receive; r != nil {
					other := *r
					other.Plug = "ufl"
					s.Goggles[i].Receive = &other
				}
			}
			kit.Adapter = "ring"
		}
	}
	sexed := func(antenna, port gear.Sex) func(*gear.Set, *fleet.Kit) {
		return func(s *gear.Set, _ *fleet.Kit) {
			for i := range s.Antennas {
				if s.Antennas[i].ID == "eye" {
					s.Antennas[i].PlugSex = antenna
				}
			}
			for i := range s.Goggles {
				if r := s.Goggles[i].Receive; r != nil {
					other := *r
					other.PlugSex = port
					s.Goggles[i].Receive = &other
				}
			}
		}
	}
	for name, c := range map[string]struct {
		change func(*gear.Set, *fleet.Kit)
		code   verdict.Code
		level  verdict.Level
	}{
		"as usual":                   {sexed("", ""), antenna.CodeFits, verdict.Fits},
		"female onto male":           {sexed(gear.Female, gear.Male), antenna.CodeFits, verdict.Fits},
		"female onto the usual":      {sexed(gear.Female, ""), antenna.CodePlug, verdict.Unfit},
		"male onto male":             {sexed(gear.Male, gear.Male), antenna.CodePlug, verdict.Unfit},
		"an adapter that reaches":    {through(new(unit.Millimetres(12))), antenna.CodeAdapter, verdict.Caution},
		"an adapter too short":       {through(new(unit.Millimetres(1))), antenna.CodeBarrel, verdict.Unfit},
		"how far it reaches unknown": {through(nil), antenna.CodeBarrel, verdict.Unknown},
	} {
		set := sample.Set()
		goggles := sample.Own("new-eyes", "5.2", "b")
		goggles.Antennas = []string{"eye", "eye"}
		c.change(set, &goggles)
		k := sample.Case(set, []fleet.Kit{goggles, sample.Own("first", "1.1", "")}, fleet.Fit{
			AirUnit: &fleet.Slot{Kit: "first"}, Goggles: &fleet.Slot{Kit: "new-eyes"}, Antennas: sample.Pair()})
		findings := antenna.Check(k)
		assert.Contains(t, codes(findings), c.code, name)
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %+v", name, findings)
	}
}

// An antenna whose band is stated by its ends is beside the channels outside them, and so is
// one of which it is not known whether the unit has that channel.
func TestChannelsBesideAnAntenna(t *testing.T) {
	for name, c := range map[string]struct {
		band    gear.Band
		from    *unit.Megahertz
		comes   firmware.Range // of the channel beside
		carries firmware.Version
		beside  bool
	}{
		"by name, all of it":             {"5.8", nil, "", "1.1", false},
		"by name, tuned to a part":       {"5.8", new(unit.Megahertz(5700)), "", "1.1", true},
		"by its ends":                    {"5725-5850", nil, "", "1.1", true},
		"the unit does not have it yet":  {"5725-5850", nil, ">=1.2", "1.1", false},
		"the unit has it":                {"5725-5850", nil, ">=1.1", "1.1", true},
		"whether it has it is not known": {"5725-5850", nil, ">=1.2", "", true},
	} {
		set := sample.Set()
		set.BandPlans = []gear.BandPlan{{Entry: gear.Entry{ID: "plan"}, Channels: []gear.Channel{
			{ID: "1", MHz: 5660, WidthMHz: 20, Firmware: c.comes}, {ID: "2", MHz: 5800, WidthMHz: 20}}}}
		set.AirUnits[0].Radio.BandPlan = "plan"
		set.Antennas[0].Bands[0].Band, set.Antennas[0].Bands[0].FromMHz = c.band, c.from
		goggles := sample.Own("new-eyes", "5.2", "b")
		goggles.Antennas = []string{"eye", "eye"}
		k := sample.Case(set, []fleet.Kit{goggles, sample.Own("first", c.carries, "")}, fleet.Fit{
			AirUnit: &fleet.Slot{Kit: "first"}, Goggles: &fleet.Slot{Kit: "new-eyes"}, Antennas: sample.Pair()})
		if c.beside {
			assert.Contains(t, codes(antenna.Check(k)), antenna.CodeTuned, name)
		} else {
			assert.NotContains(t, codes(antenna.Check(k)), antenna.CodeTuned, name)
		}
	}
}

// Antennas over what is cut out of a plate are further from carbon than over a full block, which says so.
func TestCarbonIsWhereAPlateIs(t *testing.T) {
	mm := func(n unit.Millimetres) *unit.Millimetres { return &n }
	says := func(outline []gear.Corner) string {
		set := sample.Set()
		set.Frames[0].Plates = []gear.FramePlate{{ID: "top", FromXMM: -60, ToXMM: 60, YMM: mm(40), ZMM: mm(30), ThickMM: mm(2), Outline: outline}}
		for i := range set.Antennas {
			set.Antennas[i].RodMM, set.Antennas[i].RodDiameterMM = mm(30), mm(4)
		}
		pair := *sample.Pair()
		pair.Stands = []fleet.Stand{{XMM: 58, YMM: 12, ZMM: 40, RiseDeg: 60}, {XMM: 58, YMM: -12, ZMM: 40, TurnDeg: 180, RiseDeg: 60}}
		c := caseOf(set, &pair, "eye", "eye")
		c.Fit.Frame = set.Frames[0].ID
		for _, f := range antenna.Check(c) {
			if f.Code == antenna.CodeCarbon {
				return f.Says
			}
		}
		return ""
	}
	assert.Contains(t, says(nil), "6 mm from carbon")
	assert.Contains(t, says(nil), "No outline of its top is drawn")
	full := []gear.Corner{{XMM: -60, YMM: -20}, {XMM: 60, YMM: -20}, {XMM: 60, YMM: 20}, {XMM: -60, YMM: 20}}
	assert.Contains(t, says(full), "6 mm from carbon")
	assert.NotContains(t, says(full), "No outline")
	narrow := []gear.Corner{{XMM: -60, YMM: -20}, {XMM: -20, YMM: -20}, {XMM: -20, YMM: 20}, {XMM: -60, YMM: 20}}
	assert.Empty(t, says(narrow), "behind them by 65 mm and more")
}
