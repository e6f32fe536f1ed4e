package web

import (
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The same question on the same revision is worked out once, however many ask at once; on
// another it is worked out anew; a fault is never answered as if there were nothing.
func TestAQuestionIsWorkedOutOncePerRevision(t *testing.T) {
	var a answers
	var worked atomic.Int64
	find := func() (any, error) { return worked.Add(1), nil }
	ask := func(revision int64, question string) string {
		text, err := a.of(revision, question, find)
		assert.NoError(t, err)
		return string(text)
	}
	var wait sync.WaitGroup
	for range 50 {
		wait.Go(func() { assert.Equal(t, "1", ask(7, "board")) })
	}
	wait.Wait()
	assert.Equal(t, "2", ask(7, "quad"))
	assert.Equal(t, "1", ask(7, "board"))
	assert.Equal(t, "3", ask(8, "board"))
	for n := range 2 * mostKept {
		ask(8, string(rune('a'+n)))
		assert.LessOrEqual(t, len(a.kept), mostKept)
	}
	assert.Panics(t, func() { _, _ = a.of(9, "fault", func() (any, error) { panic("here") }) })
	_, err := a.of(9, "fault", find)
	assert.ErrorIs(t, err, errStopped)
}
