package prove

import (
	"fmt"
	"math"
)

// Sure is how rarely chance alone may do as well for a difference to be called found: one
// time in twenty (common practice in statistics).
const Sure = 0.05

// Chance is how often chance alone does at least as well: of so many spots that differ, at
// least so many are better where better and worse are alike. It lies between 0 and 1; with
// no spot that differs it is 1.
//
// Source: the exact one-sided sign test, W. J. Dixon and A. M. Mood, "The statistical sign
// test", Journal of the American Statistical Association 41 (1946). Spots that are the same
// on both sides are left out of it.
func Chance(better, differing int) float64 {
	sum := 0.0
	for k := max(better, 0); k <= differing; k++ {
		sum += ways(differing, k)
	}
	return min(sum, 1)
}

// ways is how often chance makes exactly k of n spots better.
func ways(n, k int) float64 {
	if k > n {
		return 0
	}
	// The logarithm of the binomial coefficient keeps hundreds of spots from overflowing.
	all, _ := math.Lgamma(float64(n + 1))
	some, _ := math.Lgamma(float64(k + 1))
	rest, _ := math.Lgamma(float64(n - k + 1))
	return math.Exp(all - some - rest - float64(n)*math.Ln2)
}

// More is how many spots more it takes, all of them better, until chance does as well no
// more often than Sure; 0 where it is so already.
func More(better, differing int) int {
	more := 0
	for Chance(better+more, differing+more) > Sure {
		more++
	}
	return more
}

// Often is a chance in words: "one time in nine"; from about a half on, how it is usually said.
func Often(chance float64) string {
	switch n := int(math.Round(1 / max(chance, 1e-6))); {
	case chance >= 0.75:
		return "nearly always"
	case chance >= 0.55:
		return "more often than not"
	case chance >= 0.45:
		return "every other time"
	case n >= 1000:
		return "less than one time in a thousand"
	default:
		return "one time in " + number(n)
	}
}

var words = []string{"none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven",
	"twelve"}

// number is a count in words up to twelve.
func number(n int) string {
	if n >= 0 && n < len(words) {
		return words[n]
	}
	return fmt.Sprint(n)
}
