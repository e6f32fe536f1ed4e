package msp

import (
	"context"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"yokeswap/core/setup"
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
	Differs   Outcome = "differs"   // saved, but it does not read back as it was set
	NotRead   Outcome = "not-read"  // saved, but it does not answer since
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

// The patience with a board that reboots: it is tried again this often, this far
// apart.
const (
	tries = 25
	apart = 200 * time.Millisecond
)

// Apply reads a board, asks what it is to be, has the old state kept, then writes,
// saves, reboots and reads back. Want answers with the state wanted, or says why this
// board must not be written; keep stores the state as it was.
// Nothing is written where reading or keep fails, or want refuses.
func Apply(ctx context.Context, dial Dial, want func(setup.State) (target setup.State, refuse string), keep func(setup.State) error) Report {
	r := Report{Outcome: Unchanged, Steps: []string{}}
	stop := func(outcome Outcome, says string, err error) Report {
		r.Outcome, r.Says = outcome, says
		if err != nil {
			r.Says += " " + sentence(err)
		}
		return r
	}
	before, err := readOnce(ctx, dial)
	if err != nil {
		return stop(Unchanged, "The board was not read, and nothing was written.", err)
	}
	r.Steps = append(r.Steps, "read the board")
	target, refuse := want(before)
	if refuse != "" {
		return stop(Unchanged, refuse, nil)
	}
	if err := keep(before); err != nil {
		return stop(Unchanged, "Its settings could not be kept, so nothing was written.", err)
	}
	r.Steps = append(r.Steps, "kept all its settings")
	if err := write(ctx, dial, before, target); err != nil {
		r.Restore = true
		r.Steps = append(r.Steps, "writing broke off")
		if again, readErr := readAfter(ctx, dial); readErr == nil {
			r.After = &again
			r.Steps = append(r.Steps, "read it again")
			if sameSettings(again, before) {
				return stop(NotSaved, "The board was not set, and reads as it was.", err)
			}
		}
		return stop(NotSaved, "Writing broke off before it was saved: with the power off and on the board is as it was. Then read it, and put the kept settings back if it is not.", err)
	}
	r.Steps = append(r.Steps, "wrote the settings", "saved them", "rebooted it")
	after, err := readAfter(ctx, dial)
	if err != nil {
		r.Restore = true
		return stop(NotRead, "It is saved, but the board has not answered since: unplug it, plug it in and read it.", err)
	}
	r.Steps = append(r.Steps, "read it back")
	r.After = &after
	if !sameSettings(after, target) {
		r.Restore = true
		return stop(Differs, "It is saved, but does not read back as it was set: look at what differs, or put the kept settings back.", nil)
	}
	return stop(Set, "The board is set and saved, and reads back right.", nil)
}

func readOnce(ctx context.Context, dial Dial) (setup.State, error) {
	conn, err := dial(ctx)
	if err != nil {
		return setup.State{}, err
	}
	c := NewClient(conn)
	defer c.Close()
	return ReadBoard(ctx, c)
}

// readAfter reads a board that is about to come back.
func readAfter(ctx context.Context, dial Dial) (s setup.State, err error) {
	for range tries {
		select {
		case <-ctx.Done():
			return s, errors.Join(ctx.Err(), err)
		case <-time.After(apart):
		}
		if s, err = readOnce(ctx, dial); err == nil {
			return s, nil
		}
	}
	return s, fmt.Errorf("tried %d times: %w", tries, err)
}

func write(ctx context.Context, dial Dial, from, to setup.State) error {
	conn, err := dial(ctx)
	if err != nil {
		return err
	}
	c := NewClient(conn)
	defer c.Close()
	// Asked again right before: someone may have armed it meanwhile.
	answer, err := c.Ask(ctx, CmdStatus, nil)
	if err != nil {
		return err
	}
	if status, err := decodeStatus(answer); err != nil || status.Armed {
		return errors.Join(err, errors.New("the board is armed: nothing was written"))
	}
	if err := WriteBoard(ctx, c, from, to); err != nil {
		return err
	}
	return c.Tell(CmdReboot)
}

// sameSettings compares what can be set.
func sameSettings(a, b setup.State) bool {
	return a.Variant == b.Variant && a.Features == b.Features && a.Provider == b.Provider && a.RXMap == b.RXMap && a.Canvas == b.Canvas &&
		samePorts(a.Ports, b.Ports) && slices.Equal(a.Modes, b.Modes) && slices.Equal(a.OSD, b.OSD)
}

// sentence starts an error with a capital letter.
func sentence(err error) string {
	text := err.Error()
	return strings.ToUpper(text[:1]) + text[1:] + "."
}
