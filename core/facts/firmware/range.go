package firmware

import (
	"fmt"
	"slices"
	"strings"
)

// Range is a set of versions in one of these forms:
//
//   - every version
//     1.0.6       this version alone
//     <=1.0.6     up to and including (also <, >=, >)
//     >=1.1 <2    both: from 1.1, before 2
//
// The empty string is the same as "*".
type Range string

// Any is the range that holds every version.
const Any Range = "*"

type bound struct {
	operator string // one of < <= >= > =
	version  Version
}

// ParseRange says whether the text is a range, and refuses one that can hold
// no version because its ends are swapped.
func ParseRange(text string) (Range, error) {
	text = strings.TrimSpace(text)
	if text == "" || text == "*" {
		return Any, nil
	}
	var low, high *bound
	for field := range strings.FieldsSeq(text) {
		b := parseBound(field)
		if _, err := Parse(string(b.version)); err != nil {
			return "", fmt.Errorf("expected a range such as *, 1.0.6, <=1.0.6 or >=1.1 <2, got %q", text)
		}
		slot := &low
		if b.operator[0] == '<' {
			slot = &high
		}
		if *slot != nil {
			return "", fmt.Errorf("expected at most one lower and one upper end, got %q", text)
		}
		*slot = &b
	}
	if low == nil || high == nil {
		return Range(text), nil
	}
	if low.operator == "=" {
		return "", fmt.Errorf("expected a single version or two ends, got %q", text)
	}
	c := low.version.Compare(high.version)
	if c > 0 || c == 0 && (low.operator == ">" || high.operator == "<") {
		return "", fmt.Errorf("the range %q holds no version: its lower end %s is not below its upper end %s",
			text, low.version, high.version)
	}
	return Range(text), nil
}

func parseBound(field string) bound {
	for _, op := range [...]string{"<=", ">=", "<", ">", "="} {
		if rest, ok := strings.CutPrefix(field, op); ok {
			return bound{op, Version(rest)}
		}
	}
	return bound{"=", Version(field)}
}

// IsAny says whether the range holds every version, so that a version need
// not be known to lie in it.
func (r Range) IsAny() bool {
	return r == "" || r == Any || (r[0] <= ' ' || r[len(r)-1] <= ' ') && Range(strings.TrimSpace(string(r))).IsAny()
}

// Named are the versions a range names that lie in it: a release that somebody states.
func (r Range) Named() (list []Version) {
	if r.IsAny() {
		return nil
	}
	for field := range strings.FieldsSeq(string(r)) {
		if b := parseBound(field); r.Holds(b.version) {
			list = append(list, b.version)
		}
	}
	return list
}

// Holds says whether the version lies in the range. An unknown version lies
// only in the range of every version.
func (r Range) Holds(v Version) bool {
	if r.IsAny() {
		return true
	}
	if !v.Known() {
		return false
	}
	for field := range strings.FieldsSeq(string(r)) {
		b := parseBound(field)
		c := v.Compare(b.version)
		switch b.operator {
		case "<":
			if c >= 0 {
				return false
			}
		case "<=":
			if c > 0 {
				return false
			}
		case ">=":
			if c < 0 {
				return false
			}
		case ">":
			if c <= 0 {
				return false
			}
		default:
			if c != 0 {
				return false
			}
		}
	}
	return true
}

// Same says whether two ranges are written with the same ends, however spaced
// and in whatever order.
func (r Range) Same(s Range) bool {
	if r.IsAny() || s.IsAny() {
		return r.IsAny() == s.IsAny()
	}
	a, b := strings.Fields(string(r)), strings.Fields(string(s))
	if len(a) != len(b) {
		return false
	}
	for _, x := range a {
		end := parseBound(x)
		if !slices.ContainsFunc(b, func(y string) bool {
			other := parseBound(y)
			return end.operator == other.operator && end.version.Compare(other.version) == 0
		}) {
			return false
		}
	}
	return true
}

// String says the range in words: "1.1 or later, before 2".
func (r Range) String() string {
	if r.IsAny() {
		return "any release"
	}
	var says []string
	for field := range strings.FieldsSeq(string(r)) {
		b := parseBound(field)
		v := string(b.version)
		switch b.operator {
		case "<":
			says = append(says, "before "+v)
		case "<=":
			says = append(says, v+" or earlier")
		case ">=":
			says = append(says, v+" or later")
		case ">":
			says = append(says, "after "+v)
		default:
			says = append(says, v+" alone")
		}
	}
	return strings.Join(says, ", ")
}
