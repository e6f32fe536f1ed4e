package web

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/bench"
	"yokeswap/core/control"
	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/setup"
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
		return nil, huma.Error403Forbidden("Flight boards are reached from the machine they are plugged into; it can let others " +
			"do so, with serve --far-boards.")
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

// BoardPorts is where a flight board can be reached.
type BoardPorts struct {
	Quad    string   `json:"quad" doc:"its name"`
	Ports   []string `json:"ports" doc:"addresses of serial ports, and of this quad's stand-in"`
	StandIn string   `json:"standIn" doc:"address of this quad's stand-in; empty: none runs"`
	Note    string   `json:"note,omitempty" doc:"why the serial ports are not listed"`
}

// BoardView is a board as it was read, held against the plan.
type BoardView struct {
	Address    string           `json:"address"`
	State      setup.State      `json:"state"`
	Comparison setup.Comparison `json:"comparison"`
}

// BoardReport is what was done to a board, and how it compares afterwards.
type BoardReport struct {
	msp.Report
	Comparison *setup.Comparison `json:"comparison,omitempty"`
}

// BoardKept is a snapshot in the list.
type BoardKept struct {
	ID      int64              `json:"id"`
	At      time.Time          `json:"at"`
	Why     string             `json:"why"`
	Runs    string             `json:"runs" doc:"flight firmware and release"`
	Differs []setup.Difference `json:"differs" doc:"against the snapshot before it"`
}

// BoardLive is what a board says while sticks and switches are moved.
type BoardLive struct {
	msp.Live
	Modes []control.Lit `json:"modes" doc:"the switches of the plan, and which are on"`
	// The steps of the bench sheet that take these readings.
	SticksStep  string `json:"sticksStep"`
	VoltageStep string `json:"voltageStep"`
}

// boardTime bounds one talk with a board, reboot and all.
const boardTime = 60 * time.Second

// BoardAddress names a connection to a board.
type BoardAddress struct {
	Address   string `json:"address" minLength:"1" maxLength:"200" doc:"serial:NAME or tcp:HOST:PORT"`
	Confirmed bool   `json:"confirmed,omitempty" doc:"the user has typed it, and says that a flight board is there"`
}

// BoardWrite asks for a board to be changed.
type BoardWrite struct {
	BoardAddress
	PropsOff bool `json:"propsOff" doc:"the builder has said that the props are off"`
}

func (s *server) registerFlightBoard(api huma.API) {
	huma.Get(api, "/api/quads/{quad}/board", s.boardPorts)
	huma.Post(api, "/api/quads/{quad}/board/stand-in", s.standIn)
	huma.Post(api, "/api/quads/{quad}/board/read", s.readBoard)
	huma.Post(api, "/api/quads/{quad}/board/set", s.setBoard)
	huma.Post(api, "/api/quads/{quad}/board/live", s.liveBoard)
	huma.Post(api, "/api/quads/{quad}/board/keep", s.keepBoard)
	huma.Get(api, "/api/quads/{quad}/board/snapshots", s.keptBoards)
	huma.Get(api, "/api/quads/{quad}/board/between", s.betweenBoards)
	huma.Post(api, "/api/quads/{quad}/board/restore", s.restoreBoard)
	huma.Register(api, huma.Operation{
		Method:      http.MethodGet,
		Path:        "/api/quads/{quad}/board/snapshots/{id}",
		OperationID: "board-snapshot",
	}, s.exportBoard)
}

// planned is the case of a quad's next fit.
func (s *server) planned(quad string) (fleet.Case, error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return fleet.Case{}, problem(err)
	}
	q, ok := snap.Fleet.Quad(quad)
	if !ok {
		return fleet.Case{}, notFound("quad", quad)
	}
	return fleet.NewCase(snap.Library, snap.Index, q), nil
}

func (s *server) boardPorts(_ context.Context, in *struct {
	Quad string `path:"quad"`
}) (*answer[BoardPorts], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	out := BoardPorts{Quad: c.Quad.Label(), Ports: []string{}}
	ports, err := msp.Ports()
	if err != nil {
		out.Note = err.Error()
	}
	out.Ports = append(out.Ports, ports...)
	s.boards.mu.Lock()
	defer s.boards.mu.Unlock()
	if b := s.boards.sims[in.Quad]; b != nil {
		out.StandIn = b.Address()
	}
	return reply(out), nil
}

