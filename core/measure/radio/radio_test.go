package radio

import (
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/measure/unit"
	"yokeswap/internal/outside"
)

// ITU-R P.525: 107.7 dB at one kilometre and 5.8 GHz.
func TestFreeSpaceLoss(t *testing.T) {
	assert.InDelta(t, 107.7, float64(FreeSpaceLoss(1, 5800)), 0.05)
	assert.InDelta(t, 6.02, float64(FreeSpaceLoss(2, 5800)-FreeSpaceLoss(1, 5800)), 0.005)
	assert.InDelta(t, 2, RangeFactor(6.0206), 1e-4)
	assert.InDelta(t, 30, float64(DBm(1000)), 1e-9)
	assert.InDelta(t, 25, float64(Milliwatts(DBm(25))), 1e-9)
	assert.InDelta(t, 51.69, float64(Wavelength(5800)), 0.01)
}

// Half the power between linear and circular by the definition; opposite hands
// lose 20 dB and more (common practice).
func TestPolarisationLoss(t *testing.T) {
	for _, c := range []struct {
		a, b Polarisation
		want float64
	}{{RHCP, RHCP, 0}, {LHCP, LHCP, 0}, {Linear, Linear, 0}, {RHCP, Linear, 3.01}, {Linear, LHCP, 3.01}, {RHCP, LHCP, 20}} {
		assert.InDelta(t, c.want, float64(PolarisationLoss(c.a, c.b)), 0.005, "%s to %s", c.a, c.b)
		assert.Equal(t, PolarisationLoss(c.a, c.b), PolarisationLoss(c.b, c.a))
	}
}

// Outside check: nec2c, a method-of-moments program, gives a half-wave dipole the
// same gain across and the same pattern from its axis to its side.
func TestTheDipoleAgreesWithNEC(t *testing.T) {
	assert.InDelta(t, 2.15, float64(DipoleGain(90)), 0.005)
	assert.True(t, math.IsInf(float64(DipoleGain(0)), -1))
	program := outside.Program(t, "nec2c")
	dir := t.TempDir()
	deck := "CM dipole\nCE\nGW 1 41 0 0 -0.012923 0 0 0.012923 0.00001\nGE 0\nFR 0 1 0 0 5800 0\nEX 0 1 21 0 1 0\nRP 0 10 1 1000 0 0 10 0\nEN\n"
	require.NoError(t, os.WriteFile(filepath.Join(dir, "d.nec"), []byte(deck), 0o600))
	require.NoError(t, exec.Command(program, "-i", filepath.Join(dir, "d.nec"), "-o", filepath.Join(dir, "d.out")).Run())
	out, err := os.ReadFile(filepath.Join(dir, "d.out"))
	require.NoError(t, err)
	row := regexp.MustCompile(`(?m)^\s*(\d+\.\d+)\s+0\.00\s+(-?\d+\.\d+)\s+(-?\d+\.\d+)\s+(-?\d+\.\d+)`)
	compared := 0
	for _, found := range row.FindAllStringSubmatch(string(out), -1) {
		angle, _ := strconv.ParseFloat(found[1], 64)
		gain, _ := strconv.ParseFloat(found[4], 64)
		if angle < 30 || gain < -50 {
			continue // near the axis both fall away without bound
		}
		assert.InDelta(t, gain, float64(DipoleGain(unit.Degrees(angle))), 0.2, "%v degrees", angle)
		compared++
	}
	require.Greater(t, compared, 5)
}

// Half the power at half the width on both sides is what a beam's width means.
func TestABeamHasHalfItsPowerAtHalfItsWidth(t *testing.T) {
	for width := unit.Degrees(20); width < 360; width += 20 {
		assert.InDelta(t, 0, float64(BeamLoss(width, 0)), 1e-9)
		assert.InDelta(t, -3.0103, float64(BeamLoss(width, width/2)), 1e-4)
		for off := unit.Degrees(0); off < 180; off += 5 {
			assert.LessOrEqual(t, BeamLoss(width, off+5), BeamLoss(width, off))
		}
		assert.GreaterOrEqual(t, BeamLoss(width, 180), unit.Decibels(-30))
	}
	assert.Zero(t, BeamLoss(360, 180))
}

// A half-wave dipole off its side, as any handbook's formula has it: 2.15 dBi less what
// cos(90°·cos θ)/sin θ gives.
func TestTheDipoleOffItsSide(t *testing.T) {
	for angle, gain := range map[unit.Degrees]float64{90: 2.15, 75: 1.71, 60: 0.39, 45: -1.89, 30: -5.42} {
		assert.InDelta(t, gain, float64(DipoleGain(angle)), 0.02, "%s", angle)
	}
}
