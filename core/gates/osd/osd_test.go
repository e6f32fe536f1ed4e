package osd_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/osd"
	"yokeswap/core/internal/sample"
)

func caseOf(set *gear.Set, flight fleet.Flight) fleet.Case {
	return sample.Case(set, []fleet.Kit{sample.Own("first", "1.1", ""), sample.Own("new-eyes", "5.2", "b")},
		fleet.Fit{
			AirUnit: &fleet.Slot{Kit: "first"},
			Goggles: &fleet.Slot{Kit: "new-eyes"},
			Board:   "board",
			Wiring:  fleet.Wiring{Wires: sample.Wired()},
			Flight:  flight,
		})
}

// common is a compatibility mode that speaks the common dialect.
func common(on firmware.Range, canvas *bool) []gear.SpeaksAs {
	return []gear.SpeaksAs{{Dialect: gear.Common, Name: "goggles mode", Firmware: on, Canvas: canvas}}
}

func codes(findings []verdict.Finding) (list []verdict.Code) {
	for _, f := range findings {
		list = append(list, f.Code)
	}
	return list
}

// The trade's cases (common practice): a superset needs its own port function, old
// flight firmware has no canvas, some releases have OSD faults, a layout for the
// analog grid sits in a corner of the new one.
func TestTheTradesCases(t *testing.T) {
	for _, c := range []struct {
		name   string
		change func(*gear.Set, *fleet.Flight)
		code   verdict.Code
		level  verdict.Level
	}{
		{"as it should be", func(*gear.Set, *fleet.Flight) {}, osd.CodeFits, verdict.Fits},
		{
			"a superset without its own function",
			func(_ *gear.Set, f *fleet.Flight) { f.Runs.ID = "flies-superset" },
			osd.CodeDialect,
			verdict.Unfit,
		},
		{"a superset with it", func(s *gear.Set, f *fleet.Flight) {
			f.Runs.ID = "flies-superset"
			s.FlightFirmware[1].Functions[gear.FunctionDigital] = 25
		}, osd.CodeFits, verdict.Fits},
		{"a unit that understands the superset", func(s *gear.Set, f *fleet.Flight) {
			f.Runs.ID, s.AirUnits[0].OSD.Dialects = "flies-superset", []gear.Dialect{gear.Superset}
		}, osd.CodeFits, verdict.Fits},
		{"MAVLink, which the unit does not take", func(s *gear.Set, f *fleet.Flight) {
			s.FlightFirmware[0].Dialect = gear.MAVLink
		}, osd.CodeDialect, verdict.Unfit},
		{"MAVLink, and a compatibility mode with a canvas", func(s *gear.Set, f *fleet.Flight) {
			s.FlightFirmware[0].Dialect, s.FlightFirmware[0].SpeaksAs = gear.MAVLink, common(">=4.4", new(true))
		}, osd.CodeDialect, verdict.Caution},
		{"a compatibility mode without a canvas", func(s *gear.Set, f *fleet.Flight) {
			s.FlightFirmware[0].Dialect, s.FlightFirmware[0].SpeaksAs = gear.MAVLink, common("*", new(false))
		}, osd.CodeBuiltIn, verdict.Change},
		{"nobody says whether it has one", func(s *gear.Set, f *fleet.Flight) {
			s.FlightFirmware[0].Dialect, s.FlightFirmware[0].SpeaksAs = gear.MAVLink, common("*", nil)
		}, osd.CodeUnknown, verdict.Unknown},
		{"a compatibility mode of later releases", func(s *gear.Set, f *fleet.Flight) {
			s.FlightFirmware[0].Dialect, s.FlightFirmware[0].SpeaksAs = gear.MAVLink, common(">=9.0", new(true))
		}, osd.CodeDialect, verdict.Unfit},
		{"a unit that takes MAVLink", func(s *gear.Set, f *fleet.Flight) {
			s.FlightFirmware[0].Dialect = gear.MAVLink
			s.AirUnits[0].OSD.Dialects = []gear.Dialect{gear.MAVLink}
		}, osd.CodeBuiltIn, verdict.Change},
		{"MSP in a mode before MAVLink of itself", func(s *gear.Set, f *fleet.Flight) {
			s.FlightFirmware[0].Dialect, s.FlightFirmware[0].SpeaksAs = gear.MAVLink, common("*", new(true))
			s.AirUnits[0].OSD.Dialects = []gear.Dialect{gear.MAVLink, gear.Common}
		}, osd.CodeDialect, verdict.Caution},
		{
			"flight firmware before the canvas",
			func(_ *gear.Set, f *fleet.Flight) { f.Runs.Version = "4.3" },
			osd.CodeBuiltIn,
			verdict.Change,
		},
		{
			"a release with an OSD fault",
			func(_ *gear.Set, f *fleet.Flight) { f.Runs.Version = "4.5.0" },
			osd.CodeAdvice,
			verdict.Caution,
		},
		{"an analog layout", func(_ *gear.Set, f *fleet.Flight) {
			f.OSD = &fleet.Layout{Grid: "30x16", Elements: []fleet.Placed{{ID: "warnings", X: 9, Y: 10}}}
		}, osd.CodeLayout, verdict.Change},
		{
			"two elements on each other",
			func(_ *gear.Set, f *fleet.Flight) { f.OSD.Elements[1] = fleet.Placed{ID: "warnings", X: 3, Y: 18} },
			osd.CodeOverlap,
			verdict.Change,
		},
		{"two on each other in other profiles", func(_ *gear.Set, f *fleet.Flight) {
			f.OSD.Elements[1] = fleet.Placed{ID: "warnings", X: 3, Y: 18, Profiles: []int{2}}
		}, osd.CodeFits, verdict.Fits},
		{
			"an element off the grid",
			func(_ *gear.Set, f *fleet.Flight) { f.OSD.Elements[2].X = 50 },
			osd.CodeOverlap,
			verdict.Change,
		},
		{
			"an element the firmware has not",
			func(_ *gear.Set, f *fleet.Flight) { f.OSD.Elements[2].ID = "tide-table" },
			osd.CodeElements,
			verdict.Caution,
		},
		{"release not known", func(_ *gear.Set, f *fleet.Flight) { f.Runs.Version = "" }, osd.CodeUnknown, verdict.Unknown},
		{"firmware not known", func(_ *gear.Set, f *fleet.Flight) { f.Runs = nil }, osd.CodeUnknown, verdict.Unknown},
		{"layout not known", func(_ *gear.Set, f *fleet.Flight) { f.OSD = nil }, osd.CodeUnknown, verdict.Unknown},
		{
			"canvas of the goggles not stated",
			func(s *gear.Set, _ *fleet.Flight) { s.Goggles[1].Canvas = "" },
			osd.CodeUnknown,
			verdict.Unknown,
		},
		{
			"dialects of the unit not stated",
			func(s *gear.Set, _ *fleet.Flight) { s.AirUnits[0].OSD = nil },
			osd.CodeUnknown,
			verdict.Unknown,
		},
	} {
		t.Run(c.name, func(t *testing.T) {
			set, flight := sample.Set(), sample.Flight()
			c.change(set, &flight)
			findings := osd.Check(caseOf(set, flight))
			assert.Contains(t, codes(findings), c.code)
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
		})
	}
	c := caseOf(sample.Set(), sample.Flight())
	c.Fit.Board = ""
	assert.Equal(t, verdict.Unknown, verdict.Worst(osd.Check(c)), "a board nobody has stated")
	c.Fit.None = []string{fleet.NoBoard}
	assert.Equal(t, []verdict.Code{osd.CodeNoBoard}, codes(osd.Check(c)))
	c = caseOf(sample.Set(), sample.Flight())
	c.Fit.Wires = nil
	assert.Contains(t, codes(osd.Check(c)), osd.CodePort)
}

