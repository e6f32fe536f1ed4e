package gear_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
)

func TestSerialPins(t *testing.T) {
	for pin, want := range map[string]struct {
		port  int
		sends bool
		ok    bool
	}{"tx4": {4, true, true}, "rx11": {11, false, true}, "tx": {0, true, false}, "ground": {0, false, false}, "rx1a": {0, false, false}} {
		port, sends, ok := gear.SerialPin(pin)
		assert.Equal(t, want.ok, ok, pin)
		if ok {
			assert.Equal(t, [2]any{want.port, want.sends}, [2]any{port, sends}, pin)
		}
	}
}

func TestTerminalsOfABoard(t *testing.T) {
	board := &sample.Set().Boards[0]
	for name, want := range map[string]bool{"ground": true, "10v": true, "tx1": true, "rx1": true, "tx2": true, "rx2": false, "tx9": false, "12v": false, "": false} {
		assert.Equal(t, want, board.Terminal(name), name)
	}
	plug, _ := board.Plug("hd")
	assert.Equal(t, "ground", plug.Pin(2))
	assert.Empty(t, plug.Pin(0))
	assert.Empty(t, plug.Pin(7))
	_, ok := board.Plug("nix")
	assert.False(t, ok)
}

func TestHolesLieOverEachOtherWithinAHair(t *testing.T) {
	twentyFive := gear.Holes{XMM: 25.5, YMM: 25.5}
	assert.True(t, twentyFive.Same(gear.Holes{XMM: 25.4, YMM: 25.6}))
	assert.False(t, twentyFive.Same(gear.Holes{XMM: 25, YMM: 25}))
	assert.Equal(t, "25.5×25.5", twentyFive.String())
}

// What a device gains and loses going up it loses and gains going back; what comes
// and goes on the way cancels.
func TestGainsAndLossesOnTheWay(t *testing.T) {
	d := gear.Device{
		Releases: []gear.Release{
			{Version: "1"},
			{Version: "2", Gains: []string{"canvas", "beacon"}, Loses: []string{"flip"}},
			{Version: "3", Loses: []string{"beacon"}, Gains: []string{"long range"}},
		},
	}
	for _, c := range []struct {
		from, to     firmware.Version
		gains, loses []string
	}{
		{"1", "2", []string{"canvas", "beacon"}, []string{"flip"}},
		{"1", "3", []string{"canvas", "long range"}, []string{"flip"}},
		{"3", "1", []string{"flip"}, []string{"canvas", "long range"}},
		{"2", "3", []string{"long range"}, []string{"beacon"}},
		{"", "3", []string{"long range"}, []string{"beacon"}},
		{"2", "2", []string{}, []string{}},
	} {
		gains, loses := d.Changes(c.from, c.to)
		assert.Equal(t, c.gains, gains, "%s to %s", c.from, c.to)
		assert.Equal(t, c.loses, loses, "%s to %s", c.from, c.to)
	}
}

func TestStatementsThatContradict(t *testing.T) {
	base := gear.Pairing{
		AirFirmware:     ">=1.1 <2",
		GogglesFirmware: "*",
		Mode:            "a",
		Controllers:     []gear.ControllerRange{{ID: "hand"}},
		Features:        []string{"canvas"},
	}
	for name, c := range map[string]struct {
		change func(*gear.Pairing)
		says   string
	}{
		"the same":              {func(*gear.Pairing) {}, ""},
		"written otherwise":     {func(p *gear.Pairing) { p.AirFirmware = "<2.0 >=1.1.0" }, ""},
		"never":                 {func(p *gear.Pairing) { p.Never = true }, "never link"},
		"other controllers":     {func(p *gear.Pairing) { p.Controllers = []gear.ControllerRange{} }, "different controllers"},
		"silent on controllers": {func(p *gear.Pairing) { p.Controllers = nil }, ""},
		"other features":        {func(p *gear.Pairing) { p.Features = []string{"flip"} }, "different features"},
		"other releases":        {func(p *gear.Pairing) { p.AirFirmware, p.Controllers = ">=2", nil; p.Features = []string{"flip"} }, ""},
		"another mode":          {func(p *gear.Pairing) { p.Mode, p.Features = "b", []string{"flip"} }, ""},
	} {
		other := base
		c.change(&other)
		for _, says := range []string{base.Contradicts(&other), other.Contradicts(&base)} {
			if c.says == "" {
				assert.Empty(t, says, name)
			} else {
				assert.Contains(t, says, c.says, name)
			}
		}
	}
}
