package gear

import (
	"iter"
	"slices"
	"strings"

	"yokeswap/core/measure/unit"
)

// Part is a wired part of a quad beside air unit, receiver and flight board: GPS,
// buzzer, lights, ESC, camera, analog transmitter and the like.
type Part struct {
	Entry
	Sort  PartSort `json:"sort,omitempty"`
	Input Input    `json:"input,omitzero"`
	Plug  *Plug    `json:"plug,omitempty"` // its pins or pads, each one of PartPins
	// Inverted: its serial signal is.
	Inverted *bool             `json:"inverted,omitempty"`
	MassG    *unit.Grams       `json:"massG,omitempty"`
	Guides   []Guide           `json:"guides,omitempty"`
	Outline  *Outline          `json:"outline,omitempty"` // where its pads lie
	HeightMM *unit.Millimetres `json:"heightMM,omitempty"`
	KeepFree []KeepFree        `json:"keepFree,omitempty"` // what has to stay free beside it
}

// PartSort says what a wired part is.
type PartSort string

// The sorts.
const (
	SortGPS          PartSort = "gps"
	SortESC          PartSort = "esc"
	SortBuzzer       PartSort = "buzzer"
	SortLights       PartSort = "lights"
	SortCamera       PartSort = "camera"
	SortTransmitter  PartSort = "transmitter" // of analog video
	SortCameraSwitch PartSort = "camera-switch"
	SortOther        PartSort = "other"
)

// The functions of pins that an air unit has none of.
const (
	PinTelemetry = "telemetry" // what an ESC tells, a serial line one way
	PinControl   = "control"   // the control wire of a transmitter: one line both ways
	PinSDA       = "sda"       // I2C data and clock, of a compass
	PinSCL       = "scl"
	PinBuzzer    = "buzzer" // switched by the board, against supply
	PinLED       = "led"
	PinVideoIn   = "video-in"
	PinVideoOut  = "video-out"
	PinCamera    = "camera-control"
	PinCurrent   = "current"
	PinSwitch    = "switch" // switched by a mode of the flight firmware
	PinReset     = "reset"
	PinSpare     = "spare" // there, and left open
	motorPrefix  = "motor"
)

// PartPins lists the functions a pin of a wired part or of a receiver can have; an
// empty one is a slot with nothing in it.
var PartPins = []string{PinSupply, PinGround, PinUARTRX, PinUARTTX, PinTelemetry, PinControl, PinSDA, PinSCL, PinBuzzer,
	PinLED, PinVideoIn, PinVideoOut, PinCamera, PinCurrent, PinSwitch, PinReset, PinSpare,
	motorPrefix + "1", motorPrefix + "2", motorPrefix + "3", motorPrefix + "4",
	motorPrefix + "5", motorPrefix + "6", motorPrefix + "7", motorPrefix + "8"}

// Signals lists what a board's pads can be beside ground, power and serial ports. Each
// is named by what a part has there: the video of a camera comes in at "video-in".
var Signals = []string{PinSDA, PinSCL, PinBuzzer, PinLED, PinVideoIn, PinVideoOut, PinCamera, PinCurrent, PinSwitch,
	motorPrefix + "1", motorPrefix + "2", motorPrefix + "3", motorPrefix + "4",
	motorPrefix + "5", motorPrefix + "6", motorPrefix + "7", motorPrefix + "8"}

// Electric says what a pin does to the line it is on.
type Electric int

// What pins do.
const (
	Passive  Electric = iota // nothing: it may be joined to anything
	Grounded                 // the common ground
	Takes                    // takes power
	Gives                    // gives power
	Drives                   // sends a signal
	Listens                  // hears one
	Shares                   // both in turn, with others on one line
)

// electric is what the functions of pins do, on a part and on a board alike where they
// are no serial port: what drives on a part is heard by the board's pad of that name.
var electric = map[string][2]Electric{ // on the part, on the board
	PinSupply:    {Takes, Gives},
	PinGround:    {Grounded, Grounded},
	PinRCGround:  {Grounded, Grounded},
	PinUARTRX:    {Listens, Passive},
	PinUARTTX:    {Drives, Passive},
	PinRCOut:     {Drives, Passive},
	PinTelemetry: {Drives, Passive},
	PinControl:   {Shares, Passive},
	PinSDA:       {Shares, Shares},
	PinSCL:       {Shares, Shares},
	PinBuzzer:    {Listens, Drives},
	PinLED:       {Listens, Drives},
	PinVideoIn:   {Listens, Listens},
	PinVideoOut:  {Drives, Drives},
	PinCamera:    {Listens, Drives},
	PinCurrent:   {Drives, Listens},
	PinSwitch:    {Listens, Drives},
}

// IsMotor says whether a pin or a place of the board is a motor's.
func IsMotor(function string) bool { return strings.HasPrefix(function, motorPrefix) }

// PinDoes is what a part's pin of that function does.
func PinDoes(function string) Electric {
	if IsMotor(function) {
		return Listens
	}
	return electric[function][0]
}

// TerminalDoes is what a place of the board does.
func (b *Board) TerminalDoes(terminal string) Electric {
	if _, sends, serial := SerialPin(terminal); serial {
		if sends {
			return Drives
		}
		return Listens
	}
	if _, power := b.Pad(terminal); power {
		return Gives
	}
	if IsMotor(terminal) {
		return Drives
	}
	return electric[terminal][1]
}

// Belongs says whether a pin of that function does its work at a place of the board:
// lines of a serial port crossed, video from the camera in and to the transmitter out,
// everything else at the pad of its own name. What belongs nowhere belongs anywhere.
func (b *Board) Belongs(function, terminal string) bool {
	_, sends, serial := SerialPin(terminal)
	switch function {
	case PinSpare, PinReset, "":
		return true
	case PinSupply:
		_, power := b.Pad(terminal)
		return power
	case PinGround, PinRCGround:
		return terminal == PinGround
	case PinUARTRX, PinControl:
		return serial && sends
	case PinUARTTX, PinTelemetry, PinRCOut:
		return serial && !sends
	case PinVideoOut:
		return terminal == PinVideoIn
	case PinVideoIn:
		return terminal == PinVideoOut
	}
	return terminal == function
}

// Terminals are all places of the board to solder to.
func (b *Board) Terminals() iter.Seq[string] {
	return func(yield func(string) bool) {
		if !yield(PinGround) {
			return
		}
		for i := range b.Pads {
			if !yield(b.Pads[i].ID) {
				return
			}
		}
		for i := range b.UARTs {
			u := &b.UARTs[i]
			for _, pad := range []string{u.TXPad(), u.RXPad(), u.InvertedPad()} {
				if b.Terminal(pad) && !yield(pad) {
					return
				}
			}
		}
		for _, signal := range b.Signals {
			if !yield(signal) {
				return
			}
		}
	}
}

// PadsWithin are the regulated pads whose voltage lies within a window; none where the
// window is not stated at both ends.
func (b *Board) PadsWithin(in *Input) (ids []string) {
	if in.MinV == nil || in.MaxV == nil {
		return nil
	}
	for i := range b.Pads {
		p := &b.Pads[i]
		if p.Kind == PadRegulated && p.OutV != nil && !unit.Over(*in.MinV, *p.OutV) && !unit.Over(*p.OutV, *in.MaxV) {
			ids = append(ids, p.ID)
		}
	}
	return ids
}

// Signal says whether the board is stated to have a pad for a signal.
func (b *Board) Signal(name string) bool { return slices.Contains(b.Signals, name) }

// Kind of a wired part.
func (*Part) Kind() Kind { return KindPart }
