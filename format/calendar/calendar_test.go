package calendar_test

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/tasks"
	"yokeswap/format/calendar"
)

// What is written is read by the parser of another library, whatever stands in the words.
func TestTasksAreReadByAnotherLibrary(t *testing.T) {
	long := strings.Repeat("Look at the screws; and the plugs, \"all\" of them – größer\\kleiner. ", 6)
	list := []tasks.Open{
		{Key: "task:a", Task: "a", Says: long, Due: "2026-05-19", After: "the first three packs"},
		{Key: "held:whip:camera", Quad: "whip", Name: "Whip", Says: "The camera is held by a stop-gap.\nUntil then."},
	}
	text := calendar.Write(list, time.Date(2026, 5, 12, 10, 0, 0, 0, time.UTC))
	for _, line := range bytes.Split(text, []byte("\r\n")) {
		assert.LessOrEqual(t, len(line), 75, "folded as RFC 5545 asks: %s", line)
	}
	cal, err := ical.NewDecoder(bytes.NewReader(text)).Decode()
	require.NoError(t, err)
	require.Len(t, cal.Children, 2)
	first, second := cal.Children[0], cal.Children[1]
	assert.Equal(t, ical.CompToDo, first.Name)
	summary, err := first.Props.Text(ical.PropSummary)
	require.NoError(t, err)
	assert.Equal(t, long, summary)
	due := first.Props.Get(ical.PropDue)
	require.NotNil(t, due)
	day, err := due.DateTime(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, "2026-05-19", day.Format(time.DateOnly))
	summary, err = second.Props.Text(ical.PropSummary)
	require.NoError(t, err)
	assert.Equal(t, "Whip: The camera is held by a stop-gap.\nUntil then.", summary)
	assert.Nil(t, second.Props.Get(ical.PropDue), "it has no day")
}
