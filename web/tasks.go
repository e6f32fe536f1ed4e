package web

import (
	"context"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/stock"
	"yokeswap/core/work/tasks"
	"yokeswap/format/calendar"
	"yokeswap/store"
)

// TasksView is what is still to be done.
type TasksView struct {
	Today string       `json:"today"`
	Open  []tasks.Open `json:"open"`
	Done  []DoneTask   `json:"done" doc:"of those somebody noted, the last ones"`
}

// DoneTask is a task that was done.
type DoneTask struct {
	ID   string `json:"id"`
	Says string `json:"says"`
	On   string `json:"on"`
}

// mostDone bounds the tasks told that were done.
const mostDone = 20

func (s *server) registerTasks(api huma.API) {
	huma.Get(api, "/api/tasks", s.tasks)
	huma.Post(api, "/api/tasks/{task}/done", s.taskDone)
	huma.Get(api, "/api/tasks.ics", func(_ context.Context, _ *struct{}) (*download, error) {
		snap, err := s.store.Snapshot()
		if err != nil {
			return nil, problem(err)
		}
		now := time.Now()
		return &download{
			ContentType:        "text/calendar; charset=utf-8",
			ContentDisposition: `attachment; filename="tasks.ics"`,
			Body:               calendar.Write(openTasks(snap, now), now),
		}, nil
	})
}

func openTasks(snap *store.Snapshot, now time.Time) []tasks.Open {
	return tasks.List(snap.Library, snap.Index, now.Format(time.DateOnly))
}

func (s *server) tasks(context.Context, *struct{}) (*answer[TasksView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	now := time.Now()
	view := TasksView{Today: now.Format(time.DateOnly), Open: openTasks(snap, now), Done: []DoneTask{}}
	for i := len(snap.Fleet.Tasks) - 1; i >= 0 && len(view.Done) < mostDone; i-- {
		if t := &snap.Fleet.Tasks[i]; t.Done != "" {
			view.Done = append(view.Done, DoneTask{t.ID, t.Label(), t.Done})
		}
	}
	return reply(view), nil
}

// taskDone says that a task is done today, or open again.
func (s *server) taskDone(ctx context.Context, in *struct {
	Task string `path:"task"`
	Body struct {
		Done bool `json:"done" doc:"false: it is open again"`
	}
}) (*answer[TasksView], error) {
	day, does := time.Now().Format(time.DateOnly), "did a task"
	if !in.Body.Done {
		day, does = "", "opened a task again"
	}
	if _, err := s.change(ctx, does, func(st *stock.Stock) error {
		if _, there := st.Fleet.Task(in.Task); !there {
			return notFound("task", in.Task)
		}
		return st.Do(in.Task, day)
	}); err != nil {
		return nil, problem(err)
	}
	return s.tasks(ctx, nil)
}
