package web

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
)

// jobs are the pieces of work under way that may take a while, and what came of those
// whose answer may not have arrived. Who waits can ask how far one is, and stop it.
type jobs struct {
	mu   sync.Mutex
	list map[string]*job
}

// job is one of them. All but the id, the stop and the reason is guarded by its lock.
type job struct {
	id    string
	began time.Time
	stop  context.CancelFunc
	why   func() string // what makes it take long

	mu       sync.Mutex
	phase    string
	done, of int // of the phase; of 0: nobody counts
	ended    time.Time
	answer   json.RawMessage
	failed   error
}

const (
	keptJob  = 10 * time.Minute // how long what came of a job can be asked for
	mostJobs = 8                // that are remembered once they have ended: each may hold a large answer
)

// Job is a piece of work, as it is told.
type Job struct {
	ID      string  `json:"id"`
	Says    string  `json:"says" doc:"what is worked on at this moment"`
	Why     string  `json:"why" doc:"what makes it take long"`
	Done    int     `json:"done"`
	Of      int     `json:"of" doc:"0: nobody counts"`
	Seconds float64 `json:"seconds" doc:"since it was begun"`
	Ended   bool    `json:"ended"`
	Answer  any     `json:"answer,omitempty" doc:"what came of it, once it has ended well"`
}

func (s *server) registerJobs(api huma.API) {
	huma.Get(api, "/api/jobs", func(_ context.Context, _ *struct{}) (*answer[[]Job], error) {
		return reply(s.jobs.underWay()), nil
	})
	huma.Get(api, "/api/jobs/{job}", s.job)
	huma.Delete(api, "/api/jobs/{job}", s.stopJob)
}

// begin notes a piece of work. The context it gives ends when the job is stopped; end says
// what came of it. There is no job where one of that id is under way.
func (j *jobs) begin(ctx context.Context, id, phase string, why func() string) (context.Context, *job) {
	j.mu.Lock()
	defer j.mu.Unlock()
	if there := j.list[id]; there != nil && there.endedAt().IsZero() {
		return ctx, nil
	}
	if j.list == nil {
		j.list = map[string]*job{}
	}
	ctx, stop := context.WithCancel(ctx)
	b := &job{id: id, began: time.Now(), stop: stop, phase: phase, why: why}
	j.list[id] = b
	return ctx, b
}

// end notes what came of a job; what cannot be asked for any more is forgotten, and so is at
// once what nobody would ask for.
func (j *jobs) end(b *job, answer json.RawMessage, err error, keep bool) {
	b.stop()
	b.mu.Lock()
	b.ended, b.answer, b.failed = time.Now(), answer, err
	b.mu.Unlock()
	j.mu.Lock()
	defer j.mu.Unlock()
	if !keep && j.list[b.id] == b {
		delete(j.list, b.id)
	}
	var over []*job
	for id, other := range j.list {
		if at := other.endedAt(); !at.IsZero() {
			if time.Since(at) > keptJob {
				delete(j.list, id)
			} else {
				over = append(over, other)
			}
		}
	}
	slices.SortFunc(over, func(a, b *job) int { return a.endedAt().Compare(b.endedAt()) })
	for i := 0; i < len(over)-mostJobs; i++ {
		delete(j.list, over[i].id)
	}
}

func (b *job) endedAt() time.Time {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.ended
}

// at says what a job is at; of a count that is not known, 0.
func (b *job) at(phase string, done, of int) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.phase, b.done, b.of = phase, done, of
}

func (b *job) tell() Job {
	why := ""
	if b.why != nil {
		why = b.why()
	}
	b.mu.Lock()
	defer b.mu.Unlock()
	out := Job{ID: b.id, Says: b.phase, Why: why, Done: b.done, Of: b.of, Seconds: time.Since(b.began).Seconds(),
		Ended: !b.ended.IsZero()}
	if b.answer != nil {
		out.Answer = b.answer
	}
	return out
}

// underWay are those that have not ended, the longest first.
func (j *jobs) underWay() []Job {
	list := []Job{}
	j.mu.Lock()
	var open []*job
	for _, b := range j.list {
		if b.endedAt().IsZero() {
			open = append(open, b)
		}
	}
	j.mu.Unlock()
	slices.SortFunc(open, func(a, b *job) int { return a.began.Compare(b.began) })
	for _, b := range open {
		list = append(list, b.tell())
	}
	return list
}

func (j *jobs) find(id string) (*job, bool) {
	j.mu.Lock()
	defer j.mu.Unlock()
	b, ok := j.list[id]
	return b, ok
}

// job tells how far a job is, and what came of it; one that failed is answered with why.
func (s *server) job(_ context.Context, in *struct {
	Job string `path:"job"`
}) (*answer[Job], error) {
	b, ok := s.jobs.find(in.Job)
	if !ok {
		return nil, notFound("job", in.Job)
	}
	b.mu.Lock()
	failed := b.failed
	b.mu.Unlock()
	if failed != nil {
		return nil, problem(failed)
	}
	return reply(b.tell()), nil
}

// stopJob ends a job as soon as it can be left; what it would have written is not.
func (s *server) stopJob(_ context.Context, in *struct {
	Job string `path:"job"`
}) (*struct{}, error) {
	b, ok := s.jobs.find(in.Job)
	if !ok {
		return nil, notFound("job", in.Job)
	}
	b.stop()
	return nil, nil
}

// asJob carries out what a file sent in asks for, as a job where the request names one: it
// goes on where the line is cut, and its answer is kept. Where none is named it ends with
// its request.
func asJob[T any](
	ctx context.Context, s *server, id, phase string, do func(context.Context, *job) (*answer[T], error),
) (out *answer[T], err error) {
	named := id != ""
	if named {
		ctx = context.WithoutCancel(ctx)
	} else {
		id = fmt.Sprintf("upload %p", &out)
	}
	ctx, b := s.jobs.begin(ctx, id, phase, nil)
	if b == nil {
		return nil, huma.NewError(http.StatusConflict, "this is under way already")
	}
	defer func() {
		stopped := recover()
		if stopped != nil {
			err = errStopped
		}
		var text json.RawMessage
		if err == nil {
			text, err = json.Marshal(out.Body)
		}
		s.jobs.end(b, text, err, named)
		if stopped != nil {
			panic(stopped)
		}
	}()
	out, err = do(ctx, b)
	if errors.Is(err, context.Canceled) {
		return nil, huma.NewError(http.StatusConflict, "It was stopped. Nothing was changed.")
	}
	return out, problem(err)
}
