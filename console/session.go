// Package console talks to a flight board in its own settings text, line by line, over the
// port that speaks MSP otherwise: it reads the text whole, and loads lines into the board
// with everything kept first and read back afterwards.
//
// Method: the words of the dialogue are data of the flight firmware (gear.SettingsText).
// A session begins with the word that opens it and ends with one that reboots the board,
// so that the port speaks MSP again; what was not saved is forgotten by that.
//
// Source: common practice.
package console

import (
	"context"
	"errors"
	"fmt"
	"io"
	"strings"
	"time"

	"yokeswap/core/facts/gear"
	"yokeswap/core/work/settext"
)

// The ways a board fails to talk text.
var (
	ErrNoText  = errors.New("nobody has stated how this flight firmware is talked to in its settings text")
	ErrMute    = errors.New("the board does not answer in its settings text over this port")
	ErrRefused = errors.New("the board did not take the line")
	ErrGone    = errors.New("the connection to the board is gone")
)

// answerIn is how long a board gets for one answer; a whole text of some hundred lines
// takes a slow port a few seconds.
const answerIn = 5 * time.Second

// openIn is how long it gets to begin: what speaks no text never does.
const openIn = 2 * time.Second

// leaveIn is how long a board gets to go away, so that what was said to it has arrived.
const leaveIn = 500 * time.Millisecond

// session is a talk in text under way.
type session struct {
	conn  io.ReadWriteCloser
	words *gear.SettingsText
	heard chan []byte
	gone  chan struct{}
	err   error // why it is gone; read after gone is closed
}

// open makes a connection speak text; where it does not, the connection is closed.
func open(ctx context.Context, conn io.ReadWriteCloser, words *gear.SettingsText) (*session, error) {
	s := &session{conn: conn, words: words, heard: make(chan []byte, 64), gone: make(chan struct{})}
	go s.listen()
	if _, err := s.say(ctx, words.Enter, openIn); err != nil {
		s.close()
		return nil, err
	}
	return s, nil
}

// listen reads until the connection ends.
func (s *session) listen() {
	defer close(s.gone)
	for {
		buffer := make([]byte, 4096)
		n, err := s.conn.Read(buffer)
		if n > 0 {
			s.heard <- buffer[:n]
		}
		if err != nil {
			s.err = err
			return
		}
	}
}

// close ends the connection; what is still heard is thrown away.
func (s *session) close() {
	s.conn.Close()
	for {
		select {
		case <-s.heard:
		case <-s.gone:
			return
		}
	}
}

func (s *session) send(line string) error {
	if timed, ok := s.conn.(interface{ SetWriteDeadline(time.Time) error }); ok {
		if err := timed.SetWriteDeadline(time.Now().Add(answerIn)); err != nil {
			return fmt.Errorf("%w: %w", ErrGone, err)
		}
	}
	if _, err := io.WriteString(s.conn, line+"\n"); err != nil {
		return fmt.Errorf("%w: %w", ErrGone, err)
	}
	return nil
}

// say sends a line and gives the answer, without its echo and the prompt behind it.
// ErrMute where none comes, ErrRefused where the line was not taken, ErrGone.
func (s *session) say(ctx context.Context, line string, within time.Duration) (string, error) {
	if err := s.send(line); err != nil {
		return "", fmt.Errorf("say %q: %w", line, err)
	}
	answer, err := s.answer(ctx, within)
	if err != nil {
		return "", fmt.Errorf("say %q: %w", line, err)
	}
	answer = strings.TrimSpace(strings.TrimPrefix(strings.TrimSpace(answer), line))
	if strings.HasPrefix(answer, s.words.Refused) {
		return answer, fmt.Errorf("say %q: %w: %s", line, ErrRefused, answer)
	}
	return answer, nil
}

// answer reads up to the next prompt.
func (s *session) answer(ctx context.Context, within time.Duration) (string, error) {
	timer := time.NewTimer(within)
	defer timer.Stop()
	var all strings.Builder
	for {
		select {
		case part := <-s.heard:
			all.Write(part)
			if all.Len() > settext.MostBytes {
				return "", fmt.Errorf("it says more than %d bytes and no end of them", settext.MostBytes)
			}
			if text, ended := s.ended(all.String()); ended {
				return text, nil
			}
		case <-s.gone:
			return "", fmt.Errorf("%w: %w", ErrGone, s.err)
		case <-timer.C:
			return "", ErrMute
		case <-ctx.Done():
			return "", ctx.Err()
		}
	}
}

// ended says whether the prompt stands alone at the end of what was heard, and gives what
// comes before it.
func (s *session) ended(heard string) (string, bool) {
	before, ok := strings.CutSuffix(strings.TrimRight(heard, " \r\n"), s.words.Prompt)
	return before, ok && (before == "" || strings.HasSuffix(before, "\n") || strings.HasSuffix(before, "\r"))
}

// all reads the whole text.
func (s *session) all(ctx context.Context) (string, error) { return s.say(ctx, s.words.List, answerIn) }

// leave reboots the board without saving: what was loaded it forgets.
func (s *session) leave() {
	_ = s.send(s.words.Leave) // where it does not arrive, the power is off or the cable out
	select {
	case <-s.gone:
	case <-time.After(leaveIn): // a serial port is not gone with the board behind it
	}
	s.close()
}

// saved is how far a save has come.
type saved int

const (
	notAsked saved = iota
	asked          // and the board has neither refused nor gone
	taken          // the board reboots
)

// save has the board keep what it has, and reboot. A board that refuses says so; one that
// goes silent or away has been asked, and what it has is known only from what it reads
// back as.
func (s *session) save(ctx context.Context) (saved, error) {
	_, err := s.say(ctx, s.words.Save, answerIn)
	if errors.Is(err, ErrRefused) {
		s.leave()
		return notAsked, err
	}
	s.close()
	switch {
	case errors.Is(err, ErrGone):
		return taken, nil // it reboots
	case err != nil:
		return asked, err
	}
	return taken, nil
}
