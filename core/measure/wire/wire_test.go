package wire

import (
	"fmt"
	"os/exec"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/measure/unit"
	"yokeswap/internal/outside"
)

// Bare diameters of ASTM B258 and the resistance of solid copper at 20 °C of the
// same handbook table, in mΩ per metre.
func TestDiametersAndResistancesOfTheTable(t *testing.T) {
	for gauge, want := range map[Gauge][2]float64{
		10: {2.588, 3.277}, 14: {1.628, 8.286}, 18: {1.024, 20.95}, 22: {0.644, 52.96}, 24: {0.511, 84.22}, 28: {0.321, 212.9}, 30: {0.255, 338.6}, 36: {0.127, 1361},
	} {
		assert.InEpsilon(t, want[0], float64(gauge.Diameter()), 0.002, "%d", gauge)
		assert.InEpsilon(t, want[1], float64(gauge.Resistance(1000)), 0.01, "%d", gauge)
	}
}

// Outside check: GNU Units knows the same wire gauges.
func TestGaugesAgreeWithGNUUnits(t *testing.T) {
	program := outside.Program(t, "units")
	for gauge := Gauge(10); gauge <= 36; gauge++ {
		out, err := exec.Command(program, "-t", fmt.Sprintf("wiregauge(%d)", gauge), "mm").Output()
		require.NoError(t, err)
		mm, err := strconv.ParseFloat(strings.TrimSpace(string(out)), 64)
		require.NoError(t, err)
		assert.InEpsilon(t, mm, float64(gauge.Diameter()), 1e-6, "%d", gauge)
	}
}

// Two wires side by side have about 0.5 to 1 µH a metre of pair (a handbook's
// rule of thumb), and inductance grows with length and with thinner wire.
func TestInductanceOfAPair(t *testing.T) {
	perMetre := Gauge(14).PairInductance(1000)
	assert.Greater(t, perMetre, unit.Nanohenries(400))
	assert.Less(t, perMetre, unit.Nanohenries(1000))
	assert.Greater(t, Gauge(22).PairInductance(100), Gauge(14).PairInductance(100))
	assert.False(t, Gauge(-1).Known())
}

// A thinner wire carries less, and the thinnest in use what is said of it (the usual
// tables of wire gauges).
func TestAThinnerWireCarriesLess(t *testing.T) {
	for g := Gauge(11); g <= 32; g++ {
		assert.Less(t, g.Carries(), (g - 1).Carries(), g)
		assert.Positive(t, g.Carries(), g)
	}
	assert.Equal(t, Thinnest, Gauge(32).Carries())
	assert.Zero(t, Gauge(33).Carries())
	assert.Equal(t, Gauge(10).Carries(), Gauge(8).Carries(), "thicker counts as 10")
}

func TestGaugesThatAreKnown(t *testing.T) {
	for gauge, known := range map[Gauge]bool{-1: false, 0: true, 40: true, 41: false} {
		assert.Equal(t, known, gauge.Known(), gauge)
	}
}

// The usual table of what a wire in free air carries (chassis wiring, from memory).
func TestWhatAGaugeCarries(t *testing.T) {
	for g, amps := range map[Gauge]unit.Amps{10: 55, 14: 32, 16: 22, 18: 16, 20: 11, 22: 7, 24: 3.5, 26: 2.2, 28: 1.4, 30: 0.86} {
		assert.Equal(t, amps, g.Carries(), "%d AWG", g)
	}
}
