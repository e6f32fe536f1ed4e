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
	"yokeswap/core/measure/unit"
)

// sleeve is a bracket around the first unit that goes on any frame.
func sleeve() gear.Bracket {
	return gear.Bracket{Entry: gear.Entry{ID: "sleeve", Name: "sleeve"}, Way: "bracket", For: []string{"first"},
		Nones: gear.Nones{None: []string{gear.NoFrames}}, ThickMM: mm(1), Screws: new(2), MassG: new(unit.Grams(4)),
		SoftensC: new(110.0)}
}

// A bracket that has a model says of itself what need not be said of the quad; it holds what it is
// made around on the frames it goes on, and what it does not say is asked for.
func TestABracketThatIsHad(t *testing.T) {
	for name, c := range map[string]struct {
		change func(*gear.Bracket, *fleet.Hold)
		level  verdict.Level
		says   string
	}{
		"as it is":             {nil, verdict.Fits, "held by the sleeve"},
		"on this frame":        {func(b *gear.Bracket, _ *fleet.Hold) { b.None, b.Frames = nil, []string{"frame"} }, verdict.Fits, ""},
		"on another frame":     {func(b *gear.Bracket, _ *fleet.Hold) { b.None, b.Frames = nil, []string{"round"} }, verdict.Unfit, "sleeve goes on round, not on frame."},
		"around another unit":  {func(b *gear.Bracket, _ *fleet.Hold) { b.For = []string{"second"} }, verdict.Unfit, "sleeve is made around second, not around first"},
		"nobody says what for": {func(b *gear.Bracket, _ *fleet.Hold) { b.For = nil }, verdict.Unknown, "what it is made around of sleeve"},
		"nor for which frames": {func(b *gear.Bracket, _ *fleet.Hold) { b.None = nil }, verdict.Unknown, "frames it goes on"},
		"nor what it is":       {func(b *gear.Bracket, _ *fleet.Hold) { b.Way = "" }, verdict.Unknown, "whether it is a bracket, a cage or a clip"},
		"nor how thick it is":  {func(b *gear.Bracket, _ *fleet.Hold) { b.ThickMM = nil }, verdict.Unknown, "thickness of what lies under first"},
		"too thick":            {func(b *gear.Bracket, _ *fleet.Hold) { b.ThickMM = mm(30) }, verdict.Unfit, "too high"},
		"thinner on this quad": {func(b *gear.Bracket, h *fleet.Hold) { b.ThickMM, h.ThickMM = mm(30), mm(1) }, verdict.Fits, ""},
		"it softens":           {func(b *gear.Bracket, _ *fleet.Hold) { b.SoftensC = new(60.0) }, verdict.Caution, "softens at 60 °C"},
		"it clamps": {func(b *gear.Bracket, h *fleet.Hold) { b.Screws, h.NearProps = new(0), new(true) }, verdict.Unfit,
			"reaches a propeller when that lets go"},
	} {
		set, seat := sample.Set(), sample.Seat()
		set.Frames[0].Bays[0].HeightMM = mm(20)
		b, h := sleeve(), fleet.Hold{Part: fleet.NodeAirUnit, Way: fleet.HeldByBracket, Bracket: "sleeve"}
		if c.change != nil {
			c.change(&b, &h)
		}
		set.Brackets, seat.Holdings = []gear.Bracket{b}, []fleet.Hold{h}
		findings := mount.Check(caseOf(set, "first", seat))
		assert.Equal(t, c.level, verdict.Worst(findings), "%s: %v", name, findings)
		all := told(findings)
		assert.Contains(t, all, c.says, name)
	}
}

// Where the holes do not meet, a bracket made around the unit is a way out; it is weighed and goes back
// into the drawer.
func TestABracketIsAWayOut(t *testing.T) {
	set, seat := sample.Set(), sample.Seat()
	set.Frames[0].Bays[0].HeightMM = mm(20)
	for i := range set.Frames[0].Bays {
		set.Frames[0].Bays[i].Patterns = []gear.Holes{{XMM: 40, YMM: 40, Screw: "M3"}}
	}
	set.Plates = nil
	other := sleeve()
	other.ID, other.Name, other.For = "other", "other", []string{"second"}
	set.Brackets = []gear.Bracket{sleeve(), other}
	k := caseOf(set, "first", seat)
	require.Equal(t, verdict.Unfit, verdict.Worst(mount.Check(k)))
	offered := 0
	for _, cand := range mount.Candidates(k) {
		if h := cand.Patch.Hold; h != nil && h.Bracket != "" {
			offered++
			assert.Equal(t, "sleeve", h.Bracket)
			assert.Equal(t, verdict.Fits, verdict.Worst(mount.Check(k.With(cand.Patch))))
			assert.Equal(t, 1, k.With(cand.Patch).Fit.Loose()["sleeve"])
		}
	}
	assert.Equal(t, 1, offered)
	k.Fit.Holdings = []fleet.Hold{{Part: fleet.NodeAirUnit, Way: fleet.HeldByTape, ThickMM: mm(1), NearProps: new(true)}}
	for _, cand := range mount.Candidates(k) {
		if h := cand.Patch.Hold; h != nil && h.Bracket != "" {
			assert.Equal(t, new(true), h.NearProps, "what is said of the place stays said")
		}
	}
	k.Fit.Holdings = nil
	k.Quad.Now = k.Quad.Next.Clone()
	set.AirUnits[0].MassG = new(unit.Grams(28))
	k.Quad.Next.Holdings = []fleet.Hold{{Part: fleet.NodeAirUnit, Way: fleet.HeldByBracket, Bracket: "sleeve"}}
	w := mount.Weigh(gear.NewLibrary(set), k.Fleet, k.Quad, nil)
	require.NotNil(t, w.ChangeG)
	assert.InDelta(t, 4, float64(*w.ChangeG), 1e-9)
}