// What is lost is told by today's layout, what is missed most first, with the
// nearest that shows.
func TestWhatIsLostOnAUnitsOwnLayout(t *testing.T) {
	flight := sample.Flight()
	flight.Runs.Version = "4.3"
	flight.OSD = &fleet.Layout{
		Grid: "30x16",
		Elements: []fleet.Placed{
			{ID: "quad-name", X: 1, Y: 1},
			{ID: "home-arrow", X: 14, Y: 2},
			{ID: "battery-voltage", X: 1, Y: 14},
			{ID: "cell-voltage", X: 8, Y: 14},
		},
	}
	c := caseOf(sample.Set(), flight)
	c.Quad.Now = c.Quad.Next.Clone()
	lost := osd.Draw(c).Lost
	require.Len(t, lost, 3)
	assert.Equal(t, "cell-voltage", lost[0].ID)
	assert.Equal(t, "battery-voltage", lost[0].Instead)
	assert.Equal(t, "home-arrow", lost[1].ID)
	assert.Empty(t, lost[1].Instead)
	findings := osd.Check(c)
	assert.Contains(t, findings[0].Says, "The unit's own layout shows 1 of 4 elements")
	var says []string
	for _, cand := range osd.Candidates(c) {
		says = append(says, change.Words(c, cand.Patch))
	}
	assert.Contains(t, says, "flash flies-common 4.4 onto the board")
}

