package setup

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Of is a board set up as a fit says: what a stand-in for that quad starts as. It
// is false where the fit does not say what the board runs.
func Of(c fleet.Case) (State, bool) {
	blank, ok := Factory(c)
	if !ok {
		return State{}, false
	}
	runs, _ := gear.Find[*gear.FlightFirmware](c.Library, c.Fit.Runs.ID)
	comparison := Compare(c, blank)
	s := comparison.Target
	if on := c.Fit.Features; on != nil && c.FitName == fleet.FitNow {
		s.Features = bitsOf(runs, on)
	}
	if l := c.Fit.OSD; l != nil {
		if columns, _, ok := l.Grid.Size(); ok && columns > 30 {
			s.Canvas = l.Grid // the analog grids need none
		}
		for at, cell := range places(runs, l) {
			s.OSD[at] = cell
		}
	}
	return s, true
}

// Factory is a board as it comes, with the flight firmware of a fit: no port has a
// function, no mode a switch. It is false where the fit does not say what it runs.
func Factory(c fleet.Case) (State, bool) {
	r := c.Fit.Runs
	board, hasBoard := c.Board()
	if r == nil || !hasBoard {
		return State{}, false
	}
	runs, ok := gear.Find[*gear.FlightFirmware](c.Library, r.ID)
	if !ok {
		return State{}, false
	}
	blank := State{
		Variant: runs.Variant,
		Version: r.Version,
		Board:   c.Fit.Board,
		Name:    c.Quad.Label(),
		RXMap:   "AETR",
		Ports:   []Port{},
		Modes:   []Range{},
		OSD:     []Cell{},
	}
	for _, u := range board.UARTs {
		blank.Ports = append(blank.Ports, Port{ID: u.ID - 1, Rest: []byte{mspBaud, mspBaud, 0, mspBaud}}) // as boards come
	}
	for i := range runs.Elements {
		if at := runs.Elements[i].Index; at != nil && *at >= len(blank.OSD) {
			blank.OSD = append(blank.OSD, make([]Cell, *at+1-len(blank.OSD))...)
		}
	}
	if n, ok := runs.Features[gear.FeatureOSD]; ok {
		blank.Features = 1 << n
	}
	return blank, true
}
