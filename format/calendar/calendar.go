// Package calendar writes what is still to be done as iCalendar (RFC 5545): a to-do each.
package calendar

import (
	"time"

	ics "github.com/arran4/golang-ical"

	"yokeswap/core/work/tasks"
)

// Write writes tasks as they stand at a moment.
func Write(list []tasks.Open, at time.Time) []byte {
	cal := ics.NewCalendar()
	cal.SetProductId("-//Yoke Swap//tasks//EN")
	cal.SetVersion("2.0")
	for i := range list {
		t := &list[i]
		todo := cal.AddTodo(t.Key + "@yokeswap")
		todo.SetDtStampTime(at.UTC())
		says := t.Says
		if t.Name != "" && t.Task == "" {
			says = t.Name + ": " + says
		}
		todo.SetSummary(says)
		if t.After != "" {
			todo.SetDescription("After " + t.After + ".")
		}
		if day, err := time.Parse(time.DateOnly, t.Due); err == nil {
			todo.SetProperty(ics.ComponentPropertyDue, day.Format("20060102"), ics.WithValue("DATE"))
		}
		todo.SetStatus(ics.ObjectStatusNeedsAction)
	}
	return []byte(cal.Serialize(ics.WithNewLineWindows))
}
