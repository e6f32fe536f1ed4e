// Package firmware orders releases and answers which of them a device can
// reach.
//
// Versions are dotted numbers of any length ("1.0.10"). They are ordered
// number by number, leading zeros are ignored and missing parts are zero, so
// 1.0.10 comes after 1.0.9 and 2 equals 2.0. Versions and ranges are strings
// kept as their author wrote them; all functions here are pure and panic on
// nothing. Parse and ParseRange say whether a text is well formed; the other
// functions treat malformed text as holding no version.
package firmware

import (
	"cmp"
	"fmt"
	"strings"
)

// Version is a dotted version such as "1.0.6". The empty string means "not
// known".
type Version string

// maxDigits bounds one number of a version, so that it cannot be mistaken for
// a serial number or a date with time.
const maxDigits = 12

// Parse says whether the text is a version and returns it without surrounding
// space.
func Parse(text string) (Version, error) {
	text = strings.TrimSpace(text)
	if text == "" {
		return "", fmt.Errorf("expected a dotted version such as 1.0.6, got nothing")
	}
	for part := range strings.SplitSeq(text, ".") {
		if !isNumber(part) {
			return "", fmt.Errorf("expected a dotted version such as 1.0.6, got %q", text)
		}
	}
	return Version(text), nil
}

func isNumber(s string) bool {
	if s == "" || len(s) > maxDigits {
		return false
	}
	for i := range len(s) {
		if s[i] < '0' || s[i] > '9' {
			return false
		}
	}
	return true
}

// Known says whether a version is stated at all.
func (v Version) Known() bool { return v != "" }

// Compare returns -1, 0 or 1 as v comes before, with or after w.
func (v Version) Compare(w Version) int {
	if v == w {
		return 0
	}
	a, b := string(v), string(w)
	for a != "" || b != "" {
		var x, y string
		x, a = cutNumber(a)
		y, b = cutNumber(b)
		if c := compareNumbers(x, y); c != 0 {
			return c
		}
	}
	return 0
}

// cutNumber takes the first number off a version, without its leading zeros.
func cutNumber(s string) (number, rest string) {
	start := 0
	for start < len(s) && s[start] == '0' {
		start++
	}
	for end := start; end < len(s); end++ {
		if s[end] == '.' {
			return s[start:end], s[end+1:]
		}
	}
	return s[start:], ""
}

// compareNumbers orders digit strings without leading zeros by value: the
// shorter one is the smaller.
func compareNumbers(x, y string) int {
	if len(x) != len(y) {
		return cmp.Compare(len(x), len(y))
	}
	return cmp.Compare(x, y)
}
