package web

import (
	"encoding/json"
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
		var found any
		if found, k.err = find(); k.err == nil {
			k.text, k.err = json.Marshal(found)
		}
	})
	return k.text, k.err
}

// ready is an answer that is text already; in the description of the API it is a T.
type ready[T any] struct{ text json.RawMessage }

// MarshalJSON is the text itself.
func (r ready[T]) MarshalJSON() ([]byte, error) { return r.text, nil }

// Schema is that of what the text holds.
func (ready[T]) Schema(r huma.Registry) *huma.Schema { return r.Schema(reflect.TypeFor[T](), true, "") }

// answered gives the answer to a question on a revision as a response.
func answered[T any](a *answers, revision int64, question string, find func() (*T, error)) (*answer[ready[T]], error) {
	text, err := a.of(revision, question, func() (any, error) { return find() })
	if err != nil {
		return nil, problem(err)
	}
	return reply(ready[T]{text}), nil
}
