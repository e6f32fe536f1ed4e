package setup_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/work/settext"
	"yokeswap/core/work/setup"
)

// A board set up as a fit says tells that fit: from nothing noted, taking all of it over
// gives the same flight firmware, order, switches and layout, and then nothing differs.
func TestABoardTellsWhatIsOnIt(t *testing.T) {
	full := planned(sample.Set(), func(*fleet.Fit) {})
	of, ok := setup.Of(full)
	require.True(t, ok)
	bare := planned(sample.Set(), func(f *fleet.Fit) { f.Flight, f.Ports = fleet.Flight{}, nil })
	for _, tell := range setup.Tells(bare, of) {
		if tell.Patch == nil { // what belongs to no fit is told, and noted nowhere
			assert.Equal(t, setup.TellsReceiver, tell.Key)
			assert.True(t, tell.Same, tell)
			continue
		}
		assert.True(t, tell.Takes, tell.Key)
		assert.Equal(t, "not noted", tell.Noted, tell.Key)
		for _, again := range setup.Tells(bare, of) { // each on what the others left
			if again.Key == tell.Key {
				bare = bare.With(*again.Patch)
			}
		}
	}
	assert.Equal(t, full.Fit.Runs, bare.Fit.Runs)
	assert.Equal(t, full.Fit.Sticks.Order, bare.Fit.Sticks.Order)
	assert.Equal(t, full.Fit.OSD, bare.Fit.OSD)
	assert.Len(t, bare.Fit.Sticks.Switches, len(full.Fit.Sticks.Switches))
	assert.Contains(t, bare.Fit.Ports, fleet.Port{UART: 1, Use: fleet.UseMSP})
	assert.Contains(t, bare.Fit.Ports, fleet.Port{UART: 3, Use: fleet.UseRC})
	for _, tell := range setup.Tells(bare, of) {
		assert.True(t, tell.Same, "%s: %s, %s", tell.Key, tell.Noted, tell.Is)
		assert.False(t, tell.Takes)
	}
}

// A board of a firmware nobody has described tells its name alone; what has no name there
// is counted and left out.
func TestWhatABoardCannotTell(t *testing.T) {
	c := planned(sample.Set(), func(*fleet.Fit) {})
	of, _ := setup.Of(c)
	other := of.Clone()
	other.Variant = "XXXX"
	list := setup.Tells(c, other)
	require.Len(t, list, 1)
	assert.False(t, list[0].Takes)
	assert.Contains(t, list[0].Note, "calls itself XXXX")

	of.Modes = append(of.Modes, setup.Range{Mode: 99, Aux: 3, FromUS: 1300, ToUS: 1700})
	of.Ports = append(of.Ports, setup.Port{ID: 20, Functions: 1})
	for _, tell := range setup.Tells(c, of) {
		switch tell.Key {
		case setup.TellsSwitches:
			assert.Equal(t, "1 mode the firmware's sheet has no name for is left out", tell.Note)
		case setup.TellsPorts:
			assert.Contains(t, tell.Note, "1 use on a port that the board's sheet does not have")
		}
	}
	named := len(of.OSD)
	of.OSD = append(of.OSD, setup.Cell{}, setup.Cell{X: 3, Y: 2, Profiles: 1}, setup.Cell{})
	tells := func() (note string) {
		for _, tell := range setup.Tells(c, of) {
			if tell.Key == setup.TellsOSD {
				note = tell.Note
			}
		}
		return note
	}
	assert.Equal(t, "1 element the firmware's sheet has no name for is left out", tells(), "what does not show is not counted")
	of.OSD = of.OSD[:named]
	assert.Empty(t, tells())
	of.Lacks = []string{setup.LacksOSD}
	for _, tell := range setup.Tells(c, of) {
		assert.NotEqual(t, setup.TellsOSD, tell.Key)
	}
}

// A receiver of its own makes the port of the sticks its own.
func TestThePortOfASeparateReceiver(t *testing.T) {
	c := planned(sample.Set(), func(*fleet.Fit) {})
	of, _ := setup.Of(c)
	separate := planned(sample.Set(), func(f *fleet.Fit) { f.Receiver = "receiver" })
	for _, tell := range setup.Tells(separate, of) {
		if tell.Key == setup.TellsPorts {
			assert.Contains(t, tell.Patch.Wiring.Ports, fleet.Port{UART: 3, Use: fleet.UseReceiver})
		}
	}
}

