package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

func mm(x float64) *unit.Millimetres { return new(unit.Millimetres(x)) }

// What holds without screws is a caution at best; beside propellers it takes two holds that
// do not depend on one another; what is not stated is asked for (common practice).
func TestWaysToHold(t *testing.T) {
	tape := fleet.Hold{Part: fleet.NodeAirUnit, Way: fleet.HeldByTape, ThickMM: mm(1), NearProps: new(false)}
	bracket := fleet.Hold{Part: fleet.NodeAirUnit, Way: fleet.HeldByBracket, ThickMM: mm(2), Screws: new(4), SoftensC: new(110.0)}
	for name, c := range map[string]struct {
		holding fleet.Hold
		change  func(*fleet.Hold)
		codes   []verdict.Code
		level   verdict.Level
	}{
		"tape, away from the propellers": {tape, func(*fleet.Hold) {}, []verdict.Code{mount.CodeHeld}, verdict.Caution},
		"tape beside a propeller": {
			tape,
			func(h *fleet.Hold) { h.NearProps = new(true) },
			[]verdict.Code{mount.CodeOnce},
			verdict.Unfit,
		},
		"tape and ties beside a propeller": {
			tape,
			func(h *fleet.Hold) { h.NearProps, h.Second = new(true), fleet.HeldByTies },
			[]verdict.Code{mount.CodeTwice},
			verdict.Caution,
		},
		"tape and a pad that sticks beside a propeller": {
			tape,
			func(h *fleet.Hold) { h.NearProps, h.Second = new(true), fleet.HeldBySoft },
			[]verdict.Code{mount.CodeOnce},
			verdict.Unfit,
		},
		"whether a propeller is near is not stated": {
			tape,
			func(h *fleet.Hold) { h.NearProps = nil },
			[]verdict.Code{mount.CodeHeld},
			verdict.Unknown,
		},
		"two holds, wherever it is": {
			tape,
			func(h *fleet.Hold) { h.NearProps, h.Second = nil, fleet.HeldByStrap },
			[]verdict.Code{mount.CodeTwice},
			verdict.Caution,
		},
		"a tape of unknown thickness": {
			tape,
			func(h *fleet.Hold) { h.ThickMM = nil },
			[]verdict.Code{mount.CodeUnknown, mount.CodeHeld},
			verdict.Unknown,
		},
		"tape too thick for the bay": {
			tape,
			func(h *fleet.Hold) { h.ThickMM = mm(20) },
			[]verdict.Code{mount.CodeHeight, mount.CodeHeld},
			verdict.Unfit,
		},
		"a bracket": {bracket, func(*fleet.Hold) {}, []verdict.Code{mount.CodeFits}, verdict.Fits},
		"a bracket that clamps": {
			bracket,
			func(h *fleet.Hold) { h.Screws, h.NearProps = new(0), new(false) },
			[]verdict.Code{mount.CodeFits},
			verdict.Fits,
		},
		"a bracket that clamps beside a propeller": {
			bracket,
			func(h *fleet.Hold) { h.Screws, h.NearProps = new(0), new(true) },
			[]verdict.Code{mount.CodeOnce},
			verdict.Unfit,
		},
		"a bracket that clamps, nobody knows where": {
			bracket,
			func(h *fleet.Hold) { h.Screws = new(0) },
			[]verdict.Code{mount.CodeHeld},
			verdict.Unknown,
		},
		"a bracket, its screws not stated": {
			bracket,
			func(h *fleet.Hold) { h.Screws = nil },
			[]verdict.Code{mount.CodeHeld},
			verdict.Unknown,
		},
		"a bracket that softens": {
			bracket,
			func(h *fleet.Hold) { h.SoftensC = new(60.0) },
			[]verdict.Code{mount.CodeSoftens},
			verdict.Caution,
		},
		"a bracket of nobody knows what": {
			bracket,
			func(h *fleet.Hold) { h.SoftensC = nil },
			[]verdict.Code{mount.CodeSoftens},
			verdict.Caution,
		},
		"a stop-gap": {
			bracket,
			func(h *fleet.Hold) { h.Awaits, h.Due = "the printed bracket", "2026-12-01" },
			[]verdict.Code{mount.CodeStopGap},
			verdict.Caution,
		},
	} {
		set, seat := sample.Set(), sample.Seat()
		set.AirUnits[0].Mount.Patterns = nil // nobody has stated its holes: they are not used
		h := c.holding
		c.change(&h)
		seat.Holdings = []fleet.Hold{h}
		findings := mount.Check(caseOf(set, "first", seat))
		assert.Equal(t, c.codes, codes(findings), name)
		assert.Equal(t, c.level, verdict.Worst(findings), name)
	}
}

