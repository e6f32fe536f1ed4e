package setup

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/osd"
	"yokeswap/core/pins"
	"yokeswap/core/verdict"
)

// The findings of a board that was read.
const (
	CodeIdentity verdict.Code = "board.identity"
	CodeArmed    verdict.Code = "board.armed"
	CodeRelease  verdict.Code = "board.release"
	CodePort     verdict.Code = "board.port"
	CodeFeature  verdict.Code = "board.feature"
	CodeReceiver verdict.Code = "board.receiver"
	CodeModes    verdict.Code = "board.modes"
	CodeCanvas   verdict.Code = "board.canvas"
	CodeLayout   verdict.Code = "board.layout"
)

const practice = "common practice"

// Row is one setting, as it is wanted and as it was found.
type Row struct {
	Code    verdict.Code     `json:"code"`
	Label   string           `json:"label"`
	Wanted  string           `json:"wanted"`
	Found   string           `json:"found"`
	Same    bool             `json:"same"`
	Why     string           `json:"why"`
	Finding *verdict.Finding `json:"finding,omitempty"` // where they differ
}

// Comparison holds a board against a plan.
type Comparison struct {
	Says string `json:"says"`
	Rows []Row  `json:"rows"`
	// Blocked says why nothing may be written; empty: it may.
	Blocked string `json:"blocked,omitempty"`
	// Missing is what the plan does not say.
	Missing []verdict.Missing `json:"missing,omitempty"`
	// Target is the board as it is to be: as found, with the settings wanted.
	Target State `json:"-"`
}

// Differences counts the rows that differ.
func (c *Comparison) Differences() (n int) {
	for i := range c.Rows {
		if !c.Rows[i].Same {
			n++
		}
	}
	return n
}

// comparing is a comparison under way.
type comparing struct {
	fleet.Case
	runs *gear.FlightFirmware
	Comparison
	found State
}

// Compare holds what was read off a board against the plan of a quad.
func Compare(c fleet.Case, found State) Comparison {
	w := &comparing{Case: c, found: found}
	w.Rows, w.Target = []Row{}, found.Clone()
	if r := c.Fit.Runs; r != nil {
		w.runs, _ = gear.Find[*gear.FlightFirmware](c.Library, r.ID)
	}
	if w.runs == nil {
		w.Missing = append(w.Missing, verdict.Missing{Of: "quad", ID: c.Quad.ID, Field: c.FitName + ".runs", Label: "flight firmware of " + c.Quad.Label()})
		w.Blocked = "The plan does not say which flight firmware this is: nothing is written."
	} else {
		w.identity()
		w.ports()
		w.features()
		w.receiver()
		w.modes()
		w.layout()
	}
	switch n := w.Differences(); {
	case w.Blocked != "":
		w.Says = w.Blocked
	case n == 0:
		w.Says = "The board is set up as planned."
	case n == 1:
		w.Says = "One setting differs from the plan."
	default:
		w.Says = fmt.Sprintf("%d settings differ from the plan.", n)
	}
	return w.Comparison
}

// row adds a setting; change says what to set where it differs.
func (w *comparing) row(gate verdict.Gate, code verdict.Code, label, wanted, found, why, change string) {
	r := Row{Code: code, Label: label, Wanted: wanted, Found: found, Same: wanted == found, Why: why}
	if !r.Same {
		r.Finding = &verdict.Finding{Gate: gate, Code: code, Level: verdict.Change, Subject: w.Quad.Label(), Source: practice,
			Says:     fmt.Sprintf("%s: %s.", label, change),
			Compares: []verdict.Compare{{What: label, Needed: wanted, There: found}}}
	}
	w.Rows = append(w.Rows, r)
}

