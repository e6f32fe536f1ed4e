package assign_test

import (
	"cmp"
	"context"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/crillab/gophersat/solver"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/plans/assign"
)

// draw is a problem of some places with some options.
func draw(r *rand.Rand, places, options, things int) (p assign.Problem) {
	for range things {
		price := int64(r.IntN(80)) * 100
		if r.IntN(2) == 0 {
			price = -1
		}
		p.Things = append(p.Things, assign.Thing{Have: 1 + r.IntN(2), Price: price})
	}
	for range places {
		list := []assign.Option{{}} // leave it
		for range options {
			o := assign.Option{Money: int64(r.IntN(200)) * 100, Worth: int64(r.IntN(60))}
			if things > 0 && r.IntN(2) == 0 {
				o.Uses = append(o.Uses, assign.Use{Thing: r.IntN(things), Count: 1 + r.IntN(2)})
			}
			list = append(list, o)
		}
		p.Places = append(p.Places, list)
	}
	return p
}

// drawAlike is a problem in which things do for each other: most options are there once with each of
// some things, one or two of it, some a little dearer or worth a little less; and not every place can
// be left as it is.
func drawAlike(r *rand.Rand, places, options, things int) (p assign.Problem) {
	for range things {
		t := assign.Thing{Have: 1 + r.IntN(2), Price: -1}
		if r.IntN(5) == 0 {
			t.Price = int64(1+r.IntN(3)) * 100
		}
		p.Things = append(p.Things, t)
	}
	seldom := func(n int) int64 { // mostly none
		if r.IntN(3) > 0 {
			return 0
		}
		return int64(r.IntN(n))
	}
	for range min(places, 5) {
		var list []assign.Option
		if r.IntN(3) > 0 {
			list = append(list, assign.Option{})
		}
		for range (options + 1) / 2 {
			o := assign.Option{Money: int64(r.IntN(5)) * 100, Worth: 1 + int64(r.IntN(8))}
			for t := range things {
				with := o
				with.Money += seldom(3) * 100
				with.Worth -= seldom(2)
				with.Uses = append(with.Uses, assign.Use{Thing: t, Count: 1 + int(seldom(2))})
				if other := r.IntN(things); r.IntN(4) == 0 && other != t {
					with.Uses = append(with.Uses, assign.Use{Thing: other, Count: 1 + int(seldom(2))})
				}
				list = append(list, with)
			}
			if r.IntN(3) == 0 {
				o.Money += int64(r.IntN(4)) * 100
				list = append(list, o)
			}
		}
		if len(list) == 0 {
			list = append(list, assign.Option{Money: 1000})
		}
		p.Places = append(p.Places, list)
	}
	return p
}

// cost is what a choice costs and is worth, reckoned anew; false where it cannot be.
func cost(p *assign.Problem, picks []int) (money, worth int64, ok bool) {
	used := make([]int, len(p.Things))
	for at, pick := range picks {
		o := p.Places[at][pick]
		money, worth = money+o.Money, worth+o.Worth
		for _, u := range o.Uses {
			used[u.Thing] += u.Count
		}
	}
	for i, t := range p.Things {
		if beyond := max(0, used[i]-t.Have); beyond > 0 {
			if t.Price < 0 {
				return 0, 0, false
			}
			money += int64(beyond) * t.Price
		}
	}
	return money, worth, true
}

// asSaid holds that each choice can be had, and costs and is worth what it says.
func asSaid(t *testing.T, p *assign.Problem, list []assign.Choice) {
	for _, c := range list {
		money, worth, ok := cost(p, c.Picks)
		require.True(t, ok)
		require.Equal(t, [2]int64{money, worth}, [2]int64{c.Money, c.Worth})
	}
}

// each calls do for every choice there is.
func each(p *assign.Problem, do func(picks []int)) {
	picks := make([]int, len(p.Places))
	for {
		do(picks)
		at := 0
		for ; at < len(picks); at++ {
			if picks[at]++; picks[at] < len(p.Places[at]) {
				break
			}
			picks[at] = 0
		}
		if at == len(picks) {
			return
		}
	}
}

// The curve is that of trying every choice, on 150 small fleets: each point costs and is worth
// what it says, none is missing, and the choice within a budget is the best there is.
func TestTheCurveAgainstEveryChoice(t *testing.T) {
	againstEveryChoice(t, rand.New(rand.NewPCG(16, 3)), draw)
}

