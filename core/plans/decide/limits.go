package decide

import "math"

// Up to exactUpTo quads all part choices are kept that could matter. Of larger fleets those are so
// many, over all scenarios, and it is said what a choice that was not looked at could be worth at
// most. A test keeps fewer.
var (
	exactUpTo    = 30
	mostChoices  = 50_000
	leastChoices = 400 // of a scenario, however many there are
)

// most is how many part choices are kept of each of some scenarios; zero: all.
func (t *table) most(scenarios int) int {
	if len(t.quads) <= exactUpTo {
		return 0
	}
	return max(leastChoices, mostChoices/max(1, scenarios))
}

// limit is what no choice of a scenario is worth more than.
type limit struct {
	steps []atMost // the cheapest first
}

// atMost holds from some money on up to that of the next.
type atMost struct {
	money float64
	worth int64
}

// below is what no choice of a scenario is worth more than that costs less than some money.
func (l *limit) below(money float64) int64 {
	worth := int64(math.MinInt64)
	for _, s := range l.steps {
		if s.money >= money {
			break
		}
		worth = s.worth
	}
	return worth
}

// limit says of each point what no choice is worth more than that costs less than the next.
func (w *Weighed) limit(front []Point) {
	if w.exact || w.unlimited {
		return
	}
	for i := range front {
		next := math.Inf(1)
		if i+1 < len(front) {
			next = front[i+1].Money
		}
		most := front[i].Worth
		for k := range w.limits {
			most = max(most, w.limits[k].below(next))
		}
		front[i].AtMost = &most
	}
}
