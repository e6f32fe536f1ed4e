package assign

import "testing"

// Hard has bounds worked out at once, whatever there is to look at.
func Hard(t *testing.T) {
	was := easy
	easy = -1
	t.Cleanup(func() { easy = was })
}
