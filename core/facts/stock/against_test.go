package stock_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// second is a pack by somebody else: one entry alike, one otherwise, one new.
func second() *gear.Set {
	first := sample.Set()
	other := first.AirUnits[0]
	other.Input.MaxV = new(unit.Volts(25))
	other.ValueSources = map[string]gear.Source{"input.maxV": {Kind: gear.Measured, Date: "2026-10-01"}}
	return &gear.Set{ID: "second", Title: "Second pack", AirUnits: []gear.AirUnit{other, first.AirUnits[1]},
		Screws: []gear.Screw{{Entry: gear.Entry{ID: "m4-9"}}}}
}

func maxV(t *testing.T, s *stock.Stock) unit.Volts {
	u, ok := gear.Find[*gear.AirUnit](s.Library(), "first")
	require.True(t, ok)
	return *u.Input.MaxV
}

func TestTwoPacksThatContradictEachOther(t *testing.T) {
	s := full(t)
	d, err := s.MergeSet(second())
	require.NoError(t, err)
	assert.Equal(t, []stock.Ref{{Kind: "screw", ID: "m4-9"}}, d.New)
	assert.Equal(t, 2, d.Same, "what both say alike is no matter, and the head of the pack itself")
	require.Len(t, d.Against, 1)
	a := d.Against[0]
	assert.Equal(t, []string{"first", "sample", stock.WinsThere}, []string{a.ID, a.Pack, a.Wins})
	assert.Contains(t, a.Claims, stock.Claim{Path: "input.maxV", There: "17.6", ThereSource: "measured", File: "25",
		FileSource: "measured, 2026-10-01"})
	assert.Equal(t, unit.Volts(17.6), maxV(t, s), "what is there stays")
	_, has := s.Set("second")
	assert.True(t, has)

	s = full(t)
	d, err = s.MergeSetOver(second(), map[string]string{"first": stock.WinsFile})
	require.NoError(t, err)
	assert.Equal(t, stock.WinsFile, d.Against[0].Wins)
	assert.Equal(t, unit.Volts(25), maxV(t, s))
	set, _ := s.SetOf("first")
	assert.Equal(t, "sample", set.ID, "it stands where it stood, once")
}

// Statements about one pair of models that contradict each other stand side by side until
// somebody says which holds.
func TestTwoStatementsThatContradictEachOther(t *testing.T) {
	pack := func() *gear.Set {
		p := sample.Set().Pairings[0]
		never := gear.Pairing{Entry: gear.Entry{ID: "never-so"}, AirUnit: p.AirUnit, Goggles: p.Goggles, Never: true}
		return &gear.Set{ID: "second", Title: "Second pack", Pairings: []gear.Pairing{never}}
	}
	p := sample.Set().Pairings[0]
	for wins, left := range map[string]struct{ old, new bool }{
		"": {true, true}, stock.WinsThere: {true, false}, stock.WinsFile: {false, true},
	} {
		s := full(t)
		d, err := s.MergeSetOver(pack(), map[string]string{"never-so": wins})
		require.NoError(t, err)
		require.NotEmpty(t, d.Against, wins)
		assert.Equal(t, p.ID, d.Against[0].Other)
		assert.Contains(t, d.Against[0].Says, "never")
		_, old := s.Library().Item(p.ID)
		_, young := s.Library().Item("never-so")
		assert.Equal(t, []bool{left.old, left.new}, []bool{old, young}, "wins: %q", wins)
		if wins == "" {
			assert.NotEmpty(t, s.Library().Contradiction(p.AirUnit, p.Goggles))
		}
	}
}