// A camera too wide for the frame's cage goes into one of its own, as wide as that is.
func TestACameraInACageOfItsOwn(t *testing.T) {
	for name, c := range map[string]struct {
		way    fleet.Way
		inside *unit.Millimetres
		level  verdict.Level
	}{
		"as wide as the camera":   {fleet.HeldByCage, mm(20), verdict.Fits},
		"too narrow":              {fleet.HeldByCage, mm(19), verdict.Unfit},
		"wide enough for spacers": {fleet.HeldByCage, mm(22), verdict.Caution},
		"its width not stated":    {fleet.HeldByCage, nil, verdict.Unknown},
		"ties and no cage":        {fleet.HeldByTies, nil, verdict.Caution},
	} {
		set, seat := sample.Set(), sample.Seat()
		set.AirUnits[0].Camera.WidthMM, set.Frames[0].CageMM = mm(20), mm(19)
		assert.Equal(t, verdict.Unfit, verdict.Worst(mount.Check(caseOf(set, "first", seat))), "in the frame's own cage")
		seat.Holdings = []fleet.Hold{{
			Part:      fleet.NodeCamera,
			Way:       c.way,
			InsideMM:  c.inside,
			Screws:    new(4),
			NearProps: new(false),
		}}
		assert.Equal(t, c.level, verdict.Worst(mount.Check(caseOf(set, "first", seat))), name)
	}
}

// Where one hold beside a propeller is too few, a second one is offered that stays when the
// first lets go.
func TestASecondHoldIsOffered(t *testing.T) {
	for _, c := range []struct {
		way  fleet.Way
		want []fleet.Way
	}{
		{fleet.HeldByTape, []fleet.Way{fleet.HeldByStrap, fleet.HeldByTies}},
		{fleet.HeldByTies, []fleet.Way{fleet.HeldByStrap}},
		{fleet.HeldByBracket, nil},
	} {
		seat := sample.Seat()
		seat.Holdings = []fleet.Hold{{Part: fleet.NodeAirUnit, Way: c.way, ThickMM: mm(1), NearProps: new(true), Screws: new(2)}}
		var offered []fleet.Way
		k := caseOf(sample.Set(), "first", seat)
		for _, candidate := range mount.Candidates(k) {
			if h := candidate.Patch.Hold; h != nil {
				offered = append(offered, h.Second)
				assert.NotEqual(t, verdict.Unfit, verdict.Worst(mount.Check(k.With(candidate.Patch))))
			}
		}
		assert.Equal(t, c.want, offered, c.way)
		assert.Empty(t, k.Fit.Holdings[0].Second, "nothing is changed by looking")
	}
}

// A part that is held and is not on the quad says nothing; a part beside the air unit is
// judged by its name.
func TestOtherPartsAreHeldToo(t *testing.T) {
	set, seat := sample.Set(), sample.Seat()
	set.Parts = append(set.Parts, gear.Part{Entry: gear.Entry{ID: "finder", Name: "Finder"}, Sort: gear.SortGPS})
	seat.Holdings = []fleet.Hold{{Part: "gps", Way: fleet.HeldByTape, NearProps: new(false)}}
	k := caseOf(set, "first", seat)
	assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(k)))
	k.Fit.Parts = []fleet.PlacedPart{{ID: "gps", Model: "finder"}}
	findings := mount.Check(k)
	assert.Equal(t, []verdict.Code{mount.CodeHeld}, codes(findings))
	assert.Equal(t, "gps", findings[0].Part)
	assert.Contains(t, findings[0].Says, "Finder is held by tape")
}
