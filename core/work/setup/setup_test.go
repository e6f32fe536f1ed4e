package setup_test

import (
	"slices"
	"strings"
	"testing"
	"yokeswap/core/facts/verdict"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/work/setup"
)

func planned(set *gear.Set, change func(*fleet.Fit)) fleet.Case {
	fit := fleet.Fit{
		AirUnit:    &fleet.Slot{Kit: "first"},
		Goggles:    &fleet.Slot{Kit: "new-eyes"},
		Controller: &fleet.Slot{Kit: "old-hand"},
		Board:      "board",
		Wiring:     fleet.Wiring{Wires: sample.Wired()},
		Flight:     sample.Flight(),
	}
	change(&fit)
	return sample.Case(
		set,
		[]fleet.Kit{sample.Own("first", "1.1", ""), sample.Own("new-eyes", "5.2", "b"), sample.Own("old-hand", "", "")},
		fit,
	)
}

func differing(c setup.Comparison) (labels []string) {
	for _, r := range c.Rows {
		if !r.Same {
			labels = append(labels, r.Label)
		}
	}
	return labels
}

// A board set up as its plan says shows no difference, and setting it once is
// enough.
func TestSetOnceIsEnough(t *testing.T) {
	c := planned(sample.Set(), func(*fleet.Fit) {})
	of, ok := setup.Of(c)
	require.True(t, ok)
	comparison := setup.Compare(c, of)
	assert.Empty(t, differing(comparison))
	assert.Equal(t, "The board is set up as planned.", comparison.Says)
	assert.Equal(t, of, comparison.Target)
}

// What builders get wrong (common practice), and what is to be set.
func TestEachDifferenceIsFoundAndSet(t *testing.T) {
	c := planned(sample.Set(), func(*fleet.Fit) {})
	for _, k := range []struct {
		name   string
		change func(*setup.State)
		labels []string
		found  string
	}{
		{"MSP not on the port", func(s *setup.State) { s.Ports[0].Functions = 0 }, []string{"UART 1"}, "nothing"},
		{"another rate", func(s *setup.State) { s.Ports[0].Rest[0] = 4 }, []string{"UART 1, baud"}, "57600"},
		{"a rate nobody knows", func(s *setup.State) { s.Ports[0].Rest[0] = 8 }, []string{"UART 1, baud"}, "another"},
		{"no canvas on it", func(s *setup.State) { s.Ports[0].Functions = 1 }, []string{"UART 1"}, "msp"},
		{"the sticks on two ports", func(s *setup.State) { s.Ports[1].Functions = 64 }, []string{"UART 2"}, "rc"},
		{"something nobody knows on the port", func(s *setup.State) { s.Ports[0].Functions |= 1 << 30 }, []string{"UART 1"}, "displayport + msp + something else"},
		{"the OSD feature off, as digital has its own", func(s *setup.State) { s.Features &^= 1 << 18 }, []string{"feature osd"}, "off"},
		{"another receiver protocol", func(s *setup.State) { s.Provider = 9 }, []string{"receiver protocol"}, "leat"},
		{"an unknown one", func(s *setup.State) { s.Provider = 77 }, []string{"receiver protocol"}, "number 77"},
		{"another channel order", func(s *setup.State) { s.RXMap = "TAER" }, []string{"channel order"}, "TAER"},
		{"arming on another switch", func(s *setup.State) { s.Modes[0].Aux = 4 }, []string{"mode arm"}, "AUX 5, 1700 to 2100 µs"},
		{"no beeper", func(s *setup.State) { s.Modes = s.Modes[:2] }, []string{"mode beeper"}, "on no switch"},
		{"another canvas", func(s *setup.State) { s.Canvas = "60x22" }, []string{"canvas"}, "60×22"},
		{"an element elsewhere", func(s *setup.State) { s.OSD[0].X++ }, []string{"OSD elements"}, "elsewhere or not shown: battery-voltage"},
		{"an element too many", func(s *setup.State) { s.OSD[4].Profiles = 1 }, []string{"OSD elements"}, "shown and not planned: home-arrow"},
		{"another release", func(s *setup.State) { s.Version = "4.4" }, []string{"its release"}, "4.4"},
	} {
		t.Run(k.name, func(t *testing.T) {
			right, _ := setup.Of(c)
			found := right.Clone()
			k.change(&found)
			comparison := setup.Compare(c, found)
			assert.Equal(t, k.labels, differing(comparison))
			for _, r := range comparison.Rows {
				if !r.Same {
					assert.Equal(t, k.found, r.Found)
					assert.NotNil(t, r.Finding)
				}
			}
			assert.Empty(t, comparison.Blocked)
			after := setup.Compare(c, comparison.Target)
			if k.name == "another release" {
				assert.Equal(t, k.labels, differing(after), "no setting changes a release")
				return
			}
			assert.Empty(t, differing(after), "set, it is as planned")
		})
	}
}