// Nor is one missing where things do for each other, and where nothing can be had that is said.
func TestTheCurveWhereThingsDoForEachOther(t *testing.T) {
	for seed := range uint64(4) {
		againstEveryChoice(t, rand.New(rand.NewPCG(16, 7+seed)), drawAlike)
	}
	assign.Hard(t)
	againstEveryChoice(t, rand.New(rand.NewPCG(16, 11)), drawAlike)
}

// Some choice is found wherever there is one, and can be had.
func TestAnyChoice(t *testing.T) {
	r := rand.New(rand.NewPCG(16, 12))
	none := 0
	for range 300 {
		p := drawAlike(r, 2+r.IntN(5), 1+r.IntN(2), 1+r.IntN(3))
		picks, err := assign.Any(p)
		if err == nil {
			_, _, ok := cost(&p, picks)
			require.True(t, ok)
			continue
		}
		none++
		each(&p, func(picks []int) {
			_, _, ok := cost(&p, picks)
			require.False(t, ok, err)
		})
	}
	require.Greater(t, none, 5)
}

// Nothing is lost by dropping what cannot become better than what is known.
func TestTheCurveByBoundsAgainstEveryChoice(t *testing.T) {
	assign.Hard(t)
	againstEveryChoice(t, rand.New(rand.NewPCG(16, 4)), draw)
}

func againstEveryChoice(t *testing.T, r *rand.Rand, draw func(r *rand.Rand, places, options, things int) assign.Problem) {
	for range 150 {
		p := draw(r, 1+r.IntN(6), 1+r.IntN(4), r.IntN(4))
		curve, err := assign.Solve(context.Background(), p)
		if err != nil {
			each(&p, func(picks []int) {
				_, _, ok := cost(&p, picks)
				require.False(t, ok, err)
			})
			continue
		}
		require.True(t, curve.Exact)
		asSaid(t, &p, curve.Choices)
		for _, c := range curve.Choices {
			require.Equal(t, c.Worth, c.AtMost)
		}
		budget := int64(r.IntN(600)) * 100
		best := int64(-1)
		each(&p, func(picks []int) {
			money, worth, ok := cost(&p, picks)
			if !ok {
				return
			}
			within := curve.Within(money)
			require.NotNil(t, within, "a choice for less money is missing")
			require.GreaterOrEqual(t, within.Worth, worth, "a choice that none on the curve beats is missing")
			if money <= budget {
				best = max(best, worth)
			}
		})
		if within := curve.Within(budget); within != nil {
			require.Equal(t, best, within.Worth)
		}
	}
}

// points are the money and the whole grains of choices that no other beats.
func points(grain int64, lists ...[]assign.Choice) (list [][2]int64) {
	all := slices.Concat(lists...)
	slices.SortFunc(all, func(a, b assign.Choice) int {
		return cmp.Or(cmp.Compare(a.Money, b.Money), cmp.Compare(b.Worth, a.Worth))
	})
	for _, c := range all {
		worth := (c.Worth + grain - 1) / grain
		if n := len(list); n == 0 || worth > list[n-1][1] {
			list = append(list, [2]int64{c.Money, worth})
		}
	}
	return list
}

// Of few choices every difference counts: what is had elsewhere and is worth less than a grain less is bettered.
func TestOfFewChoicesEveryDifferenceCounts(t *testing.T) {
	r := rand.New(rand.NewPCG(16, 7))
	for range 60 {
		p := draw(r, 3+r.IntN(4), 1+r.IntN(4), r.IntN(4))
		const grain = 20
		for at := range p.Places {
			for i := range p.Places[at] {
				p.Places[at][i].Worth *= grain
			}
		}
		exact, err := assign.Solve(context.Background(), p)
		if err != nil {
			continue // nothing can be had
		}
		p.Grain = grain
		for _, c := range exact.Choices {
			p.Beat = append(p.Beat, assign.Choice{Money: c.Money, Worth: c.Worth - 1})
		}
		some, err := assign.Solve(context.Background(), p)
		require.NoError(t, err)
		require.Equal(t, points(1, exact.Choices), points(1, some.Choices, p.Beat))
	}
}

