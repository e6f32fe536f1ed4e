package unit

import (
	"cmp"
	"math"
)

// Compare orders two quantities of one unit in whole thousandths of it: millivolts,
// milliamperes, micrometres. It is negative where a is less, zero where they are the
// same, positive where a is more. Sums and products of decimal values are off by
// less than that: 6 × 4.2 V is 25.2 V.
func Compare[T ~float64](a, b T) int { return cmp.Compare(thousandths(a), thousandths(b)) }

// Over says whether a lies above b. A limit is inclusive: what equals it is not over.
func Over[T ~float64](a, b T) bool { return Compare(a, b) > 0 }

// Less gives a − b in whole thousandths, so that it prints as a person writes it.
func Less[T ~float64](a, b T) T { return T((thousandths(a) - thousandths(b)) / 1000) }

func thousandths[T ~float64](x T) float64 { return math.Round(float64(x) * 1000) }

// Printed is a quantity that prints itself, as usual and with a number of decimals.
type Printed interface {
	~float64
	String() string
	Digits(decimals int) string
}

// Pair prints two quantities with as many digits as their difference needs: 16.84 V
// beside 16.80 V where both would be "16.8 V".
func Pair[T Printed](a, b T) (string, string) {
	as, bs := a.String(), b.String()
	for decimals := 1; as == bs && Compare(a, b) != 0 && decimals <= 3; decimals++ {
		as, bs = a.Digits(decimals), b.Digits(decimals)
	}
	return as, bs
}

// Digits prints volts with a number of decimals.
func (v Volts) Digits(n int) string { return decimal(float64(v), n) + " V" }

// Digits prints amperes with a number of decimals.
func (a Amps) Digits(n int) string { return decimal(float64(a), n) + " A" }

// Digits prints millimetres with a number of decimals.
func (l Millimetres) Digits(n int) string { return decimal(float64(l), n) + " mm" }

// Digits prints milliwatts with a number of decimals.
func (p Milliwatts) Digits(n int) string { return decimal(float64(p), n) + " mW" }

// Digits prints degrees with a number of decimals.
func (a Degrees) Digits(n int) string { return decimal(float64(a), n) + "°" }
