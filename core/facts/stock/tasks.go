package stock

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
)

// lookAgain notes that what was put together is looked at again once it has flown (common
// practice: screws, plugs and the antennas' holder after the first packs). One that is there
// already is open again.
func lookAgain(f *fleet.Fleet, q *fleet.Quad) {
	task := fleet.Task{ID: q.ID + "-first-packs", Quad: q.ID, Gate: "mount", After: "the first three packs",
		Name: fmt.Sprintf("Look at screws, plugs and antenna holders of %s again", q.Label())}
	f.Tasks = slices.DeleteFunc(slices.Clone(f.Tasks), func(t fleet.Task) bool { return t.ID == task.ID })
	f.Tasks = append(f.Tasks, task)
}

// Do says that a task was done on a day, yyyy-mm-dd; an empty day: it is open again.
func (s *Stock) Do(task, day string) error {
	f := *s.Fleet
	f.Tasks = slices.Clone(f.Tasks)
	at := slices.IndexFunc(f.Tasks, func(t fleet.Task) bool { return t.ID == task })
	if at < 0 {
		return fmt.Errorf("there is no task %q", task)
	}
	f.Tasks[at].Done = day
	s.Fleet = &f
	return nil
}
