package fleet

import (
	"slices"

	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// Wiring is how the air unit's pins reach the board, and what each serial port
// of the board is for.
type Wiring struct {
	Harness   string      `json:"harness,omitempty"`   // model of the cable
	HarnessTo string      `json:"harnessTo,omitempty"` // plug of the board it goes into; absent: soldered
	Moved     []CrimpMove `json:"moved,omitempty"`     // crimps put into other slots
	BranchTo  string      `json:"branchTo,omitempty"`  // plug of the board its branch goes into; absent: soldered
	Beside    []Beside    `json:"beside,omitempty"`    // further cables
	Wires     []Wire      `json:"wires,omitempty"`     // soldered ones, also beside a cable
	Headers
	Depth Depth  `json:"depth,omitempty"` // how far it is wired on purpose; absent: as far as it goes
	Ports []Port `json:"ports,omitempty"`
}

// Cable is how the pins of a part reach the flight board: through a harness, soldered,
// or both.
type Cable struct {
	Harness   string      `json:"harness,omitempty"`
	HarnessTo string      `json:"harnessTo,omitempty"` // plug of the board it goes into; absent: soldered
	Moved     []CrimpMove `json:"moved,omitempty"`
	BranchTo  string      `json:"branchTo,omitempty"` // plug of the board its branch goes into; absent: soldered
	Beside    []Beside    `json:"beside,omitempty"`   // further cables
	Wires     []Wire      `json:"wires,omitempty"`
	Headers
}

// Beside is a further cable at a part, beside its first: its ends that go into no plug are
// soldered, as the wires of the part say.
type Beside struct {
	Harness   string `json:"harness"`
	HarnessTo string `json:"harnessTo,omitempty"` // plug of the board it goes into; absent: soldered
	BranchTo  string `json:"branchTo,omitempty"`
}

// Headers are those soldered onto the part's row of pads, and onto the board's row that
// the cable goes into. Pins are counted on the header.
type Headers struct {
	Header      *Header `json:"header,omitempty"`
	BoardHeader *Header `json:"boardHeader,omitempty"`
}

// Header is a header on a row of pads: pin 1 on pad 1, or turned, on the last.
type Header struct {
	Model  string `json:"model"`
	Turned bool   `json:"turned,omitempty"`
}

func (h Headers) clone() Headers { return Headers{clone(h.Header), clone(h.BoardHeader)} }

// models are the headers there are.
func (h Headers) models() (list []string) {
	for _, one := range []*Header{h.Header, h.BoardHeader} {
		if one != nil {
			list = append(list, one.Model)
		}
	}
	return list
}

// Cable is how the air unit reaches the board.
func (w *Wiring) Cable() Cable {
	return Cable{w.Harness, w.HarnessTo, w.Moved, w.BranchTo, w.Beside, w.Wires, w.Headers}
}

func (c Cable) clone() Cable {
	c.Moved, c.Wires, c.Headers = slices.Clone(c.Moved), slices.Clone(c.Wires), c.Headers.clone()
	c.Beside = slices.Clone(c.Beside)
	return c
}

// Said says whether anything is said of where the wires of a part go.
func (c Cable) Said() bool {
	return c.HarnessTo != "" || c.BranchTo != "" || len(c.Wires) > 0 ||
		slices.ContainsFunc(c.Beside, func(b Beside) bool { return b.HarnessTo != "" || b.BranchTo != "" })
}

// Harnesses are the models of all cables of a part, the first before those beside it.
func (c Cable) Harnesses() (list []string) {
	if c.Harness != "" {
		list = append(list, c.Harness)
	}
	for _, b := range c.Beside {
		list = append(list, b.Harness)
	}
	return list
}

// PlacedPart is a wired part on a quad, under an id of its own.
type PlacedPart struct {
	ID    string `json:"id"`
	Model string `json:"model"`
	Cable
}

// Part looks up a placed part.
func (f *Fit) Part(id string) (*PlacedPart, bool) {
	for i := range f.Parts {
		if f.Parts[i].ID == id {
			return &f.Parts[i], true
		}
	}
	return nil, false
}

func cloneParts(list []PlacedPart) []PlacedPart {
	list = slices.Clone(list)
	for i := range list {
		list[i].Cable = list[i].Cable.clone()
	}
	return list
}

// Depth is how far an air unit is wired, on purpose.
type Depth string

// The depths (common practice).
const (
	PictureOnly    Depth = "picture" // supply and ground
	PictureAndData Depth = "data"    // and the UART pair
	WithSticks     Depth = "sticks"  // and the RC pair
)

// Wire is a wire soldered from a pin of a part, counted from 1, to a
// terminal of the board: "ground", "tx4", "rx4", the id of a power pad or a signal.
// Colour, gauge and length are those of the harness where one is named.
type Wire struct {
	Pin    int               `json:"pin"`
	To     string            `json:"to"`
	Colour string            `json:"colour,omitempty"`
	AWG    *wire.Gauge       `json:"awg,omitempty"`
	MM     *unit.Millimetres `json:"mm,omitempty"`
}

// End is an end of a harness.
type End string

// The ends.
const (
	UnitEnd  End = "unit"
	BoardEnd End = "board"
)

// CrimpMove is a crimp lifted out of one slot and put into another; to 0 it is
// pulled and insulated.
type CrimpMove struct {
	End  End `json:"end"`
	From int `json:"from"`
	To   int `json:"to"`
}

// Use is what a serial port is for.
type Use string

// The uses.
const (
	UseMSP        Use = "msp"         // OSD and tuning, to the air unit
	UseRC         Use = "rc"          // the sticks from the air unit
	UseReceiver   Use = "receiver"    // the sticks from a separate receiver
	UseGPS        Use = "gps"         //
	UseTelemetry  Use = "telemetry"   // from the ESCs
	UseVTXControl Use = "vtx-control" // to an analog transmitter
	UseOther      Use = "other"
)

// Port is a serial port of the board with its use.
type Port struct {
	UART int `json:"uart"`
	Use  Use `json:"use"`
}

// Noted are the ports with their uses, each once: what is noted twice is noted. It is not
// to be written to.
func (w *Wiring) Noted() []Port {
	for i, p := range w.Ports {
		if slices.Contains(w.Ports[:i], p) {
			return w.notedOnce()
		}
	}
	return w.Ports
}

func (w *Wiring) notedOnce() (list []Port) {
	for _, p := range w.Ports {
		if !slices.Contains(list, p) {
			list = append(list, p)
		}
	}
	return list
}

// PortOf is the port with a use; false where there is none.
func (w *Wiring) PortOf(use Use) (int, bool) {
	for _, p := range w.Ports {
		if p.Use == use {
			return p.UART, true
		}
	}
	return 0, false
}

func (w Wiring) clone() Wiring {
	w.Moved, w.Wires, w.Ports = slices.Clone(w.Moved), slices.Clone(w.Wires), slices.Clone(w.Ports)
	w.Headers, w.Beside = w.Headers.clone(), slices.Clone(w.Beside)
	return w
}

// Wired is the wires of a harness with the crimps put into other slots, all moves at
// once: a crimp is known by the slot it came in. A wire whose end is in slot 0 is
// pulled there.
func (c *Cable) Wired(h *gear.Harness) []gear.HarnessWire {
	out := slices.Clone(h.Wires)
	for i := range out {
		for _, m := range c.Moved {
			if m.End == UnitEnd && h.Wires[i].From == m.From {
				out[i].From = m.To
			}
			if m.End == BoardEnd && h.Wires[i].To == m.From {
				out[i].To = m.To
			}
		}
	}
	return out
}

// Wired is the wires of the air unit's harness, with the moved crimps where they are.
func (w *Wiring) Wired(h *gear.Harness) []gear.HarnessWire { return new(w.Cable()).Wired(h) }
