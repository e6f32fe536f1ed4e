package power

import (
	"math"
	"math/cmplx"

	"yokeswap/core/measure/unit"
)

// Circuit is what a pack sees when its plug goes in: its own resistance and
// that of the leads, their inductance, the ceramic capacitance at their end and,
// where one is soldered on, an electrolytic with its series resistance.
type Circuit struct {
	Volts       unit.Volts
	Milliohms   unit.Milliohms
	Nanohenries unit.Nanohenries
	CeramicUF   unit.Microfarads
	BulkUF      unit.Microfarads // 0: none
	BulkMilli   unit.Milliohms   // series resistance of the electrolytic
}

// Peak is the highest voltage at the capacitors after the pack is plugged in
// with all of them empty: the step response of the circuit. Without an
// electrolytic that is the overshoot of a series RLC circuit,
// V·(1 + exp(−πζ/√(1−ζ²))) with ζ = R/2·√(C/L) (any circuit theory handbook);
// with one, the sum of the modes of the third-order circuit.
func (c Circuit) Peak() unit.Volts {
	r, l, c1 := float64(c.Milliohms)*1e-3, float64(c.Nanohenries)*1e-9, float64(c.CeramicUF)*1e-6
	if c1 <= 0 || l <= 0 {
		return c.Volts
	}
	if c.BulkUF <= 0 {
		damping := r / 2 * math.Sqrt(c1/l)
		if damping >= 1 {
			return c.Volts
		}
		return c.Volts * unit.Volts(1+math.Exp(-math.Pi*damping/math.Sqrt(1-damping*damping)))
	}
	c2, re := float64(c.BulkUF)*1e-6, math.Max(float64(c.BulkMilli)*1e-3, 1e-4)
	// Time in units of √(L·C1) keeps the numbers near one.
	unitTime := math.Sqrt(l * c1)
	zero := re * c2 / unitTime
	d := [4]float64{
		1,
		(re*c2 + r*(c1+c2)) / unitTime,
		(l*(c1+c2) + r*re*c1*c2) / (unitTime * unitTime),
		l * re * c1 * c2 / (unitTime * unitTime * unitTime),
	}
	modes := rootsOfCubic(d)
	var weights [3]complex128
	for i, p := range modes {
		slope := complex(d[1], 0) + complex(2*d[2], 0)*p + complex(3*d[3], 0)*p*p
		weights[i] = (1 + complex(zero, 0)*p) / (p * slope)
	}
	return c.Volts * unit.Volts(math.Max(1, highest(response(modes, weights), modes)))
}

// response is the sum of the modes over time, as a share of the pack's voltage. The first is real;
// the others are a pair of conjugates, of which one tells both, or real too.
func response(modes, weights [3]complex128) func(t float64) float64 {
	real0, weight0 := real(modes[0]), real(weights[0])
	a, b := modes[1], modes[2]
	if imag(a) == 0 {
		return func(t float64) float64 {
			return 1 + weight0*math.Exp(real0*t) + real(weights[1])*math.Exp(real(a)*t) + real(weights[2])*math.Exp(real(b)*t)
		}
	}
	return func(t float64) float64 {
		sin, cos := math.Sincos(imag(a) * t)
		return 1 + weight0*math.Exp(real0*t) + 2*math.Exp(real(a)*t)*(real(weights[1])*cos-imag(weights[1])*sin)
	}
}

// highest finds the top of the response: it is looked for from the fastest mode's
// time to the slowest's, each look a fixed share later than the last, and then
// closed in on by golden section.
func highest(at func(float64) float64, modes [3]complex128) float64 {
	fastest, slowest := 0.0, math.Inf(1)
	for _, p := range modes {
		fastest = math.Max(fastest, cmplx.Abs(p))
		slowest = math.Min(slowest, math.Abs(real(p)))
	}
	const looks = 64
	first, last := 0.2/fastest, 6/slowest
	later := math.Pow(last/first, 1.0/looks)
	best, top := first, math.Inf(-1)
	for i, t := 0, first; i <= looks; i, t = i+1, t*later {
		if v := at(t); v > top {
			best, top = t, v
		}
	}
	const golden = 0.6180339887498949
	low, high := best/later, best*later
	a, b := high-golden*(high-low), low+golden*(high-low)
	atA, atB := at(a), at(b)
	for range 24 {
		if atA > atB {
			high, b, atB = b, a, atA
			a = high - golden*(high-low)
			atA = at(a)
		} else {
			low, a, atA = a, b, atB
			b = low + golden*(high-low)
			atB = at(b)
		}
	}
	return math.Max(top, at((low+high)/2))
}

// rootsOfCubic finds the roots of d0 + d1·s + d2·s² + d3·s³, all coefficients
// above zero: the real one by bisection, the others from the quadratic left.
func rootsOfCubic(d [4]float64) [3]complex128 {
	value := func(s float64) float64 { return ((d[3]*s+d[2])*s+d[1])*s + d[0] }
	low := -1.0
	for value(low) > 0 {
		low *= 2
	}
	high := 0.0
	for range 200 {
		mid := (low + high) / 2
		if mid == low || mid == high {
			break // as near as numbers are
		}
		if value(mid) > 0 {
			high = mid
		} else {
			low = mid
		}
	}
	root := (low + high) / 2
	b := d[2]/d[3] + root
	c := d[1]/d[3] + root*b
	half := cmplx.Sqrt(complex(b*b/4-c, 0))
	if cmplx.Abs(half) < 1e-9 {
		half = 1e-6i // two equal roots are pulled apart by a hair
	}
	return [3]complex128{complex(root, 0), complex(-b/2, 0) + half, complex(-b/2, 0) - half}
}
