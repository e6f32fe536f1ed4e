package console

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/gear"
	"yokeswap/core/work/settext"
	"yokeswap/core/work/setup"
	"yokeswap/msp"
)

// Board is a board as it was read: over MSP, and in its own text.
type Board struct {
	State setup.State
	Text  string
}

// Read reads a board whole: first over MSP, which says what it runs, then in the text of
// that firmware, whose words are asked for by what it calls itself. The board reboots at
// the end of the text; it is waited for.
func Read(ctx context.Context, dial msp.Dial, words func(variant string) *gear.SettingsText) (b Board, err error) {
	if b.State, err = msp.ReadOnce(ctx, dial); err != nil {
		return b, err
	}
	if b.State.Armed {
		return b, errors.New("the board is armed: it is not asked for its text")
	}
	s, err := dialled(ctx, dial, words(b.State.Variant))
	if err != nil {
		return b, err
	}
	b.Text, err = s.all(ctx)
	s.leave()
	if err != nil {
		return b, fmt.Errorf("read the settings text: %w", err)
	}
	b.State, err = msp.ReadAfter(ctx, dial)
	return b, err
}

func dialled(ctx context.Context, dial msp.Dial, words *gear.SettingsText) (*session, error) {
	if !words.Speaks() {
		return nil, ErrNoText
	}
	conn, err := dial(ctx)
	if err != nil {
		return nil, err
	}
	return open(ctx, conn, words)
}

// Loaded says what was done to a board, and how it reads since.
type Loaded struct {
	msp.Report
	Sent      []string          `json:"sent"` // the lines, as they were sent
	Aftermath settext.Aftermath `json:"aftermath"`
}

// Load loads lines into a board. Want is given the board as it was read and answers with
// the lines to send, or says why nothing is; keep keeps the board as it was; after holds
// what it tells in the end against what it told before. Nothing is sent where reading or
// keep fails, or want refuses; what was sent and not saved the board forgets.
type Load struct {
	Dial  msp.Dial
	Words func(variant string) *gear.SettingsText
	Want  func(Board) (lines []settext.Line, refuse string)
	Keep  func(Board) error
	After func(before, after string, sent []settext.Line) (settext.Aftermath, error)
}

// loading is a Load under way.
type loading struct {
	Load
	Loaded
	ctx    context.Context
	before Board
	lines  []settext.Line
	words  *gear.SettingsText
}

// Do loads the lines.
func (l Load) Do(ctx context.Context) Loaded {
	w := &loading{Load: l, ctx: ctx}
	w.Outcome, w.Steps, w.Sent = msp.Unchanged, []string{}, []string{}
	w.Aftermath = settext.Aftermath{NotTaken: []settext.Setting{}, Beside: []settext.Setting{}, Again: []settext.Setting{}}
	var err error
	if w.before, err = Read(ctx, l.Dial, l.Words); err != nil {
		return w.stop(msp.Unchanged, "The board was not read, and nothing was loaded.", err)
	}
	w.did("read the board, and its text")
	var refuse string
	if w.lines, refuse = l.Want(w.before); refuse != "" {
		return w.stop(msp.Unchanged, refuse, nil)
	}
	if err := l.Keep(w.before); err != nil {
		return w.stop(msp.Unchanged, "Its settings could not be kept, so nothing was loaded.", err)
	}
	w.did("kept all its settings, as they are and as text")
	w.words = l.Words(w.before.State.Variant)
	far, err := w.send()
	w.Restore = err != nil && far != notAsked
	if err != nil && far == notAsked {
		return w.brokeOff(err)
	}
	return w.readBack(err)
}

func (w *loading) did(steps ...string) { w.Steps = append(w.Steps, steps...) }

func (w *loading) stop(outcome msp.Outcome, says string, err error) Loaded {
	w.Outcome, w.Says = outcome, says
	if err != nil {
		w.Says += " " + msp.Sentence(err)
	}
	return w.Loaded
}

