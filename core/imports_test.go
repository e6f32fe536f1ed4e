package core_test

import (
	"os/exec"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
)

// The core is the job alone: nothing in it reaches HTTP, a database, a file or
// another process, or any package of the outer layers.
func TestCoreImportsNothingOfTheOuterLayers(t *testing.T) {
	out, err := exec.Command("go", "list", "-deps", "./...").Output()
	require.NoError(t, err)
	deps := strings.Fields(string(out))
	require.Contains(t, deps, "yokeswap/core/plans/swap")
	for _, dep := range deps {
		if slices.Contains([]string{"net/http", "database/sql", "os/exec", "net"}, dep) || strings.Contains(dep, "gorm") ||
			strings.HasPrefix(dep, "yokeswap/") && !strings.HasPrefix(dep, "yokeswap/core") {
			t.Errorf("core depends on %s", dep)
		}
	}
}

// floors are those of the core, from the ground up.
var floors = []string{"measure", "facts", "gates", "plans", "work"}

// A package imports what lies on its own floor or below, never what lies above; the
// compiler sees to it that there is no circle.
func TestFloorsImportDownwardsOnly(t *testing.T) {
	out, err := exec.Command("go", "list", "-f", `{{.ImportPath}} {{join .Imports " "}}`, "./...").Output()
	require.NoError(t, err)
	floorOf := func(path string) int {
		return slices.Index(floors, strings.Split(strings.TrimPrefix(path, "yokeswap/core/"), "/")[0])
	}
	packages := 0
	for line := range strings.Lines(string(out)) {
		names := strings.Fields(line)
		if !strings.HasPrefix(names[0], "yokeswap/core/") || strings.Contains(names[0], "/internal/") {
			continue
		}
		packages++
		require.GreaterOrEqual(t, floorOf(names[0]), 0, "%s stands on no floor", names[0])
		for _, name := range names[1:] {
			if strings.HasPrefix(name, "yokeswap/core/") && floorOf(name) > floorOf(names[0]) {
				t.Errorf("%s imports %s, which lies above it", names[0], name)
			}
		}
	}
	require.GreaterOrEqual(t, packages, 22)
}

// The register says which gates a gate asks for what they find; that is what its package
// imports.
func TestTheRegisterSaysWhatAGateNeeds(t *testing.T) {
	const gates = "yokeswap/core/gates/"
	out, err := exec.Command("go", "list", "-f", `{{.ImportPath}} {{join .Imports " "}}`, "./gates/...").Output()
	require.NoError(t, err)
	imports := map[string][]verdict.Gate{}
	for line := range strings.Lines(string(out)) {
		names := strings.Fields(line)
		for _, name := range names[1:] {
			if gate, is := strings.CutPrefix(name, gates); is {
				own := strings.TrimPrefix(names[0], gates)
				imports[own] = append(imports[own], verdict.Gate(gate))
			}
		}
	}
	for _, gate := range swap.Gates {
		require.Equal(t, imports[string(gate.Name)], gate.Needs, "what the %s gate needs", gate.Name)
	}
}