func sizes(id string) (int, int) {
	e, _ := sample.Set().FlightFirmware[0].Element(id)
	return e.Size()
}

// An analog layout as builders have it, on the grid of the new goggles: edges,
// corners and the middle where the eye expects them.
func TestAnAnalogLayoutOnTheNewGrid(t *testing.T) {
	analog := fleet.Layout{Grid: "30x16", Elements: []fleet.Placed{
		{ID: "battery-voltage", X: 0, Y: 15},
		{ID: "cell-voltage", X: 6, Y: 15},
		{ID: "link-quality", X: 27, Y: 0},
		{ID: "flight-time", X: 25, Y: 15},
		{ID: "warnings", X: 9, Y: 10},
		{ID: "crosshair", X: 13, Y: 7},
		{ID: "quad-name", X: 12, Y: 0},
	}}
	out, dropped := osd.Convert(analog, "53x20", sizes)
	assert.Empty(t, dropped)
	assert.Equal(t, fleet.Layout{Grid: "53x20", Elements: []fleet.Placed{
		{ID: "battery-voltage", X: 0, Y: 19},
		{ID: "cell-voltage", X: 6, Y: 19},
		{ID: "link-quality", X: 50, Y: 0},
		{ID: "flight-time", X: 48, Y: 19},
		{ID: "warnings", X: 21, Y: 13},
		{ID: "crosshair", X: 25, Y: 9},
		{ID: "quad-name", X: 24, Y: 0},
	}}, out)
}

// layouts draws sound layouts: in bounds, nothing on another of its profile.
func layouts(t *rapid.T, grid gear.Grid) fleet.Layout {
	columns, rows, _ := grid.Size()
	l := fleet.Layout{Grid: grid}
	for i, e := range sample.Set().FlightFirmware[0].Elements {
		w, h := e.Size()
		if rapid.Bool().Draw(t, "shown") || w > columns {
			continue
		}
		p := fleet.Placed{ID: e.ID, X: rapid.IntRange(0, columns-w).Draw(t, "x"), Y: rapid.IntRange(0, rows-h).Draw(t, "y")}
		if i%3 == 0 {
			p.Profiles = []int{1, 2}
		}
		if !slices.ContainsFunc(l.Elements, func(o fleet.Placed) bool { return overlaps(p, o) }) {
			l.Elements = append(l.Elements, p)
		}
	}
	return l
}

func overlaps(a, b fleet.Placed) bool {
	aw, ah := sizes(a.ID)
	bw, bh := sizes(b.ID)
	return a.X < b.X+bw && b.X < a.X+aw && a.Y < b.Y+bh && b.Y < a.Y+ah
}

var grids = []gear.Grid{"30x13", "30x16", "50x18", "53x20", "60x22"}

