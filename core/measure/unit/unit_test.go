package unit

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestQuantitiesPrintThemselves(t *testing.T) {
	assert.Equal(t, "25.2 V", Volts(25.2).String())
	assert.Equal(t, "0.0 V", Volts(-0.001).String())
	assert.Equal(t, "5.0 V", Volts(5).String())
	assert.Equal(t, "4.35 V", Volts(4.35).String())
	assert.Equal(t, "1.10 A", Amps(1.1).String())
	assert.Equal(t, "470 µF", Microfarads(470).String())
	assert.Equal(t, "23.4 km", Kilometres(23.4).String())
}

// Ohm's law and P = U·I, as any physics handbook has them: 12 W at 8 V is 1.5 A.
func TestElectricalRelations(t *testing.T) {
	assert.InDelta(t, 3.0, float64(Milliohms(50).Drop(60)), 1e-12)
	assert.InDelta(t, 1.5, float64(Watts(12).Current(8)), 1e-12)
	assert.True(t, math.IsInf(float64(Watts(1).Current(0)), 1))
}

// Quantities that a person would call equal are equal, however they were reckoned,
// and the digits printed show the difference there is.
func TestEqualityIsExact(t *testing.T) {
	six := Volts(0)
	for range 6 {
		six += 4.2
	}
	assert.Zero(t, Compare(six, 25.2))
	assert.False(t, Over(six, 25.2), "a limit is inclusive")
	assert.True(t, Over(six+0.001, 25.2))
	assert.Equal(t, "0 mm", Less(Millimetres(0.1+0.2), 0.3).String())
	assert.Equal(t, "0.3 mm", Millimetres(0.1+0.2).String())
	a, b := Pair(Volts(16.84), Volts(16.8))
	assert.Equal(t, [2]string{"16.84 V", "16.80 V"}, [2]string{a, b})
	a, b = Pair(Volts(16.801), Volts(16.8))
	assert.Equal(t, [2]string{"16.801 V", "16.800 V"}, [2]string{a, b})
	a, b = Pair(Volts(16.8), Volts(16.8))
	assert.Equal(t, [2]string{"16.8 V", "16.8 V"}, [2]string{a, b})
}

// A second decimal below ten volts, none from there on; the sign is a minus.
func TestVoltsAtTheirDecimals(t *testing.T) {
	for volts, says := range map[Volts]string{9.99: "9.99 V", 10: "10.0 V", -9.99: "−9.99 V", -10: "−10.0 V", 9.5: "9.5 V", -0.001: "0.0 V"} {
		assert.Equal(t, says, volts.String())
	}
	a, b := Pair(Volts(12.0004), Volts(12.0006))
	assert.Equal(t, [2]string{"12.000 V", "12.001 V"}, [2]string{a, b}, "three decimals tell any two apart that differ")
}
