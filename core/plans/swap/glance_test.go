package swap

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The board says as much of a finding as it has room for: whole clauses where they go.
func TestAGlance(t *testing.T) {
	for says, is := range map[string]string{
		"It burns.":              "It burns.",
		strings.Repeat("x", 200): strings.Repeat("x", 76) + " …",
		"Aldine One would see 25.2 V from the pack, direct; its window ends at 17.8 V: 7.4 V too much. It burns.": "Aldine " +
			"One would see 25.2 V from the pack, direct …",
		strings.Repeat("word ", 40): strings.Repeat("word ", 15)[:74] + " …",
	} {
		assert.Equal(t, is, glance(says))
	}
}
