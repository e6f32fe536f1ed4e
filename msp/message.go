package msp

import (
	"encoding/binary"
	"fmt"
	"strings"
	"unicode"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/gear"
	"yokeswap/core/work/setup"
)

// The commands used here.
const (
	CmdVariant     = 2
	CmdVersion     = 3
	CmdBoard       = 4
	CmdName        = 10
	CmdModes       = 34
	CmdSetMode     = 35
	CmdFeatures    = 36
	CmdSetFeatures = 37
	CmdReceiver    = 44
	CmdSetReceiver = 45
	CmdRXMap       = 64
	CmdSetRXMap    = 65
	CmdReboot      = 68
	CmdOSD         = 84
	CmdSetOSD      = 85
	CmdHoldArming  = 99 // 1: arming is held off until 0 or the next start
	CmdStatus      = 101
	CmdChannels    = 105
	CmdAnalog      = 110
	CmdSetCanvas   = 188
	CmdCanvas      = 189
	CmdSave        = 250
	CmdAPI         = 1
	CmdBuild       = 5
	CmdOldPorts    = 54
	CmdSetOldPorts = 55
	CmdPorts       = 0x1009
	CmdSetPorts    = 0x100A
)

// short is the error for an answer with fewer bytes than its kind has.
func short(what string, got, want int) error {
	return fmt.Errorf("the board's %s is %d bytes long, expected %d or more", what, got, want)
}

// text reads characters of a board: printable ASCII alone, at most 64.
func text(data []byte) string {
	return strings.TrimSpace(strings.Map(func(r rune) rune {
		if r > unicode.MaxASCII || !unicode.IsPrint(r) {
			return -1
		}
		return r
	}, string(data[:min(len(data), 64)])))
}

// decodeVersion reads major, minor and patch.
func decodeVersion(p []byte) (firmware.Version, error) {
	if len(p) < 3 {
		return "", short("release", len(p), 3)
	}
	return firmware.Version(fmt.Sprintf("%d.%d.%d", p[0], p[1], p[2])), nil
}

// Status is what a board says of itself while it runs.
type Status struct {
	Armed bool
	// Flags are the modes that are on, as bits in the order the board lists them.
	Flags uint32
}

// decodeStatus reads cycle time, errors, sensors and flags; arming is the first.
func decodeStatus(p []byte) (Status, error) {
	if len(p) < 10 {
		return Status{}, short("status", len(p), 10)
	}
	flags := binary.LittleEndian.Uint32(p[6:])
	return Status{Armed: flags&1 != 0, Flags: flags}, nil
}

// A port in the list of ports: its number, functions as 32 bits, or 16 in the older
// list, and four baud rates; newer firmware may add more behind, which is kept.
const (
	functionBytes    = 4
	oldFunctionBytes = 2
	baudBytes        = 4
)

// mostPorts bounds what is taken from a list of ports.
const mostPorts = 32

// decodePorts reads the newer list, which begins with the number of its ports.
func decodePorts(p []byte) ([]setup.Port, error) {
	if len(p) < 1 {
		return nil, short("list of ports", 0, 1)
	}
	n := min(int(p[0]), mostPorts)
	if n == 0 {
		return []setup.Port{}, nil
	}
	size := (len(p) - 1) / n
	if least := 1 + functionBytes + baudBytes; size < least {
		return nil, short("list of ports", len(p), 1+n*least)
	}
	return portsOf(p[1:], n, size, functionBytes), nil
}

// decodeOldPorts reads the older list: entry behind entry.
func decodeOldPorts(p []byte) ([]setup.Port, error) {
	const size = 1 + oldFunctionBytes + baudBytes
	if len(p) < size {
		return nil, short("list of ports", len(p), size)
	}
	return portsOf(p, min(len(p)/size, mostPorts), size, oldFunctionBytes), nil
}

func portsOf(p []byte, n, size, functions int) []setup.Port {
	ports := []setup.Port{}
	for i := range n {
		at := p[i*size:]
		port := setup.Port{ID: int(at[0]), Rest: append([]byte(nil), at[1+functions:size]...)}
		for k := functions; k > 0; k-- {
			port.Functions = port.Functions<<8 | uint32(at[k])
		}
		ports = append(ports, port)
	}
	return ports
}

func encodePorts(ports []setup.Port) []byte {
	return appendPorts([]byte{byte(len(ports))}, ports, functionBytes)
}

func encodeOldPorts(ports []setup.Port) []byte { return appendPorts(nil, ports, oldFunctionBytes) }

