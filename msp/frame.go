// Package msp speaks the MultiWii Serial Protocol, versions 1 and 2, to a flight
// board over a serial port or TCP: frames, messages, and a client.
//
// What a board says is not to be trusted. The decoder takes any bytes, never
// panics, holds at most one frame of 64 KiB, and finds its way back after
// nonsense. Frame layouts and message numbers are those of the protocol's public
// description (from memory).
package msp

import (
	"bytes"
	"slices"
)

// Direction says who a frame is for.
type Direction byte

// The directions.
const (
	ToBoard   Direction = '<'
	FromBoard Direction = '>'
	Refused   Direction = '!' // the board does not know the command or will not do it
)

// Version is the version of a frame.
type Version byte

// The versions, by the letter in their frames.
const (
	V1 Version = 'M'
	V2 Version = 'X'
)

// MaxPayload is the longest payload of a frame, in bytes.
const MaxPayload = 65535

// Frame is one message.
type Frame struct {
	Version   Version
	Direction Direction
	Command   uint16
	Payload   []byte
}

// crc8 is the table of CRC-8/DVB-S2: polynomial 0xD5, no reflection, from 0. Its
// check value over "123456789" is 0xBC (the catalogue of parametrised CRC
// algorithms).
var crc8 = func() (table [256]byte) {
	for i := range table {
		c := byte(i)
		for range 8 {
			if c&0x80 != 0 {
				c = c<<1 ^ 0xD5
			} else {
				c <<= 1
			}
		}
		table[i] = c
	}
	return table
}()

// CRC8 runs CRC-8/DVB-S2 on from a start value.
func CRC8(start byte, data []byte) byte {
	for _, b := range data {
		start = crc8[start^b]
	}
	return start
}

func xor(start byte, data []byte) byte {
	for _, b := range data {
		start ^= b
	}
	return start
}

// jumbo in the length of a version 1 frame says that two more bytes hold it.
const jumbo = 255

// AppendFrame encodes a frame behind dst. Payloads over MaxPayload and commands
// over 255 in a version 1 frame are cut to what fits; callers keep to the limits.
func AppendFrame(dst []byte, f Frame) []byte {
	payload := f.Payload[:min(len(f.Payload), MaxPayload)]
	n := len(payload)
	dst = slices.Grow(dst, n+9)
	dst = append(dst, '$', byte(f.Version), byte(f.Direction))
	from := len(dst)
	if f.Version == V2 {
		dst = append(dst, 0, byte(f.Command), byte(f.Command>>8), byte(n), byte(n>>8))
		dst = append(dst, payload...)
		return append(dst, CRC8(0, dst[from:]))
	}
	if n >= jumbo {
		dst = append(dst, jumbo, byte(f.Command), byte(n), byte(n>>8))
	} else {
		dst = append(dst, byte(n), byte(f.Command))
	}
	dst = append(dst, payload...)
	return append(dst, xor(0, dst[from:]))
}

// Decoder finds frames in a stream of bytes. The zero value is ready.
type Decoder struct {
	// Broken counts frames that were begun and came to nothing: a wrong checksum or
	// an impossible head.
	Broken int

	state   state
	frame   Frame
	head    [7]byte // what comes before the payload and is summed with it
	have    int     // bytes of the head
	payload []byte
	want    int
}

type state int

const (
	idle state = iota
	version
	direction
	head
	body
	sum
)

// Decode takes more of the stream and calls emit for each frame that is complete.
// The payload is only valid during the call.
func (d *Decoder) Decode(data []byte, emit func(Frame)) {
	for len(data) > 0 {
		if d.state == body {
			n := min(d.want-len(d.payload), len(data))
			d.payload = append(d.payload, data[:n]...)
			data = data[n:]
			if len(d.payload) == d.want {
				d.state = sum
			}
			continue
		}
		b := data[0]
		data = data[1:]
		d.next(b, emit)
	}
}

func (d *Decoder) next(b byte, emit func(Frame)) {
	switch d.state {
	case idle:
		if b == '$' {
			d.state = version
		}
	case version:
		switch Version(b) {
		case V1, V2:
			d.frame.Version, d.state = Version(b), direction
		default:
			d.begin(b)
		}
	case direction:
		switch Direction(b) {
		case ToBoard, FromBoard, Refused:
			d.frame.Direction, d.have, d.state = Direction(b), 0, head
		default:
			d.begin(b)
		}
	case head:
		d.head[d.have] = b
		d.have++
		d.headByte()
	case sum:
		d.state = idle
		if b != d.checksum() {
			d.Broken++
			d.readOn(b, emit)
			return
		}
		d.frame.Payload = d.payload
		emit(d.frame)
	}
}

// readOn looks for frames in what a broken one has swallowed: one wrong length byte
// takes the frames behind it for payload. Each look is shorter than the last.
func (d *Decoder) readOn(sum byte, emit func(Frame)) {
	swallowed := append(slices.Clone(d.head[:d.have]), d.payload...)
	swallowed = append(swallowed, sum)
	if at := bytes.IndexByte(swallowed, '$'); at >= 0 {
		d.Decode(swallowed[at:], emit)
	}
}

// begin starts over with a byte that may be the first of another frame.
func (d *Decoder) begin(b byte) {
	d.Broken++
	d.state = idle
	if b == '$' {
		d.state = version
	}
}

// headByte looks whether the head is complete, and what it says.
func (d *Decoder) headByte() {
	length := -1
	switch {
	case d.frame.Version == V2 && d.have == 5:
		d.frame.Command = uint16(d.head[1]) | uint16(d.head[2])<<8
		length = int(d.head[3]) | int(d.head[4])<<8
	case d.frame.Version == V1 && d.have == 2 && d.head[0] != jumbo:
		d.frame.Command, length = uint16(d.head[1]), int(d.head[0])
	case d.frame.Version == V1 && d.have == 4:
		d.frame.Command, length = uint16(d.head[1]), int(d.head[2])|int(d.head[3])<<8
	}
	if length < 0 {
		return
	}
	d.want, d.payload = length, d.payload[:0]
	d.state = body
	if length == 0 {
		d.state = sum
	}
}

func (d *Decoder) checksum() byte {
	if d.frame.Version == V2 {
		return CRC8(CRC8(0, d.head[:d.have]), d.payload)
	}
	return xor(xor(0, d.head[:d.have]), d.payload)
}