// identity asks whether this is the board of the plan at all. A board that is armed,
// or that runs something else, is not written.
func (w *comparing) identity() {
	w.row(verdict.OSD, CodeIdentity, "flight firmware", w.runs.Variant, w.found.Variant, "the numbers of another firmware mean other things", "another board, or flash "+w.runs.Label()+" first")
	if w.runs.Variant == "" || w.runs.Variant != w.found.Variant {
		w.Blocked = fmt.Sprintf("This board says it runs %q, the plan is for %s (%q): nothing is written.", w.found.Variant, w.runs.Label(), w.runs.Variant)
	}
	if wanted := w.Fit.Runs.Version; wanted.Known() {
		found := string(w.found.Version)
		if wanted.Compare(w.found.Version) == 0 {
			found = string(wanted)
		}
		w.row(verdict.OSD, CodeRelease, "its release", string(wanted), found, "the plan was judged for it", "flash "+string(wanted)+", or plan with what is there")
	}
	if w.found.Armed {
		w.Blocked = "The board is armed: disarm it, take the pack and the props off. Nothing is written."
		w.row(verdict.Control, CodeArmed, "armed", "no", "yes", "what is armed can start", "disarm it")
	}
}

// function is the bit of a port function; false where the firmware has none.
func (w *comparing) function(name string) (uint32, bool) {
	n, ok := w.runs.Functions[name]
	return 1 << n, ok
}

// words names the functions of a port.
func (w *comparing) words(functions uint32) string {
	var words []string
	known := uint32(0)
	for _, name := range slices.Sorted(maps.Keys(w.runs.Functions)) {
		bit := uint32(1) << w.runs.Functions[name]
		known |= bit
		if functions&bit != 0 {
			words = append(words, name)
		}
	}
	if functions&^known != 0 {
		words = append(words, "something else")
	}
	if len(words) == 0 {
		return "nothing"
	}
	return strings.Join(words, " + ")
}

// msp is the functions wanted on the port of the air unit: a superset's own for
// digital goggles, else MSP, with the canvas where the goggles show one.
func (w *comparing) msp() uint32 {
	if digital, ok := w.function(gear.FunctionDigital); ok {
		return digital
	}
	functions, _ := w.function(gear.FunctionMSP)
	if canvas, ok := w.function(gear.FunctionCanvas); ok && osd.Draw(w.Case).Screen.Canvas {
		functions |= canvas
	}
	return functions
}

// ports sets what each serial port carries, the ports of the plan first; a function
// that has moved is taken off the port it was on.
func (w *comparing) ports() {
	set := func(uart int, wanted uint32, why string) {
		p := w.Target.port(uart)
		if p == nil {
			w.Rows = append(w.Rows, Row{Code: CodePort, Label: fmt.Sprintf("UART %d", uart), Wanted: w.words(wanted), Found: "the board lists no such port", Why: why,
				Finding: &verdict.Finding{Gate: verdict.OSD, Code: CodePort, Level: verdict.Unfit, Subject: w.Quad.Label(), Source: practice, Says: fmt.Sprintf("The board lists no UART %d: is it the board of the plan?", uart)}})
			return
		}
		w.row(verdict.OSD, CodePort, fmt.Sprintf("UART %d", uart), w.words(wanted), w.words(p.Functions), why, "set it to "+w.words(wanted))
		p.Functions = wanted
	}
	planned := map[int]bool{}
	if _, _, hasUnit := w.AirUnit(); hasUnit {
		if uart, ok := pins.MSPPort(w.Case); ok {
			planned[uart] = true
			set(uart, w.msp(), "the air unit's UART is wired to it")
			w.baud(uart)
		}
	}
	if uart, ok := pins.SticksPort(w.Case); ok {
		planned[uart] = true
		rc, _ := w.function(gear.FunctionRC)
		set(uart, rc, "the sticks come in on it")
	}
	names := map[fleet.Use]string{fleet.UseGPS: gear.FunctionGPS, fleet.UseTelemetry: gear.FunctionTelemetry}
	if _, _, hasUnit := w.AirUnit(); !hasUnit {
		names[fleet.UseVTXControl] = gear.FunctionVTX
	}
	for _, p := range w.Fit.Ports {
		if bit, ok := w.function(names[p.Use]); ok && names[p.Use] != "" && !planned[p.UART] {
			planned[p.UART] = true
			set(p.UART, bit, "as the plan has it")
		}
	}
	for i := range w.Target.Ports {
		p := &w.Target.Ports[i]
		if stray := p.Functions & w.single(); !planned[p.ID+1] && stray != 0 {
			set(p.ID+1, p.Functions&^stray, "only one port may carry it, and it is on another now")
		}
	}
}

