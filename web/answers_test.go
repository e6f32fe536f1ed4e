package web

import (
	"context"
	"fmt"
	"log/slog"
	"runtime"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// asked is a question nothing makes slow.
func asked(text string) question { return question{text, func() string { return "" }} }

// The same question on the same revision is worked out once, however many ask at once; on
// another it is worked out anew; a fault is never answered as if there were nothing.
func TestAQuestionIsWorkedOutOncePerRevision(t *testing.T) {
	a := newAnswers(slog.New(slog.DiscardHandler), &jobs{})
	ctx := context.Background()
	var worked atomic.Int64
	find := func(context.Context) (any, error) { return worked.Add(1), nil }
	ask := func(revision int64, question string) string {
		text, err := a.of(ctx, revision, asked(question), find)
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
	assert.Panics(t, func() { _, _ = a.of(ctx, 9, asked("fault"), func(context.Context) (any, error) { panic("here") }) })
	_, err := a.of(ctx, 9, asked("fault"), find)
	assert.ErrorIs(t, err, errStopped)
}

// What nobody waits for any more is not begun, and who comes after is answered.
func TestAQuestionGivenUpIsNotWorkedOn(t *testing.T) {
	a := newAnswers(slog.New(slog.DiscardHandler), &jobs{})
	hold := make(chan struct{})
	var wait sync.WaitGroup
	for n := range cap(a.at) { // every place is taken
		wait.Go(func() {
			_, _ = a.of(context.Background(), 1, asked(fmt.Sprint("busy ", n)), func(context.Context) (any, error) { <-hold; return 1, nil })
		})
	}
	for len(a.at) < cap(a.at) {
		runtime.Gosched()
	}
	var worked atomic.Int64
	find := func(context.Context) (any, error) { return worked.Add(1), nil }
	gone, goes := context.WithCancel(context.Background())
	left := make(chan error)
	go func() {
		_, err := a.of(gone, 1, asked("given up"), find)
		left <- err
	}()
	waits := make(chan string)
	go func() {
		text, _ := a.of(context.Background(), 1, asked("given up"), find)
		waits <- string(text)
	}()
	goes()
	assert.ErrorIs(t, <-left, context.Canceled)
	assert.Zero(t, worked.Load())
	close(hold)
	assert.Equal(t, "1", <-waits, "who still waits is answered")
	wait.Wait()
}

// What has been begun ends once nobody waits for it any more, and who comes after is
// answered from the start.
func TestWorkEndsWhenItsRequestIsGone(t *testing.T) {
	a := newAnswers(slog.New(slog.DiscardHandler), &jobs{})
	begun, ended := make(chan struct{}), make(chan struct{})
	long := func(ctx context.Context) (any, error) {
		close(begun)
		<-ctx.Done()
		close(ended)
		return nil, ctx.Err()
	}
	one, oneGoes := context.WithCancel(context.Background())
	two, twoGoes := context.WithCancel(context.Background())
	left := make(chan error)
	for _, ctx := range []context.Context{one, two} {
		go func() {
			_, err := a.of(ctx, 1, asked("route"), long)
			left <- err
		}()
	}
	<-begun
	for waiting := 0; waiting < 2; runtime.Gosched() {
		a.mu.Lock()
		waiting = a.kept["route"].waiting
		a.mu.Unlock()
	}
	assert.Len(t, a.jobs.underWay(), 1)
	assert.Equal(t, "the route", a.jobs.underWay()[0].Says)
	oneGoes()
	assert.ErrorIs(t, <-left, context.Canceled)
	select {
	case <-ended:
		t.Error("it ended although another waits")
	case <-time.After(20 * time.Millisecond):
	}
	twoGoes()
	assert.ErrorIs(t, <-left, context.Canceled)
	<-ended
	text, err := a.of(context.Background(), 1, asked("route"), func(context.Context) (any, error) { return 3, nil })
	assert.NoError(t, err)
	assert.Equal(t, "3", string(text))
}
