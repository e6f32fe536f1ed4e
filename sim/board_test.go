package sim_test

import (
	"context"
	"errors"
	"io"
	"testing"
	"time"

	"github.com/creack/pty"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/setup"
	"yokeswap/msp"
	"yokeswap/sim"
)

func state() setup.State {
	return setup.State{
		Variant:  "TEST",
		Version:  "4.5.1",
		Board:    "thrs",
		Name:     "Quern",
		RXMap:    "AETR",
		Provider: 2,
		Features: 1<<18 | 1<<3,
		Canvas:   "53x20",
		Ports: []setup.Port{
			{ID: 0, Functions: 1, Rest: []byte{5, 4, 0, 5}},
			{ID: 3, Functions: 64, Rest: []byte{5, 4, 0, 5}},
		},
		Modes: []setup.Range{{Mode: 0, Aux: 0, FromUS: 1700, ToUS: 2100}},
		OSD:   []setup.Cell{{X: 1, Y: 18, Profiles: 1}, {X: 47, Y: 19, Profiles: 3}, {}},
	}
}

// quick is a board that reboots at once, so that the tests do not wait.
var quick = sim.Faults{RebootMS: 60, SaveMS: 5}

func board(t *testing.T, s setup.State) (*sim.FlightBoard, *msp.Client) {
	b, err := sim.NewFlightBoard(s, nil, "")
	require.NoError(t, err)
	b.Break(quick)
	t.Cleanup(func() { b.Close() })
	return b, dial(t, b)
}

func dial(t *testing.T, b *sim.FlightBoard) *msp.Client {
	conn, err := msp.Open(context.Background(), b.Address())
	require.NoError(t, err)
	c := msp.NewClient(conn)
	t.Cleanup(func() { c.Close() })
	return c
}

func TestABoardIsReadSetSavedAndReadAgain(t *testing.T) {
	ctx := context.Background()
	b, c := board(t, state())
	found, err := msp.ReadBoard(ctx, c)
	require.NoError(t, err)
	want := state()
	want.Board = "THRS" // four letters, as boards say them
	assert.Equal(t, want.Ports, found.Ports[:2])
	assert.Equal(t, 20, found.Ports[2].ID, "its own USB port")
	assert.Len(t, found.Receiver, 23, "every byte it gave is kept")
	found.Ports, want.Receiver, want.Map, want.Ports = found.Ports[:2], found.Receiver, found.Map, found.Ports[:2]
	assert.Equal(t, want, found)
	found, err = msp.ReadBoard(ctx, c)
	require.NoError(t, err)

	target := found.Clone()
	target.Ports[0].Functions, target.Features, target.Provider, target.RXMap, target.Canvas = 1|1<<17, found.Features|1<<10, 9, "TAER", "60x22"
	target.Modes = append(target.Modes, setup.Range{Mode: 13, Aux: 2, FromUS: 900, ToUS: 1300})
	target.OSD[2] = setup.Cell{X: 59, Y: 21, Profiles: 7}
	require.NoError(t, msp.WriteBoard(ctx, c, found, target))
	require.NoError(t, msp.Save(ctx, c))
	require.NoError(t, c.Tell(msp.CmdReboot))
	time.Sleep(150 * time.Millisecond)
	after, err := msp.ReadBoard(ctx, dial(t, b))
	require.NoError(t, err)
	target.Receiver[0], target.Map = 9, []byte{1, 2, 3, 0, 7, 6, 5, 4} // every other byte as it was
	assert.Equal(t, target, after, "what was set is still there after the reboot")
}

// A cable that comes out in the middle saves nothing: the board is as it was.
func TestACutInTheMiddleSavesNothing(t *testing.T) {
	ctx := context.Background()
	b, c := board(t, state())
	found, err := msp.ReadBoard(ctx, c)
	require.NoError(t, err)
	target := found.Clone()
	target.Features, target.RXMap = 7, "TAER"
	b.Break(sim.Faults{CutAfter: 2})
	err = msp.WriteBoard(ctx, c, found, target)
	require.ErrorIs(t, err, msp.ErrGone)
	after, err := msp.ReadBoard(ctx, dial(t, b))
	require.NoError(t, err)
	assert.Equal(t, found, after)
}

