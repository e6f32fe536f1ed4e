package day_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/day"
)

func step(id string, phase swap.Phase, minutes int, change func(*bench.Step)) bench.Step {
	s := bench.Step{ID: id, Title: id, Phase: phase}
	if minutes > 0 {
		s.Minutes = &minutes
	}
	if change != nil {
		change(&s)
	}
	return s
}

func update(s *bench.Step) {
	s.Alone, s.Uses, s.Reads = true, []string{"visor"}, &bench.DeviceStep{Kit: "visor"}
	s.Meanwhile = []string{"frame"}
}

func solders(s *bench.Step) { s.Tools = []string{"soldering iron"} }

func binds(s *bench.Step) { s.Uses = []string{"visor"} }

// While goggles update, the other quad is worked on; what both want of the goggles is done once; what
// nobody timed is a guess, and is said to be.
func TestWhatIsDoneWhileGogglesUpdate(t *testing.T) {
	one := bench.Sheet{Quad: "a", Name: "Ash", Steps: []bench.Step{
		step("update:visor:2.0", bench.Firmware, 20, update), step("frame", bench.Build, 5, nil), step("bind", bench.Bind, 4, binds),
	}}
	other := bench.Sheet{Quad: "b", Name: "Birch", Steps: []bench.Step{
		step("update:visor:2.0", bench.Firmware, 20, update), step("solder", bench.Feed, 30, solders), step("check", bench.Check, 0, binds),
	}}
	p := day.Of(one, other, 1)
	// The update takes 20 once, the frame goes in meanwhile, and nothing else can: then 4, 30 and a guess of 4.
	assert.Equal(t, 20+4+30+4, p.Minutes)
	all := p.Says + strings.Join(p.Working, " ")
	assert.Contains(t, all, "About 58 min for Ash and Birch")
	assert.Contains(t, all, "By itself Ash takes 24 min, Birch 54 min.")
	assert.Contains(t, all, "While “update:visor:2.0” goes on by itself (20 min), work goes on with Ash.")
	assert.Contains(t, all, "What both want of one device is done once: 20 min less.")
	assert.Contains(t, all, "4 min of it are guesses")
	assert.Contains(t, all, "the iron for 30 min")

	other.Steps = other.Steps[1:]
	p = day.Of(one, other, 1)
	assert.Equal(t, 5+30+4+4, p.Minutes, "the soldering goes on while the goggles update")
	require.NotEmpty(t, p.Spells)
	assert.Contains(t, strings.Join(p.Working, " "), "work goes on with Birch.")
	assert.Contains(t, p.Says, "less than one after the other")

	other.Steps[0].Held = "it burns"
	assert.Equal(t, 1, day.Of(one, other, 1).Held)
}

// Two people do two quads in the time of the longer, but for the iron and the goggles they both want.
func TestTwoPairsOfHands(t *testing.T) {
	sheet := func(quad string) bench.Sheet {
		return bench.Sheet{Quad: quad, Name: quad, Steps: []bench.Step{
			step("solder", bench.Feed, 30, solders), step("meter", bench.Meter, 10, nil), step("bind", bench.Bind, 5, binds),
		}}
	}
	one, other := sheet("a"), sheet("b")
	assert.Equal(t, 90, day.Of(one, other, 1).Minutes)
	p := day.Of(one, other, 2)
	assert.Equal(t, 30+30+10+5, p.Minutes, "the second waits for the iron")
	assert.Contains(t, strings.Join(p.Working, " "), "waits 30 min for what the other has in use.")
	other.Steps[0], other.Steps[1] = other.Steps[1], other.Steps[0]
	assert.Equal(t, 10+30+30+5-10, day.Of(one, other, 2).Minutes, "metered first, it waits less")
	for _, s := range p.Spells {
		for i := 1; i < len(s.Steps); i++ {
			assert.Equal(t, s.Steps[i-1].To, s.Steps[i].From)
		}
	}
}

// Nothing left is no day.
func TestNothingIsLeft(t *testing.T) {
	p := day.Of(bench.Sheet{Name: "a"}, bench.Sheet{Name: "b"}, 1)
	assert.Zero(t, p.Minutes)
	assert.Empty(t, p.Spells)
}
