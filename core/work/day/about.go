package day

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/decide"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
)

// Timing says how long a planned fit takes at the bench, by how long such steps took before.
func Timing(learned bench.Learned) decide.Timing {
	return func(c fleet.Case) (t decide.BenchTime) {
		sheet := bench.NewSheet(c, swap.Judge(c), "", "")
		sheet.Time(learned)
		for _, chore := range choresOf(sheet) {
			t.Minutes += chore.Minutes
			if chore.Guessed {
				t.Guessed += chore.Minutes
			}
		}
		return t
	}
}
