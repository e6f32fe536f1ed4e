package main

import (
	"errors"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/work/setup"
	"yokeswap/demo"
	"yokeswap/sim"
)

// standIn runs a stand-in for something a builder works with, until it is told to
// stop: so far a flight board, set up as a quad of the demo flies today.
func standIn(c *call) error {
	listen := c.flags.String("listen", "127.0.0.1:8741", "address to listen on")
	quad := c.flags.String("quad", "rynd", "the quad of the demo whose board it is")
	var faults sim.Faults
	c.flags.IntVar(&faults.SlowMS, "slow", 0, "milliseconds that each answer comes late")
	c.flags.IntVar(&faults.CutAfter, "cut-after", 0, "the cable comes out after so many writes")
	c.flags.BoolVar(&faults.WrongChecksum, "wrong-checksum", false, "every answer has a wrong checksum")
	c.flags.StringVar(&faults.Variant, "variant", "", "what it says it runs")
	c.flags.BoolVar(&faults.RefuseSave, "refuse-save", false, "it refuses to save")
	c.flags.BoolVar(&faults.Armed, "armed", false, "it is armed")
	c.flags.BoolVar(&faults.Silent, "silent", false, "it answers nothing")
	c.flags.IntVar(&faults.SaveMS, "save", 0, "milliseconds it takes to save; 0: 100")
	c.flags.IntVar(&faults.RebootMS, "reboot", 0, "milliseconds it is away when it reboots; 0: 2000")
	c.flags.BoolVar(&faults.SilentSave, "silent-save", false, "it saves and does not say so")
	c.flags.BoolVar(&faults.LostSave, "lost-save", false, "it says that it saved, and has not")
	c.flags.BoolVar(&faults.CutAtSave, "cut-at-save", false, "the cable comes out while it saves")
	c.flags.BoolVar(&faults.OldPorts, "old-ports", false, "it has the older list of serial ports")
	c.flags.BoolVar(&faults.NoOSD, "no-osd", false, "its firmware has no OSD to set")
	c.flags.BoolVar(&faults.NoCanvas, "no-canvas", false, "its firmware has no canvas to set")
	c.flags.BoolVar(&faults.V1Errors, "v1-errors", false, "it refuses what is new in the manner of version 1")
	c.flags.BoolVar(&faults.WrongLength, "wrong-length", false, "a frame of a wrong length comes before each answer")
	c.flags.BoolVar(&faults.Chatter, "chatter", false, "it sends frames nobody has asked for")
	c.flags.BoolVar(&faults.NoText, "no-text", false, "it does not speak its settings text")
	c.flags.BoolVar(&faults.CutText, "cut-text", false, "what it tells in its settings text breaks off")
	c.flags.StringVar(&faults.Ignores, "ignores", "", "a setting of its text that it does not take")
	c.flags.StringVar(&faults.Moves, "moves", "", "a setting of its text that changes beside others")
	names, err := c.parse()
	if err != nil {
		return err
	}
	if len(names) != 1 || names[0] != "board" {
		return errors.New("expected what to stand in for: board")
	}
	state, runs, err := boardOf(*quad)
	if err != nil {
		return err
	}
	b, err := sim.NewFlightBoard(state, runs, *listen)
	if err != nil {
		return err
	}
	defer b.Close()
	b.Break(faults)
	fmt.Fprintf(c.stdout, "a stand-in for the flight board of %s answers at %s\n", state.Name, b.Address())
	stop := make(chan os.Signal, 1)
	signal.Notify(stop, os.Interrupt, syscall.SIGTERM)
	<-stop
	return nil
}

// boardOf is how the flight board of a quad of the demo is set up today, and what it runs.
func boardOf(quad string) (setup.State, *gear.FlightFirmware, error) {
	s := stock.New()
	if err := demo.Load(s); err != nil {
		return setup.State{}, nil, err
	}
	q, ok := s.Fleet.Quad(quad)
	if !ok {
		return setup.State{}, nil, fmt.Errorf("the demo has no quad %q", quad)
	}
	now := fleet.NowCase(gear.NewLibrary(s.Sets...), fleet.NewIndex(s.Fleet), q)
	state, ok := setup.Of(now)
	if !ok {
		return setup.State{}, nil, fmt.Errorf("the demo does not say what the flight board of %s runs", q.Label())
	}
	runs, _ := gear.Find[*gear.FlightFirmware](now.Library, now.Fit.Runs.ID)
	return state, runs, nil
}
