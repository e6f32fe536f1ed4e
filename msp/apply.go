package msp

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"yokeswap/core/work/setup"
)

// Dial opens a connection to one board, again and again: a board that reboots drops
// the one it had.
type Dial func(context.Context) (io.ReadWriteCloser, error)

// Outcome is how a board is left.
type Outcome string

// The outcomes.
const (
	Set       Outcome = "set"       // as planned, saved, read back
	Unchanged Outcome = "unchanged" // nothing was written
	NotSaved  Outcome = "not-saved" // written in part, and forgotten when the power is off
	MaybeSet  Outcome = "may-be-saved"
	Differs   Outcome = "differs"  // saved, but it does not read back as it was set
	NotRead   Outcome = "not-read" // saved, but it does not answer since
)

// Report says what was done to a board, step by step.
type Report struct {
	Outcome Outcome  `json:"outcome"`
	Says    string   `json:"says"`
	Steps   []string `json:"steps"` // what was done, in order
	// Restore: putting the snapshot back is worth offering.
	Restore bool `json:"restore"`
	// After is the board as it was read in the end; absent: it was not.
	After *setup.State `json:"-"`
}

// The patience with a board that reboots: ten seconds are usual for some (common
// practice), so it is tried again this often, this far apart.
const (
	tries = 60
	apart = 250 * time.Millisecond
)

// Apply reads a board, asks what it is to be, has the old state kept, then writes,
// saves, reboots and reads back. Want answers with the state wanted, or says why this
// board must not be written; keep stores the state as it was.
// Nothing is written where reading or keep fails, or want refuses. Whether it is saved
// is known only from the board: what it has after a reboot is what is told.
func Apply(
	ctx context.Context,
	dial Dial,
	want func(setup.State) (target setup.State, refuse string),
	keep func(setup.State) error,
) Report {
	a := &applying{ctx: ctx, dial: dial, Report: Report{Outcome: Unchanged, Steps: []string{}}}
	before, err := ReadOnce(ctx, dial)
	if err != nil {
		return a.stop(Unchanged, "The board was not read, and nothing was written.", err)
	}
	a.did("read the board")
	target, refuse := want(before)
	if refuse != "" {
		return a.stop(Unchanged, refuse, nil)
	}
	if err := keep(before); err != nil {
		return a.stop(Unchanged, "Its settings could not be kept, so nothing was written.", err)
	}
	a.did("kept all its settings")
	saved, err := a.write(before, target)
	a.Restore = err != nil
	switch {
	case err != nil && saved == notAsked:
		a.did("writing broke off")
		return a.brokeOff(before, err)
	case err != nil:
		a.did("asked it to save; it did not confirm that")
	default:
		a.did("wrote the settings", "saved them", "rebooted it")
	}
	return a.readBack(before, target, err)
}

// applying is an Apply under way.
type applying struct {
	ctx  context.Context
	dial Dial
	Report
}

func (a *applying) did(steps ...string) { a.Steps = append(a.Steps, steps...) }

func (a *applying) stop(outcome Outcome, says string, err error) Report {
	a.Outcome, a.Says = outcome, says
	if err != nil {
		a.Says += " " + Sentence(err)
	}
	return a.Report
}

// progress is how far the save of a board has come.
type progress int

const (
	notAsked  progress = iota // to save
	asked                     // and it has not answered
	confirmed                 // by the board
)

// write writes what differs, saves and reboots.
func (a *applying) write(from, to setup.State) (progress, error) {
	conn, err := a.dial(a.ctx)
	if err != nil {
		return notAsked, err
	}
	c := NewClient(conn)
	defer c.Close()
	// Asked again right before: someone may have armed it meanwhile.
	answer, err := c.Ask(a.ctx, CmdStatus, nil)
	if err != nil {
		return notAsked, err
	}
	if status, err := decodeStatus(answer); err != nil || status.Armed {
		return notAsked, errors.Join(err, errors.New("the board is armed: nothing was written"))
	}
	if err := WriteBoard(a.ctx, c, from, to); err != nil {
		_ = c.Tell(CmdReboot) // what is not saved it forgets; whether it has is read afterwards
		return notAsked, err
	}
	if err := Save(a.ctx, c); err != nil {
		_ = c.Tell(CmdReboot)
		return asked, err
	}
	return confirmed, c.Tell(CmdReboot)
}