// What is had elsewhere and what makes no difference is not looked for, and nothing else is lost: with
// those that are had elsewhere the choices are the best of all, by whole grains.
func TestOnlyWhatIsHadElsewhereIsLeftOut(t *testing.T) {
	assign.Hard(t)
	r := rand.New(rand.NewPCG(16, 6))
	fewer := 0
	for range 200 {
		p := draw(r, 3+r.IntN(5), 1+r.IntN(4), r.IntN(4))
		if r.IntN(2) == 0 {
			p = drawAlike(r, 5, 1+r.IntN(3), 1+r.IntN(4))
		}
		const grain = 20
		for at := range p.Places {
			for i := range p.Places[at] {
				o := &p.Places[at][i]
				o.Worth = o.Worth*grain - int64(r.IntN(2)) // less than a grain together
			}
		}
		exact, err := assign.Solve(context.Background(), p)
		if err != nil {
			continue // nothing can be had
		}
		p.Grain = grain
		for _, c := range exact.Choices {
			switch r.IntN(4) {
			case 0:
				p.Beat = append(p.Beat, assign.Choice{Money: c.Money, Worth: c.Worth})
			case 1:
				p.Beat = append(p.Beat, assign.Choice{Money: c.Money + int64(r.IntN(300)), Worth: c.Worth + int64(r.IntN(5*grain))})
			}
		}
		some, err := assign.Solve(context.Background(), p)
		require.NoError(t, err)
		asSaid(t, &p, some.Choices)
		require.Equal(t, points(grain, exact.Choices, p.Beat), points(grain, some.Choices, p.Beat))
		if len(some.Choices) < len(exact.Choices) {
			fewer++
		}
		p.Beat = exact.Choices
		none, err := assign.Solve(context.Background(), p)
		require.NoError(t, err)
		require.True(t, none.Exact)
		asSaid(t, &p, none.Choices)
		require.Equal(t, points(grain, exact.Choices), points(grain, exact.Choices, none.Choices))
	}
	require.Greater(t, fewer, 50)
}

// Where not all is kept it is said what a choice could be worth at most, and none is worth more: on
// 200 fleets small enough to be worked out exactly as well.
func TestWhatIsMissingIsWorthAtMostWhatIsSaid(t *testing.T) {
	r := rand.New(rand.NewPCG(16, 5))
	tight, inexact, missed := 0, 0, 0
	for range 200 {
		p := draw(r, 5+r.IntN(8), 2+r.IntN(5), r.IntN(5))
		exact, err := assign.Solve(context.Background(), p)
		require.NoError(t, err)
		p.Most = 1 + r.IntN(60)
		some, err := assign.Solve(context.Background(), p)
		require.NoError(t, err)
		asSaid(t, &p, some.Choices)
		for _, c := range exact.Choices {
			within := some.Within(c.Money)
			if within == nil {
				missed++ // nothing is said of less money than the cheapest that was found
				continue
			}
			require.LessOrEqual(t, within.Worth, c.Worth)
			require.LessOrEqual(t, c.Worth, within.AtMost)
			if some.Exact {
				require.Equal(t, c.Worth, within.Worth)
			} else if inexact++; within.AtMost <= c.Worth*11/10 {
				tight++
			}
		}
	}
	require.Greater(t, inexact, 1000)
	require.Less(t, missed, inexact/50)
	require.Greater(t, tight, inexact/2, "what is said is hardly ever near")
}

// More money is never worth less, and no point of the curve beats another.
func TestTheCurveRises(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 0))
		p := draw(r, 8, 5, 3)
		curve, err := assign.Solve(context.Background(), p)
		require.NoError(t, err)
		for i := 1; i < len(curve.Choices); i++ {
			require.Greater(t, curve.Choices[i].Money, curve.Choices[i-1].Money)
			require.Greater(t, curve.Choices[i].Worth, curve.Choices[i-1].Worth)
		}
		thing := rapid.IntRange(0, 2).Draw(t, "thing")
		richer := p
		richer.Things = append([]assign.Thing{}, p.Things...)
		richer.Things[thing].Have++
		more, err := assign.Solve(context.Background(), richer)
		require.NoError(t, err)
		for _, c := range curve.Choices {
			require.GreaterOrEqual(t, more.Within(c.Money).Worth, c.Worth, "a part owned never makes anything dearer")
		}
	})
}

