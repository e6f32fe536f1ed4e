package swap_test

import (
	"fmt"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// What is said of the demo, and of builds drawn at random, stands in testdata word for
// word: a change of any of it is seen and read before it is taken. SAID=1 writes it
// anew; the difference belongs into the same commit, and someone has to have read it.

func TestWhatIsSaidOfTheDemo(t *testing.T) {
	st := builds.Demo()
	f := fleet.NewIndex(st.Fleet)
	var text strings.Builder
	for i := range f.Quads {
		c := fleet.NewCase(st.Library(), f, &f.Quads[i])
		j := swap.JudgeWithFixes(c)
		fmt.Fprintf(&text, "# %s: %s %s\n", c.Quad.ID, j.Level, j.Danger)
		for _, gate := range j.Gates {
			writeGate(&text, gate, true)
		}
	}
	board := swap.NewBoard(st.Library(), f, nil)
	fmt.Fprintf(&text, "# board: %s\n", board.Says)
	for _, row := range board.Rows {
		fmt.Fprintf(
			&text,
			"%s: %s → %s, %s, flies %s, needs %q, goggles %v\n",
			row.Quad,
			row.Now,
			row.Next,
			row.Level,
			row.Flies,
			row.Needs,
			row.Goggles,
		)
	}
	fmt.Fprintf(&text, "# shopping\n")
	for _, item := range swap.Shopping(st.Library(), f) {
		fmt.Fprintf(
			&text,
			"%s: need %d, have %d, buy %d, for %v, stops %v, %s\n",
			item.Label,
			item.Need,
			item.Have,
			item.Buy,
			item.For,
			item.Stops,
			item.Note,
		)
	}
	approved(t, "demo.txt", text.String())
}

func TestWhatIsSaidOfRandomBuilds(t *testing.T) {
	st := builds.Demo()
	var text strings.Builder
	for seed := range uint64(40) {
		f := builds.Alone(seed, st.Library(), st.Fleet)
		c := fleet.NewCase(st.Library(), f, &f.Quads[0])
		fmt.Fprintf(&text, "# build %d\n", seed)
		for _, gate := range swap.JudgeWithFixes(c).Gates {
			writeGate(&text, gate, false)
		}
	}
	approved(t, "builds.txt", text.String())
}

func writeGate(text *strings.Builder, gate swap.GateVerdict, whole bool) {
	fmt.Fprintf(text, "%s: %s\n", gate.Gate, gate.Level)
	for _, f := range gate.Findings {
		if !whole {
			writeBriefly(text, f)
			continue
		}
		fmt.Fprintf(text, "  %s %s %s, %s: %s\n", f.Level, f.Danger, f.Code, f.Subject, f.Says)
		for _, compared := range f.Compares {
			fmt.Fprintf(text, "    %s: %s / %s / %s\n", compared.What, compared.Needed, compared.There, compared.Margin)
		}
		for _, missing := range f.Missing {
			fmt.Fprintf(text, "    ? %s %s %s\n", missing.Of, missing.ID, missing.Field)
		}
		for _, fix := range f.Fixes {
			fmt.Fprintf(
				text,
				"    > %s (%s) → %s, quad %s, %s %q\n",
				fix.Says,
				fix.Costs,
				fix.Gate,
				fix.Quad,
				fix.Danger,
				fix.Warns,
			)
		}
	}
}

func writeBriefly(text *strings.Builder, f verdict.Finding) {
	if f.Level == verdict.Fits {
		return
	}
	fmt.Fprintf(text, "  %s %s %s, %s", f.Level, f.Danger, f.Code, f.Subject)
	for _, compared := range f.Compares {
		fmt.Fprintf(text, "; %s against %s", compared.There, compared.Needed)
	}
	for _, fix := range f.Fixes {
		fmt.Fprintf(text, " > %s", fix.Says)
	}
	fmt.Fprintln(text)
}

// around is a line where it differs.
func around(line string, at int) string {
	return line[max(0, min(at, len(line))-80):min(len(line), at+160)]
}

// approved holds what is said against what was approved. Numbers are reckoned to the last
// bit alike on one kind of processor only.
func approved(t *testing.T, name, is string) {
	if runtime.GOARCH != "amd64" {
		t.Skip("written on another kind of processor")
	}
	path := filepath.Join("testdata", name)
	if os.Getenv("SAID") != "" {
		require.NoError(t, os.WriteFile(path, []byte(is), 0o644))
	}
	was, err := os.ReadFile(path)
	require.NoError(t, err)
	wasLines, isLines := strings.Split(string(was), "\n"), strings.Split(is, "\n")
	for i := range min(len(wasLines), len(isLines)) {
		if wasLines[i] != isLines[i] {
			from := 0
			for from < len(wasLines[i]) && from < len(isLines[i]) && wasLines[i][from] == isLines[i][from] {
				from++
			}
			t.Fatalf(
				"%s, line %d, %.40s…\n was: %s\n  is: %s",
				path,
				i+1,
				isLines[i],
				around(wasLines[i], from),
				around(isLines[i], from),
			)
		}
	}
	assert.Equal(t, len(wasLines), len(isLines), "lines of %s", path)
}
