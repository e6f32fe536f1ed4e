package begin_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/begin"
)

func linkOf(t *testing.T, st *stock.Stock, quad string) []verdict.Finding {
	t.Helper()
	x := fleet.NewIndex(st.Fleet)
	q, ok := x.Quad(quad)
	require.True(t, ok)
	return link.OfPair(link.Check(fleet.NewCase(st.Library(), x, q)))
}

// The link question comes to a verdict from what it asks alone.
func TestTheLinkQuestionIsAnsweredFromWhatItAsks(t *testing.T) {
	for _, c := range []struct {
		name  string
		says  begin.Statement
		unit  begin.Carries
		eyes  begin.Carries
		level verdict.Level
	}{
		{"within", begin.SaysWithin, begin.Carries{"Unit", "1.1", ">=1.1"}, begin.Carries{"Eyes", "2.2", ">=2.0"}, verdict.Fits},
		{"any to any", begin.SaysAny, begin.Carries{"Unit", "1.1", ""}, begin.Carries{"Eyes", "2.2", ""}, verdict.Fits},
		{"never", begin.SaysNever, begin.Carries{"Unit", "1.1", ""}, begin.Carries{"Eyes", "2.2", ""}, verdict.Unfit},
		{"nobody has said", begin.SaysNothing, begin.Carries{"Unit", "1.1", ""}, begin.Carries{"Eyes", "2.2", ""}, verdict.Unknown},
		{"its release not read", begin.SaysWithin, begin.Carries{"Unit", "", ">=1.1"}, begin.Carries{"Eyes", "2.2", ""},
			verdict.Unknown},
		{"too old, and no way said", begin.SaysWithin, begin.Carries{"Unit", "1.0", ">=1.1"}, begin.Carries{"Eyes", "2.2", ""},
			verdict.Unfit},
	} {
		t.Run(c.name, func(t *testing.T) {
			st := stock.New()
			id, err := begin.Link(st, begin.LinkQuestion{Unit: c.unit, Goggles: c.eyes, Says: c.says, Activated: true})
			require.NoError(t, err)
			assert.Equal(t, c.level, verdict.Worst(linkOf(t, st, id)), "%+v", linkOf(t, st, id))
			assert.Len(t, st.Fleet.Kit, 2)
		})
	}
}

// Asked again with the same names, the models are those that are there, their releases in
// order; another piece of kit is made.
func TestAskedAgainTheModelsAreTheSame(t *testing.T) {
	st := stock.New()
	ask := func(release string) string {
		id, err := begin.Link(st, begin.LinkQuestion{Unit: begin.Carries{Name: "Unit", Release: release},
			Goggles: begin.Carries{Name: "eyes", Release: "2"}, Says: begin.SaysAny, Activated: true})
		require.NoError(t, err)
		return id
	}
	assert.Equal(t, "unit-with-eyes", ask("1.2"))
	assert.Equal(t, "unit-with-eyes-2", ask("1.0"))
	units := gear.All[*gear.AirUnit](st.Library())
	require.Len(t, units, 1)
	assert.Equal(t, []gear.Release{{Version: "1.0"}, {Version: "1.2"}}, units[0].Releases)
}

func TestWhatIsNoReleaseIsNamed(t *testing.T) {
	_, err := begin.Link(stock.New(), begin.LinkQuestion{Unit: begin.Carries{Name: "Unit", Release: "new"}})
	assert.ErrorContains(t, err, "the release on Unit")
	_, err = begin.Link(stock.New(), begin.LinkQuestion{Unit: begin.Carries{Name: "U", Works: ">>1"}, Goggles: begin.Carries{Name: "G"},
		Says: begin.SaysWithin})
	assert.ErrorContains(t, err, "the releases of U")
}

func TestIDsAreMadeOfNames(t *testing.T) {
	free := func(string) bool { return false }
	assert.Equal(t, "my-quad-2nd", begin.ID("  My Quad (2nd)!", free))
	assert.Equal(t, "entry", begin.ID("夕 ☂", free))
	assert.Equal(t, "a-3", begin.ID("A", func(id string) bool { return id == "a" || id == "a-2" }))
	long := begin.ID("x 0123456789 0123456789 0123456789 0123456789 0123456789 0123456789", free)
	assert.LessOrEqual(t, len(long), 58)
}
