package decide_test

import (
	"context"
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/decide"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

func demoFleet(t *testing.T) (*gear.Library, *fleet.Index) {
	s := builds.Demo()
	return s.Library(), fleet.NewIndex(s.Fleet)
}

func caseOf(t *testing.T, quad string) fleet.Case {
	lib, index := demoFleet(t)
	q, ok := index.Quad(quad)
	require.True(t, ok)
	return fleet.NewCase(lib, index, q)
}

// After a whole plan no gate is shut, the unit is the one that was asked for, and what it costs
// is what it buys.
func TestAWholePlan(t *testing.T) {
	c := caseOf(t, "damsel")
	goal := fleet.Patch{AirUnit: &fleet.Slot{Kit: "compact-damsel"}}
	found := decide.For(context.Background(), c, goal)
	require.True(t, found.All)
	require.NotEmpty(t, found.Plans)
	kinds := map[string]bool{}
	for _, plan := range found.Plans {
		assert.LessOrEqual(t, plan.Level.Rank(), verdict.Caution.Rank())
		assert.Equal(t, "compact-damsel", plan.Fit.AirUnit.Kit)
		assert.Empty(t, plan.FindOut)
		at := c
		price := 0.0
		for _, s := range plan.Steps {
			assert.NotEmpty(t, s.Says)
			at = at.With(s.Patch)
		}
		for _, b := range plan.Buys {
			if b.Offer != nil && b.Offer.Price != nil && !b.Printed {
				price += *b.Offer.Price * float64(b.Count)
			}
		}
		assert.InDelta(t, price, plan.Cost.Price, 1e-9)
		assert.Equal(t, plan.Level, swap.Judge(at).Level)
		kinds[plan.Fit.Goggles.Kit+" "+plan.Fit.Harness] = true
	}
	assert.Greater(t, len(kinds), 1, "the next best differ in kind")
}

// A fact that leaves no plan is named: the gate that cannot be opened whatever is done at others.
func TestWhatForbidsAPlan(t *testing.T) {
	for _, c := range []struct {
		quad, unit string
		gate       verdict.Gate
		says       string
	}{
		{"hopper", "pellow-mini", verdict.Link, "never links"},
		{"damsel", "aldine-three", verdict.Mount, "The camera is 20 mm wide"},
		{"hopper", "aldine-one", verdict.OSD, "does not understand"},
	} {
		found := decide.For(context.Background(), caseOf(t, c.quad), fleet.Patch{AirUnit: &fleet.Slot{Model: c.unit}})
		assert.Empty(t, found.Plans)
		assert.Empty(t, found.Hanging)
		require.Len(t, found.Forbids, 1, c.unit)
		assert.Equal(t, c.gate, found.Forbids[0].Gate)
		assert.True(t, slices.ContainsFunc(found.Forbids[0].Findings, func(f verdict.Finding) bool {
			return strings.Contains(f.Says, c.says)
		}), "%+v", found.Forbids[0].Findings)
	}
}

// What nobody has stated sets a plan apart, with what is to be found out.
func TestAPlanThatHangs(t *testing.T) {
	found := decide.For(context.Background(), caseOf(t, "sluice"), fleet.Patch{AirUnit: &fleet.Slot{Model: "aldine-two"}})
	assert.Empty(t, found.Plans)
	require.NotEmpty(t, found.Hanging)
	best := found.Best()
	assert.Positive(t, best.Cost.Open)
	assert.Equal(t, "antennas of Sluice", best.FindOut[0].Label)
	assert.InDelta(t, 159, best.Cost.Price, 10)
}

// A unit to be bought comes on a release nobody knows: what its gear lists settles the plan, and
// what it may come on besides is warned of.
func TestAPlanToBuyAUnit(t *testing.T) {
	found := decide.For(context.Background(), caseOf(t, "damsel"), fleet.Patch{AirUnit: &fleet.Slot{Model: "aldine-two"}})
	require.NotEmpty(t, found.Plans)
	assert.Contains(t, fmt.Sprint(found.Plans[0].Warns), "comes on a release nobody knows")
}

// Who stops waiting ends the search, and it says that not all was tried.
func TestASearchThatIsStopped(t *testing.T) {
	ctx, stop := context.WithCancel(context.Background())
	stop()
	found := decide.For(ctx, caseOf(t, "damsel"), fleet.Patch{AirUnit: &fleet.Slot{Kit: "compact-damsel"}})
	assert.False(t, found.All)
	assert.Empty(t, found.Forbids, "nothing is shown")
}

// Each unit is there once, with where it would come from; leaving it comes first.
func TestCandidates(t *testing.T) {
	list := decide.Candidates(context.Background(), caseOf(t, "whip"), nil)
	assert.Equal(t, "leave", list[0].Key)
	keys := map[string]decide.Candidate{}
	for _, one := range list {
		assert.NotContains(t, keys, one.Key)
		keys[one.Key] = one
	}
	assert.Equal(t, decide.Today, keys["kit:two-whip"].Origin)
	assert.Equal(t, decide.Elsewhere, keys["kit:two-brayer"].Origin)
	assert.Equal(t, "Brayer", keys["kit:two-brayer"].From)
	assert.Equal(t, decide.Elsewhere, keys["kit:compact-brayer"].Origin)
	assert.Equal(t, "Brayer, in turn", keys["kit:compact-brayer"].From)
	assert.Equal(t, decide.ToBuy, keys["model:aldine-one"].Origin)
}

// Candidates are sorted by core: leaving comes first, what has no plan last, and of what has one
// what is not known after what is.
func TestCandidatesAreRanked(t *testing.T) {
	minutes := 0
	takes := func(c fleet.Case) decide.BenchTime {
		assert.NotNil(t, c.Quad.Next, "it is asked of what is planned")
		minutes += 7
		return decide.BenchTime{Minutes: 100 - minutes}
	}
	list := decide.Candidates(context.Background(), caseOf(t, "damsel"), takes)
	assert.Positive(t, minutes)
	for _, one := range list {
		assert.Equal(t, one.Found.Best() != nil, one.Outcome.Bench != nil, one.Label)
		for _, other := range list {
			if one.Outcome.Bench != nil && other.Outcome.Bench != nil && one.Outcome.Bench.Minutes < other.Outcome.Bench.Minutes {
				assert.Less(t, one.Ranks["bench"], other.Ranks["bench"])
			}
		}
	}
	for side := range list[0].Ranks {
		slices.SortFunc(list, func(a, b decide.Candidate) int { return a.Ranks[side] - b.Ranks[side] })
		assert.Equal(t, "leave", list[0].Key, side)
		hasPlan, known := true, true
		for i, one := range list[1:] {
			assert.Equal(t, i+1, one.Ranks[side])
			if one.Ready != nil {
				continue // it takes no plan
			}
			best := one.Found.Best()
			assert.False(t, best != nil && !hasPlan, "%s: %s comes after what has no plan", side, one.Key)
			if hasPlan = best != nil; hasPlan && side == "price" {
				priced := best.Cost.Unpriced == 0
				assert.False(t, priced && !known, "%s comes after what has no price", one.Key)
				known = priced
			}
		}
	}
	for side, more := range map[string]func(decide.Outcome) float64{
		"mass":    func(o decide.Outcome) float64 { return float64(*o.MassG) },
		"bitrate": func(o decide.Outcome) float64 { return -float64(*o.BitrateMbps) },
	} {
		slices.SortFunc(list, func(a, b decide.Candidate) int { return a.Ranks[side] - b.Ranks[side] })
		last := math.Inf(-1)
		for _, one := range list[1:] {
			if one.Found.Best() != nil && one.Outcome.MassG != nil && one.Outcome.BitrateMbps != nil {
				assert.GreaterOrEqual(t, more(one.Outcome), last, "%s: %s", side, one.Key)
				last = more(one.Outcome)
			}
		}
	}
}

// demoWays are those of five quads of the demo, found once for all tests.
var demoWays *decide.Ways

func demoWaysOf(t *testing.T) *decide.Ways {
	if demoWays == nil {
		lib, index := demoFleet(t)
		own := *index.Fleet
		own.Quads = nil
		for _, id := range []string{"rynd", "fantail", "hopper", "brayer", "whip"} {
			q, _ := index.Quad(id)
			own.Quads = append(own.Quads, *q)
		}
		ways, err := decide.WaysOf(context.Background(), lib, fleet.NewIndex(&own))
		require.NoError(t, err)
		demoWays = &ways
	}
	return demoWays
}

func planOf(t *testing.T, budget int64, q decide.Question) decide.FleetPlan {
	weighed, err := demoWaysOf(t).Weigh(context.Background(), q)
	require.NoError(t, err)
	return weighed.Within(budget)
}

// The curve of the demo: more money is never worth less, no unit is on two quads, each number
// opens to its sum, and a budget takes the worthiest choice within it.
func TestTheFleetsCurve(t *testing.T) {
	for _, budget := range []int64{0, 5000, 40000} {
		plan := planOf(t, budget, decide.Question{})
		require.NotEmpty(t, plan.Points)
		assert.True(t, plan.Exact)
		assert.Equal(t, "EUR", plan.Currency)
		for i := 1; i < len(plan.Points); i++ {
			assert.Greater(t, plan.Points[i].Money, plan.Points[i-1].Money)
			assert.Greater(t, plan.Points[i].Worth, plan.Points[i-1].Worth)
		}
		require.GreaterOrEqual(t, plan.Chosen, 0)
		point := plan.Points[plan.Chosen]
		assert.LessOrEqual(t, point.Money*100, float64(budget))
		if plan.Chosen+1 < len(plan.Points) {
			assert.Greater(t, plan.Points[plan.Chosen+1].Money*100, float64(budget))
		}
		var worth int64
		carried := map[string]string{}
		for _, q := range plan.Quads {
			worth += q.Worth
			var rows int64
			for _, r := range q.Rows {
				rows += r.Points
			}
			assert.Equal(t, q.Worth, rows, q.Name)
			if kit := q.Way.Kit(); kit != "" {
				assert.NotContains(t, carried, kit, "%s is on two quads", kit)
				carried[kit] = q.Quad
			}
		}
		assert.Equal(t, point.Worth, worth)
	}
}

// Where not all choices are kept, none is worth more than what is said: on a fleet of ten.
func TestWhatWasNotLookedAtIsWorthAtMostWhatIsSaid(t *testing.T) {
	ways := demoWaysOf(t).Times(2)
	plan := func() decide.FleetPlan {
		weighed, err := ways.Weigh(context.Background(), decide.Question{Used: true})
		require.NoError(t, err)
		return weighed.Within(0)
	}
	exact := plan()
	decide.Keep(t, 1)
	some := plan()
	require.True(t, exact.Exact)
	require.False(t, some.Exact)
	more := 0
	for _, p := range some.Points {
		require.NotNil(t, p.AtMost)
		assert.GreaterOrEqual(t, *p.AtMost, p.Worth)
		if *p.AtMost > p.Worth {
			more++
		}
	}
	assert.Positive(t, more, "something was left out")
	for _, p := range exact.Points {
		require.Nil(t, p.AtMost)
		within := -1
		for k := range some.Points {
			if some.Points[k].Money <= p.Money {
				within = k
			}
		}
		require.GreaterOrEqual(t, within, 0)
		assert.LessOrEqual(t, p.Worth, *some.Points[within].AtMost, "%.2f", p.Money)
	}
}

// Goggles are in one state in a choice: a quad that flies with them today is not left with what it
// no longer links with, however much another is worth that wants them updated.
func TestNobodyIsLeftWithGogglesThatWereUpdated(t *testing.T) {
	lib, index := demoFleet(t)
	own := *index.Fleet
	own.Quads = nil
	for _, id := range []string{"rynd", "brayer"} {
		q, _ := index.Quad(id)
		own.Quads = append(own.Quads, *q)
	}
	own.Quads[0].Weight = new(9)
	ways, err := decide.WaysOf(context.Background(), lib, fleet.NewIndex(&own))
	require.NoError(t, err)
	weighed, err := ways.Weigh(context.Background(), decide.Question{})
	require.NoError(t, err)
	updated := 0
	for _, p := range weighed.Within(0).Points {
		plan := weighed.Within(int64(p.Money*100) + 1)
		var state *fleet.Slot
		for _, q := range plan.Quads {
			if g := q.Way.Fit().Goggles; !q.Leave && g != nil && g.Mode != "" {
				state = g
				updated++
			}
		}
		for i := range plan.Quads {
			q := &plan.Quads[i]
			if g := q.Way.Fit().Goggles; state != nil && g != nil && g.Kit == state.Kit && q.Quad == "brayer" {
				brayer := own.Quads[1]
				c := fleet.NewCase(lib, fleet.NewIndex(&own), &brayer)
				fit := q.Way.Fit().Clone()
				fit.Goggles = state
				assert.True(t, decide.LinkOpen(c.Carrying(&fit)), "%.2f: %s", p.Money, q.Way.Label)
			}
		}
	}
	assert.Positive(t, updated)
}

// What cannot be told counts as nothing, a way back too.
func TestWhatIsNotKnownIsWorthNothing(t *testing.T) {
	for _, c := range decide.Criteria {
		assert.Zero(t, decide.Share(c.ID, &decide.Outcome{}), c.ID)
	}
	assert.InDelta(t, 1, decide.Share(decide.WayBack, &decide.Outcome{OneWay: new(0)}), 1e-9)
	assert.Zero(t, decide.Share(decide.WayBack, &decide.Outcome{OneWay: new(1)}))
	list := decide.Candidates(context.Background(), caseOf(t, "whip"), nil)
	at := slices.IndexFunc(list, func(c decide.Candidate) bool { return c.Key == "kit:one-sluice" })
	assert.Nil(t, list[at].Outcome.OneWay, "nobody has read what it carries")
}

// What a plan of today claims is free where all is decided anew: a spare, and a unit.
func TestPlansOfTodayClaimNothing(t *testing.T) {
	lib, index := demoFleet(t)
	curve := func(hoards bool) (list [][2]float64) {
		own := *index.Fleet
		own.Quads = nil
		for _, id := range []string{"wallower", "sluice"} {
			q, _ := index.Quad(id)
			own.Quads = append(own.Quads, *q)
		}
		own.Kit = slices.DeleteFunc(slices.Clone(own.Kit), func(k fleet.Kit) bool {
			_, unit := gear.Find[*gear.AirUnit](lib, k.Model)
			return unit && k.ID != "two-quern"
		})
		hoarder := &own.Quads[1] // it counts for nothing
		hoarder.Next = nil
		if hoards {
			hoarder.Next = new(hoarder.Now.Clone())
			hoarder.Next.AirUnit = &fleet.Slot{Kit: "two-quern"}
			for i, s := range own.Spares {
				for k := range s.Count {
					id := fmt.Sprintf("hoarded-%d-%d", i, k)
					hoarder.Next.Parts = append(hoarder.Next.Parts, fleet.PlacedPart{ID: id, Model: s.Model})
				}
			}
		}
		ways, err := decide.WaysOf(context.Background(), lib, fleet.NewIndex(&own))
		require.NoError(t, err)
		weighed, err := ways.Weigh(context.Background(), decide.Question{})
		require.NoError(t, err)
		for _, p := range weighed.Within(0).Points {
			list = append(list, [2]float64{p.Money, float64(p.Worth)})
		}
		return list
	}
	was := curve(false)
	assert.Equal(t, was, curve(true))
}

// Weights change what is worth having: what counts for nothing brings no points, and a purpose
// whose weights are all nothing is worth nothing.
func TestWeightsAreTheBuilders(t *testing.T) {
	plan := planOf(t, 40000, decide.Question{Weights: map[fleet.Purpose]decide.Weights{
		fleet.Films: {}, fleet.Carries: {decide.Latency: 3},
	}})
	for _, q := range plan.Quads {
		switch q.Purpose.ID {
		case fleet.Films:
			assert.Zero(t, q.Worth, q.Name)
		case fleet.Carries:
			require.Len(t, q.Rows, 1)
			assert.Equal(t, decide.Latency, q.Rows[0].Criterion)
		}
	}
}

// Prices in another currency are never added: what needs them is left out and named.
func TestTwoCurrencies(t *testing.T) {
	plan := planOf(t, 40000, decide.Question{Currency: "CHF"})
	assert.Equal(t, "CHF", plan.Currency)
	assert.Contains(t, plan.Foreign, "Aldine Two")
	for _, q := range plan.Quads {
		assert.NotEqual(t, decide.ToBuy, q.Way.Origin)
	}
}

// Two pieces of kit that are alike are two: both quads get one, and a third goes without.
func TestPiecesAlikeAreAsManyAsThereAre(t *testing.T) {
	lib, index := demoFleet(t)
	own := *index.Fleet
	quad, _ := index.Quad("whip")
	own.Quads = nil
	for i := range 3 {
		q := *quad
		q.ID, q.Name = fmt.Sprintf("mast-%d", i), ""
		q.Now = q.Now.Clone()
		q.Now.AirUnit, q.Next = nil, nil
		own.Quads = append(own.Quads, q)
	}
	piece, _ := index.Piece("two-whip")
	own.Kit = slices.DeleteFunc(slices.Clone(own.Kit), func(k fleet.Kit) bool {
		_, unit := gear.Find[*gear.AirUnit](lib, k.Model)
		return unit
	})
	for _, id := range []string{"first", "second"} {
		k := *piece
		k.ID, k.Name = id, id
		own.Kit = append(own.Kit, k)
	}
	ways, err := decide.WaysOf(context.Background(), lib, fleet.NewIndex(&own))
	require.NoError(t, err)
	weighed, err := ways.Weigh(context.Background(), decide.Question{})
	require.NoError(t, err)
	carried := []string{}
	for _, q := range weighed.Within(0).Quads {
		if q.Way.Kit() != "" {
			carried = append(carried, q.Way.Kit())
			assert.Equal(t, q.Way.Kit(), q.Way.Patches[0].AirUnit.Kit)
			assert.Contains(t, q.Way.Steps[0], q.Way.Kit())
		}
	}
	slices.Sort(carried)
	assert.Equal(t, []string{"first", "second"}, carried)
}

// On generated fleets the same laws hold: no unit is on two quads, each quad stands as it is said
// after its changes, nothing that hides burning, falling or breaking the law is chosen.
func TestGeneratedFleets(t *testing.T) {
	lib, index := demoFleet(t)
	fleets := uint64(1)
	if os.Getenv("SOAK") != "" {
		fleets = 20 // minutes: what is drawn at random has much to mend
	}
	for seed := range fleets {
		maker := builds.New(1600+seed, lib, index)
		own := *index.Fleet
		own.Quads = nil
		for i := range 3 {
			own.Quads = append(own.Quads, maker.Quad(fmt.Sprintf("quad-%d", i)))
		}
		if fleets == 1 {
			own.Quads = own.Quads[1:] // the first takes long
		}
		fleetIndex := fleet.NewIndex(&own)
		ways, err := decide.WaysOf(context.Background(), lib, fleetIndex)
		require.NoError(t, err)
		weighed, err := ways.Weigh(context.Background(), decide.Question{})
		require.NoError(t, err)
		plan := weighed.Within(100000)
		keepsItsWord(t, fmt.Sprint("seed ", seed), lib, fleetIndex, &plan, 100000)
	}
}

// The bill of every point adds up to its money, whatever is bought, shared, boxed or sold.
func TestTheBillAddsUp(t *testing.T) {
	for _, q := range []decide.Question{{}, {Used: true}, {Sell: true}, {Used: true, Sell: true}, {OneGoggles: true, Used: true}} {
		weighed, err := demoWaysOf(t).Weigh(context.Background(), q)
		require.NoError(t, err)
		points := weighed.Within(0).Points
		require.NotEmpty(t, points, "%+v", q)
		for i, p := range points {
			plan := weighed.Within(int64(math.Round(p.Money * 100)))
			require.Equal(t, i, plan.Chosen, "%+v", q)
			sum := 0.0
			for _, l := range plan.Bill {
				sum += l.Amount
				assert.Equal(t, l.Sold, l.Amount < 0)
				assert.True(t, l.Sold || l.Buy == l.Count-l.Boxed-l.Drawer, "%+v", l)
				assert.True(t, q.Used || !l.Used || l.Sold, "%+v", l)
			}
			assert.InDelta(t, p.Money, sum, 0.001, "%+v: %+v", q, plan.Bill)
		}
	}
}

// Goggles that are bought are paid once, and fly every quad that is said to fly with them.
func TestGogglesAreBoughtOnceForTheFleet(t *testing.T) {
	weighed, err := demoWaysOf(t).Weigh(context.Background(), decide.Question{})
	require.NoError(t, err)
	points := weighed.Within(0).Points
	plan := weighed.Within(int64(points[len(points)-1].Money*100) + 1)
	bought := 0
	for _, l := range plan.Bill {
		if l.Model == "visor-d" {
			bought++
			assert.Equal(t, 1, l.Buy)
			assert.NotEmpty(t, l.For)
			flown := 0
			for _, q := range plan.Quads {
				if g := q.Way.Fit().Goggles; g != nil && g.Model == "visor-d" {
					flown++
				}
			}
			assert.Len(t, l.For, flown)
		}
	}
	assert.Equal(t, 1, bought, "the worthiest of all flies with the new goggles")
}

// With goggles of one model alone no quad that flies is left with others.
func TestOneKindOfGoggles(t *testing.T) {
	weighed, err := demoWaysOf(t).Weigh(context.Background(), decide.Question{OneGoggles: true})
	require.NoError(t, err)
	_, index := demoFleet(t)
	for _, p := range weighed.Within(0).Points {
		models := map[string]bool{}
		for _, q := range weighed.Within(int64(math.Round(p.Money * 100))).Quads {
			if g := q.Way.Fit().Goggles; g != nil && !q.Leave {
				model := g.Model
				if kit, ok := index.Piece(g.Kit); ok {
					model = kit.Model
				}
				models[model] = true
			}
		}
		assert.LessOrEqual(t, len(models), 1, models)
	}
}

// What used things and a sale allow is never worth less for the money; goggles of one model alone
// are never worth more.
func TestMoreIsAllowed(t *testing.T) {
	best := func(q decide.Question) (worth []int64) {
		weighed, err := demoWaysOf(t).Weigh(context.Background(), q)
		require.NoError(t, err)
		for _, budget := range []int64{0, 10000, 20000, 40000, 80000} {
			plan := weighed.Within(budget)
			worth = append(worth, plan.Points[plan.Chosen].Worth)
		}
		return worth
	}
	alone, used := best(decide.Question{}), best(decide.Question{Used: true})
	both, one := best(decide.Question{Used: true, Sell: true}), best(decide.Question{Used: true, OneGoggles: true})
	for i := range alone {
		assert.LessOrEqual(t, alone[i], used[i])
		assert.LessOrEqual(t, used[i], both[i])
		assert.LessOrEqual(t, one[i], used[i])
	}
}

// Of a used device that can be locked it is asked, before it is paid, whether its former owner lets
// it go.
func TestWhatIsBoughtUsedIsAskedFor(t *testing.T) {
	lib, index := demoFleet(t)
	own := *index.Fleet
	wallower, _ := index.Quad("wallower")
	own.Quads = []fleet.Quad{*wallower}
	own.Quads[0].Next = nil
	own.Kit = slices.DeleteFunc(slices.Clone(own.Kit), func(k fleet.Kit) bool { return k.Model == "aldine-two" })
	school, ok := decide.SchoolOf("used-middle")
	require.True(t, ok)
	ways, err := decide.WaysOf(context.Background(), lib, fleet.NewIndex(&own))
	require.NoError(t, err)
	weighed, err := ways.Weigh(context.Background(), school.Question(nil))
	require.NoError(t, err)
	plan := weighed.Within(40000)
	at := slices.IndexFunc(plan.Bill, func(l decide.BillLine) bool { return l.Model == "aldine-two" })
	require.GreaterOrEqual(t, at, 0)
	assert.True(t, plan.Bill[at].Used)
	assert.InDelta(t, 95, plan.Bill[at].Amount, 1e-9)
	assert.Contains(t, plan.Quads[0].Way.FindOut, "whether its former owner lets the used Aldine Two go from their account")
	assert.Contains(t, plan.Quads[0].Way.FindOut, "which release the used Aldine Two carries")
}

// So of goggles that are bought used: of their release, their owner and the antennas of their box.
func TestGogglesBoughtUsedAreAskedFor(t *testing.T) {
	weighed := weighedBy(t, "one-goggles")
	points := weighed.Within(0).Points
	plan := weighed.Within(int64(math.Round(points[len(points)-1].Money * 100)))
	at := slices.IndexFunc(plan.Bill, func(l decide.BillLine) bool { return l.Model == "visor-d" })
	require.GreaterOrEqual(t, at, 0)
	require.True(t, plan.Bill[at].Used)
	for _, q := range plan.Quads {
		flown := slices.Contains(plan.Bill[at].For, q.Name)
		for _, asks := range []string{
			"which release the used Visor D carries",
			"whether its former owner lets the used Visor D go from their account",
			"whether the used Visor D comes with its antennas",
		} {
			assert.Equal(t, flown, slices.Contains(q.Way.FindOut, asks), "%s: %s", q.Name, asks)
		}
	}
}

// A unit that a quad carries in turn is not sold.
func TestAUnitInTurnIsNotSold(t *testing.T) {
	lib, index := demoFleet(t)
	own := *index.Fleet
	whip, _ := index.Quad("whip")
	own.Quads = []fleet.Quad{*whip}
	sold := func() bool {
		ways, err := decide.WaysOf(context.Background(), lib, fleet.NewIndex(&own))
		require.NoError(t, err)
		weighed, err := ways.Weigh(context.Background(), decide.Question{Sell: true})
		require.NoError(t, err)
		plan := weighed.Within(0)
		sum := 0.0
		for _, l := range plan.Bill {
			sum += l.Amount
		}
		assert.InDelta(t, plan.Points[plan.Chosen].Money, sum, 0.01)
		return slices.ContainsFunc(plan.Bill, func(l decide.BillLine) bool { return l.Label == "Pellow of Hopper" })
	}
	require.True(t, sold())
	own.Quads[0].InTurn = []fleet.TurnFit{{ID: "turn-1", Fit: fleet.Fit{AirUnit: &fleet.Slot{Kit: "mini-hopper"}}}}
	assert.False(t, sold())
}

// After a change the quads of which nothing was changed keep their ways, and all is as if it had been
// worked out anew.
func TestAfterAChange(t *testing.T) {
	lib, index := demoFleet(t)
	own := *index.Fleet
	own.Quads = nil
	for _, id := range []string{"rynd", "whip", "sluice"} {
		q, _ := index.Quad(id)
		own.Quads = append(own.Quads, *q)
	}
	before, err := decide.WaysOf(context.Background(), lib, fleet.NewIndex(&own))
	require.NoError(t, err)
	changes := map[string]func(f *fleet.Fleet){
		"nothing":            func(*fleet.Fleet) {},
		"what a quad is for": func(f *fleet.Fleet) { f.Quads[0].Purpose = fleet.Races },
		"a quad's plan":      func(f *fleet.Fleet) { f.Quads[2].Next = nil },
		"a quad is gone":     func(f *fleet.Fleet) { f.Quads = f.Quads[:2] },
		"a unit changes":     func(f *fleet.Fleet) { f.Quads[1].Now.AirUnit, f.Quads[1].Next = nil, nil },
		"a spare more":       func(f *fleet.Fleet) { f.Spares = append(f.Spares, fleet.Spare{Model: "pawl-9", Count: 1}) },
		"another currency":   func(f *fleet.Fleet) { f.Means = &fleet.Means{Currency: "CHF"} },
	}
	for name, do := range changes {
		after := own
		after.Quads = slices.Clone(own.Quads)
		do(&after)
		again, err := before.After(context.Background(), lib, fleet.NewIndex(&after))
		require.NoError(t, err)
		anew, err := decide.WaysOf(context.Background(), lib, fleet.NewIndex(&after))
		require.NoError(t, err)
		a, err := again.Weigh(context.Background(), decide.Question{})
		require.NoError(t, err)
		b, err := anew.Weigh(context.Background(), decide.Question{})
		require.NoError(t, err)
		assert.Equal(t, b.Within(40000), a.Within(40000), name)
	}
}

// Goggles and what comes with them for one price are billed once: the camera is in the box.
func TestABundleServesTheFleet(t *testing.T) {
	lib, index := demoFleet(t)
	own := *index.Fleet
	whip, _ := index.Quad("whip")
	own.Quads = []fleet.Quad{*whip}
	eyes, ok := gear.Find[*gear.Goggles](lib, "visor-d")
	require.True(t, ok)
	eyes.Deals = []gear.Deal{{
		ID:    "with-camera",
		Kind:  gear.DealNew,
		Offer: gear.Offer{Price: new(340.0), Currency: "EUR"},
		With:  []gear.Pieces{{Model: "squint-14", Count: 1}},
	}}
	ways, err := decide.WaysOf(context.Background(), lib, fleet.NewIndex(&own))
	require.NoError(t, err)
	weighed, err := ways.Weigh(context.Background(), decide.Question{})
	require.NoError(t, err)
	points := weighed.Within(0).Points
	bundled := 0
	for _, p := range points {
		plan := weighed.Within(int64(math.Round(p.Money * 100)))
		sum := 0.0
		for _, l := range plan.Bill {
			sum += l.Amount
			if l.Model == "squint-14" && l.Boxed == 1 {
				bundled++
				assert.Zero(t, l.Buy)
				assert.Zero(t, l.Amount)
			}
		}
		assert.InDelta(t, p.Money, sum, 0.01)
	}
	assert.Positive(t, bundled, "%+v", points)
}