func TestNothingIsWrittenToAnotherOrAnArmedBoard(t *testing.T) {
	c := planned(sample.Set(), func(*fleet.Fit) {})
	found, _ := setup.Of(c)
	found.Variant = "OTHR"
	assert.Contains(t, setup.Compare(c, found).Blocked, `says it runs "OTHR"`)
	found, _ = setup.Of(c)
	found.Armed = true
	assert.Contains(t, setup.Compare(c, found).Blocked, "armed")
	c.Fit.Runs = nil
	assert.NotEmpty(t, setup.Compare(c, found).Blocked)
	_, ok := setup.Of(c)
	assert.False(t, ok)
}

// A superset's own port function, and what the plan does not speak of stays.
func TestASupersetAndWhatStays(t *testing.T) {
	set := sample.Set()
	set.FlightFirmware[1].Functions[gear.FunctionDigital] = 25
	c := planned(set, func(f *fleet.Fit) { f.Runs.ID = "flies-superset" })
	found, _ := setup.Of(c)
	assert.Equal(t, uint32(1<<25), found.Ports[0].Functions)
	found.Modes = append(found.Modes, setup.Range{Mode: 99, Aux: 7, FromUS: 900, ToUS: 1000})
	found.Features |= 1 << 29
	found.Ports[0].Functions = 0
	target := setup.Compare(c, found).Target
	assert.Contains(t, target.Modes, setup.Range{Mode: 99, Aux: 7, FromUS: 900, ToUS: 1000})
	assert.NotZero(t, target.Features&(1<<29))
}

func TestSnapshotsAreHeldAgainstEachOther(t *testing.T) {
	set := sample.Set()
	c := planned(set, func(*fleet.Fit) {})
	a, _ := setup.Of(c)
	b := a.Clone()
	assert.Empty(t, setup.Between(a, b, &set.FlightFirmware[0]))
	beyond := set.FlightFirmware[0]
	beyond.Elements = []gear.OSDElement{{ID: "nowhere"}, {ID: "beyond", Index: new(99)}}
	assert.Empty(t, setup.Between(a, b, &beyond), "elements without a place, or with one the board has not")
	b.Ports[0].Functions, b.RXMap, b.OSD[0].X = 0, "TAER", 7
	b.Modes = b.Modes[1:]
	assert.Equal(t, []setup.Difference{{"UART 1", "displayport + msp", "nothing"}, {"channel order", "AETR", "TAER"},
		{
			"mode arm",
			"AUX 1, 1700 to 2100 µs",
			"",
		}, {"battery-voltage", "column 2, row 19", "column 8, row 19"}}, setup.Between(a, b, &set.FlightFirmware[0]))
}

// A board may keep more of a slot than is read: what can stay in its slot stays.
func TestSlotsOfModesStayWhereTheyCan(t *testing.T) {
	c := planned(sample.Set(), func(*fleet.Fit) {})
	arm := setup.Range{Mode: 0, Aux: 0, FromUS: 1700, ToUS: 2100}
	level := setup.Range{Mode: 1, Aux: 1, FromUS: 900, ToUS: 1300}
	beeper := setup.Range{Mode: 13, Aux: 2, FromUS: 1700, ToUS: 2100}
	other := setup.Range{Mode: 99, Aux: 7, FromUS: 900, ToUS: 1000}
	none := setup.Range{FromUS: 900, ToUS: 900}
	wrong := setup.Range{Mode: 13, Aux: 5, FromUS: 900, ToUS: 1000}
	for name, k := range map[string]struct{ found, want []setup.Range }{
		"as planned, in another order": {[]setup.Range{beeper, other, arm, level}, []setup.Range{beeper, other, arm, level}},
		"one on another range":         {[]setup.Range{other, wrong, arm, level}, []setup.Range{other, beeper, arm, level}},
		"one twice":                    {[]setup.Range{arm, wrong, beeper, level}, []setup.Range{arm, none, beeper, level}},
		"one missing, a slot free":     {[]setup.Range{arm, none, beeper, other}, []setup.Range{arm, level, beeper, other}},
		"nothing yet":                  {[]setup.Range{}, []setup.Range{arm, level, beeper}},
	} {
		found, _ := setup.Of(c)
		found.Modes = k.found
		assert.Equal(t, k.want, setup.Compare(c, found).Target.Modes, name)
	}
}