// brokeOff tells how a board is left whose writing broke off before it was asked to save.
func (a *applying) brokeOff(before setup.State, err error) Report {
	if again, readErr := ReadAfter(a.ctx, a.dial); readErr == nil {
		a.After = &again
		a.did("read it again")
		if len(differences(again, before)) == 0 {
			return a.stop(NotSaved, "The board was not set, and reads as it was.", err)
		}
	}
	return a.stop(NotSaved,
		"Writing broke off before it was saved: with the power off and on the board is as it was. Then read it, and put "+
			"the kept settings back if it is not.",
		err)
}

// readBack tells how a board is left that was asked to save, from what it has after a
// reboot.
func (a *applying) readBack(before, target setup.State, saveErr error) Report {
	after, err := ReadAfter(a.ctx, a.dial)
	if err != nil {
		a.Restore = true
		if saveErr != nil {
			return a.stop(MaybeSet,
				"It may be saved: the board did not confirm it, and has not answered since. Unplug it, plug it in and read it "+
					"before it is armed.",
				saveErr)
		}
		return a.stop(NotRead, "It is saved, but the board has not answered since: unplug it, plug it in and read it.", err)
	}
	a.did("read it back")
	a.After = &after
	left := differences(after, target)
	switch {
	case len(left) == 0 && saveErr != nil:
		a.Restore = false
		return a.stop(Set, "The board did not confirm that it saved, but after a reboot it reads back as it was set.",
			saveErr)
	case len(left) == 0:
		return a.stop(Set, "The board is set and saved, and reads back right.", nil)
	case saveErr != nil && len(differences(after, before)) == 0:
		return a.stop(NotSaved, "The board did not save: it reads as it was.", saveErr)
	}
	a.Restore = true
	says := "It is saved, but does not read back as it was set: look at what differs, or put the kept settings back."
	if saveErr != nil {
		says = "It may be saved in part: it reads back neither as it was nor as it was set. Look at what differs, or put " +
			"the kept settings back."
	}
	return a.stop(Differs, says+" Not as set: "+strings.Join(left, ", ")+".", saveErr)
}

// ReadOnce reads a board over a connection of its own.
func ReadOnce(ctx context.Context, dial Dial) (setup.State, error) {
	conn, err := dial(ctx)
	if err != nil {
		return setup.State{}, err
	}
	c := NewClient(conn)
	defer c.Close()
	return ReadBoard(ctx, c)
}

// ReadAfter reads a board that is about to come back, for a quarter of a minute.
func ReadAfter(ctx context.Context, dial Dial) (s setup.State, err error) {
	for range tries {
		select {
		case <-ctx.Done():
			return s, errors.Join(ctx.Err(), err)
		case <-time.After(apart):
		}
		if s, err = ReadOnce(ctx, dial); err == nil {
			return s, nil
		}
	}
	return s, fmt.Errorf("tried %d times: %w", tries, err)
}

// differences names what of two states that can be set is not the same.
func differences(a, b setup.State) (list []string) {
	for _, part := range []struct {
		name string
		same bool
	}{
		{"flight firmware", a.Variant == b.Variant},
		{"serial ports", samePorts(a.Ports, b.Ports)},
		{"features", a.Features == b.Features},
		{"receiver", bytes.Equal(receiverOf(a), receiverOf(b))},
		{"channel order", bytes.Equal(mapOf(a), mapOf(b))},
		{"modes", slices.Equal(a.Modes, b.Modes)},
		{"canvas", a.Canvas == b.Canvas || a.Without(setup.LacksCanvas)},
		{"OSD", slices.Equal(a.OSD, b.OSD) || a.Without(setup.LacksOSD)},
	} {
		if !part.same {
			list = append(list, part.name)
		}
	}
	return list
}

// Sentence starts an error with a capital letter.
func Sentence(err error) string {
	text := err.Error()
	return strings.ToUpper(text[:1]) + text[1:] + "."
}
