package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/mount"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// Another flight board has to sit where the stack does; what is stated of one side only is
// asked for, and one that stays is not asked about (common practice).
func TestAnotherBoardHasToSit(t *testing.T) {
	holes := func(mm unit.Millimetres) []gear.Holes { return []gear.Holes{{XMM: mm, YMM: mm}} }
	full := func(set *gear.Set) {
		set.Boards[0].Patterns, set.Boards[0].HeightMM = holes(30.5), new(unit.Millimetres(9))
		set.Frames[0].StackPatterns, set.Frames[0].StackMM = holes(30.5), new(unit.Millimetres(12))
	}
	for name, c := range map[string]struct {
		change func(*gear.Set)
		stays  bool
		level  verdict.Level
	}{
		"nobody has stated anything": {func(*gear.Set) {}, false, verdict.Fits},
		"it sits":                    {full, false, verdict.Fits},
		"other holes":                {func(s *gear.Set) { full(s); s.Boards[0].Patterns = holes(20) }, false, verdict.Unfit},
		"one of its two patterns": {func(s *gear.Set) {
			full(s)
			s.Boards[0].Patterns = append(holes(20), holes(30.5)...)
		}, false, verdict.Fits},
		"too high":               {func(s *gear.Set) { full(s); s.Boards[0].HeightMM = new(unit.Millimetres(12.1)) }, false, verdict.Unfit},
		"just as high":           {func(s *gear.Set) { full(s); s.Boards[0].HeightMM = new(unit.Millimetres(12)) }, false, verdict.Fits},
		"its height not stated":  {func(s *gear.Set) { full(s); s.Boards[0].HeightMM = nil }, false, verdict.Unknown},
		"its holes not stated":   {func(s *gear.Set) { full(s); s.Boards[0].Patterns = nil }, false, verdict.Unknown},
		"the room not stated":    {func(s *gear.Set) { full(s); s.Frames[0].StackMM = nil }, false, verdict.Unknown},
		"other holes, and stays": {func(s *gear.Set) { full(s); s.Boards[0].Patterns = holes(20) }, true, verdict.Fits},
	} {
		set := sample.Set()
		c.change(set)
		k := caseOf(set, "first", sample.Seat())
		if c.stays {
			k.Quad.Now.Board, k.Quad.Now.Frame = k.Fit.Board, k.Fit.Frame
		}
		assert.Equal(t, c.level, verdict.Worst(mount.Check(k)), name)
	}
}
