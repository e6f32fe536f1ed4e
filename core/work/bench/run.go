package bench

import (
	"fmt"
	"math"
	"strconv"
	"time"

	"yokeswap/core/facts/stock"
	"yokeswap/core/measure/unit"
)

// Reading is a value to take at a step, with the limits it must keep.
type Reading struct {
	Label    string   `json:"label"`
	Unit     string   `json:"unit"`
	Min      *float64 `json:"min,omitempty"`
	Max      *float64 `json:"max,omitempty"`
	Expected string   `json:"expected"`
	// Choices are the answers of a reading that is no number; its value is the
	// place of the answer among them.
	Choices []string `json:"choices,omitempty"`
	Wrong   string   `json:"wrong,omitempty"` // what another answer than expected means
}

// Judge says whether a reading keeps its limits, and in words why not.
func (r *Reading) Judge(value float64) (says string, ok bool) {
	if len(r.Choices) > 0 {
		return r.judgeChoice(value)
	}
	number := strconv.FormatFloat(value, 'f', -1, 64)
	switch {
	case math.IsNaN(value) || math.IsInf(value, 0):
		return fmt.Sprintf("%s is not a reading.", number), false
	case r.Min != nil && value < *r.Min:
		return fmt.Sprintf(
			"%s %s is below %g %s. Stop: unplug, find the cause, measure again.",
			number,
			r.Unit,
			*r.Min,
			r.Unit,
		), false
	case r.Max != nil && value > *r.Max:
		return fmt.Sprintf(
			"%s %s is above %g %s. Stop: unplug, find the cause, measure again.",
			number,
			r.Unit,
			*r.Max,
			r.Unit,
		), false
	}
	return fmt.Sprintf("%s %s is within its limits.", number, r.Unit), true
}

func (r *Reading) judgeChoice(value float64) (says string, ok bool) {
	if at := int(value); float64(at) == value && at >= 0 && at < len(r.Choices) {
		if r.Choices[at] == r.Expected {
			return fmt.Sprintf("%s, as expected.", r.Choices[at]), true
		}
		return fmt.Sprintf("%s, expected %s. Stop. %s", r.Choices[at], r.Expected, r.Wrong), false
	}
	return "That is none of the answers.", false
}

// Record is what was confirmed at a step, and when.
type Record struct {
	Step  string    `json:"step"`
	Done  bool      `json:"done"`
	Value *float64  `json:"value,omitempty"`
	At    time.Time `json:"at"`
	// Mated is what the record adds to the matings of kit Mates: 1 for a tick, -1
	// for one taken back. It is counted with the record, and not kept with it.
	Mates string `json:"-"`
	Mated int    `json:"-"`
}

// State says how a step stands.
type State string

// The states of a step.
const (
	Todo    State = "todo"
	Done    State = "done"
	Stopped State = "stopped" // its reading is out of limits
	Held    State = "held"    // a verdict, or a stop before it, forbids it
)

// StepState is a step with how it stands.
type StepState struct {
	Step
	State State    `json:"state"`
	Says  string   `json:"says,omitempty"`
	Value *float64 `json:"value,omitempty"`
	At    string   `json:"at,omitempty"` // RFC 3339
}

// Run is a sheet with its records.
type Run struct {
	Sheet
	States []StepState `json:"states"`
	Done   int         `json:"done"`
	// Next is the id of the step to do now; empty when all is done or nothing
	// can be done.
	Next string `json:"next"`
}

// NewRun lays the records over the sheet. Records of steps that are no longer
// on the sheet are left out; they stay in the store. A reading out of limits
// stops the run there: every later step is held.
func NewRun(s Sheet, records []Record) Run {
	byStep := map[string]Record{}
	for _, r := range records {
		byStep[r.Step] = r
	}
	run := Run{Sheet: s, States: make([]StepState, 0, len(s.Steps))}
	stop := ""
	for _, step := range s.Steps {
		st := StepState{Step: step, State: Todo}
		if r, ok := byStep[step.key()]; ok {
			st.apply(r)
		}
		if st.State == Todo && stop != "" {
			st.State, st.Says = Held, stop
		}
		if st.State == Todo && step.Held != "" {
			st.State, st.Says = Held, step.Held
		}
		switch st.State {
		case Stopped:
			stop = "Stopped at “" + step.Title + "”: measure that again first."
			if run.Next == "" {
				run.Next = step.ID
			}
		case Done:
			run.Done++
		case Todo:
			if run.Next == "" {
				run.Next = step.ID
			}
		}
		run.States = append(run.States, st)
	}
	return run
}