// bauds are the rates a port's settings count through, in baud (the protocol's
// public description, from memory); the first byte of the rest is that of MSP.
var bauds = []string{"automatic", "9600", "19200", "38400", "57600", "115200", "230400", "250000"}

// mspBaud is the place of 115200 in them: what air units speak (common practice).
const mspBaud = 5

func (w *comparing) baud(uart int) {
	p := w.Target.port(uart)
	if p == nil || len(p.Rest) == 0 {
		return
	}
	found := "another"
	if int(p.Rest[0]) < len(bauds) {
		found = bauds[p.Rest[0]]
	}
	w.row(verdict.OSD, CodePort, fmt.Sprintf("UART %d, baud", uart), bauds[mspBaud], found, "what air units speak", "set it to "+bauds[mspBaud])
	p.Rest[0] = mspBaud
}

// single is the functions that only one port can have, and that the plan has put
// elsewhere; the analog transmitter's control goes with it.
func (w *comparing) single() (functions uint32) {
	names := []string{gear.FunctionRC, gear.FunctionCanvas, gear.FunctionDigital}
	if _, _, hasUnit := w.AirUnit(); hasUnit {
		names = append(names, gear.FunctionVTX)
	}
	for _, name := range names {
		if bit, ok := w.function(name); ok {
			functions |= bit
		}
	}
	return functions
}

func onOff(on bool) string {
	if on {
		return "on"
	}
	return "off"
}

// features switches on what the plan takes. The OSD feature stays on although the
// board's own chip draws nothing: it is what makes the board send.
func (w *comparing) features() {
	set := func(name, why string) {
		n, ok := w.runs.Features[name]
		if !ok {
			return
		}
		bit := uint32(1) << n
		w.row(verdict.OSD, CodeFeature, "feature "+name, "on", onOff(w.found.Features&bit != 0), why, "switch it on")
		w.Target.Features |= bit
	}
	if _, _, hasUnit := w.AirUnit(); hasUnit {
		set(gear.FeatureOSD, "it makes the board send, though its own chip draws nothing")
	}
	set(gear.FeatureRXSerial, "the sticks come in on a serial port")
	if w.runs.NeedsTelemetry != nil && *w.runs.NeedsTelemetry {
		set(gear.FeatureTelemetry, w.runs.Label()+" only sends back with it")
	}
}

// receiver sets the protocol of the sticks and the channel order.
func (w *comparing) receiver() {
	if name, ok := protocol(w.Case, w.runs); ok {
		number := w.runs.Providers[name]
		found := fmt.Sprintf("number %d", w.found.Provider)
		for other, n := range w.runs.Providers {
			if n == w.found.Provider {
				found = other
			}
		}
		w.row(verdict.Control, CodeReceiver, "receiver protocol", name, found, "what the sticks come as", "set it to "+name)
		w.Target.Provider = number
	}
	if s := w.Fit.Sticks; s != nil && s.Order != "" {
		w.row(verdict.Control, CodeReceiver, "channel order", s.Order, w.found.RXMap, "the order the controller sends", "set it to "+s.Order)
		w.Target.RXMap = s.Order
	}
}

