package firmware

import (
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/mod/semver"
	"pgregory.net/rapid"
)

func TestVersionsAreOrderedNumberByNumber(t *testing.T) {
	for _, c := range []struct {
		a, b string
		want int
	}{
		{"1.0.10", "1.0.9", 1}, // the case everybody gets wrong
		{"1.0.6", "1.0.6", 0},
		{"2", "2.0.0", 0},
		{"1.01", "1.1", 0},
		{"1.0.6", "1.1", -1},
		{"0.9.9.9.9", "1", -1},
		{"10", "9", 1},
		{"1.0.0.1", "1", 1},
	} {
		assert.Equal(t, c.want, Version(c.a).Compare(Version(c.b)), "%s against %s", c.a, c.b)
		assert.Equal(t, -c.want, Version(c.b).Compare(Version(c.a)), "%s against %s", c.b, c.a)
	}
}

// Outside check: golang.org/x/mod/semver orders the three-part strings both accept.
func TestOrderAgreesWithSemver(t *testing.T) {
	part := rapid.IntRange(0, 120)
	rapid.Check(t, func(t *rapid.T) {
		draw := func(name string) string {
			return strconv.Itoa(part.Draw(t, name)) + "." + strconv.Itoa(part.Draw(t, name)) + "." + strconv.Itoa(part.Draw(t, name))
		}
		a, b := draw("a"), draw("b")
		assert.Equal(t, semver.Compare("v"+a, "v"+b), Version(a).Compare(Version(b)))
	})
}

func TestParseRefusesWhatIsNotAVersion(t *testing.T) {
	for _, bad := range []string{"", " ", "v1", "1..2", "1.", ".1", "1.0-beta", "-1", "1,0", strings.Repeat("9", 13)} {
		_, err := Parse(bad)
		assert.Error(t, err, "%q", bad)
	}
	v, err := Parse(" 01.00.0600 ")
	require.NoError(t, err)
	assert.Equal(t, Version("01.00.0600"), v)
}

func TestRanges(t *testing.T) {
	for _, c := range []struct {
		rng   string
		holds []Version
		not   []Version
	}{
		{"*", []Version{"0", "99", ""}, nil},
		{"1.0.6", []Version{"1.0.6", "1.0.6.0"}, []Version{"1.0.7", ""}},
		{"<=1.0.6", []Version{"1.0.6", "0.1"}, []Version{"1.0.10", ""}},
		{">=1.1 <2", []Version{"1.1", "1.99"}, []Version{"1.0.10", "2", "2.0"}},
		{">1 <=2", []Version{"1.0.1", "2"}, []Version{"1", "2.1"}},
	} {
		r, err := ParseRange(c.rng)
		require.NoError(t, err, c.rng)
		for _, v := range c.holds {
			assert.True(t, r.Holds(v), "%s holds %q", c.rng, v)
		}
		for _, v := range c.not {
			assert.False(t, r.Holds(v), "%s does not hold %q", c.rng, v)
		}
	}
	assert.Equal(t, "1.1 or later, before 2", Range(">=1.1 <2").String())
	assert.Equal(t, "any release", Any.String())
}

func TestParseRangeRefusesSwappedEndsAndNonsense(t *testing.T) {
	for _, bad := range []string{">=2 <1.1", ">1 <1", ">=1 <1", "1.0 <2", ">=1 >=2", "<1 <2", "~1", ">=", "1 - 2", "^1"} {
		_, err := ParseRange(bad)
		assert.Error(t, err, "%q", bad)
	}
	_, err := ParseRange(">=2 <1.1")
	assert.ErrorContains(t, err, "lower end 2 is not below its upper end 1.1")
}

func TestPath(t *testing.T) {
	chain := []Move{
		{Version: "4.1"},
		{Version: "4.4", From: ">=4.1"},
		{Version: "4.6", From: "4.4", OneWay: true},
		{Version: "4.8", From: ">=4.6", RollbackTo: []Version{"4.6"}},
	}
	steps, ok := Path(chain, "4.1", "4.8")
	require.True(t, ok)
	assert.Equal(t, []Step{{From: "4.1", To: "4.4"}, {From: "4.4", To: "4.6", OneWay: true}, {From: "4.6", To: "4.8"}}, steps)

	steps, ok = Path(chain, "4.8", "4.6")
	require.True(t, ok)
	assert.Equal(t, []Step{{From: "4.8", To: "4.6", Back: true}}, steps)

	_, ok = Path(chain, "4.6", "4.4")
	assert.False(t, ok, "a one-way door does not open again")
	_, ok = Path(chain, "", "4.4")
	assert.False(t, ok, "the newest release does not install over everything")
	_, ok = Path([]Move{{Version: "1.0"}, {Version: "1.1"}}, "", "1.0")
	assert.False(t, ok, "over an unknown release 1.0 could be a downgrade")
	steps, ok = Path([]Move{{Version: "1.0"}, {Version: "1.1"}}, "", "1.1")
	require.True(t, ok)
	assert.Len(t, steps, 1)
	steps, ok = Path(chain, "4.4", "4.4.0")
	assert.True(t, ok)
	assert.Empty(t, steps)
}
