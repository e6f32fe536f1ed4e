package firmware

import (
	"fmt"
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
			return strconv.Itoa(
				part.Draw(t, name),
			) + "." + strconv.Itoa(
				part.Draw(t, name),
			) + "." + strconv.Itoa(
				part.Draw(t, name),
			)
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

// between is a way between versions alone.
func between(c *Chart, from, to Version) ([]Step, bool) {
	return c.Way(State{Version: from}, State{Version: to})
}

func TestWaysBetweenReleases(t *testing.T) {
	chain := NewChart([]Move{
		{Version: "4.1"},
		{Version: "4.4", From: ">=4.1"},
		{Version: "4.6", From: "4.4", OneWay: true},
		{Version: "4.8", From: ">=4.6", RollbackTo: []Version{"4.6"}},
	}, nil, nil)
	steps, ok := between(chain, "4.1", "4.8")
	require.True(t, ok)
	assert.Equal(
		t,
		[]Step{{From: "4.1", To: "4.4", OneWay: true}, {From: "4.4", To: "4.6", OneWay: true}, {From: "4.6", To: "4.8"}},
		steps,
		"one-way where it is marked, and where no rollback is stated",
	)

	steps, ok = between(chain, "4.8", "4.6")
	require.True(t, ok)
	assert.Equal(t, []Step{{From: "4.8", To: "4.6", Back: true}}, steps)

	open := NewChart([]Move{{Version: "1.0"}, {Version: "1.1"}}, nil, nil)
	for _, c := range []struct {
		chart    *Chart
		from, to Version
		says     string
	}{
		{chain, "4.6", "4.4", "a one-way door does not open again"},
		{chain, "", "4.4", "the newest release does not install over everything"},
		{open, "", "1.0", "over an unknown release 1.0 could be a downgrade"},
		{open, "1.0.5", "1.0", "a release not listed is one nobody has read"},
		{open, "1.0", "1.2", "no such release"},
	} {
		_, ok = between(c.chart, c.from, c.to)
		assert.False(t, ok, c.says)
	}
	for _, from := range []Version{"", "1.0.5"} {
		steps, ok = between(open, from, "1.1")
		require.True(t, ok)
		assert.Equal(t, []Step{{From: from, To: "1.1", OneWay: true}}, steps)
	}
	steps, ok = between(chain, "4.4", "4.4.0")
	assert.True(t, ok)
	assert.Empty(t, steps)
}

// Fewer one-way doors come before fewer steps.
func TestAWayRoundTheDoor(t *testing.T) {
	c := NewChart([]Move{
		{Version: "1.0"},
		{Version: "1.2", From: "1.0", RollbackTo: []Version{"1.0"}},
		{Version: "2.0", From: ">=1.0", OneWay: true},
		{Version: "2.1", From: "1.2", RollbackTo: []Version{"2.0", "1.2"}},
	}, nil, nil)
	steps, ok := between(c, "1.0", "2.0")
	require.True(t, ok)
	assert.Equal(
		t,
		[]Step{{From: "1.0", To: "1.2"}, {From: "1.2", To: "2.1"}, {From: "2.1", To: "2.0", Back: true}},
		steps,
	)
}

// A chain that runs through modes: updated in mode a to get mode b, switched to
// b, updated again to get c, switched, and updated again (common practice).
func TestAChainThroughModes(t *testing.T) {
	c := NewChart([]Move{
		{Version: "1"},
		{Version: "2", From: "1", Mode: "a"},
		{Version: "3", From: "2", Mode: "b"},
		{Version: "4", From: "3", Mode: "c"},
	}, []Mode{{ID: "a", On: "<3"}, {ID: "b", On: ">=2"}, {ID: "c", On: ">=3"}}, nil)
	steps, ok := c.Way(State{Version: "1", Mode: "a"}, State{Version: "4"})
	require.True(t, ok)
	assert.Equal(t, []Step{
		{From: "1", To: "2", OneWay: true}, {From: "2", FromMode: "a", Mode: "b"},
		{From: "2", To: "3", OneWay: true}, {From: "3", FromMode: "b", Mode: "c"},
		{From: "3", To: "4", OneWay: true},
	}, steps)
	steps, ok = c.Way(State{Version: "1"}, State{Version: "2"})
	require.True(t, ok)
	assert.Equal(
		t,
		[]Step{{From: "1", Mode: "a"}, {From: "1", To: "2", OneWay: true}},
		steps,
		"a mode nobody has read is set first",
	)
	steps, ok = c.Way(State{Version: "3", Mode: "b"}, State{Version: "3", Mode: "c"})
	require.True(t, ok)
	assert.Equal(t, []Step{{From: "3", FromMode: "b", Mode: "c"}}, steps)
	_, ok = c.Way(State{Version: "3"}, State{Version: "3", Mode: "a"})
	assert.False(t, ok, "release 3 has lost mode a")
}

// Nothing that wants an activated device is installed before it is, also where each release
// wants one.
func TestReleasesThatAllWantActivation(t *testing.T) {
	c := NewChart([]Move{{Version: "1.0", Activated: true}, {Version: "2.0", From: ">=1.0", Activated: true}}, nil, new(Any))
	steps, ok := c.Way(State{Version: "1.0"}, State{Version: "2.0"})
	require.True(t, ok)
	assert.Equal(t, []Step{{From: "1.0", Activate: true}, {From: "1.0", To: "2.0", OneWay: true}}, steps)
}

// A release that takes a mode is never installed past that mode, also where each release
// of the device takes one.
func TestAReleaseThatTakesAMode(t *testing.T) {
	c := NewChart([]Move{{Version: "1.0", Mode: "b"}, {Version: "2.0", Mode: "b", From: ">=1.0"}},
		[]Mode{{ID: "a", On: Any}, {ID: "b", On: Any}}, nil)
	steps, ok := c.Way(State{Version: "1.0", Mode: "a"}, State{Version: "2.0"})
	require.True(t, ok)
	assert.Len(t, steps, 2, "the mode first: %v", steps)
}

func TestActivationBeforeAndAfter(t *testing.T) {
	moves := func(activated bool) []Move {
		return []Move{{Version: "1.0"}, {Version: "1.1", Activated: activated, RollbackTo: []Version{"1.0"}}}
	}
	both := State{Version: "1.1", Activated: true}
	for _, c := range []struct {
		name  string
		chart *Chart
		want  []Step
	}{
		{"late where nothing is said", NewChart(moves(false), nil, new(Any)), []Step{{From: "1.0", To: "1.1"}, {From: "1.1", Activate: true}}},
		{"first where the release wants it", NewChart(moves(true), nil, new(Any)), []Step{{From: "1.0", Activate: true}, {From: "1.0", To: "1.1"}}},
		{"only on the old release", NewChart(moves(false), nil, new(Range("<1.1"))), []Step{{From: "1.0", Activate: true}, {From: "1.0", To: "1.1"}}},
		{"only on the new release", NewChart(moves(false), nil, new(Range(">=1.1"))), []Step{{From: "1.0", To: "1.1"}, {From: "1.1", Activate: true}}},
		{"not needed", NewChart(moves(true), nil, nil), []Step{{From: "1.0", To: "1.1"}}},
	} {
		steps, ok := c.chart.Way(State{Version: "1.0"}, both)
		require.True(t, ok, c.name)
		assert.Equal(t, c.want, steps, c.name)
	}
	_, ok := NewChart(moves(true), nil, new(Range(">=1.1"))).Way(State{Version: "1.0"}, both)
	assert.False(t, ok, "each waits for the other")
}

// A law, against trying every walk without a loop: no way is better, and each
// step of a way is one of the walks' own.
func TestNoWayIsBetter(t *testing.T) {
	versions := []Version{"1.0", "1.1", "1.2", "1.3"}
	rapid.Check(t, func(t *rapid.T) {
		ranges := rapid.SampledFrom([]Range{"*", ">=1.1", "1.0", "<=1.1", "1.2"})
		modes := rapid.SampledFrom([]string{"", "", "a", "b"})
		var moves []Move
		for i, v := range versions {
			m := Move{
				Version:   v,
				From:      ranges.Draw(t, "from"),
				Mode:      modes.Draw(t, "mode"),
				OneWay:    rapid.Bool().Draw(t, "one-way"),
				Activated: rapid.Bool().Draw(t, "activated"),
			}
			if i > 0 && rapid.Bool().Draw(t, "rolls back") {
				m.RollbackTo = []Version{versions[rapid.IntRange(0, i-1).Draw(t, "to")]}
			}
			moves = append(moves, m)
		}
		c := NewChart(
			moves,
			[]Mode{{ID: "a", On: ranges.Draw(t, "a")}, {ID: "b", On: "*"}},
			new(ranges.Draw(t, "activation")),
		)
		from := State{Version: rapid.SampledFrom(versions).Draw(t, "carries"), Mode: modes.Draw(t, "in")}
		goal := State{Version: rapid.SampledFrom(versions).Draw(t, "goal"), Activated: rapid.Bool().Draw(t, "to activate")}
		best := [2]int{}
		found := false
		var walk func(s State, been []State, cost [2]int)
		walk = func(s State, been []State, cost [2]int) {
			if s.Version == goal.Version && (s.Activated || !goal.Activated) {
				if !found || cost[0] < best[0] || cost[0] == best[0] && cost[1] < best[1] {
					best, found = cost, true
				}
				return
			}
			here := node{c.place(s.Version), s.Mode, s.Activated}
			visit := func(to node, oneWay bool) {
				next := State{c.moves[to.at].Version, to.mode, to.activated}
				for _, b := range been {
					if b == next {
						return
					}
				}
				price := [2]int{cost[0], cost[1] + 1}
				if oneWay {
					price[0]++
				}
				walk(next, append(been, next), price)
			}
			c.lay()
			(&tree{chart: c, origin: origin{from: s, activated: goal.Activated}}).leave(here, visit)
			for _, mode := range c.modes { // also those the search takes for no use
				if mode.ID != s.Mode && c.has(mode, here.at) {
					visit(node{here.at, mode.ID, here.activated}, false)
				}
			}
		}
		walk(from, []State{from}, [2]int{})
		steps, ok := c.Way(from, goal)
		require.Equal(t, found, ok)
		require.Equal(t, best, [2]int{Doors(steps), len(steps)})
	})
}

// The search grows with what is reachable: modes that nothing asks for are not walked
// through.
func TestASearchGrowsWithWhatIsReachable(t *testing.T) {
	var releases []Move
	var modes []Mode
	for i := range 200 {
		releases = append(releases, Move{Version: Version(fmt.Sprintf("1.%d", i)), From: Any})
	}
	for i := range 20 {
		modes = append(modes, Mode{ID: fmt.Sprintf("mode-%d", i), On: Any})
	}
	releases[100].Mode = "mode-3"
	c := NewChart(releases, modes, nil)
	from := State{Version: "1.0", Mode: "mode-0", Activated: true}
	_, ok := c.Way(from, State{Version: "1.100"})
	assert.True(t, ok)
	assert.LessOrEqual(t, len(c.tree(origin{from, "", false}).nodes), 2*200)
}

func TestBlanksAroundARangeChangeNothing(t *testing.T) {
	for _, r := range []Range{" ", " * ", "* ", "\t"} {
		assert.True(t, r.IsAny(), "%q", r)
	}
	for _, v := range []Version{"1.0", "1.1", "2.0"} {
		assert.Equal(t, Range(">=1.1 <2").Holds(v), Range("  >=1.1   <2 ").Holds(v), v)
	}
}

// What a range names and holds is a release that somebody states.
func TestTheReleasesARangeNames(t *testing.T) {
	for r, want := range map[Range][]Version{
		"":          nil,
		"*":         nil,
		"1.0.6":     {"1.0.6"},
		">=1.1 <2":  {"1.1"},
		">1.1 <=2":  {"2"},
		">=1.1 <=2": {"1.1", "2"},
		"<1":        nil,
	} {
		assert.Equal(t, want, r.Named(), r)
	}
}
