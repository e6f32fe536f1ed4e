package route_test

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/internal/sample"
	"yokeswap/core/plans/route"
)

// Which firmware goes on which device so that a quad links with the goggles wanted.
func ExampleSolve() {
	unit, goggles := sample.Own("first", "1.0", ""), sample.Own("new-eyes", "5.0", "b")
	c := sample.Case(sample.Set(), []fleet.Kit{unit, goggles}, fleet.Fit{
		AirUnit: &fleet.Slot{Kit: unit.ID},
		Goggles: &fleet.Slot{Kit: goggles.ID},
	})
	plan, err := route.Solve(route.Request{
		Library: c.Library,
		Fleet:   c.Fleet,
		Wants:   []fleet.Want{{Quad: c.Quad.ID, Goggles: goggles.ID, Weight: fleet.Must}},
	})
	fmt.Println(err, plan.Links[0].Met)
	for _, step := range plan.Steps {
		fmt.Println(step.Label, step.From, "to", step.To, step.OneWay)
	}
	// Output:
	// <nil> true
	// new-eyes 5.0 to 5.2 true
	// first 1.0 to 1.1 true
}
