package msp_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/msp"
)

func decode(data []byte) (frames []msp.Frame, broken int) {
	var d msp.Decoder
	d.Decode(data, func(f msp.Frame) {
		f.Payload = bytes.Clone(f.Payload)
		frames = append(frames, f)
	})
	return frames, d.Broken
}

// The check value of CRC-8/DVB-S2 (catalogue of parametrised CRC algorithms).
func TestCheckValue(t *testing.T) {
	assert.Equal(t, byte(0xBC), msp.CRC8(0, []byte("123456789")))
}

// Frames written by hand from the protocol's public description (from memory).
func TestFramesWrittenByHand(t *testing.T) {
	for _, c := range []struct {
		name  string
		bytes []byte
		frame msp.Frame
	}{
		{"version 1, API version asked", []byte{'$', 'M', '<', 0, 1, 1}, msp.Frame{Version: msp.V1, Direction: msp.ToBoard, Command: 1}},
		{"version 1, an answer", []byte{'$', 'M', '>', 3, 1, 0, 1, 46, 3 ^ 1 ^ 1 ^ 46}, msp.Frame{Version: msp.V1, Direction: msp.FromBoard, Command: 1, Payload: []byte{0, 1, 46}}},
		{"version 1, refused", []byte{'$', 'M', '!', 0, 200, 200}, msp.Frame{Version: msp.V1, Direction: msp.Refused, Command: 200}},
		{"version 2, hello world", append([]byte{'$', 'X', '<', 0xa5, 0x42, 0x42, 0x12, 0x00}, append([]byte("Hello flying world"), 0x82)...), msp.Frame{Version: msp.V2, Direction: msp.ToBoard, Command: 0x4242, Payload: []byte("Hello flying world")}},
	} {
		t.Run(c.name, func(t *testing.T) {
			frames, broken := decode(c.bytes)
			require.Len(t, frames, 1)
			assert.Zero(t, broken)
			assert.Equal(t, c.frame.Command, frames[0].Command)
			assert.Equal(t, c.frame.Direction, frames[0].Direction)
			assert.True(t, bytes.Equal(c.frame.Payload, frames[0].Payload))
		})
	}
}

func TestEncodeThenDecodeIsTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := msp.Frame{
			Version:   msp.V1,
			Direction: rapid.SampledFrom([]msp.Direction{msp.ToBoard, msp.FromBoard, msp.Refused}).Draw(t, "direction"),
			Command: uint16(
				rapid.IntRange(0, 255).Draw(t, "command"),
			),
			Payload: rapid.SliceOfN(rapid.Byte(), 0, 400).Draw(t, "payload"),
		}
		if rapid.Bool().Draw(t, "version 2") {
			f.Version, f.Command = msp.V2, rapid.Uint16().Draw(t, "long command")
		}
		noise := rapid.SliceOfN(rapid.SampledFrom([]byte{0, 7, 'M', 'X', '<', '>'}), 0, 9).Draw(t, "noise")
		encoded := msp.AppendFrame(bytes.Clone(noise), f)
		frames, _ := decode(msp.AppendFrame(encoded, f))
		require.Len(t, frames, 2, "noise before a frame is passed over")
		for _, got := range frames {
			require.Equal(t, f.Version, got.Version)
			require.Equal(t, f.Direction, got.Direction)
			require.Equal(t, f.Command, got.Command)
			require.True(t, bytes.Equal(f.Payload, got.Payload))
		}
		at := len(noise) + 3 + rapid.IntRange(0, len(encoded)-len(noise)-4).Draw(t, "at")
		encoded[at] ^= byte(rapid.IntRange(1, 255).Draw(t, "flipped"))
		frames, _ = decode(encoded)
		for _, got := range frames { // a changed byte is never taken for the frame
			require.False(t, got.Command == f.Command && bytes.Equal(got.Payload, f.Payload))
		}
	})
}

// Cut frames, lengths that lie and wrong checksums are passed over, and what comes
// after is read.
func TestAfterNonsenseTheNextFrameIsRead(t *testing.T) {
	good := msp.AppendFrame(
		nil,
		msp.Frame{Version: msp.V1, Direction: msp.FromBoard, Command: 4, Payload: []byte("BOARD")},
	)
	for name, bad := range map[string][]byte{
		"a wrong checksum":   {'$', 'M', '>', 1, 4, 9, 0},
		"a cut head":         {'$', 'M'},
		"two dollars":        {'$', '$'},
		"another direction":  {'$', 'M', '?'},
		"text of a boot log": []byte("boot 1.2 $ok\r\n"),
	} {
		frames, broken := decode(append(bytes.Clone(bad), good...))
		require.Len(t, frames, 1, name)
		assert.Equal(t, "BOARD", string(frames[0].Payload), name)
		assert.LessOrEqual(t, broken, 2, name)
	}
	big := msp.Frame{Version: msp.V2, Direction: msp.FromBoard, Command: 0x1009, Payload: make([]byte, msp.MaxPayload)}
	frames, _ := decode(msp.AppendFrame(nil, big))
	require.Len(t, frames, 1, "64 kB in one frame")
	assert.Len(t, frames[0].Payload, msp.MaxPayload)
}

func FuzzDecoder(f *testing.F) {
	f.Add([]byte("$M>\x03\x01\x00\x01\x2e\x2d"))
	f.Add([]byte("$X<\xa5\x42\x42\x12\x00Hello flying world\x82"))
	f.Add([]byte("$M>\xff\x04\xff\xff"))
	f.Fuzz(func(t *testing.T, data []byte) {
		whole, _ := decode(data)
		var d msp.Decoder
		n := 0
		for i := range data { // byte by byte is the same as at once
			d.Decode(data[i:i+1], func(f msp.Frame) {
				if n >= len(whole) || !bytes.Equal(f.Payload, whole[n].Payload) {
					t.Fatal("another frame byte by byte")
				}
				n++
			})
		}
		if n != len(whole) {
			t.Fatalf("%d frames byte by byte, %d at once", n, len(whole))
		}
	})
}

func BenchmarkDecoder(b *testing.B) {
	var stream []byte
	for range 100 {
		stream = msp.AppendFrame(
			stream,
			msp.Frame{Version: msp.V2, Direction: msp.FromBoard, Command: 0x1009, Payload: bytes.Repeat([]byte{1, 2, 3}, 40)},
		)
	}
	var d msp.Decoder
	frames := 0
	b.SetBytes(int64(len(stream)))
	b.ReportAllocs()
	for b.Loop() {
		d.Decode(stream, func(msp.Frame) { frames++ })
	}
	b.ReportMetric(100, "goal-MB/s")
}