func TestFaultsGiveClearWordsAndNoHang(t *testing.T) {
	ctx := context.Background()
	for name, c := range map[string]struct {
		fault sim.Faults
		is    error
		says  string
	}{
		"silent": {
			sim.Faults{Silent: true},
			msp.ErrSilent,
			"read which flight firmware it runs: command 2: the board does not answer within 400ms, asked 3 times",
		},
		"wrong checksums":  {sim.Faults{WrongChecksum: true}, msp.ErrSilent, "does not answer"},
		"later than it is": {sim.Faults{SlowMS: 600}, msp.ErrSilent, "does not answer"},
	} {
		t.Run(name, func(t *testing.T) {
			b, client := board(t, state())
			b.Break(c.fault)
			_, err := msp.ReadBoard(ctx, client)
			require.ErrorIs(t, err, c.is)
			assert.Contains(t, err.Error(), c.says)
		})
	}
	b, client := board(t, state())
	b.Break(sim.Faults{RefuseSave: true})
	to := state()
	to.Features = 1
	err := msp.Save(ctx, client)
	require.ErrorIs(t, err, msp.ErrRefused)
	assert.Contains(t, err.Error(), "save")
	assert.Equal(t, state().Features, b.Saved().Features)
	b.Break(sim.Faults{Armed: true})
	require.ErrorIs(t, msp.WriteBoard(ctx, client, state(), to), msp.ErrRefused, "an armed board takes nothing")
	stopped, cancel := context.WithCancel(ctx)
	cancel()
	_, err = msp.ReadBoard(stopped, client)
	require.ErrorIs(t, err, context.Canceled)
}

// The same over a serial line: one end of a pseudo-terminal is the board, the other
// is opened as a serial port.
func TestOverASerialLine(t *testing.T) {
	line, port, err := pty.Open()
	require.NoError(t, err)
	defer port.Close()
	b, err := sim.NewFlightBoard(state(), nil, "")
	require.NoError(t, err)
	defer b.Close()
	go b.Serve(line)
	conn, err := msp.Open(context.Background(), "serial:"+port.Name())
	require.NoError(t, err)
	c := msp.NewClient(conn)
	defer c.Close()
	found, err := msp.ReadBoard(context.Background(), c)
	require.NoError(t, err)
	assert.Equal(t, state().Ports, found.Ports[:2])
	line.Close() // unplugged
	_, err = msp.ReadBoard(context.Background(), c)
	require.Error(t, err)
}

func TestAddresses(t *testing.T) {
	for address, says := range map[string]string{
		"tcp:203.0.113.9:5761":  "not on this machine",
		"tcp:example.org:5761":  "not on this machine",
		"tcp:127.0.0.1":         "expected tcp:HOST:PORT",
		"carrier-pigeon:loft":   "expected serial:NAME",
		"serial:/dev/nothing-9": "plug the board in",
		"tcp:127.0.0.1:1":       "connect to",
	} {
		_, err := msp.Open(context.Background(), address)
		require.Error(t, err, address)
		assert.Contains(t, err.Error(), says)
	}
}

func TestLiveValues(t *testing.T) {
	_, c := board(t, state())
	live, err := msp.ReadLive(context.Background(), c)
	require.NoError(t, err)
	assert.Len(t, live.Channels, 8)
	assert.False(t, live.Armed)
	assert.InDelta(t, 16.2, live.Volts, 0.2)
}

// A board that is told to holds its arming off until it is let go of; one that does not know
// how refuses.
func TestArmingIsHeldOff(t *testing.T) {
	b, c := board(t, state())
	ctx := context.Background()
	armed := func() bool {
		live, err := msp.ReadLive(ctx, c)
		require.NoError(t, err)
		return live.Armed
	}
	b.Break(sim.Faults{Armed: true})
	assert.True(t, armed())
	require.NoError(t, msp.HoldArming(ctx, c, true))
	assert.False(t, armed())
	require.NoError(t, msp.HoldArming(ctx, c, false))
	assert.True(t, armed())
	b.Break(sim.Faults{NoHold: true})
	assert.ErrorIs(t, msp.HoldArming(ctx, c, true), msp.ErrRefused)
}

