package assign_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"testing"

	"yokeswap/core/plans/assign"
)

// Fleets too large to be worked out exactly: how long it takes, and how far what could be missed is
// above what is found, at its middle over the curve, in percent.
func BenchmarkLargerFleets(b *testing.B) {
	for _, places := range []int{60, 100, 200} {
		b.Run(fmt.Sprint(places), func(b *testing.B) {
			p := draw(rand.New(rand.NewPCG(30, 10)), places, 10, 10)
			p.Most = 6000
			var over float64
			for b.Loop() {
				curve, err := assign.Solve(context.Background(), p)
				if err != nil {
					b.Fatal(err)
				}
				var more, worth int64
				for _, c := range curve.Choices {
					more, worth = more+c.AtMost-c.Worth, worth+c.Worth
				}
				over = 100 * float64(more) / float64(worth)
			}
			b.ReportMetric(over, "%-over")
		})
	}
}