// What is noted on a port for something a board knows no word for stays, unless the board
// tells of a use there.
func TestWhatIsNotedForSomethingElseStays(t *testing.T) {
	of, _ := setup.Of(planned(sample.Set(), func(*fleet.Fit) {}))
	noted := planned(sample.Set(), func(f *fleet.Fit) {
		f.Ports = []fleet.Port{{UART: 2, Use: fleet.UseOther}, {UART: 1, Use: fleet.UseOther}, {UART: 2, Use: fleet.UseOther}}
	})
	for _, tell := range setup.Tells(noted, of) {
		if tell.Key != setup.TellsPorts {
			continue
		}
		ports := tell.Patch.Wiring.Ports
		assert.Contains(t, ports, fleet.Port{UART: 2, Use: fleet.UseOther})
		assert.NotContains(t, ports, fleet.Port{UART: 1, Use: fleet.UseOther}, "the board has MSP there")
		assert.Len(t, ports, 3)
		return
	}
	t.Error("the board tells of no ports")
}

// A settings text tells the firmware it is of and the ports it names; what it leaves out
// stays as it is noted.
func TestATextTellsWhatItNames(t *testing.T) {
	set := sample.Set()
	set.FlightFirmware[0].Text = &gear.SettingsText{
		Remark: ";", End: "; end", Head: []string{"of {firmware} {version}", "board {board}"},
		Lines: []gear.SettingsLine{{Form: "port {name} carries {value}", Group: "port"}, {Form: "{name} is {value}"}},
		Words: []gear.SettingsWord{{Name: "port *", UART1: new(0), Values: []gear.SettingsValue{
			{Is: "sticks", Function: gear.FunctionRC}, {Is: "goggles", Function: gear.FunctionMSP},
			{Is: "air", Function: gear.NoFunction}, {Is: "a lamp"},
		}}},
	}
	c := planned(set, func(f *fleet.Fit) {
		f.Runs = nil
		f.Ports = []fleet.Port{{UART: 2, Use: fleet.UseGPS}, {UART: 3, Use: fleet.UseRC}, {UART: 5, Use: fleet.UseOther}}
	})
	head := "; of " + set.FlightFirmware[0].Variant + " 4.5\n; board mill\n"
	list, err := setup.TellsText(c, head+"port 0 carries goggles\nport 2 carries air\nport 4 carries a lamp\nrate is 3\n; end")
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.Equal(t, &fleet.Runs{ID: set.FlightFirmware[0].ID, Version: "4.5"}, list[0].Patch.Runs)
	assert.Equal(t, []fleet.Port{{UART: 1, Use: fleet.UseMSP}, {UART: 2, Use: fleet.UseGPS}, {UART: 5, Use: fleet.UseOther}},
		list[1].Patch.Wiring.Ports, "what is in words nobody has stated stays as noted")
	assert.Equal(t, "what 1 port does is in words nobody has stated: left out", list[1].Note)

	list, err = setup.TellsText(c, head+"port 0 carries sticks\nport 0 carries goggles")
	require.NoError(t, err)
	assert.Contains(t, list[1].Is, "UART 1: ", "the last line that names a port holds")
	assert.Equal(t, fleet.UseMSP, list[1].Patch.Wiring.Ports[0].Use)
	assert.Contains(t, list[1].Note, "cut")

	list, err = setup.TellsText(c, head+"rate is 3\n; end")
	require.NoError(t, err)
	assert.Len(t, list, 1, "it names no port")

	// A sheet of the same firmware without its words does not keep them from being read, and a text
	// that does not say its release takes none away.
	bare := set.FlightFirmware[0]
	bare.ID, bare.Text = "bare", nil
	set.FlightFirmware = append(set.FlightFirmware, bare)
	noted := planned(set, func(f *fleet.Fit) { f.Runs = &fleet.Runs{ID: "bare", Version: "4.5"} })
	set.FlightFirmware[0].Text.Head = []string{"of {firmware} {version}", "of {firmware}"}
	list, err = setup.TellsText(noted, "; of "+bare.Variant+"\nport 0 carries goggles\n; end")
	require.NoError(t, err)
	assert.True(t, list[0].Same && !list[0].Takes)
	assert.Len(t, list, 2)
	set.FlightFirmware[0].Text.Head = []string{"of {firmware} {version}", "board {board}"}
	for text, why := range map[string]string{
		"port 1 carries sticks\n; end":         "does not say",
		"; of XXXX 4.5\n; end":                 "does not say",
		head + "; end\n" + head + "rate is 3":  "more than one text",
		head + "rate is \xff":                  "no text",
		strings.Repeat("x", settext.MostBytes): "does not say",
	} {
		_, err := setup.TellsText(c, text)
		assert.ErrorContains(t, err, why)
	}
}

