package decide_test

import (
	"context"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/plans/decide"
)

var firstDay = time.Date(2026, 11, 28, 0, 0, 0, 0, time.UTC)

func weighedBy(t *testing.T, school string) *decide.Weighed {
	s, ok := decide.SchoolOf(school)
	require.True(t, ok)
	w, err := demoWaysOf(t).Weigh(context.Background(), s.Question(nil))
	require.NoError(t, err)
	return w
}

// The order that is found loses as little as the best of all orders there are.
func TestTheOrderAgainstEveryOrder(t *testing.T) {
	tried := 0
	for _, school := range []string{"purpose", "used-middle", "when-it-crashes", "one-goggles"} {
		w := weighedBy(t, school)
		for _, p := range w.Within(0).Points {
			for _, purse := range []decide.Purse{{Now: 1000}, {Now: 100, Month: 40}, {Month: 90}, {Now: 60}} {
				for _, every := range []int{0, 1, 30} {
					found, least := w.Lost(int64(math.Round(p.Money*100)), purse, decide.Calendar{From: firstDay, Every: every})
					require.Equal(t, least, found, "%s %v %+v every %d", school, p.Money, purse, every)
				}
				tried++
			}
		}
	}
	assert.Greater(t, tried, 40)
}

// In every order each quad has its day, what is spent is the bill, money is there when it is spent,
// days come one after the other, and no unit is taken off a quad that has nothing else yet.
func TestAnOrderHolds(t *testing.T) {
	for _, school := range []string{"purpose", "used-middle", "one-goggles"} {
		w := weighedBy(t, school)
		for n, p := range w.Within(0).Points {
			budget := int64(math.Round(p.Money * 100))
			plan := w.Within(budget)
			o := w.Order(context.Background(), budget, decide.Purse{Now: 50, Month: 45},
				decide.Calendar{From: firstDay, Every: n % 3 * 5})
			require.True(t, o.Exact)
			require.Zero(t, o.Short, "with something each month all is paid in the end")
			spent, bill := 0.0, 0.0
			day := ""
			at := map[string]int{}
			for i, s := range o.Stages {
				spent += s.Amount
				assert.GreaterOrEqual(t, s.Left, 0.0)
				assert.Greater(t, s.BenchOn, day)
				assert.GreaterOrEqual(t, s.BenchOn, s.ThereOn)
				assert.GreaterOrEqual(t, s.ThereOn, s.OrderOn)
				on, err := time.Parse(time.DateOnly, s.BenchOn)
				require.NoError(t, err)
				assert.Zero(t, int(on.Sub(firstDay).Hours()/24)%o.Every, "it is a bench day")
				day = s.BenchOn
				for _, q := range s.Quads {
					assert.NotContains(t, at, q.Quad)
					at[q.Quad] = i
				}
			}
			for _, l := range plan.Bill {
				if !l.Sold {
					bill += l.Amount
				}
			}
			assert.InDelta(t, bill, spent, 0.01)
			_, index := demoFleet(t)
			for _, q := range plan.Quads {
				assert.Equal(t, !q.Leave, mapHas(at, q.Quad), q.Name)
				for i := range index.Quads {
					other := &index.Quads[i]
					if s := other.Now.AirUnit; q.Way.Kit() != "" && s != nil && s.Kit == q.Way.Kit() && other.ID != q.Quad && mapHas(at, other.ID) {
						assert.LessOrEqual(t, at[other.ID], at[q.Quad], "%s takes what flies on %s", q.Name, other.Label())
					}
				}
			}
		}
	}
}

func mapHas(m map[string]int, key string) bool {
	_, ok := m[key]
	return ok
}

// Where money never suffices it is said what is missing; a day asked for is held against the last.
func TestAnOrderThatDoesNotHold(t *testing.T) {
	w := weighedBy(t, "purpose")
	points := w.Within(0).Points
	most := int64(math.Round(points[len(points)-1].Money * 100))
	o := w.Order(context.Background(), most, decide.Purse{Now: 10}, decide.Calendar{From: firstDay, By: firstDay.AddDate(1, 0, 0)})
	assert.Positive(t, o.Short)
	assert.Contains(t, o.Says, "missing")
	require.NotNil(t, o.Holds)
	assert.False(t, *o.Holds)
	rich := decide.Purse{Now: 5000}
	for _, c := range []struct {
		days  int
		holds bool
	}{{1, false}, {400, true}} {
		o := w.Order(context.Background(), most, rich, decide.Calendar{From: firstDay, By: firstDay.AddDate(0, 0, c.days)})
		require.NotNil(t, o.Holds)
		assert.Equal(t, c.holds, *o.Holds, o.Says)
		assert.Zero(t, o.Short)
	}
	nothing := w.Order(context.Background(), math.MinInt64, rich, decide.Calendar{From: firstDay})
	assert.Empty(t, nothing.Stages)
}