// What is to be set is what differs from today; the goggles' settings and what to
// know of the firmware go with it.
func TestThePlanOfSettings(t *testing.T) {
	c := planned(sample.Set(), func(*fleet.Fit) {})
	c.Quad.Now = c.Quad.Next.Clone()
	plan := setup.PlanOf(c)
	for _, r := range plan.Rows {
		assert.True(t, r.Same, r.Label)
	}
	var inGoggles []string
	for _, setting := range plan.Goggles {
		inGoggles = append(inGoggles, setting.Says)
	}
	assert.Equal(
		t,
		[]string{"mode b", "region home", "custom OSD on", "canvas on, 53×20", "RC protocol normal"},
		inGoggles,
	)
	dual := sample.Set()
	for i := range dual.Goggles {
		dual.Goggles[i].Receive.Bands = []gear.Band{"2.4", "5.8"}
	}
	assert.Contains(
		t,
		setup.PlanOf(planned(dual, func(*fleet.Fit) {})).Goggles,
		setup.GogglesSetting{Sets: gear.MenuBand, Says: "band 5.8 GHz"},
		"goggles that have several bands want the link's",
	)
	require.Len(t, plan.Firmware, 2)
	assert.Contains(t, plan.Firmware[0], "draws a canvas from 4.4 on")
	assert.Contains(t, plan.Firmware[1], "keep off 4.5.0 alone: its OSD freezes")

	c.Quad.Now.AirUnit, c.Quad.Now.Wires = nil, nil // it was analog
	c.Quad.Now.Ports = []fleet.Port{{UART: 1, Use: fleet.UseVTXControl}}
	differs := map[string]string{}
	for _, r := range setup.PlanOf(c).Rows {
		if !r.Same {
			differs[r.Label] = r.Wanted
		}
	}
	assert.Equal(t, "displayport + msp", differs["UART 1"])
	assert.Equal(t, "rc", differs["UART 3"])

	c.Fit.Runs = nil
	c.Quad.Now.Runs = nil
	assert.NotEmpty(t, setup.PlanOf(c).Missing)
	c.Fit.Board = ""
	assert.Empty(t, setup.PlanOf(c).Rows)
}

// What the plan does not say is named, and never taken for right.
func TestWhatThePlanLeavesOpenIsNamed(t *testing.T) {
	for field, open := range map[string]func(*fleet.Fit){
		"next.osd":          func(f *fleet.Fit) { f.OSD = nil },
		"next.sticks":       func(f *fleet.Fit) { f.Sticks = nil },
		"next.runs.version": func(f *fleet.Fit) { f.Runs.Version = "" },
		"next.ports":        func(f *fleet.Fit) { f.Wires = nil },
	} {
		c := planned(sample.Set(), open)
		found, _ := setup.Of(c)
		comparison := setup.Compare(c, found)
		assert.Zero(t, comparison.Differences(), field)
		assert.NotContains(t, comparison.Says, "as planned", field)
		var fields []string
		for _, m := range comparison.Missing {
			fields = append(fields, m.Field)
		}
		assert.Contains(t, fields, field)
	}
}

