package gear

import (
	"strconv"
	"strings"

	"yokeswap/core/facts/firmware"
)

// Dialect is what flight firmware speaks on the line to the air unit, and what units
// understand.
type Dialect string

// The dialects. A superset of MSP adds messages that some units misread: such firmware has
// a port function of its own for digital goggles. Some firmware speaks MAVLink instead, on
// the same wires: a unit that takes it draws its own layout from it, and the goggles' menu
// changes no tuning (common practice).
const (
	Common   Dialect = "common"
	Superset Dialect = "superset"
	MAVLink  Dialect = "mavlink"
)

// Words is the dialect as people say it.
func (d Dialect) Words() string {
	switch d {
	case Superset:
		return "superset MSP"
	case MAVLink:
		return "MAVLink"
	}
	return "common MSP"
}

// SpeaksAs is a compatibility mode of flight firmware: a setting of the port that makes it
// speak another dialect than its own.
type SpeaksAs struct {
	Dialect  Dialect        `json:"dialect"`
	Name     string         `json:"name,omitempty"` // what the setting is called
	Firmware firmware.Range `json:"firmware"`       // releases that have it
	Canvas   *bool          `json:"canvas,omitempty"`
}

// Label is what the setting is called.
func (s *SpeaksAs) Label() string {
	if s.Name != "" {
		return s.Name
	}
	return "compatibility mode"
}

// The functions of a serial port and the features that the gates know.
const (
	FunctionMSP       = "msp"
	FunctionCanvas    = "displayport" // the DisplayPort canvas on the same port
	FunctionDigital   = "digital"     // a superset's own function for digital goggles
	FunctionMAVLink   = "mavlink"
	FunctionCompat    = "compatibility" // its compatibility mode
	FunctionRC        = "rc"
	FunctionTelemetry = "esc-telemetry"
	FunctionGPS       = "gps"
	FunctionVTX       = "vtx-control"

	FeatureOSD       = "osd"
	FeatureRXSerial  = "rx-serial"
	FeatureTelemetry = "telemetry"
)

// FlightFirmware is what a flight board runs. The numbers it uses over MSP are
// data: another firmware needs no other program.
type FlightFirmware struct {
	Entry
	Variant string  `json:"variant,omitempty"` // what it calls itself over MSP: four letters
	Dialect Dialect `json:"dialect,omitempty"`
	// SpeaksAs are its compatibility modes.
	SpeaksAs []SpeaksAs `json:"speaksAs,omitempty"`
	// CanvasFrom is the first release that draws a canvas.
	CanvasFrom firmware.Version `json:"canvasFrom,omitempty"`
	Avoid      []VersionAdvice  `json:"avoid,omitempty"`
	// Functions are the bits of a serial port's functions, Features those of the
	// features, Providers and Modes the numbers of receiver protocols and of modes.
	Functions map[string]int `json:"functions,omitempty"`
	Features  map[string]int `json:"features,omitempty"`
	Providers map[string]int `json:"providers,omitempty"`
	Modes     map[string]int `json:"modes,omitempty"`
	// NeedsTelemetry: the sticks' link only sends back with the telemetry feature.
	NeedsTelemetry *bool        `json:"needsTelemetry,omitempty"`
	Elements       []OSDElement `json:"elements,omitempty"`
	// Text is how it writes its settings; absent: not known.
	Text *SettingsText `json:"text,omitempty"`
}

// VersionAdvice warns of releases.
type VersionAdvice struct {
	Firmware firmware.Range `json:"firmware"`
	Why      string         `json:"why"`
}

// OSDElement is something a flight board can show on screen.
type OSDElement struct {
	ID    string `json:"id"`
	Name  string `json:"name,omitempty"`
	Index *int   `json:"index,omitempty"` // its place in the board's list
	// Width and Height are the cells it takes; absent: one row, and as wide as Shows.
	Width   *int     `json:"width,omitempty"`
	Height  *int     `json:"height,omitempty"`
	Shows   string   `json:"shows,omitempty"`   // a sample, as it looks
	Instead []string `json:"instead,omitempty"` // what tells nearly the same, the nearest first
	Within  []string `json:"within,omitempty"`  // elements it is meant to lie in
}

// quadName stands in a sample for the name of the quad.
const quadName = "{quad}"

// Sample is how the element looks on a quad of some name; {quad} in it is that name, as
// much of it as has room.
func (e *OSDElement) Sample(quad string) string {
	name := []rune(strings.ToUpper(quad))
	if e.Width != nil && len(name) > *e.Width {
		name = name[:*e.Width]
	}
	return strings.ReplaceAll(e.Shows, quadName, string(name))
}

// Label is the element's name, or its id.
func (e *OSDElement) Label() string {
	if e.Name != "" {
		return e.Name
	}
	return e.ID
}

// Size is how many cells the element takes.
func (e *OSDElement) Size() (width, height int) {
	width, height = max(1, len([]rune(e.Shows))), 1
	if e.Width != nil {
		width = *e.Width
	}
	if e.Height != nil {
		height = *e.Height
	}
	return width, height
}

// Element looks up an element by its id.
func (f *FlightFirmware) Element(id string) (*OSDElement, bool) {
	for i := range f.Elements {
		if f.Elements[i].ID == id {
			return &f.Elements[i], true
		}
	}
	return nil, false
}

// Advice is what warns of a release; nil where nothing does.
func (f *FlightFirmware) Advice(v firmware.Version) *VersionAdvice {
	for i := range f.Avoid {
		if v.Known() && f.Avoid[i].Firmware.Holds(v) {
			return &f.Avoid[i]
		}
	}
	return nil
}

// Kind of a flight firmware.
func (*FlightFirmware) Kind() Kind { return KindFlightFirmware }

// Grid is a grid of characters, columns first: "53x20".
type Grid string

// Size is the grid's columns and rows; false where it is none.
func (g Grid) Size() (columns, rows int, ok bool) {
	c, r, found := strings.Cut(string(g), "x")
	columns, err1 := strconv.Atoi(c)
	rows, err2 := strconv.Atoi(r)
	return columns, rows, found && err1 == nil && err2 == nil && columns > 0 && rows > 0
}

// Words is the grid as people say it: "53×20".
func (g Grid) Words() string { return strings.Replace(string(g), "x", "×", 1) }

// UnitOSD is what an air unit shows of a flight board.
type UnitOSD struct {
	Dialects []Dialect `json:"dialects,omitempty"`
	// Canvas says from which of its firmware on it shows a canvas; absent: not
	// stated. Grid is the canvas's.
	Canvas firmware.Range `json:"canvas,omitempty"`
	Grid   Grid           `json:"grid,omitempty"`
	// BuiltIn lists the elements its own layout knows, where there is no canvas.
	BuiltIn []string `json:"builtIn,omitempty"`
}
