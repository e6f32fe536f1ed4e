package core_test

import (
	"os/exec"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// The core is the job alone: nothing in it reaches HTTP, a database, a file or
// another process, or any package of the outer layers.
func TestCoreImportsNothingOfTheOuterLayers(t *testing.T) {
	out, err := exec.Command("go", "list", "-deps", "./...").Output()
	require.NoError(t, err)
	deps := strings.Fields(string(out))
	require.Contains(t, deps, "yokeswap/core/swap")
	for _, dep := range deps {
		if slices.Contains([]string{"net/http", "database/sql", "os/exec", "net"}, dep) || strings.Contains(dep, "gorm") ||
			strings.HasPrefix(dep, "yokeswap/") && !strings.HasPrefix(dep, "yokeswap/core") {
			t.Errorf("core depends on %s", dep)
		}
	}
}