func BenchmarkReadBoard(b *testing.B) {
	board, err := sim.NewFlightBoard(state(), nil, "")
	require.NoError(b, err)
	defer board.Close()
	conn, err := msp.Open(context.Background(), board.Address())
	require.NoError(b, err)
	c := msp.NewClient(conn)
	defer c.Close()
	for b.Loop() {
		if _, err := msp.ReadBoard(context.Background(), c); err != nil {
			b.Fatal(err)
		}
	}
	b.ReportMetric(300, "goal-ms")
}

func dialer(b *sim.FlightBoard) msp.Dial {
	return func(ctx context.Context) (io.ReadWriteCloser, error) { return msp.Open(ctx, b.Address()) }
}

// Apply from start to end, and broken off in each way: the settings are kept first,
// and what is said of the board is so.
func TestApplyTellsHowTheBoardIsLeft(t *testing.T) {
	to := func(found setup.State) setup.State {
		target := found.Clone()
		target.RXMap, target.Features = "TAER", 1<<18
		return target
	}
	for _, c := range []struct {
		name    string
		fault   sim.Faults
		outcome msp.Outcome
		says    string
		restore bool
	}{
		{"as it should be", sim.Faults{}, msp.Set, "reads back right", false},
		{"the cable comes out", sim.Faults{CutAfter: 2}, msp.NotSaved, "reads as it was", true},
		{"it refuses to save", sim.Faults{RefuseSave: true}, msp.NotSaved, "did not save: it reads as it was", true},
		{
			"it saves and does not say so",
			sim.Faults{SilentSave: true},
			msp.Set,
			"did not confirm that it saved, but after a reboot it reads back as it was set",
			false,
		},
		{
			"it says it saved and has not",
			sim.Faults{LostSave: true},
			msp.Differs,
			"Not as set: features, channel order",
			true,
		},
		{
			"the cable comes out at the save",
			sim.Faults{CutAtSave: true},
			msp.Set,
			"did not confirm that it saved, but after a reboot",
			false,
		},
		{"it takes its time to save", sim.Faults{SaveMS: 1500}, msp.Set, "reads back right", false},
		{
			"it takes no notice of one command",
			sim.Faults{Drops: msp.CmdSetRXMap},
			msp.Differs,
			"Not as set: channel order",
			true,
		},
		{"the older list of ports", sim.Faults{OldPorts: true}, msp.Set, "reads back right", false},
		{
			"refusals in the manner of version 1",
			sim.Faults{OldPorts: true, V1Errors: true},
			msp.Set,
			"reads back right",
			false,
		},
		{"no OSD and no canvas", sim.Faults{NoOSD: true, NoCanvas: true}, msp.Set, "reads back right", false},
		{"frames of a wrong length", sim.Faults{WrongLength: true}, msp.Set, "reads back right", false},
		{"frames nobody has asked for", sim.Faults{Chatter: true}, msp.Set, "reads back right", false},
		{"it is armed", sim.Faults{Armed: true}, msp.Unchanged, "armed", false},
		{"it says it is another", sim.Faults{Variant: "OTHR"}, msp.Unchanged, "another", false},
		{"it is slow", sim.Faults{SlowMS: 20}, msp.Set, "reads back right", false},
	} {
		t.Run(c.name, func(t *testing.T) {
			b, _ := board(t, state())
			if c.fault.SaveMS == 0 {
				c.fault.SaveMS = 5
			}
			c.fault.RebootMS = 60
			b.Break(c.fault)
			var kept []setup.State
			r := msp.Apply(context.Background(), dialer(b), func(found setup.State) (setup.State, string) {
				switch {
				case found.Armed:
					return found, "it is armed"
				case found.Variant != "TEST":
					return found, "it is another board"
				}
				return to(found), ""
			}, func(s setup.State) error { kept = append(kept, s); return nil })
			assert.Equal(t, c.outcome, r.Outcome, r)
			assert.Contains(t, r.Says, c.says)
			assert.Equal(t, c.restore, r.Restore)
			if c.outcome == msp.Unchanged {
				assert.Empty(t, kept)
				return
			}
			require.Len(t, kept, 1)
			assert.Equal(t, "AETR", kept[0].RXMap)
			if c.outcome == msp.Set {
				assert.Equal(t, "TAER", b.Saved().RXMap)
			} else {
				assert.Equal(t, "AETR", b.Saved().RXMap, "nothing was saved")
			}
		})
	}
	b, _ := board(t, state())
	r := msp.Apply(context.Background(), dialer(b), func(found setup.State) (setup.State, string) {
		return to(found), ""
	}, func(setup.State) error { return errors.New("disk full") })
	assert.Equal(t, msp.Unchanged, r.Outcome)
	assert.Contains(t, r.Says, "Disk full.")
	assert.Equal(t, "AETR", b.Saved().RXMap)
}