func (st *StepState) apply(r Record) {
	st.Value = r.Value
	if !r.At.IsZero() {
		st.At = r.At.UTC().Format(time.RFC3339)
	}
	if st.Reading != nil && r.Value != nil {
		says, ok := st.Reading.Judge(*r.Value)
		st.Says = says
		if !ok {
			st.State = Stopped
			return
		}
	}
	if r.Done {
		st.State = Done
	}
}

// Confirm checks whether a step may be recorded as asked and gives the record
// to keep. A reading out of limits is recorded, but never as done.
func (run *Run) Confirm(stepID string, done bool, value *float64, at time.Time) (Record, error) {
	for i := range run.States {
		st := &run.States[i]
		if st.ID != stepID {
			continue
		}
		record := Record{Step: st.key(), Done: done, Value: value, At: at}
		if was := st.State == Done; st.Mates != "" && done != was {
			record.Mates, record.Mated = st.Mates, 1
			if was {
				record.Mated = -1
			}
		}
		if !done && value == nil {
			return record, nil // taking a tick back is always allowed
		}
		if st.State == Held {
			return Record{}, fmt.Errorf("%s", st.Says)
		}
		if st.Reading == nil && value != nil {
			return Record{}, fmt.Errorf("“%s” takes no reading", st.Title)
		}
		if st.Reading != nil {
			if value == nil {
				return Record{}, fmt.Errorf("“%s” needs its reading: %s", st.Title, st.Reading.Label)
			}
			if math.IsNaN(*value) || math.IsInf(*value, 0) {
				return Record{}, fmt.Errorf("“%s” needs a number for %s", st.Title, st.Reading.Label)
			}
			_, ok := st.Reading.Judge(*value)
			record.Done = ok && done
		}
		return record, nil
	}
	return Record{}, fmt.Errorf("no step %q on this sheet", stepID)
}

// Left is the sheet with the steps that are not done.
func (r *Run) Left() Sheet {
	left := r.Sheet
	left.Steps = nil
	for i := range r.States {
		if r.States[i].State != Done {
			left.Steps = append(left.Steps, r.States[i].Step)
		}
	}
	return left
}

// Outcome is what a run leaves behind.
type Outcome struct {
	stock.Done
	Says string // in a line, with its readings
}

// Outcome of a run whose swap is finished.
func (r *Run) Outcome() Outcome {
	o := Outcome{Says: r.summary()}
	for i := range r.States {
		if st := &r.States[i]; st.ID == WeighStep && st.State == Done && st.Value != nil {
			o.WeighedG = new(unit.Grams(*st.Value))
		}
	}
	o.FlownOn = r.flownOn()
	return o
}

// flownOn is the day of the first flight: empty where it is not on the sheet, the failsafe was not
// tried before it, or anything of it is not done.
func (r *Run) flownOn() (on string) {
	failsafe := false
	for i := range r.States {
		st := &r.States[i]
		if st.ID != FailsafeStep && st.Phase != Flight {
			continue
		}
		if st.State != Done || st.At == "" {
			return ""
		}
		failsafe = failsafe || st.ID == FailsafeStep
		at, err := time.Parse(time.RFC3339, st.At)
		if err != nil {
			return ""
		}
		if st.Phase == Flight {
			on = max(on, at.Local().Format(time.DateOnly)) // the day where it was flown, as tasks and hours count days
		}
	}
	if !failsafe {
		return ""
	}
	return on
}

// summary says in a line what a run came to, with its readings.
func (r *Run) summary() string {
	says := fmt.Sprintf("Swap finished, %s to %s: %d of %d steps done", r.From, r.To, r.Done, len(r.States))
	for _, st := range r.States {
		if st.Reading != nil && st.Value != nil && len(st.Reading.Choices) == 0 {
			says += fmt.Sprintf("; %s %g %s", st.Reading.Label, *st.Value, st.Reading.Unit)
		}
	}
	return says + "."
}