// protocol is what the board is to read the sticks as.
func protocol(c fleet.Case, runs *gear.FlightFirmware) (string, bool) {
	var names []string
	if r, ok := gear.Find[*gear.Receiver](c.Library, c.Fit.Receiver); ok {
		names = r.Protocols
	} else if unit, _, ok := c.AirUnit(); ok && unit.RCOut != nil {
		names = []string{unit.RCOut.Protocol}
	}
	for _, name := range names {
		if _, reads := runs.Providers[name]; reads {
			return name, true
		}
	}
	return "", false
}

// modes sets the switches. Modes the plan does not speak of stay as they are.
func (w *comparing) modes() {
	if w.Fit.Sticks == nil {
		return
	}
	number := map[string]int{}
	planned := map[int][]fleet.Switch{}
	var order []string
	for _, s := range w.Fit.Sticks.Switches {
		n, ok := w.runs.Modes[s.Mode]
		if !ok {
			continue
		}
		if _, seen := number[s.Mode]; !seen {
			order = append(order, s.Mode)
		}
		number[s.Mode] = n
		planned[n] = append(planned[n], s)
	}
	kept := slices.DeleteFunc(slices.Clone(w.found.Modes), func(r Range) bool { return len(planned[r.Mode]) > 0 })
	for _, mode := range order {
		n := number[mode]
		var wanted, found []string
		for _, s := range planned[n] {
			r := Range{Mode: n, Aux: s.Aux - 1, FromUS: steps(s.FromUS), ToUS: steps(s.ToUS)}
			wanted = append(wanted, r.words())
			kept = append(kept, r)
		}
		for _, r := range w.found.Modes {
			if r.Mode == n {
				found = append(found, r.words())
			}
		}
		slices.Sort(wanted)
		slices.Sort(found)
		there := strings.Join(found, ", ")
		if there == "" {
			there = "on no switch"
		}
		w.row(verdict.Control, CodeModes, "mode "+strings.ReplaceAll(mode, "-", " "), strings.Join(wanted, ", "), there, "as the plan has it", "put it on "+strings.Join(wanted, ", "))
	}
	w.Target.Modes = kept
}

// steps is the nearest end of a range a board can hold: they go in steps of 25 µs
// from 900 to 2100 (the protocol's public description, from memory).
func steps(us int) int { return min(max((us-900+12)/25, 0), 48)*25 + 900 }

func (r Range) words() string { return fmt.Sprintf("AUX %d, %d to %d µs", r.Aux+1, r.FromUS, r.ToUS) }

// layout sets the canvas and where each element stands.
func (w *comparing) layout() {
	pic := osd.Draw(w.Case)
	if w.Fit.OSD == nil || pic.After == nil {
		return
	}
	if pic.Screen.Canvas && w.runs.Dialect != "" {
		w.row(verdict.OSD, CodeCanvas, "canvas", pic.Screen.Grid.Words(), canvasWords(w.found.Canvas), "the grid the goggles show", "set it to "+pic.Screen.Grid.Words())
		w.Target.Canvas = pic.Screen.Grid
	}
	places := places(w.runs, w.Fit.OSD)
	wrong, extra := []string{}, []string{}
	for i := range w.runs.Elements {
		e := &w.runs.Elements[i]
		if e.Index == nil || *e.Index >= len(w.found.OSD) {
			continue
		}
		wanted, shown := places[*e.Index]
		found := w.found.OSD[*e.Index]
		if !shown {
			wanted = Cell{found.X, found.Y, 0}
		}
		switch {
		case wanted == found:
		case shown:
			wrong = append(wrong, e.Label())
		default:
			extra = append(extra, e.Label())
		}
		w.Target.OSD[*e.Index] = wanted
	}
	var words []string
	if len(wrong) > 0 {
		words = append(words, "elsewhere or not shown: "+strings.Join(wrong, ", "))
	}
	if len(extra) > 0 {
		words = append(words, "shown and not planned: "+strings.Join(extra, ", "))
	}
	found := "as planned"
	if len(words) > 0 {
		found = strings.Join(words, "; ")
	}
	w.row(verdict.OSD, CodeLayout, "OSD elements", "as planned", found, fmt.Sprintf("%d are placed", len(places)), "place them as planned")
}

