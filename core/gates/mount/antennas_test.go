package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/internal/sample"
)

// standing is a roomy quad with the unit behind and one antenna 40 mm long that stands up from
// its foot at the tail, on a straight plug of 6 mm off the rear of the unit at −15.
func standing(change func(*gear.Set, *fleet.Fit)) fleet.Case {
	set := roomy()
	i := 0
	for k := range set.Antennas {
		if set.Antennas[k].ID == sample.Pair().Models[0] {
			i = k
		}
	}
	a := &set.Antennas[i]
	a.RodMM, a.RodDiameterMM, a.BendMM = mm(40), mm(6), mm(5)
	a.LeadMM, a.BarrelMM, a.RightAngle = mm(60), mm(6), new(false)
	set.AirUnits[0].KeepFree = nil
	set.AirUnits[0].Radio.Outlets = []gear.Outlet{{XMM: -15, YMM: 5, ZMM: 6, Side: "rear"}}
	seat := airy()
	seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, 0, 0, 2, 0)}
	k := caseOf(set, "first", seat)
	k.Fit.Antennas = &fleet.Antennas{Models: []string{a.ID}, Stands: []fleet.Stand{{XMM: -64, ZMM: 20, RiseDeg: 90}}}
	if change != nil {
		change(set, k.Fit)
	}
	return k
}

// A lead that reaches, bent gently, goes; too short it does not; folded back it kinks; what
// stands where the plug goes, or where the antenna stands, is named.
func TestHowAntennasStand(t *testing.T) {
	first := func(s *gear.Set) *gear.Antenna {
		for k := range s.Antennas {
			if s.Antennas[k].RodMM != nil {
				return &s.Antennas[k]
			}
		}
		return nil
	}
	for name, c := range map[string]struct {
		change func(*gear.Set, *fleet.Fit)
		level  verdict.Level
		says   string
	}{
		"it goes": {nil, verdict.Fits, ""},
		// 42.6 mm back and 14 mm up: about 45 mm with the bends.
		"too short a lead": {
			func(s *gear.Set, _ *fleet.Fit) { first(s).LeadMM = mm(40) }, verdict.Unfit,
			"from its plug to its foot it wants 48 mm",
		},
		"folded back": {
			func(_ *gear.Set, f *fleet.Fit) {
				f.Antennas.Stands[0] = fleet.Stand{XMM: -24, YMM: 9, ZMM: 10, TurnDeg: 90}
			},
			verdict.Caution, "it may be around 5 mm: it kinks",
		},
		"a standoff where the plug goes": {
			func(s *gear.Set, _ *fleet.Fit) {
				s.Frames[0].Posts[3] = gear.Post{XMM: -20, YMM: 5, FromMM: mm(2), ToMM: mm(32), DiameterMM: mm(5)}
			},
			verdict.Unfit, "The straight plug of ",
		},
		"with a right-angled plug it goes": {
			func(s *gear.Set, _ *fleet.Fit) {
				s.Frames[0].Posts[3] = gear.Post{XMM: -20, YMM: 5, FromMM: mm(2), ToMM: mm(32), DiameterMM: mm(5)}
				first(s).RightAngle = new(true)
			},
			verdict.Caution, "A standoff is between the plug of round and its foot: lay the lead around it, which takes 49 mm of its 60 mm at least",
		},
		"around what stands there its lead does not reach": {
			func(s *gear.Set, _ *fleet.Fit) {
				s.Frames[0].Posts[3] = gear.Post{XMM: -40, YMM: 2, FromMM: mm(2), ToMM: mm(32), DiameterMM: mm(25)}
				first(s).LeadMM = mm(44)
			},
			verdict.Unfit, "A standoff is between the plug of round and its foot, and around it the lead of 44 mm does not reach.",
		},
		"through what a propeller sweeps": {
			func(s *gear.Set, f *fleet.Fit) {
				s.Frames[0].None, f.PropMM = []string{gear.NoDuct}, mm(20)
				s.Frames[0].Rotors = []gear.Rotor{{XMM: -45, YMM: 3, ZMM: mm(14)}}
			},
			verdict.Caution, "Between the plug of round and its foot is what the propeller rear left sweeps: lay the lead around it",
		},
		"from under a plate it goes through it": {
			func(s *gear.Set, f *fleet.Fit) { f.Antennas.Stands[0] = fleet.Stand{XMM: -40, ZMM: 36, RiseDeg: 90} },
			verdict.Caution, "The top is between the plug of round and its foot: its lead goes through an opening",
		},
		"through the top plate": {
			func(_ *gear.Set, f *fleet.Fit) { f.Antennas.Stands[0].XMM = -50 }, verdict.Unfit, "and the top want the same room",
		},
		"into a propeller": {
			func(s *gear.Set, f *fleet.Fit) {
				s.Frames[0].None, f.PropMM = []string{gear.NoDuct}, mm(127)
				s.Frames[0].Rotors = []gear.Rotor{{XMM: -100, YMM: 20, ZMM: mm(40)}}
			},
			verdict.Unfit, "stands in what the propeller rear left sweeps: it is struck",
		},
		"its length is not stated": {
			func(s *gear.Set, _ *fleet.Fit) { first(s).RodMM = nil }, verdict.Unknown, "length and diameter beyond its foot",
		},
		"nor where the plug lies": {
			func(s *gear.Set, _ *fleet.Fit) { s.AirUnits[0].Radio.Outlets = nil }, verdict.Unknown, "where its antenna plugs lie",
		},
		"nor how its lead bends": {
			func(s *gear.Set, _ *fleet.Fit) { first(s).BendMM = nil }, verdict.Unknown, "least radius of its lead",
		},
		"no unit": {func(_ *gear.Set, f *fleet.Fit) { f.AirUnit = nil }, verdict.Unknown, "digital air unit"},
		"nor where one of two stands": {
			func(_ *gear.Set, f *fleet.Fit) { f.Antennas.Models = append(f.Antennas.Models, f.Antennas.Models[0]) },
			verdict.Unknown, "where each antenna of Quad stands",
		},
	} {
		k := standing(c.change)
		findings := mount.Check(k)
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %v", name, findings)
		all := told(findings)
		assert.Contains(t, all, c.says, name)
	}
}

