package assign_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"yokeswap/core/plans/assign"
	"yokeswap/internal/outside"
)

// programme is a problem within a budget as an integer programme in the CPLEX LP form: one of
// the options of each place, of each thing what there is and what is bought beside.
func programme(p *assign.Problem, budget int64) string {
	var worth, money, ones, whole []string
	uses := make([]string, len(p.Things))
	for at, options := range p.Places {
		var one []string
		for i, o := range options {
			x := fmt.Sprintf("x%d_%d", at, i)
			one, whole = append(one, x), append(whole, x)
			worth, money = append(worth, fmt.Sprintf("%d %s", o.Worth, x)), append(money, fmt.Sprintf("%d %s", o.Money, x))
			for _, u := range o.Uses {
				uses[u.Thing] += fmt.Sprintf(" + %d %s", u.Count, x)
			}
		}
		ones = append(ones, strings.Join(one, " + ")+" = 1")
	}
	var bought []string
	rules := ones
	for i, t := range p.Things {
		if uses[i] == "" {
			continue
		}
		more := ""
		if t.Price >= 0 {
			b := fmt.Sprintf("b%d", i)
			more, bought, money = " - "+b, append(bought, b), append(money, fmt.Sprintf("%d %s", t.Price, b))
		}
		rules = append(rules, fmt.Sprintf("%s%s <= %d", uses[i], more, t.Have))
	}
	rules = append(rules, fmt.Sprintf("%s <= %d", strings.Join(money, " + "), budget))
	return "Maximize\n" + strings.Join(worth, "\n + ") + "\nSubject To\n" + strings.Join(rules, "\n") +
		"\nGenerals\n" + strings.Join(bought, " ") + "\nBinaries\n" + strings.Join(whole, " ") + "\nEnd\n"
}

var objective = regexp.MustCompile(`(?m)^Objective: .* = (\S+)`)

// solved is the greatest worth glpsol finds within a budget.
func solved(t testing.TB, program string, p *assign.Problem, budget int64) int64 {
	dir := t.TempDir()
	in, out := filepath.Join(dir, "p.lp"), filepath.Join(dir, "p.txt")
	require.NoError(t, os.WriteFile(in, []byte(programme(p, budget)), 0o600))
	says, err := exec.Command(program, "--lp", in, "-o", out, "--mipgap", "0").CombinedOutput()
	require.NoError(t, err, "%s", says)
	text, err := os.ReadFile(out)
	require.NoError(t, err)
	found := objective.FindSubmatch(text)
	require.NotNil(t, found, "%s", text)
	worth, err := strconv.ParseFloat(string(found[1]), 64)
	require.NoError(t, err)
	return int64(worth)
}

// Outside check: Debian's glpsol finds the same worth within a budget as an integer programme, on
// 60 fleets of mixed size, with things bought beside what there is.
func TestTheBestWithinABudgetAgainstAnIntegerProgramme(t *testing.T) {
	program := outside.Program(t, "glpsol")
	r := rand.New(rand.NewPCG(16, 60))
	for range 60 {
		p := draw(r, 3+r.IntN(18), 2+r.IntN(6), r.IntN(6))
		curve, err := assign.Solve(context.Background(), p)
		require.NoError(t, err)
		budget := int64(r.IntN(200*len(p.Places))) * 100 / 2
		require.Equal(t, solved(t, program, &p, budget), curve.Within(budget).Worth)
	}
}

// How long glpsol takes for each point of a curve, beside ours for the whole of it.
func BenchmarkAgainstAnIntegerProgramme(b *testing.B) {
	program := outside.Program(b, "glpsol")
	for _, places := range []int{10, 20, 30} {
		b.Run(fmt.Sprint(places), func(b *testing.B) {
			p := draw(rand.New(rand.NewPCG(30, 10)), places, 10, 10)
			var curve assign.Curve
			var ours, theirs time.Duration
			for b.Loop() {
				begin := time.Now()
				var err error
				curve, err = assign.Solve(context.Background(), p)
				require.NoError(b, err)
				ours += time.Since(begin)
				begin = time.Now()
				const every = 20 // a twentieth of the points stands for all
				for i := 0; i < len(curve.Choices); i += every {
					c := curve.Choices[i]
					require.Equal(b, c.Worth, solved(b, program, &p, c.Money))
				}
				theirs += time.Since(begin) * time.Duration(len(curve.Choices)) /
					time.Duration((len(curve.Choices)+every-1)/every)
			}
			b.ReportMetric(float64(len(curve.Choices)), "points")
			b.ReportMetric(ours.Seconds()/float64(b.N), "ours-s/op")
			b.ReportMetric(theirs.Seconds()/float64(b.N), "theirs-s/op")
			b.ReportMetric(float64(theirs)/float64(ours), "times")
			b.ReportMetric(20, "goal-times")
		})
	}
}
