package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/mount"
	"yokeswap/core/unit"
	"yokeswap/core/verdict"
)

func caseOf(set *gear.Set, model string, seat fleet.Mounting) fleet.Case {
	return sample.Case(set, nil, fleet.Fit{AirUnit: &fleet.Slot{Model: model}, Mounting: seat})
}

func codes(findings []verdict.Finding) (list []verdict.Code) {
	for _, f := range findings {
		list = append(list, f.Code)
	}
	return list
}

// The trade's cases (common practice): 20×20 to 25.5×25.5 needs an adapter; a
// screw too long drives into the board; a stretched frame outruns the camera
// cable.
func TestTheTradesCases(t *testing.T) {
	for _, c := range []struct {
		name, unit string
		change     func(*gear.Set, *fleet.Mounting)
		code       verdict.Code
		level      verdict.Level
	}{
		{"as it should be", "first", func(*gear.Set, *fleet.Mounting) {}, mount.CodeFits, verdict.Fits},
		{"another pattern, a plate joins it", "second", func(*gear.Set, *fleet.Mounting) {}, mount.CodePlate, verdict.Change},
		{"another pattern, nothing joins it", "second", func(s *gear.Set, _ *fleet.Mounting) { s.Plates = nil }, mount.CodeHoles, verdict.Unfit},
		{"a plate that joins something else", "first", func(_ *gear.Set, m *fleet.Mounting) { m.Plate = "plate-20-25" }, mount.CodeHoles, verdict.Unfit},
		{"a screw too long", "first", func(_ *gear.Set, m *fleet.Mounting) { m.Screw = "m2-8" }, mount.CodeTooLong, verdict.Unfit},
		{"a screw of another size", "first", func(_ *gear.Set, m *fleet.Mounting) { m.Screw = "m16-6" }, mount.CodeScrew, verdict.Unfit},
		{"no screw in the box", "first", func(_ *gear.Set, m *fleet.Mounting) { m.Screw = "" }, mount.CodeOrder, verdict.Change},
		{"too high", "first", func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].Bays[0].HeightMM = new(unit.Millimetres(10)) }, mount.CodeHeight, verdict.Unfit},
		{"a stretched frame", "first", func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].Bays[0].CameraMM = new(unit.Millimetres(112)) }, mount.CodeCable, verdict.Unfit},
		{"a cage too narrow", "first", func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].CageMM = new(unit.Millimetres(14)) }, mount.CodeCage, verdict.Unfit},
		{"a cage too wide", "first", func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].CageMM = new(unit.Millimetres(22)) }, mount.CodeCage, verdict.Caution},
		{"a lens in front of the cage", "first", func(s *gear.Set, _ *fleet.Mounting) { s.AirUnits[0].Camera.LensMM = new(unit.Millimetres(12)) }, mount.CodeLens, verdict.Caution},
		{"USB out of reach", "first", func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].Bays[0].Open = []gear.Side{"top"} }, mount.CodeAccess, verdict.Caution},
		{"a board turned for access", "first", func(_ *gear.Set, m *fleet.Mounting) { m.BoardTurnDeg = new(unit.Degrees(180)) }, mount.CodeTurned, verdict.Caution},
		{"no frame said", "first", func(_ *gear.Set, m *fleet.Mounting) { m.Frame = "" }, mount.CodeUnknown, verdict.Unknown},
		{"no bay said", "first", func(_ *gear.Set, m *fleet.Mounting) { m.Bay = "" }, mount.CodeUnknown, verdict.Unknown},
		{"thread depth not stated", "first", func(s *gear.Set, _ *fleet.Mounting) { s.AirUnits[0].Mount.Patterns[0].DepthMM = nil }, mount.CodeUnknown, verdict.Unknown},
		{"height not stated", "first", func(s *gear.Set, _ *fleet.Mounting) { s.AirUnits[0].Mount.HeightMM = nil }, mount.CodeUnknown, verdict.Unknown},
		{"reach not stated", "first", func(s *gear.Set, _ *fleet.Mounting) { s.Frames[0].Bays[0].Open = nil }, mount.CodeUnknown, verdict.Unknown},
	} {
		t.Run(c.name, func(t *testing.T) {
			set, seat := sample.Set(), sample.Seat()
			c.change(set, &seat)
			findings := mount.Check(caseOf(set, c.unit, seat))
			assert.Contains(t, codes(findings), c.code)
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
		})
	}
}

