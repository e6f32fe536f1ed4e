package firmware

import (
	"strconv"
	"strings"
	"testing"

	"github.com/hashicorp/go-version"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// dotted draws a version of one to four small numbers, so that equal parts and
// missing ones are common.
var dotted = rapid.Custom(func(t *rapid.T) string {
	parts := rapid.SliceOfN(rapid.IntRange(0, 11), 1, 4).Draw(t, "parts")
	text := make([]string, len(parts))
	for i, p := range parts {
		text[i] = strconv.Itoa(p)
	}
	return strings.Join(text, ".")
})

// Outside check: github.com/hashicorp/go-version orders dotted versions of any
// length as we do, and its constraints hold the same versions as our ranges.
func TestRangesAgreeWithALibrary(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		low, high, v := dotted.Draw(t, "low"), dotted.Draw(t, "high"), dotted.Draw(t, "v")
		theirs, err := version.NewVersion(v)
		require.NoError(t, err)
		other, err := version.NewVersion(low)
		require.NoError(t, err)
		require.Equal(t, theirs.Compare(other), Version(v).Compare(Version(low)), "%s against %s", v, low)

		lower, upper := rapid.SampledFrom([]string{">", ">="}).
			Draw(t, "lower"),
			rapid.SampledFrom([]string{"<", "<="}).
				Draw(t, "upper")
		r, err := ParseRange(lower + low + " " + upper + high)
		if err != nil {
			require.GreaterOrEqual(t, Version(low).Compare(Version(high)), 0, "only a range that holds nothing is refused")
			return
		}
		constraint, err := version.NewConstraint(lower + low + ", " + upper + high)
		require.NoError(t, err)
		require.Equal(t, constraint.Check(theirs), r.Holds(Version(v)), "%s in %s", v, r)
	})
}

// A law: the order is one: it turns around, and goes through a third.
func TestTheOrderIsAnOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b, c := Version(dotted.Draw(t, "a")), Version(dotted.Draw(t, "b")), Version(dotted.Draw(t, "c"))
		require.Equal(t, a.Compare(b), -b.Compare(a))
		if a.Compare(b) <= 0 && b.Compare(c) <= 0 {
			require.LessOrEqual(t, a.Compare(c), 0)
		}
	})
}