// The laws of a conversion, between all grids of the trade.
func TestLawsOfConversion(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from, to := rapid.SampledFrom(grids).Draw(t, "from"), rapid.SampledFrom(grids).Draw(t, "to")
		l := layouts(t, from)
		out, dropped := osd.Convert(l, to, sizes)
		columns, rows, _ := from.Size()
		toColumns, toRows, _ := to.Size()
		require.Len(t, out.Elements, len(l.Elements)-len(dropped))
		for i, e := range out.Elements {
			w, h := sizes(e.ID)
			require.True(t, e.X >= 0 && e.Y >= 0 && e.X+w <= toColumns && e.Y+h <= toRows, "in bounds: %+v", e)
			for _, o := range out.Elements[:i] {
				require.False(t, overlaps(e, o) && e.In(1) && o.In(1), "%+v over %+v", e, o)
			}
		}
		if from == to {
			require.ElementsMatch(t, l.Elements, out.Elements, "the same grid changes nothing")
		}
		if toColumns < columns || toRows < rows {
			return
		}
		require.Empty(t, dropped, "a larger grid has room for all")
		for i, e := range out.Elements {
			was := l.Elements[i]
			w, h := sizes(e.ID)
			for _, axis := range []struct{ was, is, length, room, to int }{
				{was.X, e.X, w, columns, toColumns},
				{was.Y, e.Y, h, rows, toRows},
			} {
				slack, play := axis.room-axis.length, axis.to-axis.length
				switch {
				case 2*axis.was == slack:
					require.InDelta(t, float64(play)/2, float64(axis.is), 0.5, "the middle stays the middle")
				case axis.was == 0:
					require.Zero(t, axis.is, "the near edge stays")
				case axis.was == slack:
					require.Equal(t, play, axis.is, "the far edge stays")
				}
			}
			for k, o := range out.Elements[:i] {
				other := l.Elements[k]
				ow, _ := sizes(o.ID)
				if was.Y == other.Y && other.X+ow <= was.X {
					require.LessOrEqual(t, o.X+ow, e.X, "order is kept: %+v before %+v", o, e)
				}
			}
		}
	})
}

func BenchmarkConvert(b *testing.B) {
	set := sample.Set()
	l := fleet.Layout{Grid: "53x20"}
	for y := range 20 {
		for x := range 4 {
			l.Elements = append(l.Elements, fleet.Placed{ID: set.FlightFirmware[0].Elements[0].ID, X: x * 13, Y: y})
		}
	}
	for b.Loop() {
		osd.Convert(l, "30x16", func(string) (int, int) { return 5, 1 })
	}
	b.ReportMetric(1, "goal-ms")
}

// The picture: today's layout, the one to come as planned or as it would be
// converted, and what could be put on.
func TestThePictureSaysWhetherItIsPlanned(t *testing.T) {
	flight := sample.Flight()
	pic := osd.Draw(caseOf(sample.Set(), flight))
	require.NotNil(t, pic.After)
	assert.True(t, pic.Planned)
	assert.Equal(t, 53, pic.After.Columns)
	assert.Equal(t, 20, pic.After.Rows)
	assert.Len(t, pic.More, 6, "of nine elements three are placed")
	assert.Nil(t, pic.Before, "nobody said what it has today")
	assert.Equal(t, "16.4V", pic.After.Elements[0].Shows)
	assert.Equal(t, 12, pic.After.Elements[1].Width)

	flight.OSD = &fleet.Layout{
		Grid:     "30x16",
		Elements: []fleet.Placed{{ID: "warnings", X: 9, Y: 10}, {ID: "tide-table", X: 1, Y: 1}},
	}
	c := caseOf(sample.Set(), flight)
	c.Quad.Now = c.Quad.Next.Clone()
	pic = osd.Draw(c)
	assert.False(t, pic.Planned)
	assert.Equal(t, gear.Grid("30x16"), pic.Before.Grid)
	assert.Equal(t, gear.Grid("53x20"), pic.After.Grid)
	require.Len(t, pic.After.Elements, 1, "what the firmware has not is left out")
	require.Len(t, pic.Lost, 1)
	assert.Contains(t, pic.Lost[0].Why, "does not have it")

	flight.Runs = nil
	assert.Contains(t, osd.Draw(caseOf(sample.Set(), flight)).Missing, "flight firmware")
}

