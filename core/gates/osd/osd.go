// Package osd is the gate that asks whether the flight board's data shows in the
// goggles: dialect, canvas, layout, and what of today's layout is lost.
package osd

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// builtInGrid is the grid of a unit's own layout: the analog one (common practice).
const builtInGrid gear.Grid = "30x16"

// Screen is what the goggles show of a flight board.
type Screen struct {
	Canvas bool      `json:"canvas"` // else the unit's own layout
	Grid   gear.Grid `json:"grid"`
	// NoCanvas says why there is none, where there is none.
	NoCanvas string `json:"noCanvas,omitempty"`
	builtIn  []string
}

// Shows says whether an element shows.
func (s *Screen) Shows(id string) bool { return s.Canvas || slices.Contains(s.builtIn, id) }

// view is one fit with what its OSD depends on.
type view struct {
	fleet.Case
	airUnit      *gear.AirUnit
	air          fleet.State
	goggles      *gear.Goggles
	gogglesState fleet.State
	runs         *gear.FlightFirmware
	version      firmware.Version
	missing      []verdict.Missing
	screen       Screen
	spoken       spoken
}

// spoken is what goes over the line between board and unit.
type spoken struct {
	dialect gear.Dialect   // empty: they do not understand each other
	as      *gear.SpeaksAs // the compatibility mode it takes; nil: none
}

// Speaks is what goes over the line between board and unit, empty where that is not known
// or they do not understand each other, and the compatibility mode it takes, nil for none.
func Speaks(c fleet.Case) (gear.Dialect, *gear.SpeaksAs) {
	v, _ := newView(c)
	return v.spoken.dialect, v.spoken.as
}

// speaks finds what board and unit both understand: what the board speaks of itself, in its
// function for digital goggles (which speaks the common dialect), or in a compatibility mode
// its release has; MSP before MAVLink, which carries less (common practice).
func (v *view) speaks() spoken {
	understands := func(d gear.Dialect) bool { return slices.Contains(v.airUnit.OSD.Dialects, d) }
	_, translates := v.runs.Functions[gear.FunctionDigital]
	switch own := v.runs.Dialect; {
	case own != gear.MAVLink && understands(own):
		return spoken{dialect: own}
	case translates && understands(gear.Common):
		return spoken{dialect: gear.Common}
	}
	for _, d := range []gear.Dialect{gear.Common, gear.Superset, gear.MAVLink} {
		if d == v.runs.Dialect && understands(d) {
			return spoken{dialect: d}
		}
		for i := range v.runs.SpeaksAs {
			if as := &v.runs.SpeaksAs[i]; as.Dialect == d && understands(d) && as.Firmware.Holds(v.version) {
				return spoken{d, as}
			}
		}
	}
	return spoken{}
}

func newView(c fleet.Case) (*view, bool) {
	v := &view{Case: c}
	var hasUnit, hasGoggles bool
	v.airUnit, v.air, hasUnit = c.AirUnit()
	v.goggles, v.gogglesState, hasGoggles = c.Goggles()
	if !hasUnit {
		v.missing = append(v.missing, verdict.FitValue(v.Case, "airUnit", "digital air unit of "+c.Quad.Label()))
	}
	if !hasGoggles {
		v.missing = append(v.missing, verdict.FitValue(v.Case, "goggles", "goggles to fly "+c.Quad.Label()+" with"))
	}
	if r := c.Fit.Runs; r != nil {
		v.runs, _ = gear.Find[*gear.FlightFirmware](c.Library, r.ID)
		v.version = r.Version
	}
	if v.runs == nil {
		v.missing = append(v.missing, verdict.FitValue(v.Case, "runs", "flight firmware of "+c.Quad.Label()))
	} else {
		if !v.version.Known() {
			v.missing = append(v.missing,
				verdict.FitValue(v.Case, "runs.version", "release of "+v.runs.Label()+" on "+c.Quad.Label()))
		}
		if len(v.runs.Elements) == 0 {
			v.missing = append(v.missing, verdict.GearValue(&v.runs.Entry, "elements", "elements of its OSD"))
		}
		if v.runs.Dialect == "" {
			v.missing = append(v.missing, verdict.GearValue(&v.runs.Entry, "dialect", "kind of MSP"))
		}
	}
	if hasUnit && (v.airUnit.OSD == nil || len(v.airUnit.OSD.Dialects) == 0) {
		v.missing = append(v.missing, verdict.GearValue(&v.airUnit.Entry, "osd.dialects", "kinds of MSP it understands"))
	}
	if hasUnit && hasGoggles && len(v.missing) == 0 {
		v.findScreen()
	}
	return v, len(v.missing) == 0
}

