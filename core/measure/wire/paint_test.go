package wire_test

import (
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/measure/wire"
)

func TestAWireIsPaintedByTheWordForItHoweverWritten(t *testing.T) {
	assert.Equal(t, wire.Paint("red"), wire.Paint(" Red"))
	assert.Equal(t, wire.Paint("grey"), wire.Paint("gray"))
	assert.Equal(t, wire.Paint(""), wire.Paint("mauve"))
	seen := map[string]string{}
	for _, word := range []string{
		"", "red", "black", "white", "yellow", "orange", "blue", "green", "brown", "purple", "pink",
	} {
		paint := wire.Paint(word)
		assert.Regexp(t, regexp.MustCompile(`^#[0-9a-f]{6}$`), paint)
		assert.Empty(t, seen[paint], "%s is painted as %s is", word, seen[paint])
		seen[paint] = "‘" + word + "’"
	}
}
