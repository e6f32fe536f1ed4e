// Package wire knows copper wire: the diameter a gauge stands for, what a
// length of it resists, and the inductance of a pair of leads.
package wire

import (
	"math"
	"strconv"

	"yokeswap/core/measure/unit"
)

// Gauge is an American wire gauge, 0 (8.25 mm) to 40 (0.08 mm).
type Gauge int

// Known says whether the gauge lies in the range the formulas are used for.
func (g Gauge) Known() bool { return g >= 0 && g <= 40 }

// Diameter of the bare conductor: 0.127 mm × 92^((36−n)/39), as defined in
// ASTM B258.
func (g Gauge) Diameter() unit.Millimetres {
	return unit.Millimetres(0.127 * math.Pow(92, float64(36-g)/39))
}

// AreaMM2 is the conductor's section in mm².
func (g Gauge) AreaMM2() float64 {
	d := float64(g.Diameter())
	return math.Pi * d * d / 4
}

// resistivity of annealed copper at 20 °C, in Ω·mm² per metre (IEC 60028).
const resistivity = 1.0 / 58

// Resistance of one conductor of the length, at 20 °C. Stranded wire is a few
// per cent above it.
func (g Gauge) Resistance(length unit.Millimetres) unit.Milliohms {
	return unit.Milliohms(resistivity * float64(length) / g.AreaMM2())
}

// insulation is the wall of silicone around a lead (from memory: 0.6 mm is usual
// for the gauges of flight packs).
const insulation unit.Millimetres = 0.6

// PairInductance is the inductance of a lead there and back, the two lying side
// by side: µ0/π · l · (ln(D/r) + 1/4), with D from centre to centre (Grover,
// Inductance Calculations, the parallel conductors of a return circuit).
func (g Gauge) PairInductance(length unit.Millimetres) unit.Nanohenries {
	apart := float64(g.Diameter() + 2*insulation)
	radius := float64(g.Diameter()) / 2
	return unit.Nanohenries(0.4 * float64(length) * (math.Log(apart/radius) + 0.25)) // µ0/π = 0.4 nH/mm
}

// carries is what a wire in free air carries, in amperes, by gauge from 10 on (the
// chassis wiring column of the usual tables of wire gauges, from memory).
var carries = [...]unit.Amps{
	55, 47, 41, 35, 32, 28,
	22, 19, 16, 14, 11, 9,
	7, 4.7, 3.5, 2.7, 2.2, 1.7,
	1.4, 1.2, 0.86, 0.7, 0.53,
}

// Thinnest is the current that even the thinnest wire in use carries, 32 AWG.
const Thinnest unit.Amps = 0.53

// Carries is the current a wire of the gauge carries for long. Gauges thicker than 10
// count as 10, thinner than 32 as none.
func (g Gauge) Carries() unit.Amps {
	at := max(0, int(g)-10)
	if at >= len(carries) {
		return 0
	}
	return carries[at]
}

// String prints a gauge: "28 AWG".
func (g Gauge) String() string { return strconv.Itoa(int(g)) + " AWG" }
