package setup

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/osd"
	"yokeswap/core/gates/pins"
)

// function is the bit of a port function; false where the firmware has none.
func (w *comparing) function(name string) (uint32, bool) {
	n, ok := w.runs.Functions[name]
	if !ok {
		return 0, false
	}
	return 1 << n, true
}

// needed is a function the plan asks for; one whose number nobody has stated is named, and
// its port is left as it is.
func (w *comparing) needed(name string) (uint32, bool) {
	bit, ok := w.function(name)
	if !ok {
		w.Missing = append(w.Missing,
			verdict.GearValue(&w.runs.Entry, "functions", "number of the port function "+name+" of "+w.runs.Label()))
	}
	return bit, ok
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

// toUnit is the functions wanted on the port of the air unit: that of the compatibility
// mode it takes, MAVLink where that is what both speak, a superset's own for digital
// goggles, else MSP, with the canvas where the goggles show one. False: nobody has stated
// its number.
func (w *comparing) toUnit() (uint32, bool) {
	switch dialect, mode := osd.Speaks(w.Case); {
	case mode != nil:
		return w.needed(gear.FunctionCompat)
	case dialect == gear.MAVLink:
		return w.needed(gear.FunctionMAVLink)
	}
	if digital, ok := w.function(gear.FunctionDigital); ok {
		return digital, true
	}
	functions, ok := w.needed(gear.FunctionMSP)
	if canvas, has := w.function(gear.FunctionCanvas); has && osd.Draw(w.Case).Screen.Canvas {
		functions |= canvas
	}
	return functions, ok
}

// ports sets what each serial port carries, the ports of the plan first; a function
// that has moved is taken off the port it was on.
func (w *comparing) ports() {
	planned := map[int]bool{}
	if _, _, hasUnit := w.AirUnit(); hasUnit {
		if uart, ok := pins.MSPPort(w.Case); ok {
			planned[uart] = true
			if functions, known := w.toUnit(); known {
				w.carry(CodePort, uart, functions, "the air unit's UART is wired to it")
				w.baud(uart, functions)
			}
		}
	}
	if uart, ok := pins.SticksPort(w.Case); ok && uart > 0 {
		planned[uart] = true
		if rc, known := w.needed(gear.FunctionRC); known {
			w.carry(CodeSticksPort, uart, rc, "the sticks come in on it")
		}
	}
	names := map[fleet.Use]string{fleet.UseGPS: gear.FunctionGPS, fleet.UseTelemetry: gear.FunctionTelemetry}
	if _, _, hasUnit := w.AirUnit(); !hasUnit {
		names[fleet.UseVTXControl] = gear.FunctionVTX
	}
	for _, p := range pins.Uses(w.Case) {
		if bit, ok := w.function(names[p.Use]); ok && names[p.Use] != "" && !planned[p.UART] {
			planned[p.UART] = true
			w.carry(CodeOtherPort, p.UART, bit, "as the plan has it")
		}
	}
	for i := range w.Target.Ports {
		p := &w.Target.Ports[i]
		if stray := p.Functions & w.single(); !planned[p.ID+1] && stray != 0 {
			w.carry(CodeOtherPort, p.ID+1, p.Functions&^stray, "only one port may carry it, and it is on another now")
		}
	}
}

// carry sets what a serial port carries.
func (w *comparing) carry(code verdict.Code, uart int, wanted uint32, why string) {
	p := w.Target.port(uart)
	if p == nil {
		w.Rows = append(w.Rows, Row{
			Code:   code,
			Label:  fmt.Sprintf("UART %d", uart),
			Wanted: w.words(wanted),
			Found:  "the board lists no such port",
			Why:    why,
			Finding: &verdict.Finding{
				Gate:    verdict.OSD,
				Code:    code,
				Level:   verdict.Unfit,
				Subject: w.Quad.Label(),
				Source:  verdict.Practice,
				Says:    fmt.Sprintf("The board lists no UART %d: is it the board of the plan?", uart),
			},
		})
		return
	}
	w.row(verdict.OSD, code, fmt.Sprintf("UART %d", uart), w.words(wanted), w.words(p.Functions), why,
		"set it to "+w.words(wanted))
	p.Functions = wanted
}

// bauds are the rates a port's settings count through, in baud (the protocol's
// public description, from memory); the first byte of the rest is that of MSP.
var bauds = []string{"automatic", "9600", "19200", "38400", "57600", "115200", "230400", "250000"}

// mspBaud is the place of 115200 in them: what air units speak (common practice).
const mspBaud = 5

// baud sets the rate of a port that carries MSP; that of MAVLink is another setting.
func (w *comparing) baud(uart int, functions uint32) {
	mavlink, _ := w.function(gear.FunctionMAVLink)
	p := w.Target.port(uart)
	if p == nil || len(p.Rest) == 0 || functions&mavlink != 0 {
		return
	}
	found := "another"
	if int(p.Rest[0]) < len(bauds) {
		found = bauds[p.Rest[0]]
	}
	w.row(verdict.OSD, CodePort, fmt.Sprintf("UART %d, baud", uart), bauds[mspBaud], found,
		"what air units speak", "set it to "+bauds[mspBaud])
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
