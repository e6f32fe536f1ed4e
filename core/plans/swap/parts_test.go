package swap_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/internal/sample"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// A part that is wired wrong is offered the wiring that mends it, in words that name it.
func TestAWiredPartIsMended(t *testing.T) {
	for name, c := range map[string]struct {
		wires []string
		says  string
	}{
		"not crossed":      {[]string{"5v", "ground", "rx4", "tx4", "sda", "scl"}, "pin 3 of the gps to TX 4"},
		"power on its TX":  {[]string{"5v", "ground", "tx4", "5v", "sda", "scl"}, "pin 4 of the gps to RX 4"},
		"too high":         {[]string{"10v", "ground", "tx4", "rx4", "sda", "scl"}, "pin 1 of the gps to the 5v"},
		"no ground":        {[]string{"5v", "", "tx4", "rx4", "sda", "scl"}, "pin 2 of the gps to ground"},
		"on a used port":   {[]string{"5v", "ground", "tx1", "rx1", "sda", "scl"}, "pin 3 of the gps to TX 4"},
		"compass crossed":  {[]string{"5v", "ground", "tx4", "rx4", "scl", "sda"}, "pin 5 of the gps to the sda pad"},
		"supply on signal": {[]string{"led", "ground", "tx4", "rx4", "sda", "scl"}, "pin 1 of the gps to"},
	} {
		t.Run(name, func(t *testing.T) {
			gps := fleet.PlacedPart{ID: "gps", Model: "gps"}
			for i, to := range c.wires {
				if to != "" {
					gps.Wires = append(gps.Wires, fleet.Wire{Pin: i + 1, To: to})
				}
			}
			f := fit("second", "new-eyes", "new-hand", "lipo-4", "board.10v")
			f.Parts = []fleet.PlacedPart{gps}
			j := swap.JudgeWithFixes(sample.Case(sample.Set(), kit, f))
			var says []string
			for _, g := range j.Gates {
				for _, found := range g.Findings {
					if found.Level != verdict.Fits {
						for _, fix := range found.Fixes {
							says = append(says, fix.Says)
						}
					}
				}
			}
			require.NotEmpty(t, says)
			assert.Contains(t, strings.Join(says, "; "), c.says)
		})
	}
}

// Where the plan feeds a part from a pad that burns it, and its wire is on another that
// burns it too, no fix solders it to either: it goes where it can live.
func TestAPartIsNotSolderedToWhatBurnsIt(t *testing.T) {
	f := fit("second", "new-eyes", "new-hand", "lipo-4", "board.10v")
	f.Parts = []fleet.PlacedPart{{ID: "gps", Model: "gps", Cable: fleet.Cable{Wires: []fleet.Wire{
		{Pin: 1, To: "10v"}, {Pin: 2, To: "ground"}, {Pin: 3, To: "tx4"}, {Pin: 4, To: "rx4"}, {Pin: 5, To: "sda"},
		{Pin: 6, To: "scl"},
	}}}}
	f.Feeds = append(f.Feeds, fleet.Feed{To: "gps", From: "board.batt"})
	c := sample.Case(sample.Set(), kit, f)
	offered := 0
	for _, g := range swap.JudgeWithFixes(c).Gates {
		for _, found := range g.Findings {
			for _, fix := range found.Fixes {
				for _, p := range fix.Patch.Parts {
					offered++
					assert.NotContains(t, []string{"batt", "10v", "cam"}, p.Wires[0].To, fix.Says)
				}
			}
		}
	}
	assert.Positive(t, offered)
}

// A unit with bare pads takes a further cable: each with bare ends is offered, soldered or
// into the plug of its kind; a unit with a plug takes none.
func TestAFurtherCableIsPicked(t *testing.T) {
	st := builds.Demo()
	f := fleet.NewIndex(st.Fleet)
	picks := func(quad string) (list []swap.Option) {
		q, _ := f.Quad(quad)
		for _, place := range swap.Places(fleet.NewCase(st.Library(), f, q)) {
			if place.Name == "beside" {
				list = place.Options
			}
		}
		return list
	}
	assert.Empty(t, picks("quern"), "its unit has a plug")
	list := picks("damsel")
	require.Len(t, list, 2)
	assert.Equal(t, "none", list[0].Label)
	assert.Equal(t, "bare two-wire bundle, soldered to the board", list[1].Label)
	assert.True(t, list[1].Chosen)
	q, _ := f.Quad("damsel")
	c := fleet.NewCase(st.Library(), f, q)
	assert.Empty(t, c.With(list[0].Patch).Fit.Beside)
}

// In a large fleet one free piece stands for those alike, and what comes after is listed all
// the same.
func TestOnePieceStandsForThoseAlike(t *testing.T) {
	st := builds.Demo()
	big := *st.Fleet
	for n := range 120 {
		big.Kit = append(big.Kit, fleet.Kit{ID: fmt.Sprintf("alike-%d", n), Model: "aldine-one", Firmware: "1.0.4"})
	}
	big.Kit = append(big.Kit, fleet.Kit{ID: "last", Model: "aldine-two", Firmware: "2.0"})
	f := fleet.NewIndex(&big)
	q, _ := f.Quad("quern")
	keys := map[string]bool{}
	for _, o := range swap.Places(fleet.NewCase(st.Library(), f, q))[0].Options {
		keys[o.Key] = true
	}
	assert.True(t, keys["kit:alike-0"])
	assert.False(t, keys["kit:alike-1"], "one stands for them")
	assert.True(t, keys["kit:last"])
}