// places is where the elements of a layout stand, by their place in the board's list.
func places(runs *gear.FlightFirmware, l *fleet.Layout) map[int]Cell {
	at := map[int]Cell{}
	for _, e := range l.Elements {
		if el, ok := runs.Element(e.ID); ok && el.Index != nil {
			at[*el.Index] = Cell{e.X, e.Y, bits(e)}
		}
	}
	return at
}

// Of is a board set up as a fit says: what a stand-in for that quad starts as. It
// is false where the fit does not say what the board runs.
func Of(c fleet.Case) (State, bool) {
	r := c.Fit.Runs
	board, hasBoard := gear.Find[*gear.Board](c.Library, c.Fit.Board)
	if r == nil || !hasBoard {
		return State{}, false
	}
	runs, ok := gear.Find[*gear.FlightFirmware](c.Library, r.ID)
	if !ok {
		return State{}, false
	}
	blank := State{Variant: runs.Variant, Version: r.Version, Board: c.Fit.Board, Name: c.Quad.Label(), RXMap: "AETR", Ports: []Port{}, Modes: []Range{}, OSD: []Cell{}}
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
	comparison := Compare(c, blank)
	s := comparison.Target
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

func canvasWords(g gear.Grid) string {
	if g == "" {
		return "none"
	}
	return g.Words()
}

func bits(e fleet.Placed) uint8 {
	if len(e.Profiles) == 0 {
		return 1
	}
	var set uint8
	for _, p := range e.Profiles {
		set |= 1 << (p - 1)
	}
	return set
}

// Difference is a setting that two states do not share.
type Difference struct {
	Label string `json:"label"`
	A     string `json:"a"`
	B     string `json:"b"`
}

// Between compares two snapshots.
func Between(a, b State, runs *gear.FlightFirmware) []Difference {
	w := &comparing{runs: runs}
	list := []Difference{}
	add := func(label, x, y string) {
		if x != y {
			list = append(list, Difference{label, x, y})
		}
	}
	add("flight firmware", a.Variant+" "+string(a.Version), b.Variant+" "+string(b.Version))
	for _, p := range a.Ports {
		if q := b.port(p.ID + 1); q != nil {
			add(fmt.Sprintf("UART %d", p.ID+1), w.words(p.Functions), w.words(q.Functions))
		}
	}
	for _, name := range slices.Sorted(maps.Keys(runs.Features)) {
		bit := uint32(1) << runs.Features[name]
		add("feature "+name, onOff(a.Features&bit != 0), onOff(b.Features&bit != 0))
	}
	add("receiver protocol", fmt.Sprint(a.Provider), fmt.Sprint(b.Provider))
	add("channel order", a.RXMap, b.RXMap)
	add("canvas", canvasWords(a.Canvas), canvasWords(b.Canvas))
	modes := func(s State, n int) string {
		var words []string
		for _, r := range s.Modes {
			if r.Mode == n {
				words = append(words, r.words())
			}
		}
		return strings.Join(words, ", ")
	}
	for _, name := range slices.Sorted(maps.Keys(runs.Modes)) {
		add("mode "+name, modes(a, runs.Modes[name]), modes(b, runs.Modes[name]))
	}
	for i := range runs.Elements {
		e := &runs.Elements[i]
		if e.Index == nil || *e.Index >= len(a.OSD) || *e.Index >= len(b.OSD) {
			continue
		}
		cell := func(c Cell) string {
			if c.Profiles == 0 {
				return "not shown"
			}
			return fmt.Sprintf("column %d, row %d", c.X+1, c.Y+1)
		}
		add(e.Label(), cell(a.OSD[*e.Index]), cell(b.OSD[*e.Index]))
	}
	return list
}