// standIn starts a stand-in for a quad's board, set up as the quad flies today; or
// breaks one that runs, or ends it.
func (s *server) standIn(_ context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Stop   bool       `json:"stop,omitempty"`
		OSDOff bool       `json:"osdOff,omitempty" doc:"its OSD feature is off, a fault to find"`
		Faults sim.Faults `json:"faults"`
	}
}) (*answer[BoardPorts], error) {
	next, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	s.boards.mu.Lock()
	defer s.boards.mu.Unlock()
	b := s.boards.sims[in.Quad]
	if in.Body.Stop {
		if b != nil {
			b.Close()
			delete(s.boards.sims, in.Quad)
		}
		return reply(BoardPorts{Quad: next.Quad.Label(), Ports: []string{}}), nil
	}
	if b == nil {
		state, ok := setup.Of(fleet.NowCase(next.Library, next.Fleet, next.Quad))
		if !ok {
			return nil, huma.Error409Conflict("Nobody has said which flight board and flight firmware this quad has now: " +
				"enter them on the Shelf first.")
		}
		if b, err = sim.NewFlightBoard(state, ""); err != nil {
			return nil, problem(err)
		}
		s.boards.sims[in.Quad] = b
	}
	b.Break(in.Body.Faults)
	if bit, ok := runsOf(next, b.Saved().Variant).Features[gear.FeatureOSD]; ok && in.Body.OSDOff {
		b.Plant(func(s *setup.State) { s.Features &^= 1 << bit })
	}
	return reply(BoardPorts{Quad: next.Quad.Label(), Ports: []string{}, StandIn: b.Address()}), nil
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

// boardProblem says what to do where a board fails.
func boardProblem(err error) error {
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

func (s *server) readBoard(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardAddress
}) (*answer[BoardView], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	var state setup.State
	err = s.withBoard(ctx, in.Body, func(ctx context.Context, client *msp.Client) (err error) {
		state, err = msp.ReadBoard(ctx, client)
		return err
	})
	if err != nil {
		return nil, err
	}
	return reply(BoardView{in.Body.Address, state, setup.Compare(c, state)}), nil
}

func (s *server) setBoard(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardWrite
}) (*answer[BoardReport], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	return s.apply(ctx, c, in.Body, settingWhy, func(found setup.State) (setup.State, string) {
		comparison := setup.Compare(c, found)
		return comparison.Target, comparison.Blocked
	})
}

func (s *server) restoreBoard(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		BoardWrite
		Snapshot int64 `json:"snapshot"`
	}
}) (*answer[BoardReport], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	kept, err := s.keptBoard(in.Quad, in.Body.Snapshot)
	if err != nil {
		return nil, err
	}
	return s.apply(ctx, c, in.Body.BoardWrite, "before settings were put back", func(found setup.State) (setup.State, string) {
		switch {
		case found.Armed:
			return found, "The board is armed: disarm it, take the pack and the props off. Nothing is written."
		case found.Variant != kept.State.Variant || found.Board != kept.State.Board:
			return found, fmt.Sprintf("This is %s %q, the settings are of %s %q: nothing is written.", found.Board,
				found.Variant, kept.State.Board, kept.State.Variant)
		}
		target := kept.State.Clone()
		target.Version, target.Name = found.Version, found.Name
		target.Lacks, target.OldPorts = found.Lacks, found.OldPorts
		if len(target.Receiver) == 0 { // kept before every byte was
			target.Receiver, target.Map = found.Receiver, found.Map
		}
		return target, ""
	})
}

// settingWhy is why a snapshot is kept before a board is set to its plan.
const settingWhy = "before it was set"

// notSet names what of the plan no write has set, such as another release.
func notSet(c setup.Comparison) string {
	var left []string
	for i := range c.Rows {
		if !c.Rows[i].Same {
			left = append(left, c.Rows[i].Label)
		}
	}
	if len(left) == 0 {
		return ""
	}
	return " Not set, and still other than planned: " + strings.Join(left, ", ") + "."
}

