package swap

import (
	"fmt"
	"time"

	"yokeswap/core/facts/change"
	"yokeswap/core/plans/route"
)

// Deadline holds the day everything is wanted by against what has to come and what
// has to be updated before.
type Deadline struct {
	By string `json:"by"`
	// DaysLeft are the days from today until then; below zero it has passed.
	DaysLeft int `json:"daysLeft"`
	// DaysNeeded are those until the last part is there that a swap cannot do
	// without, and one at the bench for every BenchTime of updating. Absent: a
	// delivery time is not stated.
	DaysNeeded *int   `json:"daysNeeded,omitempty"`
	Holds      *bool  `json:"holds,omitempty"`
	Says       string `json:"says"`
}

// UpdateTime is what one step takes of which nobody states the minutes, and AroundTime
// what comes to those that are stated: charging, reading and binding afterwards. BenchTime
// is what fits into an evening (all from memory; a slow download takes longer).
const (
	UpdateTime = 30 * time.Minute
	AroundTime = 15 * time.Minute
	BenchTime  = 4 * time.Hour
)

// timeOf is what the steps of a route take in all.
func timeOf(steps []route.Step) (sum time.Duration) {
	for _, step := range steps {
		if step.Minutes == nil {
			sum += UpdateTime
			continue
		}
		sum += time.Duration(*step.Minutes)*time.Minute + AroundTime
	}
	return sum
}

// NewDeadline holds a day against a shopping bill and a route's steps. An unreadable
// day is an error.
func NewDeadline(by, today string, bill Bill, steps []route.Step) (Deadline, error) {
	until, err := time.Parse(time.DateOnly, by)
	if err != nil {
		return Deadline{}, fmt.Errorf("read the deadline: %w", err)
	}
	from, err := time.Parse(time.DateOnly, today)
	if err != nil {
		return Deadline{}, fmt.Errorf("read today's date: %w", err)
	}
	d := Deadline{By: by, DaysLeft: int(until.Sub(from).Hours() / 24)}
	bench := 0
	if len(steps) > 0 {
		bench = int((timeOf(steps) + BenchTime - 1) / BenchTime)
	}
	delivery := 0
	if bill.Days != nil {
		delivery = *bill.Days
	}
	need := delivery + bench
	switch {
	case d.DaysLeft < 0:
		d.DaysNeeded, d.Holds = &need, new(false)
		d.Says = fmt.Sprintf("The day it was wanted by, %s, has passed.", by)
	case need > d.DaysLeft:
		d.DaysNeeded, d.Holds = &need, new(false)
		d.Says = fmt.Sprintf("It will not be ready by %s: %s, and %s. %s left.", by, ordered(delivery),
			updated(steps, bench), change.Count(d.DaysLeft, "day"))
	case bill.Undated > 0:
		d.Says = fmt.Sprintf("Whether it is ready by %s is not known: %d %s no delivery time. %s left.", by, bill.Undated,
			partsState(bill.Undated), change.Count(d.DaysLeft, "day"))
	default:
		d.DaysNeeded, d.Holds = &need, new(true)
		d.Says = fmt.Sprintf("It can be ready by %s: %s, and %s. %s left.", by, ordered(delivery), updated(steps, bench),
			change.Count(d.DaysLeft, "day"))
	}
	return d, nil
}

func ordered(delivery int) string {
	if delivery == 0 {
		return "nothing has to come"
	}
	return "ordered today, the last part comes in " + change.Count(delivery, "day")
}

func updated(steps []route.Step, bench int) string {
	if len(steps) == 0 {
		return "there is nothing to update"
	}
	return fmt.Sprintf("the route's %s, about %.1f h in all, take %s at the bench", change.Count(len(steps), "step"),
		timeOf(steps).Hours(), change.Count(bench, "day"))
}

func partsState(n int) string {
	if n == 1 {
		return "part to buy states"
	}
	return "parts to buy state"
}