// Through a printed plate of 8 mm an M1.6 wants 10 where 6 was to hand (common
// practice): everything clamped and a diameter of thread.
func TestTheScrewCalculator(t *testing.T) {
	set, seat := sample.Set(), sample.Seat()
	set.AirUnits[1].Mount.Patterns[0].Screw = "M1.6"
	set.Plates[0].ThickMM = new(unit.Millimetres(8))
	set.Frames[0].Bays[0].HeightMM = new(unit.Millimetres(25))
	seat.Plate, seat.Screw = "plate-20-25", "m16-6"
	findings := mount.Check(caseOf(set, "second", seat))
	assert.Contains(t, codes(findings), mount.CodeShort)
	pic := mount.Draw(caseOf(set, "second", seat))
	require.NotNil(t, pic.Screw)
	assert.InDelta(t, 9.6, float64(pic.Screw.LeastMM), 1e-9)
	assert.InDelta(t, 11, float64(pic.Screw.MostMM), 1e-9)
	assert.Equal(t, "m16-10", pic.Screw.Use)
	seat.Screw = "m16-10"
	assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(caseOf(set, "second", seat))))
	var says []string
	for _, cand := range mount.Candidates(caseOf(sample.Set(), "second", sample.Seat())) {
		says = append(says, cand.Says+", "+cand.Costs)
	}
	assert.Contains(t, says, "put the plate-20-25 between, to print")
}

// Weighed: every part that leaves and comes; hover power goes with the weight to
// the power of 1.5 (momentum theory).
func TestTheWeightBeforeAndAfter(t *testing.T) {
	set := sample.Set()
	set.AirUnits[0].MassG, set.AirUnits[1].MassG = new(unit.Grams(28)), new(unit.Grams(40))
	c := caseOf(set, "second", sample.Seat())
	c.Quad.Now = fleet.Fit{AirUnit: &fleet.Slot{Model: "first"}, Mounting: fleet.Mounting{Frame: "frame", Bay: "rear", ActionG: new(unit.Grams(60))}}
	c.Quad.AUWG = new(unit.Grams(448))
	w := mount.Weigh(c.Library, c.Fleet, c.Quad, nil)
	require.NotNil(t, w.ChangeG)
	assert.InDelta(t, -48, float64(*w.ChangeG), 1e-9)
	assert.InDelta(t, 400, float64(*w.AfterG), 1e-9)
	assert.InDelta(t, 0.8437, *w.HoverPower, 1e-4)
	assert.InDelta(t, 1, *w.HoverPower**w.FlightTime, 1e-12)
	measured := mount.Weigh(c.Library, c.Fleet, c.Quad, new(unit.Grams(406)))
	assert.InDelta(t, 6, float64(*measured.ErrorG), 1e-9, "what the scale says goes before what was added up")
	assert.Greater(t, *measured.HoverPower, *w.HoverPower)
	set.AirUnits[1].MassG = nil
	w = mount.Weigh(gear.NewLibrary(set), c.Fleet, c.Quad, nil)
	assert.Nil(t, w.ChangeG)
	assert.Equal(t, []string{"second"}, w.Unknown)
}

// About 25 cm of lead on one generation is too short for a stretched frame (common
// practice).
func TestAnAntennaLeadThatDoesNotReach(t *testing.T) {
	set := sample.Set()
	set.Antennas[0].LeadMM, set.Frames[0].Bays[0].AntennaMM = new(unit.Millimetres(250)), new(unit.Millimetres(240))
	c := caseOf(set, "first", sample.Seat())
	c.Fit.Antennas = sample.Pair()
	assert.Equal(t, []verdict.Code{mount.CodeLead}, codes(mount.Check(c)), "240 mm and its bends want 264")
	set.Antennas[0].LeadMM = new(unit.Millimetres(270))
	assert.Equal(t, []verdict.Code{mount.CodeFits}, codes(mount.Check(c)))
}
