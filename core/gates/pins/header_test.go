package pins_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// padded is the sample's gear whose second generation has bare pads 1 mm apart, with a
// header that takes the six-pin plug.
func padded(edit func(h *gear.Header, u *gear.AirUnit)) *gear.Set {
	set := sample.Set()
	for i := range set.AirUnits {
		if u := &set.AirUnits[i]; u.ID == "second" {
			plug := *u.Plug
			plug.Connector, plug.PitchMM = "", new(unit.Millimetres(1))
			u.Plug = &plug
			if edit != nil {
				edit(&set.Headers[0], u)
			}
		}
	}
	return set
}

func overHeader(turned bool) fleet.Fit {
	f := plugged("straight")
	f.Headers.Header = &fleet.Header{Model: "tack", Turned: turned}
	return f
}

// A header makes a plug of bare pads where pitch and count are the same; turned, the supply
// lands on the last pin and destroys (common practice).
func TestAHeaderOnPads(t *testing.T) {
	for _, c := range []struct {
		name  string
		fit   fleet.Fit
		edit  func(h *gear.Header, u *gear.AirUnit)
		code  verdict.Code
		level verdict.Level
	}{
		{"as it should be", overHeader(false), nil, pins.CodeFits, verdict.Fits},
		{"no header: a cable into pads", plugged("straight"), nil, pins.CodeConnector, verdict.Unfit},
		{"turned", overHeader(true), nil, pins.CodeDanger, verdict.Unfit},
		{"another pitch", overHeader(false), func(h *gear.Header, _ *gear.AirUnit) { h.PitchMM = new(unit.Millimetres(1.25)) },
			pins.CodeHeader, verdict.Unfit},
		{"a pin short", overHeader(false), func(h *gear.Header, _ *gear.AirUnit) { h.Pins = new(5) },
			pins.CodeHeader, verdict.Unfit},
		{"another plug goes in", overHeader(false), func(h *gear.Header, _ *gear.AirUnit) { h.Connector = "gh-6" },
			pins.CodeConnector, verdict.Unfit},
		{"a unit that has a plug", overHeader(false), func(_ *gear.Header, u *gear.AirUnit) { u.Plug.Connector = "sh-6" },
			pins.CodeHeader, verdict.Unfit},
		{"its connector not stated", overHeader(false), func(h *gear.Header, _ *gear.AirUnit) { h.Connector = "" },
			pins.CodeHeader, verdict.Unknown},
		{"its pitch not stated", overHeader(false), func(h *gear.Header, _ *gear.AirUnit) { h.PitchMM = nil },
			pins.CodeHeader, verdict.Unknown},
		{"the pads' pitch not stated", overHeader(false), func(_ *gear.Header, u *gear.AirUnit) {
			u.Plug.PitchMM, u.Plug.None = nil, []string{"connector"}
		}, pins.CodeHeader, verdict.Unknown},
	} {
		t.Run(c.name, func(t *testing.T) {
			findings := pins.Check(caseOf(padded(c.edit), c.fit))
			assert.Contains(t, codes(findings), c.code, "%+v", findings)
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
			for _, f := range findings {
				if f.Code == pins.CodeHeader {
					assert.Equal(t, verdict.Destroys, f.Danger)
				}
			}
		})
	}
}

// A cable into bare pads is offered over a header, and never the way that destroys.
func TestAHeaderIsOfferedForACableIntoPads(t *testing.T) {
	c := caseOf(padded(nil), plugged("straight"))
	var over []string
	for _, cand := range pins.Candidates(c) {
		if w := cand.Patch.Wiring; w != nil && w.Header != nil && verdict.Worst(pins.Check(c.With(cand.Patch))) == verdict.Fits {
			assert.False(t, w.Header.Turned)
			over = append(over, change.Words(c, cand.Patch))
		}
	}
	assert.Equal(t, []string{
		"solder the tack onto the pads of the unit, pin 1 on pad 1",
		"put the straight into the row, solder the tack onto the pads of the unit, pin 1 on pad 1 and solder the tack onto " +
			"the pads of the flight board, pin 1 on pad 1",
	}, over)
	for _, on := range pins.Cables(c) {
		assert.NotNil(t, on.Header, "nothing goes into bare pads")
	}
}

// Only a header that is stated to go on the pads and to take the cable is offered.
func TestNoOtherHeaderIsOffered(t *testing.T) {
	set := padded(nil)
	fits := set.Headers[0]
	for id, edit := range map[string]func(h *gear.Header){
		"for another plug": func(h *gear.Header) { h.Connector = "gh-6" },
		"wider":            func(h *gear.Header) { h.PitchMM = new(unit.Millimetres(1.25)) },
		"pitch not stated": func(h *gear.Header) { h.PitchMM = nil },
		"shorter":          func(h *gear.Header) { h.Pins = new(5) },
		"pins not stated":  func(h *gear.Header) { h.Pins = nil },
	} {
		other := fits
		other.ID = id
		edit(&other)
		set.Headers = append(set.Headers, other)
	}
	for i := range set.AirUnits { // pads whose pitch nobody states take none
		if plug := set.AirUnits[i].Plug; plug.Pads() {
			bare := *plug
			bare.PitchMM, bare.None = nil, []string{"connector"}
			loose := padded(func(_ *gear.Header, u *gear.AirUnit) { u.Plug = &bare })
			assert.Empty(t, pins.Cables(caseOf(loose, plugged("straight"))))
		}
	}
	c, offered := caseOf(set, plugged("straight")), 0
	for _, cand := range pins.Candidates(c) {
		if w := cand.Patch.Wiring; w != nil && w.Header != nil {
			assert.Equal(t, fits.ID, w.Header.Model)
			offered++
		}
	}
	for _, on := range pins.Cables(c) {
		assert.Equal(t, fits.ID, on.Header.Model)
		offered++
	}
	assert.Greater(t, offered, 2)
}

// The board's own row of pads takes a header as well.
func TestAHeaderOnTheBoardsRow(t *testing.T) {
	set := sample.Set()
	f := plugged("straight")
	f.HarnessTo = "row"
	assert.Equal(t, verdict.Unfit, verdict.Worst(pins.Check(caseOf(set, f))))
	f.BoardHeader = &fleet.Header{Model: "tack"}
	require.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(set, f))), "%+v", pins.Check(caseOf(set, f)))
	f.BoardHeader.Turned = true
	assert.Equal(t, verdict.Unfit, verdict.Worst(pins.Check(caseOf(set, f))))
}
