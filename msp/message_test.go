package msp

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/setup"
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