// A duct sweeps nothing.
func TestALeadThroughADuct(t *testing.T) {
	for _, f := range mount.Check(standing(func(s *gear.Set, f *fleet.Fit) {
		s.Frames[0].None, f.PropMM = nil, mm(10)
		s.Frames[0].Rotors = []gear.Rotor{{XMM: -45, YMM: 40, ZMM: mm(14)}}
		s.Frames[0].Duct = &gear.Duct{DiameterMM: mm(90), FromMM: mm(5), ToMM: mm(25)}
	})) {
		assert.NotEqual(t, mount.CodeSwept, f.Code, f.Says)
	}
}

// Turned with the unit, the plug comes off to the other side.
func TestPlugsTurnWithTheUnit(t *testing.T) {
	r := mount.RoomOf(standing(nil))
	require.Len(t, r.Rods, 1)
	require.NotNil(t, r.Rods[0].Lead)
	assert.InDelta(t, 60, float64(r.Rods[0].Tip[2]), 1e-9)
	straight := r.Rods[0].Lead.NeedMM
	turned := mount.RoomOf(standing(func(_ *gear.Set, f *fleet.Fit) { f.Places[0].Quarters = 2 }))
	assert.Greater(t, float64(turned.Rods[0].Lead.NeedMM), float64(straight)+20, "it comes off ahead and has to come back")
}

// The heat of a unit is asked for once it has a place: in the wind nothing is said, without air
// a caution, and what nobody has stated is no better.
func TestTheHeatOfAUnit(t *testing.T) {
	for name, c := range map[string]struct {
		air   fleet.Air
		metal *bool
		level verdict.Level
		says  string
	}{
		"in the wind":             {fleet.AirOpen, nil, verdict.Fits, ""},
		"closed in, over metal":   {fleet.AirClosed, new(true), verdict.Caution, "the metal under it takes some of its heat"},
		"closed in, over plastic": {fleet.AirClosed, new(false), verdict.Caution, "no metal leads its heat away"},
		"through slots":           {fleet.AirSlots, new(false), verdict.Caution, "Only what comes through openings"},
		"nobody says":             {"", nil, verdict.Unknown, "air that moves over first in flight"},
		"nor what lies under it":  {fleet.AirSlots, nil, verdict.Unknown, "metal under first"},
	} {
		set, seat := roomy(), airy()
		seat.Air, seat.MetalUnder = c.air, c.metal
		seat.Places = []fleet.Spot{at(fleet.NodeAirUnit, 0, 0, 2, 0)}
		findings := mount.Check(caseOf(set, "first", seat))
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %v", name, findings)
		assert.Contains(t, findings[len(findings)-1].Says+findings[0].Says, c.says, name)
	}
	set, seat := roomy(), sample.Seat()
	assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(caseOf(set, "first", seat))), "without a place it is not asked")
}

// Where a straight plug has no room, those that lie along the case are offered, and what was
// written down of the antennas before does not go with them.
func TestOtherAntennasWhereAPlugHasNoRoom(t *testing.T) {
	blocked := func(s *gear.Set, f *fleet.Fit) {
		s.Frames[0].Posts[3] = gear.Post{XMM: -20, YMM: 5, FromMM: mm(2), ToMM: mm(32), DiameterMM: mm(5)}
		var bent *gear.Antenna
		for i := range s.Antennas {
			if s.Antennas[i].RodMM == nil {
				bent = &s.Antennas[i]
			}
		}
		for i := range s.Antennas {
			if s.Antennas[i].RodMM != nil && bent.RodMM == nil {
				entry := bent.Entry
				*bent = s.Antennas[i]
				bent.Entry, bent.RightAngle = entry, new(true)
				bent.Name = "bent"
			}
		}
		f.Antennas.CarbonMM = mm(45)
	}
	k := standing(blocked)
	fixed := 0
	for _, cand := range mount.Candidates(k) {
		if a := cand.Patch.Antennas; a != nil && k.Library.Label(a.Models[0]) == "bent" {
			fixed++
			assert.Nil(t, a.CarbonMM)
			findings := mount.Check(k.With(cand.Patch))
			assert.Equal(t, []verdict.Code{mount.CodeThrough}, codes(findings), "the lead goes around the standoff")
			assert.Equal(t, verdict.Caution, findings[0].Level)
		}
	}
	assert.Equal(t, 1, fixed)
	for _, cand := range mount.Candidates(standing(nil)) {
		assert.Nil(t, cand.Patch.Antennas, "they lie well")
	}
}