// What cannot be is said, and who stops waiting ends it.
// Twelve pairs of places, each pair with one thing between them: whichever order they come in, what one
// pair has drawn on tells nothing apart once both are taken.
func TestWhatFewPlacesDrawOnIsForgottenSoon(t *testing.T) {
	const pairs = 12
	var beside, apart assign.Problem
	apart.Places = make([][]assign.Option, 2*pairs)
	r := rand.New(rand.NewPCG(12, 24))
	for pair := range pairs {
		thing := assign.Thing{Have: 1, Price: -1}
		beside.Things, apart.Things = append(beside.Things, thing), append(apart.Things, thing)
		for n := range 2 {
			place := []assign.Option{{}, {Money: int64(r.IntN(200)), Worth: int64(1 + r.IntN(60)), Uses: []assign.Use{{Thing: pair, Count: 1}}}}
			beside.Places = append(beside.Places, place)
			apart.Places[n*pairs+pair] = place
		}
	}
	one, err := assign.Solve(t.Context(), beside)
	require.NoError(t, err)
	other, err := assign.Solve(t.Context(), apart)
	require.NoError(t, err)
	assert.Equal(t, points(1, one.Choices), points(1, other.Choices))
	assert.Greater(t, len(one.Choices), 20)
	assert.Less(t, other.Labels, 5*len(one.Choices)*pairs, "one by one they would tell 4,096 ways apart")
	asSaid(t, &apart, other.Choices)
}

func TestNoChoice(t *testing.T) {
	_, err := assign.Solve(context.Background(), assign.Problem{Places: [][]assign.Option{{}}})
	assert.ErrorContains(t, err, "no option")
	_, err = assign.Solve(context.Background(), assign.Problem{Places: [][]assign.Option{{{}, {}}, {}}, Most: 1})
	assert.ErrorContains(t, err, "place 1: no option")
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err = assign.Solve(ctx, draw(rand.New(rand.NewPCG(1, 1)), 3, 3, 0))
	assert.ErrorIs(t, err, context.Canceled)
}

// 30 quads with 10 units each, of which 8 are owned and two parts lie in the drawer.
func BenchmarkThirtyQuads(b *testing.B) {
	r := rand.New(rand.NewPCG(30, 10))
	p := draw(r, 30, 10, 10)
	for b.Loop() {
		if _, err := assign.Solve(context.Background(), p); err != nil {
			b.Fatal(err)
		}
	}
}

// Outside check: the pseudo-boolean optimiser of github.com/crillab/gophersat finds the same worth
// within a budget on 100 fleets of mixed size.
func TestTheBestWithinABudgetAgainstAnOptimiser(t *testing.T) {
	r := rand.New(rand.NewPCG(16, 100))
	for range 100 {
		p := draw(r, 3+r.IntN(8), 2+r.IntN(4), r.IntN(4))
		for i := range p.Things {
			p.Things[i].Price = -1 // what is bought is a matter of the option's own price there
		}
		curve, err := assign.Solve(context.Background(), p)
		require.NoError(t, err)
		budget := int64(r.IntN(800)) * 100
		require.Equal(t, optimum(&p, budget), curve.Within(budget).Worth)
	}
}

// optimum is the worth the optimiser finds: it pays for what each place misses of its best.
func optimum(p *assign.Problem, budget int64) (worth int64) {
	var rules []solver.PBConstr
	var all, money, misses []int
	var cost []solver.Lit
	uses := make([][]int, len(p.Things))
	counts := make([][]int, len(p.Things))
	for _, options := range p.Places {
		best := slices.MaxFunc(options, func(a, b assign.Option) int { return cmp.Compare(a.Worth, b.Worth) }).Worth
		worth += best
		var one []int
		for _, o := range options {
			n := len(all) + 1
			one, all = append(one, n), append(all, n)
			money = append(money, int(o.Money/100))
			misses, cost = append(misses, int(best-o.Worth)), append(cost, solver.IntToLit(int32(n)))
			for _, u := range o.Uses {
				uses[u.Thing], counts[u.Thing] = append(uses[u.Thing], n), append(counts[u.Thing], u.Count)
			}
		}
		rules = append(rules, solver.PropClause(one...), solver.AtMost(slices.Clone(one), 1))
	}
	for i := range uses {
		if len(uses[i]) > 0 {
			rules = append(rules, solver.LtEq(uses[i], counts[i], p.Things[i].Have))
		}
	}
	problem := solver.ParsePBConstrs(append(rules, solver.LtEq(all, money, int(budget/100))))
	problem.SetCostFunc(cost, misses)
	return worth - int64(solver.New(problem).Minimize())
}
