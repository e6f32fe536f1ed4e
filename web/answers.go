package web

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"reflect"
	"runtime"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/plans/swap"
	"yokeswap/store"
)

// answers keeps what was answered for as long as nothing has changed: the same question
// on the same revision is worked out once, however many ask. No more is worked on at once
// than there are processors; what nobody waits for any more is not begun, and ended where it
// has been.
type answers struct {
	mu       sync.Mutex
	revision int64
	kept     map[string]*kept
	at       chan struct{} // a place for each that is worked on
	jobs     *jobs
	log      *slog.Logger
}

// kept is an answer, or one that is worked on.
type kept struct {
	done    chan struct{}
	text    json.RawMessage
	err     error
	waiting int // who waits for it
	stop    context.CancelFunc
	fault   any // what stopped the work on it
}

// question is what is asked, and what makes it take long to answer.
type question struct {
	text string
	why  func() string
}

// find works an answer out; it ends with the context, where nobody waits any more.
type find func(context.Context) (any, error)

const (
	mostKept = 256             // bounds the memory: a view of a quad takes some 100 kB
	slow     = 2 * time.Second // what takes longer is noted, with what makes it so
)

func newAnswers(log *slog.Logger, working *jobs) *answers {
	return &answers{at: make(chan struct{}, runtime.GOMAXPROCS(0)), log: log, jobs: working}
}

// errStopped is what those are told who ask again for what a fault of the program stopped.
var errStopped = errors.New("a fault of the program stopped the answer; its log says where")

// of is the answer to a question on a revision. It ends with the request's context where
// that ends first.
func (a *answers) of(ctx context.Context, revision int64, q question, find find) (json.RawMessage, error) {
	k, first := a.join(ctx, revision, q, find)
	select {
	case <-k.done:
	case <-ctx.Done():
		a.leave(k, q)
		return nil, ctx.Err()
	}
	if first && k.fault != nil {
		panic(k.fault)
	}
	return k.text, k.err
}

// join waits for what is kept of a question, or worked on; first: nobody has asked it yet,
// and the work is begun.
func (a *answers) join(ctx context.Context, revision int64, q question, find find) (k *kept, first bool) {
	a.mu.Lock()
	defer a.mu.Unlock()
	if a.revision != revision || a.kept == nil || len(a.kept) >= mostKept && a.kept[q.text] == nil {
		a.revision, a.kept = revision, map[string]*kept{}
	}
	if k = a.kept[q.text]; k != nil {
		k.waiting++
		return k, false
	}
	k = &kept{done: make(chan struct{}), err: errStopped, waiting: 1}
	a.kept[q.text] = k
	ctx, k.stop = context.WithCancel(context.WithoutCancel(ctx))
	go a.work(ctx, k, q, find)
	return k, true
}

// leave says that one who waited has gone; the last ends the work.
func (a *answers) leave(k *kept, q question) {
	a.mu.Lock()
	defer a.mu.Unlock()
	if k.waiting--; k.waiting > 0 {
		return
	}
	k.stop()
	if a.kept[q.text] == k {
		delete(a.kept, q.text)
	}
}

// work answers a question once there is a place for it.
func (a *answers) work(ctx context.Context, k *kept, q question, find find) {
	defer close(k.done)
	defer k.stop()
	select {
	case a.at <- struct{}{}:
		defer func() { <-a.at }()
	case <-ctx.Done():
		k.err = ctx.Err()
		return
	}
	defer func() {
		if k.fault = recover(); k.fault != nil {
			k.fault = fault{k.fault, panicPlace()}
		}
	}()
	ctx, job := a.jobs.begin(ctx, fmt.Sprintf("answer %p", k), title(q.text), q.why)
	defer a.jobs.end(job, nil, nil, false)
	found, err := find(ctx)
	if err == nil {
		k.text, err = json.Marshal(found)
	}
	k.err = err
	if took := time.Since(job.began); took > slow {
		a.log.Warn("slow to answer", "what", q.text, "took", took.Round(time.Millisecond), "bytes", len(k.text),
			"because", q.why())
	}
}

// titles are what questions are called while they are worked on, by their first word.
var titles = map[string]string{
	"board": "the yoke board", "whatif": "what else would open",
	"quad": "the gates of a quad", "ask": "what to ask next", "links": "the map of links",
	"candidates": "what could go on a quad", "decide": "what the fleet is best made of",
	"order": "the order over months", "schools": "the schools side by side",
	"route": "the route", "back": "the way back", "shelf": "the shelf",
}

func title(text string) string {
	first, _, _ := strings.Cut(text, " ")
	if t, ok := titles[first]; ok {
		return t
	}
	return first
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

// answered gives the answer to a question on what is stored as a response.
func answered[T any](
	ctx context.Context, a *answers, snap *store.Snapshot, text string, find func(context.Context) (*T, error),
) (*ready[T], error) {
	q := question{text, func() string { return swap.Heavy(snap.Library, snap.Index) }}
	found, err := a.of(ctx, snap.Revision, q, func(ctx context.Context) (any, error) { return find(ctx) })
	if err != nil {
		return nil, problem(err)
	}
	return &ready[T]{"application/json", found}, nil
}
