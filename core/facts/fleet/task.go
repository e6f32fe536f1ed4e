package fleet

// Task is something that is still to be done, or was.
type Task struct {
	ID    string `json:"id"`
	Name  string `json:"name,omitempty"`
	Quad  string `json:"quad,omitempty"` // it is about; empty: the fleet
	Gate  string `json:"gate,omitempty"` // it comes from; empty: none
	Due   string `json:"due,omitempty"`  // yyyy-mm-dd
	After string `json:"after,omitempty"`
	Done  string `json:"done,omitempty"` // yyyy-mm-dd; empty: it is open
	Note  string `json:"note,omitempty"`
}

// Label is what is to be done.
func (t *Task) Label() string { return orID(t.Name, t.ID) }

// Task looks up a task.
func (f *Fleet) Task(id string) (*Task, bool) {
	for i := range f.Tasks {
		if f.Tasks[i].ID == id {
			return &f.Tasks[i], true
		}
	}
	return nil, false
}
