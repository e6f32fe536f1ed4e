// Package unit holds the quantities of the job as named float types, so that
// volts are never added to watts and every number prints with its unit.
//
// A quantity that may be missing is a pointer to one of these types. Missing
// is not zero: the gates answer unknown where a value they need is nil.
package unit

import (
	"bytes"
	"math"
	"strconv"
)

// Quantities. All are plain finite numbers in the unit the name says.
type (
	// Volts is an electric potential in volts.
	Volts float64
	// Amps is a current in amperes.
	Amps float64
	// Watts is a power in watts.
	Watts float64
	// Milliohms is a resistance in thousandths of an ohm.
	Milliohms float64
	// Grams is a mass in grams.
	Grams float64
	// Microfarads is a capacitance in millionths of a farad.
	Microfarads float64
	// MegabitsPerSecond is a data rate.
	MegabitsPerSecond float64
	// Kilometres is a distance in kilometres.
	Kilometres float64
	// Metres is a distance in metres.
	Metres float64
	// MilliampHours is a charge in thousandths of an ampere hour.
	MilliampHours float64
	// Millimetres is a length in millimetres.
	Millimetres float64
	// Decibels is a ratio of powers, or a level over a reference named with it.
	Decibels float64
	// Megahertz is a frequency.
	Megahertz float64
	// Degrees is an angle.
	Degrees float64
	// Nanohenries is an inductance in thousand-millionths of a henry.
	Nanohenries float64
	// Milliwatts is a power in thousandths of a watt.
	Milliwatts float64
)

// String prints as a bench meter does: one decimal ("25.2 V"), and below 10 V
// a second one where it is not zero ("4.35 V").
func (v Volts) String() string {
	var buffer [32]byte // one allocation: voltages are printed by the thousand
	if v > -10 && v < 10 {
		text := appendDecimal(buffer[:0], float64(v), 2)
		return string(append(bytes.TrimSuffix(text, []byte("0")), " V"...))
	}
	return string(append(appendDecimal(buffer[:0], float64(v), 1), " V"...))
}

func (a Amps) String() string              { return decimal(float64(a), 2) + " A" }
func (w Watts) String() string             { return decimal(float64(w), 1) + " W" }
func (r Milliohms) String() string         { return shortest(float64(r)) + " mΩ" }
func (m Grams) String() string             { return shortest(float64(m)) + " g" }
func (c Microfarads) String() string       { return shortest(float64(c)) + " µF" }
func (b MegabitsPerSecond) String() string { return shortest(float64(b)) + " Mb/s" }
func (d Metres) String() string            { return shortest(float64(d)) + " m" }
func (d Kilometres) String() string        { return shortest(float64(d)) + " km" }
func (q MilliampHours) String() string     { return shortest(float64(q)) + " mAh" }
func (l Millimetres) String() string       { return shortest(float64(l)) + " mm" }
func (d Decibels) String() string          { return decimal(float64(d), 1) + " dB" }
func (f Megahertz) String() string         { return shortest(float64(f)) + " MHz" }
func (a Degrees) String() string           { return shortest(float64(a)) + "°" }
func (l Nanohenries) String() string       { return decimal(float64(l), 0) + " nH" }
func (p Milliwatts) String() string        { return shortest(float64(p)) + " mW" }

// Drop is the voltage lost by the current through the resistance (Ohm's law).
func (r Milliohms) Drop(current Amps) Volts {
	return Volts(float64(current) * float64(r) / 1000)
}

// Current is what a constant-power load draws at the voltage; voltage must be
// above zero, else the answer is +Inf.
func (w Watts) Current(at Volts) Amps {
	if at <= 0 {
		return Amps(math.Inf(1))
	}
	return Amps(float64(w) / float64(at))
}

func decimal(x float64, digits int) string {
	return string(appendDecimal(nil, x, digits))
}

func appendDecimal(to []byte, x float64, digits int) []byte {
	return withMinus(strconv.AppendFloat(to, x, 'f', digits, 64))
}

// minus is the sign as it is written, not the hyphen of a keyboard.
const minus = "\u2212"

// withMinus gives a printed number its sign; never "-0.0".
func withMinus(text []byte) []byte {
	if text[0] != '-' {
		return text
	}
	if len(bytes.Trim(text, "-0.")) == 0 {
		return text[1:]
	}
	return append([]byte(minus), text[1:]...)
}

// shortest prints in as few digits as it takes, to the thousandth: what lies beyond
// comes from reckoning.
func shortest(x float64) string {
	return string(withMinus(strconv.AppendFloat(nil, math.Round(x*1000)/1000+0, 'f', -1, 64)))
}