// The converted layout that a fix proposes is the one the gate then calls good.
func TestTheProposedLayoutIsGood(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		flight := sample.Flight()
		l := layouts(t, rapid.SampledFrom(grids).Draw(t, "grid"))
		flight.OSD = &l
		c := caseOf(sample.Set(), flight)
		for _, cand := range osd.Candidates(c) {
			if cand.Patch.OSD == nil {
				continue
			}
			after := osd.Check(c.With(cand.Patch))
			require.NotContains(t, codes(after), osd.CodeLayout)
			require.NotContains(t, codes(after), osd.CodeOverlap)
		}
	})
}

// More than fits: what matters most keeps its place, and what has none is told.
func TestWhatMattersMostKeepsItsPlace(t *testing.T) {
	l := fleet.Layout{Grid: "60x22"}
	for y := range 22 {
		l.Elements = append(l.Elements, fleet.Placed{ID: "row", X: 0, Y: y})
	}
	l.Elements = append(l.Elements[:11], append([]fleet.Placed{{
		ID: "battery-voltage",
		X:  0,
		Y:  11,
	}}, l.Elements[12:]...)...)
	out, dropped := osd.Convert(l, "30x13", func(id string) (int, int) {
		if id == "row" {
			return 30, 1
		}
		return 6, 1
	})
	assert.Len(t, dropped, 9, "22 rows onto 13")
	assert.Len(t, out.Elements, 13)
	assert.True(t, slices.ContainsFunc(out.Elements, func(e fleet.Placed) bool { return e.ID == "battery-voltage" }))
	_, dropped = osd.Convert(fleet.Layout{
		Grid:     "60x22",
		Elements: []fleet.Placed{{ID: "wide"}},
	}, "30x16", func(string) (int, int) { return 40, 1 })
	assert.Len(t, dropped, 1, "wider than the grid")
	same, _ := osd.Convert(fleet.Layout{Grid: "no grid"}, "30x16", sizes)
	assert.Equal(t, gear.Grid("no grid"), same.Grid)
}

// Wires that cannot carry MSP show nothing, whatever the port is said to be for.
func TestNothingShowsOverWrongWires(t *testing.T) {
	for name, wires := range map[string][]fleet.Wire{
		"swapped":       {{Pin: 2, To: "ground"}, {Pin: 3, To: "rx1"}, {Pin: 4, To: "tx1"}},
		"on two ports":  {{Pin: 2, To: "ground"}, {Pin: 3, To: "tx1"}, {Pin: 4, To: "rx3"}},
		"one left off":  {{Pin: 2, To: "ground"}, {Pin: 3, To: "tx1"}},
		"both left off": {{Pin: 2, To: "ground"}},
	} {
		c := caseOf(sample.Set(), sample.Flight())
		c.Fit.Wires, c.Fit.Ports = wires, []fleet.Port{{UART: 1, Use: fleet.UseMSP}}
		findings := osd.Check(c)
		assert.Contains(t, codes(findings), osd.CodePort, name)
		assert.Equal(t, verdict.Change, verdict.Worst(findings), name)
	}
}

// What can be put on finds a place that is free in every profile.
func TestWhatCanBePutOnHasAPlace(t *testing.T) {
	c := caseOf(sample.Set(), sample.Flight())
	for _, more := range osd.Draw(c).More {
		next := c.Fit.OSD.Elements
		put := fleet.Placed{ID: more.ID, X: more.X, Y: more.Y, Profiles: []int{1, 2, 3}}
		assert.False(t, slices.ContainsFunc(next, func(o fleet.Placed) bool { return overlaps(put, o) }), more.ID)
	}
}