func appendPorts(out []byte, ports []setup.Port, functions int) []byte {
	for _, p := range ports {
		out = append(out, byte(p.ID))
		for k := range functions {
			out = append(out, byte(p.Functions>>(8*k)))
		}
		rest := p.Rest
		if len(rest) < baudBytes {
			rest = append(append([]byte(nil), rest...), make([]byte, baudBytes-len(rest))...)
		}
		out = append(out, rest...)
	}
	return out
}

// The sticks in the order the map of channels has them.
const sticks = "AERT"

// decodeRXMap gives the order of the first four channels, such as "AETR".
func decodeRXMap(p []byte) (string, error) {
	if len(p) < len(sticks) {
		return "", short("map of channels", len(p), len(sticks))
	}
	order := []byte("????")
	for i := range sticks {
		if at := int(p[i]); at < len(order) {
			order[at] = sticks[i]
		}
	}
	return string(order), nil
}

// encodeRXMap puts an order into a map as it was read; what comes after the sticks
// stays.
func encodeRXMap(order string, as []byte) []byte {
	out := append([]byte(nil), as...)
	for at, stick := range order {
		if i := strings.IndexRune(sticks, stick); i >= 0 && i < len(out) {
			out[i] = byte(at)
		}
	}
	return out
}

// A mode's range goes in steps of 25 µs from 900.
const (
	lowestUS = 900
	stepUS   = 25
)

// decodeModes reads the slots for ranges as the board has them, without the plain empty
// ones at the end.
func decodeModes(p []byte) []setup.Range {
	ranges, used := []setup.Range{}, 0
	for ; len(p) >= 4; p = p[4:] {
		r := setup.Range{
			Mode:   int(p[0]),
			Aux:    int(p[1]),
			FromUS: lowestUS + stepUS*int(p[2]),
			ToUS:   lowestUS + stepUS*int(p[3]),
		}
		if ranges = append(ranges, r); r != (setup.Range{FromUS: lowestUS, ToUS: lowestUS}) {
			used = len(ranges)
		}
	}
	return ranges[:used]
}

// encodeMode is a range for a slot of the board's list.
func encodeMode(slot int, r setup.Range) []byte {
	return []byte{
		byte(slot),
		byte(r.Mode),
		byte(r.Aux),
		byte((r.FromUS - lowestUS) / stepUS),
		byte((r.ToUS - lowestUS) / stepUS),
	}
}

// osdHead is what stands before the places in the OSD's settings; the seventh byte
// from its start counts them.
const (
	osdHead  = 10
	osdCount = 7
)

func decodeOSD(p []byte) ([]setup.Cell, error) {
	if len(p) < osdHead {
		return nil, short("OSD settings", len(p), osdHead)
	}
	n := int(p[osdCount])
	if len(p) < osdHead+2*n {
		return nil, short("OSD settings", len(p), osdHead+2*n)
	}
	cells := make([]setup.Cell, n)
	for i := range cells {
		cells[i] = UnpackCell(binary.LittleEndian.Uint16(p[osdHead+2*i:]))
	}
	return cells, nil
}

// PackCell puts the place of an element into 16 bits: five bits of the column, five
// of the row, the sixth bit of the column, and a bit for each of three profiles.
func PackCell(c setup.Cell) uint16 {
	x, y := uint16(c.X), uint16(c.Y)
	return x&0x1F | y&0x1F<<5 | x&0x20<<5 | uint16(c.Profiles&7)<<11 | c.Rest&notUnderstood
}

// notUnderstood are the bits of a place whose meaning is not known here.
const notUnderstood = 0xC000

// UnpackCell is the other way round.
func UnpackCell(v uint16) setup.Cell {
	return setup.Cell{
		X:        int(v&0x1F | v>>5&0x20),
		Y:        int(v >> 5 & 0x1F),
		Profiles: uint8(v >> 11 & 7),
		Rest:     v & notUnderstood,
	}
}

func decodeCanvas(p []byte) gear.Grid {
	if len(p) < 2 || p[0] == 0 || p[1] == 0 {
		return ""
	}
	return gear.Grid(fmt.Sprintf("%dx%d", p[0], p[1]))
}

func decodeChannels(p []byte) []int {
	channels := []int{}
	for ; len(p) >= 2 && len(channels) < 18; p = p[2:] {
		channels = append(channels, int(binary.LittleEndian.Uint16(p)))
	}
	return channels
}

// decodeVolts reads the battery voltage: in hundredths at the end, or in tenths
// where a board is old.
func decodeVolts(p []byte) (float64, error) {
	switch {
	case len(p) >= 9:
		return float64(binary.LittleEndian.Uint16(p[7:])) / 100, nil
	case len(p) >= 1:
		return float64(p[0]) / 10, nil
	}
	return 0, short("analog values", len(p), 1)
}
