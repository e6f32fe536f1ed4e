package web

import (
	"context"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/msp"
	"yokeswap/sim"
	"yokeswap/store"
)

// boards holds the stand-ins that run, and lets one request at a time talk to a
// board: another one is refused at once, it never waits.
type boards struct {
	mu   sync.Mutex
	sims map[string]*sim.FlightBoard // by quad
	busy string                      // what is talked to; empty: nothing
	from time.Time

	confirmed map[string]bool // addresses that the user has said are boards
	ports     func() ([]string, error)
	unlogged  []store.Note // what happened to boards and could not be written down yet
}

// permit lets an address be opened that this program knows: a serial port that the
// system lists, one of its own stand-ins, or an address on this machine or in its own
// network that the user has said is a board. Nothing else is opened, whoever asks.
func (b *boards) permit(in BoardAddress) error {
	b.mu.Lock()
	defer b.mu.Unlock()
	for _, standIn := range b.sims {
		if standIn.Address() == in.Address {
			return nil
		}
	}
	if strings.HasPrefix(in.Address, "serial:") {
		ports, err := b.ports()
		if err != nil {
			return huma.Error502BadGateway(err.Error())
		}
		if !slices.Contains(ports, in.Address) {
			return huma.Error422UnprocessableEntity("This machine lists no such port: plug the board in with a data cable, " +
				"and pick its port.")
		}
		return nil
	}
	if in.Confirmed {
		b.confirmed[in.Address] = true
	}
	if !b.confirmed[in.Address] {
		return huma.Error422UnprocessableEntity("Nobody has said that a flight board is at " + in.Address + ": say so first.")
	}
	return nil
}

// begin takes the line to a board, or says who has it.
func (s *server) begin(ctx context.Context, in BoardAddress) (end func(), err error) {
	if far(ctx) && !s.options.FarBoards {
		return nil, huma.Error403Forbidden(
			"Flight boards are reached from the machine they are plugged into; it can let others " +
				"do so, with serve --far-boards.",
		)
	}
	if err := s.boards.permit(in); err != nil {
		return nil, err
	}
	return s.boards.begin(ctx, in.Address)
}

func (b *boards) begin(ctx context.Context, address string) (end func(), err error) {
	b.mu.Lock()
	defer b.mu.Unlock()
	if err := ctx.Err(); err != nil {
		return nil, err // the page is gone: nothing is begun for it
	}
	if b.busy != "" {
		return nil, huma.Error409Conflict(fmt.Sprintf("Busy with board %s since %s. Try again when that has ended.", b.busy,
			b.from.Format("15:04:05")))
	}
	b.busy, b.from = address, time.Now()
	return func() {
		b.mu.Lock()
		defer b.mu.Unlock()
		b.busy = ""
	}, nil
}

func newBoards() *boards {
	return &boards{sims: map[string]*sim.FlightBoard{}, confirmed: map[string]bool{}, ports: msp.Ports}
}

// boardTime bounds one talk with a board, reboot and all.
const boardTime = 60 * time.Second

// BoardAddress names a connection to a board.
type BoardAddress struct {
	Address   string `json:"address" minLength:"1" maxLength:"200" doc:"serial:NAME or tcp:HOST:PORT"`
	Confirmed bool   `json:"confirmed,omitempty" doc:"the user has typed it, and says that a flight board is there"`
}

func dialer(address string) msp.Dial {
	return func(ctx context.Context) (io.ReadWriteCloser, error) { return msp.Open(ctx, address) }
}

// withBoard talks to a board, one request at a time.
func (s *server) withBoard(ctx context.Context, in BoardAddress, talk func(context.Context, *msp.Client) error) error {
	end, err := s.begin(ctx, in)
	if err != nil {
		return err
	}
	defer end()
	ctx, cancel := context.WithTimeout(ctx, boardTime)
	defer cancel()
	conn, err := msp.Open(ctx, in.Address)
	if err != nil {
		return boardProblem(err)
	}
	client := msp.NewClient(conn)
	defer client.Close()
	if err := talk(ctx, client); err != nil {
		return boardProblem(err)
	}
	return nil
}

// boardProblem says what to do where a board fails; what is said already stays.
func boardProblem(err error) error {
	if status := huma.StatusError(nil); errors.As(err, &status) {
		return err
	}
	does := "Check the cable and the port, and that no other program has it open."
	switch {
	case errors.Is(err, msp.ErrRefused):
		does = "It does not have that: its firmware may be too old or another one."
	case errors.Is(err, msp.ErrSilent):
		does = "Nothing answers there: is it the board's port, and is the board powered?"
	case errors.Is(err, msp.ErrGone):
		does = "The connection ended: plug it in again with a data cable."
	}
	return huma.Error502BadGateway("The board was not read. " + does + " Nothing was written. (" + err.Error() + ")")
}

// tell writes down what happened to a board. The board is as it is whatever the disk
// does: what cannot be written now is said, kept, and written later.
func (s *server) tell(quad, says string, out *BoardReport) {
	note := store.Note{Quad: quad, Says: says, At: time.Now()}
	err := s.store.Log(quad, says, note.At)
	if err == nil {
		return
	}
	out.Says += " It could not be written into the log yet: " + err.Error()
	s.options.Log.Error(
		"a flight board was worked on and the log cannot be written",
		"quad",
		quad,
		"says",
		says,
		"error",
		err,
	)
	s.boards.mu.Lock()
	defer s.boards.mu.Unlock()
	s.boards.unlogged = append(s.boards.unlogged, note)
}

// tellLater writes down what could not be written before.
func (s *server) tellLater() {
	s.boards.mu.Lock()
	defer s.boards.mu.Unlock()
	for len(s.boards.unlogged) > 0 {
		note := s.boards.unlogged[0]
		if s.store.Log(note.Quad, note.Says, note.At) != nil {
			return
		}
		s.boards.unlogged = s.boards.unlogged[1:]
	}
}
