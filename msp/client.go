package msp

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"sync"
	"time"
)

// The ways a board fails to answer.
var (
	ErrRefused = errors.New("the board refused")
	ErrSilent  = errors.New("the board does not answer")
	ErrGone    = errors.New("the connection to the board is gone")
)

// answerIn is how long a board gets for one answer, and asks how often it is asked
// before it counts as silent.
const (
	answerIn = 400 * time.Millisecond
	asks     = 3
)

// Client asks a flight board, one command at a time. It is safe for use by several
// goroutines.
type Client struct {
	conn io.ReadWriteCloser

	ask    sync.Mutex // held for one command and its answer
	frames chan Frame
	gone   chan struct{}
	err    error // why it is gone; read after gone is closed
}

// NewClient talks over a connection, which it closes in the end.
func NewClient(conn io.ReadWriteCloser) *Client {
	c := &Client{conn: conn, frames: make(chan Frame, 16), gone: make(chan struct{})}
	go c.listen()
	return c
}

// write sends, and does not wait for ever where the connection can tell time.
func (c *Client) write(data []byte) error {
	if timed, ok := c.conn.(interface{ SetWriteDeadline(time.Time) error }); ok {
		if err := timed.SetWriteDeadline(time.Now().Add(answerIn)); err != nil {
			return err
		}
	}
	_, err := c.conn.Write(data)
	return err
}

// Close ends the connection.
func (c *Client) Close() error { return c.conn.Close() }

// listen reads until the connection ends. A read that times out has simply had
// nothing to say.
func (c *Client) listen() {
	defer close(c.gone)
	var d Decoder
	buffer := make([]byte, 4096)
	for {
		n, err := c.conn.Read(buffer)
		d.Decode(buffer[:n], func(f Frame) {
			if f.Direction == ToBoard {
				return
			}
			f.Payload = bytes.Clone(f.Payload)
			select {
			case c.frames <- f:
			default: // nobody waits for that many
			}
		})
		if err != nil {
			c.err = err
			return
		}
	}
}

// Ask sends a command and waits for its answer. It asks again where the board is
// silent, and gives ErrSilent, ErrRefused or ErrGone, wrapped with the command.
func (c *Client) Ask(ctx context.Context, command uint16, payload []byte) ([]byte, error) {
	c.ask.Lock()
	defer c.ask.Unlock()
	f := Frame{Version: V1, Direction: ToBoard, Command: command, Payload: payload}
	if command > 255 {
		f.Version = V2
	}
	sent := AppendFrame(nil, f)
	return c.exchange(ctx, command, f.Version, sent, asks, answerIn)
}

// Once sends a command a single time and gives its answer as long as it says: for what
// must not be done twice, or takes its time.
func (c *Client) Once(ctx context.Context, command uint16, within time.Duration) ([]byte, error) {
	c.ask.Lock()
	defer c.ask.Unlock()
	sent := AppendFrame(nil, Frame{Version: V1, Direction: ToBoard, Command: command})
	return c.exchange(ctx, command, V1, sent, 1, within)
}

func (c *Client) exchange(
	ctx context.Context, command uint16, version Version, sent []byte, times int, within time.Duration,
) ([]byte, error) {
	for range times {
		c.drain()
		if err := c.write(sent); err != nil {
			return nil, fmt.Errorf("command %d: %w: %w", command, ErrGone, err)
		}
		switch answer, err := c.await(ctx, command, version, within); {
		case err == nil:
			return answer, nil
		case !errors.Is(err, ErrSilent):
			return nil, fmt.Errorf("command %d: %w", command, err)
		}
	}
	return nil, fmt.Errorf("command %d: %w within %s, asked %d times", command, ErrSilent, within, times)
}

// Tell sends a command and does not wait: a board that reboots does not answer.
func (c *Client) Tell(command uint16) error {
	c.ask.Lock()
	defer c.ask.Unlock()
	if err := c.write(AppendFrame(nil, Frame{Version: V1, Direction: ToBoard, Command: command})); err != nil {
		return fmt.Errorf("command %d: %w: %w", command, ErrGone, err)
	}
	return nil
}

// drain throws away answers that came too late for their question.
func (c *Client) drain() {
	for {
		select {
		case <-c.frames:
		default:
			return
		}
	}
}

// await takes the answer to a command and passes over what nobody has asked for. A board
// that only knows version 1 refuses a command of version 2 in its own way: its number
// cut to eight bits.
func (c *Client) await(ctx context.Context, command uint16, version Version, within time.Duration) ([]byte, error) {
	timer := time.NewTimer(within)
	defer timer.Stop()
	for {
		select {
		case f := <-c.frames:
			switch {
			case version == V2 && f.Version == V1 && f.Direction == Refused && (f.Command == command&0xFF || f.Command == jumbo):
				return nil, ErrRefused
			case f.Command != command:
			case f.Direction == Refused:
				return nil, ErrRefused
			default:
				return f.Payload, nil
			}
		case <-c.gone:
			return nil, fmt.Errorf("%w: %w", ErrGone, c.err)
		case <-timer.C:
			return nil, ErrSilent
		case <-ctx.Done():
			return nil, ctx.Err()
		}
	}
}