// What is put back is what was kept, to the last byte, bits not understood among them.
func TestWhatWasKeptIsPutBackToTheByte(t *testing.T) {
	ctx := context.Background()
	odd := state()
	odd.OSD = make([]setup.Cell, 10)
	odd.Modes = []setup.Range{
		{Mode: 0, Aux: 0, FromUS: 1700, ToUS: 2100},
		{Mode: 7, Aux: 3, FromUS: 900, ToUS: 900},
		{Mode: 13, Aux: 2, FromUS: 900, ToUS: 1300},
	}
	odd.Ports[0].Rest = []byte{5, 4, 0, 5, 0xAA, 0xBB} // fields of newer firmware
	odd.Ports[1].Rest = []byte{5, 4, 0, 5, 1, 2}
	odd.Ports = append(odd.Ports, setup.Port{ID: 20, Functions: 1, Rest: []byte{5, 4, 0, 5, 3, 4}})
	odd.OSD[4].Rest = 0xC000
	b, c := board(t, odd)
	kept, err := msp.ReadBoard(ctx, c)
	require.NoError(t, err)
	saved := b.Saved()
	assert.Equal(t, uint16(0xC000), kept.OSD[4].Rest)
	assert.Len(t, kept.Ports[0].Rest, 6)

	other := kept.Clone()
	other.Features, other.Provider, other.RXMap, other.Modes, other.OSD[4] = 1, 9, "TAER", nil, setup.Cell{X: 3}
	other.Ports[0].Functions = 0
	require.NoError(t, msp.WriteBoard(ctx, c, kept, other))
	require.NoError(t, msp.Save(ctx, c))
	changed, err := msp.ReadBoard(ctx, c)
	require.NoError(t, err)
	require.NoError(t, msp.WriteBoard(ctx, c, changed, kept))
	require.NoError(t, msp.Save(ctx, c))
	assert.Equal(t, saved, b.Saved())
}

// However often a write breaks off, arming is never on less than it was: new ranges go
// before others are emptied.
func TestABrokenWriteLeavesNoLessOfArming(t *testing.T) {
	ctx := context.Background()
	from := state()
	from.Modes = []setup.Range{{Mode: 0, Aux: 0, FromUS: 1700, ToUS: 2100}, {Mode: 13, Aux: 2, FromUS: 900, ToUS: 1300}}
	for cut := 1; cut < 6; cut++ {
		b, c := board(t, from)
		found, err := msp.ReadBoard(ctx, c)
		require.NoError(t, err)
		target := found.Clone()
		target.Modes = []setup.Range{
			{FromUS: 900, ToUS: 900},
			{Mode: 13, Aux: 2, FromUS: 900, ToUS: 1300},
			{Mode: 0, Aux: 4, FromUS: 1700, ToUS: 2100},
		}
		var arms int
		b.Watch(func(s setup.State) {
			arms = 0
			for _, r := range s.Modes {
				if r.Mode == 0 && !r.Empty() {
					arms++
				}
			}
			assert.GreaterOrEqual(t, arms, 1, "cut %d", cut)
		})
		_ = msp.WriteBoard(ctx, c, found, target)
	}
}
