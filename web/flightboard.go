package web

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/control"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/setup"
	"yokeswap/msp"
	"yokeswap/sim"
)

// BoardPorts is where a flight board can be reached.
type BoardPorts struct {
	Quad    string   `json:"quad"           doc:"its name"`
	Ports   []string `json:"ports"          doc:"addresses of serial ports, and of this quad's stand-in"`
	StandIn string   `json:"standIn"        doc:"address of this quad's stand-in; empty: none runs"`
	Note    string   `json:"note,omitempty" doc:"why the serial ports are not listed"`
}

// BoardView is a board as it was read, held against the plan.
type BoardView struct {
	Address    string           `json:"address"`
	State      setup.State      `json:"state"`
	Comparison setup.Comparison `json:"comparison"`
	Tells      []setup.Tell     `json:"tells"      doc:"what it says of what is on the quad today"`
}

// BoardReport is what was done to a board, and how it compares afterwards.
type BoardReport struct {
	msp.Report
	Comparison *setup.Comparison `json:"comparison,omitempty"`
}

// BoardLive is what a board says while sticks and switches are moved.
type BoardLive struct {
	msp.Live
	Modes []control.Lit `json:"modes" doc:"the switches of the plan, and which are on"`
	Known []string      `json:"known" doc:"the modes the flight firmware has, by their ids"`
	// The steps of the bench sheet that take these readings.
	SticksStep  string `json:"sticksStep"`
	VoltageStep string `json:"voltageStep"`
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
	huma.Post(api, "/api/quads/{quad}/board/today", s.takeBoard)
	huma.Post(api, "/api/quads/{quad}/board/told", s.boardTold)
	huma.Post(api, "/api/quads/{quad}/board/set", s.setBoard)
	huma.Post(api, "/api/quads/{quad}/board/live", s.liveBoard)
	huma.Post(api, "/api/quads/{quad}/board/keep", s.keepBoard)
	huma.Get(api, "/api/quads/{quad}/board/snapshots", s.keptBoards)
	huma.Put(api, "/api/quads/{quad}/board/snapshots/{id}/name", s.nameBoard)
	huma.Get(api, "/api/quads/{quad}/board/between", s.betweenBoards)
	huma.Post(api, "/api/quads/{quad}/board/restore", s.restoreBoard)
	s.registerBoardText(api)
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
		if b, err = sim.NewFlightBoard(state, runsOf(next, state.Variant), ""); err != nil {
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
	return reply(boardView(c, in.Body.Address, state)), nil
}

// boardView is a board as it was read, for the plan and for what is on the quad today.
func boardView(c fleet.Case, address string, state setup.State) BoardView {
	now := fleet.NowCase(c.Library, c.Fleet, c.Quad)
	return BoardView{address, state, setup.Compare(c, state), setup.Tells(now, state)}
}

// takeBoard reads a board and notes what it says as what is on the quad today: what is
// asked for of it, and nothing else.
func (s *server) takeBoard(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		BoardAddress
		Take []string `json:"take" maxItems:"10" doc:"keys of what it tells"`
	}
}) (*answer[BoardView], error) {
	if _, err := s.planned(in.Quad); err != nil {
		return nil, err
	}
	var state setup.State
	err := s.withBoard(ctx, in.Body.BoardAddress, func(ctx context.Context, client *msp.Client) (err error) {
		state, err = msp.ReadBoard(ctx, client)
		return err
	})
	if err != nil {
		return nil, err
	}
	err = s.noteTold(ctx, in.Quad, in.Body.Take, func(c fleet.Case) ([]setup.Tell, error) {
		return setup.Tells(c, state), nil
	})
	if err != nil {
		return nil, err
	}
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	return reply(boardView(c, in.Body.Address, state)), nil
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
	return s.apply(
		ctx,
		c,
		in.Body.BoardWrite,
		"before settings were put back",
		func(found setup.State) (setup.State, string) {
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
		},
	)
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
		_, err := s.store.KeepBoard(c.Quad.ID, why, before, "", time.Now())
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

// BoardLook asks for what a board says while sticks and switches are moved.
type BoardLook struct {
	BoardAddress
	Hold     *bool `json:"hold,omitempty" doc:"true: arming is held off first; false: let go of; absent: left as it is"`
	PropsOff bool  `json:"propsOff,omitempty" doc:"the builder has said that the props are off: asked for with hold"`
}

// liveBoard reads the sticks and the battery, with the arming held off where that is asked
// for. A board that does not hold it says so, and is not read on.
func (s *server) liveBoard(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardLook
}) (*answer[BoardLive], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	hold := in.Body.Hold
	if hold != nil && *hold && !in.Body.PropsOff {
		return nil, huma.Error422UnprocessableEntity("Say first that the props are off.")
	}
	var live BoardLive
	err = s.withBoard(ctx, in.Body.BoardAddress, func(ctx context.Context, client *msp.Client) (err error) {
		if hold != nil {
			if err = msp.HoldArming(ctx, client, *hold); errors.Is(err, msp.ErrRefused) {
				return huma.Error409Conflict(control.ErrNotHeld.Error())
			} else if err != nil {
				return err
			}
		}
		live.Live, err = msp.ReadLive(ctx, client)
		live.Held = hold != nil && *hold
		return err
	})
	if err != nil {
		return nil, err
	}
	live.Modes, live.Known = []control.Lit{}, control.Modes(c)
	if sticks := c.Fit.Sticks; sticks != nil {
		live.Modes = control.Lights(sticks.Switches, live.Channels)
	}
	live.SticksStep, live.VoltageStep = bench.SticksStep, bench.VoltageStep
	return reply(live), nil
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