// send sends the lines one by one and has the board save. One that is not taken ends it
// before anything is saved.
func (w *loading) send() (saved, error) {
	s, err := dialled(w.ctx, w.Dial, w.words)
	if err != nil {
		return notAsked, err
	}
	for _, line := range w.lines {
		if _, err := s.say(w.ctx, line.Says, answerIn); err != nil {
			s.leave()
			return notAsked, err
		}
		w.Sent = append(w.Sent, line.Says)
	}
	w.did(fmt.Sprintf("sent %d lines", len(w.Sent)))
	far, err := s.save(w.ctx)
	if far == taken {
		w.did("had it save and reboot")
	}
	return far, err
}

// brokeOff tells how a board is left to which lines were sent and that was not saved.
func (w *loading) brokeOff(err error) Loaded {
	w.did("broke off, and had it forget what was sent")
	again, readErr := w.again()
	if readErr != nil {
		return w.stop(msp.NotSaved, "Loading broke off before it was saved: with the power off and on the board is as "+
			"it was. Read it before it is armed.", err)
	}
	if w.unchanged(again) {
		return w.stop(msp.NotSaved, "Nothing was loaded: the board reads as it was.", err)
	}
	w.Restore = true
	return w.judged(msp.Differs, "Loading broke off, and the board does not read as it was: look at what differs, and "+
		"put the kept text back.", again, err)
}

// readBack tells how a board is left that was asked to save, from what it tells after its
// reboot.
func (w *loading) readBack(saveErr error) Loaded {
	again, err := w.again()
	switch {
	case err != nil && saveErr != nil:
		w.Restore = true
		return w.stop(msp.MaybeSet, "It may be saved: the board did not confirm it, and has not told its text since. "+
			"Unplug it, plug it in and read it before it is armed.", errors.Join(saveErr, err))
	case err != nil:
		w.Restore = true
		return w.stop(msp.NotRead, "It was told to save, but has not told its text since: unplug it, plug it in and read it "+
			"before it is armed.", err)
	case w.unchanged(again):
		w.Restore = false
		return w.stop(msp.NotSaved, "The board did not save: it reads as it was.", saveErr)
	}
	return w.judged(msp.Set, "The board has taken the lines, saved them and reads back right.", again, saveErr)
}

// again reads the board once it is back, in both ways.
func (w *loading) again() (b Board, err error) {
	if b.State, err = msp.ReadAfter(w.ctx, w.Dial); err != nil {
		return b, err
	}
	b, err = Read(w.ctx, w.Dial, w.Words)
	if err == nil {
		w.did("read it back")
		w.Loaded.Report.After = &b.State
	}
	return b, err
}

// unchanged says whether the board tells the same settings as before.
func (w *loading) unchanged(now Board) bool {
	aftermath, err := w.Load.After(w.before.Text, now.Text, nil)
	return err == nil && len(aftermath.Beside) == 0
}

// judged tells how a board reads against what it was sent.
func (w *loading) judged(outcome msp.Outcome, says string, now Board, err error) Loaded {
	sent := w.lines[:len(w.Sent)]
	aftermath, readErr := w.Load.After(w.before.Text, now.Text, sent)
	if readErr != nil {
		w.Restore = true
		return w.stop(msp.Differs, "What the board tells since cannot be read: look at it, and put the kept text back.",
			readErr)
	}
	w.Aftermath = aftermath
	if outcome == msp.Set && len(aftermath.NotTaken)+len(aftermath.Beside) > 0 {
		w.Restore = true
		outcome, says = msp.Differs, "It is saved, but does not read back as it was sent: "+strings.Join(
			slices.Concat(named("not taken", aftermath.NotTaken), named("changed beside", aftermath.Beside)), "; ")+"."
	}
	return w.stop(outcome, says, err)
}

func named(what string, rows []settext.Setting) []string {
	if len(rows) == 0 {
		return nil
	}
	var labels []string
	for i := range rows {
		labels = append(labels, rows[i].Label)
	}
	return []string{what + ": " + strings.Join(labels, ", ")}
}