// What is set in goggles is gathered over all quads planned for them: once where they
// agree, apart where they do not.
func TestTheListOfAPairOfGoggles(t *testing.T) {
	set := sample.Set()
	for i := range set.Goggles {
		set.Goggles[i].Guides = []gear.Guide{
			{Language: "en", Menus: []gear.MenuPath{{Sets: gear.MenuOSD, Path: "View, Data"}}},
		}
	}
	kit := []fleet.Kit{sample.Own("first", "1.1", ""), sample.Own("new-eyes", "5.2", "b")}
	quad := func(id string, sticks fleet.Variant) fleet.Quad {
		flight := sample.Flight()
		flight.Sticks.Unit = sticks
		return fleet.Quad{ID: id, Now: fleet.Fit{
			AirUnit: &fleet.Slot{Kit: "first"},
			Goggles: &fleet.Slot{Kit: "new-eyes"},
			Board:   "board",
			Wiring:  fleet.Wiring{Wires: sample.Wired()},
			Flight:  flight,
		}}
	}
	f := fleet.NewIndex(&fleet.Fleet{Kit: kit, Quads: []fleet.Quad{quad("a", "normal"), quad("b", "fast"), {ID: "c"}}})
	list, ok := setup.ListFor(gear.NewLibrary(set), f, "new-eyes")
	require.True(t, ok)
	rows := map[string]setup.GogglesRow{}
	for _, r := range list.Rows {
		rows[r.Says] = r
	}
	assert.Equal(t, []string{"a", "b"}, rows["custom OSD on"].Quads)
	assert.Equal(t, "View, Data", rows["custom OSD on"].Menu)
	assert.False(t, rows["custom OSD on"].Differs)
	assert.Equal(t, []string{"b"}, rows["RC protocol fast"].Quads)
	assert.True(t, rows["RC protocol normal"].Differs)
	_, ok = setup.ListFor(gear.NewLibrary(set), f, "first")
	assert.False(t, ok, "that is no pair of goggles")
}

// A board as it comes is known only where the fit says what it runs, and somebody has
// described that.
func TestABoardAsItComes(t *testing.T) {
	_, ok := setup.Factory(planned(sample.Set(), func(*fleet.Fit) {}))
	assert.True(t, ok)
	for _, change := range []func(*fleet.Fit){
		func(f *fleet.Fit) { f.Runs = nil },
		func(f *fleet.Fit) { f.Runs = &fleet.Runs{ID: "nobody-knows-it", Version: "1.0"} },
		func(f *fleet.Fit) { f.Board = "" },
	} {
		_, ok := setup.Factory(planned(sample.Set(), change))
		assert.False(t, ok)
	}
}

// A port function whose number nobody has stated is named, and its port left as it is: no
// other function is set in its place.
func TestAPortFunctionWithoutANumberIsLeftAlone(t *testing.T) {
	speaks := func(d gear.Dialect, as ...gear.SpeaksAs) func(*gear.Set) {
		return func(s *gear.Set) {
			s.FlightFirmware[0].Dialect, s.FlightFirmware[0].SpeaksAs = d, as
			s.AirUnits[0].OSD.Dialects = []gear.Dialect{gear.Common, gear.MAVLink}
		}
	}
	mode := gear.SpeaksAs{Dialect: gear.Common, Name: "goggles mode", Firmware: "*", Canvas: new(true)}
	for _, trial := range []struct {
		function string
		uart     int
		change   func(*gear.Set)
	}{
		{gear.FunctionMSP, 1, func(*gear.Set) {}},
		{gear.FunctionRC, 3, func(*gear.Set) {}},
		{gear.FunctionMAVLink, 1, speaks(gear.MAVLink)},
		{gear.FunctionCompat, 1, speaks(gear.MAVLink, mode)},
	} {
		set := sample.Set()
		trial.change(set)
		found, ok := setup.Of(planned(sample.Set(), func(*fleet.Fit) {}))
		require.True(t, ok)
		at := func(s setup.State) *setup.Port {
			return &s.Ports[slices.IndexFunc(s.Ports, func(p setup.Port) bool { return p.ID == trial.uart-1 })]
		}
		before := at(found).Functions
		delete(set.FlightFirmware[0].Functions, trial.function)
		without := setup.Compare(planned(set, func(*fleet.Fit) {}), found)
		named := slices.ContainsFunc(without.Missing, func(m verdict.Missing) bool {
			return m.Field == "functions" && strings.Contains(m.Label, trial.function)
		})
		assert.True(t, named, "%s is named: %v", trial.function, without.Missing)
		assert.Equal(t, before, at(without.Target).Functions, "%s: UART %d is left as it is", trial.function, trial.uart)

		set.FlightFirmware[0].Functions[trial.function] = 27
		with := setup.Compare(planned(set, func(*fleet.Fit) {}), found)
		assert.NotZero(t, at(with.Target).Functions&(1<<27), "%s is set by its own number", trial.function)
	}
}
