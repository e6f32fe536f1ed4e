// Package radio is the arithmetic of a radio link in decibels: free space,
// polarisation, and what a difference means for the range.
package radio

import (
	"math"

	"yokeswap/core/measure/unit"
)

// FreeSpaceLoss between two isotropic antennas: 32.4 + 20·log f + 20·log d with f
// in megahertz and d in kilometres (ITU-R P.525).
func FreeSpaceLoss(distance unit.Kilometres, f unit.Megahertz) unit.Decibels {
	return unit.Decibels(32.4 + 20*math.Log10(float64(f)) + 20*math.Log10(float64(distance)))
}

// RangeFactor is by how much a change in the budget stretches the distance in
// free space: 6.02 dB double it.
func RangeFactor(change unit.Decibels) float64 { return math.Pow(10, float64(change)/20) }

// Polarisation of an antenna.
type Polarisation string

// The polarisations.
const (
	RHCP   Polarisation = "rhcp" // right-hand circular
	LHCP   Polarisation = "lhcp" // left-hand circular
	Linear Polarisation = "linear"
)

// Known says whether the polarisation is one of them.
func (p Polarisation) Known() bool { return p == RHCP || p == LHCP || p == Linear }

// crossPolar is what is lost between opposite hands: antennas are never perfect,
// and 20 dB and more is what builders see (common practice).
const crossPolar unit.Decibels = 20

// PolarisationLoss between two antennas: none for the same hand, half the power,
// 3.01 dB, between linear and circular however they lie (by the definition of
// circular polarisation), and most of it between opposite hands. Two linear
// antennas are taken as lying the same way.
func PolarisationLoss(a, b Polarisation) unit.Decibels {
	switch {
	case a == b:
		return 0
	case a == Linear || b == Linear:
		return unit.Decibels(10 * math.Log10(2))
	}
	return crossPolar
}

// DBm is a power in decibels over a milliwatt.
func DBm(p unit.Milliwatts) unit.Decibels { return unit.Decibels(10 * math.Log10(float64(p))) }

// Milliwatts is the power of a level in decibels over a milliwatt.
func Milliwatts(level unit.Decibels) unit.Milliwatts {
	return unit.Milliwatts(math.Pow(10, float64(level)/10))
}

// DipoleGain is the gain of a thin half-wave dipole over an isotropic antenna, at
// an angle from its axis: 1.64 · (cos(π/2·cos θ)/sin θ)² (any antenna handbook).
func DipoleGain(angle unit.Degrees) unit.Decibels {
	theta := float64(angle) * math.Pi / 180
	if math.Abs(math.Sin(theta)) < 1e-9 {
		return unit.Decibels(math.Inf(-1))
	}
	field := math.Cos(math.Pi/2*math.Cos(theta)) / math.Sin(theta)
	return unit.Decibels(10 * math.Log10(1.64*field*field))
}

// BeamLoss is how much weaker than in its middle a beam is at an angle off it. The
// beam is given by its width between half powers, from 0 to 360°, and taken as a
// power of a cardioid, ((1 + cos θ)/2)ⁿ, with n from the width (the shape is from
// memory; the half power at half the width is the definition). Nothing of an
// antenna is weaker than 30 dB below its best (from memory).
func BeamLoss(width, off unit.Degrees) unit.Decibels {
	const floor = -30
	cardioid := func(deg unit.Degrees) float64 { return (1 + math.Cos(float64(deg)*math.Pi/180)) / 2 }
	if width >= 360 {
		return 0
	}
	n := math.Log(0.5) / math.Log(cardioid(width/2))
	return max(floor, unit.Decibels(10*n*math.Log10(cardioid(off))))
}

// Wavelength in free space.
func Wavelength(f unit.Megahertz) unit.Millimetres { return unit.Millimetres(299792.458 / float64(f)) }
