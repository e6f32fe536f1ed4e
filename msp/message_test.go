package msp

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/setup"
)

// Every cell of the largest grid in every profile packs and unpacks to itself.
func TestPackOverEveryCell(t *testing.T) {
	seen := map[uint16]bool{}
	for x := range 60 {
		for y := range 22 {
			for profiles := range uint8(8) {
				cell := setup.Cell{X: x, Y: y, Profiles: profiles}
				packed := PackCell(cell)
				require.Equal(t, cell, UnpackCell(packed))
				require.False(t, seen[packed])
				seen[packed] = true
			}
		}
	}
	// As commonly described (from memory): the first profile's bit is 0x0800.
	assert.Equal(t, uint16(0x0800|14<<5|23), PackCell(setup.Cell{X: 23, Y: 14, Profiles: 1}))
}

// Whatever a board says, it is read or refused; short answers are named.
func FuzzAnswers(f *testing.F) {
	f.Add([]byte{2, 0, 1, 0, 0, 0, 5, 4, 0, 5})
	f.Add([]byte{255, 255, 255})
	f.Fuzz(func(_ *testing.T, p []byte) {
		decodePorts(p)
		decodeOSD(p)
		decodeModes(p)
		decodeRXMap(p)
		decodeVersion(p)
		decodeStatus(p)
		decodeVolts(p)
		decodeChannels(p)
		decodeCanvas(p)
		if s := text(p); len(s) > 64 {
			panic("text without bound")
		}
	})
}

func TestShortAnswersAreNamed(t *testing.T) {
	_, err := decodePorts([]byte{3, 0, 1})
	assert.EqualError(t, err, "the board's list of ports is 3 bytes long, expected 28 or more")
	_, err = decodeOSD(make([]byte, 4))
	assert.ErrorContains(t, err, "OSD settings")
	_, err = decodeRXMap([]byte{9})
	assert.Error(t, err)
	order, err := decodeRXMap([]byte{0, 1, 3, 2, 4, 5, 6, 7})
	require.NoError(t, err)
	assert.Equal(t, "AETR", order, "the map lists A, E, R, T with the channel of each")
	assert.Equal(t, "Que rn", text([]byte("Que\x00\x07 rn\xff\xfe")))
}

// A board's answers, byte by byte as commonly described (from memory).
func TestAnswersByHand(t *testing.T) {
	version, err := decodeVersion([]byte{4, 5, 3, 99})
	require.NoError(t, err)
	assert.Equal(t, "4.5.3", string(version))
	status, err := decodeStatus([]byte{0xE8, 3, 0, 0, 1, 0, 1, 0, 0, 0, 0})
	require.NoError(t, err)
	assert.True(t, status.Armed, "the first flag is arming")
	ports, err := decodePorts([]byte{2, 0, 1, 0, 2, 0, 5, 4, 0, 5, 20, 0, 0, 0, 0, 5, 4, 0, 5})
	require.NoError(t, err)
	assert.Equal(
		t,
		[]setup.Port{{ID: 0, Functions: 1 | 1<<17, Rest: []byte{5, 4, 0, 5}}, {ID: 20, Rest: []byte{5, 4, 0, 5}}},
		ports,
	)
	assert.Equal(t, []byte{2, 0, 1, 0, 2, 0, 5, 4, 0, 5, 20, 0, 0, 0, 0, 5, 4, 0, 5}, encodePorts(ports))
	assert.Equal(
		t,
		[]setup.Range{
			{Mode: 0, Aux: 0, FromUS: 1700, ToUS: 2100},
			{FromUS: 900, ToUS: 900},
			{Mode: 13, Aux: 2, FromUS: 900, ToUS: 1300},
		},
		decodeModes(
			[]byte{0, 0, 32, 48, 0, 0, 0, 0, 13, 2, 0, 16, 0, 0, 0, 0},
		),
		"an empty slot between stays, those behind go",
	)
	assert.Equal(t, []byte{3, 13, 2, 0, 16}, encodeMode(3, setup.Range{Mode: 13, Aux: 2, FromUS: 900, ToUS: 1300}))
	assert.Equal(
		t,
		[]byte{1, 2, 3, 0, 4, 5, 6, 7},
		encodeRXMap("TAER", []byte{0, 1, 2, 3, 4, 5, 6, 7}),
		"A, E, R, T with the channel of each",
	)
	assert.Equal(t, "53x20", string(decodeCanvas([]byte{53, 20})))
	assert.Empty(t, decodeCanvas([]byte{0, 0}))
	assert.Equal(t, []int{1500, 1000}, decodeChannels([]byte{0xDC, 5, 0xE8, 3, 7}))
	volts, err := decodeVolts([]byte{162, 0, 0, 0, 0, 0, 0, 0x54, 6})
	require.NoError(t, err)
	assert.InDelta(t, 16.2, volts, 1e-9)
	volts, err = decodeVolts([]byte{158})
	require.NoError(t, err)
	assert.InDelta(t, 15.8, volts, 1e-9, "older boards say tenths alone")
}