// The crosshair lies in the horizon on purpose; two that do not overlap; what the unit
// does not draw lies on nothing.
func TestWhatIsMeantToLieInAnother(t *testing.T) {
	judged := func(canvas bool, elements ...fleet.Placed) []verdict.Code {
		flight := sample.Flight()
		flight.OSD.Elements = append(flight.OSD.Elements, elements...)
		if !canvas {
			flight.Runs.Version, flight.OSD.Grid = "4.3", "30x16"
			flight.OSD.Elements = elements
		}
		return codes(osd.Check(caseOf(sample.Set(), flight)))
	}
	horizon, cross := fleet.Placed{ID: "horizon", X: 22, Y: 7}, fleet.Placed{ID: "crosshair", X: 25, Y: 9}
	assert.NotContains(t, judged(true, horizon, cross), osd.CodeOverlap)
	assert.Contains(t, judged(true, horizon, fleet.Placed{ID: "quad-name", X: 24, Y: 9}), osd.CodeOverlap)
	arrow, name := fleet.Placed{ID: "home-arrow", X: 5, Y: 5}, fleet.Placed{ID: "quad-name", X: 3, Y: 5}
	assert.NotContains(t, judged(false, arrow, name, fleet.Placed{ID: "battery-voltage", X: 5, Y: 5}), osd.CodeOverlap,
		"only the voltage is drawn")

	flight := sample.Flight()
	flight.OSD = &fleet.Layout{
		Grid:     "30x16",
		Elements: []fleet.Placed{{ID: "horizon", X: 10, Y: 5}, {ID: "crosshair", X: 13, Y: 7}},
	}
	c := caseOf(sample.Set(), flight)
	for _, cand := range osd.Candidates(c) {
		if l := cand.Patch.OSD; l != nil {
			require.Len(t, l.Elements, 2)
			assert.Equal(t, [2]int{25, 9}, [2]int{l.Elements[1].X, l.Elements[1].Y},
				"the middle stays the middle, within the horizon")
			assert.NotContains(t, codes(osd.Check(c.With(cand.Patch))), osd.CodeOverlap)
		}
	}
}

// The picture marks what the gate speaks of, and nothing else: both of two that lie over
// each other, and what falls off the grid.
func TestThePictureMarksWhatLiesOver(t *testing.T) {
	at := func(elements ...fleet.Placed) (over []bool) {
		c := caseOf(sample.Set(), sample.Flight())
		c.Quad.Now.OSD = &fleet.Layout{Grid: "53x20", Elements: elements}
		for _, cell := range osd.Draw(c).Before.Elements {
			over = append(over, cell.Over)
		}
		return over
	}
	battery, name := fleet.Placed{
		ID: "battery-voltage",
		X:  4,
		Y:  4,
	}, func(x int) fleet.Placed { return fleet.Placed{ID: "quad-name", X: x, Y: 4} }
	assert.Equal(t, []bool{false, false}, at(battery, name(20)))
	assert.Equal(t, []bool{true, true}, at(battery, name(5)))
	assert.Equal(t, []bool{false, true}, at(battery, name(51)))
}

// The way out of a board whose release has no mode the unit understands is a release that
// has; what is said names it.
func TestALaterReleaseSpeaksAsTheUnitDoes(t *testing.T) {
	set := sample.Set()
	set.FlightFirmware[0].Dialect, set.FlightFirmware[0].SpeaksAs = gear.MAVLink, common(">=9.0", new(true))
	c := caseOf(set, sample.Flight())
	dialect, mode := osd.Speaks(c)
	assert.Empty(t, dialect)
	assert.Nil(t, mode)
	found := osd.Check(c)
	require.Len(t, found, 1)
	assert.Contains(t, found[0].Says, "goggles mode speaks common MSP on 9.0 or later")
	var ways []string
	for _, cand := range osd.Candidates(c) {
		next := c.With(cand.Patch)
		speaks, as := osd.Speaks(next)
		if !slices.Contains(codes(osd.Check(next)), osd.CodeUnknown) && speaks == gear.Common && as != nil {
			ways = append(ways, change.Words(c, cand.Patch))
		}
	}
	assert.Len(t, ways, 1)
}
