package web

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"reflect"
	"runtime"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
)

// answers keeps what was answered for as long as nothing has changed: the same question
// on the same revision is worked out once, however many ask. No more is worked on at once
// than there are processors, and what nobody waits for any more is not begun.
type answers struct {
	mu       sync.Mutex
	revision int64
	kept     map[string]*kept
	at       chan struct{} // a place for each that is worked on
	log      *slog.Logger
}

type kept struct {
	done  chan struct{}
	text  json.RawMessage
	err   error
	leave bool // it was not begun: who asked first has gone
}

const (
	mostKept = 256             // bounds the memory: a view of a quad takes some 100 kB
	slow     = 2 * time.Second // what takes longer is noted, with what makes it so
)

func newAnswers(log *slog.Logger) *answers {
	return &answers{at: make(chan struct{}, runtime.GOMAXPROCS(0)), log: log}
}

// errStopped is what those are told who ask again for what a fault of the program stopped.
var errStopped = errors.New("a fault of the program stopped the answer; its log says where")

// of is the answer to a question on a revision. It ends with the request's context where
// that ends first.
func (a *answers) of(
	ctx context.Context,
	revision int64,
	question string,
	find func() (any, error),
) (json.RawMessage, error) {
	for {
		k, first := a.entry(revision, question)
		if first {
			a.work(ctx, k, question, find)
		}
		select {
		case <-k.done:
		case <-ctx.Done():
			return nil, ctx.Err()
		}
		switch {
		case !k.leave:
			return k.text, k.err
		case first:
			return nil, ctx.Err()
		}
	}
}

// entry is what is kept of a question; first: nobody has asked it yet.
func (a *answers) entry(revision int64, question string) (k *kept, first bool) {
	a.mu.Lock()
	defer a.mu.Unlock()
	if a.revision != revision || a.kept == nil || len(a.kept) >= mostKept && a.kept[question] == nil {
		a.revision, a.kept = revision, map[string]*kept{}
	}
	if k = a.kept[question]; k != nil {
		return k, false
	}
	k = &kept{done: make(chan struct{}), err: errStopped}
	a.kept[question] = k
	return k, true
}

// work answers a question once there is a place for it.
func (a *answers) work(ctx context.Context, k *kept, question string, find func() (any, error)) {
	defer close(k.done)
	select {
	case a.at <- struct{}{}:
		defer func() { <-a.at }()
	case <-ctx.Done():
		a.mu.Lock()
		defer a.mu.Unlock()
		k.leave = true
		if a.kept[question] == k {
			delete(a.kept, question)
		}
		return
	}
	began := time.Now()
	found, err := find()
	if err == nil {
		k.text, err = json.Marshal(found)
	}
	k.err = err
	if took := time.Since(began); took > slow {
		a.log.Warn("slow to answer", "what", question, "took", took.Round(time.Millisecond), "bytes", len(k.text))
	}
}

// ready is an answer that is text already; in the description of the API it is a T.
type ready[T any] struct {
	ContentType string `header:"Content-Type"`
	Body        []byte
}

// holds describes an operation whose answer is ready as one that answers with a T.
func holds[T any](api huma.API) func(*huma.Operation) {
	return func(o *huma.Operation) {
		schema := api.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[T](), true, "")
		o.Responses = map[string]*huma.Response{"200": {Description: "OK", Content: map[string]*huma.MediaType{
			"application/json": {Schema: schema},
		}}}
	}
}

// answered gives the answer to a question on a revision as a response.
func answered[T any](
	ctx context.Context, a *answers, revision int64, question string, find func() (*T, error),
) (*ready[T], error) {
	text, err := a.of(ctx, revision, question, func() (any, error) { return find() })
	if err != nil {
		return nil, problem(err)
	}
	return &ready[T]{"application/json", text}, nil
}
