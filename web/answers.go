package web

import (
	"encoding/json"
	"errors"
	"reflect"
	"sync"

	"github.com/danielgtaylor/huma/v2"
)

// answers keeps what was answered for as long as nothing has changed: the same question
// on the same revision is worked out once, however many ask.
type answers struct {
	mu       sync.Mutex
	revision int64
	kept     map[string]*kept
}

type kept struct {
	once sync.Once
	text json.RawMessage
	err  error
}

// mostKept bounds the memory: a view of a quad takes some 100 kB.
const mostKept = 256

// errStopped is what those are told who ask again for what a fault of the program stopped.
var errStopped = errors.New("a fault of the program stopped the answer; its log says where")

// of is the answer to a question on a revision.
func (a *answers) of(revision int64, question string, find func() (any, error)) (json.RawMessage, error) {
	a.mu.Lock()
	if a.revision != revision || a.kept == nil || len(a.kept) >= mostKept && a.kept[question] == nil {
		a.revision, a.kept = revision, map[string]*kept{}
	}
	k := a.kept[question]
	if k == nil {
		k = &kept{}
		a.kept[question] = k
	}
	a.mu.Unlock()
	k.once.Do(func() {
		k.err = errStopped // unless it comes to an end
		found, err := find()
		if err == nil {
			k.text, err = json.Marshal(found)
		}
		k.err = err
	})
	return k.text, k.err
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
func answered[T any](a *answers, revision int64, question string, find func() (*T, error)) (*ready[T], error) {
	text, err := a.of(revision, question, func() (any, error) { return find() })
	if err != nil {
		return nil, problem(err)
	}
	return &ready[T]{"application/json", text}, nil
}