// What the sticks come as is told, and may be picked; the features that are on are noted.
func TestABoardTellsItsReceiverAndFeatures(t *testing.T) {
	c := planned(sample.Set(), func(*fleet.Fit) {})
	runs := sample.Set().FlightFirmware[0]
	of, ok := setup.Of(c)
	require.True(t, ok)
	tells := func() map[string]setup.Tell {
		out := map[string]setup.Tell{}
		for _, tell := range setup.Tells(c, of) {
			out[tell.Key] = tell
		}
		return out
	}
	assert.True(t, tells()[setup.TellsReceiver].Same)
	assert.Equal(t, "sbus", tells()[setup.TellsReceiver].Is)

	of.Provider = 99
	tell := tells()[setup.TellsReceiver]
	assert.False(t, tell.Same || tell.Takes)
	assert.Contains(t, tell.Is, "number 99")
	assert.Contains(t, tell.Note, "pick the receiver")

	of.Features &^= 1 << runs.Features[gear.FeatureOSD]
	tell = tells()[setup.TellsFeatures]
	assert.True(t, tell.Takes)
	assert.Equal(t, "rx-serial", tell.Is)
	assert.Contains(t, tell.Note, "to be switched on: osd: it makes the board send")

	of.Features = 1 << runs.Features[gear.FeatureRXSerial]
	for range 20 { // whatever order a map goes in
		assert.Equal(t, tells(), tells())
	}
	of.Features = 0
	_, told := tells()[setup.TellsReceiver]
	assert.False(t, told, "no receiver on a serial port: what it would be set to says nothing")
}

// Features noted as they are on today are what a plan starts from: what it takes and is off is
// to be switched on; what is not noted is taken to be on. Another firmware, another board or a
// finished swap leaves nothing of them.
func TestFeaturesOfTodayAreWhereAPlanStarts(t *testing.T) {
	c := planned(sample.Set(), func(*fleet.Fit) {})
	c.Quad.Now = c.Fit.Clone()
	rows := func() (off []string) {
		for _, r := range setup.PlanOf(c).Rows {
			if strings.HasPrefix(r.Label, "feature ") && !r.Same {
				off = append(off, r.Label+" "+r.Found)
			}
		}
		return off
	}
	assert.Empty(t, rows())
	c.Quad.Now = c.Quad.Now.With(fleet.Patch{Features: []string{"rx-serial"}})
	assert.Equal(t, []string{"feature osd off"}, rows())
	c.Quad.Now = c.Quad.Now.With(fleet.Patch{Features: []string{}})
	assert.Equal(t, []string{"feature osd off", "feature rx-serial off"}, rows())

	noted := c.Quad.Now.With(fleet.Patch{Features: []string{"osd", "no such"}})
	assert.Equal(t, []string{"osd", "no such"}, noted.With(fleet.Patch{Runs: noted.Runs}).Features)
	assert.Nil(t, noted.With(fleet.Patch{Runs: &fleet.Runs{ID: "another"}}).Features)
	assert.Nil(t, noted.With(fleet.Patch{Board: new("another")}).Features)
	now := fleet.NowCase(c.Library, c.Fleet, c.Quad)
	of, _ := setup.Of(now)
	for _, tell := range setup.Tells(now, of) {
		if tell.Key == setup.TellsFeatures {
			assert.Equal(t, "none", tell.Noted)
			assert.True(t, tell.Same)
		}
	}
}

// A receiver that would come as the board is set to can be picked; one that would not cannot.
func TestTheReceiverABoardTellsOfIsPicked(t *testing.T) {
	set := sample.Set()
	other := set.Receivers[0]
	other.ID, other.Protocols = "other", []string{"no such"}
	set.Receivers = append(set.Receivers, other)
	c := planned(set, func(*fleet.Fit) {})
	runs := set.FlightFirmware[0]
	speaks := set.Receivers[0].Protocols[0]
	of, ok := setup.Of(c)
	require.True(t, ok)
	of.Provider = runs.Providers[speaks]
	bare := planned(set, func(f *fleet.Fit) { f.AirUnit, f.Receiver, f.Controller = nil, "", nil })
	var picks []setup.TellPick
	for _, tell := range setup.Tells(bare, of) {
		if tell.Key == setup.TellsReceiver {
			picks = tell.Picks
		}
	}
	require.Len(t, picks, 1)
	assert.Equal(t, "receiver:"+set.Receivers[0].ID, picks[0].Key)
	assert.Equal(t, set.Receivers[0].ID, *picks[0].Patch.Receiver)
	patch, ok := setup.PatchOf(setup.Tells(bare, of), picks[0].Key)
	assert.True(t, ok)
	noted := bare.With(patch)
	for _, tell := range setup.Tells(noted, of) {
		assert.True(t, tell.Key != setup.TellsReceiver || tell.Same)
	}
	_, ok = setup.PatchOf(setup.Tells(bare, of), "receiver:other")
	assert.False(t, ok)
}
