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
			verdict.Change},
		{"not read, and the only release known is too new", begin.SaysWithin, begin.Carries{"Unit", "", "<1.1"},
			begin.Carries{"Eyes", "2.2", ""}, verdict.Unknown},
		{"too old", begin.SaysWithin, begin.Carries{"Unit", "1.0", ">=1.1"}, begin.Carries{"Eyes", "2.2", ""},
			verdict.Change},
		{"too new, and no way back said", begin.SaysWithin, begin.Carries{"Unit", "1.2", "<=1.1"}, begin.Carries{"Eyes", "2.2", ""},
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

// What is put in today goes into the plan as well, where the plan kept what was there.
func TestWhatIsPutInTodayStaysInThePlan(t *testing.T) {
	st := stock.New()
	id := begin.Quad(st, "Q", true)
	fill := func(today bool, slot, name string) {
		require.NoError(t, begin.Fill(st, nil, id, today, slot, begin.Take{Name: name}))
	}
	fill(false, "airUnit", "unit")
	fill(true, "pack", "first pack")
	q, _ := st.Fleet.Quad(id)
	assert.Equal(t, "first-pack", q.Next.Pack)
	fill(false, "pack", "another pack")
	fill(true, "pack", "third pack")
	q, _ = st.Fleet.Quad(id)
	assert.Equal(t, "third-pack", q.Now.Pack)
	assert.Equal(t, "another-pack", q.Next.Pack, "the plan has another on purpose")
	assert.Nil(t, q.Now.AirUnit)
	assert.Error(t, begin.Fill(st, nil, id, true, "wing", begin.Take{Name: "x"}))
	assert.Error(t, begin.Fill(st, nil, "nix", true, "pack", begin.Take{Name: "x"}))
}

// Like another: all but its name and price is copied, and the two share nothing.
func TestAModelLikeAnother(t *testing.T) {
	st := stock.New()
	a, err := begin.Model(st, gear.KindPack, "One", nil)
	require.NoError(t, err)
	item, _ := st.Library().Item(a)
	item.(*gear.Pack).Cells, item.(*gear.Pack).Offer = new(4), &gear.Offer{Currency: "EUR"}
	b, err := begin.Model(st, gear.KindPack, "Two", item)
	require.NoError(t, err)
	other, _ := st.Library().Item(b)
	require.NotNil(t, other.(*gear.Pack).Cells)
	assert.Equal(t, 4, *other.(*gear.Pack).Cells)
	assert.Nil(t, other.Head().Offer)
	*other.(*gear.Pack).Cells = 6
	assert.Equal(t, 4, *item.(*gear.Pack).Cells)
	_, err = begin.Model(st, gear.KindBoard, "B", item)
	assert.Error(t, err, "a board is not like a pack")
}

// A quad like another: the same on it and planned, another air unit of the same model, the
// same goggles, and nothing that is changed on one changes the other.
func TestAQuadLikeAnother(t *testing.T) {
	st := stock.New()
	id := begin.Quad(st, "First", true)
	require.NoError(t, begin.Fill(st, nil, id, true, "pack", begin.Take{Name: "pack"}))
	require.NoError(t, begin.Fill(st, nil, id, false, "airUnit", begin.Take{Name: "unit", Mine: true}))
	require.NoError(t, begin.Fill(st, nil, id, false, "goggles", begin.Take{Name: "eyes", Mine: true}))
	other, err := begin.QuadLike(st, "Second", id)
	require.NoError(t, err)
	q, _ := st.Fleet.Quad(other)
	assert.Equal(t, "Second", q.Name)
	assert.Equal(t, &fleet.Slot{Model: "unit"}, q.Next.AirUnit, "the other flies that one")
	assert.Equal(t, &fleet.Slot{Kit: "eyes-1"}, q.Next.Goggles)
	assert.Equal(t, "pack", q.Now.Pack)
	require.NoError(t, begin.Fill(st, nil, other, false, "pack", begin.Take{Name: "bigger pack"}))
	first, _ := st.Fleet.Quad(id)
	assert.Equal(t, "pack", first.Next.Pack)
	_, err = begin.QuadLike(st, "Third", "nix")
	assert.Error(t, err)
}
