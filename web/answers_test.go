package web

import (
	"context"
	"fmt"
	"log/slog"
	"runtime"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The same question on the same revision is worked out once, however many ask at once; on
// another it is worked out anew; a fault is never answered as if there were nothing.
func TestAQuestionIsWorkedOutOncePerRevision(t *testing.T) {
	a := newAnswers(slog.New(slog.DiscardHandler))
	ctx := context.Background()
	var worked atomic.Int64
	find := func() (any, error) { return worked.Add(1), nil }
	ask := func(revision int64, question string) string {
		text, err := a.of(ctx, revision, question, find)
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
	assert.Panics(t, func() { _, _ = a.of(ctx, 9, "fault", func() (any, error) { panic("here") }) })
	_, err := a.of(ctx, 9, "fault", find)
	assert.ErrorIs(t, err, errStopped)
}

// What nobody waits for any more is not begun, and who comes after is answered.
func TestAQuestionGivenUpIsNotWorkedOn(t *testing.T) {
	a := newAnswers(slog.New(slog.DiscardHandler))
	hold := make(chan struct{})
	var wait sync.WaitGroup
	for n := range cap(a.at) { // every place is taken
		wait.Go(func() {
			_, _ = a.of(context.Background(), 1, fmt.Sprint("busy ", n), func() (any, error) { <-hold; return 1, nil })
		})
	}
	for len(a.at) < cap(a.at) {
		runtime.Gosched()
	}
	var worked atomic.Int64
	find := func() (any, error) { return worked.Add(1), nil }
	gone, goes := context.WithCancel(context.Background())
	left := make(chan error)
	go func() {
		_, err := a.of(gone, 1, "given up", find)
		left <- err
	}()
	waits := make(chan string)
	go func() {
		text, _ := a.of(context.Background(), 1, "given up", find)
		waits <- string(text)
	}()
	goes()
	assert.ErrorIs(t, <-left, context.Canceled)
	assert.Zero(t, worked.Load())
	close(hold)
	assert.Equal(t, "1", <-waits, "who still waits is answered")
	wait.Wait()
}
