package swap_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/plans/route"
	"yokeswap/core/plans/swap"
)

// A day that is set is held against delivery and updates; what is not dated keeps it
// open, unless what is dated is late already.
func TestTheDeadlineIsHeldAgainstDeliveryAndUpdates(t *testing.T) {
	nine := steps(9) // nine half hours are two evenings
	for name, c := range map[string]struct {
		by    string
		bill  swap.Bill
		steps []route.Step
		holds *bool
		says  string
	}{
		"to the day": {
			"2026-04-12",
			swap.Bill{Days: new(9)},
			nine,
			new(true),
			"It can be ready by 2026-04-12: ordered today, the last part comes in 9 days, and the route's 9 steps, about 4.5 " +
				"h in all, take 2 days at the bench. 11 days left.",
		},
		"a day short": {
			"2026-04-11",
			swap.Bill{Days: new(9)},
			nine,
			new(false),
			"It will not be ready by 2026-04-11: ordered today, the last part comes in 9 days, and the route's 9 steps, " +
				"about 4.5 h in all, take 2 days at the bench. 10 days left.",
		},
		"with the minutes stated": {
			"2026-04-12",
			swap.Bill{Days: new(9)},
			[]route.Step{{Minutes: new(45)}, {Minutes: new(15)}, {}},
			new(true),
			"It can be ready by 2026-04-12: ordered today, the last part comes in 9 days, and the route's 3 steps, about 2.0 " +
				"h in all, take 1 day at the bench. 11 days left.",
		},
		"one step takes an evening": {
			"2026-04-11",
			swap.Bill{Days: new(9)},
			[]route.Step{{Minutes: new(45)}},
			new(true),
			"It can be ready by 2026-04-11: ordered today, the last part comes in 9 days, and the route's 1 step, about 1.0 " +
				"h in all, take 1 day at the bench. 10 days left.",
		},
		"not dated": {
			"2026-05-11",
			swap.Bill{Days: new(9), Undated: 1},
			nil,
			nil,
			"Whether it is ready by 2026-05-11 is not known: 1 part to buy states no delivery time. 40 days left.",
		},
		"late, and more": {
			"2026-04-03",
			swap.Bill{Days: new(9), Undated: 1},
			nil,
			new(false),
			"It will not be ready by 2026-04-03: ordered today, the last part comes in 9 days, and there is nothing to " +
				"update. 2 days left.",
		},
		"passed": {"2026-03-31", swap.Bill{}, nil, new(false), "The day it was wanted by, 2026-03-31, has passed."},
		"nothing to do": {
			"2026-04-01",
			swap.Bill{},
			nil,
			new(true),
			"It can be ready by 2026-04-01: nothing has to come, and there is nothing to update. 0 days left.",
		},
	} {
		t.Run(name, func(t *testing.T) {
			d, err := swap.NewDeadline(c.by, "2026-04-01", c.bill, c.steps)
			require.NoError(t, err)
			assert.Equal(t, c.holds, d.Holds)
			assert.Equal(t, c.says, d.Says)
		})
	}
	_, err := swap.NewDeadline("soon", "2026-04-01", swap.Bill{}, nil)
	assert.ErrorContains(t, err, "read the deadline")
}

func steps(n int) []route.Step { return make([]route.Step, n) }
