package web

import (
	"os"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/plans/swap"
)

// The register of gates stands in core; what the web and the interface add to a gate is
// a column of their own over the same names, and none may lack one.
func TestEveryGateHasItsPlaceInTheViewAndItsPicture(t *testing.T) {
	inView := map[string]bool{}
	view := reflect.TypeFor[QuadView]()
	for i := range view.NumField() {
		inView[view.Field(i).Tag.Get("json")] = true
	}
	parts, err := os.ReadFile("../ui/src/swap/gates.ts")
	require.NoError(t, err)
	for _, gate := range swap.Gates {
		assert.True(t, inView[string(gate.Name)], "QuadView has nothing for %s", gate.Name)
		assert.Contains(t, string(parts), "\n  "+string(gate.Name)+": {", "the interface draws nothing for it")
		assert.True(
			t,
			strings.HasSuffix(gate.Question, "?") && gate.Title != "" && gate.Check != nil && gate.Candidates != nil &&
				gate.Draw != nil,
		)
	}
}