func (s *server) apply(
	ctx context.Context, c fleet.Case, in BoardWrite, why string, want func(setup.State) (setup.State, string),
) (*answer[BoardReport], error) {
	if !in.PropsOff {
		return nil, huma.Error422UnprocessableEntity("Take the props off first, and say so: a board that is being set can " +
			"start the motors.")
	}
	end, err := s.begin(ctx, in.BoardAddress)
	if err != nil {
		return nil, err
	}
	defer end()
	// A browser that goes away does not break off what has begun.
	ctx, cancel := context.WithTimeout(context.WithoutCancel(ctx), boardTime)
	defer cancel()
	out := BoardReport{Report: msp.Apply(ctx, dialer(in.Address), want, func(before setup.State) error {
		_, err := s.store.KeepBoard(c.Quad.ID, why, before, time.Now())
		return err
	})}
	if out.After != nil {
		comparison := setup.Compare(c, *out.After)
		out.Comparison = &comparison
		if out.Outcome == msp.Set && why == settingWhy {
			out.Says += notSet(comparison)
		}
	}
	s.tell(c.Quad.ID, "Flight board, "+string(out.Outcome)+": "+out.Says, &out)
	return reply(out), nil
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
	s.options.Log.Error("a flight board was worked on and the log cannot be written", "quad", quad, "says", says, "error", err)
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

func (s *server) liveBoard(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardAddress
}) (*answer[BoardLive], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	var live BoardLive
	err = s.withBoard(ctx, in.Body, func(ctx context.Context, client *msp.Client) (err error) {
		live.Live, err = msp.ReadLive(ctx, client)
		return err
	})
	if err != nil {
		return nil, err
	}
	live.Modes = []control.Lit{}
	if sticks := c.Fit.Sticks; sticks != nil {
		live.Modes = control.Lights(sticks.Switches, live.Channels)
	}
	live.SticksStep, live.VoltageStep = bench.SticksStep, bench.VoltageStep
	return reply(live), nil
}

func (s *server) keepBoard(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardAddress
}) (*answer[[]BoardKept], error) {
	if _, err := s.planned(in.Quad); err != nil {
		return nil, err
	}
	err := s.withBoard(ctx, in.Body, func(ctx context.Context, client *msp.Client) error {
		state, err := msp.ReadBoard(ctx, client)
		if err != nil {
			return err
		}
		_, err = s.store.KeepBoard(in.Quad, "kept by hand", state, time.Now())
		return err
	})
	if err != nil {
		return nil, err
	}
	return s.kept(in.Quad, 0)
}

func (s *server) keptBoards(_ context.Context, in *struct {
	Quad   string `path:"quad"`
	Before int64  `query:"before" doc:"those before this one; absent: the newest"`
}) (*answer[[]BoardKept], error) {
	return s.kept(in.Quad, in.Before)
}

func (s *server) kept(quad string, before int64) (*answer[[]BoardKept], error) {
	c, err := s.planned(quad)
	if err != nil {
		return nil, err
	}
	list, err := s.store.Boards(quad, before, store.DefaultPage)
	if err != nil {
		return nil, problem(err)
	}
	out := []BoardKept{}
	for i, b := range list {
		k := BoardKept{
			ID:      b.ID,
			At:      b.At,
			Why:     b.Why,
			Runs:    b.State.Variant + " " + string(b.State.Version),
			Differs: []setup.Difference{},
		}
		if i+1 < len(list) {
			k.Differs = setup.Between(list[i+1].State, b.State, runsOf(c, b.State.Variant))
		}
		out = append(out, k)
	}
	return reply(out), nil
}

// runsOf finds the flight firmware that calls itself so; one without numbers where
// none does.
func runsOf(c fleet.Case, variant string) *gear.FlightFirmware {
	for _, f := range gear.All[*gear.FlightFirmware](c.Library) {
		if f.Variant == variant {
			return f
		}
	}
	return &gear.FlightFirmware{}
}

func (s *server) keptBoard(quad string, id int64) (store.BoardSnapshot, error) {
	b, ok, err := s.store.Board(quad, id)
	if err != nil {
		return b, problem(err)
	}
	if !ok {
		return b, notFound("snapshot", fmt.Sprint(id))
	}
	return b, nil
}

// betweenBoards compares two snapshots of a quad's board.
func (s *server) betweenBoards(_ context.Context, in *struct {
	Quad string `path:"quad"`
	A    int64  `query:"a" required:"true"`
	B    int64  `query:"b" required:"true"`
}) (*answer[[]setup.Difference], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	a, err := s.keptBoard(in.Quad, in.A)
	if err != nil {
		return nil, err
	}
	b, err := s.keptBoard(in.Quad, in.B)
	if err != nil {
		return nil, err
	}
	return reply(setup.Between(a.State, b.State, runsOf(c, b.State.Variant))), nil
}

func (s *server) exportBoard(_ context.Context, in *struct {
	Quad string `path:"quad"`
	ID   int64  `path:"id"`
}) (*download, error) {
	b, err := s.keptBoard(in.Quad, in.ID)
	if err != nil {
		return nil, err
	}
	text, err := json.MarshalIndent(b, "", "  ")
	if err != nil {
		return nil, problem(err)
	}
	return &download{
		ContentType:        "application/json",
		ContentDisposition: fmt.Sprintf(`attachment; filename="%s-board-%d.json"`, in.Quad, in.ID),
		Body:               append(text, '\n'),
	}, nil
}
