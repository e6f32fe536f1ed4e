package power_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/gates/power"
	"yokeswap/core/measure/unit"
	"yokeswap/internal/outside"
)

var maximum = regexp.MustCompile(`(?m)^top\s*=\s*(\S+)`)

// spice runs a circuit in ngspice and gives the peak at the capacitors.
func spice(t *testing.T, program string, c power.Circuit) float64 {
	t.Helper()
	bulk := ""
	if c.BulkUF > 0 {
		bulk = fmt.Sprintf("R2 v m %gm\nC2 m 0 %gu IC=0\n", float64(c.BulkMilli), float64(c.BulkUF))
	}
	deck := fmt.Sprintf(
		"plug-in\nV1 s 0 %g\nR1 s a %gm\nL1 a v %gn IC=0\nC1 v 0 %gu IC=0\n%s.tran 20n 400u 0 20n UIC\n.control\nrun\nmeas tran top MAX v(v)\nquit\n.endc\n.end\n",
		float64(c.Volts),
		float64(c.Milliohms),
		float64(c.Nanohenries),
		float64(c.CeramicUF),
		bulk,
	)
	file := filepath.Join(t.TempDir(), "plugin.cir")
	require.NoError(t, os.WriteFile(file, []byte(deck), 0o600))
	out, err := exec.Command(program, "-b", file).CombinedOutput()
	found := maximum.FindSubmatch(out)
	require.NotNil(t, found, "%v\n%s", err, out)
	top, err := strconv.ParseFloat(string(found[1]), 64)
	require.NoError(t, err)
	return math.Max(top, float64(c.Volts)) // where nothing rings it creeps up to the pack's voltage
}

// Outside check: a 25.2 V step into 50 mΩ, 200 nH and 10 µF peaks at 39.53 V, and
// 40 random circuits with and without an electrolytic agree with ngspice within
// one per cent.
func TestThePeakAgreesWithACircuitSimulator(t *testing.T) {
	named := power.Circuit{Volts: 25.2, Milliohms: 50, Nanohenries: 200, CeramicUF: 10}
	assert.InDelta(t, 39.53, float64(named.Peak()), 0.01)
	program := outside.Program(t, "ngspice")
	assert.InEpsilon(t, spice(t, program, named), float64(named.Peak()), 0.01)
	r := rand.New(rand.NewPCG(4, 7))
	between := func(low, high float64) float64 { return low + r.Float64()*(high-low) }
	for i := range 40 {
		c := power.Circuit{
			Volts:       unit.Volts(between(4, 26)),
			Milliohms:   unit.Milliohms(between(8, 120)),
			Nanohenries: unit.Nanohenries(between(30, 300)),
			CeramicUF:   unit.Microfarads(between(2, 44)),
		}
		if i%2 == 0 {
			c.BulkUF, c.BulkMilli = unit.Microfarads(between(100, 1000)), unit.Milliohms(between(10, 80))
		}
		assert.InEpsilon(t, spice(t, program, c), float64(c.Peak()), 0.01, "%+v", c)
	}
}

// Laws: the peak lies between the pack's voltage and twice that; more resistance
// never raises it.
func TestLawsOfThePeak(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 2000 {
		c := power.Circuit{
			Volts:       20,
			Milliohms:   unit.Milliohms(1 + 200*r.Float64()),
			Nanohenries: unit.Nanohenries(10 + 500*r.Float64()),
			CeramicUF:   unit.Microfarads(0.5 + 60*r.Float64()),
		}
		if r.IntN(2) == 0 {
			c.BulkUF, c.BulkMilli = unit.Microfarads(50+1000*r.Float64()), unit.Milliohms(5+100*r.Float64())
		}
		peak := c.Peak()
		require.GreaterOrEqual(t, peak, c.Volts)
		require.LessOrEqual(t, peak, 2*c.Volts)
		damped := c
		damped.Milliohms += 20
		require.LessOrEqual(t, damped.Peak(), peak+1e-6, "%+v", c)
	}
}
