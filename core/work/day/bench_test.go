package day

import (
	"math/rand/v2"
	"testing"
)

// Two sheets of forty steps with times as they are, one pair of hands and two.
func BenchmarkDay(b *testing.B) {
	r := rand.New(rand.NewPCG(9, 10))
	long := func() (list []Chore) {
		for i := range 40 {
			s := Chore{ID: string(rune('a' + i)), Minutes: 1 + r.IntN(12), Alone: i == 2 || i == 5}
			if i > 6 && i < 18 && i%2 == 0 {
				s.takes = []string{ironThing}
			}
			if i > 28 || s.Alone {
				s.takes = []string{"goggles", "sticks"}
			}
			list = append(list, s)
		}
		return list
	}
	for _, hands := range []int{1, 2} {
		b.Run(map[int]string{1: "one", 2: "two"}[hands], func(b *testing.B) {
			for b.Loop() {
				newProblem(long(), long(), hands).shortest()
			}
			b.ReportMetric(100, "goal-ms")
		})
	}
}