// findScreen works out whether all three, flight firmware, unit and goggles, draw a
// canvas.
func (v *view) findScreen() {
	osd := v.airUnit.OSD
	v.screen = Screen{Grid: builtInGrid, builtIn: osd.BuiltIn}
	v.spoken = v.speaks()
	no := func(why string, args ...any) {
		if v.screen.NoCanvas == "" {
			v.screen.NoCanvas = fmt.Sprintf(why, args...)
		}
	}
	as := v.spoken.as
	switch {
	case v.spoken.dialect == gear.MAVLink:
		no("over MAVLink a unit draws its own layout")
	case as != nil && as.Canvas == nil:
		v.missing = append(v.missing,
			verdict.GearValue(&v.runs.Entry, "speaksAs", "whether its "+as.Label()+" draws a canvas"))
	case as != nil && !*as.Canvas:
		no("%s draws no canvas in its %s", v.runs.Label(), as.Label())
	}
	switch {
	case v.screen.NoCanvas != "":
	case v.runs.CanvasFrom == "":
		v.missing = append(v.missing, verdict.GearValue(&v.runs.Entry, "canvasFrom", "first release with a canvas"))
	case v.version.Compare(v.runs.CanvasFrom) < 0:
		no("%s draws a canvas from %s on, and %s is on it", v.runs.Label(), v.runs.CanvasFrom, v.version)
	}
	v.checkEnds(no)
	if v.screen.NoCanvas != "" {
		if len(osd.BuiltIn) == 0 {
			v.missing = append(v.missing, verdict.GearValue(&v.airUnit.Entry, "osd.builtIn", "elements its own layout knows"))
		}
		return
	}
	if osd.Grid == "" {
		v.missing = append(v.missing, verdict.GearValue(&v.airUnit.Entry, "osd.grid", "grid of its canvas"))
		return
	}
	v.screen.Canvas, v.screen.Grid = true, osd.Grid
}

// checkEnds looks at the releases of the unit and the goggles: whether each shows a canvas.
func (v *view) checkEnds(no func(why string, args ...any)) {
	for _, end := range []struct {
		fleet.State
		slot   string
		of     *gear.Entry
		field  string
		canvas firmware.Range
	}{
		{v.air, "airUnit", &v.airUnit.Entry, "osd.canvas", v.airUnit.OSD.Canvas},
		{v.gogglesState, "goggles", &v.goggles.Entry, "canvas", v.goggles.Canvas},
	} {
		switch {
		case end.canvas == "":
			v.missing = append(v.missing, verdict.GearValue(end.of, end.field, "firmware that shows a canvas"))
		case end.canvas.IsAny():
		case !end.Target.Known():
			v.missing = append(v.missing, verdict.DeviceValue(v.Case, end.State, end.slot, "firmware", "firmware of "+end.Label))
		case !end.canvas.Holds(end.Target):
			no("%s shows a canvas on %s, and %s is on it", end.Label, end.canvas, end.Target)
		}
	}
}

// sizes gives the cells of an element of the flight firmware.
func (v *view) sizes(id string) (int, int) {
	if e, ok := v.runs.Element(id); ok {
		return e.Size()
	}
	return 1, 1
}

func (v *view) label(id string) string {
	if e, ok := v.runs.Element(id); ok {
		return e.Label()
	}
	return id
}

// Loss is an element of today's layout that does not show, with what tells nearly
// the same.
type Loss struct {
	ID      string `json:"id"`
	Label   string `json:"label"`
	Why     string `json:"why"`
	Instead string `json:"instead,omitempty"` // the nearest that shows, by name
}

// used is the layout the pilot flies with today, or where that is not stated the
// one planned.
func (v *view) used() *fleet.Layout {
	if l := v.Quad.Now.OSD; l != nil {
		return l
	}
	return v.Fit.OSD
}

// losses lists what of today's layout will not show, what is missed most first.
func (v *view) losses() []Loss {
	l, list := v.used(), []Loss{}
	lose := func(id, why string) {
		loss := Loss{ID: id, Label: v.label(id), Why: why}
		if e, ok := v.runs.Element(id); ok {
			for _, other := range e.Instead {
				if _, there := v.runs.Element(other); there && v.screen.Shows(other) {
					loss.Instead = v.label(other)
					break
				}
			}
		}
		list = append(list, loss)
	}
	_, dropped := v.convert(v.shown(l))
	for _, e := range l.Elements {
		switch _, known := v.runs.Element(e.ID); {
		case !known:
			lose(e.ID, v.runs.Label()+" does not have it")
		case !v.screen.Shows(e.ID):
			lose(e.ID, v.airUnit.Label()+"'s own layout does not know it")
		case slices.ContainsFunc(dropped, func(d fleet.Placed) bool { return d.ID == e.ID }):
			lose(e.ID, "no room on "+v.screen.Grid.Words())
		}
	}
	slices.SortStableFunc(list, func(a, b Loss) int { return rank(a.ID) - rank(b.ID) })
	return list
}

// shown is a layout with only what the goggles show.
func (v *view) shown(l *fleet.Layout) fleet.Layout {
	out := fleet.Layout{Grid: l.Grid, Elements: []fleet.Placed{}}
	for _, e := range l.Elements {
		if _, known := v.runs.Element(e.ID); known && v.screen.Shows(e.ID) {
			out.Elements = append(out.Elements, e)
		}
	}
	return out
}

func labels(list []Loss) string {
	words := make([]string, len(list))
	for i, l := range list {
		words[i] = l.Label
	}
	return strings.Join(words, ", ")
}
