package gear

import (
	"strconv"
	"strings"

	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// The functions of an air unit's pins.
const (
	PinSupply   = "supply"
	PinGround   = "ground"
	PinUARTRX   = "uart-rx"
	PinUARTTX   = "uart-tx"
	PinRCGround = "rc-ground"
	PinRCOut    = "rc-out"
)

// UnitPins lists the functions an air unit's pin can have; an empty one is a
// slot with nothing in it.
var UnitPins = []string{PinSupply, PinGround, PinUARTRX, PinUARTTX, PinRCGround, PinRCOut}

// Plug is a row of pins as seen from the mating side, pin 1 first, or a row of
// solder pads.
//
// On an air unit a pin is one of UnitPins. On a board it is "ground", "tx" or
// "rx" with the number of a UART ("tx4"), the id of a power pad, or one of Signals.
type Plug struct {
	ID        string            `json:"id,omitempty"` // of a board's plug
	Name      string            `json:"name,omitempty"`
	Connector string            `json:"connector,omitempty"` // absent: not stated, unless None says there is none
	PitchMM   *unit.Millimetres `json:"pitchMM,omitempty"`   // of solder pads in a row: with it, they are pads
	Pins      []string          `json:"pins"`
	Nones                       // "connector": solder pads
}

// Pads says whether the row is stated to be solder pads: it says it has no connector,
// or how far its pads are apart.
func (p *Plug) Pads() bool {
	return p.Connector == "" && (p.PitchMM != nil || p.Without("connector"))
}

// Label is the plug's name, or its id.
func (p *Plug) Label() string {
	if p.Name != "" {
		return p.Name
	}
	return p.ID
}

// Pin is the function of a pin, counted from 1; empty where there is none.
func (p *Plug) Pin(n int) string {
	if n < 1 || n > len(p.Pins) {
		return ""
	}
	return p.Pins[n-1]
}

// RCOut is the output on which an air unit hands on the sticks.
type RCOut struct {
	Inverted *bool    `json:"inverted,omitempty"`
	Variants []string `json:"variants,omitempty"` // "normal", "fast", "low-latency"
	// Protocol is what it speaks, as the flight firmware names its providers.
	Protocol string `json:"protocol,omitempty"`
	// LatencyMS is how late the sticks come, by variant: normal, fast, low-latency.
	// What is not listed is not stated.
	LatencyMS map[string]float64 `json:"latencyMS,omitempty"`
}

// Invert is a way a board can take an inverted serial signal.
type Invert string

// The ways.
const (
	InvertNone     Invert = "none"
	InvertPad      Invert = "pad"        // its RX pad has an inverter, always
	InvertSecond   Invert = "second-pad" // a second RX pad has one: "inv3" for UART 3
	InvertJumper   Invert = "jumper"     // a solder jumper puts one in
	InvertSoftware Invert = "software"   // the processor inverts
)

// UART is a serial port of a flight board.
type UART struct {
	ID       int    `json:"id"`
	TX       bool   `json:"tx,omitempty"` // broken out as a pad or on a plug
	RX       bool   `json:"rx,omitempty"`
	Hardware *bool  `json:"hardware,omitempty"` // false: soft-serial
	Invert   Invert `json:"invert,omitempty"`   // absent: not stated
	// What is printed at its pads, where that is not "TX 3" and "RX 3".
	TXPrinted string `json:"txPrinted,omitempty"`
	RXPrinted string `json:"rxPrinted,omitempty"`
	// TXListens: the board can take a receiver on the pad printed as TX, as half a
	// duplex line.
	TXListens *bool `json:"txListens,omitempty"`
	// BuiltIn: the receiver that is built into the board is on it, and nothing else can be.
	// Where no port is, the receiver is on a bus of the processor and takes none.
	BuiltIn bool `json:"builtIn,omitempty"`
}

// BuiltInPort is the serial port the receiver built into the board is on; false where it
// takes none.
func (b *Board) BuiltInPort() (int, bool) {
	for i := range b.UARTs {
		if b.UARTs[i].BuiltIn {
			return b.UARTs[i].ID, true
		}
	}
	return 0, false
}

// TXPad and RXPad name the port's pads.
func (u *UART) TXPad() string { return "tx" + strconv.Itoa(u.ID) }

// RXPad is where the port listens.
func (u *UART) RXPad() string { return "rx" + strconv.Itoa(u.ID) }

// InvertedPad is where a port with a second pad listens to an inverted signal.
func (u *UART) InvertedPad() string { return invertedPrefix + strconv.Itoa(u.ID) }

const invertedPrefix = "inv"

// InvertedPin says whether a board's pin is a second pad with an inverter.
func InvertedPin(pin string) bool {
	_, _, serial := SerialPin(pin)
	return serial && strings.HasPrefix(pin, invertedPrefix)
}

// SerialPin takes a board's pin apart: the port, and whether it is the side that
// sends. False where it is no serial pin.
func SerialPin(pin string) (port int, sends bool, ok bool) {
	digits, sends := strings.CutPrefix(pin, "tx")
	if !sends {
		if digits, ok = strings.CutPrefix(pin, "rx"); !ok {
			if digits, ok = strings.CutPrefix(pin, invertedPrefix); !ok {
				return 0, false, false
			}
		}
	}
	port, err := strconv.Atoi(digits)
	return port, sends, err == nil
}

// UART looks up a port by its number.
func (b *Board) UART(id int) (*UART, bool) {
	for i := range b.UARTs {
		if b.UARTs[i].ID == id {
			return &b.UARTs[i], true
		}
	}
	return nil, false
}

// Plug looks up a plug of the board by its id.
func (b *Board) Plug(id string) (*Plug, bool) {
	for i := range b.Plugs {
		if b.Plugs[i].ID == id {
			return &b.Plugs[i], true
		}
	}
	return nil, false
}

// Terminal says whether the board has a place of that name to solder to: ground,
// a power pad, a pad of a UART that is broken out, or one for another signal.
func (b *Board) Terminal(name string) bool {
	if name == PinGround {
		return true
	}
	if port, sends, ok := SerialPin(name); ok {
		u, has := b.UART(port)
		if has && InvertedPin(name) {
			return u.Invert == InvertSecond
		}
		return has && (sends && u.TX || !sends && u.RX)
	}
	_, ok := b.Pad(name)
	return ok || b.Signal(name)
}

// Connector is a kind of plug and socket.
type Connector struct {
	Entry
	PitchMM *unit.Millimetres `json:"pitchMM,omitempty"`
	Pins    *int              `json:"pins,omitempty"`
	Matings *int              `json:"matings,omitempty"` // how often it survives
	MaxA    *unit.Amps        `json:"maxA,omitempty"`    // a pin
	// ByGauge is what a pin carries on wire of some gauge, where that is stated apart.
	ByGauge []GaugeAmps `json:"byGauge,omitempty"`
	Keyed   *bool       `json:"keyed,omitempty"`
}

// GaugeAmps is what a contact carries on wire of a gauge.
type GaugeAmps struct {
	AWG  wire.Gauge `json:"awg"`
	MaxA unit.Amps  `json:"maxA"`
}

// Carries is what a pin carries on a wire; where its gauge is not stated, on the one it
// carries least on. Between two gauges the thinner counts; nil: not stated.
func (c *Connector) Carries(on *wire.Gauge) *unit.Amps {
	if len(c.ByGauge) == 0 {
		return c.MaxA
	}
	var thinner, least *GaugeAmps
	for i := range c.ByGauge {
		g := &c.ByGauge[i]
		if least == nil || g.MaxA < least.MaxA {
			least = g
		}
		if on != nil && g.AWG >= *on && (thinner == nil || g.AWG < thinner.AWG) {
			thinner = g
		}
	}
	switch {
	case thinner != nil:
		return &thinner.MaxA
	case on == nil:
		return &least.MaxA
	}
	return nil // thinner than any that is rated
}

// Harness is a set of wires between two plugs, or between a plug and bare ends.
type Harness struct {
	Entry
	Nones               // "from", "to": bare ends
	From  string        `json:"from,omitempty"` // connector at the air unit's end
	To    string        `json:"to,omitempty"`   // at the board's end; absent: bare ends
	Wires []HarnessWire `json:"wires,omitempty"`
	// Branch is a second end at the board's side; nil: it has none.
	Branch *Branch `json:"branch,omitempty"`
}

// Branch is the second end of a cable that branches, with the wires that lead to it from
// the same plug at the part's end.
type Branch struct {
	To    string        `json:"to,omitempty"` // connector; absent: bare ends
	Wires []HarnessWire `json:"wires,omitempty"`
}

// HarnessWire is one wire: the slots it sits in, counted from 1.
type HarnessWire struct {
	From     int               `json:"from"`
	To       int               `json:"to,omitempty"` // absent: a bare end
	Colour   string            `json:"colour,omitempty"`
	AWG      *wire.Gauge       `json:"awg,omitempty"`
	LengthMM *unit.Millimetres `json:"lengthMM,omitempty"`
}

// Kind of a connector.
func (*Connector) Kind() Kind { return KindConnector }

// Kind of a harness.
func (*Harness) Kind() Kind { return KindHarness }
